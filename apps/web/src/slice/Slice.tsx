import { memo, useDeferredValue, useMemo, type ReactNode } from 'react';
import { sceneOf, type Derived, type DerivedShape } from '@nestplank/core/derive';
import type { Mode, PriceBook, Project } from '@nestplank/core/document';
import { FAMILIES, partsIn } from '@nestplank/core/furniture';
import { boxOf, type Point } from '@nestplank/core/numeric';
import { halfWidth, roofHeight, sectionAcross, wallTop, type Shell } from '@nestplank/core/shell';
import { useLater } from '../state/later.js';
import { useSliceX } from '../state/scene.js';
import { look, useView } from '../state/view.js';
import { ringPath } from '../kit/path.js';
import { useSize } from '../kit/use-size.js';
import { useSpeech } from '../words/use-speech.js';
import { ArchCuts, PartCuts, UnitCut } from './cuts.js';
import { Animals } from './Animals.js';
import { People } from './People.js';
import { Sandwich } from './Sandwich.js';
import { Tape } from './Tape.js';
import type { View } from './view.js';
import { RunCuts } from './RunCuts.js';
import { Works } from './Works.js';

/** What of floor and boxes is flat, and drawn by its own sections. */
const SLICED: ReadonlySet<string> = new Set([
  'subfloor',
  'floor-batten',
  'arch-top',
  'arch-side',
  'arch-end',
  'arch-rail',
  'header',
]);

interface DrawingProps {
  readonly x: number;
  readonly shape: DerivedShape | Derived;
  readonly project: Project;
  readonly book: PriceBook;
  readonly room: Shell;
  readonly shell: Shell;
  readonly width: number;
  readonly height: number;
  readonly tape: string | null;
  /** The mode that is shown. */
  readonly mode: Mode | null;
}

const SectionDrawing = memo(function SectionDrawing({
  x,
  shape,
  project,
  book,
  room,
  shell,
  width,
  height,
  tape,
  mode,
}: DrawingProps) {
  const speech = useSpeech();
  const { t, len } = speech;
  const outer = useMemo(() => sectionAcross(shell, x), [shell, x]);
  const inner = useMemo(() => (room === shell ? null : sectionAcross(room, x)), [room, shell, x]);
  // before there are layers one stands in the bare shell
  const world = useMemo(
    () => sceneOf(project, { ...shape, inner: shape.inner ?? room }, book, FAMILIES),
    [project, shape, book, room],
  );
  // as in the mode that is shown; else as when somebody lies in what is drawn out for it
  const states = useMemo(
    () => mode?.states ?? Object.fromEntries(shape.lying.flatMap(({ out }) => (out ? [[out.motion, 1] as const] : []))),
    [mode, shape.lying],
  );
  const parts = useMemo(() => partsIn(shape.parts, shape.made, states), [shape.parts, shape.made, states]);
  // nobody lies in a bed that is not drawn out
  const lying = useMemo(
    () => shape.lying.filter(({ out }) => !out || (states[out.motion] ?? 0) > 0),
    [shape.lying, states],
  );
  const box = boxOf(outer);
  const margin = { side: 26, top: 16, bottom: 34 };
  const scale = Math.min(
    (width - 2 * margin.side) / (box.maxX - box.minX),
    (height - margin.top - margin.bottom) / box.maxY,
  );
  const view: View = { scale, at: (y, z) => [width / 2 + y * scale, height - margin.bottom - z * scale] };
  const path = (ring: readonly Point[]): string => ringPath(ring.map(([y, z]) => view.at(y, z)));
  const foot = view.at(0, 0)[1];
  const layers: ReactNode[] = [];
  let z = 0;
  for (const { layer, material, takes } of shape.depths.floor.layers) {
    if (takes <= 0) continue;
    const [a, b] = [z, z + takes];
    z = b;
    layers.push(
      <path
        key={layer.id}
        d={ringPath([
          view.at(-halfWidth(shell, 'left', x, a), a),
          view.at(halfWidth(shell, 'right', x, a), a),
          view.at(halfWidth(shell, 'right', x, b), b),
          view.at(-halfWidth(shell, 'left', x, b), b),
        ])}
        fill={`url(#hatch-${material?.hatch ?? 'grey'})`}
        stroke="var(--ink)"
        strokeWidth={0.75}
      />,
    );
  }
  // boards and battens of the floor, boxes over arches, headers: what is flat; linings are drawn by their layers
  const builtIn = shape.parts.filter(({ unit, role }) => unit === null && SLICED.has(role));
  const bare = halfWidth(room, 'left', x, room.floor) + halfWidth(room, 'right', x, room.floor);
  return (
    <svg role="img" aria-label={t('slice.name', { x: speech.lenUnit(x) })}>
      <path d={path(outer)} fill="var(--paper)" stroke="var(--ink)" strokeWidth={2} />
      {inner && <path d={path(inner)} fill="var(--paper)" stroke="var(--ink)" strokeWidth={1} />}
      {inner && <Sandwich shell={shell} depths={shape.depths} x={x} view={view} />}
      {layers}
      <ArchCuts arches={shape.arches} shell={shell} x={x} view={view} />
      <line
        x1={view.at(0, 0)[0]}
        x2={view.at(0, 0)[0]}
        y1={view.at(0, wallTop(shell, 'left', x) + 260)[1]}
        y2={foot + 6}
        stroke="var(--data)"
        strokeWidth={1.25}
        strokeDasharray="12 4 3 4"
      />
      <PartCuts parts={builtIn} book={book} x={x} view={view} />
      {project.layout.units.map((unit) => (
        <UnitCut
          key={unit.id}
          unit={unit}
          lies={shape.lying.find((place) => place.unit.id === unit.id) ?? null}
          parts={parts.filter((part) => part.unit === unit.id)}
          states={states}
          book={book}
          room={room}
          x={x}
          view={view}
        />
      ))}
      <RunCuts runs={shape.runs.placed} x={x} view={view} speech={speech} />
      {tape === null && world && <People scene={world} lying={lying} x={x} view={view} speech={speech} />}
      {tape === null && world && <Animals scene={world} x={x} view={view} speech={speech} />}
      {tape === null && (
        <Works
          project={project}
          room={room}
          boards={shape.made.flatMap(({ skeleton }) => skeleton?.boards ?? [])}
          x={x}
          view={view}
          strikes={(unit, person) =>
            shape.checks.some(
              ({ id, grade }) =>
                id.startsWith('head-strike:') && id.endsWith(`:${unit}:${person}`) && grade === 'fails',
            )
          }
          speech={speech}
        />
      )}
      {tape !== null && <Tape address={tape} shell={shell} x={x} view={view} speech={speech} />}
      <text x={width / 2} y={foot + 22} textAnchor="middle" className="data">
        {t('slice.wide', { width: len(bare) })} · {len(roofHeight(room, x, 0) - room.floor)} ↕
      </text>
    </svg>
  );
});

