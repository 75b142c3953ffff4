import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import { useEffect, useState, type ReactNode } from 'react';
import { parseLength, type Arch, type Opening, type Operation, type Survey } from '@nestplank/core';
import { act, notify } from '../../state/session.js';
import { PickField } from '../../ui/PickField.js';
import { useSpeech } from '../../words/words.js';

/** A list of lengths with semicolons between them. */
function LengthList({
  label,
  values,
  onTake,
}: {
  readonly label: string;
  readonly values: readonly number[];
  readonly onTake: (values: number[]) => string | null;
}) {
  const { entry, style, said } = useSpeech();
  const shown = values.map(entry).join('; ');
  const [typed, setTyped] = useState(shown);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    setTyped(shown);
    setProblem(null);
  }, [shown]);
  const take = (): void => {
    if (typed.trim() === shown) return;
    const read = typed
      .split(';')
      .filter((text) => text.trim() !== '')
      .map((text) => parseLength(text, style.units));
    const bad = read.find((result) => !result.ok);
    if (bad && !bad.ok) {
      setProblem(said(bad.error));
      return;
    }
    setProblem(onTake([...new Set(read.flatMap((result) => (result.ok ? [result.mm] : [])))].sort((a, b) => a - b)));
  };
  return (
    <TextField
      label={`${label}, ${style.units}`}
      value={typed}
      error={problem !== null}
      helperText={problem}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={take}
      onKeyDown={(event) => event.key === 'Enter' && take()}
    />
  );
}

function nextId(
  prefix: string,
  list: readonly { readonly id: string }[],
): { readonly id: string; readonly number: number } {
  const number =
    1 + Math.max(0, ...list.map((item) => Number(new RegExp(`^${prefix}(\\d+)$`).exec(item.id)?.[1] ?? 0)));
  return { id: `${prefix}${number}`, number };
}

