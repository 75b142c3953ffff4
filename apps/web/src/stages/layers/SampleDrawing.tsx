import { surfaceTitle } from '../../kit/surface-words.js';
import { useDrag } from '@use-gesture/react';
import { useState } from 'react';
import type { Layer } from '@nestplank/core/document';
import type { BuildUpDepth, LayerDepth } from '@nestplank/core/layers';
import type { Message } from '@nestplank/core/words';
import { useSize } from '../../kit/use-size.js';
import { useSpeech } from '../../words/use-speech.js';

const HEIGHT = 78;
const METAL = 10;

interface Piece {
  readonly depth: LayerDepth;
  readonly from: number;
  readonly to: number;
}

/** Lays the layers out from the metal to the room; what shares the depth of battens is drawn in the lower half of it. */
function piecesOf(
  depth: BuildUpDepth,
  ribDepth: number,
): { readonly pieces: Piece[]; readonly end: number; readonly face: number } {
  let inRibs = 0;
  let at = 0;
  const pieces: Piece[] = [];
  let battens: { from: number; to: number } | null = null;
  for (const entry of depth.layers) {
    const { layer } = entry;
    const { thickness } = entry;
    if (layer.place === 'in-ribs') {
      pieces.push({ depth: entry, from: inRibs - ribDepth, to: inRibs + thickness - ribDepth });
      inRibs += thickness;
      at = Math.max(at, inRibs - ribDepth);
    } else if (layer.place === 'rib-battens') {
      pieces.push({ depth: entry, from: -ribDepth, to: thickness - ribDepth });
      at = Math.max(at, thickness - ribDepth);
    } else if (layer.place === 'between-battens' && battens) {
      pieces.push({ depth: entry, from: battens.from, to: battens.from + thickness });
      at = Math.max(at, battens.from + thickness);
    } else {
      pieces.push({ depth: entry, from: at, to: at + thickness });
      if (layer.place === 'battens') battens = { from: at, to: at + thickness };
      at += thickness;
    }
  }
  return { pieces, end: at, face: ribDepth };
}

function Stretch({
  x,
  scale,
  layer,
  name,
  onStretch,
}: {
  readonly x: number;
  readonly scale: number;
  readonly layer: Layer;
  readonly name: string;
  readonly onStretch: (layer: Layer, thickness: number) => Message | null;
}) {
  const { t } = useSpeech();
  const [by, setBy] = useState(0);
  const drag = useDrag(
    ({ movement: [mx], last }) => {
      const moved = Math.round(mx / scale);
      setBy(last ? 0 : moved);
      if (last && moved !== 0) onStretch(layer, Math.max(1, layer.thickness + moved));
    },
    { preventDefault: true, pointer: { keys: false } },
  );
  return (
    <g
      className="slides-along"
      {...drag()}
      role="slider"
      tabIndex={0}
      aria-label={t('layers.stretch', { name })}
      aria-valuemin={1}
      aria-valuemax={500}
      aria-valuenow={Math.round(layer.thickness)}
      onKeyDown={(event) => {
        const step = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key];
        if (step === undefined) return;
        event.preventDefault();
        onStretch(layer, Math.max(1, layer.thickness + step));
      }}
    >
      <rect x={x - 11} y={0} width={22} height={HEIGHT} fill="transparent" />
      <line
        x1={x + by * scale}
        x2={x + by * scale}
        y1={2}
        y2={HEIGHT - 2}
        stroke={by === 0 ? 'transparent' : 'var(--data)'}
        strokeWidth={2.5}
      />
      <rect
        x={x + by * scale - 3}
        y={HEIGHT / 2 - 9}
        width={6}
        height={18}
        fill="var(--paper)"
        stroke="var(--ink)"
        strokeWidth={1.25}
      />
    </g>
  );
}

/** The layers of a surface to scale, metal at the left, room at the right. */
export function SampleDrawing({
  surface,
  depth,
  ribDepth,
  onStretch,
}: {
  readonly surface: string;
  readonly depth: BuildUpDepth;
  readonly ribDepth: number;
  readonly onStretch: (layer: Layer, thickness: number) => Message | null;
}) {
  const speech = useSpeech();
  const { t, len } = speech;
  const { ref, width } = useSize<HTMLDivElement>();
  const { pieces, end } = piecesOf(depth, ribDepth);
  const span = ribDepth + Math.max(end, 1);
  const scale = Math.min(3.2, Math.max(0.5, (width - 120) / span));
  const x = (value: number): number => 46 + METAL + (value + ribDepth) * scale;
  const battens = pieces.find((piece) => piece.depth.layer.place === 'battens');
  return (
    <div ref={ref} style={{ height: HEIGHT + 22 }}>
      {width > 60 && (
        <svg
          className="block"
          width={width}
          height={HEIGHT + 22}
          role="group"
          aria-label={t('layers.sample', { surface: surfaceTitle(surface, speech).toLowerCase() })}
        >
          <rect x={46} y={0} width={METAL} height={HEIGHT} fill="var(--ink)" />
          <text x={40} y={HEIGHT / 2 + 4} textAnchor="end" className="soft">
            {t('layers.metal')}
          </text>
          {ribDepth > 0 && (
            <rect
              x={x(-ribDepth)}
              y={0}
              width={ribDepth * scale}
              height={HEIGHT}
              fill="none"
              stroke="var(--rule)"
              strokeWidth={1.25}
              strokeDasharray="4 3"
            />
          )}
          {pieces.map(({ depth: { layer, material, thickness }, from, to }) => {
            const shared = battens && battens.from < to && battens.to > from && layer.place === 'between-battens';
            const isBatten = layer.place === 'battens' || layer.place === 'rib-battens';
            const [y, h] = shared ? [26, HEIGHT - 26] : isBatten ? [0, 26] : [0, HEIGHT];
            const wide = (to - from) * scale;
            return (
              <g key={layer.id}>
                <rect
                  x={x(from)}
                  y={y}
                  width={Math.max(1, wide)}
                  height={h}
                  fill={`url(#hatch-${material?.hatch ?? 'grey'})`}
                  stroke="var(--ink)"
                  strokeWidth={1.25}
                />
                {wide > 17 && (
                  <text x={x(from) + wide / 2} y={y + h / 2 + 4.5} textAnchor="middle" className="halo wide-halo">
                    {len(thickness, thickness % 1 === 0 ? 0 : 1)}
                  </text>
                )}
              </g>
            );
          })}
          {pieces
            .filter(
              ({ depth: { layer } }) =>
                layer.place !== 'battens' || !pieces.some((p) => p.depth.layer.place === 'between-battens'),
            )
            .map(({ depth: { layer, material }, to }) => (
              <Stretch
                key={layer.id}
                x={x(to)}
                scale={scale}
                layer={layer}
                name={material?.name ?? layer.material}
                onStretch={onStretch}
              />
            ))}
          <line x1={x(end)} x2={x(end)} y1={0} y2={HEIGHT + 8} stroke="var(--data)" strokeWidth={1.5} />
          <line x1={x(0)} x2={x(0)} y1={HEIGHT} y2={HEIGHT + 8} stroke="var(--data)" strokeWidth={1.5} />
          <text x={(x(0) + x(end)) / 2} y={HEIGHT + 19} textAnchor="middle" className="data">
            {len(depth.total)}
          </text>
          <text x={x(end) + 14} y={HEIGHT / 2 + 4} className="soft">
            {t('layers.room')}
          </text>
        </svg>
      )}
    </div>
  );
}
