import { baysOf } from '../document/body.js';
import { OperationError } from '../document/editing.js';
import type { Field } from '../document/kit.js';
import type { Operation } from '../document/operation.js';
import type { PriceBook, Project } from '../document/schema.js';
import type { OptionValue } from '../document/unit-schema.js';
import { createDeriver } from '../derive/derive.js';
import { sceneOf } from '../derive/scene-of.js';
import { freeUnitId } from '../furniture/family.js';
import { applyOperation } from '../furniture/kit.js';
import { FAMILIES } from '../furniture/families/index.js';
import { START_THINGS } from '../furniture/start-things.js';
import { seededRandom } from '../numeric/random.js';
import { walkThrough } from '../practice/accuracy.js';
import { gapsOf } from './gaps.js';

const NAMES = ['Ann', 'Bo', 'Cleo', 'Dag'];

/**
 * A drawn vehicle with people of any size, and furniture of any family set anywhere, changed, divided and filled by
 * chance, in modes by chance: much of it does not fit, as when somebody only tries.
 */
export function drawnRoom(seed: number, book: PriceBook): Project {
  const random = seededRandom(seed * 7919);
  const int = (from: number, to: number): number => Math.floor(from + random() * (to - from + 1));
  const pick = <T>(list: readonly T[]): T | undefined => list[Math.floor(random() * list.length)];
  const one = <T>(first: T, ...others: T[]): T => pick([first, ...others]) ?? first;
  let project: Project = {
    ...walkThrough({ vehicle: one('van', 'bus', 'trailer'), seed }, 1, 0).project,
    people: NAMES.slice(0, int(0, 4)).map((name, i) => ({ id: `p${i}`, name, stature: int(900, 2050) })),
    things: START_THINGS.filter(() => random() < 0.4),
  };
  const deriver = createDeriver();
  const does = (operation: Operation): boolean => {
    try {
      project = applyOperation(project, operation, book).project;
      return true;
    } catch (problem) {
      if (problem instanceof OperationError) return false;
      throw problem;
    }
  };
  const unitNamed = (id: string) => project.layout.units.find((unit) => unit.id === id);
  const valueOf = (field: Field, now: OptionValue): OptionValue => {
    if (field.kind === 'length')
      return typeof now === 'number' ? Math.round(now * (0.6 + random() * 0.9)) : int(field.least ?? 0, 2000);
    if (field.kind === 'count') return int(field.least ?? 0, Math.min(field.most ?? 8, 8));
    if (field.kind === 'choice') return pick(field.choices ?? []) ?? '';
    if (field.kind === 'sheet') return pick(book.items.filter(({ group }) => group === 'sheet'))?.id ?? '';
    if (field.kind === 'people') return project.people.filter(() => random() < 0.5).map(({ id }) => id);
    if (field.kind === 'thing') return pick(project.things ?? [])?.id ?? '';
    return random() < 0.5;
  };
  for (let i = int(1, 7); i > 0; i -= 1) {
    const family = pick(FAMILIES);
    const shape = deriver.pull(project, book, true);
    const scene = sceneOf(project, shape, book, FAMILIES);
    if (!family || !scene) break;
    const { id, number } = freeUnitId(project.layout.units, family.words.noun);
    const start = {
      id,
      name: `${family.words.start} ${number}`,
      layout: project.layout,
      people: project.people,
      room: scene.inner,
      book,
    };
    const offers = random() < 0.7 ? gapsOf(scene).flatMap((gap) => family.inGap?.(gap, start) ?? []) : [];
    if (!does({ name: 'placeUnit', payload: { unit: pick(offers)?.unit ?? family.start(start) } })) continue;
    for (let n = int(0, 6); n > 0; n -= 1) {
      const unit = unitNamed(id);
      const field = pick(family.fields);
      if (unit && field && field.when?.(unit) !== false)
        does({ name: 'changeUnit', payload: { id, changes: { [field.name]: valueOf(field, field.get(unit)) } } });
    }
    for (let n = family.divides ? int(0, 4) : 0; n > 0; n -= 1) {
      const bay = pick(
        baysOf(unitNamed(id)?.division ?? { name: 'none', holds: { kind: 'open' }, front: { kind: 'none' } }),
      );
      if (!bay) break;
      const thing = pick(project.things ?? [])?.id ?? null;
      const latch = random() < 0.7;
      const count = int(1, 4);
      if (random() < 0.5)
        does({ name: 'divideBay', payload: { id, bay: bay.name, cut: one('along', 'up'), into: int(2, 3) } });
      else
        does({
          name: 'changeBay',
          payload: {
            id,
            bay: bay.name,
            holds: one<typeof bay.holds>(
              { kind: 'open' },
              { kind: 'shelves', count },
              { kind: 'drawers', count, latch },
              { kind: 'pull-out', thing, travel: int(200, 600), latch },
              { kind: 'rail', along: one('bay', 'depth') },
              thing === null ? { kind: 'open' } : { kind: 'thing', thing },
              { kind: 'chase' },
              { kind: 'hold' },
            ),
            front: one<typeof bay.front>(
              { kind: 'none' },
              { kind: 'doors', count: int(1, 3), latch },
              { kind: 'flap-down', latch },
              { kind: 'lift-up', latch },
              { kind: 'sliding', latch },
              { kind: 'curtain' },
            ),
          },
        });
    }
  }
  const motions = deriver.pull(project, book, true).made.flatMap(({ skeleton }) => skeleton?.motions ?? []);
  for (let i = int(0, 3); i > 0; i -= 1)
    does({
      name: 'putMode',
      payload: {
        mode: {
          id: `m${i}`,
          name: `Mode ${i}`,
          use: one('day', 'night', 'meal', 'drive', 'own'),
          states: Object.fromEntries(motions.filter(() => random() < 0.4).map(({ of }) => [of, one(0.5, 1)])),
        },
      },
    });
  return project;
}
