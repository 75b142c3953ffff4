import { sceneOf } from '@nestplank/core/derive';
import { FAMILIES, freeUnitId, type Family, type Gap, type Start } from '@nestplank/core/furniture';
import { gapAt, gapsOf, offersIn, type Offered } from '@nestplank/core/layout';
import type { Pointed } from '../../state/pointing.js';
import type { Scene } from '../../state/scene.js';

/** What a new one of a family starts from in this plan: a free id, its name, the people, the room. */
export function startIn(family: Family, scene: Pick<Scene, 'project' | 'book'>, room: Start['room']): Start {
  const { layout, people } = scene.project;
  const { id, number } = freeUnitId(layout.units, family.words.noun);
  const name = number === 1 ? family.words.start : `${family.words.start} ${number}`;
  return { id, name, layout, people, room, book: scene.book };
}

/** The free stretches of a plan, as it stands. */
export function gapsIn({ project, derived, book }: Pick<Scene, 'project' | 'derived' | 'book'>): readonly Gap[] {
  const scene = sceneOf(project, derived, book, FAMILIES);
  return scene ? gapsOf(scene) : [];
}

/** The free stretch that was pointed at, with what fits there now, best first; null where something stands. */
export function askGap(
  scene: Pick<Scene, 'project' | 'derived' | 'book'>,
  place: Pointed,
): { readonly gap: Gap; readonly offers: readonly Offered[] } | null {
  const { surface } = place;
  const { inner } = scene.derived;
  if (!inner || surface === 'front' || surface === 'rear') return null;
  const gap = gapAt(gapsIn(scene), { ...place, surface }, inner.floor);
  return gap && { gap, offers: offersIn(gap, FAMILIES, (family) => startIn(family, scene, inner)) };
}
