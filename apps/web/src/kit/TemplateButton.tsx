import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import { blankOf, type Part, TEMPLATE_PAGES, templatePages } from '@nestplank/core/parts';
import { useState, type ReactNode } from 'react';
import { api } from '../state/api.js';
import { useSpeech } from '../words/use-speech.js';
import { FileButton } from './FileButton.js';

interface Props {
  readonly project: string;
  readonly part: Part;
  readonly paper: 'a4' | 'a3' | 'letter';
  readonly children: ReactNode;
  readonly label?: string;
}

/** A part at full size on pages of paper: how many there are is told first, and many are made only where they are meant. */
export function TemplateButton({ project, part, paper, children, label }: Props) {
  const { t } = useSpeech();
  const pages = templatePages(part, paper);
  const { length, width } = blankOf(part);
  const [meant, setMeant] = useState('');
  const key = [part.id, paper, length, width].join(' ');
  const [many, tooMany] = [pages > TEMPLATE_PAGES.asked, pages > TEMPLATE_PAGES.most];
  return (
    <div className="stack">
      <span className={many ? 'needs small' : 'soft small'}>
        {t(tooMany ? 'cut.templateTooMany' : 'cut.templatePages', { pages, most: TEMPLATE_PAGES.most })}
      </span>
      {many && !tooMany && (
        <FormControlLabel
          control={<Checkbox checked={meant === key} onChange={(event) => setMeant(event.target.checked ? key : '')} />}
          label={t('cut.templateMany', { pages })}
        />
      )}
      {!tooMany && (!many || meant === key) && (
        <FileButton
          address={`${api.fileAddress(project, 'template')}?part=${encodeURIComponent(part.id)}&paper=${paper}&pages=${pages}`}
          label={label}
        >
          {children}
        </FileButton>
      )}
    </div>
  );
}
