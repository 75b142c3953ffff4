import Button from '@mui/material/Button';
import ToggleButton from '@mui/material/ToggleButton';
import TextField from '@mui/material/TextField';
import { memo, useState } from 'react';
import type { LayoutCase } from '@nestplank/core/derive';
import { Fold } from '../../kit/Fold.js';
import { useChange } from '../../kit/use-change.js';
import { act, askLayouts } from '../../state/session.js';
import type { Scene } from '../../state/scene.js';
import { look, useView } from '../../state/view.js';
import { useSpeech } from '../../words/use-speech.js';
import { partName } from '../build/names.js';
import { nextId } from '../measure/next-id.js';
import { useFigureRows } from './use-figure-rows.js';

/** So many purchases that change are named. */
const BUYS_NAMED = 8;

/** Layouts kept beside the one that stands: used, taken out, set beside each other by what they come to. */
export const Variants = memo(function Variants({ scene }: { readonly scene: Scene }) {
  const speech = useSpeech();
  const { t, said } = speech;
  const change = useChange();
  const traced = useView((view) => view.traced);
  const [name, setName] = useState('');
  const [cases, setCases] = useState<readonly LayoutCase[]>([]);
  const variants = scene.project.variants ?? [];
  const called = (id: string | null): string =>
    id === null ? t('variants.now') : (variants.find((variant) => variant.id === id)?.name ?? id);
  const unitCalled = (id: string | null): string =>
    scene.project.layout.units.find((unit) => unit.id === id)?.name ?? '';
  // what is cut stands in the layout as it is
  const partCalled = (id: string): string => {
    const part = scene.shape.parts.find((one) => one.id === id);
    return part ? `${unitCalled(part.unit)} ${partName(part, scene.shape.parts, speech)}`.trim() : id;
  };
  const keep = (): void => {
    const refused = act({ name: 'keepLayout', payload: { id: nextId('layout-', variants).id, name: name.trim() } });
    if (!refused) setName('');
  };
  const use = (id: string): void => {
    const before = nextId('layout-', variants).id;
    if (change({ name: 'useLayout', payload: { id, keep: { id: before, name: t('variants.was') } } })) {
      look({ unit: null, gap: null });
      setCases([]);
    }
  };
  const rows = useFigureRows(scene.book.currency);
  return (
    <Fold title={t('variants.title')} line={t('variants.count', { count: variants.length })}>
      {variants.length === 0 && <p className="small soft">{t('variants.none')}</p>}
      {variants.length > 0 && (
        <ul className="plain-list">
          {variants.map((variant) => (
            <li key={variant.id} className="row apart">
              <span>{variant.name}</span>
              <span className="chips">
                <ToggleButton
                  value={variant.id}
                  size="small"
                  selected={traced === variant.id}
                  aria-label={t('variants.trace', { name: variant.name })}
                  onChange={() => look({ traced: traced === variant.id ? null : variant.id })}
                >
                  {t('variants.traceShort')}
                </ToggleButton>
                <Button
                  size="small"
                  aria-label={t('variants.use', { name: variant.name })}
                  onClick={() => use(variant.id)}
                >
                  {t('variants.useShort')}
                </Button>
                <Button
                  size="small"
                  variant="text"
                  aria-label={`${t('common.remove')} ${variant.name}`}
                  onClick={() => change({ name: 'removeLayout', payload: { id: variant.id } })}
                >
                  {t('common.remove')}
                </Button>
              </span>
            </li>
          ))}
        </ul>
      )}
      <form
        className="fields entry-and-button"
        onSubmit={(event) => {
          event.preventDefault();
          keep();
        }}
      >
        <TextField label={t('variants.name')} value={name} onChange={(event) => setName(event.target.value)} />
        <Button type="submit" disabled={name.trim() === ''}>
          {t('variants.keep')}
        </Button>
      </form>
      {variants.length > 0 && (
        <div>
          <Button onClick={() => void askLayouts().then(setCases)}>{t('variants.compare')}</Button>
        </div>
      )}
      {cases.length > 0 && (
        <>
          <table className="plain figures small">
            <thead>
              <tr>
                <th />
                {cases.map(({ id }) => (
                  <th key={id ?? 'now'}>{called(id)}</th>
                ))}
              </tr>
            </thead>
            <tbody>
              {rows.map(([label, written]) => (
                <tr key={label}>
                  <th scope="row">{label}</th>
                  {cases.map((one) => (
                    <td key={one.id ?? 'now'}>{written(one.figures)}</td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
          {cases.map((one) => (
            <div key={one.id ?? 'now'}>
              {one.differences.length > 0 && (
                <p className="small">
                  {t('variants.differs', { name: called(one.id), what: one.differences.map(said).join('; ') })}
                </p>
              )}
              {one.touches !== null && one.touches.cut.length > 0 && (
                <p className="small needs">
                  {t('variants.touches', { name: called(one.id), what: one.touches.cut.map(partCalled).join(', ') })}
                </p>
              )}
              {one.touches !== null && one.touches.fittings.length > 0 && (
                <p className="small needs">
                  {t('variants.fittings', { name: called(one.id), what: one.touches.fittings.join(', ') })}
                </p>
              )}
              {one.touches !== null && one.touches.buys.length > 0 && (
                <p className="small soft">
                  {t(one.touches.buys.length > BUYS_NAMED ? 'variants.buysMore' : 'variants.buys', {
                    name: called(one.id),
                    what: one.touches.buys
                      .slice(0, BUYS_NAMED)
                      .map((buy) => t('variants.buy', { ...buy, size: said(buy.size) }))
                      .join('; '),
                    more: one.touches.buys.length - BUYS_NAMED,
                  })}
                </p>
              )}
              {one.touches !== null && one.touches.tasks.length > 0 && (
                <p className="small soft">
                  {t('variants.tasks', { name: called(one.id), count: one.touches.tasks.length })}
                </p>
              )}
            </div>
          ))}
        </>
      )}
    </Fold>
  );
});
