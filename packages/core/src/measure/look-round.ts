import { valueAt } from '../document/address.js';
import type { Operation } from '../document/operation.js';
import type { LookTopic, Project, Rough, Survey } from '../document/schema.js';
import { message, type Message } from '../words/message.js';

/** What can be pointed at in a look round, by what is asked. */
export const SEEN = {
  ribs: ['ring', 'rib'],
  openings: ['window', 'hinged-window', 'sliding-door', 'hinged-door', 'two-leaf-door', 'hatch', 'fan'],
  standing: ['arch', 'step', 'hump', 'pillar', 'duct'],
  under: ['tank', 'axle', 'exhaust', 'beam', 'cable'],
} as const satisfies Partial<Record<LookTopic, readonly string[]>>;
export type SeenTopic = keyof typeof SEEN;
export type Seen = (typeof SEEN)[SeenTopic][number];
export const LOOK_TOPICS: readonly LookTopic[] = ['ribs', 'openings', 'standing', 'under', 'people'];

/** Where something was seen. */
export type SeenOn = 'floor' | 'left' | 'right' | 'front' | 'rear' | 'ceiling';

/** Surfaces on which each can be: a hatch and a fan are in the roof, what lies beneath is under the floor. */
export function seenOn(seen: Seen): readonly SeenOn[] {
  switch (seen) {
    case 'ring':
      return ['left', 'right'];
    case 'rib':
      return ['left', 'right', 'floor', 'ceiling'];
    case 'window':
    case 'hinged-window':
      return ['left', 'right', 'rear', 'front'];
    case 'sliding-door':
    case 'hinged-door':
    case 'two-leaf-door':
      return ['left', 'right', 'rear', 'front'];
    case 'hatch':
    case 'fan':
      return ['ceiling'];
    default:
      return ['floor'];
  }
}

/** A free id of a prefix and a number. */
function freeId(prefix: string, list: readonly { readonly id: string }[]): string {
  const own = new RegExp(`^${prefix}(\\d+)$`);
  return `${prefix}${1 + Math.max(0, ...list.map(({ id }) => Number(own.exec(id)?.[1] ?? 0)))}`;
}

/** A name nobody else of the list has: the base, then with a number. */
function freeName(base: string, list: readonly { readonly name: string }[]): string {
  const taken = new Set(list.map(({ name }) => name));
  let number = 1;
  while (taken.has(`${base} ${number}`)) number += 1;
  return `${base} ${number}`;
}

const DOORS = {
  'sliding-door': { swing: 'slides', hand: 'rear' },
  'hinged-door': { swing: 'hinged', hand: 'front' },
  'two-leaf-door': { swing: 'pair', hand: 'none' },
} as const;

const FIXED = { swing: 'fixed', hand: 'none' } as const;
const OPENS_UP = { swing: 'hinged', hand: 'up' } as const;

const isDoor = (seen: Seen): seen is keyof typeof DOORS => seen in DOORS;
const isStanding = (seen: Seen): seen is (typeof SEEN.standing)[number] =>
  SEEN.standing.some((standing) => standing === seen);
const isUnder = (seen: Seen): seen is (typeof SEEN.under)[number] => SEEN.under.some((under) => under === seen);

/**
 * The operation that enters something seen: with what is usual of its kind (a side door slides to the rear, a rear door has
 * two leaves), and about where it was. The walk then asks for its readings.
 * @param base what such a thing is called; a number is put behind it
 * @param rough where it was pointed at; null where it was only counted
 */
