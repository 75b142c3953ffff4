import { useMemo } from 'react';
import { useSession } from '../state/session.js';
import { speechFor, type Speech } from './speech.js';

export { speechFor, tell, type Params, type Speech } from './speech.js';

/** Speech in the units of the open project; millimetres when none is open. */
export function useSpeech(): Speech {
  const units = useSession((s) => s.project?.settings.units ?? 'mm');
  const fraction = useSession((s) => s.project?.settings.fraction ?? 16);
  return useMemo(() => speechFor({ units, fraction }), [units, fraction]);
}
