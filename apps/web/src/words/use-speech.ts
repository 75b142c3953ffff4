import { useMemo } from 'react';
import { useSession } from '../state/session.js';
import { speechFor, type Speech } from './speech.js';

/** Speech in the units of the open project; millimetres when none is open. */
export function useSpeech(): Speech {
  const units = useSession((s) => s.project?.settings.units ?? 'mm');
  const fraction = useSession((s) => s.project?.settings.fraction ?? 16);
  const list = useSession((s) => s.project?.layout.units);
  // names alone: a unit that moves does not change how one is spoken to
  const names = JSON.stringify(list?.map(({ id, name }) => [id, name]) ?? []);
  return useMemo(() => {
    const called = new Map(JSON.parse(names) as [string, string][]);
    return speechFor({ units, fraction }, (id) => called.get(id) ?? null);
  }, [units, fraction, names]);
}
