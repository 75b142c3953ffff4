import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import type { ReactNode } from 'react';
import { useSpeech } from '../words/use-speech.js';
import { tellRefusal, type Refusal } from './refusal.js';

interface CheckProps {
  readonly label: ReactNode;
  /** What it is called to screen readers where the label alone is not enough. */
  readonly name?: string;
  readonly checked: boolean;
  /** Takes the new state; a refusal is told. */
  readonly onCheck: (on: boolean) => Refusal;
}

/** Yes or no. */
export function Check({ label, name, checked, onCheck }: CheckProps) {
  const speech = useSpeech();
  return (
    <FormControlLabel
      className="check"
      control={
        <Checkbox
          checked={checked}
          onChange={(_event, on) => tellRefusal(onCheck(on), speech)}
          slotProps={name === undefined ? {} : { input: { 'aria-label': name } }}
        />
      }
      label={label}
    />
  );
}
