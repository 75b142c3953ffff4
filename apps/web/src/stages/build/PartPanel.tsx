import { liningOn } from '@nestplank/core/document';
import type { Lining } from '@nestplank/core/lining';
import { materialOf } from '@nestplank/core/materials';
import { blankOf, depthOf, faceToward, partMass, type Part, type PartMarks } from '@nestplank/core/parts';
import type { Scene } from '../../state/scene.js';
import { act } from '../../state/session.js';
import { Check } from '../../kit/Check.js';
import { useSpeech } from '../../words/use-speech.js';
import { groupOf, partGroups } from './groups.js';
import { partName } from './names.js';
import { PartDrawing } from './PartDrawing.js';

/** One part: its drawing with sizes, and what to know at the saw and at the wall. */
export function PartPanel({ part, scene }: { readonly part: Part; readonly scene: Scene }) {
  const speech = useSpeech();
  const { sawn, t, lenUnit } = speech;
  const blank = blankOf(part);
  const material = materialOf(scene.book, part.material);
  const mass = partMass(part, scene.book);
  const unit = scene.project.layout.units.find((candidate) => candidate.id === part.unit);
  const lining = scene.shape.lined.linings.find(({ pieces }) => pieces.some((p) => p.part === part.id));
  const piece = lining?.pieces.find((p) => p.part === part.id);
  const name = partName(part, scene.shape.parts, speech);
  const scale = Math.min(296 / blank.length, 220 / blank.width);
  const degrees = (value: number): string => value.toFixed(1);
  return (
    <section className="stack" aria-label={name}>
      <h1 className="size-22">
        {unit?.name ?? partGroups(scene, speech).find((group) => group.id === groupOf(part))?.name}: {name}
      </h1>
      <PartDrawing
        part={part}
        hatch={material?.hatch ?? 'grey'}
        scale={scale}
        margin={6}
        label={t('build.name', { part: name, length: sawn(blank.length), width: sawn(blank.width) })}
        sizes={{ length: sawn(blank.length), width: sawn(blank.width) }}
      />
      <p>
        {material?.name ?? part.material} ·{' '}
        <span className="soft">{part.grain ? t('build.grainAlong') : t('build.grainAny')}</span>
        {mass !== null && <span className="figures"> · {mass.toFixed(1)} kg</span>}
      </p>
      <p className="small soft">{t('part.face', { toward: t(`toward.${faceToward(part)}`) })}</p>
      {piece && lining && <ComesOff piece={piece} lining={lining} scene={scene} />}
      {piece && (
        <p className="small">
          {piece.hidden > 0.98
            ? t('part.hiddenWhole')
            : piece.hidden > 0.02
              ? t('part.hiddenPart', { percent: Math.round(100 * piece.hidden) })
              : t('part.seen')}
          {piece.removable && ` ${t('part.removable')}`}
        </p>
      )}
      {part.marks && <Marks marks={part.marks} upright={Math.abs(part.place.along[2]) > 0.5} />}
      {part.edges
        .filter((edge) => edge.kind === 'scribe')
        .map((edge, i) => (
          <p key={i} className="small">
            {t('build.scribe', {
              at: t(`at.${edge.at}`),
              allowance: lenUnit(edge.allowance),
              removal: lenUnit(edge.largestRemoval),
            })}{' '}
            {depthOf(edge.trueLine) >= 1 && `${t('build.depth', { depth: lenUnit(depthOf(edge.trueLine)) })} `}
            {edge.squareCut
              ? t('build.square', { degrees: degrees(Math.max(Math.abs(edge.bevel.least), Math.abs(edge.bevel.most))) })
              : t('build.bevel', { least: degrees(edge.bevel.least), most: degrees(edge.bevel.most) })}
          </p>
        ))}
    </section>
  );
}

/** Whether one piece comes off again; nothing to choose where the surface does, or what is behind it asks for it. */
function ComesOff({
  piece,
  lining,
  scene,
}: {
  readonly piece: Lining['pieces'][number];
  readonly lining: Lining;
  readonly scene: Scene;
}) {
  const { t } = useSpeech();
  const { surface } = lining;
  const choice = liningOn(scene.project.linings, surface);
  const chosen = choice.comesOff ?? [];
  const own = chosen.includes(piece.part);
  if (choice.removable || (piece.removable && !own)) return null;
  return (
    <Check
      label={t('part.comesOff')}
      checked={own}
      onCheck={(off) =>
        act({
          name: 'changeLining',
          payload: {
            surface,
            // those that are no pieces any more are let go of
            changes: {
              comesOff: [
                ...chosen.filter((id) => id !== piece.part && lining.pieces.some((other) => other.part === id)),
                ...(off ? [piece.part] : []),
              ],
            },
          },
        })
      }
    />
  );
}

/** Places of grooves from the edge they run along, each once: up from the lower edge, or from the left one. */
function groovePlaces({ grooves = [] }: PartMarks): readonly { readonly at: number; readonly level: boolean }[] {
  const places = grooves.map(({ from, to }) => {
    const level = Math.abs(from[1] - to[1]) < Math.abs(from[0] - to[0]);
    return { at: level ? from[1] : from[0], level };
  });
  return [...new Map(places.map((place) => [Math.round(place.at * 10), place])).values()].sort((a, b) => a.at - b.at);
}

/** Support lines and holes by their distance from two edges, so that nothing has to be marked again on the wall. */
function Marks({ marks, upright }: { readonly marks: PartMarks; readonly upright: boolean }) {
  const { sawn, t, len } = useSpeech();
  const lines = [...new Map(marks.lines.map((line) => [line.name, line])).values()];
  const cutOuts = marks.cutOuts ?? [];
  const grooves = groovePlaces(marks);
  if (lines.length === 0 && marks.holes.length === 0 && cutOuts.length === 0) return null;
  return (
    <div className="stack gap-2">
      <p className="small soft">{t('part.marks')}</p>
      {lines.map((line) => (
        <p key={line.name} className="small figures">
          {upright
            ? t('part.lineUp', { name: line.name, at: sawn(line.from[1]) })
            : t('part.line', { name: line.name, at: sawn(line.from[0]) })}
        </p>
      ))}
      {marks.holes.map((hole) => (
        <p key={hole.name} className="small figures">
          {t('part.hole', {
            name: hole.name,
            x: sawn(hole.at[0]),
            y: sawn(hole.at[1]),
            diameter: len(hole.diameter),
          })}
          {hole.slot && ` · ${t('part.slot')}`}
          {hole.rough && ` · ${t('part.rough')}`}
        </p>
      ))}
      {grooves.length > 0 && (
        <p className="small figures">
          {t(grooves[0]?.level ? 'part.groovesUp' : 'part.grooves', {
            marks: grooves.map((groove) => sawn(groove.at)).join(' · '),
          })}
        </p>
      )}
      {cutOuts.map((cut) => (
        <p key={cut.name} className="small figures">
          {t('part.cutOut', {
            name: cut.name,
            x0: sawn(cut.from[0]),
            x1: sawn(cut.to[0]),
            y0: sawn(cut.from[1]),
            y1: sawn(cut.to[1]),
            diagonal: sawn(cut.diagonal),
          })}
        </p>
      ))}
      {marks.screws.length > 0 && <p className="small figures">{t('part.screws', { count: marks.screws.length })}</p>}
    </div>
  );
}
