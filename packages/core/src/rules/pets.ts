import { z } from 'zod';
import { message, mm } from '../words/message.js';
import { atLeast, defineRule, figure, graded, worstOf, type Verdict } from './rule.js';

const length = z.number().min(-100_000).max(100_000).meta({ unit: 'mm' });
const name = z.string().default('');

/** So much longer than the body a place to lie is, so much wider than the shoulders as a share, and so much higher than the head. */
const LONGER_MM = 100;
const HIGHER_MM = 50;
export const TURNS_ROUND = 2;
export const CURLS_UP = 1.5;
/** So much wider than the shoulders is what it walks in through; with its head down it is so high, as a share. */
const WALKS_IN_MM = 50;
const DUCKS = 0.75;

export const petPlaceRule = defineRule({
  name: 'pet-place',
  title: 'Where an animal lies',
  formula:
    'good: long >= body + 100, wide >= 2 x shoulders, high >= head + 50; tight: long >= body, wide >= 1.5 x shoulders, high >= head; what it gets into a bay through: wide >= shoulders + 50, high >= head; tight: wide >= shoulders, high >= 0.75 x head; unknown while nobody has said where; fails where it is shut in',
  reason: 'It lies stretched out, turns round and stands up, as in a crate that is large enough.',
  figures: { longer: figure('longer', LONGER_MM), higher: figure('higher', HIGHER_MM) },
  input: z.strictObject({
    /** From the nose to the root of the tail, over the shoulders, and to the top of the head where it stands. */
    length,
    width: length,
    height: length,
    /** The place that is free; null where nobody has said which. */
    free: z.strictObject({ long: length, wide: length, high: length }).nullable(),
    /** Behind a door, a panel or drawers. */
    shut: z.boolean().default(false),
    /** What it gets in through; null where that is open all round. */
    door: z.strictObject({ wide: length, high: length }).nullable().default(null),
    name,
  }),
  run: ({ length: body, width, height, free, shut, door, name: who }, { longer, higher }): Verdict => {
    const said = (what: 'long' | 'wide' | 'high', there: number) => (grade: 'good' | 'tight' | 'fails' | 'unknown') =>
      graded('rule.petPlace', {
        who,
        what: { word: `pet.${what}` },
        there: mm(Math.max(0, there)),
        wants: mm({ long: body + longer, wide: TURNS_ROUND * width, high: height + higher }[what]),
      })(grade);
    if (shut)
      return {
        grade: 'fails',
        spare: null,
        figure: null,
        good: body + longer,
        tight: body,
        said: message('rule.petShut.fails', { who }),
      };
    if (!free) return atLeast(null, body + longer, body, said('long', 0));
    const inThrough = (what: 'wide' | 'high', there: number, wants: number) =>
      graded('rule.petDoor', { who, what: { word: `pet.${what}` }, there: mm(Math.max(0, there)), wants: mm(wants) });
    return worstOf([
      atLeast(free.long, body + longer, body, said('long', free.long)),
      atLeast(free.wide, TURNS_ROUND * width, CURLS_UP * width, said('wide', free.wide)),
      atLeast(free.high, height + higher, height, said('high', free.high)),
      ...(door
        ? [
            atLeast(door.wide, width + WALKS_IN_MM, width, inThrough('wide', door.wide, width + WALKS_IN_MM)),
            atLeast(door.high, height, DUCKS * height, inThrough('high', door.high, height)),
          ]
        : []),
    ]);
  },
});

/** Newtons for each kg: hard braking and potholes, as for everything that is fixed. */
const HELD_N = 20;
export const petRoadRule = defineRule({
  name: 'pet-road',
  title: 'An animal on the road',
  formula:
    'what holds it, a crate or a harness, and what that is fixed to: newtons >= 20 x mass; unknown while one of both is not entered',
  reason: 'A loose animal hurts itself and whoever sits before it. How it has to be held is in your local code.',
  input: z.strictObject({
    mass: z.number().min(0).max(500).meta({ unit: 'kg' }).nullable(),
    rides: z.enum(['crate', 'harness']).nullable(),
    name,
  }),
  run: ({ mass, rides, name: who }): Verdict => {
    const newtons = HELD_N * (mass ?? 0);
    // it is for whoever fixes it and for local code to say that it is good
    const missing = rides === null ? 'rides' : mass === null ? 'mass' : null;
    return {
      grade: 'unknown',
      spare: null,
      figure: missing ? null : newtons,
      good: newtons,
      tight: newtons,
      said: missing
        ? message(missing === 'rides' ? 'rule.petRides.unknown' : 'rule.petMass.unknown', { who })
        : message('rule.petRoad.unknown', { who, newtons, by: { word: `pet.${rides ?? 'crate'}` } }),
    };
  },
});
