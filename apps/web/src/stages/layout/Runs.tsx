import Button from '@mui/material/Button';
import { memo, useState } from 'react';
import { baysOf, type Run, RUN_KINDS, type RunEnd } from '@nestplank/core/document';
import { wattsOf } from '@nestplank/core/layout';
import { Fold } from '../../kit/Fold.js';
import { LengthField } from '../../kit/LengthField.js';
import { NamedList } from '../../kit/NamedList.js';
import { NumberField } from '../../kit/NumberField.js';
import { PickField } from '../../kit/PickField.js';
import { useChange } from '../../kit/use-change.js';
import { act } from '../../state/session.js';
import type { Scene } from '../../state/scene.js';
import { useSpeech } from '../../words/use-speech.js';
import { partName } from '../build/names.js';
import { nextId } from '../measure/next-id.js';

type Place = readonly [number, number, number];
/** As thick as they usually are, mm. */
const USUAL: Readonly<Record<Run['kind'], number>> = {
  cable: 10,
  water: 15,
  waste: 40,
  gas: 10,
  duct: 75,
  flue: 30,
  fuel: 8,
};
const AXES = ['x', 'y', 'z'] as const;
const put = (run: Run, changes: Partial<Run>) => act({ name: 'putRun', payload: { run: { ...run, ...changes } } });

/** Three lengths of one place: from the front, across and up. */
function PlaceFields({
  end,
  place,
  onTake,
}: {
  readonly end: string;
  readonly place: Place;
  readonly onTake: (place: [number, number, number]) => ReturnType<typeof act>;
}) {
  const { t } = useSpeech();
  return (
    <div className="fields three">
      {AXES.map((axis, i) => (
        <LengthField
          key={axis}
          label={t(`runs.at.${axis}`, { end })}
          value={place[i] ?? null}
          onTake={(value) => {
            const [x, y, z] = place;
            return onTake(i === 0 ? [value, y, z] : i === 1 ? [x, value, z] : [x, y, value]);
          }}
        />
      ))}
    </div>
  );
}

/** Where a run begins or ends: in a bay, or at a place of its own. */
function EndFields({ scene, run, which }: { readonly scene: Scene; readonly run: Run; readonly which: 'from' | 'to' }) {
  const { t } = useSpeech();
  const end = run[which];
  const bays = scene.project.layout.units.flatMap((unit) =>
    baysOf(unit.division).map((bay) => ({ value: `${unit.id} ${bay.name}`, text: `${unit.name}, ${bay.name}` })),
  );
  const points = scene.derived.runs.placed.find((one) => one.run.id === run.id)?.points ?? [];
  const floor = scene.room?.floor ?? 0;
  const pick = (value: string) => {
    const [unit, bay] = value.split(' ');
    const stood = which === 'from' ? points[0] : points.at(-1);
    const middle = (scene.room?.length ?? 0) / 2;
    const next: RunEnd | null =
      value === ''
        ? null
        : value === 'place'
          ? { at: stood ? [Math.round(stood[0]), Math.round(stood[1]), Math.round(stood[2] - floor)] : [middle, 0, 0] }
          : { unit: unit ?? '', bay: bay ?? '' };
    return put(run, { [which]: next });
  };
  return (
    <>
      <PickField
        label={t(`runs.${which}`)}
        value={end === null ? '' : 'at' in end ? 'place' : `${end.unit} ${end.bay}`}
        choices={[{ value: '', text: t('runs.nowhere') }, { value: 'place', text: t('runs.place') }, ...bays]}
        onPick={pick}
      />
      {end && 'at' in end && (
        <PlaceFields end={t(`runs.${which}`)} place={end.at} onTake={(at) => put(run, { [which]: { at } })} />
      )}
    </>
  );
}

/** Where a run is led by hand; without any place it finds its own way along the wall. */
function ViaFields({ scene, run }: { readonly scene: Scene; readonly run: Run }) {
  const { t } = useSpeech();
  const change = useChange();
  const points = scene.derived.runs.placed.find((one) => one.run.id === run.id)?.points ?? [];
  const floor = scene.room?.floor ?? 0;
  const via = (places: Run['via']) => change({ name: 'putRun', payload: { run: { ...run, via: places } } });
  const add = (): void => {
    const round = (point: Place): [number, number, number] => [
      Math.round(point[0]),
      Math.round(point[1]),
      Math.round(point[2] - floor),
    ];
    const last = run.via.at(-1);
    // the corners it has of its own are where one begins to lead it
    if (last) via([...run.via, [last[0], last[1], last[2]]]);
    else if (points.length > 2) via(points.slice(1, -1).map(round));
    else if (points[0] && points[1])
      via([round([0, 1, 2].map((i) => ((points[0]?.[i] ?? 0) + (points[1]?.[i] ?? 0)) / 2) as unknown as Place)]);
  };
  return (
    <>
      {run.via.map((place, i) => (
        <PlaceFields
          key={i}
          end={t('runs.via', { n: i + 1 })}
          place={place}
          onTake={(at) => put(run, { via: run.via.map((own, k) => (k === i ? at : own)) })}
        />
      ))}
      <div className="row wrap">
        <Button size="small" disabled={points.length === 0} onClick={add}>
          {t('runs.addVia')}
        </Button>
        {run.via.length > 0 && (
          <Button size="small" variant="text" onClick={() => via([])}>
            {t('runs.ownWay')}
          </Button>
        )}
      </div>
    </>
  );
}

