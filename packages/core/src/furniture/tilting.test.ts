import { describe, expect, it } from 'vitest';
import type { Unit } from '../document/unit-schema.js';
import { startPriceBook } from '../materials/start-book.js';
import { monotoneCurve } from '../numeric/curve.js';
import { makeShell } from '../shell/shell.js';
import { say } from '../words/say.js';
import { tiltingBoard } from './families/tilting-board.js';
import { FAMILIES } from './families/index.js';
import { makeUnit } from './make.js';
import { moved, rigidOf } from './moved.js';
import { standsMoved } from './motions.js';
import { SCHOOLS } from './schools/index.js';

const book = startPriceBook();
/** Walls upright 900 out, under a flat roof of 1900; one stands on 20. */
const shellWith = (topOut: number) =>
  makeShell(
    3000,
    20,
    [0, 3000].map((x) => ({
      x,
      left: monotoneCurve([0, 700, 1900], [900, 900, topOut]),
      right: monotoneCurve([0, 700, 1900], [900, 900, topOut]),
      roof: monotoneCurve([-900, 900], [1900, 1900]),
    })),
  );
const straight = shellWith(900);
const unit = (options: Unit['options'] = {}, side: 'left' | 'right' = 'left'): Unit => ({
  id: 'b',
  family: 'tilting-board',
  name: 'Board',
  body: { stands: side, x: 200, length: 1900, front: 227, from: 0, to: 450 },
  meets: {},
  division: { name: 'under', holds: { kind: 'open' }, front: { kind: 'none' } },
  school: 'plywood',
  materials: { board: 'birch-15', ledge: 'birch-18' },
  options: { mattress: 80, sleepers: [], anchorAt: 227, anchorHeight: 1800, step: 120, knots: 4, ...options },
});
const made = (of: Unit, inner = straight) => makeUnit(of, { inner, arches: [], book, things: [] }, FAMILIES, SCHOOLS);
const told = (of: Unit, inner = straight): string[] =>
  (tiltingBoard.tells?.(of, { inner, arches: [], book, things: [] }) ?? []).map((one) => say(one));

describe('a tilting board', () => {
  it('tilts by the knot that its ropes are hung in by: 650 wide, 1365 of rope, 120 shorter is 10.6 degrees', () => {
    // hinge 900 - 5 - 18; D2 = 650^2 + 1365^2, L = 1245: 64.5 - acos(0.589) = 10.6; 650 x sin 10.6 = 120
    const lines = told(unit());
    expect(lines[0]).toBe('Knot 1: 11 degrees, its edge 570 above the floor.');
    expect(lines).toHaveLength(6);
    expect(lines[4]).toContain('1\u202f365 long');
    const { motions } = made(unit()).skeleton ?? {};
    expect(motions?.[0]?.stops?.map(({ share }) => share).at(-1)).toBe(1);
    expect(motions?.[0]?.stops).toHaveLength(4);
  });
  it.each(['left', 'right'] as const)('turns its free edge up, at the %s wall', (side) => {
    const [motion] = made(unit({}, side)).skeleton?.motions ?? [];
    if (!motion) throw new Error('it tilts');
    const rigid = rigidOf(motion, 1);
    const free = side === 'left' ? motion.shut.y1 : motion.shut.y0;
    const to = rigid && moved(rigid, [500, free, motion.shut.z0]);
    expect(to?.[2]).toBeGreaterThan(motion.shut.z0 + 300);
    const stands = standsMoved(motion, 1);
    // it stands within the room it sweeps, and the hinge has not moved
    expect(stands?.z1).toBeLessThanOrEqual(
      (motion.kind === 'hinge' && motion.about === 'level' ? motion.through.z1 : 0) + 4,
    );
    const hinge = side === 'left' ? motion.shut.y0 : motion.shut.y1;
    expect(rigid && moved(rigid, [500, hinge, motion.shut.z0])[1]).toBeCloseTo(hinge, 6);
    // by half of its range it is in between
    expect(standsMoved(motion, 0.5)?.z1).toBeLessThan(stands?.z1 ?? 0);
  });
  it('stops before a wall that leans in, and says what it meets', () => {
    const leaning = shellWith(500);
    const lines = told(unit({ step: 200, knots: 8 }), leaning);
    expect(lines.at(-1)).toMatch(/^It tilts up to \d+ degrees before it meets the wall\.$/);
    const most = Number(/up to (\d+)/.exec(lines.at(-1) ?? '')?.[1]);
    expect(most).toBeLessThan(90);
    expect(lines.length - 2).toBeLessThan(8);
    expect(told(unit()).at(-1)).toBe('It can be tilted until it stands on edge.');
  });
  it('that cannot be held by its ropes is a problem with its place', () => {
    // hung lower than its edge it is pulled down, not up
    const low = made(unit({ anchorAt: 227, anchorHeight: 300 }));
    expect(low.problems.map(({ said }) => said.key)).toEqual(['tilting.anchor']);
    expect(low.skeleton?.motions).toEqual([]);
    const under = made({ ...unit(), body: { ...unit().body, front: 860 } as Unit['body'] });
    expect(under.problems.map(({ said }) => said.key)).toEqual(['furniture.shallow']);
    const key = (step: number, topOut: number) =>
      made(unit({ step }), shellWith(topOut)).problems.map(({ said }) => said.key);
    expect(key(1000, 500)).toEqual(['tilting.short']);
    expect(key(1000, 900)).toEqual(['tilting.tight']);
  });
  it('hangs on hinges along its wall', () => {
    // 1900 long: 2 + 2 more
    expect(made(unit()).hardware.find(({ item }) => item === 'hinge-butt-60')?.amount).toBeGreaterThanOrEqual(4);
  });
});
