import { Problem } from '../../kit/Problem.js';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useRef, useState } from 'react';
import { describeAddress, type OperationOf, type Reading } from '@nestplank/core/document';
import type { OutlineOf, ReadReadings } from '@nestplank/core/exchange';
import { FileButton } from '../../kit/FileButton.js';
import { api } from '../../state/api.js';
import { act, useSession } from '../../state/session.js';
import type { Scene } from '../../state/scene.js';
import { PickField } from '../../kit/PickField.js';
import { readValue, valueText } from '../../kit/read-value.js';
import { useSpeech } from '../../words/use-speech.js';

type Payload = OperationOf<'takeReadings'>['payload'];
/** So many problems are named one by one. */
const NAMED = 12;

/** Figures typed line by line in the order of the survey sheet, from its first open box. */
function TypedSheet({ scene }: { readonly scene: Scene }) {
  const speech = useSpeech();
  const { t, said } = speech;
  const { survey } = scene.project;
  const [typed, setTyped] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const open = scene.shape.walk.filter((address) => !survey.readings[address]);
  const lines = typed.split('\n').slice(0, open.length);
  const read = lines.flatMap((line, i) => {
    const address = open[i];
    return address === undefined || line.trim() === ''
      ? []
      : [{ address, line, result: readValue(line, address, speech) }];
  });
  const bad = read.find(({ result }) => !result.ok);
  const take = (): void => {
    const at = new Date().toISOString();
    const refused = act({
      name: 'takeReadings',
      payload: {
        stations: [],
        readings: read.flatMap(({ address, result }) =>
          result.ok
            ? [{ address, reading: { value: result.value, method: 'tape' as const, at } satisfies Reading }]
            : [],
        ),
      },
    });
    setProblem(refused && said(refused));
    if (!refused) setTyped('');
  };
  return (
    <section className="section stack" aria-label={t('exchange.typed')}>
      <h2>{t('exchange.typed')}</h2>
      <p className="small soft">{t('exchange.typedHint')}</p>
      <div className="walk">
        <TextField
          className="typed-box"
          multiline
          minRows={8}
          maxRows={14}
          value={typed}
          error={bad !== undefined || problem !== null}
          helperText={bad && !bad.result.ok ? said(bad.result.error) : problem}
          onChange={(event) => {
            setTyped(event.target.value);
            setProblem(null);
          }}
          slotProps={{ htmlInput: { 'aria-label': t('exchange.typed') } }}
        />
        <ol className="typed-list small" start={1}>
          {open.slice(0, Math.max(6, lines.length + 2)).map((address) => {
            const own = read.find((item) => item.address === address);
            return (
              <li key={address} value={scene.shape.walk.indexOf(address) + 1}>
                {said(describeAddress(survey, address))}{' '}
                {own && (
                  <b className={own.result.ok ? 'data' : 'needs'}>
                    {own.result.ok ? valueText(own.result.value, address, speech) : own.line}
                  </b>
                )}
              </li>
            );
          })}
        </ol>
      </div>
      <div>
        <Button onClick={take} disabled={read.length === 0 || bad !== undefined}>
          {t('exchange.typedTake', { count: read.length })}
        </Button>
      </div>
    </section>
  );
}

