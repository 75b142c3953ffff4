import { footprintOf } from './footprint.js';
import type { KeptPlacement, KeptSheet, SawCut } from '../../document/schema.js';

/** One thing done at the saw: a straight cut over a piece, or an outline followed. */
export interface Step {
  readonly name: string;
  readonly sheet: string;
  readonly kind: 'rip' | 'crosscut' | 'outline';
  /** What the fence is set to, mm: from the edge of the piece to the cut. The larger side for an outline. */
  readonly setting: number;
  /** Degrees the blade is off square across a bar; 0 for a square cut. */
  readonly angle: number;
  readonly level: number;
  readonly cut: SawCut | null;
  readonly part: string | null;
  /** Whether the step sets one side of a part free. */
  readonly frees: (placed: KeptPlacement) => boolean;
}

/** Sides that are this near are on the cut, mm. */
const NEAR_MM = 0.06;

/** A cut's name, that stays the same as long as the cut does. */
export const cutName = (cut: SawCut): string =>
  `${cut.axis}:${cut.at.toFixed(1)}:${cut.from.toFixed(1)}:${cut.edge.toFixed(1)}`;

/** A part is free once every cut is made over a piece that it was still in. */
function freesBy(cut: SawCut): (placed: KeptPlacement) => boolean {
  return (placed) => {
    const { length: along, width: across } = footprintOf(placed);
    const rip = cut.axis === 'rip';
    const [low, high] = rip ? [placed.y, placed.y + across] : [placed.x, placed.x + along];
    const [from, to] = rip ? [placed.x, placed.x + along] : [placed.y, placed.y + across];
    return (
      low >= cut.edge - NEAR_MM && high <= cut.far + NEAR_MM && from >= cut.from - NEAR_MM && to <= cut.to + NEAR_MM
    );
  };
}

/** Where a cut ends at its farther edge: an angled piece is measured to its long point. */
const longPoint = (cut: SawCut): number =>
  cut.at + Math.max(0, (cut.to - cut.from) * Math.tan(((cut.angle ?? 0) * Math.PI) / 180));

/** Everything that is done on one sheet, in an order in which it can be done. */
export function stepsOf(sheet: KeptSheet): Step[] {
  if (sheet.cuts.length === 0 && sheet.placements.some((placed) => placed.angle !== undefined))
    return sheet.placements.map((placed, i): Step => ({
      name: `outline:${placed.part}`,
      sheet: sheet.id,
      kind: 'outline',
      setting: Math.max(placed.length, placed.width),
      angle: 0,
      level: i + 1,
      cut: null,
      part: placed.part,
      frees: (other) => other.part === placed.part,
    }));
  return [...sheet.cuts]
    .sort((a, b) => a.level - b.level)
    .map((cut): Step => ({
      name: cutName(cut),
      sheet: sheet.id,
      kind: cut.axis,
      setting: longPoint(cut) - cut.edge,
      angle: cut.angle ?? 0,
      level: cut.level,
      cut,
      part: null,
      frees: freesBy(cut),
    }));
}

/** Whether a step needs another done first: the piece it cuts must have been parted from the sheet. */
export function needs(step: Step, before: Step): boolean {
  const [a, b] = [step.cut, before.cut];
  if (!a || !b || step.sheet !== before.sheet || before.level >= step.level) return false;
  const box = (cut: SawCut): [number, number, number, number] =>
    cut.axis === 'rip' ? [cut.from, cut.edge, cut.to, cut.far] : [cut.edge, cut.from, cut.far, cut.to];
  const [ax, ay, ax2, ay2] = box(a);
  const [bx, by, bx2, by2] = box(b);
  return ax >= bx - NEAR_MM && ay >= by - NEAR_MM && ax2 <= bx2 + NEAR_MM && ay2 <= by2 + NEAR_MM;
}
