import type { DerivedShape, Derived } from './derived.js';
import { cutProblems, floorScrewProblems, shapeProblems } from './problems.js';
import { solveJob } from '../cutting/engine/search.js';
import { planMaterial, type MaterialPlan } from '../cutting/plan/cutting-room.js';
import { jobsOf } from '../cutting/job/from-parts.js';
import type { CutJob } from '../cutting/job/job.js';
import { shoppingOf } from '../costing/shopping.js';
import type { Part } from '../parts/part.js';
import { unitParts } from '../furniture/unit-parts.js';
import { coveredAreas, type CoveredAreas } from '../layers/areas.js';
import { openingProblems } from '../shell/openings.js';
import { bookAsBought } from '../materials/as-bought.js';
import { layerWarnings } from '../layers/warnings.js';
import { cavitiesOf, ribMap } from '../shell/ribs.js';
import { BATTEN_WIDTH_MM, buildUpDepths, insetsOf, type BuildUpDepths } from '../layers/buildup.js';
import { materialOf } from '../materials/material.js';
import { faceFixings, revealsOf } from '../layers/knock-on.js';
import { roomLeft } from '../layout/room-left.js';
import { heatLoss, ribShare } from '../layers/warmth.js';
import { createLinedRoom, type LinedRoom } from '../lining/room.js';
import { hatchOpenings, drilledHoles, keptBack } from '../lining/floor/floor-holes.js';
import { linedFloor, type LinedFloor } from '../lining/floor/floor.js';
import { floorBattens, type FloorBattens } from '../lining/floor/floor-battens.js';
import { layoutChecks } from '../layout/checks.js';
import { subfloorOf, type Subfloor } from '../lining/floor/subfloor.js';
import { massOf } from '../mass/mass.js';
import { valueAt } from '../document/address.js';
import { holeClearances } from '../measure/cover-gate.js';
import { closuresOf } from '../measure/closure.js';
import { outliersOf } from '../measure/quality.js';
import { surveyQuality } from '../measure/next-reading.js';
import { surfaceModel, type SurfaceModel } from '../measure/surface-model.js';
import { progressOf, walkOf } from '../measure/walk.js';
import { archesOf, type ArchShape } from '../shell/arch.js';
import { buildShell, type ShellResult } from '../shell/build.js';
import { innerShell } from '../shell/inner.js';
import { roomFigures, type RoomFigures } from '../shell/room.js';
import type { Shell } from '../shell/shell.js';
import { scheduleOf } from '../work/schedule.js';
import { tasksOf } from '../work/tasks.js';
import { memoLast, memoEach } from '../numeric/memo.js';
import type { CutPlan, PriceBook, PriceItem, Project, Survey, Unit } from '../document/schema.js';

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

