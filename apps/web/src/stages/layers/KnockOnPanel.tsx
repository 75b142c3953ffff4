import { surfaceTitle } from '../../kit/surface-words.js';
import type { FloorBattens } from '@nestplank/core/lining';
import type { Point } from '@nestplank/core/numeric';
import { placedOpenings, type Shell, sideAlong } from '@nestplank/core/shell';
import { act } from '../../state/session.js';
import type { Scene } from '../../state/scene.js';
import { LengthField } from '../../kit/LengthField.js';
import { ringPath } from '../../kit/path.js';
import { useSize } from '../../kit/use-size.js';
import { useSpeech } from '../../words/use-speech.js';

/** The floor with its battens, front at the left. */
function BattenPlan({
  battens,
  shell,
  width,
}: {
  readonly battens: FloorBattens;
  readonly shell: Shell;
  readonly width: number;
}) {
  const { t } = useSpeech();
  const { ref, width: wide } = useSize<HTMLDivElement>();
  const edge = (side: 'left' | 'right', sign: number): Point[] =>
    sideAlong(shell, side, 0, 0, shell.length, 25).map(([x, d]): Point => [x, sign * d]);
  const outline = [...edge('left', -1), ...edge('right', 1).reverse()];
  const half = Math.max(...outline.map((p) => Math.abs(p[1])));
  const scale = Math.max(0.01, (wide - 8) / shell.length);
  const at = ([x, y]: Point): Point => [4 + x * scale, 4 + (half + y) * scale];
  return (
    <div ref={ref} style={{ height: 2 * half * scale + 8 }}>
      {wide > 40 && (
        <svg className="block" width={wide} height={2 * half * scale + 8} role="img" aria-label={t('knock.battenPlan')}>
          <path d={ringPath(outline.map(at))} fill="var(--paper)" stroke="var(--ink)" strokeWidth={1.5} />
          {battens.battens.map((batten) => {
            const [x, y] = at([batten.x0, batten.y - width / 2]);
            return (
              <rect
                key={`${batten.y}/${batten.x0}`}
                x={x}
                y={y}
                width={(batten.x1 - batten.x0) * scale}
                height={Math.max(2.5, width * scale)}
                fill="url(#hatch-pine)"
                stroke="var(--ink)"
                strokeWidth={batten.why === 'row' ? 0.75 : 1.75}
              />
            );
          })}
        </svg>
      )}
    </div>
  );
}

