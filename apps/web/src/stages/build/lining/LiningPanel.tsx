import { useMemo } from 'react';
import { Check } from '../../../kit/Check.js';
import { Fold } from '../../../kit/Fold.js';
import { Problem } from '../../../kit/Problem.js';
import Button from '@mui/material/Button';
import { liningOn, type LiningChoice } from '@nestplank/core/document';
import { foundSeams, justTooNarrow, seamFigures, type Lining } from '@nestplank/core/lining';
import { GOOD_BITE_MM } from '@nestplank/core/layers';
import { isBar, materialOf } from '@nestplank/core/materials';
import type { Message } from '@nestplank/core/words';
import { unitName, type Scene } from '../../../state/scene.js';
import { act } from '../../../state/session.js';
import { LengthField } from '../../../kit/LengthField.js';
import { PickField } from '../../../kit/PickField.js';
import { useSpeech } from '../../../words/use-speech.js';

interface LiningPanelProps {
  readonly lining: Lining;
  readonly scene: Scene;
}

/** A section that bends no tighter than this is as good as flat, mm. */
const FLAT_MM = 20_000;

/** Moves one of the seams that stand, and keeps the others where they are. */
export function moveSeam(lining: Lining, index: number, to: number): Message | null {
  const seams = lining.seams.map((seam, i) => (i === index ? to : seam.at)).sort((a, b) => a - b);
  return act({ name: 'changeLining', payload: { surface: lining.surface, changes: { seams } } });
}

function Seams({ lining, scene }: LiningPanelProps) {
  const { t, len, lenUnit } = useSpeech();
  const choice = liningOn(scene.project.linings, lining.surface);
  const now = seamFigures(
    lining,
    choice,
    lining.seams.map((seam) => seam.at),
  );
  const found = choice.seams === null ? null : seamFigures(lining, choice, foundSeams(lining, choice));
  const nearly = useMemo(() => justTooNarrow(lining, choice), [lining, choice]);
  if (!now) return null;
  const metres = (value: number): string => value.toFixed(2);
  return (
    <Fold
      title={t('lining.seams')}
      line={lining.seams.length > 0 ? String(lining.seams.length) : undefined}
      open={!now.legal}
    >
      {lining.seams.length === 0 && <p className="small soft">{t('lining.seamsNone')}</p>}
      {lining.seams.map((seam, index) => (
        <div key={index} className="stack gap-2">
          <LengthField
            label={t('lining.seam', { number: index + 1 })}
            value={seam.at}
            onTake={(to) => moveSeam(lining, index, to)}
          />
          <p className="small">
            {t(`lining.why.${seam.reason}`, { support: seam.support ?? '', opening: seam.opening ?? '' })}{' '}
            {seam.support === null ? t('lining.why.strip') : ''}{' '}
            {seam.hiddenBy !== null ? t('lining.why.hidden', { unit: unitName(scene, seam.hiddenBy) }) : ''}
          </p>
        </div>
      ))}
      <p className={now.legal ? 'small soft figures' : 'small needs figures'}>
        {t('lining.seamFigures', { panels: now.panels, backed: metres(now.backed), seen: metres(now.seen) })}
        {!now.legal && ` ${t('lining.seamIllegal', { sliver: len(choice.sliver) })}`}
      </p>
      {nearly && (
        <p className="small figures">
          {t('lining.justTooNarrow', { panels: nearly.panels, short: lenUnit(nearly.short), gap: lenUnit(nearly.gap) })}
        </p>
      )}
      {found && (
        <>
          <p className="small soft figures">
            {t('lining.seamFound', { panels: found.panels, backed: metres(found.backed), seen: metres(found.seen) })}
          </p>
          <div>
            <Button
              size="small"
              onClick={() =>
                act({ name: 'changeLining', payload: { surface: lining.surface, changes: { seams: null } } })
              }
            >
              {t('lining.seamBack')}
            </Button>
          </div>
        </>
      )}
    </Fold>
  );
}

/** Rows: their lines from the low edge, which is what a story stick is marked with. */
function Rows({ lining }: { readonly lining: Lining }) {
  const { sawn, t } = useSpeech();
  const { setOut } = lining;
  if (!setOut) return null;
  const from = setOut.rows[0]?.[0] ?? 0;
  return (
    <Fold title={t('lining.rows')} line={String(setOut.rows.length)}>
      <p className="small">
        {t('lining.rowsAre', {
          count: setOut.rows.length,
          first: sawn(setOut.first),
          last: sawn(setOut.last),
        })}
      </p>
      <p className="small soft figures">
        {t(lining.surface === 'ceiling' ? 'lining.stickUp' : 'lining.stick', {
          marks: setOut.rows.map(([, to]) => sawn(to - from)).join(' · '),
        })}
      </p>
    </Fold>
  );
}

