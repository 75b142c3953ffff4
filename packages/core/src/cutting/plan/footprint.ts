import type { KeptPlacement } from '../../document/schema.js';

/** The rectangle a placed part takes up: along the sheet and across it, mm. A bar part turned end for end keeps its own. */
export function footprintOf(placed: Pick<KeptPlacement, 'length' | 'width' | 'turned' | 'ends'>): {
  readonly length: number;
  readonly width: number;
} {
  return placed.turned && !placed.ends
    ? { length: placed.width, width: placed.length }
    : { length: placed.length, width: placed.width };
}
