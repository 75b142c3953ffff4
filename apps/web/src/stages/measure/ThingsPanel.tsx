import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import type { ReactNode } from 'react';
import {
  holeClearances,
  type AnglePlace,
  type Arch,
  type KeepOut,
  type Opening,
  type Operation,
  type Penetration,
  type Rib,
  type Survey,
} from '@nestplank/core';
import { act, notify } from '../../state/session.js';
import { LengthField } from '../../ui/LengthField.js';
import { LengthList } from '../../ui/LengthList.js';
import { PickField } from '../../ui/PickField.js';
import { TextEntry } from '../../ui/TextEntry.js';
import type { UiKey } from '../../words/en.js';
import { useSpeech } from '../../words/words.js';
import { PLACES } from './FoundPanel.js';
import { nextId } from './next-id.js';

type Perform = (operation: Operation) => string | null;

/** A list of named things: each can be renamed, described and removed; a new one is put at the end. */
function ThingList<T extends { readonly id: string; readonly name: string }>({
  title,
  items,
  add,
  addText,
  rename,
  remove,
  fields,
}: {
  readonly title: string;
  readonly items: readonly T[];
  readonly add: () => void;
  readonly addText: string;
  readonly rename: (item: T, name: string) => void;
  readonly remove: (item: T) => void;
  readonly fields?: (item: T) => ReactNode;
}) {
  const { t } = useSpeech();
  return (
    <section className="section stack" aria-label={title}>
      <h2>{title}</h2>
      {items.map((item) => (
        <div className="thing" key={item.id}>
          <TextEntry
            hideLabel
            label={`${t('common.name')}: ${item.name}`}
            value={item.name}
            onTake={(name) => {
              rename(item, name);
              return null;
            }}
          />
          {fields?.(item)}
          <Button
            size="small"
            variant="text"
            onClick={() => remove(item)}
            aria-label={`${t('common.remove')} ${item.name}`}
          >
            {t('common.remove')}
          </Button>
        </div>
      ))}
      <div>
        <Button onClick={add}>{addText}</Button>
      </div>
    </section>
  );
}

function Tick({
  label,
  checked,
  onTick,
}: {
  readonly label: string;
  readonly checked: boolean;
  readonly onTick: (on: boolean) => void;
}) {
  return (
    <FormControlLabel control={<Checkbox checked={checked} onChange={(_event, on) => onTick(on)} />} label={label} />
  );
}

function usePick() {
  const { t } = useSpeech();
  return function pick<T extends string>(
    label: string,
    value: T,
    values: readonly T[],
    prefix: string,
    onPick: (value: T) => void,
  ): ReactNode {
    return (
      <PickField
        hideLabel
        label={label}
        value={value}
        choices={values.map((choice) => ({ value: choice, text: t(`${prefix}${choice}` as UiKey) }))}
        onPick={onPick}
      />
    );
  };
}

function Plan({ survey, perform }: { readonly survey: Survey; readonly perform: Perform }) {
  const { t } = useSpeech();
  type Changes = Extract<Operation, { name: 'planSurvey' }>['payload']['changes'];
  const plan = (changes: Changes): string | null => perform({ name: 'planSurvey', payload: { changes } });
  const { profile } = survey;
  return (
    <>
      <LengthList label={t('measure.heights')} values={survey.heights} onTake={(heights) => plan({ heights })} />
      <LengthList
        label={t('measure.roofOffsets')}
        values={survey.roofOffsets}
        onTake={(roofOffsets) => plan({ roofOffsets })}
      />
      <div className="fields" style={{ gridTemplateColumns: 'repeat(2, minmax(0, 1fr))' }}>
        <PickField
          label={t('things.profile')}
          value={profile.station ?? 'none'}
          choices={[
            { value: 'none', text: t('things.profileNone') },
            ...survey.stations.map((station) => ({ value: station.id, text: station.name })),
          ]}
          onPick={(station) => plan({ profile: { ...profile, station: station === 'none' ? null : station } })}
        />
        <PickField
          label={t('things.reference')}
          value={survey.reference}
          choices={(['centre', 'wall'] as const).map((value) => ({ value, text: t(`things.reference.${value}`) }))}
          onPick={(reference) => plan({ reference })}
        />
      </div>
      {profile.station !== null && (
        <>
          <LengthList
            label={t('things.profileHeights')}
            values={profile.heights}
            mayBeEmpty
            onTake={(heights) => plan({ profile: { ...profile, heights } })}
          />
          <LengthList
            label={t('things.profileRoof')}
            values={profile.roofOffsets}
            mayBeEmpty
            onTake={(roofOffsets) => plan({ profile: { ...profile, roofOffsets } })}
          />
        </>
      )}
      <div>
        <Tick label={t('measure.symmetric')} checked={survey.symmetric} onTick={(symmetric) => plan({ symmetric })} />
        <Tick label={t('things.boxed')} checked={survey.boxed} onTick={(boxed) => plan({ boxed })} />
      </div>
    </>
  );
}

