import type { Opening, Side, Survey } from '../document/schema.js';
import { valueAt } from '../document/address.js';
import { placedOpenings } from './openings.js';
import { developedHeight, halfWidth, roofHeight, wallTop, type Shell } from './shell.js';

/** A rib whose place is known, mm. */
export interface PlacedRib {
  readonly id: string;
  readonly name: string;
  readonly x: number;
  readonly width: number;
}

/** The free space between two neighbouring ribs. */
export interface RibGap {
  readonly between: readonly [string, string];
  readonly from: number;
  readonly to: number;
  readonly clear: number;
}

export interface RibMap {
  readonly ribs: readonly PlacedRib[];
  readonly gaps: readonly RibGap[];
  /** The largest opening that can be cut without touching a rib. */
  readonly largest: RibGap | null;
  /** Openings that a rib runs through: it was cut, or has to be. */
  readonly cut: readonly { readonly opening: Opening; readonly ribs: readonly PlacedRib[] }[];
}

const DEFAULT_WIDTH_MM = 45;

/** Ribs that run round walls and roof, from front to rear. */
function placedRibs(survey: Survey): PlacedRib[] {
  return survey.ribs
    .flatMap(({ id, name, on }): PlacedRib[] => {
      const x = valueAt(survey, `rib/${id}/x`);
      return x === null || on === 'floor'
        ? []
        : [{ id, name, x, width: valueAt(survey, `rib/${id}/width`) ?? DEFAULT_WIDTH_MM }];
    })
    .sort((a, b) => a.x - b.x);
}

/** Where the ribs are, what is free between them, and which openings run across one. Doors are framed by the maker. */
export function ribMap(survey: Survey): RibMap {
  const ribs = placedRibs(survey);
  const gaps = ribs.slice(1).flatMap((rib, i): RibGap[] => {
    const before = ribs[i];
    if (!before) return [];
    const [from, to] = [before.x + before.width / 2, rib.x - rib.width / 2];
    return to <= from ? [] : [{ between: [before.name, rib.name], from, to, clear: to - from }];
  });
  return {
    ribs,
    gaps,
    largest: gaps.reduce<RibGap | null>((best, next) => (best && best.clear >= next.clear ? best : next), null),
    cut: placedOpenings(survey)
      .filter(({ opening }) => opening.kind !== 'door' && opening.surface !== 'rear')
      .flatMap(({ opening, from, to }) => {
        const through = ribs.filter((rib) => rib.x + rib.width / 2 > from && rib.x - rib.width / 2 < to);
        return through.length > 0 ? [{ opening, ribs: through }] : [];
      }),
  };
}

/** One compartment between two ribs: a piece of insulation with four sides, mm. */
export interface Cavity {
  readonly surface: 'left' | 'right' | 'ceiling';
  /** Across between the ribs. */
  readonly width: number;
  /** Along the section's curve at its front and at its rear rib; they differ where it tapers. */
  readonly front: number;
  readonly rear: number;
}

/** Compartments that are the same to within `ALIKE_MM`. */
export interface CavityGroup extends Cavity {
  readonly count: number;
}
const ALIKE_MM = 5;

function ceilingRun(shell: Shell, x: number): number {
  const from = -halfWidth(shell, 'left', x, wallTop(shell, 'left', x));
  const to = halfWidth(shell, 'right', x, wallTop(shell, 'right', x));
  let run = 0;
  for (let i = 1; i <= 16; i += 1) {
    const [a, b] = [from + ((to - from) * (i - 1)) / 16, from + ((to - from) * i) / 16];
    run += Math.hypot(b - a, roofHeight(shell, x, b) - roofHeight(shell, x, a));
  }
  return run;
}

/** The compartments between the ribs, alike ones counted together; what openings take out of them is not cut out. */
export function cavitiesOf(survey: Survey, shell: Shell): CavityGroup[] {
  const { gaps } = ribMap(survey);
  const wall = (side: Side, x: number): number => developedHeight(shell, side, x, wallTop(shell, side, x));
  const all = gaps.flatMap((gap): Cavity[] => [
    ...(['left', 'right'] as const).map((surface) => ({
      surface,
      width: gap.clear,
      front: wall(surface, gap.from),
      rear: wall(surface, gap.to),
    })),
    { surface: 'ceiling', width: gap.clear, front: ceilingRun(shell, gap.from), rear: ceilingRun(shell, gap.to) },
  ]);
  const groups: CavityGroup[] = [];
  for (const cavity of all) {
    const index = groups.findIndex(
      (group) =>
        group.surface === cavity.surface &&
        Math.abs(group.width - cavity.width) <= ALIKE_MM &&
        Math.abs(group.front - cavity.front) <= ALIKE_MM &&
        Math.abs(group.rear - cavity.rear) <= ALIKE_MM,
    );
    const group = groups[index];
    if (group) groups[index] = { ...group, count: group.count + 1 };
    else groups.push({ ...cavity, count: 1 });
  }
  return groups;
}
