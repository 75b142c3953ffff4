import './home.css';
import { Problem } from '../kit/Problem.js';
import Button from '@mui/material/Button';
import { lazy, Suspense, useCallback, useEffect, useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import type { BinItem, ProjectListItem } from '@nestplank/contract';
import { BackupsPanel } from '../frame/BackupsPanel.js';
import { api, RefusedError } from '../state/api.js';
import { speechFor, tell } from '../words/words.js';
import { ConfirmDialog } from '../kit/ConfirmDialog.js';
import { SmallDrawing, smallState, useSmall } from './SmallBuild.js';
import { NewBuildDialog } from './NewBuildDialog.js';

// it brings the queue and the operations along, which the list does not wait for
const UnsentHere = lazy(() => import('./UnsentHere.js'));

const LARGEST_FILE = 20 * 1024 * 1024;
const when = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' });
const day = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long' });
const why = (problem: unknown): string => (problem instanceof RefusedError ? problem.message : tell('home.failed'));

export function Home() {
  const [projects, setProjects] = useState<ProjectListItem[] | null>(null);
  const small = useSmall(projects);
  const [problem, setProblem] = useState<string | null>(null);
  const [starting, setStarting] = useState(false);
  const [bin, setBin] = useState<readonly BinItem[]>([]);
  const [backups, setBackups] = useState(false);
  const [removing, setRemoving] = useState<ProjectListItem | null>(null);
  const file = useRef<HTMLInputElement>(null);
  const navigate = useNavigate();
  const reload = useCallback(() => {
    api.list().then(setProjects, (reason: unknown) => setProblem(why(reason)));
    api.bin().then(setBin, () => setBin([]));
  }, []);
  useEffect(reload, [reload]);
  useEffect(() => {
    document.title = tell('app.name');
  }, []);

  const take = async (chosen: File | undefined): Promise<void> => {
    if (!chosen) return;
    setProblem(null);
    if (chosen.size > LARGEST_FILE) {
      setProblem(
        tell('home.tooLarge', { size: speechFor({ units: 'mm', fraction: 16 }).len(chosen.size / 1024 / 1024) }),
      );
      return;
    }
    try {
      const { id } = await api.import(await chosen.text());
      await navigate(`/build/${id}/layout`);
    } catch (reason) {
      setProblem(`${chosen.name}: ${why(reason)}`);
    }
  };

  return (
    <main className="home">
      <p className="soft">{tell('app.tagline')}</p>
      <h1>{tell('home.title')}</h1>
      {/* above what is fetched, so that nothing moves under the hand when that comes */}
      <div className="row wrap below">
        <Button variant="contained" onClick={() => setStarting(true)}>
          {tell('home.new')}
        </Button>
        <Button onClick={() => file.current?.click()}>{tell('home.import')}</Button>
        <Button variant="text" onClick={() => setBackups(true)}>
          {tell('bar.backups')}
        </Button>
        {projects && projects.length > 1 && (
          <Button variant="text" onClick={() => void navigate('/compare')}>
            {tell('vehicles.open')}
          </Button>
        )}
        <input
          ref={file}
          type="file"
          accept=".json,application/json"
          hidden
          aria-label={tell('home.import')}
          onChange={(event) => {
            void take(event.target.files?.[0]);
            event.target.value = '';
          }}
        />
      </div>
      {problem && <Problem>{problem}</Problem>}
      {projects?.length === 0 && <p className="empty">{tell('home.empty')}</p>}
      {projects && projects.length > 0 && (
        <ul className="home-list">
          {projects.map((project) => (
            <li key={project.id}>
              <Link to={`/build/${project.id}/layout`} aria-label={tell('home.open', { name: project.name })}>
                <SmallDrawing small={small.get(project.id)} />
                <span>
                  <strong>{project.name}</strong>
                  <br />
                  {project.model}
                  {project.model ? ' · ' : ''}
                  <span className="soft">{tell(`kind.${project.kind}`)}</span>
                </span>
                <span className="figures">{smallState(small.get(project.id))}</span>
                <span className="soft figures">
                  {tell('home.changed', { when: when.format(new Date(project.updatedAt)) })}
                </span>
              </Link>
              <Button
                variant="text"
                onClick={() => setRemoving(project)}
                aria-label={`${tell('home.remove')} ${project.name}`}
              >
                {tell('home.remove')}
              </Button>
            </li>
          ))}
        </ul>
      )}
      {projects && (
        <Suspense fallback={null}>
          <UnsentHere projects={projects} />
        </Suspense>
      )}
      {bin.length > 0 && (
        <section className="section stack below" aria-label={tell('home.bin')}>
          <h2>{tell('home.bin')}</h2>
          <ul className="ruled-list">
            {bin.map((item) => (
              <li key={item.id} className="row apart">
                <span>
                  {item.name}{' '}
                  <span className="soft small">{tell('home.binUntil', { day: day.format(new Date(item.until)) })}</span>
                </span>
                <Button
                  size="small"
                  aria-label={`${tell('home.bringBack')} ${item.name}`}
                  onClick={() => {
                    api.bringBack(item.id).then(reload, (reason: unknown) => setProblem(why(reason)));
                  }}
                >
                  {tell('home.bringBack')}
                </Button>
              </li>
            ))}
          </ul>
        </section>
      )}
      {backups && (
        <Dialog open onClose={() => setBackups(false)} fullWidth maxWidth="sm" aria-labelledby="backups-title">
          <DialogTitle id="backups-title">{tell('backups.title')}</DialogTitle>
          <DialogContent>
            <BackupsPanel />
          </DialogContent>
          <DialogActions>
            <Button onClick={() => setBackups(false)}>{tell('common.close')}</Button>
          </DialogActions>
        </Dialog>
      )}
      {starting && <NewBuildDialog projects={projects ?? []} onClose={() => setStarting(false)} />}
      {removing && (
        <ConfirmDialog
          text={tell('home.removeSure', { name: removing.name })}
          action={tell('home.remove')}
          onClose={() => setRemoving(null)}
          onConfirm={() => {
            api.remove(removing.id).then(reload, (reason: unknown) => setProblem(why(reason)));
            setRemoving(null);
          }}
        />
      )}
    </main>
  );
}
