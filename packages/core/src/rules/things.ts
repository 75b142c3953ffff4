import { z } from 'zod';
import { mm, type Message } from '../words/message.js';
import { asParam, atLeast, atMost, defineRule, either, graded, spokenOf, type Verdict, figure, guard } from './rule.js';

const length = z.number().min(-100_000).max(100_000).meta({ unit: 'mm' });
const name = z.string().default('');

export const thingFitsRule = defineRule({
  name: 'thing-fits',
  title: 'A thing in its bay',
  formula: 'fails when width + 2 x side, depth + back, or height + top of its data sheet is more than the bay has',
  reason: 'What is on its sheet has to go in with the air it asks for.',
  input: z.strictObject({
    needs: z.strictObject({ wide: length, deep: length, high: length }),
    has: z.strictObject({ wide: length, deep: length, high: length }),
    thing: name,
    name,
  }),
  run: ({ needs, has, thing, name: bay }): Verdict => {
    const rows = (['wide', 'deep', 'high'] as const).map((way) => ({ way, spare: has[way] - needs[way] }));
    const worst = rows.reduce((least, next) => (next.spare < least.spare ? next : least));
    return atLeast(worst.spare, 0, 0, (grade) =>
      graded('rule.thingFits', {
        thing,
        name: bay,
        way: { word: `way.${worst.way}` },
        short: mm(-worst.spare),
        spare: mm(worst.spare),
      })(grade),
    );
  },
});

export const thingSizeRule = defineRule({
  name: 'thing-size',
  title: 'A thing drawn as its sheet says',
  formula: 'fails when any size of what stands alone differs from its data sheet by more than 1',
  reason: 'Two sizes of one thing cannot both be right.',
  input: z.strictObject({ off: length, name, thing: name }),
  run: ({ off, name: unit, thing }) =>
    atMost(off, 1, 1, (grade) => graded('rule.thingSize', { name: unit, thing, off: mm(off) })(grade)),
});

/** A door that opens so far of its way lets one reach in, though no drawer or shelf comes out. */
const DOOR_SHARE = 0.85;
export const thingOpensRule = defineRule({
  name: 'thing-opens',
  title: 'Room for an appliance to open',
  formula:
    'a lid needs its shorter side free over it, a flap its height before it, a door its width, a drawer its depth; good: clear >= that; tight: a door that gets 0.85 of its way; fails: less',
  reason: 'A lid under a worktop and an oven against a bench are found out with the first meal.',
  input: z.strictObject({
    clear: length,
    needs: length,
    how: z.enum(['lid', 'door', 'flap', 'drawer']),
    thing: name,
    name,
    by: name,
  }),
  run: ({ clear, needs, how, thing, name: bay, by }): Verdict =>
    atLeast(clear, needs, how === 'door' ? DOOR_SHARE * needs : needs, (grade) =>
      graded('rule.thingOpens', {
        thing,
        name: bay,
        how: { word: `opens.${how}` },
        clear: mm(clear),
        needs: mm(needs),
        by,
      })(grade),
    ),
});

const AIR = 1.2 * 1005;
/** Free opening that carries heat away by itself, cm2. A = Q / (0.6 sqrt(2 g h dT / T)), Q = P / (1.2 x 1005 x dT); dT = 10 K. */
export function ventArea(watts: number, between: number): number {
  const rise = 10;
  const flow = watts / (AIR * rise);
  return (flow / (0.6 * Math.sqrt((2 * 9.81 * Math.max(0.05, between / 1000) * rise) / 293))) * 1e4;
}

/** Air is driven through an opening by a fan no faster than this, m/s: more is loud, and the fan loses its flow. */
const FAN_SPEED = 2.5;
/** What a fan has to move for so much heat, m3 an hour, and the opening it wants, cm2. */
const fanFor = (watts: number): { readonly flow: number; readonly opening: number } => {
  const flow = watts / (AIR * 10);
  return { flow: flow * 3600, opening: (flow / FAN_SPEED) * 1e4 };
};

export const airRule = defineRule({
  name: 'appliance-air',
  title: 'Air for what makes heat',
  formula:
    'each of inlet and outlet >= what the data sheet asks for, else A = Q / (0.6 sqrt(2 g h dT / 293)) with Q = P / (1.2 x 1005 x dT) and dT = 10; at an open front half of what is free round the thing is inlet and half outlet, and no more than passes behind it: that is added to the openings cut in it. A fan counts by its flow: where its sheet states no openings and the fan moves Q, each has to be Q / 2.5 m/s; one that moves less counts for nothing',
  reason: 'Heat that cannot leave ruins the appliance, and worse. Combustion air and flues go by the manual.',
  input: z.strictObject({
    watts: z.number().min(0).meta({ unit: 'W' }),
    between: length,
    sheet: z.number().min(0).meta({ unit: 'cm2' }).nullable(),
    low: z.number().min(0).meta({ unit: 'cm2' }),
    high: z.number().min(0).meta({ unit: 'cm2' }),
    /** Free round the thing at its open front, and behind it where the air rises; null where the front is closed. */
    around: z.number().min(0).meta({ unit: 'cm2' }).nullable(),
    behind: z.number().min(0).meta({ unit: 'cm2' }).nullable(),
    /** What a fan moves, m3 an hour. */
    fan: z.number().min(0).default(0).meta({ unit: 'm3/h' }),
    thing: name,
    name,
  }),
  run: ({ watts, between, sheet, low, high, around, behind, fan, thing, name: bay }): Verdict => {
    const driven = fanFor(watts);
    const wants = sheet ?? (watts > 0 && fan >= driven.flow ? driven.opening : ventArea(watts, between));
    const open = around === null ? 0 : Math.min(around / 2, behind ?? Infinity);
    const has = Math.min(low, high) + open;
    const say = graded('rule.air', { thing, name: bay, has: Math.round(has), wants: Math.ceil(wants) });
    return atLeast(has, wants, wants, say);
  },
});

