import {
  PROJECT_FORMAT,
  PROJECT_VERSION,
  type BoxChoice,
  type FloorChoice,
  type LiningChoice,
  type Project,
  type Settings,
  type Survey,
} from './schema.js';

export type VehicleKind = Project['vehicle']['kind'];

interface SurveyPlan {
  readonly stations: number;
  /** Number of the station that is read at more heights. */
  readonly profile: number;
  readonly heights: readonly number[];
  readonly roofOffsets: readonly number[];
  readonly profileHeights: readonly number[];
  readonly profileRoof: readonly number[];
}

/** Where a survey of each kind of vehicle begins: how many stations, at which heights, where across the roof. mm */
const SURVEY_PLAN: Readonly<Record<VehicleKind, SurveyPlan>> = {
  van: {
    stations: 6,
    profile: 3,
    heights: [0, 900],
    roofOffsets: [0],
    profileHeights: [450, 1350, 1650],
    profileRoof: [-500, 500],
  },
  bus: {
    stations: 6,
    profile: 3,
    heights: [0, 850, 1650],
    roofOffsets: [0],
    profileHeights: [280, 560, 1100, 1350],
    profileRoof: [-700, 700],
  },
  trailer: {
    stations: 4,
    profile: 2,
    heights: [0, 900, 1700],
    roofOffsets: [0],
    profileHeights: [],
    profileRoof: [-500, 500],
  },
};

export interface NewProject {
  readonly id: string;
  readonly name: string;
  readonly kind: VehicleKind;
  readonly model: string;
  readonly units: Settings['units'];
  /** ISO date on which work may begin. */
  readonly startDate: string;
}

/** The settings a project starts with. */
export function startSettings(units: Settings['units'], startDate: string): Settings {
  return {
    units,
    fraction: 16,
    budget: 0,
    startDate,
    hoursPerDay: 6,
    workTemperature: 15,
    floorClearance: 5,
    floorCornerRadius: 20,
    floorMeets: 'lining',
    wasteShare: 0.1,
    hourValue: 0,
    climate: { inside: 18, outside: -5, humidity: 60 },
    floorBattens: { spacing: 400, clearance: 40 },
    cutting: {
      kerf: 2.4,
      trim: 10,
      smallestOffcut: 150,
      method: 'guillotine',
      carry: { mass: 25, length: 2000 },
      car: { length: 2400, width: 1100 },
    },
  };
}

/** What a survey has besides its plan, its things and its readings, with nothing in it. */
export function emptySurveyParts(): Pick<
  Survey,
  'boxed' | 'reference' | 'profile' | 'goal' | 'keepOuts' | 'penetrations' | 'angles' | 'found' | 'leakTest' | 'extra'
> {
  return {
    boxed: false,
    reference: 'centre',
    profile: { station: null, heights: [], roofOffsets: [] },
    goal: 4,
    keepOuts: [],
    penetrations: [],
    angles: [],
    found: [],
    leakTest: { state: 'open', reason: '', at: null },
    extra: [],
  };
}

const PLAIN_LINING: LiningChoice = {
  school: 'boards',
  seams: null,
  strip: 300,
  gap: 1,
  edge: 5,
  sliver: 60,
  undersize: 10,
  groove: { spacing: 0, depth: 1.5, width: 3, direction: 'upright' },
  scribe: 0,
  notch: 5,
  removable: false,
};

const PLAIN_BOXES: BoxChoice = {
  board: 'birch-9',
  trim: 'trim-30',
  arches: [],
  scribe: 5,
  clearance: 25,
  load: 'step',
  stored: 0,
  access: 'fixed',
};

const PLAIN_FLOOR: FloorChoice = {
  direction: null,
  finish: 'everywhere',
  keepBack: 0,
  fixing: 'screwed',
  tiles: 'half',
  joint: 3,
  coat: 'floor-varnish',
  coats: 0,
};

/** How a surface is lined whose lining nobody has chosen yet. */
export const liningOn = (linings: Project['linings'], surface: string): LiningChoice =>
  linings[surface] ?? PLAIN_LINING;

/** What is chosen and known of linings in a new project. */
export function emptyLinings(): Pick<
  Project,
  | 'linings'
  | 'boxes'
  | 'floor'
  | 'doorLining'
  | 'reserved'
  | 'headers'
  | 'corners'
  | 'fittings'
  | 'floorHatches'
  | 'measured'
  | 'scribes'
  | 'patterns'
> {
  return {
    linings: {},
    boxes: PLAIN_BOXES,
    floor: PLAIN_FLOOR,
    doorLining: { inset: 25 },
    reserved: [],
    headers: [],
    corners: [],
    fittings: [],
    floorHatches: [],
    measured: [],
    scribes: [],
    patterns: [],
  };
}

/** An empty project with the readings that a first survey of its kind asks for. */
export function createProject({ id, name, kind, model, units, startDate }: NewProject): Project {
  const plan = SURVEY_PLAN[kind];
  return {
    format: PROJECT_FORMAT,
    version: PROJECT_VERSION,
    id,
    name,
    vehicle: { kind, model },
    settings: startSettings(units, startDate),
    people: [],
    survey: {
      ...emptySurveyParts(),
      boxed: kind === 'trailer',
      profile: {
        station: `s${plan.profile}`,
        heights: [...plan.profileHeights],
        roofOffsets: [...plan.profileRoof],
      },
      heights: [...plan.heights],
      roofOffsets: [...plan.roofOffsets],
      symmetric: false,
      stations: Array.from({ length: plan.stations }, (_, i) => ({
        id: `s${i + 1}`,
        name: `Station ${i + 1}`,
        planned: true,
      })),
      ribs: [],
      arches:
        kind === 'trailer'
          ? []
          : [
              { id: 'a1', name: 'Left arch', side: 'left', kind: 'arch', shape: 'box' },
              { id: 'a2', name: 'Right arch', side: 'right', kind: 'arch', shape: 'box' },
            ],
      openings: [],
      skipped: [],
      readings: {},
    },
    buildUps: {},
    buildUpVariants: [],
    comfort: [],
    practice: null,
    layout: { units: [] },
    keptPlans: [],
    offcuts: [],
    waits: [],
    waste: [],
    cutSeconds: [],
    ...emptyLinings(),
  };
}

/**
 * A survey as the starting point for another vehicle of the same kind: the same plan and things, every last reading
 * taken over as an estimate. What was found in the other vehicle stays there.
 */
export function surveyAsStart(survey: Survey, at: string): Survey {
  return {
    ...survey,
    // what was said not to be there was said of the other vehicle
    looked: {},
    found: [],
    leakTest: { state: 'open', reason: '', at: null },
    extra: [],
    skipped: [],
    readings: Object.fromEntries(
      Object.entries(survey.readings).flatMap(([address, readings]) => {
        const last = readings.at(-1);
        return last ? [[address, [{ value: last.value, method: 'estimate' as const, at }]]] : [];
      }),
    ),
  };
}
