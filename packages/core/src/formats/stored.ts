import type { z } from 'zod';
import { migrateProject, versionOf } from '../document/migrate/index.js';
import { PROJECT_VERSION, projectSchema, type PriceBook, type Project } from '../document/schema.js';
import type { Fault } from '../document/soundness.js';
import { renamedParts } from '../derive/part-names.js';
import { faultsIn } from '../furniture/kit.js';
import { message, type Message } from '../words/message.js';

/** A stored document as it can be opened. */
export interface Opened {
  /** Null when it is so unsound that nothing can be worked out from it; it is kept as it is then. */
  readonly project: Project | null;
  /** The version it was written in; null when it says none. */
  readonly from: number | null;
  /** What was put right on the way, one line each. */
  readonly repaired: readonly Message[];
  /** What is not sound and could not be put right, with its place. */
  readonly faults: readonly Fault[];
}

type Raw = Record<string, unknown>;
const isRaw = (value: unknown): value is Raw => typeof value === 'object' && value !== null && !Array.isArray(value);

/** Most readings that one place keeps. */
const MOST_READINGS = 50;

/** The newest readings of a place that was read too often; the oldest are let go. */
function fewerReadings(raw: Raw, said: Message[]): Raw {
  const survey = raw['survey'];
  const readings = isRaw(survey) ? survey['readings'] : null;
  if (!isRaw(survey) || !isRaw(readings)) return raw;
  const kept = Object.fromEntries(
    Object.entries(readings).map(([address, list]) => {
      if (!Array.isArray(list) || list.length <= MOST_READINGS) return [address, list as unknown];
      said.push(message('stored.readings', { address, count: list.length - MOST_READINGS }));
      return [address, list.slice(-MOST_READINGS) as unknown];
    }),
  );
  return { ...raw, survey: { ...survey, readings: kept } };
}

/** A second thing of the same id gets an id of its own: both were entered, neither is thrown away. */
function ownIds(list: unknown, place: string, said: Message[]): unknown {
  if (!Array.isArray(list)) return list;
  const seen = new Set<string>();
  return list.map((item: unknown): unknown => {
    if (!isRaw(item) || typeof item['id'] !== 'string') return item;
    const id = item['id'];
    let own = id;
    for (let i = 2; seen.has(own); i += 1) own = `${id}-${i}`.slice(-60);
    seen.add(own);
    if (own !== id) said.push(message('stored.twice', { place, id, own }));
    return own === id ? item : { ...item, id: own };
  });
}

const LISTS = [
  'people',
  'comfort',
  'offcuts',
  'waste',
  'reserved',
  'headers',
  'corners',
  'fittings',
  'floorHatches',
  'scribes',
  'patterns',
  'buildUpVariants',
  'variants',
  'things',
  'stored',
  'wishes',
];
const SURVEY_LISTS = ['stations', 'ribs', 'arches', 'openings', 'keepOuts', 'penetrations', 'angles', 'found'];

function uniqueIds(raw: Raw, said: Message[]): Raw {
  const within = (of: Raw, lists: readonly string[], under: string): Raw => ({
    ...of,
    ...Object.fromEntries(
      lists.filter((name) => name in of).map((name) => [name, ownIds(of[name], `${under}${name}`, said)]),
    ),
  });
  const top = within(raw, LISTS, '');
  const { survey, layout, buildUps } = top;
  return {
    ...top,
    ...(isRaw(survey) ? { survey: within(survey, SURVEY_LISTS, 'survey.') } : {}),
    ...(isRaw(layout) ? { layout: within(layout, ['units', 'modes'], 'layout.') } : {}),
    ...(isRaw(buildUps) ? { buildUps: within(buildUps, Object.keys(buildUps), 'buildUps.') } : {}),
  };
}

/** What speaks of somebody or something that is gone no longer does. */
function withoutDangling(project: Project, said: Message[]): Project {
  const people = new Set(project.people.map((person) => person.id));
  const arches = new Set(project.survey.arches.map((arch) => arch.id));
  const units = project.layout.units.map((unit) => {
    const { sleepers } = unit.options;
    if (!Array.isArray(sleepers) || sleepers.every((id) => people.has(id))) return unit;
    said.push(message('stored.sleepers', { unit: unit.name }));
    return { ...unit, options: { ...unit.options, sleepers: sleepers.filter((id) => people.has(id)) } };
  });
  const boxed = project.boxes.arches.filter((id) => arches.has(id));
  if (boxed.length < project.boxes.arches.length) said.push(message('stored.arches'));
  const { profile, stations } = project.survey;
  const lost = profile.station !== null && !stations.some((station) => station.id === profile.station);
  if (lost) said.push(message('stored.profile'));
  return {
    ...project,
    layout: { ...project.layout, units },
    boxes: { ...project.boxes, arches: boxed },
    survey: lost ? { ...project.survey, profile: { ...profile, station: null } } : project.survey,
  };
}

const firstFault = (error: z.ZodError): Fault => {
  const issue = error.issues[0];
  const place = ['project', ...(issue?.path ?? [])].map(String).join('.');
  return { place, said: message('format.field', { place, why: (issue?.message ?? '').replace(/\.$/, '') }) };
};

/**
 * Opens a document as the database has it: brought to the present version, and put right where that is plain. What an
 * older release left unsound beyond that is told with its place, and the document is given as far as it can be.
 * @param book its price book; a material that is not in it is told where it is used, and hinders nothing else
 */
export function openStored(raw: unknown, book: PriceBook): Opened {
  const from = versionOf(raw);
  const migrated = migrateProject(raw);
  if (!isRaw(migrated) || from === null || from > PROJECT_VERSION)
    return {
      project: null,
      from,
      repaired: [],
      faults: [{ place: 'project', said: message('stored.unknown', { version: from ?? '–' }) }],
    };
  const repaired: Message[] = [];
  const checked = projectSchema.safeParse(uniqueIds(fewerReadings(migrated, repaired), repaired));
  if (!checked.success) return { project: null, from, repaired: [], faults: [firstFault(checked.error)] };
  const whole = withoutDangling(checked.data, repaired);
  const project = from < PROJECT_VERSION ? renamedParts(whole, book) : whole;
  return { project, from, repaired, faults: faultsIn(project, book) };
}
