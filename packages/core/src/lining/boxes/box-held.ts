import type { PriceBook } from '../../document/schema.js';
import { glueAlong, GLUE, screwsAlong } from '../../parts/joint.js';
import { blankOf, type Part } from '../../parts/part.js';
import { pickBrad, pickFastener, SHARE_OF_EDGE } from '../../rules/fasteners.js';
import { boxOf } from '../../numeric/plane.js';
import { wholeUp } from '../../numeric/tolerance.js';
import type { ArchBox } from './arch-box.js';
import type { HeaderBox } from './header-box.js';
import type { WindowBox } from './box.js';

/** How one box is put together: what it takes, and what no stocked fastener does. */
export interface BoxHeld {
  /** Its window, arch or header, by its id. */
  readonly of: string;
  readonly name: string;
  readonly items: readonly {
    readonly use: 'corners' | 'trim' | 'carcass' | 'brackets' | 'bracket-screws' | 'glue';
    /** By what it is called in the price book. */
    readonly item: string;
    /** Pieces, or ml of glue. */
    readonly amount: number;
  }[];
  /** Joints that no stocked fastener holds: they are glued and clamped, or given a block. */
  readonly unheld: readonly ('corners' | 'trim' | 'carcass' | 'bracket-screws')[];
}

/** A brad every so far along a trim, mm. */
const BRADS_MM = 200;
export const BRACKET = 'bracket-40';
/** Screws in each leg of a bracket, and the thickness of its steel, mm. */
const LEG_SCREWS = 2;
const BRACKET_STEEL_MM = 2;

type Item = BoxHeld['items'][number];
type Unheld = BoxHeld['unheld'][number];

/** Butted boards: the passed one's thickness, and that of the edge which is screwed into, mm; lengths of the joints. */
function butted(
  use: 'corners' | 'carcass',
  thickness: number,
  joints: readonly number[],
  book: PriceBook,
): { readonly items: Item[]; readonly unheld: Unheld[] } {
  if (joints.length === 0) return { items: [], unheld: [] };
  // into the edge of a board that goes on for as far as any screw reaches
  const screw = pickFastener(book, { passed: thickness, gap: 0, into: 'wood', depth: 1000 }, thickness)?.item ?? null;
  // a screw too thick for the edge splits it: it is pinned and glued instead
  const splits = (screw?.fastener?.diameter ?? 0) > SHARE_OF_EDGE * thickness;
  const item = (splits ? pickBrad(book, { passed: thickness, depth: 1000 })?.item : null) ?? screw;
  const screws = joints.reduce((sum, length) => sum + screwsAlong(length), 0);
  const length = joints.reduce((sum, own) => sum + own, 0);
  return {
    items: [
      ...(item ? [{ use, item: item.id, amount: screws }] : []),
      { use: 'glue', item: GLUE, amount: glueAlong(length) },
    ],
    unheld: item ? [] : [use],
  };
}

/** Boards of a window's box screwed and glued at their corners; the trim pinned and glued to their edges. */
function windowHeld({ opening, name, parts }: WindowBox, book: PriceBook): BoxHeld {
  const boards = parts.filter((part) => part.role === 'reveal');
  const uprights = boards.filter((part) => part.number > 2);
  // each upright meets the level boards at both its ends
  const joints = uprights.flatMap((part) => {
    const [low, high] = [0, blankOf(part).length].map((x) => {
      const at = part.outline.outer.filter(([px]) => Math.abs(px - x) < 1).map(([px, py]) => [px, py] as const);
      const box = boxOf(at);
      return Math.max(0, box.maxY - box.minY);
    });
    return boards.length > uprights.length ? [low ?? 0, high ?? 0] : [];
  });
  const corners = butted('corners', boards[0]?.thickness ?? 0, joints, book);
  const trims = parts.filter((part) => part.role === 'trim');
  const brad = trims[0] ? pickBrad(book, { passed: trims[0].thickness, depth: 1000 }) : null;
  const brads = trims.reduce((sum, part) => sum + Math.max(2, wholeUp(blankOf(part).length / BRADS_MM) + 1), 0);
  const trimLength = trims.reduce((sum, part) => sum + blankOf(part).length, 0);
  return {
    of: opening,
    name,
    items: [
      ...corners.items,
      ...(brad ? [{ use: 'trim' as const, item: brad.item.id, amount: brads }] : []),
      ...(trimLength > 0 ? [{ use: 'glue' as const, item: GLUE, amount: glueAlong(trimLength) }] : []),
    ],
    unheld: [...corners.unheld, ...(trims.length > 0 && !brad ? (['trim'] as const) : [])],
  };
}

/** An arch's box: its boards on each other and on the rails, the whole on brackets to wall and floor. */
function archHeld(box: ArchBox, book: PriceBook): BoxHeld {
  const of = (role: string): readonly Part[] => box.parts.filter((part) => part.role === role);
  const [top] = of('arch-top');
  const [side] = of('arch-side');
  const t = side?.thickness ?? 0;
  const rails = of('arch-rail').map((part) => blankOf(part).length);
  const lid = (top?.outline.holes.length ?? 0) > 0;
  const joints = [
    // the face on both ends, the rails on the face, and a top that stays on the upper rail and the ends
    ...of('arch-end').map((part) => blankOf(part).width),
    ...rails,
    ...(lid
      ? []
      : [rails[0] ?? (top ? blankOf(top).length : 0), ...of('arch-end').map((part) => blankOf(part).length)]),
  ];
  const carcass = butted('carcass', t, joints, book);
  const screw = pickFastener(book, { passed: BRACKET_STEEL_MM, gap: 0, into: 'wood', depth: t });
  return {
    of: box.arch,
    name: box.name,
    items: [
      ...carcass.items,
      { use: 'brackets', item: BRACKET, amount: box.brackets },
      ...(screw?.item
        ? [{ use: 'bracket-screws' as const, item: screw.item.id, amount: box.brackets * 2 * LEG_SCREWS }]
        : []),
    ],
    unheld: [...carcass.unheld, ...(screw?.item ? [] : (['bracket-screws'] as const))],
  };
}

/** A header's boards, glued along the edges where they meet. */
function headerHeld({ id, name, parts }: HeaderBox): BoxHeld {
  const length = parts.slice(1).reduce((sum, part) => sum + blankOf(part).length, 0);
  return {
    of: id,
    name,
    items: length > 0 ? [{ use: 'glue', item: GLUE, amount: glueAlong(length) }] : [],
    unheld: [],
  };
}

/** How every box of the vehicle is put together: what is drawn, said and bought of it. */
export function boxesHeld(
  boxes: {
    readonly windowBoxes: readonly WindowBox[];
    readonly archBoxes: readonly ArchBox[];
    readonly headers: readonly HeaderBox[];
  },
  book: PriceBook,
): readonly BoxHeld[] {
  return [
    ...boxes.windowBoxes.map((box) => windowHeld(box, book)),
    ...boxes.archBoxes.map((box) => archHeld(box, book)),
    ...boxes.headers.map(headerHeld),
  ];
}
