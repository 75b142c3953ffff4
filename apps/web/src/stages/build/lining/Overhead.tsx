import Button from '@mui/material/Button';
import type { Header, Lined, Reserved } from '@nestplank/core/document';
import type { Message } from '@nestplank/core/words';
import type { Scene } from '../../../state/scene.js';
import { act } from '../../../state/session.js';
import { LengthField } from '../../../kit/LengthField.js';
import { NamedList } from '../../../kit/NamedList.js';
import { PointButton } from '../../../kit/PointButton.js';
import { tellRefusal } from '../../../kit/refusal.js';
import { useChange } from '../../../kit/use-change.js';
import { PickField } from '../../../kit/PickField.js';
import { Held } from './Boxes.js';
import { nextId } from '../../measure/next-id.js';
import { useSpeech } from '../../../words/use-speech.js';

const SIDES = ['left', 'right'] as const;

/** Which side something is on, and how far it reaches along the vehicle. */
function Along<T extends Pick<Reserved, 'name' | 'side' | 'x' | 'length'>>({
  item,
  onPut,
}: {
  readonly item: T;
  readonly onPut: (changes: Partial<Pick<Reserved, 'side' | 'x' | 'length'>>) => Message | null;
}) {
  const speech = useSpeech();
  const { t } = speech;
  return (
    <>
      <PointButton
        what={t('overhead.frontOf', { name: item.name })}
        takes={({ surface }) => surface === 'left' || surface === 'right' || surface === 'ceiling'}
        onPoint={({ x, surface }) =>
          tellRefusal(onPut(surface === 'left' || surface === 'right' ? { x, side: surface } : { x }), speech)
        }
      />
      <div className="fields three">
        <PickField
          label={t('overhead.side')}
          value={item.side}
          choices={SIDES.map((value) => ({ value, text: t(`at.${value}`) }))}
          onPick={(side) => onPut({ side })}
        />
        <LengthField label={t('fitting.x')} value={item.x} onTake={(x) => onPut({ x })} />
        <LengthField label={t('overhead.length')} value={item.length} onTake={(length) => onPut({ length })} />
      </div>
    </>
  );
}

/** Places kept for high cupboards that come later: what they hide, and whether the ceiling stops in front of them. */
export function ReservedPlaces({ surface, scene }: { readonly surface: Lined; readonly scene: Scene }) {
  const { t, len } = useSpeech();
  const change = useChange();
  const { reserved } = scene.project;
  const put = (place: Reserved): Message | null => act({ name: 'putReserved', payload: { reserved: place } });
  return (
    <NamedList
      title={t('reserved.title')}
      hint={t('reserved.none')}
      items={reserved.filter((place) => surface === 'ceiling' || place.side === surface)}
      nameLabel={t('fitting.name')}
      freeId={nextId('oh', reserved).id}
      line={(place) =>
        `${t(`at.${place.side}`)} · ${len(place.x)}–${len(place.x + place.length)} · ${t(`reserved.ceiling.${place.ceiling}`)}`
      }
      onAdd={(id, name) =>
        put({
          id,
          name,
          side: surface === 'right' ? 'right' : 'left',
          x: 0,
          length: Math.round((scene.room?.length ?? 2000) / 2),
          depth: 300,
          height: 350,
          ceiling: 'through',
        })
      }
      onRemove={({ id }) => change({ name: 'removeReserved', payload: { id } })}
    >
      {(place) => (
        <>
          <Along item={place} onPut={(changes) => put({ ...place, ...changes })} />
          <div className="fields two">
            <LengthField label={t('reserved.depth')} value={place.depth} onTake={(depth) => put({ ...place, depth })} />
            <LengthField
              label={t('reserved.height')}
              value={place.height}
              onTake={(height) => put({ ...place, height })}
            />
          </div>
          <PickField
            label={t('reserved.ceiling')}
            value={place.ceiling}
            choices={(['through', 'stops'] as const).map((value) => ({ value, text: t(`reserved.ceiling.${value}`) }))}
            onPick={(ceiling) => put({ ...place, ceiling })}
          />
        </>
      )}
    </NamedList>
  );
}

/** Boxes between wall and ceiling over what is in the way there: the corners to clear, and the faces that come of them. */
export function HeaderBoxes({ surface, scene }: { readonly surface: 'left' | 'right'; readonly scene: Scene }) {
  const { sawn, t, len } = useSpeech();
  const change = useChange();
  const { headers } = scene.project;
  const put = (header: Header): Message | null => act({ name: 'putHeader', payload: { header } });
  const tell = (header: Header): boolean => change({ name: 'putHeader', payload: { header } });
  return (
    <NamedList
      title={t('header.title')}
      hint={t('header.none')}
      items={headers.filter((header) => header.side === surface)}
      nameLabel={t('fitting.name')}
      freeId={nextId('hd', headers).id}
      line={(header) => `${len(header.x)}–${len(header.x + header.length)}`}
      onAdd={(id, name) =>
        put({
          id,
          name,
          side: surface,
          x: 0,
          length: 1200,
          past: [{ down: 120, in: 90 }],
          clearance: 8,
        })
      }
      problems={(header) => scene.shape.lined.headers.find(({ id }) => id === header.id)?.problems ?? []}
      onRemove={({ id }) => change({ name: 'removeHeader', payload: { id } })}
    >
      {(header) => {
        const box = scene.shape.lined.headers.find((candidate) => candidate.id === header.id);
        const point = (i: number, changes: Partial<Header['past'][number]>): Message | null =>
          put({ ...header, past: header.past.map((old, k) => (k === i ? { ...old, ...changes } : old)) });
        return (
          <>
            <Along item={header} onPut={(changes) => put({ ...header, ...changes })} />
            {header.past.map((corner, i) => (
              <div key={i} className="fields two-and-button">
                <LengthField
                  label={t('header.down', { number: i + 1 })}
                  value={corner.down}
                  onTake={(down) => point(i, { down })}
                />
                <LengthField
                  label={t('header.in', { number: i + 1 })}
                  value={corner.in}
                  onTake={(inward) => point(i, { in: inward })}
                />
                <Button
                  size="small"
                  variant="text"
                  disabled={header.past.length === 1}
                  aria-label={t('header.removeCorner', { number: i + 1, name: header.name })}
                  onClick={() => tell({ ...header, past: header.past.filter((_, k) => k !== i) })}
                >
                  {t('common.remove')}
                </Button>
              </div>
            ))}
            <div className="fields entry-and-button">
              <LengthField
                label={t('header.clearance')}
                value={header.clearance}
                onTake={(clearance) => put({ ...header, clearance })}
              />
              <Button
                size="small"
                variant="text"
                onClick={() => {
                  const last = header.past.at(-1) ?? { down: 100, in: 60 };
                  tell({
                    ...header,
                    past: [...header.past, { down: last.down + 40, in: Math.max(10, last.in - 30) }],
                  });
                }}
              >
                {t('header.addCorner')}
              </Button>
            </div>
            {box && box.faces.length > 0 && (
              <>
                {box.faces.map((face, i) => (
                  <p key={i} className="small figures">
                    {t('header.face', {
                      number: i + 1,
                      front: sawn(face.front),
                      rear: sawn(face.rear),
                      low: face.low.toFixed(1),
                      high: face.high.toFixed(1),
                    })}
                  </p>
                ))}
                <p className="small figures">{t('header.under', { under: len(box.under) })}</p>
                <Held of={header.id} scene={scene} />
              </>
            )}
          </>
        );
      }}
    </NamedList>
  );
}
