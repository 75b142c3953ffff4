import { endOf } from '../document/body.js';
import type { PriceBook, Thing } from '../document/schema.js';
import { rectangle, type Ring } from '../numeric/plane.js';
import { message, mm, type Message } from '../words/message.js';
import {
  deepBehind,
  deepIn,
  facingBoard,
  grainIn,
  level,
  REVEAL_MM,
  VISIBLE_FRONT,
  type Frame,
  SLIDING_PLAY_MM,
} from './carcass-boards.js';
import type { Divider, PlacedBay, Region } from './division.js';
import { loadIn, slidesBear } from './hardware.js';
import { edgesOf, hangsAtFront, hangsOnNothing, meetsDoors, type Edges } from './hung-on.js';
import { OPENS, type Motion } from './motions.js';
import { boxRound, type Board, type FurnitureProblem } from './skeleton.js';

/** Room on each side of a drawer for its slides, mm. */
const SLIDE_MM = 12.7;
/** Slides are made in these lengths where the price book has none; one has to be shorter than the bay is deep by what is left behind it, mm. */
const SLIDES_MM: readonly number[] = [200, 250, 300, 350, 400, 450, 500, 550, 600, 650, 700];
const BEHIND_SLIDE_MM = 10;
/** A drawer's box is lower than its face by so much, and no narrower and lower than this, mm. */
const FACE_OVER_BOX_MM = 30;
const NARROWEST_MM = 100;
const LOWEST_MM = 50;
/** What slides out keeps so much off what is under it, mm. */
export const TRAY_FOOT_MM = 5;
/** The sides of a tray that slides out, mm. */
const TRAY_MM = 100;
/** Somebody stands before a drawer so far from it when it is open, mm. */
const BEFORE_DRAWER_MM = 450;
/** Things that come nearer than this touch, mm. */
const TOUCH_MM = 0.5;
/** Two sliding panels cover each other by so much, mm. */
const OVERLAP_MM = 30;

export interface Fronts {
  readonly boards: readonly Board[];
  readonly motions: readonly Motion[];
  readonly problems: readonly FurnitureProblem[];
}

const NONE: Fronts = { boards: [], motions: [], problems: [] };

/** Left round an opening for air, mm; and the share of a front's height that it may take. */
const VENT_EDGE_MM = 40;
const VENT_SHARE = 0.3;

/** How high the slots are that give a front an area of air, mm; null where it is too small for them. */
export function slotHeight(at: Region, area: number): number | null {
  const wide = at.x1 - at.x0 - 2 * VENT_EDGE_MM;
  const high = (area * 100) / wide;
  return wide > 0 && high <= VENT_SHARE * (at.z1 - at.z0) ? high : null;
}

/** Slots for air at the foot and at the head of a front. */
export function slots(at: Region, vents: { readonly low: number; readonly high: number }): Ring[] {
  const [x0, x1] = [at.x0 + VENT_EDGE_MM, at.x1 - VENT_EDGE_MM];
  const low = vents.low > 0 ? slotHeight(at, vents.low) : null;
  const high = vents.high > 0 ? slotHeight(at, vents.high) : null;
  return [
    ...(low === null ? [] : [rectangle(x0, at.z0 + VENT_EDGE_MM, x1, at.z0 + VENT_EDGE_MM + low)]),
    ...(high === null ? [] : [rectangle(x0, at.z1 - VENT_EDGE_MM - high, x1, at.z1 - VENT_EDGE_MM)]),
  ];
}

/** Fronts that are too small for the air they are to let through are a problem with their place. */
function ventProblems(frame: Frame, { bay }: PlacedBay, at: readonly Region[], share: number): FurnitureProblem[] {
  const { vents } = bay;
  if (!vents) return [];
  const short = at.some((region) =>
    [vents.low, vents.high].some((area) => area > 0 && slotHeight(region, area * share) === null),
  );
  return short
    ? [
        {
          place: `${frame.unit.id}.${bay.name}`,
          said: message('furniture.vents', { unit: frame.unit.name, bay: bay.name }),
        },
      ]
    : [];
}

/** Which way the grain of a front runs: upright, and along one that is wider than any sheet of its material. */
const grainOf = ({ facing }: Frame, { x0, x1, z0, z1 }: Region): 'x' | 'z' =>
  grainIn(facing, { along: x1 - x0, up: z1 - z0 }, 'z');

