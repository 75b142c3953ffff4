import type { CutPlan, Found, Layer, PriceBook, PriceItem, Settings } from '../document/schema.js';
import { surfaceNamed, type SurfaceTraits } from '../document/surfaces.js';
import type { Hardware } from '../furniture/school.js';
import { boardMaterials, type Part } from '../parts/part.js';
import { type BuildUpDepths, BATTEN_SPACING_MM, BATTEN_WIDTH_MM } from '../layers/buildup.js';
import { litresOf, materialOf } from '../materials/material.js';
import type { CoveredAreas } from '../layers/areas.js';
import type { FloorCoats } from '../lining/floor/floor-coats.js';
import { finishAmount } from '../lining/floor/floor-finish.js';
import { type FloorFinish } from '../lining/floor/finish.js';
import { barStocks, isBar } from '../materials/bars.js';
import { outlineArea } from '../numeric/plane.js';
import { message, mm, type Message } from '../words/message.js';
import { wholeUp } from '../numeric/tolerance.js';

/** One line of what to buy. */
export interface BuyLine {
  readonly id: string;
  readonly phase: 'floor' | 'walls' | 'ceiling' | 'furniture' | 'fixing' | 'found';
  readonly material: string;
  readonly name: string;
  readonly supplier: string;
  readonly quantity: number;
  /** What is needed of it, before packs are rounded up: pieces, ml, m2, m; sheets and bars as they are. */
  readonly amount: number;
  readonly unit: 'sheet' | 'pack' | 'bar' | 'work';
  readonly size: Message;
  readonly each: number;
  readonly total: number;
  /** Where the quantity comes from. */
  readonly why: Message;
}
export interface Shopping {
  readonly currency: string;
  readonly lines: readonly BuyLine[];
  readonly total: number;
  readonly byPhase: readonly { readonly phase: BuyLine['phase']; readonly total: number }[];
  /** Names of materials that are needed and that the price book sells neither by the sheet nor in packs; ids of those it has not. */
  readonly unpriced: readonly string[];
}

/** Sealer on both faces of the floor board: coats. */
export const SEAL_COATS = 2;

export interface ShoppingInput {
  readonly parts: readonly Part[];
  readonly plans: readonly { readonly material: PriceItem; readonly plan: CutPlan }[];
  readonly depths: BuildUpDepths;
  /** What the layers cover, m2; null before there is a room. */
  readonly areas: CoveredAreas | null;
  /** Battens on the floor as they are laid out, m. */
  readonly floorBattens: number | null;
  /** The floor's finish as it is set out, and what a bare floor is coated with; null when there is none. */
  readonly finish: FloorFinish | null;
  readonly coats: FloorCoats | null;
  /** Screws of the floor board as they are set out. */
  readonly floorScrews: number;
  /** The stocked screw that the floor's own check allows; null where none fits, and none is bought. */
  readonly floorScrew: string | null;
  /** What goes through linings into what carries them. */
  readonly liningFixings: readonly { readonly item: string; readonly count: number }[];
  /** Adhesive under the board, ml. */
  readonly floorGlue: number;
  /** Caulk for joints and edges of linings that stay in sight, ml. */
  readonly caulk: number;
  /** What the units' schools say is bought for them beside boards and bars. */
  readonly hardware: readonly Pick<Hardware, 'item' | 'amount'>[];
  /** What was found in the vehicle, with what it costs to redo or take out. */
  readonly found: readonly Found[];
  readonly surfaces: readonly SurfaceTraits[];
  readonly settings: Settings;
  readonly book: PriceBook;
}

const phaseOf = (input: ShoppingInput, surface: string): BuyLine['phase'] =>
  surfaceNamed(input.surfaces, surface)?.phase ?? 'walls';

function sheetLines(input: ShoppingInput): BuyLine[] {
  return input.plans.flatMap(({ material, plan }) => {
    const bar = isBar(material);
    const own = input.parts.filter((part) => part.material === material.id);
    const first = own[0];
    const phase = own.some((part) => part.unit !== null) ? 'furniture' : phaseOf(input, first?.surface ?? 'floor');
    return (bar ? barStocks(material) : material.stocks).flatMap((stock): BuyLine[] => {
      const quantity = plan.sheets.filter((sheet) => sheet.stock === stock.id).length;
      if (quantity === 0) return [];
      return [
        {
          id: stock.id,
          phase,
          material: material.id,
          name: material.name,
          supplier: material.supplier,
          quantity,
          amount: quantity,
          unit: bar ? 'bar' : 'sheet',
          size: bar
            ? message('size.m', { contents: stock.length / 1000 })
            : message('size.sheet', { length: mm(stock.length), width: mm(stock.width) }),
          each: stock.price,
          total: quantity * stock.price,
          why: message('why.sheets', {
            quantity,
            parts: own.length,
          }),
        },
      ];
    });
  });
}

