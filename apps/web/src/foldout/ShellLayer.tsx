import { memo } from 'react';
import { valueAt, type Side, type Survey } from '@nestplank/core/document';
import { boundsOf } from '@nestplank/core/measure';
import { spread, type Point } from '@nestplank/core/numeric';
import {
  archProfile,
  archSpan,
  halfWidth,
  openingRing,
  placedOpenings,
  ribMap,
  type ArchShape,
  type PlacedOpening,
  type Shell,
} from '@nestplank/core/shell';
import { labelLines } from '../kit/label-lines.js';
import { linePath, ringPath } from '../kit/path.js';
import {
  ceilingOutline,
  floorOutline,
  onWall,
  ribPatch,
  screenX,
  screenY,
  wallOutline,
  type FoldOutFrame,
} from './geometry.js';

interface ShellLayerProps {
  readonly frame: FoldOutFrame;
  readonly survey: Survey;
  readonly room: Shell;
  readonly arches: readonly ArchShape[];
  readonly ceiling: boolean;
  readonly exaggerate: boolean;
  readonly quiet: boolean;
}

const SIDES: readonly Side[] = ['left', 'right'];
const INK = { stroke: 'var(--ink)', strokeWidth: 1.5, fill: 'var(--paper)' };

function OpeningMark({
  points,
  placed,
  label,
}: {
  readonly points: readonly Point[];
  readonly placed: PlacedOpening;
  readonly label: boolean;
}) {
  const door = placed.opening.kind === 'door';
  const xs = points.map((p) => p[0]);
  const ys = points.map((p) => p[1]);
  const [x, y] = [(Math.min(...xs) + Math.max(...xs)) / 2, (Math.min(...ys) + Math.max(...ys)) / 2];
  const room = Math.max(...xs) - Math.min(...xs);
  const size = room < 80 ? 11 : 13;
  const lines = labelLines(placed.opening.name, room - 4, size);
  return (
    <g role="img" aria-label={placed.opening.name}>
      <path
        d={ringPath(points)}
        fill={door ? 'none' : 'url(#hatch-glass)'}
        stroke="var(--ink)"
        strokeWidth={1.25}
        strokeDasharray={door ? '7 4' : undefined}
        strokeLinejoin="round"
      />
      {label && (
        <text x={x} y={y + 4} textAnchor="middle" className="halo" style={{ fontSize: size }}>
          {lines.map((line, i) => (
            <tspan key={i} x={x} y={y + 4 + (i - (lines.length - 1) / 2) * 1.15 * size}>
              {line}
            </tspan>
          ))}
        </text>
      )}
    </g>
  );
}

/** The arches on the floor, drawn over what stands on them so that they are not forgotten. */
export const ArchPlan = memo(function ArchPlan({ frame, arches }: Pick<ShellLayerProps, 'frame' | 'arches'>) {
  return (
    <g pointerEvents="none">
      {arches.map((arch) => {
        const span = archSpan(arch, 0) ?? [arch.from, arch.to];
        const sign = arch.side === 'left' ? -1 : 1;
        const wall = halfWidth(frame.shell, arch.side, (span[0] + span[1]) / 2, 0);
        const corner = (y: number, x: number): Point => [screenX(frame, sign * y), screenY(frame, x)];
        return (
          <path
            key={arch.id}
            d={ringPath([
              corner(arch.face, span[0]),
              corner(arch.far ?? wall, span[0]),
              corner(arch.far ?? wall, span[1]),
              corner(arch.face, span[1]),
            ])}
            fill="url(#hatch-solid)"
            stroke="var(--soft)"
            strokeWidth={1.25}
            strokeDasharray="5 3"
          />
        );
      })}
    </g>
  );
});

/** What lies under the floor and is not to be drilled, and the holes that are planned. */
function KeepOuts({ frame, survey, ceiling }: Pick<ShellLayerProps, 'frame' | 'survey' | 'ceiling'>) {
  const holes = survey.penetrations.flatMap((hole) => {
    if (ceiling !== (hole.surface === 'ceiling')) return [];
    const [x, along] = [valueAt(survey, `hole/${hole.id}/x`), valueAt(survey, `hole/${hole.id}/along`)];
    const size = valueAt(survey, `hole/${hole.id}/size`) ?? 20;
    if (x === null || along === null || hole.surface === 'rear') return [];
    const at: Point =
      hole.surface === 'floor' || hole.surface === 'ceiling'
        ? [screenX(frame, along), screenY(frame, x)]
        : onWall(frame, hole.surface, x, along);
    return [{ hole, at, radius: Math.max(4, (size / 2) * frame.scale) }];
  });
  return (
    <g>
      {boundsOf(survey, ceiling ? 'roof' : 'floor').map(({ id, name, from, to, left, right }) => (
        <g key={id} role="img" aria-label={name}>
          <rect
            x={screenX(frame, left)}
            y={screenY(frame, from)}
            width={(right - left) * frame.scale}
            height={(to - from) * frame.scale}
            fill="url(#hatch-solid)"
            stroke="var(--needs)"
            strokeWidth={1.25}
            strokeDasharray="2 4"
          />
          <text
            x={screenX(frame, (left + right) / 2)}
            y={screenY(frame, (from + to) / 2) + 4}
            textAnchor="middle"
            className="soft halo"
          >
            {name}
          </text>
        </g>
      ))}
      {holes.map(({ hole, at, radius }) => (
        <g key={hole.id} role="img" aria-label={hole.name}>
          <circle
            cx={at[0]}
            cy={at[1]}
            r={radius}
            fill="var(--paper)"
            stroke="var(--ink)"
            strokeWidth={1.5}
            strokeDasharray={hole.decided ? undefined : '3 2'}
          />
          <path
            d={`M${at[0] - radius - 3} ${at[1]} H${at[0] + radius + 3} M${at[0]} ${at[1] - radius - 3} V${at[1] + radius + 3}`}
            stroke="var(--ink)"
            strokeWidth={0.75}
          />
        </g>
      ))}
    </g>
  );
}

