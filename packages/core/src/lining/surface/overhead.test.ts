import { bedWith } from '../../furniture/units.fixture.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import thimbleFile from '../../../../../demo/thimble.json?raw';
import wrenFile from '../../../../../demo/wren.json?raw';
import { readProjectFile } from '../../formats/read.js';
import { boxOf, outlineArea } from '../../numeric/plane.js';
import { clipTo } from '../../numeric/shapes.js';
import { derive } from '../../derive/again.fixture.js';
import { applyOperation } from '../../furniture/kit.js';
import type { Operation } from '../../document/operation.js';
import type { Header, Lined, Project, Reserved } from '../../document/schema.js';
import { PLAIN_VOICE, say } from '../../words/say.js';
import { curtainAcross } from '../boxes/curtain.js';
import type { Lining } from './lining.js';

const wren = readProjectFile(wrenFile);
const thimble = readProjectFile(thimbleFile);
const after = (project: Project, ...operations: Operation[]): Project =>
  operations.reduce((p, operation) => applyOperation(p, operation).project, project);
const on = (project: Project, surface: Lined): Lining => {
  const found = derive(project, thimble.priceBook).lined.linings.find((lining) => lining.surface === surface);
  if (!found) throw new Error(`${surface} is not lined`);
  return found;
};
const area = (lining: Lining): number => lining.pieces.reduce((sum, piece) => sum + outlineArea(piece.outline), 0);
const place = (more: Partial<Reserved> = {}): Operation => ({
  name: 'putReserved',
  payload: {
    reserved: {
      id: 'o1',
      name: 'Chart locker',
      side: 'right',
      x: 400,
      length: 1200,
      depth: 300,
      height: 350,
      ceiling: 'through',
      ...more,
    },
  },
});
const header = (more: Partial<Header> = {}): Operation => ({
  name: 'putHeader',
  payload: {
    header: {
      id: 'h1',
      name: 'Rail',
      side: 'right',
      x: 500,
      length: 1000,
      past: [{ down: 90, in: 60 }],
      clearance: 10,
      ...more,
    },
  },
});

describe('a place kept for a high cupboard', () => {
  it('hides what it covers of wall and ceiling, and nothing of the other side', () => {
    const kept = after(thimble.project, place());
    const right = on(kept, 'right').ground.hidden.find((zone) => zone.by === 'Chart locker');
    expect(right).toMatchObject({ u0: 400, u1: 1600 });
    expect(on(kept, 'left').ground.hidden.some((zone) => zone.by === 'Chart locker')).toBe(false);
    const before = on(thimble.project, 'right').fixings.filter((fixing) => fixing.hidden).length;
    expect(on(kept, 'right').fixings.filter((fixing) => fixing.hidden).length).toBeGreaterThan(before);
  });

  it('gets pieces to hang from, between the supports, on wall and ceiling', () => {
    const kept = after(thimble.project, place());
    for (const surface of ['right', 'ceiling'] as const) {
      const own = on(kept, surface).battens.filter((batten) => batten.why === 'Chart locker');
      expect(own.length).toBeGreaterThan(surface === 'ceiling' ? 1 : 3);
      for (const { u0, u1, upright } of own) {
        expect(upright).toBe(false);
        expect(u0).toBeGreaterThanOrEqual(400);
        expect(u1).toBeLessThanOrEqual(1600);
      }
      // none across a support, where a batten stands already
      for (const support of on(kept, surface).ground.supports)
        expect(own.some(({ u0, u1 }) => support.u > u0 + 1 && support.u < u1 - 1)).toBe(false);
    }
  });

  it('is left out of a ceiling that stops in front of it', () => {
    const through = on(after(thimble.project, place()), 'ceiling');
    const stops = on(after(thimble.project, place({ ceiling: 'stops' })), 'ceiling');
    // 1200 long, 300 deep less the gap at the edge
    const less = area(through) - area(stops);
    expect(less).toBeGreaterThan(1200 * 285);
    expect(less).toBeLessThan(1200 * 300);
    expect(through.notes.map((message) => say(message)).join()).toContain('has to be up first');
    expect(stops.notes.map((message) => say(message)).join()).toContain('stops in front');
  });
});

