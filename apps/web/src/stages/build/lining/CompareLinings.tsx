import Button from '@mui/material/Button';
import type { LiningCase } from '@nestplank/core/derive';
import { layersOn, type Lined } from '@nestplank/core/document';
import { materialOf } from '@nestplank/core/materials';
import { formatMoney } from '@nestplank/core/words';
import type { Scene } from '../../../state/scene.js';
import { act, askLinings } from '../../../state/session.js';
import { WorkOut } from '../../../kit/WorkOut.js';
import { useSpeech } from '../../../words/use-speech.js';

/** Every way the price book allows to line a surface, with what each comes to for the whole build. */
export function CompareLinings({ surface, scene }: { readonly surface: Lined; readonly scene: Scene }) {
  const { t, lenUnit } = useSpeech();
  const use = (way: LiningCase, clear: () => void): void => {
    const layers = layersOn(scene.project.buildUps, surface);
    const face = scene.shape.lined.linings.find((lining) => lining.surface === surface);
    const item = materialOf(scene.book, way.material);
    const layer = layers.findLast((candidate) => candidate.material === face?.material.id);
    if (!layer || !item) return;
    if (layer.material !== way.material)
      act({
        name: 'putLayer',
        payload: { surface, layer: { ...layer, material: item.id, thickness: item.thickness, measured: null } },
      });
    act({
      name: 'changeLining',
      payload: {
        surface,
        changes: {
          school: way.school,
          seams: null,
          ...(way.gap === null ? {} : { gap: way.gap, covered: true }),
        },
      },
    });
    clear();
  };
  return (
    <WorkOut<LiningCase>
      title={t('lining.compare')}
      hint={t('lining.compareHint')}
      run={t('lining.compareRun')}
      ask={(each) => askLinings(surface, each)}
    >
      {(cases, clear) => (
        <table className="plain figures small">
          <thead>
            <tr>
              <th />
              <th>{t('lining.case.bought')}</th>
              <th>{t('lining.case.cost')}</th>
              <th>{t('lining.case.mass')}</th>
              <th>{t('lining.case.hours')}</th>
              <th>{t('lining.case.joints')}</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {cases.map((way) => (
              <tr key={`${way.material}:${way.school}:${way.gap ?? ''}`}>
                <td>
                  {materialOf(scene.book, way.material)?.name ?? way.material}
                  <br />
                  <span className={way.legal && way.bends !== false ? 'soft' : 'needs'}>
                    {t(`lining.school.${way.school}`)}
                    {way.gap !== null && ` · ${t('lining.case.open', { gap: lenUnit(way.gap) })}`}
                    {way.bends === false
                      ? ` · ${t('lining.case.stiff')}`
                      : way.legal
                        ? ''
                        : ` · ${t('lining.case.thin')}`}
                  </span>
                </td>
                <td>{way.bought}</td>
                <td>{formatMoney(way.cost, scene.book.currency)}</td>
                <td>{way.mass.toFixed(1)}</td>
                <td>{way.hours.toFixed(1)}</td>
                <td>{way.joints.toFixed(1)}</td>
                <td>
                  {way.now ? (
                    <span className="done">✓ {t('lining.case.now')}</span>
                  ) : (
                    <Button size="small" className="narrow" onClick={() => use(way, clear)}>
                      {t('lining.case.use')}
                    </Button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </WorkOut>
  );
}
