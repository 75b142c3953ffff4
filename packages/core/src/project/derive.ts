import { solveJob } from '../cutting/search.js';
import { planFaults } from '../cutting/verify.js';
import { jobsOf, type MaterialJob } from '../cutting/from-parts.js';
import { shoppingOf, type Shopping } from '../costing/shopping.js';
import type { Part } from '../joinery/part.js';
import { unitParts } from '../joinery/unit-parts.js';
import { coveredAreas, openingProblems, type CoveredAreas } from '../layers/areas.js';
import { layerWarnings, type LayerWarning } from '../layers/warnings.js';
import { cavitiesOf, ribMap, type CavityGroup, type RibMap } from '../shell/ribs.js';
import { BATTEN_WIDTH_MM, buildUpDepths, insetsOf, type BuildUpDepths } from '../layers/buildup.js';
import { faceFixings, revealsOf, type FaceFixing, type Reveal } from '../layers/knock-on.js';
import { roomLeft, type RoomLeft } from '../layers/room-left.js';
import { heatLoss, ribShare, type HeatLoss } from '../layers/warmth.js';
import { floorBattens, type FloorBattens } from '../lining/floor-battens.js';
import { layoutChecks, type Check } from '../layout/checks.js';
import { subfloorOf, type Subfloor } from '../lining/subfloor.js';
import { massOf, type MassFigures } from '../mass/mass.js';
import { valueAt } from '../measure/address.js';
import { closuresOf, type Closure } from '../measure/closure.js';
import { outliersOf, type Outlier } from '../measure/quality.js';
import { surveyQuality, type SurveyQuality } from '../measure/next-reading.js';
import { surfaceModel, type SurfaceModel } from '../measure/surface-model.js';
import { progressOf, walkOf, type Progress } from '../measure/walk.js';
import { archesOf, type ArchShape } from '../shell/arch.js';
import { buildShell, type ShellResult } from '../shell/build.js';
import { innerShell } from '../shell/inner.js';
import { roomFigures, type RoomFigures } from '../shell/room.js';
import type { Shell } from '../shell/shell.js';
import { scheduleOf, type Schedule } from '../work/schedule.js';
import { tasksOf } from '../work/tasks.js';
import { message, mm, type Message } from '../words/message.js';
import { memoLast, memoEach } from './memo.js';
import type { CutPlan, PriceBook, PriceItem, Project, Survey, Unit } from './schema.js';

/** A problem with its place: an address of the survey, a surface, a unit or a part. */
export interface Problem {
  readonly said: Message;
  readonly place: string;
  readonly stage: 'measure' | 'layers' | 'layout' | 'cut';
}

export interface MaterialPlan {
  readonly material: PriceItem;
  readonly job: MaterialJob['job'];
  readonly key: string;
  readonly plan: CutPlan;
  /** A plan that was searched for and kept, or the first valid one. */
  readonly state: 'kept' | 'first';
}

/** Everything up to the parts: what a drag recomputes. */
export interface DerivedShape {
  readonly progress: Progress;
  readonly walk: readonly string[];
  readonly closures: readonly Closure[];
  readonly outliers: readonly Outlier[];
  readonly shell: Shell | null;
  readonly assumed: readonly Message[];
  readonly arches: readonly ArchShape[];
  readonly ribDepth: number;
  readonly depths: BuildUpDepths;
  readonly inner: Shell | null;
  readonly bareRoom: RoomFigures | null;
  readonly room: RoomFigures | null;
  readonly checks: readonly Check[];
  readonly subfloor: Subfloor | null;
  readonly parts: readonly Part[];
  readonly problems: readonly Problem[];
}

