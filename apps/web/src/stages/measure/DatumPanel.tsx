import Button from '@mui/material/Button';
import { useMemo, useState, type ReactNode } from 'react';
import { datumOf, settingOut, type WallStraightness } from '@nestplank/core/layout';
import { levelOf } from '@nestplank/core/measure';
import { likeStations, uprightPlanes, type Shell } from '@nestplank/core/shell';
import { formatAngle, riseOver } from '@nestplank/core/words';
import type { Scene } from '../../state/scene.js';
import { LengthField } from '../../kit/LengthField.js';
import { type Speech } from '../../words/words.js';
import { useSpeech } from '../../words/use-speech.js';

const STRAIGHT_MM = 1.5;

function wallWords(wall: WallStraightness, { t, len }: Speech): string {
  const opens =
    Math.abs(wall.opens) < STRAIGHT_MM
      ? t('datum.parallel')
      : t(wall.opens > 0 ? 'datum.opens' : 'datum.closes', { by: len(Math.abs(wall.opens)) });
  return Math.abs(wall.most) < STRAIGHT_MM
    ? opens
    : `${opens}; ${t(wall.most > 0 ? 'datum.bulge' : 'datum.dent', { by: len(Math.abs(wall.most)), x: len(wall.mostAt) })}`;
}

/** Where openings may be cut, which sections one pattern does for, and how high a straight panel can stand. */
function ShapeNotes({ scene, shell }: { readonly scene: Scene; readonly shell: Shell }) {
  const { t, len, lenUnit } = useSpeech();
  const [tolerance, setTolerance] = useState(3);
  const { arches, ribs } = scene.shape;
  const groups = useMemo(() => likeStations(shell, tolerance), [shell, tolerance]);
  const planes = useMemo(() => uprightPlanes(shell, arches), [shell, arches]);
  return (
    <section className="section stack" aria-label={t('datum.shape')}>
      <h2>{t('datum.shape')}</h2>
      {ribs.largest.length === 0 && <p>{t('datum.noRibs')}</p>}
      {ribs.largest.map(({ surface, clear, between: [a, b] }) => (
        <p key={surface}>{t('datum.largestGap', { surface: t(`surface.${surface}`), clear: lenUnit(clear), a, b })}</p>
      ))}
      {ribs.cut.map(({ opening, ribs: through }) => (
        <p key={opening.id} className="needs">
          {t('datum.ribCut', { name: opening.name, ribs: through.map((rib) => rib.name).join(', ') })}
        </p>
      ))}
      <div className="row at-end">
        <p className="grow">
          {t('datum.alike', {
            by: lenUnit(tolerance),
            groups: groups.map((group) => group.map((x) => len(x)).join(' = ')).join('; '),
          })}
        </p>
        <div className="narrow-field">
          <LengthField
            label={t('datum.tolerance')}
            value={tolerance}
            onTake={(mm) => {
              setTolerance(Math.max(0, mm));
              return null;
            }}
          />
        </div>
      </div>
      {planes.map((plane) => (
        <p key={`${plane.side}${plane.from}`}>
          {t('datum.upright', { side: t(`common.${plane.side}`), at: len(plane.at), rises: lenUnit(plane.rises) })}
        </p>
      ))}
    </section>
  );
}

function StringLine({ length, along }: { readonly length: number; readonly along: number | null }) {
  const { t, lenUnit } = useSpeech();
  const [height, setHeight] = useState(1400);
  const rise = along === null ? null : riseOver(along, length);
  return (
    <section className="section stack" aria-label={t('datum.string')}>
      <h2>{t('datum.string')}</h2>
      <div className="narrow-field">
        <LengthField
          label={t('datum.stringHeight')}
          value={height}
          onTake={(mm) => {
            setHeight(mm);
            return null;
          }}
        />
      </div>
      <p>{t('datum.stringSay', { height: lenUnit(height) })}</p>
      {rise !== null && (
        <p className="soft">
          {t('datum.stringLevel', {
            by: lenUnit(Math.abs(rise)),
            way: t(rise < 0 ? 'datum.stringAbove' : 'datum.stringBelow'),
          })}
        </p>
      )}
    </section>
  );
}

