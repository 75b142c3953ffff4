import type { Lined } from '@nestplank/core/document';
import type { Part } from '@nestplank/core/parts';
import type { Scene } from '../../state/scene.js';
import type { Speech } from '../../words/words.js';

/** What is looked at together in the Build stage: the floor, one lined surface, all window boxes, arch boxes, one unit. */
export interface PartGroup {
  readonly id: string;
  readonly name: string;
  readonly parts: readonly Part[];
  /** The surface whose lining it is. */
  readonly lined: Lined | null;
}

const LINED: readonly Lined[] = ['left', 'right', 'ceiling'];
const isArch = (part: Part): boolean => part.role.startsWith('arch-');

/** The id of the group a part is in. */
export function groupOf(part: Part): string {
  if (part.unit !== null) return part.unit;
  if (isArch(part)) return 'arches';
  return part.surface ?? 'floor';
}

export function partGroups(scene: Scene, { t }: Speech): readonly PartGroup[] {
  const by = new Map<string, Part[]>();
  for (const part of scene.shape.parts) by.set(groupOf(part), [...(by.get(groupOf(part)) ?? []), part]);
  const group = (id: string, name: string, lined: Lined | null = null): PartGroup[] => {
    const parts = by.get(id);
    return parts ? [{ id, name, parts, lined }] : [];
  };
  const lined = new Set(scene.shape.lined.linings.map((lining) => lining.surface));
  return [
    ...group('floor', t('build.group.floor')),
    ...LINED.filter((surface) => lined.has(surface)).flatMap((surface) =>
      group(surface, t(`lining.surface.${surface}`), surface),
    ),
    ...group('windows', t('build.group.windows')),
    ...group('doors', t('build.group.doors')),
    ...group('arches', t('build.group.arches')),
    ...scene.project.layout.units.flatMap((unit) => group(unit.id, unit.name)),
  ];
}
