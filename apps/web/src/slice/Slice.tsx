import { memo, useDeferredValue, useMemo, type ReactNode } from 'react';
import {
  archFace,
  archSpan,
  bedLevels,
  boxOf,
  halfWidth,
  isSectionPlace,
  parseAddress,
  roofHeight,
  sectionAcross,
  SITTING_SHARE,
  spread,
  wallLine,
  wallTop,
  type ArchShape,
  type Derived,
  type DerivedShape,
  type Person,
  type Point,
  type PriceBook,
  type Project,
  type Shell,
  type Unit,
} from '@nestplank/core';
import { useScene, useSliceX } from '../state/scene.js';
import { look } from '../state/view.js';
import { linePath, ringPath } from '../ui/path.js';
import { useSize } from '../ui/use-size.js';
import { useSpeech, type Speech } from '../words/words.js';

/** Drawing coordinates: y to the right, height upward. */
interface View {
  readonly at: (y: number, z: number) => Point;
  readonly scale: number;
}

function UnitCut({
  unit,
  room,
  book,
  x,
  view,
}: {
  readonly unit: Unit;
  readonly room: Shell;
  readonly book: PriceBook;
  readonly x: number;
  readonly view: View;
}) {
  if (x < unit.x || x > unit.x + unit.length) return null;
  if (unit.kind === 'platform-bed') {
    const levels = bedLevels(unit, room, book);
    const band = (z0: number, z1: number): string =>
      ringPath([
        view.at(-halfWidth(room, 'left', x, z0), z0),
        view.at(halfWidth(room, 'right', x, z0), z0),
        view.at(halfWidth(room, 'right', x, z1), z1),
        view.at(-halfWidth(room, 'left', x, z1), z1),
      ]);
    return (
      <g role="img" aria-label={unit.name}>
        <path d={band(levels.underside, levels.top)} fill="url(#hatch-birch)" stroke="var(--ink)" strokeWidth={1.25} />
        {unit.mattress > 0 && (
          <path
            d={band(levels.top, levels.top + unit.mattress)}
            fill="var(--ground)"
            stroke="var(--ink)"
            strokeWidth={1.25}
          />
        )}
      </g>
    );
  }
  const sign = unit.side === 'left' ? -1 : 1;
  const top = room.floor + unit.height;
  const back = wallLine(room, unit.side, x, room.floor, top, 15).map(([d, z]) => view.at(sign * d, z));
  return (
    <g role="img" aria-label={unit.name}>
      <path
        d={ringPath([view.at(sign * unit.front, room.floor), ...back, view.at(sign * unit.front, top)])}
        fill="url(#hatch-birch)"
        stroke="var(--ink)"
        strokeWidth={1.5}
      />
    </g>
  );
}

/** Supports and other upright panels along the vehicle that the slice cuts through. */
function SupportCuts({ shape, x, view }: { readonly shape: DerivedShape; readonly x: number; readonly view: View }) {
  return shape.parts
    .filter((part) => part.role === 'bed-support')
    .map((part) => {
      const [px, py, pz] = part.place.origin;
      const box = boxOf(part.outline.outer);
      if (x < px || x > px + box.maxX) return null;
      return (
        <path
          key={part.id}
          d={ringPath([
            view.at(py, pz),
            view.at(py + part.thickness, pz),
            view.at(py + part.thickness, pz + box.maxY),
            view.at(py, pz + box.maxY),
          ])}
          fill="url(#hatch-birch)"
          stroke="var(--ink)"
          strokeWidth={1}
        />
      );
    });
}

