import { z } from 'zod';
import { baysOf, endOf, frontLineOf, standsAt } from '../../document/body.js';
import type { Field } from '../../document/kit.js';
import { gapSchema } from '../../document/schema-base.js';
import type { Unit } from '../../document/unit-schema.js';
import { materialOf } from '../../materials/material.js';
import { rectangle, spread, type Outline, type Point, type Ring } from '../../numeric/plane.js';
import { cutOut, simplify } from '../../numeric/shapes.js';
import { leansAlong, leansUp } from '../../parts/scribe.js';
import { archInRule } from '../../rules/room.js';
import { archSpan } from '../../shell/arch.js';
import { halfWidth } from '../../shell/shell.js';
import { message, mm } from '../../words/message.js';
import { divide, type PlacedBay } from '../division.js';
import {
  bodyField,
  faultsBy,
  materialField,
  numberOption,
  optionField,
  scribeField,
  sheetAbout,
  sideField,
  type Family,
  type Surroundings,
  type Start,
} from '../family.js';
import { appliesTo, changeUnit } from '../scene.js';
import { wholeUp } from '../../numeric/tolerance.js';
import { contactsOf, type Board, type BoardEdge, type FurnitureProblem, type Skeleton } from '../skeleton.js';

/** Gap round doors, mm. */
const REVEAL_MM = 3;
/** Hidden inner boards stop this short of the wall so that air passes behind them, mm. */
const BACK_GAP_MM = 5;
const TOE_KICK_DEPTH_MM = 50;
const RAIL_WIDTH_MM = 80;
const SHELF_SETBACK_MM = 15;
const CHORD_MM = 0.05;
/** A carcass less deep than this cannot be made, mm. */
const LEAST_DEPTH_MM = 60;
/** A lower one is a seat or a store, not a place to work at, mm. */
const LOWEST_WORKTOP_MM = 700;

/** The heights and faces a run is made from, mm. */
interface Frame {
  readonly side: 'left' | 'right';
  readonly sign: 1 | -1;
  readonly front: number;
  readonly floor: number;
  readonly bottom: number;
  readonly carcassTop: number;
  readonly carcass: number;
  readonly top: number;
  readonly facing: number;
  /** From the centre line to the front of the carcass, behind its doors. */
  readonly carcassFront: number;
  readonly insideFrom: number;
  readonly insideTo: number;
}

function frameOf(unit: Unit, { inner, book }: Surroundings): Frame | null {
  const line = frontLineOf(unit);
  const [carcass, top, facing] = ['carcass', 'top', 'facing'].map((role) =>
    materialOf(book, unit.materials[role] ?? ''),
  );
  if (!line || !carcass || !top || !facing) return null;
  return {
    side: line.side,
    sign: line.sign,
    front: line.front,
    floor: inner.floor,
    bottom: inner.floor + numberOption(unit, 'toeKick'),
    carcassTop: inner.floor + unit.body.to - top.thickness,
    carcass: carcass.thickness,
    top: top.thickness,
    facing: facing.thickness,
    carcassFront: line.front + facing.thickness,
    insideFrom: unit.body.x + carcass.thickness,
    insideTo: endOf(unit) - carcass.thickness,
  };
}

const VISIBLE_FRONT: BoardEdge = { kind: 'visible', at: 'front', line: [], allowance: 0, across: 'y', leans: [] };
const allowanceOf = (unit: Unit): number => (unit.meets.back?.how === 'scribed' ? unit.meets.back.allowance : 0);

/** What a board across the vehicle reaches from the front to the wall. */
interface Upright {
  readonly name: string;
  readonly role: string;
  readonly x: number;
  readonly from: number;
  readonly to: number;
  /** Cut to the wall with an allowance, or kept off it. */
  readonly scribed: boolean;
  readonly good: 1 | -1;
}

