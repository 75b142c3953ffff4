import './cut.css';
import { Problem } from '../../kit/Problem.js';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import ToggleButton from '@mui/material/ToggleButton';
import { useMemo, useState } from 'react';
import { fenceOrder, settingStep, type MaterialPlan, sheetLetter } from '@nestplank/core/plan';
import { formatMoney } from '@nestplank/core/words';
import { useKeys } from '../../frame/use-keys.js';
import { useScene } from '../../state/scene.js';
import { TabStrip } from '../../kit/TabStrip.js';
import { type Speech } from '../../words/words.js';
import { useSpeech } from '../../words/use-speech.js';
import { BenchView } from './BenchView.js';
import { FenceStrip } from './FenceStrip.js';

import { OffcutPanel } from './OffcutPanel.js';
import { PrintPanel } from './PrintPanel.js';
import { SawPanel } from './SawPanel.js';
import { SheetDrawing } from './SheetDrawing.js';
import { SheetPanel } from './SheetPanel.js';
import { useCutting, type Cutting } from './use-cutting.js';
import { WhatIfPanel } from './WhatIfPanel.js';

const TABS = ['sheet', 'saw', 'offcuts', 'whatif', 'print'] as const;

/** Why fewer sheets cannot do: there is not area enough, or too few parts go beside each other. */
function proofWhy({ plan, job, sheets }: MaterialPlan, { t }: Speech): string {
  const room = (size: { readonly length: number; readonly width: number }): number =>
    (size.length + job.kerf) * (size.width + job.kerf);
  const parts = plan.sheets
    .flatMap((sheet) => sheet.placements)
    .reduce((sum, placed) => {
      const part = job.parts.find((candidate) => candidate.id === placed.part);
      return sum + room({ length: part?.length ?? 0, width: part?.width ?? 0 });
    }, 0);
  const share = Math.round(
    (100 * parts) /
      Math.max(
        1,
        sheets.reduce((sum, sheet) => sum + room(sheet), 0),
      ),
  );
  const byArea = Math.ceil(parts / Math.max(1, ...sheets.map(room))) >= sheets.length;
  return t(job.kind === 'bar' ? 'cut.provedBars' : byArea ? 'cut.provedArea' : 'cut.provedShape', {
    count: sheets.length - 1,
    share,
  });
}

/** How far a plan is from what cannot be undercut, in one line. */
function proofLine(
  item: MaterialPlan,
  currency: string,
  speech: Speech,
): { readonly text: string; readonly proved: boolean } {
  const { plan } = item;
  const { t } = speech;
  const money = (minor: number): string => formatMoney(minor, currency);
  if (plan.proved)
    return {
      text: `${t('cut.proved', { cost: money(plan.cost) })} ${
        item.remaining.fixed.length > 0 ? t('cut.provedBegun') : item.sheets.length > 1 ? proofWhy(item, speech) : ''
      }`,
      proved: true,
    };
  if (plan.bound === 0) return { text: t('cut.noBound', { cost: money(plan.cost) }), proved: false };
  return {
    text: t('cut.gap', {
      cost: money(plan.cost),
      bound: money(plan.bound),
      percent: Math.ceil(((plan.cost - plan.bound) / plan.cost) * 100),
    }),
    proved: false,
  };
}

function stateLine(
  item: MaterialPlan,
  result: Cutting['results'][string] | undefined,
  currency: string,
  { t }: Speech,
): string {
  if (item.state === 'mended') return t('cut.mended', { count: item.anew.length });
  if (!result) return t(`cut.${item.state}`);
  return result.after < result.before
    ? t('cut.result', {
        cost: formatMoney(result.after, currency),
        saved: formatMoney(result.before - result.after, currency),
      })
    : t('cut.resultSame', { steps: result.steps });
}

