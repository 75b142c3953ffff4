import type { BuildUps } from '../document/schema.js';
import { layersOn } from '../document/surfaces.js';
import wrenText from '../../../../demo/wren.json?raw';
import { describe, expect, it } from 'vitest';
import { createDeriver } from '../derive/derive.js';
import { applyOperation } from '../furniture/kit.js';
import type { Operation } from '../document/operation.js';
import type { Layer } from '../document/schema.js';
import { readProjectFile } from '../formats/read.js';
import { fixingRule } from '../rules/fixings.js';
import { startPriceBook } from '../materials/start-book.js';
import { floorBattens } from '../lining/floor/floor-battens.js';
import { coveredAreas } from './areas.js';
import { buildUpDepth, buildUpDepths, coverOf, plainLayer } from './buildup.js';
import { buildUpFigures } from './compare.js';
import { FLOOR_SCHOOLS, floorSchool, LINING_SCHOOLS, WALL_SCHOOLS, wallSchool, wholeSchool } from './schools.js';
import type { ArchShape } from '../shell/arch.js';
import { ribShares } from '../shell/ribs.js';
import { halfWidth } from '../shell/shell.js';
import { dampOf, heatLoss, thermalTransmittance } from './warmth.js';
import { dewPoint, saturation } from '../rules/damp.js';

const book = startPriceBook();
const wren = readProjectFile(wrenText);
const derived = createDeriver().derive(wren.project, wren.priceBook);
const derive = (...operations: Operation[]) =>
  createDeriver().derive(
    operations.reduce((project, operation) => applyOperation(project, operation).project, wren.project),
    wren.priceBook,
  );
const wall = (layers: Layer[], ribs = 50) => buildUpDepth('left', layers, ribs, book);

describe('what layers take', () => {
  it('battens in the ribs fill their depth first, beside what else lies there', () => {
    const depth = wall([
      plainLayer('a', 'foam-30', 30, 'in-ribs'),
      plainLayer('b', 'batten-38', 38, 'rib-battens'),
      plainLayer('c', 'boards-9', 9, 'continuous'),
    ]);
    expect(depth.layers.map((layer) => layer.takes)).toEqual([0, 0, 9]);
    expect(wall([plainLayer('b', 'batten-38', 60, 'rib-battens')]).total).toBe(10);
  });
  it('go by what the bought material measures', () => {
    const bought = { ...plainLayer('a', 'batten-38', 50, 'battens' as const), measured: 38 };
    expect(wall([bought]).total).toBe(38);
    expect(wall([{ ...bought, measured: null }]).total).toBe(50);
  });
  it('cover by their width, the rest between, or in patches', () => {
    const [battens, between, patches] = wall([
      plainLayer('a', 'batten-38', 38, 'battens'),
      plainLayer('b', 'foam-30', 30, 'between-battens'),
      { ...plainLayer('c', 'deadener-2', 2, 'patches'), share: 0.4 },
    ]).layers;
    expect([battens, between, patches].map((layer) => layer && coverOf(layer, 380))).toEqual([
      0.1,
      expect.closeTo(1 - 45 / 380, 9),
      0.4,
    ]);
  });
});

