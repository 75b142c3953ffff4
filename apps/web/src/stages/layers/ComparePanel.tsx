import Button from '@mui/material/Button';
import { useEffect, useState } from 'react';
import type { Comfort } from '@nestplank/core/document';
import type { BuildUpFigures } from '@nestplank/core/layers';
import { formatMoney, type Message } from '@nestplank/core/words';
import { act, askBuildUps, notify } from '../../state/session.js';
import type { Scene } from '../../state/scene.js';
import { MoneyField } from '../../kit/MoneyField.js';
import { TextEntry } from '../../kit/TextEntry.js';
import { useSpeech } from '../../words/use-speech.js';
import { nextId } from '../measure/next-id.js';

interface Column {
  readonly id: string | null;
  readonly name: string;
  readonly figures: BuildUpFigures | null;
}

type Row = [label: string, key: keyof BuildUpFigures, show: (value: number) => string];

const LESS_IS_BETTER = new Set<keyof BuildUpFigures>(['watts', 'dew', 'kg', 'money', 'hours', 'labour']);

function useColumns(scene: Scene, now: string): readonly Column[] {
  const [columns, setColumns] = useState<readonly Column[]>([]);
  const { buildUps, buildUpVariants, survey, settings } = scene.project;
  const { derived } = scene;
  useEffect(() => {
    let current = true;
    const wanted = [{ id: null, name: now }, ...buildUpVariants.map(({ id, name }) => ({ id, name }))];
    void Promise.all(wanted.map(async (column) => ({ ...column, figures: await askBuildUps(column.id) }))).then(
      (made) => {
        if (current) setColumns(made);
      },
    );
    return () => {
      current = false;
    };
    // the worker answers for the project as it was last derived
  }, [buildUps, buildUpVariants, survey, settings, derived, now]);
  return columns;
}

