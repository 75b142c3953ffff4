import Button from '@mui/material/Button';
import { untick, type DoneTask } from '@nestplank/core/work';
import type { Project } from '@nestplank/core/document';
import { dayName } from '../../frame/tape-figures.js';
import { Fold } from '../../kit/Fold.js';
import type { Scene } from '../../state/scene.js';
import { look } from '../../state/view.js';
import { useSpeech } from '../../words/use-speech.js';
import { timeSaid } from './times.js';
import type { useWork } from './use-work.js';
import { waitsFor } from './waits-for.js';

/** Every task that is open, in its order: why then, taken up or ticked where it stands. */
export function TaskList({ scene, work }: { readonly scene: Scene; readonly work: ReturnType<typeof useWork> }) {
  const speech = useSpeech();
  const { t, said } = speech;
  const { tasks } = scene.derived.schedule;
  const known = new Map(tasks.map(({ task }) => [task.id, task]));
  return (
    <Fold title={t('work.today')} line={t('work.hoursShort', { hours: Math.round(scene.derived.schedule.workHours) })}>
      <ol className="ruled-list">
        {tasks.map(({ task, starts, left }, i) => (
          <li key={task.id}>
            <div className="row apart at-baseline">
              <b>
                {i + 1} {said(task.title)}
              </b>
              <span className="figures soft one-line">
                {dayName(starts)} · {timeSaid(left, speech)}
              </span>
            </div>
            {task.lagWhy && <p className="small needs">{said(task.lagWhy)}</p>}
            {task.open.map((point) => (
              <p key={`${point.key}:${JSON.stringify(point.params)}`} className="small needs">
                {t('work.open', { what: said(point) })}
              </p>
            ))}
            <p className="small soft">{said(task.tools)}</p>
            {task.caution && <p className="small soft">{said(task.caution)}</p>}
            {waitsFor(task, known, speech).map((line) => (
              <p key={line} className="small soft">
                {line}
              </p>
            ))}
            <div className="task-row-keys">
              <Button
                size="small"
                aria-label={t('work.nowOf', { task: said(task.title) })}
                onClick={() => look({ task: task.id })}
              >
                {t('work.card')}
              </Button>
              <Button
                size="small"
                aria-label={t('work.doneOf', { task: said(task.title) })}
                onClick={() => work.finish(task)}
              >
                {t('work.done')}
              </Button>
            </div>
          </li>
        ))}
      </ol>
    </Fold>
  );
}

/** What is ticked, newest first; what changed since says so, and a tick can be taken back. */
export function DoneList({
  done,
  project,
  work,
}: {
  readonly done: readonly DoneTask[];
  readonly project: Project;
  readonly work: ReturnType<typeof useWork>;
}) {
  const speech = useSpeech();
  const { t, said } = speech;
  const changed = done.filter(({ reopened }) => reopened).length;
  if (done.length === 0) return null;
  return (
    <Fold
      title={t('work.doneList')}
      line={changed > 0 ? t('work.changedCount', { count: changed }) : String(done.length)}
      open={changed > 0}
    >
      <ol className="ruled-list">
        {done.map(({ worked, task, reopened }) => {
          const title = task ? said(task.title) : worked.title;
          const time = timeSaid(worked.minutes, speech);
          const date = dayName((worked.done ?? '').slice(0, 10));
          return (
            <li key={worked.task}>
              <div className="row apart at-baseline">
                <span>{title}</span>
                <span className="figures soft small one-line">
                  {worked.by === ''
                    ? t('work.doneOn', { date, time })
                    : t('work.doneOnBy', { date, time, who: worked.by })}
                </span>
              </div>
              {reopened && <p className="small needs">{t('work.changed')}</p>}
              {!task && untick(worked.task, project).name === 'reopenTask' && (
                <p className="small soft">{t('work.gone')}</p>
              )}
              <Button
                size="small"
                aria-label={t('work.undoneOf', { task: title })}
                onClick={() => work.reopen(worked.task)}
              >
                {t('work.undone')}
              </Button>
            </li>
          );
        })}
      </ol>
    </Fold>
  );
}
