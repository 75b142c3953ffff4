import { isAt, scribeAllowance, standsAt, type Shadow } from '../document/body.js';
import type { Side, Survey } from '../document/schema.js';
import { spread } from '../numeric/plane.js';
import { isSectionPlace, parseAddress, valueAt, wallAddress } from '../document/address.js';
import { walkOf } from './walk.js';
import { gainsOf, misfitOf, surfaceModel, type SurfacePoint, type SurfaceModel } from './surface-model.js';

/** A reading that would help most, or a new station with the first readings there. */
export interface NextBest {
  /** The readings to take, in order; the first is the station's own place when it is a new one. */
  readonly addresses: readonly string[];
  /** A station that has to be put in first. */
  readonly station: { readonly id: string; readonly name: string; readonly x: number } | null;
  /** The worst uncertainty (two spreads) where units stand or will stand, before and after, mm. */
  readonly before: number;
  readonly after: number;
}

/** Uncertainty (two spreads, mm) over a grid of the walls, for shading: rows from the floor up, columns along. */
export interface DoubtGrid {
  readonly xs: readonly number[];
  readonly zs: readonly number[];
  readonly left: readonly (readonly number[])[];
  readonly right: readonly (readonly number[])[];
}

/** How good the survey is now. */
export interface SurveyQuality {
  /** Two spreads at the worst place that matters, mm, and where that is. */
  readonly worst: number;
  readonly at: SurfacePoint;
  /** Share of the walls that is within the goal. */
  readonly within: number;
  readonly goal: number;
  readonly good: boolean;
  readonly next: NextBest | null;
  /** Readings of the walk that are still open and would help: things without a size, and walls and roof where they are not known to the goal. */
  readonly worth: readonly string[];
  readonly doubt: DoubtGrid;
}

const SIDES: readonly Side[] = ['left', 'right'];
/** A place that no unit needs counts this much of one that a unit stands at. */
const ELSEWHERE = 0.35;
/** Units stand below this height where none is placed yet, mm. */
const STANDING_MM = 1000;
const READING_NOISE = 1;

interface Target extends SurfacePoint {
  readonly weight: number;
  readonly matters: boolean;
}

function unitReaches(unit: Shadow, place: SurfacePoint): boolean {
  return (
    isAt(unit, place.x) &&
    place.at <= unit.body.to + 150 &&
    (place.surface === 'left' || place.surface === 'right') &&
    standsAt(unit, place.surface)
  );
}

const ALONG = 17;
const UP = 6;

/** Places all over the walls at which the shape has to be known: left wall first, row by row from the floor. */
function targetsOf(survey: Survey, units: readonly Shadow[], xs: readonly number[], zs: readonly number[]): Target[] {
  return SIDES.flatMap((surface) =>
    zs.flatMap((at) =>
      xs.map((x): Target => {
        const place = { surface, x, at };
        const matters = units.length === 0 ? at <= STANDING_MM : units.some((unit) => unitReaches(unit, place));
        return { ...place, matters, weight: matters ? 1 : ELSEWHERE };
      }),
    ),
  );
}

function doubtOf(xs: readonly number[], zs: readonly number[], variances: readonly number[]): DoubtGrid {
  const side = (from: number): number[][] =>
    zs.map((_, row) => xs.map((__, column) => 2 * Math.sqrt(variances[from + row * xs.length + column] ?? 0)));
  return { xs, zs, left: side(0), right: side(xs.length * zs.length) };
}

interface Candidate {
  readonly addresses: readonly string[];
  readonly points: readonly SurfacePoint[];
  readonly station: NextBest['station'];
}

