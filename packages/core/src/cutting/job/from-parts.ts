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

/** Makes one job for each material that parts are cut from. Parts of a material that is not sold in sheets are left out and named. */
export function jobsOf(
  parts: readonly Part[],
  settings: Settings,
  book: PriceBook,
  waits: readonly Wait[],
): { readonly jobs: readonly MaterialJob[]; readonly without: readonly Part[] } {
  const materials = [...new Set(parts.map((part) => part.material))];
  const without = parts.filter((part) => {
    const material = materialOf(book, part.material);
    return (material?.stocks.length ?? 0) === 0 && !(material && isBar(material));
  });
  const jobs = materials.flatMap((id): MaterialJob[] => {
    const material = materialOf(book, id);
    if (!material || (material.stocks.length === 0 && !isBar(material))) return [];
    const bar = isBar(material);
    const own = parts.filter((part) => part.material === id);
    const waiting = own
      .filter((part) => waits.some((wait) => wait.part === part.id && wait.read === null))
      .map((part) => part.id);
    const job: CutJob = {
      format: 'cut-job',
      version: 1,
      kind: bar ? 'bar' : 'sheet',
      kerf: settings.cutting.kerf,
      trim: bar ? 0 : settings.cutting.trim,
      endTrim: 0,
      method: bar ? 'guillotine' : settings.cutting.method,
      stock: (bar ? barStocks(material) : material.stocks).map((stock) => ({
        id: stock.id,
        length: stock.length,
        width: stock.width,
        quantity: stock.quantity,
        price: stock.price,
        offcut: false,
      })),
      parts: own
        .filter((part) => !waiting.includes(part.id))
        .map((part) => {
          const read = waits.find((wait) => wait.part === part.id)?.read;
          const blank = read ?? blankOf(part);
          return {
            id: part.id,
            length: upToTenth(blank.length),
            width: upToTenth(blank.width),
            quantity: 1,
            mayTurn: bar || !part.grain,
            ...(part.ends ? { ends: part.ends } : {}),
            ...(!bar && settings.cutting.method === 'free' && !read && !isRectangle(part)
              ? { outline: part.outline.outer.map(([x, y]): [number, number] => [x, y]) }
              : {}),
          };
        }),
    };
    return [{ material, job, key: fingerprint(JSON.stringify(job)), waiting }];
  });
  return { jobs, without };
}
