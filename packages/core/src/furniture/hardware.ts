import { thingIn } from '../document/layout-changes.js';
import type { MOVING_HARDWARE, PriceItem } from '../document/schema.js';
import type { Bay, Unit } from '../document/unit-schema.js';
import { materialOf } from '../materials/material.js';
import { outlineArea } from '../numeric/plane.js';
import { cupRule, handsRule, hingesRule, slideRule, strutRule } from '../rules/hardware.js';
import type { SolidBox } from '../rules/room.js';
import { message } from '../words/message.js';
import type { Motion, SlideMotion } from './motions.js';
import { goesWith } from './goes-with.js';
import type { Hardware } from './school.js';
import { boardBox, type Board, type FurnitureProblem, type Skeleton } from './skeleton.js';
import type { Surroundings } from './surroundings.js';

type Kind = (typeof MOVING_HARDWARE)[number];

/** How many of a kind a moving part takes; metres of channel. */
interface Wanted {
  readonly kind: Kind;
  readonly amount: number;
  /** Its length, mm, where it has to have just that one; and what it has to bear: kg a pair of slides, N a strut. */
  readonly length?: number;
  readonly bears?: number;
  /** It is cut from what is sold by the metre, each piece of the length in one. */
  readonly cut?: boolean;
}

/** What a board weighs, kg; null where its material has no density. */
function massOfBoard({ outline, thickness, material }: Board, { book }: Surroundings): number | null {
  const density = materialOf(book, material)?.density ?? 0;
  return density > 0 ? (outlineArea(outline) * thickness * density) / 1e9 : null;
}
const sum = (all: readonly (number | null)[]): number | null =>
  all.some((one) => one === null) ? null : all.reduce<number>((total, one) => total + (one ?? 0), 0);
const size = (box: SolidBox): readonly [number, number, number] => [box.x1 - box.x0, box.y1 - box.y0, box.z1 - box.z0];
const after = (unit: Unit, { of }: Motion): string => of.slice(unit.id.length + 1);

/** What stands on or in what slides: the thing of its bay with what it holds, kg. */
function loadOf(unit: Unit, name: string, skeleton: Skeleton, room: Surroundings): number {
  const bay = skeleton.bays?.find(({ bay: { name: own } }) => name.startsWith(`${own}.`))?.bay;
  return bay ? loadIn(bay, unit, room) : 0;
}
/**
 * What slides out of a bay carries at least, kg: the thing that stands on its tray with what that holds, or the goods that are
 * kept in it, shared by its drawers, and none of them less than the heaviest piece; 0 where nothing is said to be there.
 */
export function loadIn(bay: Bay, unit: Unit, { things, stored = [] }: Surroundings): number {
  const id = bay.holds.kind === 'pull-out' ? thingIn(bay) : null;
  const thing = things.find((one) => one.id === id);
  const goods = stored.filter(({ kept }) => kept?.unit === unit.id && kept.bay === bay.name);
  const drawers = bay.holds.kind === 'drawers' ? Math.max(1, bay.holds.count) : 1;
  const shared = goods.reduce((sum, { mass, count }) => sum + mass * count, 0) / drawers;
  return (thing ? thing.mass + thing.holds : 0) + Math.max(shared, ...goods.map(({ mass }) => mass));
}

/** The boards that a motion carries, and what they weigh together, kg; null where one's material has no density. */
function movedBy(
  unit: Unit,
  motion: Motion,
  { boards }: Skeleton,
  room: Surroundings,
): { readonly moving: readonly Board[]; readonly mass: number | null } {
  const moving = boards.filter((board) => goesWith(unit.id, board, motion)?.off === false);
  return { moving, mass: sum(moving.map((board) => massOfBoard(board, room))) };
}
const onSlides = (moving: readonly Board[]): boolean => moving.some(({ role }) => role === 'drawer-side');

/** Who it takes to move something, and what they hold of it at the worst, kg; null where its weight is not known. */
export function handsFor(
  unit: Unit,
  motion: Motion,
  skeleton: Skeleton,
  room: Surroundings,
): ReturnType<typeof handsRule.run> {
  const { moving, mass } = movedBy(unit, motion, skeleton, room);
  const held = (): 'lifted' | 'turned' | 'slid' | 'runs' | 'hung' => {
    if (motion.kind === 'lift-off') return 'lifted';
    if (motion.kind === 'slide') return motion.by[2] !== 0 ? 'lifted' : motion.on || onSlides(moving) ? 'runs' : 'slid';
    return motion.about === 'z' || moving.some(({ role }) => role === 'lift') ? 'hung' : 'turned';
  };
  return handsRule.run({
    how: held(),
    mass:
      mass === null
        ? null
        : mass +
          (motion.kind === 'slide' && motion.on ? motion.on.load : loadOf(unit, after(unit, motion), skeleton, room)),
    length: Math.max(...size(motion.shut)),
  });
}

