import { materialOf } from '@nestplank/core/materials';
import { blankOf, type Part } from '@nestplank/core/parts';
import type { Scene } from '../../state/scene.js';
import { look } from '../../state/view.js';
import { useSize } from '../../kit/use-size.js';
import { useSpeech } from '../../words/use-speech.js';
import { partName } from './names.js';
import { PartDrawing } from './PartDrawing.js';

/** The scale at which parts in rows fill the window without overflowing it. */
function fanScale(parts: readonly Part[], width: number, height: number): number {
  const sizes = parts.map(blankOf);
  const rowsFit = (scale: number): boolean => {
    let [x, y, row] = [0, 0, 0];
    for (const size of sizes) {
      const [w, h] = [Math.max(size.length * scale + 20, 96) + 18, size.width * scale + 20 + 44 + 14];
      if (x > 0 && x + w > width - 36) {
        y += row;
        [x, row] = [0, 0];
      }
      x += w;
      row = Math.max(row, h);
    }
    return y + row <= height - 30;
  };
  const widest = Math.max(...sizes.map((size) => size.length), 1);
  let scale = Math.min(0.34, (width - 80) / widest);
  while (scale > 0.05 && !rowsFit(scale)) scale *= 0.96;
  return scale;
}

/** The parts of a unit spread out, all to one scale. */
export function PartFan({
  parts,
  chosen,
  scene,
}: {
  readonly parts: readonly Part[];
  readonly chosen: string | null;
  readonly scene: Scene;
}) {
  const speech = useSpeech();
  const { sawn, t } = speech;
  const { ref, width, height } = useSize<HTMLDivElement>();
  const scale = width > 60 && height > 60 ? fanScale(parts, width, height) : 0;
  return (
    <div ref={ref} className="grow canvas scrolls">
      <div className="parts-fan">
        {scale > 0 &&
          parts.map((part) => {
            const blank = blankOf(part);
            const name = partName(part, parts, speech);
            return (
              <button
                key={part.id}
                type="button"
                className="part-tile"
                aria-pressed={part.id === chosen}
                onClick={() => look({ part: part.id })}
                data-part={part.id}
              >
                <PartDrawing
                  part={part}
                  hatch={materialOf(scene.book, part.material)?.hatch ?? 'grey'}
                  scale={scale}
                  label={t('build.name', { part: name, length: sawn(blank.length), width: sawn(blank.width) })}
                />
                <span className="block strong">{name}</span>
                <span className="figures soft">
                  {sawn(blank.length)} × {sawn(blank.width)}
                </span>
              </button>
            );
          })}
      </div>
    </div>
  );
}