/** A flat front over a region of the face. */
function face(
  frame: Frame,
  name: string,
  role: string,
  at: Region,
  held: Board['held'],
  moves?: string,
  vents?: { readonly low: number; readonly high: number },
): Board {
  return facingBoard(frame, {
    name,
    role,
    material: frame.facing,
    front: frame.carcassFront - frame.facing.thickness,
    outline: { outer: rectangle(at.x0, at.z0, at.x1, at.z1), holes: vents ? slots(at, vents) : [] },
    grain: grainOf(frame, at),
    edges: [VISIBLE_FRONT],
    held,
    ...(moves === undefined ? {} : { moves }),
  });
}

const called = (
  key:
    | 'motion.door'
    | 'motion.doorOf'
    | 'motion.drawer'
    | 'motion.drawerOf'
    | 'motion.pullOut'
    | 'motion.flap'
    | 'motion.lift'
    | 'motion.sliding'
    | 'motion.lid'
    | 'motion.panel',
  frame: Frame,
  bay: string,
  number = 1,
): Message => message(key, { unit: { unit: frame.unit.id }, bay, number });

/** Hinged doors of one width side by side: they open away from each other, in pairs. What stands between others hangs on nothing. */
function doors(frame: Frame, placed: PlacedBay, edges: Edges): Fronts {
  const { bay, front } = placed;
  if (bay.front.kind !== 'doors') return NONE;
  const { count, latch } = bay.front;
  const width = (front.x1 - front.x0 - REVEAL_MM * (count - 1)) / count;
  if (width <= 0 || front.z1 <= front.z0) return NONE;
  const { vents } = bay;
  const each = vents && { low: vents.low / count, high: vents.high / count };
  const regions = Array.from({ length: count }, (_, i): Region => {
    const x0 = front.x0 + i * (width + REVEAL_MM);
    return { ...front, x0, x1: x0 + width };
  });
  const boards = regions.map((region, i) => {
    const name = `${bay.name}.door-${i + 1}`;
    return face(frame, name, 'door', region, 'hung', name, each);
  });
  const hangs = count === 1 ? edges.front || edges.rear : count === 2 && edges.front && edges.rear;
  const motions = boards.map((board, i): Motion => {
    const shut = boxRound([board]);
    const atFront = count === 1 ? hangsAtFront(edges) : i % 2 === 0;
    return {
      of: `${frame.unit.id}.${board.name}`,
      name: called(count === 1 ? 'motion.door' : 'motion.doorOf', frame, bay.name, i + 1),
      kind: 'hinge',
      about: 'z',
      at: [atFront ? shut.x0 : shut.x1, frame.sign * (frame.carcassFront - frame.facing.thickness)],
      // shut it points to the rear or to the front; open into the way, away from its wall
      range: atFront ? [0, -frame.sign * OPENS] : [180, 180 + frame.sign * OPENS],
      reach: shut.x1 - shut.x0,
      shut,
      latch: latch ?? false,
      before: 0,
    };
  });
  return {
    boards,
    motions,
    problems: [...(hangs ? [] : [hangsOnNothing(frame, placed)]), ...ventProblems(frame, placed, regions, 1 / count)],
  };
}

