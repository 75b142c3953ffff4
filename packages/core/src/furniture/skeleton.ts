import { boxOf, type Point } from '../numeric/plane.js';
import type { Vector } from '../parts/part.js';
import type { Axis, Standing } from '../parts/lay-flat.js';
import type { Bay } from '../document/unit-schema.js';
import type { SolidBox } from '../rules/room.js';
import type { Message } from '../words/message.js';
import type { Motion } from './motions.js';

/** An edge of a board: in sight, or cut to the vehicle's curve. */
export interface BoardEdge {
  readonly kind: 'scribe' | 'visible';
  readonly at: 'left' | 'right' | 'back' | 'front';
  /** The line it is to have in the end, on the board's plane, mm. Empty for a straight one. */
  readonly line: readonly Point[];
  readonly allowance: number;
  /** The most that comes off it, from the cut edge to the line, mm. */
  readonly most: number;
  /** How far the vehicle leans from the lower to the higher face along the edge, radians. */
  readonly leans: readonly number[];
}

/** How a board is held: for good, only lying on what is under it, or hung on hinges. */
export type Held = 'fixed' | 'loose' | 'hung';

/** One board that the furniture needs, whatever it is made of. */
export interface Board extends Standing {
  /** Lasts within its unit. */
  readonly name: string;
  readonly role: string;
  readonly material: string;
  readonly edges: readonly BoardEdge[];
  readonly held: Held;
  /** What it moves with, by that motion's name within the unit; left out where it stands still. */
  readonly moves?: string;
}

/** Where two boards touch: `a` by its face, `b` by its edge; or both by their faces. */
export interface Contact {
  readonly a: string;
  readonly b: string;
  readonly kind: 'butt' | 'face' | 'rest' | 'hinge' | 'slide';
  readonly from: Vector;
  readonly to: Vector;
  /** mm */
  readonly length: number;
}

/** What cannot be as it is asked for; the board or bay it speaks of. */
export interface FurnitureProblem {
  readonly said: Message;
  readonly place: string;
}

export interface Skeleton {
  readonly boards: readonly Board[];
  readonly contacts: readonly Contact[];
  /** Built to be taken apart again: nothing is glued. */
  readonly comesApart: boolean;
  readonly problems: readonly FurnitureProblem[];
  /** How its parts move; the only source of swept room, of modes and of what is drawn open. */
  readonly motions?: readonly Motion[];
  /** Its bays as they come out in the room. */
  readonly bays?: readonly BayRoom[];
  /** What its boards hang on: bought, not made. */
  readonly hangsOn?: readonly HangsOn[];
}

/** Pieces that something hangs on: so many, each so long where it is cut from a length, mm. */
export interface HangsOn {
  readonly kind: 'wall-rail' | 'rail-bracket';
  readonly count: number;
  readonly each?: number;
  /** Where they stand, to be drawn; as many as there are. */
  readonly at?: readonly SolidBox[];
}

/** The inside of a bay in the vehicle, clear of boards: a box as far as one fits before the wall behind it, mm. */
export interface BayRoom {
  readonly bay: Bay;
  readonly room: SolidBox;
  /** Which way one reaches into it from its front: -1 from the right, 1 from the left; 0 from above. */
  readonly into: 1 | -1 | 0;
  /** It is reached along the vehicle: through its front end, or its rear end. */
  readonly end?: 'front' | 'rear';
  /** What lies over it lifts off, so that it is open from above too. */
  readonly lifts?: boolean;
  /** How deep it is at its foot and at its head, from its front to the wall or to whatever stands there, mm. */
  readonly deepLow: number;
  readonly deepHigh: number;
  /** What one reaches it through, wide and high, where that is less than all of its front, mm. */
  readonly through?: readonly [number, number];
  /** How far it begins behind the face of its unit, mm: it lies behind another bay. */
  readonly behind?: number;
  /** How deep it is where clothes hang from a rail under its head, mm. */
  readonly deepHang?: number;
}

interface Box {
  readonly low: Vector;
  readonly high: Vector;
}

/** The upright box round a board. */
export function boardBox({ normal, at, thickness, outline }: Standing): Box {
  const { minX, maxX, minY, maxY } = boxOf(outline.outer);
  const until = at + thickness;
  if (normal === 'x') return { low: [at, minX, minY], high: [until, maxX, maxY] };
  if (normal === 'y') return { low: [minX, at, minY], high: [maxX, until, maxY] };
  return { low: [minX, minY, at], high: [maxX, maxY, until] };
}

