import { applyPatches, enablePatches, produceWithPatches, type Patch } from 'immer';
import { addressExists, allowedRange, parseAddress, unitOf } from './address.js';
import { message, mm, type Message } from '../words/message.js';
import {
  OPERATION_NAMES,
  OPERATION_PAYLOADS,
  type Operation,
  type OperationName,
  type OperationOf,
} from './operation.js';
import {
  platformBedSchema,
  baseCupboardSchema,
  projectSchema,
  type KeptPlan,
  type Project,
  type Reading,
  type Survey,
} from './schema.js';

enablePatches();

/** An operation that cannot be done; says why. The project is left as it was. */
export class OperationError extends Error {
  constructor(
    readonly said: Message,
    readonly place: string = '',
  ) {
    super(said.key);
  }
}

/** What an operation changed, both ways: enough to do it, undo it and do it again. */
export interface Edit {
  readonly project: Project;
  readonly patches: readonly Patch[];
  readonly inverse: readonly Patch[];
}

type Change<Name extends OperationName> = (draft: Project, payload: OperationOf<Name>['payload']) => void;

function put<T extends { id: string }>(list: T[], item: T): void {
  const index = list.findIndex((other) => other.id === item.id);
  if (index >= 0) list[index] = item;
  else list.push(item);
}

function remove(list: { id: string }[], id: string): void {
  const index = list.findIndex((item) => item.id === id);
  if (index < 0) throw new OperationError(message('operation.notThere', { id }));
  list.splice(index, 1);
}

/** Takes a thing out of the survey with the readings that speak of it. */
function removeMeasured(survey: Survey, kind: string, list: { id: string }[], id: string): void {
  remove(list, id);
  const prefix = `${kind}/${id}/`;
  for (const address of Object.keys(survey.readings))
    if (address.startsWith(prefix)) Reflect.deleteProperty(survey.readings, address);
  survey.skipped = survey.skipped.filter((address) => !address.startsWith(prefix));
  survey.extra = survey.extra.filter((address) => !address.startsWith(prefix));
}

/** Adds a reading to what was read at its place before. @throws OperationError when there is no such place or it cannot be right */
function take(survey: Survey, address: string, reading: Reading): void {
  measurable(survey, address);
  const place = parseAddress(address);
  const [least, most] = place ? allowedRange(place) : [0, 0];
  if (reading.value < least || reading.value > most) {
    const angle = place !== null && unitOf(place) === 'degrees';
    throw new OperationError(
      angle
        ? message('operation.outOfAngle', { typed: reading.value, least, most })
        : message('operation.outOfRange', { typed: mm(reading.value), least: mm(least), most: mm(most) }),
      address,
    );
  }
  (survey.readings[address] ??= []).push(reading);
  survey.skipped = survey.skipped.filter((skipped) => skipped !== address);
}

function measurable(survey: Survey, address: string): void {
  const place = parseAddress(address);
  if (!place || !addressExists(survey, place))
    throw new OperationError(message('operation.noPlace', { address }), address);
}

const MOST_CUT_SECONDS = 200;

/** Puts a plan in the place of the one kept for its material, and gives it back to be changed. */
function keepPlan(draft: Project, plan: KeptPlan): KeptPlan {
  const own: KeptPlan = structuredClone(plan);
  draft.keptPlans = [...draft.keptPlans.filter((kept) => kept.material !== plan.material), own];
  return draft.keptPlans[draft.keptPlans.length - 1] ?? own;
}

