import type { CutPlan, Found, Layer, PriceBook, PriceItem, Settings, Thing } from '../document/schema.js';
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

/** Where some of a line goes: a phase, and a surface or a unit in it. */
export interface BuyShare {
  readonly phase: BuyLine['phase'];
  /** A surface or a unit by its id; empty where it is for neither. */
  readonly of: string;
  /** What goes there, in the line's own measure. */
  readonly amount: number;
  /** Its share of the line's money; the shares of a line add up to it. */
  readonly money: number;
}

/** One line of what to buy. Packs are rounded up once over the whole build. */
export interface BuyLine {
  readonly id: string;
  readonly phase: 'floor' | 'walls' | 'ceiling' | 'furniture' | 'things' | 'fixing' | 'found';
  readonly material: string;
  readonly name: string;
  readonly supplier: string;
  readonly quantity: number;
  /** What is needed of it, before packs are rounded up: pieces, ml, m2, m; sheets and bars as they are. */
  readonly amount: number;
  readonly unit: 'sheet' | 'pack' | 'bar' | 'thing' | 'work';
  readonly size: Message;
  readonly each: number;
  readonly total: number;
  /** Where the quantity comes from. */
  readonly why: Message;
  /** Where it goes, the largest share first. */
  readonly shares: readonly BuyShare[];
  /** What is left over of the last pack, in its own measure; null for what is not sold in packs. */
  readonly left: number | null;
  /** So little is left over that a few lost or spoiled ones are too many. */
  readonly low: boolean;
  /** What is left of sheets and lengths by the cut plan, the largest first, mm. */
  readonly offcuts?: readonly { readonly length: number; readonly width: number }[];
}
export interface Shopping {
  readonly currency: string;
  readonly lines: readonly BuyLine[];
  readonly total: number;
  readonly byPhase: readonly { readonly phase: BuyLine['phase']; readonly total: number }[];
  /** Names of materials that are needed and that the price book sells neither by the sheet nor in packs; ids of those it has not. */
  readonly unpriced: readonly string[];
  /** Things with a price on their data sheet that stand nowhere in the layout, by name: they are not in the sum. */
  readonly nowhere: readonly string[];
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
  readonly liningFixings: readonly { readonly item: string; readonly count: number; readonly surface: string }[];
  /** Adhesive under the board, ml. */
  readonly floorGlue: number;
  /** Caulk for joints and edges of linings that stay in sight, ml. */
  readonly caulk: readonly { readonly surface: string; readonly millilitres: number }[];
  /** What the units' schools say is bought for them beside boards and bars. */
  readonly hardware: readonly Hardware[];
  /** What was found in the vehicle, with what it costs to redo or take out. */
  readonly found: readonly Found[];
  readonly surfaces: readonly SurfaceTraits[];
  /** Appliances and other things with data sheets, each as often as it stands somewhere, by the unit. */
  readonly things: readonly { readonly thing: Thing; readonly unit: string }[];
  /** Every data sheet of the project. */
  readonly sheets: readonly Thing[];
  /** Runs that nothing in the book is, by name. */
  readonly notStocked: readonly string[];
  readonly settings: Settings;
  readonly book: PriceBook;
}

/** Whole minor units shared out by weights, so that they add up: what is left over goes to the largest remainders. */
export function shareOut(total: number, weights: readonly number[]): number[] {
  const sum = weights.reduce((all, weight) => all + weight, 0);
  if (weights.length === 0) return [];
  const exact = weights.map((weight) => (sum > 0 ? (total * weight) / sum : total / weights.length));
  const whole = exact.map(Math.floor);
  const left = total - whole.reduce((all, value) => all + value, 0);
  const order = exact
    .map((value, i) => ({ i, rest: value - Math.floor(value) }))
    .sort((a, b) => b.rest - a.rest || a.i - b.i)
    .slice(0, Math.round(left));
  for (const { i } of order) whole[i] = (whole[i] ?? 0) + 1;
  return whole;
}

/** Places with their amounts, alike ones together, and their share of the money. */
function sharesOf(
  places: readonly { readonly phase: BuyLine['phase']; readonly of: string; readonly amount: number }[],
  total: number,
): readonly BuyShare[] {
  const sums = new Map<string, { phase: BuyLine['phase']; of: string; amount: number }>();
  for (const { phase, of, amount } of places) {
    const key = `${phase}:${of}`;
    const before = sums.get(key);
    sums.set(key, { phase, of, amount: (before?.amount ?? 0) + amount });
  }
  const list = [...sums.values()].sort((a, b) => b.amount - a.amount);
  const money = shareOut(
    total,
    list.map(({ amount }) => amount),
  );
  return list.map((share, i) => ({ ...share, money: money[i] ?? 0 }));
}

