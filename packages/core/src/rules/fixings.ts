import { z } from 'zod';
import { HAIR_MM } from '../numeric/tolerance.js';
import { defineRule } from './rule.js';

const positive = z.number().positive().meta({ unit: 'mm' });

/** Past the sheet steel, and short of whatever lies beyond, mm. */
const THROUGH_STEEL_MM = 6;
const SHORT_OF_BEYOND_MM = 5;
/** A wood screw bites at least this deep, mm, or six times its thickness. */
const LEAST_BITE_MM = 10;

export const fixingRule = defineRule({
  name: 'fixing-length',
  title: 'Length of a screw through a build-up',
  formula:
    'wood: passed + gap + max(10, 6 d), in thin wood 2/3 of it; steel: passed + gap + 6 beyond the sheet; at most passed + gap + depth - spare',
  reason: 'It has to bite, and its point must not reach the skin, a tank, a cable or a face in sight.',
  input: z.strictObject({
    passed: positive,
    gap: z.number().min(0).meta({ unit: 'mm' }),
    into: z.enum(['wood', 'steel']),
    depth: positive,
    diameter: positive,
    stocked: z.array(positive),
    /** Left before the point comes out: at a skin, a cable, a tank or a face that is seen; less where nothing is behind. */
    spare: z.number().min(0).meta({ unit: 'mm' }).optional(),
  }),
  run: ({ passed, gap, into, depth, diameter, stocked, spare = SHORT_OF_BEYOND_MM }) => {
    const before = passed + gap;
    const wanted = Math.max(LEAST_BITE_MM, 6 * diameter);
    const bite = into === 'steel' ? THROUGH_STEEL_MM : wanted > depth - spare ? (2 * depth) / 3 : wanted;
    const least = before + bite;
    const most = before + Math.max(bite, depth - spare);
    const fits = stocked
      .filter((length) => length >= least - HAIR_MM && length <= most + HAIR_MM)
      .sort((a, b) => a - b);
    return { least, most, pick: fits[0] ?? null };
  },
});

/** Shares of a screw's diameter. */
const PILOT = { wood: 0.7, metal: 0.85, brad: 0 } as const;
const EDGE_UNDRILLED = 5;
const EDGE_DRILLED = 3;

export const pilotRule = defineRule({
  name: 'pilot-hole',
  title: 'Pilot hole, and how near an edge a screw may go',
  formula: 'pilot: 0.7 d in wood, 0.85 d in sheet steel; 5 d from an edge undrilled, 3 d drilled',
  reason: 'A screw in a small hole holds without splitting the wood; near an edge thin ply splits even then.',
  input: z.strictObject({ kind: z.enum(['wood', 'metal', 'brad']), diameter: positive }),
  run: ({ kind, diameter }) => ({
    pilot: PILOT[kind] * diameter,
    undrilled: EDGE_UNDRILLED * diameter,
    drilled: EDGE_DRILLED * diameter,
  }),
});
