import Button from '@mui/material/Button';
import { useMemo, useState } from 'react';
import type { Part } from '@nestplank/core/parts';
import { materialOf } from '@nestplank/core/materials';
import { ringPath } from '../../kit/path.js';
import { useSize } from '../../kit/use-size.js';
import type { Scene } from '../../state/scene.js';
import { look } from '../../state/view.js';
import { useSpeech } from '../../words/use-speech.js';
import { assembled, windowOf } from './assembled.js';

const QUARTER = Math.PI / 2;
/** Looked at a little from the side, radians. */
const ASKEW = 0.45;
const MARGIN_PX = 24;

/** Parts as they stand in the vehicle, put together; turned by quarters, a part is chosen by a press on it. */
export function Assembled({
  parts,
  chosen,
  scene,
  name,
}: {
  readonly parts: readonly Part[];
  readonly chosen: string | null;
  readonly scene: Scene;
  readonly name: string;
}) {
  const { t } = useSpeech();
  const { ref, width, height } = useSize<HTMLDivElement>();
  // what stands on the left is looked at from the middle of the vehicle
  const mean = parts.reduce((sum, { place }) => sum + place.origin[1], 0) / Math.max(1, parts.length);
  const [turns, setTurns] = useState(mean < 0 ? 2 : 0);
  const faces = useMemo(() => assembled(parts, turns * QUARTER + ASKEW), [parts, turns]);
  const box = windowOf(faces);
  const scale = Math.min(
    (width - 2 * MARGIN_PX) / Math.max(1, box.width),
    (height - 2 * MARGIN_PX) / Math.max(1, box.height),
  );
  const [dx, dy] = [(width - box.width * scale) / 2, (height - box.height * scale) / 2];
  const hatch = new Map(parts.map(({ id, material }) => [id, materialOf(scene.book, material)?.hatch ?? 'grey']));
  return (
    <div className="grow canvas drawing" ref={ref}>
      {scale > 0 && (
        <svg role="img" aria-label={t('build.together', { name, count: parts.length })}>
          {faces.map(({ part, rings, edge }, i) => (
            <path
              key={i}
              d={rings
                .map((ring) =>
                  ringPath(
                    ring.map(([x, y]): [number, number] => [dx + (x - box.x) * scale, dy + (y - box.y) * scale]),
                  ),
                )
                .join(' ')}
              fillRule="evenodd"
              fill={edge ? 'var(--paper)' : `url(#hatch-${hatch.get(part) ?? 'grey'})`}
              stroke={part === chosen ? 'var(--data)' : 'var(--ink)'}
              strokeWidth={part === chosen ? 2 : 0.9}
              strokeLinejoin="round"
              className="takes"
              onClick={() => look({ part })}
              data-face={part}
            />
          ))}
        </svg>
      )}
      <div className="row no-print switches">
        <Button size="small" onClick={() => setTurns((turns + 1) % 4)}>
          {t('build.turn')}
        </Button>
      </div>
    </div>
  );
}
