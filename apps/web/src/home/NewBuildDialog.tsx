import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { Controller, useForm } from 'react-hook-form';
import { useNavigate } from 'react-router';
import type { CreateProjectDto } from '@nestplank/contract';
import { api, RefusedError } from '../state/api.js';
import { tell } from '../words/words.js';

const today = (): string => new Date().toISOString().slice(0, 10);

export function NewBuildDialog({ onClose }: { readonly onClose: () => void }) {
  const { control, register, handleSubmit, formState } = useForm<CreateProjectDto>({
    defaultValues: { name: '', model: '', kind: 'van', units: 'mm', startDate: today() },
  });
  const [problem, setProblem] = useState<string | null>(null);
  const navigate = useNavigate();
  const create = async (wanted: CreateProjectDto): Promise<void> => {
    try {
      const { id } = await api.create(wanted);
      await navigate(`/build/${id}/measure`);
    } catch (reason) {
      setProblem(reason instanceof RefusedError ? reason.message : tell('home.failed'));
    }
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="xs" aria-labelledby="new-build">
      <form onSubmit={(event) => void handleSubmit(create)(event)} noValidate>
        <DialogTitle id="new-build">{tell('new.title')}</DialogTitle>
        <DialogContent>
          <div className="stack" style={{ gap: 20, paddingTop: 8 }}>
            <TextField
              label={tell('new.name')}
              autoFocus
              error={Boolean(formState.errors.name)}
              helperText={formState.errors.name?.message}
              {...register('name', { validate: (value) => value.trim() !== '' || tell('new.nameNeeded') })}
            />
            <TextField label={tell('new.model')} {...register('model')} />
            <Controller
              name="kind"
              control={control}
              render={({ field }) => (
                <TextField select label={tell('new.kind')} {...field}>
                  {(['van', 'bus', 'trailer'] as const).map((kind) => (
                    <MenuItem key={kind} value={kind}>
                      {tell(`kind.${kind}`)}
                    </MenuItem>
                  ))}
                </TextField>
              )}
            />
            <Controller
              name="units"
              control={control}
              render={({ field }) => (
                <TextField select label={tell('new.units')} {...field}>
                  {(['mm', 'in'] as const).map((units) => (
                    <MenuItem key={units} value={units}>
                      {tell(`units.${units}`)}
                    </MenuItem>
                  ))}
                </TextField>
              )}
            />
            <TextField
              label={tell('new.start')}
              type="date"
              error={Boolean(formState.errors.startDate)}
              helperText={formState.errors.startDate?.message}
              {...register('startDate', {
                pattern: { value: /^\d{4}-\d{2}-\d{2}$/, message: tell('new.dateNeeded') },
                required: tell('new.dateNeeded'),
              })}
            />
            {problem && (
              <p className="problem" role="alert">
                {problem}
              </p>
            )}
          </div>
        </DialogContent>
        <DialogActions>
          <Button variant="text" onClick={onClose}>
            {tell('common.cancel')}
          </Button>
          <Button type="submit" variant="contained" disabled={formState.isSubmitting}>
            {tell('new.create')}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
