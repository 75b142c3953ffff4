import { z } from 'zod';

const LARGEST = 100_000;
export const idSchema = z.string().regex(/^[A-Za-z0-9][A-Za-z0-9_-]{0,59}$/, 'an id of letters, digits, - and _');
/** Characters that no keyboard types and no file, label or list bears: zero and its kin. */
// eslint-disable-next-line no-control-regex
const CONTROL = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f]/g;
/** A name as it is typed: what else came along with it is let go, as spaces round it are. */
export const nameSchema = z
  .string()
  .overwrite((text) => text.replace(CONTROL, ''))
  .trim()
  .min(1)
  .max(80);
export const positionSchema = z.number().min(-LARGEST).max(LARGEST);
export const sizeSchema = z.number().positive().max(LARGEST);
export const thicknessSchema = z.number().positive().max(500);
export const gapSchema = z.number().min(0).max(1000);
export const moneySchema = z.int().min(0).max(1e12);

/** What pieces are set out by, again and again over a surface, mm: nothing narrower is made, and no set-out has more of them than this allows. */
export const pitchSchema = z.number().min(10).max(5000);
/** A pitch, or 0 where there is none. */
export const pitchOrNoneSchema = z.union([z.literal(0), pitchSchema]);
/** From one batten to the next, mm. */
export const spacingSchema = z.number().min(50).max(5000);
/** Length or width of what is sold, mm. */
export const stockSizeSchema = z.number().min(10).max(LARGEST);
/** What one pack holds, in the unit it is sold by. */
export const contentsSchema = z.number().min(0.001).max(1e6);
