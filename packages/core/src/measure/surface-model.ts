import { aboveRoof } from './above-roof.js';
import type { Side, Survey } from '../document/schema.js';
import { isSectionPlace, parseAddress, valueAt } from '../document/address.js';
import {
  at,
  dense,
  inverseOf as inverted,
  logDeterminant,
  timesTransposed,
  timesVector,
  type Dense,
} from '../numeric/dense.js';
import { uncertaintyOf } from './trust.js';

/** How a section's profile may bend: its spread and reach, mm, and how far its level is open. */
interface Profile {
  readonly spread: number;
  readonly reach: number;
  readonly level: number;
  /** The height up to which it is straight, and from which it bends; null for one that bends gently all the way. */
  readonly knee: number | null;
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
  { spread: 400, reach: 900, level: 0, knee: null },
  { spread: 120, reach: 380, level: 0, knee: null },
];
/** The sides of a box are flat but for what their sheets do; only how far off they stand is open. */
const BOX_PROFILE: Profile = { spread: 4, reach: 900, level: 20, knee: null };
/*
 * A wall that is straight up to a knee: how far it stands off and leans is open, and beyond the knee so are its fold, its
 * bend and how the bend goes on; what is left beside that is small. Spreads in mm over a metre, its square and its cube.
 */
const KNEED = { level: 300, lean: 80, fold: 250, bend: 1200, further: 1500 };
const KNEED_REST = { spread: 3, reach: 400 };
/** Knees are looked for between these heights, in steps, mm. */
const KNEES = { from: 660, to: 1560, step: 20 };
const METRE = 1000;
const SIDE_PROFILE = { spread: 6, reach: 700 };
const DEPARTURE = { common: 5, side: 4, along: 800, up: 1200 };
const ROOF_PROFILE = { spread: 300, reach: 700 };
const ROOF_UNEVEN = { spread: 4, reach: 600 };
const ROOF_DEPARTURE = { spread: 6, along: 800, across: 700 };
const SCALES = [1.4, 2.8, 5.6] as const;
/** More readings than this are looked at in stretches along the vehicle. */
const STRETCH = 120;

const bell = (distance: number, reach: number): number => Math.exp(-0.5 * (distance / reach) ** 2);

