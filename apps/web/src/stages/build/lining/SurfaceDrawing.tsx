import { useRef, useState, type PointerEvent } from 'react';
import { asSeen, grooveSpans, reachOf, supportAt, toPlace, type Lining } from '@nestplank/core/lining';
import { boxOf, type Point } from '@nestplank/core/numeric';
import type { Pointed } from '../../../state/pointing.js';
import { PointOverlay } from '../../../kit/PointOverlay.js';
import { linePath, ringPath } from '../../../kit/path.js';
import { useSize } from '../../../kit/use-size.js';
import { Fixings } from '../../../kit/Fixings.js';
import { useSpeech } from '../../../words/use-speech.js';

/** What is drawn over the pieces. */
export interface Shown {
  readonly seams: boolean;
  readonly supports: boolean;
  readonly fixings: boolean;
  readonly hidden: boolean;
}

interface SurfaceDrawingProps {
  readonly lining: Lining;
  readonly shown: Shown;
  readonly chosen: string | null;
  /** What a unit that hides a stretch is called. */
  readonly nameOf: (id: string) => string;
  readonly onPart: (part: string) => void;
  /** Takes a seam to another place along the vehicle, mm; null where seams are not moved. */
  readonly onSeam: ((index: number, to: number) => void) | null;
}

const MARGIN = 34;
/** A seam catches on a support that is nearer than this, mm. */
const CATCH_MM = 25;

