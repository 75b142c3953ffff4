import Button from '@mui/material/Button';
import ToggleButton from '@mui/material/ToggleButton';
import { memo, useEffect, useMemo } from 'react';
import type { Mode } from '@nestplank/core/document';
import { useChange } from '../../kit/use-change.js';
import { act } from '../../state/session.js';
import type { Scene } from '../../state/scene.js';
import { look, useView } from '../../state/view.js';
import { useSpeech } from '../../words/use-speech.js';
import { motionsIn, movedParts, stepsOf } from './modes.js';
import { SmallPlan } from './SmallPlan.js';

const HIGH = 44;

const USES = ['night', 'day', 'meal', 'drive'] as const;
const SHARES = [
  [0, 'mode.shut'],
  [0.5, 'mode.half'],
  [1, 'mode.open'],
] as const;

/** Of the ways something can be held, the one that a share of its range is nearest to. */
const nearest = (share: number, all: readonly { readonly share: number }[]): number =>
  all.reduce((best, { share: own }) => (Math.abs(own - share) < Math.abs(best - share) ? own : best), 0);

/** How the parts of the chosen unit stand in the mode that is shown. */
function UnitStates({ scene, mode, unit }: { readonly scene: Scene; readonly mode: Mode; readonly unit: string }) {
  const { t, said } = useSpeech();
  const set = (of: string, share: number): void => {
    const states = Object.fromEntries(Object.entries(mode.states).filter(([name]) => name !== of));
    act({ name: 'putMode', payload: { mode: { ...mode, states: share > 0 ? { ...states, [of]: share } : states } } });
  };
  return (
    <ul className="plain-list small states" aria-label={t('mode.opened', { mode: mode.name })}>
      {motionsIn(scene, unit).map((motion) => (
        <li key={motion.of} className="row gap-6">
          <span>{said(motion.name)}</span>
          <span className="chips" role="group" aria-label={said(motion.name)}>
            {(motion.stops
              ? [
                  { share: 0, text: t('mode.shut') },
                  ...motion.stops.map(({ share, name }) => ({ share, text: said(name) })),
                ]
              : SHARES.filter(([share]) => share !== 0.5 || motion.kind !== 'lift-off').map(([share, word]) => ({
                  share,
                  text: t(word),
                }))
            ).map(({ share, text }, _i, all) => (
              <ToggleButton
                key={share}
                value={share}
                size="small"
                selected={nearest(mode.states[motion.of] ?? 0, all) === share}
                onChange={() => set(motion.of, share)}
              >
                {text}
              </ToggleButton>
            ))}
          </span>
        </li>
      ))}
    </ul>
  );
}

/** What is done to come from one mode to the shown one, move by move. */
function Steps({ scene, from, to }: { readonly scene: Scene; readonly from: Mode; readonly to: Mode }) {
  const { t, said } = useSpeech();
  const steps = useMemo(() => stepsOf(scene, from, to), [scene, from, to]);
  return (
    <p className="small">
      <strong>{t('mode.steps', { from: from.name, to: to.name })}:</strong>{' '}
      {steps.length === 0
        ? t('mode.still')
        : steps.map((step, i) => (
            <span key={step.motion} className={step.meets === null ? undefined : 'needs'}>
              {i + 1} {t('mode.step', { name: said(step.name), seconds: step.seconds })}
              {step.hands !== 1 && `, ${t(step.hands === 2 ? 'mode.two' : 'mode.weight')}`}
              {step.meets !== null && ` (${t('mode.meets', { what: step.meets })})`}
              {i < steps.length - 1 ? ' · ' : ''}
            </span>
          ))}
      {steps.length > 1 && ` · ${t('mode.whole', { seconds: steps.reduce((sum, { seconds }) => sum + seconds, 0) })}`}
    </p>
  );
}

/** Keys that show a mode while they are held, in the order of the modes: beside each other, and none that means something else. */
const KEYS = ['a', 'd', 'f', 'g', 'h', 'j', 'k', 'l'] as const;
const typing = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable ||
    target.closest('input, textarea, select, [role="combobox"], [role="dialog"], [role="menu"], [role="listbox"]') !==
      null);

/** While a mode's key is held it is shown; let go, what was shown before is shown again. */
function useHeldKeys(modes: readonly Mode[]): void {
  useEffect(() => {
    let held: { readonly key: string; readonly before: string | null } | null = null;
    const down = (event: KeyboardEvent): void => {
      const at = KEYS.findIndex((key) => key === event.key);
      const mode = modes[at];
      if (
        !mode ||
        held ||
        event.defaultPrevented ||
        event.repeat ||
        event.ctrlKey ||
        event.metaKey ||
        event.altKey ||
        typing(event.target)
      )
        return;
      event.preventDefault();
      held = { key: event.key, before: useView.getState().mode };
      look({ mode: mode.id });
    };
    const letGo = (): void => {
      if (!held) return;
      look({ mode: held.before });
      held = null;
    };
    const up = (event: KeyboardEvent): void => {
      if (event.key === held?.key) letGo();
    };
    window.addEventListener('keydown', down);
    window.addEventListener('keyup', up);
    window.addEventListener('blur', letGo);
    return () => {
      window.removeEventListener('keydown', down);
      window.removeEventListener('keyup', up);
      window.removeEventListener('blur', letGo);
      letGo();
    };
  }, [modes]);
}
const NO_MODES: readonly Mode[] = [];

