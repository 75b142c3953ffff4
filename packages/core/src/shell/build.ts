import type { Side, Survey } from '../document/schema.js';
import { isSectionPlace, parseAddress, valueAt } from '../document/address.js';
import { evaluate, monotoneCurve, type Curve } from '../numeric/curve.js';
import { message, mm, type Message } from '../words/message.js';
import { aboveRoof } from '../measure/above-roof.js';
import { heightsOf } from '../measure/walk.js';
import { predict, surfaceModel, type SurfaceModel } from '../measure/surface-model.js';
import { makeShell, type Shell, type StationSection } from './shell.js';

export interface ShellResult {
  /** Null while there is too little to make a shell of. */
  readonly shell: Shell | null;
  /** What was taken for granted because it was not measured. */
  readonly assumed: readonly Message[];
  /** What must be mended or measured before there is a shell. */
  readonly problems: readonly { readonly said: Message; readonly address: string | null }[];
}

interface RawStation {
  readonly id: string;
  readonly name: string;
  readonly x: number;
  readonly left: Map<number, number>;
  readonly right: Map<number, number>;
  readonly roof: Map<number, number>;
}

/**
 * Splits widths that were read wall to wall. Where a half was read at the same height the other is the rest; else the
 * centre line's own place is taken from the lowest height at which both are known, since it is plumb; with nothing to
 * go by, evenly.
 */
function splitWidths(
  station: RawStation,
  widths: readonly (readonly [RawStation, number, number])[],
  assumed: Message[],
): void {
  const open = widths.filter(([, z]) => !(station.left.has(z) && station.right.has(z)));
  const off = [...open]
    .sort((a, b) => a[1] - b[1])
    .map(([, z, width]) => {
      const [left, right] = [station.left.get(z), station.right.get(z)];
      return left !== undefined ? left - width / 2 : right !== undefined ? width / 2 - right : null;
    })
    .find((value) => value !== null);
  for (const [, z, width] of open) {
    const [left, right] = [station.left.get(z), station.right.get(z)];
    const own = left ?? (right === undefined ? width / 2 + (off ?? 0) : width - right);
    station.left.set(z, own);
    station.right.set(z, width - own);
    if (left === undefined && right === undefined)
      assumed.push(
        message(off === undefined ? 'assumed.split' : 'assumed.splitAt', {
          name: station.name,
          z: mm(z),
          off: mm(Math.abs(off ?? 0)),
          side: (off ?? 0) < 0 ? 'left' : 'right',
        }),
      );
  }
}

/** Collects the readings of each station; a wall-to-wall width without its halves is split at the centre line. */
function collect(survey: Survey, slips: ReadonlySet<string>, assumed: Message[]): RawStation[] {
  const stations = new Map<string, RawStation>();
  const read = new Set(Object.keys(survey.readings).map((address) => address.split('/').slice(0, 2).join('/')));
  const length = valueAt(survey, 'floor/length');
  for (const [i, station] of survey.stations.entries()) {
    let x = valueAt(survey, `station/${station.id}/x`);
    if (x === null && length !== null && read.has(`station/${station.id}`)) {
      // read, but nobody wrote down where: its turn among the stations says about where
      x = (length * (i + 0.5)) / survey.stations.length;
      assumed.push(message('assumed.place', { name: station.name, x: mm(x) }));
    }
    if (x !== null)
      stations.set(station.id, {
        id: station.id,
        name: station.name,
        x,
        left: new Map(),
        right: new Map(),
        roof: new Map(),
      });
  }
  const widths: [RawStation, number, number][] = [];
  for (const address of Object.keys(survey.readings)) {
    const place = parseAddress(address);
    if (!isSectionPlace(place)) continue;
    const station = stations.get(place.id);
    const value = valueAt(survey, address);
    if (!station || value === null || slips.has(address)) continue;
    if (place.what === 'width') widths.push([station, place.along, value]);
    else station[place.what].set(place.along, value);
  }
  for (const station of stations.values())
    splitWidths(
      station,
      widths.filter(([own]) => own === station),
      assumed,
    );
  return [...stations.values()].sort((a, b) => a.x - b.x);
}

