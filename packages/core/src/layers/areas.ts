import type { Covered, Opening, Survey } from '../document/schema.js';
import { valueAt } from '../document/address.js';
import type { RoomFigures } from '../shell/room.js';
import { roofHeight, type Shell } from '../shell/shell.js';
import { message, mm, type Message } from '../words/message.js';

/** An opening whose four edges are read, mm. */
export interface PlacedOpening {
  readonly opening: Opening;
  readonly from: number;
  readonly to: number;
  readonly sill: number;
  readonly head: number;
}

/** The openings whose edges are all read and in order. */
export function placedOpenings(survey: Survey): PlacedOpening[] {
  return survey.openings.flatMap((opening): PlacedOpening[] => {
    const read = (what: string): number | null => valueAt(survey, `opening/${opening.id}/${what}`);
    const [from, to, sill, head] = [read('from'), read('to'), read('sill'), read('head')];
    return from === null || to === null || sill === null || head === null || to <= from || head <= sill
      ? []
      : [{ opening, from, to, sill, head }];
  });
}

/** Openings whose readings cannot be: turned round, above the roof, past the end. */
export function openingProblems(
  survey: Survey,
  shell: Shell | null,
): readonly { readonly said: Message; readonly address: string }[] {
  return survey.openings.flatMap((opening) => {
    const address = (what: string): string => `opening/${opening.id}/${what}`;
    const [from, to, sill, head] = ['from', 'to', 'sill', 'head'].map((what) => valueAt(survey, address(what)));
    if (from == null || to == null || sill == null || head == null) return [];
    const { name } = opening;
    if (to <= from || head <= sill) return [{ said: message('opening.order', { name }), address: address('to') }];
    if (!shell || opening.surface === 'rear') return [];
    if (to > shell.length + 1)
      return [
        { said: message('opening.pastEnd', { name, to: mm(to), length: mm(shell.length) }), address: address('to') },
      ];
    const roof = roofHeight(shell, (from + to) / 2, 0);
    return opening.surface !== 'roof' && head > roof
      ? [{ said: message('opening.aboveRoof', { name, head: mm(head), roof: mm(roof) }), address: address('head') }]
      : [];
  });
}

/** Size of an opening, m2. */
export const openingArea = ({ from, to, sill, head }: PlacedOpening): number => ((to - from) * (head - sill)) / 1e6;

export type CoveredAreas = Readonly<Record<Covered, number>> & {
  /** Glass and hatches, which no layer covers. */
  readonly glass: number;
};

/** How deep a reveal is taken to be for its area, mm. */
const REVEAL_MM = 60;

/**
 * Areas that the build-ups cover, m2: walls and ceiling less their openings, doors by their own size, reveals by the
 * windows' edges.
 */
export function coveredAreas(room: RoomFigures, survey: Survey): CoveredAreas {
  const placed = placedOpenings(survey);
  const sum = (list: readonly PlacedOpening[]): number => list.reduce((total, item) => total + openingArea(item), 0);
  const on = (surface: Opening['surface']): number => sum(placed.filter(({ opening }) => opening.surface === surface));
  const windows = placed.filter(({ opening }) => opening.kind !== 'door');
  return {
    floor: room.areas.floor,
    left: Math.max(0, room.areas.left - on('left')),
    right: Math.max(0, room.areas.right - on('right')),
    ceiling: Math.max(0, room.areas.ceiling - on('roof')),
    doors: sum(placed.filter(({ opening }) => opening.kind === 'door')),
    windows: windows.reduce((total, w) => total + (2 * (w.to - w.from + w.head - w.sill) * REVEAL_MM) / 1e6, 0),
    glass: sum(windows),
  };
}
