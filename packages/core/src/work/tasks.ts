import { layersOn, surfaceNamed, type SurfaceTraits } from '../document/surfaces.js';
import type { MadeUnit } from '../furniture/make.js';
import type { RunsMade } from '../furniture/runs.js';
import type { Joint } from '../furniture/school.js';
import type { LyingPlace } from '../layout/lying.js';
import type {
  BuildUps,
  Fitting,
  FloorChoice,
  PlaceSurface,
  PriceBook,
  Project,
  Settings,
  Survey,
  Unit,
  Thing,
} from '../document/schema.js';
import { boardMaterials, type Part } from '../parts/part.js';
import { materialOf } from '../materials/material.js';
import { SEAL_COATS } from '../costing/shopping.js';
import { cureRule } from '../rules/registry.js';
import { layerArea, type CoveredAreas, type FinishLaid } from '../layers/areas.js';
import type { FloorCoats } from '../lining/floor/floor-coats.js';
import { openBefore, type OpenPoint } from '../measure/cover-gate.js';
import { message, type Message } from '../words/message.js';
import { holeTasks, jointTasks, leakTask, lieTasks, runTasks } from './service-tasks.js';
import type { Task } from './task.js';

/** Working time, minutes: estimates for one person with hand-held tools. */
const MINUTES = {
  insulateM2: 25,
  battenM2: 15,
  lineM2: 40,
  backPiece: 8,
  cutPart: 12,
  drySubfloor: 30,
  glueM2: 20,
  sealM2: 3,
  assemblePart: 14,
  cable: 25,
  fitUnit: 75,
  fitBoard: 15,
} as const;

/** Kinds of work that hide the shell. */
const COVERING: readonly Task['kind'][] = ['insulate', 'batten', 'line', 'back', 'trial', 'coat'];

/** Surfaces on which something was found, or a hole is planned. */
const PLACES: readonly PlaceSurface[] = ['floor', 'left', 'right', 'rear', 'ceiling'];

export interface TasksInput {
  readonly buildUps: BuildUps;
  readonly survey: Survey;
  readonly units: readonly Unit[];
  readonly fittings: readonly Fitting[];
  readonly floorHatches: Project['floorHatches'];
  readonly linings: Project['linings'];
  readonly layout: Project['layout'];
  readonly things: readonly Thing[];
  readonly parts: readonly Part[];
  readonly areas: CoveredAreas | null;
  /** How a bare floor is coated; null when it is not. */
  readonly coats: FloorCoats | null;
  readonly joints: readonly Joint[];
  readonly made: readonly Pick<MadeUnit, 'unit' | 'hardware'>[];
  readonly runs: RunsMade;
  /** Where people lie, by the units. */
  readonly lying: readonly LyingPlace[];
  readonly surfaces: readonly SurfaceTraits[];
  /** How the board is held, and where the finish goes. */
  readonly floor: FloorChoice;
  /** The floor finish as it is set out; null where there is none. */
  readonly finish: FinishLaid | null;
  readonly settings: Settings;
  readonly book: PriceBook;
}

function cureHours(input: TasksInput, material: string): number {
  const hours = materialOf(input.book, material)?.cureHours ?? 0;
  return cureRule.run({ hours, temperature: input.settings.workTemperature }).hours;
}

/** What must be closed before a surface's first layer hides it, or its face. */
function openOn(
  surface: string,
  { survey, fittings, floorHatches, linings, buildUps, layout, things }: TasksInput,
  ...by: readonly OpenPoint['hiddenBy'][]
): readonly Message[] {
  const place = PLACES.find((candidate) => candidate === surface);
  return place === undefined
    ? []
    : openBefore(
        { survey, fittings: [...fittings], floorHatches, linings, buildUps, layout, things: [...things] },
        place,
      )
        .filter((point) => point.stops && by.includes(point.hiddenBy))
        .map((point) => point.said);
}

/** What is sunk into a lining has its cable pulled and tried before that closes. One task, before the face goes on. */
function wiringTask(surface: string, { fittings, buildUps, book }: TasksInput, after: readonly string[]): Task | null {
  const own = fittings.filter(
    (fitting) => fitting.surface === surface && fitting.kind !== 'duct' && !fitting.wired && fitting.pulled !== true,
  );
  const face = layersOn(buildUps, surface).findLast((layer) => layer.place === 'continuous');
  if (own.length === 0 || materialOf(book, face?.material ?? '')?.group === 'insulation') return null;
  return {
    id: `${surface}-wiring`,
    kind: 'wire',
    surface,
    title: message('task.wiring', { names: own.map((fitting) => fitting.name).join(', ') }),
    minutes: own.length * MINUTES.cable,
    lagHours: 0,
    lagWhy: null,
    after,
    tools: message('tools.wiring'),
    caution: message('caution.electric'),
    open: [],
  };
}

