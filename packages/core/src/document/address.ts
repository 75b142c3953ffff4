import type { Opening, Side, Survey } from './schema.js';
import { message, mm, type Message } from '../words/message.js';

const FLOOR = ['length', 'diagonal-a', 'diagonal-b'] as const;
const STATION = ['x', 'rest', 'diagonal-a', 'diagonal-b'] as const;
const ALONG = ['left', 'right', 'width', 'roof'] as const;
const RIB = ['x', 'width', 'proud', 'from', 'to', 'high', 'x-high', 'width-high', 'foot'] as const;
const ARCH = ['from', 'to', 'height', 'face', 'bottom', 'far', 'top-face'] as const;
/** Corners of a frame, seen from inside the room: front or rear, low or high. */
export const FRAME_CORNERS = ['frame-front-low', 'frame-rear-low', 'frame-front-high', 'frame-rear-high'] as const;
const OPENING = [
  'from',
  'to',
  'sill',
  'head',
  'from-head',
  'to-head',
  ...FRAME_CORNERS,
  'corner',
  'diagonal-a',
  'diagonal-b',
] as const;
const KEEP_OUT = ['from', 'to', 'left', 'right'] as const;
const HOLE = ['x', 'along', 'size'] as const;
const LEVEL = ['along', 'across'] as const;
const ANGLE = ['raw', 'floor'] as const;

/**
 * The place a reading belongs to. Written as a path, for example `floor/length`, `station/s3/left/700`,
 * `station/s3/roof/-450`, `arch/a1/face`, `opening/w1/sill`, `hole/p1/along`, `level/along`, `angle/g1/raw`.
 * Everything is read in mm, but levels and angles in degrees.
 */
export type Place =
  | { readonly kind: 'floor'; readonly what: (typeof FLOOR)[number] }
  | { readonly kind: 'station'; readonly id: string; readonly what: (typeof STATION)[number] }
  | {
      readonly kind: 'station';
      readonly id: string;
      readonly what: (typeof ALONG)[number];
      readonly along: number;
    }
  | { readonly kind: 'rib'; readonly id: string; readonly what: (typeof RIB)[number] }
  | { readonly kind: 'arch'; readonly id: string; readonly what: (typeof ARCH)[number] }
  | { readonly kind: 'opening'; readonly id: string; readonly what: (typeof OPENING)[number] }
  | { readonly kind: 'keepout'; readonly id: string; readonly what: (typeof KEEP_OUT)[number] }
  | { readonly kind: 'hole'; readonly id: string; readonly what: (typeof HOLE)[number] }
  | { readonly kind: 'level'; readonly what: (typeof LEVEL)[number] }
  | { readonly kind: 'angle'; readonly id: string; readonly what: (typeof ANGLE)[number] };

/** A place on a wall or the roof of a station: it says where along the section it is. */
export type SectionPlace = Extract<Place, { along: number }>;

/** Whether a place is a reading of the section itself, not of where the station stands. */
export function isSectionPlace(place: Place | null): place is SectionPlace {
  return place !== null && 'along' in place;
}

function oneOf<const T extends string>(list: readonly T[], value: string | undefined): T | null {
  return list.find((item) => item === value) ?? null;
}

const THINGS = { rib: RIB, arch: ARCH, opening: OPENING, keepout: KEEP_OUT, hole: HOLE, angle: ANGLE } as const;
type ThingKind = keyof typeof THINGS;
const isThing = (kind: string): kind is ThingKind => Object.hasOwn(THINGS, kind);

/** Reads an address; null when it names nothing that can be measured. */
export function parseAddress(address: string): Place | null {
  const [kind = '', second = '', third, fourth, ...more] = address.split('/');
  if (more.length > 0) return null;
  if (kind === 'floor' || kind === 'level') {
    if (third !== undefined) return null;
    if (kind === 'level') {
      const what = oneOf(LEVEL, second);
      return what && { kind, what };
    }
    const what = oneOf(FLOOR, second);
    return what && { kind, what };
  }
  if (kind === 'station') {
    const whole = oneOf(STATION, third);
    if (whole) return fourth === undefined ? { kind, id: second, what: whole } : null;
    const what = oneOf(ALONG, third);
    const along = Number(fourth);
    return what && fourth !== undefined && fourth !== '' && Number.isFinite(along)
      ? { kind, id: second, what, along }
      : null;
  }
  if (!isThing(kind) || fourth !== undefined) return null;
  const what = oneOf<string>(THINGS[kind], third);
  return what === null ? null : ({ kind, id: second, what } as Place);
}

/** What a reading at a place is measured in. */
export function unitOf(place: Place): 'mm' | 'degrees' {
  return place.kind === 'level' || place.kind === 'angle' ? 'degrees' : 'mm';
}

/** Address of a wall reading at height `z` above the bare floor, mm. */
export const wallAddress = (stationId: string, side: Side, z: number): string => `station/${stationId}/${side}/${z}`;
/** Address of a roof reading at `y` from the centre line, right positive, mm. */
export const roofAddress = (stationId: string, y: number): string => `station/${stationId}/roof/${y}`;

