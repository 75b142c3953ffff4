import type { Part } from '@nestplank/core/parts';
import { roleWord } from '../../kit/unit-words.js';
import type { Speech } from '../../words/words.js';

/** What a part is called: its role, with a number where there are several. */
export function partName(part: Part, all: readonly Part[], speech: Speech): string {
  const { t } = speech;
  const role = roleWord(part.role, speech);
  const alike = all.filter(
    (other) =>
      other.role === part.role && other.unit === part.unit && other.surface === part.surface && other.of === part.of,
  );
  const name = alike.length > 1 ? t('part.name', { role, number: part.number }) : role;
  return part.of === undefined ? name : t('part.nameOf', { of: part.of, name });
}
