import type { Practice, Side, Survey } from '../document/schema.js';
import { parseAddress } from '../document/address.js';
import { seededRandom } from '../numeric/random.js';

/** A place where a wall is pressed in (positive) or out, mm: a smooth dent with its spread along and up. */
export interface Dent {
  readonly side: Side;
  readonly x: number;
  readonly z: number;
  readonly depth: number;
  readonly along: number;
  readonly up: number;
}

/** Something that stands on the floor or hangs on the wall in the true vehicle, by the `what` of its readings, mm. */
export type Sizes = Readonly<Record<string, number>>;

/** Where a straight wall bends, mm and radians. */
export interface Knee {
  readonly at: number;
  /** How far the straight part leans in. */
  readonly foot: number;
  /** Radius of the bend; 0 for a fold. */
  readonly radius: number;
  /** How far the wall leans in above the bend. */
  readonly head: number;
}

/**
 * The true shape of an invented vehicle, as formulas: nobody who measures it sees it. Axes as everywhere.
 * A wall is `floor` wide at the foot, bellies out to `belly` at `bellyAt`, and leans in above by `lean` at `top`.
 */
export interface HiddenShape {
  readonly length: number;
  readonly profile: 'belly' | 'straight' | 'box' | 'kneed';
  /** A wall that is straight up to a height, leaning by so much from the floor, and then bent round or leaning more. */
  readonly knee?: Knee;
  readonly floor: number;
  readonly belly: number;
  readonly bellyAt: number;
  readonly lean: number;
  readonly top: number;
  readonly roof: number;
  /** How much lower the roof is at the front than in the middle, and at the rear. */
  readonly roofFalls: readonly [number, number];
  /** How much narrower the vehicle is at its front and rear, and over which length that happens. */
  readonly ends: readonly [number, number];
  readonly endsOver: number;
  /** How far the centre line that was marked lies off the middle, mm, to the right. */
  readonly offset: number;
  /** The floor is a parallelogram whose right side lies this much further back than its left. */
  readonly skew: number;
  readonly dents: readonly Dent[];
  /** Degrees: the floor's slope along and across as it stands. */
  readonly level: readonly [number, number];
  readonly stations: readonly number[];
  readonly things: Readonly<Record<string, Sizes>>;
}

const smoothstep = (t: number): number => {
  const s = Math.min(1, Math.max(0, t));
  return s * s * (3 - 2 * s);
};

/** How much narrower than its middle the vehicle is at x. */
function narrowing(shape: HiddenShape, x: number): number {
  const [front, rear] = shape.ends;
  return front * (1 - smoothstep(x / shape.endsOver)) + rear * (1 - smoothstep((shape.length - x) / shape.endsOver));
}

/** How far a wall has come in at height z: straight to the knee, round with a radius, and straight on. */
function bentIn({ at, foot, radius, head }: Knee, z: number): number {
  if (z <= at) return z * Math.tan(foot);
  const [low, high] = [radius * Math.sin(foot), radius * Math.sin(head)];
  const up = z - at;
  const start = at * Math.tan(foot);
  // on the arc the lean grows with its sine over the height
  const round = (height: number): number => Math.sqrt(radius ** 2 - (low + height) ** 2);
  const arc = high - low;
  if (up <= arc) return start + radius * Math.cos(foot) - round(up);
  return start + (arc > 0 ? radius * Math.cos(foot) - round(arc) : 0) + (up - Math.max(0, arc)) * Math.tan(head);
}

/** The section's half-width at height z in the middle of the vehicle. */
function profileAt(shape: HiddenShape, z: number): number {
  if (shape.profile === 'box') return shape.floor;
  if (shape.profile === 'kneed' && shape.knee) return shape.floor - bentIn(shape.knee, z);
  if (shape.profile === 'straight') {
    // straight up, then leaning, with a soft knee 120 mm high
    const knee = 60 * Math.log1p(Math.exp(Math.min(40, (z - shape.bellyAt) / 60)));
    return shape.floor - (shape.lean * knee) / (shape.top - shape.bellyAt);
  }
  const t = (z - shape.bellyAt) / (z < shape.bellyAt ? shape.bellyAt : shape.top - shape.bellyAt);
  return z < shape.bellyAt
    ? shape.belly - (shape.belly - shape.floor) * t * t
    : shape.belly - shape.lean * Math.abs(t) ** 2.4;
}

