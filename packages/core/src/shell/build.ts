import type { Side, Survey } from '../project/schema.js';
import { parseAddress, valueAt } from '../measure/address.js';
import { evaluate, monotoneCurve, type Curve } from '../numeric/curve.js';
import { message, mm, type Message } from '../words/message.js';
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

/** Collects the readings of each station; a wall-to-wall width without its halves is split at the centre line. */
function collect(survey: Survey, assumed: Message[]): RawStation[] {
  const stations = new Map<string, RawStation>();
  for (const station of survey.stations) {
    const x = valueAt(survey, `station/${station.id}/x`);
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
    if (place?.kind !== 'station' || place.what === 'x') continue;
    const station = stations.get(place.id);
    const value = valueAt(survey, address);
    if (!station || value === null) continue;
    if (place.what === 'width') widths.push([station, place.along, value]);
    else station[place.what].set(place.along, value);
  }
  for (const [station, z, width] of widths) {
    const [left, right] = [station.left.get(z), station.right.get(z)];
    if (left !== undefined && right !== undefined) continue;
    station.left.set(z, left ?? (right === undefined ? width / 2 : width - right));
    station.right.set(z, right ?? (left === undefined ? width / 2 : width - left));
    if (left === undefined && right === undefined)
      assumed.push(message('assumed.split', { name: station.name, z: mm(z) }));
  }
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

/** Joins the walls' tops to the roof readings that lie between them. */
function joinRoof(left: Curve, right: Curve, roof: ReadonlyMap<number, number>): Curve {
  const [leftTop, rightTop] = [left.at.at(-1) ?? 0, right.at.at(-1) ?? 0];
  const [leftY, rightY] = [-evaluate(left, leftTop), evaluate(right, rightTop)];
  const between = [...roof].filter(([y, h]) => y > leftY + 1 && y < rightY - 1 && h >= Math.min(leftTop, rightTop));
  return curveOf(new Map([[leftY, leftTop], ...between, [rightY, rightTop]]));
}

/**
 * Makes the surface from the readings: in each station a shape-preserving curve of distance over height on both sides,
 * joined to the roof curve; stations in order of x. Stations that lack a side are left out and named.
 * @returns a shell, or the reasons why there is none yet; never throws
 */
export function buildShell(survey: Survey): ShellResult {
  const assumed: Message[] = [];
  const problems: { said: Message; address: string | null }[] = [];
  const measuredLength = valueAt(survey, 'floor/length');
  const stations = mirrored(collect(survey, assumed), survey.symmetric, assumed);
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
    } else if (station.left.size > 0 && station.right.size > 0) usable.push(station);
    else if (station.left.size + station.right.size > 0)
      assumed.push(message('assumed.leftOut', { name: station.name, side: station.left.size > 0 ? 'right' : 'left' }));
  }
  const withRoof = usable.filter((station) => station.roof.size > 0);
  if (usable.length === 0) problems.push({ said: message('shell.noStation'), address: null });
  else if (withRoof.length === 0) problems.push({ said: message('shell.noRoof'), address: null });
  const lastStation = usable.at(-1);
  if (!lastStation || withRoof.length === 0) return { shell: null, assumed, problems };
  if (measuredLength === null) assumed.push(message('assumed.length', { x: mm(lastStation.x) }));
  const sections = usable.map((station): StationSection => {
    const [left, right] = [curveOf(station.left), curveOf(station.right)];
    const nearest = [...withRoof].sort((a, b) => Math.abs(a.x - station.x) - Math.abs(b.x - station.x))[0] ?? station;
    if (nearest !== station) assumed.push(message('assumed.roof', { name: station.name, other: nearest.name }));
    return { x: station.x, left, right, roof: joinRoof(left, right, nearest.roof) };
  });
  if (usable.length === 1) assumed.push(message('assumed.oneStation'));
  return { shell: makeShell(measuredLength ?? lastStation.x, 0, sections), assumed, problems };
}
