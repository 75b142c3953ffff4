import { placeSeen } from '../../parts/lay-flat.js';
import type { DoorLining, Survey } from '../../document/schema.js';
import { isBar } from '../../materials/bars.js';
import type { Part, PartMarks } from '../../parts/part.js';
import type { BuildUpDepth } from '../../layers/buildup.js';
import { placedOpenings, type PlacedOpening } from '../../shell/openings.js';
import { rectangle, roundedRectangle, spread, type Outline, type Point, type Ring } from '../../numeric/plane.js';
import { clipTo, cutOut } from '../../numeric/shapes.js';
import { halfWidth, type Shell } from '../../shell/shell.js';
import { faceLayer } from './face.js';
import { setOutRows } from './set-out.js';

/** The panel of one door, or of one leaf of a pair, in as many pieces as its boards make. */
export interface DoorPanel {
  readonly opening: string;
  readonly name: string;
  readonly leaf: 'whole' | 'left' | 'right';
  /** mm */
  readonly length: number;
  readonly height: number;
  /** Windows cut out of it. */
  readonly windows: readonly string[];
  readonly parts: readonly Part[];
}
export interface DoorLinings {
  readonly panels: readonly DoorPanel[];
  /** Doors whose edges are not all read: their panels wait for it alone. */
  readonly pending: readonly string[];
}

/** Screws stay in sight, so that locks and winders can be reached: this far from the edge, and apart, mm. */
const EDGE_MM = 20;
const SPACING_MM = 220;
const SLIVER_MM = 40;
const BOARD_GAP_MM = 1;

/** Screws round a rectangle, evenly spread along each side, none twice in a corner. */
function round(length: number, height: number): Point[] {
  const line = (from: number, to: number): number[] =>
    spread(from, to, Math.max(2, Math.ceil((to - from) / SPACING_MM) + 1));
  const across = line(EDGE_MM, length - EDGE_MM);
  const up = line(EDGE_MM, height - EDGE_MM).slice(1, -1);
  return [
    ...across.flatMap((x): Point[] => [
      [x, EDGE_MM],
      [x, height - EDGE_MM],
    ]),
    ...up.flatMap((y): Point[] => [
      [EDGE_MM, y],
      [length - EDGE_MM, y],
    ]),
  ];
}

interface Leaf {
  readonly leaf: DoorPanel['leaf'];
  readonly from: number;
  readonly to: number;
}

/** A pair of doors meets in the middle; each leaf is a door of its own. */
function leavesOf({ opening, from, to }: PlacedOpening): readonly Leaf[] {
  const middle = (from + to) / 2;
  return opening.swing === 'pair'
    ? [
        { leaf: 'left', from, to: middle },
        { leaf: 'right', from: middle, to },
      ]
    : [{ leaf: 'whole', from, to }];
}

/**
 * Panels for the doors that are read: each leaf less the inset all round, corners rounded as the door's own, windows in it
 * cut out, in rows where the face is sold by the length. The pieces lie flat; a door's bow is not measured.
 * @param undersize how much smaller than its frame a window is cut out, mm
 */
