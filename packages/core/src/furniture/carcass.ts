import { endOf } from '../document/body.js';
import { rectangle, roundedRectangle, spread, type Ring } from '../numeric/plane.js';
import { halfWidth, roofHeight, type Shell } from '../shell/shell.js';
import type { Unit } from '../document/unit-schema.js';
import { message, mm } from '../words/message.js';
import {
  BACK_GAP_MM,
  deepBehind,
  deepIn,
  facingBoard,
  frameOf,
  grainIn,
  LEAST_DEPTH_MM,
  level,
  notchedFor,
  openingIn,
  rail,
  RAIL_WIDTH_MM,
  REVEAL_MM,
  TOE_KICK_DEPTH_MM,
  upright,
  type Carcass,
  type Frame,
} from './carcass-boards.js';
import { divide, type Divider, type PlacedBay } from './division.js';
import { besideOnTray, frontsOf, slots, TRAY_FOOT_MM } from './fronts.js';
import { heldAtOneEnd, standsOnNothing } from './hung-on.js';
import { contactsOf, type BayRoom, type Board, type FurnitureProblem, type Skeleton } from './skeleton.js';

const SHELF_SETBACK_MM = 15;
/** So far up a tall cupboard has to have depth; above that the roof may close it, mm. */
const BELOW_ROOF_MM = 1200;
/** The shoulders of clothes on a rail hang so far under the head of a bay, mm. */
const HANG_MM = [100, 350] as const;

/** Shelves nearer to each other than this hold nothing, mm. */
const LEAST_BETWEEN_MM = 25;
/** What is between the shelves of a bay where that is too little; null where there are none, or room enough. */
function crowded(frame: Frame, { bay, inside }: Pick<PlacedBay, 'bay' | 'inside'>): FurnitureProblem | null {
  if (bay.holds.kind !== 'shelves') return null;
  const { count } = bay.holds;
  const between = (inside.z1 - inside.z0 - count * frame.thick) / (count + 1);
  return between >= LEAST_BETWEEN_MM
    ? null
    : {
        place: `${frame.unit.id}.${bay.name}`,
        said: message('furniture.crowded', {
          unit: frame.unit.name,
          bay: bay.name,
          count,
          between: mm(Math.max(0, between)),
        }),
      };
}

function shelvesOf(frame: Frame, { bay, inside }: PlacedBay): Board[] {
  if (bay.holds.kind !== 'shelves' || crowded(frame, { bay, inside })) return [];
  const { count } = bay.holds;
  return Array.from({ length: count }, (_, i) =>
    level(frame, {
      name: `${bay.name}.shelf-${i + 1}`,
      role: 'shelf',
      material: frame.board,
      z: inside.z0 + ((i + 1) * (inside.z1 - inside.z0)) / (count + 1) - frame.thick / 2,
      from: inside.x0,
      to: inside.x1,
      front: frame.carcassFront + inside.near + SHELF_SETBACK_MM,
      far: inside.far,
      scribed: false,
    }),
  );
}

/** A placed bay as room in the vehicle. */
function bayRoom(frame: Frame, { bay, inside }: PlacedBay): BayRoom {
  const { x0, x1, z0, z1 } = inside;
  const { near } = inside;
  const free = (from: number, to: number): number => deepIn(inside, deepBehind(frame, x0, x1, from, to));
  const deep = free(z0, z1);
  const underRail = frame.carcassTop - frame.thick;
  const at = (distance: number): number => frame.sign * (frame.carcassFront + near + distance);
  const end = (z: number): number => free(z, z);
  return {
    bay,
    ...(near > 0 ? { behind: near } : {}),
    room: { x0, x1, y0: Math.min(at(0), at(deep)), y1: Math.max(at(0), at(deep)), z0, z1 },
    // at its head lies the rail that the top is held by
    ...(frame.head === 'rails' && near === 0 && z1 > underRail
      ? { through: [bay.front.kind === 'sliding' ? (x1 - x0) / 2 : x1 - x0, underRail - z0] as const }
      : {}),
    into: frame.sign,
    deepLow: end(z0 + 1),
    deepHigh: end(z1 - 1),
    deepHang: free(Math.max(z0, z1 - HANG_MM[1]), Math.max(z0, z1 - HANG_MM[0])),
  };
}

