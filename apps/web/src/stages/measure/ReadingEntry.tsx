import Button from '@mui/material/Button';
import ToggleButton from '@mui/material/ToggleButton';
import { useEffect, useMemo, useRef, useState, type RefObject } from 'react';
import {
  describeAddress,
  isSectionPlace,
  parseAddress,
  unitOf,
  type Place,
  type Reading,
} from '@nestplank/core/document';
import { expectedAt } from '@nestplank/core/measure';
import { formatLengthWithUnit } from '@nestplank/core/words';
import { Slice } from '../../slice/Slice.js';
import { StandIn } from '../../slice/StandIn.js';
import { act } from '../../state/session.js';
import type { Scene } from '../../state/scene.js';
import { PickField } from '../../kit/PickField.js';
import { readValue, unitWord, valueText, valueTextUnit } from '../../kit/read-value.js';
import type { UiKey } from '../../words/en.js';
import { useSpeech } from '../../words/use-speech.js';
import { InstrumentBar } from './InstrumentBar.js';
import { Keypad } from './Keypad.js';
import type { InstrumentLink, InstrumentReading } from './use-instrument.js';

const METHODS = ['tape', 'laser', 'template', 'angle-finder', 'estimate'] as const;

function hintFor(place: Place | null): UiKey {
  switch (place?.kind) {
    case 'station':
      if (!isSectionPlace(place)) return 'hint.x';
      return place.what === 'roof' ? 'hint.roof' : place.what === 'width' ? 'hint.width' : 'hint.wall';
    case 'opening':
      return place.what.startsWith('frame') ? 'hint.frame' : 'hint.opening';
    case 'arch':
    case 'rib':
    case 'keepout':
    case 'hole':
    case 'level':
    case 'angle':
      return `hint.${place.kind}`;
    default:
      return 'hint.floor';
  }
}

const PHONE = '(max-width: 560px)';
/** Fingers, or a phone's width. */
const KEYPAD_FROM_THE_START = '(pointer: coarse), (max-width: 560px)';

const mean = (values: readonly number[]): number => values.reduce((sum, value) => sum + value, 0) / values.length;

