/** What kind of surface it is: what it is, not where. */
export type SurfaceKind = 'floor' | 'wall' | 'ceiling' | 'end' | 'doors' | 'reveals';

/** A surface of the inside that layers lie on, with everything that is asked of it by others. */
export interface SurfaceTraits {
  readonly id: string;
  /** Its name alone, and in the middle of a sentence. */
  readonly words: { readonly name: string; readonly the: string };
  readonly kind: SurfaceKind;
  /** Ribs stand proud of it: what lies in their depth takes no room. */
  readonly ribs: boolean;
  /** Its layers take room off the inside. */
  readonly inset: boolean;
  /** What an opening in it says it lies in; null where it has none of its own. */
  readonly opening: 'left' | 'right' | 'rear' | 'front' | 'roof' | null;
  readonly phase: 'floor' | 'walls' | 'ceiling';
  /** Resistance of the air on its inner face, m2K/W: heat flowing down, sideways, up (ISO 6946). */
  readonly insideAir: number;
  /** Heat passes through it, and is worked out. */
  readonly warms: boolean;
  /** m2, where the shell does not give it. */
  readonly area?: number;
}

const wall = {
  inset: true,
  phase: 'walls',
  insideAir: 0.13,
  warms: true,
} as const;

/** The surfaces of a vehicle, in the order in which they are listed. */
export const SURFACE_LIST = [
  {
    id: 'floor',
    words: { name: 'Floor', the: 'the floor' },
    kind: 'floor',
    ribs: false,
    inset: true,
    opening: null,
    phase: 'floor',
    insideAir: 0.17,
    warms: true,
  },
  {
    ...wall,
    id: 'left',
    words: { name: 'Left wall', the: 'the left wall' },
    kind: 'wall',
    ribs: true,
    opening: 'left',
  },
  {
    ...wall,
    id: 'right',
    words: { name: 'Right wall', the: 'the right wall' },
    kind: 'wall',
    ribs: true,
    opening: 'right',
  },
  {
    ...wall,
    id: 'ceiling',
    words: { name: 'Ceiling', the: 'the ceiling' },
    kind: 'ceiling',
    ribs: true,
    opening: 'roof',
    phase: 'ceiling',
    insideAir: 0.1,
  },
  {
    ...wall,
    id: 'front',
    words: { name: 'Front end', the: 'the front end' },
    kind: 'end',
    ribs: false,
    opening: 'front',
  },
  { ...wall, id: 'rear', words: { name: 'Rear end', the: 'the rear end' }, kind: 'end', ribs: false, opening: 'rear' },
  {
    ...wall,
    id: 'doors',
    words: { name: 'Doors', the: 'the doors' },
    kind: 'doors',
    ribs: false,
    inset: false,
    opening: null,
  },
  {
    ...wall,
    id: 'windows',
    words: { name: 'Window reveals', the: 'the window reveals' },
    kind: 'reveals',
    ribs: false,
    inset: false,
    opening: null,
    warms: false,
  },
] as const satisfies readonly SurfaceTraits[];

/** The surfaces every vehicle has. Others may be added beside them. */
export type KnownSurface = (typeof SURFACE_LIST)[number]['id'];
export const surfaceNamed = (surfaces: readonly SurfaceTraits[], id: string): SurfaceTraits | null =>
  surfaces.find((surface) => surface.id === id) ?? null;

/** The layers on a surface, from the metal inward; none where nothing is said of it. */
export const layersOn = <Layer>(
  buildUps: Readonly<Record<string, readonly Layer[]>>,
  surface: string,
): readonly Layer[] => buildUps[surface] ?? [];
