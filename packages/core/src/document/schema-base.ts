import { z } from 'zod';

const LARGEST = 100_000;
export const idSchema = z.string().regex(/^[A-Za-z0-9][A-Za-z0-9_-]{0,59}$/, 'an id of letters, digits, - and _');
export const nameSchema = z.string().trim().min(1).max(80);
export const positionSchema = z.number().min(-LARGEST).max(LARGEST);
export const sizeSchema = z.number().positive().max(LARGEST);
export const thicknessSchema = z.number().positive().max(500);
export const gapSchema = z.number().min(0).max(1000);
export const moneySchema = z.int().min(0).max(1e12);
