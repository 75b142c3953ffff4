import type { PriceBook, Surface } from '../project/schema.js';
import { BATTEN_SPACING_MM } from '../costing/shopping.js';
import { partMass, type Part } from '../joinery/part.js';
import type { BuildUpDepths } from '../layers/buildup.js';
import type { RoomFigures } from '../shell/room.js';

export interface MassFigures {
  /** kg, by what it belongs to: a unit's id or a surface. */
  readonly of: readonly { readonly id: string; readonly kind: 'unit' | 'surface'; readonly kg: number }[];
  readonly total: number;
  /** Materials without a density, left out of the sum. */
  readonly unknown: readonly string[];
}

const SURFACES: readonly Surface[] = ['floor', 'left', 'right', 'ceiling'];

/** Mass of everything drawn: parts by their true outlines, layers by area, thickness and density; battens by their share. */
export function massOf(
  parts: readonly Part[],
  depths: BuildUpDepths,
  room: RoomFigures | null,
  book: PriceBook,
): MassFigures {
  const unknown = new Set<string>();
  const add = new Map<string, { kind: 'unit' | 'surface'; kg: number }>();
  const count = (id: string, kind: 'unit' | 'surface', kg: number): void =>
    void add.set(id, { kind, kg: (add.get(id)?.kg ?? 0) + kg });
  for (const part of parts) {
    const kg = partMass(part, book);
    if (kg === null) unknown.add(part.material);
    else count(part.unit ?? 'floor', part.unit ? 'unit' : 'surface', kg);
  }
  const boarded = parts.some((part) => part.role === 'subfloor');
  for (const surface of SURFACES) {
    for (const { layer, material } of depths[surface].layers) {
      if (layer.board && boarded) continue;
      if (!material || material.density <= 0) {
        unknown.add(layer.material);
        continue;
      }
      const width = material.width > 0 ? material.width : 45;
      const share =
        layer.place === 'battens'
          ? width / BATTEN_SPACING_MM
          : layer.place === 'between-battens'
            ? 1 - width / BATTEN_SPACING_MM
            : 1;
      count(surface, 'surface', ((room?.areas[surface] ?? 0) * share * layer.thickness * material.density) / 1000);
    }
  }
  const of = [...add.entries()].map(([id, value]) => ({ id, ...value }));
  return { of, total: of.reduce((sum, item) => sum + item.kg, 0), unknown: [...unknown] };
}