function Openings({ survey, perform }: { readonly survey: Survey; readonly perform: Perform }) {
  const { t, said } = useSpeech();
  const pick = usePick();
  const put = (opening: Opening): string | null => perform({ name: 'putOpening', payload: { opening } });
  const { id, number } = nextId('o', survey.openings);
  return (
    <ThingList
      title={t('measure.openings')}
      items={survey.openings}
      addText={t('measure.addOpening')}
      add={() =>
        put({
          id,
          name: `Opening ${number}`,
          kind: 'window',
          surface: 'left',
          cornerRadius: 60,
          swing: 'fixed',
          hand: 'none',
          slanted: false,
          framed: false,
          ring: null,
        })
      }
      rename={(item, name) => put({ ...item, name })}
      remove={(item) => perform({ name: 'removeOpening', payload: { id: item.id } })}
      fields={(item) => (
        <>
          {pick(
            `${t('opening.window')}, ${t('opening.door')}: ${item.name}`,
            item.kind,
            ['window', 'door', 'hatch', 'fan'],
            'opening.',
            (kind) => put({ ...item, kind }),
          )}
          {pick(
            `${t('field.side')}: ${item.name}`,
            item.surface,
            ['left', 'right', 'rear', 'roof'],
            'surface.',
            (surface) => put({ ...item, surface }),
          )}
          {pick(
            t('things.swing', { name: item.name }),
            item.swing,
            ['fixed', 'slides', 'hinged', 'pair'],
            'swing.',
            (swing) => put({ ...item, swing }),
          )}
          {item.swing !== 'fixed' &&
            pick(
              t('things.hand', { name: item.name }),
              item.hand,
              ['none', 'front', 'rear', 'left', 'right', 'up'],
              'things.hand.',
              (hand) => put({ ...item, hand }),
            )}
          <LengthField
            label={t('things.radius')}
            value={item.cornerRadius}
            onTake={(cornerRadius) => {
              put({ ...item, cornerRadius });
              return null;
            }}
          />
          <Tick label={t('things.slanted')} checked={item.slanted} onTick={(slanted) => put({ ...item, slanted })} />
          <Tick label={t('things.framed')} checked={item.framed} onTick={(framed) => put({ ...item, framed })} />
          {item.framed && (
            <Tick
              label={t('things.ringNone')}
              checked={item.ring !== null}
              onTick={(made) => put({ ...item, ring: made ? 50 : null })}
            />
          )}
          {item.framed && item.ring !== null && (
            <LengthField
              label={t('things.ring')}
              value={item.ring}
              onTake={(ring) => {
                const refused = act({ name: 'putOpening', payload: { opening: { ...item, ring } } });
                if (refused) notify(said(refused), 'trouble');
                return refused;
              }}
            />
          )}
        </>
      )}
    />
  );
}

function Holes({ survey, perform }: { readonly survey: Survey; readonly perform: Perform }) {
  const { t, len } = useSpeech();
  const pick = usePick();
  const put = (penetration: Penetration): string | null =>
    perform({ name: 'putPenetration', payload: { penetration } });
  const { id, number } = nextId('p', survey.penetrations);
  const clearances = holeClearances(survey);
  return (
    <>
      <ThingList
        title={t('things.holes')}
        items={survey.penetrations}
        addText={t('things.addHole')}
        add={() =>
          put({ id, name: `Hole ${number}`, surface: 'floor', purpose: 'waste-water', decided: false, sealing: '' })
        }
        rename={(item, name) => put({ ...item, name })}
        remove={(item) => perform({ name: 'removePenetration', payload: { id: item.id } })}
        fields={(item) => {
          const near = clearances.find((clearance) => clearance.hole === item.id);
          return (
            <>
              {pick(`${t('things.surface')}: ${item.name}`, item.surface, PLACES, 'surface.', (surface) =>
                put({ ...item, surface }),
              )}
              {pick(
                t('things.purpose', { name: item.name }),
                item.purpose,
                ['waste-water', 'gas', 'heater', 'drain', 'cable', 'air', 'other'],
                'things.purpose.',
                (purpose) => put({ ...item, purpose }),
              )}
              <TextEntry
                hideLabel
                mayBeEmpty
                label={`${t('things.sealing')}: ${item.name}`}
                value={item.sealing}
                onTake={(sealing) => {
                  put({ ...item, sealing });
                  return null;
                }}
              />
              <Tick
                label={t('things.decided')}
                checked={item.decided}
                onTick={(decided) => put({ ...item, decided })}
              />
              {near && (
                <span className={`small ${near.clear < 0 ? 'needs' : 'soft'}`}>
                  {near.clear < 0
                    ? t('things.hits', { by: len(-near.clear), against: near.against })
                    : t('things.clear', { clear: len(near.clear), against: near.against })}
                </span>
              )}
            </>
          );
        }}
      />
      <p className="small soft">{t('things.gasCaution')}</p>
    </>
  );
}

