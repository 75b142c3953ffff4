import IconButton from '@mui/material/IconButton';
import ListItemText from '@mui/material/ListItemText';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import Tooltip from '@mui/material/Tooltip';
import MoreVertIcon from '@mui/icons-material/MoreVert';
import RedoIcon from '@mui/icons-material/Redo';
import UndoIcon from '@mui/icons-material/Undo';
import { useState } from 'react';
import { Link, NavLink } from 'react-router';
import { redo, undo, useSession, type Saving } from '../state/session.js';
import { nextTheme, useView } from '../state/view.js';
import { STAGES } from '../stages/stages.js';
import { useSpeech } from '../words/use-speech.js';
import { tapeFigure } from './tape-figures.js';
import type { DialogName } from './Dialogs.js';

const clock = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' });

/** What the server has of what was done; pressed, it says more. */
function SavedMark({
  saving,
  aside,
  onOpen,
}: {
  readonly saving: Saving;
  readonly aside: number;
  readonly onOpen: () => void;
}) {
  const { t } = useSpeech();
  const count = saving.unsent;
  const text =
    saving.state === 'opening'
      ? `… ${t('save.opening')}`
      : saving.state === 'saved' && saving.elsewhere > 0
        ? `! ${t('save.elsewhere', { count: saving.elsewhere })}`
        : saving.state === 'saved'
          ? `✓ ${t('save.saved', { time: clock.format(saving.at) })}`
          : saving.state === 'saving'
            ? `… ${t('save.saving', { count })}`
            : `! ${t(`save.waiting.${saving.why ?? 'unreachable'}`, { count })}`;
  return (
    <button
      type="button"
      className="saved"
      data-state={saving.state === 'saved' && saving.elsewhere > 0 ? 'waiting' : saving.state}
      data-aside={aside}
      title={t('save.last', { revision: saving.revision, time: clock.format(saving.at) })}
      onClick={onOpen}
    >
      <span role="status">{text}</span>
      {aside > 0 && <span className="needs">! {t('save.aside', { count: aside })}</span>}
    </button>
  );
}

/** The tape across the top: where one is, how far each stage has got, and what is always at hand. */
export function Tape({
  onDialog,
  onUnits,
}: {
  readonly onDialog: (name: DialogName) => void;
  readonly onUnits: () => void;
}) {
  const speech = useSpeech();
  const { t } = speech;
  const project = useSession((s) => s.project);
  const derived = useSession((s) => s.derived);
  const book = useSession((s) => s.priceBook);
  const saving = useSession((s) => s.saving);
  const aside = useSession((s) => s.aside.length);
  const history = useSession((s) => s.history);
  const theme = useView((view) => view.theme);
  const [menu, setMenu] = useState<HTMLElement | null>(null);
  const undoStep = history.undo.at(-1);
  const redoStep = history.redo.at(-1);
  const choose = (action: () => void) => () => {
    setMenu(null);
    action();
  };
  return (
    <header className="tape">
      <Link to="/" className="tape-home" title={t('bar.home')}>
        <strong>{project?.name ?? '…'}</strong>
        <span>
          {project
            ? [project.vehicle.model, t(`kind.${project.vehicle.kind}`).toLowerCase()].filter(Boolean).join(' · ')
            : ''}
        </span>
      </Link>
      <nav className="contents" aria-label={t('tape.stages')}>
        {STAGES.map((stage, i) => {
          const figure = project && derived && book ? tapeFigure(stage, project, derived, book, speech) : null;
          return (
            <NavLink key={stage} to={stage} className="tape-mark">
              <strong>
                {i + 1} {t(`stage.${stage}`)}
              </strong>
              <span className={figure ? `tape-${figure.tone}` : ''}>{figure?.text ?? t('tape.waiting')}</span>
            </NavLink>
          );
        })}
      </nav>
      <div className="tape-side">
        <SavedMark saving={saving} aside={aside} onOpen={() => onDialog('unsent')} />
        <Tooltip title={undoStep ? t('bar.undoWhat', { what: t(`step.${undoStep}`) }) : t('bar.undo')}>
          <span>
            <IconButton onClick={undo} disabled={!undoStep} aria-label={t('bar.undo')}>
              <UndoIcon />
            </IconButton>
          </span>
        </Tooltip>
        <Tooltip title={redoStep ? t('bar.redoWhat', { what: t(`step.${redoStep}`) }) : t('bar.redo')}>
          <span>
            <IconButton onClick={redo} disabled={!redoStep} aria-label={t('bar.redo')}>
              <RedoIcon />
            </IconButton>
          </span>
        </Tooltip>
        <IconButton onClick={(event) => setMenu(event.currentTarget)} aria-label={t('bar.more')} aria-haspopup="menu">
          <MoreVertIcon />
        </IconButton>
        <Menu open={menu !== null} anchorEl={menu} onClose={() => setMenu(null)}>
          <MenuItem onClick={choose(onUnits)}>
            <ListItemText>
              {t('bar.units')}: {t(`units.${project?.settings.units ?? 'mm'}`)}
            </ListItemText>
          </MenuItem>
          <MenuItem onClick={choose(nextTheme)}>
            {t('bar.theme')}: {t(`theme.${theme}`)}
          </MenuItem>
          <MenuItem onClick={choose(() => onDialog('settings'))}>{t('bar.people')}</MenuItem>
          <MenuItem onClick={choose(() => onDialog('versions'))}>{t('bar.versions')}</MenuItem>
          <MenuItem onClick={choose(() => onDialog('backups'))}>{t('bar.backups')}</MenuItem>
          <MenuItem onClick={choose(() => onDialog('files'))}>{t('bar.files')}</MenuItem>
          <MenuItem onClick={choose(() => onDialog('keys'))}>{t('bar.keys')}</MenuItem>
        </Menu>
      </div>
    </header>
  );
}
