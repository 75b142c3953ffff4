import type { PriceItem } from '../document/schema.js';

type Hardware = NonNullable<PriceItem['hardware']>;

/** Lengths of slides, mm, and what a plain pair is rated for, kg; heavy ones begin at 250. */
const SLIDES = [200, 250, 300, 350, 400, 450, 500, 550, 600, 650, 700];
const PLAIN_KG = 30;
const HEAVY = [250, 300, 350, 400, 450, 500, 550, 600, 650, 700];
const HEAVY_KG = 100;
const STRUTS_N = [30, 50, 80, 120, 160, 220];

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
