import Button from '@mui/material/Button';
import { useState } from 'react';
import { api } from '../../state/api.js';
import type { Scene } from '../../state/scene.js';
import { useSession } from '../../state/session.js';
import { PickField } from '../../kit/PickField.js';
import { useSpeech } from '../../words/words.js';

const PAPERS = ['a4', 'a3', 'letter'] as const;

/** What is printed or taken along: diagrams, labels, full-size templates, open files. */
export function PrintPanel({ scene }: { readonly scene: Scene }) {
  const { t } = useSpeech();
  const id = useSession((s) => s.id);
  const [part, setPart] = useState(scene.derived.parts[0]?.id ?? '');
  const [paper, setPaper] = useState<(typeof PAPERS)[number]>('a4');
  if (!id) return null;
  const chosen = scene.derived.parts.some((candidate) => candidate.id === part)
    ? part
    : (scene.derived.parts[0]?.id ?? '');
  return (
    <>
      <section className="stack">
        <h2>{t('cut.print')}</h2>
        <Button href={api.fileAddress(id, 'pdf')} download>
          {t('cut.diagram')}
        </Button>
        <Button href={api.fileAddress(id, 'labels')} download>
          {t('cut.labels')}
        </Button>
        <Button href={api.fileAddress(id, 'csv')} download>
          {t('cut.list')}
        </Button>
        <Button href={api.fileAddress(id, 'sheets')} download>
          {t('cut.sheetFiles')}
        </Button>
        <Button href={api.fileAddress(id, 'dxf')} download>
          {t('cut.outlines')}
        </Button>
        <Button href={api.fileAddress(id, 'svg')} download>
          {t('cut.drawings')}
        </Button>
      </section>
      {chosen !== '' && (
        <section className="section stack">
          <h2>{t('cut.templates')}</h2>
          <p className="small soft">{t('cut.templatesHint')}</p>
          <PickField
            label={t('cut.templateFor')}
            value={chosen}
            choices={scene.derived.parts.map((candidate) => ({ value: candidate.id, text: candidate.id }))}
            onPick={setPart}
          />
          <PickField
            label={t('cut.paper')}
            value={paper}
            choices={PAPERS.map((value) => ({ value, text: value === 'letter' ? 'Letter' : value.toUpperCase() }))}
            onPick={setPaper}
          />
          <Button
            href={`${api.fileAddress(id, 'template')}?part=${encodeURIComponent(chosen)}&paper=${paper}`}
            download
          >
            {t('cut.templates')}
          </Button>
        </section>
      )}
    </>
  );
}
