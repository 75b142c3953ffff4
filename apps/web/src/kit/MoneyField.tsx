import TextField from '@mui/material/TextField';
import { useSpeech } from '../words/use-speech.js';
import { readPrice } from './read-number.js';
import { useTypedField } from './use-typed-field.js';

interface MoneyFieldProps {
  readonly label: string;
  /** Null while it is not known. */
  readonly minor: number | null;
  readonly showLabel?: boolean;
  readonly onTake: (minor: number) => void;
}

/** A price: typed with two decimals at most, kept in minor units. */
export function MoneyField({ label, minor, showLabel, onTake }: MoneyFieldProps) {
  const { t } = useSpeech();
  const typing = useTypedField<number>({
    shown: minor === null ? '' : (minor / 100).toFixed(2),
    parse: (typed) => {
      const price = readPrice(typed);
      return price === null ? { ok: false, why: t('buy.priceBad') } : { ok: true, value: price };
    },
    take: (price) => {
      if (price !== minor) onTake(price);
      return null;
    },
  });
  return (
    <TextField
      label={showLabel ? label : undefined}
      className={showLabel ? undefined : 'field-figure'}
      {...typing.field}
      error={typing.problem !== null}
      helperText={typing.problem}
      slotProps={{
        htmlInput: { inputMode: 'decimal', autoComplete: 'off', 'aria-label': showLabel ? undefined : label },
      }}
    />
  );
}
