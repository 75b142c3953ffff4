import type { Operation } from '../../document/operation.js';
import type { Run } from '../../document/unit-schema.js';
import { appliesTo, type Mend, type Pin, type Scene } from '../../furniture/scene.js';
import { airLength, openLength, type PlacedRun, type RunHole } from '../../furniture/runs.js';
import { boardBox } from '../../furniture/skeleton.js';
import { solidsOf } from '../../furniture/solid.js';
import {
  cableRule,
  carriedBy,
  copperFor,
  drainFallRule,
  DROP_GOOD,
  dropRule,
  ductRule,
  FALL_GOOD,
  flueClearRule,
  fuseFor,
  fuseRule,
  holeEdgeRule,
  movingRunRule,
  openRunRule,
  runEndsRule,
  SECTIONS,
  shareLost,
} from '../../rules/runs.js';
import { ventArea } from '../../rules/things.js';
import type { Vector } from '../../parts/part.js';
import type { Verdict } from '../../rules/rule.js';
import { wholeUp } from '../../numeric/tolerance.js';
import { message, mm } from '../../words/message.js';

/** Boards near an exhaust are looked for every so often along it, mm. */
const STEP_MM = 20;

type Wire = NonNullable<Run['wire']>;

const pinAt = ([x, y]: Vector | readonly [number, number, number], unit: string | null = null): Pin => ({
  unit,
  person: null,
  x,
  y,
});
/** Where a run's note is pinned: at its first corner; at the front where it has none. */
const pinOf = ({ points }: PlacedRun): Pin => pinAt(points[0] ?? [0, 0, 0]);
const nameOf = (scene: Scene, id: string): string => scene.units.find((unit) => unit.id === id)?.name ?? id;
const runNames = (scene: Scene, ids: readonly string[]): string =>
  ids.map((id) => scene.runs.placed.find(({ run }) => run.id === id)?.run.name ?? id).join(', ');

/** Leads the runs of a hole so much further from the edge it is near: what lies between their ends is moved as a whole. */
function ledInward(scene: Scene, { runs, inward }: RunHole, short: number): Mend | null {
  const by = wholeUp(short) + 1;
  const led = scene.runs.placed.filter(({ run, points }) => runs.includes(run.id) && points.length > 0);
  const operations = led.map(({ run, points }): Operation => {
    // two corners where it has none of its own
    const [first, last] = [points[0] ?? [0, 0, 0], points.at(-1) ?? [0, 0, 0]];
    const middle = points.length > 2 ? points.slice(1, -1) : [first, last];
    const via = middle.map((point): [number, number, number] => [
      Math.round(point[0] + inward[0] * by),
      Math.round(point[1] + inward[1] * by),
      Math.round(point[2] + inward[2] * by - scene.inner.floor),
    ]);
    return { name: 'putRun', payload: { run: { ...run, via } } };
  });
  return operations.length === 0
    ? null
    : { said: message('mend.leadRun', { run: runNames(scene, runs), by: mm(by) }), operations };
}

const edges = appliesTo(holeEdgeRule, {
  ofRoom: (scene) =>
    scene.runs.holes
      .filter(({ moves }) => !moves)
      .map((hole) => ({
        id: `hole-edge:${hole.unit}.${hole.board}:${hole.runs.join('+')}`,
        input: {
          left: hole.edge,
          diameter: hole.diameter,
          name: nameOf(scene, hole.unit),
          run: runNames(scene, hole.runs),
          board: hole.board,
        },
        pin: pinAt(hole.place, hole.unit),
        quiet: true,
        mend: ({ spare }: Verdict) => ledInward(scene, hole, -(spare ?? 0)),
      })),
});

const through = appliesTo(movingRunRule, {
  ofRoom: (scene) => [
    ...scene.runs.holes
      .filter(({ moves, panel }) => moves || panel)
      .map((hole) => ({
        id: `${hole.panel ? 'run-panel' : 'run-moving'}:${hole.unit}.${hole.board}:${hole.runs.join('+')}`,
        input: {
          through: hole.panel ? ('panel' as const) : ('moving' as const),
          name: nameOf(scene, hole.unit),
          run: runNames(scene, hole.runs),
          board: hole.board,
        },
        pin: pinAt(hole.place, hole.unit),
      })),
    ...scene.runs.along.map((one) => ({
      id: `run-moving:${one.unit}.${one.board}:${one.run}`,
      input: {
        through: 'board' as const,
        name: nameOf(scene, one.unit),
        run: runNames(scene, [one.run]),
        board: one.board,
      },
      pin: pinAt(one.place, one.unit),
    })),
  ],
});