/** The modes as a row of small live plans; the one that is pressed is drawn on the fold-out, with what moves into it. */
export const ModesRow = memo(function ModesRow({ scene }: { readonly scene: Scene }) {
  const { t } = useSpeech();
  const change = useChange();
  const shown = useView((view) => view.mode);
  const modes = scene.project.layout.modes ?? NO_MODES;
  useHeldKeys(modes);
  const { room } = scene;
  if (!room) return null;
  const mode = modes.find(({ id }) => id === shown) ?? null;
  const start = (): void => {
    act(
      ...USES.map((use) => ({
        name: 'putMode' as const,
        payload: { mode: { id: use, name: t(`mode.${use}`), use, states: {} } },
      })),
    );
  };
  const add = (): void => {
    let number = 1;
    while (modes.some(({ id }) => id === `mode-${number}`)) number += 1;
    const made: Mode = {
      id: `mode-${number}`,
      name: `${t('mode.own')} ${number}`,
      use: 'own',
      states: mode?.states ?? {},
    };
    if (change({ name: 'putMode', payload: { mode: made } })) look({ mode: made.id });
  };
  if (modes.length === 0)
    return (
      <div className="row gap-6 modes">
        <Button size="small" variant={scene.project.layout.units.length > 0 ? 'outlined' : 'text'} onClick={start}>
          {t('mode.start')}
        </Button>
        <span className="small soft">{t('mode.none')}</span>
      </div>
    );
  return (
    <div className="modes">
      <div className="row modes-row" role="group" aria-label={t('mode.title')}>
        {modes.map((own, i) => (
          <button
            key={own.id}
            type="button"
            className="mode"
            aria-pressed={own.id === shown}
            onClick={() => look({ mode: own.id === shown ? null : own.id })}
          >
            <span className="small strong">
              {own.name}
              {KEYS[i] !== undefined && (
                <kbd className="mode-key" aria-hidden="true">
                  {KEYS[i]}
                </kbd>
              )}
            </span>
            <SmallPlan
              units={scene.project.layout.units}
              room={room}
              high={HIGH}
              moved={movedParts(scene, own.states)}
            />
          </button>
        ))}
        <Button size="small" variant="text" onClick={add}>
          {t('mode.add')}
        </Button>
      </div>
    </div>
  );
});

/** The mode that is shown: what moves into it, what it leaves free, and how the parts of the chosen unit stand in it. */
export const ModeTold = memo(function ModeTold({ scene }: { readonly scene: Scene }) {
  const { t, len } = useSpeech();
  const change = useChange();
  const shown = useView((view) => view.mode);
  const unit = useView((view) => view.unit);
  const modes = scene.project.layout.modes ?? [];
  const mode = modes.find(({ id }) => id === shown) ?? null;
  if (!mode) return null;
  const before = modes[(modes.indexOf(mode) - 1 + modes.length) % modes.length] ?? null;
  const figures = scene.derived.modes.find((own) => own.mode.id === mode.id) ?? null;
  return (
    <section className="section stack gap-4" aria-label={mode.name}>
      <h2>{mode.name}</h2>

      {before && before !== mode && <Steps scene={scene} from={before} to={mode} />}
      <p className="small soft figures">
        {figures && t('mode.show', { name: mode.name, floor: figures.floor.toFixed(1) })}
        {figures && ` · ${t('mode.upright', { long: len(figures.standing) })}`}
        {figures?.way !== null && figures && ` · ${t('mode.way', { way: len(figures.way ?? 0) })}`}
        {figures &&
          ` · ${
            figures.with.length === 0
              ? t('mode.alone')
              : t('mode.with', {
                  names: figures.with.map((id) => modes.find((other) => other.id === id)?.name ?? id).join(', '),
                })
          }`}{' '}
        <Button
          size="small"
          variant="text"
          onClick={() => {
            if (change({ name: 'removeMode', payload: { id: mode.id } })) look({ mode: null });
          }}
        >
          {t('mode.remove', { name: mode.name })}
        </Button>
      </p>
      {unit !== null && <UnitStates scene={scene} mode={mode} unit={unit} />}
      {unit === null && Object.keys(mode.states).length === 0 && (
        <p className="small soft">{t('mode.nothing', { mode: mode.name })}</p>
      )}
    </section>
  );
});