/** A piece of the lining of a surface, and not of a unit or a box on it. */
const lies = ({ unit, surface, of }: Part, on: string): boolean =>
  unit === null && (surface ?? 'floor') === on && of === undefined;

/** Battens that are laid out for a lining rather than with a layer, what they stand on, and strips behind joints. */
const BACKING = ['wall-batten', 'noggin', 'packer', 'backing'];

/** What a lining is fixed to between the ribs goes in, and its glue cures, before the face covers it. */
function backingTask(surface: string, input: TasksInput, after: readonly string[]): Task | null {
  const laid = layersOn(input.buildUps, surface).some(({ place }) => place === 'battens');
  const own = input.parts.filter(
    (part) =>
      part.unit === null &&
      part.surface === surface &&
      BACKING.includes(part.role) &&
      !(laid && part.role === 'wall-batten'),
  );
  if (own.length === 0) return null;
  const lag = cureHours(input, 'floor-glue');
  return {
    id: `${surface}-backing`,
    kind: 'back',
    surface,
    parts: own.map(({ id }) => id),
    title: message('task.backing', {
      surface: surfaceNamed(input.surfaces, surface)?.words.the ?? surface,
      count: own.length,
    }),
    minutes: own.length * MINUTES.backPiece,
    lagHours: lag,
    lagWhy:
      lag > 0 ? message('lag.woodGlue', { hours: Math.round(lag), temperature: input.settings.workTemperature }) : null,
    after,
    tools: message('tools.batten'),
    caution: message('caution.drilling'),
    open: [],
  };
}

/** What was found on a surface and is to be redone or taken out, before anything covers it. */
function foundTasks(surface: string, { survey }: TasksInput): Task[] {
  return survey.found
    .filter((item) => item.surface === surface && item.status === 'open' && item.decision !== 'keep')
    .flatMap(({ id, name, decision, kind, method, hours = 0 }): Task[] =>
      hours <= 0
        ? []
        : [
            {
              id: `found-${id}`,
              kind: 'find',
              note: method,
              surface,
              title: message(decision === 'remove' ? 'task.found.remove' : 'task.found.redo', { name }),
              minutes: Math.round(hours * 60),
              lagHours: 0,
              lagWhy: null,
              after: [],
              tools: message('tools.found'),
              caution: message(kind === 'wiring' ? 'caution.electric' : 'caution.dust'),
              open: [],
            },
          ],
    );
}

/**
 * The layers of a surface in their order, what was found there first. The first layer is held by what it would hide, the
 * face by what runs behind it.
 * @param first nothing of the surface was laid before
 * @param face what runs behind its face is hidden by the last of these layers
 */
function layerTasks(
  surface: string,
  input: TasksInput,
  area: number,
  before: readonly string[],
  { first = true, face = true } = {},
): Task[] {
  const place = PLACES.find((candidate) => candidate === surface);
  const finds = first
    ? [...foundTasks(surface, input), ...(place === undefined ? [] : holeTasks(input.survey, place))]
    : [];
  let after = [...before, ...finds.map(({ id }) => id)];
  const layers = layersOn(input.buildUps, surface);
  const last = layers.findLast((layer) => layer.place === 'continuous') ?? layers.at(-1);
  let opens = first;
  const boarded = boardMaterials(input.parts);
  const tasks = layers.flatMap((layer): Task[] => {
    if (layer.board && boarded.has(layer.material)) return [];
    const material = materialOf(input.book, layer.material);
    const kind =
      layer.place === 'battens' || layer.place === 'rib-battens'
        ? 'batten'
        : material?.group === 'insulation' || layer.place === 'in-ribs' || layer.place === 'between-battens'
          ? 'insulate'
          : 'line';
    const each = { batten: MINUTES.battenM2, line: MINUTES.lineM2, insulate: MINUTES.insulateM2 }[kind];
    const task: Task = {
      id: `${surface}-${layer.id}`,
      kind,
      surface,
      parts: input.parts.filter((part) => lies(part, surface) && part.material === layer.material).map(({ id }) => id),
      title: message(surface === 'floor' && kind !== 'insulate' ? `task.${kind}.floor` : `task.${kind}`, {
        material: material?.name ?? layer.material,
        surface: surfaceNamed(input.surfaces, surface)?.words.the ?? surface,
      }),
      minutes: Math.round(
        layerArea(surface, layer, area, input.finish) * each * (layer.place === 'patches' ? layer.share : 1),
      ),
      lagHours: 0,
      lagWhy: null,
      after,
      tools: message(`tools.${kind}`, {}),
      open: openOn(
        surface,
        input,
        ...(opens ? (['first'] as const) : []),
        ...(face && layer === last ? (['face'] as const) : []),
      ),
      caution: kind === 'insulate' ? message('caution.fibres') : kind === 'batten' ? message('caution.drilling') : null,
    };
    opens = false;
    const isFace = kind === 'line' && layer === layers.findLast((other) => other.place === 'continuous');
    const behind = isFace
      ? [backingTask(surface, input, after), wiringTask(surface, input, after)].filter((own) => own !== null)
      : [];
    const joints = isFace && place !== undefined ? jointTasks(input.survey, place) : [];
    const waits = [...(behind.length > 0 ? behind.map(({ id }) => id) : after), ...joints.map(({ id }) => id)];
    after = [task.id];
    return [...joints, ...behind, { ...task, after: waits }];
  });
  return [...finds, ...tasks];
}

