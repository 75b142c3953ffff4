import { useEffect, useMemo, useState } from 'react';
import { Outlet, useLocation, useNavigate, useParams } from 'react-router';
import { LineBar } from '../line/LineBar.js';
import { act, closeProject, lookAt, openProject, redo, setSpeaker, undo, useSession } from '../state/session.js';
import { look, nextTheme, useView } from '../state/view.js';
import { STAGES, stageOf } from '../stages/stages.js';
import { Hatches } from '../kit/Hatches.js';
import { StageBoundary } from '../kit/StageBoundary.js';
import { tell } from '../words/words.js';
import { useSpeech } from '../words/use-speech.js';
import { CannotOpen } from './CannotOpen.js';
import { CannotWorkOut } from './CannotWorkOut.js';
import { Dialogs, type DialogName } from './Dialogs.js';
import { Tape } from './Tape.js';
import { useKeys } from './use-keys.js';

/** The next station before or behind the slice. */
function stepSlice(by: 1 | -1): void {
  const shell = useSession.getState().derived?.shell;
  if (!shell) return;
  const now = useView.getState().sliceX ?? shell.length / 2;
  const next = by > 0 ? shell.at.find((x) => x > now + 1) : shell.at.filter((x) => x < now - 1).at(-1);
  if (next !== undefined) look({ sliceX: next });
}

function switchUnits(): void {
  const units = useSession.getState().project?.settings.units;
  if (units) act({ name: 'changeSettings', payload: { changes: { units: units === 'mm' ? 'in' : 'mm' } } });
}

/** What stands round every stage: the tape above, the line below, keys and dialogs. */
export function Frame() {
  const { id = '' } = useParams();
  const stage = stageOf(useLocation().pathname);
  const navigate = useNavigate();
  const speech = useSpeech();
  const [dialog, setDialog] = useState<DialogName | null>(null);
  const failed = useSession((s) => s.failed);
  const fault = useSession((s) => s.fault);
  const name = useSession((s) => s.project?.name);
  useEffect(() => {
    look({
      sliceX: null,
      unit: null,
      part: null,
      group: null,
      together: [],
      address: null,
      measureTab: null,
      ceiling: false,
    });
    void openProject(id);
    return closeProject;
  }, [id]);
  useEffect(() => setSpeaker(speech.said), [speech]);
  useEffect(() => lookAt(stage), [stage]);
  useEffect(() => {
    document.title = name ? `${name} · ${tell(`stage.${stage}`)} · ${tell('app.name')}` : tell('app.name');
  }, [name, stage]);
  const keys = useMemo(
    () => ({
      ...Object.fromEntries(STAGES.map((to, i) => [String(i + 1), () => void navigate(`/build/${id}/${to}`)])),
      ' ': () => document.getElementById('the-line')?.focus(),
      u: undo,
      U: redo,
      i: switchUnits,
      t: nextTheme,
      c: () => look((view) => ({ ceiling: !view.ceiling })),
      x: () => look((view) => ({ exaggerate: !view.exaggerate })),
      '[': () => stepSlice(-1),
      ']': () => stepSlice(1),
      '?': () => setDialog('keys'),
      Escape: () => look({ unit: null }),
    }),
    [id, navigate],
  );
  useKeys(keys);
  if (failed) return <CannotOpen id={id} failure={failed} />;
  return (
    <div className="frame">
      <Hatches />
      <Tape onDialog={setDialog} onUnits={switchUnits} />
      <StageBoundary stage={stage}>{fault === null ? <Outlet /> : <CannotWorkOut why={fault} />}</StageBoundary>
      <LineBar />
      {dialog && <Dialogs name={dialog} stage={stage} onClose={() => setDialog(null)} />}
    </div>
  );
}
