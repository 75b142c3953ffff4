import { applyPatches, current, enablePatches, produceWithPatches, type Patch } from 'immer';
import { addressExists, allowedRange, parseAddress, unitOf as measuredIn } from './address.js';
import { message, mm } from '../words/message.js';
import {
  OPERATION_NAMES,
  OPERATION_PAYLOADS,
  type Operation,
  type OperationName,
  type OperationOf,
} from './operation.js';
import { baysOf, withBay } from './body.js';
import { atCutOf, dividedBy, freeBayNames, sizedAt } from './division-changes.js';
import { liningOn } from './create.js';
import { familyNamed, fieldNamed, type DocumentKit, type Field } from './kit.js';
import { asItCanStand, forgetEnds, forgetStates, forgetUnit, thingsOf, withoutPeople } from './layout-changes.js';
import {
  projectSchema,
  type Before,
  type Division,
  type KeptPlan,
  type Limits,
  type OptionValue,
  type PriceBook,
  type Project,
  type Reading,
  type Survey,
  type Unit,
} from './schema.js';
import { finish, pause, putOff, reopen, start, strike, write } from './record-changes.js';
import { OperationError } from './operation-error.js';
import { faultsOf, type Fault } from './soundness.js';

enablePatches();

export { OperationError };

/** What an operation changed, both ways: enough to do it, undo it and do it again. */
export interface Edit {
  readonly project: Project;
  readonly patches: readonly Patch[];
  readonly inverse: readonly Patch[];
}

type Change<Name extends OperationName> = (
  draft: Project,
  payload: OperationOf<Name>['payload'],
  kit: DocumentKit,
) => void;

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
    const angle = place !== null && measuredIn(place) === 'degrees';
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

/** Keeps a plan in the place of the one kept for its material: sheets that stayed as they were are left alone. */
function keepPlan(draft: Project, plan: KeptPlan): void {
  const index = draft.keptPlans.findIndex((kept) => kept.material === plan.material);
  const kept = draft.keptPlans[index];
  if (!kept) {
    draft.keptPlans.push(structuredClone(plan));
    return;
  }
  const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);
  plan.sheets.forEach((sheet, i) => {
    if (!same(kept.sheets[i], sheet)) kept.sheets[i] = structuredClone(sheet);
  });
  if (kept.sheets.length > plan.sheets.length) kept.sheets.length = plan.sheets.length;
  kept.job = plan.job;
  kept.bound = plan.bound;
  kept.proved = plan.proved;
}

/** The plan that is kept of a material. @throws OperationError when there is none yet */
function keptOf(draft: Project, material: string): KeptPlan {
  const kept = draft.keptPlans.find((plan) => plan.material === material);
  if (!kept) throw new OperationError(message('operation.notThere', { id: material }));
  return kept;
}

function unitOf(draft: Project, id: string): { readonly unit: Unit; readonly put: (unit: Unit) => void } {
  const units = current(draft.layout.units);
  const index = units.findIndex((other) => other.id === id);
  const unit = units[index];
  if (!unit) throw new OperationError(message('operation.notThere', { id }));
  // only what is changed of it is put in its place: the patches, and what is looked at again, are no larger than that
  const put = (changed: Unit): void => {
    const there = draft.layout.units[index] as Unit & Record<string, unknown>;
    for (const [key, value] of Object.entries(changed))
      if (unit[key as keyof Unit] !== value) (there as Record<string, unknown>)[key] = value;
    for (const key of Object.keys(unit)) if (!(key in changed)) Reflect.deleteProperty(there, key);
  };
  return { unit, put };
}

/** Whether a value is what a field takes, within its limits. */
function takes(field: Field, value: OptionValue): boolean {
  switch (field.kind) {
    case 'length':
    case 'count':
      return (
        typeof value === 'number' &&
        Number.isFinite(value) &&
        (field.kind === 'length' || Number.isInteger(value)) &&
        value >= (field.least ?? -Infinity) &&
        value <= (field.most ?? Infinity)
      );
    case 'choice':
      return typeof value === 'string' && (field.choices ?? []).includes(value);
    case 'sheet':
    case 'thing':
      return typeof value === 'string';
    case 'people':
      return Array.isArray(value);
    case 'yes-no':
      return typeof value === 'boolean';
  }
}

/** Why a number is not one that a field can take: what it may be from and to. */
function outOf(field: Field, value: OptionValue, unit: Unit): OperationError | null {
  const { least, most } = field;
  if (typeof value !== 'number' || least === undefined || most === undefined) return null;
  const said = (number: number) => (field.kind === 'length' ? mm(number) : number);
  return new OperationError(
    message('operation.outOfRange', { typed: said(value), least: said(least), most: said(most) }),
    unit.id,
  );
}