/** Boards that come this near touch, mm; and they have to share more than this to carry each other. */
const TOUCH_MM = 0.2;
const SHARED_MM = 4;
const AXES: readonly Axis[] = ['x', 'y', 'z'];

/** How far two boxes share a stretch of an axis, mm; below zero where they are apart. */
const sharedBy = (a: Box, b: Box, i: 0 | 1 | 2): number =>
  Math.min(a.high[i], b.high[i]) - Math.max(a.low[i], b.low[i]);

function contactOf(a: Board, boxA: Box, b: Board, boxB: Box): Contact | null {
  const by0 = sharedBy(boxA, boxB, 0);
  const by1 = sharedBy(boxA, boxB, 1);
  const by2 = sharedBy(boxA, boxB, 2);
  // most boards are nowhere near each other
  if (by0 < -TOUCH_MM || by1 < -TOUCH_MM || by2 < -TOUCH_MM) return null;
  const apart = by0 <= TOUCH_MM ? 0 : by1 <= TOUCH_MM ? 1 : by2 <= TOUCH_MM ? 2 : null;
  if (apart === null) return null;
  if ((apart !== 0 && by0 < SHARED_MM) || (apart !== 1 && by1 < SHARED_MM) || (apart !== 2 && by2 < SHARED_MM))
    return null;
  const axis = AXES[apart];
  // edge on edge carries nothing
  if (a.normal !== axis && b.normal !== axis) return null;
  const byFaces = a.normal === b.normal;
  const [met, other] = a.normal === axis ? [a, b] : [b, a];
  const [first, second] = apart === 0 ? ([1, 2] as const) : apart === 1 ? ([0, 2] as const) : ([0, 1] as const);
  const long = sharedBy(boxA, boxB, second) > sharedBy(boxA, boxB, first) ? second : first;
  const at = (i: 0 | 1 | 2, end: 'from' | 'to'): number => {
    const from = Math.max(boxA.low[i], boxB.low[i]);
    const to = Math.min(boxA.high[i], boxB.high[i]);
    return i === long ? (end === 'from' ? from : to) : (from + to) / 2;
  };
  const hung = a.held === 'hung' || b.held === 'hung';
  const kind =
    a.moves !== b.moves && !hung
      ? 'slide'
      : hung
        ? 'hinge'
        : a.held === 'loose' || b.held === 'loose'
          ? 'rest'
          : byFaces
            ? 'face'
            : 'butt';
  return {
    a: met.name,
    b: other.name,
    kind,
    from: [at(0, 'from'), at(1, 'from'), at(2, 'from')],
    to: [at(0, 'to'), at(1, 'to'), at(2, 'to')],
    length: sharedBy(boxA, boxB, long),
  };
}

/** The box round boards, in the vehicle, mm. */
export function boxRound(boards: readonly Board[]): SolidBox {
  const boxes = boards.map(boardBox);
  const low = (i: 0 | 1 | 2): number => Math.min(...boxes.map((box) => box.low[i]));
  const high = (i: 0 | 1 | 2): number => Math.max(...boxes.map((box) => box.high[i]));
  return { x0: low(0), x1: high(0), y0: low(1), y1: high(1), z0: low(2), z1: high(2) };
}

/** What touches what: every pair of boards of which one meets the other with its face. */
export function contactsOf(boards: readonly Board[]): readonly Contact[] {
  const boxes = boards.map(boardBox);
  const contacts: Contact[] = [];
  for (let i = 0; i < boards.length; i += 1)
    for (let k = i + 1; k < boards.length; k += 1) {
      const contact = contactOf(boards[i] as Board, boxes[i] as Box, boards[k] as Board, boxes[k] as Box);
      if (contact) contacts.push(contact);
    }
  return contacts;
}

/** A board narrower than this is a splinter, mm. */
const LEAST_BOARD_MM = 8;
/** The boards of which hardly anything is left, and how wide they would be, mm. */
export const thinIn = (boards: readonly Board[]): readonly { readonly board: Board; readonly wide: number }[] =>
  boards.flatMap((board) => {
    const box = boxOf(board.outline.outer);
    const wide = Math.min(box.maxX - box.minX, box.maxY - box.minY);
    return wide < LEAST_BOARD_MM ? [{ board, wide }] : [];
  });
