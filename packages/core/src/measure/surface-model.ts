import type { Side, Survey } from '../document/schema.js';
import { isSectionPlace, parseAddress, valueAt } from '../document/address.js';
import { at, dense, inverseOf as inverted, timesTransposed, timesVector, type Dense } from '../numeric/dense.js';
import { uncertaintyOf } from './trust.js';

/** How a section's profile may bend: its spread and reach, mm, and how far its level is open. */
interface Profile {
  readonly spread: number;
  readonly reach: number;
  readonly level: number;
}

/** What is estimated from the readings of a stretch. */
interface Character {
  readonly profile: Profile;
  /** Size of the departures from the profile, times those below. */
  readonly scale: number;
}

/** One wall or roof reading as the model sees it. */
export interface Sample {
  readonly address: string;
  readonly surface: Side | 'roof';
  readonly x: number;
  /** Height on a wall, y on the roof, mm. */
  readonly at: number;
  readonly value: number;
  /** Spread of the reading itself, mm. */
  readonly noise: number;
}

/** A place on the surface. */
export type SurfacePoint = Pick<Sample, 'surface' | 'x' | 'at'>;

/*
 * A vehicle's wall as chance would have it (a Gaussian process): one profile for all stations and both sides, a little of
 * its own for each side, and departures that change slowly along and up. Spreads in mm, reaches in mm. The departures'
 * size is not fixed: it is estimated from how well the readings predict each other.
 */
/** A belly that bends gently, or a wall with a knee: the one that the readings bear out better is taken. */
const PROFILES: readonly Profile[] = [
  { spread: 400, reach: 900, level: 0 },
  { spread: 120, reach: 380, level: 0 },
];
/** The sides of a box are flat but for what their sheets do; only how far off they stand is open. */
const BOX_PROFILE: Profile = { spread: 4, reach: 900, level: 20 };
const SIDE_PROFILE = { spread: 6, reach: 700 };
const DEPARTURE = { common: 5, side: 4, along: 800, up: 1200 };
const ROOF_PROFILE = { spread: 300, reach: 700 };
const ROOF_UNEVEN = { spread: 4, reach: 600 };
const ROOF_DEPARTURE = { spread: 6, along: 800, across: 700 };
const SCALES = [1.4, 2.8, 5.6] as const;
/** More readings than this are looked at in stretches along the vehicle. */
const STRETCH = 120;

const bell = (distance: number, reach: number): number => Math.exp(-0.5 * (distance / reach) ** 2);

function covariance(a: SurfacePoint, b: SurfacePoint, { scale, profile }: Character): number {
  const [dx, dz] = [a.x - b.x, a.at - b.at];
  if (a.surface === 'roof' || b.surface === 'roof') {
    if (a.surface !== b.surface) return 0;
    // a roof is much the same on both sides of the centre line
    const outward = Math.abs(a.at) - Math.abs(b.at);
    return (
      ROOF_PROFILE.spread ** 2 * bell(outward, ROOF_PROFILE.reach) +
      ROOF_UNEVEN.spread ** 2 * bell(dz, ROOF_UNEVEN.reach) +
      (scale * ROOF_DEPARTURE.spread) ** 2 * bell(dx, ROOF_DEPARTURE.along) * bell(dz, ROOF_DEPARTURE.across)
    );
  }
  const near = bell(dx, DEPARTURE.along) * bell(dz, DEPARTURE.up);
  const shared =
    profile.spread ** 2 * bell(dz, profile.reach) + profile.level ** 2 + (scale * DEPARTURE.common) ** 2 * near;
  return a.surface === b.surface
    ? shared + SIDE_PROFILE.spread ** 2 * bell(dz, SIDE_PROFILE.reach) + (scale * DEPARTURE.side) ** 2 * near
    : shared;
}

/** What the bells of a distance come to for every sample, by the place they are asked for: targets stand in a grid. */
interface Tables {
  readonly x: Map<number, Float64Array>;
  readonly at: Map<number, { readonly up: Float64Array; readonly profile: Float64Array; readonly side: Float64Array }>;
}