/** The board that a divider is. */
function dividerBoards(frame: Frame, { name, cut, at, inside, open, panel, vents }: Divider): Board[] {
  const { x0, x1, z0, near, far } = inside;
  // under the rails, where it reaches them
  const z1 = Math.min(inside.z1, frame.carcassTop - (frame.head === 'open' ? 0 : frame.thick));
  if (cut === 'along')
    return upright(frame, {
      name,
      role: 'upright',
      x: at,
      from: z0,
      to: z1,
      scribed: false,
      good: 1,
      reach: { near, far },
      open,
    });
  if (cut === 'up')
    return [
      level(frame, {
        name,
        role: 'level',
        material: frame.board,
        z: at,
        from: x0,
        to: x1,
        front: frame.carcassFront + near,
        far,
        open,
        scribed: false,
      }),
    ];
  return [
    facingBoard(frame, {
      name,
      role: panel ? 'inner-panel' : 'inner-back',
      material: frame.board,
      front: frame.carcassFront + at,
      outline: {
        outer: rectangle(x0, z0, x1, z1),
        holes: open ? openingIn(x0, z0, x1, z1) : vents ? slots({ x0, x1, z0, z1 }, vents) : [],
      },
      grain: grainIn(frame.board, { along: x1 - x0, up: z1 - z0 }, 'x'),
      edges: [],
      held: panel ? 'loose' : 'fixed',
      ...(panel ? { moves: name } : {}),
    }),
  ];
}

/** Dividers that are to be frames and are too small for an opening. */
function notOpen(frame: Frame, dividers: readonly Divider[], boards: readonly Board[]): FurnitureProblem[] {
  return dividers.flatMap(({ name, open }) => {
    const board = boards.find((own) => own.name === name);
    return open && board?.outline.holes.length === 0
      ? [
          {
            place: `${frame.unit.id}.${name}`,
            said: message('furniture.noFrame', { unit: frame.unit.name, board: name }),
          },
        ]
      : [];
  });
}

/** What is too small to be made, in words. */
function tooSmall(frame: Frame, ceiling: number): FurnitureProblem | null {
  const { unit, side } = frame;
  const { inner } = frame.room;
  const say = (key: 'furniture.narrow' | 'furniture.low' | 'furniture.shallow'): FurnitureProblem => ({
    place: unit.id,
    said: message(key, { unit: unit.name }),
  });
  if (frame.insideTo <= frame.insideFrom) return say('furniture.narrow');
  if (ceiling <= frame.bottom + frame.thick) return say('furniture.low');
  const depths = spread(unit.body.x, endOf(unit), 7).flatMap((x) =>
    spread(frame.foot, Math.min(frame.carcassTop, frame.foot + BELOW_ROOF_MM), 5).map((height) =>
      halfWidth(inner, side, x, height),
    ),
  );
  // a high cupboard may run out under the roof; its foot has to have depth
  const deep = unit.body.from > 0 ? Math.max(...depths) : Math.min(...depths);
  return deep - frame.carcassFront < LEAST_DEPTH_MM ? say('furniture.shallow') : null;
}

/**
 * Openings in what lies on top, for what hangs in it: behind the rail under its front where there is room for that, else as
 * far back as the rail at the wall lets them. What opens at its front stands at the front, and parts the rails as it is wide.
 * @param rails from where to where across it is free between the rails, from the centre line; null where there are none, mm
 */
