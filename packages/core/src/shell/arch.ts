import type { Arch, Side, Survey } from '../document/schema.js';
import { valueAt } from '../document/address.js';
import { rectangle, spread, type Point, type Ring } from '../numeric/plane.js';
import { message, mm, type Message } from '../words/message.js';
import { halfWidth, type Shell } from './shell.js';

/**
 * Something that stands into the room, with its sizes, mm: a wheel arch, hump, pillar or duct; or a step, which goes down
 * through the floor. `face` is the distance from the centre line to the face that stands in the room.
 */
export interface ArchShape {
  readonly id: string;
  readonly name: string;
  readonly side: Side;
  readonly kind: Arch['kind'];
  readonly shape: Arch['shape'];
  readonly from: number;
  readonly to: number;
  /** Its top above the bare floor; 0 for a step. */
  readonly height: number;
  /** Its underside: 0 for what stands on the floor, below 0 for a step. */
  readonly bottom: number;
  readonly face: number;
  /** The face at its top, where it tapers. */
  readonly topFace: number;
  /** The far face of a hump that does not reach the wall, else null. */
  readonly far: number | null;
}

export interface ArchResult {
  readonly arches: readonly ArchShape[];
  readonly problems: readonly { readonly said: Message; readonly address: string }[];
}

/** Gathers what is fully measured; names that whose readings cannot be. */
export function archesOf(survey: Survey, shell: Shell | null): ArchResult {
  const problems: { said: Message; address: string }[] = [];
  const arches = survey.arches.flatMap((arch): ArchShape[] => {
    const read = (what: string): number | null => valueAt(survey, `arch/${arch.id}/${what}`);
    const [from, to, height, face] = [read('from'), read('to'), read('height'), read('face')];
    const far = read('far');
    if (from === null || to === null || height === null || face === null) return [];
    const refuse = (said: Message, what: string): [] => {
      problems.push({ said, address: `arch/${arch.id}/${what}` });
      return [];
    };
    if (to <= from) return refuse(message('arch.order', { name: arch.name, from: mm(from), to: mm(to) }), 'to');
    const wall = shell ? halfWidth(shell, arch.side, (from + to) / 2, 0) : Infinity;
    if (face >= wall)
      return refuse(message('arch.behindWall', { name: arch.name, face: mm(face), wall: mm(wall) }), 'face');
    if (far !== null && far <= face)
      return refuse(message('arch.far', { name: arch.name, face: mm(face), far: mm(far) }), 'far');
    const step = arch.kind === 'step';
    const bottom = step ? -height : (read('bottom') ?? 0);
    if (!step && bottom >= height)
      return refuse(message('arch.flat', { name: arch.name, bottom: mm(bottom), height: mm(height) }), 'bottom');
    return [
      {
        id: arch.id,
        name: arch.name,
        side: arch.side,
        kind: arch.kind,
        shape: arch.shape,
        from,
        to,
        height: step ? 0 : height,
        bottom,
        face,
        topFace: read('top-face') ?? face,
        far,
      },
    ];
  });
  return { arches, problems };
}

/** From where to where along x it stands at height z; null above and below it. A rounded arch is half an ellipse seen from the side. */
export function archSpan(arch: ArchShape, z: number): readonly [number, number] | null {
  if (z >= arch.height || z < Math.min(0, arch.bottom) || (arch.bottom > 0 && z < arch.bottom)) return null;
  if (arch.shape !== 'rounded' || z <= arch.bottom) return [arch.from, arch.to];
  const half = ((arch.to - arch.from) / 2) * Math.sqrt(1 - ((z - arch.bottom) / (arch.height - arch.bottom)) ** 2);
  const middle = (arch.from + arch.to) / 2;
  return [middle - half, middle + half];
}

/** Distance from the centre line to its face at height z: straight from foot to top where it tapers. */
export function archFace(arch: ArchShape, z: number): number {
  if (arch.shape !== 'tapered' || arch.height <= arch.bottom) return arch.face;
  const t = Math.min(1, Math.max(0, (z - arch.bottom) / (arch.height - arch.bottom)));
  return arch.face + (arch.topFace - arch.face) * t;
}

/**
 * It in a level plane as a ring (x, y), reaching `beyond` mm past the wall so that it can be cut out of a board. A step
 * is cut out of every board that lies on the floor.
 * @param clearance mm kept free round it
 */
export function archFootprint(arch: ArchShape, shell: Shell, z: number, clearance: number, beyond = 300): Ring | null {
  const step = arch.kind === 'step';
  const span = step ? ([arch.from, arch.to] as const) : archSpan(arch, z);
  if (!span) return null;
  const sign = arch.side === 'left' ? -1 : 1;
  const outer =
    arch.far === null ? halfWidth(shell, arch.side, (span[0] + span[1]) / 2, z) + beyond : arch.far + clearance;
  // a board may reach over the edge of a step, but not beyond it
  const inner = step ? arch.face : archFace(arch, z) - clearance;
  const along = step ? 0 : clearance;
  return rectangle(
    span[0] - along,
    Math.min(sign * inner, sign * outer),
    span[1] + along,
    Math.max(sign * inner, sign * outer),
  );
}

/**
 * The highest of it between two x, mm from the floor of the bare shell: what stands there stands on it. Null where it is not
 * between them, and for a step, which lies below the floor. A rounded arch is half an ellipse seen from the side.
 */
export function archTop(arch: ArchShape, x0: number, x1: number): number | null {
  if (arch.height <= 0 || x1 <= arch.from || x0 >= arch.to) return null;
  if (arch.shape !== 'rounded') return arch.height;
  const [middle, half] = [(arch.from + arch.to) / 2, (arch.to - arch.from) / 2];
  const nearest = Math.min(Math.max(middle, x0), x1);
  const share = Math.min(1, Math.abs(nearest - middle) / half);
  return arch.bottom + (arch.height - arch.bottom) * Math.sqrt(1 - share ** 2);
}

/** It seen from the side, as points (x, z) along its top from front to rear. */
export function archProfile(arch: ArchShape): Point[] {
  if (arch.shape !== 'rounded')
    return [
      [arch.from, arch.bottom],
      [arch.from, arch.height],
      [arch.to, arch.height],
      [arch.to, arch.bottom],
    ];
  const middle = (arch.from + arch.to) / 2;
  return spread(Math.PI, 0, 17).map((angle): Point => [
    middle + ((arch.to - arch.from) / 2) * Math.cos(angle),
    arch.bottom + (arch.height - arch.bottom) * Math.sin(angle),
  ]);
}

/** How far from the centre line one side is free between two x and two heights, walls and all that stands there considered, mm. */
export function clearHalfWidth(
  shell: Shell,
  arches: readonly ArchShape[],
  side: Side,
  x0: number,
  x1: number,
  z0: number,
  z1: number,
): number {
  let clear = Infinity;
  for (const x of spread(x0, x1, 13))
    for (const z of spread(z0, z1, 7)) clear = Math.min(clear, halfWidth(shell, side, x, z));
  for (const arch of arches) {
    const at = Math.max(z0, arch.bottom);
    const span = arch.side === side && at <= z1 ? archSpan(arch, at) : null;
    if (span && span[1] > x0 && span[0] < x1)
      clear = Math.min(clear, archFace(arch, at), archFace(arch, Math.min(z1, arch.height)));
  }
  return clear;
}
