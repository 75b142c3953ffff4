import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import type { StageName } from '../stages/stages.js';
import { tell } from '../words/words.js';
import { FilesPanel } from './FilesPanel.js';
import { KeysPanel } from './KeysPanel.js';
import { SettingsPanel } from './SettingsPanel.js';
import { BackupsPanel } from './BackupsPanel.js';
import { UnsentPanel } from './UnsentPanel.js';
import { VersionsPanel } from './VersionsPanel.js';

export type DialogName = 'keys' | 'files' | 'versions' | 'settings' | 'unsent' | 'backups';

/** The dialogs that every stage can open. */
export function Dialogs({
  name,
  stage,
  onClose,
}: {
  readonly name: DialogName;
  readonly stage: StageName;
  readonly onClose: () => void;
}) {
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="dialog-title">
      <DialogTitle id="dialog-title">{tell(`${name}.title`)}</DialogTitle>
      <DialogContent>
        {name === 'keys' && <KeysPanel stage={stage} />}
        {name === 'files' && <FilesPanel onClose={onClose} />}
        {name === 'versions' && <VersionsPanel onClose={onClose} />}
        {name === 'settings' && <SettingsPanel />}
        {name === 'unsent' && <UnsentPanel />}
        {name === 'backups' && <BackupsPanel />}
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>{tell('common.close')}</Button>
      </DialogActions>
    </Dialog>
  );
}
