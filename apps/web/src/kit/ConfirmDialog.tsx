import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import { tell } from '../words/words.js';

interface ConfirmProps {
  readonly text: string;
  readonly action: string;
  readonly onClose: () => void;
  readonly onConfirm: () => void;
}

export function ConfirmDialog({ text, action, onClose, onConfirm }: ConfirmProps) {
  return (
    <Dialog open onClose={onClose} aria-labelledby="confirm-text">
      <DialogContent id="confirm-text">{text}</DialogContent>
      <DialogActions>
        <Button variant="text" onClick={onClose} autoFocus>
          {tell('common.cancel')}
        </Button>
        <Button variant="contained" onClick={onConfirm}>
          {action}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
