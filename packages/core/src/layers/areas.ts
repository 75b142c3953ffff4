import { openingArea, openingRing, placedOpenings, type PlacedOpening } from '../shell/openings.js';
import type { Survey } from '../document/schema.js';
import { SURFACE_LIST, type KnownSurface, type SurfaceTraits } from '../document/surfaces.js';
import { lineLength, type Ring } from '../numeric/plane.js';
import type { RoomFigures } from '../shell/room.js';

export type CoveredAreas = Readonly<Record<KnownSurface | 'glass', number>> &
  Readonly<Record<string, number | undefined>>;

/** All round a ring, mm. */
const ringLength = (ring: Ring): number => lineLength([...ring, ...ring.slice(0, 1)]);

/** How deep a reveal is taken to be for its area, mm. */
const REVEAL_MM = 60;

/**
 * Areas that the build-ups cover, m2: walls and ceiling less their openings, doors by their own size, reveals by the
 * windows' edges.
 */
export function coveredAreas(
  room: RoomFigures,
  survey: Survey,
  surfaces: readonly SurfaceTraits[] = SURFACE_LIST,
): CoveredAreas {
  const placed = placedOpenings(survey);
  const sum = (list: readonly PlacedOpening[]): number => list.reduce((total, item) => total + openingArea(item), 0);
  const on = (surface: string): number => sum(placed.filter(({ opening }) => opening.surface === surface));
  const windows = placed.filter(({ opening }) => opening.kind !== 'door');
  const own: Readonly<Record<string, number | undefined>> = {
    ...room.areas,
    doors: sum(placed.filter(({ opening }) => opening.kind === 'door')),
    windows: windows.reduce(
      (total, w) => total + (ringLength(openingRing(w, 0, w.opening.cornerRadius)) * REVEAL_MM) / 1e6,
      0,
    ),
  };
  return {
    ...Object.fromEntries(
      surfaces.map(({ id, opening, area }: SurfaceTraits) => {
        const whole = own[id] ?? area ?? 0;
        return [id, opening === null ? whole : Math.max(0, whole - on(opening))];
      }),
    ),
    // glass and hatches, which no layer covers
    glass: sum(windows),
  } as unknown as CoveredAreas;
}
