import { liningOn as choiceOn } from '../../document/create.js';
import { describe, expect, it } from 'vitest';
import { squareCorners } from '../boxes/square-corners.fixture.js';
import { readProjectFile } from '../../formats/read.js';
import { keptNow } from '../../cutting/plan/cutting-room.js';
import { stepsOf } from '../../cutting/plan/steps.js';
import { planFaults } from '../../cutting/job/verify.js';
import { blankOf } from '../../parts/part.js';
import { boxOf, distanceToRing, outlineArea, rectangle, type Point } from '../../numeric/plane.js';
import { clipTo } from '../../numeric/shapes.js';
import { seededRandom } from '../../numeric/random.js';
import { derive } from '../../derive/again.fixture.js';
import { createDeriver } from '../../derive/derive.js';
import { applyOperation } from '../../furniture/kit.js';
import type { Operation } from '../../document/operation.js';
import type { Lined, Project, ProjectFile } from '../../document/schema.js';
import bulrushFile from '../../../../../demo/bulrush.json?raw';
import thimbleFile from '../../../../../demo/thimble.json?raw';
import wrenFile from '../../../../../demo/wren.json?raw';
import { compareLinings, eachLining } from '../../derive/lining-ways.js';
import { halfWidth, roofHeight } from '../../shell/shell.js';
import { jointLines } from './joint-lines.js';
import { schoolOf, type Lining } from './lining.js';
import { solidAlong } from './pieces.js';
import { foundSeams, seamFigures } from './seam-figures.js';
import { reachOf, toPlace, toV, unroll } from './unrolled.js';
import { say } from '../../words/say.js';

const wren = readProjectFile(wrenFile);
const thimble = readProjectFile(thimbleFile);
const bulrush = readProjectFile(bulrushFile);
const after = (project: Project, ...operations: Operation[]): Project =>
  operations.reduce((p, operation) => applyOperation(p, operation).project, project);
const liningOn = (file: ProjectFile, surface: Lined, project = file.project): Lining => {
  const found = derive(project, file.priceBook).lined.linings.find((lining) => lining.surface === surface);
  if (!found) throw new Error(`${surface} is not lined`);
  return found;
};
const area = (lining: Lining): number => lining.pieces.reduce((sum, piece) => sum + outlineArea(piece.outline), 0);
const solidArea = (lining: Lining): number =>
  lining.ground.solid.reduce((sum, outline) => sum + outlineArea(outline), 0);

describe('a surface laid flat', () => {
  const { shell } = derive(wren.project, wren.priceBook);
  if (!shell) throw new Error('no shell');
  const wall = unroll(shell, 'left');

  it('is as high as the wall is along its curve, and gives places back', () => {
    const [low, high] = reachOf(wall, 1500);
    expect(low).toBe(0);
    // longer than the 1700 to the wall's top, since the wall bellies out and leans in
    expect(high).toBeGreaterThan(1700);
    expect(high).toBeLessThan(1730);
    for (const z of [0, 350, 990, 1600]) expect(toPlace(wall, 1500, toV(wall, 1500, z))).toBeCloseTo(z, 6);
  });

  it('has the ceiling’s middle at nothing', () => {
    const ceiling = unroll(shell, 'ceiling');
    expect(toV(ceiling, 1200, 0)).toBeCloseTo(0, 6);
    const [left, right] = reachOf(ceiling, 1200);
    expect(left).toBeLessThan(-780);
    expect(right).toBeGreaterThan(780);
  });
});