function cutOutsIn(
  frame: Frame,
  bays: readonly PlacedBay[],
  rails: { readonly from: number; readonly to: number } | null,
): { readonly holes: Ring[]; readonly bodies: Ring[]; readonly problems: FurnitureProblem[] } {
  const holes: Ring[] = [];
  const bodies: Ring[] = [];
  const problems: FurnitureProblem[] = [];
  for (const { bay, inside } of bays) {
    const { holds } = bay;
    const thing = holds.kind === 'thing' ? frame.room.things.find(({ id }) => id === holds.thing) : undefined;
    // only what is under the top hangs in it
    if (!thing?.cutOut || inside.z1 < frame.carcassTop - frame.thick - 1) continue;
    const { length, width, radius } = thing.cutOut;
    const middle = (inside.x0 + inside.x1) / 2;
    const edge = frame.front - (frame.top?.overhang ?? 0) + CUT_OUT_EDGE_MM;
    const deep = Math.min(
      frame.carcassFront + (inside.far ?? Infinity),
      ...spread(inside.x0, inside.x1, 5).map(
        (x) => halfWidth(frame.room.inner, frame.side, x, frame.carcassTop) - CUT_OUT_BACK_MM,
      ),
    );
    const least = inside.near > 0 ? Math.max(edge, frame.carcassFront + inside.near) : edge;
    const atFront = thing.opens !== 'no' && thing.opens !== 'lid';
    const behindRail = rails ? Math.min(rails.from, rails.to - width, deep - width) : least;
    const flush = Math.max(least - CUT_OUT_EDGE_MM + CUT_OUT_BACK_MM, frame.carcassFront + (thing.depth - width) / 2);
    const near = atFront ? flush : Math.max(least, behindRail);
    const far = near + width;
    if (length > inside.x1 - inside.x0 || far > deep) {
      problems.push({
        place: `${frame.unit.id}.${bay.name}`,
        said: message('furniture.cutOut', { thing: thing.name, unit: frame.unit.name, bay: bay.name }),
      });
      continue;
    }
    const across = (a: number, b: number): readonly [number, number] =>
      frame.sign > 0 ? [frame.sign * a, frame.sign * b] : [frame.sign * b, frame.sign * a];
    const [low, high] = across(near, far);
    const hole = roundedRectangle(middle - length / 2, low, middle + length / 2, high, radius, CORNER_CHORDS);
    holes.push(hole);
    const [front, back] = across(frame.carcassFront, frame.carcassFront + thing.depth);
    bodies.push(atFront ? rectangle(middle - thing.width / 2, front, middle + thing.width / 2, back) : hole);
  }
  return { holes, bodies, problems };
}
/** A round sink of 370 is sawn to a third of a millimetre by so many chords a corner. */
const CORNER_CHORDS = 16;
/** Left of a worktop before and behind an opening in it, mm. */
const CUT_OUT_EDGE_MM = 60;
const CUT_OUT_BACK_MM = 20;

type Needing = Pick<Frame, 'room' | 'thick' | 'head'>;
/** What a thing needs along the front of a bay by its data sheet, mm. */
function neededWidth({ holds }: PlacedBay['bay'], { room: { things }, thick }: Needing): number | null {
  if (holds.kind !== 'thing' && holds.kind !== 'pull-out') return null;
  const thing = things.find(({ id }) => id === holds.thing);
  if (!thing) return null;
  // in a tray it stands between its sides, which stand between the slides
  const beside = holds.kind === 'pull-out' ? besideOnTray(thing, thick) : thing.clear.side;
  return thing.width + 2 * beside;
}
/** What a thing needs from the front of a bay backward by its data sheet, mm. */
function neededDepth({ holds }: PlacedBay['bay'], { room: { things } }: Needing): number | null {
  const thing = holds.kind === 'thing' ? things.find(({ id }) => id === holds.thing) : undefined;
  return thing ? thing.depth + thing.clear.back : null;
}

/** What a thing needs from its foot upward by its data sheet, mm. */
function neededHeight({ holds }: PlacedBay['bay'], { room: { things }, thick, head }: Needing): number | null {
  if (holds.kind !== 'thing' && holds.kind !== 'pull-out') return null;
  const thing = things.find(({ id }) => id === holds.thing);
  if (!thing) return null;
  // a tray has a bottom, and passes under the rail
  const tray = holds.kind === 'pull-out' ? TRAY_FOOT_MM + thick + (head === 'rails' ? thick : 0) : 0;
  return thing.height + thing.clear.top + tray;
}
const NEEDED = { along: neededWidth, up: neededHeight, deep: neededDepth } as const;

/** Nothing but what is wrong with it. */
export const nothingButProblems = (problems: readonly FurnitureProblem[], comesApart = false): Skeleton => ({
  boards: [],
  contacts: [],
  comesApart,
  problems,
});

/**
 * The boards of a carcass against a side wall: two ends cut to the wall, a bottom, what divides it, shelves, drawers and
 * pull-outs, what lies on it, and its fronts, with how they move and what room each bay has.
 */
