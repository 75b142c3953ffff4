import { useEffect } from 'react';
import type { ProjectListItem } from '@nestplank/contract';
import { forwarder } from '../state/session.js';
import { tell } from '../words/words.js';

/** What was done in this browser and is not kept by the server yet: it is sent on from the first page too. */
export function UnsentHere({ projects }: { readonly projects: readonly ProjectListItem[] }) {
  const waits = forwarder.useForwarding((s) => s.waits);
  useEffect(() => {
    void forwarder.start();
    return forwarder.stop;
  }, []);
  if (waits.size === 0) return null;
  const text = (id: string, unsent: number, why: string | null): string => {
    const name = projects.find((project) => project.id === id)?.name ?? id;
    if (unsent === 0) return tell('home.allSent', { name });
    if (why === 'no-project') return tell('home.noProject', { name, count: unsent });
    return why === null
      ? tell('home.sending', { name, count: unsent })
      : `${name}: ${tell(`save.waiting.${why}` as 'save.waiting.busy', { count: unsent })}`;
  };
  return (
    <section className="section stack below" aria-label={tell('home.unsent')}>
      <h2>{tell('home.unsent')}</h2>
      <ul className="ruled-list" role="status">
        {[...waits].map(([id, { unsent, why }]) => (
          <li key={id} className={unsent === 0 ? 'done' : 'needs'}>
            {text(id, unsent, why)}
          </li>
        ))}
      </ul>
    </section>
  );
}
export default UnsentHere;
