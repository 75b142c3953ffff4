import { createProject } from '../document/create.js';
import { applyOperation } from '../furniture/kit.js';
import type { Operation } from '../document/operation.js';
import type { Project, Side } from '../document/schema.js';
import { isSectionPlace, parseAddress, valueAt } from '../document/address.js';
import { surveyQuality, type DoubtGrid } from '../measure/next-reading.js';
import { outliersOf } from '../measure/quality.js';
import { progressOf } from '../measure/walk.js';
import { normalFrom } from '../numeric/normal.js';
import { spread } from '../numeric/plane.js';
import { seededRandom } from '../numeric/random.js';
import { buildShell } from '../shell/build.js';
import { halfWidth, roofHeight, type Shell } from '../shell/shell.js';
import { hiddenShape, trueHalf, trueRoof, trueValue, type Drawn, type HiddenShape } from './hidden.js';

/** How near a surveyed shell came to the true one, mm. */
export interface Nearness {
  /** 95 of 100 places of the walls are nearer than this. */
  readonly walls95: number;
  readonly wallsWorst: number;
  /** The worst place below `STANDING_MM`, where units stand. */
  readonly standingWorst: number;
  /** 95 of 100 places where units stand are nearer than this. */
  readonly standing95: number;
  readonly roofWorst: number;
  readonly length: number;
  readonly worstAt: { readonly side: Side; readonly x: number; readonly z: number };
}
/** Units stand below this height, mm. */
export const STANDING_MM = 1000;

const percentile = (values: readonly number[], share: number): number =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))] ?? 0;

/** Compares a shell with the true shape over a grid of the walls (every 60 mm or so) and of the roof. */
export function nearnessOf(shell: Shell, shape: HiddenShape): Nearness {
  const walls = (['left', 'right'] as const).flatMap((side) =>
    spread(0, shape.length, 61).flatMap((x) =>
      spread(0, shape.top - 60, 27).map((z) => ({
        side,
        x,
        z,
        off: Math.abs(halfWidth(shell, side, x, z) - trueHalf(shape, side, x, z)),
      })),
    ),
  );
  const worst = walls.reduce((most, next) => (next.off > most.off ? next : most));
  const roof = spread(0, shape.length, 31).flatMap((x) =>
    [-400, -200, 0, 200, 400].map((y) => Math.abs(roofHeight(shell, x, y) - trueRoof(shape, x, y))),
  );
  return {
    walls95: percentile(
      walls.map((wall) => wall.off),
      0.95,
    ),
    wallsWorst: worst.off,
    standing95: percentile(
      walls.filter((wall) => wall.z <= STANDING_MM).map((wall) => wall.off),
      0.95,
    ),
    standingWorst: Math.max(...walls.filter((wall) => wall.z <= STANDING_MM).map((wall) => wall.off)),
    roofWorst: Math.max(...roof),
    length: Math.abs(shell.length - shape.length),
    worstAt: { side: worst.side, x: worst.x, z: worst.z },
  };
}

const at = '2026-10-01T08:00:00.000Z';
const perform = (project: Project, operation: Operation): Project => applyOperation(project, operation).project;

export interface Walked {
  readonly project: Project;
  readonly readings: number;
  readonly shape: HiddenShape;
}

/**
 * Walks through a practice vehicle as the interface does: every reading of the plan, then the next best one again and
 * again until the survey is good enough or `most` readings are taken.
 * @param noise spread of a reading, mm
 */
