import { z } from 'zod';
import { defineRule } from './rule.js';

/** A square cut is good enough while it leaves less than this open over the thickness, mm. */
const SQUARE_CUT_MM = 1;

/** What a square cut leaves open over a thickness against a lean in radians, mm: thickness x tan(lean). */
export const openBy = (thickness: number, lean: number): number => thickness * Math.tan(Math.abs(lean));
export const isSquareEnough = (open: number): boolean => open < SQUARE_CUT_MM;

export const bevelRule = defineRule({
  name: 'bevel',
  title: 'Bevel of an edge against a leaning wall',
  formula: 'open = thickness x tan(lean); a square cut is fine when open < 1 mm',
  reason: 'A thick panel against a leaning wall touches with one arris only.',
  input: z.strictObject({
    thickness: z.number().positive().meta({ unit: 'mm' }),
    leanDegrees: z.number().min(-80).max(80).meta({ unit: 'degrees' }),
  }),
  run: ({ thickness, leanDegrees }) => {
    const open = openBy(thickness, (leanDegrees * Math.PI) / 180);
    return { open, squareCut: isSquareEnough(open) };
  },
});
