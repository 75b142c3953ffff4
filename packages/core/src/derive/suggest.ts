import { z } from 'zod';
import { idSchema } from '../document/schema-base.js';
import { endOf, frontLineOf } from '../document/body.js';
import { applyOperationIn, OperationError } from '../document/editing.js';
import type { Operation } from '../document/operation.js';
import type { Layout, PriceBook, Project, Thing, Unit } from '../document/schema.js';
import { familyNamed } from '../document/kit.js';
import { thingsOf } from '../document/layout-changes.js';
import { freeUnitId, type Family, type Gap } from '../furniture/family.js';
import { besideOnTray, deepForSlides, slidesFor } from '../furniture/fronts.js';
import { offeredIn } from '../layout/gap-offers.js';
import { gapsOf } from '../layout/gaps.js';
import { lyingPlaces } from '../layout/lying.js';
import { seededRandom } from '../numeric/random.js';
import { message, type Message } from '../words/message.js';
import { layoutFigures, type LayoutFigures } from './compare-layouts.js';
import { createDeriver } from './derive.js';
import { DERIVE_KIT, type DeriveKit } from './kit.js';
import { mendAll } from './mend-all.js';
import { sceneOf } from './scene-of.js';

const weight = z.number().min(0).max(10).default(1);
/** What has to be in, and what is wished for: families by their ids, each as often as it is named; things by theirs. */
export const wishesSchema = z.strictObject({
  must: z.array(idSchema).min(1).max(20),
  /** Things that have to be in a bay. */
  things: z.array(idSchema).max(20).default([]),
  /** How much each wish weighs: 0 not at all. */
  weights: z
    .strictObject({ storage: weight, worktop: weight, way: weight, glass: weight, comfort: weight })
    .default({ storage: 1, worktop: 1, way: 1, glass: 1, comfort: 1 }),
});
export type Wishes = z.output<typeof wishesSchema>;

/** One arrangement that passes every hard rule. */
export interface Proposal {
  readonly layout: Layout;
  readonly figures: LayoutFigures;
  readonly score: number;
  /** What was wished for and is not in it: sleepers without a berth, things without a place. */
  readonly without: readonly Message[];
  /** What it gave up against the best of the others. */
  readonly gaveUp: readonly Message[];
}

export interface Suggested {
  readonly proposals: readonly Proposal[];
  readonly tried: number;
  /** Why arrangements were given up, by rule, most often first: its short name, what it says, how often. */
  readonly lost: readonly { readonly rule: string; readonly said: Message; readonly count: number }[];
}

export interface SuggestOptions {
  readonly seed: number;
  /** So many arrangements are built; the same seed and steps give the same answer. */
  readonly steps: number;
  readonly want?: number;
}

/** Mends are looked for in so many ways for one arrangement. */
const MENDS = 40;
/** Bays that hold things are no narrower than this, mm. */
const REST_MM = 250;

/** Left behind the deepest thing of a run for the gap at the wall, mm. */
const BEHIND_MM = 10;
/** What opens by a lid slides out on a tray. */
const onTray = (thing: Thing): boolean => thing.opens === 'lid';
const wideFor = (thing: Thing, thick: number): number =>
  thing.width + 2 * (onTray(thing) ? besideOnTray(thing, thick) : thing.clear.side);
/** How deep a bay has to be for a thing: on a tray as its slides are stocked. */
function deepFor(thing: Thing, thick: number, book: PriceBook): number {
  const own = thing.depth + thing.clear.back;
  const slides = onTray(thing) ? slidesFor(thing, thick, book) : null;
  return slides === null ? own : Math.max(own, deepForSlides(slides));
}
const neededLength = (things: readonly Thing[], thick: number): number =>
  things.reduce((sum, thing) => sum + wideFor(thing, thick) + thick, thick);