/** What is to be measured: stations, ribs, arches, openings, and at which heights. */
export function ThingsPanel({ survey }: { readonly survey: Survey }) {
  const { t, said } = useSpeech();
  const perform = (operation: Operation): string | null => {
    const refused = act(operation);
    if (refused) notify(said(refused), 'trouble');
    return refused && said(refused);
  };
  const nameField = (name: string, take: (name: string) => void): ReactNode => (
    <TextField
      key={name}
      defaultValue={name}
      slotProps={{ htmlInput: { 'aria-label': `${t('common.name')}: ${name}` } }}
      onBlur={(event) => {
        const typed = event.target.value.trim();
        if (typed !== '' && typed !== name) take(typed);
        else event.target.value = name;
      }}
    />
  );
  const removeButton = (name: string, operation: Operation): ReactNode => (
    <Button size="small" variant="text" onClick={() => perform(operation)} aria-label={`${t('common.remove')} ${name}`}>
      {t('common.remove')}
    </Button>
  );
  const putArch = (arch: Arch): void => void perform({ name: 'putArch', payload: { arch } });
  const putOpening = (opening: Opening): void => void perform({ name: 'putOpening', payload: { opening } });
  const station = nextId('s', survey.stations);
  const rib = nextId('r', survey.ribs);
  const arch = nextId('a', survey.arches);
  const opening = nextId('o', survey.openings);
  const sides = (['left', 'right'] as const).map((value) => ({ value, text: t(`surface.${value}`) }));
  return (
    <div className="stack" style={{ gap: 20, paddingTop: 6 }}>
      <LengthList
        label={t('measure.heights')}
        values={survey.heights}
        onTake={(heights) => perform({ name: 'planSurvey', payload: { changes: { heights } } })}
      />
      <LengthList
        label={t('measure.roofOffsets')}
        values={survey.roofOffsets}
        onTake={(roofOffsets) => perform({ name: 'planSurvey', payload: { changes: { roofOffsets } } })}
      />
      <FormControlLabel
        control={
          <Checkbox
            checked={survey.symmetric}
            onChange={(_event, symmetric) => perform({ name: 'planSurvey', payload: { changes: { symmetric } } })}
          />
        }
        label={t('measure.symmetric')}
      />
      <section className="section stack">
        <h2>{t('measure.stations')}</h2>
        {survey.stations.map((item) => (
          <div className="row" key={item.id}>
            {nameField(item.name, (name) => perform({ name: 'putStation', payload: { station: { ...item, name } } }))}
            {removeButton(item.name, { name: 'removeStation', payload: { id: item.id } })}
          </div>
        ))}
        <div>
          <Button
            onClick={() =>
              perform({
                name: 'putStation',
                payload: { station: { id: station.id, name: `Station ${station.number}` } },
              })
            }
          >
            {t('measure.addStation')}
          </Button>
        </div>
      </section>
      <section className="section stack">
        <h2>{t('measure.ribs')}</h2>
        {survey.ribs.map((item) => (
          <div className="row" key={item.id}>
            {nameField(item.name, (name) => perform({ name: 'putRib', payload: { rib: { ...item, name } } }))}
            {removeButton(item.name, { name: 'removeRib', payload: { id: item.id } })}
          </div>
        ))}
        <div>
          <Button
            onClick={() => perform({ name: 'putRib', payload: { rib: { id: rib.id, name: `rib ${rib.number}` } } })}
          >
            {t('measure.addRib')}
          </Button>
        </div>
      </section>
      <section className="section stack">
        <h2>{t('measure.arches')}</h2>
        {survey.arches.map((item) => (
          <div className="row" key={item.id}>
            {nameField(item.name, (name) => putArch({ ...item, name }))}
            <PickField
              hideLabel
              label={`${t('field.side')}: ${item.name}`}
              value={item.side}
              choices={sides}
              onPick={(side) => putArch({ ...item, side })}
            />
            <PickField
              hideLabel
              label={`${t('shape.box')}, ${t('shape.rounded')}: ${item.name}`}
              value={item.shape}
              choices={(['box', 'rounded'] as const).map((value) => ({ value, text: t(`shape.${value}`) }))}
              onPick={(shape) => putArch({ ...item, shape })}
            />
            {removeButton(item.name, { name: 'removeArch', payload: { id: item.id } })}
          </div>
        ))}
        <div>
          <Button onClick={() => putArch({ id: arch.id, name: `Arch ${arch.number}`, side: 'left', shape: 'box' })}>
            {t('measure.addArch')}
          </Button>
        </div>
      </section>
      <section className="section stack">
        <h2>{t('measure.openings')}</h2>
        {survey.openings.map((item) => (
          <div className="row" key={item.id}>
            {nameField(item.name, (name) => putOpening({ ...item, name }))}
            <PickField
              hideLabel
              label={`${t('opening.window')}, ${t('opening.door')}: ${item.name}`}
              value={item.kind}
              choices={(['window', 'door', 'hatch', 'fan'] as const).map((value) => ({
                value,
                text: t(`opening.${value}`),
              }))}
              onPick={(kind) => putOpening({ ...item, kind })}
            />
            <PickField
              hideLabel
              label={`${t('field.side')}: ${item.name}`}
              value={item.surface}
              choices={(['left', 'right', 'rear', 'roof'] as const).map((value) => ({
                value,
                text: t(`surface.${value}`),
              }))}
              onPick={(surface) => putOpening({ ...item, surface })}
            />
            {removeButton(item.name, { name: 'removeOpening', payload: { id: item.id } })}
          </div>
        ))}
        <div>
          <Button
            onClick={() =>
              putOpening({
                id: opening.id,
                name: `Opening ${opening.number}`,
                kind: 'window',
                surface: 'left',
                cornerRadius: 60,
                swing: 'fixed',
              })
            }
          >
            {t('measure.addOpening')}
          </Button>
        </div>
      </section>
    </div>
  );
}