describe('the demos', () => {
  it('are lined in three schools', () => {
    expect(liningOn(wren, 'left').school).toBe('boards');
    expect(liningOn(bulrush, 'left').school).toBe('strips');
    expect(liningOn(thimble, 'left').school).toBe('sheets');
  });

  it('have every piece of lining on a sound cut plan, counted and priced', () => {
    for (const file of [wren, bulrush, thimble]) {
      const derived = derive(file.project, file.priceBook);
      const own = derived.parts.filter((part) => part.surface !== undefined);
      expect(own.length).toBeGreaterThan(15);
      for (const plan of derived.plans) {
        expect(planFaults(plan.job, plan.plan)).toEqual([]);
        const placed = new Set(plan.sheets.flatMap((sheet) => sheet.placements.map((p) => p.part)));
        for (const part of own.filter((candidate) => candidate.material === plan.material.id))
          expect(placed).toContain(part.id);
      }
      for (const material of new Set(own.map((part) => part.material)))
        expect(derived.shopping.lines.some((line) => line.material === material && line.total > 0)).toBe(true);
      // a lining is weighed by its pieces alone, not by its layer again
      expect(derived.mass.of.filter((item) => item.id === 'left')).toHaveLength(1);
    }
  });

  it('get rows that meet round the room', () => {
    const [left, right] = [liningOn(wren, 'left'), liningOn(wren, 'right')];
    expect(left.setOut?.rows.slice(1, -1)).toEqual(right.setOut?.rows.slice(1, -1));
  });

  it('cut windows smaller and arches with a gap', () => {
    const lining = liningOn({ ...wren, project: squareCorners(wren.project) }, 'left');
    const window = lining.ground.openings.find((opening) => opening.id === 'o1');
    expect(window && boxOf(window.ring).maxX - boxOf(window.ring).minX).toBeCloseTo(800 - 2 * 10, 3);
    // nothing of the lining lies in the arch
    const arch = lining.ground.openings.find((opening) => opening.kind === 'arch');
    const over = lining.pieces.flatMap((piece) => clipTo(piece.outline, arch?.ring ?? []));
    expect(over.reduce((sum, piece) => sum + outlineArea(piece), 0)).toBeLessThan(1);
  });

  it('say what has not been delivered, and go on with the rest', () => {
    const ceiling = liningOn(wren, 'ceiling');
    expect(ceiling.notes.map((note) => say(note)).join(' ')).toContain('Skylight is not here yet');
    expect(ceiling.pieces.length).toBeGreaterThan(20);
  });
});

describe('the school', () => {
  it('follows from what the face is sold in', () => {
    const boards = wren.priceBook.items.find((item) => item.id === 'boards-9');
    const sheet = wren.priceBook.items.find((item) => item.id === 'poplar-5');
    const choice = choiceOn(wren.project.linings, 'left');
    expect(boards && schoolOf({ ...choice, school: 'sheets' }, boards)).toBe('boards');
    expect(sheet && schoolOf({ ...choice, school: 'boards' }, sheet)).toBe('sheets');
    expect(sheet && schoolOf({ ...choice, school: 'strips' }, sheet)).toBe('strips');
  });

  it('are told one by one, the same as all together, and are not worked out before they are asked for', () => {
    const told = eachLining(thimble.project, thimble.priceBook, 'left');
    const first = told.next().value;
    expect([first, ...told]).toEqual(compareLinings(thimble.project, thimble.priceBook, 'left'));
    const broken = { ...thimble.priceBook, items: [] };
    expect([...eachLining(thimble.project, broken, 'left')]).toEqual([]);
  });
  it('is held against the others for the whole build', () => {
    const cases = compareLinings(thimble.project, thimble.priceBook, 'left');
    expect(cases.filter((way) => way.now)).toMatchObject([{ material: 'poplar-5', school: 'sheets' }]);
    expect(new Set(cases.map((way) => way.school))).toEqual(new Set(['sheets', 'strips', 'boards']));
    const now = cases.find((way) => way.now);
    expect(now?.cost).toBe(derive(thimble.project, thimble.priceBook).shopping.total);
    // boards of pine 9 mm thick are heavier than poplar of 5
    expect(cases.find((way) => way.school === 'boards')?.mass).toBeGreaterThan(now?.mass ?? Infinity);
  });
});

