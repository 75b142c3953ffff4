import type { BoxChoice } from '../../document/schema.js';
import type { WindowBox } from './box.js';
import { FULLNESS, type CurtainAcross } from './curtain.js';

/** A curtain is hemmed by so much at its head and foot together, mm. */
const HEMS_MM = 150;

/** One rail and its curtain: rail, cloth before its hems are added, mm. */
interface Hung {
  readonly rail: number;
  readonly brackets: number;
  readonly cloth: number;
  readonly drop: number;
}

/**
 * What the curtains that are wanted take, by what it is called in the price book: metres of track, brackets, m2 of cloth.
 * One that would hang above the ceiling takes nothing: it cannot be hung.
 */
export function curtainNeeds(
  boxes: readonly WindowBox[],
  across: readonly CurtainAcross[],
  choice: Pick<BoxChoice, 'curtains'>,
): readonly { readonly item: string; readonly amount: number }[] {
  const hung: readonly Hung[] = [
    ...boxes.flatMap(({ opening, track }): Hung[] =>
      track && (choice.curtains ?? []).includes(opening)
        ? [
            {
              rail: track.length,
              brackets: track.brackets,
              cloth: FULLNESS * track.length,
              drop: Math.max(...track.hems),
            },
          ]
        : [],
    ),
    ...across
      .filter(({ curtain }) => !curtain.high && !curtain.blocked)
      .map(({ curtain }): Hung => ({
        rail: curtain.width,
        brackets: curtain.brackets,
        cloth: curtain.cloth,
        drop: Math.max(0, ...curtain.drops.map(({ drop }) => drop)),
      })),
  ];
  if (hung.length === 0) return [];
  const sum = (of: (one: Hung) => number): number => hung.reduce((total, one) => total + of(one), 0);
  return [
    { item: 'curtain-track', amount: sum(({ rail }) => rail) / 1000 },
    { item: 'curtain-bracket', amount: sum(({ brackets }) => brackets) },
    { item: 'curtain-cloth', amount: sum(({ cloth, drop }) => cloth * (drop + HEMS_MM)) / 1e6 },
  ];
}