/** The cross-section at the slice, with what stands there. `tape` shows where the ends of the tape go for a reading. */
export function Slice({
  tape = null,
  at = null,
  height = 330,
}: {
  readonly tape?: string | null;
  readonly at?: number | null;
  readonly height?: number;
}) {
  const { t, len, lenUnit } = useSpeech();
  // drawn after what is being dragged, so that the hand is never waited on
  const scene = useLater();
  const { ref, width } = useSize<HTMLDivElement>();
  const shell = scene?.shape.shell ?? null;
  const own = useDeferredValue(useSliceX(shell));
  const shown = useView((view) => view.mode);
  const mode = scene?.project.layout.modes?.find(({ id }) => id === shown) ?? null;
  if (!scene || !shell || !scene.room) return null;
  const x = at ?? own;
  const number = shell.at.findIndex((station) => Math.abs(station - x) < 1);
  const step = (by: 1 | -1): void => {
    const next = by > 0 ? shell.at.find((s) => s > x + 1) : shell.at.filter((s) => s < x - 1).at(-1);
    if (next !== undefined) look({ sliceX: next });
  };
  return (
    <section aria-label={t('slice.title', { x: lenUnit(x) })}>
      {at === null && (
        <div className="row apart">
          <h2>
            {t('slice.title', { x: '' })}
            <span className="figures data">{len(x)}</span>
          </h2>
          <span className="row small soft gap-4">
            {number >= 0 ? `${number + 1} / ${shell.at.length}` : t('slice.between')}
            <button type="button" className="step" onClick={() => step(-1)} aria-label={t('slice.previous')}>
              <kbd>[</kbd>
            </button>
            <button type="button" className="step" onClick={() => step(1)} aria-label={t('slice.next')}>
              <kbd>]</kbd>
            </button>
          </span>
        </div>
      )}
      <div className="drawing given-height" ref={ref} style={{ height, minHeight: height }}>
        {width > 40 && (
          <SectionDrawing
            x={x}
            shape={scene.shape}
            project={scene.project}
            book={scene.book}
            room={scene.room}
            shell={shell}
            width={width}
            height={height}
            tape={tape}
            mode={tape === null ? mode : null}
          />
        )}
      </div>
    </section>
  );
}
