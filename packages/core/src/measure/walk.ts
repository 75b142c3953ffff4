import type { Survey } from '../project/schema.js';
import { roofAddress, valueAt, wallAddress } from './address.js';

/**
 * Every reading the survey asks for, in an order that saves walking: the floor, then station by station up the left
 * wall, over the roof and down the right, then ribs, arches and openings.
 */
export function walkOf(survey: Survey): string[] {
  const up = [...survey.heights].sort((a, b) => a - b);
  const across = [...survey.roofOffsets].sort((a, b) => a - b);
  return [
    'floor/length',
    ...survey.stations.flatMap((station) => [
      `station/${station.id}/x`,
      ...up.map((z) => wallAddress(station.id, 'left', z)),
      ...across.map((y) => roofAddress(station.id, y)),
      ...(survey.symmetric ? [] : [...up].reverse().map((z) => wallAddress(station.id, 'right', z))),
    ]),
    'floor/diagonal-a',
    'floor/diagonal-b',
    ...survey.ribs.flatMap((rib) => ['x', 'width', 'proud'].map((what) => `rib/${rib.id}/${what}`)),
    ...survey.arches.flatMap((arch) => ['from', 'to', 'height', 'face'].map((what) => `arch/${arch.id}/${what}`)),
    ...survey.openings.flatMap((opening) =>
      ['from', 'to', 'sill', 'head'].map((what) => `opening/${opening.id}/${what}`),
    ),
  ];
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