function mirrored(stations: readonly RawStation[], symmetric: boolean, assumed: Message[]): RawStation[] {
  return stations.map((station) => {
    const other = (side: Side): Map<number, number> => station[side === 'left' ? 'right' : 'left'];
    const fill = (side: Side): Map<number, number> => {
      if (!symmetric || station[side].size > 0 || other(side).size === 0) return station[side];
      assumed.push(message('assumed.symmetric', { name: station.name, side }));
      return other(side);
    };
    return { ...station, left: fill('left'), right: fill('right') };
  });
}

function curveOf(points: ReadonlyMap<number, number>): Curve {
  const sorted = [...points].sort((a, b) => a[0] - b[0]);
  return monotoneCurve(
    sorted.map(([at]) => at),
    sorted.map(([, value]) => value),
  );
}

/** Between readings further apart than this the model gives points, once a profile was read, mm. */
const CLOSE_MM = 180;
/** A profile is one when it was read at so many heights. */
const PROFILED_HEIGHTS = 4;

function closer(places: readonly number[]): number[] {
  return places.flatMap((place, i) => {
    const before = places[i - 1];
    if (before === undefined) return [place];
    const count = Math.max(1, Math.ceil((place - before) / CLOSE_MM));
    return Array.from({ length: count }, (_, k) => before + ((place - before) * (k + 1)) / count);
  });
}

/** What the nearest station that was read at a place says there: what stands in where the readings are too few for a model. */
function nearestReading(
  stations: readonly RawStation[],
  which: 'left' | 'right' | 'roof',
  x: number,
  at: number,
): number | null {
  const read = stations
    .filter((station) => station[which].has(at))
    .sort((a, b) => Math.abs(a.x - x) - Math.abs(b.x - x));
  return read[0]?.[which].get(at) ?? null;
}

/**
 * Gives every station a value at every place that any station was read at. A body is nearly the same shape all along, so
 * a station that was read at few places takes the rest from the others, as the model of all readings predicts it; its
 * own readings stand as they were taken.
 */
function filledIn(
  stations: readonly RawStation[],
  which: 'left' | 'right' | 'roof',
  model: () => SurfaceModel,
  profiled: boolean,
): ReadonlyMap<number, number>[] {
  const read = [...new Set(stations.flatMap((station) => [...station[which].keys()]))].sort((a, b) => a - b);
  const places = profiled && which !== 'roof' ? closer(read) : read;
  return stations.map((station) => {
    const own = station[which];
    const open = places.filter((place) => !own.has(place));
    if (open.length === 0) return own;
    return new Map([
      ...own,
      ...open.flatMap((at): [number, number][] => {
        const said = predict(model(), { surface: which, x: station.x, at });
        const value = said?.value ?? nearestReading(stations, which, station.x, at);
        return value === null ? [] : [[at, value]];
      }),
    ]);
  });
}

/** The same wall with a point at height `top`, straight on from its last two readings. */
function raised(wall: Curve, top: number): Curve {
  const last = wall.at.at(-1) ?? 0;
  if (top <= last + 1) return wall;
  const before = wall.at.at(-2);
  const [there, under] = [evaluate(wall, last), before === undefined ? null : evaluate(wall, before)];
  const slope = before === undefined || under === null ? 0 : (there - under) / (last - before);
  return monotoneCurve([...wall.at, top], [...wall.value, there + slope * (top - last)]);
}

interface Section {
  readonly left: Curve;
  readonly right: Curve;
  readonly roof: Curve;
}

/** In a box the walls run on to the roof, and the roof runs on level to the walls. */
function boxSection(left: Curve, right: Curve, roof: ReadonlyMap<number, number>): Section {
  const across = curveOf(roof);
  const top = (wall: Curve, sign: number): number => evaluate(across, sign * (wall.value.at(-1) ?? 0));
  const walls = { left: raised(left, top(left, -1)), right: raised(right, top(right, 1)) };
  const ends = [
    [-(walls.left.value.at(-1) ?? 0), walls.left.at.at(-1) ?? 0],
    [walls.right.value.at(-1) ?? 0, walls.right.at.at(-1) ?? 0],
  ] as const;
  const between = [...roof].filter(([y]) => y > ends[0][0] + 1 && y < ends[1][0] - 1);
  return { ...walls, roof: curveOf(new Map([ends[0], ...between, ends[1]])) };
}

