import { z } from 'zod';
import { monotoneCurve, evaluate } from '../numeric/curve.js';
import { fixingRule, pilotRule } from './fixings.js';
import { dewPointRule, levelRiseRule, stringLineRule } from './level.js';
import * as people from './people.js';
import * as room from './room.js';
import { defineRule, type Rule } from './rule.js';

const positive = z.number().positive();

export const uValueRule = defineRule({
  name: 'u-value',
  title: 'Heat through a build-up',
  formula: 'U = 1 / (surface resistance + sum of d / lambda); battens as a parallel path by share of the area',
  reason: 'What the heater has to make up for.',
  input: z.strictObject({
    surfaceResistance: positive,
    layers: z.array(z.strictObject({ thickness: positive, conductivity: positive })).min(1),
    battens: z
      .strictObject({
        share: z.number().min(0).max(1),
        layers: z.array(z.strictObject({ thickness: positive, conductivity: positive })),
      })
      .optional(),
  }),
  run: ({ surfaceResistance, layers, battens }) => {
    const u = (list: typeof layers): number =>
      1 / list.reduce((sum, layer) => sum + layer.thickness / 1000 / layer.conductivity, surfaceResistance);
    return {
      wattsPerSquareMetreKelvin: battens
        ? battens.share * u(battens.layers) + (1 - battens.share) * u(layers)
        : u(layers),
    };
  },
});

export const bevelRule = defineRule({
  name: 'bevel',
  title: 'Bevel of an edge against a leaning wall',
  formula: 'open = thickness x tan(lean); a square cut is fine when open < 1 mm',
  reason: 'A thick panel against a leaning wall touches with one arris only.',
  input: z.strictObject({ thickness: positive, leanDegrees: z.number().min(-80).max(80) }),
  run: ({ thickness, leanDegrees }) => {
    const open = thickness * Math.tan((Math.abs(leanDegrees) * Math.PI) / 180);
    return { open, squareCut: open < 1 };
  },
});

export const cureRule = defineRule({
  name: 'cure-time',
  title: 'Curing in the cold',
  formula: 'hours = data sheet hours at 20 C x 2 ^ ((20 - temperature) / 10), never less than the data sheet',
  reason: 'Adhesives and coatings take about twice as long for each 10 K less.',
  input: z.strictObject({ hours: z.number().min(0), temperature: z.number().min(-30).max(60) }),
  run: ({ hours, temperature }) => ({ hours: hours * Math.max(1, 2 ** ((20 - temperature) / 10)) }),
});

export const wallCurveRule = defineRule({
  name: 'wall-curve',
  title: 'Distance of a wall between two readings',
  formula: 'monotone cubic through (height, distance)',
  reason: 'A straight wall stays straight and no wiggles appear.',
  input: z.strictObject({ points: z.array(z.tuple([z.number(), z.number()])).min(1), at: z.number() }),
  run: ({ points, at }) => {
    const sorted = [...points].sort((a, b) => a[0] - b[0]);
    return {
      distance: evaluate(
        monotoneCurve(
          sorted.map((p) => p[0]),
          sorted.map((p) => p[1]),
        ),
        at,
      ),
    };
  },
});

/** Every rule and formula that can be asked for by name. */
export const RULES: readonly Rule[] = [
  people.bedLengthRule,
  people.bedWidthRule,
  people.sittingUpRule,
  people.bedEdgeRule,
  people.standingRule,
  people.wayThroughRule,
  people.worktopRule,
  room.collisionRule,
  room.insideRule,
  bevelRule,
  uValueRule,
  cureRule,
  wallCurveRule,
  fixingRule,
  pilotRule,
  dewPointRule,
  levelRiseRule,
  stringLineRule,
] as unknown as readonly Rule[];

/** Finds a rule by name; null when there is none. */
export function ruleNamed(name: string): Rule | null {
  return RULES.find((rule) => rule.name === name) ?? null;
}
