import { isOpen } from '../layout/checks/checks.js';
import { endOf, frontLineOf } from '../document/body.js';
import type { Project, Side } from '../document/schema.js';
import { placedOpenings } from '../shell/openings.js';
import { spread, type Point, type Ring } from '../numeric/plane.js';
import { developedHeight, halfWidth, wallTop, type Shell } from '../shell/shell.js';
import type { Derived } from './derived.js';

/** A vehicle unfolded, small enough for a list: mm, x to the right, y to the rear; and how far its build has got. */
export interface SmallFoldOut {
  readonly width: number;
  readonly length: number;
  /** Left wall, floor, right wall. */
  readonly bands: readonly Ring[];
  readonly openings: readonly { readonly door: boolean; readonly ring: Ring }[];
  readonly units: readonly Ring[];
  readonly state: {
    readonly readings: number;
    /** To what it is known at the worst place that matters, mm; null before two stations are read. */
    readonly worst: number | null;
    readonly units: number;
    /** Checks that fail, and things nobody has said. */
    readonly fails: number;
    readonly unknown: number;
  };
}

/** Between the bands, mm. */
const GAP_MM = 160;
const ALONG = 9;
const SIDES: readonly Side[] = ['left', 'right'];

/** The bands, and where each wall's foot lies. */
function bandsOf(shell: Shell) {
  const xs = spread(0, shell.length, ALONG);
  const up = (side: Side, x: number): number => developedHeight(shell, side, x, wallTop(shell, side, x));
  const wide = Math.max(...xs.flatMap((x) => SIDES.map((side) => halfWidth(shell, side, x, shell.floor))));
  const tall = Math.max(...xs.flatMap((x) => SIDES.map((side) => up(side, x))));
  const centre = tall + GAP_MM + wide;
  const foot = { left: centre - wide - GAP_MM, right: centre + wide + GAP_MM };
  const out = { left: -1, right: 1 };
  const onWall = (side: Side, x: number, z: number): Point => [
    foot[side] + out[side] * developedHeight(shell, side, x, z),
    x,
  ];
  const wall = (side: Side): Ring => [
    ...xs.map((x): Point => [foot[side], x]),
    ...[...xs].reverse().map((x) => onWall(side, x, wallTop(shell, side, x))),
  ];
  const edge = (side: Side, x: number): Point => [centre + out[side] * halfWidth(shell, side, x, shell.floor), x];
  const floor: Ring = [...xs.map((x) => edge('left', x)), ...[...xs].reverse().map((x) => edge('right', x))];
  return { centre, onWall, edge, width: 2 * centre, bands: [wall('left'), floor, wall('right')] };
}

/**
 * The small fold-out of a build and its state in figures; null before there is a shell.
 * @param derived of which only the shell, the checks, the quality and what is missing are worked out
 */
export function smallFoldOut(
  project: Project,
  derived: Pick<Derived, 'shell' | 'checks' | 'quality' | 'missing' | 'progress'>,
): SmallFoldOut | null {
  const { shell } = derived;
  if (!shell) return null;
  const { centre, onWall, edge, width, bands } = bandsOf(shell);
  const openings = placedOpenings(project.survey).flatMap(({ opening, from, to, sill, head }) => {
    const side = SIDES.find((candidate) => candidate === opening.surface);
    if (!side) return [];
    const top = (x: number): number => Math.min(head, wallTop(shell, side, x));
    return [
      {
        door: opening.kind === 'door',
        ring: [
          onWall(side, from, sill),
          onWall(side, to, sill),
          onWall(side, to, top(to)),
          onWall(side, from, top(from)),
        ] as Ring,
      },
    ];
  });
  const units = project.layout.units.map((unit): Ring => {
    const [x0, x1] = [unit.body.x, endOf(unit)];
    const line = frontLineOf(unit);
    const { body } = unit;
    if (body.stands === 'free')
      return [
        [centre + body.y, x0],
        [centre + body.y + body.width, x0],
        [centre + body.y + body.width, x1],
        [centre + body.y, x1],
      ];
    if (!line) return [edge('left', x0), edge('left', x1), edge('right', x1), edge('right', x0)];
    const front = centre + line.sign * line.front;
    return [edge(line.side, x0), edge(line.side, x1), [front, x1], [front, x0]];
  });
  return {
    width,
    length: shell.length,
    bands,
    openings,
    units,
    state: {
      readings: derived.progress.taken,
      worst: derived.quality?.worst ?? null,
      units: project.layout.units.length,
      fails: derived.checks.filter(isOpen).length,
      unknown: derived.missing.length,
    },
  };
}
