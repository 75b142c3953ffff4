import { sceneOf, type Derived, type DerivedShape } from '@nestplank/core/derive';
import type { PriceBook, Project } from '@nestplank/core/document';
import { FAMILIES } from '@nestplank/core/furniture';
import { softIn, type Soft } from '@nestplank/core/layout';
import type { Part } from '@nestplank/core/parts';
import type { Shell } from '@nestplank/core/shell';

/** What is drawn in the round. */
export interface Shown {
  readonly project: Project;
  readonly book: PriceBook;
  readonly shape: DerivedShape;
  readonly derived: Derived;
  /** The room if there are layers that leave one, else the bare shell; null before the first section is measured. */
  readonly room: Shell | null;
}

/** Boxes over arches, beside headers and round windows are flat and stand where they are made. */
const BOXES: ReadonlySet<string> = new Set(['arch-top', 'arch-side', 'arch-end', 'header', 'reveal']);
/** What is bent to a corner is drawn on the bench alone. */
const ON_THE_BENCH: ReadonlySet<string> = new Set(['corner', 'corner-test']);

/** Furniture, and the boxes of the lining. */
export const furnitureIn = ({ parts }: Pick<DerivedShape, 'parts'>): readonly Part[] =>
  parts.filter(({ unit, role }) => unit !== null || BOXES.has(role));

/** What walls, ceiling, floor and doors are lined with, and what holds it: panels, boards, strips, battens, noggins, trims. */
export const liningIn = ({ parts }: Pick<DerivedShape, 'parts'>): readonly Part[] =>
  parts.filter(({ unit, role }) => unit === null && !BOXES.has(role) && !ON_THE_BENCH.has(role));

/** Mattresses and cushions, as the plan has them now. */
export function softsOf({ project, derived, book }: Pick<Shown, 'project' | 'derived' | 'book'>): readonly Soft[] {
  const world = sceneOf(project, derived, book, FAMILIES);
  return world ? softIn(world) : [];
}

/** What is bought that boards hang on, where it stands. */
export const hangersOf = ({ made }: Pick<DerivedShape, 'made'>) =>
  made.flatMap(({ unit, skeleton }) => {
    const at = (skeleton?.hangsOn ?? []).flatMap(({ at: boxes = [] }) => boxes);
    return at.length === 0 ? [] : [{ unit, at }];
  });
