import { DataGrid, type DataGridProps, type GridValidRowModel } from '@mui/x-data-grid';
import TextField from '@mui/material/TextField';
import { useState } from 'react';

interface GridProps<R extends GridValidRowModel> extends Pick<
  DataGridProps<R>,
  'columns' | 'rows' | 'getRowId' | 'getRowClassName' | 'localeText'
> {
  readonly label: string;
  /** What the field says in which a few letters narrow the rows. */
  readonly find: string;
}

/** A table that sorts by a press on its head and is narrowed by a few letters; made for many rows. */
export function Grid<R extends GridValidRowModel>({ label, find, ...grid }: GridProps<R>) {
  const [letters, setLetters] = useState('');
  return (
    <div className="stack grid">
      <TextField
        label={find}
        value={letters}
        onChange={(event) => setLetters(event.target.value)}
        slotProps={{ htmlInput: { autoComplete: 'off' } }}
      />
      <div className="grid-rows">
        <DataGrid
          {...grid}
          aria-label={label}
          hideFooter
          disableColumnMenu
          disableRowSelectionOnClick
          getRowHeight={() => 'auto'}
          columnHeaderHeight={40}
          filterModel={{ items: [], quickFilterValues: letters.split(/\s+/).filter((word) => word !== '') }}
        />
      </div>
    </div>
  );
}
