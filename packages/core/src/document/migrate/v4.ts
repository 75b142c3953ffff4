import { eachRaw, rawIn, type Raw } from './raw.js';

/** A cupboard of version 4 as a run with one bay. */
const runOf = (unit: Raw): Raw => ({
  id: unit['id'],
  family: 'base-run',
  name: unit['name'],
  body: {
    stands: unit['side'],
    x: unit['x'],
    length: unit['length'],
    front: unit['front'],
    from: 0,
    to: unit['height'],
  },
  meets: { back: { how: 'scribed', allowance: unit['scribe'] }, foot: { how: 'square' } },
  division: {
    name: 'bay-1',
    holds: Number(unit['shelves']) > 0 ? { kind: 'shelves', count: unit['shelves'] } : { kind: 'open' },
    front: Number(unit['doors']) > 0 ? { kind: 'doors', count: unit['doors'] } : { kind: 'none' },
  },
  school: 'plywood',
  materials: { carcass: unit['carcass'], facing: unit['facing'], top: unit['top'] },
  options: { toeKick: unit['toeKick'], overhang: unit['overhang'] },
});

const bedOf = (unit: Raw): Raw => ({
  id: unit['id'],
  family: 'bed-platform',
  name: unit['name'],
  body: { stands: 'across', x: unit['x'], length: unit['length'], from: 0, to: unit['height'] },
  meets: {
    left: { how: 'scribed', allowance: unit['scribe'] },
    right: { how: 'scribed', allowance: unit['scribe'] },
    foot: { how: 'open' },
  },
  division: { name: 'hold', holds: { kind: 'open' }, front: { kind: 'none' } },
  school: 'plywood',
  materials: { board: unit['board'], support: unit['support'] },
  options: {
    mattress: unit['mattress'],
    sleepers: unit['sleepers'],
    boardWidth: unit['boardWidth'],
    span: unit['span'],
  },
});

const unitOf = (unit: Raw): unknown =>
  unit['kind'] === 'base-cupboard' ? runOf(unit) : unit['kind'] === 'platform-bed' ? bedOf(unit) : unit;

/** Names of a cupboard's and a bed's parts, which were counted before. */
const LASTING: readonly (readonly [RegExp, string])[] = [
  [/^side-1$/, 'end-front'],
  [/^side-2$/, 'end-rear'],
  [/^rail-1$/, 'rail-front'],
  [/^rail-2$/, 'rail-back'],
  [/^(bottom|kick|top)-1$/, '$1'],
  [/^(shelf|door)-(\d+)$/, 'bay-1.$1-$2'],
  [/^(board|support)-(\d+)$/, '$1-$2'],
  [/^front$/, 'front'],
];

/** The lasting name of a unit's part; what belongs to no unit keeps its name. */
export function lastingName(part: unknown, units: readonly string[]): unknown {
  if (typeof part !== 'string') return part;
  // the longest id first: one may begin like another
  const unit = [...units].sort((a, b) => b.length - a.length).find((id) => part.startsWith(`${id}-`));
  if (unit === undefined) return part;
  const role = part.slice(unit.length + 1);
  const known = LASTING.find(([old]) => old.test(role));
  return known ? `${unit}.${role.replace(known[0], known[1])}` : part;
}

/**
 * From version 4 to 5: one model of furniture, layouts, linings by surface, parts of units under names that last.
 * Frozen.
 */
export function fromFourth(raw: Raw): Raw {
  const { units, linings, ...rest } = raw;
  const ids = Array.isArray(units) ? units.map((unit) => rawIn(unit)['id']).filter((id) => typeof id === 'string') : [];
  const named = (item: Raw): Raw => ({ ...item, part: lastingName(item['part'], ids) });
  const { boxes, floor, doors, ...surfaces } = rawIn(linings);
  return {
    ...rest,
    version: 5,
    layout: { units: eachRaw(units, unitOf) },
    linings: surfaces,
    boxes,
    floor,
    doorLining: doors,
    waits: eachRaw(raw['waits'], named),
    scribes: eachRaw(raw['scribes'], named),
    waste: eachRaw(raw['waste'], named),
    patterns: eachRaw(raw['patterns'], (pattern) => ({ ...pattern, made: eachRaw(pattern['made'], named) })),
    keptPlans: eachRaw(raw['keptPlans'], (plan) => ({
      ...plan,
      sheets: eachRaw(plan['sheets'], (sheet) => ({ ...sheet, placements: eachRaw(sheet['placements'], named) })),
    })),
  };
}
