import type { PriceBook, Unit } from '../document/schema.js';
import type { ArchShape } from '../shell/arch.js';
import type { Shell } from '../shell/shell.js';
import { baseCupboardParts } from './base-cupboard.js';
import type { Part } from '../parts/part.js';
import { platformBedParts } from './platform-bed.js';

/** The parts of one unit, whatever its kind. */
export function unitParts(unit: Unit, inner: Shell, arches: readonly ArchShape[], book: PriceBook): Part[] {
  switch (unit.kind) {
    case 'platform-bed':
      return platformBedParts(unit, inner, arches, book);
    case 'base-cupboard':
      return baseCupboardParts(unit, inner, book);
  }
}