/** One front over a bay that turns about a level axis, slides or comes off. */
function oneFront(frame: Frame, placed: PlacedBay, edges: Edges): Fronts {
  const { bay, front } = placed;
  const { kind } = bay.front;
  const out = (from: number, by: number): [number, number] => {
    const [a, b] = [frame.sign * from, frame.sign * (from - by)];
    return [Math.min(a, b), Math.max(a, b)];
  };
  if (front.x1 <= front.x0 || front.z1 <= front.z0) return NONE;
  const high = front.z1 - front.z0;
  if (kind === 'flap-down' || kind === 'lift-up') {
    const down = kind === 'flap-down';
    const name = `${bay.name}.${down ? 'flap' : 'lift'}`;
    const board = face(frame, name, down ? 'flap' : 'lift', front, 'hung', name);
    const shut = boxRound([board]);
    const [y0, y1] = out(frame.carcassFront, high + frame.facing.thickness);
    const t = frame.facing.thickness;
    // it turns about its outer edge at its foot or its head, so that what is under or over it needs no more than its gap
    const [o0, o1] = out(frame.carcassFront - t, high);
    const at = { y0: o0, y1: o1, ...(down ? { z1: shut.z0 + t } : { z0: shut.z1 - t }) };
    return {
      boards: [board],
      motions: [
        {
          of: `${frame.unit.id}.${name}`,
          name: called(down ? 'motion.flap' : 'motion.lift', frame, bay.name),
          kind: 'hinge',
          about: 'level',
          through: { ...shut, y0, y1 },
          open: { ...shut, ...at },
          shut,
          latch: bay.front.latch,
          before: 0,
        },
      ],
      problems: (down ? edges.foot : edges.head) ? [] : [hangsOnNothing(frame, placed)],
    };
  }
  if (kind === 'panel') {
    const name = `${bay.name}.panel`;
    return {
      boards: [face(frame, name, 'panel-front', front, 'loose', name, bay.vents)],
      motions: [],
      problems: ventProblems(frame, placed, [front], 1),
    };
  }
  if (kind === 'sliding') {
    const width = (front.x1 - front.x0 + OVERLAP_MM) / 2;
    const panel = (i: 1 | 2): Board => {
      const x0 = i === 1 ? front.x0 : front.x1 - width;
      const name = `${bay.name}.sliding-${i}`;
      const board = face(frame, name, 'sliding', { ...front, x0, x1: x0 + width }, 'loose', name);
      // the second runs behind the first; both stand before the carcass, each with its play
      const before = i === 1 ? frame.facing.thickness + 2 * SLIDING_PLAY_MM : SLIDING_PLAY_MM;
      return { ...board, at: board.at - frame.sign * before };
    };
    const [one, two] = [panel(1), panel(2)];
    const motion = (board: Board, by: number): Motion => ({
      of: `${frame.unit.id}.${board.name}`,
      name: called('motion.sliding', frame, bay.name),
      kind: 'slide',
      by: [by, 0, 0],
      shut: boxRound([board]),
      latch: bay.front.kind === 'sliding' && bay.front.latch,
      before: 0,
    });
    const by = front.x1 - front.x0 - width;
    return {
      boards: [one, two],
      motions: [motion(one, by), motion(two, -by)],
      // its channels are screwed to a board under it and over it
      problems: edges.foot && edges.head ? [] : [hangsOnNothing(frame, placed)],
    };
  }
  return NONE;
}

interface Tray {
  readonly name: string;
  readonly x0: number;
  readonly x1: number;
  readonly z0: number;
  readonly high: number;
  readonly deep: number;
}

/** An open box that slides: two sides, a front and a back between them, a bottom under all. */
function tray(frame: Frame, { name, x0, x1, z0, high, deep }: Tray): Board[] {
  const { thick, carcassFront, board, sign } = frame;
  const at = (from: number, to: number): [number, number] => [
    Math.min(sign * from, sign * to),
    Math.max(sign * from, sign * to),
  ];
  const [near, far] = [carcassFront, carcassFront + deep];
  const [y0, y1] = at(near, far);
  const plain = { material: board.id, thickness: thick, edges: [], held: 'fixed' as const, moves: name };
  const side = (which: 'front' | 'rear', x: number): Board => ({
    ...plain,
    name: `${name}.side-${which}`,
    role: 'drawer-side',
    normal: 'x',
    at: x,
    outline: { outer: rectangle(y0, z0 + thick, y1, z0 + high), holes: [] },
    grain: 'y',
    good: which === 'front' ? 1 : -1,
  });
  const end = (which: 'front' | 'back', distance: number): Board =>
    facingBoard(frame, {
      name: `${name}.${which}`,
      role: 'drawer-end',
      material: board,
      front: distance,
      outline: { outer: rectangle(x0 + thick, z0 + thick, x1 - thick, z0 + high), holes: [] },
      grain: 'x',
      edges: [],
      held: 'fixed',
      moves: name,
    });
  return [
    side('front', x0),
    side('rear', x1 - thick),
    end('front', near),
    end('back', far - thick),
    {
      ...plain,
      name: `${name}.bottom`,
      role: 'drawer-bottom',
      normal: 'z',
      at: z0,
      outline: { outer: rectangle(x0, y0, x1, y1), holes: [] },
      grain: 'x',
      good: 1,
    },
  ];
}

/** The lengths of slides there are, the longest first. */
function slideLengths({ items }: PriceBook): readonly number[] {
  const stocked = items.flatMap(({ hardware }) =>
    hardware?.kind === 'slides' && hardware.length !== null ? [hardware.length] : [],
  );
  return [...new Set(stocked.length > 0 ? stocked : SLIDES_MM)].sort((a, b) => b - a);
}

