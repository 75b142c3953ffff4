import { boardBox, type BayRoom, type Board } from './skeleton.js';

/** The inside of a drawer, or of a tray that slides out, mm. */
export interface SlidInside {
  readonly wide: number;
  readonly deep: number;
  /** From its bottom up to what it passes under when it slides out: the next one, or the head of its bay. */
  readonly high: number;
  /** How high its bottom lies in the vehicle. */
  readonly top: number;
  /** How thick its boards are. */
  readonly thick: number;
}

/** What slides out of a bay, from below upward: as it is made of boards, and none where it was not made. */
export function slidOutOf({ bay, room, through }: BayRoom, boards: readonly Board[]): SlidInside[] {
  const { holds } = bay;
  const names =
    holds.kind === 'pull-out'
      ? [`${bay.name}.pull-out`]
      : holds.kind === 'drawers'
        ? Array.from({ length: holds.count }, (_, i) => `${bay.name}.drawer-${i + 1}`)
        : [];
  const made = names.flatMap((name) => {
    const boxOf = (part: string): ReturnType<typeof boardBox> | null => {
      const board = boards.find((one) => one.name === `${name}.${part}`);
      return board ? boardBox(board) : null;
    };
    const [front, back, bottom] = [boxOf('front'), boxOf('back'), boxOf('bottom')];
    if (!front || !back || !bottom) return [];
    const [nearer, farther] = front.low[1] < back.low[1] ? [front, back] : [back, front];
    return [
      {
        wide: front.high[0] - front.low[0],
        deep: farther.low[1] - nearer.high[1],
        foot: bottom.low[2],
        top: bottom.high[2],
        thick: bottom.high[2] - bottom.low[2],
      },
    ];
  });
  const head = through ? room.z0 + through[1] : room.z1;
  return made.map(({ wide, deep, top, thick }, i) => ({
    wide,
    deep,
    top,
    thick,
    high: (made[i + 1]?.foot ?? head) - top,
  }));
}

const LITRE_MM3 = 1e6;
/** What a bay holds, litres: all of it, or what its drawers or its tray do. */
export function litresIn(place: BayRoom, boards: readonly Board[]): number {
  const { room, deepLow, deepHigh, bay } = place;
  const slides = bay.holds.kind === 'drawers' || bay.holds.kind === 'pull-out';
  const sizes = slides
    ? slidOutOf(place, boards).map(({ wide, deep, high }) => wide * deep * high)
    : [(room.x1 - room.x0) * ((deepLow + deepHigh) / 2) * (room.z1 - room.z0)];
  return sizes.reduce((sum, size) => sum + size, 0) / LITRE_MM3;
}
