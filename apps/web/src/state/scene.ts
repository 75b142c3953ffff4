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
/** One for everybody who asks between two changes. */
let last: Scene | null = null;
function sceneIn({ project: saved, preview, derived, priceBook: book }: State): Scene | null {
  const project = preview?.project ?? saved;
  const shape = preview?.shape ?? derived;
  const previewing = preview !== null;
  if (!project || !shape || !derived || !book) return null;
  if (
    last?.project !== project ||
    last.shape !== shape ||
    last.derived !== derived ||
    last.book !== book ||
    last.previewing !== previewing
  )
    last = { project, book, shape, derived, room: shape.inner ?? shape.shell, previewing };
  return last;
}

export const useScene = (): Scene | null => useSession(sceneIn);

/** The same, asked for once: for what happens at a press or a move and is drawn by nothing. */
export const sceneNow = (): Scene | null => sceneIn(useSession.getState());

/** Where the slice stands: where it was put, else the middle. Kept on the floor. */
export function useSliceX(shell: Shell | null): number {
  const put = useView((view) => view.sliceX);
  const length = shell?.length ?? 0;
  return Math.min(Math.max(put ?? length / 2, 0), length);
}
