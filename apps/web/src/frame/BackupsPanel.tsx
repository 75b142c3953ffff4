import Button from '@mui/material/Button';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { BackupsView, BackupView } from '@nestplank/contract';
import { ConfirmDialog } from '../kit/ConfirmDialog.js';
import { FileButton } from '../kit/FileButton.js';
import { Problem } from '../kit/Problem.js';
import { problemText } from '../kit/problem-text.js';
import { api } from '../state/api.js';
import { tell } from '../words/words.js';

const when = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' });

/** Backups of everything: made, fetched, put in place. */
export function BackupsPanel() {
  const [found, setFound] = useState<BackupsView | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [wanted, setWanted] = useState<BackupView | null>(null);
  const [busy, setBusy] = useState(false);
  const file = useRef<HTMLInputElement>(null);
  const reload = useCallback(() => {
    api.backups().then(setFound, (reason: unknown) => setProblem(problemText(reason)));
  }, []);
  useEffect(reload, [reload]);
  const run = async (work: () => Promise<unknown>): Promise<void> => {
    setBusy(true);
    setProblem(null);
    try {
      await work();
      reload();
    } catch (reason) {
      setProblem(problemText(reason));
    } finally {
      setBusy(false);
    }
  };
  return (
    <div className="stack">
      {found?.damaged && <Problem>{tell('backups.damaged')}</Problem>}
      {found && <p className="small soft">{tell('backups.hint', { ...found.kept })}</p>}
      <div>
        <Button disabled={busy} onClick={() => void run(api.makeBackup)}>
          {tell('backups.make')}
        </Button>
      </div>
      <div className="row wrap">
        <FileButton variant="text" address={api.everythingAddress}>
          {tell('backups.everything')}
        </FileButton>
        <Button variant="text" disabled={busy} onClick={() => file.current?.click()}>
          {tell('backups.takeIn')}
        </Button>
        <input
          ref={file}
          type="file"
          accept=".zip,application/zip"
          hidden
          aria-label={tell('backups.takeIn')}
          onChange={(event) => {
            const chosen = event.target.files?.[0];
            event.target.value = '';
            if (chosen)
              void run(async () => {
                const { refused } = await api.takeEverything(chosen);
                if (refused.length === 0) window.location.assign('/');
                else setProblem(refused.map(({ file: name, why }) => `${name}: ${why}`).join(' '));
              });
          }}
        />
      </div>
      {problem && <Problem>{problem}</Problem>}
      {found?.backups.length === 0 && <p className="soft">{tell('backups.none')}</p>}
      <ul className="ruled-list">
        {found?.backups.map((backup) => (
          <li key={backup.name} className="row apart wrap">
            <span>
              {when.format(new Date(backup.at))}{' '}
              <span className="soft small figures">
                {tell(`backups.kind.${backup.kind}`)} · {(backup.bytes / 1e6).toFixed(1)} MB
                {backup.ahead && ` · ${tell('backups.ahead')}`}
              </span>
            </span>
            <span className="row">
              <Button size="small" variant="text" href={api.backupAddress(backup.name)} download>
                {tell('backups.fetch')}
              </Button>
              <Button size="small" disabled={busy} onClick={() => setWanted(backup)}>
                {tell('backups.restore')}
              </Button>
            </span>
          </li>
        ))}
      </ul>
      {wanted && (
        <ConfirmDialog
          text={`${tell('backups.restore')}: ${when.format(new Date(wanted.at))}. ${tell('backups.sure')}`}
          action={tell('backups.restore')}
          onClose={() => setWanted(null)}
          onConfirm={() => {
            const { name } = wanted;
            setWanted(null);
            void run(async () => {
              await api.restoreBackup(name);
              window.location.assign('/');
            });
          }}
        />
      )}
    </div>
  );
}