describe('seams moved by hand', () => {
  it('stay where they are put, and cost what they cost', () => {
    const moved = after(thimble.project, {
      name: 'changeLining',
      payload: { surface: 'right', changes: { seams: [900, 1999] } },
    });
    const lining = liningOn(thimble, 'right', moved);
    expect(lining.seams.map((seam) => [seam.at, seam.reason])).toEqual([
      [900, 'moved'],
      [1999, 'moved'],
    ]);
    // the first lies between posts: about the wall's height is backed with a strip
    const figures = seamFigures(lining, choiceOn(moved.linings, 'right'), [900, 1999]);
    expect(figures?.backed).toBeGreaterThan(1.6);
    expect(lining.parts.some((part) => part.role === 'backing')).toBe(true);
    const found = foundSeams(lining, choiceOn(moved.linings, 'right'));
    expect(seamFigures(lining, choiceOn(moved.linings, 'right'), found)?.backed).toBe(0);
  });

  it('are judged: a panel wider than the sheet is not legal', () => {
    const lining = liningOn(thimble, 'right');
    expect(seamFigures(lining, choiceOn(thimble.project.linings, 'right'), [2500])?.legal).toBe(false);
  });
});

describe('fittings', () => {
  const lamp = (more: object): Operation => ({
    name: 'putFitting',
    payload: {
      fitting: {
        id: 'l1',
        name: 'lamp',
        kind: 'lamp',
        surface: 'left',
        x: 600,
        along: 1200,
        diameter: 60,
        wired: false,
        ...more,
      },
    },
  });

  it('are cut out of the piece they lie in and marked from two edges', () => {
    const lining = liningOn(thimble, 'left', after(thimble.project, lamp({})));
    const before = liningOn(thimble, 'left');
    expect(area(before) - area(lining)).toBeCloseTo(Math.PI * 30 * 30, -2);
    const holes = lining.parts.flatMap((part) => (part.marks?.holes ?? []).map((hole) => ({ part, hole })));
    expect(holes).toHaveLength(1);
    const [{ part, hole }] = holes as [(typeof holes)[number]];
    // the hole's middle on the part's own axes is where the outline has its hole
    expect(part.outline.holes.some((ring) => Math.abs(distanceToRing(hole.at, ring) - 30) < 0.5)).toBe(true);
    expect(hole).toMatchObject({ name: 'lamp', diameter: 60, slot: false });
  });

  it('get a slot to the edge when their cable is connected already, hidden where it can be', () => {
    const lining = liningOn(thimble, 'left', after(thimble.project, lamp({ x: 2600, along: 700, wired: true })));
    expect(lining.pieces.flatMap((piece) => piece.slots)).toEqual(['l1']);
    const holed = lining.parts.find((part) => part.marks?.holes.length);
    // a slot opens the hole to the outside
    expect(holed?.outline.holes).toHaveLength(0);
    expect(holed?.marks?.holes[0]?.slot).toBe(true);
  });

  it('keep screws away', () => {
    const lining = liningOn(thimble, 'left', after(thimble.project, lamp({ x: 1000, along: 900 })));
    const [u, v] = lining.ground.fittings[0]?.middle ?? [0, 0];
    for (const { at } of lining.fixings) expect(Math.hypot(at[0] - u, at[1] - v)).toBeGreaterThanOrEqual(70 - 1e-6);
  });
});

describe('a rib that moves after a panel was cut', () => {
  it('leaves the panel as it was cut, and says how it misses', () => {
    const before = derive(thimble.project, thimble.priceBook);
    const plan = before.plans.find((candidate) => candidate.material.id === 'poplar-5');
    const sheet = plan?.sheets.find((candidate) =>
      candidate.placements.some((p) => p.part === 'left.panel.from-start'),
    );
    if (!plan || !sheet) throw new Error('no sheet');
    const kept = keptNow(plan);
    const done = stepsOf(sheet).map((step) => step.name);
    const cut: Project = {
      ...thimble.project,
      keptPlans: [
        {
          ...kept,
          sheets: kept.sheets.map((candidate) => (candidate.id === sheet.id ? { ...candidate, done } : candidate)),
        },
      ],
    };
    expect(derive(cut, thimble.priceBook).problems.filter((p) => p.stage === 'cut')).toEqual([]);
    const moved = after(cut, {
      name: 'takeReading',
      payload: { address: 'rib/r2/x', reading: { value: 940, method: 'tape', at: '2026-10-02T08:00:00.000Z' } },
    });
    const derived = derive(moved, thimble.priceBook);
    const conflict = derived.problems.find((p) => p.stage === 'cut' && p.place === 'left.panel.from-start');
    expect(conflict && say(conflict.said)).toMatch(/left\.panel\.from-start/);
    const now = derived.plans.find((candidate) => candidate.material.id === 'poplar-5');
    expect(now?.sheets.find((candidate) => candidate.id === sheet.id)?.placements).toEqual(sheet.placements);
  });
});

