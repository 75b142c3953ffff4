import type { KeptPlacement, KeptPlan, KeptSheet, Offcut } from '../../document/schema.js';
import { type CutJob, type CutPlan, engineJob } from '../job/job.js';
import { toUnits } from '../job/units.js';
import { separable } from '../job/verify.js';
import { footprintOf } from './footprint.js';
import { lowerBound } from '../bounds/bound.js';
import { stepsOf } from './steps.js';
import type { ShapeMoved } from '../../parts/drawn-shape.js';

/** A sheet of the plan that stands, and what its state means for the person. */
export interface PlannedSheet extends KeptSheet {
  /** Something is cut on it or locked to it: it is never laid out anew. */
  readonly fixed: boolean;
  readonly begun: boolean;
  /** Ids of parts on it that are cut. */
  readonly cut: readonly string[];
}
/** A part that is cut but would now be made otherwise. */
export interface CutConflict {
  readonly part: string;
  /** How much is missing along and across, mm; negative: how much has to come off. Null when the part is no longer wanted. */
  readonly short: { readonly length: number; readonly width: number } | null;
  /** It is of the size that is wanted, but drawn otherwise since: its outline, or openings in it. */
  readonly shape?: ShapeMoved;
}
/** What is fixed already, and the job that remains. */
export interface Remaining {
  readonly fixed: readonly PlannedSheet[];
  /** Kept sheets that are not begun and still hold. */
  readonly standing: readonly PlannedSheet[];
  /** Parts that no fixed sheet holds. */
  readonly parts: CutJob['parts'];
  /** Parts that neither a fixed nor a standing sheet holds. */
  readonly open: CutJob['parts'];
  /** What further parts can be cut from: the stock bought, offcuts, free places of fixed sheets. */
  readonly stock: CutJob['stock'];
  /** The same with the free places of standing sheets, for parts that are only added. */
  readonly openStock: CutJob['stock'];
  readonly conflicts: readonly CutConflict[];
}

const ROOM = 'room:';
const OFFCUT = 'offcut:';
/** Sizes that differ by less than this are the same, mm. */
const SAME_MM = 0.051;
/** What is cut is good while it is no further from what is wanted now: a saw is no better, mm. */
export const AS_SAWN_MM = 0.5;
/** Play for sums in millimetres, engine units. */
const UNITS_OVER = 100;
/** Free places narrower than this hold nothing. */
const LEAST_ROOM_MM = 10;

const roomName = (sheet: KeptSheet, index: number): string => `${ROOM}${sheet.id}:${index}`;

/** Ids of the parts on a sheet that all their steps have set free. */
export function cutOn(sheet: KeptSheet): string[] {
  const done = new Set(sheet.done);
  const steps = stepsOf(sheet);
  return sheet.placements
    .filter((placed) => !placed.spoiled)
    .filter((placed) => {
      const own = steps.filter((step) => step.frees(placed));
      return own.length > 0
        ? own.every((step) => done.has(step.name))
        : sheet.done.length > 0 && steps.every((s) => done.has(s.name));
    })
    .map((placed) => placed.part);
}

/** Whether a sheet can still be cut as it is laid out: nothing over the edge, pieces a kerf apart and parted by straight cuts. */
function sound(sheet: KeptSheet, kerf: number, free: boolean): boolean {
  const pieces = sheet.placements.map((p) => {
    const { length: along, width: across } = footprintOf(p);
    return { part: p.part, x0: toUnits(p.x), y0: toUnits(p.y), x1: toUnits(p.x + along), y1: toUnits(p.y + across) };
  });
  const inside = pieces.every(
    (p) =>
      Math.min(p.x0, p.y0) >= -UNITS_OVER &&
      p.x1 <= toUnits(sheet.length) + UNITS_OVER &&
      p.y1 <= toUnits(sheet.width) + UNITS_OVER,
  );
  // bars with angled ends were laid by their ends: their boxes overlap
  const angled = sheet.placements.some((placed) => placed.ends !== undefined);
  return inside && (free || angled || separable(pieces, toUnits(kerf)));
}

function planned(sheet: KeptSheet): PlannedSheet {
  const begun = sheet.done.length > 0;
  return { ...sheet, begun, fixed: begun || sheet.placements.some((p) => p.locked), cut: begun ? cutOn(sheet) : [] };
}

const sameEnds = (a: KeptPlacement['ends'], b: KeptPlacement['ends']): boolean =>
  (a?.start ?? 0) === (b?.start ?? 0) && (a?.end ?? 0) === (b?.end ?? 0);