describe('a high cupboard before a window', () => {
  it('is said, with how far it hangs in front of it', () => {
    const notes = (height: number): string[] =>
      on(after(wren.project, place({ side: 'left', x: 700, height })), 'left').notes.map((note) =>
        say(note, { ...PLAIN_VOICE, units: () => 'Bunk' }),
      );
    const [low] = notes(400).filter((note) => note.startsWith('Chart locker'));
    const amount = Number(/hang (\d+) in front of Kitchen window/.exec(low ?? '')?.[1]);
    // 50 less high, 50 less in front of it
    const [less] = notes(350).filter((note) => note.startsWith('Chart locker'));
    expect(Number(/hang (\d+)/.exec(less ?? '')?.[1])).toBe(amount - 50);
    expect(notes(400 - amount - 2).filter((note) => note.startsWith('Chart locker'))).toEqual([]);
  });
});

describe('an allowance left on to scribe', () => {
  const scribe = (surface: Lined, mm: number): Operation => ({
    name: 'changeLining',
    payload: { surface, changes: { scribe: mm } },
  });

  it('makes the outer pieces larger by it, with the line they are to have', () => {
    const plain = on(thimble.project, 'left');
    const left = on(after(thimble.project, scribe('left', 8)), 'left');
    const box = (lining: Lining) => boxOf(lining.pieces.flatMap((piece) => piece.outline.outer));
    expect(box(left).minX).toBeCloseTo(box(plain).minX - 8, 6);
    expect(box(left).maxX).toBeCloseTo(box(plain).maxX + 8, 6);
    expect(box(left).minY).toBeCloseTo(box(plain).minY - 8, 3);
    const panels = left.parts.filter((part) => part.role === 'panel');
    for (const part of panels) {
      // every sheet reaches from the floor to the top, the first and last to an end as well
      expect(part.edges.length).toBe(part === panels[0] || part === panels.at(-1) ? 3 : 2);
      const blank = boxOf(part.outline.outer);
      for (const edge of part.edges) {
        expect(edge).toMatchObject({ kind: 'scribe', allowance: 8, largestRemoval: 8 });
        for (const [x, y] of edge.trueLine) {
          expect(x).toBeGreaterThan(-0.1);
          expect(y).toBeGreaterThan(-0.1);
          expect(x).toBeLessThan(blank.maxX + 0.1);
          expect(y).toBeLessThan(blank.maxY + 0.1);
        }
      }
      expect(new Set(part.edges.map((edge) => edge.at)).size).toBe(part.edges.length);
    }
    expect(plain.parts.every((part) => part.edges.length === 0)).toBe(true);
  });

  it('leaves inner boards alone', () => {
    const ceiling = derive(wren.project, wren.priceBook).lined.linings.find((lining) => lining.surface === 'ceiling');
    const boards = ceiling?.parts.filter((part) => part.role === 'board') ?? [];
    const scribed = boards.filter((part) => part.edges.length > 0);
    expect(scribed.length).toBeGreaterThan(4);
    expect(scribed.length).toBeLessThan(boards.length);
  });
});

describe('the order of fitting', () => {
  it('names every piece once, rows from below, and what hides wiring last', () => {
    const { lined } = derive(wren.project, wren.priceBook);
    for (const lining of lined.linings) {
      expect(lining.order.map((step) => step.part).sort()).toEqual(lining.pieces.map((piece) => piece.part).sort());
      const rows = lining.order
        .filter((step) => step.behind.length === 0)
        .map((step) => lining.pieces.find((piece) => piece.part === step.part)?.row ?? 0);
      expect(rows).toEqual([...rows].sort((a, b) => a - b));
    }
    const left = lined.linings.find((lining) => lining.surface === 'left');
    const last = left?.order.at(-1);
    expect(last?.behind).toEqual(['Reversing lamp cable']);
    expect(left?.pieces.filter((piece) => piece.removable).map((piece) => piece.part)).toEqual([last?.part]);
    expect(last?.first.map((message) => say(message))).toEqual(['thread Reversing cable through its slot']);
  });

  it('has every strip behind a joint glued on once, to the piece that goes up before its neighbour', () => {
    const bare: Project = { ...thimble.project, survey: { ...thimble.project.survey, ribs: [] } };
    const sheets = after(bare, {
      name: 'changeLining',
      payload: { surface: 'left', changes: { school: 'sheets', seams: [800, 1700] } },
    });
    const left = on(sheets, 'left');
    const glued = left.order.flatMap((step) => step.first.map((message) => [step.part, say(message)]));
    const strips = left.parts.filter((part) => part.role === 'backing').map((part) => part.id);
    expect(glued.map(([, said]) => said)).toEqual(strips.map((id) => `glue ${id} half behind its edge and let it set`));
    expect(strips.length).toBeGreaterThan(0);
  });
});