/** One deriver remembers the last result of each step and works again only on what changed. */
export interface Deriver {
  /**
   * As far as the parts and checks. While units are dragged, linings and floor may stay as they were: they follow when
   * it is let go.
   */
  readonly shape: (project: Project, book: PriceBook, dragging?: boolean) => DerivedShape;
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
    (floorParts: readonly Part[], each: readonly (readonly Part[])[], lined: readonly (readonly Part[])[]) => [
      ...floorParts,
      ...lined.flat(),
      ...each.flat(),
    ],
    (a, b) =>
      a[0] === b[0] &&
      ([1, 2] as const).every((i) => a[i].length === b[i].length && a[i].every((parts, k) => parts === b[i][k])),
  );
  const keptIn = memoLast(keptBack);
  const holesIn = memoLast((survey: Survey, hatches: Project['floorHatches'], kept: ReturnType<typeof keptBack>) => ({
    kept,
    drilled: drilledHoles(survey).map((hole) => hole.ring),
    hatches: hatchOpenings(hatches),
  }));
  const wholeFloor = memoLast(
    (
      subfloor: Subfloor | null,
      laid: FloorBattens | null,
      depth: BuildUpDepths,
      innerShell: Shell | null,
      survey: Survey,
      units: Project['units'],
      found: readonly ArchShape[],
      hatches: Project['floorHatches'],
      choice: Project['linings']['floor'],
      trim: PriceItem | null,
      settings: Project['settings'],
      book: PriceBook,
    ) =>
      linedFloor({
        trim,
        settings,
        book,
        subfloor,
        laid,
        depth: depth.floor,
        inner: innerShell,
        survey,
        units,
        arches: found,
        hatches,
        choice,
      }),
  );
  const checks = memoLast(
    (project: Project, shell: Shell | null, found: readonly ArchShape[], book: PriceBook) =>
      shell ? layoutChecks({ project, inner: shell, arches: found, book }) : [],
    (a, b) =>
      a[0].units === b[0].units && a[0].people === b[0].people && a[1] === b[1] && a[2] === b[2] && a[3] === b[3],
  );
  const jobs = memoLast(jobsOf);
  const firstPlans = new Map<string, CutPlan>();
  const firstPlan = (job: CutJob, smallestOffcut: number): CutPlan => {
    const key = JSON.stringify([job, smallestOffcut]);
    const known = firstPlans.get(key);
    if (known) return known;
    const plan = solveJob(
      job,
      { steps: FIRST_PLAN_STEPS, smallestOffcut },
      ({ plan: found }) => job.kind === 'bar' && found.proved,
    );
    if (firstPlans.size > 40) firstPlans.clear();
    firstPlans.set(key, plan);
    return plan;
  };
  const plansOf = memoLast(
    (
      made: ReturnType<typeof jobsOf>,
      kept: Project['keptPlans'],
      offcuts: Project['offcuts'],
      smallestOffcut: number,
    ) =>
      made.jobs.map((job) =>
        planMaterial(
          job,
          kept.find((plan) => plan.material === job.material.id),
          offcuts,
          smallestOffcut,
          firstPlan,
        ),
      ),
  );
  const shopping = memoLast(
    (
      parts: readonly Part[],
      plans: readonly MaterialPlan[],
      depth: BuildUpDepths,
      areas: CoveredAreas | null,
      laid: FloorBattens | null,
      made: LinedFloor,
      linings: LinedRoom['linings'],
      floorScrew: string | null,
      settings: Project['settings'],
      book: PriceBook,
    ) =>
      shoppingOf({
        parts,
        plans,
        depths: depth,
        areas,
        floorBattens: laid?.metres ?? null,
        finish: made.finish,
        coats: made.coats,
        floorScrews: made.screws.length,
        floorScrew,
        floorGlue: made.glue?.millilitres ?? 0,
        caulk: linings.reduce((sum, lining) => sum + lining.caulk.millilitres, 0),
        settings,
        book,
      }),
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
    (
      project: Project,
      parts: readonly Part[],
      areas: CoveredAreas | null,
      book: PriceBook,
      coats: LinedFloor['coats'],
    ) =>
      scheduleOf(
        tasksOf({
          buildUps: project.buildUps,
          survey: project.survey,
          units: project.units,
          fittings: project.fittings,
          parts,
          areas,
          coats,
          floor: project.linings.floor,
          settings: project.settings,
          book,
        }),
        project.settings.startDate,
        project.settings.hoursPerDay,
      ),
    (a, b) =>
      a[0].buildUps === b[0].buildUps &&
      a[0].survey === b[0].survey &&
      a[0].units === b[0].units &&
      a[0].fittings === b[0].fittings &&
      a[0].settings === b[0].settings &&
      a[0].linings.floor === b[0].linings.floor &&
      a[1] === b[1] &&
      a[2] === b[2] &&
      a[3] === b[3] &&
      a[4] === b[4],
  );

  const intoKeepOuts = memoLast((survey: Survey) => holeClearances(survey).filter((hole) => hole.clear < 0));
  const asBought = memoLast(bookAsBought);
  const linedRoom = createLinedRoom();
  let lastRoom: { readonly inner: Shell | null; readonly floor: LinedFloor; readonly lined: LinedRoom } | null = null;
  const shape = (project: Project, given: PriceBook, dragging = false): DerivedShape => {
    const book = asBought(given, project.measured);
    const { survey } = project;
    const model = modelOf(survey);
    const measured = measure(survey, model);
    const built = bare(survey, model);
    const found = arches(survey, built.shell);
    const depth = depths(project.buildUps, ribDepth(survey), book);
    const room = inner(built.shell, depth);
    const meets = project.settings.floorMeets === 'lining' ? room.shell : built.shell;
    const subfloor = meets
      ? floor(
          depth.floor,
          meets,
          found.arches,
          project.settings,
          holesIn(survey, project.floorHatches, keptIn(survey, project.units, project.linings.floor.keepBack)),
          project.linings.floor.direction,
        )
      : null;
    const laid = laidBattens(survey, project.units, project.settings, meets, found.arches, depth);
    // while a unit is dragged the linings stay as they were: they follow when it is let go
    const standing = dragging && lastRoom !== null && lastRoom.inner === room.shell ? lastRoom : null;
    const floorMade =
      standing?.floor ??
      wholeFloor(
        subfloor,
        laid,
        depth,
        room.shell,
        survey,
        project.units,
        found.arches,
        project.floorHatches,
        project.linings.floor,
        materialOf(book, project.linings.boxes.trim),
        project.settings,
        book,
      );
    const lined =
      standing?.lined ??
      linedRoom({
        bare: built.shell,
        inner: room.shell,
        depths: depth,
        survey,
        units: project.units,
        arches: found.arches,
        fittings: project.fittings,
        reserved: project.reserved,
        headers: project.headers,
        corners: project.corners,
        linings: project.linings,
        ribs: ribs(survey),
        settings: project.settings,
        book,
      });
    lastRoom = { inner: room.shell, floor: floorMade, lined };
    const each = room.shell
      ? project.units.map((unit) => partsOfUnit(unit, room.shell as Shell, found.arches, book))
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
      floorBattens: laid,
      floor: floorMade,
      lined,
      parts: joined(floorMade.parts, each, [
        ...lined.linings.map((lining) => lining.parts),
        ...lined.windowBoxes.map((box) => box.parts),
        ...lined.archBoxes.map((box) => box.parts),
        ...lined.headers.map((box) => box.parts),
        ...lined.corners.map((corner) => corner.parts),
        ...lined.doors.panels.map((panel) => panel.parts),
      ]),
      problems: shapeProblems({
        built,
        openings: openings(survey, built.shell),
        found,
        depth,
        inner: room.shell,
        into: intoKeepOuts(survey),
        floor: floorMade,
        lined,
      }),
    };
  };
  const derive = (project: Project, given: PriceBook): Derived => {
    const first = shape(project, given);
    const book = asBought(given, project.measured);
    const made = jobs(first.parts, project.settings, book, project.waits);
    const plans = plansOf(made, project.keptPlans, project.offcuts, project.settings.cutting.smallestOffcut);
    const model = modelOf(project.survey);
    const length = first.shell?.length ?? 0;
    const areas = areasOf(first.room ?? first.bareRoom, project.survey);
    const laid = first.floorBattens;
    const faces = fixings(first.depths, book);
    const floorFace = faces.find((face) => face.surface === 'floor') ?? null;
    return {
      ...first,
      areas,
      left: left(project.people, project.units, first.shell, first.bareRoom, first.inner, first.room, first.depths),
      warmth: warmth(first.depths, areas, project.survey, project.settings),
      reveals: reveals(project.survey, first.depths),
      fixings: faces,
      warnings: warnings(first.depths, project.settings),
      ribs: ribs(project.survey),
      cavities: cavities(project.survey, first.shell),
      quality: first.shell && quality(project.survey, project.units, length, model),
      plans,
      shopping: shopping(
        first.parts,
        plans,
        first.depths,
        areas,
        laid,
        first.floor,
        first.lined.linings,
        floorFace?.pick?.id ?? null,
        project.settings,
        book,
      ),
      mass: mass(first.parts, first.depths, areas, project.settings.floorBattens.spacing, book),
      schedule: schedule(project, first.parts, areas, book, first.floor.coats),
      problems: [
        ...first.problems,
        ...floorScrewProblems(first.floor, first.subfloor !== null, project.linings.floor.fixing, floorFace),
        ...cutProblems(plans, made.without),
      ],
    };
  };
  return { shape, derive };
}

/** Derives once, without memory. */
export function derive(project: Project, book: PriceBook): Derived {
  return createDeriver().derive(project, book);
}
