import type { PriceBook, Stored, Thing } from '../document/schema.js';
import type { ArchShape } from '../shell/arch.js';
import type { Shell } from '../shell/shell.js';

/** What a unit is made in. */
export interface Surroundings {
  readonly inner: Shell;
  readonly arches: readonly ArchShape[];
  readonly book: PriceBook;
  /** The things with data sheets that units hold. */
  readonly things: readonly Thing[];
  /** The goods that are kept in units; nothing is kept where it is left out. */
  readonly stored?: readonly Stored[];
}
