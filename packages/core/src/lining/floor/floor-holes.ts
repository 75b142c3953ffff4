import { placeSeen } from '../../parts/lay-flat.js';
import { closesFloor, endOf, frontLineOf, spansWalls, standsAt, type Shadow } from '../../document/body.js';
import type { KeptBack } from './left-out.js';
import type { FloorHatch, Survey } from '../../document/schema.js';
import type { Part } from '../../parts/part.js';
import { placedOpenings } from '../../shell/openings.js';
import { valueAt } from '../../document/address.js';
import { boxOf, circleRing, outlineArea, rectangle, type Point, type Ring } from '../../numeric/plane.js';
import { clipTo } from '../../numeric/shapes.js';
import { message, type Message } from '../../words/message.js';
import { crosses, type FloorBoard, type Subfloor } from './subfloor.js';

/** Room for a sleeve round what goes through the floor, mm. */
const SLEEVE_MM = 2;
/** Play round a hatch, and the hole a finger lifts it by, mm. */
const PLAY_MM = 2;
const FINGER_MM = 25;
const FINGER_IN_MM = 35;
/** Under something lower than this nobody reaches in to lift a lid, mm. */
const LIFT_MM = 500;
/** Holes through the floor that are decided and read, with room for their sleeves: drilled before the floor is closed. */
export function drilledHoles(
  survey: Survey,
): readonly { readonly id: string; readonly at: Point; readonly ring: Ring }[] {
  return survey.penetrations
    .filter((hole) => hole.surface === 'floor' && hole.decided)
    .flatMap(({ id }) => {
      const read = (what: string): number | null => valueAt(survey, `hole/${id}/${what}`);
      const [x, y, size] = [read('x'), read('along'), read('size')];
      return x === null || y === null || size === null
        ? []
        : [{ id, at: [x, y] as const, ring: circleRing([x, y], size / 2 + SLEEVE_MM) }];
    });
}

const NONE: readonly KeptBack[] = [];

/** The width of each side door less what units stand in: from where to where the floor ends in it. */
export function freeInDoors(
  survey: Survey,
  units: readonly Shadow[],
): readonly (Omit<KeptBack, 'by'> & { readonly door: string; readonly name: string })[] {
  return placedOpenings(survey).flatMap(({ opening, from, to }) => {
    const { surface } = opening;
    if (opening.kind !== 'door' || (surface !== 'left' && surface !== 'right')) return [];
    const standing = units
      .filter((unit) => standsAt(unit, surface))
      .map((unit) => [unit.body.x, endOf(unit)] as const)
      .sort((a, b) => a[0] - b[0]);
    let at = from;
    const free: (Omit<KeptBack, 'by'> & { door: string; name: string })[] = [];
    const { id: door, name } = opening;
    for (const [x0, x1] of [...standing, [to, to] as const]) {
      if (x0 > at) free.push({ side: surface, from: at, to: Math.min(x0, to), door, name });
      at = Math.max(at, x1);
      if (at >= to) break;
    }
    return free;
  });
}

/**
 * Where the board is kept back at side doors, for a trim or a seal: where it ends in them; under the front of a unit that
 * stands in one the board is carried out.
 */
export const keptBack = (survey: Survey, units: readonly Shadow[], by: number): readonly KeptBack[] =>
  by <= 0 ? NONE : freeInDoors(survey, units).map(({ side, from, to }) => ({ side, from, to, by }));

const openingOf = ({ x, y, length, width }: FloorHatch): Ring =>
  rectangle(x - length / 2, y - width / 2, x + length / 2, y + width / 2);

/** The rings that the board is cut out for. */
export const hatchOpenings = (hatches: readonly FloorHatch[]): readonly { readonly opening: Ring }[] =>
  hatches.map((hatch) => ({ opening: openingOf(hatch) }));

/** Lids for the hatches, from the board's own material; one from each board, glued together, where there are two. */
export function hatchParts(
  hatches: readonly FloorHatch[],
  subfloor: FloorBoard,
  grain: boolean,
  layer: number,
): readonly Part[] {
  return hatches.map((hatch, i): Part => {
    const [length, width] = [hatch.length - 2 * PLAY_MM, hatch.width - 2 * PLAY_MM];
    const finger: Point = [length / 2, Math.min(FINGER_IN_MM, width / 4)];
    return {
      id: layer === 0 ? `floor-hatch-${hatch.id}` : `floor-hatch-${hatch.id}-${layer + 1}`,
      role: 'floor-hatch',
      number: layer * hatches.length + i + 1,
      unit: null,
      material: subfloor.board.material,
      thickness: subfloor.board.thickness,
      outline: {
        outer: rectangle(0, 0, length, width),
        holes: hatch.lift === 'finger-hole' ? [circleRing(finger, Math.min(FINGER_MM, width / 3) / 2)] : [],
      },
      grain,
      edges: [],
      place: placeSeen([hatch.x - length / 2, hatch.y - width / 2, subfloor.to], [1, 0, 0], [0, 1, 0]),
    };
  });
}

/** What is wrong with a hatch: off the board, larger than it, under a unit, crossed by a seam, or with nothing to frame it. */
export function hatchProblems(
  hatches: readonly FloorHatch[],
  { outline, seams }: Pick<Subfloor, 'outline' | 'seams'>,
  units: readonly Shadow[],
  framed: boolean,
): readonly { readonly said: Message; readonly hatch: string }[] {
  const board = boxOf(outline.outer);
  return hatches.flatMap((hatch) => {
    const ring = openingOf(hatch);
    const box = boxOf(ring);
    const say = (said: Message): { said: Message; hatch: string } => ({ said, hatch: hatch.id });
    if (hatch.length >= board.maxX - board.minX || hatch.width >= board.maxY - board.minY)
      return [say(message('hatch.floor.large', { name: hatch.name }))];
    const inside = clipTo(outline, ring).reduce((sum, piece) => sum + outlineArea(piece), 0);
    if (inside < hatch.length * hatch.width - 1) return [say(message('hatch.floor.off', { name: hatch.name }))];
    const on = units.find((unit) => {
      const line = frontLineOf(unit);
      if (endOf(unit) <= box.minX || unit.body.x >= box.maxX) return false;
      // a bed across the vehicle leaves no room to lift a lid under it
      if (spansWalls(unit)) return unit.body.from < LIFT_MM && unit.body.to < LIFT_MM;
      if (!closesFloor(unit)) return false;
      const { body } = unit;
      if (body.stands === 'free') return box.minY < body.y + body.width && box.maxY > body.y;
      if (!line) return false;
      return line.sign < 0 ? box.minY < -line.front : box.maxY > line.front;
    });
    const crossed = seams.some((seam) => crosses(seam, box));
    return [
      ...(on ? [say(message('hatch.floor.unit', { name: hatch.name, unit: { unit: on.id } }))] : []),
      ...(framed ? [] : [say(message('hatch.floor.noFrame', { name: hatch.name }))]),
      ...(crossed ? [say(message('hatch.floor.seam', { name: hatch.name }))] : []),
    ];
  });
}