/** What is to be measured: stations, ribs, what stands in the room, openings, keep-outs, holes, slopes, and at which heights. */
export function ThingsPanel({ survey }: { readonly survey: Survey }) {
  const { t, said } = useSpeech();
  const pick = usePick();
  const perform: Perform = (operation) => {
    const refused = act(operation);
    if (refused) notify(said(refused), 'trouble');
    return refused && said(refused);
  };
  const putArch = (arch: Arch): string | null => perform({ name: 'putArch', payload: { arch } });
  const putRib = (rib: Rib): string | null => perform({ name: 'putRib', payload: { rib } });
  const putKeepOut = (keepOut: KeepOut): string | null => perform({ name: 'putKeepOut', payload: { keepOut } });
  const putAngle = (angle: AnglePlace): string | null => perform({ name: 'putAngle', payload: { angle } });
  const station = nextId('s', survey.stations);
  const rib = nextId('r', survey.ribs);
  const arch = nextId('a', survey.arches);
  const keepOut = nextId('k', survey.keepOuts);
  const angle = nextId('g', survey.angles);
  return (
    <div className="stack" style={{ gap: 20, paddingTop: 6 }}>
      <Plan survey={survey} perform={perform} />
      <ThingList
        title={t('measure.stations')}
        items={survey.stations}
        addText={t('measure.addStation')}
        add={() =>
          perform({ name: 'putStation', payload: { station: { id: station.id, name: `Station ${station.number}` } } })
        }
        rename={(item, name) => perform({ name: 'putStation', payload: { station: { ...item, name } } })}
        remove={(item) => perform({ name: 'removeStation', payload: { id: item.id } })}
      />
      <ThingList
        title={t('measure.ribs')}
        items={survey.ribs}
        addText={t('measure.addRib')}
        add={() => putRib({ id: rib.id, name: `rib ${rib.number}`, on: 'ring', flat: true })}
        rename={(item, name) => putRib({ ...item, name })}
        remove={(item) => perform({ name: 'removeRib', payload: { id: item.id } })}
        fields={(item) => (
          <>
            {pick(
              t('things.ribOn', { name: item.name }),
              item.on,
              ['ring', 'left', 'right', 'roof', 'floor'],
              'things.on.',
              (on) => putRib({ ...item, on }),
            )}
            <Tick label={t('things.flat')} checked={item.flat} onTick={(flat) => putRib({ ...item, flat })} />
          </>
        )}
      />
      <ThingList
        title={t('measure.arches')}
        items={survey.arches}
        addText={t('measure.addArch')}
        add={() => putArch({ id: arch.id, name: `Arch ${arch.number}`, side: 'left', kind: 'arch', shape: 'box' })}
        rename={(item, name) => putArch({ ...item, name })}
        remove={(item) => perform({ name: 'removeArch', payload: { id: item.id } })}
        fields={(item) => (
          <>
            {pick(
              t('things.kind', { name: item.name }),
              item.kind,
              ['arch', 'step', 'hump', 'pillar', 'duct'],
              'things.kind.',
              (kind) => putArch({ ...item, kind }),
            )}
            {pick(`${t('field.side')}: ${item.name}`, item.side, ['left', 'right'], 'surface.', (side) =>
              putArch({ ...item, side }),
            )}
            {pick(
              t('things.shapeOf', { name: item.name }),
              item.shape,
              ['box', 'rounded', 'tapered'],
              'shape.',
              (shape) => putArch({ ...item, shape }),
            )}
          </>
        )}
      />
      <Openings survey={survey} perform={perform} />
      <ThingList
        title={t('things.keepOuts')}
        items={survey.keepOuts}
        addText={t('things.addKeepOut')}
        add={() => putKeepOut({ id: keepOut.id, name: `Keep-out ${keepOut.number}`, reason: 'tank', note: '' })}
        rename={(item, name) => putKeepOut({ ...item, name })}
        remove={(item) => perform({ name: 'removeKeepOut', payload: { id: item.id } })}
        fields={(item) =>
          pick(
            t('things.reason', { name: item.name }),
            item.reason,
            ['tank', 'axle', 'exhaust', 'beam', 'cable', 'other'],
            'things.reason.',
            (reason) => putKeepOut({ ...item, reason }),
          )
        }
      />
      <Holes survey={survey} perform={perform} />
      <ThingList
        title={t('things.angles')}
        items={survey.angles}
        addText={t('things.addAngle')}
        add={() => putAngle({ id: angle.id, name: `Surface ${angle.number}`, surface: 'left' })}
        rename={(item, name) => putAngle({ ...item, name })}
        remove={(item) => perform({ name: 'removeAngle', payload: { id: item.id } })}
        fields={(item) =>
          pick(`${t('things.surface')}: ${item.name}`, item.surface, PLACES, 'surface.', (surface) =>
            putAngle({ ...item, surface }),
          )
        }
      />
    </div>
  );
}
