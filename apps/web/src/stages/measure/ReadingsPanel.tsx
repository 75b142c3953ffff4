import Button from '@mui/material/Button';
import Autocomplete from '@mui/material/Autocomplete';
import TextField from '@mui/material/TextField';
import CloseIcon from '@mui/icons-material/Close';
import PhotoCameraOutlinedIcon from '@mui/icons-material/PhotoCameraOutlined';
import IconButton from '@mui/material/IconButton';
import type { GridColDef } from '@mui/x-data-grid';
import { useRef, useState } from 'react';
import { Grid } from '../../kit/Grid.js';
import type { Moved } from '@nestplank/core/derive';
import { describeAddress } from '@nestplank/core/document';
import { furtherReadings } from '@nestplank/core/measure';
import { api, RefusedError } from '../../state/api.js';
import { askMoved, notify, useSession } from '../../state/session.js';
import { useChange } from '../../kit/use-change.js';
import type { Scene } from '../../state/scene.js';
import { valueText } from '../../kit/read-value.js';
import { useSpeech } from '../../words/use-speech.js';

/** One reading as a row: what is read, its last figure, those before it. */
interface Row {
  readonly id: string;
  readonly what: string;
  readonly value: number | null;
  readonly text: string;
  readonly before: readonly string[];
  readonly estimate: boolean;
  readonly doubtful: boolean;
  readonly photo: string | null;
}

/** What one retaken reading changed. */
function MovedList({ moved }: { readonly moved: Moved }) {
  const speech = useSpeech();
  const { t, len, lenUnit } = speech;
  const by = moved.after - moved.before;
  const lines = [
    ...moved.figures.map((figure) =>
      t(`measure.movedFigure.${figure.what}`, { by: `${figure.by > 0 ? '+' : '−'}${len(Math.abs(figure.by), 1)}` }),
    ),
    ...moved.parts.map((part) =>
      Number.isFinite(part.by)
        ? t('measure.movedPart', { part: part.id, by: lenUnit(Math.round(part.by * 10) / 10) })
        : t('measure.movedNew', { part: part.id }),
    ),
    ...moved.checks.map((check) => t('measure.movedCheck', { check: check.id, from: check.from, to: check.to })),
  ];
  return (
    <div className="moved" role="status">
      <p className="figures">
        {t(by >= 0 ? 'measure.movedFrom' : 'measure.movedLess', {
          before: valueText(moved.before, moved.address, speech),
          after: valueText(moved.after, moved.address, speech),
          by: valueText(Math.abs(by), moved.address, speech),
        })}
      </p>
      {lines.length === 0 ? (
        <p className="small soft">{t('measure.movedNothing')}</p>
      ) : (
        <ul className="small">
          {lines.map((line) => (
            <li key={line}>{line}</li>
          ))}
        </ul>
      )}
    </div>
  );
}

/** A reading the walk does not ask for, to check others by. */
function Further({ scene }: { readonly scene: Scene }) {
  const { t, said } = useSpeech();
  const change = useChange();
  const { survey } = scene.project;
  const choices = furtherReadings(survey).map((address) => ({
    address,
    label: said(describeAddress(survey, address)),
  }));
  const [chosen, setChosen] = useState<(typeof choices)[number] | null>(null);
  const ask = (): void => {
    if (!chosen) return;
    if (change({ name: 'askReading', payload: { address: chosen.address } })) setChosen(null);
  };
  return (
    <div className="row at-end">
      <Autocomplete
        className="grow"
        options={choices}
        value={chosen}
        onChange={(_event, value) => setChosen(value)}
        isOptionEqualToValue={(a, b) => a.address === b.address}
        renderInput={(params) => <TextField {...params} label={t('measure.further')} />}
      />
      <Button onClick={ask} disabled={!chosen}>
        {t('measure.furtherAdd')}
      </Button>
    </div>
  );
}

