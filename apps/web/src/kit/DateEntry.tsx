import { DatePicker } from '@mui/x-date-pickers/DatePicker';
import { LocalizationProvider } from '@mui/x-date-pickers/LocalizationProvider';
import { AdapterDateFns } from '@mui/x-date-pickers/AdapterDateFns';
import { enGB } from 'date-fns/locale/en-GB';
import { formatISO, isValid, parseISO } from 'date-fns';
import { useEffect, useState } from 'react';
import { tell } from '../words/words.js';

interface DateEntryProps {
  readonly label: string;
  /** A day, `2026-05-31`. */
  readonly value: string;
  /** Tries to take the day; returns why not, or null. */
  readonly onTake: (day: string) => string | null;
  /** Told when what is typed is no day. */
  readonly onNoDay?: () => void;
}

/** A year that is still being typed begins with zeros. */
const FIRST_YEAR = 1900;

const dayOf = (date: Date): string => formatISO(date, { representation: 'date' });

/** A day, typed or picked; what is not a whole day stays as it was typed, with what is needed beside it. */
export default function DateEntry({ label, value, onTake, onNoDay }: DateEntryProps) {
  const [shown, setShown] = useState<Date | null>(() => parseISO(value));
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    if (value === '') return;
    setShown(parseISO(value));
    setProblem(null);
  }, [value]);
  const take = (date: Date | null): void => {
    setShown(date);
    if (!date || !isValid(date) || date.getFullYear() < FIRST_YEAR) {
      setProblem(tell('new.dateNeeded'));
      onNoDay?.();
    } else setProblem(dayOf(date) === value ? null : onTake(dayOf(date)));
  };
  return (
    <LocalizationProvider dateAdapter={AdapterDateFns} adapterLocale={enGB}>
      <DatePicker
        label={label}
        value={shown}
        format="yyyy-MM-dd"
        onChange={take}
        slotProps={{
          textField: { variant: 'standard', error: problem !== null, helperText: problem },
          openPickerButton: { 'aria-label': `${label}: ${tell('date.pick')}`, size: 'small', edge: 'end' },
          desktopPaper: { variant: 'outlined', className: 'ink-box' },
        }}
      />
    </LocalizationProvider>
  );
}
