import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import type { Fitting, Lined, Message } from '@nestplank/core';
import type { Scene } from '../../../state/scene.js';
import { act } from '../../../state/session.js';
import { LengthField } from '../../../ui/LengthField.js';
import { PickField } from '../../../ui/PickField.js';
import { nextId } from '../../measure/next-id.js';
import { useSpeech } from '../../../words/words.js';

const KINDS = ['lamp', 'outlet', 'cable', 'duct'] as const;
const DIAMETER: Readonly<Record<Fitting['kind'], number>> = { lamp: 60, outlet: 68, cable: 12, duct: 65 };

/** Lamps, outlets, cables and ducts that a surface is cut for; their places are given once and stand on every drawing. */
export function Fittings({ surface, scene }: { readonly surface: Lined; readonly scene: Scene }) {
  const { t } = useSpeech();
  const [name, setName] = useState('');
  const [kind, setKind] = useState<Fitting['kind']>('lamp');
  const { fittings } = scene.project;
  const own = fittings.filter((fitting) => fitting.surface === surface);
  const put = (fitting: Fitting): Message | null => act({ name: 'putFitting', payload: { fitting } });
  const length = scene.room?.length ?? 0;
  const add = (): void => {
    const refused = put({
      id: nextId('ft', fittings).id,
      name: name.trim(),
      kind,
      surface,
      x: Math.round(length / 2),
      along: surface === 'ceiling' ? 0 : 1200,
      diameter: DIAMETER[kind],
      wired: false,
    });
    if (!refused) setName('');
  };
  return (
    <section className="section stack">
      <h2>{t('fitting.title')}</h2>
      {own.length === 0 && <p className="small soft">{t('fitting.none')}</p>}
      {own.map((fitting) => (
        <div key={fitting.id} className="stack" style={{ gap: 6 }}>
          <div className="row apart">
            <span>
              {fitting.name} <span className="soft small">{t(`fitting.kind.${fitting.kind}`)}</span>
            </span>
            <Button
              size="small"
              aria-label={t('fitting.removeOf', { name: fitting.name })}
              onClick={() => act({ name: 'removeFitting', payload: { id: fitting.id } })}
            >
              {t('cut.remove')}
            </Button>
          </div>
          <div className="fields" style={{ gridTemplateColumns: '1fr 1fr 1fr' }}>
            <LengthField label={t('fitting.x')} value={fitting.x} onTake={(x) => put({ ...fitting, x })} />
            <LengthField
              label={t(surface === 'ceiling' ? 'fitting.right' : 'fitting.up')}
              value={fitting.along}
              onTake={(along) => put({ ...fitting, along })}
            />
            <LengthField
              label={t('fitting.diameter')}
              value={fitting.diameter}
              onTake={(diameter) => put({ ...fitting, diameter })}
            />
          </div>
          <label className="small row">
            <input
              type="checkbox"
              checked={fitting.wired}
              onChange={(event) => void put({ ...fitting, wired: event.target.checked })}
            />
            {t('fitting.wired')}
          </label>
        </div>
      ))}
      <div className="fields" style={{ gridTemplateColumns: '1fr 1fr' }}>
        <TextField label={t('fitting.name')} value={name} onChange={(event) => setName(event.target.value)} />
        <PickField
          label={t('fitting.kind')}
          value={kind}
          choices={KINDS.map((value) => ({ value, text: t(`fitting.kind.${value}`) }))}
          onPick={setKind}
        />
      </div>
      <div>
        <Button disabled={name.trim() === ''} onClick={add}>
          {t('cut.add')}
        </Button>
      </div>
    </section>
  );
}
