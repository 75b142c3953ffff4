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

type State = ReturnType<typeof useSession.getState>;
const projectIn = (s: State): Project | null => s.preview?.project ?? s.project;
const shapeIn = (s: State): DerivedShape | null => s.preview?.shape ?? s.derived;

function sceneOf(
  project: Project | null,
  shape: DerivedShape | null,
  derived: Derived | null,
  book: PriceBook | null,
  previewing: boolean,
): Scene | null {
  return project && shape && derived && book
    ? { project, book, shape, derived, room: shape.inner ?? shape.shell, previewing }
    : null;
}

export function useScene(): Scene | null {
  const project = useSession(projectIn);
  const shape = useSession(shapeIn);
  const derived = useSession((s) => s.derived);
  const book = useSession((s) => s.priceBook);
  const previewing = useSession((s) => s.preview !== null);
  return useMemo(() => sceneOf(project, shape, derived, book, previewing), [project, shape, derived, book, previewing]);
}

/** The same, asked for once: for what happens at a press or a move and is drawn by nothing. */
export function sceneNow(): Scene | null {
  const now = useSession.getState();
  return sceneOf(projectIn(now), shapeIn(now), now.derived, now.priceBook, now.preview !== null);
}

/** Where the slice stands: where it was put, else the middle. Kept on the floor. */
export function useSliceX(shell: Shell | null): number {
  const put = useView((view) => view.sliceX);
  const length = shell?.length ?? 0;
  return Math.min(Math.max(put ?? length / 2, 0), length);
}
