import { blankOf, materialOf, partMass, type Part } from '@nestplank/core';
import type { Scene } from '../../state/scene.js';
import { useSpeech } from '../../words/words.js';
import { partName } from './names.js';
import { PartDrawing } from './PartDrawing.js';

/** One part: its drawing with sizes, and what to know at the saw and at the wall. */
export function PartPanel({ part, scene }: { readonly part: Part; readonly scene: Scene }) {
  const speech = useSpeech();
  const { t, len, lenUnit } = speech;
  const blank = blankOf(part);
  const material = materialOf(scene.book, part.material);
  const mass = partMass(part, scene.book);
  const unit = scene.project.units.find((candidate) => candidate.id === part.unit);
  const name = partName(part, scene.shape.parts, speech);
  const scale = Math.min(296 / blank.length, 220 / blank.width);
  const degrees = (value: number): string => value.toFixed(1);
  const decimals = speech.style.units === 'mm' ? 1 : 0;
  return (
    <section className="stack" aria-label={name}>
      <h1 style={{ fontSize: 22 }}>
        {unit?.name ?? t('build.subfloor')}: {name}
      </h1>
      <PartDrawing
        part={part}
        hatch={material?.hatch ?? 'grey'}
        scale={scale}
        margin={6}
        label={t('build.name', { part: name, length: len(blank.length), width: len(blank.width) })}
        sizes={{ length: len(blank.length, decimals), width: len(blank.width, decimals) }}
      />
      <p>
        {material?.name ?? part.material} ·{' '}
        <span className="soft">{part.grain ? t('build.grainAlong') : t('build.grainAny')}</span>
        {mass !== null && <span className="figures"> · {mass.toFixed(1)} kg</span>}
      </p>
      {part.edges
        .filter((edge) => edge.kind === 'scribe')
        .map((edge) => (
          <p key={edge.at} className="small">
            {t('build.scribe', {
              at: t(`at.${edge.at}`),
              allowance: lenUnit(edge.allowance),
              removal: lenUnit(edge.largestRemoval),
            })}{' '}
            {edge.squareCut
              ? t('build.square', { degrees: degrees(Math.max(Math.abs(edge.bevel.least), Math.abs(edge.bevel.most))) })
              : t('build.bevel', { least: degrees(edge.bevel.least), most: degrees(edge.bevel.most) })}
          </p>
        ))}
    </section>
  );
}
