import { Check } from '../../kit/Check.js';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import type { Pattern } from '@nestplank/core/document';
import { patternState, shapeOf, type Part } from '@nestplank/core/parts';
import type { Scene } from '../../state/scene.js';
import { act } from '../../state/session.js';
import { nextId } from '../measure/next-id.js';
import { useSpeech } from '../../words/use-speech.js';

/** The register of patterns: what they are, which parts came from them, and whether they still give those. */
export function Patterns({ part, scene }: { readonly part: Part | null; readonly scene: Scene }) {
  const { t } = useSpeech();
  const [name, setName] = useState('');
  const [source, setSource] = useState('');
  const [mirrored, setMirrored] = useState(false);
  const { patterns } = scene.project;
  const { parts } = scene.shape;
  const put = (pattern: Pattern): boolean => act({ name: 'putPattern', payload: { pattern } }) === null;
  const made = part ? { part: part.id, shape: shapeOf(part) } : null;
  const add = (): void => {
    if (!made) return;
    const kept = put({
      id: nextId('pt', patterns).id,
      name: name.trim(),
      source: source.trim(),
      revision: 1,
      mirrored,
      made: [made],
    });
    if (!kept) return;
    setName('');
    setSource('');
    setMirrored(false);
  };
  return (
    <section className="section stack">
      <h2>{t('pattern.title')}</h2>
      <p className="small soft">{t('pattern.hint')}</p>
      {patterns.map((pattern) => (
        <div key={pattern.id} className="stack">
          <div className="row apart wrap">
            <span>
              {t('pattern.line', { name: pattern.name, revision: pattern.revision, source: pattern.source || '–' })}
            </span>
            <span className="row">
              <Button
                size="small"
                aria-label={t('pattern.renewOf', { name: pattern.name })}
                onClick={() =>
                  put({
                    ...pattern,
                    revision: pattern.revision + 1,
                    made: pattern.made.flatMap((old) => {
                      const now = parts.find((candidate) => candidate.id === old.part);
                      return now ? [{ part: old.part, shape: shapeOf(now) }] : [];
                    }),
                  })
                }
              >
                {t('pattern.renew')}
              </Button>
              <Button
                size="small"
                aria-label={t('pattern.removeOf', { name: pattern.name })}
                onClick={() => act({ name: 'removePattern', payload: { id: pattern.id } })}
              >
                {t('pattern.remove')}
              </Button>
            </span>
          </div>
          {patternState(pattern, parts).map((entry) => (
            <p key={entry.part} className={entry.state === 'good' ? 'small soft' : 'small needs'}>
              {t(`pattern.${entry.state}`, { part: entry.part })}
            </p>
          ))}
          {made && pattern.made.every((entry) => entry.part !== made.part) && (
            <div>
              <Button size="small" onClick={() => put({ ...pattern, made: [...pattern.made, made] })}>
                {t('pattern.use', { part: made.part })}
              </Button>
            </div>
          )}
        </div>
      ))}
      {part && (
        <>
          <div className="fields">
            <TextField label={t('pattern.name')} value={name} onChange={(event) => setName(event.target.value)} />
            <TextField label={t('pattern.source')} value={source} onChange={(event) => setSource(event.target.value)} />
          </div>
          <Check
            label={t('pattern.mirrored')}
            checked={mirrored}
            onCheck={(on) => {
              setMirrored(on);
              return null;
            }}
          />
          <div>
            <Button disabled={name.trim() === ''} onClick={add}>
              {t('pattern.add', { part: part.id })}
            </Button>
          </div>
        </>
      )}
    </section>
  );
}
