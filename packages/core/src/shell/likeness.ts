import type { Side } from '../document/schema.js';
import { spread } from '../numeric/plane.js';
import type { ArchShape } from './arch.js';
import { halfWidth, sideDistance, wallTop, type Shell, type StationSection } from './shell.js';

/** The largest difference between two sections' walls, mm. */
function sectionsApart(a: StationSection, b: StationSection): number {
  const top = Math.min(a.left.at.at(-1) ?? 0, b.left.at.at(-1) ?? 0, a.right.at.at(-1) ?? 0, b.right.at.at(-1) ?? 0);
  return Math.max(
    ...(['left', 'right'] as const).flatMap((side) =>
      spread(0, top, 18).map((z) => Math.abs(sideDistance(a, side, z) - sideDistance(b, side, z))),
    ),
  );
}

/** Runs of stations whose sections are the same to within a tolerance: one pattern does for all of a run. By their places, mm. */
export function likeStations(shell: Shell, tolerance: number): readonly (readonly number[])[] {
  const groups: StationSection[][] = [];
  for (const section of shell.stations) {
    const group = groups.find((members) => members.every((member) => sectionsApart(member, section) <= tolerance));
    if (group) group.push(section);
    else groups.push([section]);
  }
  return groups.map((group) => group.map((section) => section.x));
}

/** How high an upright panel along the vehicle can rise at a distance from the centre line before it meets the wall. */
export interface UprightPlane {
  readonly side: Side;
  /** Distance from the centre line, mm. */
  readonly at: number;
  readonly from: number;
  readonly to: number;
  /** The lowest height at which the wall leans in to it over that stretch, mm above the bare floor. */
  readonly rises: number;
  readonly x: number;
}

/** For each wheel arch the upright plane at its face, over its length: up to where it can be straight. */
export function uprightPlanes(shell: Shell, arches: readonly ArchShape[]): UprightPlane[] {
  return arches
    .filter((arch) => arch.kind === 'arch')
    .map((arch): UprightPlane => {
      const heights = spread(arch.from, arch.to, 9).map((x) => {
        const top = wallTop(shell, arch.side, x);
        const met = spread(arch.height, top + 200, 90).find((z) => halfWidth(shell, arch.side, x, z) < arch.face);
        return { x, z: met ?? top + 200 };
      });
      const lowest = heights.reduce((least, next) => (next.z < least.z ? next : least));
      return { side: arch.side, at: arch.face, from: arch.from, to: arch.to, rises: lowest.z, x: lowest.x };
    });
}
