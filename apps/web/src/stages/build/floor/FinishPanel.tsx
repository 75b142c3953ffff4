import { useMemo } from 'react';
import type { FloorChoice } from '@nestplank/core/document';
import { finishWays, rowLengths } from '@nestplank/core/lining';
import { materialOf } from '@nestplank/core/materials';
import { formatMoney, type Message } from '@nestplank/core/words';
import type { Scene } from '../../../state/scene.js';
import { act, useSession } from '../../../state/session.js';
import { dayName } from '../../../frame/tape-figures.js';
import { TemplateButton } from '../../../kit/TemplateButton.js';
import { LengthField } from '../../../kit/LengthField.js';
import { NumberField } from '../../../kit/NumberField.js';
import { PickField } from '../../../kit/PickField.js';
import { useSpeech } from '../../../words/use-speech.js';

/** The time of day of an hour counted from midnight of the first day. */
const clockOf = (hour: number): string =>
  `${Math.floor(hour % 24)}:${String(Math.round((hour % 1) * 60)).padStart(2, '0')}`;

const change = (changes: Partial<FloorChoice>): Message | null => act({ name: 'changeFloor', payload: { changes } });

function Where({ label, scene }: { readonly label: string; readonly scene: Scene }) {
  const { t } = useSpeech();
  return (
    <PickField
      label={label}
      value={scene.project.floor.finish}
      choices={(['everywhere', 'seen'] as const).map((value) => ({ value, text: t(`floor.finish.${value}`) }))}
      onPick={(finish) => change({ finish })}
    />
  );
}

