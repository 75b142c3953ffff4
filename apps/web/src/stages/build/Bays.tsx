import Button from '@mui/material/Button';
import { baysOf, type Bay, type Unit } from '@nestplank/core/document';
import { act } from '../../state/session.js';
import { LengthField } from '../../kit/LengthField.js';
import { NumberField } from '../../kit/NumberField.js';
import { useChange } from '../../kit/use-change.js';
import { useSpeech } from '../../words/words.js';

const MOST_SHELVES = 8;
const MOST_DOORS = 6;
const countIn = (of: Bay['holds'] | Bay['front']): number => ('count' in of ? of.count : 0);

/** The clear size a bay was given in the cut it is in; null for a share, or when it is in none. */
function sizeOf(division: Unit['division'], bay: string): number | null {
  if (!('cut' in division)) return null;
  for (const [i, part] of division.parts.entries()) {
    const size = division.sizes[i];
    if (!('cut' in part) && part.name === bay) return typeof size === 'number' ? size : null;
    const inside = sizeOf(part, bay);
    if (inside !== null) return inside;
  }
  return null;
}

/** One bay of a divided unit: what it holds, how it is closed, how wide it is. */
function BayFields({ unit, bay }: { readonly unit: Unit; readonly bay: Bay }) {
  const { t } = useSpeech();
  const change = useChange();
  const at = { id: unit.id, bay: bay.name };
  const size = sizeOf(unit.division, bay.name);
  return (
    <section className="stack bay" aria-label={t('bay.name', { name: bay.name })}>
      <div className="row apart">
        <strong>{t('bay.name', { name: bay.name })}</strong>
        <Button size="small" onClick={() => change({ name: 'joinBays', payload: at })}>
          {t('bay.alone')}
        </Button>
      </div>
      <div className="fields">
        <NumberField
          label={t('field.shelves')}
          value={countIn(bay.holds)}
          least={0}
          most={MOST_SHELVES}
          whole
          onTake={(count) =>
            act({
              name: 'changeBay',
              payload: { ...at, holds: count > 0 ? { kind: 'shelves', count } : { kind: 'open' } },
            })
          }
        />
        <NumberField
          label={t('field.doors')}
          value={countIn(bay.front)}
          least={0}
          most={MOST_DOORS}
          whole
          onTake={(count) =>
            act({
              name: 'changeBay',
              payload: { ...at, front: count > 0 ? { kind: 'doors', count } : { kind: 'none' } },
            })
          }
        />
        <LengthField
          label={t('bay.clear')}
          value={size ?? 0}
          onTake={(mm) => act({ name: 'sizeBay', payload: { ...at, size: mm === 0 ? null : mm } })}
        />
      </div>
    </section>
  );
}

/** The bays of a unit: divided once more, each with its own figures. A bay keeps its name when others come or go. */
export function Bays({ unit }: { readonly unit: Unit }) {
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
      {bays.length > 1 && (
        <>
          <p className="small soft">{t('bay.hint')}</p>
          {bays.map((bay) => (
            <BayFields key={bay.name} unit={unit} bay={bay} />
          ))}
        </>
      )}
    </section>
  );
}