/** A person to scale: sitting on what is given as the seat, or standing on the floor, with what is left above the head. */
function Figure({
  person,
  seat,
  y,
  ceiling,
  view,
  speech,
  sitting,
}: {
  readonly person: Person;
  readonly seat: number;
  readonly y: number;
  readonly ceiling: number;
  readonly view: View;
  readonly speech: Speech;
  readonly sitting: boolean;
}) {
  const height = sitting ? (person.sittingHeight ?? SITTING_SHARE * person.stature) : person.stature;
  const top = seat + height;
  const radius = 0.07 * person.stature;
  const spare = ceiling - top;
  const [cx, cy] = view.at(y, top - radius);
  const neck = view.at(y, top - 2 * radius);
  const hip = view.at(y, seat + (sitting ? 60 : 0.5 * person.stature));
  return (
    <g role="img" aria-label={`${person.name}: ${speech.t('slice.head', { spare: speech.len(spare) })}`}>
      <circle cx={cx} cy={cy} r={radius * view.scale} fill="var(--paper)" stroke="var(--ink)" strokeWidth={1.5} />
      <path
        d={linePath([
          neck,
          hip,
          ...(sitting ? [view.at(y + 0.3 * person.stature, seat + 50)] : [view.at(y - 70, seat)]),
        ])}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={1.75}
        strokeLinejoin="round"
      />
      {!sitting && (
        <path d={linePath([hip, view.at(y + 70, seat)])} fill="none" stroke="var(--ink)" strokeWidth={1.75} />
      )}
      <line
        x1={view.at(y - 190, 0)[0]}
        x2={view.at(y + 190, 0)[0]}
        y1={view.at(0, top)[1]}
        y2={view.at(0, top)[1]}
        stroke={spare < 0 ? 'var(--needs)' : 'var(--data)'}
        strokeWidth={1.25}
      />
      <text x={view.at(y + 205, 0)[0]} y={view.at(0, top)[1] + 4} className={spare < 0 ? 'needs halo' : 'data halo'}>
        {speech.t('slice.head', { spare: speech.len(spare) })}
      </text>
    </g>
  );
}

function People({
  project,
  room,
  book,
  x,
  view,
  speech,
}: {
  readonly project: Project;
  readonly room: Shell;
  readonly book: PriceBook;
  readonly x: number;
  readonly view: View;
  readonly speech: Speech;
}) {
  const bed = project.units.find((unit) => unit.kind === 'platform-bed' && x >= unit.x && x <= unit.x + unit.length);
  const tallest = [...project.people].sort((a, b) => b.stature - a.stature)[0];
  if (!tallest) return null;
  if (bed?.kind === 'platform-bed') {
    const sleepers = bed.sleepers.flatMap((id) => project.people.filter((person) => person.id === id));
    const index = Math.min(sleepers.length - 1, Math.floor(((x - bed.x) / bed.length) * sleepers.length));
    const seat = bedLevels(bed, room, book).top + 0.85 * bed.mattress;
    return (
      <Figure
        person={sleepers[index] ?? tallest}
        seat={seat}
        y={-260}
        ceiling={roofHeight(room, x, -260)}
        view={view}
        speech={speech}
        sitting
      />
    );
  }
  const front = (side: 'left' | 'right'): number =>
    Math.min(
      halfWidth(room, side, x, room.floor),
      ...project.units.flatMap((unit) =>
        unit.kind === 'base-cupboard' && unit.side === side && x >= unit.x && x <= unit.x + unit.length
          ? [unit.front]
          : [],
      ),
    );
  const y = (front('right') - front('left')) / 2;
  return (
    <Figure
      person={tallest}
      seat={room.floor}
      y={y}
      ceiling={roofHeight(room, x, y)}
      view={view}
      speech={speech}
      sitting={false}
    />
  );
}

/** The tape of one reading: from the centre line to the wall, or from the floor to the roof. */
function Tape({
  address,
  shell,
  x,
  view,
  speech,
}: {
  readonly address: string;
  readonly x: number;
  readonly shell: Shell;
  readonly view: View;
  readonly speech: Speech;
}) {
  const place = parseAddress(address);
  if (!isSectionPlace(place)) return null;
  const ends: readonly [Point, Point] =
    place.what === 'roof'
      ? [view.at(place.along, 0), view.at(place.along, roofHeight(shell, x, place.along))]
      : [
          place.what === 'width'
            ? view.at(-halfWidth(shell, 'left', x, place.along), place.along)
            : view.at(0, place.along),
          view.at(
            (place.what === 'left' ? -1 : 1) *
              halfWidth(shell, place.what === 'left' ? 'left' : 'right', x, place.along),
            place.along,
          ),
        ];
  return (
    <g>
      <line x1={ends[0][0]} y1={ends[0][1]} x2={ends[1][0]} y2={ends[1][1]} stroke="var(--data)" strokeWidth={4} />
      <circle cx={ends[0][0]} cy={ends[0][1]} r={6} fill="var(--data)" />
      <circle cx={ends[1][0]} cy={ends[1][1]} r={9} fill="var(--paper)" stroke="var(--data)" strokeWidth={3} />
      {place.what !== 'roof' && place.along > 0 && (
        <>
          <line
            x1={(ends[0][0] + ends[1][0]) / 2}
            x2={(ends[0][0] + ends[1][0]) / 2}
            y1={ends[0][1]}
            y2={view.at(0, 0)[1]}
            stroke="var(--data)"
            strokeWidth={1.25}
            strokeDasharray="4 3"
          />
          <text x={(ends[0][0] + ends[1][0]) / 2 + 6} y={(ends[0][1] + view.at(0, 0)[1]) / 2} className="data halo">
            {speech.len(place.along)}
          </text>
        </>
      )}
    </g>
  );
}

