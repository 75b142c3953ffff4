import type { Speech } from '../../words/words.js';

/** So many minutes as one says them: 40 min, 2 h 05. */
export function timeSaid(minutes: number, { t }: Pick<Speech, 't'>): string {
  const whole = Math.round(minutes);
  return whole < 60
    ? t('work.timeShort', { minutes: whole })
    : t('work.time', { hours: Math.floor(whole / 60), minutes: String(whole % 60).padStart(2, '0') });
}

/** The next day after one, as an ISO date. */
export function dayAfter(date: Date): string {
  const next = new Date(date.getFullYear(), date.getMonth(), date.getDate() + 1, 12);
  const two = (value: number): string => String(value).padStart(2, '0');
  return `${next.getFullYear()}-${two(next.getMonth() + 1)}-${two(next.getDate())}`;
}