/** How far something slides, mm. */
const drawnBy = ({ by }: SlideMotion): number => Math.round(Math.hypot(...by) * 1e6) / 1e6;
/** The longest slides of the book that bear a tray and fit under it, mm; where there are none, as long as it is drawn out. */
function slidesUnder(motion: SlideMotion, rated: number, { book }: Surroundings): number {
  const out = drawnBy(motion);
  const fit = book.items.flatMap(({ hardware }) =>
    hardware?.kind === 'slides' &&
    hardware.length !== null &&
    hardware.length >= out &&
    hardware.length <= (motion.on?.long ?? 0) &&
    (hardware.bears ?? 0) >= rated
      ? [hardware.length]
      : [],
  );
  return fit.length > 0 ? Math.max(...fit) : Math.ceil(out);
}

/** A board that lies level is no higher than this, mm. */
const LIES_FLAT_MM = 60;
/** The hardware of one moving part, by how it moves and which boards move with it. */
function wantedBy(unit: Unit, motion: Motion, skeleton: Skeleton, room: Surroundings): Wanted[] {
  const name = after(unit, motion);
  const { moving, mass } = movedBy(unit, motion, skeleton, room);
  const held = (kind: 'catch' | 'strap'): Wanted[] => (motion.latch ? [{ kind, amount: 1 }] : []);
  const [dx, dy, dz] = size(motion.shut);
  if (motion.kind === 'lift-off') return held('strap');
  if (motion.kind === 'slide') {
    if (motion.on) {
      const { rated } = slideRule.run({ mass: (mass ?? 0) + motion.on.load });
      return [{ kind: 'slides', amount: 1, length: slidesUnder(motion, rated, room), bears: rated }, ...held('catch')];
    }
    const side = moving.find(({ role }) => role === 'drawer-side');
    if (!side) return held('catch');
    const box = boardBox(side);
    // of boards whose density is not known at least what lies on them counts
    const { rated } = slideRule.run({ mass: (mass ?? 0) + loadOf(unit, name, skeleton, room) });
    return [{ kind: 'slides', amount: 1, length: box.high[1] - box.low[1], bears: rated }, ...held('catch')];
  }
  // doors of a carcass hang on cup hinges over its edges; whatever else turns, or is too thin for a cup, on butt hinges
  const kind = moving.some(
    ({ role, thickness }) => ['door', 'flap', 'lift'].includes(role) && cupRule.run({ thickness }).takes,
  )
    ? 'cup-hinge'
    : 'butt-hinge';
  const length = motion.about === 'z' ? dz : Math.max(dx, dy);
  const hinges: Wanted = { kind, amount: hingesRule.run({ length, mass }).count };
  if (moving.some(({ role }) => role === 'lift'))
    return [
      hinges,
      // of unknown mass it is the weakest, rather than none
      { kind: 'strut', amount: 2, bears: strutRule.run({ height: dz, mass: mass ?? 0 }).newtons },
      ...held('catch'),
    ];
  // what lies level when it is open is held there: a flap of a front or a top, the leaf of a desk
  const lies = motion.about === 'level' && motion.open.z1 - motion.open.z0 < LIES_FLAT_MM;
  if (lies || moving.some(({ role }) => role === 'flap' || role === 'outside-board'))
    return [hinges, { kind: 'stay', amount: 2 }, ...held('catch')];
  return [hinges, ...held('catch')];
}

/**
 * Whether the book has slides of a length that bear a drawer of these boards with what is in its bay. A book without any slides
 * at all has nothing to say of lengths.
 */
export function slidesBear(room: Surroundings, boards: readonly Board[], load: number, length: number): boolean {
  const slides = room.book.items.flatMap(({ hardware }) => (hardware?.kind === 'slides' ? [hardware] : []));
  const mass = sum(boards.map((board) => massOfBoard(board, room)));
  if (slides.length === 0 || mass === null) return true;
  const { rated } = slideRule.run({ mass: mass + load });
  return slides.some((one) => one.length !== null && Math.abs(one.length - length) < 1 && (one.bears ?? 0) >= rated);
}

