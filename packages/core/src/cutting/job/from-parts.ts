import { barStocks, isBar } from '../../materials/bars.js';
import { fingerprint } from '../../numeric/fingerprint.js';
import type { PriceBook, PriceItem, Settings, Wait } from '../../document/schema.js';
import { outlineArea } from '../../numeric/plane.js';
import { blankOf, type Part } from '../../parts/part.js';
import { materialOf } from '../../materials/material.js';
import type { CutJob } from './job.js';

/** The cut job of one material: never mixes thickness, material or grain rule, since a material has one of each. */
export interface MaterialJob {
  readonly material: PriceItem;
  readonly job: CutJob;
  /** Changes when anything that bears on the plan changes; a kept plan is good while it is the same. */
  readonly key: string;
  /** Parts that wait for a reading and are left out. */
  readonly waiting: readonly string[];
}

/** Blanks are cut to the tenth of a millimetre above their true size. */
const upToTenth = (mm: number): number => Math.ceil(mm * 10 - 1e-6) / 10;

/** Whether a part fills its blank, so that its outline says nothing more. */
function isRectangle(part: Part): boolean {
  const blank = blankOf(part);
  return outlineArea({ outer: part.outline.outer, holes: [] }) > 0.9995 * blank.length * blank.width;
}

/** Sold neither in sheets nor by the length: nothing can be cut from it. */
export const withoutStock = (material: PriceItem): boolean => material.stocks.length === 0 && !isBar(material);

/** The cut job of one material and the parts made of it. Parts that wait for a reading are left out and named. */
export function jobOfMaterial(
  material: PriceItem,
  own: readonly Part[],
  cutting: Settings['cutting'],
  waits: readonly Wait[],
): MaterialJob {
  const bar = isBar(material);
  const waitOf = new Map(waits.map((wait) => [wait.part, wait]));
  const waiting = own.filter((part) => waitOf.get(part.id)?.read === null).map((part) => part.id);
  const job: CutJob = {
    format: 'cut-job',
    version: 1,
    kind: bar ? 'bar' : 'sheet',
    kerf: cutting.kerf,
    trim: bar ? 0 : cutting.trim,
    endTrim: 0,
    method: bar ? 'guillotine' : cutting.method,
    stock: (bar ? barStocks(material) : material.stocks).map((stock) => ({
      id: stock.id,
      length: stock.length,
      width: stock.width,
      quantity: stock.quantity,
      price: stock.price,
      offcut: false,
    })),
    parts: own
      .filter((part) => waitOf.get(part.id)?.read !== null)
      .map((part) => {
        const read = waitOf.get(part.id)?.read;
        const blank = read ?? blankOf(part);
        return {
          id: part.id,
          length: upToTenth(blank.length),
          width: upToTenth(blank.width),
          quantity: 1,
          mayTurn: bar || !part.grain,
          ...(part.ends ? { ends: part.ends } : {}),
          ...(!bar && cutting.method === 'free' && !read && !isRectangle(part)
            ? { outline: part.outline.outer.map(([x, y]): [number, number] => [x, y]) }
            : {}),
        };
      }),
  };
  return { material, job, key: fingerprint(JSON.stringify(job)), waiting };
}

/** One job for each material that parts are cut from. Parts of a material that nothing can be cut from are left out and named. */
export function jobsOf(
  parts: readonly Part[],
  settings: Settings,
  book: PriceBook,
  waits: readonly Wait[],
): { readonly jobs: readonly MaterialJob[]; readonly without: readonly Part[] } {
  const sold = (part: Part): PriceItem | null => {
    const material = materialOf(book, part.material);
    return material && !withoutStock(material) ? material : null;
  };
  const materials = [...new Set(parts.map(sold))].filter((material) => material !== null);
  return {
    jobs: materials.map((material) =>
      jobOfMaterial(
        material,
        parts.filter((part) => part.material === material.id),
        settings.cutting,
        waits,
      ),
    ),
    without: parts.filter((part) => sold(part) === null),
  };
}