const ends = appliesTo(runEndsRule, {
  ofRoom: ({ runs }) =>
    runs.placed
      .filter(({ points }) => points.length === 0)
      .map((one) => ({ id: `run-ends:${one.run.id}`, input: { run: one.run.name }, pin: pinOf(one) })),
});

const open = appliesTo(openRunRule, {
  ofRoom: (scene) => {
    const laid = scene.runs.placed.filter(({ points }) => points.length > 0);
    if (laid.length === 0) return [];
    const solids = scene.units.flatMap((unit) => solidsOf(unit, scene, scene.families));
    return laid.map((one) => ({
      id: `run-open:${one.run.id}`,
      input: {
        open: openLength(one.points, solids, scene.inner),
        air: airLength(one.points, solids, scene.inner),
        run: one.run.name,
      },
      pin: pinOf(one),
      quiet: true,
      // what was led by hand may find a better way on its own
      mend: () =>
        one.run.via.length === 0
          ? null
          : {
              said: message('mend.ownWay', { run: one.run.name }),
              operations: [{ name: 'putRun' as const, payload: { run: { ...one.run, via: [] } } }],
            },
    }));
  },
});

/** The least fall of a run from one corner to the next, mm a metre; null where it has no level length at all. */
function leastFall({ points }: PlacedRun): number | null {
  const falls = points.slice(1).flatMap((b, i): number[] => {
    const a = points[i];
    if (!a) return [];
    const level = Math.hypot(b[0] - a[0], b[1] - a[1]);
    if (level < 1) return b[2] > a[2] + 1 ? [-1000] : [];
    return [((a[2] - b[2]) / level) * 1000];
  });
  return falls.length === 0 ? null : Math.min(...falls);
}

/** Lets a waste pipe go its own way, and lower at its end where that has a place of its own. */
function lowerEnd({ run, points }: PlacedRun, floor: number): Mend | null {
  const [first, last] = [points[0], points.at(-1)];
  if (!first || !last || !run.to || !('at' in run.to)) return null;
  const level = Math.abs(last[0] - first[0]) + Math.abs(last[1] - first[1]);
  const [x, y, z] = run.to.at;
  const low = Math.floor(first[2] - floor - (FALL_GOOD * level) / 1000 - 1);
  return {
    said: message('mend.lowerEnd', { run: run.name, by: mm(Math.max(0, z - low)) }),
    operations: [{ name: 'putRun', payload: { run: { ...run, via: [], to: { at: [x, y, Math.min(z, low)] } } } }],
  };
}

const fall = appliesTo(drainFallRule, {
  ofRoom: ({ runs, inner }) =>
    runs.placed.flatMap((one) => {
      const least = one.run.kind === 'waste' ? leastFall(one) : null;
      return least === null
        ? []
        : [
            {
              id: `drain-fall:${one.run.id}`,
              input: { fall: least, run: one.run.name },
              pin: pinOf(one),
              mend: () => lowerEnd(one, inner.floor),
            },
          ];
    }),
});

/** What a cable feeds: everything at its ends that draws, batteries and chargers aside, W. */
export const wattsOf = ({ things }: PlacedRun): number => things.reduce((sum, { draws }) => sum + draws, 0);

const wired = (scene: Scene) =>
  scene.runs.placed.flatMap((one) =>
    one.run.kind === 'cable' && one.run.wire ? [{ one, wire: one.run.wire, watts: wattsOf(one) }] : [],
  );
/** Another fuse or more copper for a cable. */
function rewired(run: Run, wire: Wire, changes: Partial<Wire>): Mend {
  const next = { ...wire, ...changes };
  return {
    said: message(
      changes.fuse === undefined ? 'mend.copper' : changes.copper === undefined ? 'mend.fuse' : 'mend.fuseCopper',
      { run: run.name, fuse: next.fuse ?? 0, copper: next.copper ?? 0 },
    ),
    operations: [{ name: 'putRun', payload: { run: { ...run, wire: next } } }],
  };
}
/** A fuse that is not loaded to its rating, with copper that carries it. */
function fusedFor({ run }: PlacedRun, wire: Wire, amps: number): Mend | null {
  const wanted = fuseFor(amps);
  if (wanted === null) return null;
  const copper = copperFor(wanted);
  const thin = wire.copper !== null && carriedBy(wire.copper) < wanted;
  if (thin && copper === null) return null;
  return rewired(run, wire, thin ? { fuse: wanted, copper } : { fuse: wanted });
}
const thicker = ({ run }: PlacedRun, wire: Wire, copper: number | null | undefined): Mend | null =>
  copper === null || copper === undefined ? null : rewired(run, wire, { copper });

