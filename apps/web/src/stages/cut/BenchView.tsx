import Button from '@mui/material/Button';
import { useEffect, useMemo, useRef, useState } from 'react';
import {
  fenceOrder,
  keepingFirst,
  secondsPerCut,
  settingStep,
  type FenceSetting,
  type MaterialPlan,
  type Step,
  sheetLetter,
} from '@nestplank/core/plan';
import type { Scene } from '../../state/scene.js';
import { useChange } from '../../kit/use-change.js';
import { useSpeech } from '../../words/use-speech.js';
import { useSetting } from './FenceStrip.js';

import { useSize } from '../../kit/use-size.js';
import { SheetDrawing } from './SheetDrawing.js';
import { SpoiledForm } from './SpoiledForm.js';

interface BenchViewProps {
  readonly plans: readonly MaterialPlan[];
  readonly start: string;
  readonly scene: Scene;
  readonly onClose: () => void;
}
interface BenchCut {
  readonly fence: FenceSetting;
  readonly step: Step;
  readonly index: number;
}

/** A pause longer than this is no time spent on a cut, s. */
const LONGEST_CUT_SECONDS = 1200;

/** One cut at a time, in numerals that are read at arm's length through dust. */
export function BenchView({ plans, start, scene, onClose }: BenchViewProps) {
  const { sawn, t, style } = useSpeech();
  const change = useChange();
  const setting = useSetting();
  const [material, setMaterial] = useState(start);
  const [skipped, setSkipped] = useState(0);
  const [wrong, setWrong] = useState(false);
  const [told, setTold] = useState<string | null>(null);
  const since = useRef<number | null>(null);
  const main = useRef<HTMLElement>(null);
  const drawing = useSize<HTMLElement>();
  const item = plans.find((candidate) => candidate.material.id === material) ?? plans[0];
  const cuts = useMemo(
    (): BenchCut[] =>
      item
        ? fenceOrder(item.sheets, settingStep(style)).flatMap((fence) =>
            fence.steps.map((step, index) => ({ fence, step, index })),
          )
        : [],
    [item, style],
  );
  const isDone = ({ step }: BenchCut): boolean =>
    item?.sheets.find((sheet) => sheet.id === step.sheet)?.done.includes(step.name) ?? false;
  const open = cuts.filter((cut) => !isDone(cut));
  const now = open[Math.min(skipped, Math.max(0, open.length - 1))];
  const number = now ? cuts.indexOf(now) + 1 : cuts.length;
  const finished = cuts.length - open.length;
  useEffect(() => main.current?.focus(), []);
  if (!item) return null;
  const sheet = now && item.sheets.find((candidate) => candidate.id === now.step.sheet);
  const letter = (id: string): string => sheetLetter(item.sheets.findIndex((candidate) => candidate.id === id));
  const pace = secondsPerCut(scene.project.cutSeconds);
  const minutes = Math.max(1, Math.round((open.length * pace.seconds) / 60));

  const keptPlan = (of: MaterialPlan) => scene.project.keptPlans.find((plan) => plan.material === of.material.id);
  const done = (): void => {
    if (!now) return;
    const clock = performance.now();
    const taken = since.current === null ? null : (clock - since.current) / 1000;
    since.current = clock;
    setTold(null);
    change(...keepingFirst(item, keptPlan(item), { sheet: now.step.sheet, parts: scene.derived.parts }), {
      name: 'tickCut',
      payload: {
        material: item.material.id,
        sheet: now.step.sheet,
        step: now.step.name,
        done: true,
        seconds: taken !== null && taken >= 1 && taken <= LONGEST_CUT_SECONDS ? Math.round(taken) : null,
      },
    });
    setSkipped((count) => Math.min(count, Math.max(0, open.length - 2)));
  };
  const back = (): void => {
    if (skipped > 0) {
      setSkipped(skipped - 1);
      return;
    }
    const last = cuts.filter(isDone).at(-1);
    if (last)
      change(...keepingFirst(item, keptPlan(item)), {
        name: 'tickCut',
        payload: {
          material: item.material.id,
          sheet: last.step.sheet,
          step: last.step.name,
          done: false,
          seconds: null,
        },
      });
  };
  /** Parts that have no other cut left than this one. */
  const frees =
    now && sheet
      ? sheet.placements.filter(
          (placed) =>
            !placed.spoiled &&
            now.step.frees(placed) &&
            cuts.every((cut) => cut === now || cut.step.sheet !== sheet.id || !cut.step.frees(placed) || isDone(cut)),
        )
      : [];
  return (
    <main
      className="bench"
      ref={main}
      tabIndex={-1}
      aria-label={t('bench.title')}
      onKeyDown={(event) => {
        if (wrong || event.target instanceof HTMLInputElement) return;
        if (event.target instanceof HTMLButtonElement && (event.key === 'Enter' || event.key === ' ')) return;
        const action = { Enter: done, ArrowLeft: back, Escape: onClose, ArrowRight: () => setSkipped(skipped + 1) }[
          event.key
        ];
        if (!action) return;
        event.preventDefault();
        event.stopPropagation();
        action();
      }}
    >
      <header className="bench-head row">
        <div className="chips one-row grow" role="group" aria-label={t('cut.materials')}>
          {plans.map((candidate) => (
            <button
              key={candidate.material.id}
              type="button"
              className="bench-material"
              aria-pressed={candidate === item}
              onClick={() => {
                setMaterial(candidate.material.id);
                setSkipped(0);
                since.current = null;
              }}
            >
              {candidate.material.name}
            </button>
          ))}
        </div>
        <span className="figures">{t('bench.of', { number, count: cuts.length })}</span>
        <Button onClick={onClose}>{t('bench.close')}</Button>
      </header>
      <div className="bench-body">
        {!now || !sheet ? (
          <p className="bench-all done">✓ {t('bench.all')}</p>
        ) : (
          <>
            <section className="bench-cut" aria-live="polite">
              <p className="bench-small">
                {now.index > 0 ? t('bench.same') : t('bench.set')} · {t(`cut.${now.step.kind}`)}
              </p>
              <p className="bench-numeral figures">{setting(now.step)}</p>
              {now.step.angle !== 0 && (
                <p className="bench-small">
                  {t('bench.angle', { angle: Math.round(Math.abs(now.step.angle) * 10) / 10 })}
                </p>
              )}
              <p className="bench-small">
                {item.job.kind === 'bar'
                  ? t('bench.from.bar')
                  : t(`bench.from.${now.step.kind}`, { part: now.step.part ?? '' })}
              </p>
              {now.step.cut && now.step.cut.edge > 0.05 && item.job.kind === 'sheet' && (
                <p className="soft">
                  {t(`bench.along.${now.step.cut.axis}`, { at: setting({ setting: now.step.cut.at }) })}
                </p>
              )}
              <p className="bench-sheet">
                {t(item.job.kind === 'bar' ? 'cut.barOf' : 'bench.sheet', { letter: letter(sheet.id) })}
              </p>
              {frees.length > 0 && (
                <p className="bench-small">
                  {t('bench.frees', {
                    parts: frees.map((p) => `${p.part} (${sawn(p.length)} × ${sawn(p.width)})`).join(', '),
                  })}
                </p>
              )}
              <p className="soft">
                {pace.learned < 3
                  ? t('bench.leftUsual', { minutes, seconds: pace.seconds })
                  : t('bench.left', { minutes, seconds: pace.seconds, learned: pace.learned })}
              </p>
            </section>
            <section className="bench-drawing" ref={drawing.ref}>
              <SheetDrawing
                item={item}
                sheet={sheet}
                scale={(drawing.width > 80 ? drawing.width - 4 : 560) / (sheet.length + 2 * sheet.trim)}
                labels
                bring={[now.step]}
                faded={(placed) => !now.step.frees(placed)}
                title={t('cut.sheetOf', { letter: letter(sheet.id) })}
              />
              <p className="soft small">{t('cut.caution')}</p>
            </section>
          </>
        )}
      </div>
      {told && (
        <p className="bench-told" role="status">
          {told}
        </p>
      )}
      {wrong ? (
        <SpoiledForm item={item} scene={scene} onTold={setTold} onClose={() => setWrong(false)} />
      ) : (
        <footer className="bench-foot">
          <button type="button" className="bench-button" onClick={back} disabled={finished === 0 && skipped === 0}>
            {t('bench.back')}
          </button>
          <button type="button" className="bench-button" onClick={() => setWrong(true)}>
            {t('bench.wrong')}
          </button>
          <button
            type="button"
            className="bench-button"
            onClick={() => setSkipped(skipped + 1)}
            disabled={skipped + 1 >= open.length}
          >
            {t('bench.next')}
          </button>
          <button type="button" className="bench-button main" onClick={done} disabled={!now}>
            {t('bench.done')}
          </button>
        </footer>
      )}
    </main>
  );
}