/** A run whose bays hold the things that have to be in, with drawers in what is left. */
function withThings(unit: Unit, gap: Gap, things: readonly Thing[], thick: number, book: PriceBook): Unit {
  const { body } = unit;
  if (things.length === 0 || body.stands === 'across' || body.stands === 'free') return unit;
  const needs = neededLength(things, thick);
  const rest = unit.body.length - needs - thick > REST_MM;
  const deepest = Math.max(...things.map((thing) => deepFor(thing, thick, book)));
  return {
    ...unit,
    body: {
      ...body,
      length: Math.max(body.length, Math.ceil(needs)),
      // as deep as the deepest of them, where the way lets it
      front: Math.min(body.front, Math.floor(gap.wall - Math.min(gap.deep, deepest + BEHIND_MM + thick))),
    },
    division: {
      cut: 'along',
      divider: 'board',
      // the last of them has what is left where no drawers do
      sizes:
        rest || things.length === 1
          ? [...things.map((): 'as needed' => 'as needed'), { share: 1 }]
          : [...things.slice(1).map((): 'as needed' => 'as needed'), { share: 1 }],
      parts: [
        ...things.map((thing, i) => ({
          name: `bay-${i + 1}`,
          holds: onTray(thing)
            ? {
                kind: 'pull-out' as const,
                thing: thing.id,
                travel: Math.round(Math.min(deepest, thing.depth)),
                latch: true,
              }
            : { kind: 'thing' as const, thing: thing.id },
          front:
            thing.opens === 'lid' || thing.opens === 'door-left' || thing.opens === 'door-right'
              ? { kind: 'none' as const }
              : { kind: 'doors' as const, count: 1, latch: true },
        })),
        ...(rest || things.length === 1
          ? [
              {
                name: `bay-${things.length + 1}`,
                holds: { kind: 'drawers' as const, count: 3, latch: true },
                front: { kind: 'none' as const },
              },
            ]
          : []),
      ],
    },
  };
}

/** Where along and on which side its units stand, roughly: two layouts that share it are one arrangement. */
const signature = ({ units }: Layout, length: number): string =>
  units
    .map(
      (unit) => `${unit.family}:${unit.body.stands}:${Math.round((3 * (unit.body.x + unit.body.length / 2)) / length)}`,
    )
    .sort()
    .join(' ');
/** In how many units two signatures differ. */
const apart = (a: string, b: string): number => {
  const other = b.split(' ');
  return a.split(' ').filter((part) => {
    const at = other.indexOf(part);
    if (at >= 0) other.splice(at, 1);
    return at < 0;
  }).length;
};

/** So much of a score is each unit worth that stands somewhere else than in another proposal, and of so many at most. */
const UNLIKE = 0.06;
const UNLIKE_UNITS = 4;
/** How often a run that things are built into is set before what is no bed, as a share. */
const HOLDING_FIRST = 0.75;

/** A project with another layout in the place of its own, and with nothing left that spoke of units that are not in it. */
export function withLayout(project: Project, layout: Layout): Project {
  const there = (unit: string | null | undefined): boolean => layout.units.some(({ id }) => id === unit);
  const gone = new Set(project.layout.units.map(({ id }) => id).filter((id) => !there(id)));
  // a piece of the lining is named after its surface
  const stands = (part: string): boolean => !gone.has(part.split('.')[0] ?? '');
  return {
    ...project,
    layout,
    stored: (project.stored ?? []).map((one) => (there(one.kept?.unit) ? one : { ...one, kept: null })),
    wishes: (project.wishes ?? []).map((wish) => (there(wish.unit) ? wish : { ...wish, unit: null })),
    waits: project.waits.filter(({ part }) => stands(part)),
    scribes: project.scribes.filter(({ part }) => stands(part)),
    patterns: project.patterns.map((pattern) => ({
      ...pattern,
      made: pattern.made.filter(({ part }) => stands(part)),
    })),
  };
}

