import { z } from 'zod';
import { mm } from '../words/message.js';
import { atLeast, atMost, defineRule, figure, graded, guard, type Verdict } from './rule.js';

const length = z.number().min(-100_000).max(100_000).meta({ unit: 'mm' });
const name = z.string().default('');

/** Round things lie in a round hole with room between them: so many times the diameter of one as thick as all. */
const LOOSE = 1.25;
const PULLED_MM = 2;
/** An exhaust is kept so far from wood, mm. */
const HOT_CLEAR_MM = 50;
export const bundleRule = defineRule({
  name: 'bundle-hole',
  title: 'The hole for what goes through a board',
  formula:
    'one: its diameter + 2; several: 1.25 x root of the sum of squares + 2; what is hot: its diameter + 2 x 50, with the sleeve or plate of its manual; rounded up to a whole mm',
  reason: 'A bundle is not solid, and it has to be pulled through; a grommet or a rounded edge keeps it from chafing.',
  input: z.strictObject({
    diameters: z
      .array(z.number().positive().max(1000).meta({ unit: 'mm' }))
      .min(1)
      .max(200),
    hot: z.boolean().default(false),
  }),
  run: ({ diameters, hot }) => {
    const thick = Math.sqrt(diameters.reduce((sum, one) => sum + one * one, 0));
    const round = (diameters.length > 1 ? LOOSE : 1) * thick;
    return { hole: Math.ceil(round + (hot ? 2 * HOT_CLEAR_MM : PULLED_MM) - 1e-9) };
  },
});

export const holeEdgeRule = defineRule({
  name: 'hole-edge',
  title: 'Wood left beside a hole',
  formula: 'from the hole to the nearest edge, opening or other hole of the board, good: >= 25; tight: >= 12',
  reason: 'With less a board splits there, or the hole breaks out at its edge.',
  figures: {
    good: figure('good', 25),
    tight: figure('tight', 12),
  },
  input: z.strictObject({ left: length, diameter: length, name, run: name, board: name }),
  run: ({ left, diameter, name: unit, run, board }, { good, tight }) =>
    atLeast(left, good, tight, (grade, spare) =>
      graded('rule.holeEdge', {
        name: unit,
        run,
        board,
        left: mm(Math.max(0, left)),
        diameter: mm(diameter),
        short: mm(-(spare ?? 0)),
      })(grade),
    ),
});

export const movingRunRule = defineRule({
  name: 'run-moving',
  title: 'Runs keep out of what moves, and out of boards',
  formula:
    'good: it goes through nothing that slides, swings or comes off, and along no board within its thickness; tight: through the panel of a bay for cables and ducts, slotted to its edge; fails: it does',
  reason: 'A pipe through a drawer holds it shut; one that lies in a board cannot be laid.',
  input: z.strictObject({ through: z.enum(['moving', 'board', 'panel']), name, run: name, board: name }),
  run: ({ through, name: unit, run, board }): Verdict =>
    atLeast(-1, 0, through === 'panel' ? -1 : 0, (grade) =>
      graded({ moving: 'rule.runMoving', board: 'rule.runInBoard', panel: 'rule.runPanel' }[through], {
        name: unit,
        run,
        board,
      })(grade),
    ),
});

export const runEndsRule = defineRule({
  name: 'run-ends',
  title: 'Both ends of a run',
  formula: 'good: both ends are somewhere; unknown: nobody has said where one of them is',
  reason: 'Without its ends its way, its holes and its length are not known.',
  input: z.strictObject({ run: name }),
  run: ({ run }): Verdict => atLeast(null, 0, 0, (grade) => graded('rule.runEnds', { run })(grade)),
});

/** So much in mid-air is a bend on its way in, mm. */
const AIR_MM = 40;
export const openRunRule = defineRule({
  name: 'run-open',
  title: 'Runs across the way',
  formula:
    'of its length in the open where one walks, below 1900; good: 0; tight: any, under a threshold or in the floor; fails: more than 40 of it in mid-air, on no floor and along no wall, roof or furniture',
  reason:
    'What lies across the way is stepped on and tripped over; a pipe or cable in mid-air is held by nothing and cannot be laid so.',
  input: z.strictObject({ open: length, air: length.default(0), run: name }),
  run: ({ open, air, run }) =>
    air > AIR_MM
      ? atMost(air, 0, AIR_MM, (grade) => graded('rule.runAir', { run, air: mm(air) })(grade))
      : atMost(open, 0, Infinity, (grade) => graded('rule.runOpen', { run, open: mm(open) })(grade)),
});

