import Button from '@mui/material/Button';
import type { MaterialPlan, Message, SawCut } from '@nestplank/core';
import { api } from '../../state/api.js';
import { act, useSession } from '../../state/session.js';
import type { Scene } from '../../state/scene.js';
import { LengthField } from '../../ui/LengthField.js';
import { useSpeech } from '../../words/words.js';
import { SheetDrawing } from './SheetDrawing.js';

/** Cuts in the order in which they can be made: whole sheet first, then what it fell into. */
export function inSawOrder(cuts: readonly SawCut[]): SawCut[] {
  return [...cuts].sort((a, b) => a.level - b.level || (a.axis === b.axis ? a.at - b.at : a.axis === 'rip' ? -1 : 1));
}

/** One sheet large enough to read, its cuts in order, and the saw's settings. */
export function SheetPanel({
  item,
  index,
  scene,
}: {
  readonly item: MaterialPlan;
  readonly index: number;
  readonly scene: Scene;
}) {
  const { t, len, style } = useSpeech();
  const id = useSession((s) => s.id);
  const sheet = item.plan.sheets[index];
  const stock = item.material.stocks.find((candidate) => candidate.id === sheet?.stock);
  if (!sheet || !stock) return null;
  const { cutting } = scene.project.settings;
  const filled = sheet.placements.reduce((sum, placed) => {
    const part = item.job.parts.find((candidate) => candidate.id === placed.part);
    return sum + (part?.length ?? 0) * (part?.width ?? 0);
  }, 0);
  const change = (changes: Partial<typeof cutting>): Message | null =>
    act({ name: 'changeCutting', payload: { changes } });
  const decimals = style.units === 'mm' ? 1 : 0;
  return (
    <>
      <section className="stack">
        <div className="row apart">
          <h2>
            {item.material.name} · {t('cut.sheet', { number: index + 1, count: item.plan.sheets.length })}
          </h2>
          <span className="soft small figures">
            {t('cut.fill', { percent: Math.round((100 * filled) / (stock.length * stock.width)) })}
          </span>
        </div>
        <SheetDrawing item={item} sheet={sheet} scale={334 / stock.length} trim={cutting.trim} labels />
        <p className="small soft figures">
          {len(stock.length)} × {len(stock.width)} {style.units} · {t('cut.grain')}
        </p>
        {sheet.offcuts.map((rest) => (
          <p key={`${rest.x}:${rest.y}`} className="small soft figures">
            {t('cut.offcut', { length: len(rest.length), width: len(rest.width) })}
          </p>
        ))}
      </section>
      <section className="section">
        <h2>{t('cut.cuts')}</h2>
        <p className="small soft">{t('cut.from')}</p>
        <ol style={{ margin: '6px 0 0', paddingLeft: 24, columns: 2 }}>
          {inSawOrder(sheet.cuts).map((cut, i) => (
            <li key={i} className="figures">
              {t('cut.cutAt', { axis: t(`cut.${cut.axis}`), at: len(cut.at, decimals) })}
            </li>
          ))}
        </ol>
      </section>
      <section className="section stack">
        <h2>{t('cut.settings')}</h2>
        <div className="fields" style={{ gridTemplateColumns: 'repeat(3, 1fr)' }}>
          <LengthField label={t('cut.kerf')} value={cutting.kerf} onTake={(kerf) => change({ kerf })} />
          <LengthField label={t('cut.trim')} value={cutting.trim} onTake={(trim) => change({ trim })} />
          <LengthField
            label={t('cut.smallestOffcut')}
            value={cutting.smallestOffcut}
            onTake={(smallestOffcut) => change({ smallestOffcut })}
          />
        </div>
        {id && (
          <div>
            <Button href={api.fileAddress(id, 'pdf')} download>
              {t('cut.diagram')}
            </Button>
          </div>
        )}
      </section>
    </>
  );
}
