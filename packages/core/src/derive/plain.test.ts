import { describe, expect, it } from 'vitest';
import { createProject } from '../document/create.js';
import type { Operation } from '../document/operation.js';
import type { Project } from '../document/schema.js';
import { applyOperation } from '../furniture/kit.js';
import { startPriceBook } from '../materials/start-book.js';
import { floorSchool, wallSchool } from '../layers/schools.js';
import { planFaults } from '../cutting/job/verify.js';
import { walkOf } from '../measure/walk.js';
import { outlineArea } from '../numeric/plane.js';
import { hiddenShape, trueValue } from '../practice/hidden.js';
import { derive } from './derive.js';

/**
 * A plain van as somebody new makes it: ribs deeper in the walls than bows in the roof, one more rib on the right only, a
 * side door, a slanted window and a rear door, read in the order of the walk; layers by school; a kitchen and a bed.
 */
const book = startPriceBook();
const AT = '2026-11-27T08:00:00.000Z';
const truth = hiddenShape({ vehicle: 'van', seed: 5 });
const { length } = truth;

const RIBS = [0.14, 0.36, 0.58, 0.8].map((share, i) => ({ id: `w${i}`, x: Math.round(share * length) }));
/** What the tape says of the things that were seen, by address. */
const READ: Record<string, number> = {
  ...Object.fromEntries(
    RIBS.flatMap(({ id, x }) =>
      (['left', 'right', 'roof'] as const).flatMap((on) => [
        [`rib/${id}-${on}/x`, x],
        [`rib/${id}-${on}/width`, 55],
        [`rib/${id}-${on}/proud`, on === 'roof' ? 25 : 50],
      ]),
    ),
  ),
  'rib/extra/x': Math.round(0.47 * length),
  'rib/extra/width': 55,
  'rib/extra/proud': 50,
  'opening/door/from': Math.round(0.4 * length),
  'opening/door/to': Math.round(0.4 * length) + 1000,
  'opening/door/sill': 0,
  'opening/door/head': 1600,
  'opening/window/from': Math.round(0.16 * length),
  'opening/window/to': Math.round(0.16 * length) + 700,
  'opening/window/from-head': Math.round(0.16 * length) + 90,
  'opening/window/to-head': Math.round(0.16 * length) + 700,
  'opening/window/sill': 950,
  'opening/window/head': 1380,
  'opening/window/corner': 60,
  'opening/rear/from': -700,
  'opening/rear/to': 700,
  'opening/rear/sill': 0,
  'opening/rear/head': 1550,
};
const opening = (id: string, kind: 'door' | 'window', surface: 'left' | 'right' | 'rear'): Operation => ({
  name: 'putOpening',
  payload: {
    opening: {
      id,
      name: id,
      kind,
      surface,
      cornerRadius: kind === 'door' ? 80 : 60,
      swing: kind === 'door' ? 'hinged' : 'fixed',
      hand: kind === 'door' ? 'left' : 'none',
      slanted: kind === 'window',
      framed: kind === 'window',
      ring: null,
    },
  },
});

function made(): { readonly project: Project; readonly unread: readonly string[] } {
  let project = createProject({
    id: 'plain',
    name: 'Plain',
    kind: 'van',
    model: 'Halden Carrier',
    units: 'mm',
    startDate: '2026-11-30',
  });
  const put = (operation: Operation): void => {
    project = applyOperation(project, operation, book).project;
  };
  for (const { id } of RIBS)
    for (const on of ['left', 'right', 'roof'] as const)
      put({ name: 'putRib', payload: { rib: { id: `${id}-${on}`, name: `rib ${id} ${on}`, on, flat: true } } });
  put({ name: 'putRib', payload: { rib: { id: 'extra', name: 'rib extra', on: 'right', flat: true } } });
  put(opening('door', 'door', 'right'));
  put(opening('window', 'window', 'left'));
  put(opening('rear', 'door', 'rear'));
  const unread: string[] = [];
  // the walk gives what comes next until it has nothing more to ask, or what the tape cannot reach
  for (const address of walkOf(project.survey)) {
    const value = READ[address] ?? trueValue(truth, project.survey, address);
    if (value === null) {
      unread.push(address);
      continue;
    }
    put({
      name: 'takeReading',
      payload: { address, reading: { value: Math.round(value), method: 'tape', at: AT } },
    });
  }
  put({ name: 'putPerson', payload: { person: { id: 'p1', name: 'Ash', stature: 1740 } } });
  const layers = (surface: string, list: ReturnType<typeof floorSchool>): void =>
    list.forEach((layer) => {
      put({ name: 'putLayer', payload: { surface, layer } });
    });
  layers('floor', floorSchool('framed', book));
  for (const surface of ['left', 'right', 'ceiling'] as const)
    layers(surface, wallSchool(surface, 'open', 'ribs', book));
  return { project, unread };
}