const fuse = appliesTo(fuseRule, {
  ofRoom: (scene) =>
    wired(scene)
      .filter(({ watts }) => watts > 0)
      .map(({ one, wire, watts }) => ({
        id: `fuse:${one.run.id}`,
        input: { watts, volts: wire.volts, fuse: wire.fuse, run: one.run.name },
        pin: pinOf(one),
        quiet: true,
        mend: () => fusedFor(one, wire, watts / wire.volts),
      })),
});
const cable = appliesTo(cableRule, {
  ofRoom: (scene) =>
    wired(scene).flatMap(({ one, wire }) =>
      wire.fuse === null
        ? []
        : [
            {
              id: `cable-fuse:${one.run.id}`,
              input: { fuse: wire.fuse, copper: wire.copper, run: one.run.name },
              pin: pinOf(one),
              quiet: true,
              mend: () => thicker(one, wire, copperFor(wire.fuse ?? 0)),
            },
          ],
    ),
});
const drop = appliesTo(dropRule, {
  ofRoom: (scene) =>
    wired(scene)
      .filter(({ one, watts }) => watts > 0 && one.points.length > 0)
      .map(({ one, wire, watts }) => ({
        id: `voltage-drop:${one.run.id}`,
        input: { length: one.length, watts, volts: wire.volts, copper: wire.copper, run: one.run.name },
        pin: pinOf(one),
        quiet: true,
        mend: () =>
          thicker(
            one,
            wire,
            SECTIONS.find((copper) => shareLost(one.length, watts, wire.volts, copper) <= DROP_GOOD),
          ),
      })),
});

const duct = appliesTo(ductRule, {
  ofRoom: ({ runs }) =>
    runs.placed.flatMap((one) => {
      const { run, points, things } = one;
      const [first, last] = [points[0], points.at(-1)];
      if (run.kind !== 'duct' || !first || !last) return [];
      return things
        .filter(({ heat, air }) => heat > 0 || air !== null)
        .map((thing) => {
          const wants = thing.air
            ? Math.max(thing.air.inlet, thing.air.outlet)
            : ventArea(thing.heat, Math.abs(last[2] - first[2]));
          return {
            id: `duct:${run.id}:${thing.id}`,
            input: { diameter: run.diameter, wants, thing: thing.name, run: run.name },
            pin: pinOf(one),
            quiet: true,
            mend: () => {
              const diameter = Math.ceil(Math.sqrt((wants * 100 * 4) / Math.PI));
              return {
                said: message('mend.widerDuct', { run: run.name, diameter: mm(diameter) }),
                operations: [{ name: 'putRun' as const, payload: { run: { ...run, diameter } } }],
              };
            },
          };
        });
    }),
});

/** Every place along a run, closely enough, mm. */
function alongRun(points: readonly Vector[]): Vector[] {
  return points.slice(1).flatMap((b, i) => {
    const a = points[i] ?? b;
    const steps = Math.max(1, Math.ceil(Math.hypot(b[0] - a[0], b[1] - a[1], b[2] - a[2]) / STEP_MM));
    return Array.from({ length: steps + 1 }, (_, k): Vector => {
      const share = k / steps;
      return [a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share, a[2] + (b[2] - a[2]) * share];
    });
  });
}

const hot = appliesTo(flueClearRule, {
  ofRoom: (scene) =>
    scene.runs.placed
      .filter(({ run, points }) => run.kind === 'flue' && points.length > 0)
      .flatMap((one) => {
        const { run, points } = one;
        const places = alongRun(points);
        const through = new Set(
          scene.runs.holes.filter(({ runs }) => runs.includes(run.id)).map(({ unit, board }) => `${unit}.${board}`),
        );
        let nearest: {
          readonly clear: number;
          readonly unit: string;
          readonly board: string;
          readonly at: Vector;
        } | null = null;
        for (const [unit, { boards }] of scene.skeletons)
          for (const board of boards) {
            // what it goes through has a hole that is wide enough
            if (through.has(`${unit}.${board.name}`)) continue;
            const { low, high } = boardBox(board);
            for (const at of places) {
              const clear =
                Math.hypot(
                  ...[0, 1, 2].map((k) => Math.max((low[k] ?? 0) - (at[k] ?? 0), 0, (at[k] ?? 0) - (high[k] ?? 0))),
                ) -
                run.diameter / 2;
              if (!nearest || clear < nearest.clear) nearest = { clear, unit, board: board.name, at };
            }
          }
        return nearest
          ? [
              {
                id: `flue-clear:${run.id}`,
                input: {
                  clear: nearest.clear,
                  run: run.name,
                  board: nearest.board,
                  name: nameOf(scene, nearest.unit),
                },
                pin: pinAt(nearest.at, nearest.unit),
                quiet: true,
              },
            ]
          : [];
      }),
});

/** Cables, pipes and ducts: what they go through, what they lie across, how they fall and what they carry. */
export const RUN_CHECKS = [ends, through, edges, open, fall, fuse, cable, drop, duct, hot];
