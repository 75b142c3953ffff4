import { memo } from 'react';
import type { Check } from '@nestplank/core/furniture';
import { berthOf } from '@nestplank/core/layout';
import { isNarrow, screenX, screenY, type FoldOutFrame } from '../../foldout/geometry.js';
import { animalPlace, isNamed, labelPlace, lyingPlace, runPlace } from '../../foldout/label-place.js';
import type { Scene } from '../../state/scene.js';
import { look, useView } from '../../state/view.js';
import { MARK_PX, markPlaces, markSizes } from './mark-places.js';

/** The checks that want a number on the drawing, in the order of the list. */
export const numbered = (checks: readonly Check[]): Check[] =>
  checks.filter((check) => check.aside === null && (check.grade === 'fails' || check.grade === 'tight'));

/** Numbers at the places that the checks speak of. */
export const CheckMarks = memo(function CheckMarks({
  frame,
  scene,
}: {
  readonly frame: FoldOutFrame;
  readonly scene: Scene;
}) {
  const chosen = useView((view) => view.unit);
  const checks = numbered(scene.shape.checks);
  const own = checks.map((check): readonly [number, number] => [screenX(frame, check.y), screenY(frame, check.x)]);
  // whoever lies on a unit is named in place of it
  const laid = new Set(scene.shape.lying.flatMap(({ unit, sleepers }) => (sleepers.length > 0 ? [unit.id] : [])));
  const names = [
    ...scene.project.layout.units.flatMap((unit) => (laid.has(unit.id) ? [] : (labelPlace(frame, unit)?.box ?? []))),
    ...scene.shape.lying.flatMap((lies) =>
      lies.sleepers.flatMap((id, i) => {
        const person = scene.project.people.find((one) => one.id === id);
        return person
          ? [
              lyingPlace(
                frame,
                person,
                berthOf(lies, i, {
                  inner: scene.room ?? frame.shell,
                  arches: scene.shape.arches,
                  stands: [],
                }),
                lies.along ?? 'y',
              ).box,
            ]
          : [];
      }),
    ),
  ];
  const animals = (scene.project.layout.dens ?? []).flatMap(({ pet: id, at }) => {
    const pet = (scene.project.pets ?? []).find((one) => one.id === id);
    return pet && 'x' in at ? [animalPlace(frame, pet, at).box] : [];
  });
  const runs = scene.derived.runs.placed.flatMap((run) =>
    isNamed(run, chosen) ? (runPlace(frame, run)?.box ?? []) : [],
  );
  const sizes = markSizes(
    checks.map(({ grade }) => grade !== 'fails'),
    isNarrow(frame),
  );
  const places = markPlaces(own, [...names, ...animals, ...runs], sizes);
  return (
    <g>
      <g stroke="var(--needs)" strokeWidth={1.25} pointerEvents="none">
        {places.map(([x, y], i) => {
          const [ownX, ownY] = own[i] ?? [x, y];
          return Math.hypot(x - ownX, y - ownY) > (sizes[i] ?? MARK_PX) ? (
            <line key={checks[i]?.id} x1={ownX} y1={ownY} x2={x} y2={y} />
          ) : null;
        })}
      </g>
      {checks.map((check, i) => {
        const [x, y] = places[i] ?? [0, 0];
        const size = sizes[i] ?? MARK_PX;
        return (
          <g className="takes" key={check.id} onClick={() => check.unit && look({ unit: check.unit, sliceX: check.x })}>
            <circle
              cx={x}
              cy={y}
              r={size}
              fill="var(--paper)"
              stroke="var(--needs)"
              strokeWidth={check.grade === 'fails' ? 3 : 1.75}
              strokeDasharray={check.grade === 'fails' ? undefined : '4 2.5'}
            />
            <text
              x={x}
              y={y + (size < MARK_PX ? 4 : 5)}
              textAnchor="middle"
              className={`needs strong ${size < MARK_PX ? 'size-12' : 'size-14'}`}
            >
              {i + 1}
            </text>
          </g>
        );
      })}
    </g>
  );
});
