import type { Side } from '../../document/schema.js';
import type { Ring } from '../../numeric/plane.js';

/** A stretch of the floor's edge where the board is kept back, along the vehicle, mm. */
export interface KeptBack {
  readonly side: Side;
  readonly from: number;
  readonly to: number;
  readonly by: number;
}

/** What the board is cut out for: holes that are decided, and hatches. */
export interface FloorHoles {
  readonly drilled: readonly Ring[];
  readonly hatches: readonly { readonly opening: Ring }[];
  /** Stretches of its edge where it is kept back. */
  readonly kept: readonly KeptBack[];
}
