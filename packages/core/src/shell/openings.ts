import type { Opening, Survey } from '../document/schema.js';
import { valueAt } from '../document/address.js';
import { roofHeight, type Shell } from './shell.js';
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