/** An upright across the vehicle: front edge on the line, back edge on the wall's curve. */
function upright(unit: Unit, { inner }: Surroundings, frame: Frame, wanted: Upright): Board {
  const heights = spread(wanted.from, wanted.to, 25);
  const wall = (height: number): number =>
    Math.min(
      halfWidth(inner, frame.side, wanted.x, height),
      halfWidth(inner, frame.side, wanted.x + frame.carcass, height),
    ) - (wanted.scribed ? 0 : BACK_GAP_MM);
  const left = wanted.scribed ? allowanceOf(unit) : 0;
  const at = (distance: number, height: number): Point => [frame.sign * distance, height];
  const outer: Ring = [
    at(frame.carcassFront, wanted.from),
    at(frame.carcassFront, wanted.to),
    ...[...heights].reverse().map((height) => at(wall(height) + left, height)),
  ];
  const kick =
    wanted.from < frame.bottom
      ? [
          rectangle(
            Math.min(frame.sign * (frame.carcassFront - 1), frame.sign * (frame.carcassFront + TOE_KICK_DEPTH_MM)),
            frame.floor - 1,
            Math.max(frame.sign * (frame.carcassFront - 1), frame.sign * (frame.carcassFront + TOE_KICK_DEPTH_MM)),
            frame.bottom,
          ),
        ]
      : [];
  const [shape] = cutOut({ outer: simplify(outer, CHORD_MM), holes: [] }, kick);
  return {
    name: wanted.name,
    role: wanted.role,
    material: unit.materials['carcass'] ?? '',
    normal: 'x',
    at: wanted.x,
    thickness: frame.carcass,
    outline: shape ?? { outer, holes: [] },
    grain: 'z',
    good: wanted.good,
    edges: [
      VISIBLE_FRONT,
      ...(wanted.scribed
        ? [
            {
              kind: 'scribe' as const,
              at: 'back' as const,
              line: heights.map((height) => at(wall(height), height)),
              allowance: left,
              across: 'y' as const,
              leans: leansAlong(inner, frame.side, wanted.x, heights),
            },
          ]
        : []),
    ],
    held: 'fixed',
  };
}

interface Level {
  readonly name: string;
  readonly role: string;
  readonly material: 'carcass' | 'top';
  readonly thickness: number;
  readonly z: number;
  readonly from: number;
  readonly to: number;
  readonly front: number;
  readonly scribed: boolean;
}

/** A level board: front edge straight, back edge along the wall at its own height. */
function level(unit: Unit, { inner }: Surroundings, frame: Frame, wanted: Level): Board {
  const { z: low, from, to } = wanted;
  const xs = spread(from, to, 25);
  const wall = (x: number): number =>
    Math.min(halfWidth(inner, frame.side, x, low), halfWidth(inner, frame.side, x, low + wanted.thickness)) -
    (wanted.scribed ? 0 : BACK_GAP_MM);
  const left = wanted.scribed ? allowanceOf(unit) : 0;
  const at = (x: number, distance: number): Point => [x, frame.sign * distance];
  const outer: Ring = [
    at(from, wanted.front),
    at(to, wanted.front),
    ...[...xs].reverse().map((x) => at(x, wall(x) + left)),
  ];
  return {
    name: wanted.name,
    role: wanted.role,
    material: unit.materials[wanted.material] ?? '',
    normal: 'z',
    at: low,
    thickness: wanted.thickness,
    outline: { outer: simplify(outer, CHORD_MM), holes: [] },
    grain: 'x',
    good: 1,
    edges: [
      VISIBLE_FRONT,
      ...(wanted.scribed
        ? [
            {
              kind: 'scribe' as const,
              at: 'back' as const,
              line: xs.map((x) => at(x, wall(x))),
              allowance: left,
              across: 'y' as const,
              leans: leansUp(inner, frame.side, low, xs),
            },
          ]
        : []),
    ],
    held: 'fixed',
  };
}

/** A rectangle standing along the vehicle, its front face at a distance from the centre line. */
function facingBoard(
  unit: Unit,
  frame: Frame,
  wanted: Pick<Board, 'name' | 'role' | 'thickness' | 'grain' | 'held' | 'edges'> & {
    readonly material: 'carcass' | 'facing';
    readonly front: number;
    readonly outline: Outline;
  },
): Board {
  const { front, material, ...rest } = wanted;
  return {
    ...rest,
    material: unit.materials[material] ?? '',
    normal: 'y',
    at: frame.sign > 0 ? front : -front - wanted.thickness,
    good: frame.sign > 0 ? -1 : 1,
  };
}

