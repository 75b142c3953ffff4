import { frontLineOf, type Person, type Pet, type Unit } from '@nestplank/core/document';
import type { PlacedRun } from '@nestplank/core/furniture';
import type { Berth } from '@nestplank/core/layout';
import { halfWidth } from '@nestplank/core/shell';
import { screenX, screenY, type FoldOutFrame } from './geometry.js';

/** What begins higher than this hangs over what stands below, mm. */
export const HANGS_MM = 900;
/** Under this a name is written along the vehicle, px. */
const NARROW_PX = 74;
/** About how wide a letter is, small and large, px. */
const LETTER_PX = 6.4;
const LARGE_LETTER_PX = 8.2;
const LINE_PX = 13;
/** A unit shorter than this on the screen is among the names below only. */
const LEAST_PX = 16;
const LARGE_PX = 44;
/** What hangs is named so far from its front to the wall, as a share. */
const TO_THE_WALL = 0.72;

/** Where the name of a unit is written on the fold-out, and the room it takes there, px. */
export interface LabelPlace {
  readonly x: number;
  readonly y: number;
  /** Written along the vehicle. */
  readonly turned: boolean;
  readonly small: boolean;
  readonly box: { readonly x0: number; readonly x1: number; readonly y0: number; readonly y1: number };
}

/** Where the name of a unit goes: along where there is too little room across; null where it has none at all. */
export function labelPlace(frame: FoldOutFrame, unit: Unit): LabelPlace | null {
  const { body, name } = unit;
  const long = body.length * frame.scale;
  if (long < LEAST_PX) return null;
  const line = frontLineOf(unit);
  const hangs = body.from >= HANGS_MM;
  const middle = body.x + body.length / 2;
  const wall = (height: number): number =>
    line ? halfWidth(frame.shell, line.side, middle, frame.shell.floor + height) : 0;
  const across =
    body.stands === 'free' ? body.width * frame.scale : line ? (wall(900) - line.front) * frame.scale : Infinity;
  const turned = across < NARROW_PX || hangs;
  const wide = name.length * LETTER_PX;
  // a name that is longer than the unit stands among the names below
  if (turned && wide > long) return null;
  const y = screenY(frame, middle);
  const x =
    hangs && line
      ? screenX(frame, line.sign * (line.front + (across / frame.scale) * TO_THE_WALL))
      : line
        ? screenX(frame, (line.sign * (line.front + wall(0))) / 2)
        : body.stands === 'free'
          ? screenX(frame, body.y + body.width / 2)
          : frame.centre;
  const small = long < LARGE_PX || turned;
  const half = (small ? wide : name.length * LARGE_LETTER_PX) / 2;
  const box = turned
    ? { x0: x - LINE_PX / 2, x1: x + LINE_PX / 2, y0: y - half, y1: y + half }
    : { x0: x - half, x1: x + half, y0: y - LINE_PX - 2, y1: y + (small ? 2 : LINE_PX + 2) };
  return { x, y, turned, small, box };
}

/** Where the name of somebody who lies is written, on the body, px. */
export function lyingPlace(
  frame: FoldOutFrame,
  person: Person,
  berth: Berth,
  along: 'x' | 'y',
): Pick<LabelPlace, 'x' | 'y' | 'box'> {
  const [mx, my] = [(berth.x0 + berth.x1) / 2, (berth.y0 + berth.y1) / 2];
  const down = person.stature * NAME_AT - person.stature / 2;
  const [x, y] =
    along === 'y' ? [screenX(frame, down), screenY(frame, mx)] : [screenX(frame, my), screenY(frame, mx + down)];
  const half = ((person.name.length + STATURE_LETTERS) * LETTER_PX) / 2;
  return { x, y, box: { x0: x - half, x1: x + half, y0: y - LINE_PX / 2, y1: y + LINE_PX / 2 } };
}
/** Where the name of an animal is written, on its body, px. */
export function animalPlace(
  frame: FoldOutFrame,
  pet: Pet,
  at: { readonly x: number; readonly y: number },
): Pick<LabelPlace, 'x' | 'y' | 'box'> {
  const [x, y] = [screenX(frame, at.y), screenY(frame, at.x)];
  const half = (pet.name.length * LETTER_PX) / 2;
  return { x, y, box: { x0: x - half, x1: x + half, y0: y - LINE_PX / 2, y1: y + LINE_PX / 2 } };
}
/** Where the name of a run is written, over the corner in the middle of its way, px; nowhere while it lies nowhere. */
export function runPlace(frame: FoldOutFrame, { run, points }: PlacedRun): Pick<LabelPlace, 'x' | 'y' | 'box'> | null {
  const corner = points[Math.floor(points.length / 2)];
  if (!corner) return null;
  const [x, y] = [screenX(frame, corner[1]), screenY(frame, corner[0]) - 5];
  const half = (run.name.length * LETTER_PX) / 2;
  return { x, y, box: { x0: x - half, x1: x + half, y0: y - LINE_PX, y1: y + 2 } };
}
/** A run is called by its name while a unit it begins or ends in is chosen. */
export const isNamed = ({ run: { from, to } }: PlacedRun, chosen: string | null): boolean =>
  chosen !== null && [from, to].some((end) => end !== null && 'unit' in end && end.unit === chosen);

/** From the crown downward, as a share of the stature. */
const NAME_AT = 0.345;
/** A space and a stature, in letters. */
const STATURE_LETTERS = 6;
