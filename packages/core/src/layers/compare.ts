import type { BuildUps, PriceBook, PriceItem, Project } from '../document/schema.js';
import { archesOf } from '../shell/arch.js';
import { innerShell } from '../shell/inner.js';
import { roomFigures, type RoomFigures } from '../shell/room.js';
import type { Shell } from '../shell/shell.js';
import { coveredAreas, type CoveredAreas } from './areas.js';
import { BATTEN_SPACING_MM, buildUpDepths, coverOf, insetsOf, type BuildUpDepths } from './buildup.js';
import { ribDepths, ribShares, type RibMap } from '../shell/ribs.js';
import { dampOf, heatLoss } from './warmth.js';

/** What a set of build-ups gives and costs, for comparing. Lengths mm, mass kg, money in minor units, work in hours. */
export interface BuildUpFigures {
  readonly standing: number | null;
  readonly widthAtFloor: number | null;
  readonly widthAtBed: number | null;
  readonly watts: number;
  /** The most vapour that can reach the metal of any wall or the ceiling in a night, g/m2; null when not known. */
  readonly dew: number | null;
  readonly kg: number;
  readonly money: number;
  /** What the price of the hours comes to; 0 while an hour is worth nothing. */
  readonly labour: number;
  readonly hours: number;
  /** Panel area that is quietened, m2. */
  readonly deadened: number;
}

/** Price of a square metre (or of the metres of batten in one) of a material, minor units; 0 when it is not sold by area. */
export function priceOfArea(material: PriceItem, battenSpacing: number): number {
  const { pack, stocks } = material;
  if (pack?.unit === 'm2') return pack.price / pack.contents;
  // boards lie side by side, battens apart
  if (pack?.unit === 'm')
    return pack.price / pack.contents / ((material.group === 'lining' ? material.width : battenSpacing) / 1000);
  const stock = stocks[0];
  return stock ? stock.price / ((stock.length * stock.width) / 1e6) : 0;
}

const spacingOf = (surface: string, project: Pick<Project, 'settings'>): number =>
  surface === 'floor' ? project.settings.floorBattens.spacing : BATTEN_SPACING_MM;

/** Sums over all layers of all surfaces. */
function sums(
  depths: BuildUpDepths,
  areas: CoveredAreas,
  project: Pick<Project, 'settings'>,
): Pick<BuildUpFigures, 'kg' | 'money' | 'hours' | 'deadened'> {
  const total = { kg: 0, money: 0, hours: 0, deadened: 0 };
  for (const [surface, buildUp] of Object.entries(depths)) {
    const spacing = spacingOf(surface, project);
    const area = areas[surface];
    if (!buildUp || area === undefined) continue;
    for (const depth of buildUp.layers) {
      const { material, thickness, layer } = depth;
      if (!material) continue;
      const covered = area * coverOf(depth, spacing);
      const byMetre = material.pack?.unit === 'm' && material.group !== 'lining';
      total.kg += (covered * thickness * material.density) / 1000;
      total.money += priceOfArea(material, spacing) * (byMetre ? area : covered);
      total.hours += material.hours * (byMetre ? (area * 1000) / spacing : covered);
      if (material.deadening) total.deadened += area * (layer.place === 'patches' ? layer.share : 1);
    }
  }
  return total;
}

/**
 * What the vehicle would be with a set of build-ups. Prices are by area, not by whole packs, so that two sets compare
 * fairly.
 */
export function buildUpFigures(
  project: Pick<Project, 'survey' | 'settings' | 'vehicle'>,
  buildUps: BuildUps,
  shell: Shell,
  bareRoom: RoomFigures,
  ribs: RibMap,
  book: PriceBook,
): BuildUpFigures {
  const depths = buildUpDepths(buildUps, ribDepths(ribs), book);
  const inner = innerShell(shell, insetsOf(depths));
  const room = inner && roomFigures(inner);
  const areas = coveredAreas(room ?? bareRoom, inner ?? shell, archesOf(project.survey, shell).arches, project.survey);
  const loss = heatLoss(
    depths,
    areas,
    project.settings.climate,
    ribShares(ribs, shell),
    project.settings.floorBattens.spacing,
    project.vehicle.kind,
  );
  const dews = (['left', 'right', 'ceiling'] as const).map((surface) =>
    dampOf(depths[surface], project.settings.climate),
  );
  const grams = dews.map((damp) => damp?.gramsANight ?? null);
  const all = sums(depths, areas, project);
  return {
    standing: room?.standing.value ?? null,
    widthAtFloor: room?.widthAtFloor.value ?? null,
    widthAtBed: room?.widthAtBed.value ?? null,
    watts: loss.watts,
    dew: grams.some((value) => value === null) ? null : Math.max(...grams.map((value) => value ?? 0)),
    ...all,
    labour: Math.round(all.hours * project.settings.hourValue),
  };
}
