import { familyNamed } from '@nestplank/core/document';
import { FAMILIES, type Family } from '@nestplank/core/furniture';
import { EN_UI, type UiKey } from '../words/en.js';
import type { Speech } from '../words/words.js';

/** The label of a family's field: its own word, else the common one, else its name. */
export function fieldLabel(family: Family, name: string, { t }: Pick<Speech, 't'>): string {
  const key = `field.${name}`;
  return family.words.fields[name] ?? (key in EN_UI ? t(key as UiKey) : name);
}

/** What a part's role is called: by the families, else by the common words. */
export function roleWord(role: string, { t }: Pick<Speech, 't'>, families: readonly Family[] = FAMILIES): string {
  const key = `role.${role}`;
  const own = families.find((family) => role in family.words.roles)?.words.roles[role];
  return own ?? (key in EN_UI ? t(key as UiKey) : role);
}

export const familyOf = (id: string, families: readonly Family[] = FAMILIES): Family | null =>
  familyNamed(families, id);