/** What a thing keeps at each of its sides on a tray: the air its sheet asks for, or the tray's side and its slide, mm. */
export const besideOnTray = (thing: Thing, thick: number): number => Math.max(thing.clear.side, thick + SLIDE_MM);
/** The shortest slides whose tray takes a thing between its ends, mm; null where none are as long. */
export const slidesFor = (thing: Thing, thick: number, book: PriceBook): number | null =>
  slideLengths(book).findLast((length) => length >= thing.depth + 2 * thick) ?? null;
/** How deep a bay is for slides of a length, mm. */
export const deepForSlides = (length: number): number => length + BEHIND_SLIDE_MM;

/** What slides out of a bay: drawers one over the other, or one frame; each with its face. */
function slid(frame: Frame, placed: PlacedBay, edges: Edges): Fronts {
  const { bay, inside, front } = placed;
  const { holds } = bay;
  if (holds.kind !== 'drawers' && holds.kind !== 'pull-out') return NONE;
  const count = holds.kind === 'drawers' ? holds.count : 1;
  const [x0, x1] = [inside.x0 + SLIDE_MM, inside.x1 - SLIDE_MM];
  const high = (front.z1 - front.z0 - REVEAL_MM * (count - 1)) / count;
  const boards: Board[] = [];
  const motions: Motion[] = [];
  const problems: FurnitureProblem[] = [];
  const lengths = slideLengths(frame.room.book);
  const meets = meetsDoors(frame, placed, edges, x0, x1);
  if (meets > TOUCH_MM)
    problems.push({
      place: `${frame.unit.id}.${bay.name}`,
      said: message('furniture.slideDoor', { unit: frame.unit.name, bay: bay.name, by: mm(meets) }),
    });
  // one line for each bay, not one for each drawer
  const say = (key: 'furniture.drawerSmall' | 'furniture.drawerDeep'): void => {
    const place = `${frame.unit.id}.${bay.name}`;
    if (!problems.some(({ said }) => said.key === key))
      problems.push({ place, said: message(key, { unit: frame.unit.name, bay: bay.name }) });
  };
  for (let i = 0; i < count; i += 1) {
    const name = `${bay.name}.${holds.kind === 'drawers' ? `drawer-${i + 1}` : 'pull-out'}`;
    const z = front.z0 + i * (high + REVEAL_MM);
    const foot = Math.max(z, inside.z0) + TRAY_FOOT_MM;
    // under the rail at the head of the carcass, where there is one
    const head = Math.min(inside.z1, frame.carcassTop - (frame.head === 'rails' ? frame.thick : 0));
    const box =
      holds.kind === 'drawers'
        ? Math.min(high - FACE_OVER_BOX_MM, head - foot - 5)
        : Math.min(TRAY_MM, head - foot - 5);
    if (x1 - x0 < NARROWEST_MM || box < LOWEST_MM) {
      say('furniture.drawerSmall');
      continue;
    }
    const free = deepIn(inside, deepBehind(frame, x0, x1, foot, foot + box)) - BEHIND_SLIDE_MM;
    const fitting = lengths.filter((length) => length <= free);
    const load = loadIn(bay, frame.unit, frame.room);
    const trayOf = (length: number): Board[] => tray(frame, { name, x0, x1, z0: foot, high: box, deep: length });
    // the longest that is stocked for what it bears; where none is, the longest, and that is told
    const deep = fitting.find((length) => slidesBear(frame.room, trayOf(length), load, length)) ?? fitting[0];
    if (deep === undefined) {
      say('furniture.drawerDeep');
      continue;
    }
    const faced =
      (bay.front.kind === 'none' || bay.front.kind === 'panel') && front.x1 > front.x0
        ? [face(frame, `${name}.face`, 'drawer-face', { ...front, z0: z, z1: z + high }, 'fixed', name)]
        : [];
    const made = [...trayOf(deep), ...faced];
    boards.push(...made);
    motions.push({
      of: `${frame.unit.id}.${name}`,
      name: called(
        holds.kind === 'pull-out' ? 'motion.pullOut' : count === 1 ? 'motion.drawer' : 'motion.drawerOf',
        frame,
        bay.name,
        i + 1,
      ),
      kind: 'slide',
      by: [0, -frame.sign * (holds.kind === 'drawers' ? deep : Math.min(holds.travel, deep)), 0],
      shut: boxRound(made),
      latch: holds.latch,
      before: BEFORE_DRAWER_MM,
    });
  }
  return { boards, motions, problems };
}

