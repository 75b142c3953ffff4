import { z } from 'zod';
import { endOf, frontLineOf } from '../../document/body.js';
import type { Thing } from '../../document/schema.js';
import { gapSchema } from '../../document/schema-base.js';
import type { Unit } from '../../document/unit-schema.js';
import { materialOf } from '../../materials/material.js';
import { rectangle, spread } from '../../numeric/plane.js';
import { boardAcross } from '../../parts/along-shell.js';
import { boughtDepthRule } from '../../rules/room.js';
import { thingSizeRule } from '../../rules/things.js';
import { halfWidth, type Shell } from '../../shell/shell.js';
import { message, mm } from '../../words/message.js';
import { archIn } from '../against-wall.js';
import { scribedEdges } from '../carcass-boards.js';
import { nothingButProblems } from '../carcass.js';
import {
  bodyField,
  faultsBy,
  freePlace,
  fromField,
  materialField,
  numberOption,
  optionField,
  scribeField,
  sheetAbout,
  sideField,
  thingField,
  thingOption,
  type Family,
  type Start,
} from '../family.js';
import { offer } from '../offer.js';
import { appliesTo } from '../scene.js';
import { boardIn, outward } from '../simple-boards.js';
import { contactsOf, type Board } from '../skeleton.js';

/** A strip lies on the cupboard's end by so much, and is not worth making for a smaller gap behind it, mm. */
const LAP_MM = 40;
const LEAST_GAP_MM = 4;
const RAIL_MM = 60;
/** Everything is nearer than this, mm. */
const FAR_MM = 100_000;
/** The rails lie so far from its foot and its head, mm. */
const RAIL_IN_MM = 40;
const HEIGHTS = 13;
/** As base cupboards are usually sold, mm. */
const WIDE_MM = 600;
const DEEP_MM = 560;
const HIGH_MM = 800;

const sheetOf = ({ options }: Unit, things: readonly Thing[]): Thing | null =>
  things.find(({ id }) => id === options['thing']) ?? null;

/** From its front to the wall at a place along it and a height above the bare floor, mm. */
function deepAt(unit: Unit, inner: Shell, x: number, height: number): number {
  const line = frontLineOf(unit);
  return line ? halfWidth(inner, line.side, x, height) - line.front : 0;
}
const heightsOf = ({ body }: Unit, inner: Shell, count: number): number[] =>
  spread(inner.floor + body.from, inner.floor + body.to, count);
/** The least that is left of its depth when it is cut to the wall, mm. */
const leastDeep = (unit: Unit, inner: Shell): number =>
  Math.min(
    ...spread(unit.body.x, endOf(unit), 5).flatMap((x) =>
      heightsOf(unit, inner, HEIGHTS).map((height) => deepAt(unit, inner, x, height)),
    ),
  );

const depthLeft = appliesTo(boughtDepthRule, {
  ofUnit: (unit, scene) => {
    const { inner, things } = scene;
    const thing = sheetOf(unit, things);
    const line = frontLineOf(unit);
    if (!thing || !line) return [];
    const left = Math.min(thing.depth, leastDeep(unit, inner));
    return [
      {
        id: `bought-depth:${unit.id}`,
        input: { left, deep: thing.depth, name: unit.name },
        pin: { unit: unit.id, person: null, x: unit.body.x + unit.body.length / 2, y: line.sign * line.front },
        quiet: true,
        mend: ({ spare }) => {
          const by = Math.ceil(-(spare ?? 0));
          const front = line.front - by;
          return front > 0
            ? offer(unit, scene, { front }, message('mend.frontOut', { name: unit.name, by: mm(by) }))
            : null;
        },
      },
    ];
  },
});

/** How deep it is as it is sold: by its data sheet, else as it was typed, mm. */
const deepOf = (unit: Unit, things: readonly Thing[]): number =>
  sheetOf(unit, things)?.depth ?? numberOption(unit, 'deep');

const sizes = appliesTo(thingSizeRule, {
  ofUnit: (unit, scene) => {
    const { things, book } = scene;
    const thing = sheetOf(unit, things);
    const line = frontLineOf(unit);
    if (!thing || !line) return [];
    const { body } = unit;
    // with a strip on each end
    const length = thing.width + 2 * (materialOf(book, unit.materials['cover'] ?? '')?.thickness ?? 0);
    return [
      {
        id: `thing-size:${unit.id}`,
        input: {
          off: Math.max(Math.abs(body.length - length), Math.abs(body.to - body.from - thing.height)),
          name: unit.name,
          thing: thing.name,
        },
        pin: { unit: unit.id, person: null, x: body.x + body.length / 2, y: line.sign * line.front },
        quiet: true,
        mend: () => offer(unit, scene, { length, height: body.from + thing.height }, message('mend.sizeAsSheet')),
      },
    ];
  },
});

function boughtAt(x: number, side: 'left' | 'right', front: number, start: Start): Unit {
  return {
    id: start.id,
    family: 'bought-cupboard',
    name: start.name,
    body: { stands: side, x, length: WIDE_MM, front, from: 0, to: HIGH_MM },
    meets: { back: { how: 'scribed', allowance: 10 }, foot: { how: 'square' } },
    division: { name: 'inside', holds: { kind: 'open' }, front: { kind: 'none' } },
    school: 'plywood',
    materials: { rail: sheetAbout(start.book, 18), cover: sheetAbout(start.book, 9) },
    options: { thing: '', deep: DEEP_MM },
  };
}

