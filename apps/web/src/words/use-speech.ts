import type { Project } from '@nestplank/core/document';
import { useSession } from '../state/session.js';
import { speechFor, type Speech } from './speech.js';

/** What speech depends on of a project: its units and what things are called. That a unit moves does not change it. */
const wordedBy = (project: Project | null): string =>
  JSON.stringify([
    project?.settings.units ?? 'mm',
    project?.settings.fraction ?? 16,
    project?.layout.units.map(({ id, name }) => [id, name]) ?? [],
  ]);

/** One for everybody who speaks: worked out once for each project, and the same while nothing of it is said otherwise. */
let spoken: { readonly project: Project | null; readonly of: string; readonly speech: Speech } | null = null;
function speechIn({ project }: { readonly project: Project | null }): Speech {
  if (spoken?.project === project) return spoken.speech;
  const of = wordedBy(project);
  if (spoken?.of === of) spoken = { ...spoken, project };
  else {
    const { units = 'mm', fraction = 16 } = project?.settings ?? {};
    const called = new Map(project?.layout.units.map(({ id, name }) => [id, name]));
    spoken = { project, of, speech: speechFor({ units, fraction }, (id) => called.get(id) ?? null) };
  }
  return spoken.speech;
}

/** Speech in the units of the open project; millimetres when none is open. */
export const useSpeech = (): Speech => useSession(speechIn);