/** The same as `covariance` of every place with every sample, one row a place: each bell is rung once for a row of places. */
function covariancesTo(
  samples: readonly Sample[],
  points: readonly SurfacePoint[],
  character: Character,
  tables: Tables,
): Dense {
  const n = samples.length;
  const { profile, scale } = character;
  const onX = (x: number): Float64Array => {
    const known = tables.x.get(x);
    if (known) return known;
    const made = Float64Array.from(samples, (sample) => bell(x - sample.x, DEPARTURE.along));
    tables.x.set(x, made);
    return made;
  };
  const onAt = (place: number) => {
    const known = tables.at.get(place);
    if (known) return known;
    const row = (reach: number): Float64Array => Float64Array.from(samples, (sample) => bell(place - sample.at, reach));
    const made = { up: row(DEPARTURE.up), profile: row(profile.reach), side: row(SIDE_PROFILE.reach) };
    tables.at.set(place, made);
    return made;
  };
  const data = new Float64Array(points.length * n);
  const [level, common, own] = [profile.level ** 2, (scale * DEPARTURE.common) ** 2, (scale * DEPARTURE.side) ** 2];
  const [wide, sided] = [profile.spread ** 2, SIDE_PROFILE.spread ** 2];
  points.forEach((place, i) => {
    if (place.surface === 'roof') {
      samples.forEach((sample, j) => (data[i * n + j] = covariance(place, sample, character)));
      return;
    }
    const [along, up] = [onX(place.x), onAt(place.at)];
    for (let j = 0; j < n; j += 1) {
      const near = (along[j] as number) * (up.up[j] as number);
      let value = wide * (up.profile[j] as number) + level + common * near;
      const { surface } = samples[j] as Sample;
      if (surface === place.surface) value += sided * (up.side[j] as number) + own * near;
      data[i * n + j] = surface === 'roof' ? 0 : value;
    }
  });
  return { rows: points.length, columns: n, data };
}

/** What the other readings predict of one, and how surely. */
export interface Predicted {
  readonly sample: Sample;
  readonly expected: number;
  readonly spread: number;
}

/** The readings of one stretch with everything that is worked out once. */
interface Stretch extends Character {
  readonly samples: readonly Sample[];
  readonly from: number;
  readonly to: number;
  readonly mean: number;
  /** Inverse of the readings' covariance. */
  readonly inverse: Dense;
}

/** The model of a survey: walls and roof, each in stretches. */
export interface SurfaceModel {
  readonly stretches: readonly Stretch[];
  readonly samples: readonly Sample[];
}

/** Gathers what was read on walls and roof, at stations whose own place is known. */
export function samplesOf(survey: Survey, without: ReadonlySet<string> = new Set()): Sample[] {
  const places = new Map(survey.stations.map((station) => [station.id, valueAt(survey, `station/${station.id}/x`)]));
  return Object.entries(survey.readings).flatMap(([address, readings]): Sample[] => {
    const place = parseAddress(address);
    const reading = readings.at(-1);
    if (!isSectionPlace(place) || place.what === 'width' || !reading || without.has(address)) return [];
    const x = places.get(place.id);
    if (x === undefined || x === null) return [];
    return [
      { address, surface: place.what, x, at: place.along, value: reading.value, noise: uncertaintyOf(reading) / 2 },
    ];
  });
}

const meanOf = (samples: readonly Sample[]): number =>
  samples.reduce((sum, sample) => sum + sample.value, 0) / Math.max(1, samples.length);

function inverseOf(samples: readonly Sample[], character: Character): Dense {
  const n = samples.length;
  const data = new Float64Array(n * n);
  samples.forEach((a, i) => {
    for (let j = 0; j <= i; j += 1) {
      const b = samples[j];
      if (!b) continue;
      const value = covariance(a, b, character) + (i === j ? a.noise ** 2 : 0);
      data[i * n + j] = value;
      data[j * n + i] = value;
    }
  });
  return inverted({ rows: n, columns: n, data });
}

const deviations = (samples: readonly Sample[], mean: number): Float64Array =>
  Float64Array.from(samples, (sample) => sample.value - mean);

/** Each reading predicted by all others (leave one out): residual [K^-1 y]_i / [K^-1]_ii, spread 1 / sqrt([K^-1]_ii). */
function leaveOneOut(samples: readonly Sample[], inverse: Dense, mean: number): Predicted[] {
  const weighted = timesVector(inverse, deviations(samples, mean));
  return samples.map((sample, i) => {
    const own = at(inverse, i, i);
    return { sample, expected: sample.value - (weighted[i] ?? 0) / own, spread: 1 / Math.sqrt(own) };
  });
}

function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)] ?? 0;
}

/** A miss counts no worse than this many spreads: one slip must not decide what the vehicle is like. */
const WORST_MISS = 4;
/** A knee is taken for one when it predicts better by this much for every reading. */
const CLEARLY = 0.15;
/** Readings predicted to some two millimetres. */
const FITS = -1.25;
/** With fewer readings than this nothing is estimated. */
const FEWEST = 12;

/** How well readings predict each other: the mean of their log density, each left out in turn. */
function credit(predicted: readonly Predicted[]): number {
  const sum = predicted.reduce((total, { sample, expected, spread }) => {
    const miss = Math.min(WORST_MISS, Math.abs(sample.value - expected) / spread);
    return total - Math.log(spread) - (miss * miss) / 2;
  }, 0);
  return sum / predicted.length;
}