/** A trailer whose stations, ribs, windows and cables are drawn by lot. */
function drawn(seed: number): Project {
  const random = seededRandom(seed);
  const between = (low: number, high: number): number => Math.round(low + (high - low) * random());
  const AT = '2026-10-01T08:00:00.000Z';
  const base = thimble.project;
  let project: Project = {
    ...base,
    layout: { units: [] },
    fittings: [],
    survey: { ...base.survey, ribs: [], openings: [], found: [], readings: { ...base.survey.readings } },
  };
  const put = (operation: Operation): void => {
    project = applyOperation(project, operation).project;
  };
  const take = (address: string, value: number): void =>
    put({ name: 'takeReading', payload: { address, reading: { value, method: 'tape', at: AT } } });
  let x = between(40, 300);
  for (let i = 1; x < 2950; i += 1) {
    put({ name: 'putRib', payload: { rib: { id: `r${i}`, name: `rib ${i}`, on: 'ring', flat: true } } });
    take(`rib/r${i}/x`, x);
    take(`rib/r${i}/width`, between(35, 60));
    x += between(300, 900);
  }
  const from = between(300, 2000);
  // every other window leans, its two sides by different amounts
  const slanted = seed % 2 === 0;
  put({
    name: 'putOpening',
    payload: {
      opening: {
        id: 'w',
        name: 'window',
        kind: 'window',
        surface: 'left',
        cornerRadius: between(0, 80),
        swing: 'fixed',
        hand: 'none',
        slanted,
        framed: false,
        ring: null,
      },
    },
  });
  const to = from + between(350, 800);
  for (const [what, value] of Object.entries({
    from,
    to,
    ...(slanted ? { 'from-head': from + ((seed * 37) % 121) - 40, 'to-head': to + ((seed * 53) % 121) - 80 } : {}),
    sill: between(600, 900),
    head: between(1100, 1450),
  }))
    take(`opening/w/${what}`, value);
  for (let i = 0; i < 3; i += 1)
    put({
      name: 'putFitting',
      payload: {
        fitting: {
          id: `f${i}`,
          name: `lamp ${i}`,
          kind: 'lamp',
          surface: i === 2 ? 'ceiling' : 'left',
          x: between(150, 2850),
          along: i === 2 ? between(-500, 500) : between(200, 1600),
          diameter: between(20, 80),
          wired: random() < 0.3,
        },
      },
    });
  for (const surface of ['left', 'right', 'ceiling'] as const)
    put({
      name: 'changeLining',
      payload: {
        surface,
        changes: {
          school: random() < 0.5 ? 'sheets' : 'strips',
          strip: between(120, 400),
          gap: 0,
          edge: 0,
          sliver: between(40, 120),
          undersize: 0,
        },
      },
    });
  return project;
}

describe('battens of every demo', () => {
  it('lie on the surface they carry, none beyond its edges', () => {
    for (const file of [wren, bulrush, thimble])
      for (const lining of derive(file.project, file.priceBook).lined.linings)
        for (const { u0, u1, v0, v1 } of lining.battens)
          for (const u of [u0, u1]) {
            const [low, high] = reachOf(lining.ground.unrolled, u);
            expect(v0).toBeGreaterThan(low - 6);
            expect(v1).toBeLessThan(high + 6);
          }
  });
});