const CHANGES: { readonly [Name in OperationName]: Change<Name> } = {
  renameProject: (draft, { name, model }) => {
    draft.name = name;
    draft.vehicle.model = model;
  },
  changeSettings: (draft, { changes }) => void Object.assign(draft.settings, changes),
  changeCutting: (draft, { changes }) => void Object.assign(draft.settings.cutting, changes),
  putPerson: (draft, { person }) => put(draft.people, person),
  removePerson: (draft, { id }) => {
    remove(draft.people, id);
    for (const unit of draft.units)
      if (unit.kind === 'platform-bed') unit.sleepers = unit.sleepers.filter((sleeper) => sleeper !== id);
  },
  takeReading: (draft, { address, reading }) => take(draft.survey, address, reading),
  takeReadings: (draft, { stations, readings }) => {
    for (const station of stations)
      if (!draft.survey.stations.some((known) => known.id === station.id)) draft.survey.stations.push(station);
    for (const { address, reading } of readings) take(draft.survey, address, reading);
  },
  askReading: (draft, { address }) => {
    measurable(draft.survey, address);
    draft.survey.extra = [...draft.survey.extra.filter((asked) => asked !== address), address];
    draft.survey.skipped = draft.survey.skipped.filter((skipped) => skipped !== address);
  },
  removeReading: (draft, { address, index }) => {
    const taken = draft.survey.readings[address];
    if (!taken || index >= taken.length) throw new OperationError(message('operation.noReading'), address);
    if (taken.length === 1) Reflect.deleteProperty(draft.survey.readings, address);
    else taken.splice(index, 1);
  },
  skipReading: (draft, { address }) => {
    measurable(draft.survey, address);
    draft.survey.skipped = [...draft.survey.skipped.filter((skipped) => skipped !== address), address];
  },
  planSurvey: (draft, { changes }) => void Object.assign(draft.survey, changes),
  putStation: (draft, { station }) => put(draft.survey.stations, station),
  removeStation: (draft, { id }) => removeMeasured(draft.survey, 'station', draft.survey.stations, id),
  putRib: (draft, { rib }) => put(draft.survey.ribs, rib),
  removeRib: (draft, { id }) => removeMeasured(draft.survey, 'rib', draft.survey.ribs, id),
  putArch: (draft, { arch }) => put(draft.survey.arches, arch),
  removeArch: (draft, { id }) => removeMeasured(draft.survey, 'arch', draft.survey.arches, id),
  putOpening: (draft, { opening }) => put(draft.survey.openings, opening),
  removeOpening: (draft, { id }) => removeMeasured(draft.survey, 'opening', draft.survey.openings, id),
  putKeepOut: (draft, { keepOut }) => put(draft.survey.keepOuts, keepOut),
  removeKeepOut: (draft, { id }) => removeMeasured(draft.survey, 'keepout', draft.survey.keepOuts, id),
  putPenetration: (draft, { penetration }) => put(draft.survey.penetrations, penetration),
  removePenetration: (draft, { id }) => removeMeasured(draft.survey, 'hole', draft.survey.penetrations, id),
  putAngle: (draft, { angle }) => put(draft.survey.angles, angle),
  removeAngle: (draft, { id }) => removeMeasured(draft.survey, 'angle', draft.survey.angles, id),
  putFound: (draft, { found }) => put(draft.survey.found, found),
  removeFound: (draft, { id }) => remove(draft.survey.found, id),
  setLeakTest: (draft, { leakTest }) => {
    if (leakTest.state === 'overruled' && leakTest.reason === '')
      throw new OperationError(message('operation.reason'), 'reason');
    draft.survey.leakTest = leakTest;
  },
  putLayer: (draft, { surface, layer, at }) => {
    const layers = draft.buildUps[surface];
    const before = layers.findIndex((other) => other.id === layer.id);
    if (before >= 0) layers.splice(before, 1);
    layers.splice(at ?? (before >= 0 ? before : layers.length), 0, layer);
  },
  removeLayer: (draft, { surface, id }) => remove(draft.buildUps[surface], id),
  replaceLayers: (draft, { surface, layers }) => void (draft.buildUps[surface] = layers),
  keepBuildUps: (draft, { id, name }) => put(draft.buildUpVariants, { id, name, buildUps: draft.buildUps }),
  useBuildUps: (draft, { id }) => {
    const variant = draft.buildUpVariants.find((candidate) => candidate.id === id);
    if (!variant) throw new OperationError(message('operation.notThere', { id }));
    draft.buildUps = variant.buildUps;
  },
  removeBuildUps: (draft, { id }) => remove(draft.buildUpVariants, id),
  putComfort: (draft, { comfort }) => put(draft.comfort, comfort),
  removeComfort: (draft, { id }) => remove(draft.comfort, id),
  placeUnit: (draft, { unit }) => {
    if (draft.units.some((other) => other.id === unit.id))
      throw new OperationError(message('operation.twice', { id: unit.id }));
    draft.units.push(unit);
  },
  changeUnit: (draft, { id, changes }) => {
    const index = draft.units.findIndex((other) => other.id === id);
    const unit = draft.units[index];
    if (!unit) throw new OperationError(message('operation.notThere', { id }));
    const schema = unit.kind === 'platform-bed' ? platformBedSchema : baseCupboardSchema;
    const checked = schema.safeParse({ ...unit, ...changes });
    if (!checked.success)
      throw new OperationError(
        message('operation.badUnit', { name: unit.name, what: checked.error.issues[0]?.path.join('.') ?? '' }),
        id,
      );
    draft.units[index] = checked.data;
  },
  removeUnit: (draft, { id }) => remove(draft.units, id),
  keepPlan: (draft, plan) => void keepPlan(draft, plan),
  forgetPlan: (draft, { material }) => {
    draft.keptPlans = draft.keptPlans.filter((kept) => kept.material !== material);
  },
  tickCut: (draft, { plan, sheet, step, done, seconds }) => {
    const at = keepPlan(draft, plan).sheets.find((candidate) => candidate.id === sheet);
    if (!at) throw new OperationError(message('operation.notThere', { id: sheet }));
    at.done = [...at.done.filter((other) => other !== step), ...(done ? [step] : [])];
    if (done && seconds !== null) draft.cutSeconds = [...draft.cutSeconds, seconds].slice(-MOST_CUT_SECONDS);
  },
  spoilPart: (draft, { plan, waste, offcut }) => {
    const sheets = keepPlan(draft, plan).sheets;
    const placed = sheets.flatMap((sheet) => sheet.placements).find((p) => p.part === waste.part && !p.spoiled);
    if (!placed) throw new OperationError(message('operation.notThere', { id: waste.part }));
    // a patched piece is used after all
    placed.spoiled = waste.remedy !== 'patch';
    put(draft.waste, waste);
    if (offcut) put(draft.offcuts, offcut);
  },
  lockPart: (draft, { plan, part, locked }) => {
    const sheets = keepPlan(draft, plan).sheets;
    for (const sheet of sheets) for (const placed of sheet.placements) if (placed.part === part) placed.locked = locked;
  },
  putOffcut: (draft, { offcut }) => put(draft.offcuts, offcut),
  removeOffcut: (draft, { id }) => remove(draft.offcuts, id),
  putWait: (draft, { wait }) => {
    draft.waits = [...draft.waits.filter((other) => other.part !== wait.part), wait];
  },
  removeWait: (draft, { part }) => {
    draft.waits = draft.waits.filter((wait) => wait.part !== part);
  },
  removeWaste: (draft, { id }) => remove(draft.waste, id),
  changeLining: (draft, { surface, changes }) => void Object.assign(draft.linings[surface], changes),
  changeBoxes: (draft, { changes }) => void Object.assign(draft.linings.boxes, changes),
  changeFloor: (draft, { changes }) => void Object.assign(draft.linings.floor, changes),
  changeDoors: (draft, { changes }) => void Object.assign(draft.linings.doors, changes),
  putReserved: (draft, { reserved }) => put(draft.reserved, reserved),
  removeReserved: (draft, { id }) => remove(draft.reserved, id),
  putHeader: (draft, { header }) => put(draft.headers, header),
  putCorner: (draft, { corner }) => put(draft.corners, corner),
  removeCorner: (draft, { id }) => remove(draft.corners, id),
  removeHeader: (draft, { id }) => remove(draft.headers, id),
  putFitting: (draft, { fitting }) => put(draft.fittings, fitting),
  removeFitting: (draft, { id }) => remove(draft.fittings, id),
  putFloorHatch: (draft, { hatch }) => put(draft.floorHatches, hatch),
  removeFloorHatch: (draft, { id }) => remove(draft.floorHatches, id),
  measureMaterial: (draft, { material, thickness }) => {
    draft.measured = [
      ...draft.measured.filter((other) => other.material !== material),
      ...(thickness === null ? [] : [{ material, thickness }]),
    ];
  },
  logScribe: (draft, { scribe }) => put(draft.scribes, scribe),
  removeScribe: (draft, { id }) => remove(draft.scribes, id),
  putPattern: (draft, { pattern }) => put(draft.patterns, pattern),
  removePattern: (draft, { id }) => remove(draft.patterns, id),
  restore: (draft, { project }) => void Object.assign(draft, { ...project, id: draft.id }),
};

