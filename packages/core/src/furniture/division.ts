import { baysOf } from '../document/body.js';
import type { Bay, Division, Unit } from '../document/unit-schema.js';
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
/** A bay with its inside, and what its front may cover: to the unit's edge, or to the middle of a divider less half a reveal. */
export interface PlacedBay {
  readonly bay: Bay;
  readonly inside: Region;
  readonly front: Region;
}
/** A board between two bays, named after the bay behind it. */
export interface Divider {
  readonly name: string;
  readonly cut: 'along' | 'up';
  readonly at: number;
  readonly inside: Region;
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

/**
 * Walks a division from the body inward: where each bay and each divider is.
 * @param thickness of a divider, mm
 * @param reveal gap between neighbouring fronts, mm
 * @param need what the thing in a bay needs along the front; null where it holds none: it then takes an equal share
 */
export function divide(
  unit: Unit,
  inside: Region,
  front: Region,
  thickness: number,
  reveal: number,
  need: (bay: Bay) => number | null = () => null,
): Divided {
  const bays: PlacedBay[] = [];
  const dividers: Divider[] = [];
  const problems: FurnitureProblem[] = [];
  const walk = (division: Division, room: Region, face: Region): void => {
    if (!('cut' in division)) {
      const least = Math.min(room.x1 - room.x0, room.z1 - room.z0);
      if (least < LEAST_BAY_MM)
        problems.push({
          place: `${unit.id}.${division.name}`,
          said: message('furniture.tinyBay', { unit: unit.name, bay: division.name, size: mm(Math.max(0, least)) }),
        });
      bays.push({ bay: division, inside: room, front: face });
      return;
    }
    const { cut, parts } = division;
    const along = cut === 'along';
    const [from, to] = along ? [room.x0, room.x1] : [room.z0, room.z1];
    const between = division.divider === 'board' ? thickness : 0;
    const asked = division.sizes.map((size, i) => {
      if (size !== 'as needed') return size;
      const needs = along ? baysOf(parts[i] ?? parts[0] ?? division).flatMap((bay) => need(bay) ?? []) : [];
      return needs.length > 0 ? Math.max(...needs) : { share: 1 };
    });
    const sizes = clearSizes(asked, to - from - between * (parts.length - 1));
    if (!sizes || sizes.length !== parts.length) {
      problems.push({
        place: unit.id,
        said: message('furniture.division', {
          unit: unit.name,
          room: mm(Math.max(0, to - from - between * (parts.length - 1))),
        }),
      });
      return;
    }
    let at = from;
    let edge = along ? face.x0 : face.z0;
    parts.forEach((part, i) => {
      const size = sizes[i] ?? 0;
      const end = at + size;
      const last = i === parts.length - 1;
      const middle = end + between / 2;
      const faceEnd = last ? (along ? face.x1 : face.z1) : middle - reveal / 2;
      const own = along ? { ...room, x0: at, x1: end } : { ...room, z0: at, z1: end };
      const shown = along ? { ...face, x0: edge, x1: faceEnd } : { ...face, z0: edge, z1: faceEnd };
      if (i > 0 && division.divider === 'board')
        dividers.push({
          name: `${baysOf(part)[0]?.name ?? i}.${along ? 'upright' : 'level'}`,
          cut,
          at: at - between,
          inside: room,
        });
      walk(part, own, shown);
      at = end + between;
      edge = middle + reveal / 2;
    });
  };
  walk(unit.division, inside, front);
  return { bays, dividers, problems };
}

/** A divider that can be moved: the board, which way it is moved, and the bay that is sized by it, larger or smaller. */
export interface Movable {
  /** The board between them, by its name within the unit. */
  readonly board: string;
  readonly cut: 'along' | 'up';
  readonly bay: string;
  /** 1 where the bay lies before the divider and grows with it, -1 where it lies behind. */
  readonly grows: 1 | -1;
}

/** The dividers of a division that lie beside a bay of their own cut: by sizing it they are moved. */
export function movableDividers(division: Division): readonly Movable[] {
  if (!('cut' in division)) return [];
  const { cut, parts } = division;
  const own = parts.slice(1).flatMap((part, i): Movable[] => {
    const before = parts[i];
    const [first] = baysOf(part);
    if (!before || !first || division.divider !== 'board') return [];
    const board = `${first.name}.${cut === 'along' ? 'upright' : 'level'}`;
    if (!('cut' in before)) return [{ board, cut, bay: before.name, grows: 1 }];
    return 'cut' in part ? [] : [{ board, cut, bay: part.name, grows: -1 }];
  });
  return [...own, ...parts.flatMap(movableDividers)];
}