describe('joints of neighbouring rows', () => {
  it('are 300 apart, or it is said how many are not', () => {
    for (const file of [wren, bulrush, thimble])
      for (const lining of derive(file.project, file.priceBook).lined.linings) {
        if (lining.setOut === null) continue;
        const joints = new Map<number, number[]>();
        for (const { row, outline } of lining.pieces) {
          const { maxX } = boxOf(outline.outer);
          // a piece that another goes on behind ends at a joint
          const on = lining.pieces.some(
            (other) => other.row === row && Math.abs(boxOf(other.outline.outer).minX - maxX) < 5,
          );
          if (on) joints.set(row, [...(joints.get(row) ?? []), maxX]);
        }
        const close = [...joints].flatMap(([row, own]) =>
          own.filter((at) => (joints.get(row - 1) ?? []).some((other) => Math.abs(other - at) < 295)),
        );
        const said = lining.notes.filter((note) => note.key === 'lining.close').map((note) => note.params['count']);
        expect(said).toEqual(close.length > 0 ? [close.length] : []);
      }
  });
});

describe('a face too thin to bear a hand', () => {
  it('is said to be no lining, and is not held up every few millimetres', () => {
    const { buildUps } = thimble.project;
    const thin: Project = {
      ...thimble.project,
      buildUps: {
        ...buildUps,
        right: (buildUps['right'] ?? []).map((layer) =>
          layer.place === 'continuous' ? { ...layer, thickness: 0.01, measured: null } : layer,
        ),
      },
    };
    const { lined, problems } = derive(thin, thimble.priceBook);
    const right = lined.linings.find((lining) => lining.surface === 'right');
    expect(right?.ground.supports.length).toBeLessThan(40);
    expect(problems.map((problem) => problem.said.key)).toContain('lining.film');
    expect(right && lined.linings.length).toBeGreaterThan(0);
  });
});

describe('joints under strips', () => {
  it('get a strip each, cut longer than the joint, and no caulk', () => {
    const right = (covered: boolean) =>
      derive(
        after(thimble.project, { name: 'changeLining', payload: { surface: 'right', changes: { covered } } }),
        thimble.priceBook,
      ).lined.linings.find((lining) => lining.surface === 'right');
    const [plain, covered] = [right(false), right(true)];
    const strips = covered?.parts.filter((part) => part.role === 'cover-strip') ?? [];
    expect(plain?.parts.some((part) => part.role === 'cover-strip')).toBe(false);
    expect(strips.length).toBeGreaterThanOrEqual(covered?.seams.length ?? 0);
    const seam = covered?.seams[0];
    if (!seam || !covered) throw new Error('the wall has a seam');
    const joint = solidAlong(covered.ground.solid, seam.at).reduce((sum, [a, b]) => sum + b - a, 0);
    const own = strips.filter((part) => part.number === 1).reduce((sum, part) => sum + blankOf(part).length, 0);
    const runs = solidAlong(covered.ground.solid, seam.at).length;
    expect(own).toBeCloseTo(joint + 20 * runs, 3);
    expect(covered.caulk.joints).toBeLessThan(plain?.caulk.joints ?? 0);
  });
});

describe('lines from the floor', () => {
  it('are at the height given on both walls, and on the panel less what it is trimmed at the foot', () => {
    const both = (['left', 'right'] as const).reduce(
      (project, surface) =>
        after(project, {
          name: 'changeLining',
          payload: {
            surface,
            changes: { datum: 450, groove: { spacing: 150, depth: 1.5, width: 3, direction: 'level' } },
          },
        }),
      thimble.project,
    );
    const { linings } = derive(both, thimble.priceBook).lined;
    for (const surface of ['left', 'right'] as const) {
      const lining = linings.find((candidate) => candidate.surface === surface);
      expect(lining?.grooves?.at).toContain(450);
      lining?.grooves?.at.forEach((at) => expect((at - 450) % 150).toBeCloseTo(0, 6));
      const piece = lining?.pieces[0];
      const part = lining?.parts.find((candidate) => candidate.id === piece?.part);
      if (!piece || !part) throw new Error('the wall has a panel');
      // sheets stand up: x runs up the wall from the panel's own foot, which lies off the floor
      const foot = boxOf(piece.outline.outer).minY;
      const xs = part.marks?.grooves?.map(({ from }) => from[0]) ?? [];
      expect(Math.min(...xs.map((x) => Math.abs(x - (450 - foot))))).toBeLessThan(0.5);
    }
  });
});