/** The true distance from the marked centre line to a wall, mm. */
export function trueHalf(shape: HiddenShape, side: Side, x: number, z: number): number {
  const dents = shape.dents.reduce(
    (sum, dent) =>
      dent.side === side
        ? sum + dent.depth * Math.exp(-(((x - dent.x) / dent.along) ** 2) - ((z - dent.z) / dent.up) ** 2)
        : sum,
    0,
  );
  return profileAt(shape, z) - narrowing(shape, x) - dents + (side === 'left' ? 1 : -1) * shape.offset;
}

/** The true height of the roof, mm: a flat crown that bends down to the walls' tops (a superellipse). */
export function trueRoof(shape: HiddenShape, x: number, y: number): number {
  const falls =
    shape.roofFalls[0] * (1 - smoothstep(x / 900)) + shape.roofFalls[1] * (1 - smoothstep((shape.length - x) / 900));
  const side: Side = y < 0 ? 'left' : 'right';
  const edge = trueHalf(shape, side, x, shape.top);
  const t = Math.min(1, Math.abs(y) / edge);
  return shape.top + (shape.roof - falls - shape.top) * (1 - t ** 3.2) ** (1 / 1.6);
}

const range = (count: number, from: number, to: number): number[] =>
  Array.from({ length: count }, (_, i) => Math.round(from + ((to - from) * i) / (count - 1)));

function arch(
  shape: Pick<HiddenShape, 'length' | 'floor'>,
  at: number,
  length: number,
  height: number,
  reach: number,
): Sizes {
  return {
    from: Math.round(at * shape.length - length / 2),
    to: Math.round(at * shape.length + length / 2),
    height,
    face: Math.round(shape.floor - reach),
  };
}

/** A vehicle drawn by lot: of one kind, with dents, ends and a roof of its own. The same seed gives the same vehicle. */
function drawn(kind: 'van' | 'bus' | 'trailer', seed: number): HiddenShape {
  const random = seededRandom(seed * 7919 + (kind === 'van' ? 1 : kind === 'bus' ? 2 : 3));
  const between = (least: number, most: number): number => least + (most - least) * random();
  const length = Math.round(
    kind === 'van' ? between(2900, 4300) : kind === 'bus' ? between(5200, 7400) : between(2600, 4200),
  );
  const floor = kind === 'van' ? between(860, 905) : kind === 'bus' ? between(1080, 1160) : between(730, 980);
  const top = kind === 'van' ? between(1600, 1700) : kind === 'bus' ? between(1650, 1720) : between(1750, 1850);
  const dent = (least: number, most: number): Dent => ({
    side: random() < 0.5 ? 'left' : 'right',
    x: between(0.15, 0.85) * length,
    z: between(400, 1100),
    depth: between(least, most) * (kind === 'trailer' ? 0.4 : 1),
    along: between(480, 900),
    up: between(600, 1100),
  });
  const count = kind === 'trailer' ? 4 : 6;
  const base = { length, floor };
  const reach = between(180, 230);
  return {
    length,
    profile: kind === 'van' ? 'belly' : kind === 'bus' ? 'straight' : 'box',
    floor,
    belly: floor + between(30, 55),
    bellyAt: kind === 'bus' ? 864 : between(620, 800),
    lean: kind === 'bus' ? between(80, 130) : between(110, 170),
    top,
    roof: top + (kind === 'trailer' ? between(8, 15) : between(180, 240)),
    roofFalls: kind === 'trailer' ? [0, 0] : [between(0, 14), between(0, 12)],
    ends: kind === 'trailer' ? [0, 0] : [between(3, 10), between(2, 8)],
    endsOver: between(600, 1000),
    offset: between(-2, 2),
    skew: between(-4, 4),
    dents: [dent(3, 8), dent(-4, 4)],
    level: [between(-1.6, 1.6), between(-1.2, 1.2)],
    stations: range(count, 60, length - 40),
    things:
      kind === 'trailer'
        ? {}
        : {
            'arch/a1': arch(base, 0.72, between(700, 860), Math.round(between(220, 290)), reach),
            'arch/a2': arch(base, 0.72, between(700, 860), Math.round(between(220, 290)), reach),
          },
  };
}

