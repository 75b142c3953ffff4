import type { PlaceSurface, Run, Survey } from '../document/schema.js';
import type { PlacedRun, RunHole } from '../furniture/runs.js';
import { message } from '../words/message.js';
import type { Task } from './task.js';

/** Working time, minutes: estimates for one person with hand-held tools. */
const MINUTES = { leak: 60, hole: 35, joint: 20, runEnds: 20, runMetre: 8, runHole: 6, lie: 15 } as const;

const plain = { lagHours: 0, lagWhy: null, open: [] } as const;

/** Water from outside before anything covers a seam: everything that is laid waits for it. */
export function leakTask({ leakTest }: Survey): Task[] {
  return leakTest.state === 'open'
    ? [
        {
          ...plain,
          id: 'test-leak',
          kind: 'test',
          title: message('task.leak'),
          minutes: MINUTES.leak,
          after: [],
          tools: message('tools.leak'),
          caution: message('caution.ladder'),
        },
      ]
    : [];
}

/** Holes through a surface that are decided: cut and sealed before its first layer. */
export function holeTasks({ penetrations }: Survey, surface: PlaceSurface): Task[] {
  return penetrations
    .filter((hole) => hole.surface === surface && hole.decided)
    .map(({ id, name, sealing, purpose }): Task => ({
      ...plain,
      id: `hole-${id}`,
      kind: 'hole',
      surface,
      title: sealing === '' ? message('task.hole', { name }) : message('task.holeSealed', { name, sealing }),
      minutes: MINUTES.hole,
      after: [],
      tools: message('tools.hole'),
      caution: message(purpose === 'gas' ? 'caution.gas' : 'caution.drilling'),
    }));
}

/** Joints of gas and water that a surface hides: tried under pressure before its face. */
export function jointTasks({ before }: Survey, surface: PlaceSurface): Task[] {
  return (before?.joints ?? [])
    .filter((joint) => joint.surface === surface && !joint.tested)
    .map(({ id, name, kind }): Task => ({
      ...plain,
      id: `joint-${id}`,
      kind: 'test',
      surface,
      title: message(kind === 'gas' ? 'task.jointGas' : 'task.jointWater', { name }),
      minutes: MINUTES.joint,
      after: [],
      tools: message(kind === 'gas' ? 'tools.jointGas' : 'tools.jointWater'),
      caution: kind === 'gas' ? message('caution.gas') : null,
    }));
}

const CAUTIONS: Partial<Record<Run['kind'], 'caution.electric' | 'caution.gas' | 'caution.fuel'>> = {
  cable: 'caution.electric',
  gas: 'caution.gas',
  flue: 'caution.gas',
  fuel: 'caution.fuel',
};

/** What every run between units needs: pulled or laid when the units at its ends are in, tried when it lies. */
export function runTasks(runs: readonly PlacedRun[], holes: readonly RunHole[], fitted: readonly string[]): Task[] {
  return runs
    .filter(({ points }) => points.length > 0)
    .flatMap(({ run, length }): Task[] => {
      const ends = [run.from, run.to].flatMap((end) => (end && 'unit' in end ? [`${end.unit}-fit`] : []));
      const id = `run-${run.id}`;
      const caution = CAUTIONS[run.kind];
      const said = caution === undefined ? null : message(caution);
      return [
        {
          ...plain,
          id,
          kind: 'run',
          title: message(run.kind === 'cable' ? 'task.pull' : 'task.layRun', {
            name: run.name,
            metres: (length / 1000).toFixed(1),
          }),
          minutes: Math.round(
            MINUTES.runEnds +
              (length / 1000) * MINUTES.runMetre +
              holes.filter(({ runs: through }) => through.includes(run.id)).length * MINUTES.runHole,
          ),
          after: ends.filter((end) => fitted.includes(end)),
          tools: message(run.kind === 'cable' ? 'tools.wiring' : 'tools.pipe'),
          caution: said,
        },
        {
          ...plain,
          id: `${id}-test`,
          kind: 'test',
          title: message(`task.try.${run.kind}`, { name: run.name }),
          minutes: MINUTES.joint,
          after: [id],
          tools: message(run.kind === 'cable' ? 'tools.tester' : 'tools.pressure'),
          caution: said,
        },
      ];
    });
}

/** Somebody lies down where people will sleep, before it is used. */
export function lieTasks(beds: readonly { readonly id: string; readonly name: string }[]): Task[] {
  return beds.map(({ id, name }): Task => ({
    ...plain,
    id: `${id}-lie`,
    kind: 'test',
    unit: id,
    title: message('task.lie', { name }),
    minutes: MINUTES.lie,
    after: [`${id}-fit`],
    tools: message('tools.lie'),
    caution: message('caution.load'),
  }));
}