export function carcassSkeleton(carcass: Carcass): Skeleton {
  const frame = frameOf(carcass);
  const { unit, room, head, top, thick } = frame;
  const { x } = unit.body;
  // under a board between the ends the bays end; under rails they reach up to what lies on them
  const ceiling = head === 'board' ? frame.carcassTop - thick : frame.carcassTop;
  const small = tooSmall(frame, ceiling);
  if (small) return nothingButProblems([small]);
  const { bays, dividers, problems } = divide(unit, {
    inside: { x0: frame.insideFrom, x1: frame.insideTo, z0: frame.bottom + thick, z1: ceiling },
    front: {
      x0: x + REVEAL_MM,
      x1: endOf(unit) - REVEAL_MM,
      z0: frame.bottom + REVEAL_MM,
      z1: frame.carcassTop - REVEAL_MM,
    },
    thickness: thick,
    reveal: REVEAL_MM,
    need: (bay, cut) => NEEDED[cut](bay, frame),
    deep: ({ x0, x1, z0, z1 }) => Math.max(0, deepBehind(frame, x0, x1, z0, z1)),
  });
  const end = (name: string, at: number, good: 1 | -1): Board[] =>
    upright(frame, { name, role: 'side', x: at, from: frame.foot, to: frame.carcassTop, scribed: true, good });
  const depthAtTop = Math.min(
    ...spread(frame.insideFrom, frame.insideTo, 13).map((at) =>
      halfWidth(room.inner, frame.side, at, frame.carcassTop),
    ),
  );
  const backRail = depthAtTop - BACK_GAP_MM - RAIL_WIDTH_MM;
  const between = head === 'rails' ? { from: frame.carcassFront + RAIL_WIDTH_MM, to: backRail } : null;
  const {
    holes,
    bodies,
    problems: notCut,
  } = top && !top.lids ? cutOutsIn(frame, bays, between) : { holes: [], bodies: [], problems: [] };
  const ends = [...end('end-front', x, -1), ...end('end-rear', endOf(unit) - thick, 1)];
  // between ends that are not there nothing stands
  if (ends.length === 0)
    return nothingButProblems([...problems, { place: unit.id, said: message('furniture.low', { unit: unit.name }) }]);
  const fronts = frontsOf(frame, bays, dividers);
  const boards: Board[] = [
    ...ends,
    level(frame, {
      name: 'bottom',
      role: 'bottom',
      material: frame.board,
      z: frame.bottom,
      from: frame.insideFrom,
      to: frame.insideTo,
      front: frame.carcassFront,
      scribed: frame.seenBelow,
    }),
    ...dividers.flatMap((divider) => dividerBoards(frame, divider)),
    ...bays.flatMap((bay) => shelvesOf(frame, bay)),
    ...(head === 'rails'
      ? [rail(frame, 'rail-front', frame.carcassFront), rail(frame, 'rail-back', backRail)].flatMap((board) =>
          notchedFor(board, bodies),
        )
      : []),
    ...(head === 'board'
      ? [
          level(frame, {
            name: 'head',
            role: 'head',
            material: frame.board,
            z: frame.carcassTop - thick,
            from: frame.insideFrom,
            to: frame.insideTo,
            front: frame.carcassFront,
            scribed: false,
          }),
        ]
      : []),
    ...(frame.bottom > frame.foot
      ? [
          facingBoard(frame, {
            name: 'kick',
            role: 'kick',
            material: frame.board,
            front: frame.carcassFront + TOE_KICK_DEPTH_MM,
            outline: { outer: rectangle(frame.insideFrom, frame.foot, frame.insideTo, frame.bottom), holes: [] },
            grain: 'x',
            edges: [],
            held: 'fixed',
          }),
        ]
      : []),
    ...fronts.boards,
    ...(top && !top.lids
      ? [
          level(frame, {
            name: 'top',
            role: 'top',
            material: top.material,
            z: frame.carcassTop,
            from: x,
            to: endOf(unit),
            front: frame.front - top.overhang,
            scribed: true,
            holes,
          }),
        ]
      : []),
  ];
  return {
    boards,
    contacts: contactsOf(boards),
    comesApart: false,
    problems: [
      ...problems,
      ...notOpen(frame, dividers, boards),
      ...bays.flatMap((bay) =>
        [crowded(frame, bay), heldAtOneEnd(frame, dividers, bay), standsOnNothing(frame, dividers, bay)].filter(
          (problem) => problem !== null,
        ),
      ),
      ...notCut,
      ...fronts.problems,
    ],
    motions: fronts.motions,
    bays: bays.map((bay) => bayRoom(frame, bay)),
  };
}

/** The roof over a front, the lowest over a unit's length, mm above the bare floor. */
export const roofOver = (inner: Shell, unit: Unit, y: number): number =>
  Math.min(...spread(unit.body.x, endOf(unit), 7).map((x) => roofHeight(inner, x, y)));
