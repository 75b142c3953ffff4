import { PROJECT_FORMAT, PROJECT_VERSION, type Project, type Settings } from './schema.js';

export type VehicleKind = Project['vehicle']['kind'];

/** Where a survey of each kind of vehicle begins: how many stations, at which heights, where across the roof. mm */
const SURVEY_PLAN: Readonly<
  Record<
    VehicleKind,
    { readonly stations: number; readonly heights: readonly number[]; readonly roofOffsets: readonly number[] }
  >
> = {
  van: { stations: 4, heights: [0, 400, 800, 1200, 1600], roofOffsets: [-450, 0, 450] },
  bus: { stations: 5, heights: [0, 450, 850, 1250, 1650], roofOffsets: [-600, 0, 600] },
  trailer: { stations: 4, heights: [0, 900, 1700], roofOffsets: [0] },
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
    cutting: { kerf: 2.4, trim: 10, smallestOffcut: 150 },
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
      heights: [...plan.heights],
      roofOffsets: [...plan.roofOffsets],
      symmetric: false,
      stations: Array.from({ length: plan.stations }, (_, i) => ({ id: `s${i + 1}`, name: `Station ${i + 1}` })),
      ribs: [],
      arches:
        kind === 'trailer'
          ? []
          : [
              { id: 'a1', name: 'Left arch', side: 'left', shape: 'box' },
              { id: 'a2', name: 'Right arch', side: 'right', shape: 'box' },
            ],
      openings: [],
      skipped: [],
      readings: {},
    },
    buildUps: { floor: [], left: [], right: [], ceiling: [] },
    units: [],
    keptPlans: [],
  };
}
