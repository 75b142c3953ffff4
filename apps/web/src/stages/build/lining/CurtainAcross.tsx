import type { BoxChoice } from '@nestplank/core/document';
import type { Message } from '@nestplank/core/words';
import type { Scene } from '../../../state/scene.js';
import { act } from '../../../state/session.js';
import { LengthField } from '../../../kit/LengthField.js';
import { NamedList } from '../../../kit/NamedList.js';
import { Problem } from '../../../kit/Problem.js';
import { useChange } from '../../../kit/use-change.js';
import { nextId } from '../../measure/next-id.js';
import { useSpeech } from '../../../words/use-speech.js';

type Across = NonNullable<BoxChoice['across']>[number];

/** A new curtain hangs here until it is moved, mm. */
const START = { x: 600, height: 1600 } as const;

/** Curtains across the body: how wide the rail of each is, and how its hem steps over what is on the floor. */
export function CurtainAcross({ scene }: { readonly scene: Scene }) {
  const { t, len, said } = useSpeech();
  const change = useChange();
  const { across = [] } = scene.project.boxes;
  const { curtains } = scene.shape.lined;
  if (!scene.shape.inner) return null;
  const put = (list: readonly Across[]): Message | null =>
    act({ name: 'changeBoxes', payload: { changes: { across: [...list] } } });
  const putOne = (item: Across): Message | null => put(across.map((own) => (own.id === item.id ? item : own)));
  const hungAs = (id: string) => curtains.find((one) => one.id === id)?.curtain ?? null;
  return (
    <NamedList
      title={t('curtain.title')}
      hint={t('curtain.none')}
      items={across}
      nameLabel={t('curtain.name')}
      freeId={nextId('cu', across).id}
      line={(item) => t('curtain.line', { x: len(item.x), width: len(hungAs(item.id)?.width ?? 0) })}
      onAdd={(id, name) => put([...across, { id, name, ...START }])}
      onRemove={({ id }) =>
        change({ name: 'changeBoxes', payload: { changes: { across: across.filter((own) => own.id !== id) } } })
      }
    >
      {(item) => {
        const curtain = hungAs(item.id);
        const wrong = scene.shape.problems.filter(({ place }) => place === item.id);
        return (
          <>
            <div className="fields two">
              <LengthField label={t('fitting.x')} value={item.x} onTake={(x) => putOne({ ...item, x })} />
              <LengthField
                label={t('curtain.height')}
                value={item.height}
                onTake={(height) => putOne({ ...item, height })}
              />
            </div>
            {wrong.map((problem) => (
              <Problem key={problem.said.key}>{said(problem.said)}</Problem>
            ))}
            {curtain && !curtain.high && !curtain.blocked && (
              <>
                <p className="small figures" role="status">
                  {t('curtain.is', {
                    width: len(curtain.width),
                    cloth: len(curtain.cloth),
                    brackets: curtain.brackets,
                  })}{' '}
                  {curtain.support &&
                    t('curtain.support', { name: curtain.support.name, off: len(curtain.support.off) })}
                </p>
                <table className="plain figures small">
                  <thead>
                    <tr>
                      <th>{t('curtain.from')}</th>
                      <th>{t('curtain.to')}</th>
                      <th>{t('curtain.drop')}</th>
                    </tr>
                  </thead>
                  <tbody>
                    {curtain.drops.map((drop) => (
                      <tr key={drop.from}>
                        <td>{len(drop.from)}</td>
                        <td>{len(drop.to)}</td>
                        <td>{len(drop.drop)}</td>
                      </tr>
                    ))}
                  </tbody>
                </table>
              </>
            )}
          </>
        );
      }}
    </NamedList>
  );
}
