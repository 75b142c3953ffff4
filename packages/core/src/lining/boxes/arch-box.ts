import { placeSeen } from '../../parts/lay-flat.js';
import { seenFrom } from '../../parts/hand.js';
import { leaveOn, type LeftOn } from '../../parts/scribe.js';
import type { BoxChoice, PriceBook, PriceItem } from '../../document/schema.js';
import { isBar } from '../../materials/bars.js';
import type { LiningRole, Part, Vector } from '../../parts/part.js';
import { materialOf } from '../../materials/material.js';
import { rectangle, spread, type Outline, type Point } from '../../numeric/plane.js';
import { archFace, archSpan, type ArchShape } from '../../shell/arch.js';
import { halfWidth, type Shell } from '../../shell/shell.js';
import { message, mm, type Message } from '../../words/message.js';

/** A box over a wheel arch. */
export interface ArchBox {
  readonly arch: string;
  readonly name: string;
  /** Outer size, mm. */
  readonly length: number;
  readonly height: number;
  readonly depth: number;
  /** Room lost between the arch and its box, litres. */
  readonly dead: number;
  /** What is cut out of a unit that stands over the arch instead, mm: no room is lost to a box. */
  readonly notch: { readonly length: number; readonly height: number; readonly depth: number };
  /** Brackets that hold it to wall and floor. */
  readonly brackets: number;
  /** What its top is taken to bear, N, and over which length of it, mm. */
  readonly load: { readonly newtons: number; readonly over: number };
  /** How far its top gives under that, mm, and the most that is allowed; null when the board's stiffness is not known. */
  readonly sag: number | null;
  readonly allowed: number;
  readonly strong: boolean | null;
  readonly parts: readonly Part[];
  readonly problems: readonly Message[];
}

/** One person standing on a foot: 1.2 kN on a line, over a strip of the top as wide as the board carries with it. */
const PERSON_N = 1200;
const CARRYING_MM = 300;
/** Somebody sitting: 1 kN spread over the depth and the width of a seat. */
const SITTER_N = 1000;
const SEAT_MM = 400;
const GRAVITY = 9.81;
const BRACKETS_MM = 400;
/** Room is added up in so many slices. */
const SLICES = 40;
const LID_PLAY_MM = 2;
const FINGER_MM = 25;

/** What the top bears and how: at one place in the middle of its span, or spread over it. */
function loadOf(
  choice: BoxChoice,
  length: number,
): { readonly newtons: number; readonly over: number; readonly spread: boolean } {
  if (choice.load === 'step') return { newtons: PERSON_N, over: Math.min(CARRYING_MM, length), spread: false };
  if (choice.load === 'seat') return { newtons: SITTER_N, over: Math.min(SEAT_MM, length), spread: true };
  return { newtons: choice.stored * GRAVITY, over: length, spread: true };
}
const SAG_LIMIT = 200;
const SAFETY = 1.5;

/** A top that lifts off its rails: play all round, and a hole for a finger near its front. */
function lidOf(length: number, topEdge: readonly Point[]): Outline {
  const outer: Point[] = [
    [LID_PLAY_MM, 0],
    [length - LID_PLAY_MM, 0],
    ...[...topEdge]
      .reverse()
      .map(([x, y]): Point => [Math.min(length - LID_PLAY_MM, Math.max(LID_PLAY_MM, x)), y - LID_PLAY_MM]),
  ];
  const finger = spread(0, 2 * Math.PI, 25)
    .slice(0, -1)
    .map((angle): Point => [
      length / 2 + (FINGER_MM / 2) * Math.cos(angle),
      2 * FINGER_MM + (FINGER_MM / 2) * Math.sin(angle),
    ]);
  return { outer, holes: [finger] };
}