describe('warmth', () => {
  it('counts the ribs as a path of their own', () => {
    // between: 0.17 + 0.05/0.038 + 0.009/0.13 = 1.55503; ribs: 0.17 + 0.05/50 + 0.06923 = 0.24023; a tenth is ribs
    const depth = wall([plainLayer('a', 'wool-50', 50, 'in-ribs'), plainLayer('b', 'boards-9', 9, 'continuous')]);
    expect(thermalTransmittance(depth, 0.1)).toBeCloseTo(0.9 / 1.55503 + 0.1 / 0.24023, 4);
  });
  it('takes the share of ribs from their width and distance', () => {
    // six ribs 55 wide from 60 to 3160: 55 / 620
    for (const share of Object.values(ribShares(derived.ribs, derived.shell))) expect(share).toBeCloseTo(55 / 620, 6);
  });
  it('is not said when a conductivity is missing', () => {
    const unknown = { ...book, items: book.items.map((item) => ({ ...item, conductivity: 0 })) };
    const depth = buildUpDepth('left', [plainLayer('a', 'wool-50', 50, 'in-ribs')], 50, unknown);
    expect(thermalTransmittance(depth)).toBeNull();
    expect(dampOf(depth, { inside: 20, outside: 0, humidity: 50 })).toBeNull();
  });
  it('knows the tables of the air: 611 Pa at 0, 2339 Pa at 20, dew at 9.3 for half full air of 20', () => {
    expect(saturation(0)).toBeCloseTo(611, 0);
    expect(saturation(20) / 2339).toBeCloseTo(1, 2);
    expect(dewPoint(20, 50)).toBeCloseTo(9.27, 1);
    expect(dewPoint(20, 100)).toBeCloseTo(20, 6);
  });
  it('drops through the layers by their share of the resistance', () => {
    const climate = { inside: 20, outside: -5, humidity: 50 };
    const damp = dampOf(
      wall([plainLayer('a', 'wool-50', 50, 'in-ribs'), plainLayer('b', 'boards-9', 9, 'continuous')]),
      climate,
    );
    // whole 1.55503; room's face after 0.13, behind the boards after 0.19923, at the skin all but 0.04
    expect(damp?.faces.map((face) => face.celsius)).toEqual([
      expect.closeTo(20 - (25 * 0.13) / 1.55503, 3),
      expect.closeTo(20 - (25 * 0.19923) / 1.55503, 3),
      expect.closeTo(-5 + (25 * 0.04) / 1.55503, 3),
    ]);
    expect(damp?.faces.map((face) => face.wet)).toEqual([false, false, true]);
    expect(damp?.faces.map((face) => face.at)).toEqual([0, 9, 59]);
    // (0.5 * 2339 - 421) / (90 * ... boards 50 * 0.009 + wool 1.5 * 0.05 = 0.525 m) * 2e-10 * 36000 s = 10 g
    const p = 0.5 * saturation(20) - saturation(damp?.skin ?? 0);
    expect(damp?.gramsANight).toBeCloseTo(((2e-10 * p) / 0.525) * 36_000 * 1000, 6);
  });
  it('a barrier keeps nearly all of it from the metal, and warm metal stays dry', () => {
    const climate = { inside: 20, outside: -5, humidity: 60 };
    const sealed = dampOf(wall(wallSchool('left', 'barrier', 'battens', book)), climate);
    const open = dampOf(wall(wallSchool('left', 'open', 'battens', book)), climate);
    expect(sealed?.gramsANight ?? 9).toBeLessThan(0.2);
    expect(open?.gramsANight ?? 0).toBeGreaterThan(20 * (sealed?.gramsANight ?? 0));
    expect(sealed?.withoutBarrier ?? 0).toBeGreaterThan(sealed?.gramsANight ?? 0);
    expect(
      dampOf(wall(wallSchool('left', 'open', 'ribs', book)), { inside: 20, outside: 19, humidity: 40 })?.gramsANight,
    ).toBe(0);
  });
  it('adds up over the surfaces, glass and bare doors included', () => {
    const depths = buildUpDepths({}, {}, book);
    const areas = { floor: 6, left: 6, right: 5, ceiling: 6, front: 3, rear: 3, doors: 3, windows: 1, glass: 1 };
    const loss = heatLoss(depths, areas, { inside: 20, outside: 0, humidity: 50 }, {}, 400, 'van');
    // 20 * (6/0.21 + 11/0.17 + 6/0.14 + 3/0.17 + 2.8)
    expect(loss.watts).toBeCloseTo(20 * (6 / 0.21 + 11 / 0.17 + 6 / 0.14 + 3 / 0.17 + 2.8), 6);
    // what its ends lose is not known while nobody has said anything of them: the cab is there
    expect(loss.unknown).toEqual(['front', 'rear']);
  });
  it('counts the bare ends of a trailer and a bus, so that no layer on any surface makes it lose more', () => {
    const areas = { floor: 6, left: 6, right: 5, ceiling: 6, front: 3, rear: 3, doors: 3, windows: 1, glass: 1 };
    const climate = { inside: 20, outside: 0, humidity: 50 };
    for (const vehicle of ['trailer', 'bus'] as const) {
      const lost = (buildUps: BuildUps): number =>
        heatLoss(buildUpDepths(buildUps, {}, book), areas, climate, {}, 400, vehicle).watts;
      expect(lost({})).toBeCloseTo(20 * (6 / 0.21 + 17 / 0.17 + 6 / 0.14 + 3 / 0.17 + 2.8), 6);
      for (const surface of ['floor', 'left', 'right', 'ceiling', 'front', 'rear', 'doors'])
        expect(lost({ [surface]: [plainLayer('f', 'foam-30', 30, 'continuous')] }), surface).toBeLessThan(lost({}));
    }
  });
});

