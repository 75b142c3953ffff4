import { SURFACE_LIST, type SurfaceTraits } from '@nestplank/core/document';
import { EN_UI, type UiKey } from '../words/en.js';
import type { Speech } from '../words/words.js';

/** What a surface is called in a heading: by the interface where it has a word for it, else by its own name. */
export function surfaceTitle(
  id: string,
  { t }: Pick<Speech, 't'>,
  surfaces: readonly SurfaceTraits[] = SURFACE_LIST,
): string {
  const key = `layers.title.${id}`;
  return key in EN_UI ? t(key as UiKey) : (surfaces.find((surface) => surface.id === id)?.words.name ?? id);
}
