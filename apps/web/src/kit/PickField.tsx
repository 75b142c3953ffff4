import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useSpeech } from '../words/use-speech.js';
import { tellRefusal, type Refusal } from './refusal.js';

interface PickFieldProps<T extends string> {
  readonly label: string;
  /** What it is of, said to screen readers after the label. */
  readonly of?: string;
  readonly value: T;
  readonly choices: readonly { readonly value: T; readonly text: string }[];
  /** Takes the choice; a refusal is told. */
  readonly onPick: ((value: T) => Refusal) | ((value: T) => void);
  readonly hideLabel?: boolean;
}

/** One of a few. A value that is no longer on offer is shown as it is. */
export function PickField<T extends string>({ label, of, value, choices, onPick, hideLabel }: PickFieldProps<T>) {
  const speech = useSpeech();
  const missing = choices.every((choice) => choice.value !== value);
  return (
    <TextField
      select
      label={hideLabel ? undefined : label}
      value={value}
      onChange={(event) => tellRefusal(onPick(event.target.value as T) ?? null, speech)}
      slotProps={{
        // a choice of none has its words too
        select: {
          displayEmpty: true,
          // the words over the field would go before these
          SelectDisplayProps: {
            'aria-label': of === undefined ? label : `${label}: ${of}`,
            'aria-labelledby': undefined,
          } as Record<string, string | undefined>,
        },
        inputLabel: { shrink: true },
      }}
    >
      {choices.map((choice) => (
        <MenuItem key={choice.value} value={choice.value}>
          {choice.text}
        </MenuItem>
      ))}
      {missing && <MenuItem value={value}>{value}</MenuItem>}
    </TextField>
  );
}