/** What a cable carries, and what guards it. */
function Wire({ scene, run }: { readonly scene: Scene; readonly run: Run }) {
  const { t } = useSpeech();
  const { wire } = run;
  const placed = scene.derived.runs.placed.find((one) => one.run.id === run.id);
  if (run.kind !== 'cable' || !wire) return null;
  const watts = placed ? wattsOf(placed) : 0;
  return (
    <>
      <div className="fields three">
        <NumberField
          label={t('runs.volts')}
          value={wire.volts}
          least={1}
          most={400}
          onTake={(volts) => put(run, { wire: { ...wire, volts } })}
        />
        <NumberField
          label={t('runs.copper')}
          value={wire.copper}
          least={0.1}
          most={200}
          onTake={(copper) => put(run, { wire: { ...wire, copper } })}
        />
        <NumberField
          label={t('runs.fuse')}
          value={wire.fuse}
          least={0.1}
          most={500}
          onTake={(fuse) => put(run, { wire: { ...wire, fuse } })}
        />
      </div>
      {watts > 0 && (
        <p className="small figures">
          {t('runs.carries', { watts, amps: Math.round((watts / wire.volts) * 10) / 10 })}
        </p>
      )}
      <p className="small needs">{t('runs.caution')}</p>
    </>
  );
}

/** The holes a run takes through boards, each with what is left beside it. */
function Holes({ scene, run }: { readonly scene: Scene; readonly run: Run }) {
  const speech = useSpeech();
  const { t, len } = speech;
  const { parts } = scene.shape;
  const own = scene.derived.runs.holes.filter(({ runs }) => runs.includes(run.id));
  if (run.from === null || run.to === null) return null;
  if (own.length === 0) return <p className="small soft">{t('runs.noHole')}</p>;
  return (
    <ul className="plain small figures">
      {own.map((hole) => {
        const part = parts.find(({ id }) => id === `${hole.unit}.${hole.board}`);
        const unit = scene.project.layout.units.find(({ id }) => id === hole.unit)?.name ?? hole.unit;
        return (
          <li key={`${hole.unit}.${hole.board}.${hole.at.join()}`}>
            {t(hole.edge > 0 ? 'runs.hole' : 'runs.holeOut', {
              diameter: len(hole.diameter),
              part: `${unit}, ${part ? partName(part, parts, speech) : hole.board}`,
              left: len(Math.max(0, hole.edge)),
            })}
          </li>
        );
      })}
    </ul>
  );
}

/** What it is bought as, or why nothing is. */
function Bought({ scene, run }: { readonly scene: Scene; readonly run: Run }) {
  const { t, said } = useSpeech();
  const own = scene.derived.runsBought.find((one) => one.run === run.id);
  if (!own) return null;
  return own.problem ? (
    <p className="small needs">{said(own.problem)}</p>
  ) : (
    <p className="small figures">
      {t(run.kind === 'cable' ? 'runs.boughtCable' : 'runs.bought', {
        item: own.item?.name ?? '',
        metres: Math.ceil(own.metres * 10 - 1e-9) / 10,
        bends: own.bends,
      })}
    </p>
  );
}

/** Everything that runs through the furniture: from where to where, its way, its holes, what a cable carries. */
export const Runs = memo(function Runs({ scene }: { readonly scene: Scene }) {
  const { t, len } = useSpeech();
  const change = useChange();
  const [kind, setKind] = useState<Run['kind']>('cable');
  const runs = scene.project.layout.runs ?? [];
  const { placed, holes } = scene.derived.runs;
  const kinds = RUN_KINDS.map((value) => ({ value, text: t(`runs.kind.${value}`) }));
  const wireFor = (of: Run['kind']) =>
    of === 'cable' ? { wire: { volts: 12, copper: null, fuse: null } } : { wire: undefined };
  return (
    <Fold title={t('runs.title')} line={t('runs.count', { n: runs.length, holes: holes.length })}>
      <NamedList
        title={t('runs.title')}
        hint={t('runs.none')}
        items={runs}
        nameLabel={t('runs.name')}
        freeId={nextId('run', runs).id}
        more={
          <PickField
            label={t('runs.kind')}
            value={kind}
            choices={kinds}
            onPick={(value) => {
              setKind(value);
              return null;
            }}
          />
        }
        onAdd={(id, name) =>
          act({
            name: 'putRun',
            payload: {
              run: { id, name, kind, diameter: USUAL[kind], from: null, to: null, via: [], ...wireFor(kind) },
            },
          })
        }
        onRemove={(one) => void change({ name: 'removeRun', payload: { id: one.id } })}
        line={(one) => {
          const laid = placed.find(({ run }) => run.id === one.id);
          return laid && laid.points.length > 0
            ? t('runs.line', { kind: t(`runs.kind.${one.kind}`), length: len(laid.length) })
            : t('runs.lineNowhere', { kind: t(`runs.kind.${one.kind}`) });
        }}
      >
        {(one) => (
          <div className="stack">
            <div className="fields two">
              <PickField
                label={t('runs.kind')}
                value={one.kind}
                choices={kinds}
                onPick={(value) => put(one, { kind: value, ...wireFor(value) })}
              />
              <LengthField
                label={t('runs.diameter')}
                value={one.diameter}
                onTake={(diameter) => put(one, { diameter })}
              />
            </div>
            <EndFields scene={scene} run={one} which="from" />
            <EndFields scene={scene} run={one} which="to" />
            <ViaFields scene={scene} run={one} />
            <Wire scene={scene} run={one} />
            <Bought scene={scene} run={one} />
            <Holes scene={scene} run={one} />
          </div>
        )}
      </NamedList>
    </Fold>
  );
});
