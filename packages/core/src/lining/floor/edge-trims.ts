import { placeSeen } from '../../parts/lay-flat.js';
import type { PriceItem, Survey } from '../../document/schema.js';
import { barStocks, isBar } from '../../materials/bars.js';
import { rectangle } from '../../numeric/plane.js';
import type { Part } from '../../parts/part.js';
import { placedOpenings } from '../../shell/openings.js';
import { halfWidth, type Shell } from '../../shell/shell.js';

/** A door whose sill is no higher than this over the floor has the floor's edge in it, mm. */
const IN_DOOR_MM = 120;

/** The longest piece that a profile gives, mm; 0 where it is not sold by the length. */
export const longestTrim = (trim: PriceItem | null): number =>
  trim && isBar(trim) ? Math.max(...barStocks(trim).map((stock) => stock.length)) : 0;

/**
 * A profile along the floor's edge in every door, in one piece: as long as the door is wide at its sill. One in the rear
 * runs from side to side, others along the vehicle.
 * @param inner the shell of the finished faces
 */
export function edgeTrims(survey: Survey, inner: Shell, trim: PriceItem | null): readonly Part[] {
  if (!trim || !isBar(trim)) return [];
  return placedOpenings(survey)
    .filter(
      ({ opening, sill }) => opening.kind === 'door' && opening.surface !== 'roof' && sill <= inner.floor + IN_DOOR_MM,
    )
    .map(({ opening, from, to }, i): Part => {
      const { surface } = opening;
      const sign = surface === 'left' ? -1 : 1;
      const reach =
        surface === 'rear' ? 0 : halfWidth(inner, surface === 'left' ? 'left' : 'right', (from + to) / 2, inner.floor);
      return {
        id: `floor-edge-${opening.id}`,
        role: 'trim',
        number: i + 1,
        unit: null,
        surface: 'floor',
        of: opening.name,
        material: trim.id,
        thickness: trim.thickness,
        outline: { outer: rectangle(0, 0, to - from, trim.width), holes: [] },
        grain: true,
        ends: { start: 0, end: 0 },
        edges: [],
        place:
          surface === 'rear'
            ? placeSeen([inner.length, from, inner.floor], [0, 1, 0], [-1, 0, 0])
            : placeSeen([from, sign * reach, inner.floor], [1, 0, 0], [0, 0 - sign, 0]),
      };
    });
}
