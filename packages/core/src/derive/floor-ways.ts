import { solveJob } from '../cutting/engine/search.js';
import { jobsOf } from '../cutting/job/from-parts.js';
import { outlineArea } from '../numeric/plane.js';
import { createDeriver } from './derive.js';
import type { FloorChoice, PriceBook, Project } from '../document/schema.js';
import { seamSpans } from '../lining/floor/floor-lines.js';

/** What laying the floor board one way comes to. */
export interface FloorWay {
  readonly direction: 'across' | 'along';
  readonly cut: NonNullable<FloorChoice['cut']>;
  readonly now: boolean;
  readonly pieces: number;
  readonly sheets: number;
  readonly cost: number;
  /** Seams, m, and how much of them lies on no batten of a row, m. */
  readonly seams: number;
  readonly noggins: number;
  /** Share of the sheets that is left over. */
  readonly waste: number;
  /** The largest piece left over whole, mm. */
  readonly offcut: { readonly length: number; readonly width: number } | null;
}

const STEPS = 40;

const WAYS = (['across', 'along'] as const).flatMap((direction) =>
  (['equal', 'cheapest', 'fewest'] as const).map((cut) => ({ direction, cut })),
);

/** The board laid across and along, in equal pieces, for the cheapest sheets and in the fewest pieces, each cut on sheets by itself, side by side. */
export const floorWays = (project: Project, book: PriceBook): readonly FloorWay[] => [...eachFloorWay(project, book)];

/** The same one by one, so that whoever asks may stop in between. */
export function* eachFloorWay(project: Project, book: PriceBook): Generator<FloorWay> {
  const deriver = createDeriver();
  const present = deriver.shape(project, book).subfloor ?? null;
  const seen = new Set<string>();
  for (const { direction, cut } of WAYS) {
    const changed: Project = {
      ...project,
      floor: { ...project.floor, direction, cut },
    };
    const shape = deriver.shape(changed, book);
    const { subfloor } = shape;
    if (!subfloor || subfloor.direction !== direction) continue;
    const laid = JSON.stringify(subfloor.seams);
    // the cheapest way may be that in equal pieces too
    if (seen.has(laid)) continue;
    seen.add(laid);
    const job = jobsOf(subfloor.parts, project.settings, book, []).jobs[0]?.job;
    if (!job) continue;
    const plan = solveJob(job, { steps: STEPS, smallestOffcut: project.settings.cutting.smallestOffcut });
    const bought = plan.sheets.reduce((sum, sheet) => {
      const stock = job.stock.find((candidate) => candidate.id === sheet.stock);
      return sum + (stock?.length ?? 0) * (stock?.width ?? 0);
    }, 0);
    const used = subfloor.parts.reduce((sum, part) => sum + outlineArea(part.outline), 0);
    const largest = plan.sheets
      .flatMap((sheet) => sheet.offcuts)
      .sort((a, b) => b.length * b.width - a.length * a.width)[0];
    const seams = subfloor.seams.reduce(
      (sum, seam) => sum + seamSpans(subfloor.outline, seam).reduce((a, [x, y]) => a + y - x, 0),
      0,
    );
    yield {
      direction,
      cut,
      now: laid === JSON.stringify(present?.seams),
      pieces: subfloor.parts.filter((part) => part.role === 'subfloor').length,
      sheets: plan.sheets.length,
      cost: plan.cost,
      seams: seams / 1000,
      noggins: shape.parts.filter((part) => part.role === 'noggin' && part.surface === undefined).length,
      waste: bought > 0 ? 1 - used / bought : 0,
      offcut: largest ? { length: largest.length, width: largest.width } : null,
    };
  }
}
