import type { Shadow } from '../document/body.js';
import type {
  Found,
  PriceBook,
  PriceItem,
  Project,
  Settings,
  Pet,
  Stored,
  Survey,
  Thing,
  Unit,
} from '../document/schema.js';
import type { Den } from '../document/unit-schema.js';
import type { MassPoint } from '../furniture/mass-point.js';
import type { Skeleton } from '../furniture/skeleton.js';
import type { OwnFigures } from '../rules/rule.js';
import type { Scene } from '../furniture/scene.js';
import { modeFigures } from '../layout/modes.js';
import { softIn, type Soft } from '../layout/soft.js';
import { weigh } from '../layout/weight.js';
import { massPoints } from '../mass/points.js';
import { shoppingOf, type ShoppingInput } from '../costing/shopping.js';
import { thingsOf } from '../document/layout-changes.js';
import type { MaterialPlan } from '../cutting/plan/cutting-room.js';
import { runsBought, runsHardware, type RunBought } from '../furniture/runs-bought.js';
import type { RunsMade } from '../furniture/runs.js';
import type { MadeUnit } from '../furniture/make.js';
import { coveredAreas } from '../layers/areas.js';
import { BATTEN_WIDTH_MM, buildUpDepths, insetsOf, type BuildUpDepths } from '../layers/buildup.js';
import { faceFixings, revealsOf } from '../layers/knock-on.js';
import { heatLoss } from '../layers/warmth.js';
import { layerWarnings, pocketsOf } from '../layers/warnings.js';
import { createChecks } from '../layout/checks/checks.js';
import { lyingPlaces } from '../layout/lying.js';
import { roomLeft } from '../layout/room-left.js';
import { linedFloor, type LinedFloor } from '../lining/floor/floor.js';
import { floorBattens, type FloorBattens } from '../lining/floor/floor-battens.js';
import { drilledHoles, hatchOpenings, keptBack } from '../lining/floor/floor-holes.js';
import { curtainNeeds } from '../lining/boxes/curtain-needs.js';
import type { Hardware } from '../furniture/school.js';
import { subfloorOf } from '../lining/floor/subfloor.js';
import { createLinings, type Linings } from '../lining/linings.js';
import { massOf } from '../mass/mass.js';
import { bookAsBought, buildUpsAsBought } from '../materials/as-bought.js';
import { materialOf } from '../materials/material.js';
import { closuresOf } from '../measure/closure.js';
import { roofClashes } from '../shell/on-roof.js';
import { holeProblems } from './hole-problems.js';
import { surveyQuality } from '../measure/next-reading.js';
import { outliersOf } from '../measure/quality.js';
import { surfaceModel, type SurfaceModel } from '../measure/surface-model.js';
import { stillMissing } from '../measure/look-round.js';
import { progressOf, walkOf } from '../measure/walk.js';
import { joined as inOne } from '../numeric/lists.js';
import { memoFields, memoLast } from '../numeric/memo.js';
import type { Part } from '../parts/part.js';
import { archesOf, type ArchShape } from '../shell/arch.js';
import { buildShell, type ShellResult } from '../shell/build.js';
import { innerShell, type Insets } from '../shell/inner.js';
import { openingProblems } from '../shell/openings.js';
import { ribDepths, ribMap, ribProblems, ribShares, type RibMap } from '../shell/ribs.js';
import { cavitiesOf } from '../lining/surface/cavities.js';
import { roomFigures, type RoomFigures } from '../shell/room.js';
import type { Shell } from '../shell/shell.js';
import { scheduleOf } from '../work/schedule.js';
import { tasksOf } from '../work/tasks.js';
import type { Derived, DerivedShape } from './derived.js';
import { DERIVE_KIT, type DeriveKit } from './kit.js';
import { pulled, settled } from './lazy.js';
import { createPlans } from './plans.js';
import { cutProblems, floorScrewProblems, shapeProblems } from './problems.js';
import {
  NO_ASIDE,
  NO_FIGURES,
  NO_LAID,
  NO_MODES,
  NO_DENS,
  NO_PETS,
  NO_STORED,
  NO_THINGS,
  seenOpenings,
  skeletonsOf,
  stepOf,
} from './scene-of.js';
import { createShadows } from './shadows.js';
import { createUnitsMade } from './units-made.js';
import { createAsked, createGeometry, createMaking } from './slices.js';

