import { BED_HEIGHT_MM, type RoomFigures } from '@nestplank/core';
import type { Scene } from '../../state/scene.js';
import { useSpeech } from '../../words/words.js';

const ROWS = [
  ['standing', 'layers.standing'],
  ['widthAtFloor', 'layers.atFloor'],
  ['widthAtBelly', 'layers.atBelly'],
  ['widthAtBed', 'layers.atBed'],
] as const;

/** Room before and after the layers, and what they cost. */
export function RoomTable({ scene }: { readonly scene: Scene }) {
  const { t, len } = useSpeech();
  const { bareRoom, room } = scene.shape;
  if (!bareRoom) return null;
  const value = (figures: RoomFigures | null, key: (typeof ROWS)[number][0]): string =>
    figures ? len(figures[key].value) : '–';
  return (
    <section className="section">
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
              <td className="number" style={{ fontSize: 18, fontWeight: 600 }}>
                {value(room, key)}
              </td>
              <td className="number soft">{room ? len(bareRoom[key].value - room[key].value) : '–'}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
