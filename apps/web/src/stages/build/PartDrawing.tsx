import { boxOf, type Point } from '@nestplank/core/numeric';
import type { Part } from '@nestplank/core/parts';
import { linePath, ringPath } from '../../kit/path.js';

interface PartDrawingProps {
  readonly part: Part;
  readonly hatch: string;
  readonly scale: number;
  readonly margin?: number;
  readonly label: string;
  readonly sizes?: { readonly length: string; readonly width: string };
}

/** A part's true outline with its scribe lines, grain running sideways. */
export function PartDrawing({ part, hatch, scale, margin = 4, label, sizes }: PartDrawingProps) {
  const box = boxOf(part.outline.outer);
  const extra = sizes ? 24 : 0;
  const [width, height] = [box.maxX * scale + 2 * margin + extra, box.maxY * scale + 2 * margin + extra];
  const at = ([x, y]: Point): Point => [margin + extra + x * scale, margin + (box.maxY - y) * scale];
  const outline = [part.outline.outer, ...part.outline.holes].map((ring) => ringPath(ring.map(at))).join(' ');
  return (
    <svg
      className="block fit"
      width={width}
      height={height}
      role="img"
      aria-label={label}
      viewBox={`0 0 ${width} ${height}`}
    >
      <path
        d={outline}
        fillRule="evenodd"
        fill={`url(#hatch-${hatch})`}
        stroke="var(--ink)"
        strokeWidth={1.25}
        strokeLinejoin="round"
      />
      {part.edges
        .filter((edge) => edge.trueLine.length > 1)
        .map((edge, i) => (
          <path
            key={i}
            d={linePath(edge.trueLine.map(at))}
            fill="none"
            stroke="var(--data)"
            strokeWidth={1.25}
            strokeDasharray="5 3"
          />
        ))}
      {part.marks && (
        <g>
          {part.marks.lines.map((mark, i) => (
            <path
              key={i}
              d={linePath([at(mark.from), at(mark.to)])}
              stroke="var(--soft)"
              strokeWidth={1}
              strokeDasharray="9 4 2 4"
            />
          ))}
          {part.marks.grooves?.map((groove, i) => (
            <path
              key={`groove-${i}`}
              d={linePath([at(groove.from), at(groove.to)])}
              stroke="var(--ink)"
              strokeWidth={1}
              strokeDasharray="1 2"
            />
          ))}
          {sizes &&
            part.marks.screws.map((point, i) => (
              <circle key={i} cx={at(point)[0]} cy={at(point)[1]} r={1.6} fill="var(--data)" />
            ))}
        </g>
      )}
      {sizes && (
        <>
          <text x={extra + margin + (box.maxX * scale) / 2} y={height - 5} textAnchor="middle" className="data size-15">
            {sizes.length}
          </text>
          <text
            x={14}
            y={margin + (box.maxY * scale) / 2}
            textAnchor="middle"
            className="data size-15"
            transform={`rotate(-90 14 ${margin + (box.maxY * scale) / 2})`}
          >
            {sizes.width}
          </text>
        </>
      )}
    </svg>
  );
}