export function doorLinings(
  survey: Survey,
  depth: BuildUpDepth,
  choice: DoorLining,
  undersize: number,
  inner: Shell,
): DoorLinings {
  const face = faceLayer(depth);
  if (!face) return { panels: [], pending: [] };
  const { material, thickness } = face;
  const placed = placedOpenings(survey);
  const panels = placed
    .filter(({ opening }) => opening.kind === 'door' && opening.surface !== 'roof')
    .flatMap((door) =>
      leavesOf(door).flatMap(({ leaf, from, to }): DoorPanel[] => {
        const [x0, x1] = [from + choice.inset, to - choice.inset];
        const [z0, z1] = [door.sill + choice.inset, door.head - choice.inset];
        const [length, height] = [x1 - x0, z1 - z0];
        if (length < SLIVER_MM || height < SLIVER_MM) return [];
        const radius = Math.max(0, Math.min(door.opening.cornerRadius - choice.inset, length / 2 - 1, height / 2 - 1));
        const outer: Ring =
          radius > 0 ? roundedRectangle(0, 0, length, height, radius) : rectangle(0, 0, length, height);
        const glass = placed.filter(
          ({ opening, from: a, to: b, sill, head }) =>
            opening.kind === 'window' &&
            opening.surface === door.opening.surface &&
            a < x1 &&
            b > x0 &&
            sill < z1 &&
            head > z0,
        );
        const whole = cutOut(
          { outer, holes: [] },
          glass.map(({ opening, from: a, to: b, sill, head }) => {
            const box = [a - x0 + undersize, sill - z0 + undersize, b - x0 - undersize, head - z0 - undersize] as const;
            return opening.cornerRadius > 0 ? roundedRectangle(...box, opening.cornerRadius) : rectangle(...box);
          }),
        );
        const rows = isBar(material)
          ? setOutRows({ min: 0, max: 0 }, { min: height, max: height }, material.width, BOARD_GAP_MM, SLIVER_MM).rows
          : null;
        const pieces = rows
          ? rows.flatMap(([a, b]) => whole.flatMap((outline) => clipTo(outline, rectangle(-1, a, length + 1, b))))
          : whole;
        const screws = round(length, height);
        const id = `door-${door.opening.id}${leaf === 'whole' ? '' : `-${leaf}`}`;
        return [
          {
            opening: door.opening.id,
            name: door.opening.name,
            leaf,
            length,
            height,
            windows: glass.map(({ opening }) => opening.name),
            parts: pieces.map((outline, i) =>
              panelPart(
                `${id}-${i + 1}`,
                i + 1 + (leaf === 'right' ? pieces.length : 0),
                outline,
                rows !== null,
                { door, x0, z0, inner, screws },
                material,
                thickness,
              ),
            ),
          },
        ];
      }),
    );
  const read = new Set(placed.map(({ opening }) => opening.id));
  return {
    panels,
    pending: survey.openings
      .filter((opening) => opening.kind === 'door' && opening.surface !== 'roof' && !read.has(opening.id))
      .map((opening) => opening.name),
  };
}

interface Placing {
  readonly door: PlacedOpening;
  readonly x0: number;
  readonly z0: number;
  readonly inner: Shell;
  readonly screws: readonly Point[];
}

/** A piece on its own axes: upright along the grain of a sheet, level along a board. */
function panelPart(
  id: string,
  number: number,
  outline: Outline,
  level: boolean,
  { door, x0, z0, inner, screws }: Placing,
  material: { readonly id: string; readonly grain: boolean },
  thickness: number,
): Part {
  const points = outline.outer;
  const [minX, minY] = [Math.min(...points.map((p) => p[0])), Math.min(...points.map((p) => p[1]))];
  const [maxX, maxY] = [Math.max(...points.map((p) => p[0])), Math.max(...points.map((p) => p[1]))];
  // a sheet's grain runs up the door: x up, y from right to left
  const turn = ([x, y]: Point): Point => (level ? [x - minX, y - minY] : [y - minY, maxX - x]);
  const within = ([x, y]: Point): boolean => x > minX && x < maxX && y > minY && y < maxY;
  const { surface } = door.opening;
  const sign = surface === 'left' ? -1 : 1;
  const inVehicle = (x: number, z: number): readonly [number, number, number] =>
    surface === 'rear'
      ? [inner.length, x, z]
      : [x, sign * halfWidth(inner, surface === 'left' ? 'left' : 'right', x, z), z];
  const along: Part['place']['along'] = surface === 'rear' ? [0, 1, 0] : [1, 0, 0];
  const back: Part['place']['along'] = surface === 'rear' ? [0, -1, 0] : [-1, 0, 0];
  const marks: PartMarks = { lines: [], screws: screws.filter(within).map(turn), holes: [] };
  return {
    id,
    role: 'door-panel',
    number,
    unit: null,
    surface: 'doors',
    of: door.opening.name,
    material: material.id,
    thickness,
    outline: { outer: points.map(turn), holes: outline.holes.map((hole) => hole.map(turn)) },
    grain: material.grain,
    edges: [],
    marks,
    place: level
      ? placeSeen(inVehicle(x0 + minX, z0 + minY), along, [0, 0, 1])
      : placeSeen(inVehicle(x0 + maxX, z0 + minY), [0, 0, 1], back),
  };
}
