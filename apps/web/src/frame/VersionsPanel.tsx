import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useCallback, useEffect, useState } from 'react';
import type { VersionView } from '@nestplank/contract';
import { KEPT_OF_PAST } from '@nestplank/contract/limits';
import { problemText } from '../kit/problem-text.js';
import { api } from '../state/api.js';
import { act, useSession } from '../state/session.js';
import { tell } from '../words/words.js';
import { useSpeech } from '../words/use-speech.js';

const when = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' });

/** Versions kept by name or by themselves, to return to. */
export function VersionsPanel({ onClose }: { readonly onClose: () => void }) {
  const id = useSession((s) => s.id);
  const { said } = useSpeech();
  const [versions, setVersions] = useState<VersionView[]>([]);
  const [name, setName] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const fail = (reason: unknown): void => setProblem(problemText(reason));
  const reload = useCallback(() => {
    if (id) api.versions(id).then(setVersions, fail);
  }, [id]);
  useEffect(reload, [reload]);
  if (!id) return null;
  const keep = async (): Promise<void> => {
    try {
      await api.keepVersion(id, name.trim());
      setName('');
      setProblem(null);
      reload();
    } catch (reason) {
      fail(reason);
    }
  };
  const returnTo = async (version: VersionView): Promise<void> => {
    try {
      const refused = act({ name: 'restore', payload: { project: await api.version(id, version.id) } });
      if (refused) setProblem(said(refused));
      else onClose();
    } catch (reason) {
      fail(reason);
    }
  };
  return (
    <div className="stack">
      <form
        className="row"
        onSubmit={(event) => {
          event.preventDefault();
          if (name.trim() === '') setProblem(tell('error.rename'));
          else void keep();
        }}
      >
        <TextField
          label={tell('versions.name')}
          value={name}
          onChange={(event) => setName(event.target.value)}
          error={problem !== null}
          helperText={problem}
        />
        <Button className="one-line" type="submit">
          {tell('versions.keep')}
        </Button>
      </form>
      {versions.length === 0 && <p className="soft">{tell('versions.none', KEPT_OF_PAST)}</p>}
      <table className="plain">
        <tbody>
          {versions.map((version) => (
            <tr key={version.id}>
              <td>{version.name}</td>
              <td className="soft">{version.automatic ? tell('versions.auto') : ''}</td>
              <td className="number">{when.format(new Date(version.at))}</td>
              <td>
                <Button size="small" onClick={() => void returnTo(version)}>
                  {tell('versions.return')}
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="soft small">{tell('versions.hint', KEPT_OF_PAST)}</p>
    </div>
  );
}
