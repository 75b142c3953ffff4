import { valueAt } from '../document/address.js';
import type { Survey } from '../document/schema.js';
import type { MadeUnit } from '../furniture/make.js';
import { boardBox } from '../furniture/skeleton.js';
import type { Subfloor } from '../lining/floor/subfloor.js';
import { crosses } from '../lining/floor/subfloor.js';
import { holeClearances } from '../measure/cover-gate.js';
import { boxOf, circleRing, distanceToRing, isWithin } from '../numeric/plane.js';
import { placedOpenings } from '../shell/openings.js';
import { ribAt, type RibMap } from '../shell/ribs.js';
import { halfWidth, roofHeight, wallTop, type Shell } from '../shell/shell.js';
import { message, mm, type Message } from '../words/message.js';

/** Between two holes, and between a hole and an edge, so much stays, or what is between breaks out, mm. */
export const HOLE_APART_MM = 40;
/** A board this near to a wall or the floor stands at it, mm. */
const AT_MM = 30;

/** A hole with its place and size read: along the vehicle, and across the floor or the roof or up the wall, mm. */
interface Hole {
  readonly id: string;
  readonly name: string;
  readonly surface: Survey['penetrations'][number]['surface'];
  readonly x: number;
  readonly along: number;
  readonly radius: number;
}

function holesOf(survey: Survey): Hole[] {
  return survey.penetrations.flatMap(({ id, name, surface }): Hole[] => {
    const read = (what: string): number | null => valueAt(survey, `hole/${id}/${what}`);
    const [x, along, size] = [read('x'), read('along'), read('size')];
    return x === null || along === null || size === null ? [] : [{ id, name, surface, x, along, radius: size / 2 }];
  });
}

/** Where a surface ends at a hole's place along the vehicle: from where to where across it or up it, mm. */
function reachAt(shell: Shell, { surface, x }: Hole): readonly [number, number] | null {
  if (surface === 'floor')
    return [-halfWidth(shell, 'left', x, shell.floor), halfWidth(shell, 'right', x, shell.floor)];
  if (surface === 'ceiling') {
    const side = (of: 'left' | 'right'): number => halfWidth(shell, of, x, wallTop(shell, of, x));
    return [-side('left'), side('right')];
  }
  if (surface === 'left' || surface === 'right') return [shell.floor, wallTop(shell, surface, x)];
  return null;
}

/** Ribs of the surface that a hole would be drilled through. */
function ribsAt(hole: Hole, survey: Survey, { on }: RibMap): string[] {
  const { surface, x, along, radius } = hole;
  const read = (id: string, what: string): number | null => valueAt(survey, `rib/${id}/${what}`);
  const own =
    surface === 'floor'
      ? survey.ribs
          .filter((rib) => rib.on === 'floor')
          .map(({ id, name }) => ({
            name,
            x: read(id, 'x'),
            width: read(id, 'width') ?? 0,
            lean: 0,
            widens: 0,
            from: read(id, 'from'),
            to: read(id, 'to'),
          }))
      : surface === 'left' || surface === 'right' || surface === 'ceiling'
        ? on[surface].ribs
        : [];
  const over = ([from, to]: readonly [number, number]): boolean => from < x + radius && to > x - radius;
  return own
    .filter(
      (rib) =>
        rib.x !== null &&
        over(ribAt({ ...rib, x: rib.x }, along)) &&
        along + radius > (rib.from ?? -Infinity) &&
        along - radius < (rib.to ?? Infinity),
    )
    .map(({ name }) => name);
}

/** A board of a unit whose edge stands over a hole. */
function boardAt({ surface, x, along, radius }: Hole, shell: Shell, made: readonly MadeUnit[]): string | null {
  for (const { unit, skeleton } of made)
    for (const board of skeleton?.boards ?? []) {
      if (board.held !== 'fixed' || board.moves !== undefined) continue;
      const { low, high } = boardBox(board);
      const over = (i: 0 | 1 | 2, at: number): boolean => low[i] < at + radius && high[i] > at - radius;
      const met =
        surface === 'floor'
          ? board.normal !== 'z' && low[2] <= shell.floor + AT_MM && over(0, x) && over(1, along)
          : surface === 'left' || surface === 'right'
            ? board.normal !== 'y' &&
              over(0, x) &&
              over(2, along) &&
              (surface === 'left' ? -low[1] : high[1]) >= halfWidth(shell, surface, x, along) - AT_MM
            : surface === 'ceiling' &&
              board.normal !== 'z' &&
              over(0, x) &&
              over(1, along) &&
              high[2] >= roofHeight(shell, x, along) - AT_MM;
      if (met) return `${unit}.${board.name}`;
    }
  return null;
}

