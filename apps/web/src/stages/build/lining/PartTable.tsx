import { Fold } from '../../../kit/Fold.js';
import { materialOf } from '@nestplank/core/materials';
import { blankOf, type Part } from '@nestplank/core/parts';
import type { Scene } from '../../../state/scene.js';
import { roleWord } from '../../../kit/unit-words.js';
import { look } from '../../../state/view.js';
import { useSpeech } from '../../../words/use-speech.js';

/** Everything a surface is made of, equal pieces together: what to cut and how often. */
export function PartTable({ parts, scene }: { readonly parts: readonly Part[]; readonly scene: Scene }) {
  const speech = useSpeech();
  const { t, sawn } = speech;
  const kinds = new Map<string, { readonly part: Part; readonly size: string; count: number }>();
  for (const part of parts) {
    const { length, width } = blankOf(part);
    const size = `${sawn(length)} × ${sawn(width)}`;
    const key = `${part.role}:${part.material}:${size}`;
    const known = kinds.get(key);
    if (known) known.count += 1;
    else kinds.set(key, { part, size, count: 1 });
  }
  return (
    <Fold title={t('lining.parts')}>
      <table className="plain figures small">
        <tbody>
          {[...kinds.values()].map(({ part, size, count }) => (
            <tr key={part.id}>
              <td>
                <button type="button" className="link" onClick={() => look({ part: part.id })}>
                  {count} × {roleWord(part.role, speech)}
                </button>
              </td>
              <td>{size}</td>
              <td className="soft">{materialOf(scene.book, part.material)?.name ?? part.material}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Fold>
  );
}
