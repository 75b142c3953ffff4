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
  /** The widest a piece between two seams may be, from middle of joint to middle of joint: the sheet and half a gap at each side. */
  readonly widest: number;
  /** What an end takes of that: no half gap beyond it, and what is left on there to be scribed. */
  readonly atEnd: number;
  /** No piece, and no leg beside an opening, is narrower than this. */
  readonly sliver: number;
  readonly supports: readonly { readonly name: string; readonly at: number }[];
  readonly openings: readonly { readonly name: string; readonly from: number; readonly to: number }[];
  /** Share of the seam's height that a unit hides, at any place. */
  readonly hidden: (at: number) => { readonly share: number; readonly by: string | null };
  /** Share of the surface's height that is lined there: above and below an opening only. */
  readonly solid: (at: number) => number;
}

/**
 * What seams cost against each other: another panel first, then a lean piece, then a strip behind the joint and what is seen
 * of it, both by the share of the height that is jointed at all, and how far an opening is parted from its middle.
 */
const PANEL = 100;
const LEAN = 20;
const BACKING = 9;
const OFF_MIDDLE = 5;
const SEEN = 6;
/** A piece narrower than this share of the widest is a lean infill. */
const LEAN_SHARE = 0.25;
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
  const parted = input.openings.find((opening) => at > opening.from && at < opening.to);
  const off = parted ? Math.abs(at - (parted.from + parted.to) / 2) / ((parted.to - parted.from) / 2) : 0;
  const solid = input.solid(at);
  return (supported ? 0 : BACKING * solid) + OFF_MIDDLE * off + SEEN * solid * (1 - input.hidden(at).share);
}

/** What one piece costs: itself, and more the leaner it is. */
function pieceCost({ widest }: SeamInput, width: number): number {
  const lean = LEAN_SHARE * widest;
  return PANEL + (width < lean ? LEAN * (1 - width / lean) : 0);
}

/** The widest a piece may be that begins or ends at an end of the surface, from joint or edge to joint or edge. */
const widestBetween = ({ widest, atEnd }: SeamInput, first: boolean, last: boolean): number =>
  widest - (first ? atEnd : 0) - (last ? atEnd : 0);

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
      if (width > widestBetween(input, i === 0, j === places.length - 1) + HAIR_MM) continue;
      if (width < input.sliver) continue;
      const cost = (costs[i] ?? Infinity) + pieceCost(input, width) + own;
      if (cost < (costs[j] ?? Infinity) - ROUNDING) {
        costs[j] = cost;
        parents[j] = i;
      }
    }
  }
  const total = costs.at(-1) ?? Infinity;
  if (!Number.isFinite(total)) {
    // no legal set: even pieces that a sheet can give, and it is said
    const count = Math.max(1, wholeUp((input.to - input.from + 2 * input.atEnd) / input.widest));
    const at = Array.from({ length: count - 1 }, (_, i) => input.from + ((input.to - input.from) * (i + 1)) / count);
    return { seams: at.map((place) => describe(input, place, false)), cost: costOf(input, at), legal: count === 1 };
  }
  const at: number[] = [];
  for (let j = parents.at(-1) ?? -1; j > 0; j = parents[j] ?? -1) at.unshift(places[j] ?? 0);
  return { seams: at.map((place) => describe(input, place, false)), cost: total, legal: true };
}

/** What given seams cost together. */
export function costOf(input: SeamInput, at: readonly number[]): number {
  const ends = [input.from, ...at, input.to];
  const pieces = ends.slice(1).reduce((sum, end, i) => sum + pieceCost(input, end - (ends[i] ?? 0)), 0);
  return pieces + at.reduce((sum, place) => sum + seamCost(input, place), 0);
}

/** Seams that were put by hand, and whether they are legal. */
export function givenSeams(input: SeamInput, given: readonly number[]): SeamPlan {
  const at = [...given].filter((place) => place > input.from && place < input.to).sort((a, b) => a - b);
  const ends = [input.from, ...at, input.to];
  const legal =
    at.every((place) => seamAllowed(input, place)) &&
    ends.slice(1).every((end, i) => {
      const width = end - (ends[i] ?? 0);
      return width <= widestBetween(input, i === 0, i === at.length) + HAIR_MM && width >= input.sliver;
    });
  return { seams: at.map((place) => describe(input, place, true)), cost: costOf(input, at), legal };
}

/** How much wider sheets would have to be, or joints stand open, for one panel fewer. */
export interface NearlyFewer {
  readonly panels: number;
  /** mm that a sheet is short of it. */
  readonly short: number;
  /** Joints so wide, under cover strips, would do with the sheets there are, mm. */
  readonly gap: number;
}

/**
 * Where sheets are just too narrow to save a panel: by how much. Null when one panel does, when no legal seams are to be had
 * with one fewer, or when sheets would have to be wider by more than `most`.
 * @param gap of the joints now, mm
 */
export function nearlyFewer(input: SeamInput, gap: number, most: number): NearlyFewer | null {
  const now = findSeams(input);
  const panels = now.seams.length;
  if (!now.legal || panels === 0) return null;
  const does = (wider: number): boolean => {
    const plan = findSeams({ ...input, widest: input.widest + wider });
    return plan.legal && plan.seams.length + 1 <= panels;
  };
  if (!does(most)) return null;
  let [low, high] = [0, Math.ceil(most)];
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2);
    if (does(middle)) high = middle;
    else low = middle;
  }
  // a wider joint gives a piece half of it at each side, an end piece at one
  const opens = (more: number): boolean => {
    const plan = findSeams({ ...input, widest: input.widest + more, atEnd: input.atEnd + more / 2 });
    return plan.legal && plan.seams.length + 1 <= panels;
  };
  // an end piece gains half of what an inner one does: no more than twice what sheets are short of
  let [narrow, wide] = [high - 1, 2 * high];
  while (wide - narrow > 1) {
    const middle = Math.floor((narrow + wide) / 2);
    if (opens(middle)) wide = middle;
    else narrow = middle;
  }
  return opens(wide) ? { panels, short: high, gap: gap + wide } : null;
}
