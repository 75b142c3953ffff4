import type { KeptPlan, Offcut, PriceItem, Project } from '../../document/schema.js';
import { type MaterialJob } from '../job/from-parts.js';
import { fingerprint } from '../../numeric/fingerprint.js';
import type { Operation } from '../../document/operation.js';
import type { CutJob, CutPlan } from '../job/job.js';
import { drawnShape, shapeMoved } from '../../parts/drawn-shape.js';
import type { Part } from '../../parts/part.js';
import {
  AS_SAWN_MM,
  boundOf,
  composeSheets,
  jobOf,
  planOf,
  remainingOf,
  type CutConflict,
  type PlannedSheet,
  type Remaining,
} from './planned.js';

/** The plan that stands for one material. */
export interface MaterialPlan {
  readonly material: PriceItem;
  /** All parts of the material, on the sheets sold. */
  readonly job: CutJob;
  /** What is searched for when a better plan is asked for: the parts of sheets not begun and not locked. */
  readonly search: CutJob;
  readonly remaining: Remaining;
  readonly key: string;
  readonly sheets: readonly PlannedSheet[];
  readonly plan: CutPlan;
  /** A plan that was searched for and kept, one kept of which some sheets were laid out anew, or the first valid one. */
  readonly state: 'kept' | 'mended' | 'first';
  /** Ids of the sheets that were laid out anew because parts of theirs changed. */
  readonly anew: readonly string[];
  readonly conflicts: readonly CutConflict[];
  readonly waiting: readonly string[];
}

/** Finds a first plan fast; remembered by whoever calls. */
export type FirstPlan = (job: CutJob, smallestOffcut: number) => CutPlan;

const NOTHING: CutPlan = {
  format: 'cut-plan',
  version: 1,
  sheets: [],
  unplaced: [],
  cost: 0,
  bound: 0,
  proved: true,
  seconds: 0,
};

/**
 * The plan of one material: what is cut, begun or locked stays; kept sheets whose parts are unchanged stand; only the rest
 * is laid out anew.
 */
export function planMaterial(
  made: MaterialJob,
  kept: KeptPlan | undefined,
  offcuts: readonly Offcut[],
  smallestOffcut: number,
  first: FirstPlan,
  parts: readonly Part[] = [],
): MaterialPlan {
  const { material, job, waiting } = made;
  const own = offcuts.filter((offcut) => offcut.material === material.id);
  const remaining = remainingOf(job, kept, own);
  const search = jobOf(job, remaining.parts, remaining.stock);
  const key = fingerprint(JSON.stringify(search));
  const added =
    remaining.open.length > 0 ? first(jobOf(job, remaining.open, remaining.openStock), smallestOffcut) : NOTHING;
  const sheets = composeSheets(job, remaining, added, true);
  const asKept = kept !== undefined && kept.job === key && remaining.open.length === 0;
  // nothing is begun or kept: the search that laid everything out knows the bound already
  const all = remaining.fixed.length === 0 && remaining.standing.length === 0 && remaining.open.length > 0;
  const bound = asKept ? kept.bound : all ? added.bound : boundOf(job, remaining);
  const plan = planOf(sheets, added.unplaced, bound);
  const before = new Set([...remaining.fixed, ...remaining.standing].map((sheet) => sheet.id));
  const anew = kept ? sheets.filter((sheet) => !before.has(sheet.id)).map((sheet) => sheet.id) : [];
  return {
    material,
    job,
    search,
    remaining,
    key,
    sheets,
    plan,
    state: kept === undefined ? 'first' : anew.length > 0 ? 'mended' : 'kept',
    anew,
    conflicts: [...remaining.conflicts, ...redrawn(remaining.fixed, parts, remaining.conflicts)],
    waiting,
  };
}

/** What is cut and of the size that is wanted, but drawn otherwise since. */
function redrawn(
  fixed: readonly PlannedSheet[],
  parts: readonly Part[],
  told: readonly CutConflict[],
): readonly CutConflict[] {
  const others = new Set(told.map(({ part }) => part));
  return fixed.flatMap((sheet) =>
    sheet.placements.flatMap((placed): CutConflict[] => {
      if (placed.spoiled || !placed.shape || others.has(placed.part) || !sheet.cut.includes(placed.part)) return [];
      const part = parts.find(({ id }) => id === placed.part);
      const now = part && drawnShape(part);
      if (!now) return [];
      const shape = shapeMoved(placed.shape, now, placed);
      const same = shape.was === shape.now && Math.max(shape.outline, shape.openings) < AS_SAWN_MM;
      return same ? [] : [{ part: placed.part, short: { length: 0, width: 0 }, shape }];
    }),
  );
}

/** A found plan as the sheets that are kept, with what is fixed in front. */
export function keptFrom(item: MaterialPlan, found: CutPlan): KeptPlan {
  const sheets = composeSheets(item.job, item.remaining, found, false);
  const paid = item.remaining.fixed.reduce((sum, sheet) => sum + sheet.price, 0);
  return {
    material: item.material.id,
    job: item.key,
    sheets: sheets.map(bare),
    bound: paid + found.bound,
    proved: found.proved,
  };
}

/** The sheet that is sawn next, and the parts as they are drawn. */
export interface Sawn {
  readonly sheet: string;
  readonly parts: readonly Part[];
}
/** A sheet with what is drawn on those of its parts that are not cut yet. */
function drawnOn(sheet: PlannedSheet, parts: readonly Part[]): PlannedSheet {
  return {
    ...sheet,
    placements: sheet.placements.map((placed) => {
      const done = placed.spoiled || sheet.cut.includes(placed.part);
      const part = done ? undefined : parts.find(({ id }) => id === placed.part);
      const shape = part && drawnShape(part);
      return shape ? { ...placed, shape } : placed;
    }),
  };
}

/**
 * The plan that stands, to be kept as it is: what an operation at the saw starts from.
 * @param sawn the sheet that is sawn next: it is kept with what is drawn on its parts
 */
export function keptNow(item: MaterialPlan, sawn?: Sawn): KeptPlan {
  return {
    material: item.material.id,
    job: item.key,
    sheets: item.sheets.map((sheet) => bare(sheet.id === sawn?.sheet ? drawnOn(sheet, sawn.parts) : sheet)),
    bound: item.plan.bound,
    proved: item.plan.proved,
  };
}

/**
 * What has to be kept before something is done at the saw: the plan that stands, where it is not the one that is kept.
 */
export function keepingFirst(item: MaterialPlan, kept: KeptPlan | undefined, sawn?: Sawn): readonly Operation[] {
  const now = keptNow(item, sawn);
  const same = kept !== undefined && JSON.stringify(kept.sheets) === JSON.stringify(now.sheets);
  return same ? [] : [{ name: 'keepPlan', payload: now }];
}

/** What a found plan would cost in all. */
export const costWith = (item: MaterialPlan, found: CutPlan): number =>
  item.remaining.fixed.reduce((sum, sheet) => sum + sheet.price, 0) + found.cost;

function bare(sheet: PlannedSheet): Project['keptPlans'][number]['sheets'][number] {
  const { id, stock, length, width, trim, price, offcut, placements, cuts, left, done } = sheet;
  return { id, stock, length, width, trim, price, offcut, placements, cuts, left, done };
}
