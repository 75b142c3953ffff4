import type { z } from 'zod';
import { message, type Message } from '../words/message.js';
import { addressExists, parseAddress } from './address.js';
import { baysOf } from './body.js';
import { familyNamed, peopleOf, type DocumentKit, type UnitFamily } from './kit.js';
import { thingsOf } from './layout-changes.js';
import { projectSchema, type PriceBook, type Project } from './schema.js';
import type { Unit } from './unit-schema.js';
import { surfaceNamed } from './surfaces.js';

/** What is not as it has to be, and where in the document. */
export interface Fault {
  readonly said: Message;
  readonly place: string;
}
type Path = readonly (string | number)[];
export interface SoundContext {
  readonly kit: DocumentKit;
  readonly book: PriceBook | null;
}

const written = (path: readonly PropertyKey[]): string =>
  path
    .map((step) => (typeof step === 'number' ? `[${step}]` : `.${String(step)}`))
    .join('')
    .replace(/^\./, '');

/** A path as it is written in a file: `project.survey.ribs[3].id`. */
const placeOf = (path: readonly PropertyKey[]): string => written(['project', ...path]);

interface Shaped {
  readonly def: {
    readonly type: string;
    readonly shape?: Record<string, z.ZodType>;
    readonly element?: z.ZodType;
    readonly valueType?: z.ZodType;
    readonly keyType?: z.ZodType;
    readonly checks?: readonly {
      readonly _zod: { readonly def: { readonly check: string; readonly maximum?: number } };
    }[];
  };
}
const shapeOf = (schema: z.ZodType): Shaped => schema._zod as unknown as Shaped;

/** How many a list holds at most; null where it says nothing. */
const mostOf = (schema: z.ZodType): number | null =>
  shapeOf(schema).def.checks?.find(({ _zod }) => _zod.def.check === 'max_length')?._zod.def.maximum ?? null;

/**
 * The smallest piece of the document that a change touched, with its schema: objects, records and lists are entered as far
 * as the path goes and the piece is still there. What a list holds at most is looked at on the way.
 */
function touchedPiece(
  path: Path,
  value: unknown,
  schema: z.ZodType,
  at: Path = [],
): { readonly value: unknown; readonly schema: z.ZodType; readonly at: Path; readonly tooMany: number | null } {
  const { def } = shapeOf(schema);
  const [step, ...rest] = path;
  const most = mostOf(schema);
  if (Array.isArray(value) && most !== null && value.length > most) return { value, schema, at, tooMany: most };
  if (step === undefined || typeof value !== 'object' || value === null) return { value, schema, at, tooMany: null };
  const inside = (value as Record<string | number, unknown>)[step];
  const next =
    def.type === 'object'
      ? def.shape?.[step]
      : def.type === 'record'
        ? def.valueType
        : def.type === 'array' && typeof step === 'number'
          ? def.element
          : undefined;
  // a key of a record has a shape of its own
  if (def.type === 'record' && def.keyType && !def.keyType.safeParse(step).success)
    return { value, schema, at, tooMany: null };
  if (!next || inside === undefined) {
    // something was taken out, or the list's length changed: what is left was sound before
    const left =
      Array.isArray(value) || def.type === 'record' || (next && inside === undefined && def.type !== 'object');
    return left ? { value: null, schema: projectSchema, at, tooMany: null } : { value, schema, at, tooMany: null };
  }
  return touchedPiece(rest, inside, next, [...at, step]);
}

function shapeFaults(project: Project, touched: readonly Path[] | null): Fault[] {
  const fault = (path: readonly PropertyKey[], why: string): Fault => ({
    place: placeOf(path),
    said: message('format.field', { place: placeOf(path), why: why.replace(/\.$/, '') }),
  });
  if (touched === null) {
    const issue = projectSchema.safeParse(project).error?.issues[0];
    return issue ? [fault(issue.path, issue.message)] : [];
  }
  const seen = new Set<string>();
  return touched.flatMap((path): Fault[] => {
    const piece = touchedPiece(path, project, projectSchema);
    if (piece.tooMany !== null)
      return [
        { place: placeOf(piece.at), said: message('sound.tooMany', { place: placeOf(piece.at), most: piece.tooMany }) },
      ];
    const key = written(piece.at);
    if (piece.value === null && piece.schema === projectSchema) return [];
    if (seen.has(key)) return [];
    seen.add(key);
    const issue = piece.schema.safeParse(piece.value).error?.issues[0];
    return issue ? [fault([...piece.at, ...issue.path], issue.message)] : [];
  });
}