/** A waste pipe falls by so much over a metre, where it is good, mm. */
export const FALL_GOOD = 20;
export const drainFallRule = defineRule({
  name: 'drain-fall',
  title: 'Fall of a waste pipe',
  formula:
    'fall of its flattest stretch over its level length, good: >= 20 mm a metre; tight: >= 10; fails: less, or it rises',
  reason: 'Water that stands in a pipe smells, freezes and blocks it. The vehicle does not stand level either.',
  figures: {
    good: figure('good', FALL_GOOD, 'mm a metre'),
    tight: figure('tight', 10, 'mm a metre'),
  },
  input: z.strictObject({ fall: z.number().min(-10_000).max(10_000).meta({ unit: 'mm a metre' }), run: name }),
  run: ({ fall, run }, { good, tight }) =>
    atLeast(fall, good, tight, (grade, spare) =>
      graded('rule.drainFall', { run, fall: Math.round(fall), short: Math.ceil(-(spare ?? 0)) })(grade),
    ),
});

export const fuseRule = defineRule({
  name: 'fuse',
  title: 'What a cable carries against its fuse',
  formula:
    'amperes = watts of what it feeds / volts; good: fuse >= 1.25 x amperes; tight: >= amperes; unknown without a fuse',
  reason:
    'A fuse that is loaded to its rating blows in the heat. Choosing and connecting is for a licensed trade; local code and the maker’s sheet win.',
  input: z.strictObject({
    watts: z.number().min(0).max(100_000).meta({ unit: 'W' }),
    volts: z.number().positive().max(400).meta({ unit: 'V' }),
    fuse: z.number().positive().max(500).meta({ unit: 'A' }).nullable(),
    run: name,
  }),
  run: ({ watts, volts, fuse, run }) => {
    const amps = watts / volts;
    return atLeast(fuse, 1.25 * amps, amps, (grade) =>
      graded('rule.fuse', { run, amps: one(amps), fuse: fuse ?? 0, wants: one(1.25 * amps) })(grade),
    );
  },
});

/** Amperes that single copper conductors carry for long in a bundle, by their section in mm2: cautious common figures. */
const CARRIES: readonly (readonly [number, number])[] = [
  [0.75, 6],
  [1, 10],
  [1.5, 14],
  [2.5, 20],
  [4, 28],
  [6, 36],
  [10, 50],
  [16, 70],
  [25, 95],
  [35, 120],
  [50, 150],
  [70, 190],
];
/** What copper of a section carries for long in a bundle, A; 0 below the thinnest. */
export const carriedBy = (copper: number): number => CARRIES.filter(([area]) => area <= copper).at(-1)?.[1] ?? 0;
/** The thinnest usual section that carries so many amperes, mm2; null where none does. */
export const copperFor = (amps: number): number | null => CARRIES.find(([, carries]) => carries >= amps)?.[0] ?? null;
/** Usual sections of copper, mm2. */
export const SECTIONS: readonly number[] = CARRIES.map(([area]) => area);
/** Usual fuses, A. */
const FUSES = [1, 2, 3, 5, 7.5, 10, 15, 20, 25, 30, 40, 50, 60, 80, 100, 125, 150, 200, 250, 300, 400, 500];
/** The smallest usual fuse that is not loaded above four fifths, A; null where none is that large. */
export const fuseFor = (amps: number): number | null => FUSES.find((fuse) => fuse >= 1.25 * amps - 1e-9) ?? null;

