import { baysOf } from './body.js';
import type { OperationOf } from './operation.js';
import type { BaySize, Division } from './unit-schema.js';

type Cut = Extract<Division, { cut: string }>;
type Beside = OperationOf<'sizeBay'>['payload']['beside'];

/** Names that bays of a unit do not have yet. */
export function freeBayNames(division: Division, count: number): string[] {
  const taken = new Set(baysOf(division).map((bay) => bay.name));
  const names: string[] = [];
  for (let number = 1; names.length < count; number += 1) if (!taken.has(`bay-${number}`)) names.push(`bay-${number}`);
  return names;
}

/** A division with a cut changed in it, and how many cuts outward from there that one still is; -1 once it is changed. */
function changedIn(
  division: Division,
  bay: string,
  outward: number,
  change: (cut: Cut, at: number) => Division,
): { readonly division: Division; readonly outward: number } | null {
  if (!('cut' in division)) return division.name === bay ? { division, outward } : null;
  for (const [at, part] of division.parts.entries()) {
    const inner = changedIn(part, bay, outward, change);
    if (!inner) continue;
    if (inner.outward === 0) return { division: change(division, at), outward: -1 };
    return {
      division: { ...division, parts: division.parts.map((own, k) => (k === at ? inner.division : own)) },
      outward: Math.max(-1, inner.outward - 1),
    };
  }
  return null;
}

/**
 * The innermost cut that a bay is one of, or lies in one of, put in its place changed.
 * @param outward so many cuts further out
 * @returns null where there is none
 */
export function atCutOf(
  division: Division,
  bay: string,
  change: (cut: Cut, at: number) => Division,
  outward = 0,
): Division | null {
  const changed = changedIn(division, bay, outward, change);
  return changed?.outward === -1 ? changed.division : null;
}

/** Whether a part takes what the others leave: a cut needs one, else its sizes fill its room only by chance. */
const gives = (size: BaySize | undefined): boolean => typeof size === 'object';
/** A cut in which nobody gives any more: the part beside the one that was changed does, after it, else before it. */
function leavesRoom(cut: Cut, at: number): Cut {
  if (cut.sizes.some(gives)) return cut;
  const beside = at + 1 < cut.sizes.length ? at + 1 : at - 1;
  return { ...cut, sizes: cut.sizes.map((own, i) => (i === beside ? { share: 1 } : own)) };
}
/**
 * A part of a cut in another size. Where the divider beside it is moved, the part on its other side gives what it takes and
 * the rest stand still: it gets the size it has then, or shares where nobody else does.
 */
export function sizedAt(cut: Cut, at: number, size: number | null, beside: Beside | undefined): Cut {
  const sizes = cut.sizes.map((own, i) => (i === at ? (size ?? { share: 1 }) : own));
  const other = beside && (beside.side === 'after' ? at + 1 : at - 1);
  if (beside && other !== undefined && other in sizes)
    sizes[other] = sizes.some((own, i) => i !== other && gives(own)) ? beside.size : { share: 1 };
  return leavesRoom({ ...cut, sizes }, at);
}

/** A cut with another kind of divider: a board more or less is taken from somewhere. */
export const dividedBy = (cut: Cut, at: number, divider: Cut['divider']): Cut =>
  cut.sizes.every((size) => typeof size === 'number') ? leavesRoom({ ...cut, divider }, at) : { ...cut, divider };