/** A list whose entries are told apart by a key, with its path. */
interface Keyed {
  readonly path: Path;
  readonly keys: () => readonly string[];
}

/** @param near the lists of which there are many are only listed where that says so */
function keyedLists(project: Project, near: Near): Keyed[] {
  const ids = (path: Path, list: readonly { readonly id: string }[]): Keyed => ({
    path,
    keys: () => list.map((item) => item.id),
  });
  const { survey } = project;
  return [
    ids(['survey', 'stations'], survey.stations),
    ids(['survey', 'ribs'], survey.ribs),
    ids(['survey', 'arches'], survey.arches),
    ids(['survey', 'openings'], survey.openings),
    ids(['survey', 'keepOuts'], survey.keepOuts),
    ids(['survey', 'penetrations'], survey.penetrations),
    ids(['survey', 'angles'], survey.angles),
    ids(['survey', 'found'], survey.found),
    ids(['survey', 'before', 'joints'], survey.before?.joints ?? []),
    { path: ['survey', 'before', 'overruled'], keys: () => (survey.before?.overruled ?? []).map(({ point }) => point) },
    ids(['people'], project.people),
    ids(['pets'], project.pets ?? []),
    ids(['layout', 'units'], project.layout.units),
    ids(['layout', 'modes'], project.layout.modes ?? []),
    { path: ['layout', 'aside'], keys: () => (project.layout.aside ?? []).map(({ check }) => check) },
    { path: ['layout', 'taped'], keys: () => (project.layout.taped ?? []).map(({ unit }) => unit) },
    ids(['layout', 'runs'], project.layout.runs ?? []),
    { path: ['layout', 'dens'], keys: () => (project.layout.dens ?? []).map(({ pet }) => pet) },
    ids(['variants'], project.variants ?? []),
    ...(project.variants ?? []).map((variant, i) => ids(['variants', i, 'layout', 'units'], variant.layout.units)),
    ids(['things'], project.things ?? []),
    ids(['stored'], project.stored ?? []),
    ids(['wishes'], project.wishes ?? []),
    ...eachNear(project.layout.units, ['layout', 'units'], near, (unit, i) => [
      { path: ['layout', 'units', i, 'division'], keys: () => baysOf(unit.division).map((bay) => bay.name) },
    ]),
    ...Object.entries(project.buildUps).map(([surface, layers]) => ids(['buildUps', surface], layers)),
    ids(['buildUpVariants'], project.buildUpVariants),
    ...project.buildUpVariants.flatMap((variant, i) =>
      Object.entries(variant.buildUps).map(([surface, layers]) =>
        ids(['buildUpVariants', i, 'buildUps', surface], layers),
      ),
    ),
    ids(['comfort'], project.comfort),
    { path: ['record', 'tasks'], keys: () => (project.record?.tasks ?? []).map(({ task }) => task) },
    ids(['record', 'log'], project.record?.log ?? []),
    ids(['offcuts'], project.offcuts),
    ids(['waste'], project.waste),
    ids(['reserved'], project.reserved),
    ids(['headers'], project.headers),
    ids(['corners'], project.corners),
    ids(['fittings'], project.fittings),
    ids(['floorHatches'], project.floorHatches),
    ids(['boxes', 'across'], project.boxes.across ?? []),
    ids(['scribes'], project.scribes),
    ids(['patterns'], project.patterns),
    { path: ['keptPlans'], keys: () => project.keptPlans.map((plan) => plan.material) },
    ...project.keptPlans.map((plan, i) => ids(['keptPlans', i, 'sheets'], plan.sheets)),
    { path: ['waits'], keys: () => project.waits.map((wait) => wait.part) },
    { path: ['measured'], keys: () => project.measured.map((item) => item.material) },
  ];
}

function doubleFaults(project: Project, near: Near): Fault[] {
  return keyedLists(project, near)
    .filter(({ path }) => near(path))
    .flatMap(({ path, keys: keysOf }): Fault[] => {
      const keys = keysOf();
      const seen = new Set<string>();
      const at = keys.findIndex((key) => seen.has(key) || !seen.add(key));
      const place = placeOf([...path, at]);
      return at < 0 ? [] : [{ place, said: message('format.duplicate', { place, id: keys[at] ?? '' }) }];
    });
}