const SHELLS = 200;

describe('shells drawn by lot', () => {
  it('are covered once, with no seam unbacked, no fixing in a keep-out and no sliver where a legal set-out exists', () => {
    const { shape } = createDeriver();
    let seams = 0;
    for (let seed = 1; seed <= 50; seed += 1) {
      const project = drawn(seed);
      const { lined } = shape(project, thimble.priceBook);
      expect(lined.linings).toHaveLength(3);
      for (const lining of lined.linings) {
        const { ground } = lining;
        const holes = ground.fittings.reduce(
          (sum, fitting) =>
            sum + ground.solid.flatMap((s) => clipTo(s, fitting.ring)).reduce((a, o) => a + outlineArea(o), 0),
          0,
        );
        // slots of wired fittings are gone from the pieces as well: they are narrow and at most as long as the surface
        const slots = ground.fittings.filter((fitting) => fitting.wired).length * 12 * 3000;
        const missing = solidArea(lining) - holes - area(lining);
        expect(missing).toBeGreaterThan(-0.001 * solidArea(lining));
        expect(missing).toBeLessThan(0.001 * solidArea(lining) + slots);
        // inside, and no two over each other
        lining.pieces.forEach((piece, i) => {
          const inside = ground.solid
            .flatMap((s) => clipTo(piece.outline, s.outer))
            .reduce((a, o) => a + outlineArea(o), 0);
          expect(inside).toBeCloseTo(outlineArea(piece.outline), 0);
          for (const other of lining.pieces.slice(0, i)) {
            const shared = clipTo(piece.outline, other.outline.outer).reduce((a, o) => a + outlineArea(o), 0);
            expect(shared).toBeLessThan(1);
          }
        });
        for (const seam of lining.seams) {
          seams += 1;
          const backed = lining.unbacked.some((joint) => Math.abs(joint.u - seam.at) < 0.01);
          expect(seam.support !== null || backed).toBe(true);
        }
        if (lining.unbacked.length > 0) expect(lining.parts.some((part) => part.role === 'backing')).toBe(true);
        for (const { at } of lining.fixings)
          for (const zone of ground.noScrews)
            expect(Math.hypot(at[0] - zone.at[0], at[1] - zone.at[1])).toBeGreaterThanOrEqual(zone.radius - 1e-6);
        if (lining.setOut?.legal) expect(Math.min(lining.setOut.first, lining.setOut.last)).toBeGreaterThan(38);
      }
    }
    expect(seams).toBeGreaterThan(50);
  });

  it('hang on nothing nowhere, or it is said; no fixing is nearer to an edge than it may be', () => {
    const { shape } = createDeriver();
    let [points, far, named, fixings] = [0, 0, 0, 0];
    for (let seed = 1; seed <= SHELLS; seed += 1) {
      const random = seededRandom(seed);
      const { lined } = shape(drawn(seed), thimble.priceBook);
      for (const lining of lined.linings) {
        const { ground, lines } = lining;
        const said = lining.problems.some(({ key }) => key === 'lining.unheld');
        expect(said).toBe(lining.unheld.length > 0);
        if (said) named += 1;
        for (const piece of lining.pieces) {
          const box = boxOf(piece.outline.outer);
          const rings = [piece.outline.outer, ...piece.outline.holes];
          // anywhere on it: how far it is to the nearest line it lies on
          for (let i = 0; i < 4; i += 1) {
            const at: Point = [
              box.minX + random() * (box.maxX - box.minX),
              box.minY + random() * (box.maxY - box.minY),
            ];
            if (clipTo(piece.outline, rectangle(at[0] - 0.1, at[1] - 0.1, at[0] + 0.1, at[1] + 0.1)).length === 0)
              continue;
            points += 1;
            const off = Math.min(
              ...lines.map((line) => {
                const [across, along] = line.upright ? at : [at[1], at[0]];
                return along < line.from - 60 || along > line.to + 60 ? Infinity : Math.abs(across - line.at);
              }),
            );
            if (off > ground.widest / 2 + 30 && off > 115) {
              far += 1;
              expect(said, `${seed} ${lining.surface} ${piece.part} at ${at.join(', ')}: ${off}`).toBe(true);
            }
          }
          for (const { at, by } of lining.fixings.filter(
            ({ at: [u, v] }) => u > box.minX && u < box.maxX && v > box.minY && v < box.maxY,
          )) {
            if (clipTo(piece.outline, rectangle(at[0] - 0.1, at[1] - 0.1, at[0] + 0.1, at[1] + 0.1)).length === 0)
              continue;
            fixings += 1;
            const drilled = lining.held.find((one) => one.by === by)?.fixing.pick?.drilled ?? 0;
            for (const ring of rings) expect(distanceToRing(at, ring)).toBeGreaterThanOrEqual(drilled - 1e-6);
          }
        }
      }
    }
    expect(points).toBeGreaterThan(1000);
    expect(fixings).toBeGreaterThan(5000);
    // what is said is the exception
    expect(named).toBeLessThan(0.05 * 3 * SHELLS);
    expect(far).toBeLessThan(0.01 * points);
  });

  it('have parts of the pieces’ own size, marked within their outline', () => {
    const { shape } = createDeriver();
    for (let seed = 51; seed <= 60; seed += 1) {
      const { lined } = shape(drawn(seed), thimble.priceBook);
      for (const lining of lined.linings)
        for (const piece of lining.pieces) {
          const part = lining.parts.find((candidate) => candidate.id === piece.part);
          if (!part) throw new Error(piece.part);
          expect(outlineArea(part.outline)).toBeCloseTo(outlineArea(piece.outline), 0);
          const { length, width } = blankOf(part);
          const inBlank = ([x, y]: Point): boolean => x > -0.1 && y > -0.1 && x < length + 0.1 && y < width + 0.1;
          expect(part.marks?.screws.every(inBlank)).toBe(true);
          expect(part.marks?.lines.every(({ from, to }) => inBlank(from) && inBlank(to))).toBe(true);
        }
    }
  });
});

