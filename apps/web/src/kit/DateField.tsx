import TextField from '@mui/material/TextField';
import { lazy, Suspense, type ComponentProps } from 'react';

const DateEntry = lazy(() => import('./DateEntry.js'));

/** A day. The calendar is loaded when a field of it is first shown. */
export function DateField(props: ComponentProps<typeof DateEntry>) {
  return (
    <Suspense fallback={<TextField label={props.label} value={props.value} disabled />}>
      <DateEntry {...props} />
    </Suspense>
  );
}