export const reachRule = defineRule({
  name: 'service-reach',
  title: 'Reached to be looked after',
  formula:
    'each face that the data sheet names is behind something that opens, comes off or slides out; before it good: >= 500 free; tight: >= 300; fails where nothing opens',
  reason: 'Everything that may fail is reached in the end, when all units stand.',
  figures: {
    good: figure('good', 500),
    tight: figure('tight', 300),
  },
  input: z.strictObject({ opens: z.boolean(), before: length, face: name, thing: name, name, by: name }),
  run: ({ opens, before, face, thing, name: bay, by }, { good, tight }) => {
    const say = graded('rule.reach', { face, thing, name: bay, before: mm(before), by });
    return opens
      ? atLeast(before, good, tight, say)
      : { ...either(false, say), said: graded('rule.reachShut', { face, thing, name: bay })('fails') };
  },
});

export const fuelRule = defineRule({
  name: 'fuel-and-flue',
  title: 'Gas, flue and combustion air',
  formula: 'unknown: it goes by the manual of the appliance and by local code',
  reason: 'It can hurt. Design and connection belong to licensed trades.',
  input: z.strictObject({ thing: name, which: name }),
  run: ({ thing, which }): Verdict => ({
    grade: 'unknown',
    spare: null,
    figure: null,
    good: 0,
    tight: 0,
    said: graded('rule.fuel', { thing, which })('unknown'),
  }),
});

/** What goes by a manual is never good: where it is not short, it is left to the manual. */
const byManual = (verdict: Verdict, said: Message): Verdict =>
  verdict.grade === 'good' ? { ...verdict, grade: 'unknown', spare: null, said } : verdict;

export const cookerRule = defineRule({
  name: 'above-cooker',
  title: 'What is above a cooker',
  formula:
    'clear = underside above - top of the cooker; tight: < 600; fails: < 450 or its sheet; else unknown: by manual',
  reason: 'Flames and steam. The manual of the appliance wins, and local code.',
  figures: {
    good: guard('good', 600),
    tight: guard('tight', 450),
  },
  input: z.strictObject({ clear: length, sheet: length, thing: name, by: spokenOf }),
  run: ({ clear, sheet, thing, by }, { good, tight }) => {
    const params = { thing, by: asParam(by), clear: mm(clear), sheet: mm(sheet) };
    return byManual(
      atLeast(clear, Math.max(good, sheet), Math.max(tight, sheet), (grade, spare) =>
        graded('rule.cooker', { ...params, short: mm(-(spare ?? 0)) })(grade),
      ),
      graded(sheet > 0 ? 'rule.cookerSheet' : 'rule.cooker', params)('unknown'),
    );
  },
});

export const besideCookerRule = defineRule({
  name: 'beside-cooker',
  title: 'What stands beside and behind a cooker',
  formula: 'clear = from its edge to what stands up beside or behind it; fails: < its sheet; else unknown: by manual',
  reason: 'Walls, curtains and cupboards beside a flame char. The manual of the appliance wins, and local code.',
  input: z.strictObject({ clear: length, sheet: length, thing: name, by: spokenOf }),
  run: ({ clear, sheet, thing, by }) => {
    const params = { thing, by: asParam(by), clear: mm(clear), sheet: mm(sheet) };
    return byManual(
      atLeast(clear, sheet, sheet, (grade, spare) =>
        graded('rule.besideCooker', { ...params, short: mm(-(spare ?? 0)) })(grade),
      ),
      graded('rule.besideCooker', params)('unknown'),
    );
  },
});

export const storedRule = defineRule({
  name: 'stored-thing',
  title: 'A stored thing in its place',
  formula:
    'its two smaller sizes as it is turned go through the clear opening, and all three stand inside; fails by what is missing in the best turn',
  reason: 'A crate that does not pass the frame stays outside.',
  input: z.strictObject({
    size: z.tuple([length, length, length]),
    opening: z.tuple([length, length]),
    inside: z.tuple([length, length, length]),
    turns: z.boolean(),
    name,
    bay: name,
  }),
  run: ({ size: [l, w, h], opening, inside, turns, name: thing, bay }) => {
    // along, deep, up
    const ways: readonly (readonly [number, number, number])[] = turns
      ? [
          [l, w, h],
          [w, l, h],
          [l, h, w],
          [h, l, w],
          [w, h, l],
          [h, w, l],
        ]
      : [
          [l, w, h],
          [w, l, h],
        ];
    const spare = (way: readonly [number, number, number]): number =>
      Math.min(opening[0] - way[0], opening[1] - way[2], inside[0] - way[0], inside[1] - way[1], inside[2] - way[2]);
    const best = Math.max(...ways.map(spare));
    return atLeast(best, 5, 0, (grade) =>
      graded('rule.stored', { name: thing, bay, short: mm(-best), spare: mm(best) })(grade),
    );
  },
});

export const placesRule = defineRule({
  name: 'stored-count',
  title: 'Room for all that is kept in a bay',
  formula: 'sum of the volumes of what is kept there <= 0.85 of the bay',
  reason: 'Things of several shapes never fill a box.',
  figures: {
    good: figure('filled at most', 85, '%'),
  },
  input: z.strictObject({
    litres: z.number().min(0).meta({ unit: 'l' }),
    room: z.number().min(0).meta({ unit: 'l' }),
    bay: name,
  }),
  run: ({ litres, room, bay }, { good }) =>
    atMost(litres, (good / 100) * room, room, (grade) =>
      graded('rule.places', { bay, litres: Math.round(litres), room: Math.round(room) })(grade),
    ),
});
