import { z } from 'zod';
import { mm } from '../words/message.js';
import { atLeast, defineRule, graded, type Verdict } from './rule.js';

/** What one fixing holds for good, N: a wood screw of 5 mm across in a batten, and a rivet nut M6 in the flange of a rib. */
const SCREW_N = 400;
const NUT_N = 1200;
/** Nothing is held by fewer. */
const FEWEST_SCREWS = 4;
const FEWEST_NUTS = 2;

export const roadLoadRule = defineRule({
  name: 'road-load',
  title: 'What the fixings of a unit hold on the road',
  formula:
    'newtons = 20 x mass; screws of 5 mm in a batten = newtons / 400, at least 4; rivet nuts M6 in a rib = newtons / 1200, at least 2; rounded up',
  reason:
    'About twice its weight: hard braking and potholes, not a crash. Seats used on the road and their anchorages are for an approved installer.',
  input: z.strictObject({ mass: z.number().min(0).max(5000).meta({ unit: 'kg' }) }),
  run: ({ mass }) => {
    const newtons = 20 * mass;
    return {
      newtons,
      screws: Math.max(FEWEST_SCREWS, Math.ceil(newtons / SCREW_N)),
      nuts: Math.max(FEWEST_NUTS, Math.ceil(newtons / NUT_N)),
    };
  },
});

export const tiePointsRule = defineRule({
  name: 'tie-points',
  title: 'What ties down a load',
  formula:
    'pull = 20 x load in kg; all tie points together: good: >= 1.5 x pull; tight: >= pull; unknown without a load',
  reason:
    'A crate or a press that comes loose in hard braking hurts whoever sits before it. Eyes and straps hold what their sheet says, not more.',
  input: z.strictObject({
    load: z.number().min(0).max(5000).meta({ unit: 'kg' }).nullable(),
    eyes: z.int().min(0),
    holds: z.number().min(0).max(20_000).meta({ unit: 'N' }),
    name: z.string().default('load'),
  }),
  run: ({ load, eyes, holds, name }): Verdict => {
    const pull = 20 * (load ?? 0);
    return atLeast(load === null ? null : eyes * holds, 1.5 * pull, pull, (grade) =>
      graded('rule.tiePoints', { name, load: load ?? 0, eyes, holds: eyes * holds, newtons: Math.ceil(pull) })(grade),
    );
  },
});

/** What is lighter together hurts nobody when it slides off a shelf, kg. */
const LIGHT_KG = 2;
/** A lip holds what is no higher than so many times itself. */
const LIP_TIMES = 4;
export const heldOnRoadRule = defineRule({
  name: 'road-held',
  title: 'Loose on the road',
  formula:
    'good: behind a front that shuts, in a drawer, tied down, or behind a lip of at least a quarter of its height; tight: in an open hold, standing by itself, below 2 kg on an open shelf, on open shelves that nothing is named for, behind a lower lip; fails: 2 kg and more on an open shelf; unknown: nobody said where it is kept',
  reason: 'What is loose flies in hard braking: about twice its weight has to be held, without a crash.',
  input: z.strictObject({
    by: z.enum(['front', 'lip', 'tied', 'nothing', 'unknown']),
    mass: z.number().min(0).max(50_000).meta({ unit: 'kg' }),
    lip: z.number().min(0).max(10_000).meta({ unit: 'mm' }),
    high: z.number().min(0).max(10_000).meta({ unit: 'mm' }),
    where: z.enum(['shelf', 'hold', 'alone', 'nowhere']),
    thing: z.string().default(''),
    name: z.string().default(''),
  }),
  run: ({ by, mass, lip, high, where, thing, name }): Verdict => {
    const params = { thing, name, newtons: Math.ceil(20 * mass), lip: mm(lip), wants: mm(Math.ceil(high / LIP_TIMES)) };
    const key =
      where === 'alone'
        ? 'rule.roadAlone'
        : by === 'lip'
          ? 'rule.roadLip'
          : where === 'hold'
            ? 'rule.roadHold'
            : thing === ''
              ? 'rule.roadShelf'
              : 'rule.roadHeld';
    const safe = by === 'front' || by === 'tied' || (by === 'lip' && LIP_TIMES * lip >= high);
    const bad = by === 'nothing' && where === 'shelf' && thing !== '' && mass >= LIGHT_KG;
    return atLeast(by === 'unknown' ? null : safe ? 2 : bad ? 0 : 1, 2, 1, (grade) => graded(key, params)(grade));
  },
});
