import { DateField } from '../kit/DateField.js';
import { Problem } from '../kit/Problem.js';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { Controller, useForm } from 'react-hook-form';
import { useNavigate } from 'react-router';
import type { CreateProjectDto, ProjectListItem } from '@nestplank/contract';
import { api, RefusedError } from '../state/api.js';
import { tell } from '../words/words.js';

const today = (): string => new Date().toISOString().slice(0, 10);

interface Wanted extends Omit<CreateProjectDto, 'practiceSeed' | 'from'> {
  readonly from: string;
  readonly practice: boolean;
  readonly seed: string;
}

export function NewBuildDialog({
  projects,
  onClose,
}: {
  readonly projects: readonly ProjectListItem[];
  readonly onClose: () => void;
}) {
  const { control, register, handleSubmit, formState, watch } = useForm<Wanted>({
    defaultValues: {
      name: '',
      model: '',
      kind: 'van',
      units: 'mm',
      startDate: today(),
      from: '',
      practice: false,
      seed: '1',
    },
  });
  const kind = watch('kind');
  const practice = watch('practice');
  const starts = projects.filter((project) => project.kind === kind);
  const [problem, setProblem] = useState<string | null>(null);
  const navigate = useNavigate();
  const create = async ({ from, practice: practises, seed, ...wanted }: Wanted): Promise<void> => {
    try {
      const { id } = await api.create({
        ...wanted,
        ...(from && !practises && starts.some((project) => project.id === from) ? { from } : {}),
        ...(practises ? { practiceSeed: Number(seed) } : {}),
      });
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
          <div className="stack gap-18">
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
            <Controller
              name="startDate"
              control={control}
              rules={{ required: true }}
              render={({ field }) => (
                <DateField
                  label={tell('new.start')}
                  value={field.value}
                  onTake={(day) => {
                    field.onChange(day);
                    return null;
                  }}
                  onNoDay={() => field.onChange('')}
                />
              )}
            />
            {starts.length > 0 && !practice && (
              <Controller
                name="from"
                control={control}
                render={({ field }) => (
                  <TextField
                    select
                    label={tell('new.from')}
                    helperText={field.value ? tell('new.fromHint') : undefined}
                    {...field}
                    slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
                  >
                    <MenuItem value="">{tell('new.fromNone')}</MenuItem>
                    {starts.map((project) => (
                      <MenuItem key={project.id} value={project.id}>
                        {project.name}
                      </MenuItem>
                    ))}
                  </TextField>
                )}
              />
            )}
            <FormControlLabel control={<Checkbox {...register('practice')} />} label={tell('new.practice')} />
            {practice && (
              <TextField
                label={tell('new.practiceSeed')}
                error={Boolean(formState.errors.seed)}
                helperText={formState.errors.seed?.message}
                {...register('seed', {
                  validate: (value) => /^\d{1,9}$/.test(value) || tell('work.numberBad', { least: 0, most: 999999999 }),
                })}
              />
            )}
            {problem && <Problem>{problem}</Problem>}
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