const sameSize = (placed: KeptPlacement, part: CutJob['parts'][number], within = SAME_MM): boolean =>
  sameEnds(placed.ends, part.ends) &&
  Math.abs(placed.length - part.length) < within &&
  Math.abs(placed.width - (part.width ?? 0)) < within;

/** What is left to plan once what is cut, begun or locked stays where it is. */
export function remainingOf(job: CutJob, kept: KeptPlan | undefined, offcuts: readonly Offcut[]): Remaining {
  const wanted = new Map(job.parts.map((part) => [part.id, part]));
  const held = new Set<string>();
  const conflicts: CutConflict[] = [];
  const all = (kept?.sheets ?? []).map(planned);
  const fixed = all
    .filter((sheet) => sheet.fixed)
    .map((sheet): PlannedSheet => {
      const placements: KeptPlacement[] = [];
      const left = [...sheet.left];
      for (const placed of sheet.placements) {
        const part = wanted.get(placed.part);
        const cut = sheet.cut.includes(placed.part);
        if (placed.spoiled || cut || (part && sameSize(placed, part) && !held.has(placed.part))) {
          placements.push(placed);
          if (placed.spoiled) continue;
          held.add(placed.part);
          if (cut && (!part || !sameSize(placed, part, AS_SAWN_MM)))
            conflicts.push({
              part: placed.part,
              short: part ? { length: part.length - placed.length, width: (part.width ?? 0) - placed.width } : null,
            });
        } else {
          // changed or gone before it was cut: its place is free again
          left.push({
            x: placed.x,
            y: placed.y,
            ...footprintOf(placed),
          });
        }
      }
      return { ...sheet, placements, left };
    });
  const standing = all.filter((sheet) => {
    if (sheet.fixed) return false;
    const stands =
      sheet.placements.length > 0 &&
      sound(sheet, job.kerf, job.method === 'free') &&
      sheet.placements.every((placed) => {
        const part = wanted.get(placed.part);
        return (
          part !== undefined && !held.has(placed.part) && sameSize(placed, part) && (part.mayTurn || !placed.turned)
        );
      }) &&
      (sheet.offcut !== null || job.stock.some((stock) => stock.id === sheet.stock && stock.price === sheet.price));
    if (stands) for (const placed of sheet.placements) held.add(placed.part);
    return stands;
  });
  const inFixed = new Set(fixed.flatMap((s) => s.placements.filter((p) => !p.spoiled).map((p) => p.part)));
  const roomsOf = (sheets: readonly PlannedSheet[]): CutJob['stock'] =>
    sheets.flatMap((sheet) =>
      sheet.left
        .map((room, i) => ({
          id: roomName(sheet, i),
          length: room.length,
          width: room.width,
          quantity: 1,
          price: 0,
          offcut: true,
        }))
        .filter((room) => Math.min(room.length, room.width) > LEAST_ROOM_MM),
    );
  const offcutsBut = (taken: readonly PlannedSheet[]): CutJob['stock'] =>
    offcuts
      .filter((offcut) => taken.every((sheet) => sheet.offcut !== offcut.id))
      .map((offcut) => ({
        id: `${OFFCUT}${offcut.id}`,
        length: offcut.length,
        width: offcut.width,
        quantity: 1,
        price: 0,
        offcut: true,
      }));
  return {
    fixed,
    standing,
    parts: job.parts.filter((part) => !inFixed.has(part.id)),
    open: job.parts.filter((part) => !held.has(part.id)),
    stock: [...job.stock, ...offcutsBut(fixed), ...roomsOf(fixed)],
    openStock: [...job.stock, ...offcutsBut([...fixed, ...standing]), ...roomsOf([...fixed, ...standing])],
    conflicts,
  };
}