/**
 * A unit with fields of its family changed.
 * @throws OperationError where the family has no such field now, or it does not take the value
 */
export function changeFields(
  unit: Unit,
  changes: Readonly<Record<string, OptionValue>>,
  kit: Pick<DocumentKit, 'families'>,
): Unit {
  const bad = (what: string): OperationError =>
    new OperationError(message('operation.badUnit', { name: unit.name, what }), unit.id);
  const family = familyNamed(kit.families, unit.family);
  if (!family) throw bad(unit.family);
  return Object.entries(changes).reduce((changed, [name, value]) => {
    if (name === 'name') {
      if (typeof value !== 'string') throw bad(name);
      return { ...changed, name: value };
    }
    const field = fieldNamed(family, name);
    if (!field || field.when?.(changed) === false) throw bad(name);
    if (!takes(field, value)) throw outOf(field, value, unit) ?? bad(name);
    return field.set(changed, value);
  }, unit);
}

/** Changes the division of a unit at one of its bays. */
function changeDivision(draft: Project, id: string, bay: string, change: (division: Division) => Division): void {
  const { unit, put } = unitOf(draft, id);
  if (!baysOf(unit.division).some((own) => own.name === bay))
    throw new OperationError(message('operation.noBay', { unit: unit.name, bay }), id);
  put({ ...unit, division: change(unit.division) });
}

/** What is known and kept of parts whose unit is taken out goes with it; what is cut stays. */
function forgetParts(draft: Project, unit: string): void {
  const own = (part: string): boolean => part.startsWith(`${unit}.`);
  draft.waits = draft.waits.filter((wait) => !own(wait.part));
  draft.scribes = draft.scribes.filter((scribe) => !own(scribe.part));
  for (const pattern of draft.patterns) pattern.made = pattern.made.filter((made) => !own(made.part));
}

/** What is known of units that neither stand nor are kept in another layout goes with them. */
function forgetGone(draft: Project, units: readonly string[]): void {
  const there = new Set(
    [draft.layout, ...(draft.variants ?? []).map(({ layout }) => layout)].flatMap((layout) =>
      layout.units.map((unit) => unit.id),
    ),
  );
  for (const unit of units)
    if (!there.has(unit)) {
      forgetParts(draft, unit);
      forgetUnit(draft, unit);
    }
}

/** What is kept of the time before surfaces are covered, in a project that has none of it yet. */
const beforeOf = (draft: Project): Before =>
  (draft.survey.before ??= { nothingFound: null, photos: {}, joints: [], overruled: [] });

/** Nothing looked up yet. */
export const NO_LIMITS: Limits = {
  most: null,
  bare: null,
  frontAxle: null,
  rearAxle: null,
  mostFront: null,
  mostRear: null,
  bareFront: null,
  nose: null,
};

