import type { Connection, Thing, ThingFace } from '../document/schema.js';

type Kind = Thing['kind'];
interface Sizes {
  readonly wide: number;
  readonly deep: number;
  readonly high: number;
}

/** Sizes in mm, masses in kg, as usual in the trade; nobody's in particular. */
function thing(
  id: string,
  name: string,
  kind: Kind,
  { wide, deep, high }: Sizes,
  mass: number,
  more: Partial<Omit<Thing, 'id' | 'name' | 'kind' | 'width' | 'depth' | 'height' | 'mass'>> = {},
): Thing {
  return {
    id,
    name,
    kind,
    width: wide,
    depth: deep,
    height: high,
    mass,
    holds: 0,
    opens: 'no',
    clear: { side: 5, back: 10, top: 0, front: 0 },
    connects: [],
    service: [],
    heat: 0,
    air: null,
    cutOut: null,
    draws: 0,
    hours: 0,
    price: PRICES[id] ?? null,
    source: 'usual in the trade',
    ...more,
  };
}
const by = (...connections: Connection[]): Connection[] => connections;
const from = (...faces: ThingFace[]): ThingFace[] => faces;
const cut = (length: number, width: number, radius = 10): Thing['cutOut'] => ({ length, width, radius });

/** Usual prices, minor units, to be changed to what is asked; tools that are brought along are there already. */
const PRICES: Readonly<Record<string, number>> = {
  'sink-round': 6900,
  'sink-square': 11900,
  'sink-small': 5400,
  'hob-two': 18900,
  'cooker-spirit': 16500,
  'hob-induction': 14900,
  'cooker-oven': 57900,
  'oven-microwave': 12900,
  'cold-chest-40': 52900,
  'cold-chest-25': 38900,
  'cold-door-85': 69900,
  'cold-door-135': 98900,
  'heater-air': 64900,
  'heater-water': 189000,
  'stove-wood': 79900,
  'boiler-10': 34900,
  pump: 7900,
  'tank-fresh-70': 8900,
  'tank-fresh-100': 10900,
  'tank-waste-60': 7900,
  'can-20': 1900,
  'battery-100': 44900,
  'battery-200': 84900,
  'inverter-1000': 31900,
  'inverter-2000': 59900,
  'inverter-3000': 89900,
  charger: 27900,
  'fuse-board': 4900,
  'gas-bottle-5': 23900,
  'toilet-box': 9900,
  'toilet-dry': 49900,
  'toilet-swivel': 42900,
  'fan-roof': 28900,
  screen: 14900,
  safe: 8900,
  'press-nipping': 0,
  'shears-board': 0,
};