/** The centre line with this vehicle's figures, the walls against it, the fronts' lines, and how the vehicle stands. */
export function DatumPanel({ scene, onPick }: { readonly scene: Scene; readonly onPick: (address: string) => void }) {
  const speech = useSpeech();
  const { t, len, lenUnit, style } = speech;
  const { survey } = scene.project;
  const { units } = scene.project.layout;
  const { shell } = scene.shape;
  const datum = useMemo(() => shell && datumOf(survey, shell, units), [survey, shell, units]);
  const corners = useMemo(() => (scene.room ? settingOut(units, scene.room) : []), [units, scene.room]);
  if (!shell || !datum) return <p className="soft">{t('measure.qualityNone')}</p>;
  const level = levelOf(survey, shell.length, datum.marks[1]?.across ?? 0);
  const signed = (y: number): string => `${len(Math.abs(y))} ${y < 0 ? t('common.left') : t('common.right')}`;
  return (
    <div className="stack gap-18">
      <section className="stack" aria-label={t('datum.marks')}>
        <h2>{t('datum.marks')}</h2>
        <ol className="steps">
          {datum.marks.map((mark) => (
            <li key={mark.x}>
              {t('datum.markStep', {
                x: len(mark.x),
                across: lenUnit(mark.across),
                half: `${len(mark.half, style.units === 'mm' ? 1 : 0)} ${style.units}`,
              })}
            </li>
          ))}
          <li>{t('datum.markString')}</li>
        </ol>
        <p className={datum.skew !== null && Math.abs(datum.skew) > 3 ? 'needs' : 'soft'}>
          {datum.skew === null
            ? t('datum.skewNone')
            : Math.abs(datum.skew) < STRAIGHT_MM
              ? t('datum.square', { by: lenUnit(STRAIGHT_MM) })
              : t('datum.skew', {
                  by: lenUnit(Math.abs(datum.skew)),
                  side: t(datum.skew > 0 ? 'common.right' : 'common.left'),
                })}
        </p>
      </section>
      <section className="section" aria-label={t('datum.walls')}>
        <h2>{t('datum.walls')}</h2>
        <table className="plain">
          <tbody>
            {datum.walls.map((wall) => (
              <tr key={`${wall.side}${wall.z}`}>
                <td>{t('datum.wall', { side: t(`surface.${wall.side}`), z: len(wall.z) })}</td>
                <td className="figures">{wallWords(wall, speech)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </section>
      <section className="section stack" aria-label={t('datum.fronts')}>
        <h2>{t('datum.fronts')}</h2>
        {datum.fronts.length === 0 && <p className="soft">{t('datum.frontsNone')}</p>}
        {datum.fronts.map((front) => {
          const off = front.units.filter((unit) => Math.abs(unit.off) >= 0.5);
          return (
            <p key={front.side}>
              {t('datum.front', { side: t(`surface.${front.side}`), at: lenUnit(front.at) })}:{' '}
              {off.length === 0 ? (
                <span className="done">✓ {t('datum.frontAll')}</span>
              ) : (
                <span className="needs">
                  {off.map((unit) => t('datum.frontOff', { name: unit.name, by: len(Math.abs(unit.off)) })).join('; ')}
                </span>
              )}
            </p>
          );
        })}
      </section>
      <ShapeNotes scene={scene} shell={shell} />
      {corners.length > 0 && (
        <section className="section" aria-label={t('datum.setOut')}>
          <h2>{t('datum.setOut')}</h2>
          <table className="plain">
            <thead>
              <tr>
                <th>{t('common.name')}</th>
                <th>{t('datum.corner')}</th>
                <th className="number">{t('datum.fromFront')}</th>
                <th className="number">{t('datum.fromCentre')}</th>
              </tr>
            </thead>
            <tbody>
              {corners.map((point): ReactNode => (
                <tr key={`${point.unit}${point.corner}`}>
                  <td>{point.name}</td>
                  <td className="soft">{t(`datum.corner.${point.corner}`)}</td>
                  <td className="number">{len(point.x)}</td>
                  <td className="number">{signed(point.y)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      )}
      <section className="section stack" aria-label={t('datum.level')}>
        <h2>{t('datum.level')}</h2>
        {level.along === null && level.across === null && <p className="soft">{t('datum.levelNone')}</p>}
        {level.along !== null && level.riseAlong !== null && (
          <p>
            {t('datum.levelAlong', { degrees: formatAngle(level.along), rise: lenUnit(Math.abs(level.riseAlong)) })}
          </p>
        )}
        {level.across !== null && level.riseAcross !== null && (
          <p>
            {t('datum.levelAcross', { degrees: formatAngle(level.across), rise: lenUnit(Math.abs(level.riseAcross)) })}
          </p>
        )}
        {level.angles.map((angle) => (
          <p key={angle.id} className="figures">
            {t('datum.angle', {
              name: angle.name,
              raw: formatAngle(angle.raw),
              floor: formatAngle(angle.floor),
              corrected: formatAngle(angle.corrected),
            })}
          </p>
        ))}
        <div className="row wrap">
          <Button onClick={() => onPick('level/along')}>{t('datum.readAlong')}</Button>
          <Button onClick={() => onPick('level/across')}>{t('datum.readAcross')}</Button>
        </div>
      </section>
      <StringLine length={shell.length} along={level.along} />
    </div>
  );
}
