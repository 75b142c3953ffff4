import type { MaterialPlan, PlanSheet } from '@nestplank/core';
import { useSpeech } from '../../words/words.js';

interface SheetDrawingProps {
  readonly item: MaterialPlan;
  readonly sheet: PlanSheet;
  readonly scale: number;
  readonly trim: number;
  readonly labels: boolean;
}

/** Fits a text into a width: its size in pixels, or 0 when it would not be readable. */
const fitting = (text: string, room: number, rise: number): number => {
  const size = Math.min(15, room / Math.max(1, text.length * 0.47), rise - 2);
  return size >= 8.5 ? size : 0;
};

/** One sheet with its parts, grain running sideways; what is left is dashed. */
export function SheetDrawing({ item, sheet, scale, trim, labels }: SheetDrawingProps) {
  const { len, style } = useSpeech();
  const stock = item.material.stocks.find((candidate) => candidate.id === sheet.stock);
  if (!stock) return null;
  const [width, height] = [stock.length * scale, stock.width * scale];
  const at = (x: number, y: number): readonly [number, number] => [
    (x + trim) * scale + 1,
    height - (y + trim) * scale + 1,
  ];
  return (
    <svg
      width={width + 2}
      height={height + 2}
      viewBox={`0 0 ${width + 2} ${height + 2}`}
      style={{ display: 'block', maxWidth: '100%' }}
      role="img"
      aria-label={`${len(stock.length)} × ${len(stock.width)}`}
    >
      <rect x={1} y={1} width={width} height={height} fill="url(#hatch-solid)" stroke="var(--ink)" strokeWidth={1.25} />
      {sheet.offcuts.map((rest) => {
        const [x, y] = at(rest.x, rest.y + rest.width);
        return (
          <rect
            key={`${rest.x}:${rest.y}`}
            x={x}
            y={y}
            width={rest.length * scale}
            height={rest.width * scale}
            fill="var(--paper)"
            stroke="var(--soft)"
            strokeWidth={1}
            strokeDasharray="4 3"
          />
        );
      })}
      {sheet.placements.map((placed) => {
        const part = item.job.parts.find((candidate) => candidate.id === placed.part);
        const [length, across] = placed.turned
          ? [part?.width ?? 0, part?.length ?? 0]
          : [part?.length ?? 0, part?.width ?? 0];
        const [x, y] = at(placed.x, placed.y + across);
        const [w, h] = [length * scale, across * scale];
        const upright = h > w * 1.3;
        const decimals =
          style.units === 'mm' && ((part?.length ?? 0) % 1 !== 0 || (part?.width ?? 0) % 1 !== 0) ? 1 : 0;
        const size = `${len(part?.length ?? 0, decimals)} × ${len(part?.width ?? 0, decimals)}`;
        const [run, rise] = upright ? [h - 8, w] : [w - 8, h];
        const big = labels ? fitting(size, run, rise / 2) : 0;
        const small = labels ? fitting(placed.part, run, rise / 2.2) : 0;
        const [cx, cy] = [x + w / 2, y + h / 2];
        return (
          <g key={placed.part}>
            <rect
              x={x}
              y={y}
              width={w}
              height={h}
              fill={`url(#hatch-${item.material.hatch})`}
              stroke="var(--ink)"
              strokeWidth={labels ? 1.25 : 0.9}
            />
            <g transform={upright ? `rotate(-90 ${cx} ${cy})` : undefined}>
              {big > 0 && (
                <text
                  x={cx}
                  y={cy - (small > 0 ? 1 : -5)}
                  textAnchor="middle"
                  style={{ fontSize: big, fontWeight: 600 }}
                >
                  {size}
                </text>
              )}
              {small > 0 && (
                <text x={cx} y={cy + small + 1} textAnchor="middle" style={{ fontSize: Math.min(small, 12) }}>
                  {placed.part}
                </text>
              )}
            </g>
          </g>
        );
      })}
    </svg>
  );
}
