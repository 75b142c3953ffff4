import { HAIR_MM, ROUNDING, wholeUp } from '../../numeric/tolerance.js';
/** Why a seam is where it is. */
export type SeamReason = 'support' | 'opening' | 'backed' | 'moved';
/** One upright seam between two sheets. */
export interface Seam {
  readonly at: number;
  readonly reason: SeamReason;
  /** The support it lies on; null where a strip has to back it. */
  readonly support: string | null;
  /** The opening it meets within. */
  readonly opening: string | null;
  /** The unit that hides it from floor to top, or null. */
  readonly hiddenBy: string | null;
}

export interface SeamInput {
  readonly from: number;
  readonly to: number;
  /** The widest piece a sheet gives. */
  readonly widest: number;
  /** No piece, and no leg beside an opening, is narrower than this. */
  readonly sliver: number;
  readonly supports: readonly { readonly name: string; readonly at: number }[];
  readonly openings: readonly { readonly name: string; readonly from: number; readonly to: number }[];
  /** Share of the seam's height that a unit hides, at any place. */
  readonly hidden: (at: number) => { readonly share: number; readonly by: string | null };
}

/** What seams cost against each other: another panel first, then a strip behind it, then what is seen of it. */
const PANEL = 100;
const BACKING = 9;
const IN_OPENING = 5;
const SEEN = 6;
/** Places beside supports and openings' middles that are tried, every so many mm. */
const STEP_MM = 20;
const SAME_MM = 0.5;

/** Whether a seam may be there at all: the legs it leaves beside openings are wide enough. */
export function seamAllowed(input: Pick<SeamInput, 'openings' | 'sliver'>, at: number): boolean {
  return input.openings.every(({ from, to }) => {
    if (at > from && at < to) return at - from >= input.sliver && to - at >= input.sliver;
    return at <= from ? from - at >= input.sliver : at - to >= input.sliver;
  });
}

/** What one seam costs, without the panel it begins. */
export function seamCost(input: SeamInput, at: number): number {
  const supported = input.supports.some((support) => Math.abs(support.at - at) < SAME_MM);
  const inside = input.openings.some((opening) => at > opening.from && at < opening.to);
  return (supported ? 0 : BACKING) + (inside ? IN_OPENING : 0) + SEEN * (1 - input.hidden(at).share);
}

/** Everywhere that a seam could be. */
export function seamPlaces(input: SeamInput): number[] {
  const { from, to } = input;
  const even = Array.from({ length: Math.floor((to - from) / STEP_MM) }, (_, i) => from + STEP_MM * (i + 1));
  const middles = input.openings.map((opening) => (opening.from + opening.to) / 2);
  const all = [...input.supports.map((support) => support.at), ...middles, ...even]
    .filter((at) => at > from + SAME_MM && at < to - SAME_MM)
    .filter((at) => seamAllowed(input, at));
  return [...new Set(all)].sort((a, b) => a - b);
}

function describe(input: SeamInput, at: number, moved: boolean): Seam {
  const support = input.supports.find((candidate) => Math.abs(candidate.at - at) < SAME_MM);
  const opening = input.openings.find((candidate) => at > candidate.from && at < candidate.to);
  const hidden = input.hidden(at);
  return {
    at,
    reason: moved ? 'moved' : support ? 'support' : opening ? 'opening' : 'backed',
    support: support?.name ?? null,
    opening: opening?.name ?? null,
    hiddenBy: hidden.share > 0.99 ? hidden.by : null,
  };
}

/** Seams with what they cost together. */
export interface SeamPlan {
  readonly seams: readonly Seam[];
  readonly cost: number;
  /** False where no seams keep every piece within the sheet and no leg thinner than asked. */
  readonly legal: boolean;
}

/**
 * Finds the seams that cost least: fewest panels, then on supports, then hidden, then at openings' middles. Exact over all
 * places by dynamic programming; ends with `legal` false only when there is no legal set at all.
 */
export function findSeams(input: SeamInput): SeamPlan {
  const places = [input.from, ...seamPlaces(input), input.to];
  const costs = places.map(() => Infinity);
  const parents = places.map(() => -1);
  costs[0] = 0;
  for (let j = 1; j < places.length; j += 1) {
    const at = places[j] ?? 0;
    const own = j === places.length - 1 ? 0 : seamCost(input, at);
    for (let i = j - 1; i >= 0; i -= 1) {
      const width = at - (places[i] ?? 0);
      if (width > input.widest + HAIR_MM) break;
      if (width < input.sliver) continue;
      const cost = (costs[i] ?? Infinity) + PANEL + own;
      if (cost < (costs[j] ?? Infinity) - ROUNDING) {
        costs[j] = cost;
        parents[j] = i;
      }
    }
  }
  const total = costs.at(-1) ?? Infinity;
  if (!Number.isFinite(total)) {
    // no legal set: even pieces that a sheet can give, and it is said
    const count = Math.max(1, wholeUp((input.to - input.from) / input.widest));
    const at = Array.from({ length: count - 1 }, (_, i) => input.from + ((input.to - input.from) * (i + 1)) / count);
    return { seams: at.map((place) => describe(input, place, false)), cost: costOf(input, at), legal: count === 1 };
  }
  const at: number[] = [];
  for (let j = parents.at(-1) ?? -1; j > 0; j = parents[j] ?? -1) at.unshift(places[j] ?? 0);
  return { seams: at.map((place) => describe(input, place, false)), cost: total, legal: true };
}

/** What given seams cost together. */
export const costOf = (input: SeamInput, at: readonly number[]): number =>
  PANEL * (at.length + 1) + at.reduce((sum, place) => sum + seamCost(input, place), 0);

/** Seams that were put by hand, and whether they are legal. */
export function givenSeams(input: SeamInput, given: readonly number[]): SeamPlan {
  const at = [...given].filter((place) => place > input.from && place < input.to).sort((a, b) => a - b);
  const ends = [input.from, ...at, input.to];
  const legal =
    at.every((place) => seamAllowed(input, place)) &&
    ends.slice(1).every((end, i) => {
      const width = end - (ends[i] ?? 0);
      return width <= input.widest + HAIR_MM && width >= input.sliver;
    });
  return { seams: at.map((place) => describe(input, place, true)), cost: costOf(input, at), legal };
}