const BOX_ARCH: ArchShape = {
  id: 'a',
  name: 'Arch',
  side: 'right',
  kind: 'arch',
  shape: 'box',
  from: 0,
  to: 0,
  height: 0,
  face: 0,
  bottom: 0,
  far: null,
  topFace: 0,
};

describe('areas', () => {
  it('leave out what is open', () => {
    const { room } = derived;
    if (!room) throw new Error('the demo has a room');
    if (!derived.inner) throw new Error('the demo has an inside');
    const areas = coveredAreas(room, derived.inner, [], wren.project.survey);
    // a corner of radius r in six chords leaves r2 (1 - 6 x sin 15° / 2) outside it
    const corners = (radius: number): number => 4 * radius ** 2 * (1 - 3 * Math.sin(Math.PI / 12));
    // the right wall has a window 0.82 x 0.455 with corners of 0.06, and the sliding door 1.13 x 1.69
    expect(areas.right).toBeCloseTo(room.areas.right - (0.82 * 0.455 - corners(0.06)) - 1.13 * 1.69, 9);
    expect(areas.doors).toBeCloseTo(1.13 * 1.69 + 1.56 * 1.72, 9);
    // an arch 840 long whose face stands 600 from the middle, 300 over the bare floor, takes its side of the wall and its floor
    const arch = { ...BOX_ARCH, from: 1200, to: 2040, face: 600, topFace: 600, height: 300 };
    const beside = coveredAreas(room, derived.inner, [arch], wren.project.survey);
    const { floor } = derived.inner;
    expect(areas.right - beside.right).toBeCloseTo((0.84 * (300 - floor)) / 1000, 6);
    const reach = halfWidth(derived.inner, 'right', 1620, floor);
    expect(areas.floor - beside.floor).toBeCloseTo((0.84 * (reach - 600)) / 1000, 6);
    expect(areas.glass).toBeCloseTo(0.8 * 0.455 + 0.82 * 0.455 + 0.4 * 0.4 - 2 * corners(0.06) - corners(0.02), 9);
  });
});

describe('schools', () => {
  it('every one gives layers the price book has, and leaves a room', () => {
    for (const school of FLOOR_SCHOOLS) {
      const layers = floorSchool(school, book);
      expect(layers.filter((layer) => layer.board)).toHaveLength(1);
      expect(derive({ name: 'replaceLayers', payload: { surface: 'floor', layers } }).room).not.toBeNull();
    }
    for (const moisture of WALL_SCHOOLS)
      for (const lining of LINING_SCHOOLS)
        expect(wallSchool('left', moisture, lining, book).at(-1)?.place).toBe('continuous');
  });
  it('a floor framed takes more height than one glued, and that more than one floating', () => {
    const heights = FLOOR_SCHOOLS.map(
      (school) =>
        derive({ name: 'replaceLayers', payload: { surface: 'floor', layers: floorSchool(school, book) } }).room
          ?.standing.value ?? 0,
    );
    expect(heights[0]).toBeCloseTo(heights[1] ?? 0, 6);
    expect(heights[2]).toBeGreaterThan(heights[1] ?? 0);
  });
});

