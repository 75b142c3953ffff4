import type { Arch, Side, Survey } from '../project/schema.js';
import { valueAt } from '../measure/address.js';
import { rectangle, spread, type Point, type Ring } from '../numeric/plane.js';
import { message, mm, type Message } from '../words/message.js';
import { halfWidth, type Shell } from './shell.js';

/** A wheel arch with its sizes, mm. `face` is the distance from the centre line to the face that stands in the room. */
export interface ArchShape {
  readonly id: string;
  readonly name: string;
  readonly side: Side;
  readonly shape: Arch['shape'];
  readonly from: number;
  readonly to: number;
  readonly height: number;
  readonly face: number;
}

export interface ArchResult {
  readonly arches: readonly ArchShape[];
  readonly problems: readonly { readonly said: Message; readonly address: string }[];
}

/** Gathers the arches that are fully measured; names those whose readings cannot be. */
export function archesOf(survey: Survey, shell: Shell | null): ArchResult {
  const problems: { said: Message; address: string }[] = [];
  const arches = survey.arches.flatMap((arch): ArchShape[] => {
    const read = (what: string): number | null => valueAt(survey, `arch/${arch.id}/${what}`);
    const [from, to, height, face] = [read('from'), read('to'), read('height'), read('face')];
    if (from === null || to === null || height === null || face === null) return [];
    if (to <= from) {
      problems.push({
        said: message('arch.order', { name: arch.name, from: mm(from), to: mm(to) }),
        address: `arch/${arch.id}/to`,
      });
      return [];
    }
    const wall = shell ? halfWidth(shell, arch.side, (from + to) / 2, 0) : Infinity;
    if (face >= wall) {
      problems.push({
        said: message('arch.behindWall', { name: arch.name, face: mm(face), wall: mm(wall) }),
        address: `arch/${arch.id}/face`,
      });
      return [];
    }
    return [{ id: arch.id, name: arch.name, side: arch.side, shape: arch.shape, from, to, height, face }];
  });
  return { arches, problems };
}

/** From where to where along x the arch stands at height z; null above it. A rounded arch is half an ellipse seen from the side. */
export function archSpan(arch: ArchShape, z: number): readonly [number, number] | null {
  if (z >= arch.height) return null;
  if (arch.shape === 'box' || z <= 0) return [arch.from, arch.to];
  const half = ((arch.to - arch.from) / 2) * Math.sqrt(1 - (z / arch.height) ** 2);
  const middle = (arch.from + arch.to) / 2;
  return [middle - half, middle + half];
}

/**
 * The arch in a level plane as a ring (x, y), reaching `beyond` mm past the wall so that it can be cut out of a board.
 * @param clearance mm kept free round it
 */
export function archFootprint(arch: ArchShape, shell: Shell, z: number, clearance: number, beyond = 300): Ring | null {
  const span = archSpan(arch, z);
  if (!span) return null;
  const sign = arch.side === 'left' ? -1 : 1;
  const outer = halfWidth(shell, arch.side, (span[0] + span[1]) / 2, z) + beyond;
  const inner = arch.face - clearance;
  return rectangle(
    span[0] - clearance,
    Math.min(sign * inner, sign * outer),
    span[1] + clearance,
    Math.max(sign * inner, sign * outer),
  );
}

/** The arch seen from the side, as points (x, z) along its top from front to rear. */
export function archProfile(arch: ArchShape): Point[] {
  if (arch.shape === 'box')
    return [
      [arch.from, 0],
      [arch.from, arch.height],
      [arch.to, arch.height],
      [arch.to, 0],
    ];
  const middle = (arch.from + arch.to) / 2;
  return spread(Math.PI, 0, 17).map((angle): Point => [
    middle + ((arch.to - arch.from) / 2) * Math.cos(angle),
    arch.height * Math.sin(angle),
  ]);
}

/** How far from the centre line one side is free between two x and two heights, arches and walls considered, mm. */
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
    const span = arch.side === side ? archSpan(arch, z0) : null;
    if (span && span[1] > x0 && span[0] < x1) clear = Math.min(clear, arch.face);
  }
  return clear;
}