export function seenOperation(survey: Survey, seen: Seen, on: SeenOn, rough: Rough | null, base: string): Operation {
  const about = rough === null ? {} : { rough };
  if (seen === 'ring' || seen === 'rib')
    return {
      name: 'putRib',
      payload: {
        rib: {
          id: freeId('r', survey.ribs),
          name: freeName(base, survey.ribs),
          on: seen === 'ring' ? 'ring' : on === 'ceiling' ? 'roof' : on === 'left' || on === 'right' ? on : 'floor',
          flat: false,
          ...about,
        },
      },
    };
  if (isStanding(seen))
    return {
      name: 'putArch',
      payload: {
        arch: {
          id: freeId('a', survey.arches),
          name: freeName(base, survey.arches),
          side: (rough?.along ?? -1) < 0 ? 'left' : 'right',
          kind: seen,
          shape: 'box',
          ...about,
        },
      },
    };
  if (isUnder(seen))
    return {
      name: 'putKeepOut',
      payload: {
        keepOut: {
          id: freeId('k', survey.keepOuts),
          name: freeName(base, survey.keepOuts),
          reason: seen,
          note: '',
          ...about,
        },
      },
    };
  return {
    name: 'putOpening',
    payload: {
      opening: {
        id: freeId('o', survey.openings),
        name: freeName(base, survey.openings),
        kind: isDoor(seen) ? 'door' : seen === 'hinged-window' ? 'window' : seen,
        surface: on === 'ceiling' || on === 'floor' ? 'roof' : on,
        cornerRadius: isDoor(seen) ? 0 : 60,
        ...(isDoor(seen) ? DOORS[seen] : seen === 'hinged-window' ? OPENS_UP : FIXED),
        slanted: false,
        framed: false,
        ring: null,
        ...about,
      },
    },
  };
}

/** What of a topic is entered. */
export function thereOf({ survey, people }: Pick<Project, 'survey' | 'people'>, topic: LookTopic): number {
  return {
    ribs: survey.ribs.length,
    openings: survey.openings.length,
    standing: survey.arches.length,
    under: survey.keepOuts.length,
    people: people.length,
  }[topic];
}

/** Topics nobody has answered: nothing of them is entered, and nobody has said that there is nothing. */
export const openTopics = (project: Pick<Project, 'survey' | 'people'>): readonly LookTopic[] =>
  LOOK_TOPICS.filter((topic) => thereOf(project, topic) === 0 && project.survey.looked?.[topic] === undefined);

/** Something that is not known, which stages it matters to, and what it means there. */
export interface Missing {
  readonly topic: LookTopic | 'doors' | 'unread';
  readonly stages: readonly ('layers' | 'layout')[];
  readonly said: Message;
}

/** Names longer than this are counted instead. */
const NAMED = 4;

/** What is entered but has no place yet: nothing keeps clear of it. */
function unread(survey: Survey): readonly string[] {
  const without = (kind: string, what: string, list: readonly { readonly id: string; readonly name: string }[]) =>
    list.flatMap(({ id, name }) => (valueAt(survey, `${kind}/${id}/${what}`) === null ? [name] : []));
  return [
    ...without('rib', 'x', survey.ribs),
    ...without('opening', 'from', survey.openings),
    ...without('arch', 'from', survey.arches),
    ...without('keepout', 'from', survey.keepOuts),
  ];
}

/**
 * What layers, layout and checks cannot know because nobody has looked or measured: no figure is wrong by it, but what is
 * good without it may be good by accident.
 */
export function stillMissing(project: Pick<Project, 'survey' | 'people'>): readonly Missing[] {
  const { survey } = project;
  const open = new Set(openTopics(project));
  const names = unread(survey);
  const doors = survey.openings.some(({ kind }) => kind === 'door');
  return [
    ...(open.has('ribs')
      ? [{ topic: 'ribs' as const, stages: ['layers'] as const, said: message('missing.ribs') }]
      : []),
    ...(open.has('openings')
      ? [
          {
            topic: 'openings' as const,
            stages: ['layers', 'layout'] as const,
            said: message('missing.openings'),
          },
        ]
      : doors
        ? []
        : [{ topic: 'doors' as const, stages: ['layout'] as const, said: message('missing.doors') }]),
    ...(open.has('standing')
      ? [{ topic: 'standing' as const, stages: ['layout'] as const, said: message('missing.standing') }]
      : []),
    ...(open.has('under')
      ? [{ topic: 'under' as const, stages: ['layers'] as const, said: message('missing.under') }]
      : []),
    ...(open.has('people')
      ? [{ topic: 'people' as const, stages: ['layers', 'layout'] as const, said: message('missing.people') }]
      : []),
    ...(names.length > 0
      ? [
          {
            topic: 'unread' as const,
            stages: ['layers', 'layout'] as const,
            said:
              names.length > NAMED
                ? message('missing.unreadMany', {
                    names: names.slice(0, NAMED).join(', '),
                    count: names.length - NAMED,
                  })
                : message('missing.unread', { names: names.join(', ') }),
          },
        ]
      : []),
  ];
}
