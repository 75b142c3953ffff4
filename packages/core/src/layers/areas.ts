import { openingArea, placedOpenings, type PlacedOpening } from '../shell/openings.js';
import type { Covered, Opening, Survey } from '../document/schema.js';
import type { RoomFigures } from '../shell/room.js';

export type CoveredAreas = Readonly<Record<Covered, number>> & {
  /** Glass and hatches, which no layer covers. */
  readonly glass: number;
};

/** How deep a reveal is taken to be for its area, mm. */
const REVEAL_MM = 60;

/**
 * Areas that the build-ups cover, m2: walls and ceiling less their openings, doors by their own size, reveals by the
 * windows' edges.
 */
export function coveredAreas(room: RoomFigures, survey: Survey): CoveredAreas {
  const placed = placedOpenings(survey);
  const sum = (list: readonly PlacedOpening[]): number => list.reduce((total, item) => total + openingArea(item), 0);
  const on = (surface: Opening['surface']): number => sum(placed.filter(({ opening }) => opening.surface === surface));
  const windows = placed.filter(({ opening }) => opening.kind !== 'door');
  return {
    floor: room.areas.floor,
    left: Math.max(0, room.areas.left - on('left')),
    right: Math.max(0, room.areas.right - on('right')),
    ceiling: Math.max(0, room.areas.ceiling - on('roof')),
    doors: sum(placed.filter(({ opening }) => opening.kind === 'door')),
    windows: windows.reduce((total, w) => total + (2 * (w.to - w.from + w.head - w.sill) * REVEAL_MM) / 1e6, 0),
    glass: sum(windows),
  };
}