/** What is laid: planks, tiles or lanes off a roll, and the pieces that are left for last. */
function Laid({ scene }: { readonly scene: Scene }) {
  const { t, len } = useSpeech();
  const id = useSession((s) => s.id);
  const { finish } = scene.shape.floor;
  const choice = scene.project.floor;
  if (!finish) return null;
  return (
    <section className="section stack">
      <h2>{t('floor.finish')}</h2>
      <p>{materialOf(scene.book, finish.material)?.name ?? finish.material}</p>
      <p className="small figures">
        {t(`floor.finishAre.${finish.laid}`, {
          rows: finish.rows.length,
          planks: finish.planks,
          metres: finish.metres.toFixed(1),
          seams: finish.seams.toFixed(1),
        })}{' '}
        {t('floor.finishAreas', { seen: finish.seen.toFixed(1), hidden: finish.hidden.toFixed(1) })}
      </p>
      {finish.laid !== 'roll' && finish.rows.length > 0 && (
        <details>
          <summary>{t('floor.rowsTable')}</summary>
          <table className="plain figures small">
            <thead>
              <tr>
                <th>{t('floor.rowsTable.row')}</th>
                <th>{t('floor.rowsTable.width')}</th>
                <th>{t('floor.rowsTable.pieces')}</th>
              </tr>
            </thead>
            <tbody>
              {rowLengths(finish).map(({ row, width, pieces }) => (
                <tr key={row}>
                  <td>{row}</td>
                  <td>{len(width)}</td>
                  <td>{pieces.map(({ length, offcut }) => `${len(length)}${offcut ? '°' : ''}`).join(' · ')}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="small soft">{t('floor.rowsTable.hint')}</p>
        </details>
      )}
      {finish.short > 0 && (
        <p className="small needs">{t(`floor.finishShort.${finish.laid}`, { count: finish.short })}</p>
      )}
      {!finish.legal && finish.short === 0 && <p className="small needs">{t('floor.finishThin')}</p>}
      <Where label={t('floor.finishWhere')} scene={scene} />
      {finish.laid === 'tiles' && (
        <div className="fields two">
          <PickField
            label={t('floor.tiles')}
            value={choice.tiles}
            choices={(['half', 'grid'] as const).map((value) => ({ value, text: t(`floor.tiles.${value}`) }))}
            onPick={(tiles) => change({ tiles })}
          />
          <LengthField label={t('floor.joint')} value={choice.joint} onTake={(joint) => change({ joint })} />
        </div>
      )}
      {finish.awkward.length > 0 && (
        <>
          <p className="small">{t('floor.awkward', { count: finish.awkward.length })}</p>
          <ul className="plain-list small figures">
            {finish.awkward.map((part) => {
              const xs = part.outline.outer.map(([x]) => x);
              const ys = part.outline.outer.map(([, y]) => y);
              return (
                <li key={part.id} className="row apart">
                  <span>
                    {part.id} · {len(Math.max(...xs))} × {len(Math.max(...ys))}
                  </span>
                  {id && (
                    <TemplateButton
                      project={id}
                      part={part}
                      paper="a4"
                      label={t('floor.awkwardTemplate', { part: part.id })}
                    >
                      {t('floor.template')}
                    </TemplateButton>
                  )}
                </li>
              );
            })}
          </ul>
        </>
      )}
    </section>
  );
}

/** A floor that is left bare: whether it is coated, with what, when each coat comes and where one ends. */
function Coated({ scene }: { readonly scene: Scene }) {
  const { t, len, said } = useSpeech();
  const { coats, finish } = scene.shape.floor;
  // when each is laid is told by the order of work, and nowhere else
  const planned = scene.derived.schedule.tasks.filter(({ task }) => task.id.startsWith('floor-coat-'));
  const choice = scene.project.floor;
  const paints = scene.book.items.filter((item) => item.recoat !== null);
  if (finish || paints.length === 0) return null;
  return (
    <section className="section stack">
      <h2>{t('floor.coats')}</h2>
      <p className="small soft">{t('floor.coatsHint')}</p>
      <div className="fields two">
        <PickField
          label={t('floor.coat')}
          value={choice.coat}
          choices={paints.map((item) => ({ value: item.id, text: item.name }))}
          onPick={(coat) => change({ coat })}
        />
        <NumberField
          label={t('floor.coatCount')}
          value={choice.coats}
          least={0}
          most={8}
          whole
          onTake={(count) => change({ coats: count })}
        />
      </div>
      {coats && (
        <>
          <p className="small figures">
            {t('floor.coatsAre', {
              area: coats.area.toFixed(1),
              litres: coats.litres === null ? t('floor.coatLitresUnknown') : `${coats.litres.toFixed(2)} l`,
              minutes: coats.minutes,
              from: Math.round(coats.from),
              to: Math.round(coats.to),
              temperature: scene.project.settings.workTemperature,
            })}
          </p>
          <ol className="said-list small figures">
            {planned.map(({ task, work, starts }) => (
              <li key={task.id}>
                {said(task.title)} · {dayName(starts)}
                {work[0] && `, ${clockOf(work[0].from)}`}
              </li>
            ))}
          </ol>
          <p className="small figures">
            {t('floor.coatZones', {
              zones: coats.zones.map(({ from, to }) => `${len(from)}–${len(to)}`).join(' · '),
              out: coats.out ?? t('floor.coatOutRear'),
            })}{' '}
            {t('floor.coatCure', { hours: Math.round(coats.cure) })}
          </p>
          <Where label={t('floor.coatWhere')} scene={scene} />
        </>
      )}
    </section>
  );
}

/** Every finish the price book sells, side by side. */
function OtherFinishes({ scene }: { readonly scene: Scene }) {
  const { t, len } = useSpeech();
  const { room, finish } = scene.shape.floor;
  const { units } = scene.project.layout;
  const choice = scene.project.floor;
  const ways = useMemo(
    () => (room ? finishWays(room, scene.book, units, choice) : []),
    [room, scene.book, units, choice],
  );
  if (ways.length === 0) return null;
  return (
    <section className="section stack">
      <h2>{t('floor.finishes')}</h2>
      <table className="plain figures small">
        <thead>
          <tr>
            <th />
            <th>{t('floor.finishes.packs')}</th>
            <th>{t('floor.way.cost')}</th>
            <th>kg</th>
            <th>h</th>
            <th>{t('floor.way.waste')}</th>
          </tr>
        </thead>
        <tbody>
          {ways.map((way) => (
            <tr key={`${way.material}:${way.where}`}>
              <td>
                {way.name}
                <br />
                <span className="soft">
                  {t(`floor.finish.${way.where}`)} · {t('floor.finishes.takes', { thickness: len(way.thickness, 1) })}
                  {way.material === finish?.material && way.where === choice.finish && (
                    <span className="done"> ✓ {t('lining.case.now')}</span>
                  )}
                </span>
              </td>
              <td>{way.packs}</td>
              <td>{formatMoney(way.cost, scene.book.currency)}</td>
              <td>{way.mass.toFixed(1)}</td>
              <td>{way.hours.toFixed(1)}</td>
              <td>{Math.round(100 * way.waste)} %</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="small soft">{t('floor.finishesHint')}</p>
    </section>
  );
}

/** The floor's finish: what is laid or coated, and what else it could be. */
export function FinishPanel({ scene }: { readonly scene: Scene }) {
  return (
    <>
      <Laid scene={scene} />
      <Coated scene={scene} />
      <OtherFinishes scene={scene} />
    </>
  );
}
