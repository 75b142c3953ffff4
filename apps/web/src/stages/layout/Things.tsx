import ToggleButton from '@mui/material/ToggleButton';
import { memo } from 'react';
import { CONNECTIONS, THING_FACES, type Thing } from '@nestplank/core/document';
import { START_THINGS } from '@nestplank/core/furniture';
import { CsvFile } from '../../kit/CsvFile.js';
import { Fold } from '../../kit/Fold.js';
import { LengthField } from '../../kit/LengthField.js';
import { LineList } from '../../kit/LineList.js';
import { MoneyField } from '../../kit/MoneyField.js';
import { NumberField } from '../../kit/NumberField.js';
import { PickField } from '../../kit/PickField.js';
import { TextEntry } from '../../kit/TextEntry.js';
import { useChange } from '../../kit/use-change.js';
import { act } from '../../state/session.js';
import type { Scene } from '../../state/scene.js';
import { useSpeech } from '../../words/use-speech.js';

const OPENS = ['no', 'lid', 'door-left', 'door-right', 'flap', 'drawer'] as const;
/** A battery holds its charge at so many volts. */
const VOLTS = 12;

/** A thing of one's own begins as a plain box. */
const OWN: Omit<Thing, 'id' | 'name'> = {
  kind: 'own',
  width: 400,
  depth: 400,
  height: 400,
  mass: 5,
  holds: 0,
  opens: 'no',
  clear: { side: 5, back: 10, top: 0, front: 0 },
  connects: [],
  service: [],
  heat: 0,
  air: null,
  cutOut: null,
  draws: 0,
  hours: 0,
  source: '',
};

function freeId(things: readonly Thing[], stem: string): string {
  let number = 1;
  const id = (): string => (number === 1 ? stem : `${stem}-${number}`);
  while (things.some((thing) => thing.id === id())) number += 1;
  return id();
}

/** Openings for air with one of them changed; none where its sheet states neither. */
function airWith({ air }: Thing, end: 'inlet' | 'outlet', value: number): Thing['air'] {
  const made = { inlet: air?.inlet ?? 0, outlet: air?.outlet ?? 0, [end]: value };
  return made.inlet === 0 && made.outlet === 0 ? null : made;
}
/** The opening it hangs in with one side changed: both begin as large as it is; none where one is 0. */
function cutWith({ cutOut, width, depth }: Thing, side: 'length' | 'width', value: number): Thing['cutOut'] {
  return value === 0 ? null : { length: width, width: depth, radius: 10, ...cutOut, [side]: value };
}

/** Several of a few. */
function Several<T extends string>({
  label,
  all,
  text,
  chosen,
  onPick,
}: {
  readonly label: string;
  readonly all: readonly T[];
  readonly text: (one: T) => string;
  readonly chosen: readonly T[];
  readonly onPick: (chosen: T[]) => void;
}) {
  return (
    <div className="chips whole-row" role="group" aria-label={label}>
      <span className="small soft">{label}</span>
      {all.map((one) => (
        <ToggleButton
          key={one}
          value={one}
          size="small"
          selected={chosen.includes(one)}
          onChange={() => onPick(all.filter((other) => (other === one) !== chosen.includes(other)))}
        >
          {text(one)}
        </ToggleButton>
      ))}
    </div>
  );
}

