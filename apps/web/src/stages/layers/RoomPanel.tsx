import type { PersonFigure } from '@nestplank/core/layout';
import { BED_HEIGHT_MM, type RoomFigures } from '@nestplank/core/shell';
import type { Scene } from '../../state/scene.js';
import { useSpeech } from '../../words/use-speech.js';

const ROWS = [
  ['standing', 'layers.standing'],
  ['widthAtFloor', 'layers.atFloor'],
  ['widthAtBelly', 'layers.atBelly'],
  ['widthAtBed', 'layers.atBed'],
] as const;

const WORDS = { standing: 'layers.stands', lying: 'layers.lies', shoulders: 'layers.shoulders' } as const;

/** What is left for each person, the figure that decides, and which layer took what. */
function ForPeople({ scene }: { readonly scene: Scene }) {
  const { t, len, lenUnit } = useSpeech();
  const { left } = scene.derived;
  if (!left) return null;
  const spare = (figure: PersonFigure): string =>
    t(figure.spare < 0 ? 'layers.short' : 'layers.spare', { by: lenUnit(Math.abs(figure.spare)) });
  const { matters } = left;
  return (
    <>
      {matters && (
        <p>
          <b>
            {t('layers.matters', {
              who: matters.person.name,
              what: t(WORDS[matters.what], { wants: len(matters.wants) }),
              spare: spare(matters),
            })}
          </b>
        </p>
      )}
      {left.people.length === 0 ? (
        <p className="small soft">{t('layers.noPeople')}</p>
      ) : (
        <table className="plain">
          <tbody>
            {left.people.map((figure) => (
              <tr key={`${figure.person.id}${figure.what}`}>
                <td>
                  {figure.person.name}, {t(WORDS[figure.what], { wants: len(figure.wants) })}
                </td>
                <td className="number">{len(figure.there)}</td>
                <td className={`number ${figure.spare < 0 ? 'needs' : 'done'}`}>
                  {figure.spare < 0 ? '−' : '+'}
                  {len(Math.abs(figure.spare))}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {left.lost.length > 0 && (
        <table className="plain">
          <thead>
            <tr>
              <th>{t('layers.lostBy')}</th>
              <th className="number">{t('layers.lostHeight')}</th>
              <th className="number">{t('layers.lostWidth')}</th>
            </tr>
          </thead>
          <tbody>
            {left.lost.map((layer) => (
              <tr key={layer.surface + layer.layer}>
                <td>
                  {layer.material} <span className="soft small">{t(`surface.${layer.surface as 'floor'}`)}</span>
                </td>
                <td className="number soft">{layer.height > 0 ? len(layer.height) : ''}</td>
                <td className="number soft">{layer.width > 0 ? len(layer.width) : ''}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </>
  );
}

/** Room before and after the layers, and what they cost. */
export function RoomPanel({ scene }: { readonly scene: Scene }) {
  const { t, len } = useSpeech();
  const { bareRoom, room } = scene.shape;
  if (!bareRoom) return null;
  const value = (figures: RoomFigures | null, key: (typeof ROWS)[number][0]): string =>
    figures ? len(figures[key].value) : '–';
  return (
    <section className="section stack">
      <table className="plain">
        <thead>
          <tr>
            <th>{t('layers.left')}</th>
            <th className="number">{t('layers.bare')}</th>
            <th className="number">{t('layers.net')}</th>
            <th className="number">{t('layers.lost')}</th>
          </tr>
        </thead>
        <tbody>
          {ROWS.map(([key, label]) => (
            <tr key={key}>
              <td>{t(label, { height: len(BED_HEIGHT_MM) })}</td>
              <td className="number soft">{value(bareRoom, key)}</td>
              <td className="number size-18 strong">{value(room, key)}</td>
              <td className="number soft">{room ? len(bareRoom[key].value - room[key].value) : '–'}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <ForPeople scene={scene} />
    </section>
  );
}