/** @param first nothing lies under the board: it is what hides the floor */
function subfloorTasks(input: TasksInput, under: readonly string[], first: boolean): Task[] {
  const boards = input.parts.filter((part) => part.role === 'subfloor');
  if (boards.length === 0) return [];
  const lag = cureHours(input, 'floor-glue');
  const drying = cureHours(input, 'wood-sealer');
  const open = openOn('floor', input, ...(first ? (['first'] as const) : []), 'face');
  return [
    {
      id: 'subfloor-cut',
      kind: 'cut',
      surface: 'floor',
      parts: boards.map(({ id }) => id),
      title: message('task.subfloorCut', { count: boards.length }),
      minutes: boards.length * MINUTES.cutPart,
      lagHours: 0,
      lagWhy: null,
      after: [],
      tools: message('tools.cut'),
      caution: message('caution.saw'),
      open: [],
    },
    {
      id: 'subfloor-dry',
      kind: 'trial',
      surface: 'floor',
      parts: boards.map(({ id }) => id),
      title: message('task.subfloorDry'),
      minutes: boards.length * MINUTES.drySubfloor,
      lagHours: 0,
      lagWhy: null,
      after: ['subfloor-cut', ...under],
      tools: message('tools.offer'),
      caution: message('caution.underFloor'),
      open: [],
    },
    ...(drying > 0
      ? [
          {
            id: 'subfloor-seal',
            kind: 'seal' as const,
            surface: 'floor',
            parts: boards.map(({ id }) => id),
            title: message('task.subfloorSeal', { coats: SEAL_COATS }),
            minutes: Math.round((input.areas?.floor ?? 0) * SEAL_COATS * 2 * MINUTES.sealM2),
            lagHours: drying * SEAL_COATS,
            lagWhy: message('lag.seal', { hours: Math.round(drying), temperature: input.settings.workTemperature }),
            after: ['subfloor-dry'],
            open: [],
            tools: message('tools.coat'),
            caution: message('caution.fumes'),
          },
        ]
      : []),
    input.floor.fixing === 'loose'
      ? {
          id: 'subfloor-lay',
          kind: 'lay' as const,
          surface: 'floor',
          parts: boards.map(({ id }) => id),
          title: message('task.subfloorLay'),
          minutes: boards.length * MINUTES.drySubfloor,
          lagHours: 0,
          lagWhy: null,
          after: [drying > 0 ? 'subfloor-seal' : 'subfloor-dry'],
          open,
          tools: message('tools.offer'),
          caution: null,
        }
      : {
          id: 'subfloor-glue',
          kind: 'glue' as const,
          surface: 'floor',
          parts: boards.map(({ id }) => id),
          title: message('task.subfloorGlue'),
          // each board is glued to what is beneath it
          minutes: Math.round(
            (input.areas?.floor ?? 0) *
              MINUTES.glueM2 *
              Math.max(1, layersOn(input.buildUps, 'floor').filter(({ board }) => board).length),
          ),
          lagHours: lag,
          lagWhy:
            lag > 0
              ? message('lag.floorGlue', { hours: Math.round(lag), temperature: input.settings.workTemperature })
              : null,
          after: [drying > 0 ? 'subfloor-seal' : 'subfloor-dry'],
          open,
          tools: message('tools.glue'),
          caution: message('caution.fumes'),
        },
  ];
}

