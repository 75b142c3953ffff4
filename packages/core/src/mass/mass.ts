import type { PriceBook } from '../document/schema.js';
import { boardMaterials, partMass, type Part } from '../parts/part.js';
import { layerArea, type CoveredAreas, type FinishLaid } from '../layers/areas.js';
import { BATTEN_SPACING_MM, coverOf, type BuildUpDepths } from '../layers/buildup.js';

export interface MassFigures {
  /** kg, by what it belongs to: a unit's id or a surface. */
  readonly of: readonly { readonly id: string; readonly kind: 'unit' | 'surface'; readonly kg: number }[];
  readonly total: number;
  /** Materials without a density, left out of the sum. */
  readonly unknown: readonly string[];
}

/** Mass of everything drawn: parts by their true outlines, layers by area, thickness and density; battens by their share. */
export function massOf(
  parts: readonly Part[],
  depths: BuildUpDepths,
  areas: CoveredAreas | null,
  floorSpacing: number,
  finish: FinishLaid | null,
  book: PriceBook,
): MassFigures {
  const unknown = new Set<string>();
  const add = new Map<string, { kind: 'unit' | 'surface'; kg: number }>();
  const count = (id: string, kind: 'unit' | 'surface', kg: number): void =>
    void add.set(id, { kind, kg: (add.get(id)?.kg ?? 0) + kg });
  for (const part of parts) {
    const kg = partMass(part, book);
    if (kg === null) unknown.add(part.material);
    else count(part.unit ?? part.surface ?? 'floor', part.unit ? 'unit' : 'surface', kg);
  }
  const battened = parts.some((part) => part.role === 'floor-batten');
  // what is cut into parts is counted by them
  const lined = new Set(parts.flatMap((part) => (part.surface ? [`${part.surface}:${part.material}`] : [])));
  const boarded = boardMaterials(parts);
  for (const [surface, buildUp] of Object.entries(depths)) {
    for (const depth of buildUp?.layers ?? []) {
      const { layer, material, thickness } = depth;
      if (layer.board && boarded.has(layer.material)) continue;
      if (lined.has(`${surface}:${layer.material}`) && (layer.place === 'continuous' || layer.place === 'battens'))
        continue;
      if (surface === 'floor' && layer.place === 'battens' && battened) continue;
      if (!material || material.density <= 0) {
        unknown.add(layer.material);
        continue;
      }
      const share = coverOf(depth, surface === 'floor' ? floorSpacing : BATTEN_SPACING_MM);
      count(
        surface,
        'surface',
        (layerArea(surface, layer, areas?.[surface] ?? 0, finish) * share * thickness * material.density) / 1000,
      );
    }
  }
  const of = [...add.entries()].map(([id, value]) => ({ id, ...value }));
  return { of, total: of.reduce((sum, item) => sum + item.kg, 0), unknown: [...unknown] };
}
