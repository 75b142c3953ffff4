import { z } from 'zod';
import { dewPoint } from './damp.js';
import { riseOver } from '../words/angle.js';
import { defineRule } from './rule.js';

const slope = z.number().min(-30).max(30).meta({ unit: 'degrees' });
const length = z.number().meta({ unit: 'mm' });
const positive = z.number().positive().meta({ unit: 'mm' });

export const dewPointRule = defineRule({
  name: 'dew-point',
  title: 'Where air begins to dew',
  formula: 'Magnus: p = 610.94 exp(17.625 T / (T + 243.04)); the temperature at which p of the air is full',
  reason: 'A face colder than this gets wet.',
  input: z.strictObject({
    inside: z.number().min(-20).max(60).meta({ unit: 'C' }),
    humidity: z.number().min(1).max(100).meta({ unit: '%' }),
  }),
  run: ({ inside, humidity }) => ({ celsius: dewPoint(inside, humidity) }),
});

export const levelRiseRule = defineRule({
  name: 'level-rise',
  title: 'What a slope makes over a length',
  formula: 'rise = run x tan(slope)',
  reason: 'A vehicle is rarely level: a spirit level lies by this much.',
  input: z.strictObject({ degrees: slope, run: length }),
  run: ({ degrees, run }) => ({ rise: riseOver(degrees, run) }),
});

export const stringLineRule = defineRule({
  name: 'string-line',
  title: 'A line parallel to the floor',
  formula:
    'by tape both ends are `height` above the floor; against a level line the rear end differs by run x tan(slope)',
  reason: 'Overheads are set out from the floor, not from a spirit level.',
  input: z.strictObject({ height: positive, run: positive, degrees: slope }),
  run: ({ height, run, degrees }) => ({ front: height, rear: height, rearAgainstLevel: riseOver(degrees, run) }),
});
