import { baysOf } from '../document/body.js';
import type { Bay, CutWay, Division, Unit } from '../document/unit-schema.js';
import { message, mm } from '../words/message.js';
import type { FurnitureProblem } from './skeleton.js';
import { HAIR_MM } from '../numeric/tolerance.js';

/** The inside of a body, seen from its front: along the vehicle and up, mm. */
export interface Region {
  readonly x0: number;
  readonly x1: number;
  readonly z0: number;
  readonly z1: number;
}
/** The inside of a bay: from where to where it reaches behind the face of the carcass, mm; `far` is null where it ends at the wall. */
export interface Inside extends Region {
  readonly near: number;
  readonly far: number | null;
}
/** A bay with its inside, and what its front may cover: to the unit's edge, or to the middle of a divider less half a reveal. */
export interface PlacedBay {
  readonly bay: Bay;
  readonly inside: Inside;
  readonly front: Region;
}
/** A board between two bays, named after the bay behind it: where it begins along, up, or behind the face, and what it divides. */
export interface Divider {
  readonly name: string;
  readonly cut: CutWay;
  readonly at: number;
  readonly inside: Inside;
  /** A large opening is cut in it. */
  readonly open: boolean;
  /** Screwed on in sight, to be taken off: what lies behind it is got at so. */
  readonly panel: boolean;
  /** Openings for air cut in it, for the one bay behind it. */
  readonly vents?: Bay['vents'];
}
export interface Divided {
  readonly bays: readonly PlacedBay[];
  readonly dividers: readonly Divider[];
  readonly problems: readonly FurnitureProblem[];
}

const EPSILON = HAIR_MM;

/**
 * The clear sizes of a cut's parts: those given in mm as they are, the rest by shares of what is left.
 * @returns null when they do not fit, or nothing is left for the shares; a cut without shares has to fill its room
 */
export function clearSizes(
  sizes: readonly (number | { readonly share: number })[],
  room: number,
): readonly number[] | null {
  const fixed = sizes.reduce<number>((sum, size) => sum + (typeof size === 'number' ? size : 0), 0);
  const shares = sizes.reduce<number>((sum, size) => sum + (typeof size === 'number' ? 0 : size.share), 0);
  const left = room - fixed;
  if (shares === 0) return Math.abs(left) <= 0.5 ? sizes.map(Number) : null;
  if (left <= EPSILON) return null;
  return sizes.map((size) => (typeof size === 'number' ? size : (left * size.share) / shares));
}

/** Nothing goes into a bay that is less wide or high, mm. */
const LEAST_BAY_MM = 20;

/** What a division is set out in, mm. */
export interface Setting {
  readonly inside: Region;
  readonly front: Region;
  /** How thick a divider is, and the gap between neighbouring fronts. */
  readonly thickness: number;
  readonly reveal: number;
  /** What the thing in a bay needs along the front, upward or backward; null where it holds none: it then takes an equal share. */
  readonly need: (bay: Bay, cut: CutWay) => number | null;
  /** How deep it is behind the face of the carcass at least. */
  readonly deep: (inside: Region) => number;
}