describe('wiring', () => {
  it('is a task before the face goes on, for what is sunk into it and not connected yet', () => {
    const tasks = derive(wren.project, wren.priceBook).schedule.tasks.map(({ task }) => task);
    const ceiling = tasks.find((task) => task.id === 'ceiling-wiring');
    expect(ceiling && say(ceiling.title)).toBe(
      'Pull and try the cables before it closes: Front lamp, Middle lamp, Bed lamp',
    );
    expect(tasks.find((task) => task.id === 'ceiling-c3')?.after).toEqual(['ceiling-backing', 'ceiling-wiring']);
    expect(ceiling?.after).toEqual(['ceiling-c2']);
    // the reversing cable is connected at both ends already
    const left = tasks.find((task) => task.id === 'left-wiring');
    expect(left && say(left.title)).toBe('Pull and try the cables before it closes: Worktop outlet');
    expect(tasks.some((task) => task.id === 'right-wiring')).toBe(false);
  });
});

describe('caulk', () => {
  it('is counted for joints and edges in sight: three sheets of a plain wall by hand', () => {
    const bare = after(
      { ...thimble.project, layout: { units: [] }, survey: { ...thimble.project.survey, openings: [] } },
      { name: 'changeLining', payload: { surface: 'right', changes: { gap: 2, edge: 5 } } },
    );
    const right = on(bare, 'right');
    const box = boxOf(right.ground.solid.flatMap((outline) => outline.outer));
    const [length, height] = [box.maxX - box.minX + 10, box.maxY - box.minY + 10];
    expect(right.caulk.joints).toBeCloseTo((right.seams.length * (height - 10)) / 1000, 1);
    // at the floor and at both ends; the edge to the ceiling is the ceiling's
    expect(right.caulk.edges).toBeCloseTo((length + 2 * height) / 1000, 1);
    const ceiling = on(bare, 'ceiling');
    const across = boxOf(ceiling.ground.solid.flatMap((outline) => outline.outer));
    expect(ceiling.caulk.edges).toBeCloseTo(
      (2 * (across.maxX - across.minX + 10) + 2 * (across.maxY - across.minY + 10)) / 1000,
      1,
    );
    // with no ceiling to meet it is the wall's own
    const open = on({ ...bare, buildUps: { ...bare.buildUps, ceiling: [] } }, 'right');
    expect(open.caulk.edges).toBeCloseTo((2 * (length + height)) / 1000, 1);
    // 2 mm wide and 3 deep at joints, 5 wide and 3 deep at edges
    expect(right.caulk.millilitres).toBeCloseTo(right.caulk.joints * 6 + right.caulk.edges * 15, 3);
  });

  it('is none where the lining comes off again, and is bought by the tube', () => {
    const off = after(thimble.project, {
      name: 'changeLining',
      payload: { surface: 'left', changes: { removable: true } },
    });
    expect(on(off, 'left').caulk.millilitres).toBe(0);
    expect(on(off, 'left').pieces.every((piece) => piece.removable)).toBe(true);
    const derived = derive(thimble.project, thimble.priceBook);
    const millilitres = derived.lined.linings.reduce((sum, lining) => sum + lining.caulk.millilitres, 0);
    const line = derived.shopping.lines.find((candidate) => candidate.material === 'caulk');
    expect(line?.quantity).toBe(Math.ceil(millilitres / 300));
  });
});

