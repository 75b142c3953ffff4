import { useMemo } from 'react';
import type { Unit } from '@nestplank/core/document';
import { useSession } from '../state/session.js';
import { speechFor, type Speech } from './speech.js';

/** Names alone: a unit that moves does not change how one is spoken to. Told once for a list, whoever asks. */
const told = new WeakMap<readonly Unit[], string>();
function namesOf(list: readonly Unit[] | undefined): string {
  if (!list) return '[]';
  const known = told.get(list);
  if (known !== undefined) return known;
  const names = JSON.stringify(list.map(({ id, name }) => [id, name]));
  told.set(list, names);
  return names;
}

/** Speech in the units of the open project; millimetres when none is open. */
export function useSpeech(): Speech {
  const units = useSession((s) => s.project?.settings.units ?? 'mm');
  const fraction = useSession((s) => s.project?.settings.fraction ?? 16);
  const names = useSession((s) => namesOf(s.project?.layout.units));
  return useMemo(() => {
    const called = new Map(JSON.parse(names) as [string, string][]);
    return speechFor({ units, fraction }, (id) => called.get(id) ?? null);
  }, [units, fraction, names]);
}