/** Kinds of vehicles that are drawn by lot, beside those that can be practised on. */
export interface Drawn {
  readonly vehicle: 'van' | 'bus' | 'trailer' | 'kneed' | 'arched' | 'pinched';
  readonly seed: number;
}

const DEGREE = Math.PI / 180;

/** A van of the commonest make: its walls straight up or leaning a little, then bent, the knee anywhere. */
function kneed(seed: number): HiddenShape {
  const van = drawn('van', seed);
  const random = seededRandom(seed * 6007 + 17);
  const between = (least: number, most: number): number => least + (most - least) * random();
  const foot = random() < 0.4 ? 0 : between(0, 2.5) * DEGREE;
  const folded = random() < 0.5;
  return {
    ...van,
    profile: 'kneed',
    knee: {
      at: between(700, 1400),
      foot,
      radius: folded ? 0 : between(300, 900),
      head: foot + (folded ? between(4, 9) : between(10, 26)) * DEGREE,
    },
  };
}

/** A wall comes in no farther than this up to the roof, mm. */
const SHOULDER_MM = 330;
/** A van whose walls are straight to a knee anywhere and then run in one arc up into the shoulder, with dents. */
function arched(seed: number): HiddenShape {
  const van = drawn('van', seed);
  const random = seededRandom(seed * 5003 + 29);
  const between = (least: number, most: number): number => least + (most - least) * random();
  const foot = between(0, 3) * DEGREE;
  const at = between(600, 1400);
  const radius = between(300, 1200);
  // the arc ends at the top, where the shoulder leans by half a right angle, or where it comes in too far to stand under
  let head = Math.min(45 * DEGREE, Math.asin(Math.min(1, Math.sin(foot) + (van.top - at) / radius)));
  while (head > foot && bentIn({ at, foot, radius, head }, van.top) > SHOULDER_MM) head -= DEGREE / 2;
  return { ...van, profile: 'kneed', knee: { at, foot, radius, head } };
}

/** A kneed or an arched van that was pressed in at both sides at one place. */
function pinched(seed: number): HiddenShape {
  const van = seed % 2 === 0 ? kneed(seed) : arched(seed);
  const random = seededRandom(seed * 4001 + 41);
  const between = (least: number, most: number): number => least + (most - least) * random();
  const [x, z, along, up] = [
    between(0.2, 0.8) * van.length,
    between(500, 1100),
    between(450, 800),
    between(600, 1000),
  ] as const;
  const both = (['left', 'right'] as const).map((side): Dent => ({ side, x, z, along, up, depth: between(4, 9) }));
  return { ...van, dents: [...van.dents, ...both] };
}

/** The vehicles of the demo scenario, with figures of their own. */
const KNOWN: Readonly<Record<'wren' | 'bulrush' | 'thimble', HiddenShape>> = {
  wren: {
    length: 3690,
    profile: 'belly',
    floor: 892.5,
    belly: 936,
    bellyAt: 700,
    lean: 144,
    top: 1700,
    roof: 1905,
    roofFalls: [0, 6],
    ends: [7, 5],
    endsOver: 620,
    offset: 0,
    skew: -2.2,
    dents: [{ side: 'left', x: 1900, z: 650, depth: 7, along: 420, up: 700 }],
    level: [-0.8, 0.5],
    stations: [60, 690, 1380, 2010, 2600, 3160, 3660],
    things: {
      'arch/a1': { from: 2585, to: 3325, height: 262, face: 695 },
      'arch/a2': { from: 2585, to: 3325, height: 262, face: 697 },
    },
  },
  bulrush: {
    length: 6250,
    profile: 'straight',
    floor: 1118,
    belly: 1118,
    bellyAt: 864,
    lean: 108,
    top: 1680,
    roof: 1900,
    roofFalls: [10, 4],
    ends: [6, 4],
    endsOver: 900,
    offset: 1,
    skew: -6,
    dents: [{ side: 'right', x: 4100, z: 600, depth: 6, along: 600, up: 800 }],
    level: [1.1, -0.4],
    stations: [50, 900, 1800, 2700, 3600, 4500, 5400, 6200],
    things: {
      'arch/a1': { from: 4180, to: 5090, height: 305, face: 838 },
      'arch/a2': { from: 4180, to: 5090, height: 305, face: 838 },
    },
  },
  thimble: {
    length: 3000,
    profile: 'box',
    floor: 750,
    belly: 750,
    bellyAt: 900,
    lean: 0,
    top: 1790,
    roof: 1802,
    roofFalls: [0, 0],
    ends: [0, 0],
    endsOver: 600,
    offset: -0.5,
    skew: 2,
    dents: [{ side: 'left', x: 1500, z: 900, depth: -2.5, along: 900, up: 900 }],
    level: [0.3, 0.2],
    stations: [40, 1000, 2000, 2960],
    things: {},
  },
};