/** A box over one arch: top scribed to the wall, a long face, two ends, rails under the top's edges. */
function boxOver(
  arch: ArchShape,
  face: Shell,
  choice: BoxChoice,
  material: PriceItem,
  rail: PriceItem | null,
): ArchBox {
  const t = material.thickness;
  const c = choice.clearance;
  const sign = arch.side === 'left' ? -1 : 1;
  const [x0, x1] = [Math.max(0, arch.from - c - t), Math.min(face.length, arch.to + c + t)];
  const top = arch.height + c + t;
  const front = Math.max(0, Math.min(arch.face, arch.topFace) - c - t);
  const length = x1 - x0;
  const height = top - face.floor;
  const wall = (x: number, z: number): number => halfWidth(face, arch.side, x, z) - front;
  const part = (
    name: string,
    role: LiningRole,
    number: number,
    outline: Outline,
    origin: Vector,
    along: Vector,
    across: Vector,
    good: Vector,
    made = material,
    left: readonly LeftOn[] = [],
  ): Part => {
    const cut = leaveOn(
      {
        id: `box-${arch.id}-${name}`,
        role,
        number,
        unit: null,
        surface: arch.side,
        of: arch.name,
        material: made.id,
        thickness: made.thickness,
        outline,
        grain: made.grain,
        edges: [],
        place: placeSeen(origin, along, across),
      },
      choice.scribe ?? 0,
      left,
    );
    return seenFrom(cut, good);
  };
  const outward: Vector = [0, sign, 0];
  const inward: Vector = [0, 0 - sign, 0];
  const xs = spread(x0, x1, 13);
  const topEdge = xs.map((x): Point => [x - x0, Math.min(wall(x, top), wall(x, top - t))]);
  const endLine = (x: number): Point[] =>
    spread(face.floor, top - t, 9).map((z): Point => [wall(x, z) - t, z - face.floor]);
  const parts: Part[] = [
    part(
      'top',
      'arch-top',
      1,
      choice.access === 'lid'
        ? lidOf(length, topEdge)
        : { outer: [[0, 0], [length, 0], ...[...topEdge].reverse()], holes: [] },
      [x0, sign * front, top],
      [1, 0, 0],
      outward,
      [0, 0, 1],
      material,
      // a lid has play there instead
      choice.access === 'lid' ? [] : [{ at: 'back', line: topEdge, out: [0, 1] }],
    ),
    part(
      'side',
      'arch-side',
      1,
      { outer: rectangle(0, 0, length, height - t), holes: [] },
      [x0, sign * front, face.floor],
      [1, 0, 0],
      [0, 0, 1],
      inward,
    ),
    ...[x0, x1 - t].map((x, i) =>
      part(
        `end-${i + 1}`,
        'arch-end',
        i + 1,
        { outer: [[0, 0], ...endLine(x), [0, top - t - face.floor]], holes: [] },
        [i === 0 ? x : x + t, sign * (front + t), face.floor],
        outward,
        [0, 0, 1],
        [i === 0 ? -1 : 1, 0, 0],
        material,
        [{ at: 'back', line: endLine(x), out: [1, 0] }],
      ),
    ),
    ...(rail
      ? [0, 1].map((i) =>
          part(
            `rail-${i + 1}`,
            'arch-rail',
            i + 1,
            { outer: rectangle(0, 0, length - 2 * t, rail.width), holes: [] },
            [x0 + t, sign * (front + t), i === 0 ? top - t - rail.width : face.floor],
            [1, 0, 0],
            [0, 0, 1],
            inward,
            rail,
          ),
        )
      : []),
  ];
  // the top spans from the face to the wall; its grain runs along the vehicle, so it is bent across
  const span = Math.max(...topEdge.map(([, y]) => y));
  const own = material.bending?.across ?? null;
  const load = loadOf(choice, length);
  const inertia = (load.over * t ** 3) / 12;
  // a beam on two supports, loaded in the middle or evenly
  const sag = own ? ((load.spread ? 5 / 8 : 1) * (load.newtons * span ** 3)) / (48 * own.modulus * inertia) : null;
  const stress = (load.newtons * span) / (load.spread ? 8 : 4) / ((load.over * t * t) / 6);
  const allowed = span / SAG_LIMIT;
  const strong = own && sag !== null ? sag <= allowed && stress <= own.strength / SAFETY : null;
  // slice by slice, from the finished floor up: a rounded arch is shorter higher up, a tapered one less deep
  const slices = spread(0, 1, SLICES + 1)
    .slice(1)
    .map((share) => share - 0.5 / SLICES);
  const middle = (x0 + x1) / 2;
  const high = Math.max(0, arch.height - face.floor);
  const inside = slices.reduce((sum, share) => {
    const z = face.floor + share * high;
    const along = archSpan(arch, z);
    const deep = Math.max(0, halfWidth(face, arch.side, middle, z) - archFace(arch, z));
    return sum + (along ? (along[1] - along[0]) * deep * (high / SLICES) : 0);
  }, 0);
  const whole = slices.reduce(
    (sum, share) => sum + length * Math.max(0, wall(middle, face.floor + share * height)) * (height / SLICES),
    0,
  );
  return {
    arch: arch.id,
    name: arch.name,
    length,
    height,
    depth: span,
    dead: Math.max(0, whole - inside) / 1e6,
    notch: { length: arch.to - arch.from + 2 * c, height: arch.height + c - face.floor, depth: span - t },
    brackets: 2 * Math.max(2, Math.ceil(length / BRACKETS_MM) + 1),
    load: { newtons: load.newtons, over: load.over },
    sag,
    allowed,
    strong,
    parts,
    problems: strong === false ? [message(`arch.box.thin.${choice.load}`, { name: arch.name, span: mm(span) })] : [],
  };
}

/** Boxes over the arches that are to have one. */
export function archBoxes(
  arches: readonly ArchShape[],
  face: Shell,
  choice: BoxChoice,
  book: PriceBook,
): readonly ArchBox[] {
  const material = materialOf(book, choice.board);
  if (!material) return [];
  const rail = book.items.find((item) => item.group === 'timber' && isBar(item) && item.thickness >= 25) ?? null;
  return arches
    .filter((arch) => choice.arches.includes(arch.id) && arch.kind === 'arch' && arch.bottom <= 0 && arch.far === null)
    .map((arch) => boxOver(arch, face, choice, material, rail));
}