/** The lids over the bays of what is sat on: hinged at the wall, or lifted out. */
function lids(frame: Frame, bays: readonly PlacedBay[]): Fronts {
  const { top } = frame;
  if (!top?.lids) return NONE;
  // one for each bay that reaches up to them at the front: what lies under or behind it has no lid of its own
  const head = Math.max(...bays.map(({ inside }) => inside.z1));
  const columns = bays
    .filter(({ inside }) => inside.near === 0 && inside.z1 > head - TOUCH_MM)
    .sort((a, b) => a.inside.x0 - b.inside.x0);
  const made = columns.map(({ bay, front }, i) => {
    const name = `${bay.name}.lid`;
    const board = level(frame, {
      name,
      role: 'lid',
      material: top.material,
      z: frame.carcassTop,
      from: i === 0 ? frame.unit.body.x : front.x0,
      to: i === columns.length - 1 ? endOf(frame.unit) : front.x1,
      front: frame.front - top.overhang,
      scribed: true,
      held: 'loose',
      moves: name,
    });
    const shut = boxRound([board]);
    const deep = shut.y1 - shut.y0;
    const motion: Motion = {
      of: `${frame.unit.id}.${name}`,
      name: called('motion.lid', frame, bay.name),
      kind: 'hinge',
      about: 'level',
      through: { ...shut, z1: shut.z0 + deep },
      open: {
        ...shut,
        ...(frame.sign < 0 ? { y1: shut.y0 + top.material.thickness } : { y0: shut.y1 - top.material.thickness }),
        z1: shut.z0 + deep,
      },
      shut,
      latch: frame.unit.options['latch'] === true,
      before: 0,
    };
    return { board, motion };
  });
  return { boards: made.map(({ board }) => board), motions: made.map(({ motion }) => motion), problems: [] };
}

/** Fronts narrower than this beside what is put to the face are none, mm. */
const LEAST_BESIDE_MM = 60;
/** How a bay is seen from its front: beside what is put to the face, at whose edges nothing hangs. */
interface Seen {
  readonly placed: PlacedBay;
  readonly edges: Edges;
  readonly problems: readonly FurnitureProblem[];
}
function seenOf(frame: Frame, bay: PlacedBay, own: Edges): Seen {
  const { covered = [] } = frame;
  let { x0, x1 } = bay.front;
  let { front, rear } = own;
  for (const { from, to } of covered) {
    if (to <= x0 || from >= x1) continue;
    // it lies at an end of the unit: the front goes on beside it
    if (from - x0 > x1 - to) {
      x1 = from - REVEAL_MM;
      rear = false;
    } else {
      x0 = to + REVEAL_MM;
      front = false;
    }
  }
  if (x0 === bay.front.x0 && x1 === bay.front.x1) return { placed: bay, edges: own, problems: [] };
  const hidden = x1 - x0 < LEAST_BESIDE_MM;
  const { kind } = bay.bay.front;
  return {
    placed: { ...bay, front: { ...bay.front, x0, x1: hidden ? x0 : x1 } },
    edges: { ...own, front, rear },
    // what is closed for good is got at from above
    problems:
      hidden && kind !== 'none' && kind !== 'panel'
        ? [
            {
              place: `${frame.unit.id}.${bay.bay.name}`,
              said: message('furniture.covered', { unit: frame.unit.name, bay: bay.bay.name }),
            },
          ]
        : [],
  };
}

/** Everything that closes the bays of a carcass or slides out of them, with how it moves. */
export function frontsOf(frame: Frame, bays: readonly PlacedBay[], dividers: readonly Divider[]): Fronts {
  // what lies behind another bay has no face of its own
  const atFace = bays.filter(({ inside }) => inside.near === 0);
  const all = [
    ...atFace.flatMap((bay) => {
      const own = edgesOf(frame, dividers, bay);
      const { placed, edges, problems } = seenOf(frame, bay, own);
      const said: Fronts = { ...NONE, problems };
      return [said, doors(frame, placed, edges), oneFront(frame, placed, edges), slid(frame, placed, own)];
    }),
    lids(frame, bays),
  ];
  const behind = bays.filter(({ inside }) => inside.near > 0);
  return {
    boards: all.flatMap(({ boards }) => boards),
    motions: all.flatMap(({ motions }) => motions),
    problems: [
      ...all.flatMap(({ problems }) => problems),
      // openings for air in what stands before them
      ...behind.flatMap((bay) => ventProblems(frame, bay, [bay.inside], 1)),
    ],
  };
}