/** The photo of one reading: looked at, or taken. */
function ReadingPhoto({
  what,
  address,
  index,
  photo,
}: {
  readonly what: string;
  readonly address: string;
  readonly index: number;
  readonly photo: string | null;
}) {
  const { t } = useSpeech();
  const id = useSession((s) => s.id);
  const change = useChange();
  const file = useRef<HTMLInputElement>(null);
  const add = async (chosen: File | undefined): Promise<void> => {
    if (!chosen || !id) return;
    try {
      const made = await api.addPhoto(id, chosen);
      change({ name: 'photoReading', payload: { address, index, photo: made.id } });
    } catch (problem) {
      notify(problem instanceof RefusedError ? problem.message : t('home.failed'), 'trouble');
    }
  };
  if (photo !== null)
    return (
      <a href={api.photoAddress(photo, false)} target="_blank" rel="noreferrer">
        <img className="thumb" src={api.photoAddress(photo, true)} alt={t('readings.photoOf', { what })} />
      </a>
    );
  return (
    <>
      <IconButton onClick={() => file.current?.click()} aria-label={t('readings.photoAdd', { what })}>
        <PhotoCameraOutlinedIcon fontSize="small" />
      </IconButton>
      <input
        ref={file}
        type="file"
        accept="image/*"
        capture="environment"
        hidden
        aria-label={t('readings.photoOf', { what })}
        onChange={(event) => {
          void add(event.target.files?.[0]);
          event.target.value = '';
        }}
      />
    </>
  );
}

/** All readings with their history, in walking order. */
export default function ReadingsPanel({
  scene,
  onPick,
}: {
  readonly scene: Scene;
  readonly onPick: (address: string) => void;
}) {
  const speech = useSpeech();
  const { t, said } = speech;
  const change = useChange();
  const [moved, setMoved] = useState<Moved | null>(null);
  const { survey } = scene.project;
  const outliers = new Set(scene.shape.outliers.map((outlier) => outlier.address));
  const rows = [...new Set([...scene.shape.walk, ...Object.keys(survey.readings)])].map((address): Row => {
    const readings = survey.readings[address] ?? [];
    const last = readings.at(-1);
    return {
      id: address,
      what: said(describeAddress(survey, address)),
      value: last?.value ?? null,
      text: last ? valueText(last.value, address, speech) : '–',
      before: readings.slice(0, -1).map((reading) => valueText(reading.value, address, speech)),
      estimate: last?.method === 'estimate',
      doubtful: outliers.has(address),
      photo: last?.photo ?? null,
    };
  });
  const remove = (address: string, index: number): void => {
    if (change({ name: 'removeReading', payload: { address, index } })) setMoved(null);
  };
  const show = (address: string): void => {
    if (moved?.address === address) setMoved(null);
    else void askMoved(address).then(setMoved);
  };
  const columns: readonly GridColDef<Row>[] = [
    {
      field: 'what',
      headerName: t('readings.what'),
      flex: 1,
      minWidth: 150,
      renderCell: ({ row }) => (
        <span>
          {row.what}
          {row.before.length > 0 && <span className="soft small figures"> ({row.before.join(', ')})</span>}
          {row.estimate && <span className="small soft"> · {t('method.estimate')}</span>}
        </span>
      ),
    },
    {
      field: 'value',
      headerName: t('readings.value'),
      type: 'number',
      width: 84,
      renderCell: ({ row }) => <span className={`figures ${row.doubtful ? 'needs' : 'data'}`}>{row.text}</span>,
    },
    {
      field: 'do',
      headerClassName: 'to-start',
      headerName: t('readings.do'),
      width: 226,
      sortable: false,
      filterable: false,
      renderCell: ({ row }) => (
        <span className="row gap-2">
          <Button
            size="small"
            variant="text"
            onClick={() => onPick(row.id)}
            aria-label={`${t(row.value === null ? 'measure.take' : 'measure.again')}: ${row.what}`}
          >
            {t(row.value === null ? 'measure.take' : 'measure.again')}
          </Button>
          {row.before.length > 0 && (
            <Button
              size="small"
              variant="text"
              onClick={() => show(row.id)}
              aria-expanded={moved?.address === row.id}
              aria-label={`${t('measure.moved')}: ${row.what}`}
            >
              {t('measure.moved')}
            </Button>
          )}
          {row.value !== null && (
            <ReadingPhoto what={row.what} address={row.id} index={row.before.length} photo={row.photo} />
          )}
          {row.value !== null && (
            <IconButton
              onClick={() => remove(row.id, row.before.length)}
              aria-label={`${t('measure.remove')}: ${row.what}`}
            >
              <CloseIcon fontSize="small" />
            </IconButton>
          )}
        </span>
      ),
    },
  ];
  return (
    <div className="stack">
      <Further scene={scene} />
      {moved && <MovedList moved={moved} />}
      <Grid
        label={t('measure.readings')}
        find={t('readings.find')}
        rows={rows}
        columns={columns}
        localeText={{ noRowsLabel: t('readings.none'), noResultsOverlayLabel: t('readings.notFound') }}
      />
    </div>
  );
}
