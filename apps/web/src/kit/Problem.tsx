import Alert from '@mui/material/Alert';
import type { ReactNode } from 'react';

/** Something that stands in the way, said where it does. */
export function Problem({ children, action }: { readonly children: ReactNode; readonly action?: ReactNode }) {
  return (
    <Alert severity="error" variant="outlined" icon={false} action={action}>
      {children}
    </Alert>
  );
}