/** Cut: the work told by fence settings, the sheets they touch, and how far the plan is from the bound. */
export default function CutStage() {
  const speech = useSpeech();
  const { t, said, len, style } = speech;
  const scene = useScene();
  const cutting = useCutting();
  const [material, setMaterial] = useState<string | null>(null);
  const [sheet, setSheet] = useState<string | null>(null);
  const [fence, setFence] = useState<number | null>(null);
  const [tab, setTab] = useState<(typeof TABS)[number]>('sheet');
  const [bench, setBench] = useState(false);
  const plans = scene?.derived.plans ?? [];
  const item = plans.find((candidate) => candidate.material.id === material) ?? plans[0];
  const order = useMemo(() => (item ? fenceOrder(item.sheets, settingStep(style)) : []), [item, style]);
  const keys = useMemo(() => ({ b: () => setBench(true) }), []);
  useKeys(keys);
  if (!scene) return <main className="stage" />;
  const smallest = scene.project.settings.cutting.smallestOffcut;
  const trouble = scene.derived.problems.filter((problem) => problem.stage === 'cut');
  if (!item)
    return (
      <main className="stage wide">
        <p className="empty">{t('cut.none')}</p>
      </main>
    );
  const proof = proofLine(item, scene.book.currency, speech);
  const isDone = (id: string, name: string): boolean =>
    item.sheets.find((candidate) => candidate.id === id)?.done.includes(name) ?? false;
  const firstOpen = order.findIndex((setting) => setting.steps.some((step) => !isDone(step.sheet, step.name)));
  const openFence = Math.min(fence ?? Math.max(0, firstOpen), order.length - 1);
  const steps = order[openFence]?.steps ?? [];
  const chosen = item.sheets.find((candidate) => candidate.id === sheet) ?? item.sheets[0];
  const widest = Math.max(...item.sheets.map((candidate) => candidate.length), 1);
  const bar = item.job.kind === 'bar';
  const trim = bar ? 0 : scene.project.settings.cutting.trim;
  if (bench) return <BenchView plans={plans} start={item.material.id} scene={scene} onClose={() => setBench(false)} />;
  return (
    <main className="stage">
      <div className="board">
        <div className="strip row head">
          <div className="chips one-row grow" role="group" aria-label={t('cut.materials')}>
            {plans.map((candidate) => (
              <ToggleButton
                key={candidate.material.id}
                value={candidate.material.id}
                selected={candidate === item}
                onChange={() => {
                  setMaterial(candidate.material.id);
                  setSheet(null);
                  setFence(null);
                }}
              >
                {candidate.material.name} · {candidate.sheets.length}
                {candidate.plan.proved ? ' ✓' : ''}
              </ToggleButton>
            ))}
          </div>
          {cutting.running ? (
            <Button onClick={cutting.cancel}>{t('cut.cancel')}</Button>
          ) : (
            <Button
              onClick={() =>
                cutting.start(
                  plans.map((plan) => plan.material.id),
                  smallest,
                )
              }
            >
              {t('cut.cutAll')}
            </Button>
          )}
          <Button variant="contained" onClick={() => setBench(true)}>
            {t('cut.bench')}
          </Button>
        </div>
        {cutting.running && (
          <div className="row inset">
            <span className="progress-word" role="status">
              {t('cut.searching', {
                material: plans.find((p) => p.material.id === cutting.running?.material)?.material.name ?? '',
                step: cutting.running.step,
              })}
            </span>
            <LinearProgress
              variant="determinate"
              value={cutting.running.share * 100}
              className="grow"
              aria-label={t('cut.cutAll')}
            />
          </div>
        )}
        {trouble.length > 0 && (
          <div className="stack inset">
            {trouble.map((problem) => (
              <Problem key={`${problem.place}:${problem.said.key}`}>{said(problem.said)}</Problem>
            ))}
          </div>
        )}
        <div className="proof">
          <h2>
            {item.material.name} · {t(bar ? 'cut.bars' : 'cut.sheets', { count: item.sheets.length })}
          </h2>
          <span className={proof.proved ? 'done' : ''}>
            {proof.proved ? '✓ ' : ''}
            {proof.text}
          </span>
          <span className="soft small">
            {stateLine(item, cutting.results[item.material.id], scene.book.currency, speech)}
          </span>
        </div>
        <p className="small soft inset">
          {order.length === 0
            ? t('cut.noCuts')
            : `${trim > 0 ? t('cut.trimFirst', { trim: len(trim) }) : ''} ${t('cut.caution')}`}
        </p>
        {order.length > 0 && (
          <FenceStrip key={item.material.id} item={item} order={order} open={openFence} onOpen={setFence} />
        )}
        <div className={bar ? 'sheets bars' : 'sheets'}>
          {item.sheets.map((candidate, i) => (
            <button
              key={candidate.id}
              type="button"
              className={steps.some((step) => step.sheet === candidate.id) ? 'sheet-tile touched' : 'sheet-tile'}
              aria-pressed={chosen === candidate}
              onClick={() => {
                setSheet(candidate.id);
                setTab('sheet');
              }}
              aria-label={t(bar ? 'cut.barName' : 'cut.sheetName', {
                material: item.material.name,
                number: sheetLetter(i),
                parts: candidate.placements.length,
              })}
            >
              <span className="row apart small">
                <strong>{sheetLetter(i)}</strong>
                <span className={item.anew.includes(candidate.id) ? 'needs' : 'soft'}>
                  {candidate.begun ? t('cut.begun') : item.anew.includes(candidate.id) ? t('cut.anew') : ''}
                </span>
              </span>
              <SheetDrawing
                item={item}
                sheet={candidate}
                scale={(bar ? 760 : item.sheets.length > 6 ? 178 : 262) / widest}
                labels={bar || item.sheets.length <= 6}
                bring={steps.filter((step) => step.sheet === candidate.id)}
                title={t(bar ? 'cut.barOf' : 'cut.sheetOf', { letter: sheetLetter(i) })}
              />
            </button>
          ))}
        </div>
      </div>
      <div className="side">
        <TabStrip label={t('cut.tabs')} tabs={TABS} open={tab} prefix="cut.tab." panel="cut-panel" onOpen={setTab} />
        <div id="cut-panel" role="tabpanel" aria-labelledby={`cut-panel-${tab}`} className="stack">
          {tab === 'sheet' && chosen && <SheetPanel item={item} sheet={chosen} scene={scene} onSheet={setSheet} />}
          {tab === 'saw' && <SawPanel scene={scene} />}
          {tab === 'offcuts' && <OffcutPanel item={item} scene={scene} />}
          {tab === 'whatif' && <WhatIfPanel key={item.key} item={item} scene={scene} />}
          {tab === 'print' && <PrintPanel scene={scene} />}
        </div>
      </div>
    </main>
  );
}
