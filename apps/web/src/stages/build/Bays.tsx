import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import { baysOf, MOST_VENT, type Bay, type Thing, type Unit } from '@nestplank/core/document';
import type { MadeUnit } from '@nestplank/core/furniture';
import { act } from '../../state/session.js';
import { LengthField } from '../../kit/LengthField.js';
import { NumberField } from '../../kit/NumberField.js';
import { PickField } from '../../kit/PickField.js';
import { familyOf } from '../../kit/unit-words.js';
import { useChange } from '../../kit/use-change.js';
import { useSpeech } from '../../words/use-speech.js';
import { Elevation } from './Elevation.js';

const MOST_SHELVES = 8;
const MOST_DOORS = 6;
const HOLDS = ['open', 'shelves', 'drawers', 'pull-out', 'rail', 'thing', 'chase', 'hold'] as const;
const FRONTS = ['none', 'doors', 'flap-down', 'lift-up', 'panel', 'sliding', 'curtain'] as const;
/** What comes out of a bay, and what closes one that lies behind another. */
const SLIDES: ReadonlySet<string> = new Set(['drawers', 'pull-out']);
const STANDS: ReadonlySet<string> = new Set(['none', 'panel']);
const TRAVEL_MM = 450;

type Cut = Extract<Unit['division'], { cut: string }>;
interface InCut {
  readonly cut: Cut;
  /** The clear size it was given there: nothing for a share, or what its thing needs. */
  readonly size: Cut['sizes'][number] | undefined;
}
/** The innermost cut a bay is in; null when it is in none. */
function cutOf(division: Unit['division'], bay: string): InCut | null {
  if (!('cut' in division)) return null;
  for (const [i, part] of division.parts.entries()) {
    if (!('cut' in part) && part.name === bay) return { cut: division, size: division.sizes[i] };
    const inside = cutOf(part, bay);
    if (inside) return inside;
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
  behind,
}: {
  readonly unit: Unit;
  readonly bay: Bay;
  readonly things: readonly Thing[];
  /** It lies behind another bay: nothing swings or slides out of it. */
  readonly behind: boolean;
}) {
  const { t } = useSpeech();
  const change = useChange();
  const at = { id: unit.id, bay: bay.name };
  const within = cutOf(unit.division, bay.name);
  const cuts = familyOf(unit.family)?.cuts ?? [];
  const { holds, front } = bay;
  const hold = (next: Bay['holds']) => act({ name: 'changeBay', payload: { ...at, holds: next } });
  const close = (next: Bay['front']) => act({ name: 'changeBay', payload: { ...at, front: next } });
  const held = things.map(({ id, name }) => ({ value: id, text: name }));
  return (
    <section className="stack bay" aria-label={t('bay.name', { name: bay.name })}>
      <div className="row apart">
        <strong>{t('bay.name', { name: bay.name })}</strong>
        {within && (
          <Button size="small" variant="text" onClick={() => change({ name: 'joinBays', payload: at })}>
            {t('bay.alone')}
          </Button>
        )}
      </div>
      <span className="chips">
        {cuts.map((cut) => (
          <Button
            key={cut}
            size="small"
            aria-label={t('bay.cutOf', { name: bay.name, what: t(`bay.cut.${cut}`) })}
            onClick={() => change({ name: 'divideBay', payload: { ...at, cut, into: 2 } })}
          >
            {t(`bay.cut.${cut}`)}
          </Button>
        ))}
      </span>
      <div className="fields">
        <PickField
          label={t('bay.holds')}
          of={bay.name}
          value={holds.kind}
          choices={HOLDS.filter(
            (kind) => holds.kind === kind || ((kind !== 'thing' || things.length > 0) && !(behind && SLIDES.has(kind))),
          ).map((kind) => ({
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
        {(holds.kind === 'thing' || (holds.kind === 'pull-out' && holds.thing !== null)) &&
          (['low', 'high', 'fan'] as const).map((name) => (
            <NumberField
              key={name}
              label={t(`bay.vent.${name}`)}
              value={bay.vents?.[name] ?? 0}
              least={0}
              most={name === 'fan' ? 2000 : MOST_VENT}
              onTake={(value) =>
                act({ name: 'changeBay', payload: { ...at, vents: { low: 0, high: 0, ...bay.vents, [name]: value } } })
              }
            />
          ))}
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
          choices={FRONTS.filter((kind) => !behind || front.kind === kind || STANDS.has(kind)).map((kind) => ({
            value: kind,
            text: t(`front.${kind}`),
          }))}
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
        {within && (
          <LengthField
            label={t(`bay.clear.${within.cut.cut}`)}
            value={typeof within.size === 'number' ? within.size : 0}
            onTake={(mm) => act({ name: 'sizeBay', payload: { ...at, size: mm === 0 ? null : mm } })}
          />
        )}
        {within && (
          <PickField
            label={t('bay.between')}
            of={bay.name}
            value={within.cut.divider}
            choices={(['board', 'frame', 'none'] as const).map((value) => ({ value, text: t(`bay.between.${value}`) }))}
            onPick={(divider) => act({ name: 'changeDividers', payload: { ...at, divider } })}
          />
        )}
        {within?.size === 'as needed' && <p className="small soft">{t('bay.asNeeded')}</p>}
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
  const bays = baysOf(unit.division);
  return (
    <section className="section stack" aria-label={t('bay.title')}>
      <h2>{t('bay.title')}</h2>
      {bays.length > 1 && <p className="small soft">{t('bay.hint')}</p>}
      {skeleton && <Elevation unit={unit} skeleton={skeleton} />}
      {bays.map((bay) => (
        <BayFields
          key={bay.name}
          unit={unit}
          bay={bay}
          things={things}
          behind={skeleton?.bays?.some((own) => own.bay.name === bay.name && own.behind !== undefined) === true}
        />
      ))}
    </section>
  );
}
