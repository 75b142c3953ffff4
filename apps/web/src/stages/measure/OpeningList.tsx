import Button from '@mui/material/Button';
import { useState } from 'react';
import type { Survey } from '@nestplank/core/document';
import { repeatOpening } from '@nestplank/core/measure';
import { squareness } from '@nestplank/core/shell';
import { Check } from '../../kit/Check.js';
import { NumberField } from '../../kit/NumberField.js';
import { useChange } from '../../kit/use-change.js';
import { LengthField } from '../../kit/LengthField.js';
import { useSpeech } from '../../words/use-speech.js';
import { nextId } from './next-id.js';
import { ThingList, usePick, useRead } from './ThingList.js';

const KINDS = ['window', 'door', 'hatch', 'fan'] as const;
const SURFACES = ['left', 'right', 'front', 'rear', 'roof'] as const;
const SWINGS = ['fixed', 'slides', 'hinged', 'pair'] as const;
const HANDS = ['none', 'front', 'rear', 'left', 'right', 'up'] as const;
const RING_MM = 50;

/** What its two diagonals say, once both are read. */
function Squareness({ survey, id }: { readonly survey: Survey; readonly id: string }) {
  const { said } = useSpeech();
  const square = squareness(survey, id);
  return square && <p className="small figures whole">{said(square)}</p>;
}

/** A row of equal ones: how many more there are, and how far from one to the next. */
function Repeat({ survey, id, name }: { readonly survey: Survey; readonly id: string; readonly name: string }) {
  const { t } = useSpeech();
  const change = useChange();
  const [count, setCount] = useState(1);
  const [pitch, setPitch] = useState(1000);
  const operations = repeatOpening(survey, id, count, pitch, new Date().toISOString());
  return (
    <div className="whole fields two-and-button">
      <NumberField
        label={t('things.repeatCount')}
        value={count}
        least={1}
        most={20}
        onTake={(value) => {
          setCount(Math.round(value));
          return null;
        }}
      />
      <LengthField
        label={t('things.repeatPitch')}
        value={pitch}
        onTake={(value) => {
          setPitch(value);
          return null;
        }}
      />
      <Button
        disabled={operations.length === 0}
        aria-label={t('things.repeatOf', { name })}
        onClick={() => change(...operations)}
      >
        {t('things.repeat')}
      </Button>
    </div>
  );
}

/** Doors, windows and hatches: what they are, how they open, and what of them is read. */
export function OpeningList({ survey }: { readonly survey: Survey }) {
  const { t } = useSpeech();
  const pick = usePick();
  const { span } = useRead(survey);
  return (
    <ThingList
      title={t('measure.openings')}
      items={survey.openings}
      line={({ id, kind, surface }) =>
        `${t(`opening.${kind}`)} · ${t(`surface.${surface}`)} · ${span(`opening/${id}/from`, `opening/${id}/to`)}`
      }
      addText={t('measure.addOpening')}
      add={() => {
        const { id, number } = nextId('o', survey.openings);
        return {
          id,
          operation: {
            name: 'putOpening',
            payload: {
              opening: {
                id,
                name: t('things.newOpening', { number }),
                kind: 'window',
                surface: 'left',
                cornerRadius: 60,
                swing: 'fixed',
                hand: 'none',
                slanted: false,
                framed: false,
                ring: null,
              },
            },
          },
        };
      }}
      put={(opening) => ({ name: 'putOpening', payload: { opening } })}
      remove={({ id }) => ({ name: 'removeOpening', payload: { id } })}
      fields={(item, change) => (
        <>
          {pick(t('things.kind'), item.name, item.kind, KINDS, 'opening.', (kind) => change({ kind }))}
          {pick(t('things.surface'), item.name, item.surface, SURFACES, 'surface.', (surface) => change({ surface }))}
          {pick(t('things.swing'), item.name, item.swing, SWINGS, 'swing.', (swing) => change({ swing }))}
          {item.swing !== 'fixed' &&
            pick(t('things.hand'), item.name, item.hand, HANDS, 'things.hand.', (hand) => change({ hand }))}
          <LengthField
            label={t('things.radius')}
            value={item.cornerRadius}
            onTake={(cornerRadius) => change({ cornerRadius })}
          />
          {item.kind === 'window' && (
            <LengthField
              label={t('things.sweep')}
              value={item.sweep ?? 0}
              onTake={(sweep) => change({ sweep: sweep > 0 ? sweep : null })}
            />
          )}
          <Check label={t('things.slanted')} checked={item.slanted} onCheck={(slanted) => change({ slanted })} />
          <Check label={t('things.framed')} checked={item.framed} onCheck={(framed) => change({ framed })} />
          {item.framed && (
            <Check
              label={t('things.ringNone')}
              checked={item.ring !== null}
              onCheck={(made) => change({ ring: made ? RING_MM : null })}
            />
          )}
          {item.framed && item.ring !== null && (
            <LengthField label={t('things.ring')} value={item.ring} onTake={(ring) => change({ ring })} />
          )}
          <Squareness survey={survey} id={item.id} />
          <Repeat survey={survey} id={item.id} name={item.name} />
        </>
      )}
    />
  );
}