/** A wall or ceiling laid flat, as it is seen from the room, with everything that is to be known before a sheet is cut. */
export function SurfaceDrawing({ lining, shown, chosen, nameOf, onPart, onSeam }: SurfaceDrawingProps) {
  const { t, len } = useSpeech();
  const { ref, width, height } = useSize<HTMLDivElement>();
  const { ground } = lining;
  const { unrolled } = ground;
  const seen = ground.solid.map((outline) => outline.outer.map((point) => asSeen(unrolled, point)));
  const box = boxOf(seen.flat());
  const scale = Math.max(
    0.01,
    Math.min((width - 2 * MARGIN) / (box.maxX - box.minX), (height - 2 * MARGIN - 18) / (box.maxY - box.minY)),
  );
  const place = ([x, y]: Point): Point => [MARGIN + (x - box.minX) * scale, MARGIN + (box.maxY - y) * scale];
  const at = (point: Point): Point => place(asSeen(unrolled, point));
  /** The place that is drawn at a point; the way it is seen is its own mirror. */
  const placeAt = ([px, py]: Point): Pointed | null => {
    const [u, v] = asSeen(unrolled, [box.minX + (px - MARGIN) / scale, box.maxY - (py - MARGIN) / scale]);
    const [from, to] = reachOf(unrolled, u);
    if (u < 0 || u > unrolled.length || v < from || v > to) return null;
    return {
      surface: lining.surface,
      x: Math.round(u + unrolled.from),
      along: Math.round(toPlace(unrolled, u, v)),
    };
  };
  // a ceiling is seen from below: its left edge is at the top
  const upsideDown = lining.surface === 'ceiling';
  const drag = useRef<{ readonly index: number; readonly pointer: number } | null>(null);
  const [moving, setMoving] = useState<{ readonly index: number; readonly u: number } | null>(null);
  const [low, high] = [
    boxOf(ground.solid.flatMap((outline) => outline.outer)).minY,
    boxOf(ground.solid.flatMap((outline) => outline.outer)).maxY,
  ];
  const uOf = (event: PointerEvent<SVGElement>): number => {
    const svg = event.currentTarget.ownerSVGElement ?? event.currentTarget;
    const { left, width: wide } = svg.getBoundingClientRect();
    const x = ((event.clientX - left) / wide) * width;
    const p = box.minX + (x - MARGIN) / scale;
    const u = unrolled.surface === 'left' ? unrolled.length - p : p;
    const near = ground.supports.find((support) => Math.abs(support.u - u) < CATCH_MM);
    return Math.round(near ? near.u : Math.min(unrolled.length - 1, Math.max(1, u)));
  };
  const seamAt = (index: number, own: number): number => (moving?.index === index ? moving.u : own);
  return (
    <div ref={ref} className="grow canvas">
      {width > 60 && height > 60 && (
        <svg
          className="block"
          width={width}
          height={height}
          viewBox={`0 0 ${width} ${height}`}
          role="group"
          aria-label={t('lining.drawing', { surface: t(`lining.surface.${lining.surface}`) })}
        >
          {lining.pieces.map((piece) => {
            const rings = [piece.outline.outer, ...piece.outline.holes];
            const on = piece.part === chosen;
            return (
              <path
                className="takes"
                key={piece.part}
                d={rings.map((ring) => ringPath(ring.map(at))).join(' ')}
                fillRule="evenodd"
                fill={`url(#hatch-${lining.material.hatch})`}
                stroke={on ? 'var(--data)' : 'var(--ink)'}
                strokeWidth={on ? 3 : 1}
                strokeLinejoin="round"
                onClick={() => onPart(piece.part)}
                data-piece={piece.part}
              />
            );
          })}
          {shown.seams && lining.grooves && (
            <g pointerEvents="none">
              {lining.grooves.at.flatMap((place, i) =>
                ground.solid.flatMap((outline, k) =>
                  grooveSpans(outline, lining.grooves?.direction ?? 'level', place).map(([from, to], j) => {
                    const level = lining.grooves?.direction === 'level';
                    const [a, b] = level ? [at([from, place]), at([to, place])] : [at([place, from]), at([place, to])];
                    return (
                      <line
                        key={`${i}:${k}:${j}`}
                        x1={a[0]}
                        y1={a[1]}
                        x2={b[0]}
                        y2={b[1]}
                        stroke="var(--ink)"
                        strokeOpacity={0.5}
                        strokeWidth={1}
                        strokeDasharray="1 2"
                      />
                    );
                  }),
                ),
              )}
            </g>
          )}
          {shown.hidden &&
            ground.hidden.map((zone) => {
              const [a, b] = [at([zone.u0, Math.min(zone.v1, high)]), at([zone.u1, Math.max(zone.v0, low)])];
              const [x, y] = [Math.min(a[0], b[0]), Math.min(a[1], b[1])];
              return (
                <g key={zone.by} pointerEvents="none">
                  <rect
                    x={x}
                    y={y}
                    width={Math.abs(b[0] - a[0])}
                    height={Math.abs(b[1] - a[1])}
                    fill="var(--paper)"
                    opacity={0.62}
                    stroke="var(--soft)"
                    strokeDasharray="6 4"
                  />
                  <text className="size-12" x={x + 6} y={y + 15}>
                    {nameOf(zone.by)}
                  </text>
                </g>
              );
            })}
          {shown.supports && (
            <g pointerEvents="none">
              {lining.battens.map((batten, i) => {
                const [a, b] = [at([batten.u0, batten.v0]), at([batten.u1, batten.v1])];
                return (
                  <line
                    key={i}
                    x1={a[0]}
                    y1={a[1]}
                    x2={b[0]}
                    y2={b[1]}
                    stroke="var(--soft)"
                    strokeOpacity={0.45}
                    strokeWidth={Math.max(2, 45 * scale)}
                  />
                );
              })}
              {ground.supports.map((support) => {
                const [a, b] = [
                  at([supportAt(support, Math.max(low, support.v0)), Math.max(low, support.v0)]),
                  at([supportAt(support, Math.min(high, support.v1)), Math.min(high, support.v1)]),
                ];
                return (
                  <g key={support.name}>
                    <line
                      x1={a[0]}
                      y1={a[1]}
                      x2={b[0]}
                      y2={b[1]}
                      stroke="var(--soft)"
                      strokeWidth={1.25}
                      strokeDasharray="9 4 2 4"
                    />
                    <text
                      x={a[0]}
                      y={upsideDown ? a[1] - 6 : a[1] + 14}
                      textAnchor="middle"
                      className="figures soft size-11"
                    >
                      {len(support.u)}
                    </text>
                  </g>
                );
              })}
            </g>
          )}
          {ground.openings.map((opening) => (
            <g key={opening.id} pointerEvents="none">
              <path
                d={ringPath(opening.ring.map(([u, v]) => at([u, Math.max(low, v)])))}
                fill="none"
                stroke="var(--soft)"
                strokeWidth={1}
                strokeDasharray="3 3"
              />
              <text
                x={at(opening.middle)[0]}
                y={upsideDown ? at(opening.middle)[1] : Math.min(at(opening.middle)[1], at([0, low])[1] - 6)}
                textAnchor="middle"
                className="soft size-12"
              >
                {opening.name}
              </text>
            </g>
          ))}
          {ground.fittings.map((fitting) => (
            <path
              key={fitting.id}
              d={ringPath(fitting.ring.map(at))}
              fill="none"
              stroke={fitting.wired ? 'var(--needs)' : 'var(--data)'}
              strokeWidth={1.5}
              pointerEvents="none"
            />
          ))}
          {shown.fixings && <Fixings points={lining.fixings} at={at} />}
          {shown.seams && (
            <g>
              {lining.unbacked.map((joint) => (
                <path
                  key={`${joint.u}:${joint.v0}`}
                  d={linePath([at([joint.u, joint.v0]), at([joint.u, joint.v1])])}
                  stroke="var(--needs)"
                  strokeWidth={3}
                  pointerEvents="none"
                />
              ))}
              {lining.seams.map((seam, index) => {
                const u = seamAt(index, seam.at);
                const [a, b] = [at([u, low]), at([u, high])];
                return (
                  <g key={index}>
                    <line x1={a[0]} y1={a[1]} x2={b[0]} y2={b[1]} stroke="var(--data)" strokeWidth={2.5} />
                    {onSeam && (
                      <line
                        className="slides-along"
                        x1={a[0]}
                        y1={a[1]}
                        x2={b[0]}
                        y2={b[1]}
                        stroke="transparent"
                        strokeWidth={22}
                        onPointerDown={(event) => {
                          drag.current = { index, pointer: event.pointerId };
                          event.currentTarget.setPointerCapture(event.pointerId);
                          setMoving({ index, u: seam.at });
                        }}
                        onPointerMove={(event) => {
                          if (drag.current?.pointer === event.pointerId) setMoving({ index, u: uOf(event) });
                        }}
                        onPointerUp={(event) => {
                          if (drag.current?.pointer !== event.pointerId) return;
                          drag.current = null;
                          const to = uOf(event);
                          setMoving(null);
                          if (Math.abs(to - seam.at) >= 1) onSeam(index, to);
                        }}
                        onPointerCancel={() => {
                          drag.current = null;
                          setMoving(null);
                        }}
                      />
                    )}
                    <text x={a[0]} y={b[1] - 6} textAnchor="middle" className="data size-13">
                      {len(u)}
                    </text>
                  </g>
                );
              })}
            </g>
          )}
          <PointOverlay width={width} height={height} placeAt={placeAt} />
        </svg>
      )}
    </div>
  );
}