/** A rail lying flat under the worktop, its front edge at a distance from the centre line. */
function rail(unit: Unit, frame: Frame, name: string, front: number): Board {
  const [a, b] = [frame.sign * front, frame.sign * (front + RAIL_WIDTH_MM)];
  return {
    name,
    role: 'rail',
    material: unit.materials['carcass'] ?? '',
    normal: 'z',
    at: frame.carcassTop - frame.carcass,
    thickness: frame.carcass,
    outline: { outer: rectangle(frame.insideFrom, Math.min(a, b), frame.insideTo, Math.max(a, b)), holes: [] },
    grain: 'x',
    good: 1,
    edges: [],
    held: 'fixed',
  };
}

function doorsOf(unit: Unit, frame: Frame, { bay, front }: PlacedBay): Board[] {
  if (bay.front.kind !== 'doors') return [];
  const { count } = bay.front;
  const width = (front.x1 - front.x0 - REVEAL_MM * (count - 1)) / count;
  if (width <= 0 || front.z1 <= front.z0) return [];
  return Array.from({ length: count }, (_, i) => {
    const x = front.x0 + i * (width + REVEAL_MM);
    return facingBoard(unit, frame, {
      name: `${bay.name}.door-${i + 1}`,
      role: 'door',
      material: 'facing',
      thickness: frame.facing,
      front: frame.front,
      outline: { outer: rectangle(x, front.z0, x + width, front.z1), holes: [] },
      grain: 'z',
      edges: [VISIBLE_FRONT],
      held: 'hung',
    });
  });
}

function shelvesOf(unit: Unit, room: Surroundings, frame: Frame, { bay, inside }: PlacedBay): Board[] {
  if (bay.holds.kind !== 'shelves') return [];
  const { count } = bay.holds;
  return Array.from({ length: count }, (_, i) =>
    level(unit, room, frame, {
      name: `${bay.name}.shelf-${i + 1}`,
      role: 'shelf',
      material: 'carcass',
      thickness: frame.carcass,
      z: inside.z0 + ((i + 1) * (inside.z1 - inside.z0)) / (count + 1) - frame.carcass / 2,
      from: inside.x0,
      to: inside.x1,
      front: frame.carcassFront + SHELF_SETBACK_MM,
      scribed: false,
    }),
  );
}

/** What is too small to be made, in words. */
function tooSmall(unit: Unit, { inner }: Surroundings, frame: Frame): FurnitureProblem | null {
  const say = (key: 'furniture.narrow' | 'furniture.low' | 'furniture.shallow'): FurnitureProblem => ({
    place: unit.id,
    said: message(key, { unit: unit.name }),
  });
  if (frame.insideTo <= frame.insideFrom) return say('furniture.narrow');
  if (frame.carcassTop <= frame.bottom + frame.carcass) return say('furniture.low');
  const depths = spread(unit.body.x, endOf(unit), 7).flatMap((x) =>
    spread(frame.floor, frame.carcassTop, 5).map((height) => halfWidth(inner, frame.side, x, height)),
  );
  return Math.min(...depths) - frame.carcassFront < LEAST_DEPTH_MM ? say('furniture.shallow') : null;
}

