/** A choice of whole numbers of kinds, and what it is worth. */
export interface Load {
  readonly counts: readonly number[];
  readonly worth: number;
  /** Nothing can be worth more than this; equal to `worth` when the search was not cut short. */
  readonly most: number;
}

/**
 * The bounded knapsack: how many of each kind to take so that the lengths fit and the worth is greatest. Branch and bound
 * in the order of worth for length (Dantzig's bound); exact unless it would take more than `visits` steps.
 * @param lengths whole numbers
 */
export function bestLoad(
  lengths: readonly number[],
  worths: readonly number[],
  limits: readonly number[],
  space: number,
  visits = 200_000,
): Load {
  const order = lengths
    .map((_, kind) => kind)
    .filter((kind) => (worths[kind] ?? 0) > 0 && (limits[kind] ?? 0) > 0 && (lengths[kind] ?? Infinity) <= space)
    .sort((a, b) => (worths[b] ?? 0) / (lengths[b] ?? 1) - (worths[a] ?? 0) / (lengths[a] ?? 1));
  const size = order.map((kind) => lengths[kind] ?? 1);
  const worth = order.map((kind) => worths[kind] ?? 0);
  const limit = order.map((kind) => limits[kind] ?? 0);
  const now = order.map(() => 0);
  let best: number[] = [...now];
  let bestWorth = 0;
  let steps = 0;
  let cutShort = 0;
  // what all of each kind before a depth take and are worth, so that the bound is looked up and not added up
  const taken: number[] = [0];
  const earned: number[] = [0];
  order.forEach((_, i) => {
    taken.push((taken[i] ?? 0) + (limit[i] ?? 0) * (size[i] ?? 1));
    earned.push((earned[i] ?? 0) + (limit[i] ?? 0) * (worth[i] ?? 0));
  });
  /** Everything that fits in the order of worth for length, the last of it in part (Dantzig 1957). */
  const boundFrom = (depth: number, left: number): number => {
    const start = taken[depth] ?? 0;
    let [low, high] = [depth, order.length];
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if ((taken[middle] ?? Infinity) - start <= left) low = middle;
      else high = middle - 1;
    }
    const whole = (earned[low] ?? 0) - (earned[depth] ?? 0);
    return low === order.length
      ? whole
      : whole + ((left - ((taken[low] ?? 0) - start)) / (size[low] ?? 1)) * (worth[low] ?? 0);
  };
  const walk = (depth: number, left: number, sum: number): void => {
    if (sum > bestWorth + 1e-12) {
      bestWorth = sum;
      best = [...now];
    }
    if (depth === order.length) return;
    const reach = sum + boundFrom(depth, left);
    if (reach <= bestWorth + 1e-12) return;
    steps += 1;
    if (steps > visits) {
      cutShort = Math.max(cutShort, reach);
      return;
    }
    const own = size[depth] ?? 1;
    for (let count = Math.min(limit[depth] ?? 0, Math.floor(left / own)); count >= 0; count -= 1) {
      now[depth] = count;
      walk(depth + 1, left - count * own, sum + count * (worth[depth] ?? 0));
    }
    now[depth] = 0;
  };
  walk(0, space, 0);
  const counts = lengths.map(() => 0);
  order.forEach((kind, i) => {
    counts[kind] = best[i] ?? 0;
  });
  return { counts, worth: bestWorth, most: Math.max(bestWorth, cutShort) };
}