/** Something that speaks of something else by its name. */
interface Reference {
  readonly path: Path;
  readonly id: string;
  readonly known: (id: string) => boolean;
}

/** A part of a unit is named after it; other parts belong to the vehicle. */
const unitOfPart = (part: string): string | null => (part.includes('.') ? (part.split('.')[0] ?? null) : null);

/** Everything that speaks of something else, in the places that are looked at. */
function references(project: Project, { kit, book }: SoundContext, near: Near = () => true): Reference[] {
  const at = (path: Path, of: () => Reference[]): Reference[] => (near(path) ? of() : []);
  const { survey, layout, boxes } = project;
  const has =
    (list: readonly { readonly id: string }[]) =>
    (id: string): boolean =>
      list.some((item) => item.id === id);
  const material = book ? has(book.items) : () => true;
  const person = has(project.people);
  const thing = has(project.things ?? []);
  const surface = (id: string): boolean => surfaceNamed(kit.surfaces, id) !== null;
  // in the layout that stands, or in one that is kept
  const anywhere = (id: string): boolean =>
    [layout, ...(project.variants ?? []).map((variant) => variant.layout)].some(({ units }) => has(units)(id));
  // a piece of the lining has no unit; what is cut of a unit that is gone stays cut
  const partKnown = (part: string): boolean => {
    const unit = unitOfPart(part);
    return unit === null || surface(unit) || unit === 'floor' || anywhere(unit);
  };
  const layers = (buildUps: Project['buildUps'], path: Path): Reference[] =>
    Object.entries(buildUps).flatMap(([id, list]) =>
      at([...path, id], () => [
        { path: [...path, id], id, known: surface },
        ...list.map((layer, i): Reference => ({
          path: [...path, id, i, 'material'],
          id: layer.material,
          known: material,
        })),
      ]),
    );
  return [
    ...layers(project.buildUps, ['buildUps']),
    ...project.buildUpVariants.flatMap((variant, i) => layers(variant.buildUps, ['buildUpVariants', i, 'buildUps'])),
    ...Object.keys(project.linings).map((id): Reference => ({ path: ['linings', id], id, known: surface })),
    ...eachNear(layout.units, ['layout', 'units'], near, (unit, i): Reference[] => [
      {
        path: ['layout', 'units', i, 'family'],
        id: unit.family,
        known: (id) => familyNamed(kit.families, id) !== null,
      },
      {
        path: ['layout', 'units', i, 'school'],
        id: unit.school,
        known: (id) => familyNamed(kit.families, unit.family)?.schools.includes(id) ?? false,
      },
      ...Object.entries(unit.materials).map(([role, id]) => ({
        path: ['layout', 'units', i, 'materials', role],
        id,
        known: material,
      })),
      ...peopleOf(unit, kit.families).map((id) => ({ path: ['layout', 'units', i, 'options'], id, known: person })),
      ...thingsOf(unit, kit).map((id) => ({ path: ['layout', 'units', i, 'division'], id, known: thing })),
    ]),
    ...(project.variants ?? []).flatMap((variant, k) =>
      at(['variants', k], () =>
        variant.layout.units.flatMap((unit, i) =>
          Object.entries(unit.materials).map(([role, id]): Reference => ({
            path: ['variants', k, 'layout', 'units', i, 'materials', role],
            id,
            known: material,
          })),
        ),
      ),
    ),
    ...(project.stored ?? []).flatMap((stored, i): Reference[] =>
      stored.kept ? [{ path: ['stored', i, 'kept', 'unit'], id: stored.kept.unit, known: anywhere }] : [],
    ),
    ...(layout.taped ?? []).map(({ unit }, i): Reference => ({
      path: ['layout', 'taped', i, 'unit'],
      id: unit,
      known: has(layout.units),
    })),
    ...(layout.dens ?? []).flatMap(({ pet, at }, i): Reference[] => [
      { path: ['layout', 'dens', i, 'pet'], id: pet, known: has(project.pets ?? []) },
      ...('unit' in at ? [{ path: ['layout', 'dens', i, 'at', 'unit'], id: at.unit, known: has(layout.units) }] : []),
    ]),
    ...(layout.runs ?? []).flatMap((run, i): Reference[] =>
      (['from', 'to'] as const).flatMap((end) => {
        const own = run[end];
        return own && 'unit' in own
          ? [{ path: ['layout', 'runs', i, end, 'unit'], id: own.unit, known: has(layout.units) }]
          : [];
      }),
    ),
    ...(project.wishes ?? []).flatMap((wish, i): Reference[] =>
      wish.unit === null ? [] : [{ path: ['wishes', i, 'unit'], id: wish.unit, known: anywhere }],
    ),
    ...(survey.profile.station === null
      ? []
      : [{ path: ['survey', 'profile', 'station'], id: survey.profile.station, known: has(survey.stations) }]),
    ...boxes.arches.map((id) => ({ path: ['boxes', 'arches'], id, known: has(survey.arches) })),
    ...project.corners.map((corner, i) => ({ path: ['corners', i, 'board'], id: corner.board, known: material })),
    ...project.measured.map((item, i) => ({ path: ['measured', i, 'material'], id: item.material, known: material })),
    ...project.offcuts.map((item, i) => ({ path: ['offcuts', i, 'material'], id: item.material, known: material })),
    ...project.keptPlans.map((item, i) => ({
      path: ['keptPlans', i, 'material'],
      id: item.material,
      known: material,
    })),
    ...project.waits.map((wait, i) => ({ path: ['waits', i, 'part'], id: wait.part, known: partKnown })),
    ...project.scribes.map((scribe, i) => ({ path: ['scribes', i, 'part'], id: scribe.part, known: partKnown })),
    ...project.patterns.flatMap((pattern, i) =>
      pattern.made.map((made, k) => ({
        path: ['patterns', i, 'made', k, 'part'],
        id: made.part,
        known: partKnown,
      })),
    ),
  ];
}

