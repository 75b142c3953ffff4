import { placeSeen } from '../../parts/lay-flat.js';
import { fixingInto, type FaceFixing } from '../../layers/knock-on.js';
import type { DoorLining, PriceBook, Survey } from '../../document/schema.js';
import { isBar } from '../../materials/bars.js';
import type { Part, PartMarks } from '../../parts/part.js';
import type { BuildUpDepth } from '../../layers/buildup.js';
import { openingRing, placedOpenings, widthOf, type OpeningEdges, type PlacedOpening } from '../../shell/openings.js';
import { boxOf, rectangle, spread, type Outline, type Point, type Ring } from '../../numeric/plane.js';
import { clipTo, cutOut } from '../../numeric/shapes.js';
import { halfWidth, type Shell } from '../../shell/shell.js';
import type { Boxed } from './lined-surface.js';
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
  /** What all of them are screwed with into the doors' inner sheets, and how many; null without a panel. */
  readonly held: { readonly fixing: FaceFixing; readonly count: number } | null;
}

/** What is free behind the inner sheet of a door, mm. */
const DOOR_VOID_MM = 20;

/** Screws stay in sight, so that locks and winders can be reached: this far from the edge, and apart, mm. */
const EDGE_MM = 20;
const SPACING_MM = 220;
const SLIVER_MM = 40;
const BOARD_GAP_MM = 1;

/** Screws round a panel, evenly spread along each side, none twice in a corner; in the opening's own plane. */
function round(leaf: OpeningEdges, inset: number): Point[] {
  const less = inset + EDGE_MM;
  const corners = openingRing(leaf, less, 0).filter((_, i, all) => i % (all.length / 4) === 0);
  return corners.flatMap((from, i) => {
    const to = corners[(i + 1) % corners.length] ?? from;
    const run = Math.hypot(to[0] - from[0], to[1] - from[1]);
    return spread(0, 1, Math.max(2, Math.ceil(run / SPACING_MM) + 1))
      .slice(0, -1)
      .map((t): Point => [from[0] + t * (to[0] - from[0]), from[1] + t * (to[1] - from[1])]);
  });
}

interface Leaf {
  readonly leaf: DoorPanel['leaf'];
  readonly edges: OpeningEdges;
}

/** A pair of doors meets in the middle; each leaf is a door of its own. */
function leavesOf(door: PlacedOpening): readonly Leaf[] {
  const [middle, middleHead] = [(door.from + door.to) / 2, (door.fromHead + door.toHead) / 2];
  return door.opening.swing === 'pair'
    ? [
        { leaf: 'left', edges: { ...door, to: middle, toHead: middleHead } },
        { leaf: 'right', edges: { ...door, from: middle, fromHead: middleHead } },
      ]
    : [{ leaf: 'whole', edges: door }];
}

/**
 * Panels for the doors that are read: each leaf less the inset all round, corners rounded as the door's own, windows in it
 * cut out, in rows where the face is sold by the length. The pieces lie flat; a door's bow is not measured.
 * @param boxed the outside of the boxes of windows, that the panels are cut round
 * @param undersize how much smaller than its frame a window is cut out, mm
 */
export function doorLinings(
  survey: Survey,
  depth: BuildUpDepth,
  choice: DoorLining,
  undersize: number,
  inner: Shell,
  book: PriceBook,
  boxed: Boxed,
): DoorLinings {
  const face = faceLayer(depth);
  if (!face) return { panels: [], pending: [], held: null };
  const { material, thickness } = face;
  const placed = placedOpenings(survey);
  const panels = placed
    .filter(({ opening }) => opening.kind === 'door' && opening.surface !== 'roof')
    .flatMap((door) =>
      leavesOf(door).flatMap(({ leaf, edges }): DoorPanel[] => {
        const { inset } = choice;
        const radius = Math.max(0, door.opening.cornerRadius - inset);
        const ring = openingRing(edges, inset, radius);
        const box = boxOf(ring);
        const [x0, z0, x1, z1] = [box.minX, box.minY, box.maxX, box.maxY];
        const [length, height] = [x1 - x0, z1 - z0];
        // an inset that leaves nothing turns the ring inside out
        const narrow = Math.min(edges.to - edges.from, edges.toHead - edges.fromHead, edges.head - edges.sill);
        if (length < SLIVER_MM || height < SLIVER_MM || narrow - 2 * inset < SLIVER_MM) return [];
        const here = ([x, z]: Point): Point => [x - x0, z - z0];
        const outer: Ring = ring.map(here);
        const glass = placed.filter(
          (window) =>
            window.opening.kind === 'window' &&
            window.opening.surface === door.opening.surface &&
            widthOf(window).from < x1 &&
            widthOf(window).to > x0 &&
            window.sill < z1 &&
            window.head > z0,
        );
        const whole = cutOut(
          { outer, holes: [] },
          glass.map((window) => {
            const box = boxed.get(window.opening.id);
            return openingRing(box ?? window, undersize, box ? 0 : window.opening.cornerRadius).map(here);
          }),
        );
        const rows = isBar(material)
          ? setOutRows({ min: 0, max: 0 }, { min: height, max: height }, material.width, BOARD_GAP_MM, SLIVER_MM).rows
          : null;
        const pieces = rows
          ? rows.flatMap(([a, b]) => whole.flatMap((outline) => clipTo(outline, rectangle(-1, a, length + 1, b))))
          : whole;
        const screws = round(edges, inset).map(here);
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
  const count = panels.flatMap(({ parts }) => parts).reduce((sum, part) => sum + (part.marks?.screws.length ?? 0), 0);
  const fixing = fixingInto('doors', { passed: thickness, into: 'steel', depth: DOOR_VOID_MM }, book, true);
  return {
    panels,
    held: fixing && count > 0 ? { fixing, count } : null,
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
  const { surface } = door.opening;
  // seen from the room, the way along the vehicle runs to the left on the left wall, and the way across it in the rear
  const flip = surface === 'left' || surface === 'rear';
  const sideways = (x: number): number => (flip ? maxX - x : x - minX);
  // a sheet's grain runs up the door: x up, y from right to left
  const turn = ([x, y]: Point): Point => (level ? [sideways(x), y - minY] : [y - minY, maxX - minX - sideways(x)]);
  const within = ([x, y]: Point): boolean => x > minX && x < maxX && y > minY && y < maxY;
  const sign = surface === 'left' ? -1 : 1;
  const end = surface === 'rear' ? inner.length : surface === 'front' ? inner.start : null;
  const inVehicle = (x: number, z: number): readonly [number, number, number] =>
    end === null ? [x, sign * halfWidth(inner, surface === 'left' ? 'left' : 'right', x, z), z] : [end, x, z];
  const way = flip ? -1 : 1;
  const along: Part['place']['along'] = end === null ? [way, 0, 0] : [0, way, 0];
  const back: Part['place']['along'] = end === null ? [0 - way, 0, 0] : [0, 0 - way, 0];
  const [first, last] = flip ? [maxX, minX] : [minX, maxX];
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
    bends: {
      surface: surface === 'roof' ? 'ceiling' : surface,
      on: 'view',
      origin: [x0 + (level ? first : last), z0 + minY],
      along: level ? [way, 0] : [0, 1],
      across: level ? [0, 1] : [0 - way, 0],
      behind: 0,
    },
    place: level
      ? placeSeen(inVehicle(x0 + first, z0 + minY), along, [0, 0, 1])
      : placeSeen(inVehicle(x0 + last, z0 + minY), [0, 0, 1], back),
  };
}