/** The vehicle itself: walls, floor or ceiling, ribs, arches, openings. Redrawn only when the survey or the window changes. */
export const ShellLayer = memo(function ShellLayer({
  frame,
  survey,
  room,
  arches,
  ceiling,
  exaggerate,
  quiet,
}: ShellLayerProps) {
  const { shell } = frame;
  const { on } = ribMap(survey);
  // a line across where one runs from wall to wall, over the roof or over the floor
  const across = survey.ribs.flatMap((rib) => {
    const x = valueAt(survey, `rib/${rib.id}/x`);
    const shown = rib.on === 'ring' || rib.on === (ceiling ? 'roof' : 'floor');
    return x === null || !shown ? [] : [{ id: rib.id, x }];
  });
  const openings = placedOpenings(survey);
  const ticks = spread(0, Math.floor(shell.length / 100) * 100, Math.floor(shell.length / 100) + 1);
  return (
    <g className="ground">
      {SIDES.map((side) => (
        <path key={side} d={ringPath(wallOutline(frame, side))} {...INK} />
      ))}
      <path
        d={ringPath(ceiling ? ceilingOutline(frame, shell) : floorOutline(frame, shell, 0, exaggerate))}
        {...INK}
        fill={ceiling || room === shell ? 'var(--paper)' : 'url(#hatch-wool)'}
      />
      {!ceiling && room !== shell && (
        <path
          d={ringPath(floorOutline(frame, room, room.floor, exaggerate))}
          fill="var(--paper)"
          stroke="var(--ink)"
          strokeWidth={1}
        />
      )}
      {SIDES.flatMap((side) =>
        on[side].ribs.map((rib) => (
          <path
            key={`${side}:${rib.id}`}
            d={ringPath(
              ribPatch(frame, side, rib).map((p): Point => [
                side === 'left' ? Math.max(p[0], frame.leftEdge) : Math.min(p[0], frame.rightEdge),
                p[1],
              ]),
            )}
            fill="var(--grey)"
            fillOpacity={0.55}
            stroke="var(--rule)"
            strokeWidth={1}
          />
        )),
      )}
      {across.map((rib) => (
        <line
          key={rib.id}
          x1={screenX(frame, -halfWidth(shell, 'left', rib.x, 0))}
          x2={screenX(frame, halfWidth(shell, 'right', rib.x, 0))}
          y1={screenY(frame, rib.x)}
          y2={screenY(frame, rib.x)}
          stroke="var(--rule)"
          strokeWidth={1}
        />
      ))}
      {arches.map((arch) => {
        return (
          <g key={arch.id} role="img" aria-label={arch.name}>
            <path
              d={ringPath(archProfile(arch).map(([x, z]) => onWall(frame, arch.side, x, z)))}
              fill="url(#hatch-solid)"
              stroke="var(--soft)"
              strokeWidth={1}
              strokeDasharray="5 3"
            />
          </g>
        );
      })}
      {openings.map((placed) => {
        const { surface } = placed.opening;
        if (surface === 'left' || surface === 'right')
          return (
            <OpeningMark
              key={placed.opening.id}
              placed={placed}
              label={!quiet}
              points={openingRing(placed, 0, placed.opening.cornerRadius).map(([x, z]) => onWall(frame, surface, x, z))}
            />
          );
        if (surface === 'roof' && ceiling) {
          const corner = (x: number, y: number): Point => [screenX(frame, y), screenY(frame, x)];
          return (
            <OpeningMark
              key={placed.opening.id}
              placed={placed}
              label={!quiet}
              points={[
                corner(placed.from, placed.sill),
                corner(placed.from, placed.head),
                corner(placed.to, placed.head),
                corner(placed.to, placed.sill),
              ]}
            />
          );
        }
        return null;
      })}
      {quiet && <KeepOuts frame={frame} survey={survey} ceiling={ceiling} />}
      <line
        x1={frame.centre}
        x2={frame.centre}
        y1={frame.top - 8}
        y2={frame.top + frame.height + 10}
        stroke="var(--data)"
        strokeWidth={1.5}
        strokeDasharray="14 4 3 4"
      />
      <g aria-hidden="true">
        {ticks.map((x, i) => (
          <line
            key={x}
            x1={frame.leftFoot + 7}
            x2={frame.leftFoot + (i % 5 === 0 ? 20 : 14)}
            y1={screenY(frame, x)}
            y2={screenY(frame, x)}
            stroke="var(--ink)"
            strokeWidth={1}
          />
        ))}
        <path
          d={linePath([
            [frame.leftFoot + 7, screenY(frame, 0)],
            [frame.leftFoot + 7, screenY(frame, shell.length)],
          ])}
          stroke="var(--ink)"
          strokeWidth={1}
          fill="none"
        />
      </g>
    </g>
  );
});