describe('what follows from the depths', () => {
  it('reveals are the frame behind the ribs and what the layers take, boards tapered', () => {
    const reveal = derived.reveals.find((candidate) => candidate.opening.id === 'o1');
    // 9 of lining on frames 21, 24 high and 36, 39 low
    expect(reveal?.corners).toEqual({
      'frame-front-low': 45,
      'frame-rear-low': 48,
      'frame-front-high': 30,
      'frame-rear-high': 33,
    });
    const front = reveal?.boards.find((board) => board.side === 'front');
    expect(front).toMatchObject({ length: 455, from: 45, to: 30 });
    expect(front?.taper).toBeCloseTo((Math.atan(-15 / 455) * 180) / Math.PI, 6);
    expect(reveal?.packers).toBeNull();
  });
  it('a ring made for thinner layers lacks what they gained', () => {
    const opening = wren.project.survey.openings.find((candidate) => candidate.id === 'o1');
    if (!opening) throw new Error('the demo has a kitchen window');
    const after = derive(
      { name: 'putOpening', payload: { opening: { ...opening, ring: 48 } } },
      { name: 'putLayer', payload: { surface: 'left', layer: plainLayer('b', 'batten-18', 18, 'battens') } },
    );
    expect(after.reveals.find((reveal) => reveal.opening.id === 'o1')?.packers).toEqual([
      { side: 'sill', from: 15, to: 18 },
      { side: 'head', from: 0, to: 3 },
      { side: 'front', from: 15, to: 0 },
      { side: 'rear', from: 18, to: 3 },
    ]);
  });
  it('screws: bite, point and what the shop has', () => {
    // 9 through into a 38 batten, 4 thick: bite 24, so 33 at least and 9 + 33 = 42 at most
    const wood = fixingRule.run({ passed: 9, gap: 0, into: 'wood', depth: 38, diameter: 4, stocked: [20, 30, 40, 50] });
    expect(wood).toEqual({ least: 33, most: 42, pick: 40 });
    // thin batten: two thirds of 18
    expect(fixingRule.run({ passed: 9, gap: 0, into: 'wood', depth: 18, diameter: 4, stocked: [20, 30] })).toEqual({
      least: 21,
      most: 22,
      pick: null,
    });
    // into sheet steel: 6 beyond
    expect(
      fixingRule.run({ passed: 9, gap: 1, into: 'steel', depth: 50, diameter: 4.8, stocked: [13, 19] }),
    ).toMatchObject({
      least: 16,
      pick: 19,
    });
  });
  it('of the demo: the floor board into its battens, the linings into the ribs', () => {
    expect(derived.fixings.map((fixing) => [fixing.surface, fixing.into, fixing.pick?.length])).toEqual([
      ['floor', 'wood', 35],
      ['left', 'steel', 19],
      ['right', 'steel', 19],
      ['ceiling', 'steel', 19],
    ]);
  });
  it('floor battens keep off holes and arches, and lie under fronts and steps', () => {
    const { floorBattens: laid, inner, arches } = derived;
    if (!laid || !inner) throw new Error('the demo has floor battens');
    expect(laid.battens.some((batten) => batten.why === 'front')).toBe(true);
    // the drain at (1480, -620) with 20 + 40 kept free
    for (const batten of laid.battens.filter((b) => Math.abs(b.y + 620) < 60 + 22.5))
      expect(batten.x1 <= 1420 || batten.x0 >= 1540).toBe(true);
    for (const batten of laid.battens.filter((b) => Math.abs(b.y) > 700))
      expect(batten.x1 <= 2585 || batten.x0 >= 3325).toBe(true);
    const step = {
      ...(arches[0] ?? {}),
      kind: 'step',
      side: 'right',
      from: 300,
      to: 1200,
      face: 600,
      topFace: 600,
      bottom: -200,
      height: 0,
      far: null,
    } as (typeof arches)[number];
    const stepped = floorBattens({ ...wren.project, units: wren.project.layout.units }, inner, [step], 45, 30);
    expect(stepped.battens.find((batten) => batten.why === 'step')).toMatchObject({ x0: 300, x1: 1200, y: 577.5 });
    expect(stepped.battens.filter((b) => b.why === 'row' && b.y > 600).every((b) => b.x0 >= 1200 || b.x1 <= 300)).toBe(
      true,
    );
  });
  it('what is left is named for each person, with the figure that decides', () => {
    const { left } = derived;
    expect(left?.people).toHaveLength(6);
    const stands = left?.people.find((figure) => figure.person.id === 'joost' && figure.what === 'standing');
    expect(stands?.spare).toBeCloseTo((derived.room?.standing.value ?? 0) - 1792, 6);
    // Joost lies across with less than good: the least of all
    expect(left?.matters).toMatchObject({ what: 'lying', person: { id: 'joost' } });
    // and it is the figure that the check of the bed gives
    expect(left?.matters?.spare).toBeCloseTo(
      derived.checks.find((check) => check.id === 'bed-length:bed:joost')?.spare ?? 0,
      9,
    );
    expect(left?.lost.reduce((sum, layer) => sum + layer.height, 0)).toBe(47 + 9);
  });
});