export function walkThrough(practice: Drawn, noise: number, most: number): Walked {
  const shape = hiddenShape(practice);
  const normal = normalFrom(seededRandom(practice.seed + 4711));
  let project = createProject({
    id: 'practice',
    name: 'Practice',
    kind:
      practice.vehicle === 'kneed' || practice.vehicle === 'arched' || practice.vehicle === 'pinched'
        ? 'van'
        : practice.vehicle,
    model: '',
    units: 'mm',
    startDate: '2026-10-01',
  });
  let readings = 0;
  const read = (address: string, exact?: number): void => {
    const value = exact ?? trueValue(shape, project.survey, address);
    if (value === null) {
      project = perform(project, { name: 'skipReading', payload: { address } });
      return;
    }
    readings += 1;
    const taken = Math.round((value + noise * normal()) * 10) / 10;
    project = perform(project, {
      name: 'takeReading',
      payload: { address, reading: { value: taken, method: 'tape', at } },
    });
  };
  for (let next = progressOf(project.survey).next; next; next = progressOf(project.survey).next) read(next);
  while (readings < most) {
    const quality = surveyQuality(project.survey, project.layout.units, valueAt(project.survey, 'floor/length') ?? 0);
    if (!quality?.next || readings + quality.next.addresses.length > most) break;
    const { station, addresses } = quality.next;
    if (station)
      project = perform(project, {
        name: 'putStation',
        payload: { station: { id: station.id, name: station.name, planned: false } },
      });
    for (const address of addresses) {
      project = perform(project, { name: 'askReading', payload: { address } });
      read(address, station && address.endsWith('/x') ? station.x : undefined);
    }
  }
  return { project, readings, shape };
}

export interface AccuracyRow extends Nearness {
  readonly seed: number;
  readonly vehicle: string;
  readonly readings: number;
  /** What the survey itself thought its worst place was, mm. */
  readonly thought: number;
  /** Share of places whose error is within what it says of them. */
  readonly covered: number;
}

/** Share of places whose true error is within what the survey says of them (two spreads). */
export function coverageOf(shell: Shell, shape: HiddenShape, { xs, zs, left, right }: DoubtGrid): number {
  const within = (['left', 'right'] as const).flatMap((side) =>
    zs.flatMap((z, row) =>
      xs.map((x, column) => {
        const doubt = (side === 'left' ? left : right)[row]?.[column] ?? 0;
        return Math.abs(halfWidth(shell, side, x, z) - trueHalf(shape, side, x, z)) <= doubt;
      }),
    ),
  );
  return within.filter(Boolean).length / Math.max(1, within.length);
}

/** One practice vehicle walked and compared. */
export function accuracyOf(vehicle: Drawn['vehicle'], seed: number, most: number): AccuracyRow {
  const { project, readings, shape } = walkThrough({ vehicle, seed }, 1, most);
  const { shell } = buildShell(project.survey);
  if (!shell) throw new Error('The walk gave no shell.');
  const quality = surveyQuality(project.survey, [], shape.length);
  return {
    ...nearnessOf(shell, shape),
    seed,
    vehicle,
    readings,
    thought: quality?.worst ?? 0,
    covered: quality ? coverageOf(shell, shape, quality.doubt) : 0,
  };
}

export interface SlipTrial {
  readonly planted: number;
  readonly flagged: number;
  readonly good: number;
  readonly wronglyFlagged: number;
}

/** Plants one wrong digit of 15 mm or more into a wall or roof reading, again and again, and counts what is flagged. */
export function slipTrial(vehicle: Drawn['vehicle'], seed: number, most: number, trials: number): SlipTrial {
  const { project } = walkThrough({ vehicle, seed }, 1, most);
  const random = seededRandom(seed + 99);
  const addresses = Object.keys(project.survey.readings).filter((address) => {
    const place = parseAddress(address);
    return isSectionPlace(place) && place.what !== 'width';
  });
  const flags = new Set(outliersOf(project.survey).map((outlier) => outlier.address));
  let [planted, flagged] = [0, 0];
  while (planted < trials) {
    const address = addresses[Math.floor(random() * addresses.length)] ?? '';
    const value = valueAt(project.survey, address) ?? 0;
    const digits = String(Math.round(value)).split('');
    const position = Math.floor(random() * digits.length);
    digits[position] = String(Math.floor(random() * 10));
    const slipped = Number(digits.join(''));
    if (Math.abs(slipped - value) < 15 || slipped < 50) continue;
    planted += 1;
    const survey = {
      ...project.survey,
      readings: { ...project.survey.readings, [address]: [{ value: slipped, method: 'tape' as const, at }] },
    };
    if (outliersOf(survey).some((outlier) => outlier.address === address)) flagged += 1;
  }
  return { planted, flagged, good: addresses.length, wronglyFlagged: addresses.filter((a) => flags.has(a)).length };
}