/** One deriver remembers the last result of each step and works again only on what changed. */
/** Units are only moved: to try something out, or under somebody's hand. */
type Dragging = boolean | 'by-hand';
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

/** The boards of the floor whose sheets came bowed, by name. */
const bowedBoards = (depth: BuildUpDepths['floor'], measured: Project['measured']): readonly string[] =>
  depth.layers.flatMap(({ layer, material }) =>
    layer.board && measured.some((item) => item.material === layer.material && item.bowed === true)
      ? [material?.name ?? layer.material]
      : [],
  );

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
] as const satisfies readonly Exclude<keyof Derived, keyof DerivedShape>[];
export const DERIVED_KEYS: readonly (keyof Derived)[] = [...SHAPE_KEYS, ...REST_KEYS];

/** Parts of everything, one list for as long as no part of it changes. */
const createJoined = (): ((lists: readonly (readonly Part[])[]) => readonly Part[]) =>
  memoLast(
    (lists: readonly (readonly Part[])[]): readonly Part[] => inOne(lists),
    ([a], [b]) => a.length === b.length && a.every((list, i) => list === b[i]),
  );

/** One for every project that wants none. */
const NO_CURTAINS: readonly string[] = [];

/** Makes a deriver: readings -> shell -> inner shell -> units and linings -> parts -> cut plan -> shopping, mass, work. */
export function createDeriver(kit: DeriveKit = DERIVE_KIT): Deriver {
  const { families, surfaces } = kit;
  const geometryOf = createGeometry();
  const askedOf = createAsked();
  const makingOf = createMaking();
  const shadowsOf = createShadows();
  const modelOf = memoLast((survey: Survey) => surfaceModel(survey));
  const progress = memoLast((survey: Survey) => progressOf(survey));
  const walk = memoLast((survey: Survey) => walkOf(survey));
  const closures = memoLast((survey: Survey) => closuresOf(survey));
  const outliers = memoLast((survey: Survey, model: SurfaceModel) => outliersOf(survey, model));
  const bare = memoLast((survey: Survey, model: SurfaceModel): ShellResult & { readonly room: RoomFigures | null } => {
    const result = buildShell(survey, model);
    return { ...result, room: result.shell && roomFigures(result.shell) };
  });
  const quality = memoLast((survey: Survey, units: readonly Shadow[], length: number, model: SurfaceModel) =>
    surveyQuality(survey, units, length, model),
  );
  const arches = memoLast(archesOf);
  const ribs = memoLast(ribMap);
  const depthsOfRibs = memoLast(ribDepths);
  const depths = memoLast(buildUpDepths);
  const insets = memoLast(
    (depth: BuildUpDepths): Insets => insetsOf(depth),
    ([a], [b]) => a === b,
  );
  const inner = memoLast(
    (shell: Shell | null, by: Insets) => {
      const made = shell && innerShell(shell, by);
      return { shell: made, room: made && roomFigures(made) };
    },
    // the same insets by other layers leave the same room
    ([shellA, a], [shellB, b]) =>
      shellA === shellB && (Object.keys(a) as (keyof Insets)[]).every((side) => a[side] === b[side]),
  );
  const floor = memoLast(subfloorOf);
  const cutOf = memoLast((direction: Project['floor']['direction'], cut: Project['floor']['cut']) => ({
    direction,
    cut,
  }));
  const madeIn = createUnitsMade(kit);
  const skeletonsIn = memoLast(skeletonsOf);
  const pointsIn = memoLast(
    (
      parts: readonly Part[],
      figures: Derived['mass'],
      units: readonly Unit[],
      skeletons: ReadonlyMap<string, Skeleton>,
      softs: readonly Soft[],
      things: readonly Thing[],
      stored: readonly Stored[],
      people: Project['people'],
      pets: readonly Pet[],
      dens: readonly Den[],
      room: Shell,
      book: PriceBook,
      trailer: boolean,
    ) =>
      massPoints({
        parts,
        mass: figures,
        units,
        skeletons,
        softs,
        things,
        stored,
        people,
        pets,
        dens,
        families,
        inner: room,
        book,
        trailer,
      }),
  );
  const softsIn = memoLast(
    (
      units: readonly Unit[],
      skeletons: ReadonlyMap<string, Skeleton>,
      room: Shell,
      found: readonly ArchShape[],
      book: PriceBook,
      things: readonly Thing[],
    ) => softIn({ units, skeletons, inner: room, arches: found, book, things, families }),
  );
  const weight = memoLast(weigh);
  const joined = createJoined();
  const keptIn = memoLast(keptBack);
  const holesIn = memoLast((survey: Survey, hatches: Project['floorHatches'], kept: ReturnType<typeof keptBack>) => ({
    kept,
    drilled: drilledHoles(survey).map((hole) => hole.ring),
    hatches: hatchOpenings(hatches),
  }));
  const keptSame = memoLast(
    (kept: ReturnType<typeof keptBack>) => kept,
    ([a], [b]) => JSON.stringify(a) === JSON.stringify(b),
  );
  const wholeFloor = memoLast(
    (
      subfloor: DerivedShape['subfloor'],
      laid: FloorBattens | null,
      depth: BuildUpDepths['floor'],
      bareShell: Shell | null,
      innerShellNow: Shell | null,
      survey: Survey,
      units: readonly Shadow[],
      found: readonly ArchShape[],
      hatches: Project['floorHatches'],
      choice: Project['floor'],
      trim: PriceItem | null,
      settings: Settings,
      book: PriceBook,
    ): LinedFloor =>
      linedFloor({
        trim,
        settings,
        book,
        subfloor,
        laid,
        depth,
        bare: bareShell,
        inner: innerShellNow,
        survey,
        units,
        arches: found,
        hatches,
        choice,
      }),
  );
  const checks = memoLast(createChecks(kit.rules));
  // put together anew each time: the same one again while nothing of it has changed
  const sceneSame = memoFields((scene: Scene) => scene);
  const modesIn = memoFields(modeFigures);
  const problemsIn = memoFields(shapeProblems);
  const screwsIn = memoLast(floorScrewProblems);
  const cutIn = memoLast(cutProblems);
  const bowed = memoLast(bowedBoards);
  const plans = createPlans();
  const lines = memoLast((runs: RunsMade, book: PriceBook) => runsBought(runs.placed, book));
  const hardware = memoLast(
    (
      made: readonly MadeUnit[],
      boxes: Linings['windowBoxes'],
      held: Linings['boxesHeld'],
      across: Linings['curtains'],
      laid: LinedFloor['upper'],
      trims: LinedFloor['trims'],
      doors: Linings['doors']['held'],
      linings: Linings['linings'],
      choice: Project['boxes'],
      runs: RunsMade,
      lines: readonly RunBought[],
    ): readonly Hardware[] => [
      ...linings.flatMap(({ surface, glue }) =>
        glue.millilitres > 0 ? [{ item: 'floor-glue', amount: glue.millilitres, for: surface }] : [],
      ),
      ...made.flatMap((unit) => unit.hardware),
      ...runsHardware(lines, runs.placed),
      ...held.flatMap(({ items }) => items.map(({ item, amount }) => ({ item, amount, for: 'windows' }))),
      ...curtainNeeds(boxes, across, choice).map((need) => ({ ...need, for: 'windows' })),
      ...(trims?.picked?.item ? [{ item: trims.picked.item.id, amount: trims.count, for: 'floor' }] : []),
      ...(doors?.fixing.pick ? [{ item: doors.fixing.pick.id, amount: doors.count, for: 'doors' }] : []),
      ...laid.flatMap(({ screws, picked, glue }) => [
        ...(picked?.item ? [{ item: picked.item.id, amount: screws.length, for: 'floor' }] : []),
        ...(glue ? [{ item: 'floor-glue', amount: glue.millilitres, for: 'floor' }] : []),
      ]),
    ],
  );
  const thingsStanding = memoLast((units: readonly Unit[], things: readonly Thing[]): ShoppingInput['things'] =>
    units.flatMap((unit) =>
      thingsOf(unit, kit).flatMap((id) => {
        const thing = things.find((one) => one.id === id);
        return thing ? [{ thing, unit: unit.id }] : [];
      }),
    ),
  );
  const joints = memoLast((made: readonly MadeUnit[]) => made.flatMap((unit) => unit.joints));
  const shopping = memoLast(
    (
      parts: readonly Part[],
      planned: readonly MaterialPlan[],
      depth: BuildUpDepths,
      areas: Derived['areas'],
      laid: FloorBattens | null,
      made: LinedFloor,
      linings: Linings['linings'],
      floorScrew: string | null,
      bought: ReturnType<typeof hardware>,
      found: readonly Found[],
      standing: ShoppingInput['things'],
      sheets: readonly Thing[],
      runs: readonly RunBought[],
      settings: Settings,
      book: PriceBook,
    ) =>
      shoppingOf({
        parts,
        plans: planned,
        depths: depth,
        areas,
        floorBattens: laid?.metres ?? null,
        finish: made.finish,
        coats: made.coats,
        floorScrews: made.screws.length,
        floorScrew,
        liningFixings: linings.flatMap(({ held, surface }) =>
          held.flatMap(({ fixing, count }) => (fixing.pick ? [{ item: fixing.pick.id, count, surface }] : [])),
        ),
        floorGlue: made.glue?.millilitres ?? 0,
        caulk: linings.map(({ surface, caulk: { millilitres } }) => ({ surface, millilitres })),
        hardware: bought,
        found,
        things: standing,
        sheets,
        notStocked: runs.flatMap(({ item, name }) => (item ? [] : [name])),
        surfaces,
        settings,
        book,
      }),
  );
  const mass = memoLast(massOf);
  const placedIn = memoLast(seenOpenings);
  const areasOf = memoLast(
    (room: RoomFigures | null, shell: Shell | null, arches: readonly ArchShape[], survey: Survey) =>
      room && shell && coveredAreas(room, shell, arches, survey, surfaces),
  );
  const left = memoLast(
    (
      people: Project['people'],
      lying: Derived['lying'],
      bareShell: Shell | null,
      bareRoom: RoomFigures | null,
      innerShellNow: Shell | null,
      innerRoom: RoomFigures | null,
      depth: BuildUpDepths,
      own: Readonly<Record<string, OwnFigures>>,
      bumps: readonly ArchShape[],
    ) =>
      bareShell && bareRoom && innerShellNow && innerRoom
        ? roomLeft(
            people,
            lying,
            { shell: bareShell, room: bareRoom },
            { shell: innerShellNow, room: innerRoom },
            depth,
            own,
            bumps,
          )
        : null,
  );
  const lyingOf = memoLast((units: readonly Unit[]) => lyingPlaces(units, families));
  const warmth = memoLast(
    (
      depth: BuildUpDepths,
      areas: Derived['areas'],
      map: RibMap,
      shell: Shell | null,
      settings: Settings,
      vehicle: Project['vehicle']['kind'],
    ) =>
      areas &&
      heatLoss(depth, areas, settings.climate, ribShares(map, shell), settings.floorBattens.spacing, vehicle, surfaces),
  );
  const openings = memoLast(openingProblems);
  const warnings = memoLast(layerWarnings);
  const pockets = memoLast(pocketsOf);
  const cavities = memoLast((survey: Survey, shell: Shell | null, map: RibMap, bumps: readonly ArchShape[]) =>
    shell ? cavitiesOf(survey, shell, map, bumps) : [],
  );
  const ribFaults = memoLast(ribProblems);
  const missing = memoLast((survey: Survey, people: Project['people']) => stillMissing({ survey, people }));
  const reveals = memoLast(revealsOf);
  const fixings = memoLast((depth: BuildUpDepths, book: PriceBook, linings: Project['linings']) =>
    faceFixings(depth, book, (surface) => linings[surface]?.removable ?? false, surfaces),
  );
  const laidBattens = memoLast(
    (
      survey: Survey,
      units: readonly Shadow[],
      settings: Settings,
      meets: Shell | null,
      found: readonly ArchShape[],
      depth: BuildUpDepths['floor'],
      floorHatches: Project['floorHatches'],
    ): FloorBattens | null => {
      const battens = depth.layers.find(({ layer }) => layer.place === 'battens');
      if (!battens || !meets) return null;
      const width = battens.material && battens.material.width > 0 ? battens.material.width : BATTEN_WIDTH_MM;
      return floorBattens({ survey, units, settings, floorHatches }, meets, found, width, battens.thickness);
    },
  );
  const tasks = memoLast(
    (
      buildUps: Project['buildUps'],
      survey: Survey,
      units: readonly Unit[],
      fittings: Project['fittings'],
      floorHatches: Project['floorHatches'],
      linings: Project['linings'],
      layout: Project['layout'],
      things: Project['things'],
      parts: readonly Part[],
      held: ReturnType<typeof joints>,
      areas: Derived['areas'],
      coats: LinedFloor['coats'],
      choice: Project['floor'],
      finish: LinedFloor['finish'],
      settings: Settings,
      book: PriceBook,
    ) =>
      tasksOf({
        buildUps,
        survey,
        units,
        fittings,
        floorHatches,
        linings,
        layout,
        things,
        parts,
        joints: held,
        areas,
        coats,
        floor: choice,
        finish,
        surfaces,
        settings,
        book,
      }),
  );
  const schedule = memoLast(scheduleOf);
  const clashes = memoLast(roofClashes);
  const holes = memoLast(
    (
      survey: Survey,
      shell: Shell | null,
      innerShellNow: Shell | null,
      map: RibMap,
      subfloor: Derived['subfloor'],
      made: Derived['made'],
    ): ReturnType<typeof holeProblems> =>
      holeProblems({ survey, shell, inner: innerShellNow, ribs: map, subfloor, made }),
  );
  const asBought = memoLast(bookAsBought);
  const layersAsBought = memoLast(buildUpsAsBought);
  const linedRoom = createLinings();
  const wiringIn = memoLast((found: readonly Found[]) =>
    found.filter((item) => item.kind === 'wiring' && item.decision === 'keep'),
  );
  let lastRoom: {
    readonly inner: Shell | null;
    readonly floor: LinedFloor;
    readonly lined: Linings;
    readonly battens: FloorBattens | null;
  } | null = null;
  let lastMasses: readonly MassPoint[] | null = null;

  const pull = (project: Project, given: PriceBook, dragging: Dragging = false): Derived => {
    const book = asBought(given, project.measured);
    const buildUps = layersAsBought(project.buildUps, given, project.measured);
    const geometry = geometryOf(project.survey);
    const making = makingOf(project.settings);
    const { units, modes = NO_MODES, aside = NO_ASIDE, dens = NO_DENS } = project.layout;
    const { things = NO_THINGS, stored = NO_STORED, pets = NO_PETS, limits = null } = project;
    const shadows = shadowsOf(units);
    const model = (): SurfaceModel => modelOf(geometry);
    const built = () => bare(geometry, model());
    const found = () => arches(geometry, built().shell);
    const room = () => inner(built().shell, insets(now.depths));
    const meets = (): Shell | null => (making.floorMeets === 'lining' ? room().shell : built().shell);
    // while a unit is dragged the linings stay as they were: they follow when it is let go
    const standing = () => (dragging && lastRoom !== null && lastRoom.inner === room().shell ? lastRoom : null);
    const areas = () => areasOf(now.room ?? now.bareRoom, now.inner ?? now.shell, now.arches, geometry);
    const planned = () => plans(now.parts, project, making, book);
    const floorFace = () => now.fixings.find((face) => face.surface === 'floor') ?? null;
    const masses = (from: Derived): readonly MassPoint[] => {
      if (dragging === 'by-hand' && lastMasses) return lastMasses;
      lastMasses = from.inner
        ? pointsIn(
            from.parts,
            from.mass,
            units,
            skeletonsIn(from.made),
            softsIn(units, skeletonsIn(from.made), from.inner, from.arches, book, things),
            things,
            stored,
            project.people,
            pets,
            dens,
            from.inner,
            book,
            project.vehicle.kind === 'trailer',
          )
        : [];
      return lastMasses;
    };
    const madeAndRun = () => madeIn(units, project.layout.runs ?? NO_LAID, now.inner, now.arches, book, things, stored);
    const scene = (inner: Shell): Scene =>
      sceneSame({
        step: stepOf(project.settings),
        units,
        people: project.people,
        pets,
        dens,
        inner,
        arches: now.arches,
        openings: placedIn(geometry, now.reveals),
        book,
        families,
        things,
        stored,
        fittings: project.fittings,
        runs: now.runs,
        modes,
        limits,
        figures: project.settings.figures ?? NO_FIGURES,
        skeletons: skeletonsIn(now.made),
        masses: masses(now),
        mending: dragging !== 'by-hand',
      });
    const now: Derived = pulled<Derived>({
      progress: () => progress(askedOf(project.survey)),
      walk: () => walk(askedOf(project.survey)),
      closures: () => closures(geometry),
      outliers: () => outliers(geometry, model()),
      shell: () => built().shell,
      assumed: () => built().assumed,
      arches: () => found().arches,
      ribs: () => ribs(geometry),
      depths: () => depths(buildUps, depthsOfRibs(now.ribs), book, surfaces),
      inner: () => room().shell,
      bareRoom: () => built().room,
      room: () => room().room,
      checks: () => (now.inner ? checks(scene(now.inner), aside) : []),
      subfloor: () => {
        const shell = meets();
        return shell
          ? floor(
              now.depths.floor,
              shell,
              now.arches,
              making,
              holesIn(geometry, project.floorHatches, keptSame(keptIn(geometry, shadows.all, project.floor.keepBack))),
              cutOf(project.floor.direction, project.floor.cut),
            )
          : null;
      },
      floorBattens: () =>
        standing()?.battens ??
        laidBattens(geometry, shadows.all, making, meets(), now.arches, now.depths.floor, project.floorHatches),
      floor: () =>
        standing()?.floor ??
        wholeFloor(
          now.subfloor,
          now.floorBattens,
          now.depths.floor,
          now.shell,
          now.inner,
          geometry,
          shadows.all,
          now.arches,
          project.floorHatches,
          project.floor,
          materialOf(book, project.boxes.trim),
          making,
          book,
        ),
      lined: () =>
        standing()?.lined ??
        linedRoom({
          bare: now.shell,
          inner: now.inner,
          depths: now.depths,
          survey: geometry,
          wiring: wiringIn(project.survey.found),
          units: shadows,
          arches: now.arches,
          fittings: project.fittings,
          reserved: project.reserved,
          headers: project.headers,
          corners: project.corners,
          linings: project.linings,
          boxes: project.boxes,
          doorLining: project.doorLining,
          ribs: now.ribs,
          settings: making,
          book,
        }),
      made: () => madeAndRun().made,
      runs: () => madeAndRun().runs,
      runsBought: () => lines(now.runs, book),
      lying: () => lyingOf(units),
      parts: () => {
        const { floor: laidFloor, lined } = now;
        lastRoom = { inner: now.inner, floor: laidFloor, lined, battens: now.floorBattens };
        return joined([
          laidFloor.parts,
          ...lined.linings.map((lining) => lining.parts),
          ...lined.windowBoxes.map((box) => box.parts),
          ...lined.archBoxes.map((box) => box.parts),
          ...lined.headers.map((box) => box.parts),
          ...lined.corners.map((corner) => corner.parts),
          ...lined.doors.panels.map((panel) => panel.parts),
          ...now.made.map((unit) => unit.parts),
        ]);
      },
      problems: () => [
        ...problemsIn({
          built: built(),
          openings: openings(geometry, now.shell),
          ribs: ribFaults(geometry, now.shell),
          cut: now.ribs.cut,
          found: found(),
          depth: now.depths,
          inner: now.inner,
          into: holes(geometry, now.shell, now.inner, now.ribs, now.subfloor, now.made),
          onRoof: clashes(geometry),
          floor: now.floor,
          lined: now.lined,
          made: now.made,
          bought: now.runsBought,
          curtains: project.boxes.curtains ?? NO_CURTAINS,
        }),
        ...(dragging
          ? []
          : [
              ...screwsIn(
                now.floor,
                now.subfloor !== null,
                project.floor.fixing,
                floorFace(),
                bowed(now.depths.floor, project.measured),
              ),
              ...cutIn(now.plans, planned().without),
            ]),
      ],
      missing: () => missing(project.survey, project.people),
      areas,
      left: () =>
        left(
          project.people,
          now.lying,
          now.shell,
          now.bareRoom,
          now.inner,
          now.room,
          now.depths,
          project.settings.figures ?? NO_FIGURES,
          now.arches,
        ),
      warmth: () => warmth(now.depths, now.areas, now.ribs, now.shell, making, project.vehicle.kind),
      reveals: () => reveals(geometry, now.depths),
      fixings: () => fixings(now.depths, book, project.linings),
      warnings: () => warnings(now.depths, making, pockets(geometry)),
      cavities: () => cavities(geometry, now.shell, now.ribs, now.arches),
      quality: () => now.shell && quality(askedOf(project.survey), shadows.all, now.shell.length, model()),
      plans: () => planned().plans,
      shopping: () =>
        shopping(
          now.parts,
          now.plans,
          now.depths,
          now.areas,
          now.floorBattens,
          now.floor,
          now.lined.linings,
          floorFace()?.pick?.id ?? null,
          hardware(
            now.made,
            now.lined.windowBoxes,
            now.lined.boxesHeld,
            now.lined.curtains,
            now.floor.upper,
            now.floor.trims,
            now.lined.doors.held,
            now.lined.linings,
            project.boxes,
            now.runs,
            now.runsBought,
          ),
          project.survey.found,
          thingsStanding(units, things),
          things,
          now.runsBought,
          making,
          book,
        ),
      mass: () => mass(now.parts, now.depths, now.areas, making.floorBattens.spacing, now.floor.finish, book),
      modes: () => (now.inner && modes.length > 0 ? modesIn(scene(now.inner)) : []),
      weight: () => weight(masses(now), limits),
      schedule: () =>
        schedule(
          tasks(
            buildUps,
            project.survey,
            units,
            project.fittings,
            project.floorHatches,
            project.linings,
            project.layout,
            project.things,
            now.parts,
            joints(now.made),
            now.areas,
            now.floor.coats,
            project.floor,
            now.floor.finish,
            making,
            book,
          ),
          project.settings.startDate,
          project.settings.hoursPerDay,
        ),
    });
    return now;
  };
  return {
    pull,
    shape: (project, book, dragging: Dragging = false) => {
      const now = pull(project, book, dragging);
      return settled(now, SHAPE_KEYS);
    },
    derive: (project, book) => settled(pull(project, book), [...SHAPE_KEYS, ...REST_KEYS]),
  };
}

/** Derives once, without memory. */
export function derive(project: Project, book: PriceBook, kit: DeriveKit = DERIVE_KIT): Derived {
  return createDeriver(kit).derive(project, book);
}
