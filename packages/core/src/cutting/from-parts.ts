import type { PriceBook, PriceItem, Settings } from '../project/schema.js';
import { blankOf, type Part } from '../joinery/part.js';
import { materialOf } from '../layers/buildup.js';
import type { CutJob } from './job.js';

/** The cut job of one material: never mixes thickness, material or grain rule, since a material has one of each. */
export interface MaterialJob {
  readonly material: PriceItem;
  readonly job: CutJob;
  /** Changes when anything that bears on the plan changes; a kept plan is good while it is the same. */
  readonly key: string;
}

/** Blanks are cut to the tenth of a millimetre above their true size. */
const upToTenth = (mm: number): number => Math.ceil(mm * 10 - 1e-6) / 10;

/** A short fingerprint of a text (FNV-1a, two runs of 32 bits). */
function fingerprint(text: string): string {
  const run = (start: number): number => {
    let hash = start;
    for (let i = 0; i < text.length; i += 1) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193) >>> 0;
    return hash;
  };
  return run(0x811c9dc5).toString(16).padStart(8, '0') + run(0x9747b28c).toString(16).padStart(8, '0');
}

/** Makes one job for each material that parts are cut from. Parts of a material that is not sold in sheets are left out and named. */
export function jobsOf(
  parts: readonly Part[],
  settings: Settings,
  book: PriceBook,
): { readonly jobs: readonly MaterialJob[]; readonly without: readonly Part[] } {
  const materials = [...new Set(parts.map((part) => part.material))];
  const without = parts.filter((part) => (materialOf(book, part.material)?.stocks.length ?? 0) === 0);
  const jobs = materials.flatMap((id): MaterialJob[] => {
    const material = materialOf(book, id);
    if (!material || material.stocks.length === 0) return [];
    const job: CutJob = {
      format: 'cut-job',
      version: 1,
      kind: 'sheet',
      kerf: settings.cutting.kerf,
      trim: settings.cutting.trim,
      endTrim: 0,
      method: 'guillotine',
      stock: material.stocks.map((stock) => ({
        id: stock.id,
        length: stock.length,
        width: stock.width,
        quantity: stock.quantity,
        price: stock.price,
        offcut: false,
      })),
      parts: parts
        .filter((part) => part.material === id)
        .map((part) => {
          const blank = blankOf(part);
          return {
            id: part.id,
            length: upToTenth(blank.length),
            width: upToTenth(blank.width),
            quantity: 1,
            mayTurn: !part.grain,
          };
        }),
    };
    return [{ material, job, key: fingerprint(JSON.stringify(job)) }];
  });
  return { jobs, without };
}