describe('a box between wall and ceiling', () => {
  it('over one corner is a level and an upright board, mitred at 45 degrees', () => {
    // Thimble’s walls are upright and its roof nearly flat, so the section is a rectangle
    const { lined, inner } = derive(after(thimble.project, header()), thimble.priceBook);
    const [box] = lined.headers;
    if (!box || !inner) throw new Error('no box');
    expect(box.problems).toEqual([]);
    expect(box.faces).toHaveLength(2);
    const [level, upright] = box.faces;
    expect(level?.high).toBeCloseTo(45, 0);
    expect(upright?.low).toBeCloseTo(45, 0);
    // 60 in and 10 clear, and the board’s thickness round the corner
    const t = box.parts[0]?.thickness ?? 0;
    expect(level?.front).toBeGreaterThan(70 + t - 3);
    expect(level?.front).toBeLessThan(70 + t + 6);
    expect(box.parts.map((part) => part.role)).toEqual(['header', 'header']);
  });

  it('runs straight from point to point where that is slimmer', () => {
    const past = [
      { down: 40, in: 160 },
      { down: 160, in: 40 },
    ];
    const { lined } = derive(after(thimble.project, header({ past })), thimble.priceBook);
    expect(lined.headers[0]?.faces).toHaveLength(3);
    const inside = [...past, { down: 60, in: 60 }];
    const more = derive(after(thimble.project, header({ past: inside })), thimble.priceBook).lined.headers[0];
    // a point behind the slope changes nothing
    expect(more?.faces).toEqual(lined.headers[0]?.faces);
  });

  it('clears every point, whatever is in the way', () => {
    const corner = fc.record({ down: fc.integer({ min: 20, max: 300 }), in: fc.integer({ min: 20, max: 300 }) });
    fc.assert(
      fc.property(
        fc.array(corner, { minLength: 1, maxLength: 6 }),
        fc.integer({ min: 0, max: 20 }),
        (past, clearance) => {
          const { lined } = derive(after(thimble.project, header({ past, clearance })), thimble.priceBook);
          const [box] = lined.headers;
          if (!box) throw new Error('no box');
          // each point lies on the metal’s side of every face: the cross product keeps its sign
          box.section.slice(1).forEach(([x1, z1], i) => {
            const [x0, z0] = box.section[i] ?? [0, 0];
            for (const [x, z] of box.cleared) expect((x1 - x0) * (z - z0) - (z1 - z0) * (x - x0)).toBeLessThan(1e-3);
          });
        },
      ),
      { numRuns: 40, seed: 7 },
    );
  });

  it('is said to hang before an opening, or to lie outside', () => {
    const low = derive(after(wren.project, header({ past: [{ down: 300, in: 100 }] })), wren.priceBook);
    expect(low.problems.map((problem) => say(problem.said)).join()).toMatch(
      /Rail hangs \d+ below the head of Sliding door/,
    );
    const outside = derive(after(thimble.project, header({ x: 9000 })), thimble.priceBook);
    expect(outside.problems.map((problem) => say(problem.said))).toContain(
      'Rail lies outside the room: no board can be cut for it.',
    );
  });
});

describe('a curtain across the body', () => {
  const { inner, arches, lined } = derive(thimble.project, thimble.priceBook);
  if (!inner) throw new Error('no room');
  const ceiling = lined.linings.find((lining) => lining.surface === 'ceiling') ?? null;

  it('is as wide as the room at its rail, and drops to floor, desk and cupboard', () => {
    // at 2300 the cupboard stands on the left, 1000 high from 260 out; the desk on the right, 740 high from 480 out
    const curtain = curtainAcross(inner, [], thimble.project.layout.units, ceiling, 2300, 1500);
    expect(curtain.drops.map((drop) => Math.round(drop.drop))).toEqual([490, 1490, 750]);
    expect(curtain.drops[1]?.from).toBeGreaterThan(-275);
    expect(curtain.drops[1]?.to).toBeLessThan(495);
    expect(curtain.width).toBeCloseTo((curtain.drops.at(-1)?.to ?? 0) - (curtain.drops[0]?.from ?? 0), 6);
    expect(curtain.cloth).toBeCloseTo(1.5 * curtain.width, 6);
    expect(curtain.high).toBe(false);
    expect(curtain.support?.off).toBeLessThan(320);
  });

  it('ends at what stands as high as its rail, and is a problem where that leaves it no room', () => {
    const bare = curtainAcross(inner, [], [], ceiling, 2300, 700);
    // 700 up the cupboard stands in its way on the left, from 260 out, and the desk of 740 on the right, from 480 out
    const between = curtainAcross(inner, [], thimble.project.layout.units, ceiling, 2300, 700);
    expect(between.width).toBeCloseTo(260 + 480, 0);
    expect(between.drops.map((drop) => Math.round(drop.drop))).toEqual([690]);
    expect(between.width).toBeLessThan(bare.width);
    expect([between.blocked, bare.blocked]).toEqual([false, false]);
    const all = thimble.project.layout.units.map((unit) =>
      unit.body.stands === 'left' ? { ...unit, body: { ...unit.body, front: -300, to: 1900 } } : unit,
    );
    expect(curtainAcross(inner, [], all, ceiling, 2300, 700)).toMatchObject({ blocked: true });
  });

  it('hangs over an arch, down a step, and not above the ceiling', () => {
    const found = derive(wren.project, wren.priceBook);
    const arch = found.arches.find((one) => one.kind === 'arch');
    if (!arch || !found.inner) throw new Error('no arch');
    const x = (arch.from + arch.to) / 2;
    const over = curtainAcross(found.inner, found.arches, [], null, x, 1200);
    expect(Math.min(...over.drops.map((drop) => drop.drop))).toBeCloseTo(
      1200 + found.inner.floor - arch.height - 10,
      6,
    );
    const step = { ...arch, kind: 'step' as const, height: 0, bottom: -200 };
    const down = curtainAcross(found.inner, [step], [], null, x, 1200);
    expect(Math.max(...down.drops.map((drop) => drop.drop))).toBeCloseTo(1200 + found.inner.floor + 200 - 10, 6);
    expect(curtainAcross(inner, arches, [], ceiling, 800, 2500)).toMatchObject({ high: true });
  });
});

