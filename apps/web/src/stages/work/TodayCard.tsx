import Button from '@mui/material/Button';
import { useEffect, useState } from 'react';
import { materialOf } from '@nestplank/core/materials';
import { workedOn, type PlannedTask } from '@nestplank/core/work';
import type { Worked } from '@nestplank/core/document';
import type { Scene } from '../../state/scene.js';
import { useSpeech } from '../../words/use-speech.js';
import { BeforeClosing } from './BeforeClosing.js';
import { TaskDrawing } from './TaskDrawing.js';
import { dayAfter, timeSaid } from './times.js';
import type { useWork } from './use-work.js';
import { waitsFor } from './waits-for.js';

const MINUTE_MS = 60_000;

/** The minutes worked on a task, counted on while it is in hand. */
function useWorked(worked: Worked | undefined): number {
  const [now, setNow] = useState(() => new Date().toISOString());
  const since = worked?.since ?? null;
  useEffect(() => {
    setNow(new Date().toISOString());
    if (since === null) return undefined;
    const timer = setInterval(() => setNow(new Date().toISOString()), MINUTE_MS);
    return () => clearInterval(timer);
  }, [since]);
  return worked ? workedOn(worked, now) : 0;
}

/** What parts are made of, by material: so many of each. */
function partsByMaterial(ids: readonly string[], { derived, book }: Scene): string[] {
  const own = new Set(ids);
  const counts = new Map<string, number>();
  for (const part of derived.parts)
    if (own.has(part.id)) counts.set(part.material, (counts.get(part.material) ?? 0) + 1);
  return [...counts.entries()].map(([id, count]) => `${count} × ${materialOf(book, id)?.name ?? id}`);
}

/** One task on the bench: what it is, what it looks like, what to take and to watch, and what becomes of it. */
export function TodayCard({
  planned,
  scene,
  work,
  worked,
  lessons,
  onWrong,
}: {
  readonly planned: PlannedTask;
  readonly scene: Scene;
  readonly work: ReturnType<typeof useWork>;
  readonly worked: Worked | undefined;
  /** What was learnt at this kind of work before. */
  readonly lessons: readonly string[];
  readonly onWrong: () => void;
}) {
  const speech = useSpeech();
  const { t, said } = speech;
  const { task, left, range } = planned;
  const spent = useWorked(worked);
  const { tasks, learnt } = scene.derived.schedule;
  const names = new Map(tasks.map((own) => [own.task.id, own.task]));
  const behind = tasks.filter((own) => own.task.after.includes(task.id)).map((own) => said(own.task.title));
  const inHand = (worked?.since ?? null) !== null;
  const count = learnt.find(({ kind }) => kind === task.kind)?.count ?? 0;
  return (
    <>
      <article className="bench-card" aria-label={t('work.card')}>
        <div className="bench-text">
          <h2 className="size-21">{said(task.title)}</h2>
          {behind.length > 0 && (
            <p className="small soft">
              {t('work.holds', {
                tasks:
                  behind.slice(0, 2).join(' · ') +
                  (behind.length > 2 ? ` · ${t('work.more', { count: behind.length - 2 })}` : ''),
              })}
            </p>
          )}
          {waitsFor(task, names, speech).map((line) => (
            <p key={line} className="small needs">
              {line}
            </p>
          ))}
          {task.note !== undefined && task.note !== '' && <p>{task.note}</p>}
        </div>
        <TaskDrawing task={task} scene={scene} />
        <div className="bench-notes">
          <div>
            <h3>{t('work.take')}</h3>
            <p>{said(task.tools)}</p>
            {(task.fixings ?? []).map(({ item, amount }) => (
              <p key={item}>
                {Number(amount.toFixed(1))} × {materialOf(scene.book, item)?.name ?? item}
              </p>
            ))}
            {partsByMaterial(task.parts ?? [], scene).map((line) => (
              <p key={line}>{line}</p>
            ))}
          </div>
          {(task.caution || lessons.length > 0) && (
            <div>
              <h3>{t('work.watch')}</h3>
              {task.caution && <p className="needs">{said(task.caution)}</p>}
              {lessons.map((lesson) => (
                <p key={lesson}>
                  {t('log.lastTime')}: {lesson}
                </p>
              ))}
            </div>
          )}
          <p className="bench-time">
            {spent > 0 && <b className="size-24 data">{timeSaid(spent, speech)}</b>}{' '}
            <span className="soft">
              {range
                ? t('work.ofRange', { from: timeSaid(range[0], speech), to: timeSaid(range[1], speech), count })
                : t('work.of', { time: timeSaid(spent > 0 ? Math.max(task.minutes, spent) : left, speech) })}
            </span>
          </p>
          {task.lagWhy && <p className="small soft">{t('work.lagAfter', { why: said(task.lagWhy) })}</p>}
        </div>
        <BeforeClosing task={task} scene={scene} />
      </article>
      <div className="bench-keys">
        <Button variant="outlined" onClick={() => (inHand ? work.pause(task) : work.start(task))}>
          {t(inHand ? 'work.pause' : spent > 0 ? 'work.goOn' : 'work.begin')}
        </Button>
        <Button variant="outlined" onClick={() => work.putOff(task, dayAfter(new Date()))}>
          {t('work.notToday')}
        </Button>
        <Button variant="outlined" onClick={onWrong}>
          {t('work.wrong')}
        </Button>
        <Button variant="contained" className="grow" onClick={() => work.finish(task)}>
          {t('work.done')}
        </Button>
      </div>
    </>
  );
}