describe('a plain van, made as somebody new would', () => {
  const { project, unread } = made();
  const derived = derive(project, book);

  it('has a shell, a room and no problem that its maker did not bring in', () => {
    expect(derived.shell?.length).toBeGreaterThan(2500);
    expect(derived.room?.standing.value).toBeGreaterThan(1200);
    // only what the tape has no figure for: how far ribs reach, depths of a frame, extra things nobody entered
    for (const address of unread)
      expect(address).toMatch(/^(rib\/.*\/(from|to)|opening\/window\/(frame|diagonal)|opening\/.*\/diagonal)/);
    expect(derived.problems.filter((problem) => problem.stage === 'measure')).toEqual([]);
    for (const problem of derived.problems) expect(problem.place.length).toBeGreaterThan(0);
  });

  it('keeps walls and roof apart: each surface has its own ribs, and they its own depth', () => {
    const { on } = derived.ribs;
    expect([on.left.depth, on.right.depth, on.ceiling.depth]).toEqual([50, 50, 25]);
    expect([on.left.ribs.length, on.right.ribs.length, on.ceiling.ribs.length]).toEqual([4, 5, 4]);
    // wool of 50 lies within wall ribs and stands 25 out of the roof's
    expect(derived.depths.left.total).toBeCloseTo(9, 6);
    expect(derived.depths.ceiling.total).toBeCloseTo(9 + 25, 6);
  });

  it('lines every surface so that nothing hangs on nothing, or says what does', () => {
    const { linings } = derived.lined;
    expect(linings.map(({ surface }) => surface)).toEqual(['left', 'right', 'ceiling']);
    for (const lining of linings) {
      const said = lining.problems.some(({ key }) => key === 'lining.unheld');
      expect(said).toBe(lining.unheld.length > 0);
      // what holds the battens themselves, on ribs and on their packers, is no fixing of the face
      const counted = lining.held
        .filter(({ by }) => by !== 'batten' && by !== 'packer')
        .reduce((sum, { count }) => sum + count, 0);
      expect(counted).toBe(lining.fixings.length);
    }
  });

  it('buys as many fixings as it draws, and cuts every part that it lists', () => {
    const needed = new Map<string, number>();
    for (const { held } of derived.lined.linings)
      for (const { fixing, count } of held)
        if (fixing.pick) needed.set(fixing.pick.id, (needed.get(fixing.pick.id) ?? 0) + count);
    for (const [id, count] of needed) {
      const line = derived.shopping.lines.find((candidate) => candidate.material === id);
      expect(line?.amount ?? 0).toBeGreaterThanOrEqual(count);
    }
    for (const { plan, job } of derived.plans) expect(planFaults(job, plan)).toEqual([]);
    const placed = new Set(
      derived.plans.flatMap(({ plan }) => plan.sheets.flatMap((sheet) => sheet.placements.map(({ part }) => part))),
    );
    const unplaced = new Set(derived.plans.flatMap(({ plan }) => plan.unplaced.map(({ part }) => part)));
    for (const part of derived.parts) expect(placed.has(part.id) || unplaced.has(part.id), part.id).toBe(true);
  });

  it('has areas that are those of what is laid, to a thousandth of the surface less the gaps at its edges', () => {
    for (const lining of derived.lined.linings) {
      const pieces = lining.pieces.reduce((sum, { outline }) => sum + outlineArea(outline), 0) / 1e6;
      const solid = lining.ground.solid.reduce((sum, outline) => sum + outlineArea(outline), 0) / 1e6;
      // boards have a gap of a millimetre between them
      expect(pieces).toBeLessThanOrEqual(solid + 1e-6);
      expect(pieces).toBeGreaterThan(0.97 * solid);
      const covered = derived.areas?.[lining.surface] ?? 0;
      expect(Math.abs(covered - solid) / covered).toBeLessThan(0.06);
    }
  });

  it('has its window slanted in the wall', () => {
    const left = derived.lined.linings.find(({ surface }) => surface === 'left');
    const hole = left?.ground.openings.find(({ id }) => id === 'window');
    const [low, high] = hole?.sides?.front ?? [0, 0];
    expect(high - low).toBeCloseTo(90, 3);
  });
});