/**
 * Everything that is wrong with the place of a hole, each with its address: in a keep-out, in a rib, past the end of its
 * surface or too near to it, in an opening or too near to one, in a seam of the floor's board, under a board of a unit, or too
 * near to another hole.
 */
export function holeProblems(input: {
  readonly survey: Survey;
  readonly shell: Shell | null;
  /** The room that units stand in. */
  readonly inner: Shell | null;
  readonly ribs: RibMap;
  readonly subfloor: Subfloor | null;
  readonly made: readonly MadeUnit[];
}): { readonly place: string; readonly said: Message }[] {
  const { survey, shell, inner, ribs, subfloor, made } = input;
  const holes = holesOf(survey);
  const into = new Map(holeClearances(survey).flatMap((own) => (own.clear < 0 ? [[own.hole, own.against]] : [])));
  const boards = subfloor ? [subfloor, ...subfloor.upper] : [];
  const openings = placedOpenings(survey);
  const unsized = survey.penetrations.filter(({ id }) => into.has(id) && holes.every((hole) => hole.id !== id));
  return [...holes, ...unsized.map(({ id, name }) => ({ id, name, bare: true as const }))].flatMap((hole, index) => {
    const { id, name } = hole;
    const at = (what: string): string => `hole/${id}/${what}`;
    const keepOut = into.get(id);
    const kept =
      keepOut === undefined ? [] : [{ place: at('x'), said: message('penetration.keepOut', { name, keepOut }) }];
    if ('bare' in hole) return kept;
    const { surface, x, along, radius } = hole;
    const through = ribsAt(hole, survey, ribs);
    const reach = shell && reachAt(shell, hole);
    const past = shell && reach ? Math.max(-x, x - shell.length, reach[0] - along, along - reach[1]) + radius : null;
    const ring = circleRing([x, along], radius);
    const seam = surface === 'floor' && boards.some(({ seams }) => seams.some((own) => crosses(own, boxOf(ring))));
    const edge =
      surface === 'floor' && subfloor && isWithin([x, along], subfloor.outline.outer)
        ? distanceToRing([x, along], subfloor.outline.outer) - radius
        : null;
    const opening = openings
      .filter((placed) => placed.opening.surface === (surface === 'ceiling' ? 'roof' : surface))
      .map((placed) => {
        const dx = Math.max(placed.from - x, 0, x - placed.to);
        const dz = Math.max(placed.sill - along, 0, along - placed.head);
        return { name: placed.opening.name, clear: Math.hypot(dx, dz) - radius };
      })
      .sort((a, b) => a.clear - b.clear)[0];
    const other = holes
      .slice(0, index)
      .filter((before) => before.surface === surface)
      .map((before) => ({
        name: before.name,
        clear: Math.hypot(before.x - x, before.along - along) - radius - before.radius,
      }))
      .sort((a, b) => a.clear - b.clear)[0];
    const board = inner && boardAt(hole, inner, made);
    const apart = mm(HOLE_APART_MM);
    return [
      ...kept,
      ...(past !== null && past > 0
        ? [{ place: at('x'), said: message('penetration.outside', { name, by: mm(past) }) }]
        : []),
      ...(through.length > 0
        ? [{ place: at('x'), said: message('penetration.rib', { name, ribs: through.join(', ') }) }]
        : []),
      ...(opening && opening.clear < HOLE_APART_MM
        ? [
            {
              place: at('along'),
              said: message('penetration.opening', {
                name,
                opening: opening.name,
                clear: mm(Math.max(0, opening.clear)),
                apart,
              }),
            },
          ]
        : []),
      ...(seam ? [{ place: at('x'), said: message('penetration.seam', { name }) }] : []),
      ...(edge !== null && edge < HOLE_APART_MM && (past ?? 0) <= 0
        ? [{ place: at('along'), said: message('penetration.edge', { name, clear: mm(Math.max(0, edge)), apart }) }]
        : []),
      ...(other && other.clear < HOLE_APART_MM
        ? [
            {
              place: at('along'),
              said: message('penetration.near', {
                name,
                other: other.name,
                clear: mm(Math.max(0, other.clear)),
                apart,
              }),
            },
          ]
        : []),
      ...(board ? [{ place: at('x'), said: message('penetration.board', { name, part: board }) }] : []),
    ];
  });
}
