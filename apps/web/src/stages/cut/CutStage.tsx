import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import { useState } from 'react';
import { formatMoney, type MaterialPlan } from '@nestplank/core';
import { useScene } from '../../state/scene.js';
import { useSpeech, type Speech } from '../../words/words.js';
import { SheetDrawing } from './SheetDrawing.js';
import { SheetPanel } from './SheetPanel.js';
import { useCutting, type Cutting } from './use-cutting.js';

/** How far a plan is from what cannot be undercut, in one line. */
function proofLine(
  { plan }: MaterialPlan,
  currency: string,
  { t }: Speech,
): { readonly text: string; readonly proved: boolean } {
  const money = (minor: number): string => formatMoney(minor, currency);
  if (plan.proved) return { text: t('cut.proved', { cost: money(plan.cost) }), proved: true };
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

function resultLine(result: Cutting['results'][string] | undefined, currency: string, { t }: Speech): string | null {
  if (!result) return null;
  return result.after < result.before
    ? t('cut.result', {
        cost: formatMoney(result.after, currency),
        saved: formatMoney(result.before - result.after, currency),
      })
    : t('cut.resultSame', { steps: result.steps });
}

/** Cut: parts on sheets, and how far the plan is from the bound. */
export default function CutStage() {
  const speech = useSpeech();
  const { t, said } = speech;
  const scene = useScene();
  const cutting = useCutting();
  const [chosen, setChosen] = useState<{ readonly material: string; readonly sheet: number } | null>(null);
  if (!scene) return <main className="stage" />;
  const { plans, problems } = scene.derived;
  const smallest = scene.project.settings.cutting.smallestOffcut;
  const shown = plans.map((item) =>
    cutting.running?.material === item.material.id ? { ...item, plan: cutting.running.plan } : item,
  );
  const widest = Math.max(...plans.flatMap((item) => item.material.stocks.map((stock) => stock.length)), 1);
  const open = shown.find((item) => item.material.id === chosen?.material) ?? shown[0];
  const sheetIndex = open ? Math.min(chosen?.sheet ?? 0, open.plan.sheets.length - 1) : 0;
  const trouble = problems.filter((problem) => problem.stage === 'cut');
  return (
    <main className="stage">
      <div className="board">
        {shown.length === 0 ? (
          <p className="empty">{t('cut.none')}</p>
        ) : (
          <>
            <div
              className="strip row apart wrap"
              style={{ borderTop: 0, borderBottom: 'var(--line) solid var(--ink)' }}
            >
              {cutting.running ? (
                <div className="row grow">
                  <Button variant="contained" onClick={cutting.cancel}>
                    {t('cut.cancel')}
                  </Button>
                  <span style={{ minWidth: 210 }} role="status">
                    {t('cut.searching', {
                      material:
                        (open && plans.find((p) => p.material.id === cutting.running?.material)?.material.name) || '',
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
              ) : (
                <Button variant="contained" onClick={() => cutting.start(plans, smallest)}>
                  {t('cut.cutAll')}
                </Button>
              )}
              <span className="small soft">{t('cut.caution')}</span>
            </div>
            {trouble.length > 0 && (
              <div className="stack" style={{ padding: '12px 18px 0' }}>
                {trouble.map((problem) => (
                  <p key={problem.place} className="problem" role="alert">
                    {said(problem.said)}
                  </p>
                ))}
              </div>
            )}
            {shown.map((item) => {
              const proof = proofLine(item, scene.book.currency, speech);
              const result = resultLine(cutting.results[item.material.id], scene.book.currency, speech);
              return (
                <section key={item.material.id} aria-label={item.material.name}>
                  <div className="proof">
                    <h2>
                      {item.material.name} ·{' '}
                      {item.plan.sheets.length === 1
                        ? t('cut.sheet.one')
                        : t('cut.sheets', { count: item.plan.sheets.length })}
                    </h2>
                    <span className={proof.proved ? 'done' : ''}>
                      {proof.proved ? '✓ ' : ''}
                      {proof.text}
                    </span>
                    <span className="soft small">{result ?? t(`cut.${item.state}`)}</span>
                  </div>
                  <div className="sheets">
                    {item.plan.sheets.map((sheet, i) => (
                      <button
                        key={i}
                        type="button"
                        className="sheet-tile"
                        aria-pressed={open?.material.id === item.material.id && sheetIndex === i}
                        onClick={() => setChosen({ material: item.material.id, sheet: i })}
                        aria-label={t('cut.sheetName', {
                          material: item.material.name,
                          number: i + 1,
                          parts: sheet.placements.length,
                        })}
                      >
                        <SheetDrawing
                          item={item}
                          sheet={sheet}
                          scale={(shown.length > 4 ? 168 : 204) / widest}
                          trim={scene.project.settings.cutting.trim}
                          labels={false}
                        />
                      </button>
                    ))}
                  </div>
                </section>
              );
            })}
          </>
        )}
      </div>
      <div className="side">
        {open && open.plan.sheets[sheetIndex] && <SheetPanel item={open} index={sheetIndex} scene={scene} />}
      </div>
    </main>
  );
}
