import * as dxf from 'dxf-parser';
import { SVGPathData } from 'svg-pathdata';
import type { OperationOf } from '../document/operation.js';
import type { Reading, Survey } from '../document/schema.js';
import { boxOf, ringArea, spread, type Point, type Ring } from '../numeric/plane.js';
import { message } from '../words/message.js';
import { drawnEntities } from './dxf-entities.js';
import { FormatError } from './read.js';
import { ROUNDING } from '../numeric/tolerance.js';

/** What an outline is of: the floor from above (x along, front at the left), or a section seen toward the rear. */
export type OutlineOf = 'floor' | 'section';

/** How far a chord may leave a curve of the drawing, as a share of it. */
const CURVE_STEPS = 24;

function arcPoints(center: Point, radius: number, from: number, to: number): Point[] {
  const end = to < from ? to + 2 * Math.PI : to;
  return spread(from, end, CURVE_STEPS).map((angle): Point => [
    center[0] + radius * Math.cos(angle),
    center[1] + radius * Math.sin(angle),
  ]);
}

/** A polyline's piece with a bulge is an arc: bulge = tan(angle / 4). */
function bulged(a: Point, b: Point, bulge: number): Point[] {
  if (Math.abs(bulge) < ROUNDING) return [b];
  const angle = 4 * Math.atan(bulge);
  const chord = Math.hypot(b[0] - a[0], b[1] - a[1]);
  const radius = chord / (2 * Math.sin(angle / 2));
  const middle: Point = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
  const height = radius * Math.cos(angle / 2);
  const [ux, uy] = [(b[0] - a[0]) / chord, (b[1] - a[1]) / chord];
  const center: Point = [middle[0] - uy * height, middle[1] + ux * height];
  const start = Math.atan2(a[1] - center[1], a[0] - center[0]);
  return spread(start, start + angle, CURVE_STEPS)
    .slice(1)
    .map((t): Point => [center[0] + Math.abs(radius) * Math.cos(t), center[1] + Math.abs(radius) * Math.sin(t)]);
}

/** The package is one class in Node and a module with the class in a bundle. */
const DxfReader = (dxf.DxfParser ??
  (dxf as unknown as { default: typeof dxf.DxfParser }).default) as typeof dxf.DxfParser;

interface DxfVertex {
  readonly x: number;
  readonly y: number;
  readonly bulge?: number;
}
interface DxfEntity {
  readonly type: string;
  readonly vertices?: readonly DxfVertex[];
  readonly shape?: boolean;
  readonly center?: DxfVertex;
  readonly radius?: number;
  readonly startAngle?: number;
  readonly endAngle?: number;
}

function dxfLines(text: string): Point[][] {
  let entities: readonly DxfEntity[];
  try {
    entities = (new DxfReader().parseSync(drawnEntities(text))?.entities ?? []) as unknown as readonly DxfEntity[];
  } catch (problem) {
    throw new FormatError(
      message('outline.broken', { kind: 'DXF', why: problem instanceof Error ? problem.message : '' }),
      'the file',
    );
  }
  return entities.flatMap((entity): Point[][] => {
    if (entity.type === 'ARC' && entity.center && entity.radius !== undefined)
      return [
        arcPoints([entity.center.x, entity.center.y], entity.radius, entity.startAngle ?? 0, entity.endAngle ?? 0),
      ];
    if (entity.type !== 'LINE' && entity.type !== 'LWPOLYLINE' && entity.type !== 'POLYLINE') return [];
    const vertices = entity.vertices ?? [];
    const all = entity.shape && vertices[0] ? [...vertices, vertices[0]] : vertices;
    const points = all.flatMap((vertex, i): Point[] => {
      const before = all[i - 1];
      return before ? bulged([before.x, before.y], [vertex.x, vertex.y], before.bulge ?? 0) : [[vertex.x, vertex.y]];
    });
    return points.length > 1 ? [points] : [];
  });
}