/** Everything that follows from a project and a price book. Plain data. */
export interface Derived extends DerivedShape {
  /** How good the survey is where it matters, and the next reading that would help; null before there is a shell. */
  readonly quality: SurveyQuality | null;
  readonly areas: CoveredAreas | null;
  readonly left: RoomLeft | null;
  readonly warmth: HeatLoss | null;
  readonly reveals: readonly Reveal[];
  readonly fixings: readonly FaceFixing[];
  readonly warnings: readonly LayerWarning[];
  readonly ribs: RibMap;
  readonly cavities: readonly CavityGroup[];
  /** Null while no floor layer is laid as battens. */
  readonly floorBattens: FloorBattens | null;
  readonly plans: readonly MaterialPlan[];
  readonly shopping: Shopping;
  readonly mass: MassFigures;
  readonly schedule: Schedule;
}

/** Steps of improvement given to the plan that stands until a better one is asked for. */
const FIRST_PLAN_STEPS = 6;

/** How far the ribs stand proud of the skin: the shallowest, since insulation must fit everywhere; 0 when none was measured. */
function ribDepthOf(survey: Survey): number {
  const depths = survey.ribs
    .filter((rib) => rib.on !== 'floor')
    .map((rib) => valueAt(survey, `rib/${rib.id}/proud`))
    .filter((value): value is number => value !== null);
  return depths.length > 0 ? Math.min(...depths) : 0;
}

function planFor(
  { material, job, key }: MaterialJob,
  kept: Project['keptPlans'],
  smallestOffcut: number,
  first: (job: MaterialJob['job'], smallestOffcut: number) => CutPlan,
): MaterialPlan {
  const own = kept.find((candidate) => candidate.material === material.id && candidate.job === key);
  if (own && planFaults(job, own.plan).length === 0) return { material, job, key, plan: own.plan, state: 'kept' };
  return { material, job, key, plan: first(job, smallestOffcut), state: 'first' };
}

function cutProblems(plans: readonly MaterialPlan[], without: readonly Part[]): Problem[] {
  return [
    ...plans.flatMap(({ plan, job, material }) =>
      plan.unplaced.map(({ part, why }): Problem => {
        const size = job.parts.find((candidate) => candidate.id === part);
        const sheet = [...material.stocks].sort((a, b) => b.length * b.width - a.length * a.width)[0];
        return {
          stage: 'cut',
          place: part,
          said: message(`cut.tooLarge.${why}`, {
            part,
            length: mm(size?.length ?? 0),
            width: mm(size?.width ?? 0),
            material: material.name,
            sheetLength: mm(sheet?.length ?? 0),
            sheetWidth: mm(sheet?.width ?? 0),
          }),
        };
      }),
    ),
    ...without.map((part): Problem => ({
      stage: 'cut',
      place: part.id,
      said: message('cut.notSold', { part: part.id, material: part.material }),
    })),
  ];
}

/** One deriver remembers the last result of each step and works again only on what changed. */
export interface Deriver {
  /** As far as the parts and checks, for a drag. */
  readonly shape: (project: Project, book: PriceBook) => DerivedShape;
  /** The whole way. */
  readonly derive: (project: Project, book: PriceBook) => Derived;
}

