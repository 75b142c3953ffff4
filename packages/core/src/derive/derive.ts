import type { BuildRecord, PriceBook, Project } from '../document/schema.js';
import type { MassPoint } from '../furniture/mass-point.js';
import type { FloorBattens } from '../lining/floor/floor-battens.js';
import type { LinedFloor } from '../lining/floor/floor.js';
import type { Linings } from '../lining/linings.js';
import type { Shell } from '../shell/shell.js';
import type { Derived, DerivedShape } from './derived.js';
import { DERIVE_KIT, type DeriveKit } from './kit.js';
import { pulled, settled, type Makers } from './lazy.js';
import {
  NO_ASIDE,
  NO_CURTAINS,
  NO_DENS,
  NO_FIGURES,
  NO_LAID,
  NO_MODES,
  NO_PETS,
  NO_STORED,
  NO_THINGS,
} from './scene-of.js';
import type { Given, Sources } from './sources.js';
import { remembered, type Stage } from './stage.js';
import { buyingStages } from './stages/buying.js';
import { furnitureStages } from './stages/furniture.js';
import { layerStages } from './stages/layers.js';
import { liningStages } from './stages/linings.js';
import { measureStages } from './stages/measure.js';
import { toldStages } from './stages/told.js';
import { workStages } from './stages/work.js';

/** Units are only moved: to try something out, or under somebody's hand. */
type Dragging = boolean | 'by-hand';
/** One deriver remembers the last result of each stage and works again only on what changed. */
export interface Deriver {
  /**
   * Everything that follows, each value worked out when it is first read. While units are moved to try something, linings
   * and floor may stay as they were; while somebody drags one, weights too: they follow when it is let go.
   */
  readonly pull: (project: Project, book: PriceBook, dragging?: Dragging) => Derived;
  /** As far as the parts and checks, as plain data. */
  readonly shape: (project: Project, book: PriceBook, dragging?: Dragging) => DerivedShape;
  /** The whole way, as plain data. */
  readonly derive: (project: Project, book: PriceBook) => Derived;
}

/** What a drag recomputes. */
export const SHAPE_KEYS = [
  'progress',
  'walk',
  'closures',
  'outliers',
  'shell',
  'assumed',
  'arches',
  'ribs',
  'depths',
  'inner',
  'bareRoom',
  'room',
  'checks',
  'subfloor',
  'floorBattens',
  'floor',
  'lined',
  'made',
  'runs',
  'runsBought',
  'lying',
  'parts',
  'problems',
  'missing',
] as const satisfies readonly (keyof DerivedShape)[];
const REST_KEYS = [
  'areas',
  'left',
  'warmth',
  'reveals',
  'fixings',
  'warnings',
  'cavities',
  'quality',
  'plans',
  'shopping',
  'mass',
  'weight',
  'modes',
  'schedule',
  'done',
] as const satisfies readonly Exclude<keyof Derived, keyof DerivedShape>[];
export const DERIVED_KEYS: readonly (keyof Derived)[] = [...SHAPE_KEYS, ...REST_KEYS];

const NO_RECORD: BuildRecord = { tasks: [], log: [] };

/** What a project and a price book give, part by part. */
const givenBy = (project: Project, book: PriceBook, dragging: Dragging, today: string | null): Given => ({
  survey: project.survey,
  people: project.people,
  layout: project.layout,
  units: project.layout.units,
  runsAsked: project.layout.runs ?? NO_LAID,
  modesAsked: project.layout.modes ?? NO_MODES,
  aside: project.layout.aside ?? NO_ASIDE,
  dens: project.layout.dens ?? NO_DENS,
  things: project.things ?? NO_THINGS,
  stored: project.stored ?? NO_STORED,
  pets: project.pets ?? NO_PETS,
  limits: project.limits ?? null,
  measured: project.measured,
  fittings: project.fittings,
  reserved: project.reserved,
  headers: project.headers,
  corners: project.corners,
  linings: project.linings,
  boxes: project.boxes,
  curtains: project.boxes.curtains ?? NO_CURTAINS,
  doorLining: project.doorLining,
  floorChoice: project.floor,
  floorHatches: project.floorHatches,
  settings: project.settings,
  figures: project.settings.figures ?? NO_FIGURES,
  vehicle: project.vehicle.kind,
  waits: project.waits,
  keptPlans: project.keptPlans,
  offcuts: project.offcuts,
  buildUpsGiven: project.buildUps,
  bookGiven: book,
  mending: dragging !== 'by-hand',
  record: project.record ?? NO_RECORD,
  today,
});

