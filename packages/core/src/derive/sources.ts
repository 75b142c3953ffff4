import type { Hardware, Joint } from '../furniture/school.js';
import type { Scene, SeenOpening } from '../furniture/scene.js';
import type { Skeleton } from '../furniture/skeleton.js';
import type { MassPoint } from '../furniture/mass-point.js';
import type { MadeUnit } from '../furniture/make.js';
import type { RunsMade } from '../furniture/runs.js';
import type {
  Aside,
  BuildRecord,
  Found,
  Mode,
  Pet,
  PriceBook,
  Project,
  Run,
  Stored,
  Thing,
  Unit,
} from '../document/schema.js';
import type { Den } from '../document/unit-schema.js';
import type { ShoppingInput } from '../costing/shopping.js';
import type { Soft } from '../layout/soft.js';
import type { LinedFloor } from '../lining/floor/floor.js';
import type { FloorBattens } from '../lining/floor/floor-battens.js';
import type { Linings } from '../lining/linings.js';
import type { keptBack } from '../lining/floor/floor-holes.js';
import type { SurfaceModel } from '../measure/surface-model.js';
import type { FloorHoles } from '../lining/floor/left-out.js';
import type { pocketsOf } from '../layers/warnings.js';
import type { roofClashes } from '../shell/on-roof.js';
import type { openingProblems } from '../shell/openings.js';
import type { ribProblems } from '../shell/ribs.js';
import type { holeProblems } from './hole-problems.js';
import type { ArchResult } from '../shell/arch.js';
import type { ShellResult } from '../shell/build.js';
import type { Insets } from '../shell/inner.js';
import type { RoomFigures } from '../shell/room.js';
import type { Shell } from '../shell/shell.js';
import type { Task } from '../work/task.js';
import type { Derived, Problem } from './derived.js';
import type { Plans } from './plans.js';
import type { Shadows } from './shadows.js';

/** What everything is worked out from: what stands in the project and in the price book, part by part. */
export interface Given extends Pick<
  Project,
  | 'survey'
  | 'people'
  | 'layout'
  | 'measured'
  | 'fittings'
  | 'reserved'
  | 'headers'
  | 'corners'
  | 'linings'
  | 'boxes'
  | 'doorLining'
  | 'floorHatches'
  | 'settings'
  | 'waits'
  | 'keptPlans'
  | 'offcuts'
> {
  readonly units: Project['layout']['units'];
  readonly runsAsked: readonly Run[];
  readonly modesAsked: readonly Mode[];
  readonly aside: readonly Aside[];
  readonly dens: readonly Den[];
  readonly things: readonly Thing[];
  readonly stored: readonly Stored[];
  readonly pets: readonly Pet[];
  readonly limits: NonNullable<Project['limits']> | null;
  readonly curtains: readonly string[];
  readonly floorChoice: Project['floor'];
  readonly figures: NonNullable<Project['settings']['figures']>;
  readonly vehicle: Project['vehicle']['kind'];
  readonly buildUpsGiven: Project['buildUps'];
  readonly bookGiven: PriceBook;
  /** Whether mends are looked for: not while somebody has a unit in the hand. */
  readonly mending: boolean;
  readonly record: BuildRecord;
  /** ISO date; null where nobody says which day it is. */
  readonly today: string | null;
}

/** What is worked out on the way and read by other stages only. */
export interface Between {
  readonly book: PriceBook;
  readonly buildUps: Project['buildUps'];
  /** The survey without what was found. */
  readonly geometry: Project['survey'];
  readonly asked: Project['survey'];
  /** The settings without money, dates and the reader's units. */
  readonly making: Project['settings'];
  readonly step: number;
  readonly model: SurfaceModel;
  readonly built: ShellResult & { readonly room: RoomFigures | null };
  readonly found: ArchResult;
  readonly insets: Insets;
  readonly lining: { readonly shell: Shell | null; readonly room: RoomFigures | null };
  /** The shell that the floor reaches to. */
  readonly floorMeets: Shell | null;
  readonly shadowsOfUnits: Shadows;
  readonly shadows: Shadows['all'];
  readonly keptFree: ReturnType<typeof keptBack>;
  readonly floorHoles: FloorHoles;
  readonly floorCut: Pick<Project['floor'], 'direction' | 'cut'>;
  readonly floorLaid: LinedFloor;
  readonly battensLaid: FloorBattens | null;
  readonly linedRoom: Linings;
  readonly wiring: readonly Found[];
  readonly unitsMade: { readonly made: readonly MadeUnit[]; readonly runs: RunsMade };
  readonly skeletons: ReadonlyMap<string, Skeleton>;
  readonly softs: readonly Soft[];
  readonly massPoints: readonly MassPoint[];
  /** The same, or while a unit is in the hand those before it was taken up. */
  readonly masses: readonly MassPoint[];
  /** What each unit is called, by its id. */
  readonly unitNames: ReadonlyMap<string, string>;
  /** The units as rules see them: what they are called is put in afterwards. */
  readonly unnamed: readonly Unit[];
  readonly seen: readonly SeenOpening[];
  readonly scene: Scene | null;
  readonly checksUnnamed: Derived['checks'];
  readonly modesUnnamed: Derived['modes'];
  readonly planned: Plans;
  readonly floorFace: Derived['fixings'][number] | null;
  readonly pockets: ReturnType<typeof pocketsOf>;
  readonly openingFaults: ReturnType<typeof openingProblems>;
  readonly ribFaults: ReturnType<typeof ribProblems>;
  readonly roofFaults: ReturnType<typeof roofClashes>;
  readonly holeFaults: ReturnType<typeof holeProblems>;
  readonly shapeProblems: readonly Problem[];
  /** Of what is cut and screwed: not while a unit is dragged. */
  readonly madeProblems: readonly Problem[];
  readonly allProblems: readonly Problem[];
  readonly bowed: readonly string[];
  readonly joints: readonly Joint[];
  readonly hardware: readonly Hardware[];
  readonly thingsStanding: ShoppingInput['things'];
  readonly tasks: readonly Task[];
}

/** All that a stage can read. */
export interface Sources extends Given, Between, Derived {}
