import Button from '@mui/material/Button';
import { memo } from 'react';
import type { Wish } from '@nestplank/core/document';
import { RULES, wishesStand, type WishStands } from '@nestplank/core/layout';
import { Fold } from '../../kit/Fold.js';
import { NamedList } from '../../kit/NamedList.js';
import { PickField } from '../../kit/PickField.js';
import { TextEntry } from '../../kit/TextEntry.js';
import { useChange } from '../../kit/use-change.js';
import { act } from '../../state/session.js';
import type { Scene } from '../../state/scene.js';
import { look } from '../../state/view.js';
import { useSpeech } from '../../words/use-speech.js';
import { nextId } from '../measure/next-id.js';

const MARK: Readonly<Record<WishStands['state'], string>> = {
  kept: '✓',
  signed: '✓',
  tight: '~',
  missed: '✗',
  unknown: '?',
  waits: '?',
};
const TONE: Readonly<Record<WishStands['state'], string>> = {
  kept: 'done',
  signed: 'done',
  tight: 'soft',
  missed: 'needs',
  unknown: 'needs',
  waits: 'needs',
};

/** How the wishes of a project stand. */
export const standOf = ({ project, shape }: Scene): readonly WishStands[] =>
  wishesStand(project.wishes ?? [], shape.checks);

/** How a wish stands, in a mark and a word; and whose it is. */
export function WishState({ stands }: { readonly stands: WishStands }) {
  const { t } = useSpeech();
  return (
    <span className={TONE[stands.state]}>
      {MARK[stands.state]} {t(`wish.${stands.state}`)}
    </span>
  );
}

/** The wishes that concern a unit, shown where its figures are. */
export function WishesOf({ scene, unit }: { readonly scene: Scene; readonly unit: string }) {
  const { t } = useSpeech();
  const own = standOf(scene).filter(({ wish }) => wish.unit === unit);
  if (own.length === 0) return null;
  return (
    <ul className="plain-list small" aria-label={t('wish.title')}>
      {own.map((stands) => (
        <li key={stands.wish.id}>
          <WishState stands={stands} /> · {stands.wish.text}
          {stands.wish.who !== '' && <span className="soft"> ({stands.wish.who})</span>}
        </li>
      ))}
    </ul>
  );
}

function WishFields({ stands, scene }: { readonly stands: WishStands; readonly scene: Scene }) {
  const { t, said } = useSpeech();
  const { wish, checks } = stands;
  const put = (changes: Partial<Wish>) => act({ name: 'putWish', payload: { wish: { ...wish, ...changes } } });
  const asked = new Set(scene.shape.checks.map(({ rule }) => rule));
  const rules = RULES.filter(({ name }) => asked.has(name) || name === wish.rule).sort((a, b) =>
    a.title.localeCompare(b.title),
  );
  return (
    <div className="stack gap-6">
      <TextEntry label={t('wish.text')} value={wish.text} onTake={(text) => put({ text })} />
      <div className="fields">
        <TextEntry label={t('wish.who')} value={wish.who} mayBeEmpty onTake={(who) => put({ who })} />
        <PickField
          label={t('wish.unit')}
          value={wish.unit ?? ''}
          choices={[
            { value: '', text: t('wish.all') },
            ...scene.project.layout.units.map(({ id, name }) => ({ value: id, text: name })),
          ]}
          onPick={(unit) => put({ unit: unit === '' ? null : unit })}
        />
        <PickField
          label={t('wish.rule')}
          value={wish.rule ?? ''}
          choices={[
            { value: '', text: t('wish.byHand') },
            ...rules.map(({ name, title }) => ({ value: name, text: title })),
          ]}
          // what a check decides nobody signs
          onPick={(rule) => put(rule === '' ? { rule: null } : { rule, signed: null })}
        />
      </div>
      {wish.rule === null ? (
        <div className="row gap-6">
          {wish.signed === null ? (
            <Button size="small" onClick={() => put({ signed: new Date().toISOString() })}>
              {t('wish.sign')}
            </Button>
          ) : (
            <>
              <span className="done small">{t('wish.signedOn', { day: wish.signed.slice(0, 10) })}</span>
              <Button size="small" variant="text" onClick={() => put({ signed: null })}>
                {t('wish.unsign')}
              </Button>
            </>
          )}
        </div>
      ) : (
        <ul className="plain-list small">
          {checks.map((check) => (
            <li key={check.id}>
              <button
                type="button"
                className="link"
                onClick={() => look({ sliceX: check.x, ...(check.unit === null ? {} : { unit: check.unit }) })}
              >
                {said(check.said)}
              </button>
            </li>
          ))}
          {checks.length === 0 && <li className="soft">{t('wish.nothingYet')}</li>}
        </ul>
      )}
    </div>
  );
}

/** What a client or partner wants: each decided by a check, or signed off by hand. */
export const WishList = memo(function WishList({ scene }: { readonly scene: Scene }) {
  const { t } = useSpeech();
  const change = useChange();
  const stands = standOf(scene);
  const open = stands.filter(({ state }) => state !== 'kept' && state !== 'signed').length;
  const of = (id: string): WishStands | undefined => stands.find(({ wish }) => wish.id === id);
  return (
    <Fold title={t('wish.title')} line={t('wish.count', { count: stands.length, open })}>
      <NamedList
        title={t('wish.title')}
        hint={t('wish.none')}
        items={stands.map(({ wish }) => ({ ...wish, name: wish.text }))}
        nameLabel={t('wish.text')}
        freeId={nextId('w', scene.project.wishes ?? []).id}
        onAdd={(id, text) =>
          act({ name: 'putWish', payload: { wish: { id, text, who: '', unit: null, rule: null, signed: null } } })
        }
        onRemove={({ id }) => void change({ name: 'removeWish', payload: { id } })}
        line={({ id }) => {
          const own = of(id);
          return own && <WishState stands={own} />;
        }}
      >
        {({ id }) => {
          const own = of(id);
          return own && <WishFields stands={own} scene={scene} />;
        }}
      </NamedList>
    </Fold>
  );
});
