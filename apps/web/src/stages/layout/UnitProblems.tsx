import { memo } from 'react';
import { Problem } from '../../kit/Problem.js';
import type { Scene } from '../../state/scene.js';
import { useSpeech } from '../../words/use-speech.js';

/** What of the furniture cannot be made as it is asked for, each at its unit; of one unit where one is named. */
export const UnitProblems = memo(function UnitProblems({
  scene,
  unit,
}: {
  readonly scene: Scene;
  readonly unit?: string;
}) {
  const { said } = useSpeech();
  const units = scene.project.layout.units.map(({ id }) => id).filter((id) => unit === undefined || id === unit);
  const own = scene.shape.problems.filter(
    ({ stage, place }) => stage === 'build' && units.some((id) => place === id || place.startsWith(`${id}.`)),
  );
  return own.map((problem) => <Problem key={`${problem.place} ${problem.said.key}`}>{said(problem.said)}</Problem>);
});
