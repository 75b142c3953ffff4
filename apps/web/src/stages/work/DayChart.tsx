import { addDays } from 'date-fns/addDays';
import { formatISO } from 'date-fns/formatISO';
import { parseISO } from 'date-fns/parseISO';
import type { Schedule } from '@nestplank/core/work';
import { dayName } from '../../frame/tape-figures.js';
import { useSize } from '../../kit/use-size.js';
import { useSpeech } from '../../words/use-speech.js';

const MORNING = 9;

interface Slot {
  readonly day: number;
  readonly title: string;
  readonly number: number;
  readonly from: number;
  readonly to: number;
}

/** Work that falls on each day, split where it runs overnight. */
function slotsOf(schedule: Schedule, name: (index: number) => string): Slot[] {
  return schedule.tasks.flatMap((item, i) =>
    item.work.map((stretch): Slot => ({
      day: Math.floor(stretch.from / 24),
      title: name(i),
      number: i + 1,
      from: stretch.from % 24,
      to: stretch.to - 24 * Math.floor(stretch.from / 24),
    })),
  );
}

/** The days ahead as planks laid one under the other: each day a length of hours, work solid with its name, waiting hatched beneath it. */
export function DayChart({
  schedule,
  startDate,
  hoursPerDay,
}: {
  readonly schedule: Schedule;
  readonly startDate: string;
  readonly hoursPerDay: number;
}) {
  const { t, said } = useSpeech();
  const { ref, width } = useSize<HTMLDivElement>();
  const slots = slotsOf(schedule, (i) => {
    const task = schedule.tasks[i]?.task;
    return task ? said(task.title) : '';
  });
  const waits = schedule.tasks.flatMap((item, i) =>
    item.wait ? [{ ...item.wait, number: i + 1, why: item.task.lagWhy ? said(item.task.lagWhy) : '' }] : [],
  );
  const lastDay = Math.max(...slots.map((slot) => slot.day), ...waits.map((wait) => Math.floor((wait.to - 1e-9) / 24)));
  const firstDay = Math.max(0, Math.min(lastDay, ...slots.map((slot) => slot.day)));
  const days = Array.from({ length: lastDay + 1 - firstDay }, (_, i) => firstDay + i);
  const [left, right] = [96, 18];
  const hours = Math.max(hoursPerDay, 1);
  const x = (hour: number): number =>
    left + ((Math.min(Math.max(hour, MORNING), MORNING + hours) - MORNING) / hours) * (width - left - right);
  const dateOf = (day: number): string => formatISO(addDays(parseISO(startDate), day), { representation: 'date' });
  const waitingOn = (day: number): typeof waits =>
    waits.filter((wait) => wait.from < 24 * day + MORNING + hours && wait.to > 24 * day + MORNING);
  const heights = days.map((day) => 50 + 18 * waitingOn(day).length);
  const top = 34;
  const topOf = (day: number): number =>
    top + heights.slice(0, day - firstDay).reduce((sum, height) => sum + height, 0);
  return (
    <div ref={ref} className="grow canvas scrolls" tabIndex={0} role="region" aria-label={t('work.days')}>
      {width > 120 && (
        <svg
          className="block"
          width={width}
          height={topOf(lastDay + 1) + 20}
          role="img"
          aria-label={t('work.chart', { from: dayName(dateOf(firstDay)), to: dayName(dateOf(lastDay)) })}
        >
          <text className="size-16 strong" x={18} y={22}>
            {t('work.days')}
          </text>
          <rect x={width - 190} y={9} width={22} height={14} fill="url(#hatch-birch)" stroke="var(--ink)" />
          <text x={width - 162} y={21}>
            {t('work.legendWork')}
          </text>
          <rect
            x={width - 112}
            y={9}
            width={22}
            height={14}
            fill="url(#hatch-solid)"
            stroke="var(--soft)"
            strokeDasharray="3 2"
          />
          <text x={width - 84} y={21}>
            {t('work.legendWait')}
          </text>
          {days.map((day) => {
            const y = topOf(day);
            const own = slots.filter((slot) => slot.day === day);
            const waiting = waitingOn(day);
            return (
              <g key={day}>
                <line x1={18} x2={width - right} y1={y} y2={y} stroke="var(--rule)" />
                <text className="size-15 strong" x={18} y={y + 27}>
                  {dayName(dateOf(day))}
                </text>
                {waiting.map((wait, i) => {
                  const [a, b] = [x(wait.from - 24 * day), x(wait.to - 24 * day)];
                  return b - a > 1 ? (
                    <g key={wait.number}>
                      <rect
                        x={a}
                        y={y + 42 + i * 18}
                        width={b - a}
                        height={14}
                        fill="url(#hatch-solid)"
                        stroke="var(--soft)"
                        strokeDasharray="4 3"
                      />
                      {b - a > 120 && (
                        <text x={a + 6} y={y + 53 + i * 18} className="halo size-12">
                          {wait.number} {wait.why.slice(0, Math.floor((b - a) / 6.2))}
                        </text>
                      )}
                    </g>
                  ) : null;
                })}
                {own.map((slot) => {
                  const [a, b] = [x(slot.from), x(slot.to)];
                  const letters = Math.floor((b - a - 12) / 6.6);
                  const text = `${slot.number} ${slot.title}`;
                  return (
                    <g key={`${slot.number}${slot.from}`}>
                      <rect
                        x={a}
                        y={y + 8}
                        width={Math.max(2, b - a)}
                        height={30}
                        fill="url(#hatch-birch)"
                        stroke="var(--ink)"
                        strokeWidth={1.25}
                      >
                        <title>{text}</title>
                      </rect>
                      <text className="size-14" x={a + 6} y={y + 27}>
                        {letters >= 4
                          ? text.length > letters
                            ? `${text.slice(0, letters - 1)}…`
                            : text
                          : b - a > 14
                            ? slot.number
                            : ''}
                      </text>
                    </g>
                  );
                })}
              </g>
            );
          })}
        </svg>
      )}
    </div>
  );
}
