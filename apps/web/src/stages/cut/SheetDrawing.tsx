import {
  barOutline,
  cutName,
  footprintOf,
  type MaterialPlan,
  type PlannedSheet,
  type Step,
} from '@nestplank/core/plan';
import { useSpeech } from '../../words/use-speech.js';

interface SheetDrawingProps {
  readonly item: MaterialPlan;
  readonly sheet: PlannedSheet;
  /** Pixels for a millimetre. */
  readonly scale: number;
  readonly labels: boolean;
  /** Cuts to bring out, such as those of one fence setting. */
  readonly bring?: readonly Step[];
  /** A part to bring out. */
  readonly part?: string | null;
  readonly onPart?: (part: string) => void;
  readonly title: string;
  /** Parts that fade, such as those on other pieces than the one at the saw. */
  readonly faded?: (placed: PlannedSheet['placements'][number]) => boolean;
}

/** Fits a text into a width: its size in pixels, or 0 when it would not be readable. */
const fitting = (text: string, room: number, rise: number): number => {
  const size = Math.min(15, room / Math.max(1, text.length * 0.47), rise - 2);
  return size >= 8.5 ? size : 0;
};

/** The outline of a placed part on the sheet, in mm, when it is no rectangle. */
function outlineOf(
  item: MaterialPlan,
  placed: PlannedSheet['placements'][number],
): readonly (readonly [number, number])[] | null {
  if (placed.ends) return barOutline(placed.length, placed.width, placed.ends, placed.turned, placed.flipped ?? false);
  const outline = item.job.parts.find((part) => part.id === placed.part)?.outline;
  if (!outline || placed.angle === undefined) return null;
  const { length, width, angle } = placed;
  return outline.map(([x, y]): readonly [number, number] =>
    angle === 90 ? [width - y, x] : angle === 180 ? [length - x, width - y] : angle === 270 ? [y, length - x] : [x, y],
  );
}

/** One sheet, grain running sideways: parts, what is left dashed, what is cut greyed, what was spoiled crossed out. */
export function SheetDrawing({ item, sheet, scale, labels, bring, part, onPart, title, faded }: SheetDrawingProps) {
  const { sawn, t } = useSpeech();
  const trim = sheet.trim;
  // bars are drawn wider than they are, so that their sizes can be read
  const rise = item.job.kind === 'bar' ? Math.max(scale, (labels ? 34 : 7) / sheet.width) : scale;
  const [width, height] = [(sheet.length + 2 * trim) * scale, (sheet.width + 2 * trim) * rise];
  const at = (x: number, y: number): readonly [number, number] => [
    (x + trim) * scale + 1,
    height - (y + trim) * rise + 1,
  ];
  const brought = new Set((bring ?? []).map((step) => step.name));
  const outlines = new Set((bring ?? []).flatMap((step) => (step.part ? [step.part] : [])));
  const doneNames = new Set(sheet.done);
  return (
    <svg
      className="block fit"
      width={width + 2}
      height={height + 2}
      viewBox={`0 0 ${width + 2} ${height + 2}`}
      role="img"
      aria-label={title}
    >
      <rect x={1} y={1} width={width} height={height} fill="url(#hatch-solid)" stroke="var(--ink)" strokeWidth={1.25} />
      {sheet.left.map((rest) => {
        const [x, y] = at(rest.x, rest.y + rest.width);
        return (
          <rect
            key={`${rest.x}:${rest.y}`}
            x={x}
            y={y}
            width={Math.max(0, rest.length * scale)}
            height={Math.max(0, rest.width * rise)}
            fill="var(--paper)"
            stroke="var(--soft)"
            strokeWidth={1}
            strokeDasharray="4 3"
          />
        );
      })}
      {sheet.placements.map((placed, i) => {
        const { length: along, width: across } = footprintOf(placed);
        const [x, y] = at(placed.x, placed.y + across);
        const [w, h] = [along * scale, across * rise];
        const cut = sheet.cut.includes(placed.part) && !placed.spoiled;
        const upright = h > w * 1.3;
        const size = `${sawn(placed.length)} × ${sawn(placed.width)}`;
        const name = `${cut ? '✓ ' : ''}${placed.locked ? '⚿ ' : ''}${placed.part}`;
        const [run, room] = upright ? [h - 8, w] : [w - 8, h];
        const bar = item.job.kind === 'bar';
        const big = labels ? fitting(bar ? sawn(placed.length) : size, run, bar ? room - 2 : room / 2) : 0;
        const small = labels && !bar ? fitting(name, run, room / 2.2) : 0;
        const [cx, cy] = [x + w / 2, y + h / 2];
        const chosen = part === placed.part || outlines.has(placed.part);
        const outline = outlineOf(item, placed);
        const fill = placed.spoiled ? 'var(--paper)' : cut ? 'var(--rule)' : `url(#hatch-${item.material.hatch})`;
        const look = {
          fill,
          stroke: chosen ? 'var(--data)' : 'var(--ink)',
          strokeWidth: chosen ? 3 : labels ? 1.25 : 0.9,
        };
        return (
          <g
            key={`${placed.part}:${i}`}
            onClick={onPart && (() => onPart(placed.part))}
            style={{ ...(onPart && { cursor: 'pointer' }), ...(faded?.(placed) && { opacity: 0.28 }) }}
          >
            {outline ? (
              <polygon
                points={outline.map(([px, py]) => at(placed.x + px, placed.y + py).join()).join(' ')}
                {...look}
              />
            ) : (
              <rect x={x} y={y} width={w} height={h} {...look} />
            )}
            {placed.spoiled && (
              <path d={`M${x} ${y}l${w} ${h}M${x + w} ${y}l${-w} ${h}`} stroke="var(--needs)" strokeWidth={2} />
            )}
            <g transform={upright ? `rotate(-90 ${cx} ${cy})` : undefined}>
              {big > 0 && (
                <text
                  x={cx}
                  y={cy - (small > 0 ? 1 : -5)}
                  textAnchor="middle"
                  className="strong"
                  style={{ fontSize: big }}
                >
                  {bar ? sawn(placed.length) : size}
                </text>
              )}
              {small > 0 && (
                <text x={cx} y={cy + small + 1} textAnchor="middle" style={{ fontSize: Math.min(small, 12) }}>
                  {placed.spoiled ? t('cut.part.spoiled') : name}
                </text>
              )}
            </g>
          </g>
        );
      })}
      {sheet.cuts
        .filter((cut) => brought.size > 0 && brought.has(cutName(cut)))
        .map((cut) => {
          const rip = cut.axis === 'rip';
          const lean = (cut.to - cut.from) * Math.tan(((cut.angle ?? 0) * Math.PI) / 180);
          const [x1, y1] = rip ? at(cut.from, cut.at) : at(cut.at, cut.from);
          const [x2, y2] = rip ? at(cut.to, cut.at) : at(cut.at + lean, cut.to);
          const done = doneNames.has(cutName(cut));
          return (
            <line
              key={cutName(cut)}
              x1={x1}
              y1={y1}
              x2={x2}
              y2={y2}
              stroke={done ? 'var(--soft)' : 'var(--data)'}
              strokeWidth={labels ? 5 : 3}
              strokeDasharray={done ? '2 3' : undefined}
            />
          );
        })}
    </svg>
  );
}