/** Millimetres for one unit of an SVG, from its width and view box; 1 when it does not say. */
function svgScale(text: string): number {
  const width = /<svg[^<>]*\bwidth="([\d.]+)\s*(mm|cm|in)?"/.exec(text);
  const box = /<svg[^<>]*\bviewBox="[-\d.e]+[ ,]+[-\d.e]+[ ,]+([\d.e]+)/.exec(text);
  const unit = { mm: 1, cm: 10, in: 25.4 }[width?.[2] ?? ''];
  if (!width || !box || !unit) return 1;
  const scale = (Number(width[1]) * unit) / Number(box[1]);
  if (!Number.isFinite(scale) || scale <= 0)
    throw new FormatError(message('outline.broken', { kind: 'SVG', why: 'its view box has no size' }), 'viewBox');
  return scale;
}

const cubic = (a: number, b: number, c: number, d: number, t: number): number =>
  (1 - t) ** 3 * a + 3 * (1 - t) ** 2 * t * b + 3 * (1 - t) * t * t * c + t ** 3 * d;

function pathLines(d: string): Point[][] {
  const lines: Point[][] = [];
  let [line, at]: [Point[], Point] = [[], [0, 0]];
  const commands = new SVGPathData(d).toAbs().normalizeHVZ(true, true, true).aToC().qtToC().normalizeST().commands;
  for (const command of commands) {
    if (command.type === SVGPathData.MOVE_TO) {
      if (line.length > 1) lines.push(line);
      at = [command.x, command.y];
      line = [at];
    } else if (command.type === SVGPathData.LINE_TO) {
      at = [command.x, command.y];
      line.push(at);
    } else if (command.type === SVGPathData.CURVE_TO) {
      const from = at;
      for (const t of spread(0, 1, CURVE_STEPS).slice(1))
        line.push([
          cubic(from[0], command.x1, command.x2, command.x, t),
          cubic(from[1], command.y1, command.y2, command.y, t),
        ]);
      at = [command.x, command.y];
    }
  }
  if (line.length > 1) lines.push(line);
  return lines;
}

function svgLines(text: string): Point[][] {
  const scale = svgScale(text);
  const paths = [...text.matchAll(/<path[^<>]*\sd="([^"<>]+)"/g)].map((match) => match[1] ?? '');
  const polygons = [...text.matchAll(/<poly(?:gon|line)[^<>]*\spoints="([^"<>]+)"/g)].map(
    (match) => `M ${match[1] ?? ''}`,
  );
  try {
    // y runs down in an SVG and up here
    return [...paths, ...polygons]
      .flatMap(pathLines)
      .map((line) => line.map(([x, y]): Point => [x * scale, -y * scale]));
  } catch (problem) {
    throw new FormatError(
      message('outline.broken', { kind: 'SVG', why: problem instanceof Error ? problem.message : '' }),
      'the file',
    );
  }
}

const near = (a: Point, b: Point): boolean => Math.hypot(a[0] - b[0], a[1] - b[1]) < 1;

/** More lines than this no outline has that somebody drew. */
const MOST_LINES = 4000;
const MOST_POINTS = 200_000;

/** Joins lines end to end where their ends meet; gives the closed ring with the largest area. */
function largestRing(lines: readonly Point[][]): Ring | null {
  const open = lines.map((line) => [...line]);
  const rings: Point[][] = [];
  while (open.length > 0) {
    const line = open.pop() ?? [];
    for (;;) {
      const [first, last] = [line[0], line.at(-1)];
      if (!first || !last || near(first, last)) break;
      const index = open.findIndex((other) => {
        const [a, b] = [other[0], other.at(-1)];
        return a !== undefined && b !== undefined && (near(a, last) || near(b, last));
      });
      const next = open.splice(index, index < 0 ? 0 : 1)[0];
      if (!next) break;
      const start = next[0];
      line.push(...(start && near(start, last) ? next : [...next].reverse()).slice(1));
    }
    if (line.length > 3) rings.push(line);
  }
  return rings.sort((a, b) => Math.abs(ringArea(b)) - Math.abs(ringArea(a)))[0] ?? null;
}

/** Where a ring crosses an upright (axis 0) or level (axis 1) line, in order. */
function crossings(ring: Ring, axis: 0 | 1, at: number): number[] {
  const other = axis === 0 ? 1 : 0;
  return ring
    .flatMap((p, i): number[] => {
      const q = ring[(i + 1) % ring.length];
      if (!q || (p[axis] - at) * (q[axis] - at) > 0 || p[axis] === q[axis]) return [];
      return [p[other] + ((q[other] - p[other]) * (at - p[axis])) / (q[axis] - p[axis])];
    })
    .sort((a, b) => a - b);
}