/** The present value at an address: the last reading taken there; null when none was. */
export function valueAt(survey: Survey, address: string): number | null {
  return survey.readings[address]?.at(-1)?.value ?? null;
}

const LISTS: Readonly<Record<ThingKind | 'station', (survey: Survey) => readonly { id: string; name: string }[]>> = {
  station: (survey) => survey.stations,
  rib: (survey) => survey.ribs,
  arch: (survey) => survey.arches,
  opening: (survey) => survey.openings,
  keepout: (survey) => survey.keepOuts,
  hole: (survey) => survey.penetrations,
  angle: (survey) => survey.angles,
};

/** Whether the thing an address speaks of is part of the survey. */
export function addressExists(survey: Survey, place: Place): boolean {
  if (place.kind === 'floor' || place.kind === 'level') return true;
  return LISTS[place.kind](survey).some((thing) => thing.id === place.id);
}

/** How the plane of an opening is spoken of: its two directions differ between walls, ends and roof. */
const planeOf = (opening: Opening | undefined): 'wall' | 'rear' | 'roof' =>
  opening?.surface === 'roof' ? 'roof' : opening?.surface === 'rear' || opening?.surface === 'front' ? 'rear' : 'wall';

/** Says in words what is to be measured at an address. */
export function describeAddress(survey: Survey, address: string): Message {
  const place = parseAddress(address);
  if (!place) return message('place.unknown', { address });
  if (place.kind === 'floor') return message(`place.floor.${place.what}`);
  if (place.kind === 'level') return message(`place.level.${place.what}`);
  const name = LISTS[place.kind](survey).find((thing) => thing.id === place.id)?.name ?? place.id;
  switch (place.kind) {
    case 'station':
      if (!('along' in place)) return message(`place.station.${place.what}`, { name });
      if (place.what !== 'roof') return message(`place.station.${place.what}`, { name, z: mm(place.along) });
      if (place.along === 0) return message('place.station.roof', { name });
      return message(place.along < 0 ? 'place.station.roofLeft' : 'place.station.roofRight', {
        name,
        y: mm(Math.abs(place.along)),
      });
    case 'rib':
      return message(`place.rib.${place.what}`, { name });
    case 'arch': {
      const kind = survey.arches.find((arch) => arch.id === place.id)?.kind;
      return place.what === 'height' && kind === 'step'
        ? message('place.arch.depth', { name })
        : message(`place.arch.${place.what}`, { name });
    }
    case 'opening': {
      const { what } = place;
      if (what === 'from' || what === 'to' || what === 'sill' || what === 'head')
        return message(`place.opening.${planeOf(survey.openings.find((o) => o.id === place.id))}.${what}`, { name });
      return message(`place.opening.${what}`, { name });
    }
    case 'keepout': {
      const onRoof = survey.keepOuts.find((keepOut) => keepOut.id === place.id)?.on === 'roof';
      return onRoof && (place.what === 'from' || place.what === 'to')
        ? message(`place.keepout.roof.${place.what}`, { name })
        : message(`place.keepout.${place.what}`, { name });
    }
    case 'hole': {
      const surface = survey.penetrations.find((hole) => hole.id === place.id)?.surface;
      const upright = surface === 'left' || surface === 'right' || surface === 'rear';
      return place.what === 'along'
        ? message(upright ? 'place.hole.up' : 'place.hole.across', { name })
        : message(surface === 'rear' && place.what === 'x' ? 'place.hole.across' : `place.hole.${place.what}`, {
            name,
          });
    }
    case 'angle':
      return message(`place.angle.${place.what}`, { name });
  }
}

/** The smallest and largest value a reading may have, mm or degrees; beyond it is a slip. */
export function allowedRange(place: Place): readonly [number, number] {
  switch (place.kind) {
    case 'floor':
      return [500, 20_000];
    case 'level':
      return [-15, 15];
    case 'angle':
      return [-180, 180];
    case 'station':
      if (place.what === 'x' || place.what === 'rest') return [-200, 20_000];
      if (place.what === 'roof') return [300, 5000];
      if (place.what === 'left' || place.what === 'right') return [50, 2500];
      return [200, 6000];
    case 'rib':
      if (place.what === 'width' || place.what === 'width-high' || place.what === 'foot') return [0, 400];
      return place.what === 'proud' ? [0, 400] : [-3000, 20_000];
    case 'arch':
      if (place.what === 'height') return [10, 3000];
      if (place.what === 'face' || place.what === 'far' || place.what === 'top-face') return [0, 2500];
      return [-200, 20_000];
    case 'opening':
      if (place.what === 'corner') return [0, 400];
      return place.what.startsWith('frame') ? [-100, 400] : [-3000, 20_000];
    case 'keepout':
      return [-3000, 20_000];
    case 'hole':
      return place.what === 'size' ? [1, 1000] : [-3000, 20_000];
  }
}
