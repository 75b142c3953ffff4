import { z } from 'zod';
import { mm } from '../words/message.js';
import { atLeast, defineRule, graded, type Verdict, guard } from './rule.js';

const length = z.number().min(-100_000).max(100_000).meta({ unit: 'mm' });
const name = z.string().default('');

/** Connections that something else in the vehicle has to give. */
export const GIVEN = ['12 V', 'mains', 'water', 'waste', 'gas'] as const;
/** Those that a pipe or duct of their own has to bring from outside or take there. */
export const OUTSIDE = ['air', 'flue', 'fuel'] as const;
const WORD = {
  '12 V': 'connection.low',
  mains: 'connection.mains',
  water: 'connection.water',
  waste: 'connection.waste',
  gas: 'connection.gas',
  air: 'connection.air',
  flue: 'connection.flue',
  fuel: 'connection.fuel',
} as const;

export const connectedRule = defineRule({
  name: 'connected',
  title: 'What an appliance is connected to',
  formula:
    'each connection of its data sheet is given by something that stands in the layout: 12 V by a battery, mains by an inverter, water and waste by a tank for it, gas by a bottle, each of them also by a run that leads to it from a place outside the furniture; air, flue and fuel by such a run alone, and so a charger its mains; tight: by none, as long as nobody has said where it comes from',
  reason:
    'An appliance without its tank, battery or bottle is found out on the first evening. Gas and mains are for licensed trades and local code.',
  input: z.strictObject({ wants: z.enum([...GIVEN, ...OUTSIDE]), by: name, thing: name, name }),
  run: ({ wants, by, thing, name: unit }): Verdict =>
    atLeast(by === '' ? 0 : 1, 1, 0, (grade) =>
      graded('rule.connected', { thing, name: unit, by, wants: { word: WORD[wants] } })(grade),
    ),
});

/** An inverter is not loaded to its rating for long: so many times what is drawn. */
const MARGIN = 1.25;
export const mainsPowerRule = defineRule({
  name: 'mains-power',
  title: 'What an inverter gives, and what is drawn',
  formula:
    'watts of an appliance against what the strongest inverter gives for long; good: >= 1.25 x; tight: >= 1 x; unknown where its sheet does not state it. All together against all inverters; tight: not at once; what a cable from outside feeds is not counted',
  reason:
    'An inverter that is asked for more than it gives switches off, or burns its cable. Choosing and connecting is for a licensed trade.',
  input: z.strictObject({
    watts: z.number().min(0).max(100_000).meta({ unit: 'W' }),
    gives: z.number().min(0).max(100_000).meta({ unit: 'W' }).nullable(),
    /** All at once, which nobody need do. */
    all: z.boolean().default(false),
    thing: name,
    name,
    by: name,
  }),
  run: ({ watts, gives, all, thing, name: unit, by }): Verdict =>
    all
      ? atLeast(gives, watts, 0, (grade) => graded('rule.mainsAll', { by, watts, gives: gives ?? 0 })(grade))
      : atLeast(gives, MARGIN * watts, watts, (grade) =>
          graded('rule.mainsPower', { thing, name: unit, by, watts, gives: gives ?? 0 })(grade),
        ),
});

export const socketWaterRule = defineRule({
  name: 'socket-water',
  title: 'Sockets away from water',
  formula: 'from an outlet to the nearest edge of a sink or basin, good: >= 600; tight: >= 300',
  reason: 'Splashes and wet hands. Local code says how far it has to be, and may ask for more.',
  figures: {
    good: guard('good', 600),
    tight: guard('tight', 300),
  },
  input: z.strictObject({ apart: length, name, sink: name }),
  run: ({ apart, name: outlet, sink }, { good, tight }) =>
    atLeast(apart, good, tight, (grade, spare) =>
      graded('rule.socketWater', { name: outlet, sink, apart: mm(apart), short: mm(-(spare ?? 0)) })(grade),
    ),
});