/** Walks a division from the body inward: where each bay and each divider is. */
export function divide(unit: Unit, { inside, front, thickness, reveal, need, deep }: Setting): Divided {
  const bays: PlacedBay[] = [];
  const dividers: Divider[] = [];
  const problems: FurnitureProblem[] = [];
  const unfilled = (room: number): void =>
    void problems.push({
      place: unit.id,
      said: message('furniture.division', { unit: unit.name, room: mm(Math.max(0, room)) }),
    });
  const placed = (bay: Bay, room: Inside, face: Region): void => {
    const place = `${unit.id}.${bay.name}`;
    const backward = room.far === null ? [] : [room.far - room.near];
    const least = Math.min(room.x1 - room.x0, room.z1 - room.z0, ...backward);
    if (least < LEAST_BAY_MM)
      problems.push({
        place,
        said: message('furniture.tinyBay', { unit: unit.name, bay: bay.name, size: mm(Math.max(0, least)) }),
      });
    const swings = !['none', 'panel'].includes(bay.front.kind) || SLIDING.includes(bay.holds.kind);
    if (room.near > 0 && swings)
      problems.push({ place, said: message('furniture.behind', { unit: unit.name, bay: bay.name }) });
    bays.push({ bay, inside: room, front: face });
  };
  /** What the things in a part need one way: one after another where it is cut that way, else the largest. */
  const needed = (part: Division, way: CutWay): number | null => {
    if (!('cut' in part)) return need(part, way);
    const all = part.parts.map((one) => needed(one, way));
    const known = all.filter((one) => one !== null);
    if (part.cut !== way) return known.length > 0 ? Math.max(...known) : null;
    if (known.length < all.length) return null;
    const between = part.divider === 'none' ? 0 : (all.length - 1) * thickness;
    return known.reduce((sum, one) => sum + one, between);
  };
  const walk = (division: Division, room: Inside, face: Region): void => {
    if (!('cut' in division)) return placed(division, room, face);
    const { cut, parts } = division;
    const along = cut === 'along';
    const [from, to] = along
      ? [room.x0, room.x1]
      : cut === 'up'
        ? [room.z0, room.z1]
        : [room.near, room.far ?? deep(room)];
    // what is got at by a panel has one before it
    const panelled = parts.map((part, i) => cut === 'deep' && i > 0 && atFace(part).some(isPanelled));
    const solid = division.divider !== 'none';
    const gaps = parts.map((_, i) => (i > 0 && (solid || panelled[i] === true) ? thickness : 0));
    const left = to - from - gaps.reduce((sum, gap) => sum + gap, 0);
    const asked = division.sizes.map((size, i) => {
      if (size !== 'as needed') return size;
      const part = parts[i];
      return (part && needed(part, cut)) ?? { share: 1 };
    });
    const sizes = clearSizes(asked, left);
    if (!sizes || sizes.length !== parts.length) return unfilled(left);
    let at = from;
    let edge = along ? face.x0 : face.z0;
    parts.forEach((part, i) => {
      const gap = gaps[i] ?? 0;
      const next = gaps[i + 1] ?? 0;
      if (gap > 0)
        dividers.push({
          name: boardBetween(cut, part),
          cut,
          at,
          inside: room,
          open: division.divider === 'frame' && panelled[i] !== true,
          panel: panelled[i] === true,
          ...('cut' in part || cut !== 'deep' || !part.vents ? {} : { vents: part.vents }),
        });
      at += gap;
      const end = at + (sizes[i] ?? 0);
      const last = i === parts.length - 1;
      const middle = end + next / 2;
      const faceEnd = last ? (along ? face.x1 : face.z1) : middle - reveal / 2;
      if (cut === 'deep') walk(part, { ...room, near: at, far: last ? room.far : end }, face);
      else if (along) walk(part, { ...room, x0: at, x1: end }, { ...face, x0: edge, x1: faceEnd });
      else walk(part, { ...room, z0: at, z1: end }, { ...face, z0: edge, z1: faceEnd });
      at = end;
      edge = middle + reveal / 2;
    });
  };
  walk(unit.division, { ...inside, near: 0, far: null }, front);
  return { bays, dividers, problems };
}
const BOARDS: Readonly<Record<CutWay, string>> = { along: 'upright', up: 'level', deep: 'inner-back' };
const SLIDING: readonly Bay['holds']['kind'][] = ['drawers', 'pull-out'];
const isPanelled = ({ front }: Bay): boolean => front.kind === 'panel';
/** The bays of a part that lie behind none of it. */
const atFace = (part: Division): readonly Bay[] =>
  'cut' in part ? (part.cut === 'deep' ? part.parts.slice(0, 1) : part.parts).flatMap(atFace) : [part];
/** What the board before a part of a cut is called. */
function boardBetween(cut: CutWay, part: Division): string {
  const off = cut === 'deep' ? atFace(part).find(isPanelled) : undefined;
  return off ? `${off.name}.panel` : `${baysOf(part)[0]?.name}.${BOARDS[cut]}`;
}

/** A divider that can be moved: the board, which way it is moved, and what is sized by it, larger or smaller. */
export interface Movable {
  /** The board between them, by its name within the unit. */
  readonly board: string;
  readonly cut: CutWay;
  /** The bay, or the first of those of what is sized, and how many cuts further out that is. */
  readonly bay: string;
  readonly outward: number;
  /** All bays of what is sized. */
  readonly own: readonly string[];
  /** 1 where the bay lies before the divider and grows with it, -1 where it lies behind. */
  readonly grows: 1 | -1;
  /** The bays on its other side. */
  readonly others: readonly string[];
}

/** How many cuts the first bay of a part lies in within it. */
function deepOf(part: Division): number {
  const [first] = 'cut' in part ? part.parts : [];
  return first ? 1 + deepOf(first) : 0;
}

/** The dividers of a division: by sizing what lies on one side of them they are moved. */
export function movableDividers(division: Division): readonly Movable[] {
  if (!('cut' in division)) return [];
  const { cut, parts } = division;
  const own = parts.slice(1).flatMap((part, i): Movable[] => {
    const before = parts[i];
    const [first] = baysOf(part);
    const board = boardBetween(cut, part);
    if (!before || !first || (division.divider === 'none' && !board.endsWith('.panel'))) return [];
    const named = (one: Division): string[] => baysOf(one).map(({ name }) => name);
    // a bay is rather sized than what is divided further
    const [sized, other, grows] =
      'cut' in before && !('cut' in part) ? ([part, before, -1] as const) : ([before, part, 1] as const);
    const [bay = ''] = named(sized);
    return [{ board, cut, bay, outward: deepOf(sized), own: named(sized), grows, others: named(other) }];
  });
  return [...own, ...parts.flatMap(movableDividers)];
}
