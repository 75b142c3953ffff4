import { useMemo } from 'react';
import type { Derived, DerivedShape } from '@nestplank/core/derive';
import type { PriceBook, Project } from '@nestplank/core/document';
import type { Shell } from '@nestplank/core/shell';
import { useSession } from './session.js';
import { useView } from './view.js';

/** What is drawn now: the project as it is, or as a drag would make it. */
export interface Scene {
  readonly project: Project;
  readonly book: PriceBook;
  readonly shape: DerivedShape;
  readonly derived: Derived;
  /** The room if there are layers that leave one, else the bare shell; null before the first section is measured. */
  readonly room: Shell | null;
  readonly previewing: boolean;
}

/** What a unit is called; an id that is no unit's stands for itself. */
export const unitName = ({ project }: Pick<Scene, 'project'>, id: string): string =>
  project.layout.units.find((unit) => unit.id === id)?.name ?? id;

export function useScene(): Scene | null {
  const project = useSession((s) => s.preview?.project ?? s.project);
  const shape = useSession((s) => s.preview?.shape ?? s.derived);
  const derived = useSession((s) => s.derived);
  const book = useSession((s) => s.priceBook);
  const previewing = useSession((s) => s.preview !== null);
  return useMemo(
    () =>
      project && shape && derived && book
        ? { project, book, shape, derived, room: shape.inner ?? shape.shell, previewing }
        : null,
    [project, shape, derived, book, previewing],
  );
}

/** Where the slice stands: where it was put, else the middle. Kept on the floor. */
export function useSliceX(shell: Shell | null): number {
  const put = useView((view) => view.sliceX);
  const length = shell?.length ?? 0;
  return Math.min(Math.max(put ?? length / 2, 0), length);
}