/** The largest closed outline of a DXF or SVG drawing, in mm. @throws FormatError */
export function readOutline(name: string, text: string): Ring {
  const svg = /<svg[\s>]/i.test(text.slice(0, 2000));
  if (!svg && !/\.dxf$/i.test(name) && !/^\s*0\s*\r?\n\s*SECTION/.test(text))
    throw new FormatError(message('outline.kind', { name }), 'the file');
  const lines = svg ? svgLines(text) : dxfLines(text);
  if (lines.length > MOST_LINES || lines.reduce((sum, line) => sum + line.length, 0) > MOST_POINTS)
    throw new FormatError(message('outline.many', { most: MOST_LINES }), 'the file');
  if (lines.some((line) => line.some(([x, y]) => !Number.isFinite(x) || !Number.isFinite(y))))
    throw new FormatError(
      message('outline.broken', { kind: svg ? 'SVG' : 'DXF', why: 'some of its places are no figures' }),
      'the file',
    );
  const ring = largestRing(lines);
  const box = ring && boxOf(ring);
  if (!ring || !box || box.maxX - box.minX < 200 || box.maxY - box.minY < 200)
    throw new FormatError(message('outline.none'), 'the file');
  return ring;
}

const template = (value: number, at: string): Reading => ({
  value: Math.round(value * 10) / 10,
  method: 'template',
  at,
});

/**
 * Readings taken off an outline. A floor gives its length and both walls' distances at the foot of every station (the
 * middle between its sides at the front is the centre line, front at the left). A section seen toward the rear gives one
 * station's walls at the planned heights and its roof.
 * @param station the station a section is of
 * @throws FormatError when a station lies outside the outline
 */
export function readingsOfOutline(
  ring: Ring,
  what: OutlineOf,
  survey: Survey,
  station: string | null,
  now: string,
): OperationOf<'takeReadings'>['payload'] {
  const box = boxOf(ring);
  if (what === 'floor') {
    const front = crossings(ring, 0, box.minX + 20);
    const centre = ((front[0] ?? box.minY) + (front.at(-1) ?? box.maxY)) / 2;
    const length = box.maxX - box.minX;
    const stations = survey.stations.flatMap(({ id }) => {
      const x = survey.readings[`station/${id}/x`]?.at(-1)?.value;
      return x === undefined || x < 0 || x > length ? [] : [{ id, x }];
    });
    return {
      stations: [],
      readings: [
        { address: 'floor/length', reading: template(length, now) },
        ...stations.flatMap(({ id, x }) => {
          const cuts = crossings(ring, 0, box.minX + Math.min(Math.max(x, 2), length - 2));
          const [low, high] = [cuts[0], cuts.at(-1)];
          // seen from above with the front at the left, the left side is up
          return low === undefined || high === undefined || cuts.length < 2
            ? []
            : [
                { address: `station/${id}/left/0`, reading: template(high - centre, now) },
                { address: `station/${id}/right/0`, reading: template(centre - low, now) },
              ];
        }),
      ],
    };
  }
  if (station === null) throw new FormatError(message('outline.station'), 'station');
  const foot = crossings(ring, 1, box.minY + 5);
  const centre = ((foot[0] ?? box.minX) + (foot.at(-1) ?? box.maxX)) / 2;
  const walls = survey.heights.flatMap((z) => {
    const cuts = crossings(ring, 1, box.minY + Math.max(z, 2));
    const [left, right] = [cuts[0], cuts.at(-1)];
    return left === undefined || right === undefined || cuts.length < 2
      ? []
      : [
          { address: `station/${station}/left/${z}`, reading: template(centre - left, now) },
          { address: `station/${station}/right/${z}`, reading: template(right - centre, now) },
        ];
  });
  const roof = survey.roofOffsets.flatMap((y) => {
    const top = crossings(ring, 0, centre + y).at(-1);
    return top === undefined
      ? []
      : [{ address: `station/${station}/roof/${y}`, reading: template(top - box.minY, now) }];
  });
  return { stations: [], readings: [...walls, ...roof] };
}
