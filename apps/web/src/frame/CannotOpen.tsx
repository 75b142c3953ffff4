import { v4 as freshId } from 'uuid';
import Button from '@mui/material/Button';
import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import type { VersionView } from '@nestplank/contract';
import { api, RefusedError } from '../state/api.js';
import { download } from '../kit/download.js';
import { openProject, useSession, type Failure } from '../state/session.js';
import { tell } from '../words/words.js';
import { useSpeech } from '../words/use-speech.js';

const when = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' });

/** A project that cannot be opened: what is wrong, where; the document to be taken out; versions to return to. */
export function CannotOpen({ id, failure }: { readonly id: string; readonly failure: Failure }) {
  const { said } = useSpeech();
  const aside = useSession((s) => s.aside);
  const [versions, setVersions] = useState<readonly VersionView[]>([]);
  const [problem, setProblem] = useState<string | null>(null);
  const unsound = failure.revision !== null;
  useEffect(() => {
    if (unsound) api.versions(id).then(setVersions, () => setVersions([]));
  }, [id, unsound]);
  const returnTo = async (version: VersionView): Promise<void> => {
    try {
      const project = await api.version(id, version.id);
      const restore = { id: freshId(), name: 'restore' as const, payload: { project } };
      await api.post(id, { revision: failure.revision ?? 0, steps: [restore] });
      await openProject(id);
    } catch (reason) {
      setProblem(reason instanceof RefusedError ? reason.message : tell('home.failed'));
    }
  };
  return (
    <main className="empty stack" role="alert">
      <p>{tell('error.open', { why: failure.why })}</p>
      {failure.faults.length > 0 && (
        <ul className="plain-list">
          {failure.faults.map((fault) => (
            <li key={`${fault.place}:${fault.said.key}`}>{said(fault.said)}</li>
          ))}
        </ul>
      )}
      {aside.length > 0 && (
        <p>
          <Button size="small" onClick={() => download(`${id}-set-aside.json`, JSON.stringify(aside, null, 2))}>
            {tell('error.asideFile')}
          </Button>
        </p>
      )}
      {unsound && (
        <p>
          <a href={`/api/projects/${encodeURIComponent(id)}/stored`}>{tell('error.takeOut')}</a>
        </p>
      )}
      {versions.map((version) => (
        <p key={version.id} className="row apart">
          <span>
            {version.name} <span className="soft small">{when.format(new Date(version.at))}</span>
          </span>
          <Button size="small" onClick={() => void returnTo(version)}>
            {tell('error.returnTo', { name: version.name })}
          </Button>
        </p>
      ))}
      {problem && <p className="needs">{problem}</p>}
      <p>
        <Link to="/">{tell('bar.home')}</Link>
      </p>
    </main>
  );
}