/** Readings that could be taken: at stations that stand, at planned heights and half-way between; and new stations in the gaps. */
function candidatesOf(survey: Survey): Candidate[] {
  const placed = survey.stations
    .flatMap((station) => {
      const x = valueAt(survey, `station/${station.id}/x`);
      return x === null ? [] : [{ id: station.id, x }];
    })
    .sort((a, b) => a.x - b.x);
  const heights = [...new Set([...survey.heights, ...survey.profile.heights])].sort((a, b) => a - b);
  const walls = placed.flatMap((station) =>
    SIDES.flatMap((side) =>
      heights.flatMap((z): Candidate[] => {
        const address = wallAddress(station.id, side, z);
        return valueAt(survey, address) !== null
          ? []
          : [{ addresses: [address], points: [{ surface: side, x: station.x, at: z }], station: null }];
      }),
    ),
  );
  const number = 1 + Math.max(0, ...survey.stations.map((station) => Number(/^s(\d+)$/.exec(station.id)?.[1] ?? 0)));
  const id = `s${number}`;
  const middle = heights.reduce((best, z) => (Math.abs(z - 700) < Math.abs(best - 700) ? z : best), heights[0] ?? 0);
  const gaps = placed.slice(1).flatMap((station, i): Candidate[] => {
    const before = placed[i];
    if (!before || station.x - before.x < 250) return [];
    const x = Math.round((before.x + station.x) / 2);
    return [SIDES, ...SIDES.map((side) => [side])].map((sides) => ({
      addresses: [`station/${id}/x`, ...sides.map((side) => wallAddress(id, side, middle))],
      points: sides.map((surface) => ({ surface, x, at: middle })),
      station: { id, name: `Station ${number}`, x },
    }));
  });
  return [...walls, ...gaps];
}

/** Only so many candidates are worked through; a reading where the shape is known already helps least. */
const WORKED_THROUGH = 24;

function mostDoubtful(candidates: readonly Candidate[], model: SurfaceModel): readonly Candidate[] {
  if (candidates.length <= WORKED_THROUGH) return candidates;
  const points = candidates.flatMap((candidate) => candidate.points);
  const { now } = gainsOf(model, points, [], READING_NOISE);
  const doubt = new Map(points.map((place, i) => [place, now[i] ?? 0]));
  const worth = ({ points: own, addresses }: Candidate): number =>
    own.reduce((sum, place) => sum + (doubt.get(place) ?? 0), 0) / addresses.length;
  return candidates
    .map((candidate) => ({ candidate, worth: worth(candidate) }))
    .sort((a, b) => b.worth - a.worth)
    .slice(0, WORKED_THROUGH)
    .map(({ candidate }) => candidate);
}

const worstOf = (targets: readonly Target[], variances: readonly number[]): { value: number; index: number } =>
  targets.reduce(
    (worst, target, i) => {
      const value = target.matters ? 2 * Math.sqrt(variances[i] ?? 0) : -1;
      return value > worst.value ? { value, index: i } : worst;
    },
    { value: -1, index: 0 },
  );

/**
 * How good the survey is where it matters, and which further reading would help most: the one that takes away most of
 * the weighted variance for each thing that has to be read. Null before the walls were read at two stations.
 * @param scribe the smallest scribe allowance of the units, mm: a survey is never asked to be better than needed for it
 */
export function surveyQuality(
  survey: Survey,
  units: readonly Shadow[],
  length: number,
  model: SurfaceModel = surfaceModel(survey),
): SurveyQuality | null {
  const wallStations = new Set(model.samples.filter((s) => s.surface !== 'roof').map((s) => s.x));
  if (wallStations.size < 2) return null;
  const xs = spread(0, length, ALONG);
  const zs = spread(0, Math.max(...survey.heights, ...survey.profile.heights, 1), UP);
  const targets = targetsOf(survey, units, xs, zs);
  const scribe = Math.min(...units.flatMap((unit) => scribeAllowance(unit) ?? []), Infinity);
  const goal = Math.min(survey.goal, Math.max(1, scribe));
  const certain = gainsOf(model, targets, [], READING_NOISE).now;
  // what is not known of a knee is as uncertain at every station
  const knee = new Map(zs.map((z) => [z, (model.knees?.doubt(z) ?? 0) ** 2]));
  // nor is the shape what the model takes it for where the readings miss what the others say of them
  const misfit = misfitOf(model);
  const now = certain.map((variance, i) => {
    const target = targets[i];
    return variance + (target ? Math.max(knee.get(target.at) ?? 0, misfit(target)) : 0);
  });
  const search = kneeSearch(survey, model);
  const worst = worstOf(targets, now);
  const good = worst.value <= goal && search === null;
  const place = targets[worst.index];
  return {
    worst: worst.value,
    at: place ? { surface: place.surface, x: place.x, at: place.at } : { surface: 'left', x: 0, at: 0 },
    within: now.filter((variance) => 2 * Math.sqrt(variance) <= goal).length / Math.max(1, now.length),
    goal,
    good,
    next: good
      ? null
      : search
        ? { addresses: [search], station: null, before: worst.value, after: worstOf(targets, certain).value }
        : nextBest(survey, model, targets, certain, worst.value),
    worth: worthTaking(survey, model, goal),
    doubt: doubtOf(xs, zs, now),
  };
}

