import type { Survey } from '../document/schema.js';
import { FRAME_CORNERS, roofAddress, valueAt, wallAddress } from '../document/address.js';

/** The walk goes once to the rear kneeling, once back standing, then round the openings, and last under the vehicle. */
export const LEGS = ['floor', 'low', 'high', 'openings', 'holes', 'under', 'extra'] as const;
export type Leg = (typeof LEGS)[number];

export interface WalkStep {
  readonly address: string;
  readonly leg: Leg;
}

/** What is read below this height is read kneeling, mm. */
export const KNEELING_MM = 750;

const ascending = (list: readonly number[]): number[] => [...new Set(list)].sort((a, b) => a - b);

/** The heights at which one station's walls are read: those of the plan, and more at the station that gives the profile. */
export function heightsOf(survey: Survey, station: string): number[] {
  const { profile } = survey;
  return ascending(profile.station === station ? [...survey.heights, ...profile.heights] : survey.heights);
}

/** The places across the roof that are read at one station. */
export function roofOffsetsOf(survey: Survey, station: string): number[] {
  const { profile } = survey;
  return ascending(profile.station === station ? [...survey.roofOffsets, ...profile.roofOffsets] : survey.roofOffsets);
}

function wallSteps(survey: Survey, station: string, heights: readonly number[], leg: 'low' | 'high'): string[] {
  const lowest = Math.min(...survey.heights);
  if (survey.reference === 'wall')
    return heights.flatMap((z) => [
      `station/${station}/width/${z}`,
      ...(z === lowest ? [wallAddress(station, 'left', z)] : []),
    ]);
  const roof = leg === 'high' ? roofOffsetsOf(survey, station).map((y) => roofAddress(station, y)) : [];
  return [
    ...heights.map((z) => wallAddress(station, 'left', z)),
    ...roof,
    ...(survey.symmetric ? [] : [...heights].reverse().map((z) => wallAddress(station, 'right', z))),
  ];
}

function archSteps(survey: Survey): string[] {
  return survey.arches.flatMap(({ id, kind, shape }) => [
    ...['from', 'to', 'height', 'face'].map((what) => `arch/${id}/${what}`),
    ...(shape === 'tapered' ? [`arch/${id}/top-face`] : []),
    ...(kind === 'duct' ? [`arch/${id}/bottom`] : []),
    ...(kind === 'hump' ? [`arch/${id}/far`] : []),
  ]);
}

function ribSteps(survey: Survey): string[] {
  return survey.ribs.flatMap((rib) => [
    ...['x', 'width', 'proud'].map((what) => `rib/${rib.id}/${what}`),
    ...(rib.leans === true && rib.on !== 'floor'
      ? ['high', 'x-high', 'width-high'].map((what) => `rib/${rib.id}/${what}`)
      : []),
    ...(rib.tapers === true ? [`rib/${rib.id}/foot`] : []),
    ...(rib.on === 'ring' ? [] : [`rib/${rib.id}/from`, `rib/${rib.id}/to`]),
  ]);
}

/** A box of boards has to stay out of the roundings of an opening's corners. */
const ROUND = ['corner'] as const;

function openingSteps(survey: Survey): string[] {
  return survey.openings.flatMap((opening) => [
    ...['from', 'to', 'sill', 'head'].map((what) => `opening/${opening.id}/${what}`),
    ...(opening.slanted ? [`opening/${opening.id}/from-head`, `opening/${opening.id}/to-head`] : []),
    ...(opening.framed ? [...FRAME_CORNERS, ...ROUND].map((what) => `opening/${opening.id}/${what}`) : []),
  ]);
}

/**
 * Every reading the survey asks for, in an order that saves walking and climbing: the floor; to the rear kneeling, for
 * all that is low; back to the front standing, for the walls' upper part and the roof; then openings, holes, and what is
 * seen from under the floor. Readings asked for beyond the plan come last.
 */
export function walkSteps(survey: Survey): WalkStep[] {
  const low = (station: string): number[] => heightsOf(survey, station).filter((z) => z < KNEELING_MM);
  const high = (station: string): number[] => heightsOf(survey, station).filter((z) => z >= KNEELING_MM);
  const planned = survey.stations.filter((station) => station.planned);
  const wallRoof = (station: string): string[] =>
    survey.reference === 'wall' ? roofOffsetsOf(survey, station).map((y) => roofAddress(station, y)) : [];
  const legs: readonly [Leg, readonly string[]][] = [
    ['floor', ['floor/length']],
    [
      'low',
      [
        ...planned.flatMap(({ id }) => [`station/${id}/x`, ...wallSteps(survey, id, low(id), 'low')]),
        ...archSteps(survey),
        'floor/diagonal-a',
        'floor/diagonal-b',
      ],
    ],
    [
      'high',
      [
        ...[...planned].reverse().flatMap(({ id }) => [...wallSteps(survey, id, high(id), 'high'), ...wallRoof(id)]),
        ...ribSteps(survey),
      ],
    ],
    ['openings', openingSteps(survey)],
    ['holes', survey.penetrations.flatMap(({ id }) => ['x', 'along', 'size'].map((what) => `hole/${id}/${what}`))],
    [
      'under',
      [
        ...survey.keepOuts.flatMap(({ id }) => ['from', 'to', 'left', 'right'].map((what) => `keepout/${id}/${what}`)),
        ...survey.angles.flatMap(({ id }) => [`angle/${id}/floor`, `angle/${id}/raw`]),
      ],
    ],
    ['extra', survey.extra],
  ];
  const seen = new Set<string>();
  return legs.flatMap(([leg, addresses]) =>
    addresses.flatMap((address): WalkStep[] => {
      if (seen.has(address)) return [];
      seen.add(address);
      return [{ address, leg }];
    }),
  );
}

/** The addresses of the walk in its order. */
export function walkOf(survey: Survey): string[] {
  return walkSteps(survey).map((step) => step.address);
}

/** Readings that can be taken to check others, though the walk does not ask for them: they close a sum or a shape. */
export function furtherReadings(survey: Survey): string[] {
  const walk = new Set(walkOf(survey));
  return [
    'level/along',
    'level/across',
    ...survey.stations.flatMap(({ id }) => [
      `station/${id}/rest`,
      ...heightsOf(survey, id).map((z) => `station/${id}/width/${z}`),
      `station/${id}/diagonal-a`,
      `station/${id}/diagonal-b`,
    ]),
    ...survey.openings
      .filter((opening) => opening.kind !== 'fan')
      .flatMap(({ id }) => [`opening/${id}/diagonal-a`, `opening/${id}/diagonal-b`]),
  ].filter((address) => !walk.has(address));
}

export interface Progress {
  readonly taken: number;
  readonly total: number;
  /** The next place without a reading that was not skipped; null when the walk is done. */
  readonly next: string | null;
  readonly skipped: number;
}

/** How far the walk has got. */
export function progressOf(survey: Survey): Progress {
  const walk = walkOf(survey);
  const open = walk.filter((address) => valueAt(survey, address) === null);
  const skipped = new Set(survey.skipped);
  return {
    taken: walk.length - open.length,
    total: walk.length,
    next: open.find((address) => !skipped.has(address)) ?? null,
    skipped: open.filter((address) => skipped.has(address)).length,
  };
}
