import { z } from 'zod';
import { message, mm } from '../words/message.js';
import { atLeast, defineRule, graded, type Verdict } from './rule.js';

const length = z.number().min(-100_000).max(100_000).meta({ unit: 'mm' });
const box = z.strictObject({ x0: length, x1: length, y0: length, y1: length, z0: length, z1: length });
export type SolidBox = z.output<typeof box>;

/** Things that share less than this are side by side, mm. */
const TOUCH_MM = 0.5;

/** How far two upright boxes reach into each other along each axis; null when they do not meet. */
export function overlapOf(
  a: SolidBox,
  b: SolidBox,
): { readonly x: number; readonly y: number; readonly z: number } | null {
  const x = Math.min(a.x1, b.x1) - Math.max(a.x0, b.x0);
  if (x <= TOUCH_MM) return null;
  const y = Math.min(a.y1, b.y1) - Math.max(a.y0, b.y0);
  const z = Math.min(a.z1, b.z1) - Math.max(a.z0, b.z0);
  return y > TOUCH_MM && z > TOUCH_MM ? { x, y, z } : null;
}

export const collisionRule = defineRule({
  name: 'collision',
  title: 'Two things in one place',
  formula: 'overlap along x, y and z, each = least end - greatest start; a collision when all three exceed 0.5 mm',
  reason: 'Two solid things cannot share room.',
  input: z.strictObject({ a: box, b: box, nameA: z.string().default('a'), nameB: z.string().default('b') }),
  run: ({ a, b, nameA, nameB }): Verdict => {
    const overlap = overlapOf(a, b);
    const least = overlap ? Math.min(overlap.x, overlap.y, overlap.z) : 0;
    return {
      grade: overlap ? 'fails' : 'good',
      spare: -least,
      figure: least,
      good: 0,
      tight: 0,
      said: message(overlap ? 'rule.collision.fails' : 'rule.collision.good', {
        a: nameA,
        b: nameB,
        x: mm(overlap?.x ?? 0),
        y: mm(overlap?.y ?? 0),
        z: mm(overlap?.z ?? 0),
      }),
    };
  },
});

export const insideRule = defineRule({
  name: 'inside-shell',
  title: 'Inside the vehicle',
  formula: 'overrun = max(-start, end - room) for length and for height',
  reason: 'A unit has to stand within the floor and under the roof.',
  input: z.strictObject({
    start: length,
    end: length,
    room: length,
    name: z.string().default('unit'),
    what: z.enum(['length', 'height', 'depth', 'width']),
  }),
  run: ({ start, end, room, name, what }): Verdict => {
    const over = Math.max(-start, end - room);
    return {
      grade: over > TOUCH_MM ? 'fails' : 'good',
      spare: -over,
      figure: over,
      good: 0,
      tight: 0,
      said: message(`rule.inside.${what}.${over > TOUCH_MM ? 'fails' : 'good'}`, { name, over: mm(over) }),
    };
  },
});

/** A bed's boards over a wheel arch. */
export const archUnderRule = defineRule({
  name: 'arch-under',
  title: 'Boards over a wheel arch',
  formula:
    'clear = underside of the boards - top of the arch; fails when the arch comes up more than 0.5 mm through them',
  reason: 'An arch cannot be sawn off.',
  input: z.strictObject({
    underside: length,
    arch: length,
    name: z.string().default('bed'),
    archName: z.string().default('arch'),
  }),
  run: ({ underside, arch, name, archName }): Verdict => {
    const into = arch - underside;
    return {
      grade: into > TOUCH_MM ? 'fails' : 'good',
      spare: -into,
      figure: into,
      good: 0,
      tight: 0,
      said: message(into > TOUCH_MM ? 'check.bedArch.fails' : 'check.bedArch.good', {
        name,
        arch: archName,
        by: mm(Math.abs(into)),
      }),
    };
  },
});

/** What stands on the floor where a wheel arch is. */
export const archInRule = defineRule({
  name: 'arch-in',
  title: 'On a wheel arch',
  formula: 'overlap of the body and the arch along the vehicle, where they overlap across and up as well',
  reason: 'A carcass on the floor cannot stand where the arch is: it moves past it, or is notched.',
  input: z.strictObject({
    unit: box,
    arch: box,
    name: z.string().default('unit'),
    archName: z.string().default('arch'),
  }),
  run: ({ unit, arch, name, archName }): Verdict => {
    const overlap = overlapOf(unit, arch);
    const by = overlap?.x ?? 0;
    return {
      grade: overlap ? 'fails' : 'good',
      spare: -by,
      figure: by,
      good: 0,
      tight: 0,
      said: message('check.cupboardArch', { name, arch: archName, by: mm(by) }),
    };
  },
});

/** What is left of a bought cupboard's depth where its back is cut to the wall. */
export const boughtDepthRule = defineRule({
  name: 'bought-depth',
  title: 'What is left of a bought cupboard',
  formula: 'left = least from its front to the wall; good: >= 0.8 of its depth; tight: >= 0.5; fails: less',
  reason: 'Drawers, hinges and shelves inside are made for the depth it is sold with.',
  input: z.strictObject({ left: length, deep: length, name: z.string().default('cupboard') }),
  run: ({ left, deep, name }): Verdict =>
    atLeast(left, 0.8 * deep, 0.5 * deep, (grade, spare) =>
      graded('rule.boughtDepth', { name, left: mm(left), deep: mm(deep), short: mm(-(spare ?? 0)) })(grade),
    ),
});
