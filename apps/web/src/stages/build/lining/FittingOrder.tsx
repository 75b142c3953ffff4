import { Fold } from '../../../kit/Fold.js';
import type { Lining } from '@nestplank/core/lining';
import { look } from '../../../state/view.js';
import { partName } from '../names.js';
import { useSpeech } from '../../../words/use-speech.js';

const SHOWN = 8;

/** In which order the pieces go up, and what has to be done with each before it covers what is behind. */
export function FittingOrder({ lining }: { readonly lining: Lining }) {
  const speech = useSpeech();
  const { t, said } = speech;
  const parts = new Map(lining.parts.map((part) => [part.id, part]));
  const steps = lining.order.map((step, i) => ({ ...step, number: i + 1 }));
  const allOff = steps.every(({ off }) => off);
  // pieces with nothing to be done first are told in runs
  const told = steps.filter((step) => step.first.length > 0 || step.behind.length > 0 || (step.off && !allOff));
  const { caulk } = lining;
  return (
    <Fold title={t('order.title')}>
      <p className="small">
        {t(lining.surface === 'ceiling' ? `lining.orderUp.${lining.school}` : `lining.order.${lining.school}`)}
      </p>
      {told.length === 0 && <p className="small soft">{t('order.plain')}</p>}
      {told.length > 0 && (
        <ol className="said-list small">
          {told.slice(0, SHOWN).map((step) => {
            const part = parts.get(step.part);
            return (
              <li key={step.part}>
                <button type="button" className="link" onClick={() => look({ part: step.part })}>
                  {t('order.step', {
                    number: step.number,
                    part: part ? partName(part, lining.parts, speech) : step.part,
                  })}
                </button>{' '}
                {[
                  ...step.first.map((message) => said(message)),
                  ...(step.behind.length > 0
                    ? [t('order.behind', { names: step.behind.join(', ') })]
                    : step.off && !allOff
                      ? [t('order.off')]
                      : []),
                ].join('; ')}
              </li>
            );
          })}
        </ol>
      )}
      {told.length > SHOWN && <p className="small soft">{t('order.more', { count: told.length - SHOWN })}</p>}
      {caulk.millilitres > 0 && (
        <p className="small figures">
          {t(caulk.joints > 0 ? 'order.caulk' : 'order.caulkEdges', {
            joints: caulk.joints.toFixed(1),
            edges: caulk.edges.toFixed(1),
            millilitres: Math.round(caulk.millilitres),
          })}
        </p>
      )}
    </Fold>
  );
}