const CHANGES: { readonly [Name in OperationName]: Change<Name> } = {
  renameProject: (draft, { name, model }) => {
    draft.name = name;
    draft.vehicle.model = model;
  },
  setFigure: ({ settings }, { rule, figure, value }) => {
    const { [rule]: own, ...others } = settings.figures ?? {};
    const left = Object.fromEntries(Object.entries(own ?? {}).filter(([name]) => name !== figure));
    const next = value === null ? left : { ...left, [figure]: value };
    const figures = Object.keys(next).length === 0 ? others : { ...others, [rule]: next };
    if (Object.keys(figures).length === 0) delete settings.figures;
    else settings.figures = figures;
  },
  changeSettings: (draft, { changes }) => void Object.assign(draft.settings, changes),
  changeCutting: (draft, { changes }) => void Object.assign(draft.settings.cutting, changes),
  putPerson: (draft, { person }) => put(draft.people, person),
  removePerson: (draft, { id }, kit) => {
    remove(draft.people, id);
    draft.layout.units = draft.layout.units.map((unit) => withoutPeople(unit, kit, (person) => person === id));
  },
  putPet: (draft, { pet }) => put((draft.pets ??= []), pet),
  removePet: (draft, { id }) => {
    remove(draft.pets ?? [], id);
    if (draft.layout.dens) draft.layout.dens = draft.layout.dens.filter(({ pet }) => pet !== id);
  },
  layPet: (draft, { pet, at }) => {
    const others = (draft.layout.dens ?? []).filter((den) => den.pet !== pet);
    draft.layout.dens = at === null ? others : [...others, { pet, at }];
  },
  takeReading: (draft, { address, reading }) => take(draft.survey, address, reading),
  takeReadings: (draft, { stations, readings }) => {
    for (const station of stations)
      if (!draft.survey.stations.some((known) => known.id === station.id)) draft.survey.stations.push(station);
    for (const { address, reading } of readings) take(draft.survey, address, reading);
  },
  photoReading: (draft, { address, index, photo }) => {
    const reading = draft.survey.readings[address]?.[index];
    if (!reading) throw new OperationError(message('operation.noReading'), address);
    if (photo === null) delete reading.photo;
    else reading.photo = photo;
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
  removeStation: (draft, { id }) => {
    removeMeasured(draft.survey, 'station', draft.survey.stations, id);
    if (draft.survey.profile.station === id) draft.survey.profile.station = null;
  },
  putRib: (draft, { rib }) => put(draft.survey.ribs, rib),
  removeRib: (draft, { id }) => removeMeasured(draft.survey, 'rib', draft.survey.ribs, id),
  putArch: (draft, { arch }) => put(draft.survey.arches, arch),
  removeArch: (draft, { id }) => {
    removeMeasured(draft.survey, 'arch', draft.survey.arches, id);
    draft.boxes.arches = draft.boxes.arches.filter((arch) => arch !== id);
  },
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
  sayLooked: (draft, { topic, at }) => {
    const others = Object.entries(draft.survey.looked ?? {}).filter(([key]) => key !== topic);
    draft.survey.looked = Object.fromEntries([...others, ...(at === null ? [] : [[topic, at]])]);
  },
  sayNothingFound: (draft, { at }) => void (beforeOf(draft).nothingFound = at),
  photoSurface: (draft, { surface, photo }) => {
    const { photos } = beforeOf(draft);
    if (photo === null) Reflect.deleteProperty(photos, surface);
    else photos[surface] = photo;
  },
  putJoint: (draft, { joint }) => put(beforeOf(draft).joints, joint),
  removeJoint: (draft, { id }) => remove(beforeOf(draft).joints, id),
  overrulePoint: (draft, overruled) => {
    const before = beforeOf(draft);
    before.overruled = [...before.overruled.filter(({ point }) => point !== overruled.point), overruled];
  },
  holdPoint: (draft, { point }) => {
    const before = beforeOf(draft);
    before.overruled = before.overruled.filter((own) => own.point !== point);
  },
  putLayer: (draft, { surface, layer, at }) => {
    const layers = (draft.buildUps[surface] ??= []);
    const before = layers.findIndex((other) => other.id === layer.id);
    if (before >= 0) layers.splice(before, 1);
    layers.splice(at ?? (before >= 0 ? before : layers.length), 0, layer);
  },
  removeLayer: (draft, { surface, id }) => remove(draft.buildUps[surface] ?? [], id),
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
    if (draft.layout.units.some((other) => other.id === unit.id))
      throw new OperationError(message('operation.twice', { id: unit.id }));
    draft.layout.units.push(unit);
  },
  changeUnit: (draft, { id, changes }, kit) => {
    const { unit, put } = unitOf(draft, id);
    put(changeFields(unit, changes, kit));
  },
  removeUnit: (draft, { id }) => {
    remove(draft.layout.units, id);
    if (draft.layout.taped) draft.layout.taped = draft.layout.taped.filter(({ unit }) => unit !== id);
    for (const mode of draft.layout.modes ?? []) forgetStates(mode, id);
    for (const run of draft.layout.runs ?? []) forgetEnds(run, id);
    if (draft.layout.dens) draft.layout.dens = draft.layout.dens.filter(({ at }) => !('unit' in at) || at.unit !== id);
    forgetGone(draft, [id]);
  },
  replaceUnit: (draft, { unit }) => unitOf(draft, unit.id).put(unit),
  putMode: (draft, { mode }) => put((draft.layout.modes ??= []), mode),
  removeMode: (draft, { id }) => remove(draft.layout.modes ?? [], id),
  setAside: (draft, aside) => {
    draft.layout.aside = [...(draft.layout.aside ?? []).filter(({ check }) => check !== aside.check), aside];
  },
  takeUp: (draft, { check }) => {
    draft.layout.aside = (draft.layout.aside ?? []).filter((own) => own.check !== check);
  },
  putTaped: (draft, taped) => {
    draft.layout.taped = [...(draft.layout.taped ?? []).filter(({ unit }) => unit !== taped.unit), taped];
  },
  removeTaped: (draft, { unit }) => {
    draft.layout.taped = (draft.layout.taped ?? []).filter((own) => own.unit !== unit);
  },
  putRun: (draft, { run }) => put((draft.layout.runs ??= []), run),
  removeRun: (draft, { id }) => remove(draft.layout.runs ?? [], id),
  keepLayout: (draft, { id, name }) => put((draft.variants ??= []), { id, name, layout: draft.layout }),
  useLayout: (draft, { id, keep }, kit) => {
    const variant = draft.variants?.find((candidate) => candidate.id === id);
    if (!variant) throw new OperationError(message('operation.notThere', { id }));
    const { layout } = variant;
    if (keep) put((draft.variants ??= []), { ...keep, layout: draft.layout });
    const before = draft.layout.units.map((unit) => unit.id);
    draft.layout = asItCanStand(layout, draft, kit);
    forgetGone(draft, before);
  },
  removeLayout: (draft, { id }) => {
    const gone = draft.variants?.find((candidate) => candidate.id === id)?.layout.units.map((unit) => unit.id) ?? [];
    remove(draft.variants ?? [], id);
    forgetGone(draft, gone);
  },
  putThing: (draft, { thing }) => put((draft.things ??= []), thing),
  removeThing: (draft, { id }, kit) => {
    const holder = draft.layout.units.find((unit) => thingsOf(unit, kit).includes(id));
    const name = draft.things?.find((thing) => thing.id === id)?.name;
    if (holder && name !== undefined)
      throw new OperationError(message('operation.thingUsed', { name, unit: holder.name }), id);
    remove(draft.things ?? [], id);
  },
  putStored: (draft, { stored }) => put((draft.stored ??= []), stored),
  removeStored: (draft, { id }) => remove(draft.stored ?? [], id),
  changeLimits: (draft, { changes }) => void (draft.limits = { ...(draft.limits ?? NO_LIMITS), ...changes }),
  putWish: (draft, { wish }) => put((draft.wishes ??= []), wish),
  removeWish: (draft, { id }) => remove(draft.wishes ?? [], id),
  divideBay: (draft, { id, bay, cut, into }) =>
    changeDivision(draft, id, bay, (division) => {
      const names = freeBayNames(division, into - 1);
      return withBay(division, bay, (own) => ({
        cut,
        divider: 'board',
        sizes: Array.from({ length: into }, () => ({ share: 1 })),
        // what lies behind another bay is got at through a panel
        parts: [
          own,
          ...names.map((name): Division =>
            cut === 'deep'
              ? { name, holds: { kind: 'open' }, front: { kind: 'panel' } }
              : { name, holds: { ...own.holds }, front: { ...own.front } },
          ),
        ],
      }));
    }),
  joinBays: (draft, { id, bay }) =>
    changeDivision(draft, id, bay, (division) => {
      const joined = atCutOf(division, bay, (cut, at) => cut.parts[at] ?? cut);
      if (!joined) throw new OperationError(message('operation.notDivided', { unit: id }), id);
      return joined;
    }),
  changeDividers: (draft, { id, bay, divider }) =>
    changeDivision(draft, id, bay, (division) => {
      const changed = atCutOf(division, bay, (cut, at) => dividedBy(cut, at, divider));
      if (!changed) throw new OperationError(message('operation.notDivided', { unit: id }), id);
      return changed;
    }),
  sizeBay: (draft, { id, bay, size, outward, beside }) =>
    changeDivision(draft, id, bay, (division) => {
      const sized = atCutOf(division, bay, (cut, at) => sizedAt(cut, at, size, beside), outward);
      if (!sized) throw new OperationError(message('operation.notDivided', { unit: id }), id);
      return sized;
    }),
  changeBay: (draft, { id, bay, holds, front, vents }) =>
    changeDivision(draft, id, bay, (division) =>
      withBay(division, bay, (own) => ({
        ...own,
        holds: holds ?? own.holds,
        front: front ?? own.front,
        ...(vents ? { vents } : {}),
      })),
    ),
  keepPlan: (draft, plan) => keepPlan(draft, plan),
  forgetPlan: (draft, { material }) => {
    draft.keptPlans = draft.keptPlans.filter((kept) => kept.material !== material);
  },
  tickCut: (draft, { material, sheet, step, done, seconds }) => {
    const at = keptOf(draft, material).sheets.find((candidate) => candidate.id === sheet);
    if (!at) throw new OperationError(message('operation.notThere', { id: sheet }));
    const before = at.done.indexOf(step);
    if (before >= 0) at.done.splice(before, 1);
    if (done) at.done.push(step);
    if (done && seconds !== null) {
      draft.cutSeconds.push(seconds);
      if (draft.cutSeconds.length > MOST_CUT_SECONDS) draft.cutSeconds.splice(0, 1);
    }
  },
  spoilPart: (draft, { waste, offcut }) => {
    const { sheets } = keptOf(draft, waste.material);
    const placed = sheets.flatMap((sheet) => sheet.placements).find((p) => p.part === waste.part && !p.spoiled);
    if (!placed) throw new OperationError(message('operation.notThere', { id: waste.part }));
    // a patched piece is used after all
    placed.spoiled = waste.remedy !== 'patch';
    put(draft.waste, waste);
    if (offcut) put(draft.offcuts, offcut);
  },
  lockPart: (draft, { material, part, locked }) => {
    for (const sheet of keptOf(draft, material).sheets)
      for (const placed of sheet.placements) if (placed.part === part) placed.locked = locked;
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
  changeLining: (draft, { surface, changes }) =>
    void (draft.linings[surface] = { ...liningOn(draft.linings, surface), ...changes }),
  changeBoxes: (draft, { changes }) => void Object.assign(draft.boxes, changes),
  changeFloor: (draft, { changes }) => void Object.assign(draft.floor, changes),
  changeDoors: (draft, { changes }) => void Object.assign(draft.doorLining, changes),
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
  measureMaterial: (draft, { material, thickness, width, bowed }) => {
    draft.measured = [
      ...draft.measured.filter((other) => other.material !== material),
      ...(thickness === null
        ? []
        : [{ material, thickness, ...(width === undefined ? {} : { width }), ...(bowed ? { bowed } : {}) }]),
    ];
  },
  logScribe: (draft, { scribe }) => put(draft.scribes, scribe),
  removeScribe: (draft, { id }) => remove(draft.scribes, id),
  leaveToScribe: (draft, { allowance }) => {
    draft.layout.units = draft.layout.units.map((unit) => ({
      ...unit,
      meets: Object.fromEntries(
        Object.entries(unit.meets).map(([face, meet]) => [
          face,
          meet?.how === 'scribed' ? { ...meet, allowance } : meet,
        ]),
      ),
    }));
    for (const lining of Object.values(draft.linings)) if (lining.scribe > 0) lining.scribe = allowance;
    if ((draft.boxes.scribe ?? 0) > 0) draft.boxes.scribe = allowance;
  },
  putPattern: (draft, { pattern }) => put(draft.patterns, pattern),
  removePattern: (draft, { id }) => remove(draft.patterns, id),
  restore: (draft, { project }) => {
    // what the other one does not have goes as well
    for (const key of Object.keys(draft)) if (!(key in project)) Reflect.deleteProperty(draft, key);
    Object.assign(draft, { ...project, id: draft.id });
  },
  startTask: start,
  pauseTask: pause,
  finishTask: finish,
  reopenTask: reopen,
  putOffTask: putOff,
  writeLog: write,
  strikeLog: strike,
  together: (draft, { operations }, kit) => {
    for (const raw of operations) {
      const operation = readOperation(raw);
      // a whole project in the place of this one is a step of its own
      if (operation.name === 'together' || operation.name === 'restore')
        throw new OperationError(message('operation.notTogether', { name: operation.name }));
      (CHANGES[operation.name] as Change<OperationName>)(draft, operation.payload, kit);
    }
  },
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

/** What a project is held against: what families and surfaces there are, and what its price book has. */
export interface EditContext {
  readonly kit: DocumentKit;
  /** Null where the price book is not at hand: materials are then not looked up. */
  readonly book: PriceBook | null;
}

/**
 * Does one operation and holds what it leaves behind to its limits: only what it touched is looked at again.
 * @returns the new project, sharing what did not change with the old one, and the patches both ways
 * @throws OperationError when it cannot be done, or would leave something unsound; the project is left as it was
 */
export function applyOperationIn(project: Project, operation: Operation, context: EditContext): Edit {
  const change = CHANGES[operation.name] as Change<OperationName>;
  const [next, patches, inverse] = produceWithPatches(project, (draft: Project) =>
    change(draft, operation.payload, context.kit),
  );
  const [fault] = faultsOf(next, context, operation.name === 'restore' ? null : patches.map(({ path }) => path));
  if (fault) throw new OperationError(fault.said, fault.place);
  return { project: next, patches, inverse };
}

/** Applies patches that an earlier edit gave. */
export function patchProject(project: Project, patches: readonly Patch[]): Project {
  return applyPatches(project, [...patches]);
}

/** Whether a project has the shape of one. */
export function isProject(candidate: unknown): candidate is Project {
  return projectSchema.safeParse(candidate).success;
}

export type { Fault };
export type { Patch };
