import { useMemo, useRef, useState, type KeyboardEvent } from 'react';
import { useLocation, useNavigate, useParams } from 'react-router';
import { progressOf } from '@nestplank/core/measure';
import { act, clearNotice, notify, redo, undo, useSession } from '../state/session.js';
import { look, useView } from '../state/view.js';
import { stageOf } from '../stages/stages.js';
import { useSpeech } from '../words/use-speech.js';
import { completions, understand, type Effect } from './understand.js';

const HISTORY = 'nest-plank.line';
function readHistory(): string[] {
  try {
    const list: unknown = JSON.parse(sessionStorage.getItem(HISTORY) ?? '[]');
    return Array.isArray(list) ? list.map(String) : [];
  } catch {
    return [];
  }
}

/** The one entry line at the foot of every stage. */
export function LineBar() {
  const speech = useSpeech();
  const { t } = speech;
  const [typed, setTyped] = useState('');
  const [past, setPast] = useState(readHistory);
  const [back, setBack] = useState(0);
  const [chosen, setChosen] = useState(-1);
  const [problem, setProblem] = useState<string | null>(null);
  const input = useRef<HTMLInputElement>(null);
  const project = useSession((s) => s.project);
  const derived = useSession((s) => s.derived);
  const book = useSession((s) => s.priceBook);
  const history = useSession((s) => s.history);
  const notice = useSession((s) => s.notice);
  const address = useView((view) => view.address);
  const stage = stageOf(useLocation().pathname);
  const navigate = useNavigate();
  const { id = '' } = useParams();

  const undoStep = history.undo.at(-1);
  const redoStep = history.redo.at(-1);
  const understood = useMemo(
    () =>
      project && book
        ? understand(
            typed,
            {
              project,
              derived,
              book,
              stage,
              address: address ?? progressOf(project.survey).next,
              undoName: undoStep ? t(`step.${undoStep}`) : null,
              redoName: redoStep ? t(`step.${redoStep}`) : null,
              now: new Date().toISOString(),
            },
            speech,
          )
        : null,
    [typed, project, derived, book, stage, address, undoStep, redoStep, speech, t],
  );
  const choices = useMemo(() => (project ? completions(typed, project) : []), [typed, project]);

  const doEffect = (effect: Effect): string | null => {
    if (effect.kind === 'operations') {
      const refused = act(...effect.operations);
      if (!refused && stage === 'measure') look({ address: null });
      return refused && speech.said(refused);
    }
    if (effect.kind === 'go') void navigate(`/build/${id}/${effect.stage}`);
    else if (effect.kind === 'slice') look({ sliceX: effect.x });
    else if (effect.kind === 'undo') undo();
    else redo();
    return null;
  };

  const enter = (): void => {
    if (!understood) return;
    if (!understood.effect) {
      setProblem(understood.trouble ? understood.text : null);
      if (!understood.trouble) notify(understood.text);
      return;
    }
    const refused = doEffect(understood.effect);
    setProblem(refused);
    if (refused) return;
    const next = [...past.filter((line) => line !== typed), typed].slice(-50);
    setPast(next);
    sessionStorage.setItem(HISTORY, JSON.stringify(next));
    setTyped('');
    setBack(0);
  };

  const recall = (by: number): void => {
    const at = Math.min(Math.max(back + by, 0), past.length);
    setBack(at);
    setTyped(at === 0 ? '' : (past[past.length - at] ?? ''));
  };

  const onKey = (event: KeyboardEvent): void => {
    if (event.key === 'Enter') {
      event.preventDefault();
      const choice = choices[chosen];
      if (choice !== undefined) {
        setTyped(`${choice} `);
        setChosen(-1);
      } else enter();
    } else if (event.key === 'Escape') {
      if (typed !== '') setTyped('');
      else input.current?.blur();
      setProblem(null);
      setChosen(-1);
    } else if (event.key === 'Tab' && !event.shiftKey && choices.length > 0) {
      event.preventDefault();
      setTyped(`${choices[Math.max(chosen, 0)] ?? typed} `);
      setChosen(-1);
    } else if (event.key === 'ArrowUp') {
      event.preventDefault();
      if (chosen > 0 || (chosen === -1 && choices.length > 0 && back === 0))
        setChosen(chosen === -1 ? choices.length - 1 : chosen - 1);
      else recall(1);
    } else if (event.key === 'ArrowDown') {
      event.preventDefault();
      if (choices.length > 0 && back === 0) setChosen(chosen + 1 >= choices.length ? -1 : chosen + 1);
      else recall(-1);
    }
  };

  const said = problem ?? understood?.text ?? '';
  const isTrouble = problem !== null || (understood?.trouble ?? false);
  return (
    <footer className="line">
      {notice && (
        <div className="notice" data-tone={notice.tone} role="status">
          <span>{notice.text}</span>
          <button type="button" onClick={clearNotice} className="tabs-close">
            {t('common.close')}
          </button>
        </div>
      )}
      <kbd className="line-space">space</kbd>
      <input
        ref={input}
        id="the-line"
        value={typed}
        placeholder={t('line.placeholder')}
        aria-label={t('line.label')}
        role="combobox"
        aria-expanded={choices.length > 0}
        aria-controls="line-choices"
        aria-autocomplete="list"
        aria-activedescendant={chosen >= 0 ? `choice-${chosen}` : undefined}
        autoComplete="off"
        spellCheck={false}
        onChange={(event) => {
          setTyped(event.target.value);
          setProblem(null);
          setBack(0);
          setChosen(-1);
        }}
        onKeyDown={onKey}
      />
      <ul
        id="line-choices"
        role="listbox"
        aria-label={t('line.label')}
        className={choices.length > 0 ? 'line-choices' : 'visually-hidden'}
      >
        {choices.map((choice, i) => (
          <li
            key={choice}
            id={`choice-${i}`}
            role="option"
            aria-selected={i === chosen}
            onMouseDown={(event) => {
              event.preventDefault();
              setTyped(`${choice} `);
              input.current?.focus();
            }}
          >
            {choice}
          </li>
        ))}
      </ul>
      <span className={`line-understood ${isTrouble ? 'needs' : ''}`} role="status" title={said}>
        {said}
      </span>
      <span className="row small soft keys-hint">
        <kbd>↵</kbd> {t('line.do')} <kbd>esc</kbd> {t('line.no')} <kbd>?</kbd> {t('bar.keys').toLowerCase()}
      </span>
    </footer>
  );
}
