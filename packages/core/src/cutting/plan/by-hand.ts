import type { KeptPlacement, KeptSheet } from '../../document/schema.js';
import { footprintOf } from './footprint.js';
import { toUnits } from '../job/units.js';
import { sawApart, sawnInMm, type Rectangle } from '../engine/tree.js';

/** A free place a part could be moved to. */
export interface FreePlace {
  readonly sheet: string;
  readonly x: number;
  readonly y: number;
  readonly turned: boolean;
}
/** Why a part cannot be put somewhere. */
export type MoveRefusal = 'begun' | 'edge' | 'grain' | 'overlap' | 'sawn';

const rectangleOf = (placed: KeptPlacement): Rectangle => ({
  x: toUnits(placed.x),
  y: toUnits(placed.y),
  length: toUnits(footprintOf(placed).length),
  width: toUnits(footprintOf(placed).width),
});
/**
 * The sheet with its cuts and free places worked out again from where its parts lie.
 * @returns null when no saw can part them edge to edge
 */
export function sawnAgain(sheet: KeptSheet, kerf: number, smallestOffcut: number): KeptSheet | null {
  const whole = { x: 0, y: 0, length: toUnits(sheet.length), width: toUnits(sheet.width) };
  const sawn = sawApart(sheet.placements.map(rectangleOf), whole, toUnits(kerf));
  if (!sawn) return null;
  return { ...sheet, ...sawnInMm(sawn, smallestOffcut) };
}

/** The corners of free rectangles, on sheets not begun, where a part has room: nearest to the sheets' start first. */
export function placesFor(
  sheets: readonly KeptSheet[],
  part: string,
  mayTurn: boolean,
  kerf: number,
): readonly FreePlace[] {
  const own = sheets.flatMap((sheet) => sheet.placements).find((placed) => placed.part === part);
  if (!own) return [];
  return sheets.flatMap((sheet): FreePlace[] => {
    if (sheet.done.length > 0) return [];
    const without = sawnAgain(
      { ...sheet, placements: sheet.placements.filter((placed) => placed.part !== part) },
      kerf,
      0,
    );
    return (without?.left ?? []).flatMap((room) =>
      (mayTurn ? [false, true] : [own.turned]).flatMap((turned): FreePlace[] => {
        const [length, width] = turned ? [own.width, own.length] : [own.length, own.width];
        const stays = sheet.placements.some(
          (p) =>
            p.part === part && p.turned === turned && Math.abs(p.x - room.x) < 0.05 && Math.abs(p.y - room.y) < 0.05,
        );
        return !stays && length <= room.length + 0.01 && width <= room.width + 0.01
          ? [{ sheet: sheet.id, x: room.x, y: room.y, turned }]
          : [];
      }),
    );
  });
}

/**
 * Moves a part to a place on a sheet, or says why it cannot go there. Sheets left empty are dropped. The moved part is
 * locked: a search for fewer sheets leaves it where it was put.
 */
export function movePart(
  sheets: readonly KeptSheet[],
  part: string,
  to: FreePlace,
  mayTurn: boolean,
  kerf: number,
  smallestOffcut: number,
): readonly KeptSheet[] | MoveRefusal {
  const from = sheets.find((sheet) => sheet.placements.some((placed) => placed.part === part && !placed.spoiled));
  const target = sheets.find((sheet) => sheet.id === to.sheet);
  const own = from?.placements.find((placed) => placed.part === part && !placed.spoiled);
  if (!from || !target || !own || from.done.length > 0 || target.done.length > 0) return 'begun';
  if (to.turned !== own.turned && !mayTurn) return 'grain';
  const moved: KeptPlacement = { ...own, x: to.x, y: to.y, turned: to.turned, locked: true };
  const { length, width } = footprintOf(moved);
  if (to.x < -0.01 || to.y < -0.01 || to.x + length > target.length + 0.01 || to.y + width > target.width + 0.01)
    return 'edge';
  const others = target.placements.filter((placed) => placed.part !== part);
  const clash = others.some((other) => {
    const size = footprintOf(other);
    const apart = Math.max(
      other.x - to.x - length,
      to.x - other.x - size.length,
      other.y - to.y - width,
      to.y - other.y - size.width,
    );
    return apart < kerf - 0.01;
  });
  if (clash) return 'overlap';
  const next: KeptSheet[] = [];
  for (const sheet of sheets) {
    if (sheet !== from && sheet !== target) {
      next.push(sheet);
      continue;
    }
    const kept = sheet.placements.filter((placed) => placed.part !== part || placed.spoiled);
    const placements = sheet === target ? [...kept, moved] : kept;
    if (placements.length === 0) continue;
    const sawn = sawnAgain({ ...sheet, placements }, kerf, smallestOffcut);
    if (!sawn) return 'sawn';
    next.push(sawn);
  }
  return next;
}
