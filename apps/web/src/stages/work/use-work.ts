import { useMemo } from 'react';
import type { Operation, Worked } from '@nestplank/core/document';
import { tick, touched, untick, type PlannedTask, type Task } from '@nestplank/core/work';
import { useChange } from '../../kit/use-change.js';
import type { Scene } from '../../state/scene.js';
import { look, useView } from '../../state/view.js';
import { useSpeech } from '../../words/use-speech.js';

/** Whether each task that this one waits for is ticked or gone, and has cured. */
const isReady = (planned: PlannedTask, open: ReadonlySet<string>, curing: ReadonlySet<string>): boolean =>
  planned.task.after.every((id) => !open.has(id) && !curing.has(id));

/** The task that is on the bench, and what else could be done now. */
export function benchOf({ derived, project }: Scene, chosen: string | null) {
  const { tasks, curing } = derived.schedule;
  const open = new Set(tasks.map(({ task }) => task.id));
  const wet = new Set(curing.map(({ task }) => task.id));
  const worked = new Map<string, Worked>((project.record?.tasks ?? []).map((own) => [own.task, own]));
  const inHand = tasks.find(({ task }) => (worked.get(task.id)?.since ?? null) !== null);
  const ready = tasks.filter((planned) => isReady(planned, open, wet));
  const now = tasks.find(({ task }) => task.id === chosen) ?? inHand ?? ready[0] ?? tasks[0] ?? null;
  return { now, worked, meanwhile: ready.filter((planned) => planned !== now) };
}

/** What can be done with tasks: each is one step that can be undone. */
export function useWork(scene: Scene) {
  const { said } = useSpeech();
  const change = useChange();
  const who = useView((view) => view.who);
  const { project, derived } = scene;
  return useMemo(() => {
    const touch = () => ({ at: new Date().toISOString(), by: who, say: said });
    const one = (operation: Operation): boolean => change(operation);
    return {
      start: (task: Task) => one({ name: 'startTask', payload: touched(task, touch()) }),
      pause: (task: Task) => one({ name: 'pauseTask', payload: { task: task.id, at: touch().at } }),
      finish: (task: Task) => {
        if (one(tick(task, project, derived.parts, touch()))) look({ task: null });
      },
      reopen: (task: string) => one(untick(task, project)),
      putOff: (task: Task, until: string) => {
        if (one({ name: 'putOffTask', payload: { ...touched(task, touch()), until } })) look({ task: null });
      },
    };
  }, [change, said, who, project, derived.parts]);
}
