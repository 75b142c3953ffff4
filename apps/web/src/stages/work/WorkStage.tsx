import './work.css';
import Button from '@mui/material/Button';
import { formatISO } from 'date-fns/formatISO';
import { useState } from 'react';
import type { LogKind, Settings } from '@nestplank/core/document';
import type { Message } from '@nestplank/core/words';
import { dayName } from '../../frame/tape-figures.js';
import { DateField } from '../../kit/DateField.js';
import { FileButton } from '../../kit/FileButton.js';
import { NumberField } from '../../kit/NumberField.js';
import { PickField } from '../../kit/PickField.js';
import { api } from '../../state/api.js';
import { useScene, type Scene } from '../../state/scene.js';
import { act, useSession } from '../../state/session.js';
import { look, useView } from '../../state/view.js';
import { useSpeech } from '../../words/use-speech.js';
import { DayChart } from './DayChart.js';
import { Logbook } from './Logbook.js';
import { DoneList, TaskList } from './TaskList.js';
import { timeSaid } from './times.js';
import { TodayCard } from './TodayCard.js';
import { benchOf, useWork } from './use-work.js';

/** So many other tasks that can be begun are named beside the bench. */
const MEANWHILE = 4;
/** So many lessons come up with a task. */
const LESSONS = 3;

function DayFields({ scene }: { readonly scene: Scene }) {
  const { t, said } = useSpeech();
  const who = useView((view) => view.who);
  const id = useSession((session) => session.id);
  const { settings, people } = scene.project;
  const { schedule } = scene.derived;
  const change = (changes: Partial<Omit<Settings, 'cutting'>>): Message | null =>
    act({ name: 'changeSettings', payload: { changes } });
  const takeDate = (startDate: string): string | null => {
    const refused = change({ startDate });
    return refused && said(refused);
  };
  return (
    <section className="section stack">
      {schedule.ends && (
        <p>
          {t('work.ends', {
            date: dayName(schedule.ends),
            hours: settings.hoursPerDay,
            work: Math.round(schedule.workHours),
            wait: Math.round(schedule.waitHours),
          })}
        </p>
      )}
      <div className="fields day-and-two">
        <DateField label={t('work.start')} value={settings.startDate} onTake={takeDate} />
        <NumberField
          label={t('work.hours')}
          value={settings.hoursPerDay}
          least={0.5}
          most={24}
          onTake={(hoursPerDay) => change({ hoursPerDay })}
        />
        <NumberField
          label={`${t('work.temperature')}, °C`}
          value={settings.workTemperature}
          least={-20}
          most={45}
          onTake={(workTemperature) => change({ workTemperature })}
        />
      </div>
      {people.length > 0 && (
        <PickField
          label={t('work.who')}
          value={who}
          choices={[{ value: '', text: t('work.nobody') }, ...people.map(({ name }) => ({ value: name, text: name }))]}
          onPick={(name) => {
            look({ who: name });
            return null;
          }}
        />
      )}
      {id !== null && schedule.tasks.length > 0 && (
        <FileButton address={api.calendarAddress(id, formatISO(new Date(), { representation: 'date' }))}>
          {t('work.calendar')}
        </FileButton>
      )}
      <p className="small soft">{t('work.estimate')}</p>
      {schedule.learnt.map(({ kind, ratio, count }) => (
        <p key={kind} className="small">
          {t('work.learnt', { kind: t(`work.kind.${kind}`), ratio: ratio.toFixed(1), count })}
        </p>
      ))}
    </section>
  );
}

/** Work: the task of now, what else could be done, the days ahead, and the logbook. */
export default function WorkStage() {
  const scene = useScene();
  return scene ? <Work scene={scene} /> : <main className="stage" />;
}

function Work({ scene }: { readonly scene: Scene }) {
  const speech = useSpeech();
  const { t, said } = speech;
  const work = useWork(scene);
  const chosen = useView((view) => view.task);
  const [kind, setKind] = useState<LogKind>('note');
  const { schedule, done } = scene.derived;
  const { settings, record } = scene.project;
  const { now, worked, meanwhile } = benchOf(scene, chosen);
  const lessons = (record?.log ?? [])
    .filter((entry) => entry.kind === 'lesson' && entry.work === now?.task.kind && entry.struck === null)
    .slice(-LESSONS)
    .map(({ text }) => text);
  return (
    <main className="stage">
      <div className="board">
        {schedule.tasks.length === 0 && schedule.done === 0 ? (
          <p className="empty">{t('work.none')}</p>
        ) : (
          <>
            <div className="bench">
              <div className="row apart at-baseline">
                <b className="size-17">{now ? dayName(now.starts) : ''}</b>
                <span className="soft figures">
                  {t('work.progress', {
                    done: schedule.done,
                    all: schedule.done + schedule.tasks.length,
                    hours: Math.round(schedule.workHours),
                  })}
                </span>
              </div>
              {now ? (
                <TodayCard
                  key={now.task.id}
                  planned={now}
                  scene={scene}
                  work={work}
                  worked={worked.get(now.task.id)}
                  lessons={lessons}
                  onWrong={() => setKind('mistake')}
                />
              ) : (
                <p className="empty">{t('work.allDone')}</p>
              )}
            </div>
            {schedule.tasks.length > 0 && (
              <DayChart schedule={schedule} startDate={settings.startDate} hoursPerDay={settings.hoursPerDay} />
            )}
          </>
        )}
      </div>
      <div className="side">
        {now && (
          <section className="stack">
            <h2>{t('work.meanwhile')}</h2>
            {meanwhile.length === 0 && <p className="small soft">{t('work.nothingElse')}</p>}
            {meanwhile.slice(0, MEANWHILE).map(({ task, left }) => (
              <div key={task.id} className="row apart">
                <Button
                  className="to-start"
                  aria-label={t('work.nowOf', { task: said(task.title) })}
                  onClick={() => look({ task: task.id })}
                >
                  {said(task.title)}
                </Button>
                <span className="figures soft one-line">{timeSaid(left, speech)}</span>
              </div>
            ))}
          </section>
        )}
        {schedule.curing.length > 0 && (
          <section className="section">
            <h2>{t('work.waits')}</h2>
            {schedule.curing.map(({ task, until }) => (
              <p key={task.id} className="small">
                {t('work.waitUntil', { task: said(task.title), date: dayName(until) })}
                {task.lagWhy && <span className="soft"> · {said(task.lagWhy)}</span>}
              </p>
            ))}
          </section>
        )}
        <Logbook scene={scene} task={now?.task ?? null} kind={kind} onKind={setKind} />
        <DoneList done={done} project={scene.project} work={work} />
        <TaskList scene={scene} work={work} />
        <DayFields scene={scene} />
      </div>
    </main>
  );
}
