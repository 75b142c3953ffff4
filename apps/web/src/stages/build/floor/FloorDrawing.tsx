import { footprintsOf } from '@nestplank/core/lining';
import { boundsOf } from '@nestplank/core/measure';
import { boxOf, type Point } from '@nestplank/core/numeric';
import type { Scene } from '../../../state/scene.js';
import type { Pointed } from '../../../state/pointing.js';
import { PointOverlay } from '../../../kit/PointOverlay.js';
import { ringPath } from '../../../kit/path.js';
import { useSize } from '../../../kit/use-size.js';
import { Fixings } from '../../../kit/Fixings.js';
import { useSpeech } from '../../../words/use-speech.js';

export const FLOOR_LAYERS = ['board', 'upper', 'battens', 'screws', 'planks', 'under'] as const;
export type FloorLayers = Readonly<Record<(typeof FLOOR_LAYERS)[number], boolean>>;

interface FloorDrawingProps {
  readonly scene: Scene;
  readonly shown: FloorLayers;
  readonly chosen: string | null;
  readonly onPart: (part: string) => void;
}

const MARGIN = 30;

/** The floor from above: board with its seams, battens, screws, planks, and what lies beneath. */
export function FloorDrawing({ scene, shown, chosen, onPart }: FloorDrawingProps) {
  const { t, len } = useSpeech();
  const { ref, width, height } = useSize<HTMLDivElement>();
  const { subfloor, floor, floorBattens } = scene.shape;
  if (!subfloor) return null;
  const box = boxOf([...subfloor.outline.outer, ...(floor.room?.outer ?? [])]);
  const scale = Math.max(
    0.01,
    Math.min((width - 2 * MARGIN) / (box.maxX - box.minX), (height - 2 * MARGIN - 12) / (box.maxY - box.minY)),
  );
  const at = ([x, y]: Point): Point => [MARGIN + (x - box.minX) * scale, MARGIN + (y - box.minY) * scale];
  const placeAt = ([px, py]: Point): Pointed | null => {
    const [x, y] = [box.minX + (px - MARGIN) / scale, box.minY + (py - MARGIN) / scale];
    const inside = x >= box.minX && x <= box.maxX && y >= box.minY && y <= box.maxY;
    return inside ? { surface: 'floor', x: Math.round(x), along: Math.round(y) } : null;
  };
  const rect = (x0: number, y0: number, x1: number, y1: number) => {
    const [a, b] = [at([x0, y0]), at([x1, y1])];
    return { x: a[0], y: a[1], width: Math.max(0, b[0] - a[0]), height: Math.max(0, b[1] - a[1]) };
  };
  const battenWidth =
    scene.shape.depths.floor.layers.find(({ layer }) => layer.place === 'battens')?.material?.width ?? 45;
  const half = battenWidth / 2;
  const boards = scene.shape.parts.filter((part) => part.role === 'subfloor');
  const hatchOf = (id: string): string => scene.book.items.find((item) => item.id === id)?.hatch ?? 'grey';
  // boards that lie on the lowest one are drawn over it while they are shown
  const layers = [...(shown.board ? [subfloor] : []), ...(shown.upper ? subfloor.upper : [])];
  const topmost = (shown.upper ? subfloor.upper.at(-1) : undefined) ?? subfloor;
  const screws = floor.upper.find(({ layer }) => layer === topmost)?.screws ?? floor.screws;
  return (
    <div ref={ref} className="grow canvas">
      {width > 60 && height > 60 && (
        <svg
          className="block"
          width={width}
          height={height}
          viewBox={`0 0 ${width} ${height}`}
          role="group"
          aria-label={t('floor.drawing')}
        >
          {floor.room && (
            <path d={ringPath(floor.room.outer.map(at))} fill="none" stroke="var(--soft)" strokeDasharray="4 4" />
          )}
          {layers.flatMap((layer) =>
            layer.pieces.map((piece, i) => {
              const part = boards.find(({ id }) => id === layer.parts[i]?.id);
              const on = part?.id === chosen;
              return (
                <path
                  className="takes"
                  key={part?.id ?? `${layer.from}:${i}`}
                  d={[piece.outer, ...piece.holes].map((ring) => ringPath(ring.map(at))).join(' ')}
                  fillRule="evenodd"
                  fill={`url(#hatch-${hatchOf(layer.board.material)})`}
                  fillOpacity={shown.planks ? 0.35 : 1}
                  stroke={on ? 'var(--data)' : 'var(--ink)'}
                  strokeWidth={on ? 3 : 1.5}
                  onClick={() => part && onPart(part.id)}
                  data-piece={part?.id}
                />
              );
            }),
          )}
          {shown.planks &&
            floor.finish?.rows.flatMap((row) =>
              row.pieces.map((piece) => (
                <rect
                  key={`${row.y0}:${piece.x0}`}
                  {...rect(piece.x0, row.y0, piece.x1, row.y1)}
                  fill={piece.offcut ? 'var(--rule)' : 'var(--paper)'}
                  fillOpacity={0.75}
                  stroke="var(--ink)"
                  strokeWidth={0.9}
                  pointerEvents="none"
                />
              )),
            )}
          {shown.battens && (
            <g pointerEvents="none">
              {floorBattens?.battens.map((batten, i) => (
                <rect
                  key={i}
                  {...rect(batten.x0, batten.y - half, batten.x1, batten.y + half)}
                  fill="var(--soft)"
                  fillOpacity={0.22}
                  stroke="var(--soft)"
                  strokeDasharray="6 3"
                />
              ))}
              {floor.insulation?.joints.map((joint, i) => (
                <line
                  key={`joint-${i}`}
                  x1={at([joint.x, joint.y0])[0]}
                  y1={at([joint.x, joint.y0])[1]}
                  x2={at([joint.x, joint.y1])[0]}
                  y2={at([joint.x, joint.y1])[1]}
                  stroke="var(--data)"
                  strokeDasharray="3 3"
                />
              ))}
              {floor.noggins.map((noggin, i) => (
                <rect
                  key={i}
                  {...rect(noggin.x0, noggin.y0, noggin.x1, noggin.y1)}
                  fill="var(--soft)"
                  fillOpacity={0.4}
                  stroke="var(--soft)"
                />
              ))}
            </g>
          )}
          {shown.under && (
            <g pointerEvents="none">
              {boundsOf(scene.project.survey).map((area) => (
                <g key={area.id}>
                  <rect
                    {...rect(area.from, area.left, area.to, area.right)}
                    fill="none"
                    stroke="var(--needs)"
                    strokeWidth={1.5}
                    strokeDasharray="8 4"
                  />
                  <text
                    x={at([area.from, area.left])[0] + 5}
                    y={at([area.from, area.left])[1] + 14}
                    className="needs size-12"
                  >
                    {area.name}
                  </text>
                </g>
              ))}
              {footprintsOf(scene.project.layout.units, box.maxY).map((ring, i) => (
                <path key={i} d={ringPath(ring.map(at))} fill="none" stroke="var(--ink)" strokeDasharray="2 4" />
              ))}
            </g>
          )}
          {scene.project.floorHatches.map((lid) => (
            <g key={lid.id} pointerEvents="none">
              <rect
                {...rect(lid.x - lid.length / 2, lid.y - lid.width / 2, lid.x + lid.length / 2, lid.y + lid.width / 2)}
                fill="var(--paper)"
                stroke="var(--data)"
                strokeWidth={2}
              />
              <text className="size-12" x={at([lid.x, lid.y])[0]} y={at([lid.x, lid.y])[1] + 4} textAnchor="middle">
                {lid.name}
              </text>
            </g>
          ))}
          {shown.screws && <Fixings points={screws} at={at} />}
          {topmost.seams.map((seam) => {
            const [a, b] =
              seam.direction === 'across'
                ? [at([seam.at, box.minY]), at([seam.at, box.maxY])]
                : [at([box.minX, seam.at]), at([Math.min(seam.to, box.maxX), seam.at])];
            return (
              <text
                key={`${seam.direction}:${seam.at}:${seam.from}`}
                x={seam.direction === 'across' ? a[0] : b[0] + 4}
                y={seam.direction === 'across' ? a[1] - 6 : a[1] + 4}
                textAnchor={seam.direction === 'across' ? 'middle' : 'start'}
                className="data size-13"
                pointerEvents="none"
              >
                {len(seam.at)}
              </text>
            );
          })}
          <PointOverlay width={width} height={height} placeAt={placeAt} />
        </svg>
      )}
    </div>
  );
}