describe('what lies between', () => {
  it('is lined once: no piece lies over a ceiling’s part that was left out', () => {
    const stops = on(after(thimble.project, place({ ceiling: 'stops' })), 'ceiling');
    const zone = stops.ground.hidden.find((candidate) => candidate.by === 'Chart locker');
    if (!zone) throw new Error('no place');
    const over = stops.pieces
      .flatMap((piece) =>
        clipTo(piece.outline, [
          [zone.u0, zone.v0],
          [zone.u1, zone.v0],
          [zone.u1, zone.v1],
          [zone.u0, zone.v1],
        ]),
      )
      .reduce((sum, piece) => sum + outlineArea(piece), 0);
    expect(over).toBeLessThan(1);
  });
});

describe('on the drawing of a panel', () => {
  it('stands every cut-out by its four edges and the diagonal that checks it', () => {
    const left = on(thimble.project, 'left');
    const window = left.ground.openings.find((opening) => opening.name === 'Side window');
    const marked = left.parts.filter((part) => part.marks?.cutOuts?.some((cut) => cut.name === 'Side window'));
    expect(marked.length).toBeGreaterThan(0);
    let width = 0;
    for (const part of marked) {
      const cut = part.marks?.cutOuts?.find((candidate) => candidate.name === 'Side window');
      if (!cut) throw new Error('no cut-out');
      const [a, b] = [cut.to[0] - cut.from[0], cut.to[1] - cut.from[1]];
      expect(cut.diagonal).toBeCloseTo(Math.hypot(a, b), 6);
      // these panels stand up: what is along the wall is across the part
      width += b;
      // nothing of the part lies in the middle of it
      const middle = [
        [cut.from[0] + 0.4 * a, cut.from[1] + 0.4 * b],
        [cut.from[0] + 0.6 * a, cut.from[1] + 0.4 * b],
        [cut.from[0] + 0.6 * a, cut.from[1] + 0.6 * b],
        [cut.from[0] + 0.4 * a, cut.from[1] + 0.6 * b],
      ] as const;
      expect(clipTo(part.outline, middle)).toEqual([]);
    }
    // two millimetres are left between panels where a seam runs through the window
    expect(width).toBeCloseTo((window?.length ?? 0) - 2 * (marked.length - 1), 0);
  });
});

describe('where somebody leans', () => {
  const bed: Operation = {
    name: 'placeUnit',
    payload: {
      unit: {
        ...bedWith({
          id: 'bunk',
          x: 100,
          length: 1200,
          height: 500,
          board: 'birch-9',
          support: 'birch-9',
          boardWidth: 600,
          span: 600,
          scribe: 10,
        }),
        name: 'Bunk',
      },
    },
  };
  it('a thin lining over a wide bay is said to give, by the formula of a board that runs on over its supports', () => {
    const project = after({ ...thimble.project, stored: [], layout: { units: [] } }, bed);
    const left = on(project, 'left');
    const said = left.notes
      .map((note) => say(note, { ...PLAIN_VOICE, units: () => 'Bunk' }))
      .find((note) => note.startsWith('Bunk'));
    const us = [0, ...left.ground.supports.map((support) => support.u), left.ground.unrolled.length];
    const bay = Math.max(...us.slice(1).map((u, i) => ((us[i] ?? 0) < 1300 && u > 100 ? u - (us[i] ?? 0) : 0)));
    // poplar stood up bends across its grain: 3800 N/mm2, 5 mm thick, a strip of 300
    const sag = (250 * bay ** 3) / (90 * 3800 * ((300 * 5 ** 3) / 12));
    expect(said).toContain(`gives ${Math.round(sag)} between supports ${Math.round(bay)} apart`);
    expect(
      on({ ...project, layout: { units: [] } }, 'left')
        .notes.map((note) => say(note, { ...PLAIN_VOICE, units: () => 'Bunk' }))
        .join(),
    ).not.toContain('leaned on');
  });
});
