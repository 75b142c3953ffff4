import { z } from 'zod';
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