/** Open readings of the walk that would tell something, in its order. */
function worthTaking(survey: Survey, model: SurfaceModel, goal: number): readonly string[] {
  const open = walkOf(survey).filter(
    (address) => valueAt(survey, address) === null && !survey.skipped.includes(address),
  );
  const placeOf = (address: string): SurfacePoint | null => {
    const place = parseAddress(address);
    if (!isSectionPlace(place) || place.what === 'width') return null;
    const x = valueAt(survey, `station/${place.id}/x`);
    return x === null ? null : { surface: place.what, x, at: place.along };
  };
  const places = open.map(placeOf);
  const points = places.filter((place) => place !== null);
  const { now } = gainsOf(model, points, [], READING_NOISE);
  const doubt = new Map(points.map((place, i) => [place, 2 * Math.sqrt(now[i] ?? 0)]));
  return open.filter((_, i) => {
    const place = places[i];
    return !place || (doubt.get(place) ?? Infinity) > goal;
  });
}

/** A knee is looked for while what may be one leaves a height of its section more open than this, mm (one spread). */
const KNEE_OPEN_MM = 1;
/** Heights at which it is looked for, in steps, mm; never nearer than that to one that was read. */
const KNEE_STEP_MM = 20;
const KNEE_APART_MM = 30;

/** The reading that tells best where the walls bend, at the section that gives the profile; null when that is known. */
function kneeSearch(survey: Survey, { knees, samples }: SurfaceModel): string | null {
  if (!knees) return null;
  const station = survey.stations.find(({ id }) => valueAt(survey, `station/${id}/x`) === knees.x);
  if (!station) return null;
  const top = Math.max(...samples.filter(({ x, surface }) => x === knees.x && surface !== 'roof').map(({ at }) => at));
  const open = spread(KNEE_STEP_MM, top, Math.max(2, Math.floor(top / KNEE_STEP_MM)))
    .map((z) => Math.round(z / KNEE_STEP_MM) * KNEE_STEP_MM)
    .flatMap((z) =>
      SIDES.map((side) => ({ z, side, address: wallAddress(station.id, side, z), doubt: knees.doubt(z) })),
    )
    .filter(
      ({ z, side, address }) =>
        !survey.skipped.includes(address) &&
        samples.every(
          (sample) => sample.x !== knees.x || sample.surface !== side || Math.abs(sample.at - z) >= KNEE_APART_MM,
        ),
    )
    .sort((a, b) => b.doubt - a.doubt || a.z - b.z);
  const [first] = open;
  return first && first.doubt > KNEE_OPEN_MM ? first.address : null;
}

/** The candidate that takes away most of the weighted variance for each thing that has to be read. */
function nextBest(
  survey: Survey,
  model: SurfaceModel,
  targets: readonly Target[],
  now: readonly number[],
  before: number,
): NextBest | null {
  const candidates = mostDoubtful(
    candidatesOf(survey).filter(({ addresses }) => !addresses.some((address) => survey.skipped.includes(address))),
    model,
  );
  const { after } = gainsOf(
    model,
    targets,
    candidates.map((candidate) => candidate.points),
    READING_NOISE,
  );
  const weigh = (variances: readonly number[]): number =>
    variances.reduce((sum, variance, i) => sum + (targets[i]?.weight ?? 0) * variance ** 1.5, 0);
  const start = weigh(now);
  let best: { readonly candidate: Candidate; readonly gain: number; readonly after: readonly number[] } | null = null;
  candidates.forEach((candidate, i) => {
    const then = after[i] ?? now;
    const gain = (start - weigh(then)) / candidate.addresses.length;
    if (gain > (best?.gain ?? 0)) best = { candidate, gain, after: then };
  });
  // the assignments in the loop are not followed by the compiler
  const found = best as { readonly candidate: Candidate; readonly after: readonly number[] } | null;
  return (
    found && {
      addresses: found.candidate.addresses,
      station: found.candidate.station,
      before,
      after: worstOf(targets, found.after).value,
    }
  );
}
