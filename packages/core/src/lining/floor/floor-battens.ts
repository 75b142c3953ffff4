import { createNames, placedOnFloor } from '../../parts/part-name.js';
import { placeSeen } from '../../parts/lay-flat.js';
import { endOf, frontLineOf, type Shadow } from '../../document/body.js';
import type { Part } from '../../parts/part.js';
import { floorLayerHeights, type BuildUpDepth } from '../../layers/buildup.js';
import { barStocks, isBar } from '../../materials/bars.js';
import type { FloorHatch, Project, Survey } from '../../document/schema.js';
import { valueAt } from '../../document/address.js';
import { rectangle, spread } from '../../numeric/plane.js';
import type { ArchShape } from '../../shell/arch.js';
import { halfWidth, type Shell } from '../../shell/shell.js';
import { wholeUp } from '../../numeric/tolerance.js';

/** One batten on the floor, along the vehicle, by the middle of its width, mm. */
export interface FloorBatten {
  readonly x0: number;
  readonly x1: number;
  readonly y: number;
  /** Why it lies there: a row, under a unit's front, or along the edge of a step or an arch. */
  readonly why: 'row' | 'front' | 'step' | 'arch';
}
export interface FloorBattens {
  readonly battens: readonly FloorBatten[];
  readonly metres: number;
  /** Compartments between the rows that insulation is cut for. */
  readonly cells: number;
}

/** A piece shorter than this is left out, mm. */
const SHORTEST_MM = 120;
/** No piece of a joined batten is shorter than this where it can be avoided, mm. */
const SHORTEST_JOINED_MM = 400;

interface Hole {
  readonly x0: number;
  readonly x1: number;
  readonly y0: number;
  readonly y1: number;
}

/** What battens must keep off: holes with their clearance, what stands on the floor, steps, and hatches, whose frame takes their ends. */
function holesOf(
  survey: Survey,
  arches: readonly ArchShape[],
  hatches: readonly FloorHatch[],
  clearance: number,
  half: number,
): Hole[] {
  const round = survey.penetrations
    .filter((hole) => hole.surface === 'floor')
    .flatMap(({ id }): Hole[] => {
      const [x, y] = [valueAt(survey, `hole/${id}/x`), valueAt(survey, `hole/${id}/along`)];
      const reach = (valueAt(survey, `hole/${id}/size`) ?? 0) / 2 + clearance;
      return x === null || y === null ? [] : [{ x0: x - reach, x1: x + reach, y0: y - reach, y1: y + reach }];
    });
  const standing = arches
    .filter((arch) => arch.bottom <= 0)
    .map((arch): Hole => {
      const sign = arch.side === 'left' ? -1 : 1;
      const far = arch.far ?? 5000;
      return {
        x0: arch.from,
        x1: arch.to,
        y0: Math.min(sign * arch.face, sign * far),
        y1: Math.max(sign * arch.face, sign * far),
      };
    });
  // one that lies under the edge of a hatch is its ledge, and stays whole
  const framed = hatches.map((hatch): Hole => ({
    x0: hatch.x - hatch.length / 2 - half,
    x1: hatch.x + hatch.length / 2 + half,
    y0: hatch.y - hatch.width / 2 + half,
    y1: hatch.y + hatch.width / 2 - half,
  }));
  return [...round, ...standing, ...framed.filter(({ y0, y1 }) => y1 > y0)];
}

/** A line along x less the stretches that holes take out of it. */
function without(x0: number, x1: number, y: number, half: number, holes: readonly Hole[]): [number, number][] {
  let pieces: [number, number][] = [[x0, x1]];
  for (const hole of holes) {
    if (y + half <= hole.y0 || y - half >= hole.y1) continue;
    pieces = pieces.flatMap(([a, b]): [number, number][] =>
      hole.x1 <= a || hole.x0 >= b
        ? [[a, b]]
        : [
            [a, Math.min(b, hole.x0)],
            [Math.max(a, hole.x1), b],
          ],
    );
  }
  return pieces.filter(([a, b]) => b - a >= SHORTEST_MM);
}

/** Where along x the floor is at least so wide on a side at height z. */
function reachOf(shell: Shell, y: number, half: number, z: number): [number, number] | null {
  const side = y < 0 ? 'left' : 'right';
  const inside = spread(0, shell.length, 61).filter((x) => halfWidth(shell, side, x, z) >= Math.abs(y) + half);
  const [first, last] = [inside[0], inside.at(-1)];
  return first === undefined || last === undefined || last - first < SHORTEST_MM ? null : [first, last];
}

/**
 * Lays out floor battens along the vehicle: rows from the centre line outward at the chosen spacing and one along each
 * wall, cut round holes, arches and hatches; one more under every unit's front, where furniture will be fixed; and one along
 * the edge of a step, where the vehicle's own floor stops short, and of an arch, where the board ends.
 * @param width of a batten, mm
 */
