import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import { baysOf, type Bay, type Thing, type Unit } from '@nestplank/core/document';
import type { MadeUnit } from '@nestplank/core/furniture';
import { act } from '../../state/session.js';
import { LengthField } from '../../kit/LengthField.js';
import { NumberField } from '../../kit/NumberField.js';
import { PickField } from '../../kit/PickField.js';
import { useChange } from '../../kit/use-change.js';
import { useSpeech } from '../../words/use-speech.js';
import { Elevation } from './Elevation.js';

const MOST_SHELVES = 8;
const MOST_DOORS = 6;
const HOLDS = ['open', 'shelves', 'drawers', 'pull-out', 'rail', 'thing', 'chase', 'hold'] as const;
const FRONTS = ['none', 'doors', 'flap-down', 'lift-up', 'panel', 'sliding', 'curtain'] as const;
const TRAVEL_MM = 450;

/** The clear size a bay was given in the cut it is in, or that it takes what its thing needs; null for a share, or when it is in none. */
function sizeOf(division: Unit['division'], bay: string): number | 'as needed' | null {
  if (!('cut' in division)) return null;
  for (const [i, part] of division.parts.entries()) {
    const size = division.sizes[i];
    if (!('cut' in part) && part.name === bay) return typeof size === 'object' || size === undefined ? null : size;
    const inside = sizeOf(part, bay);
    if (inside !== null) return inside;
  }
  return null;
}

/** What a bay holds once another kind is picked: what both have stays. */
function heldAs(kind: (typeof HOLDS)[number], was: Bay['holds'], things: readonly Thing[]): Bay['holds'] | null {
  const count = 'count' in was ? was.count : 1;
  const thing = 'thing' in was ? was.thing : null;
  switch (kind) {
    case 'shelves':
      return { kind, count };
    case 'drawers':
      return { kind, count: Math.max(2, count), latch: true };
    case 'pull-out':
      return { kind, thing, travel: TRAVEL_MM, latch: true };
    case 'rail':
      return { kind, along: 'bay' };
    case 'thing': {
      const first = thing ?? things[0]?.id;
      return first === undefined ? null : { kind, thing: first };
    }
    case 'open':
    case 'chase':
    case 'hold':
      return { kind };
  }
}
function closedAs(kind: (typeof FRONTS)[number], was: Bay['front']): Bay['front'] {
  switch (kind) {
    case 'doors':
      return { kind, count: 'count' in was ? was.count : 1, latch: true };
    case 'flap-down':
    case 'lift-up':
    case 'sliding':
      return { kind, latch: true };
    case 'none':
    case 'panel':
    case 'curtain':
      return { kind };
  }
}