/** Grooves that make sheets look like boards, set out from one datum for the whole surface. */
function Grooving({ lining, scene }: LiningPanelProps) {
  const { sawn, t } = useSpeech();
  const { surface, grooves } = lining;
  const { groove } = liningOn(scene.project.linings, surface);
  const change = (changes: Partial<LiningChoice['groove']>): Message | null =>
    act({ name: 'changeLining', payload: { surface, changes: { groove: { ...groove, ...changes } } } });
  return (
    <Fold title={t('groove.title')} line={grooves ? String(grooves.at.length) : undefined}>
      <div className="fields two">
        <LengthField label={t('groove.spacing')} value={groove.spacing} onTake={(spacing) => change({ spacing })} />
        <PickField
          label={t('groove.direction')}
          value={groove.direction}
          choices={(['upright', 'level'] as const).map((value) => ({ value, text: t(`groove.direction.${value}`) }))}
          onPick={(direction) => change({ direction })}
        />
        {grooves && (
          <>
            <LengthField label={t('groove.depth')} value={groove.depth} onTake={(depth) => change({ depth })} />
            <LengthField label={t('groove.width')} value={groove.width} onTake={(width) => change({ width })} />
          </>
        )}
      </div>
      {grooves ? (
        <p className="small figures">
          {t('groove.are', {
            count: grooves.at.length,
            first: sawn(grooves.first),
            last: sawn(grooves.last),
            marks: grooves.at.map((at) => sawn(at)).join(' · '),
          })}
        </p>
      ) : (
        <p className="small soft">{t('groove.none')}</p>
      )}
    </Fold>
  );
}

/** Whether lines of boards and grooves are balanced, or stand at a height above the finished floor. */
function Datum({
  lining,
  choice,
  change,
}: {
  readonly lining: Lining;
  readonly choice: LiningChoice;
  readonly change: (changes: Partial<LiningChoice>) => Message | null;
}) {
  const { t } = useSpeech();
  const datum = choice.datum ?? null;
  const first = lining.setOut?.rows[0]?.[1] ?? lining.grooves?.at[0] ?? 0;
  return (
    <div className="fields two">
      <PickField
        label={t('lining.datum')}
        value={datum === null ? 'balanced' : 'floor'}
        choices={(['balanced', 'floor'] as const).map((value) => ({ value, text: t(`lining.datum.${value}`) }))}
        onPick={(how) => change({ datum: how === 'balanced' ? null : Math.max(0, Math.round(first)) })}
      />
      {datum !== null && (
        <LengthField label={t('lining.datumAt')} value={datum} onTake={(to) => change({ datum: to })} />
      )}
    </div>
  );
}