function ArchCuts({
  arches,
  shell,
  x,
  view,
}: {
  readonly arches: readonly ArchShape[];
  readonly shell: Shell;
  readonly x: number;
  readonly view: View;
}) {
  return arches.map((arch) => {
    const heights = spread(arch.bottom, arch.height - 0.5, 9).filter((z) => {
      const span = archSpan(arch, z);
      return span && x >= span[0] && x <= span[1];
    });
    const top = heights.at(-1);
    if (top === undefined) return null;
    const sign = arch.side === 'left' ? -1 : 1;
    return (
      <path
        key={arch.id}
        d={ringPath([
          view.at(sign * archFace(arch, arch.bottom), arch.bottom),
          ...(arch.far === null
            ? wallLine(shell, arch.side, x, arch.bottom, top, 5).map(([d, z]) => view.at(sign * d, z))
            : [view.at(sign * arch.far, arch.bottom), view.at(sign * arch.far, top)]),
          view.at(sign * archFace(arch, top), top),
        ])}
        fill="url(#hatch-solid)"
        stroke="var(--soft)"
        strokeWidth={1.25}
      />
    );
  });
}

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
}: DrawingProps) {
  const speech = useSpeech();
  const { t, len } = speech;
  const outer = useMemo(() => sectionAcross(shell, x), [shell, x]);
  const inner = useMemo(() => (room === shell ? null : sectionAcross(room, x)), [room, shell, x]);
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
  const bare = halfWidth(room, 'left', x, room.floor) + halfWidth(room, 'right', x, room.floor);
  return (
    <svg role="img" aria-label={t('slice.name', { x: speech.lenUnit(x) })}>
      <path d={path(outer)} fill={inner ? 'url(#hatch-wool)' : 'var(--paper)'} stroke="var(--ink)" strokeWidth={2} />
      {inner && <path d={path(inner)} fill="var(--paper)" stroke="var(--ink)" strokeWidth={1} />}
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
      <SupportCuts shape={shape} x={x} view={view} />
      {project.units.map((unit) => (
        <UnitCut key={unit.id} unit={unit} room={room} book={book} x={x} view={view} />
      ))}
      {tape === null && <People project={project} room={room} book={book} x={x} view={view} speech={speech} />}
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
  const scene = useDeferredValue(useScene());
  const { ref, width } = useSize<HTMLDivElement>();
  const shell = scene?.shape.shell ?? null;
  const own = useDeferredValue(useSliceX(shell));
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
          <span className="row small soft" style={{ gap: 4 }}>
            {number >= 0 ? `${number + 1} / ${shell.at.length}` : t('slice.between')}
            <button
              type="button"
              className="step"
              onClick={() => step(-1)}
              aria-label={t('slice.previous')}
              style={{ minWidth: 44, minHeight: 36 }}
            >
              <kbd>[</kbd>
            </button>
            <button
              type="button"
              className="step"
              onClick={() => step(1)}
              aria-label={t('slice.next')}
              style={{ minWidth: 44, minHeight: 36 }}
            >
              <kbd>]</kbd>
            </button>
          </span>
        </div>
      )}
      <div className="drawing" ref={ref} style={{ height, minHeight: height, flex: 'none' }}>
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
          />
        )}
      </div>
    </section>
  );
}