/** The figures of one data sheet. */
function Sheet({ thing }: { readonly thing: Thing }) {
  const { t } = useSpeech();
  const put = (changes: Partial<Thing>) => act({ name: 'putThing', payload: { thing: { ...thing, ...changes } } });
  return (
    <div className="fields">
      <TextEntry label={t('field.name')} value={thing.name} onTake={(name) => put({ name })} />
      {(['width', 'depth', 'height'] as const).map((name) => (
        <LengthField
          key={name}
          label={t(`things.${name}`)}
          value={thing[name]}
          onTake={(value) => put({ [name]: value })}
        />
      ))}
      {(['mass', 'holds', 'heat', 'draws', 'hours'] as const).map((name) => (
        <NumberField
          key={name}
          label={t(`things.${name}`)}
          value={thing[name]}
          least={0}
          most={name === 'hours' ? 24 : name === 'heat' ? 20_000 : name === 'draws' ? 10_000 : 1000}
          onTake={(value) => put({ [name]: value })}
        />
      ))}
      {thing.kind === 'electric' && thing.connects.includes('mains') && (
        <NumberField
          label={t('things.gives')}
          value={thing.gives ?? null}
          least={0}
          most={20_000}
          onTake={(gives) => put({ gives })}
        />
      )}
      <MoneyField
        label={t('things.price')}
        showLabel
        minor={thing.price ?? null}
        onTake={(price) => void put({ price })}
      />
      {(['side', 'back', 'top'] as const).map((name) => (
        <LengthField
          key={name}
          label={t(`things.${name}`)}
          value={thing.clear[name]}
          onTake={(value) => put({ clear: { ...thing.clear, [name]: value } })}
        />
      ))}
      <PickField
        label={t('things.opens')}
        value={thing.opens}
        choices={OPENS.map((value) => ({ value, text: t(`things.${value}`) }))}
        onPick={(opens) => put({ opens })}
      />
      {(['inlet', 'outlet'] as const).map((end) => (
        <NumberField
          key={end}
          label={t(`things.${end}`)}
          value={thing.air?.[end] ?? null}
          least={0}
          most={2000}
          onTake={(value) => put({ air: airWith(thing, end, value) })}
        />
      ))}
      {(['length', 'width'] as const).map((side) => (
        <LengthField
          key={side}
          label={t(`things.cut.${side}`)}
          value={thing.cutOut?.[side] ?? null}
          onTake={(value) => put({ cutOut: cutWith(thing, side, value) })}
        />
      ))}
      <Several
        label={t('things.connects')}
        all={CONNECTIONS}
        text={(one) => t(`things.connects.${one}`)}
        chosen={thing.connects}
        onPick={(connects) => put({ connects })}
      />
      <Several
        label={t('things.service')}
        all={THING_FACES}
        text={(one) => t(`things.face.${one}`)}
        chosen={thing.service}
        onPick={(service) => put({ service })}
      />
    </div>
  );
}

/** Data sheets of what stands in it: some usual in the trade to begin with, and one's own. */
export const Things = memo(function Things({ scene }: { readonly scene: Scene }) {
  const { t, len } = useSpeech();
  const change = useChange();
  const things = scene.project.things ?? [];
  const hours = things.reduce((sum, { draws, hours: own }) => sum + draws * own, 0);
  const add = (thing: Thing, open: (id: string) => void): void => {
    const id = freeId(things, thing.id);
    if (change({ name: 'putThing', payload: { thing: { ...thing, id } } })) open(id);
  };
  return (
    <Fold title={t('things.title')} line={t('things.count', { count: things.length })}>
      <LineList
        title={t('things.title')}
        none={t('things.none')}
        items={things}
        line={(thing) =>
          t('things.line', {
            width: len(thing.width),
            depth: len(thing.depth),
            height: len(thing.height),
            mass: thing.mass,
          })
        }
        onRemove={(thing) => void change({ name: 'removeThing', payload: { id: thing.id } })}
        adding={(open) => (
          <PickField
            label={t('things.start')}
            value=""
            choices={[
              { value: '', text: t('things.choose') },
              { value: 'own', text: t('things.own') },
              ...START_THINGS.map(({ id, name }) => ({ value: id, text: name })),
            ]}
            onPick={(id) => {
              const thing = START_THINGS.find((own) => own.id === id);
              if (thing) add(thing, open);
              else if (id === 'own') add({ ...OWN, id: 'own', name: t('things.own') }, open);
            }}
          />
        )}
      >
        {(thing) => <Sheet thing={thing} />}
      </LineList>
      <CsvFile
        title={t('things.file')}
        name={`${scene.project.id}-data-sheets`}
        outText={t('things.fileOut')}
        write={async () => (await import('@nestplank/core/exchange')).thingsCsv(things)}
        read={async (text) => (await import('@nestplank/core/exchange')).readThingsCsv(text, things)}
        onTake={({ items }) => change(...items.map((thing) => ({ name: 'putThing' as const, payload: { thing } })))}
      />
      {hours > 0 && (
        <p className="small">{t('things.power', { hours: Math.round(hours), ah: Math.round(hours / VOLTS) })}</p>
      )}
    </Fold>
  );
});
