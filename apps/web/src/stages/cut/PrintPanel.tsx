import { templateParts } from '@nestplank/core/lining';
import { useMemo, useState } from 'react';
import { api } from '../../state/api.js';
import type { Scene } from '../../state/scene.js';
import { useSession } from '../../state/session.js';
import { FileButton } from '../../kit/FileButton.js';
import { TemplateButton } from '../../kit/TemplateButton.js';
import { PickField } from '../../kit/PickField.js';
import { useSpeech } from '../../words/use-speech.js';

const PAPERS = ['a4', 'a3', 'letter'] as const;

/** What is printed or taken along: diagrams, labels, full-size templates, open files. */
export function PrintPanel({ scene }: { readonly scene: Scene }) {
  const { t } = useSpeech();
  const id = useSession((s) => s.id);
  const parts = useMemo(() => templateParts(scene.derived), [scene.derived]);
  const [part, setPart] = useState('');
  const [paper, setPaper] = useState<(typeof PAPERS)[number]>('a4');
  if (!id) return null;
  const chosen = parts.some((candidate) => candidate.id === part) ? part : (parts[0]?.id ?? '');
  const shown = parts.find((candidate) => candidate.id === chosen);
  return (
    <>
      <section className="stack">
        <h2>{t('cut.print')}</h2>
        <FileButton address={api.fileAddress(id, 'pdf')}>{t('cut.diagram')}</FileButton>
        <FileButton address={api.fileAddress(id, 'labels')}>{t('cut.labels')}</FileButton>
        <FileButton address={api.fileAddress(id, 'csv')}>{t('cut.list')}</FileButton>
        <FileButton address={api.fileAddress(id, 'sheets')}>{t('cut.sheetFiles')}</FileButton>
        <FileButton address={api.fileAddress(id, 'dxf')}>{t('cut.outlines')}</FileButton>
        <FileButton address={api.fileAddress(id, 'dxf-r12')}>{t('cut.oldOutlines')}</FileButton>
        <FileButton address={api.fileAddress(id, 'svg')}>{t('cut.drawings')}</FileButton>
      </section>
      {shown && (
        <section className="section stack">
          <h2>{t('cut.templates')}</h2>
          <p className="small soft">{t('cut.templatesHint')}</p>
          <PickField
            label={t('cut.templateFor')}
            value={chosen}
            choices={parts.map((candidate) => ({ value: candidate.id, text: candidate.id }))}
            onPick={setPart}
          />
          <PickField
            label={t('cut.paper')}
            value={paper}
            choices={PAPERS.map((value) => ({ value, text: value === 'letter' ? 'Letter' : value.toUpperCase() }))}
            onPick={setPaper}
          />
          <TemplateButton project={id} part={shown} paper={paper}>
            {t('cut.templates')}
          </TemplateButton>
        </section>
      )}
    </>
  );
}