describe('joints of a lining in the room', () => {
  it.each([
    ['wren', wren],
    ['thimble', thimble],
    ['bulrush', bulrush],
  ] as const)('of %s lie two millimetres before the face they are on', (_name, { project, priceBook }) => {
    const { inner, lined } = derive(project, priceBook);
    if (!inner) throw new Error('there is a room');
    for (const lining of lined.linings) {
      const lines = jointLines(lining, inner);
      expect(lines.length, lining.surface).toBeGreaterThan(0);
      for (const [x, y, z] of lines.flat()) {
        const before =
          lining.surface === 'ceiling'
            ? roofHeight(inner, x, y) - z
            : lining.surface === 'front'
              ? x - inner.start
              : lining.surface === 'rear'
                ? inner.length - x
                : halfWidth(inner, lining.surface, x, z) - Math.abs(y);
        expect(before).toBeCloseTo(2, 6);
        if (lining.surface === 'left') expect(y).toBeLessThan(0);
        if (lining.surface === 'right') expect(y).toBeGreaterThan(0);
      }
    }
  });
  it('of boards are their low edges, one above the other by a board', () => {
    const { inner, lined } = derive(wren.project, wren.priceBook);
    const wall = lined.linings.find(({ surface, school }) => surface === 'left' && school === 'boards');
    if (!inner || !wall) throw new Error('Wren has boards on its left wall');
    // at a place without an opening: the heights at which boards meet, by the pieces themselves
    const u = 300;
    const lows = wall.pieces
      .filter(({ outline }) => {
        const box = boxOf(outline.outer);
        return box.minX < u && box.maxX > u;
      })
      .map(({ outline }) => toPlace(wall.ground.unrolled, u, boxOf(outline.outer).minY));
    const drawn = jointLines(wall, inner).filter((line) => {
      const xs = line.map(([x]) => x);
      return Math.min(...xs) < u && Math.max(...xs) > u;
    });
    expect(lows.length).toBeGreaterThan(5);
    for (const low of lows) expect(Math.min(...drawn.flat().map(([, , z]) => Math.abs(z - low)))).toBeLessThan(25);
  });
});
