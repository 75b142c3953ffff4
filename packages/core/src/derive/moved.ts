import { ringsApart } from '../numeric/plane.js';
import { applyOperation } from '../furniture/kit.js';
import type { Deriver } from './derive.js';
import type { PriceBook, Project } from '../document/schema.js';

/** What one retaken reading changed. Lengths in mm; only what changed by more than half a millimetre is named. */
export interface Moved {
  readonly address: string;
  readonly before: number;
  readonly after: number;
  readonly figures: readonly {
    readonly what: 'standing' | 'widthAtFloor' | 'widthAtBelly' | 'widthAtBed';
    readonly by: number;
  }[];
  readonly parts: readonly { readonly id: string; readonly unit: string | null; readonly by: number }[];
  /** Checks whose grade changed. */
  readonly checks: readonly { readonly id: string; readonly from: string; readonly to: string }[];
}

const WORTH_MM = 0.5;
const FIGURES = ['standing', 'widthAtFloor', 'widthAtBelly', 'widthAtBed'] as const;

/**
 * What moved because a reading was taken again: everything is derived once with the last reading and once without it.
 * @returns null when the place was read only once
 */
export function whatMoved(project: Project, book: PriceBook, address: string, deriver: Deriver): Moved | null {
  const readings = project.survey.readings[address] ?? [];
  const [last, earlier] = [readings.at(-1), readings.at(-2)];
  if (!last || !earlier) return null;
  const old = applyOperation(project, {
    name: 'removeReading',
    payload: { address, index: readings.length - 1 },
  }).project;
  const before = deriver.shape(old, book);
  const after = deriver.shape(project, book);
  return {
    address,
    before: earlier.value,
    after: last.value,
    figures: FIGURES.flatMap((what) => {
      const by = (after.room?.[what].value ?? 0) - (before.room?.[what].value ?? 0);
      return Math.abs(by) > WORTH_MM ? [{ what, by }] : [];
    }),
    parts: after.parts.flatMap((part) => {
      const same = before.parts.find((candidate) => candidate.id === part.id);
      const by = same ? ringsApart(same.outline.outer, part.outline.outer) : Infinity;
      return by > WORTH_MM ? [{ id: part.id, unit: part.unit, by }] : [];
    }),
    checks: after.checks.flatMap((check) => {
      const same = before.checks.find((candidate) => candidate.id === check.id);
      return same && same.grade !== check.grade ? [{ id: check.id, from: same.grade, to: check.grade }] : [];
    }),
  };
}
