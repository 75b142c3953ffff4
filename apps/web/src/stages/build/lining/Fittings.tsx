import { useState } from 'react';
import type { Fitting, Lined } from '@nestplank/core/document';
import type { Message } from '@nestplank/core/words';
import type { Scene } from '../../../state/scene.js';
import { act } from '../../../state/session.js';
import { Check } from '../../../kit/Check.js';
import { LengthField } from '../../../kit/LengthField.js';
import { NamedList } from '../../../kit/NamedList.js';
import { PointButton } from '../../../kit/PointButton.js';
import { tellRefusal } from '../../../kit/refusal.js';
import { useChange } from '../../../kit/use-change.js';
import { PickField } from '../../../kit/PickField.js';
import { nextId } from '../../measure/next-id.js';
import { useSpeech } from '../../../words/use-speech.js';

const KINDS = ['lamp', 'outlet', 'cable', 'duct'] as const;
const DIAMETER: Readonly<Record<Fitting['kind'], number>> = { lamp: 60, outlet: 68, cable: 12, duct: 65 };

/** Lamps, outlets, cables and ducts that a surface is cut for; their places are given once and stand on every drawing. */
export function Fittings({ surface, scene }: { readonly surface: Lined; readonly scene: Scene }) {
  const speech = useSpeech();
  const { t, len } = speech;
  const change = useChange();
  const [kind, setKind] = useState<Fitting['kind']>('lamp');
  const { fittings } = scene.project;
  const put = (fitting: Fitting): Message | null => act({ name: 'putFitting', payload: { fitting } });
  return (
    <NamedList
      title={t('fitting.title')}
      hint={t('fitting.none')}
      items={fittings.filter((fitting) => fitting.surface === surface)}
      nameLabel={t('fitting.name')}
      freeId={nextId('ft', fittings).id}
      line={(fitting) =>
        `${t(`fitting.kind.${fitting.kind}`)} · ${len(fitting.x)}, ${len(fitting.along)} · ${t('fitting.hole', { diameter: len(fitting.diameter) })}`
      }
      onAdd={(id, name) =>
        put({
          id,
          name,
          kind,
          surface,
          x: Math.round((scene.room?.length ?? 0) / 2),
          along: surface === 'ceiling' ? 0 : 1200,
          diameter: DIAMETER[kind],
          wired: false,
        })
      }
      onRemove={({ id }) => change({ name: 'removeFitting', payload: { id } })}
      more={
        <PickField
          label={t('fitting.kind')}
          value={kind}
          choices={KINDS.map((value) => ({ value, text: t(`fitting.kind.${value}`) }))}
          onPick={setKind}
        />
      }
    >
      {(fitting) => (
        <>
          <PointButton
            what={fitting.name}
            takes={(place) => place.surface === surface}
            onPoint={({ x, along }) => tellRefusal(put({ ...fitting, x, along }), speech)}
          />
          <div className="fields three">
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
          {!fitting.wired && fitting.kind !== 'duct' && (
            <Check
              label={t('fitting.pulled')}
              checked={fitting.pulled === true}
              onCheck={(pulled) => put({ ...fitting, pulled })}
            />
          )}
          <Check label={t('fitting.wired')} checked={fitting.wired} onCheck={(wired) => put({ ...fitting, wired })} />
        </>
      )}
    </NamedList>
  );
}