/** Things to begin with, to be changed to what the data sheet of one's own says. */
export const START_THINGS: readonly Thing[] = [
  thing('sink-round', 'Round sink', 'sink', { wide: 400, deep: 400, high: 180 }, 2.5, {
    connects: by('water', 'waste'),
    service: from('front'),
    cutOut: cut(370, 370, 185),
  }),
  thing('sink-square', 'Sink with drainer', 'sink', { wide: 560, deep: 440, high: 190 }, 4, {
    connects: by('water', 'waste'),
    service: from('front'),
    cutOut: cut(540, 420, 20),
  }),
  thing('sink-small', 'Small basin', 'sink', { wide: 320, deep: 260, high: 150 }, 1.8, {
    connects: by('water', 'waste'),
    service: from('front'),
    cutOut: cut(300, 240, 20),
  }),
  thing('hob-two', 'Gas hob, two rings', 'cooker', { wide: 500, deep: 370, high: 110 }, 6, {
    clear: { side: 10, back: 60, top: 0, front: 0 },
    connects: by('gas'),
    service: from('front'),
    cutOut: cut(480, 350, 15),
  }),
  thing('cooker-spirit', 'Spirit cooker', 'cooker', { wide: 490, deep: 345, high: 160 }, 5, {
    clear: { side: 10, back: 50, top: 0, front: 0 },
    service: from('front'),
    cutOut: cut(470, 325, 15),
  }),
  thing('hob-induction', 'Induction hob', 'cooker', { wide: 290, deep: 510, high: 70 }, 5, {
    clear: { side: 10, back: 20, top: 0, front: 0 },
    connects: by('mains'),
    heat: 80,
    cutOut: cut(270, 490, 8),
    draws: 1800,
    hours: 0.5,
  }),
  thing('cooker-oven', 'Gas cooker with oven', 'cooker', { wide: 520, deep: 530, high: 560 }, 22, {
    opens: 'flap',
    clear: { side: 5, back: 30, top: 0, front: 0 },
    connects: by('gas', '12 V'),
    service: from('front'),
    // its flames are flush with the worktop, which it parts
    cutOut: cut(510, 450, 5),
  }),
  thing('oven-microwave', 'Microwave oven', 'oven', { wide: 450, deep: 350, high: 270 }, 12, {
    opens: 'door-left',
    clear: { side: 50, back: 50, top: 100, front: 0 },
    connects: by('mains'),
    heat: 200,
    draws: 1100,
    hours: 0.2,
  }),
  thing('cold-chest-40', 'Cold box 40 l, lid', 'cold-box', { wide: 380, deep: 650, high: 460 }, 18, {
    opens: 'lid',
    clear: { side: 20, back: 20, top: 0, front: 0 },
    connects: by('12 V'),
    service: from('front'),
    heat: 80,
    draws: 45,
    hours: 9,
  }),
  thing('cold-chest-25', 'Cold box 25 l, lid', 'cold-box', { wide: 340, deep: 560, high: 400 }, 13, {
    opens: 'lid',
    clear: { side: 20, back: 20, top: 0, front: 0 },
    connects: by('12 V'),
    service: from('front'),
    heat: 60,
    draws: 40,
    hours: 8,
  }),
  thing('cold-door-85', 'Cold box 85 l, door', 'cold-box', { wide: 480, deep: 520, high: 625 }, 24, {
    opens: 'door-right',
    clear: { side: 5, back: 40, top: 20, front: 0 },
    connects: by('12 V'),
    service: from('back'),
    heat: 90,
    air: { inlet: 200, outlet: 200 },
    draws: 50,
    hours: 9,
  }),
  thing('cold-door-135', 'Cold box 135 l, door', 'cold-box', { wide: 525, deep: 560, high: 900 }, 34, {
    opens: 'door-right',
    clear: { side: 5, back: 40, top: 20, front: 0 },
    connects: by('12 V'),
    service: from('back'),
    heat: 110,
    air: { inlet: 250, outlet: 250 },
    draws: 60,
    hours: 9,
  }),
  thing('heater-air', 'Air heater, diesel', 'heater', { wide: 320, deep: 160, high: 160 }, 5, {
    clear: { side: 50, back: 20, top: 30, front: 100 },
    connects: by('12 V', 'fuel', 'flue', 'air'),
    service: from('front', 'top'),
    heat: 100,
    draws: 25,
    hours: 8,
  }),
  thing('heater-water', 'Air and water heater, gas', 'heater', { wide: 450, deep: 510, high: 300 }, 16, {
    holds: 10,
    clear: { side: 20, back: 20, top: 20, front: 50 },
    connects: by('12 V', 'gas', 'water', 'flue', 'air'),
    service: from('front'),
    heat: 120,
    draws: 20,
    hours: 8,
  }),
  thing('stove-wood', 'Small wood stove', 'heater', { wide: 300, deep: 300, high: 420 }, 28, {
    opens: 'door-left',
    clear: { side: 300, back: 300, top: 600, front: 400 },
    connects: by('flue', 'air'),
    service: from('front'),
    heat: 3000,
  }),
  thing('boiler-10', 'Water boiler 10 l', 'water', { wide: 300, deep: 350, high: 300 }, 8, {
    holds: 10,
    connects: by('mains', 'water'),
    service: from('front'),
    draws: 800,
    hours: 0.5,
  }),
  thing('pump', 'Water pump with filter', 'water', { wide: 200, deep: 120, high: 110 }, 2, {
    connects: by('12 V', 'water'),
    service: from('front'),
    draws: 60,
    hours: 0.3,
  }),
  thing('tank-fresh-70', 'Fresh water tank 70 l', 'tank', { wide: 700, deep: 330, high: 310 }, 6, {
    holds: 70,
    connects: by('water'),
    service: from('top'),
  }),
  thing('tank-fresh-100', 'Fresh water tank 100 l', 'tank', { wide: 900, deep: 360, high: 330 }, 8, {
    holds: 100,
    connects: by('water'),
    service: from('top'),
  }),
  thing('tank-waste-60', 'Waste water tank 60 l', 'tank', { wide: 700, deep: 330, high: 270 }, 5, {
    holds: 60,
    connects: by('waste'),
    service: from('front'),
  }),
  thing('can-20', 'Water can 20 l', 'tank', { wide: 240, deep: 290, high: 400 }, 1.5, {
    holds: 20,
    service: from('front'),
  }),
  thing('battery-100', 'Battery 100 Ah', 'battery', { wide: 330, deep: 175, high: 220 }, 12, {
    clear: { side: 20, back: 20, top: 60, front: 0 },
    connects: by('12 V'),
    service: from('front'),
  }),
  thing('battery-200', 'Battery 200 Ah', 'battery', { wide: 520, deep: 240, high: 220 }, 23, {
    clear: { side: 20, back: 20, top: 60, front: 0 },
    connects: by('12 V'),
    service: from('front'),
  }),
  thing('inverter-1000', 'Inverter 1 000 W', 'electric', { wide: 200, deep: 120, high: 330 }, 7, {
    clear: { side: 50, back: 10, top: 100, front: 0 },
    connects: by('12 V', 'mains'),
    service: from('front'),
    heat: 100,
    gives: 1000,
  }),
  thing('inverter-2000', 'Inverter 2 000 W', 'electric', { wide: 280, deep: 130, high: 420 }, 13, {
    clear: { side: 50, back: 10, top: 100, front: 0 },
    connects: by('12 V', 'mains'),
    service: from('front'),
    heat: 200,
    gives: 2000,
  }),
  thing('inverter-3000', 'Inverter 3 000 W', 'electric', { wide: 320, deep: 150, high: 480 }, 19, {
    clear: { side: 50, back: 10, top: 100, front: 0 },
    connects: by('12 V', 'mains'),
    service: from('front'),
    heat: 300,
    gives: 3000,
  }),
  thing('charger', 'Charger and solar controller', 'electric', { wide: 240, deep: 110, high: 250 }, 4, {
    clear: { side: 40, back: 10, top: 80, front: 0 },
    connects: by('12 V', 'mains'),
    service: from('front'),
    heat: 40,
    gives: 0,
  }),
  thing('fuse-board', 'Fuse board', 'electric', { wide: 300, deep: 100, high: 200 }, 1.5, {
    connects: by('12 V'),
    service: from('front'),
  }),
  thing('gas-bottle-5', 'Gas bottle 5 kg in its locker', 'gas', { wide: 300, deep: 320, high: 560 }, 16, {
    connects: by('gas', 'air'),
    service: from('front'),
  }),
  thing('toilet-box', 'Loose toilet', 'toilet', { wide: 380, deep: 430, high: 320 }, 4, {
    holds: 15,
    service: from('front'),
  }),
  thing('toilet-dry', 'Dry toilet', 'toilet', { wide: 400, deep: 450, high: 420 }, 8, {
    holds: 10,
    connects: by('air'),
    service: from('front'),
  }),
  thing('toilet-swivel', 'Swivelling toilet', 'toilet', { wide: 430, deep: 560, high: 500 }, 11, {
    holds: 18,
    connects: by('12 V', 'water'),
    service: from('back'),
  }),
  thing('fan-roof', 'Roof fan', 'fan', { wide: 400, deep: 400, high: 120 }, 4, {
    connects: by('12 V'),
    cutOut: cut(360, 360, 20),
    draws: 30,
    hours: 6,
  }),
  thing('screen', 'Screen on an arm', 'own', { wide: 560, deep: 60, high: 340 }, 4, {
    connects: by('12 V'),
    draws: 30,
    hours: 2,
  }),
  thing('safe', 'Small safe', 'own', { wide: 310, deep: 200, high: 200 }, 7, {
    opens: 'door-left',
    service: from('front'),
  }),
  thing('press-nipping', 'Nipping press', 'own', { wide: 340, deep: 300, high: 420 }, 16),
  thing('shears-board', 'Board shears', 'own', { wide: 900, deep: 420, high: 160 }, 12),
];