/** One bay of a unit: what it holds, how it is closed, how wide it is. */
function BayFields({
  unit,
  bay,
  things,
}: {
  readonly unit: Unit;
  readonly bay: Bay;
  readonly things: readonly Thing[];
}) {
  const { t } = useSpeech();
  const change = useChange();
  const at = { id: unit.id, bay: bay.name };
  const divided = 'cut' in unit.division;
  const size = sizeOf(unit.division, bay.name);
  const { holds, front } = bay;
  const hold = (next: Bay['holds']) => act({ name: 'changeBay', payload: { ...at, holds: next } });
  const close = (next: Bay['front']) => act({ name: 'changeBay', payload: { ...at, front: next } });
  const held = things.map(({ id, name }) => ({ value: id, text: name }));
  return (
    <section className="stack bay" aria-label={t('bay.name', { name: bay.name })}>
      <div className="row apart">
        <strong>{t('bay.name', { name: bay.name })}</strong>
        {divided && (
          <Button size="small" onClick={() => change({ name: 'joinBays', payload: at })}>
            {t('bay.alone')}
          </Button>
        )}
      </div>
      <div className="fields">
        <PickField
          label={t('bay.holds')}
          of={bay.name}
          value={holds.kind}
          choices={HOLDS.filter((kind) => kind !== 'thing' || things.length > 0).map((kind) => ({
            value: kind,
            text: t(`hold.${kind}`),
          }))}
          onPick={(kind) => {
            const next = heldAs(kind, holds, things);
            return next ? hold(next) : null;
          }}
        />
        {(holds.kind === 'shelves' || holds.kind === 'drawers') && (
          <NumberField
            label={holds.kind === 'shelves' ? t('field.shelves') : t('bay.count')}
            value={holds.count}
            least={1}
            most={MOST_SHELVES}
            whole
            onTake={(count) => hold({ ...holds, count })}
          />
        )}
        {(holds.kind === 'thing' || holds.kind === 'pull-out') && (
          <PickField
            label={t('bay.thing')}
            of={bay.name}
            value={holds.thing ?? ''}
            choices={[...(holds.kind === 'pull-out' ? [{ value: '', text: t('bay.noThing') }] : []), ...held]}
            onPick={(thing) =>
              hold(holds.kind === 'thing' ? { ...holds, thing } : { ...holds, thing: thing === '' ? null : thing })
            }
          />
        )}
        {holds.kind === 'pull-out' && (
          <LengthField label={t('bay.travel')} value={holds.travel} onTake={(travel) => hold({ ...holds, travel })} />
        )}
        {holds.kind === 'rail' && (
          <PickField
            label={t('bay.rail')}
            of={bay.name}
            value={holds.along}
            choices={(['bay', 'depth'] as const).map((value) => ({ value, text: t(`bay.rail.${value}`) }))}
            onPick={(along) => hold({ ...holds, along })}
          />
        )}
        <PickField
          label={t('bay.front')}
          of={bay.name}
          value={front.kind}
          choices={FRONTS.map((kind) => ({ value: kind, text: t(`front.${kind}`) }))}
          onPick={(kind) => close(closedAs(kind, front))}
        />
        {front.kind === 'doors' && (
          <NumberField
            label={t('field.doors')}
            value={front.count}
            least={1}
            most={MOST_DOORS}
            whole
            onTake={(count) => close({ ...front, count })}
          />
        )}
        {divided && (
          <LengthField
            label={t('bay.clear')}
            value={typeof size === 'number' ? size : 0}
            onTake={(mm) => act({ name: 'sizeBay', payload: { ...at, size: mm === 0 ? null : mm } })}
          />
        )}
        {size === 'as needed' && <p className="small soft">{t('bay.asNeeded')}</p>}
        {'latch' in holds && (
          <FormControlLabel
            control={<Checkbox checked={holds.latch} onChange={(_event, latch) => void hold({ ...holds, latch })} />}
            label={t('bay.latch')}
          />
        )}
        {(front.kind === 'doors' ||
          front.kind === 'flap-down' ||
          front.kind === 'lift-up' ||
          front.kind === 'sliding') && (
          <FormControlLabel
            control={
              <Checkbox checked={front.latch === true} onChange={(_event, latch) => void close({ ...front, latch })} />
            }
            label={t('bay.latch')}
          />
        )}
      </div>
    </section>
  );
}

/** The bays of a unit: divided once more, each with its own figures. A bay keeps its name when others come or go. */
export function Bays({
  unit,
  things,
  skeleton,
}: {
  readonly unit: Unit;
  readonly things: readonly Thing[];
  /** Its boards and bays as they come out; null while they are not known. */
  readonly skeleton: MadeUnit['skeleton'];
}) {
  const { t } = useSpeech();
  const change = useChange();
  const bays = baysOf(unit.division);
  const last = bays.at(-1);
  if (!last) return null;
  const divide = (cut: 'along' | 'up'): void =>
    void change({ name: 'divideBay', payload: { id: unit.id, bay: last.name, cut, into: 2 } });
  return (
    <section className="section stack" aria-label={t('bay.title')}>
      <div className="row apart wrap">
        <h2>{t('bay.title')}</h2>
        <span className="chips">
          <Button size="small" onClick={() => divide('along')}>
            {t('bay.upright')}
          </Button>
          <Button size="small" onClick={() => divide('up')}>
            {t('bay.level')}
          </Button>
        </span>
      </div>
      {bays.length > 1 && <p className="small soft">{t('bay.hint')}</p>}
      {skeleton && <Elevation unit={unit} skeleton={skeleton} />}
      {bays.map((bay) => (
        <BayFields key={bay.name} unit={unit} bay={bay} things={things} />
      ))}
    </section>
  );
}
