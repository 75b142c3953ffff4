import { reasonSaid, type Task } from '@nestplank/core/work';
import type { Speech } from '../../words/words.js';

/** What a task waits for, in words: tasks that come before it for one reason stand in one line. */
export function waitsFor(task: Task, known: ReadonlyMap<string, Task>, { t, said }: Speech): readonly string[] {
  const lines = new Map<string, string[]>();
  for (const id of task.after) {
    const before = known.get(id);
    if (!before) continue;
    const why = said(reasonSaid(before, task));
    lines.set(why, [...(lines.get(why) ?? []), said(before.title)]);
  }
  return [...lines.entries()].map(([why, titles]) =>
    t('work.whyBefore', { task: titles.map((title) => `“${title}”`).join(', '), why }),
  );
}
