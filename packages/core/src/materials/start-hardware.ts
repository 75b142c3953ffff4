import type { PriceItem } from '../document/schema.js';

type Hardware = NonNullable<PriceItem['hardware']>;

/** Lengths of slides, mm, and what a plain pair is rated for, kg; heavy ones begin at 250. */
const SLIDES = [200, 250, 300, 350, 400, 450, 500, 550, 600, 650, 700];
const PLAIN_KG = 30;
const HEAVY = [250, 300, 350, 400, 450, 500, 550, 600, 650, 700];
const HEAVY_KG = 100;
const STRUTS_N = [30, 50, 80, 120, 160, 220];

/** Copper of each core of twin cables, mm2, and what 10 m cost. */
const CABLES: readonly (readonly [number, number])[] = [
  [1.5, 1150],
  [2.5, 1690],
  [4, 2480],
  [6, 3350],
  [10, 5600],
  [16, 8900],
  [35, 17_800],
];
/** Pipes, hoses and ducts by what they are for, how wide they are outside, what they are called, how long a piece and its price. */
const LINES: readonly (readonly [
  'water' | 'waste' | 'gas' | 'duct' | 'flue' | 'fuel',
  number,
  string,
  number,
  number,
])[] = [
  ['water', 12, 'Water pipe', 10, 1890],
  ['water', 15, 'Water pipe', 10, 2350],
  ['waste', 25, 'Waste hose', 5, 1450],
  ['waste', 40, 'Waste pipe', 2, 690],
  ['gas', 8, 'Gas pipe', 5, 2790],
  ['gas', 10, 'Gas pipe', 5, 3380],
  ['duct', 60, 'Warm air duct', 5, 2950],
  ['duct', 75, 'Warm air duct', 5, 3450],
  ['flue', 24, 'Exhaust hose', 2, 2100],
  ['flue', 30, 'Exhaust hose', 2, 2480],
  ['fuel', 5, 'Fuel line', 5, 1250],
  ['fuel', 8, 'Fuel line', 5, 1580],
];

/** What doors, lids, drawers and sliding panels hang and run on, with what holds them on the road: a start of invented prices. */
export function startHardware(
  base: Omit<PriceItem, 'id' | 'name' | 'group' | 'hatch' | 'supplier' | 'thickness' | 'density' | 'conductivity'>,
): PriceItem[] {
  const item = (
    id: string,
    name: string,
    hardware: Hardware,
    pack: { readonly contents: number; readonly price: number; readonly unit?: 'm' },
  ): PriceItem => ({
    ...base,
    id,
    name,
    group: 'fixing',
    hatch: 'grey',
    supplier: 'Fenwright Metals',
    thickness: 0,
    density: 0,
    conductivity: 0,
    hardware,
    pack: { unit: 'piece', ...pack },
  });
  const plain = (kind: Hardware['kind']): Hardware => ({ kind, length: null, bears: null });
  return [
    item('hinge-cup-35', 'Cup hinges 35 full overlay, 2', plain('cup-hinge'), { contents: 2, price: 520 }),
    item('hinge-butt-60', 'Butt hinges 60, 2', plain('butt-hinge'), { contents: 2, price: 390 }),
    item('catch-push', 'Push catch with button', plain('catch'), { contents: 1, price: 640 }),
    item('strap-load', 'Load strap with eyes', plain('strap'), { contents: 1, price: 780 }),
    item('stay-flap', 'Flap stay', plain('stay'), { contents: 1, price: 890 }),
    item('channel-double', 'Double channel for sliding panels 2 m', plain('channel'), {
      contents: 2,
      price: 1180,
      unit: 'm',
    }),
    item('wall-rail', 'Perforated wall rail 2 m', plain('wall-rail'), { contents: 2, price: 1640, unit: 'm' }),
    item('rail-bracket', 'Brackets for wall rails with bolts, 2', plain('rail-bracket'), { contents: 2, price: 980 }),
    ...CABLES.map(([copper, price]) =>
      item(
        `cable-${String(copper).replace('.', '-')}`,
        `Twin cable 2 x ${copper} mm², 10 m`,
        { kind: 'cable', length: null, bears: null, copper },
        { contents: 10, price, unit: 'm' },
      ),
    ),
    ...LINES.map(([kind, across, name, contents, price]) =>
      item(
        `${kind}-${across}`,
        `${name} ${across} mm, ${contents} m`,
        { kind, length: null, bears: null, across },
        { contents, price, unit: 'm' },
      ),
    ),
    ...STRUTS_N.map((newtons) =>
      item(
        `strut-${newtons}`,
        `Gas strut ${newtons} N`,
        { kind: 'strut', length: null, bears: newtons },
        {
          contents: 1,
          price: 920 + newtons * 2,
        },
      ),
    ),
    ...SLIDES.map((length) =>
      item(
        `slides-${length}`,
        `Locking slides ${length}, pair`,
        { kind: 'slides', length, bears: PLAIN_KG },
        {
          contents: 1,
          price: 1290 + length * 2,
        },
      ),
    ),
    ...HEAVY.map((length) =>
      item(
        `slides-heavy-${length}`,
        `Heavy locking slides ${length}, pair`,
        { kind: 'slides', length, bears: HEAVY_KG },
        {
          contents: 1,
          price: 4900 + length * 5,
        },
      ),
    ),
  ];
}