/** What the profiles of two heights have to do with each other. */
function profileCovariance({ spread, reach, level, knee }: Profile, a: number, b: number): number {
  const near = spread ** 2 * bell(a - b, reach) + level ** 2;
  if (knee === null) return near;
  const [p, q] = [Math.max(0, a - knee) / METRE, Math.max(0, b - knee) / METRE];
  const beyond = p * q;
  return (
    near +
    (KNEED.lean ** 2 * a * b) / METRE ** 2 +
    KNEED.fold ** 2 * beyond +
    KNEED.bend ** 2 * beyond ** 2 +
    KNEED.further ** 2 * beyond ** 3
  );
}
const kneedAt = (knee: number): Profile => ({ ...KNEED_REST, level: KNEED.level, knee });

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
  const shared = profileCovariance(profile, a.at, b.at) + (scale * DEPARTURE.common) ** 2 * near;
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
    const made = {
      up: row(DEPARTURE.up),
      profile: Float64Array.from(samples, (sample) => profileCovariance(profile, place, sample.at)),
      side: row(SIDE_PROFILE.reach),
    };
    tables.at.set(place, made);
    return made;
  };
  const data = new Float64Array(points.length * n);
  const [common, own, sided] = [
    (scale * DEPARTURE.common) ** 2,
    (scale * DEPARTURE.side) ** 2,
    SIDE_PROFILE.spread ** 2,
  ];
  points.forEach((place, i) => {
    if (place.surface === 'roof') {
      samples.forEach((sample, j) => (data[i * n + j] = covariance(place, sample, character)));
      return;
    }
    const [along, up] = [onX(place.x), onAt(place.at)];
    for (let j = 0; j < n; j += 1) {
      const near = (along[j] as number) * (up.up[j] as number);
      let value = (up.profile[j] as number) + common * near;
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
  /** What the section that was read at most heights says of a knee; null for a box, and before there is such a section. */
  readonly knees: Knees | null;
}

/** Where a knee may be, by one section. */
export interface Knees {
  /** Where the section is. */
  readonly x: number;
  /** The likeliest height of a knee, mm; null when the walls rather bend gently all the way. */
  readonly best: number | null;
  /** How far apart, mm (one spread), what each likely knee says of a height is from what the others say. */
  readonly doubt: (at: number) => number;
}

/** Gathers what was read on walls and roof, at stations whose own place is known. */
export function samplesOf(survey: Survey, without: ReadonlySet<string> = new Set()): Sample[] {
  const places = new Map(survey.stations.map((station) => [station.id, valueAt(survey, `station/${station.id}/x`)]));
  const slips = new Set(aboveRoof(survey).map(({ address }) => address));
  return Object.entries(survey.readings).flatMap(([address, readings]): Sample[] => {
    const place = parseAddress(address);
    const reading = readings.at(-1);
    if (!isSectionPlace(place) || place.what === 'width' || !reading || without.has(address) || slips.has(address))
      return [];
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
function stretchOf(samples: readonly Sample[], boxed: boolean, knee: number | null): Stretch {
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
  const profiles = boxed
    ? [BOX_PROFILE]
    : samples[0]?.surface === 'roof'
      ? PROFILES.slice(0, 1)
      : knee === null
        ? PROFILES
        : [kneedAt(knee)];
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

function stretches(samples: readonly Sample[], boxed: boolean, knee: number | null): Stretch[] {
  if (samples.length === 0) return [];
  const xs = [...new Set(samples.map((sample) => sample.x))].sort((a, b) => a - b);
  const perStation = samples.length / xs.length;
  const size = Math.max(3, Math.floor(STRETCH / perStation));
  if (xs.length <= size) return [stretchOf(samples, boxed, knee)];
  const count = Math.ceil((xs.length - 1) / (size - 1));
  const step = (xs.length - 1) / count;
  return Array.from({ length: count }, (_, i) => {
    const [from, to] = [xs[Math.floor(i * step)] ?? 0, xs[Math.min(xs.length - 1, Math.ceil((i + 1) * step))] ?? 0];
    return stretchOf(
      samples.filter((sample) => sample.x >= from && sample.x <= to),
      boxed,
      knee,
    );
  });
}

/** A section is a profile when it was read at so many heights. */
const PROFILED = 4;
/** A misfit at one height is one of the whole wall there, so far up and down; and one that is local, so far along and up, mm. */
const MISFIT_UP = 110;
const MISFIT_ALONG = 450;
/** So many readings have to bear a misfit out, by their nearness. */
const MISFIT_LEAST = 3;
/**
 * What the readings say that the model is wrong by, as a variance, mm2: how much farther than it thinks each lies from what the
 * others predict of it, by those of that height all along the vehicle, or by those near a place; whichever is more.
 */
export function misfitOf(model: SurfaceModel): (place: SurfacePoint) => number {
  const left = model.stretches
    .filter(({ samples }) => samples[0]?.surface !== 'roof')
    .flatMap(({ samples, inverse, mean }) => leaveOneOut(samples, inverse, mean))
    .map(({ sample, expected, spread }) => {
      // one slip is no shape: it counts no more than the worst miss
      const miss = Math.min(Math.abs(sample.value - expected), WORST_MISS * spread);
      return { sample, over: miss ** 2 - spread ** 2 };
    });
  return ({ x, at: height }) => {
    const near = (weight: (sample: Sample) => number): number => {
      let [all, sum] = [0, 0];
      for (const { sample, over } of left) {
        const own = weight(sample);
        all += own;
        sum += own * over;
      }
      return all < MISFIT_LEAST ? 0 : Math.max(0, sum / all);
    };
    const up = (sample: Sample): number => bell(sample.at - height, MISFIT_UP);
    return Math.max(
      near(up),
      near((sample) => bell(sample.x - x, MISFIT_ALONG) * bell(sample.at - height, 2 * MISFIT_UP)),
    );
  };
}

/** What is less likely than this is not thought of. */
const LEAST_WEIGHT = 1e-3;

/** The readings of one section under one profile: how likely they are, and what they say of other heights. */
function sectionUnder(samples: readonly Sample[], profile: Profile) {
  const character: Character = { profile, scale: SCALES[0] };
  const mean = meanOf(samples);
  const known = deviations(samples, mean);
  const spreads = dense(samples.length, samples.length, (i, j) => {
    const [a, b] = [samples[i] as Sample, samples[j] as Sample];
    return covariance(a, b, character) + (i === j ? a.noise ** 2 : 0);
  });
  const weighted = timesVector(inverted(spreads), known);
  let fit = 0;
  for (let i = 0; i < known.length; i += 1) fit += (known[i] ?? 0) * (weighted[i] ?? 0);
  return {
    likely: -(fit + logDeterminant(spreads)) / 2,
    says: (place: SurfacePoint): number =>
      samples.reduce((sum, sample, i) => sum + (weighted[i] ?? 0) * covariance(sample, place, character), mean),
  };
}

/**
 * Looks for a knee in the section that was read at most heights: every height is tried, beside walls that bend gently. Each
 * counts by how likely it makes the readings.
 */
function kneesOf(walls: readonly Sample[]): Knees | null {
  const heights = new Map<number, Set<number>>();
  for (const { x, at: height } of walls) heights.set(x, (heights.get(x) ?? new Set<number>()).add(height));
  const [x, most] = [...heights].reduce<readonly [number, number]>(
    (best, [place, set]) => (set.size > best[1] ? [place, set.size] : best),
    [0, 0],
  );
  if (most < PROFILED) return null;
  const section = walls.filter((sample) => sample.x === x);
  const heightsTried = Array.from(
    { length: Math.floor((KNEES.to - KNEES.from) / KNEES.step) + 1 },
    (_, i) => KNEES.from + KNEES.step * i,
  );
  const under = [...PROFILES, ...heightsTried.map(kneedAt)].map((profile) => ({
    knee: profile.knee,
    ...sectionUnder(section, profile),
  }));
  const best = Math.max(...under.map(({ likely }) => likely));
  // all knees together are as likely beforehand as the walls without one
  const before = (knee: number | null): number => (knee === null ? 1 / PROFILES.length : 1 / heightsTried.length);
  const weighed = under.map((one) => ({ ...one, weight: before(one.knee) * Math.exp(one.likely - best) }));
  const whole = weighed.reduce((sum, { weight }) => sum + weight, 0);
  const thought = weighed.filter(({ weight }) => weight > LEAST_WEIGHT * whole);
  const total = thought.reduce((sum, { weight }) => sum + weight, 0);
  const likely = thought.map((one) => ({ ...one, weight: one.weight / total }));
  const kneed = likely.filter(({ knee }) => knee !== null);
  const share = kneed.reduce((sum, { weight }) => sum + weight, 0);
  const first = kneed.reduce<(typeof kneed)[number] | null>((a, b) => (a && a.weight >= b.weight ? a : b), null);
  return {
    x,
    best: share > 0.7 && first ? first.knee : null,
    doubt: (height) => {
      const said = likely.map(({ weight, says }) => ({ weight, value: says({ surface: 'left', x, at: height }) }));
      const mean = said.reduce((sum, { weight, value }) => sum + weight * value, 0);
      return Math.sqrt(said.reduce((sum, { weight, value }) => sum + weight * (value - mean) ** 2, 0));
    },
  };
}

/** Makes the model of a survey. Cost grows with the third power of the readings in a stretch, at most about 120. */
export function surfaceModel(survey: Survey, without?: ReadonlySet<string>): SurfaceModel {
  const samples = samplesOf(survey, without);
  const walls = samples.filter((sample) => sample.surface !== 'roof');
  const knees = survey.boxed ? null : kneesOf(walls);
  return {
    samples,
    knees,
    stretches: [
      ...stretches(walls, survey.boxed, knees?.best ?? null),
      ...stretches(
        samples.filter((sample) => sample.surface === 'roof'),
        survey.boxed,
        null,
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