/** How one surface is lined: the choices, where seams are and why, what bends, what it is fixed with. */
export function LiningPanel({ lining, scene }: LiningPanelProps) {
  const { t, len, lenUnit, said } = useSpeech();
  const { surface, material } = lining;
  const choice = liningOn(scene.project.linings, surface);
  const change = (changes: Partial<LiningChoice>): Message | null =>
    act({ name: 'changeLining', payload: { surface, changes } });
  const hidden = lining.fixings.filter((point) => point.hidden).length;
  const plan = scene.derived.plans.find((candidate) => candidate.material.id === material.id);
  const timber = lining.parts.find((part) => part.role === 'wall-batten' || part.role === 'noggin')?.material;
  const metres = lining.battens.reduce((sum, { u0, u1, v0, v1 }) => sum + Math.hypot(u1 - u0, v1 - v0), 0) / 1000;
  const slots = lining.pieces.flatMap((piece) => piece.slots);
  return (
    <>
      <section className="stack">
        <h1 className="size-22">{t(`lining.surface.${surface}`)}</h1>
        <p>
          {t(`lining.is.${lining.school}`, { material: material.name, count: lining.pieces.length })}{' '}
          {plan && (
            <span className="soft">
              {t(isBar(material) ? 'lining.bars' : 'lining.sheets', { count: plan.sheets.length })}
            </span>
          )}
        </p>
        {lining.problems.map((problem) => (
          <Problem key={problem.key + JSON.stringify(problem.params)}>{said(problem)}</Problem>
        ))}
        {lining.notes.map((note) => (
          <p key={JSON.stringify(note.params)} className="small soft">
            {said(note)}
          </p>
        ))}
      </section>
      <Fold title={t('lining.how')} line={t(`lining.school.${lining.school}`)}>
        <div className="fields two">
          {!isBar(material) && (
            <PickField
              label={t('lining.school')}
              value={lining.school}
              choices={(['sheets', 'strips'] as const).map((value) => ({ value, text: t(`lining.school.${value}`) }))}
              onPick={(school) => change({ school })}
            />
          )}
          {lining.school === 'strips' && (
            <LengthField label={t('lining.strip')} value={choice.strip} onTake={(strip) => change({ strip })} />
          )}
          <LengthField label={t('lining.gap')} value={choice.gap} onTake={(gap) => change({ gap })} />
          <LengthField label={t('lining.edge')} value={choice.edge} onTake={(edge) => change({ edge })} />
          <LengthField label={t('lining.sliver')} value={choice.sliver} onTake={(sliver) => change({ sliver })} />
          <LengthField
            label={t('lining.undersize')}
            value={choice.undersize}
            onTake={(undersize) => change({ undersize })}
          />
          <LengthField label={t('lining.scribe')} value={choice.scribe} onTake={(scribe) => change({ scribe })} />
          <LengthField label={t('lining.notch')} value={choice.notch ?? 0} onTake={(notch) => change({ notch })} />
        </div>
        <Check
          label={t('lining.removable')}
          checked={choice.removable}
          onCheck={(removable) => change({ removable })}
        />
        {lining.school === 'sheets' && (
          <Check
            label={t('lining.covered')}
            checked={choice.covered === true}
            onCheck={(covered) => change({ covered })}
          />
        )}
        {surface !== 'ceiling' && (lining.school !== 'sheets' || lining.grooves?.direction === 'level') && (
          <Datum lining={lining} choice={choice} change={change} />
        )}
      </Fold>
      <Seams lining={lining} scene={scene} />
      <Rows lining={lining} />
      {lining.school === 'sheets' && <Grooving lining={lining} scene={scene} />}
      <Fold title={t('lining.behind')} line={t('lining.fixings', { count: lining.fixings.length, hidden })}>
        {lining.held.map(({ by, count, fixing }) => (
          <p key={`${by} ${fixing.pick?.id ?? ''}`} className="small figures">
            {t(`lining.into.${by}`, { count })}{' '}
            {fixing.pick
              ? `${t('lining.screw', {
                  screw: fixing.pick.name,
                  bite: len(fixing.pick.bite),
                  left: len(Math.max(0, fixing.pick.left), 1),
                })} ${
                  fixing.pick.pilot > 0
                    ? t('lining.pilot', {
                        // drills are sold by the tenth of a millimetre: a sixteenth would be no pilot at all
                        pilot: fixing.pick.pilot.toFixed(1),
                        undrilled: lenUnit(fixing.pick.undrilled),
                        drilled: lenUnit(fixing.pick.drilled),
                      })
                    : t(fixing.pick.bite < GOOD_BITE_MM ? 'lining.bradWeak' : 'lining.brad')
                }`
              : t('lining.screwNone', { least: lenUnit(fixing.least), most: lenUnit(fixing.most) })}
          </p>
        ))}
        {choice.removable && <p className="small">{t('lining.removableHow')}</p>}
        {timber !== undefined && (
          <p className="small figures">
            {t('lining.battens', {
              count: lining.battens.length,
              material: materialOf(scene.book, timber)?.name ?? timber,
              metres: metres.toFixed(1),
            })}
          </p>
        )}
        {lining.glue.millilitres > 0 && (
          <p className="small figures">
            {t('lining.glued', {
              metres: lining.glue.metres.toFixed(1),
              millilitres: Math.round(lining.glue.millilitres),
            })}
          </p>
        )}
        {lining.unbacked.length > 0 && (
          <p className="small figures">{t('lining.backed', { count: lining.unbacked.length })}</p>
        )}
        <p className="small figures">
          {lining.bend.tightest === null || lining.bend.tightest > FLAT_MM
            ? t('lining.bendNone')
            : lining.bend.fits === null
              ? t('lining.bendFlat', { radius: lenUnit(lining.bend.tightest), off: len(lining.bend.standOff ?? 0, 1) })
              : t(lining.bend.fits ? 'lining.bendFits' : 'lining.bendNot', {
                  radius: lenUnit(lining.bend.tightest),
                  least: lenUnit(lining.bend.least ?? 0),
                })}
        </p>
        {slots.length > 0 && (
          <p className="small">
            {t('lining.slots', {
              names: slots
                .map((id) => scene.project.fittings.find((fitting) => fitting.id === id)?.name ?? id)
                .join(', '),
            })}
          </p>
        )}
        {lining.packers.length > 0 && (
          <p className="small figures">
            {t('lining.packers', {
              packers: lining.packers
                .map(({ support, thickness }) =>
                  t(thickness > 0 ? 'lining.packer' : 'lining.packerOff', { support, by: len(Math.abs(thickness), 1) }),
                )
                .join(' · '),
            })}
          </p>
        )}
        <p className="small soft">{t('lining.caution')}</p>
      </Fold>
    </>
  );
}