/** Bought as it is, and cut at its back to the wall: rails behind it, strips over what is open at its ends. */
export const boughtCupboard: Family = {
  id: 'bought-cupboard',
  words: {
    name: 'Bought cupboard',
    add: 'Bought cupboard',
    start: 'Bought cupboard',
    noun: 'bought-cupboard',
    fields: { thing: 'Data sheet', deep: 'Deep as sold', from: 'Stands at', rail: 'Rails of', cover: 'Strips of' },
    roles: { 'wall-rail': 'wall rail', cover: 'cover strip' },
  },
  schools: ['plywood'],
  cuts: [],
  fields: [
    thingField,
    bodyField('x', 'x'),
    bodyField('length', 'length'),
    fromField,
    bodyField('height', 'to'),
    bodyField('front', 'front'),
    optionField('deep', { group: 'place', least: 60, most: 1500 }),
    sideField,
    materialField('rail'),
    materialField('cover'),
    scribeField(['back']),
  ],
  faults: faultsBy({
    stands: ['left', 'right'],
    materials: ['rail', 'cover'],
    options: z.strictObject({ thing: z.string().max(60), deep: gapSchema }),
    cuts: [],
  }),
  start: (start) => {
    const { side, x } = freePlace(start, WIDE_MM);
    const { floor } = start.room;
    const wall = Math.min(...[x, x + WIDE_MM].map((at) => halfWidth(start.room, side, at, floor + HIGH_MM)));
    return boughtAt(x, side, Math.max(0, Math.round(wall - DEEP_MM)), start);
  },
  inGap: (gap, start) => {
    const room = gap.x1 - gap.x0;
    const fits = gap.zone === 'floor' && room >= WIDE_MM && gap.z1 >= HIGH_MM;
    if (!fits || gap.where === 'middle' || gap.deep < DEEP_MM * 0.8) return null;
    const deep = Math.min(gap.deep, DEEP_MM);
    return {
      unit: boughtAt(gap.x0, gap.where, Math.round(gap.wall - deep), start),
      // what is made fits better
      fits: 0.5 * (deep / DEEP_MM),
    };
  },
  skeleton: (unit, { inner, book, things }) => {
    const line = frontLineOf(unit);
    const [rail, cover] = ['rail', 'cover'].map((role) => materialOf(book, unit.materials[role] ?? ''));
    if (!line || !rail || !cover) return nothingButProblems([]);
    const { x } = unit.body;
    const end = endOf(unit);
    const back = deepOf(unit, things);
    if (leastDeep(unit, inner) < 60)
      return nothingButProblems([{ place: unit.id, said: message('furniture.shallow', { unit: unit.name }) }]);
    const [foot, head] = [inner.floor + unit.body.from, inner.floor + unit.body.to];
    const near = (z: number): number => Math.min(...spread(x, end, 7).map((at) => halfWidth(inner, line.side, at, z)));
    const railAt = (name: string, z0: number): Board =>
      boardIn(
        {
          x0: x + cover.thickness,
          x1: end - cover.thickness,
          ...outward(line.sign, near(z0) - rail.thickness, near(z0)),
          z0,
          z1: z0 + RAIL_MM,
        },
        'y',
        { name, role: 'wall-rail', material: rail, grain: 'x', good: line.sign === 1 ? -1 : 1 },
      );
    const allowance = unit.meets.back?.how === 'scribed' ? unit.meets.back.allowance : 0;
    // the strip covers from a straight line on the cupboard's end to the wall; none where the wall cuts into it all the way up
    const strip = (name: string, at: number, good: 1 | -1): Board[] => {
      const wall = (height: number): number => halfWidth(inner, line.side, at, height);
      const heights = heightsOf(unit, inner, 25);
      if (!heights.some((height) => wall(height) - line.front - back > LEAST_GAP_MM)) return [];
      const from = line.front + Math.min(back, ...heights.map((height) => wall(height) - line.front)) - LAP_MM;
      const x0 = good === -1 ? at : at - cover.thickness;
      const [y0, y1] = [line.sign * from, line.sign * FAR_MM];
      const made = boardAcross(inner, {
        x: x0,
        thick: cover.thickness,
        free: rectangle(Math.min(y0, y1), foot, Math.max(y0, y1), head),
        cuts: [],
        allowance: () => allowance,
      });
      if (!made) return [];
      return [
        {
          name,
          role: 'cover',
          material: cover.id,
          thickness: cover.thickness,
          normal: 'x',
          at: x0,
          outline: made.outline,
          edges: scribedEdges(made.edges, 'back'),
          grain: 'z',
          good,
          held: 'fixed',
        },
      ];
    };
    const boards: Board[] = [
      railAt('rail-low', foot + RAIL_IN_MM),
      railAt('rail-high', head - RAIL_IN_MM - RAIL_MM),
      ...strip('cover-front', x, -1),
      ...strip('cover-rear', end, 1),
    ];
    return { boards, contacts: contactsOf(boards), comesApart: true, problems: [] };
  },
  tells: (unit, { inner, things }) => {
    const deep = deepOf(unit, things);
    return (['front', 'rear'] as const).flatMap((which) => {
      const x = which === 'front' ? unit.body.x : endOf(unit);
      return heightsOf(unit, inner, 4).map((height) => {
        const off = deep - deepAt(unit, inner, x, height);
        return message(off > 0 ? 'bought.cut' : 'bought.gap', {
          end: { word: which === 'front' ? 'bought.front' : 'bought.rear' },
          at: mm(height - inner.floor - unit.body.from),
          off: mm(Math.abs(off)),
          left: mm(deep - off),
        });
      });
    });
  },
  is: thingOption,
  rules: [archIn, sizes, depthLeft],
};
