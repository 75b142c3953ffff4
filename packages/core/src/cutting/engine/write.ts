import type { Filled } from './filling.js';
import { cutsOfBar } from '../job/mitres.js';
import { type CutPlan, type EngineJob } from '../job/job.js';
import { toMm } from '../job/units.js';
import { sawApart, sawnInMm, type Rectangle } from './tree.js';

interface Found {
  readonly sheets: readonly Filled[];
  readonly left: readonly number[];
  readonly cost: number;
}

const ANGLES = [0, 90, 180, 270] as const;

/** Beyond the last part the sheet is whole: where places are free, that is what is left. */
function freeLeft(
  pieces: readonly Rectangle[],
  length: number,
  width: number,
  kerf: number,
): NonNullable<ReturnType<typeof sawApart>> {
  const end = Math.max(0, ...pieces.map((piece) => piece.x + piece.length));
  const from = end + kerf;
  return from < length ? { cuts: [], left: [{ x: from, y: 0, length: length - from, width }] } : { cuts: [], left: [] };
}

/** Writes what the engine found as an open cut plan. Proved means: complete, and at the bound. */
export function writePlan(job: EngineJob, found: Found, bound: number, smallestOffcut: number): CutPlan {
  const complete = found.left.length === 0;
  const price = (sheet: Filled): number => job.stock[sheet.stock]?.price ?? 0;
  const sheets = [...found.sheets].sort((a, b) => price(b) - price(a) || b.area - a.area);
  const given = job.parts.map(() => 0);
  const nextId = (part: number): string => {
    const number = given[part] ?? 0;
    given[part] = number + 1;
    return job.parts[part]?.ids[number] ?? '';
  };
  const written = sheets.map((sheet) => {
    const stock = job.stock[sheet.stock];
    const pieces = sheet.laid.map((laid): Rectangle => {
      const part = job.parts[laid.part];
      const [length, width] = [part?.length ?? 0, part?.width ?? 0];
      return { x: laid.x, y: laid.y, length: laid.turned ? width : length, width: laid.turned ? length : width };
    });
    const [length, width] = [stock?.length ?? 0, stock?.width ?? 0];
    const bar = job.mitred ? cutsOfBar(job, sheet.laid, { length, width }) : null;
    const sawn =
      job.free || bar
        ? freeLeft(pieces, length, width, job.kerf)
        : (sawApart(pieces, { x: 0, y: 0, length, width }, job.kerf) ?? { cuts: [], left: [] });
    const inMm = bar
      ? { cuts: bar.cuts, left: bar.left.filter((rest) => rest.length >= smallestOffcut) }
      : sawnInMm(sawn, smallestOffcut);
    return {
      stock: stock?.id ?? '',
      placements: sheet.laid.map((p) => ({
        part: nextId(p.part),
        x: toMm(p.x),
        y: toMm(p.y),
        turned: p.turned,
        ...(job.free ? { angle: ANGLES[p.quarters ?? 0] ?? 0 } : {}),
        ...(p.flipped ? { flipped: true } : {}),
      })),
      cuts: inMm.cuts,
      offcuts: inMm.left,
    };
  });
  const forgotten = job.parts.flatMap((part, i) => part.ids.slice(given[i] ?? 0));
  return {
    format: 'cut-plan',
    version: 1,
    sheets: written,
    unplaced: [
      ...job.tooLarge,
      ...[...new Set(forgotten)].map((id) => ({
        part: id,
        quantity: forgotten.filter((other) => other === id).length,
        why: 'stock' as const,
      })),
    ],
    cost: found.cost,
    bound: complete ? bound : 0,
    proved: complete && job.tooLarge.length === 0 && found.cost === bound,
    seconds: 0,
  };
}
