import { DateField } from '../../kit/DateField.js';
import type { Settings } from '@nestplank/core/document';
import type { Message } from '@nestplank/core/words';
import { dayName } from '../../frame/tape-figures.js';
import { act } from '../../state/session.js';
import { useScene } from '../../state/scene.js';
import { NumberField } from '../../kit/NumberField.js';
import { useSpeech } from '../../words/use-speech.js';
import { DayChart } from './DayChart.js';

/** Work: the days ahead, in order, with the waiting in them. */
export default function WorkStage() {
  const { t, said } = useSpeech();
  const scene = useScene();
  if (!scene) return <main className="stage" />;
  const { schedule } = scene.derived;
  const { settings } = scene.project;
  const change = (changes: Partial<Omit<Settings, 'cutting'>>): Message | null =>
    act({ name: 'changeSettings', payload: { changes } });
  const names = new Map(schedule.tasks.map(({ task }) => [task.id, said(task.title)]));
  const takeDate = (startDate: string): string | null => {
    const refused = change({ startDate });
    return refused && said(refused);
  };
  return (
    <main className="stage">
      <div className="board">
        {schedule.tasks.length === 0 ? (
          <p className="empty">{t('work.none')}</p>
        ) : (
          <DayChart schedule={schedule} startDate={settings.startDate} hoursPerDay={settings.hoursPerDay} />
        )}
      </div>
      <div className="side">
        <section className="stack">
          {schedule.ends && (
            <p className="size-17">
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
          <p className="small soft">{t('work.estimate')}</p>
        </section>
        <section className="section">
          <h2>{t('work.today')}</h2>
          <ol className="ruled-list">
            {schedule.tasks.map(({ task, starts }, i) => (
              <li key={task.id}>
                <div className="row apart at-baseline">
                  <b>
                    {i + 1} {names.get(task.id)}
                  </b>
                  <span className="figures soft one-line">
                    {dayName(starts)} · {t('work.hoursShort', { hours: (task.minutes / 60).toFixed(1) })}
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
                {task.after.length > 0 && (
                  <p className="small soft">
                    {t('work.after', { tasks: task.after.map((id) => names.get(id) ?? id).join(', ') })}
                  </p>
                )}
              </li>
            ))}
          </ol>
        </section>
      </div>
    </main>
  );
}
