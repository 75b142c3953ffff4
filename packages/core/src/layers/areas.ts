import { openingArea, openingRing, placedOpenings, type PlacedOpening } from '../shell/openings.js';
import { archFootprint, archProfile, type ArchShape } from '../shell/arch.js';
import type { Shell } from '../shell/shell.js';
import type { Layer, Side, Survey } from '../document/schema.js';
import { SURFACE_LIST, type KnownSurface, type SurfaceTraits } from '../document/surfaces.js';
import { lineLength, ringArea, type Point, type Ring } from '../numeric/plane.js';
import type { RoomFigures } from '../shell/room.js';

export type CoveredAreas = Readonly<Record<KnownSurface | 'glass', number>> &
  Readonly<Record<string, number | undefined>>;

/** All round a ring, mm. */
const ringLength = (ring: Ring): number => lineLength([...ring, ...ring.slice(0, 1)]);

/** What arches and the like stand on or against: floor and walls that no layer covers there, m2. Steps have a floor of their own. */
function standOn(shell: Shell, arches: readonly ArchShape[]): Readonly<Record<'floor' | 'left' | 'right', number>> {
  const standing = arches.filter((arch) => arch.kind !== 'step');
  const area = (rings: readonly Ring[]): number => rings.reduce((sum, ring) => sum + Math.abs(ringArea(ring)), 0) / 1e6;
  // against a wall up to its own height, from the finished floor
  const against = (side: Side): number =>
    area(
      standing
        .filter((arch) => arch.side === side && arch.far === null)
        .map((arch): Ring => archProfile(arch).map(([x, z]): Point => [x, Math.max(z, shell.floor)])),
    );
  return {
    floor: area(
      standing.flatMap((arch): Ring[] => {
        const ring = archFootprint(arch, shell, shell.floor, 0, 0);
        return ring ? [ring] : [];
      }),
    ),
    left: against('left'),
    right: against('right'),
  };
}

/** A floor finish as it is laid: what it is of, and what it covers, m2. */
export interface FinishLaid {
  readonly material: string;
  readonly covered: number;
}

/**
 * The area a layer of a surface is laid over, m2: the surface's, and for a floor finish that is set out only what it
 * covers. Mass, hours and amounts all start from this.
 */
export const layerArea = (surface: string, layer: Layer, area: number, finish: FinishLaid | null): number =>
  surface === 'floor' && finish?.material === layer.material && layer.place === 'continuous' && !layer.board
    ? finish.covered
    : area;

/** How deep a reveal is taken to be for its area, mm. */
const REVEAL_MM = 60;

/**
 * Areas that the build-ups cover, m2: walls and ceiling less their openings, walls and floor less arches, doors by their own size, reveals by the
 * windows' edges.
 */
export function coveredAreas(
  room: RoomFigures,
  shell: Shell,
  arches: readonly ArchShape[],
  survey: Survey,
  surfaces: readonly SurfaceTraits[] = SURFACE_LIST,
): CoveredAreas {
  const placed = placedOpenings(survey);
  const sum = (list: readonly PlacedOpening[]): number => list.reduce((total, item) => total + openingArea(item), 0);
  const on = (surface: string): number => sum(placed.filter(({ opening }) => opening.surface === surface));
  const windows = placed.filter(({ opening }) => opening.kind !== 'door');
  const taken = standOn(shell, arches);
  const own: Readonly<Record<string, number | undefined>> = {
    ...room.areas,
    floor: Math.max(0, room.areas.floor - taken.floor),
    left: Math.max(0, room.areas.left - taken.left),
    right: Math.max(0, room.areas.right - taken.right),
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
