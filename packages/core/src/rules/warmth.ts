import { z } from 'zod';
import { defineRule } from './rule.js';

const thickness = z.number().positive().meta({ unit: 'mm' });
const conductivity = z.number().positive().meta({ unit: 'W/mK' });
const layers = z.array(z.strictObject({ thickness, conductivity }));

/** One way heat takes through a build-up: the share of the area that takes it, and its resistance, m2K/W. */
export interface HeatPath {
  readonly share: number;
  readonly resistance: number;
}

/** Resistance of a layer, m2K/W: d / lambda, d in mm. */
export const layerResistance = (thicknessMm: number, lambda: number): number => thicknessMm / 1000 / lambda;

/** U of parallel paths, W/m2K: sum of share / resistance (rules of ISO 6946's upper limit). */
export const uOfPaths = (paths: readonly HeatPath[]): number =>
  paths.reduce((sum, path) => sum + path.share / path.resistance, 0);

export const uValueRule = defineRule({
  name: 'u-value',
  title: 'Heat through a build-up',
  formula: 'U = 1 / (surface resistance + sum of d / lambda); battens as a parallel path by share of the area',
  reason: 'What the heater has to make up for.',
  input: z.strictObject({
    surfaceResistance: z.number().positive().meta({ unit: 'm2K/W' }),
    layers: layers.min(1),
    battens: z
      .strictObject({
        share: z.number().min(0).max(1).meta({ unit: 'share of the area' }),
        layers,
      })
      .optional(),
  }),
  run: ({ surfaceResistance, layers: between, battens }) => {
    const through = (list: typeof between): number =>
      list.reduce((sum, layer) => sum + layerResistance(layer.thickness, layer.conductivity), surfaceResistance);
    const share = battens?.share ?? 0;
    return {
      wattsPerSquareMetreKelvin: uOfPaths([
        { share: 1 - share, resistance: through(between) },
        ...(battens ? [{ share, resistance: through(battens.layers) }] : []),
      ]),
    };
  },
});