const phaseOf = (input: ShoppingInput, surface: string): BuyLine['phase'] =>
  surfaceNamed(input.surfaces, surface)?.phase ?? 'walls';

function sheetLines(input: ShoppingInput): BuyLine[] {
  return input.plans.flatMap(({ material, plan }) => {
    const bar = isBar(material);
    const own = input.parts.filter((part) => part.material === material.id);
    const places = own.map((part) => ({
      phase: part.unit === null ? phaseOf(input, part.surface ?? 'floor') : ('furniture' as const),
      of: part.unit ?? part.surface ?? 'floor',
      amount: outlineArea(part.outline),
    }));
    return (bar ? barStocks(material) : material.stocks).flatMap((stock): BuyLine[] => {
      const quantity = plan.sheets.filter((sheet) => sheet.stock === stock.id).length;
      if (quantity === 0) return [];
      const total = quantity * stock.price;
      const all = places.reduce((sum, { amount }) => sum + amount, 0);
      // sheets are shared out by the area of what is cut from them
      const shares = sharesOf(places, total).map((share) => ({
        ...share,
        amount: all > 0 ? (quantity * share.amount) / all : quantity,
      }));
      return [
        {
          id: stock.id,
          phase: shares[0]?.phase ?? 'floor',
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
          total,
          why: message('why.sheets', {
            quantity,
            parts: own.length,
          }),
          shares,
          left: null,
          low: false,
          offcuts: plan.sheets
            .filter((sheet) => sheet.stock === stock.id)
            .flatMap((sheet) => sheet.offcuts.map(({ length, width }) => ({ length, width })))
            .sort((a, b) => b.length * b.width - a.length * a.width),
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
  /** The surface or unit it is for. */
  readonly of: string;
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
        needs.push({ phase: 'floor', of: 'floor', material, amount, counted: true });
        continue;
      }
      const laid = surface === 'floor' && layer.place === 'battens' ? input.floorBattens : null;
      if (material && (sold === 'm2' || sold === 'm'))
        needs.push({ phase, of: surface, material, amount: wanted(material, layer, area, battens, laid) });
      else if (material && material.stocks.length > 0) needs.push({ phase, of: surface, material, amount: area });
      else unpriced.push(material?.name ?? layer.material);
    }
  }
  return { needs, unpriced };
}

/** Some is lost, bent, spilt or cut wrong: less than this share over is hardly enough. */
const LOW_SHARE = 0.05;

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
  const byMaterial = new Map<string, Need[]>();
  for (const need of needs)
    if (need.amount > 0) byMaterial.set(need.material.id, [...(byMaterial.get(need.material.id) ?? []), need]);
  const unpriced: string[] = [];
  const lines = [...byMaterial.entries()].flatMap(([id, own]): BuyLine[] => {
    const [first] = own;
    if (!first) return [];
    const { material } = first;
    const sold = packOf(material);
    if (sold === null) {
      unpriced.push(material.name);
      return [];
    }
    const { contents, each, unit } = sold;
    // what is cut from rolls and lengths has waste; what is counted or set out piece by piece has none
    const withWaste = ({ amount, counted }: Need): number =>
      amount * ((unit === 'm2' || unit === 'm') && !counted ? 1 + (material.waste ?? waste) : 1);
    const amount = own.reduce((sum, need) => sum + need.amount, 0);
    const taken = own.reduce((sum, need) => sum + withWaste(need), 0);
    const quantity = wholeUp(taken / contents);
    const total = quantity * each;
    const shares = sharesOf(own, total);
    return [
      {
        id: `pack:${id}`,
        phase: shares[0]?.phase ?? first.phase,
        material: material.id,
        name: material.name,
        supplier: material.supplier,
        quantity,
        amount,
        unit: material.pack ? (unit === 'm' ? 'bar' : 'pack') : 'sheet',
        size: message(`size.${unit}`, { contents }),
        each,
        total,
        why: message(taken > amount ? 'why.amountWithWaste' : 'why.amount', {
          amount: Math.round(amount * 10) / 10,
          unit: UNIT_NAMES[unit],
          waste: Math.round((material.waste ?? waste) * 100),
        }),
        shares,
        left: quantity * contents - taken,
        low: quantity * contents - taken < LOW_SHARE * taken,
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
  const wanted: readonly (readonly [Need['phase'], string, string | null, number | null])[] = [
    ['fixing', 'floor', 'floor-glue', input.floorGlue],
    ['floor', 'floor', 'wood-sealer', coatMillilitres('wood-sealer', (2 * floorArea * SEAL_COATS) / 1e6)],
    [
      'floor',
      'floor',
      input.coats?.material ?? null,
      input.coats ? coatMillilitres(input.coats.material, input.coats.area * input.coats.coats) : 0,
    ],
    ...input.caulk.map(
      ({ surface, millilitres }) => ['walls', surface, 'caulk', millilitres < 1 ? 0 : millilitres] as const,
    ),
    ['fixing', 'floor', input.floorScrew, input.floorScrews],
    ...input.liningFixings.map(({ item, count, surface }) => ['fixing', surface, item, count] as const),
    ...input.hardware.map(({ item, amount, for: of }) => ['fixing', of, item, amount] as const),
  ];
  const needs: Need[] = [];
  const unpriced: string[] = [];
  for (const [phase, of, item, amount] of wanted) {
    if (item === null || (amount !== null && amount <= 0)) continue;
    const material = materialOf(input.book, item);
    if (amount === null) unpriced.push(material?.name ?? item);
    else if (material)
      needs.push({
        phase,
        of,
        material,
        amount,
        // what its bars leave over is reckoned with where its pieces are cut
        ...(material.hardware?.kind === 'wall-rail' ? { counted: true } : {}),
      });
    else unpriced.push(item);
  }
  return { needs, unpriced };
}

/** What it costs to redo or take out what was found, done or not: it is part of the build's money. */
const foundLines = ({ found }: ShoppingInput): BuyLine[] =>
  found
    .filter(({ decision, cost }) => decision !== 'keep' && cost > 0)
    .map(({ id, name, cost, x, surface }): BuyLine => ({
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
      shares: [{ phase: 'found', of: surface, amount: 1, money: cost }],
      left: null,
      low: false,
    }));

/** Appliances and other things that stand in the layout, at the price on their data sheets; those without one by name. */
function thingLines({ things }: ShoppingInput): { readonly lines: readonly BuyLine[]; readonly unpriced: string[] } {
  const byId = new Map<string, { readonly thing: Thing; readonly units: string[] }>();
  for (const { thing, unit } of things) {
    const had = byId.get(thing.id);
    if (had) had.units.push(unit);
    else byId.set(thing.id, { thing, units: [unit] });
  }
  const of = [...byId.values()];
  const priceOf = ({ price }: Thing): number | null => price ?? null;
  return {
    unpriced: of.filter(({ thing }) => priceOf(thing) === null).map(({ thing }) => thing.name),
    lines: of.flatMap(({ thing, units }): BuyLine[] => {
      const each = priceOf(thing);
      // what is there already is not bought
      if (each === null || each === 0) return [];
      const quantity = units.length;
      return [
        {
          id: `thing:${thing.id}`,
          phase: 'things',
          material: '',
          name: thing.name,
          supplier: '',
          quantity,
          amount: quantity,
          unit: 'thing',
          size: message('size.thing', { length: mm(thing.width), width: mm(thing.depth), height: mm(thing.height) }),
          each,
          total: quantity * each,
          why: message('why.thing', { quantity, source: thing.source }),
          shares: sharesOf(
            units.map((unit) => ({ phase: 'things' as const, of: unit, amount: 1 })),
            quantity * each,
          ),
          left: null,
          low: false,
        },
      ];
    }),
  };
}

/** What to buy: whole sheets by the cut plans, layers by area and packs, fixings by joints. Prices in minor units. */
export function shoppingOf(input: ShoppingInput): Shopping {
  const [layers, fixings] = [layerNeeds(input), fixingNeeds(input)];
  const packs = packLines([...layers.needs, ...fixings.needs], input.settings.wasteShare);
  const bought = thingLines(input);
  const lines = [...sheetLines(input), ...packs.lines, ...bought.lines, ...foundLines(input)];
  const shares = lines.flatMap((line) => line.shares);
  const phases = [...new Set(shares.map(({ phase }) => phase))];
  return {
    currency: input.book.currency,
    lines,
    total: lines.reduce((sum, line) => sum + line.total, 0),
    byPhase: phases.map((phase) => ({
      phase,
      total: shares.filter((share) => share.phase === phase).reduce((sum, { money }) => sum + money, 0),
    })),
    unpriced: [
      ...new Set([...layers.unpriced, ...fixings.unpriced, ...packs.unpriced, ...bought.unpriced, ...input.notStocked]),
    ],
    nowhere: input.sheets
      .filter(({ id, price }) => (price ?? 0) > 0 && !input.things.some(({ thing }) => thing.id === id))
      .map(({ name }) => name),
  };
}