/** Somewhere on the floor: where an animal is laid before there is a better place, mm. */
const MIDDLE_MM = 1000;

/** What takes a proposal in the place of the layout that stands: what is said of its units elsewhere goes with them. */
export const takeProposal = (project: Project, { units, dens = [] }: Layout): readonly Operation[] => [
  ...project.layout.units.map(({ id }): Operation => ({ name: 'removeUnit', payload: { id } })),
  ...units.map((unit): Operation => ({ name: 'placeUnit', payload: { unit } })),
  ...dens.map((den): Operation => ({ name: 'layPet', payload: den })),
];

/** A score from figures and weights: each figure against what is usual. */
export function scoreOf(figures: LayoutFigures, { weights }: Pick<Wishes, 'weights'>): number {
  const { storage, comfort } = figures;
  const least = comfort.length === 0 ? 0 : Math.min(...comfort.map(({ spare }) => spare));
  return (
    weights.storage * Math.min(1, (storage.low + storage.middle + storage.high) / 1000) +
    weights.worktop * Math.min(1, figures.worktop / 1500) +
    weights.way * Math.min(1, (figures.way ?? 800) / 800) +
    weights.glass * (figures.glass ?? 1) +
    weights.comfort * Math.min(1, Math.max(-1, least / 200)) -
    0.03 * figures.tight
  );
}

/** Who has nowhere to lie in a layout that was to have beds, and what of the things asked for stands nowhere. */
export function withoutOf(
  layout: Pick<Layout, 'units'>,
  people: Project['people'],
  asked: readonly Thing[],
  beds: boolean,
  kit: DeriveKit = DERIVE_KIT,
): Message[] {
  const lie = new Set(lyingPlaces(layout.units, kit.families).flatMap(({ sleepers }) => sleepers));
  const stand = new Set(layout.units.flatMap((unit) => thingsOf(unit, kit)));
  return [
    ...(beds ? people.filter(({ id }) => !lie.has(id)).map(({ name }) => message('gave.sleeper', { who: name })) : []),
    ...asked.filter(({ id }) => !stand.has(id)).map(({ name }) => message('gave.thing', { thing: name })),
  ];
}

/** What a proposal has less of than the best of the others, where that is much. */
function gaveUpOf(own: LayoutFigures, others: readonly LayoutFigures[]): Message[] {
  const litres = ({ storage }: LayoutFigures): number => storage.low + storage.middle + storage.high;
  const best = (of: (figures: LayoutFigures) => number): number => Math.max(...others.map(of));
  const said: Message[] = [];
  if (best(litres) > litres(own) * 1.15 + 20)
    said.push(message('gave.storage', { litres: Math.round(best(litres) - litres(own)) }));
  if (best(({ worktop }) => worktop) > own.worktop + 150)
    said.push(message('gave.worktop', { by: { mm: best(({ worktop }) => worktop) - own.worktop } }));
  if (best(({ way }) => way ?? 0) > (own.way ?? 0) + 60)
    said.push(message('gave.way', { by: { mm: best(({ way }) => way ?? 0) - (own.way ?? 0) } }));
  if (best(({ glass }) => glass ?? 1) > (own.glass ?? 1) + 0.15)
    said.push(message('gave.glass', { share: Math.round(100 * (best(({ glass }) => glass ?? 1) - (own.glass ?? 1))) }));
  return said;
}

/**
 * Searches for arrangements of what has to be in, on this very shell: units are set into free stretches one after the other,
 * drawn by chance and by how well they fit; what fails is mended or given up. The proposals differ in at least two units.
 * Tells what it has after each arrangement, so that it can be stopped where it is.
 */