/** Materials that stand for something only once it is wanted: looked up when they are chosen, not while they lie unused. */
function choices(project: Project, { book }: SoundContext): Reference[] {
  if (!book) return [];
  const known = (id: string): boolean => book.items.some((item) => item.id === id);
  return [
    { path: ['boxes', 'board'], id: project.boxes.board, known },
    { path: ['boxes', 'trim'], id: project.boxes.trim, known },
    { path: ['floor', 'coat'], id: project.floor.coat, known },
  ];
}

function referenceFaults(list: readonly Reference[], near: Near): Fault[] {
  return list.flatMap(({ path, id, known }): Fault[] => {
    if (!near(path) || known(id)) return [];
    const place = placeOf(path);
    return [{ place, said: message('format.reference', { place, id }) }];
  });
}

function addressFaults(project: Project, near: Near): Fault[] {
  const { survey } = project;
  const exists = (address: string): boolean => {
    const place = parseAddress(address);
    return place !== null && addressExists(survey, place);
  };
  const all = [
    ...Object.keys(survey.readings).map((address) => ({ path: ['survey', 'readings', address], address })),
    ...survey.skipped.map((address, i) => ({ path: ['survey', 'skipped', i], address })),
    ...survey.extra.map((address, i) => ({ path: ['survey', 'extra', i], address })),
  ];
  return all
    .filter(({ path, address }) => near(path) && !exists(address))
    .map(({ path, address }) => ({
      place: placeOf(path),
      said: message('format.reference', { place: placeOf(path.slice(0, 2)), id: address }),
    }));
}

function unitFaults(project: Project, { kit, book }: SoundContext, near: Near, changed: boolean): Fault[] {
  return eachNear(project.layout.units, ['layout', 'units'], near, (unit, i): Fault[] => {
    const family = familyNamed(kit.families, unit.family);
    if (!family) return [];
    // what an earlier file has is opened, and said where it is made
    const other = changed ? noSheetIn(unit, family, book) : [];
    return [
      ...family.faults(unit).map((fault) => ({
        place: placeOf(['layout', 'units', i, ...fault.path]),
        said: fault.said,
      })),
      ...other.map(({ role, said }) => ({ place: placeOf(['layout', 'units', i, 'materials', role]), said })),
    ];
  });
}

/** Roles of a unit that ask for sheets and are given something else: a batten, foam, what is sold by the litre. */
export function noSheetIn(
  unit: Unit,
  family: Pick<UnitFamily, 'fields'>,
  book: PriceBook | null,
): { readonly role: string; readonly said: Message }[] {
  return family.fields.flatMap((field) => {
    const item = field.kind === 'sheet' ? book?.items.find(({ id }) => id === unit.materials[field.name]) : undefined;
    return !item || (item.stocks.length > 0 && item.group !== 'insulation')
      ? []
      : [
          {
            role: field.name,
            said: message('furniture.notSheet', { unit: unit.name, material: item.name }),
          },
        ];
  });
}

