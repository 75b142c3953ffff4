import { surfaceTitle } from '../../kit/surface-words.js';
import { Suspense, useMemo, useState } from 'react';
import type { Climate, Covered } from '@nestplank/core/document';
import { dampOf, type Damp } from '@nestplank/core/layers';
import { materialOf } from '@nestplank/core/materials';
import type { Message } from '@nestplank/core/words';
import { act } from '../../state/session.js';
import type { Scene } from '../../state/scene.js';
import { useView } from '../../state/view.js';
import { COLOURS, FIGURES_FONT } from '../../theme.js';
import { Chart } from '../../kit/chart.js';
import { NumberField } from '../../kit/NumberField.js';
import { PickField } from '../../kit/PickField.js';
import { useSpeech } from '../../words/use-speech.js';

const SURFACES: readonly Covered[] = ['floor', 'left', 'right', 'ceiling', 'doors'];
const tenth = (value: number): number => Math.round(value * 10) / 10;

/** Temperature from the room's face to the metal, with the dew point across it. */
function DampChart({
  damp,
  names,
  label,
}: {
  readonly damp: Damp;
  readonly names: readonly string[];
  readonly label: string;
}) {
  const { t, style } = useSpeech();
  const c = COLOURS[useView((view) => view.theme)];
  const inches = style.units === 'in';
  const points = damp.faces.map((face) => ({
    x: inches ? Math.round((face.at / 25.4) * 100) / 100 : tenth(face.at),
    y: tenth(face.celsius),
  }));
  const last = points.at(-1)?.x ?? 1;
  const low = Math.floor(Math.min(damp.skin, damp.dewPoint) - 2);
  return (
    <Suspense fallback={<div className="chart-space" />}>
      <div role="img" aria-label={label}>
        <Chart
          type="line"
          height={210}
          series={[
            { name: t('warmth.temperature'), data: points },
            {
              name: t('warmth.dew', { celsius: tenth(damp.dewPoint) }),
              data: [
                { x: 0, y: tenth(damp.dewPoint) },
                { x: last, y: tenth(damp.dewPoint) },
              ],
            },
          ]}
          options={{
            chart: {
              toolbar: { show: false },
              zoom: { enabled: false },
              animations: { enabled: false },
              fontFamily: FIGURES_FONT,
              foreColor: c.ink,
              background: 'transparent',
            },
            colors: [c.ink, c.data],
            stroke: { width: [2.5, 2], dashArray: [0, 6], curve: 'straight' },
            markers: { size: [4, 0], strokeWidth: 0 },
            xaxis: {
              type: 'numeric',
              title: {
                text: t('warmth.fromRoom', { units: style.units }),
                style: { fontSize: '12px', fontWeight: 500 },
              },
              decimalsInFloat: inches ? 1 : 0,
              tickAmount: 5,
              labels: { style: { fontSize: '12px' } },
              axisTicks: { show: false },
              axisBorder: { color: c.ink },
            },
            yaxis: {
              min: low,
              decimalsInFloat: 0,
              labels: { formatter: (value: number) => `${Math.round(value)}°`, style: { fontSize: '12px' } },
            },
            annotations: {
              xaxis: damp.faces
                .slice(1, -1)
                .map((_, i) => ({ x: points[i + 1]?.x ?? 0, borderColor: c.rule, strokeDashArray: 0 })),
            },
            grid: { show: false, padding: { left: 4, right: 8, top: -18, bottom: -4 } },
            legend: { show: true, position: 'top', horizontalAlign: 'left', fontSize: '13px', markers: { size: 5 } },
            tooltip: { enabled: false },
          }}
        />
      </div>
      <p className="small soft">{names.join(' · ')}</p>
    </Suspense>
  );
}

