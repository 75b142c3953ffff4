import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import { useEffect, useRef, useState } from 'react';
import type { CutPlan, PriceItem } from '@nestplank/core/document';
import { boardMass, type CutJob, type MaterialPlan } from '@nestplank/core/plan';
import { formatMoney } from '@nestplank/core/words';
import type { Scene } from '../../state/scene.js';
import { LengthField } from '../../kit/LengthField.js';
import { NumberField } from '../../kit/NumberField.js';
import { type Speech } from '../../words/words.js';
import { useSpeech } from '../../words/use-speech.js';
import { searchInWorker } from './use-cutting.js';

/** Time each case is searched for at most, seconds. */
const SECONDS = 2;

interface Case {
  readonly name: string;
  readonly job: CutJob;
  readonly material: PriceItem;
}
interface Outcome {
  readonly name: string;
  readonly plan: CutPlan;
  readonly job: CutJob;
  readonly mass: number | null;
}

function casesOf(item: MaterialPlan, scene: Scene, kerf: number, rise: number, { t, len }: Speech): Case[] {
  const { job, material } = item;
  const own = (name: string, changed: CutJob): Case => ({ name, job: changed, material });
  const others = scene.book.items.filter(
    (other) => other.group === 'sheet' && other.id !== material.id && other.stocks.length > 0,
  );
  const nearest = [...others].sort(
    (a, b) => Math.abs(a.thickness - material.thickness) - Math.abs(b.thickness - material.thickness),
  );
  const sheets = job.kind === 'sheet';
  return [
    own(t('cut.whatifNow'), job),
    ...(Math.abs(kerf - job.kerf) > 0.01 ? [own(t('cut.whatifKerf', { kerf: len(kerf, 1) }), { ...job, kerf })] : []),
    ...(job.stock.length > 1
      ? job.stock.map((stock) =>
          own(t('cut.whatifSize', { length: len(stock.length), width: len(stock.width ?? 0) }), {
            ...job,
            stock: [stock],
          }),
        )
      : []),
    ...(sheets && job.parts.some((part) => !part.mayTurn)
      ? [own(t('cut.whatifGrain'), { ...job, parts: job.parts.map((part) => ({ ...part, mayTurn: true })) })]
      : []),
    ...(sheets
      ? [
          own(job.method === 'free' ? t('cut.whatifStraight') : t('cut.whatifFree'), {
            ...job,
            method: job.method === 'free' ? 'guillotine' : 'free',
            parts: job.parts.map((part) => {
              const whole = scene.derived.parts.find((candidate) => candidate.id === part.id);
              return {
                ...part,
                outline:
                  job.method === 'free' ? undefined : whole?.outline.outer.map(([x, y]): [number, number] => [x, y]),
              };
            }),
          }),
        ]
      : []),
    ...(rise !== 0
      ? [
          own(t('cut.whatifPrices', { percent: rise }), {
            ...job,
            stock: job.stock.map((stock) => ({ ...stock, price: Math.round(stock.price * (1 + rise / 100)) })),
          }),
        ]
      : []),
    ...nearest.slice(0, sheets ? 2 : 0).map((other) => ({
      name: t('cut.whatifMaterial', { material: other.name }),
      material: other,
      job: { ...job, stock: other.stocks.map((stock) => ({ ...stock, offcut: false })) },
    })),
  ];
}

/** The same parts under other conditions, side by side. */
export function WhatIfPanel({ item, scene }: { readonly item: MaterialPlan; readonly scene: Scene }) {
  const speech = useSpeech();
  const { t, len } = speech;
  const [kerf, setKerf] = useState(item.job.kerf > 2.9 ? 1.8 : 3.2);
  const [rise, setRise] = useState(10);
  const [running, setRunning] = useState<{ readonly name: string; readonly share: number } | null>(null);
  const [outcomes, setOutcomes] = useState<readonly Outcome[]>([]);
  const stop = useRef<(() => void) | null>(null);
  useEffect(() => () => stop.current?.(), []);
  const run = async (): Promise<void> => {
    const cases = casesOf(item, scene, kerf, rise, speech);
    let stopped = false;
    setOutcomes([]);
    for (const [i, { name, job, material }] of cases.entries()) {
      if (stopped) break;
      setRunning({ name, share: i / cases.length });
      const search = searchInWorker(job, SECONDS, scene.project.settings.cutting.smallestOffcut, () => undefined);
      stop.current = () => {
        stopped = true;
        search.stop();
      };
      const found = await search.end;
      if (!found) continue;
      const mass = found.plan.sheets.reduce<number | null>((sum, sheet) => {
        const stock = job.stock.find((candidate) => candidate.id === sheet.stock);
        const own = stock && boardMass(material, stock.length, stock.width ?? 0);
        return sum === null || own === undefined || own === null ? null : sum + own;
      }, 0);
      setOutcomes((all) => [...all, { name, plan: found.plan, job, mass }]);
    }
    stop.current = null;
    setRunning(null);
  };
  const money = (minor: number): string => formatMoney(minor, scene.book.currency);
  return (
    <section className="stack">
      <h2>
        {t('cut.whatif')} · {item.material.name}
      </h2>
      <p className="small soft">{t('cut.whatifHint')}</p>
      <div className="fields two">
        <LengthField
          label={t('cut.whatifKerfField')}
          value={kerf}
          onTake={(mm) => {
            setKerf(mm);
            return null;
          }}
        />
        <NumberField
          label={t('cut.whatifPriceField')}
          value={rise}
          least={-90}
          most={500}
          onTake={(percent) => {
            setRise(percent);
            return null;
          }}
        />
      </div>
      {running ? (
        <div className="row">
          <Button onClick={() => stop.current?.()}>{t('cut.cancel')}</Button>
          <LinearProgress
            className="grow"
            variant="determinate"
            value={running.share * 100}
            aria-label={running.name}
          />
        </div>
      ) : (
        <div>
          <Button variant="contained" onClick={() => void run()}>
            {t('cut.whatifRun')}
          </Button>
        </div>
      )}
      {outcomes.length > 0 && (
        <table className="plain figures small">
          <thead>
            <tr>
              <th />
              <th>{t('cut.whatifSheets')}</th>
              <th>{t('cut.whatifCost')}</th>
              <th>{t('cut.whatifMass')}</th>
              <th>{t('cut.whatifOffcut')}</th>
            </tr>
          </thead>
          <tbody>
            {outcomes.map(({ name, plan, mass }) => {
              const largest = plan.sheets
                .flatMap((sheet) => sheet.offcuts)
                .sort((a, b) => b.length * b.width - a.length * a.width)[0];
              return (
                <tr key={name}>
                  <td>{name}</td>
                  <td>{plan.sheets.length}</td>
                  <td>
                    {plan.unplaced.length > 0 ? t('cut.whatifLeft', { count: plan.unplaced.length }) : money(plan.cost)}
                    {plan.proved ? ' ✓' : ''}
                  </td>
                  <td>{mass === null ? '–' : Math.round(mass)}</td>
                  <td>{largest ? `${len(largest.length)} × ${len(largest.width)}` : '–'}</td>
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
    </section>
  );
}
