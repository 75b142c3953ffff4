import { memo, useState, type PointerEvent } from 'react';
import type { Point } from '@nestplank/core/numeric';
import { pointAt, usePointing, type Pointed } from '../state/pointing.js';
import { useSpeech } from '../words/use-speech.js';

interface PointOverlayProps {
  readonly width: number;
  readonly height: number;
  /** The place that is drawn at a point of the drawing; null where none is. */
  readonly placeAt: (at: Point) => Pointed | null;
  /** The drawing is of no true size: no figures beside the cross. */
  readonly rough?: boolean;
}

/** Lies over a drawing while something waits to be pointed at: cross-lines at the pointer, the figures beside them. */
export const PointOverlay = memo(function PointOverlay({ width, height, placeAt, rough = false }: PointOverlayProps) {
  const { t, len } = useSpeech();
  const now = usePointing((pointing) => pointing.now);
  const [over, setOver] = useState<{ readonly at: Point; readonly place: Pointed } | null>(null);
  if (!now) return null;
  const read = (event: PointerEvent<SVGElement>): { at: Point; place: Pointed } | null => {
    const svg = event.currentTarget.ownerSVGElement ?? event.currentTarget;
    const box = svg.getBoundingClientRect();
    const at: Point = [
      ((event.clientX - box.left) / box.width) * width,
      ((event.clientY - box.top) / box.height) * height,
    ];
    const place = placeAt(at);
    return place && now.takes(place) ? { at, place } : null;
  };
  return (
    <g className="pointing">
      <rect
        width={width}
        height={height}
        fill="transparent"
        data-pointing={now.what}
        onPointerMove={(event) => setOver(read(event))}
        onPointerLeave={() => setOver(null)}
        onPointerUp={(event) => {
          const found = read(event);
          setOver(null);
          if (found) pointAt(found.place);
        }}
      />
      {over && (
        <g pointerEvents="none">
          <line x1={over.at[0] - 26} x2={over.at[0] + 26} y1={over.at[1]} y2={over.at[1]} />
          <line x1={over.at[0]} x2={over.at[0]} y1={over.at[1] - 26} y2={over.at[1] + 26} />
          {!rough && (
            <text
              x={Math.min(over.at[0] + 12, width - 130)}
              y={Math.max(16, over.at[1] - 12)}
              className="data halo size-15"
            >
              {t('point.at', { x: len(over.place.x), along: len(over.place.along) })}
            </text>
          )}
        </g>
      )}
    </g>
  );
});
