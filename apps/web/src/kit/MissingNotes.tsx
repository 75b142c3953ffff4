import Button from '@mui/material/Button';
import { Link, useParams } from 'react-router';
import type { Missing } from '@nestplank/core/measure';
import type { Scene } from '../state/scene.js';
import { look } from '../state/view.js';
import { useSpeech } from '../words/use-speech.js';

/** What a stage cannot know because nobody has looked or measured, with the way there. */
export function MissingNotes({ scene, stage }: { readonly scene: Scene; readonly stage: Missing['stages'][number] }) {
  const { t, said } = useSpeech();
  const { id = '' } = useParams();
  const own = scene.shape.missing.filter(({ stages }) => stages.includes(stage));
  if (own.length === 0) return null;
  const toWalk = own.every(({ topic }) => topic === 'unread');
  return (
    <section className="stack gap-4" aria-label={t('missing.title')}>
      {own.map((item) => (
        <p key={item.topic} className="small needs">
          ? {said(item.said)}
        </p>
      ))}
      <div>
        <Button
          size="small"
          component={Link}
          to={`/build/${id}/measure`}
          onClick={() => look({ measureTab: toWalk ? 'walk' : 'look' })}
        >
          {t(toWalk ? 'missing.walk' : 'missing.enter')}
        </Button>
      </div>
    </section>
  );
}