/** How much of a layer is wanted, in the unit its pack is sold in. */
function wanted(material: PriceItem, layer: Layer, area: number, battens: boolean, laid: number | null): number {
  if (material.pack?.unit === 'm')
    return laid ?? (area * 1000) / (material.group === 'lining' ? material.width : BATTEN_SPACING_MM);
  if (layer.place === 'patches') return area * layer.share;
  return layer.place === 'between-battens' && battens ? area * (1 - BATTEN_WIDTH_MM / BATTEN_SPACING_MM) : area;
}

interface Need {
  readonly phase: BuyLine['phase'];
  readonly material: PriceItem;
  readonly amount: number;
  /** Counted piece by piece: nothing is added for waste. */
  readonly counted?: boolean;
}

function layerNeeds(input: ShoppingInput): { readonly needs: Need[]; readonly unpriced: string[] } {
  const needs: Need[] = [];
  const unpriced: string[] = [];
  if (!input.areas) return { needs, unpriced };
  // what is cut into parts is counted by their cut plans
  const lined = new Set(input.parts.flatMap((part) => (part.surface ? [`${part.surface}:${part.material}`] : [])));
  for (const { id: surface, phase } of input.surfaces) {
    const depth = input.depths[surface];
    const area = input.areas[surface];
    if (!depth || area === undefined) continue;
    const laidOut = input.parts.some((part) => part.role === 'floor-batten');
    const boarded = boardMaterials(input.parts);
    const battens = depth.layers.some(({ layer }) => layer.place === 'battens');
    for (const { layer, material } of depth.layers) {
      if (layer.board && boarded.has(layer.material)) continue;
      // battens that are laid out are counted in bars by their cut plan
      if (surface === 'floor' && layer.place === 'battens' && material && isBar(material) && laidOut) continue;
      if (lined.has(`${surface}:${layer.material}`) && (layer.place === 'continuous' || layer.place === 'battens'))
        continue;
      const sold = material?.pack?.unit;
      const { finish } = input;
      if (surface === 'floor' && finish && material?.id === finish.material && layer.place === 'continuous') {
        const amount = finishAmount(finish, material);
        needs.push({ phase: 'floor', material, amount, counted: true });
        continue;
      }
      const laid = surface === 'floor' && layer.place === 'battens' ? input.floorBattens : null;
      if (material && (sold === 'm2' || sold === 'm'))
        needs.push({ phase, material, amount: wanted(material, layer, area, battens, laid) });
      else if (material && material.stocks.length > 0) needs.push({ phase, material, amount: area });
      else unpriced.push(material?.name ?? layer.material);
    }
  }
  return { needs, unpriced };
}

const UNIT_NAMES = { m2: 'm²', m: 'm', ml: 'ml', piece: 'pieces' } as const;

/** What one pack of a material holds and costs, or one sheet of it, the cheapest by its area; null when it is sold as neither. */
function packOf(
  material: PriceItem,
): { readonly contents: number; readonly each: number; readonly unit: keyof typeof UNIT_NAMES } | null {
  if (material.pack) return { ...material.pack, each: material.pack.price };
  const stock = [...material.stocks].sort((a, b) => a.price / (a.length * a.width) - b.price / (b.length * b.width))[0];
  return stock ? { contents: (stock.length * stock.width) / 1e6, each: stock.price, unit: 'm2' } : null;
}

