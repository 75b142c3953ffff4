import { useMemo } from 'react';
import { valueAt, type Project, type Survey } from '@nestplank/core/document';
import type { Point } from '@nestplank/core/numeric';
import { sketchShell } from '@nestplank/core/shell';
import { linePath, ringPath } from '../kit/path.js';
import { PointOverlay } from '../kit/PointOverlay.js';
import type { Pointed } from '../state/pointing.js';
import { useSpeech } from '../words/use-speech.js';
import {
  ceilingOutline,
  floorOutline,
  foldOutFrame,
  placeAt,
  screenX,
  wallOutline,
  type FoldOutFrame,
} from './geometry.js';
import { END_GAP, END_STRIP } from './rough.js';
import { RoughLayer } from './RoughLayer.js';
import { tapeEnds } from './tape-ends.js';

/** Stations that have no place yet, evenly along the vehicle: enough to show where a tape goes. */
function placed(survey: Survey, length: number): Survey {
  const count = Math.max(1, survey.stations.length - 1);
  const at = new Date(0).toISOString();
  const readings = Object.fromEntries(
    survey.stations.flatMap(({ id }, i) =>
      valueAt(survey, `station/${id}/x`) === null
        ? [[`station/${id}/x`, [{ value: (length * i) / count, method: 'estimate' as const, at }]]]
        : [],
    ),
  );
  return { ...survey, readings: { ...survey.readings, ...readings } };
}

/** A drawing no higher than this has no room for the ends and for words, px. */
const SMALL_PX = 200;

/** The strip that stands for an end, as a rectangle. */
function strip(frame: FoldOutFrame, end: 'front' | 'rear'): { x: number; y: number; width: number; height: number } {
  const [left, right] = [screenX(frame, -700), screenX(frame, 700)];
  const y = end === 'front' ? frame.top - END_GAP - END_STRIP : frame.top + frame.height + END_GAP;
  return { x: left, y, width: right - left, height: END_STRIP };
}

/**
 * A fold-out of no vehicle in particular, dashed: before anything is measured it takes what is pointed at, and shows where
 * the tape's ends go.
 */
export function SketchFoldOut({
  project,
  current,
  ceiling,
  width,
  height,
}: {
  readonly project: Pick<Project, 'vehicle' | 'survey' | 'name'>;
  readonly current: string | null;
  readonly ceiling: boolean;
  readonly width: number;
  readonly height: number;
}) {
  const { t } = useSpeech();
  const { survey, vehicle } = project;
  const shell = useMemo(() => sketchShell(vehicle.kind, valueAt(survey, 'floor/length')), [vehicle.kind, survey]);
  const small = height < SMALL_PX;
  // room for the strips of the ends above and below
  const frame = useMemo(() => {
    if (small) return foldOutFrame(shell, width, height);
    const inner = foldOutFrame(shell, width, Math.max(80, height - 2 * (END_STRIP + END_GAP)));
    return { ...inner, top: inner.top + END_STRIP + END_GAP };
  }, [shell, width, height, small]);
  const tape = current ? tapeEnds({ frame, survey: placed(survey, shell.length), arches: [] }, current) : null;
  const dashed = { fill: 'var(--paper)', stroke: 'var(--ink)', strokeWidth: 1.25, strokeDasharray: '7 5' };
  const [front, rear] = [strip(frame, 'front'), strip(frame, 'rear')];
  const at = (point: Point): Pointed | null => {
    for (const [surface, box, x] of [
      ['front', front, 0],
      ['rear', rear, shell.length],
    ] as const)
      if (point[1] >= box.y && point[1] <= box.y + box.height && point[0] >= box.x && point[0] <= box.x + box.width)
        return { surface, x, along: Math.round((point[0] - frame.centre) / frame.scale) };
    return placeAt(frame, ceiling, point);
  };
  return (
    <svg role="group" aria-label={t('foldout.sketch', { vehicle: project.name })} data-sketch>
      <path d={ringPath(wallOutline(frame, 'left'))} {...dashed} />
      <path d={ringPath(wallOutline(frame, 'right'))} {...dashed} />
      <path d={ringPath(ceiling ? ceilingOutline(frame, shell) : floorOutline(frame, shell, 0, false))} {...dashed} />
      {(small ? [] : [front, rear]).map((box) => (
        <rect key={box.y} {...box} {...dashed} />
      ))}
      <line
        x1={frame.centre}
        x2={frame.centre}
        y1={frame.top}
        y2={frame.top + frame.height}
        stroke="var(--data)"
        strokeWidth={1.25}
        strokeDasharray="12 4 3 4"
      />
      {!small &&
        (
          [
            ['surface.front', frame.centre, front.y + 17],
            ['surface.rear', frame.centre, rear.y + 17],
            [ceiling ? 'surface.ceiling' : 'surface.floor', (frame.leftFoot + frame.centre) / 2 + 20, frame.top + 22],
            ['surface.left', (frame.leftEdge + frame.leftFoot) / 2, frame.top + 22],
            ['surface.right', (frame.rightEdge + frame.rightFoot) / 2, frame.top + 22],
          ] as const
        ).map(([word, x, y]) => (
          <text key={word} x={x} y={y} textAnchor="middle" className="soft halo">
            {t(word)}
          </text>
        ))}
      <RoughLayer frame={frame} survey={survey} ceiling={ceiling} />
      {tape && (
        <g pointerEvents="none" data-tape={current}>
          <path d={linePath([...tape])} stroke="var(--data)" strokeWidth={3.5} fill="none" />
          <circle cx={tape[0][0]} cy={tape[0][1]} r={6} fill="var(--data)" />
          <circle cx={tape[1][0]} cy={tape[1][1]} r={9} fill="var(--paper)" stroke="var(--data)" strokeWidth={3} />
        </g>
      )}
      {!small && (
        <text x={frame.centre} y={rear.y + END_STRIP + 20} textAnchor="middle" className="soft size-12">
          {t('foldout.sketchNote')}
        </text>
      )}
      <PointOverlay width={width} height={height} placeAt={at} rough />
    </svg>
  );
}