function skeletonOf(unit: Unit, room: Surroundings): Skeleton {
  const frame = frameOf(unit, room);
  const none = (problems: readonly FurnitureProblem[]): Skeleton => ({
    boards: [],
    contacts: [],
    comesApart: false,
    problems,
  });
  if (!frame) return none([]);
  const small = tooSmall(unit, room, frame);
  if (small) return none([small]);
  const { x } = unit.body;
  const { bays, dividers, problems } = divide(
    unit,
    { x0: frame.insideFrom, x1: frame.insideTo, z0: frame.bottom + frame.carcass, z1: frame.carcassTop },
    {
      x0: x + REVEAL_MM,
      x1: endOf(unit) - REVEAL_MM,
      z0: frame.bottom + REVEAL_MM,
      z1: frame.carcassTop - REVEAL_MM,
    },
    frame.carcass,
    REVEAL_MM,
  );
  const end = (name: string, at: number, good: 1 | -1): Board =>
    upright(unit, room, frame, {
      name,
      role: 'side',
      x: at,
      from: frame.floor,
      to: frame.carcassTop,
      scribed: true,
      good,
    });
  const depthAtTop = Math.min(
    ...spread(frame.insideFrom, frame.insideTo, 13).map((at) =>
      halfWidth(room.inner, frame.side, at, frame.carcassTop),
    ),
  );
  const boards: Board[] = [
    end('end-front', x, -1),
    end('end-rear', endOf(unit) - frame.carcass, 1),
    level(unit, room, frame, {
      name: 'bottom',
      role: 'bottom',
      material: 'carcass',
      thickness: frame.carcass,
      z: frame.bottom,
      from: frame.insideFrom,
      to: frame.insideTo,
      front: frame.carcassFront,
      scribed: false,
    }),
    ...dividers.map((divider) =>
      divider.cut === 'along'
        ? upright(unit, room, frame, {
            name: divider.name,
            role: 'upright',
            x: divider.at,
            from: divider.inside.z0,
            // under the rails, where it reaches them
            to: Math.min(divider.inside.z1, frame.carcassTop - frame.carcass),
            scribed: false,
            good: 1,
          })
        : level(unit, room, frame, {
            name: divider.name,
            role: 'level',
            material: 'carcass',
            thickness: frame.carcass,
            z: divider.at,
            from: divider.inside.x0,
            to: divider.inside.x1,
            front: frame.carcassFront,
            scribed: false,
          }),
    ),
    ...bays.flatMap((bay) => shelvesOf(unit, room, frame, bay)),
    rail(unit, frame, 'rail-front', frame.carcassFront),
    rail(unit, frame, 'rail-back', depthAtTop - BACK_GAP_MM - RAIL_WIDTH_MM),
    ...(frame.bottom > frame.floor
      ? [
          facingBoard(unit, frame, {
            name: 'kick',
            role: 'kick',
            material: 'carcass',
            thickness: frame.carcass,
            front: frame.carcassFront + TOE_KICK_DEPTH_MM,
            outline: { outer: rectangle(frame.insideFrom, frame.floor, frame.insideTo, frame.bottom), holes: [] },
            grain: 'x',
            edges: [],
            held: 'fixed',
          }),
        ]
      : []),
    ...bays.flatMap((bay) => doorsOf(unit, frame, bay)),
    level(unit, room, frame, {
      name: 'top',
      role: 'top',
      material: 'top',
      thickness: frame.top,
      z: frame.carcassTop,
      from: x,
      to: endOf(unit),
      front: frame.front - numberOption(unit, 'overhang'),
      scribed: true,
    }),
  ];
  return { boards, contacts: contactsOf(boards), comesApart: false, problems };
}

/** A run may not stand on a wheel arch: it moves past it. */
const archIn = appliesTo(archInRule, {
  ofUnit: (unit, { inner, arches }) => {
    const line = frontLineOf(unit);
    if (!line) return [];
    const { x, length, to } = unit.body;
    return arches.flatMap((arch) => {
      const span = arch.side === line.side ? archSpan(arch, inner.floor) : null;
      if (!span) return [];
      const box = { x0: x, x1: x + length, y0: line.front, y1: 5000, z0: inner.floor, z1: inner.floor + to };
      const stands = { x0: span[0], x1: span[1], y0: arch.face, y1: 5000, z0: 0, z1: arch.height };
      const [forward, back] = [x + length - span[0], span[1] - x];
      const by = forward <= back && x - forward >= 0 ? -wholeUp(forward) : wholeUp(back);
      const fits = x + by >= 0 && x + by + length <= inner.length;
      return [
        {
          id: `arch:${unit.id}:${arch.id}`,
          input: { unit: box, arch: stands, name: unit.name, archName: arch.name },
          pin: { unit: unit.id, person: null, x: (span[0] + span[1]) / 2, y: line.sign * arch.face },
          quiet: true,
          mend: () =>
            fits
              ? {
                  said: message(by < 0 ? 'mend.forward' : 'mend.rearward', { by: mm(Math.abs(by)) }),
                  operations: [changeUnit(unit, { x: x + by })],
                }
              : null,
        },
      ];
    });
  },
});