function DampWords({ damp }: { readonly damp: Damp }) {
  const { t } = useSpeech();
  const wet = damp.skin < damp.dewPoint;
  const figures = { skin: tenth(damp.skin), dew: tenth(damp.dewPoint) };
  return (
    <>
      <p className={wet ? 'needs' : 'done'}>{t(wet ? 'warmth.wet' : 'warmth.dry', figures)}</p>
      {wet &&
        (damp.gramsANight === null ? (
          <p className="small">{t('warmth.gramsUnknown')}</p>
        ) : (
          <>
            <p>
              {t('warmth.grams', { grams: tenth(damp.gramsANight) })}{' '}
              <span className="soft">
                {t('warmth.schools', { sealed: tenth(damp.withBarrier ?? 0), open: tenth(damp.withoutBarrier ?? 0) })}
              </span>
            </p>
            <p className="small soft">
              {t('warmth.sealedWords')} {t('warmth.openWords')}
            </p>
          </>
        ))}
    </>
  );
}

/** The heat that is lost on a chosen night, and where in the layers it would dew. */
export function WarmthPanel({ scene }: { readonly scene: Scene }) {
  const speech = useSpeech();
  const { t } = speech;
  const [surface, setSurface] = useState<Covered>('left');
  const { climate } = scene.project.settings;
  const { warmth } = scene.derived;
  const depth = scene.shape.depths[surface];
  const damp = useMemo(() => dampOf(depth, climate), [depth, climate]);
  const change = (changes: Partial<Climate>): Message | null =>
    act({ name: 'changeSettings', payload: { changes: { climate: { ...climate, ...changes } } } });
  const names = [...depth.layers]
    .reverse()
    .map(({ layer }) => materialOf(scene.book, layer.material)?.name ?? layer.material);
  return (
    <div className="stack gap-14">
      <div className="fields three" role="group" aria-label={t('warmth.night')}>
        <NumberField
          label={t('warmth.inside')}
          value={climate.inside}
          least={-10}
          most={40}
          onTake={(inside) => change({ inside })}
        />
        <NumberField
          label={t('warmth.outside')}
          value={climate.outside}
          least={-50}
          most={30}
          onTake={(outside) => change({ outside })}
        />
        <NumberField
          label={t('warmth.humidity')}
          value={climate.humidity}
          least={5}
          most={100}
          onTake={(humidity) => change({ humidity })}
        />
      </div>
      {warmth && (
        <section aria-label={t('warmth.loss', { watts: Math.round(warmth.watts) })}>
          <h2>{t('warmth.loss', { watts: Math.round(warmth.watts) })}</h2>
          <table className="plain">
            <tbody>
              {warmth.of.map((item) => (
                <tr key={item.id}>
                  <td>{item.id === 'glass' ? t('warmth.glass') : surfaceTitle(item.id, speech)}</td>
                  <td className="number soft">{item.area.toFixed(1)} m²</td>
                  <td className="number soft">U {item.u.toFixed(2)}</td>
                  <td className="number">{Math.round(item.watts)} W</td>
                </tr>
              ))}
            </tbody>
          </table>
          {warmth.unknown.length > 0 && (
            <p className="small needs">
              {t('warmth.unknown', { surfaces: warmth.unknown.map((id) => surfaceTitle(id, speech)).join(', ') })}
            </p>
          )}
          <p className="small soft">
            {t(scene.project.vehicle.kind === 'van' ? 'warmth.lossHint.van' : 'warmth.lossHint')}
          </p>
        </section>
      )}
      <section className="section stack">
        <PickField
          label={t('warmth.surface')}
          value={surface}
          choices={SURFACES.map((value) => ({ value, text: surfaceTitle(value, speech) }))}
          onPick={setSurface}
        />
        {damp && depth.layers.length > 0 ? (
          <>
            <DampChart
              damp={damp}
              names={names}
              label={t('warmth.through', { surface: t(`layers.title.${surface}`).toLowerCase() })}
            />
            <DampWords damp={damp} />
          </>
        ) : (
          <p className="soft">{t(depth.layers.length === 0 ? 'layers.none' : 'layers.uUnknown')}</p>
        )}
      </section>
      <p className="small soft">{t('warmth.caution')}</p>
    </div>
  );
}