/** Turns a plan for what remains into sheets with names, beside and on top of those that are fixed. */
export function composeSheets(job: CutJob, remaining: Remaining, plan: CutPlan, keepStanding: boolean): PlannedSheet[] {
  const trim =
    job.kind === 'bar'
      ? { length: job.endTrim, width: 0 }
      : typeof job.trim === 'number'
        ? { length: job.trim, width: job.trim }
        : job.trim;
  const sizes = new Map(job.parts.map((part) => [part.id, part]));
  const hosts: KeptSheet[] = [...remaining.fixed, ...(keepStanding ? remaining.standing : [])];
  const names = new Set(hosts.map((sheet) => sheet.id));
  const usedRooms = new Map<string, Set<number>>();
  const added: KeptSheet[] = [];
  const placementsOf = (sheet: CutPlan['sheets'][number], dx: number, dy: number): KeptPlacement[] =>
    sheet.placements.map((placed) => ({
      ...placed,
      x: placed.x + dx,
      y: placed.y + dy,
      length: sizes.get(placed.part)?.length ?? 1,
      width: sizes.get(placed.part)?.width ?? 1,
      ...(sizes.get(placed.part)?.ends ? { ends: sizes.get(placed.part)?.ends } : {}),
      spoiled: false,
      locked: false,
    }));
  for (const sheet of plan.sheets) {
    if (sheet.stock.startsWith(ROOM)) {
      const end = sheet.stock.lastIndexOf(':');
      const index = Number(sheet.stock.slice(end + 1));
      const at = hosts.findIndex((candidate) => candidate.id === sheet.stock.slice(ROOM.length, end));
      const host = hosts[at];
      const room = host?.left[index];
      if (!host || !room) continue;
      const rooms = usedRooms.get(host.id) ?? new Set();
      usedRooms.set(host.id, rooms.add(index));
      const deepest = Math.max(0, ...host.cuts.map((cut) => cut.level));
      const move = (cut: CutPlan['sheets'][number]['cuts'][number]): typeof cut => {
        const rip = cut.axis === 'rip';
        const [across, along] = rip ? [room.y, room.x] : [room.x, room.y];
        return {
          axis: cut.axis,
          at: cut.at + across,
          edge: cut.edge + across,
          far: cut.far + across,
          from: cut.from + along,
          to: cut.to + along,
          level: cut.level + deepest,
        };
      };
      hosts[at] = {
        ...host,
        placements: [...host.placements, ...placementsOf(sheet, room.x, room.y)],
        cuts: [...host.cuts, ...sheet.cuts.map(move)],
        left: [...host.left, ...sheet.offcuts.map((rest) => ({ ...rest, x: rest.x + room.x, y: rest.y + room.y }))],
      };
      continue;
    }
    const offcut = sheet.stock.startsWith(OFFCUT) ? sheet.stock.slice(OFFCUT.length) : null;
    const stock = job.stock.find((candidate) => candidate.id === sheet.stock);
    let number = 1;
    while (names.has(`s${number}`)) number += 1;
    names.add(`s${number}`);
    const size = remaining.openStock.find((candidate) => candidate.id === sheet.stock);
    const lost = offcut === null ? trim : { length: 0, width: 0 };
    added.push({
      id: `s${number}`,
      stock: sheet.stock,
      length: (size?.length ?? 1) - 2 * lost.length,
      width: (size?.width ?? 1) - 2 * lost.width,
      trim: lost.length,
      price: stock?.price ?? 0,
      offcut,
      placements: placementsOf(sheet, 0, 0),
      cuts: sheet.cuts,
      left: sheet.offcuts,
      done: [],
    });
  }
  const filled = hosts.map((host) => {
    const rooms = usedRooms.get(host.id);
    return rooms ? { ...host, left: host.left.filter((_, i) => !rooms.has(i)) } : host;
  });
  return [...filled, ...added].map(planned);
}

/** The sheets as an open cut plan. */
export function planOf(sheets: readonly KeptSheet[], unplaced: CutPlan['unplaced'], bound: number): CutPlan {
  const cost = sheets.reduce((sum, sheet) => sum + sheet.price, 0);
  const complete = unplaced.length === 0;
  return {
    format: 'cut-plan',
    version: 1,
    sheets: sheets.map((sheet) => ({
      stock: sheet.stock,
      placements: sheet.placements
        .filter((placed) => !placed.spoiled)
        .map(({ part, x, y, turned, angle, flipped }) => ({
          part,
          x,
          y,
          turned,
          ...(angle === undefined ? {} : { angle }),
          ...(flipped === undefined ? {} : { flipped }),
        })),
      cuts: sheet.cuts,
      offcuts: sheet.left,
    })),
    unplaced,
    cost,
    bound: complete ? Math.min(bound, cost) : 0,
    proved: complete && cost <= bound,
    seconds: 0,
  };
}

/** The job that remains, in the open format. */
export const jobOf = (job: CutJob, parts: CutJob['parts'], stock: CutJob['stock']): CutJob => ({
  ...job,
  parts,
  stock,
});

/** A price below which what is fixed and what remains cannot be had together. */
export function boundOf(job: CutJob, remaining: Remaining): number {
  const paid = remaining.fixed.reduce((sum, sheet) => sum + sheet.price, 0);
  return paid + lowerBound(engineJob(jobOf(job, remaining.parts, remaining.stock)));
}