describe('sets of layers compared', () => {
  it('each is worked out as if it were the one', () => {
    const { shell, bareRoom, ribs } = derived;
    if (!shell || !bareRoom) throw new Error('the demo has a shell');
    const of = (id: string | null) =>
      buildUpFigures(
        wren.project,
        wren.project.buildUpVariants.find((variant) => variant.id === id)?.buildUps ?? wren.project.buildUps,
        shell,
        bareRoom,
        ribs,
        wren.priceBook,
      );
    const [now, sealed] = [of(null), of('b1')];
    expect(now.standing).toBeCloseTo(derived.room?.standing.value ?? 0, 9);
    expect(now.watts).toBeCloseTo(derived.warmth?.watts ?? 0, 9);
    // the other set has battens and the mat under them: 20 more on each wall and above
    expect((now.widthAtFloor ?? 0) - (sealed.widthAtFloor ?? 0)).toBeGreaterThan(35);
    expect(sealed.deadened).toBeGreaterThan(5);
    expect(now.deadened).toBe(0);
    expect(sealed.dew ?? 9).toBeLessThan(now.dew ?? 0);
    expect(sealed.hours).toBeGreaterThan(now.hours);
  });
  it('a kept set can be used, and undone', () => {
    const edit = applyOperation(wren.project, { name: 'useBuildUps', payload: { id: 'b1' } });
    const left = (project: typeof wren.project) => layersOn(project.buildUps, 'left').length;
    expect(left(edit.project)).toBeGreaterThan(left(wren.project));
  });
});

describe('a whole vehicle from one school', () => {
  it('starts each surface as it would be started alone, and the doors', () => {
    for (const moisture of WALL_SCHOOLS)
      for (const lining of LINING_SCHOOLS)
        for (const floor of FLOOR_SCHOOLS) {
          const whole = wholeSchool({ moisture, lining, floor }, book);
          expect(Object.keys(whole)).toEqual(['floor', 'left', 'right', 'ceiling', 'doors']);
          expect(whole.floor).toEqual(floorSchool(floor, book));
          for (const surface of ['left', 'right', 'ceiling'] as const)
            expect(whole[surface]).toEqual(wallSchool(surface, moisture, lining, book));
          expect(whole.doors?.map(({ material }) => material)).toEqual(['closed-foam-10', 'poplar-5']);
        }
  });
});