/**
 * Reads an operation of unknown origin.
 * @throws OperationError naming the field that is wrong
 */
export function readOperation(raw: unknown): Operation {
  const name = typeof raw === 'object' && raw !== null && 'name' in raw ? raw.name : undefined;
  const known = OPERATION_NAMES.find((candidate) => candidate === name);
  if (!known) throw new OperationError(message('operation.unknown', { name: String(name) }));
  const payload = OPERATION_PAYLOADS[known].safeParse(
    raw && typeof raw === 'object' && 'payload' in raw ? raw.payload : undefined,
  );
  if (!payload.success) {
    const issue = payload.error.issues[0];
    throw new OperationError(
      message('operation.badPayload', {
        name: known,
        place: issue?.path.join('.') ?? '',
        why: (issue?.message ?? '').replace(/\.$/, ''),
      }),
      issue?.path.join('.'),
    );
  }
  return { name: known, payload: payload.data } as Operation;
}

/**
 * Does one operation.
 * @returns the new project, sharing what did not change with the old one, and the patches both ways
 * @throws OperationError when it cannot be done
 */
export function applyOperation(project: Project, operation: Operation): Edit {
  const change = CHANGES[operation.name] as Change<OperationName>;
  const [next, patches, inverse] = produceWithPatches(project, (draft: Project) => change(draft, operation.payload));
  return { project: next, patches, inverse };
}

/** Applies patches that an earlier edit gave. */
export function patchProject(project: Project, patches: readonly Patch[]): Project {
  return applyPatches(project, [...patches]);
}

/** Whether a project is sound as a whole, for tests and for writing. */
export function isProject(candidate: unknown): candidate is Project {
  return projectSchema.safeParse(candidate).success;
}

export type { Patch };
