import Button from '@mui/material/Button';
import { useEffect, useRef, useState } from 'react';
import {
  describeAddress,
  expectedAt,
  formatLengthWithUnit,
  parseAddress,
  parseLength,
  type Place,
  type Reading,
} from '@nestplank/core';
import { Slice } from '../../slice/Slice.js';
import { StandIn } from '../../slice/StandIn.js';
import { act } from '../../state/session.js';
import type { Scene } from '../../state/scene.js';
import { PickField } from '../../ui/PickField.js';
import type { UiKey } from '../../words/en.js';
import { useSpeech } from '../../words/words.js';

const METHODS = ['tape', 'laser', 'template', 'estimate'] as const;

function hintFor(place: Place | null): UiKey {
  if (place?.kind === 'station')
    return place.what === 'x'
      ? 'hint.x'
      : place.what === 'roof'
        ? 'hint.roof'
        : place.what === 'width'
          ? 'hint.width'
          : 'hint.wall';
  if (place?.kind === 'arch') return 'hint.arch';
  if (place?.kind === 'rib') return 'hint.rib';
  return place?.kind === 'opening' ? 'hint.opening' : 'hint.floor';
}

/** One reading: what it is, where the tape's ends go, a big numeral, Enter. What cannot be right stays typed, with the reason. */
export function ReadingEntry({
  scene,
  address,
  onDone,
}: {
  readonly scene: Scene;
  readonly address: string;
  readonly onDone: () => void;
}) {
  const speech = useSpeech();
  const { t, said, len, lenUnit, entry } = speech;
  const { survey } = scene.project;
  const [typed, setTyped] = useState('');
  const [method, setMethod] = useState<Reading['method']>('tape');
  const [problem, setProblem] = useState<string | null>(null);
  const input = useRef<HTMLInputElement>(null);
  const before = survey.readings[address] ?? [];
  const place = parseAddress(address);
  const expected = expectedAt(survey, address);
  const read = typed.trim() === '' ? null : parseLength(typed, speech.style.units);
  const other = {
    units: speech.style.units === 'mm' ? ('in' as const) : ('mm' as const),
    fraction: speech.style.fraction,
  };
  const away = read?.ok && expected ? Math.abs(read.mm - expected.value) : null;
  useEffect(() => input.current?.focus({ preventScroll: true }), []);

  const take = (): void => {
    const result = parseLength(typed, speech.style.units);
    const refused = result.ok
      ? act({
          name: 'takeReading',
          payload: { address, reading: { value: result.mm, method, at: new Date().toISOString() } },
        })
      : result.error;
    setProblem(refused && said(refused));
    if (refused) input.current?.focus();
    else onDone();
  };
  const skip = (): void => {
    const refused = act({ name: 'skipReading', payload: { address } });
    if (refused) setProblem(said(refused));
    else onDone();
  };
  return (
    <>
      <div>
        <h1>{said(describeAddress(survey, address))}</h1>
        <p className="soft">{t(hintFor(place))}</p>
      </div>
      <div className="walk">
        {scene.shape.shell ? (
          <Slice tape={address} at={null} height={270} />
        ) : (
          <StandIn address={address} kind={scene.project.vehicle.kind} />
        )}
        <div className="stack">
          <input
            ref={input}
            className="big-entry"
            value={typed}
            aria-label={`${t('measure.typed')}, ${speech.style.units}`}
            aria-invalid={problem !== null}
            autoComplete="off"
            inputMode="text"
            onChange={(event) => {
              setTyped(event.target.value);
              setProblem(null);
            }}
            onKeyDown={(event) => {
              if (event.key === 'Enter') take();
              if (event.key === 'Escape') input.current?.blur();
            }}
          />
          <span className="figures soft">
            {read?.ok ? `${lenUnit(read.mm)} · ${inOtherUnits(read.mm, other)}` : speech.style.units}
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
          {before.length > 0 && (
            <p className="small soft figures">
              {t('measure.was', { values: before.map((reading) => entry(reading.value)).join(', ') })}
            </p>
          )}
          <div className="row wrap">
            <Button variant="contained" onClick={take}>
              {t('measure.take')} ↵
            </Button>
            <Button onClick={skip}>{t('measure.skip')}</Button>
          </div>
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
  return formatLengthWithUnit(mm, style, style.units === 'mm' ? 1 : 0);
}