/** Readings out as a sheet and a file; in from a file, a drawing, or typed from the sheet. */
export function ExchangePanel({ scene }: { readonly scene: Scene }) {
  const { t, said, style } = useSpeech();
  const id = useSession((s) => s.id);
  const { survey } = scene.project;
  const csv = useRef<HTMLInputElement>(null);
  const drawing = useRef<HTMLInputElement>(null);
  const [found, setFound] = useState<ReadReadings | null>(null);
  const [outline, setOutline] = useState<Payload | null>(null);
  const [what, setWhat] = useState<OutlineOf>('floor');
  const [station, setStation] = useState(survey.stations[0]?.id ?? '');
  const [problem, setProblem] = useState<string | null>(null);
  const now = (): string => new Date().toISOString();
  const takeCsv = async (file: File | undefined): Promise<void> => {
    if (!file) return;
    setProblem(null);
    const { readReadingsCsv } = await import('@nestplank/core/exchange');
    setFound(readReadingsCsv(await file.text(), survey, style.units, now()));
  };
  const takeDrawing = async (file: File | undefined): Promise<void> => {
    if (!file) return;
    setProblem(null);
    setOutline(null);
    const { readOutline, readingsOfOutline } = await import('@nestplank/core/exchange');
    try {
      setOutline(readingsOfOutline(readOutline(file.name, await file.text()), what, survey, station || null, now()));
    } catch (reason) {
      if (!(reason instanceof Error && 'said' in reason)) throw reason;
      setProblem(said(reason.said as Parameters<typeof said>[0]));
    }
  };
  const take = (payload: Payload, done: () => void): void => {
    const refused = act({ name: 'takeReadings', payload });
    setProblem(refused && said(refused));
    if (!refused) done();
  };
  return (
    <div className="stack gap-18">
      <section className="stack" aria-label={t('exchange.out')}>
        <h2>{t('exchange.out')}</h2>
        <div className="row wrap">
          <FileButton address={api.fileAddress(id ?? '', 'survey')}>{t('exchange.sheet')}</FileButton>
          <FileButton address={api.fileAddress(id ?? '', 'readings')}>{t('exchange.csv')}</FileButton>
        </div>
      </section>
      <TypedSheet scene={scene} />
      <section className="section stack" aria-label={t('exchange.in')}>
        <h2>{t('exchange.in')}</h2>
        {problem && <Problem>{problem}</Problem>}
        <div>
          <Button onClick={() => csv.current?.click()}>{t('exchange.csvIn')}</Button>
          <input
            ref={csv}
            type="file"
            accept=".csv,text/csv"
            hidden
            aria-label={t('exchange.csvIn')}
            onChange={(event) => {
              void takeCsv(event.target.files?.[0]);
              event.target.value = '';
            }}
          />
        </div>
        {found?.fault && <Problem>{said(found.fault)}</Problem>}
        {found && !found.fault && (
          <div className="stack" role="status">
            <div className="row">
              <p className="grow">
                {t('exchange.csvReady', { good: found.payload.readings.length, rows: found.rows })}
              </p>
              <Button
                variant="contained"
                disabled={found.payload.readings.length === 0}
                onClick={() => take(found.payload, () => setFound(null))}
              >
                {t('exchange.take')}
              </Button>
            </div>
            {found.problems.length > 0 && (
              <ul className="small needs-list">
                {found.problems.slice(0, NAMED).map((row) => (
                  <li key={row.row}>{t('exchange.csvBad', { row: row.row, why: said(row.said) })}</li>
                ))}
                {found.problems.length > NAMED && (
                  <li>{t('exchange.more', { count: found.problems.length - NAMED })}</li>
                )}
              </ul>
            )}
          </div>
        )}
        <div className="fields two">
          <PickField
            label={t('exchange.outlineOf')}
            value={what}
            choices={(['floor', 'section'] as const).map((value) => ({ value, text: t(`exchange.outline.${value}`) }))}
            onPick={setWhat}
          />
          {what === 'section' && (
            <PickField
              label={t('exchange.station')}
              value={station}
              choices={survey.stations.map((item) => ({ value: item.id, text: item.name }))}
              onPick={setStation}
            />
          )}
        </div>
        <div>
          <Button onClick={() => drawing.current?.click()}>{t('exchange.outline')}</Button>
          <input
            ref={drawing}
            type="file"
            accept=".dxf,.svg"
            hidden
            aria-label={t('exchange.outline')}
            onChange={(event) => {
              void takeDrawing(event.target.files?.[0]);
              event.target.value = '';
            }}
          />
        </div>
        {outline && (
          <div className="row" role="status">
            <p className="grow">{t('exchange.outlineReady', { count: outline.readings.length })}</p>
            <Button
              variant="contained"
              disabled={outline.readings.length === 0}
              onClick={() => take(outline, () => setOutline(null))}
            >
              {t('exchange.take')}
            </Button>
          </div>
        )}
      </section>
    </div>
  );
}
