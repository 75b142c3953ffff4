import type { PriceItem } from '../../document/schema.js';
import { isBar } from '../../materials/bars.js';
import type { BuildUpDepth } from '../../layers/buildup.js';

/** The layer one sees: the last one that covers the whole surface and is sold in sheets or lengths. */
export function faceLayer(
  depth: BuildUpDepth,
): { readonly material: PriceItem; readonly thickness: number; readonly id: string } | null {
  const last = depth.layers.findLast(
    ({ layer, material }) =>
      layer.place === 'continuous' && material !== null && (material.stocks.length > 0 || isBar(material)),
  );
  return last?.material ? { material: last.material, thickness: last.thickness, id: last.layer.id } : null;
}