/** What was heard and felt, point by point of the build. */
function ComfortTable({ comfort }: { readonly comfort: readonly Comfort[] }) {
  const { t, said } = useSpeech();
  const put = (item: Comfort): Message | null => act({ name: 'putComfort', payload: { comfort: item } });
  const add = (): void => {
    const refused = put({
      id: nextId('c', comfort).id,
      when: new Date().toISOString(),
      after: t('comfort.first'),
      decibels: null,
      celsius: null,
      moisture: null,
    });
    if (refused) notify(said(refused), 'trouble');
  };
  const figure = (item: Comfort, key: 'decibels' | 'celsius' | 'moisture') => (
    <TextEntry
      hideLabel
      mayBeEmpty
      label={`${t(`comfort.${key}`)}: ${item.after}`}
      value={item[key] === null ? '' : String(item[key])}
      onTake={(text) => {
        const value = text === '' ? null : Number(text.replace(',', '.'));
        return value !== null && !Number.isFinite(value)
          ? { key: 'length.unreadable', params: { typed: text, at: text } }
          : put({ ...item, [key]: value });
      }}
    />
  );
  return (
    <section className="section stack" aria-label={t('comfort.title')}>
      <h2>{t('comfort.title')}</h2>
      {comfort.length > 0 && (
        <table className="plain">
          <thead>
            <tr>
              <th>{t('comfort.after')}</th>
              <th>{t('comfort.decibels')}</th>
              <th>{t('comfort.celsius')}</th>
              <th>{t('comfort.moisture')}</th>
            </tr>
          </thead>
          <tbody>
            {comfort.map((item) => (
              <tr key={item.id}>
                <td>
                  <TextEntry
                    hideLabel
                    label={`${t('comfort.after')}: ${item.after}`}
                    value={item.after}
                    onTake={(after) => put({ ...item, after })}
                  />
                </td>
                <td>{figure(item, 'decibels')}</td>
                <td>{figure(item, 'celsius')}</td>
                <td>{figure(item, 'moisture')}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <div>
        <Button size="small" onClick={add}>
          {t('comfort.add')}
        </Button>
      </div>
    </section>
  );
}

/** Kept sets of layers beside the present one: room, warmth, mass, money, hours, quiet. */
export function ComparePanel({ scene }: { readonly scene: Scene }) {
  const { t, said, len } = useSpeech();
  const columns = useColumns(scene, t('compare.now'));
  const { buildUpVariants, settings, comfort } = scene.project;
  const attempt = (refused: Message | null): void => {
    if (refused) notify(said(refused), 'trouble');
  };
  const keep = (): void => {
    const { id, number } = nextId('b', buildUpVariants);
    attempt(act({ name: 'keepBuildUps', payload: { id, name: t('compare.keepName', { number }) } }));
  };
  const money = (minor: number): string => formatMoney(Math.round(minor), scene.book.currency);
  const rows: readonly Row[] = [
    [t('compare.standing'), 'standing', (value) => len(value)],
    [t('compare.widthAtFloor'), 'widthAtFloor', (value) => len(value)],
    [t('compare.widthAtBed'), 'widthAtBed', (value) => len(value)],
    [t('compare.watts'), 'watts', (value) => String(Math.round(value))],
    [t('compare.dew'), 'dew', (value) => value.toFixed(1)],
    [t('compare.kg'), 'kg', (value) => value.toFixed(1)],
    [t('compare.money'), 'money', money],
    [t('compare.hours'), 'hours', (value) => value.toFixed(1)],
    ...(settings.hourValue > 0
      ? [[t('compare.labour', { rate: money(settings.hourValue) }), 'labour', money] satisfies Row]
      : []),
    [t('compare.deadened'), 'deadened', (value) => value.toFixed(1)],
  ];
  const best = (key: keyof BuildUpFigures): number | null => {
    const values = columns.flatMap(({ figures }) => figures?.[key] ?? []);
    if (values.length < 2 || Math.max(...values) - Math.min(...values) < 1e-6) return null;
    return LESS_IS_BETTER.has(key) ? Math.min(...values) : Math.max(...values);
  };
  return (
    <div className="stack gap-14">
      <div className="row wrap at-end">
        <Button onClick={keep}>{t('compare.keep')}</Button>
        <div className="narrow-field">
          <MoneyField
            label={`${t('compare.rate')}, ${scene.book.currency}`}
            showLabel
            minor={settings.hourValue}
            onTake={(hourValue) => attempt(act({ name: 'changeSettings', payload: { changes: { hourValue } } }))}
          />
        </div>
      </div>
      {buildUpVariants.length === 0 && <p className="soft small">{t('compare.none')}</p>}
      <div className="scrolls">
        <table className="plain compare">
          <thead>
            <tr>
              <th />
              {columns.map((column) => (
                <th key={column.id ?? 'now'} className="number">
                  {column.name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map(([label, key, show]) => {
              const top = best(key);
              return (
                <tr key={key}>
                  <td>{label}</td>
                  {columns.map(({ id, figures }) => {
                    const value = figures?.[key] ?? null;
                    return (
                      <td key={id ?? 'now'} className={`number ${value !== null && value === top ? 'done' : ''}`}>
                        {value === null ? '?' : `${value === top ? '✓ ' : ''}${show(value)}`}
                      </td>
                    );
                  })}
                </tr>
              );
            })}
          </tbody>
          {buildUpVariants.length > 0 && (
            <tfoot>
              <tr>
                <td />
                <td />
                {buildUpVariants.map((variant) => (
                  <td key={variant.id} className="number">
                    <Button
                      size="small"
                      onClick={() => attempt(act({ name: 'useBuildUps', payload: { id: variant.id } }))}
                      aria-label={`${t('compare.use')} ${variant.name}`}
                    >
                      {t('compare.use')}
                    </Button>
                    <Button
                      size="small"
                      variant="text"
                      onClick={() => attempt(act({ name: 'removeBuildUps', payload: { id: variant.id } }))}
                      aria-label={`${t('common.remove')} ${variant.name}`}
                    >
                      ✕
                    </Button>
                  </td>
                ))}
              </tr>
            </tfoot>
          )}
        </table>
      </div>
      <ComfortTable comfort={comfort} />
    </div>
  );
}
