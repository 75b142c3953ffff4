import { describe, expect, it } from 'vitest';
import { derive } from './derive.js';
import type { Derived } from './derived.js';
import type { Mode, Project } from '../document/schema.js';
import { movesOf, partMoved, rigidIn } from '../furniture/parts-moved.js';
import { seededRandom } from '../numeric/random.js';
import { startPriceBook } from '../materials/start-book.js';
import type { Part } from '../parts/part.js';
import { walkThrough } from '../practice/accuracy.js';
import { drawnRoom } from './fixtures/drawn-room.js';

const book = startPriceBook();
const measured = (vehicle: Project['vehicle']['kind'], seed: number): Project =>
  walkThrough({ vehicle, seed }, 1, 0).project;

type Place = readonly number[];
const dot = (a: Place, b: Place): number => a.reduce((sum, value, i) => sum + value * (b[i] ?? 0), 0);
function corners({ outline, place, thickness }: Part): Place[] {
  const { origin, along, across, thick } = place;
  return outline.outer.flatMap(([x, y]) =>
    [0, thickness].map((t) =>
      [0, 1, 2].map((i) => (origin[i] ?? 0) + (along[i] ?? 0) * x + (across[i] ?? 0) * y + (thick[i] ?? 0) * t),
    ),
  );
}
/** How deep two plates stand in each other, by the axes of both: no more than 0 where one of them parts them. */
function deep(a: Part, b: Part): number {
  const [p, q] = [corners(a), corners(b)];
  const axes = [a, b].flatMap(({ place }) => [place.along, place.across, place.thick]);
  return Math.min(
    ...axes.map((axis) => {
      const [u, v] = [p, q].map((places) => places.map((at) => dot(at, axis)));
      return (
        Math.min(Math.max(...(u ?? [])), Math.max(...(v ?? []))) -
        Math.max(Math.min(...(u ?? [])), Math.min(...(v ?? [])))
      );
    }),
  );
}

const ROOMS = 30;
const rooms = Array.from({ length: ROOMS }, (_, i) => ({ seed: i + 1, project: drawnRoom(i + 1, book, measured) }));
/** Boards may lie in each other by so much: a hair of play that is told nowhere, mm. */
const PLAY_MM = 1.5;

interface Moved {
  readonly part: Part;
  /** What moved it; null for what stands still. */
  readonly by: string | null;
}
/** Every board where it stands in some states; what is taken off is left out. */
const inStates = (derived: Derived, states: Readonly<Record<string, number>>): Moved[] => {
  const moves = movesOf(derived.made);
  return derived.parts
    .filter(({ unit }) => unit !== null)
    .flatMap((part): Moved[] => {
      const goes = moves.get(part.id) ?? [];
      const rigid = rigidIn(goes, states);
      const by = goes.find(({ motion }) => (states[motion.of] ?? 0) > 0)?.motion.of ?? null;
      return rigid ? [{ part: by === null ? part : partMoved(part, rigid), by }] : [];
    });
};
const fails = ({ checks }: Derived, ...ids: readonly string[]): boolean =>
  checks.some(({ id, grade }) => grade === 'fails' && ids.includes(id));
const bayOf = (motion: string): string => motion.split('.').slice(0, 2).join('.');

describe(`what moves, in ${ROOMS} rooms`, () => {
  const made = rooms.map(({ seed, project }) => ({ seed, project, derived: derive(project, book) }));

  it('shares no room with another board of its unit, half or all of its way, unless a note says so', () => {
    const wrong: string[] = [];
    let looked = 0;
    for (const { seed, derived } of made)
      for (const { unit, skeleton } of derived.made)
        for (const motion of skeleton?.motions ?? []) {
          if (fails(derived, `sweep:${motion.of}`, `before:${motion.of}`)) continue;
          // what closes its bay is opened first
          const first = (skeleton?.motions ?? []).filter(
            (one) => one !== motion && one.kind !== 'slide' && bayOf(one.of) === bayOf(motion.of),
          );
          for (const share of [0.5, 1]) {
            const states = { ...Object.fromEntries(first.map(({ of }) => [of, 1])), [motion.of]: share };
            const now = inStates(derived, states).filter(({ part }) => part.unit === unit);
            for (const a of now.filter(({ by }) => by === motion.of))
              for (const b of now.filter(({ by }) => by !== motion.of)) {
                looked += 1;
                const into = deep(a.part, b.part);
                if (into > PLAY_MM)
                  wrong.push(`${seed}: ${a.part.id} in ${b.part.id} by ${into.toFixed(1)} at ${share}`);
              }
          }
        }
    expect(looked).toBeGreaterThan(1000);
    expect(wrong).toEqual([]);
  });

  it('stands in nothing in any mode, of its own unit or another, unless a note of that mode says so', () => {
    const random = seededRandom(23);
    const wrong: string[] = [];
    let looked = 0;
    let told = 0;
    for (const { seed, project, derived } of made) {
      const motions = derived.made.flatMap(({ skeleton }) => skeleton?.motions ?? []);
      if (motions.length < 2) continue;
      const modes = Array.from({ length: 3 }, (_, i): Mode => ({
        id: `m${i}`,
        name: `M${i}`,
        use: 'day',
        states: Object.fromEntries(
          Array.from({ length: 4 }, () => [motions[Math.floor(random() * motions.length)]?.of ?? '', 1] as const),
        ),
      }));
      const now = derive({ ...project, layout: { ...project.layout, modes } }, book);
      const still = inStates(now, {});
      const rest = new Map(still.map(({ part }) => [part.id, part]));
      for (const { id, states } of modes) {
        const all = inStates(now, states);
        for (const [i, a] of all.entries())
          for (const b of all.slice(i + 1)) {
            if (a.by === b.by) continue;
            const [p, q] = [rest.get(a.part.id), rest.get(b.part.id)];
            // what shares room at rest is told there
            if (p && q && deep(p, q) > PLAY_MM) continue;
            looked += 1;
            const into = deep(a.part, b.part);
            if (into <= PLAY_MM) continue;
            const by = [a.by, b.by].flatMap((one) => one ?? []);
            const says = now.checks.some(
              (check) =>
                check.grade === 'fails' &&
                (by.some((one) => [`sweep:${one}`, `before:${one}`, `shut:${id}:${one}`].includes(check.id)) ||
                  (check.id.startsWith(`clash:${id}:`) && by.some((one) => check.id.includes(one)))),
            );
            if (says) told += 1;
            else wrong.push(`${seed} ${id}: ${a.part.id} in ${b.part.id} by ${into.toFixed(1)} (${by.join(', ')})`);
          }
      }
    }
    expect(looked).toBeGreaterThan(5000);
    expect(told).toBeGreaterThan(0);
    expect(wrong).toEqual([]);
  });
});