/** Coats of a bare floor, each in one go; sanded before where the next one comes too late for the last to take it. */
function coatTasks({ coats, settings }: TasksInput, before: readonly string[]): Task[] {
  if (!coats) return [];
  return Array.from({ length: coats.coats }, (_, i): Task => {
    const number = i + 1;
    const last = number === coats.coats;
    const id = `floor-coat-${number}`;
    const lag = last ? coats.cure : coats.from;
    return {
      id,
      kind: 'coat',
      surface: 'floor',
      title: message('task.floorCoat', { number, of: coats.coats }),
      minutes: coats.minutes,
      lagHours: lag,
      lagWhy: message(last ? 'lag.coatCure' : 'lag.coat', {
        hours: Math.round(lag),
        temperature: settings.workTemperature,
      }),
      after: number === 1 ? before : [`floor-coat-${number - 1}`],
      open: [],
      tools: message('tools.coat'),
      caution: message('caution.fumes'),
      unbroken: true,
      ...(number === 1
        ? {}
        : {
            within: {
              after: `floor-coat-${number - 1}`,
              hours: coats.to,
              else: {
                id: `${id}-sand`,
                kind: 'sand',
                surface: 'floor',
                title: message('task.floorSand', { number: number - 1 }),
                minutes: coats.minutes,
                lagHours: 0,
                lagWhy: null,
                after: [`floor-coat-${number - 1}`],
                open: [],
                tools: message('tools.sand'),
                caution: message('caution.dust'),
              },
            },
          }),
    };
  });
}

/** What boxes of windows and hatches, boxes over arches, headers and bent corners are made of. */
const BOXED = ['reveal', 'trim', 'arch-top', 'arch-side', 'arch-end', 'arch-rail', 'header', 'corner', 'corner-test'];

/** Boxes, headers and corners: cut, then fitted to the finished faces they end at. */
function boxTasks({ parts }: TasksInput, ready: readonly string[]): Task[] {
  const boxes = new Map<string, Part[]>();
  for (const part of parts)
    if (part.unit === null && part.of !== undefined && part.surface !== 'floor' && BOXED.includes(part.role))
      boxes.set(part.of, [...(boxes.get(part.of) ?? []), part]);
  return [...boxes.entries()].flatMap(([name, own]): Task[] => {
    const id = `box-${own[0]?.id ?? name}`;
    const [first] = own;
    const placed = { ...(first ? { surface: first.surface } : {}), parts: own.map((part) => part.id) };
    const cut: Task = {
      id: `${id}-cut`,
      kind: 'cut',
      ...placed,
      title: message('task.boxCut', { name, count: own.length }),
      minutes: own.length * MINUTES.cutPart,
      lagHours: 0,
      lagWhy: null,
      after: [],
      tools: message('tools.cut'),
      caution: message('caution.saw'),
      open: [],
    };
    return [
      cut,
      {
        id: `${id}-fit`,
        kind: 'fit',
        ...placed,
        title: message('task.boxFit', { name }),
        minutes: own.length * MINUTES.fitBoard,
        lagHours: 0,
        lagWhy: null,
        after: [cut.id, ...ready],
        tools: message('tools.fit'),
        caution: message('caution.fixing'),
        open: [],
      },
    ];
  });
}

/** Screws of a unit's joints and what is bought for it, so many of each. */
function fixingsOf(unit: string, { joints, made }: TasksInput): NonNullable<Task['fixings']> {
  const counts = new Map<string, number>();
  const add = (item: string, amount: number): void => void counts.set(item, (counts.get(item) ?? 0) + amount);
  for (const { a, fastener, screws } of joints)
    if (a.startsWith(`${unit}.`) && fastener !== null && screws > 0) add(fastener, screws);
  for (const own of made) if (own.unit === unit) for (const { item, amount } of own.hardware) add(item, amount);
  return [...counts.entries()].map(([item, amount]) => ({ item, amount }));
}

