import type { Wish } from '../document/schema.js';
import type { Check } from '../furniture/scene.js';
import type { Grade } from '../rules/rule.js';

/** How a wish stands: decided by the checks of its rule, or by somebody who signs it off. */
export interface WishStands {
  readonly wish: Wish;
  /** `kept` and `tight` and `missed` by its checks; `unknown` where its rule has nothing to say of this layout yet; `signed` or `waits` by hand. */
  readonly state: 'kept' | 'tight' | 'missed' | 'unknown' | 'signed' | 'waits';
  /** What decides it, worst first. */
  readonly checks: readonly Check[];
}

const WORST: readonly Grade[] = ['fails', 'unknown', 'tight', 'good'];
const STATE: Readonly<Record<Grade, WishStands['state']>> = {
  good: 'kept',
  tight: 'tight',
  fails: 'missed',
  unknown: 'unknown',
};

/** Whether a check speaks of what a wish asks for. */
export const decides = (check: Check, { rule, unit }: Wish): boolean =>
  check.rule === rule && (unit === null || check.unit === null || check.unit === unit);

/** How every wish stands. A check that was put aside still decides: what was wished for is not there. */
export const wishesStand = (wishes: readonly Wish[], checks: readonly Check[]): readonly WishStands[] =>
  wishes.map((wish): WishStands => {
    if (wish.rule === null) return { wish, state: wish.signed === null ? 'waits' : 'signed', checks: [] };
    const own = checks
      .filter((check) => decides(check, wish))
      .sort((a, b) => WORST.indexOf(a.grade) - WORST.indexOf(b.grade));
    return { wish, state: own[0] ? STATE[own[0].grade] : 'unknown', checks: own };
  });
