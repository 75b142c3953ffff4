import Button from '@mui/material/Button';
import { FileButton } from '../kit/FileButton.js';
import { api } from '../state/api.js';
import { useSession } from '../state/session.js';
import { tell } from '../words/words.js';

const FORMATS = ['json', 'csv', 'dxf', 'svg', 'pdf'] as const;

/** Open files to take away. */
export function FilesPanel({ onClose }: { readonly onClose: () => void }) {
  const id = useSession((s) => s.id);
  if (!id) return null;
  return (
    <div className="stack">
      {FORMATS.map((format) => (
        <FileButton key={format} address={api.fileAddress(id, format)}>
          {tell(`files.${format}`)}
        </FileButton>
      ))}
      <FileButton address={api.wholeAddress(id)}>{tell('files.whole')}</FileButton>
      <Button
        className="to-start"
        onClick={() => {
          onClose();
          requestAnimationFrame(() => window.print());
        }}
      >
        {tell('files.print')}
      </Button>
    </div>
  );
}
