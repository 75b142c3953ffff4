import type { Side, Survey } from '../project/schema.js';
import { message, mm, type Message } from '../words/message.js';

/**
 * The place a reading belongs to. Written as a path, for example `floor/length`, `station/s3/left/700`,
 * `station/s3/roof/-450`, `arch/a1/face`, `opening/w1/sill`.
 */
export type Place =
  | { readonly kind: 'floor'; readonly what: 'length' | 'diagonal-a' | 'diagonal-b' }
  | { readonly kind: 'station'; readonly id: string; readonly what: 'x' }
  | {
      readonly kind: 'station';
      readonly id: string;
      readonly what: 'left' | 'right' | 'width' | 'roof';
      readonly along: number;
    }
  | { readonly kind: 'rib'; readonly id: string; readonly what: 'x' | 'width' | 'proud' }
  | { readonly kind: 'arch'; readonly id: string; readonly what: 'from' | 'to' | 'height' | 'face' }
  | { readonly kind: 'opening'; readonly id: string; readonly what: 'from' | 'to' | 'sill' | 'head' };

const FLOOR = ['length', 'diagonal-a', 'diagonal-b'] as const;
const ALONG = ['left', 'right', 'width', 'roof'] as const;
const RIB = ['x', 'width', 'proud'] as const;
const ARCH = ['from', 'to', 'height', 'face'] as const;
const OPENING = ['from', 'to', 'sill', 'head'] as const;

function oneOf<const T extends string>(list: readonly T[], value: string | undefined): T | null {
  return list.find((item) => item === value) ?? null;
}

/** Reads an address; null when it names nothing that can be measured. */
export function parseAddress(address: string): Place | null {
  const [kind, second = '', third, fourth, ...more] = address.split('/');
  if (more.length > 0) return null;
  if (kind === 'floor' && third === undefined) {
    const what = oneOf(FLOOR, second);
    return what && { kind, what };
  }
  if (kind === 'station') {
    if (third === 'x' && fourth === undefined) return { kind, id: second, what: 'x' };
    const what = oneOf(ALONG, third);
    const along = Number(fourth);
    return what && fourth !== undefined && fourth !== '' && Number.isFinite(along)
      ? { kind, id: second, what, along }
      : null;
  }
  if (fourth !== undefined) return null;
  if (kind === 'rib') {
    const what = oneOf(RIB, third);
    return what && { kind, id: second, what };
  }
  if (kind === 'arch') {
    const what = oneOf(ARCH, third);
    return what && { kind, id: second, what };
  }
  if (kind === 'opening') {
    const what = oneOf(OPENING, third);
    return what && { kind, id: second, what };
  }
  return null;
}

/** Address of a wall reading at height `z` above the bare floor, mm. */
export const wallAddress = (stationId: string, side: Side, z: number): string => `station/${stationId}/${side}/${z}`;
/** Address of a roof reading at `y` from the centre line, right positive, mm. */
export const roofAddress = (stationId: string, y: number): string => `station/${stationId}/roof/${y}`;

/** The present value at an address: the last reading taken there; null when none was. */
export function valueAt(survey: Survey, address: string): number | null {
  return survey.readings[address]?.at(-1)?.value ?? null;
}

/** Whether the thing an address speaks of is part of the survey. */
export function addressExists(survey: Survey, place: Place): boolean {
  switch (place.kind) {
    case 'floor':
      return true;
    case 'station':
      return survey.stations.some((station) => station.id === place.id);
    case 'rib':
      return survey.ribs.some((rib) => rib.id === place.id);
    case 'arch':
      return survey.arches.some((arch) => arch.id === place.id);
    case 'opening':
      return survey.openings.some((opening) => opening.id === place.id);
  }
}

/** Says in words what is to be measured at an address. */
export function describeAddress(survey: Survey, address: string): Message {
  const place = parseAddress(address);
  if (!place) return message('place.unknown', { address });
  const named = (list: readonly { id: string; name: string }[], id: string): string =>
    list.find((item) => item.id === id)?.name ?? id;
  switch (place.kind) {
    case 'floor':
      return message(`place.floor.${place.what}`);
    case 'station': {
      const name = named(survey.stations, place.id);
      if (place.what === 'x') return message('place.station.x', { name });
      if (place.what !== 'roof') return message(`place.station.${place.what}`, { name, z: mm(place.along) });
      if (place.along === 0) return message('place.station.roof', { name });
      return message(place.along < 0 ? 'place.station.roofLeft' : 'place.station.roofRight', {
        name,
        y: mm(Math.abs(place.along)),
      });
    }
    case 'rib':
      return message(`place.rib.${place.what}`, { name: named(survey.ribs, place.id) });
    case 'arch':
      return message(`place.arch.${place.what}`, { name: named(survey.arches, place.id) });
    case 'opening': {
      const opening = survey.openings.find((o) => o.id === place.id);
      const plane = opening?.surface === 'roof' ? 'roof' : opening?.surface === 'rear' ? 'rear' : 'wall';
      return message(`place.opening.${plane}.${place.what}`, { name: opening?.name ?? place.id });
    }
  }
}

/** The smallest and largest value a reading may have, mm; beyond it is a slip. */
export function allowedRange(place: Place): readonly [number, number] {
  if (place.kind === 'floor') return [500, 20_000];
  if (place.kind === 'station')
    return place.what === 'x'
      ? [-200, 20_000]
      : place.what === 'roof'
        ? [300, 5000]
        : place.what === 'width'
          ? [200, 4000]
          : [50, 2500];
  if (place.kind === 'rib') return place.what === 'x' ? [-200, 20_000] : [0, 400];
  if (place.kind === 'arch')
    return place.what === 'height' ? [10, 1500] : place.what === 'face' ? [50, 2000] : [-200, 20_000];
  return [-3000, 20_000];
}
