import type { LiningChoice } from '../../document/schema.js';
import type { Lining } from './lining.js';
import { seamInput, solidAlong } from './pieces.js';
import { findSeams, givenSeams, nearlyFewer, type NearlyFewer } from './seams.js';

/** What a set of upright seams asks for. */
export interface SeamFigures {
  readonly panels: number;
  /** Joints that need a strip behind them, and joints that stay in sight, m. */
  readonly backed: number;
  readonly seen: number;
  readonly legal: boolean;
}

/** What seams put at these places would ask for, to be held against those found. Null for strips and boards. */
export function seamFigures(lining: Lining, choice: LiningChoice, at: readonly number[]): SeamFigures | null {
  if (lining.widest === null) return null;
  const input = seamInput(lining.ground, choice, lining.widest);
  const { seams, legal } = givenSeams(input, at);
  const height = (u: number): number =>
    solidAlong(lining.ground.solid, u).reduce((sum, [v0, v1]) => sum + v1 - v0, 0) / 1000;
  return {
    panels: seams.length + 1,
    backed: seams.filter((seam) => seam.support === null).reduce((sum, seam) => sum + height(seam.at), 0),
    seen: seams.reduce((sum, seam) => sum + height(seam.at) * (1 - input.hidden(seam.at).share), 0),
    legal,
  };
}

/** Where seams would be if none were moved by hand. */
export function foundSeams(lining: Lining, choice: LiningChoice): readonly number[] {
  return lining.widest === null
    ? []
    : findSeams(seamInput(lining.ground, choice, lining.widest)).seams.map((seam) => seam.at);
}

/** A sheet is just too narrow while it misses a panel fewer by no more than this, mm. */
const JUST_MM = 60;

/** Whether sheets are just too narrow to save a panel of this lining, and by how much. */
export function justTooNarrow(lining: Lining, choice: LiningChoice): NearlyFewer | null {
  return lining.widest === null
    ? null
    : nearlyFewer(seamInput(lining.ground, choice, lining.widest), choice.gap, JUST_MM);
}