/** Whether a place was touched: it lies in what changed, or what changed lies in it. The place of an entry is its list's and its number. */
type Near = (path: Path, entry?: number) => boolean;

function isNear(path: Path, entry: number | undefined, touched: Path): boolean {
  const shared = Math.min(path.length, touched.length);
  for (let i = 0; i < shared; i += 1) if (path[i] !== touched[i]) return false;
  return entry === undefined || touched.length <= path.length || touched[path.length] === entry;
}
function nearOf(touched: readonly Path[] | null): Near {
  if (touched === null) return () => true;
  return (path, entry) => {
    for (let k = 0; k < touched.length; k += 1) if (isNear(path, entry, touched[k] as Path)) return true;
    return false;
  };
}

/** What is said of the entries of a list that were touched. */
function eachNear<T, Result>(
  list: readonly T[],
  path: Path,
  near: Near,
  of: (item: T, i: number) => readonly Result[],
): Result[] {
  const all: Result[] = [];
  if (near(path)) for (let i = 0; i < list.length; i += 1) if (near(path, i)) all.push(...of(list[i] as T, i));
  return all;
}

/** Whether something touched may leave what speaks of a list hanging. */
const leavesHanging = (touched: readonly Path[], when: Path, whole: boolean): boolean =>
  touched.some((path) => {
    if (path.some((step, k) => k < when.length && step !== when[k])) return false;
    const within = path.slice(when.length);
    return whole || within.length <= 1 || within[1] === 'id';
  });
/**
 * What a change of a list may leave hanging elsewhere: where something is put in, taken out or named otherwise; of what is
 * kept in whole whatever is changed of it.
 */
const HELD_BY: readonly { readonly when: Path; readonly then: readonly Path[]; readonly whole?: true }[] = [
  { when: ['people'], then: [['layout', 'units']] },
  { when: ['pets'], then: [['layout', 'dens']] },
  { when: ['survey', 'stations'], then: [['survey', 'profile', 'station']] },
  { when: ['survey', 'arches'], then: [['boxes', 'arches']] },
  {
    when: ['layout', 'units'],
    then: [
      ['waits'],
      ['scribes'],
      ['patterns'],
      ['stored'],
      ['wishes'],
      ['layout', 'taped'],
      ['layout', 'runs'],
      ['layout', 'dens'],
    ],
  },
  { when: ['things'], then: [['layout', 'units']] },
  { when: ['variants'], whole: true, then: [['waits'], ['scribes'], ['patterns'], ['stored'], ['wishes']] },
];

/**
 * What is not sound in a document: caps, shapes, double ids, references that lead nowhere, units outside their family's
 * limits. The same for what an operation leaves behind, for what is imported and for what is restored.
 * @param touched paths that a change touched; null to look at everything
 */
export function faultsOf(project: Project, context: SoundContext, touched: readonly Path[] | null): Fault[] {
  const shape = shapeFaults(project, touched);
  if (shape.length > 0) return shape;
  const near = nearOf(touched);
  const hanging = nearOf(
    touched && [
      ...touched,
      ...HELD_BY.filter(({ when, whole }) => leavesHanging(touched, when, whole === true)).flatMap(({ then }) => then),
    ],
  );
  return [
    ...doubleFaults(project, near),
    ...referenceFaults(references(project, context, hanging), hanging),
    ...(touched === null ? [] : referenceFaults(choices(project, context), near)),
    ...(touched === null || near(['survey']) ? addressFaults(project, near) : []),
    ...unitFaults(project, context, near, touched !== null),
  ];
}

/** Every material a project speaks of, chosen or used. */
export function materialsIn(project: Project, kit: DocumentKit): ReadonlySet<string> {
  const asked = new Set<string>();
  // a book without anything: whatever is looked up in it is a material
  const nothing: SoundContext = { kit, book: { currency: 'EUR', items: [] } };
  const plain = new Set(references(project, { kit, book: null }).filter(({ id, known }) => !known(id)));
  for (const { id, known } of [...references(project, nothing), ...choices(project, nothing)])
    if (!known(id) && ![...plain].some((other) => other.id === id)) asked.add(id);
  return asked;
}