function packLines(
  needs: readonly Need[],
  waste: number,
): { readonly lines: readonly BuyLine[]; readonly unpriced: readonly string[] } {
  const byKey = new Map<string, Need>();
  for (const need of needs) {
    const key = `${need.phase}:${need.material.id}`;
    const same = byKey.get(key);
    byKey.set(key, same ? { ...same, amount: same.amount + need.amount } : need);
  }
  const unpriced: string[] = [];
  const lines = [...byKey.entries()].flatMap(([id, { phase, material, amount, counted }]): BuyLine[] => {
    if (amount <= 0) return [];
    const sold = packOf(material);
    if (sold === null) {
      unpriced.push(material.name);
      return [];
    }
    const { contents, each, unit } = sold;
    const share = (unit === 'm2' || unit === 'm') && !counted ? 1 + waste : 1;
    const quantity = wholeUp((amount * share) / contents);
    const rounded = Math.round(amount * 10) / 10;
    return [
      {
        id,
        phase,
        material: material.id,
        name: material.name,
        supplier: material.supplier,
        quantity,
        amount,
        unit: material.pack ? (unit === 'm' ? 'bar' : 'pack') : 'sheet',
        size: message(`size.${unit}`, { contents }),
        each,
        total: quantity * each,
        why: message(share > 1 ? 'why.amountWithWaste' : 'why.amount', {
          amount: rounded,
          unit: UNIT_NAMES[unit],
          waste: Math.round(waste * 100),
        }),
      },
    ];
  });
  return { lines, unpriced };
}

/** Fixings, adhesives and coats that parts, floor and joints ask for, by what they are called in the price book. */
function fixingNeeds(input: ShoppingInput): { readonly needs: Need[]; readonly unpriced: string[] } {
  const floorArea = input.parts
    .filter((part) => part.role === 'subfloor')
    .reduce((sum, part) => sum + outlineArea(part.outline), 0);
  // what a litre covers is not guessed: without it the amount is unknown, and the material is named
  const coatMillilitres = (id: string, squareMetres: number): number | null => {
    const material = materialOf(input.book, id);
    if (squareMetres <= 0) return 0;
    const litres = material ? litresOf(material, squareMetres) : 0;
    return litres === null ? null : Math.ceil(litres * 1000) || 1;
  };
  const wanted: readonly (readonly [Need['phase'], string | null, number | null])[] = [
    ['fixing', 'floor-glue', input.floorGlue],
    ['floor', 'wood-sealer', coatMillilitres('wood-sealer', (2 * floorArea * SEAL_COATS) / 1e6)],
    [
      'floor',
      input.coats?.material ?? null,
      input.coats ? coatMillilitres(input.coats.material, input.coats.area * input.coats.coats) : 0,
    ],
    ['walls', 'caulk', input.caulk < 1 ? 0 : Math.ceil(input.caulk)],
    ['fixing', input.floorScrew, input.floorScrews],
    ...input.liningFixings.map(({ item, count }) => ['fixing', item, count] as const),
    ...input.hardware.map(({ item, amount }) => ['fixing', item, amount] as const),
  ];
  const needs: Need[] = [];
  const unpriced: string[] = [];
  for (const [phase, item, amount] of wanted) {
    if (item === null || (amount !== null && amount <= 0)) continue;
    const material = materialOf(input.book, item);
    if (amount === null) unpriced.push(material?.name ?? item);
    else if (material) needs.push({ phase, material, amount });
    else unpriced.push(item);
  }
  return { needs, unpriced };
}

/** What it costs to redo or take out what was found, done or not: it is part of the build's money. */
const foundLines = ({ found }: ShoppingInput): BuyLine[] =>
  found
    .filter(({ decision, cost }) => decision !== 'keep' && cost > 0)
    .map(({ id, name, cost, x }): BuyLine => ({
      id: `found:${id}`,
      phase: 'found',
      material: '',
      name,
      supplier: '',
      quantity: 1,
      amount: 1,
      unit: 'work',
      size: message('size.work'),
      each: cost,
      total: cost,
      why: message('why.found', { x: mm(x) }),
    }));

/** What to buy: whole sheets by the cut plans, layers by area and packs, fixings by joints. Prices in minor units. */
export function shoppingOf(input: ShoppingInput): Shopping {
  const [layers, fixings] = [layerNeeds(input), fixingNeeds(input)];
  const packs = packLines([...layers.needs, ...fixings.needs], input.settings.wasteShare);
  const lines = [...sheetLines(input), ...packs.lines, ...foundLines(input)];
  const phases = [...new Set(lines.map((line) => line.phase))];
  return {
    currency: input.book.currency,
    lines,
    total: lines.reduce((sum, line) => sum + line.total, 0),
    byPhase: phases.map((phase) => ({
      phase,
      total: lines.filter((line) => line.phase === phase).reduce((sum, line) => sum + line.total, 0),
    })),
    unpriced: [...new Set([...layers.unpriced, ...fixings.unpriced, ...packs.unpriced])],
  };
}