/** A count that an undivided run has for its one bay. */
const bayField = (name: string, most: number, of: 'holds' | 'front', kind: 'shelves' | 'doors'): Field => ({
  name,
  kind: 'count',
  group: 'made',
  least: 0,
  most,
  when: (unit) => !('cut' in unit.division),
  get: (unit) => {
    const bay = baysOf(unit.division)[0];
    const had = bay?.[of];
    return had && 'count' in had ? had.count : 0;
  },
  set: (unit, value) => {
    const count = Number(value);
    const none = of === 'holds' ? { kind: 'open' as const } : { kind: 'none' as const };
    return {
      ...unit,
      division: { ...unit.division, [of]: count > 0 ? { kind, count } : none } as Unit['division'],
    };
  },
});

/** Against a wall where the first free stretch of floor is. */
function startRun({ id, name, layout, room, book }: Start): Unit {
  const taken = (side: 'left' | 'right', from: number, to: number): boolean =>
    layout.units.some((unit) => standsAt(unit, side) && unit.body.x < to && endOf(unit) > from);
  const length = Math.min(900, Math.round(room.length / 2));
  const places = (['left', 'right'] as const).flatMap((side) =>
    Array.from({ length: Math.max(1, Math.floor((room.length - length) / 50)) }, (_, i) => ({ side, x: i * 50 })),
  );
  const free = places.find(({ side, x }) => !taken(side, x, x + length)) ?? { side: 'left' as const, x: 0 };
  return {
    id,
    family: 'base-run',
    name,
    body: { stands: free.side, x: free.x, length, front: 370, from: 0, to: 900 },
    meets: { back: { how: 'scribed', allowance: 20 }, foot: { how: 'square' } },
    division: { name: 'bay-1', holds: { kind: 'shelves', count: 1 }, front: { kind: 'doors', count: 2 } },
    school: 'plywood',
    materials: {
      carcass: sheetAbout(book, 15),
      facing: sheetAbout(book, 15),
      top: materialOf(book, 'birch-18') ? 'birch-18' : sheetAbout(book, 18),
    },
    options: { toeKick: 90, overhang: 20 },
  };
}

/** Cupboards, benches and kitchens against a side wall: a carcass on a plinth, with a top. */
export const baseRun: Family = {
  id: 'base-run',
  words: {
    name: 'Base run',
    add: 'Base cupboard',
    start: 'Cupboard',
    noun: 'cupboard',
    fields: { facing: 'Doors of' },
    roles: {
      side: 'side',
      bottom: 'bottom',
      upright: 'upright',
      level: 'level',
      shelf: 'shelf',
      rail: 'rail',
      kick: 'kick board',
      door: 'door',
      top: 'top',
    },
  },
  schools: ['plywood'],
  divides: true,
  fields: [
    bodyField('x', 'x'),
    bodyField('length', 'length'),
    bodyField('height', 'to'),
    bodyField('front', 'front'),
    sideField,
    materialField('carcass'),
    materialField('facing'),
    materialField('top'),
    optionField('toeKick', { group: 'made' }),
    optionField('overhang', { group: 'made' }),
    scribeField(['back']),
    bayField('shelves', 8, 'holds', 'shelves'),
    bayField('doors', 6, 'front', 'doors'),
  ],
  faults: faultsBy({
    stands: ['left', 'right'],
    materials: ['carcass', 'facing', 'top'],
    options: z.strictObject({ toeKick: gapSchema, overhang: gapSchema }),
    divides: true,
  }),
  start: startRun,
  skeleton: skeletonOf,
  overhang: (unit) => numberOption(unit, 'overhang'),
  worksAt: (unit) => unit.body.to > LOWEST_WORKTOP_MM,
  rules: [archIn],
};