/** The true shape behind a practice: drawn by lot for a kind of vehicle, or one of the scenario's. */
export function hiddenShape({ vehicle, seed }: Practice | Drawn): HiddenShape {
  if (vehicle === 'kneed') return kneed(seed);
  if (vehicle === 'arched') return arched(seed);
  if (vehicle === 'pinched') return pinched(seed);
  return vehicle === 'van' || vehicle === 'bus' || vehicle === 'trailer' ? drawn(vehicle, seed) : KNOWN[vehicle];
}

function trueFloor(shape: HiddenShape, what: 'length' | 'diagonal-a' | 'diagonal-b'): number {
  if (what === 'length') return shape.length;
  const half = (side: Side, x: number): number => trueHalf(shape, side, x, 0);
  const sign = what === 'diagonal-a' ? 1 : -1;
  // a: front left to rear right; the skew pushes the right side to the rear
  const across =
    what === 'diagonal-a'
      ? half('left', 0) + half('right', shape.length)
      : half('right', 0) + half('left', shape.length);
  return Math.hypot(shape.length + sign * shape.skew, across);
}

/**
 * What an instrument without any fault would read at an address of a survey; null when the true vehicle has no such
 * thing. Stations stand where the hidden vehicle has its ribs, in order; one put in later stands where the survey says.
 */
export function trueValue(shape: HiddenShape, survey: Survey, address: string): number | null {
  const place = parseAddress(address);
  if (!place) return null;
  switch (place.kind) {
    case 'floor':
      return trueFloor(shape, place.what);
    case 'level':
      return shape.level[place.what === 'along' ? 0 : 1];
    case 'station': {
      const x = stationPlace(shape, survey, place.id);
      if (x === null) return null;
      if (place.what === 'x') return x;
      if (place.what === 'rest') return shape.length - x;
      if (!('along' in place)) return trueStationDiagonal(shape, survey, x, place.what);
      if (place.what === 'roof') return trueRoof(shape, x, place.along);
      if (place.what === 'width')
        return trueHalf(shape, 'left', x, place.along) + trueHalf(shape, 'right', x, place.along);
      return trueHalf(shape, place.what, x, place.along);
    }
    case 'rib': {
      const at = shape.stations[survey.ribs.findIndex((rib) => rib.id === place.id)];
      return place.what === 'x' ? (at ?? null) : place.what === 'width' ? 55 : place.what === 'proud' ? 50 : null;
    }
    case 'angle':
      return place.what === 'floor' ? shape.level[1] : null;
    default:
      return shape.things[`${place.kind}/${place.id}`]?.[place.what] ?? null;
  }
}

function stationPlace(shape: HiddenShape, survey: Survey, id: string): number | null {
  const read = survey.readings[`station/${id}/x`]?.at(-1)?.value;
  const number = survey.stations.findIndex((station) => station.id === id);
  return (number < 0 ? undefined : shape.stations[number]) ?? read ?? null;
}

function trueStationDiagonal(shape: HiddenShape, survey: Survey, x: number, what: 'diagonal-a' | 'diagonal-b'): number {
  const [low, high] = [Math.min(...survey.heights), Math.max(...survey.heights)];
  const [from, to] = what === 'diagonal-a' ? (['left', 'right'] as const) : (['right', 'left'] as const);
  return Math.hypot(trueHalf(shape, from, x, low) + trueHalf(shape, to, x, high), high - low);
}
