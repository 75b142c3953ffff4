import { z } from 'zod';
import { defineRule } from './rule.js';

const G = 9.81;
/** Two hinges do up to this height and mass; each further step takes one more. */
const TWO_UP_TO_MM = 900;
const TWO_UP_TO_KG = 7;
const STEP_MM = 700;
const STEP_KG = 7;

export const hingesRule = defineRule({
  name: 'hinges',
  title: 'How many hinges a door or lid hangs on',
  formula: '2 up to 900 mm and 7 kg; one more for each further 700 mm or 7 kg, whichever asks for more',
  reason:
    'A heavy or high door on two hinges sinks and bends its sides out. A door of unknown mass is counted by its height.',
  input: z.strictObject({
    length: z.number().min(0).max(5000).meta({ unit: 'mm' }),
    mass: z.number().min(0).max(500).meta({ unit: 'kg' }).nullable(),
  }),
  run: ({ length, mass }) => {
    const more = Math.max((length - TWO_UP_TO_MM) / STEP_MM, ((mass ?? 0) - TWO_UP_TO_KG) / STEP_KG, 0);
    return { count: 2 + Math.ceil(more - 1e-9) };
  },
});

/** How deep the cup of a concealed hinge is bored, and how much of a door is left under it at least, mm. */
const CUP_DEEP_MM = 12.5;
const UNDER_CUP_MM = 2;

export const cupRule = defineRule({
  name: 'hinge-cup',
  title: 'Whether a door is thick enough for the cup of a hinge',
  formula: 'left = thickness - 12.5; takes a cup where at least 2 mm is left, 3 is better',
  reason: 'A cup bored too deep shows on the face, or comes out of it. Thinner doors hang on butt hinges.',
  input: z.strictObject({ thickness: z.number().positive().max(200).meta({ unit: 'mm' }) }),
  run: ({ thickness }) => ({ left: thickness - CUP_DEEP_MM, takes: thickness - CUP_DEEP_MM >= UNDER_CUP_MM }),
});

/** Where a gas strut takes hold of a door, as a share of its height from the hinge, and its angle to the door at the worst. */
const STRUT_AT = 0.4;
const STRUT_DEGREES = 30;
const STRUT_SPARE = 1.15;

export const strutRule = defineRule({
  name: 'strut-force',
  title: 'Force of each of two gas struts that hold a door up',
  formula: 'newtons = mass x 9.81 x height / 2 / (2 x a x sin 30) x 1.15, with a = 0.4 x height from the hinge',
  reason:
    'At the worst angle they just carry the door, with 15 % over for cold gas. Try the place of the struts in scrap.',
  input: z.strictObject({
    height: z.number().positive().max(5000).meta({ unit: 'mm' }),
    mass: z.number().min(0).max(500).meta({ unit: 'kg' }),
  }),
  run: ({ height, mass }) => ({
    newtons:
      ((mass * G * (height / 2)) / (2 * STRUT_AT * height * Math.sin((STRUT_DEGREES * Math.PI) / 180))) * STRUT_SPARE,
  }),
});

/** In a vehicle a slide bears so much of what its sheet says. */
export const SLIDE_SHARE = 0.75;

export const slideRule = defineRule({
  name: 'slide-load',
  title: 'What a pair of slides has to be rated for',
  formula: 'rated kg = (drawer + what is in it) / 0.75',
  reason: 'On the road what they carry jumps; data sheets speak of a kitchen that stands still.',
  input: z.strictObject({ mass: z.number().min(0).max(1000).meta({ unit: 'kg' }) }),
  run: ({ mass }) => ({ rated: mass / SLIDE_SHARE }),
});

/** Of what is moved, one holds so much of its weight at the worst. */
const HELD = { lifted: 1, turned: 0.5, slid: 0.3, runs: 0.05, hung: 0 } as const;
/** One person holds so much alone, bent over and at arm's length, kg, and reaches both ends of so much, mm. */
const ALONE_KG = 15;
const ALONE_MM = 1800;

export const handsRule = defineRule({
  name: 'hands',
  title: 'Whether one person moves something alone',
  formula:
    'held = mass x 1 where it is lifted, x 0.5 where it is turned up about an edge, x 0.3 where it slides wood on wood, x 0.05 on slides, x 0 where hinges or struts carry it; one person where at most 15 kg is held, and what is lifted is at most 1800 mm long',
  reason:
    'In a narrow room one bends over what one moves and holds it at arm’s length: less than one lifts outside. A long board that is lifted alone hits the lining at its other end.',
  input: z.strictObject({
    how: z.enum(['lifted', 'turned', 'slid', 'runs', 'hung']),
    mass: z.number().min(0).max(1000).meta({ unit: 'kg' }).nullable(),
    length: z.number().min(0).max(20_000).meta({ unit: 'mm' }),
  }),
  run: ({ how, mass, length }): { readonly held: number | null; readonly hands: 1 | 2 | null } => {
    const held = HELD[how] === 0 ? 0 : mass === null ? null : mass * HELD[how];
    if (how === 'lifted' && length > ALONE_MM) return { held, hands: 2 };
    return { held, hands: held === null ? null : held <= ALONE_KG ? 1 : 2 };
  },
});