export const cableRule = defineRule({
  name: 'cable-fuse',
  title: 'A fuse guards its cable',
  formula:
    'fuse <= what the copper carries: 0.75 mm2 6 A, 1 10, 1.5 14, 2.5 20, 4 28, 6 36, 10 50, 16 70, 25 95, 35 120, 50 150, 70 190; unknown without its section',
  reason: 'A cable thinner than its fuse burns first. For orientation only: a licensed trade and local code decide.',
  input: z.strictObject({
    fuse: z.number().positive().max(500).meta({ unit: 'A' }),
    copper: z.number().positive().max(200).meta({ unit: 'mm2' }).nullable(),
    run: name,
  }),
  run: ({ fuse, copper, run }) => {
    const carries = copper === null ? null : carriedBy(copper);
    return atLeast(carries, fuse, fuse, (grade) =>
      graded('rule.cableFuse', { run, fuse, copper: copper ?? 0, carries: carries ?? 0 })(grade),
    );
  },
});

/** Of copper at 20 C, ohm mm2 / m. */
const RESISTIVITY = 0.0178;
/** Of the voltage lost there and back over a length in mm, %. */
export const shareLost = (length: number, watts: number, volts: number, copper: number): number =>
  (((2 * (length / 1000) * RESISTIVITY * watts) / volts / copper) * 100) / volts;
export const DROP_GOOD = 3;
export const dropRule = defineRule({
  name: 'voltage-drop',
  title: 'Voltage lost in a cable',
  formula:
    'volts lost = 2 x length x 0.0178 x amperes / mm2; as a share, good: <= 3 %; tight: <= 5 %; unknown without its section',
  reason: 'A compressor or heater does not start on what is left at the end of a long thin cable.',
  figures: {
    good: figure('good', DROP_GOOD, '%'),
    tight: figure('tight', 5, '%'),
  },
  input: z.strictObject({
    length: length,
    watts: z.number().min(0).max(100_000).meta({ unit: 'W' }),
    volts: z.number().positive().max(400).meta({ unit: 'V' }),
    copper: z.number().positive().max(200).meta({ unit: 'mm2' }).nullable(),
    run: name,
  }),
  run: ({ length: far, watts, volts, copper, run }, { good, tight }) => {
    const share = copper === null ? null : shareLost(far, watts, volts, copper);
    return atMost(share, good, tight, (grade) =>
      graded('rule.drop', { run, share: one(share ?? 0), copper: copper ?? 0, length: mm(far) })(grade),
    );
  },
});
const one = (value: number): number => Math.round(value * 10) / 10;

export const ductRule = defineRule({
  name: 'duct-section',
  title: 'The narrowest place air goes through',
  formula:
    'section = pi / 4 x diameter2; good: >= the opening the data sheet asks for, else the vent area of its heat over the rise between the ends; tight: >= 0.8 of that',
  reason: 'Air is held back where its way is narrowest, however large the openings at its ends are.',
  input: z.strictObject({
    diameter: z.number().positive().max(1000).meta({ unit: 'mm' }),
    wants: z.number().min(0).max(10_000).meta({ unit: 'cm2' }),
    thing: name,
    run: name,
  }),
  run: ({ diameter, wants, thing, run }) => {
    const section = (Math.PI / 4) * diameter * diameter * 0.01;
    return atLeast(section, wants, 0.8 * wants, (grade) =>
      graded('rule.duct', { run, thing, section: Math.round(section), wants: Math.ceil(wants - 1e-9) })(grade),
    );
  },
});

export const flueClearRule = defineRule({
  name: 'flue-clear',
  title: 'An exhaust keeps off wood',
  formula:
    'from its outside to the nearest board that it does not go through, good: >= 50; tight: >= 25; or as its manual says',
  reason:
    'An exhaust gets hot enough to char wood and to melt foam. The manual of the appliance and local code win; its connection is for a licensed trade.',
  figures: { good: guard('good', HOT_CLEAR_MM), tight: guard('tight', 25) },
  input: z.strictObject({ clear: length, run: name, board: name, name }),
  run: ({ clear, run, board, name: unit }, { good, tight }) =>
    atLeast(clear, good, tight, (grade, spare) =>
      graded('rule.flueClear', { run, board, name: unit, clear: mm(Math.max(0, clear)), short: mm(-(spare ?? 0)) })(
        grade,
      ),
    ),
});