/**
 * A stretch with its character: for each kind of profile the smallest size of departures under which half of the readings
 * are predicted about as well as the model thinks; of those the one that predicts best.
 */
function stretchOf(samples: readonly Sample[], boxed: boolean): Stretch {
  const mean = meanOf(samples);
  const xs = samples.map((sample) => sample.x);
  const made = (character: Character): Stretch => ({
    ...character,
    samples,
    from: Math.min(...xs),
    to: Math.max(...xs),
    mean,
    inverse: inverseOf(samples, character),
  });
  const profiles = boxed ? [BOX_PROFILE] : samples[0]?.surface === 'roof' ? PROFILES.slice(0, 1) : PROFILES;
  const first = profiles[0] ?? BOX_PROFILE;
  if (samples.length < FEWEST) return made({ profile: first, scale: SCALES[0] });
  let best: { readonly stretch: Stretch; readonly credit: number } | null = null;
  for (const profile of profiles) {
    for (const scale of SCALES) {
      const stretch = made({ profile, scale });
      const predicted = leaveOneOut(samples, stretch.inverse, mean);
      const misses = predicted.map(({ sample, expected, spread }) => Math.abs(sample.value - expected) / spread);
      if (median(misses) > 0.72 && scale !== SCALES.at(-1)) continue;
      const own = credit(predicted);
      if (!best || own > best.credit + CLEARLY) best = { stretch, credit: own };
      break;
    }
    // one that predicts this well needs no other beside it
    if (best && best.credit > FITS) break;
  }
  return best?.stretch ?? made({ profile: first, scale: SCALES[0] });
}

function stretches(samples: readonly Sample[], boxed: boolean): Stretch[] {
  if (samples.length === 0) return [];
  const xs = [...new Set(samples.map((sample) => sample.x))].sort((a, b) => a - b);
  const perStation = samples.length / xs.length;
  const size = Math.max(3, Math.floor(STRETCH / perStation));
  if (xs.length <= size) return [stretchOf(samples, boxed)];
  const count = Math.ceil((xs.length - 1) / (size - 1));
  const step = (xs.length - 1) / count;
  return Array.from({ length: count }, (_, i) => {
    const [from, to] = [xs[Math.floor(i * step)] ?? 0, xs[Math.min(xs.length - 1, Math.ceil((i + 1) * step))] ?? 0];
    return stretchOf(
      samples.filter((sample) => sample.x >= from && sample.x <= to),
      boxed,
    );
  });
}

/** Makes the model of a survey. Cost grows with the third power of the readings in a stretch, at most about 120. */
export function surfaceModel(survey: Survey, without?: ReadonlySet<string>): SurfaceModel {
  const samples = samplesOf(survey, without);
  return {
    samples,
    stretches: [
      ...stretches(
        samples.filter((sample) => sample.surface !== 'roof'),
        survey.boxed,
      ),
      ...stretches(
        samples.filter((sample) => sample.surface === 'roof'),
        survey.boxed,
      ),
    ],
  };
}

function stretchAt(model: SurfaceModel, place: SurfacePoint): Stretch | null {
  const roof = place.surface === 'roof';
  const own = model.stretches.filter((stretch) => (stretch.samples[0]?.surface === 'roof') === roof);
  const off = (stretch: Stretch): number =>
    Math.max(
      stretch.from - place.x,
      place.x - stretch.to,
      -Math.min(place.x - stretch.from, stretch.to - place.x) / 1e6,
    );
  return own.reduce<Stretch | null>((best, next) => (best && off(best) <= off(next) ? best : next), null);
}

/** What the readings say of a place where none may be, with the spread that is left, mm; null when nothing was read. */
export function predict(
  model: SurfaceModel,
  place: SurfacePoint,
): { readonly value: number; readonly spread: number } | null {
  const stretch = stretchAt(model, place);
  if (!stretch) return null;
  const { samples, inverse, mean } = stretch;
  const towards = Float64Array.from(samples, (sample) => covariance(sample, place, stretch));
  const weights = timesVector(inverse, towards);
  const known = deviations(samples, mean);
  const own = covariance(place, place, stretch);
  let [value, taken] = [mean, 0];
  for (let i = 0; i < samples.length; i += 1) {
    value += (weights[i] ?? 0) * (known[i] ?? 0);
    taken += (weights[i] ?? 0) * (towards[i] ?? 0);
  }
  return { value, spread: Math.sqrt(Math.max(0, own - taken)) };
}

/** The spread left at many places, and how much of it each of some readings not taken yet would take away. */
export interface Gains {
  /** Variance at each target now, mm2. */
  readonly now: readonly number[];
  /** For each bundle of readings the variance at each target after it. */
  readonly after: readonly (readonly number[])[];
}