/** What the layers do to windows, doors, screws and the floor's battens. */
export function KnockOnPanel({ scene }: { readonly scene: Scene }) {
  const speech = useSpeech();
  const { t, len, lenUnit } = speech;
  const { reveals, fixings, floorBattens, cavities } = scene.derived;
  const { depths, shell } = scene.shape;
  const { settings, survey } = scene.project;
  const doors = placedOpenings(survey).filter(({ opening }) => opening.kind === 'door');
  const battenLayer = depths.floor.layers.find(({ layer }) => layer.place === 'battens');
  const known = (value: number | null): string => (value === null ? '?' : len(value));
  return (
    <div className="stack gap-14">
      <section className="stack" aria-label={t('knock.reveals')}>
        <h2>{t('knock.reveals')}</h2>
        {reveals.length === 0 && <p className="soft small">{t('knock.revealsNone')}</p>}
        {reveals.map((reveal) => (
          <div key={reveal.opening.id}>
            <h3>{reveal.opening.name}</h3>
            <p className="figures">
              {t('knock.corners', {
                frontLow: known(reveal.corners['frame-front-low']),
                frontHigh: known(reveal.corners['frame-front-high']),
                rearLow: known(reveal.corners['frame-rear-low']),
                rearHigh: known(reveal.corners['frame-rear-high']),
              })}
            </p>
            <ul className="small needs-list">
              {reveal.boards.map((board) => (
                <li key={board.side} className="figures">
                  {t('knock.board', {
                    side: t(`knock.side.${board.side}`),
                    from: len(board.from),
                    to: len(board.to),
                    length: len(board.length),
                    taper: `${Math.abs(Math.round(board.taper * 10) / 10)}°`,
                  })}
                </li>
              ))}
            </ul>
            {reveal.packers?.every(({ from, to }) => Math.max(Math.abs(from), Math.abs(to)) < 1) && (
              <p className="done">{t('knock.ringFits')}</p>
            )}
            {reveal.packers
              ?.filter(({ from, to }) => Math.max(Math.abs(from), Math.abs(to)) >= 1)
              .map(({ side, from, to }) => (
                <p key={side} className="needs figures">
                  {t(Math.min(from, to) < -1 ? 'knock.ringProud' : 'knock.packer', {
                    side: t(`knock.side.${side}`),
                    from: len(from),
                    to: lenUnit(to),
                  })}
                </p>
              ))}
          </div>
        ))}
      </section>
      <section className="section stack" aria-label={t('knock.fixings')}>
        <h2>{t('knock.fixings')}</h2>
        {fixings.map((fixing) => (
          <p key={fixing.surface}>
            <span className="figures">
              {t('knock.fixing', {
                surface: surfaceTitle(fixing.surface, speech),
                into: t(`knock.into.${fixing.into}`),
                least: len(fixing.least),
                most: lenUnit(fixing.most),
              })}
            </span>
            :{' '}
            {fixing.pick ? (
              <b>{t('knock.pick', { name: fixing.pick.name })}</b>
            ) : (
              <span className="needs">{t('knock.noPick')}</span>
            )}
          </p>
        ))}
        <p className="small soft">{t('knock.fixingCaution')}</p>
      </section>
      {doors.length > 0 && (
        <section className="section stack" aria-label={t('knock.doors')}>
          <h2>{t('knock.doors')}</h2>
          {doors.map(({ opening }) => (
            <p key={opening.id}>
              {t('knock.door', {
                name: opening.name,
                total: lenUnit(depths.doors.total),
                opens: t(`knock.opens.${opening.swing}`),
              })}
            </p>
          ))}
        </section>
      )}
      <section className="section stack" aria-label={t('knock.cavities')}>
        <h2>{t('knock.cavities')}</h2>
        {cavities.length === 0 ? (
          <p className="soft small">{t('knock.cavitiesNone')}</p>
        ) : (
          <>
            <ul className="needs-list figures">
              {cavities.map((cavity, i) => (
                <li key={`${cavity.surface}${i}`}>
                  {t('knock.cavity', {
                    count: cavity.count,
                    surface: t(`surface.${cavity.surface}`),
                    width:
                      Math.abs(cavity.low - cavity.high) < 1
                        ? len(cavity.width)
                        : t('knock.cavityWidths', { low: len(cavity.low), high: len(cavity.high) }),
                    front: len(cavity.front),
                    rear: len(cavity.rear),
                    area: (cavity.area / 1e6).toFixed(2),
                  })}
                  {Math.max(cavity.bevels.front, cavity.bevels.rear) >= 0.5 && (
                    <span className="small soft">
                      {' '}
                      {t('knock.cavityBevel', {
                        front: `${cavity.bevels.front.toFixed(0)}°`,
                        rear: `${cavity.bevels.rear.toFixed(0)}°`,
                      })}
                    </span>
                  )}
                </li>
              ))}
            </ul>
            <p className="small soft">{t('knock.cavityHint')}</p>
          </>
        )}
      </section>
      <section className="section stack" aria-label={t('knock.battens')}>
        <h2>{t('knock.battens')}</h2>
        {floorBattens && shell && battenLayer ? (
          <>
            <BattenPlan
              battens={floorBattens}
              shell={shell}
              width={battenLayer.material?.width || battenLayer.thickness}
            />
            <p className="figures">
              {t('knock.battensSay', {
                count: floorBattens.battens.length,
                metres: floorBattens.metres.toFixed(1),
                cells: floorBattens.cells,
              })}
            </p>
            <div className="fields">
              <LengthField
                label={t('knock.spacing')}
                value={settings.floorBattens.spacing}
                onTake={(spacing) =>
                  act({
                    name: 'changeSettings',
                    payload: { changes: { floorBattens: { ...settings.floorBattens, spacing } } },
                  })
                }
              />
              <LengthField
                label={t('knock.clearance')}
                value={settings.floorBattens.clearance}
                onTake={(clearance) =>
                  act({
                    name: 'changeSettings',
                    payload: { changes: { floorBattens: { ...settings.floorBattens, clearance } } },
                  })
                }
              />
            </div>
          </>
        ) : (
          <p className="soft small">{t('knock.battensNone')}</p>
        )}
      </section>
    </div>
  );
}