/** Metres of channel over and under what slides in it: a pair of panels before one bay runs in one double channel. */
function channels(unit: Unit, skeleton: Skeleton): Wanted[] {
  const runs = new Map<string, { from: number; to: number }>();
  for (const motion of skeleton.motions ?? []) {
    if (motion.kind !== 'slide') continue;
    const name = after(unit, motion);
    const panel = skeleton.boards.find(
      ({ moves, role }) => moves === name && ['sliding', 'partition-door', 'wash-door'].includes(role),
    );
    if (!panel) continue;
    const axis = Math.abs(motion.by[0]) > 0 ? 0 : 1;
    const box = boardBox(panel);
    const ends = [box.low[axis], box.high[axis], box.low[axis] + motion.by[axis], box.high[axis] + motion.by[axis]];
    const key = name.replace(/\.[^.]*$/, '');
    const had = runs.get(key);
    runs.set(key, {
      from: Math.min(...ends, ...(had ? [had.from] : [])),
      to: Math.max(...ends, ...(had ? [had.to] : [])),
    });
  }
  return [...runs.values()].map(({ from, to }) => ({ kind: 'channel', amount: (2 * (to - from)) / 1000 }));
}

/** How many pieces of a length one pack by the metre gives; 0 where it is not sold so, or is shorter. */
function piecesOf({ pack }: PriceItem, length: number): number {
  return pack?.unit === 'm' && length > 0 ? Math.floor((1000 * pack.contents + 0.5) / length) : 0;
}
/** What is bought of it: of what is cut, with what is left of a length that gives no piece more. */
const boughtOf = (item: PriceItem, { amount, length, cut }: Wanted): number =>
  cut === true ? (amount * (item.pack?.contents ?? 0)) / Math.max(1, piecesOf(item, length ?? 0)) : amount;
/** What the boards of a unit hang on. */
const hungOn = ({ hangsOn = [] }: Skeleton): Wanted[] =>
  hangsOn.map(({ kind, count, each }) => ({
    kind,
    amount: count,
    ...(each === undefined ? {} : { length: each, cut: true }),
  }));

/** The stocked one: of the right length, that bears enough, the weakest of those; null where there is none. */
function stocked({ book }: Surroundings, { kind, length, bears, cut }: Wanted): PriceItem | null {
  const fit = book.items
    .flatMap((item) => (item.hardware?.kind === kind ? [{ item, has: item.hardware }] : []))
    .filter(({ item, has }) =>
      cut === true
        ? piecesOf(item, length ?? 0) > 0
        : length === undefined || (has.length !== null && Math.abs(has.length - length) < 1),
    )
    .filter(({ has }) => bears === undefined || (has.bears !== null && has.bears >= bears));
  return [...fit].sort((a, b) => (a.has.bears ?? 0) - (b.has.bears ?? 0))[0]?.item ?? null;
}

/**
 * Hinges, slides, struts, stays, channels and catches of everything in a unit that moves, and what it hangs on, out of the
 * price book. What the book has none of is a problem of the unit.
 * Sources: rules *hinges*, *hinge-cup*, *strut-force*, *slide-load*.
 */
export function hardwareOfMotions(
  unit: Unit,
  skeleton: Skeleton,
  room: Surroundings,
): { readonly hardware: readonly Hardware[]; readonly problems: readonly FurnitureProblem[] } {
  const wanted = [
    ...(skeleton.motions ?? []).flatMap((motion) => wantedBy(unit, motion, skeleton, room)),
    ...channels(unit, skeleton),
    ...hungOn(skeleton),
  ];
  const amounts = new Map<string, number>();
  const missing = new Map<string, Wanted>();
  for (const one of wanted) {
    const item = stocked(room, one);
    if (item) amounts.set(item.id, (amounts.get(item.id) ?? 0) + boughtOf(item, one));
    else {
      // one line for each kind, the one that asks for most
      const had = missing.get(one.kind);
      if (!had || (one.bears ?? 0) > (had.bears ?? 0)) missing.set(one.kind, one);
    }
  }
  return {
    hardware: [...amounts].map(([item, amount]) => ({ item, amount, for: unit.id })),
    problems: [...missing.values()].map(({ kind, length = 0, bears = 0 }) => ({
      place: unit.id,
      said: message(`hardware.none.${kind}`, {
        unit: unit.name,
        length: { mm: length },
        bears: Math.ceil(bears),
      }),
    })),
  };
}