/**
 * What bundles of further readings would do to the spread at some places. Only where readings are taken matters, not
 * what they will say: posterior covariance C = K_tt - K_ts K^-1 K_st, lessened by C_tb (C_bb + N)^-1 C_bt for a bundle b.
 */
export function gainsOf(
  model: SurfaceModel,
  targets: readonly SurfacePoint[],
  bundles: readonly (readonly SurfacePoint[])[],
  noise: number,
): Gains {
  const now = targets.map(() => 0);
  const after = bundles.map(() => targets.map(() => 0));
  for (const stretch of model.stretches) {
    const mine = targets.flatMap((target, i) => (stretchAt(model, target) === stretch ? [{ target, i }] : []));
    if (mine.length === 0) continue;
    const { samples, inverse } = stretch;
    const points = mine.map((m) => m.target);
    const n = samples.length;
    const tables: Tables = { x: new Map(), at: new Map() };
    const rows = (list: readonly SurfacePoint[]): Dense => covariancesTo(samples, list, stretch, tables);
    const targetRows = rows(points);
    // the inverse is symmetric: one row of weights for each target
    const targetWeights = timesTransposed(targetRows, inverse);
    mine.forEach(({ target, i }, k) => {
      let taken = 0;
      for (let j = 0; j < n; j += 1) taken += at(targetWeights, k, j) * at(targetRows, k, j);
      now[i] = Math.max(0, covariance(target, target, stretch) - taken);
    });
    bundles.forEach((bundle, b) => {
      const near = bundle.filter((place) => stretchAt(model, place) === stretch);
      const list = after[b];
      if (!list) return;
      if (near.length === 0) {
        for (const { i } of mine) list[i] = now[i] ?? 0;
        return;
      }
      const bundleRows = rows(near);
      const known = timesTransposed(bundleRows, targetWeights);
      const towards = dense(
        near.length,
        points.length,
        (r, k) => covariance(near[r] as SurfacePoint, points[k] as SurfacePoint, stretch) - at(known, r, k),
      );
      const weights = timesTransposed(bundleRows, inverse);
      const told = timesTransposed(weights, bundleRows);
      const own = inverted(
        dense(near.length, near.length, (r, c) => {
          const spread =
            covariance(near[r] as SurfacePoint, near[c] as SurfacePoint, stretch) + (r === c ? noise ** 2 : 0);
          return spread - (at(told, r, c) + at(told, c, r)) / 2;
        }),
      );
      mine.forEach(({ i }, k) => {
        let less = 0;
        for (let r = 0; r < near.length; r += 1)
          for (let c = 0; c < near.length; c += 1) less += at(towards, r, k) * at(own, r, c) * at(towards, c, k);
        list[i] = Math.max(0, (now[i] ?? 0) - less);
      });
    });
  }
  return { now, after };
}

/** A reading that the others do not bear out, with what they predict. */
export interface Departure extends Predicted {
  /** How far beyond what chance explains, as a multiple of what is allowed. */
  readonly beyond: number;
}

interface Suspect extends Departure {
  readonly i: number;
  readonly misfit: number;
}

/**
 * Readings that depart from what the others predict by more than `least` mm and `sigmas` spreads. The one
 * without which the rest agree best (the largest departure in spreads) is taken out first and the rest predicted again, so that one slip casts no doubt on its neighbours: the inverse
 * without one reading is A - b b' / c, by its row b and its diagonal c.
 */
export function departuresOf(model: SurfaceModel, least: number, sigmas: number): Departure[] {
  return model.stretches.flatMap((stretch) => {
    if (stretch.samples.length < 4) return [];
    let [samples, inverse] = [stretch.samples, stretch.inverse];
    const found: Departure[] = [];
    for (;;) {
      const mean = median(samples.map((sample) => sample.value));
      const worst = leaveOneOut(samples, inverse, mean)
        .map((predicted, i) => {
          const allowed = Math.max(least, sigmas * predicted.spread);
          const off = Math.abs(predicted.sample.value - predicted.expected);
          return { ...predicted, i, beyond: off / allowed, misfit: off / predicted.spread };
        })
        .filter(({ beyond }) => beyond > 1)
        .reduce<Suspect | null>((most, next) => (most && most.misfit >= next.misfit ? most : next), null);
      if (!worst || samples.length < 4) return found;
      const { i, sample, expected, spread, beyond } = worst;
      found.push({ sample, expected, spread, beyond });
      const keep = samples.map((_, k) => k).filter((k) => k !== i);
      const whole = inverse;
      const own = at(whole, i, i);
      const rest = dense(keep.length, keep.length, (row, column) => {
        const [r, c] = [keep[row] ?? 0, keep[column] ?? 0];
        return at(whole, r, c) - (at(whole, r, i) * at(whole, c, i)) / own;
      });
      samples = keep.flatMap((k) => samples[k] ?? []);
      inverse = rest;
    }
  });
}
