import { boxOf, type Point } from '../numeric/plane.js';
import type { Vector } from '../parts/part.js';
import { planeAxes, type Axis, type Standing } from '../parts/lay-flat.js';
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
  /** The axis across which it is cut. */
  readonly across: Axis;
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
}

/** The inside of a bay in the vehicle, clear of boards: a box as far as one fits before the wall behind it, mm. */
export interface BayRoom {
  readonly bay: Bay;
  readonly room: SolidBox;
  /** Which way one reaches into it from its front: -1 from the right, 1 from the left; 0 from above. */
  readonly into: 1 | -1 | 0;
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
  const axes = planeAxes(normal);
  const range = (axis: Axis): [number, number] => {
    if (axis === normal) return [at, at + thickness];
    const values = outline.outer.map((point) => point[axis === axes[0] ? 0 : 1]);
    return [Math.min(...values), Math.max(...values)];
  };
  const [x, y, z] = [range('x'), range('y'), range('z')];
  return { low: [x[0], y[0], z[0]], high: [x[1], y[1], z[1]] };
}

/** Boards that come this near touch, mm; and they have to share more than this to carry each other. */
const TOUCH_MM = 0.2;
const SHARED_MM = 4;
const AXES: readonly Axis[] = ['x', 'y', 'z'];

function contactOf(a: Board, boxA: Box, b: Board, boxB: Box): Contact | null {
  // most boards are nowhere near each other
  for (let i = 0; i < 3; i += 1)
    if ((boxA.low[i] ?? 0) > (boxB.high[i] ?? 0) + TOUCH_MM || (boxB.low[i] ?? 0) > (boxA.high[i] ?? 0) + TOUCH_MM)
      return null;
  const shared = [0, 1, 2].map((i) => {
    const from = Math.max(boxA.low[i] ?? 0, boxB.low[i] ?? 0);
    const to = Math.min(boxA.high[i] ?? 0, boxB.high[i] ?? 0);
    return { from, to, by: to - from };
  });
  const apart = shared.findIndex(({ by }) => Math.abs(by) <= TOUCH_MM);
  if (apart < 0 || shared.some(({ by }, i) => i !== apart && by < SHARED_MM)) return null;
  const axis = AXES[apart];
  const faces = [a, b].filter((board) => board.normal === axis);
  // edge on edge carries nothing
  if (faces.length === 0) return null;
  const [met, other] = faces[0] === a ? [a, b] : [b, a];
  const longest = [0, 1, 2]
    .filter((i) => i !== apart)
    .reduce((x, y) => ((shared[y]?.by ?? 0) > (shared[x]?.by ?? 0) ? y : x));
  const at = (i: number, end: 'from' | 'to'): number => {
    const range = shared[i];
    if (!range) return 0;
    return i === longest ? range[end] : (range.from + range.to) / 2;
  };
  const held = [a.held, b.held];
  const kind =
    a.moves !== b.moves && !held.includes('hung')
      ? 'slide'
      : held.includes('hung')
        ? 'hinge'
        : held.includes('loose')
          ? 'rest'
          : faces.length === 2
            ? 'face'
            : 'butt';
  return {
    a: met.name,
    b: other.name,
    kind,
    from: [at(0, 'from'), at(1, 'from'), at(2, 'from')],
    to: [at(0, 'to'), at(1, 'to'), at(2, 'to')],
    length: shared[longest]?.by ?? 0,
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
  const boxed = boards.map((board) => ({ board, box: boardBox(board) }));
  const contacts: Contact[] = [];
  boxed.forEach((a, i) => {
    for (let k = i + 1; k < boxed.length; k += 1) {
      const b = boxed[k];
      const contact = b && contactOf(a.board, a.box, b.board, b.box);
      if (contact) contacts.push(contact);
    }
  });
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