function unitTasks(unit: Unit, input: TasksInput, ready: readonly string[]): Task[] {
  const parts = input.parts.filter((part) => part.unit === unit.id);
  if (parts.length === 0) return [];
  const its = { unit: unit.id, parts: parts.map(({ id }) => id) };
  const [cut, build] = [`${unit.id}-cut`, `${unit.id}-assemble`];
  const glued = input.joints.some((joint) => joint.how !== 'screwed' && joint.a.startsWith(`${unit.id}.`));
  const lag = glued ? cureHours(input, 'wood-glue') : 0;
  return [
    {
      id: cut,
      kind: 'cut',
      ...its,
      title: message('task.unitCut', { name: unit.name, count: parts.length }),
      minutes: parts.length * MINUTES.cutPart,
      lagHours: 0,
      lagWhy: null,
      after: [],
      tools: message('tools.cut'),
      caution: message('caution.saw'),
      open: [],
    },
    {
      id: build,
      kind: 'assemble',
      ...its,
      fixings: fixingsOf(unit.id, input),
      title: message('task.unitAssemble', { name: unit.name }),
      minutes: parts.length * MINUTES.assemblePart,
      lagHours: lag,
      lagWhy:
        lag > 0
          ? message('lag.woodGlue', { hours: Math.round(lag), temperature: input.settings.workTemperature })
          : null,
      after: [cut],
      tools: message('tools.assemble'),
      caution: null,
      open: [],
    },
    {
      id: `${unit.id}-fit`,
      kind: 'fit',
      ...its,
      title: message('task.unitFit', { name: unit.name }),
      minutes: MINUTES.fitUnit,
      lagHours: 0,
      lagWhy: null,
      after: [build, ...ready],
      tools: message('tools.fit'),
      caution: message('caution.fixing'),
      open: [],
    },
  ];
}

/**
 * The order of work that follows from layers, parts and units. Walls and ceiling come before a subfloor that meets the
 * lining; when the floor meets the ribs it comes first. Units are fitted when floor, walls and ceiling are done.
 */
export function tasksOf(input: TasksInput): Task[] {
  const { areas } = input;
  if (!areas) return [];
  const liningFirst = input.settings.floorMeets === 'lining';
  const floor = layersOn(input.buildUps, 'floor');
  const under = floor.findIndex((layer) => layer.board);
  const below = {
    ...input,
    buildUps: { ...input.buildUps, floor: under < 0 ? [...floor] : floor.slice(0, under) },
  };
  const above = {
    ...input,
    buildUps: { ...input.buildUps, floor: under < 0 ? [] : floor.slice(under + 1) },
  };
  const lastOf = (tasks: readonly Task[]): string[] => tasks.slice(-1).map((task) => task.id);
  const wallsAfter = (before: readonly string[]): Task[][] =>
    input.surfaces
      .filter(({ kind }) => kind !== 'floor')
      .map(({ id }) => layerTasks(id, input, areas[id] ?? 0, before));
  const boarded = input.parts.some((part) => part.role === 'subfloor');
  const belowTasks = layerTasks('floor', below, areas.floor, [], { face: !boarded });
  const bare = belowTasks.every(({ kind }) => kind === 'find' || kind === 'hole');
  const wallsFirst = liningFirst ? wallsAfter([]) : [];
  const floorTasks = subfloorTasks(
    input,
    [...belowTasks.slice(-1).map(({ id }) => id), ...wallsFirst.flatMap(lastOf)],
    bare,
  );
  const floorDone = floorTasks.length > 0 ? lastOf(floorTasks) : lastOf(belowTasks);
  const walls = liningFirst ? wallsFirst : wallsAfter(floorDone);
  const wallsDone = walls.flatMap(lastOf);
  // only where feet go: after the furniture, since it is cut round it
  const late = input.floor.finish === 'seen';
  const finish = (after: readonly string[]): Task[] => [
    ...layerTasks('floor', above, areas.floor, after, { first: bare && !boarded, face: false }),
    ...coatTasks(input, after),
  ];
  const early = late ? [] : finish(floorDone);
  const ready = [...(early.length > 0 ? lastOf(early) : floorDone), ...wallsDone];
  const units = input.units.flatMap((unit) => unitTasks(unit, input, ready));
  const fitted = units.filter((task) => task.id.endsWith('-fit')).map((task) => task.id);
  const leak = leakTask(input.survey);
  const built = new Set(fitted);
  const laid = [
    ...belowTasks,
    ...walls.flat(),
    ...floorTasks,
    ...early,
    ...boxTasks(input, wallsDone),
    ...units,
    ...(late ? finish(fitted.length > 0 ? fitted : ready) : []),
  ];
  // a seam that is covered is not tried any more
  const covers = (task: Task): boolean => leak.length > 0 && task.after.length === 0 && COVERING.includes(task.kind);
  return [
    ...leak,
    ...laid.map((task) => (covers(task) ? { ...task, after: leak.map(({ id }) => id) } : task)),
    ...runTasks(input.runs.placed, input.runs.holes, fitted),
    ...lieTasks(input.lying.map(({ unit }) => unit).filter(({ id }) => built.has(`${id}-fit`))),
  ];
}