/** Joins the walls' tops to the roof readings that lie between them. */
function joinRoof(left: Curve, right: Curve, roof: ReadonlyMap<number, number>): Section {
  const [leftTop, rightTop] = [left.at.at(-1) ?? 0, right.at.at(-1) ?? 0];
  const [leftY, rightY] = [-evaluate(left, leftTop), evaluate(right, rightTop)];
  const between = [...roof].filter(([y, h]) => y > leftY + 1 && y < rightY - 1 && h >= Math.min(leftTop, rightTop));
  return { left, right, roof: curveOf(new Map([[leftY, leftTop], ...between, [rightY, rightTop]])) };
}

/**
 * Makes the surface from the readings: in each station a shape-preserving curve of distance over height on both sides,
 * joined to the roof curve; stations in order of x. Stations that lack a side are left out and named.
 * @param given the model of the survey, when it was made already
 * @returns a shell, or the reasons why there is none yet; never throws
 */
export function buildShell(survey: Survey, given?: SurfaceModel): ShellResult {
  const assumed: Message[] = [];
  const problems: { said: Message; address: string | null }[] = [];
  const measuredLength = valueAt(survey, 'floor/length');
  const slips = aboveRoof(survey);
  for (const { address, station, height, roof } of slips)
    problems.push({
      said: message('shell.wallAboveRoof', {
        name: survey.stations.find(({ id }) => id === station)?.name ?? station,
        height: mm(height),
        roof: mm(roof),
      }),
      address,
    });
  const stations = mirrored(
    collect(survey, new Set(slips.map(({ address }) => address)), assumed),
    survey.symmetric,
    assumed,
  );
  const usable: (RawStation & { readonly roof: Map<number, number> })[] = [];
  for (const station of stations) {
    const twin = usable.at(-1);
    if (twin && Math.abs(twin.x - station.x) < 1) {
      problems.push({
        said: message('shell.sameStation', { name: station.name, other: twin.name, x: mm(station.x) }),
        address: `station/${station.id}/x`,
      });
    } else if (measuredLength !== null && (station.x > measuredLength + 0.5 || station.x < 0)) {
      problems.push({
        said: message('shell.stationOutside', { name: station.name, x: mm(station.x), length: mm(measuredLength) }),
        address: `station/${station.id}/x`,
      });
    } else if (station.left.size + station.right.size > 0) usable.push(station);
  }
  const sides = (['left', 'right'] as const).filter((side) => usable.some((station) => station[side].size > 0));
  if (sides.length === 1) {
    for (const station of usable)
      assumed.push(message('assumed.leftOut', { name: station.name, side: sides[0] === 'left' ? 'right' : 'left' }));
    usable.length = 0;
  }
  for (const station of usable)
    for (const side of ['left', 'right'] as const)
      if (station[side].size === 0) assumed.push(message('assumed.between', { name: station.name, side }));
  const withRoof = usable.filter((station) => station.roof.size > 0);
  if (usable.length === 0) problems.push({ said: message('shell.noStation'), address: null });
  else if (withRoof.length === 0) problems.push({ said: message('shell.noRoof'), address: null });
  const lastStation = usable.at(-1);
  if (!lastStation || withRoof.length === 0) return { shell: null, assumed, problems };
  if (measuredLength === null) assumed.push(message('assumed.length', { x: mm(lastStation.x) }));
  const profiled =
    heightsOf(survey, survey.profile.station ?? '').length >= PROFILED_HEIGHTS &&
    usable.some((station) => station.id === survey.profile.station);
  let model = given;
  const [lefts, rights, roofs] = (['left', 'right', 'roof'] as const).map((which) =>
    filledIn(usable, which, () => (model ??= surfaceModel(survey)), profiled),
  );
  const sections = usable.map((station, i): StationSection => {
    const [left, right] = [curveOf(lefts?.[i] ?? station.left), curveOf(rights?.[i] ?? station.right)];
    if (station.roof.size === 0) assumed.push(message('assumed.roof', { name: station.name }));
    const single = left.at.length === 1 || right.at.length === 1;
    if (single && !survey.boxed) assumed.push(message('assumed.upright', { name: station.name }));
    const join = survey.boxed || single ? boxSection : joinRoof;
    return { x: station.x, ...join(left, right, roofs?.[i] ?? station.roof) };
  });
  if (usable.length === 1) assumed.push(message('assumed.oneStation'));
  return { shell: makeShell(measuredLength ?? lastStation.x, 0, sections), assumed, problems };
}