/** One reading: what it is, where the tape's ends go, a big numeral, Enter. What cannot be right stays typed, with the reason. */
export function ReadingEntry({
  scene,
  address,
  instrument,
  listener,
  onDone,
}: {
  readonly scene: Scene;
  readonly address: string;
  readonly instrument: InstrumentLink;
  /** Where this entry leaves word that it takes the instrument's figures. */
  readonly listener: RefObject<((reading: InstrumentReading) => void) | null>;
  readonly onDone: () => void;
}) {
  const speech = useSpeech();
  const { t, said, len, entry } = speech;
  const { survey, practice } = scene.project;
  const place = parseAddress(address);
  const angle = place !== null && unitOf(place) === 'degrees';
  const [typed, setTyped] = useState('');
  const [method, setMethod] = useState<Reading['method']>(angle ? 'angle-finder' : 'tape');
  const [problem, setProblem] = useState<string | null>(null);
  const [held, setHeld] = useState<readonly number[]>([]);
  const [keypad, setKeypad] = useState(() => window.matchMedia(KEYPAD_FROM_THE_START).matches);
  const [narrow] = useState(() => window.matchMedia(PHONE).matches);
  const input = useRef<HTMLInputElement>(null);
  const before = survey.readings[address] ?? [];
  const expected = useMemo(() => expectedAt(survey, address), [survey, address]);
  const read = typed.trim() === '' ? null : readValue(typed, address, speech);
  const away = read?.ok && expected ? Math.abs(read.value - expected.value) : null;
  useEffect(() => {
    if (!keypad) input.current?.focus({ preventScroll: true });
  }, [keypad]);

  const keep = (values: readonly number[], by: Reading['method'], at: string): void => {
    const reading: Reading = {
      value: Math.round(mean(values) * 1000) / 1000,
      method: by,
      at,
      ...(values.length > 1 ? { repeats: [...values] } : {}),
    };
    const refused = act({ name: 'takeReading', payload: { address, reading } });
    setProblem(refused && said(refused));
    if (refused) input.current?.focus();
    else onDone();
  };
  const take = (): void => {
    if (typed.trim() === '' && held.length > 0) {
      keep(held, method, new Date().toISOString());
      return;
    }
    const result = readValue(typed, address, speech);
    if (!result.ok) {
      setProblem(said(result.error));
      input.current?.focus();
      return;
    }
    keep([...held, result.value], method, new Date().toISOString());
  };
  const hold = (): void => {
    const result = readValue(typed, address, speech);
    if (result.ok) {
      setHeld([...held, result.value]);
      setTyped('');
      setProblem(null);
    } else setProblem(said(result.error));
    input.current?.focus();
  };
  const skip = (): void => {
    const refused = act({ name: 'skipReading', payload: { address } });
    if (refused) setProblem(said(refused));
    else onDone();
  };
  useEffect(() => {
    listener.current = (reading) => {
      if (reading.address === address) keep([...held, reading.value], instrument.kind, reading.at);
    };
    return () => {
      listener.current = null;
    };
  });
  const change = (next: string): void => {
    setTyped(next);
    setProblem(null);
  };
  return (
    <>
      <div className="walk-title">
        <h1>{said(describeAddress(survey, address))}</h1>
        <p className="soft">{t(hintFor(place))}</p>
      </div>
      <div className="walk">
        <div className="walk-slice">
          {scene.shape.shell ? (
            <Slice tape={address} at={null} height={narrow ? 120 : keypad ? 200 : 250} />
          ) : (
            <StandIn address={address} kind={scene.project.vehicle.kind} />
          )}
        </div>
        {keypad && (
          <div className="walk-keys">
            <Keypad onType={(sign) => change(typed + sign)} onBack={() => change(typed.slice(0, -1))} onTake={take} />
          </div>
        )}
        <div className="walk-figure stack">
          <input
            ref={input}
            className="big-entry"
            value={typed}
            aria-label={`${t('measure.typed')}, ${unitWord(address, speech)}`}
            aria-invalid={problem !== null}
            autoComplete="off"
            inputMode={keypad ? 'none' : 'text'}
            onChange={(event) => change(event.target.value)}
            onKeyDown={(event) => {
              if (event.key === 'Enter') take();
              if (event.key === 'Escape') input.current?.blur();
            }}
          />
          <span className="figures soft">
            {read?.ok
              ? angle
                ? valueTextUnit(read.value, address, speech)
                : `${speech.lenUnit(read.value)} · ${inOtherUnits(read.value, speech.style)}`
              : unitWord(address, speech)}
          </span>
          {problem && (
            <p className="needs" role="alert">
              {problem}
            </p>
          )}
          {expected && (
            <p className="small">
              {t('measure.expected', { value: len(expected.value), within: len(expected.within) })}{' '}
              {away !== null &&
                (away <= expected.within ? (
                  <span className="done">✓ {t('measure.agrees')}</span>
                ) : (
                  <span className="needs">! {t('measure.off', { by: len(away) })}</span>
                ))}
            </p>
          )}
        </div>
        <div className="walk-more stack">
          {held.length > 0 && (
            <p className="small figures">
              {t('measure.repeats', { values: held.map((value) => valueText(value, address, speech)).join(', ') })}
            </p>
          )}
          {before.length > 0 && (
            <p className="small soft figures">
              {t('measure.was', {
                values: before
                  .map((reading) => (angle ? valueText(reading.value, address, speech) : entry(reading.value)))
                  .join(', '),
              })}
            </p>
          )}
          <div className="row wrap">
            {!keypad && (
              <Button variant="contained" onClick={take}>
                {t('measure.take')} ↵
              </Button>
            )}
            <Button onClick={skip}>{t('measure.skip')}</Button>
          </div>
          <div className="row wrap">
            <Button size="small" variant="text" onClick={hold}>
              {t('measure.repeat')}
            </Button>
            <ToggleButton value="keypad" size="small" selected={keypad} onChange={() => setKeypad(!keypad)}>
              {t('measure.keypad')}
            </ToggleButton>
          </div>
          {practice && <InstrumentBar link={instrument} address={address} />}
          <PickField
            label={t('measure.method')}
            value={method}
            choices={METHODS.map((value) => ({ value, text: t(`method.${value}`) }))}
            onPick={setMethod}
          />
        </div>
      </div>
    </>
  );
}

function inOtherUnits(mm: number, style: { readonly units: 'mm' | 'in'; readonly fraction: 16 | 32 }): string {
  const units = style.units === 'mm' ? 'in' : 'mm';
  return formatLengthWithUnit(mm, { units, fraction: style.fraction }, units === 'mm' ? 1 : 0);
}