/** What rests while a unit is dragged: it is not remembered by what it reads, but by when it is let go. */
type Resting = Pick<Sources, 'floorBattens' | 'floor' | 'lined' | 'masses' | 'problems'>;
type Remembered = Omit<Sources, keyof Given | keyof Resting>;
type Readers = { readonly [Name in keyof Remembered]: (from: Sources) => Remembered[Name] };

/** All stages of one deriver, each with its own memory. */
function createReaders(kit: DeriveKit): Readers {
  const stages: {
    readonly [Name in keyof Remembered]: ((from: Sources) => Remembered[Name]) | Stage<Sources, Remembered[Name]>;
  } = {
    ...measureStages(),
    ...layerStages(kit),
    ...liningStages(),
    ...furnitureStages(kit),
    ...buyingStages(kit),
    ...toldStages(),
    ...workStages(kit),
  };
  return Object.fromEntries(
    Object.entries(stages).map(([name, stage]) => [
      name,
      remembered<Sources, unknown>(typeof stage === 'function' ? { work: stage } : (stage as Stage<Sources, unknown>)),
    ]),
  ) as Readers;
}

/**
 * Makes a deriver: readings -> shell -> inner shell -> units and linings -> parts -> cut plan -> shopping, mass, work.
 * @param today says which day it is, as an ISO date: nothing is planned before it; null where no day is today
 */
export function createDeriver(kit: DeriveKit = DERIVE_KIT, today: () => string | null = () => null): Deriver {
  const readers = createReaders(kit);
  const names = Object.keys(readers) as (keyof Remembered)[];
  let lastRoom: {
    readonly inner: Shell | null;
    readonly floor: LinedFloor;
    readonly lined: Linings;
    readonly battens: FloorBattens | null;
  } | null = null;
  let lastMasses: readonly MassPoint[] | null = null;

  const pull = (project: Project, book: PriceBook, dragging: Dragging = false): Derived => {
    // while a unit is dragged the linings stay as they were: they follow when it is let go
    const standing = (): typeof lastRoom => (dragging && lastRoom?.inner === now.inner ? lastRoom : null);
    const resting: Makers<Resting> = {
      floorBattens: () => (standing() ?? { battens: now.battensLaid }).battens,
      floor: () => standing()?.floor ?? now.floorLaid,
      lined: () => standing()?.lined ?? now.linedRoom,
      masses: () => {
        if (dragging !== 'by-hand' || !lastMasses) lastMasses = now.massPoints;
        return lastMasses;
      },
      problems: () => (dragging ? now.shapeProblems : now.allProblems),
    };
    const makers: Record<string, () => unknown> = { ...resting };
    for (const [name, value] of Object.entries(givenBy(project, book, dragging, today()))) makers[name] = () => value;
    for (const name of names) makers[name] = () => readers[name](now);
    makers['parts'] = () => {
      lastRoom = { inner: now.inner, floor: now.floor, lined: now.lined, battens: now.floorBattens };
      return readers.parts(now);
    };
    const now = pulled<Sources>(makers as unknown as Makers<Sources>);
    return now;
  };
  return {
    pull,
    shape: (project, book, dragging: Dragging = false) => settled(pull(project, book, dragging), SHAPE_KEYS),
    derive: (project, book) => settled(pull(project, book), [...SHAPE_KEYS, ...REST_KEYS]),
  };
}

/** Derives once, without memory. */
export function derive(
  project: Project,
  book: PriceBook,
  kit: DeriveKit = DERIVE_KIT,
  today: string | null = null,
): Derived {
  return createDeriver(kit, () => today).derive(project, book);
}