export function* suggestSearch(
  project: Project,
  book: PriceBook,
  wishes: Wishes,
  { seed, steps, want = 5 }: SuggestOptions,
  kit: DeriveKit = DERIVE_KIT,
): Generator<Suggested, void> {
  const random = seededRandom(seed);
  const deriver = createDeriver(kit);
  // whoever lay in a bay that is not there any more lies on the floor, and is moved to where there is room
  const dens = (project.layout.dens ?? []).map((den) =>
    'unit' in den.at ? { pet: den.pet, at: { x: MIDDLE_MM, y: 0, turned: false } } : den,
  );
  const empty = withLayout(project, { units: [], modes: [], aside: [], dens });
  // the linings and the floor are worked out once; they are nothing to the rules
  void deriver.pull(project, book).parts;
  const things = (project.things ?? []).filter(({ id }) => wishes.things.includes(id));
  const lost = new Map<string, { readonly said: Message; count: number }>();
  let found: (Proposal & { readonly signature: string })[] = [];
  const families = wishes.must.flatMap((id) => familyNamed(kit.families, id) ?? []);
  const bed = (family: Family): boolean => family.lies !== undefined;
  let tried = 0;
  const give = (rule: string, said: Message): void => {
    const before = lost.get(rule);
    if (before) before.count += 1;
    else lost.set(rule, { said, count: 1 });
  };
  const noRoomForThings = (): void => give('no-room:things', message('suggest.noRoomThings'));
  const titles = new Map(
    [...kit.rules, ...kit.families.flatMap(({ rules }) => rules)].map(({ rule }) => [rule.name, rule.title]),
  );
  const start = (at: Project, family: Family, room: Parameters<Family['start']>[0]['room']) => {
    const { id, number } = freeUnitId(at.layout.units, family.words.noun);
    return {
      id,
      name: number === 1 ? family.words.start : `${family.words.start} ${number}`,
      layout: at.layout,
      people: at.people,
      room,
      book,
    };
  };

  /** The best, then again and again the one that is good and most unlike those that are taken already; the best first. */
  const unlike = (): typeof found => {
    const [first, ...others] = [...found].sort((a, b) => b.score - a.score);
    const taken = first ? [first] : [];
    const worth = (one: (typeof found)[number]): number =>
      one.score + UNLIKE * Math.min(UNLIKE_UNITS, ...taken.map(({ signature: other }) => apart(one.signature, other)));
    while (taken.length < want && others.length > 0) {
      const next = others.reduce((best, one) => (worth(one) > worth(best) ? one : best));
      taken.push(...others.splice(others.indexOf(next), 1));
    }
    return taken.sort((a, b) => b.score - a.score);
  };

  const told = (): Suggested => {
    const best = unlike();
    return {
      proposals: best.map(({ layout, figures, score }) => ({
        layout,
        figures,
        score,
        without: withoutOf(layout, project.people, things, families.some(bed), kit),
        gaveUp: gaveUpOf(
          figures,
          best.map((other) => other.figures),
        ),
      })),
      tried,
      lost: [...lost].map(([rule, { said, count }]) => ({ rule, said, count })).sort((a, b) => b.count - a.count),
    };
  };

  /** One arrangement, or null where something does not go in any more. */
  const build = (): Project | null => {
    let at = empty;
    const others = shuffled(
      families.filter((family) => !bed(family)),
      random,
    );
    // what has to hold the most is mostly set before the rest takes its room
    const holding = things.length > 0 && random() < HOLDING_FIRST ? others.find(({ worksAt }) => worksAt) : undefined;
    const order = [
      ...families.filter(bed),
      ...(holding ? [holding] : []),
      ...others.filter((family) => family !== holding),
    ];
    let toPlace = things;
    for (const family of order) {
      const shape = deriver.pull(at, book, true);
      const scene = sceneOf(
        at,
        { inner: shape.inner, arches: shape.arches, made: shape.made, runs: shape.runs },
        book,
        kit.families,
      );
      if (!scene) return null;
      const begin = start(at, family, scene.inner);
      const gaps = [...gapsOf(scene)];
      const thick = 15;
      const holds = family.worksAt !== undefined && toPlace.length > 0;
      const least = holds ? neededLength(toPlace, thick + 3) : 0;
      const offers = gaps.flatMap((gap) => {
        if (gap.x1 - gap.x0 < least) return [];
        const offer = offeredIn(family, gap, begin, scene);
        return offer ? [{ gap, ...offer }] : [];
      });
      if (offers.length === 0) {
        if (holds) noRoomForThings();
        else give(`no-room:${family.id}`, message('suggest.noRoom', { name: family.words.name }));
        return null;
      }
      const total = offers.reduce((sum, { fits }) => sum + fits, 0);
      let pick = random() * total;
      const chosen = offers.find(({ fits }) => (pick -= fits) <= 0) ?? offers[0];
      if (!chosen) return null;
      let unit = slid(chosen.unit, chosen.gap, random);
      if (family.worksAt?.(unit) === true && toPlace.length > 0) {
        const board = book.items.find(({ id }) => id === unit.materials['carcass'])?.thickness ?? thick;
        unit = withThings(unit, chosen.gap, toPlace, board, book);
        toPlace = [];
        if (unit.body.length > chosen.gap.x1 - chosen.gap.x0) {
          noRoomForThings();
          return null;
        }
        unit = slid({ ...unit, body: { ...unit.body, x: chosen.gap.x0 } }, chosen.gap, random);
      }
      const operation: Operation = { name: 'placeUnit', payload: { unit } };
      try {
        at = applyOperationIn(at, operation, { kit, book }).project;
      } catch (problem) {
        if (!(problem instanceof OperationError)) throw problem;
        give(problem.said.key, problem.said);
        return null;
      }
    }
    if (toPlace.length > 0) {
      noRoomForThings();
      return null;
    }
    return at;
  };

  while (tried < steps && found.length < want * 4) {
    tried += 1;
    const built = build();
    if (built) {
      const mended = mendAll(built, book, kit, { deriver, most: MENDS });
      for (const { rule, said } of mended.left) {
        const title = titles.get(rule);
        give(rule, title === undefined ? said : message('suggest.rule', { title }));
      }
      const made = mended.project;
      const now = deriver.pull(made, book, true);
      // what of the linings cannot be made is nothing to the furniture
      const own = now.problems.filter(({ place }) =>
        made.layout.units.some(({ id }) => place === id || place.startsWith(`${id}.`)),
      );
      for (const { said } of own.slice(0, 1)) give(said.key, said);
      if (mended.left.length === 0 && own.length === 0) {
        const figures = layoutFigures(made, now, kit, book);
        const sign = signature(made.layout, now.inner?.length ?? 1);
        const score = scoreOf(figures, wishes);
        const proposal = { layout: made.layout, figures, score, without: [], gaveUp: [], signature: sign };
        // of those that are nearly the same the best stays
        const near = found.filter(({ signature: other }) => apart(sign, other) < 2);
        if (near.every((other) => other.score < score)) {
          found = found.filter((other) => !near.includes(other));
          found.push(proposal);
        }
      }
    }
    yield told();
  }
  if (tried === 0) yield told();
}

function shuffled<T>(list: readonly T[], random: () => number): T[] {
  const left = [...list];
  const out: T[] = [];
  while (left.length > 0) out.push(...left.splice(Math.floor(random() * left.length), 1));
  return out;
}

/** A unit moved along within its gap: to its front, its rear, or somewhere between; whole centimetres. */
function slid(unit: Unit, gap: Gap, random: () => number): Unit {
  const room = gap.x1 - gap.x0 - unit.body.length;
  if (room <= 0 || frontLineOf(unit) === null) return unit;
  const by = [0, room, Math.floor((random() * room) / 10) * 10][Math.floor(random() * 3)] ?? 0;
  const x = gap.x0 + by;
  return endOf(unit) + by > gap.x1 + 1 ? unit : { ...unit, body: { ...unit.body, x } };
}