/** Makes a deriver: readings -> shell -> inner shell -> units and linings -> parts -> cut plan -> shopping, mass, work. */
export function createDeriver(): Deriver {
  const modelOf = memoLast((survey: Survey) => surfaceModel(survey));
  const measure = memoLast((survey: Survey, model: SurfaceModel) => ({
    progress: progressOf(survey),
    walk: walkOf(survey),
    closures: closuresOf(survey),
    outliers: outliersOf(survey, model),
  }));
  const bare = memoLast((survey: Survey, model: SurfaceModel): ShellResult & { readonly room: RoomFigures | null } => {
    const result = buildShell(survey, model);
    return { ...result, room: result.shell && roomFigures(result.shell) };
  });
  const quality = memoLast((survey: Survey, units: Project['units'], length: number, model: SurfaceModel) =>
    surveyQuality(survey, units, length, model),
  );
  const arches = memoLast(archesOf);
  const ribDepth = memoLast(ribDepthOf);
  const depths = memoLast(buildUpDepths);
  const inner = memoLast((shell: Shell | null, depth: BuildUpDepths) => {
    const made = shell && innerShell(shell, insetsOf(depth));
    return { shell: made, room: made && roomFigures(made) };
  });
  const floor = memoLast(subfloorOf);
  const partsOfUnit = memoEach((unit: Unit) => unit.id, unitParts);
  const joined = memoLast(
    (_units: Project['units'], subfloor: Subfloor | null, each: readonly (readonly Part[])[]) => [
      ...(subfloor?.parts ?? []),
      ...each.flat(),
    ],
    (a, b) =>
      a[0] === b[0] && a[1] === b[1] && a[2].length === b[2].length && a[2].every((parts, i) => parts === b[2][i]),
  );
  const checks = memoLast(
    (project: Project, shell: Shell | null, found: readonly ArchShape[], book: PriceBook) =>
      shell ? layoutChecks({ project, inner: shell, arches: found, book }) : [],
    (a, b) =>
      a[0].units === b[0].units && a[0].people === b[0].people && a[1] === b[1] && a[2] === b[2] && a[3] === b[3],
  );
  const jobs = memoLast((parts: readonly Part[], settings: Project['settings'], book: PriceBook) =>
    jobsOf(parts, settings, book),
  );
  const firstPlans = new Map<string, CutPlan>();
  const firstPlan = (job: MaterialJob['job'], smallestOffcut: number): CutPlan => {
    const key = JSON.stringify([job, smallestOffcut]);
    const known = firstPlans.get(key);
    if (known) return known;
    const plan = solveJob(job, { steps: FIRST_PLAN_STEPS, smallestOffcut });
    if (firstPlans.size > 40) firstPlans.clear();
    firstPlans.set(key, plan);
    return plan;
  };
  const plansOf = memoLast((made: ReturnType<typeof jobsOf>, kept: Project['keptPlans'], smallestOffcut: number) =>
    made.jobs.map((job) => planFor(job, kept, smallestOffcut, firstPlan)),
  );
  const shopping = memoLast(
    (
      parts: readonly Part[],
      plans: readonly MaterialPlan[],
      depth: BuildUpDepths,
      areas: CoveredAreas | null,
      laid: FloorBattens | null,
      settings: Project['settings'],
      book: PriceBook,
    ) => shoppingOf({ parts, plans, depths: depth, areas, floorBattens: laid?.metres ?? null, settings, book }),
  );
  const mass = memoLast(massOf);
  const areasOf = memoLast((room: RoomFigures | null, survey: Survey) => room && coveredAreas(room, survey));
  const left = memoLast(
    (
      people: Project['people'],
      units: Project['units'],
      bareShell: Shell | null,
      bareRoom: RoomFigures | null,
      innerShell: Shell | null,
      innerRoom: RoomFigures | null,
      depth: BuildUpDepths,
    ) =>
      bareShell && bareRoom && innerShell && innerRoom
        ? roomLeft(
            { people, units },
            { shell: bareShell, room: bareRoom },
            { shell: innerShell, room: innerRoom },
            depth,
          )
        : null,
  );
  const warmth = memoLast(
    (depth: BuildUpDepths, areas: CoveredAreas | null, survey: Survey, settings: Project['settings']) =>
      areas && heatLoss(depth, areas, settings.climate, ribShare(survey), settings.floorBattens.spacing),
  );
  const openings = memoLast(openingProblems);
  const warnings = memoLast(layerWarnings);
  const ribs = memoLast(ribMap);
  const cavities = memoLast((survey: Survey, shell: Shell | null) => (shell ? cavitiesOf(survey, shell) : []));
  const reveals = memoLast(revealsOf);
  const fixings = memoLast(faceFixings);
  const laidBattens = memoLast(
    (
      survey: Survey,
      units: Project['units'],
      settings: Project['settings'],
      meets: Shell | null,
      found: readonly ArchShape[],
      depth: BuildUpDepths,
    ): FloorBattens | null => {
      const battens = depth.floor.layers.find(({ layer }) => layer.place === 'battens');
      if (!battens || !meets) return null;
      const width = battens.material && battens.material.width > 0 ? battens.material.width : BATTEN_WIDTH_MM;
      return floorBattens({ survey, units, settings }, meets, found, width, battens.thickness);
    },
  );
  const schedule = memoLast(
    (project: Project, parts: readonly Part[], areas: CoveredAreas | null, book: PriceBook) =>
      scheduleOf(
        tasksOf({ buildUps: project.buildUps, units: project.units, parts, areas, settings: project.settings, book }),
        project.settings.startDate,
        project.settings.hoursPerDay,
      ),
    (a, b) =>
      a[0].buildUps === b[0].buildUps &&
      a[0].units === b[0].units &&
      a[0].settings === b[0].settings &&
      a[1] === b[1] &&
      a[2] === b[2] &&
      a[3] === b[3],
  );

  const shape = (project: Project, book: PriceBook): DerivedShape => {
    const { survey } = project;
    const model = modelOf(survey);
    const measured = measure(survey, model);
    const built = bare(survey, model);
    const found = arches(survey, built.shell);
    const depth = depths(project.buildUps, ribDepth(survey), book);
    const room = inner(built.shell, depth);
    const meets = project.settings.floorMeets === 'lining' ? room.shell : built.shell;
    const subfloor = meets ? floor(depth.floor, meets, found.arches, project.settings) : null;
    const each = room.shell
      ? project.units.map((unit) => partsOfUnit(unit, room.shell as Shell, found.arches, book))
      : [];
    const thick: Problem[] =
      built.shell && !room.shell
        ? [
            {
              stage: 'layers',
              place: 'layers',
              said: message('layers.tooThick', {
                floor: mm(depth.floor.total),
                left: mm(depth.left.total),
                right: mm(depth.right.total),
                ceiling: mm(depth.ceiling.total),
              }),
            },
          ]
        : [];
    return {
      ...measured,
      shell: built.shell,
      assumed: built.assumed,
      arches: found.arches,
      ribDepth: ribDepth(survey),
      depths: depth,
      inner: room.shell,
      bareRoom: built.room,
      room: room.room,
      checks: checks(project, room.shell, found.arches, book),
      subfloor,
      parts: joined(project.units, subfloor, each),
      problems: [
        ...built.problems.map((p): Problem => ({ stage: 'measure', place: p.address ?? 'survey', said: p.said })),
        ...openings(survey, built.shell).map((p): Problem => ({ stage: 'measure', place: p.address, said: p.said })),
        ...found.problems.map((p): Problem => ({ stage: 'measure', place: p.address, said: p.said })),
        ...thick,
      ],
    };
  };
  const derive = (project: Project, book: PriceBook): Derived => {
    const first = shape(project, book);
    const made = jobs(first.parts, project.settings, book);
    const plans = plansOf(made, project.keptPlans, project.settings.cutting.smallestOffcut);
    const model = modelOf(project.survey);
    const length = first.shell?.length ?? 0;
    const areas = areasOf(first.room ?? first.bareRoom, project.survey);
    const meets = project.settings.floorMeets === 'lining' ? first.inner : first.shell;
    const laid = laidBattens(project.survey, project.units, project.settings, meets, first.arches, first.depths);
    return {
      ...first,
      areas,
      left: left(project.people, project.units, first.shell, first.bareRoom, first.inner, first.room, first.depths),
      warmth: warmth(first.depths, areas, project.survey, project.settings),
      reveals: reveals(project.survey, first.depths),
      fixings: fixings(first.depths, book),
      warnings: warnings(first.depths, project.settings),
      ribs: ribs(project.survey),
      cavities: cavities(project.survey, first.shell),
      floorBattens: laid,
      quality: first.shell && quality(project.survey, project.units, length, model),
      plans,
      shopping: shopping(first.parts, plans, first.depths, areas, laid, project.settings, book),
      mass: mass(first.parts, first.depths, areas, project.settings.floorBattens.spacing, book),
      schedule: schedule(project, first.parts, areas, book),
      problems: [...first.problems, ...cutProblems(plans, made.without)],
    };
  };
  return { shape, derive };
}

/** Derives once, without memory. */
export function derive(project: Project, book: PriceBook): Derived {
  return createDeriver().derive(project, book);
}
