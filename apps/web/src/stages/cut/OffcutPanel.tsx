import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { type MaterialPlan, sheetLetter } from '@nestplank/core/plan';
import { formatMoney } from '@nestplank/core/words';
import type { Scene } from '../../state/scene.js';
import { act } from '../../state/session.js';
import { LengthField } from '../../kit/LengthField.js';
import { PickField } from '../../kit/PickField.js';
import { nextId } from '../measure/next-id.js';
import { useSpeech } from '../../words/use-speech.js';

/** Parts that are not cut before their gap was read. */
function Waiting({ item, scene }: { readonly item: MaterialPlan; readonly scene: Scene }) {
  const { t, len } = useSpeech();
  const { waits } = scene.project;
  const own = scene.derived.parts.filter((part) => part.material === item.material.id);
  const mine = waits.filter((wait) => own.some((part) => part.id === wait.part));
  const cut = new Set(item.sheets.flatMap((sheet) => sheet.cut));
  const choices = own.filter((part) => !cut.has(part.id) && mine.every((wait) => wait.part !== part.id));
  return (
    <section className="section stack">
      <h2>{t('cut.waits')}</h2>
      <p className="small soft">{t('cut.waitsHint')}</p>
      {mine.map(({ part, read }) => (
        <div key={part} className="stack">
          <div className="row apart">
            <span>
              {part}{' '}
              <span className={read ? 'soft small figures' : 'needs small'}>
                {read ? t('cut.waitRead', { length: len(read.length), width: len(read.width) }) : t('cut.waitOpen')}
              </span>
            </span>
            <Button
              size="small"
              aria-label={t('cut.waitRemove', { part })}
              onClick={() => act({ name: 'removeWait', payload: { part } })}
            >
              {t('common.remove')}
            </Button>
          </div>
          <ReadSize key={`${part}:${String(read === null)}`} part={part} read={read} />
        </div>
      ))}
      {choices.length > 0 && (
        <PickField
          label={t('cut.waitAdd')}
          value=""
          choices={choices.map((part) => ({ value: part.id, text: part.id }))}
          onPick={(part) => act({ name: 'putWait', payload: { wait: { part, read: null } } })}
        />
      )}
    </section>
  );
}

function ReadSize({
  part,
  read,
}: {
  readonly part: string;
  readonly read: { readonly length: number; readonly width: number } | null;
}) {
  const { t } = useSpeech();
  const [length, setLength] = useState(read?.length ?? 0);
  const [width, setWidth] = useState(read?.width ?? 0);
  const take = (next: { readonly length: number; readonly width: number }): void => {
    setLength(next.length);
    setWidth(next.width);
    if (next.length > 0 && next.width > 0) act({ name: 'putWait', payload: { wait: { part, read: next } } });
  };
  return (
    <div className="fields two">
      <LengthField
        label={t('cut.offcutLength')}
        value={length}
        onTake={(mm) => {
          take({ length: mm, width });
          return null;
        }}
      />
      <LengthField
        label={t('cut.offcutWidth')}
        value={width}
        onTake={(mm) => {
          take({ length, width: mm });
          return null;
        }}
      />
    </div>
  );
}

/** Offcuts kept, parts that wait for a reading, and what was cut wrong. */
export function OffcutPanel({ item, scene }: { readonly item: MaterialPlan; readonly scene: Scene }) {
  const { t, len } = useSpeech();
  const [length, setLength] = useState(0);
  const [width, setWidth] = useState(0);
  const [place, setPlace] = useState('');
  const { offcuts, waste } = scene.project;
  const own = offcuts.filter((offcut) => offcut.material === item.material.id);
  const spoiled = waste.filter((entry) => entry.material === item.material.id);
  const add = (): void => {
    const refused = act({
      name: 'putOffcut',
      payload: {
        offcut: { id: nextId('oc', offcuts).id, material: item.material.id, length, width, place: place.trim() },
      },
    });
    if (refused) return;
    setLength(0);
    setWidth(0);
    setPlace('');
  };
  return (
    <>
      <section className="stack">
        <h2>
          {t('cut.offcuts')} · {item.material.name}
        </h2>
        {own.length === 0 && <p className="small soft">{t('cut.offcutsNone')}</p>}
        {own.map((offcut) => {
          const used = item.sheets.findIndex((sheet) => sheet.offcut === offcut.id);
          const size = { length: len(offcut.length), width: len(offcut.width) };
          return (
            <div key={offcut.id} className="row apart">
              <span className="figures">
                {size.length} × {size.width} <span className="soft small">{offcut.place}</span>
                {used >= 0 && (
                  <span className="done small">
                    {' '}
                    ✓ {t('cut.offcutUsed')} {sheetLetter(used)}
                  </span>
                )}
              </span>
              <Button
                size="small"
                aria-label={t('cut.offcutRemove', size)}
                onClick={() => act({ name: 'removeOffcut', payload: { id: offcut.id } })}
              >
                {t('common.remove')}
              </Button>
            </div>
          );
        })}
        <h3>{t('cut.offcutAdd')}</h3>
        <div className="fields two">
          <LengthField
            label={t('cut.offcutLength')}
            value={length}
            onTake={(mm) => {
              setLength(mm);
              return null;
            }}
          />
          <LengthField
            label={t('cut.offcutWidth')}
            value={width}
            onTake={(mm) => {
              setWidth(mm);
              return null;
            }}
          />
        </div>
        <TextField label={t('cut.offcutPlace')} value={place} onChange={(event) => setPlace(event.target.value)} />
        <div>
          <Button disabled={length <= 0 || width <= 0} onClick={add}>
            {t('common.add')}
          </Button>
        </div>
      </section>
      <Waiting item={item} scene={scene} />
      <section className="section stack">
        <h2>{t('cut.waste')}</h2>
        {spoiled.length === 0 && <p className="small soft">{t('cut.wasteNone')}</p>}
        {spoiled.map((entry) => (
          <div key={entry.id} className="row apart">
            <span className="small">
              {t('cut.wasteLine', {
                part: entry.part,
                length: len(entry.length),
                width: len(entry.width),
                reason: entry.reason,
              })}
            </span>
            <span className="small figures">{formatMoney(entry.cost, scene.book.currency)}</span>
          </div>
        ))}
        {spoiled.length > 0 && (
          <p className="small figures">
            {t('cut.wasteSum', {
              cost: formatMoney(
                spoiled.reduce((sum, entry) => sum + entry.cost, 0),
                scene.book.currency,
              ),
            })}
          </p>
        )}
      </section>
    </>
  );
}
