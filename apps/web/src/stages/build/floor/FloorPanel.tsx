import Button from '@mui/material/Button';
import { partName } from '../names.js';
import type { FloorWay } from '@nestplank/core/derive';
import type { FloorHatch } from '@nestplank/core/document';
import { type LinedFloor, STAGGER_MM } from '@nestplank/core/lining';
import { materialOf } from '@nestplank/core/materials';
import { openBefore } from '@nestplank/core/measure';
import { formatMoney, type Message } from '@nestplank/core/words';
import type { Scene } from '../../../state/scene.js';
import { act, askFloorWays } from '../../../state/session.js';
import { Check } from '../../../kit/Check.js';
import { LengthField } from '../../../kit/LengthField.js';
import { NamedList } from '../../../kit/NamedList.js';
import { PointButton } from '../../../kit/PointButton.js';
import { tellRefusal } from '../../../kit/refusal.js';
import { useChange } from '../../../kit/use-change.js';
import { PickField } from '../../../kit/PickField.js';
import { WorkOut } from '../../../kit/WorkOut.js';
import { FinishPanel } from './FinishPanel.js';
import { nextId } from '../../measure/next-id.js';
import { useSpeech } from '../../../words/use-speech.js';

function Ways({ scene }: { readonly scene: Scene }) {
  const { t, len } = useSpeech();
  const { direction } = scene.project.floor;
  return (
    <WorkOut<FloorWay>
      title={t('floor.ways')}
      hint={t('floor.waysHint')}
      run={t('floor.waysRun')}
      ask={askFloorWays}
      before={
        <PickField
          label={t('floor.direction')}
          value={direction ?? 'cheapest'}
          choices={[
            { value: 'cheapest', text: t('floor.direction.cheapest') },
            ...(['across', 'along'] as const).map((value) => ({ value, text: t(`floor.way.${value}`) })),
          ]}
          onPick={(value) =>
            void act({
              name: 'changeFloor',
              payload: { changes: { direction: value === 'across' || value === 'along' ? value : null } },
            })
          }
        />
      }
    >
      {(ways, clear) => (
        <table className="plain figures small">
          <thead>
            <tr>
              <th />
              {(['pieces', 'sheets', 'cost', 'seams'] as const).map((name) => (
                <th key={name}>{t(`floor.way.${name}`)}</th>
              ))}
            </tr>
          </thead>
          <tbody>
            {ways.map((way) => (
              <tr key={`${way.direction}:${way.cut}`}>
                <td>
                  {t(`floor.way.${way.direction}`)}, {t(`floor.cut.${way.cut}`)}
                  <br />
                  <span className="soft">
                    {t('floor.way.over', {
                      waste: Math.round(100 * way.waste),
                      offcut: way.offcut ? `${len(way.offcut.length)} × ${len(way.offcut.width)}` : '–',
                    })}
                  </span>
                  <br />
                  {way.now ? (
                    <span className="done">✓ {t('lining.case.now')}</span>
                  ) : (
                    <Button
                      size="small"
                      className="narrow"
                      onClick={() => {
                        act({ name: 'changeFloor', payload: { changes: { direction: way.direction, cut: way.cut } } });
                        clear();
                      }}
                    >
                      {t('lining.case.use')}
                    </Button>
                  )}
                </td>
                <td>{way.pieces}</td>
                <td>{way.sheets}</td>
                <td>{formatMoney(way.cost, scene.book.currency)}</td>
                <td>{way.seams.toFixed(1)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </WorkOut>
  );
}

function Hatches({ scene }: { readonly scene: Scene }) {
  const speech = useSpeech();
  const { t, len } = speech;
  const change = useChange();
  const { floorHatches } = scene.project;
  const put = (hatch: FloorHatch): Message | null => act({ name: 'putFloorHatch', payload: { hatch } });
  return (
    <NamedList
      title={t('floor.hatches')}
      hint={t('floor.hatchesNone')}
      items={floorHatches}
      nameLabel={t('floor.hatchName')}
      freeId={nextId('fh', floorHatches).id}
      line={(hatch) => `${len(hatch.x)}, ${len(hatch.y)} · ${len(hatch.length)} × ${len(hatch.width)}`}
      onAdd={(id, name) =>
        put({
          id,
          name,
          x: Math.round((scene.room?.length ?? 2000) / 2),
          y: 0,
          length: 300,
          width: 250,
          lift: 'finger-hole',
        })
      }
      problems={(hatch) =>
        scene.shape.floor.problems.filter((problem) => problem.hatch === hatch.id).map((problem) => problem.said)
      }
      onRemove={({ id }) => change({ name: 'removeFloorHatch', payload: { id } })}
    >
      {(hatch) => (
        <>
          <PointButton
            what={hatch.name}
            takes={({ surface }) => surface === 'floor'}
            onPoint={({ x, along }) => tellRefusal(put({ ...hatch, x, y: along }), speech)}
          />
          <div className="fields two">
            <LengthField label={t('floor.hatchX')} value={hatch.x} onTake={(x) => put({ ...hatch, x })} />
            <LengthField label={t('floor.hatchY')} value={hatch.y} onTake={(y) => put({ ...hatch, y })} />
            <LengthField
              label={t('floor.hatchLength')}
              value={hatch.length}
              onTake={(length) => put({ ...hatch, length })}
            />
            <LengthField
              label={t('floor.hatchWidth')}
              value={hatch.width}
              onTake={(width) => put({ ...hatch, width })}
            />
          </div>
          <PickField
            label={t('floor.hatchLift')}
            value={hatch.lift}
            choices={(['finger-hole', 'ring'] as const).map((value) => ({ value, text: t(`floor.lift.${value}`) }))}
            onPick={(lift) => put({ ...hatch, lift })}
          />
        </>
      )}
    </NamedList>
  );
}

/** A board that lies on another: its pieces, how its seams lie to those beneath, and how it is held. */
function Upper({ upper, scene }: { readonly upper: LinedFloor['upper'][number]; readonly scene: Scene }) {
  const { t, len } = useSpeech();
  const { layer, screws, picked, glue } = upper;
  const apart = layer.apart === null ? null : len(layer.apart);
  return (
    <p className="small figures">
      {t('floor.upper', {
        material: materialOf(scene.book, layer.board.material)?.name ?? layer.board.material,
        count: layer.pieces.length,
        apart:
          layer.apart === null || apart === null
            ? ''
            : t(layer.apart < STAGGER_MM ? 'floor.upperNear' : 'floor.upperApart', { apart }),
        held: [
          ...(picked?.item && screws.length > 0
            ? [
                t('floor.upperScrewed', {
                  count: screws.length,
                  item: picked.item.name,
                  hidden: screws.filter(({ hidden }) => hidden).length,
                }),
              ]
            : []),
          ...(glue
            ? [t('floor.upperGlued', { metres: glue.metres.toFixed(1), millilitres: Math.round(glue.millilitres) })]
            : [t('floor.upperLoose')]),
        ].join(' '),
      })}
    </p>
  );
}

/** How high one steps at every door and step, and what is left under the heads, before the floor is built up and after. */
function Thresholds({ scene }: { readonly scene: Scene }) {
  const { t, len } = useSpeech();
  const { thresholds } = scene.shape.floor;
  if (thresholds.length === 0) return null;
  return (
    <section className="section stack">
      <h2>{t('floor.thresholds')}</h2>
      <table className="plain figures small">
        <thead>
          <tr>
            <th>{t('floor.thresholdName')}</th>
            <th>{t('floor.thresholdBefore')}</th>
            <th>{t('floor.thresholdAfter')}</th>
            <th>{t('floor.headBefore')}</th>
            <th>{t('floor.headAfter')}</th>
          </tr>
        </thead>
        <tbody>
          {thresholds.map((at) => (
            <tr key={at.id}>
              <td>{at.name}</td>
              <td>{len(at.before)}</td>
              <td>{len(at.after)}</td>
              <td>{at.headBefore === null ? '–' : len(at.headBefore)}</td>
              <td>{at.headAfter === null ? '–' : len(at.headAfter)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

/** The floor: what must be decided before it is closed, its screws, hatches, finish, and the ways to lay it. */
export function FloorPanel({ scene }: { readonly scene: Scene }) {
  const speech = useSpeech();
  const { sawn, t, said, len } = speech;
  const { floor } = scene.shape;
  const battens = scene.shape.floorBattens?.battens ?? [];
  const rows = [...new Set(battens.filter((batten) => batten.why === 'row').map((batten) => batten.y))].sort(
    (a, b) => a - b,
  );
  const open = openBefore(scene.project, 'floor');
  const hidden = floor.screws.filter((screw) => screw.hidden).length;
  return (
    <>
      <section className="section stack">
        <h2>{t('floor.close')}</h2>
        {open.length === 0 ? (
          <p className="done">✓ {t('floor.closeDone')}</p>
        ) : (
          open.map((point) => (
            <p key={point.id} className={point.stops ? 'small needs' : 'small'}>
              {said(point.said)} {point.stops && `· ${t('floor.closeStops')}`}
              {point.overruled && `· ${t('found.overruled', { reason: point.overruled.reason })}`}
            </p>
          ))
        )}
        <PickField
          label={t('floor.fixing')}
          value={scene.project.floor.fixing}
          choices={(['screwed', 'glued', 'loose'] as const).map((value) => ({
            value,
            text: t(`floor.fixing.${value}`),
          }))}
          onPick={(fixing) => act({ name: 'changeFloor', payload: { changes: { fixing } } })}
        />
        <Check
          label={t('floor.doorTrims')}
          checked={scene.project.floor.doorTrims === true}
          onCheck={(doorTrims) => act({ name: 'changeFloor', payload: { changes: { doorTrims } } })}
        />
        {rows.length > 1 && (
          <p className="small soft figures">
            {t('floor.stick', { marks: rows.map((y) => sawn(y - (rows[0] ?? 0))).join(' · ') })}
          </p>
        )}
        {floor.glue && (
          <p className="small figures">
            {t(scene.shape.floorBattens ? 'floor.glue' : 'floor.glueRows', {
              metres: floor.glue.metres.toFixed(1),
              millilitres: Math.round(floor.glue.millilitres),
            })}
          </p>
        )}
        {floor.unheld.length > 0 && (
          <p className="small needs">
            {t('floor.unheld', {
              parts: scene.shape.parts
                .filter((part) => floor.unheld.includes(part.id))
                .map((part) => partName(part, scene.shape.parts, speech))
                .join(', '),
            })}
          </p>
        )}
        {floor.upper.map((upper) => (
          <Upper key={upper.layer.from} upper={upper} scene={scene} />
        ))}
        {floor.trims?.picked?.item && (
          <p className="small figures">
            {t('floor.trimScrews', { count: floor.trims.count, item: floor.trims.picked.item.name })}
          </p>
        )}
        <p className="small soft">{t('floor.buying')}</p>
        {floor.screws.length > 0 && (
          <p className="small figures">
            {t('floor.screws', { count: floor.screws.length, hidden })}{' '}
            {floor.noggins.length > 0 && t('floor.noggins', { count: floor.noggins.length })}
          </p>
        )}
      </section>
      {floor.insulation && floor.insulation.pieces.length > 0 && (
        <section className="section stack gap-2">
          <h2>{t(scene.shape.floorBattens ? 'floor.insulation' : 'floor.insulationWhole')}</h2>
          {floor.insulation.pieces.map((piece, i) => (
            <p key={i} className="small figures">
              {t('floor.insulationPiece', {
                count: piece.count,
                length: len(piece.length),
                width: len(piece.width),
                shaped: piece.shaped ? t('floor.insulationShaped') : '',
              })}
            </p>
          ))}
          {floor.insulation.nearest !== null && (
            <p className="small soft figures">
              {t('floor.insulationNearest', {
                joints: floor.insulation.joints.length,
                nearest: len(floor.insulation.nearest),
              })}
            </p>
          )}
        </section>
      )}
      <Thresholds scene={scene} />
      <Hatches scene={scene} />
      <FinishPanel scene={scene} />
      <Ways scene={scene} />
    </>
  );
}
