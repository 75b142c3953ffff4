import { sceneOf } from '@nestplank/core/derive';
import type { Unit } from '@nestplank/core/document';
import { FAMILIES, freeUnitId, type Family, type Gap, type Start } from '@nestplank/core/furniture';
import { gapAt, gapsOf, offeredIn, offersIn, type Offered } from '@nestplank/core/layout';
import type { Pointed } from '../../state/pointing.js';
import type { Scene } from '../../state/scene.js';

/** What a new one of a family starts from in this plan: a free id, its name, the people, the room. */
export function startIn(family: Family, scene: Pick<Scene, 'project' | 'book'>, room: Start['room']): Start {
  const { layout, people } = scene.project;
  const { id, number } = freeUnitId(layout.units, family.words.noun);
  const name = number === 1 ? family.words.start : `${family.words.start} ${number}`;
  return { id, name, layout, people, room, book: scene.book };
}

const seen = ({ project, derived, book }: Pick<Scene, 'project' | 'derived' | 'book'>) =>
  sceneOf(project, derived, book, FAMILIES);

/** One of a family where it fits best; null where no free stretch takes it. */
export function bestPlace(family: Family, scene: Pick<Scene, 'project' | 'derived' | 'book'>): Unit | null {
  const room = seen(scene);
  if (!room) return null;
  const start = startIn(family, scene, room.inner);
  const offers = gapsOf(room).flatMap((gap) => offeredIn(family, gap, start, room) ?? []);
  return offers.sort((a, b) => b.fits - a.fits)[0]?.unit ?? null;
}

/** The free stretch that was pointed at, with what fits there now, best first; null where something stands. */
export function askGap(
  scene: Pick<Scene, 'project' | 'derived' | 'book'>,
  place: Pointed,
): { readonly gap: Gap; readonly offers: readonly Offered[] } | null {
  const { surface } = place;
  const room = seen(scene);
  if (!room || surface === 'front' || surface === 'rear') return null;
  const gap = gapAt(gapsOf(room), { ...place, surface }, room.inner.floor);
  return gap && { gap, offers: offersIn(gap, FAMILIES, (family) => startIn(family, scene, room.inner), room) };
}
