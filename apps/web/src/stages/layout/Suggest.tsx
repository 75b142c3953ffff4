import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import ToggleButton from '@mui/material/ToggleButton';
import { memo, useState } from 'react';
import { type Suggested, takeProposal } from '@nestplank/core/derive';
import { baysOf, thingIn, type Project } from '@nestplank/core/document';
import { FAMILIES } from '@nestplank/core/furniture';
import { Fold } from '../../kit/Fold.js';
import { NumberField } from '../../kit/NumberField.js';
import { WorkOut } from '../../kit/WorkOut.js';
import { act, askProposals, notify } from '../../state/session.js';
import type { Scene } from '../../state/scene.js';
import { look } from '../../state/view.js';
import { useSpeech } from '../../words/use-speech.js';
import { nextId } from '../measure/next-id.js';
import { SmallPlan } from './SmallPlan.js';
import { useFigureRows } from './use-figure-rows.js';

const HIGH = 70;
const BUILT_IN: readonly string[] = ['sink', 'cooker', 'cold-box', 'oven'];
/** What has to be built in unless one says otherwise: what is now; where nothing is, one of each that a kitchen has. */
function builtInNow({ layout, things = [] }: Project): readonly string[] {
  const standing = new Set(layout.units.flatMap(({ division }) => baysOf(division).map(thingIn)));
  const usual = things.filter(({ kind }) => BUILT_IN.includes(kind));
  const now = usual.filter(({ id }) => standing.has(id));
  return (now.length > 0 ? now : BUILT_IN.flatMap((kind) => usual.find((thing) => thing.kind === kind) ?? [])).map(
    ({ id }) => id,
  );
}

const WISHED = ['storage', 'worktop', 'way', 'glass', 'comfort'] as const;
const MUCH = [0, 1, 3] as const;
const PLAIN_WEIGHTS: Readonly<Record<(typeof WISHED)[number], number>> = {
  storage: 1,
  worktop: 1,
  way: 1,
  glass: 1,
  comfort: 1,
};

/** Arrangements of what has to be in, searched for on this shell. What stands is kept beside them when one is taken. */
export const Suggest = memo(function Suggest({ scene }: { readonly scene: Scene }) {
  const { t, said } = useSpeech();
  const rows = useFigureRows(scene.book.currency);
  const offered = FAMILIES.filter((family) => family.inGap !== undefined);
  const [must, setMust] = useState<readonly string[]>(
    [...new Set(scene.project.layout.units.map(({ family }) => family))].filter((id) =>
      offered.some((family) => family.id === id),
    ),
  );
  const [weights, setWeights] = useState(PLAIN_WEIGHTS);
  const [seed, setSeed] = useState(1);
  const [built, setBuilt] = useState(() => builtInNow(scene.project));
  const { room } = scene;
  if (!room) return null;
  const things = scene.project.things ?? [];
  const variants = scene.project.variants ?? [];
  const take = (proposed: Suggested['proposals'][number]['layout']): void => {
    const { layout } = scene.project;
    const refused = act(
      ...(layout.units.length > 0
        ? [{ name: 'keepLayout' as const, payload: { id: nextId('layout-', variants).id, name: t('variants.was') } }]
        : []),
      ...takeProposal(scene.project, proposed),
    );
    if (refused) notify(said(refused), 'trouble');
    else look({ unit: null, gap: null, mode: null });
  };
  return (
    <Fold title={t('suggest.title')}>
      <WorkOut<Suggested>
        title={t('suggest.title')}
        hint={t('suggest.hint')}
        run={t('suggest.run')}
        ask={(each) =>
          askProposals(
            { must: [...must], things: built.filter((id) => things.some((thing) => thing.id === id)), weights },
            seed,
            each,
          )
        }
        before={
          <>
            <Picks
              title={t('suggest.must')}
              of={offered.map(({ id, words }) => ({ id, name: words.name }))}
              picked={must}
              onPick={setMust}
            />
            {things.length > 0 && <Picks title={t('suggest.things')} of={things} picked={built} onPick={setBuilt} />}
            <div className="stack gap-4" role="group" aria-label={t('suggest.weights')}>
              <span className="small soft">{t('suggest.weights')}</span>
              {WISHED.map((wish) => (
                <div key={wish} className="row gap-6 small">
                  <span className="wish-name">{t(`suggest.weight.${wish}`)}</span>
                  <span className="chips" role="group" aria-label={t(`suggest.weight.${wish}`)}>
                    {MUCH.map((much) => (
                      <ToggleButton
                        key={much}
                        value={much}
                        size="small"
                        selected={weights[wish] === much}
                        onChange={() => setWeights({ ...weights, [wish]: much })}
                      >
                        {t(`suggest.much.${much}`)}
                      </ToggleButton>
                    ))}
                  </span>
                </div>
              ))}
            </div>
            <NumberField
              label={t('suggest.seed')}
              value={seed}
              least={1}
              most={1_000_000}
              whole
              onTake={(value) => {
                setSeed(value);
                return null;
              }}
            />
          </>
        }
      >
        {(told) => {
          const last = told.at(-1);
          if (!last) return null;
          return (
            <div className="stack gap-6" role="status">
              <p className="small soft">
                {t('suggest.tried', { tried: last.tried })} {last.proposals.length === 0 && t('suggest.nothing')}{' '}
                {last.lost.length > 0 &&
                  t('suggest.lost', {
                    rules: last.lost
                      .slice(0, 4)
                      .map((why) => t('suggest.why', { what: said(why.said), count: why.count }))
                      .join('; '),
                  })}
              </p>
              {last.proposals.map(({ layout, figures, without, gaveUp }, i) => (
                <div key={i} className="row gap-10 proposal">
                  <SmallPlan units={layout.units} room={room} high={HIGH} />
                  <div className="stack gap-4 small grow">
                    <strong>{t('suggest.number', { number: i + 1 })}</strong>
                    {without.length > 0 && (
                      <span className="needs">{t('suggest.without', { what: without.map(said).join(', ') })}</span>
                    )}
                    <dl className="figures told-figures">
                      {rows.map(([name, written]) => (
                        <div key={name}>
                          <dt>{name}</dt>
                          <dd>{written(figures)}</dd>
                        </div>
                      ))}
                    </dl>
                    {gaveUp.length > 0 && <span>{t('suggest.gave', { what: gaveUp.map(said).join(', ') })}</span>}
                    <div>
                      <Button size="small" onClick={() => take(layout)}>
                        {t('suggest.take')}
                      </Button>
                    </div>
                  </div>
                </div>
              ))}
            </div>
          );
        }}
      </WorkOut>
    </Fold>
  );
});

/** What is picked out of a list, each by a tick. */
function Picks({
  title,
  of,
  picked,
  onPick,
}: {
  readonly title: string;
  readonly of: readonly { readonly id: string; readonly name: string }[];
  readonly picked: readonly string[];
  readonly onPick: (ids: readonly string[]) => void;
}) {
  return (
    <div className="stack gap-4">
      <span className="small soft">{title}</span>
      <div className="must" role="group" aria-label={title}>
        {of.map(({ id, name }) => (
          <FormControlLabel
            key={id}
            control={
              <Checkbox
                size="small"
                checked={picked.includes(id)}
                onChange={(_event, on) => onPick(on ? [...picked, id] : picked.filter((other) => other !== id))}
              />
            }
            label={name}
          />
        ))}
      </div>
    </div>
  );
}