export function floorBattens(
  project: Pick<Project, 'survey' | 'settings' | 'floorHatches'> & { readonly units: readonly Shadow[] },
  shell: Shell,
  arches: readonly ArchShape[],
  width: number,
  z: number,
): FloorBattens {
  const { spacing, clearance } = project.settings.floorBattens;
  const half = width / 2;
  const holes = holesOf(project.survey, arches, project.floorHatches, clearance, half);
  const edge = (side: 'left' | 'right'): number =>
    Math.min(...spread(0, shell.length, 41).map((x) => halfWidth(shell, side, x, z))) -
    half -
    project.settings.floorClearance;
  const rows = new Set<number>();
  for (let y = 0; y < edge('right'); y += spacing) rows.add(y);
  for (let y = -spacing; y > -edge('left'); y -= spacing) rows.add(y);
  for (const side of ['left', 'right'] as const) {
    const sign = side === 'left' ? -1 : 1;
    const last = sign * edge(side);
    for (const y of [...rows]) if (Math.sign(y) === sign && Math.abs(y - last) < spacing / 3) rows.delete(y);
    rows.add(last);
  }
  const line = (y: number, from: number, to: number, why: FloorBatten['why']): FloorBatten[] => {
    const reach = reachOf(shell, y, half, z);
    if (!reach) return [];
    return without(Math.max(from, reach[0]), Math.min(to, reach[1]), y, half, holes).map(([x0, x1]) => ({
      x0,
      x1,
      y,
      why,
    }));
  };
  const laid = [...rows].sort((a, b) => a - b).flatMap((y) => line(y, 0, shell.length, 'row'));
  const fronts = project.units.flatMap((unit) => {
    const front = frontLineOf(unit);
    // what hangs bears on no batten
    if (!front || unit.body.from > 0) return [];
    const y = front.sign * (front.front + half);
    // a row that the front stands on is enough for both
    return [...rows].some((row) => Math.abs(row - y) < half) ? [] : line(y, unit.body.x, endOf(unit), 'front');
  });
  const steps = arches
    .filter((arch) => arch.kind === 'step')
    .flatMap((arch): FloorBatten[] => {
      const y = (arch.side === 'left' ? -1 : 1) * (arch.face - half);
      return [{ x0: arch.from, x1: arch.to, y, why: 'step' }];
    });
  const besides = [...laid, ...fronts];
  const beside = arches
    .filter((arch) => arch.kind !== 'step' && arch.bottom <= 0)
    .flatMap((arch): FloorBatten[] => {
      const y = (arch.side === 'left' ? -1 : 1) * (arch.face - project.settings.floorClearance - half);
      const [x0, x1] = [arch.from - width, arch.to + width];
      const carried = besides.some(
        (other) => Math.abs(other.y - y) < half && other.x0 <= arch.from + width && other.x1 >= arch.to - width,
      );
      return carried ? [] : line(y, x0, x1, 'arch');
    });
  const battens = [...besides, ...steps, ...beside];
  return {
    battens,
    metres: battens.reduce((sum, batten) => sum + batten.x1 - batten.x0, 0) / 1000,
    cells: Math.max(0, laid.length - 1),
  };
}

/** Lengths a batten is joined from where no bar is as long; every other row begins with the short one, so that joints are staggered. */
function joinedFrom(length: number, longest: number, row: number): number[] {
  const pieces = Math.max(1, wholeUp(length / longest));
  if (pieces === 1) return [length];
  // a last piece too short to hold is made up from the one before it
  const rest = length - (pieces - 1) * longest;
  const lengths = Array.from({ length: pieces - 1 }, () => longest);
  const short = Math.max(rest, Math.min(SHORTEST_JOINED_MM, length / pieces));
  lengths[pieces - 2] = longest - (short - rest);
  const all = [...lengths, short];
  return row % 2 === 0 ? all : all.reverse();
}

/** The floor battens as parts to cut from bars. Nothing when the material is not sold by the length. */
export function battenParts(laid: FloorBattens | null, floor: BuildUpDepth): readonly Part[] {
  const layer = floor.layers.find((depth) => depth.layer.place === 'battens');
  const material = layer?.material;
  if (!laid || !layer || !material || !isBar(material)) return [];
  const longest = Math.max(...barStocks(material).map((stock) => stock.length));
  const z = floorLayerHeights(floor, layer.layer.id)?.from ?? 0;
  const rows = [...new Set(laid.battens.map((batten) => batten.y))];
  let number = 0;
  const names = createNames('floor');
  return laid.battens.flatMap((batten) => {
    let x = batten.x0;
    return joinedFrom(batten.x1 - batten.x0, longest, rows.indexOf(batten.y)).map((length): Part => {
      const from = x;
      x += length;
      number += 1;
      return {
        id: names('batten', placedOnFloor(from, batten.y)),
        role: 'floor-batten',
        number,
        unit: null,
        material: material.id,
        thickness: layer.thickness,
        outline: { outer: rectangle(0, 0, length, material.width), holes: [] },
        grain: true,
        edges: [],
        place: placeSeen([from, batten.y - material.width / 2, z + layer.thickness], [1, 0, 0], [0, 1, 0]),
      };
    });
  });
}
