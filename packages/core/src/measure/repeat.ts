import { valueAt } from '../document/address.js';
import type { Operation } from '../document/operation.js';
import type { Survey } from '../document/schema.js';

/** What of an opening is read along the row it is repeated in; everything else is the same at each. */
const ALONG = ['from', 'to', 'from-head', 'to-head'];
/** Where a row may not go on, mm. */
const FARTHEST_MM = 20_000;

/**
 * An opening again and again at an even spacing, as the windows of a bus stand: the same thing with the same readings, those
 * along the row moved on. What was not read itself is an estimate, and is told as one.
 * @param count how many more there are
 * @param pitch from one to the next, mm; negative towards the front or the left
 * @param at when they are taken down, ISO 8601
 * @returns nothing while the opening itself has no place, or the row would run off
 */
export function repeatOpening(
  survey: Survey,
  id: string,
  count: number,
  pitch: number,
  at: string,
): readonly Operation[] {
  const first = survey.openings.find((opening) => opening.id === id);
  const prefix = `opening/${id}/`;
  const read = Object.keys(survey.readings).filter((address) => address.startsWith(prefix));
  const end = valueAt(survey, `${prefix}to`);
  if (!first || end === null || count < 1 || pitch === 0 || Math.abs(end + count * pitch) > FARTHEST_MM) return [];
  const free = 1 + Math.max(0, ...survey.openings.map((opening) => Number(/^o(\d+)$/.exec(opening.id)?.[1] ?? 0)));
  const names = new Set(survey.openings.map(({ name }) => name));
  let number = 1;
  const nextName = (): string => {
    do number += 1;
    while (names.has(`${first.name} ${number}`));
    return `${first.name} ${number}`;
  };
  return Array.from({ length: count }, (_, i): Operation[] => {
    const own = `o${free + i}`;
    return [
      { name: 'putOpening', payload: { opening: { ...first, id: own, name: nextName() } } },
      {
        name: 'takeReadings',
        payload: {
          stations: [],
          readings: read.flatMap((address) => {
            const what = address.slice(prefix.length);
            const value = valueAt(survey, address);
            return value === null
              ? []
              : [
                  {
                    address: `opening/${own}/${what}`,
                    reading: {
                      value: ALONG.includes(what) ? value + (i + 1) * pitch : value,
                      method: 'estimate' as const,
                      at,
                    },
                  },
                ];
          }),
        },
      },
    ];
  }).flat();
}
