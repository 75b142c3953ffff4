import type { BoxChoice } from '../../document/schema.js';
import type { WindowBox } from './box.js';

/** A curtain is so much wider than its track, and hemmed by so much at its head and foot together, mm. */
const FULLNESS = 1.5;
const HEMS_MM = 150;

/** What the curtains that are wanted take, by what it is called in the price book: metres of track, brackets, m2 of cloth. */
export function curtainNeeds(
  boxes: readonly WindowBox[],
  choice: Pick<BoxChoice, 'curtains'>,
): readonly { readonly item: string; readonly amount: number }[] {
  const tracks = boxes.flatMap(({ opening, track }) =>
    track && (choice.curtains ?? []).includes(opening) ? [track] : [],
  );
  if (tracks.length === 0) return [];
  const sum = (of: (track: (typeof tracks)[number]) => number): number =>
    tracks.reduce((total, track) => total + of(track), 0);
  return [
    { item: 'curtain-track', amount: sum(({ length }) => length) / 1000 },
    { item: 'curtain-bracket', amount: sum(({ brackets }) => brackets) },
    {
      item: 'curtain-cloth',
      amount: sum(({ length, hems }) => FULLNESS * length * (Math.max(...hems) + HEMS_MM)) / 1e6,
    },
  ];
}
