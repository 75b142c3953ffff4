import { describe, expect, it } from 'vitest';
import { aboveRoof } from '../measure/above-roof.js';
import wrenText from '../../../../demo/wren.json?raw';
import { startPriceBook } from '../materials/start-book.js';
import { readProjectFile } from '../formats/read.js';
import { buildUpDepths, plainLayer } from '../layers/buildup.js';
import { layerWarnings } from '../layers/warnings.js';
import { createProject } from '../document/create.js';
import { derive } from '../derive/again.fixture.js';
import { createDeriver } from '../derive/derive.js';
import { applyOperation } from '../furniture/kit.js';
import type { Operation } from '../document/operation.js';
import type { BuildUps, Project, Rib } from '../document/schema.js';
import { say } from '../words/say.js';
import { likeStations, uprightPlanes } from './likeness.js';
import { RIBBED, ribDepths, ribShares } from './ribs.js';
import { halfWidth } from './shell.js';

const wren = readProjectFile(wrenText);
const book = startPriceBook();
const derived = derive(wren.project, wren.priceBook);
const empty = createProject({ id: 't', name: 'T', kind: 'van', model: '', units: 'mm', startDate: '2026-10-01' });
const reading = (address: string, value: number): Operation => ({
  name: 'takeReading',
  payload: { address, reading: { value, method: 'tape', at: '2026-10-01T08:00:00.000Z' } },
});
const taken = (project: Project, readings: Record<string, number>): Project =>
  Object.entries(readings).reduce(
    (now, [address, value]) => applyOperation(now, reading(address, value)).project,
    project,
  );

describe('ribs', () => {
  it('leave gaps of their distance less their width, and name what cuts them', () => {
    // ribs 55 wide at 60, 690, 1380, 2010, 2600, 3160
    for (const surface of RIBBED)
      expect(derived.ribs.on[surface].gaps.map((gap) => gap.clear)).toEqual([575, 635, 575, 535, 505]);
    expect(derived.ribs.largest.map(({ surface }) => surface)).toEqual([...RIBBED]);
    expect(derived.ribs.largest[0]).toMatchObject({ between: ['rib 2', 'rib 3'], from: 717.5, to: 1352.5 });
    expect(derived.ribs.cut.map(({ opening, ribs }) => [opening.name, ribs.map((rib) => rib.name)])).toEqual([
      ['Kitchen window', ['rib 3']],
      ['Bed window', ['rib 5', 'rib 6']],
    ]);
  });
});

/** A box 3000 long, 1800 wide and 1900 high, and ribs in it. */
const box = taken(empty, { 'floor/length': 3000, 'station/s1/width/0': 1800, 'station/s1/roof/0': 1900 });
function withRibs(ribs: readonly (Partial<Rib> & { readonly at: Readonly<Record<string, number>> })[]): Project {
  const project = ribs.reduce((now, { on = 'ring', flat = true }, i) => {
    const whole: Rib = { id: `r${i}`, name: `rib ${i}`, on, flat };
    return applyOperation(now, { name: 'putRib', payload: { rib: whole } }).project;
  }, box);
  const readings = ribs.flatMap(({ at }, i) => Object.entries(at).map(([what, value]) => [`rib/r${i}/${what}`, value]));
  return taken(project, Object.fromEntries(readings) as Record<string, number>);
}
const lined = (project: Project): Project => {
  const layers = [plainLayer('i', 'wool-50', 50, 'in-ribs'), plainLayer('p', 'birch-9', 9, 'continuous')];
  return { ...project, buildUps: { left: layers, right: layers, ceiling: layers } };
};
const at = (x: number, more: Record<string, number> = {}) => ({ x, width: 50, proud: 50, ...more });

describe('ribs of one surface', () => {
  it('say nothing of another: 50 deep in the walls and 25 in the roof', () => {
    const deep = [600, 1200, 1800, 2400];
    const project = withRibs([
      ...deep.flatMap((x) => [
        { on: 'left' as const, at: at(x) },
        { on: 'right' as const, at: at(x) },
      ]),
      ...deep.map((x) => ({ on: 'roof' as const, at: at(x, { proud: 25 }) })),
    ]);

    const { depths, ribs } = derive(lined(project), book);
    // a wall takes its 9 mm lining alone; under 25 mm bows the other half of the foam hangs into the room
    expect([depths.left.total, depths.right.total, depths.ceiling.total]).toEqual([9, 9, 34]);
    expect(ribDepths(ribs)).toEqual({ left: 50, right: 50, ceiling: 25 });
    // read wall by wall they are no more steel than as rings: 50 of every 600
    const ring = derive(withRibs(deep.map((x) => ({ at: at(x) }))), book);
    expect(ribShares(ribs, null)).toEqual(ribShares(ring.ribs, null));
    expect(ribShares(ribs, null).left).toBeCloseTo(50 / 600, 9);
  });
  it('on the right wall alone carry nothing on the left, nor on the ceiling', () => {
    const project = lined(withRibs([600, 1200, 1800, 2400].map((x) => ({ on: 'right' as const, at: at(x) }))));
    const { lined: made } = derive(project, book);
    const supports = (surface: string): string[] =>
      made.linings
        .find((lining) => lining.surface === surface)
        ?.ground.supports.filter(({ kind }) => kind === 'rib')
        .map(({ name }) => name) ?? [];
    expect(supports('right')).toEqual(['rib 0', 'rib 1', 'rib 2', 'rib 3']);
    expect([supports('left'), supports('ceiling')]).toEqual([[], []]);
    for (const lining of made.linings) {
      // what no rib carries there stands on battens that are added, and never on another wall's ribs
      const steel = lining.fixings.filter(({ by }) => by === 'rib');
      expect(steel.length > 0).toBe(lining.surface === 'right');
      expect(lining.fixings.length).toBeGreaterThan(20);
      expect(lining.unheld).toEqual([]);
    }
  });
  it('whose face is round, or that are too shallow, hold no screw, and it is said', () => {
    const project = withRibs([
      { at: at(600) },
      { at: at(1200), flat: false },
      { at: at(1800, { proud: 8 }) },
      { at: at(2400) },
    ]);
    const left = derive(lined(project), book).lined.linings.find((lining) => lining.surface === 'left');
    expect(left?.ground.supports.flatMap(({ name, kind }) => (kind === 'rib' ? [name] : []))).toEqual([
      'rib 0',
      'rib 3',
    ]);
    expect(left?.notes.map((note) => note.key)).toEqual(
      expect.arrayContaining(['lining.ribRound', 'lining.ribShallow']),
    );
  });
  it('whose depth was not read leave their fixings open, which is said, and none is counted for them', () => {
    const bare = withRibs([600, 1200, 1800, 2400].map((x) => ({ at: { x, width: 50 } })));
    const boards = [plainLayer('p', 'birch-9', 9, 'continuous')];
    const left = derive({ ...bare, buildUps: { left: boards } }, book).lined.linings.find(
      ({ surface }) => surface === 'left',
    );
    const open = left?.fixings.filter(({ by }) => by === 'rib').length ?? 0;
    expect(open).toBeGreaterThan(10);
    expect(left?.problems.map(({ key, params }) => [key, params['count']])).toContainEqual([
      'lining.fixingUnknown',
      open,
    ]);
    expect(left?.held.reduce((sum, { count }) => sum + count, 0)).toBe((left?.fixings.length ?? 0) - open);
  });
  it('that end short of the roof hold screws only as far as they reach', () => {
    const project = withRibs([{ at: at(600) }, { on: 'left', at: at(1500, { from: 0, to: 700 }) }, { at: at(2400) }]);
    const left = derive(lined(project), book).lined.linings.find((lining) => lining.surface === 'left');
    const heights = left?.fixings.filter(({ support }) => support === 'rib 1').map(({ at: [, v] }) => v) ?? [];
    expect(heights.length).toBeGreaterThan(2);
    expect(Math.max(...heights)).toBeLessThanOrEqual(700);
  });
  it('make compartments with four sides, less what openings take', () => {
    const bare = withRibs([at(525), at(1075), at(1675)].map((place) => ({ at: { ...place, width: 50 } })));
    const found = derive(bare, book).cavities.filter(({ surface }) => surface === 'left');
    // 0 to 500, 550 to 1050, 1100 to 1650, 1700 to 3000, each as high as the wall: 1900
    expect(found.map(({ width, count }) => [Math.round(width), count])).toEqual([
      [500, 2],
      [550, 1],
      [1300, 1],
    ]);
    expect(found[1]?.area).toBeCloseTo(550 * 1900, 0);
    const window: Operation = {
      name: 'putOpening',
      payload: {
        opening: {
          id: 'o1',
          name: 'Window',
          kind: 'window',
          surface: 'left',
          cornerRadius: 0,
          swing: 'fixed',
          hand: 'none',
          slanted: false,
          framed: false,
          ring: null,
        },
      },
    };
    const cut = taken(applyOperation(bare, window).project, {
      'opening/o1/from': 1200,
      'opening/o1/to': 1500,
      'opening/o1/sill': 800,
      'opening/o1/head': 1300,
    });
    const { cavities, ribs } = derive(cut, book);
    const holed = cavities.find(({ surface, width }) => surface === 'left' && Math.abs(width - 550) < 1);
    expect(holed?.area).toBeCloseTo(550 * 1900 - 300 * 500, 0);
    expect(holed?.outline.holes).toHaveLength(1);
    expect(ribs.cut).toEqual([]);
    // one that reaches over the whole width parts it in two
    const wide = taken(cut, { 'opening/o1/from': 1000, 'opening/o1/to': 1700 });
    const parted = derive(wide, book);
    expect(
      parted.cavities.filter(({ surface, width }) => surface === 'left' && Math.abs(width - 550) < 1),
    ).toHaveLength(2);
    expect(parted.ribs.cut.map(({ ribs: through }) => through.map(({ name }) => name))).toEqual([['rib 1', 'rib 2']]);
    // the roof's compartments know nothing of a window in the wall
    const roof = (project: Project): number[] =>
      derive(project, book)
        .cavities.filter(({ surface }) => surface === 'ceiling')
        .map(({ area }) => Math.round(area));
    expect(roof(wide)).toEqual(roof(bare));
  });
  it('turned round, past the end, too deep or over one another are named at their reading', () => {
    const said = (project: Project): [string, string][] =>
      derive(project, book)
        .problems.filter(({ place }) => place.startsWith('rib/'))
        .map(({ place, said: { key } }) => [place, key]);
    expect(said(withRibs([{ at: at(600) }, { at: at(1200) }]))).toEqual([]);
    expect(said(withRibs([{ on: 'left', at: at(600, { from: 900, to: 100 }) }]))).toEqual([['rib/r0/to', 'rib.order']]);
    expect(said(withRibs([{ at: at(3400) }]))).toEqual([['rib/r0/x', 'rib.pastEnd']]);
    expect(said(withRibs([{ at: at(600, { proud: 400, width: 50 }) }, { at: at(1200) }]))).toEqual([]);
    expect(said(withRibs([{ at: at(600) }, { at: at(630) }]))).toEqual([['rib/r1/x', 'rib.over']]);
    // side by side on two walls they are no trouble to each other
    expect(
      said(
        withRibs([
          { on: 'left', at: at(600) },
          { on: 'right', at: at(610) },
        ]),
      ),
    ).toEqual([]);
  });
});

describe('sections', () => {
  it('that are alike within a tolerance are named together', () => {
    const { shell } = derived;
    if (!shell) throw new Error('the demo has a shell');
    expect(likeStations(shell, 50)).toHaveLength(1);
    expect(likeStations(shell, 0.01)).toHaveLength(7);
    const groups = likeStations(shell, 4);
    expect(groups.flat().sort((a, b) => a - b)).toEqual([60, 690, 1380, 2010, 2600, 3160, 3660]);
    expect(groups.length).toBeGreaterThan(1);
    expect(groups.length).toBeLessThan(7);
  });
  it('an upright panel on the arch rises to where the wall leans in to it', () => {
    const { shell, arches } = derived;
    if (!shell) throw new Error('the demo has a shell');
    const [plane] = uprightPlanes(shell, arches);
    expect(plane).toMatchObject({ side: 'left', at: 695 });
    expect(halfWidth(shell, 'left', plane?.x ?? 0, (plane?.rises ?? 0) + 20)).toBeLessThan(695);
    expect(halfWidth(shell, 'left', plane?.x ?? 0, (plane?.rises ?? 0) - 40)).toBeGreaterThan(690);
  });
});

describe('little or contradictory readings', () => {
  it('three readings in all are a box, and every assumption is named', () => {
    const three = taken(empty, { 'floor/length': 3000, 'station/s1/width/0': 1800, 'station/s1/roof/0': 1900 });
    const { shell, assumed, room } = createDeriver().shape(three, book);
    if (!shell) throw new Error('three readings make no shell');
    expect(shell.length).toBe(3000);
    expect(halfWidth(shell, 'left', 100, 500)).toBeCloseTo(900, 9);
    expect(halfWidth(shell, 'right', 2900, 1000)).toBeCloseTo(900, 9);
    expect(room?.standing.value).toBeCloseTo(1900, 9);
    expect(assumed.map((message) => message.key)).toEqual([
      'assumed.place',
      'assumed.split',
      'assumed.upright',
      'assumed.oneStation',
    ]);
  });
  it('a window above the roof, past the end, or turned round is named at its place', () => {
    const said = (readings: Record<string, number>): [string, string][] =>
      derive(taken(wren.project, readings), wren.priceBook)
        .problems.filter((problem) => problem.stage === 'measure')
        .map((problem) => [problem.place, problem.said.key]);
    expect(said({})).toEqual([]);
    expect(said({ 'opening/o1/head': 2400 })).toEqual([['opening/o1/head', 'opening.aboveRoof']]);
    expect(said({ 'opening/o1/to': 3900 })).toEqual([['opening/o1/to', 'opening.pastEnd']]);
    expect(said({ 'opening/o1/to': 900 })).toEqual([['opening/o1/to', 'opening.order']]);
    expect(said({ 'opening/o1/from': -60 })).toEqual([['opening/o1/from', 'opening.beforeStart']]);
  });
  it('a wall read above the roof, as a knee with a slip in its height, is named and left out', () => {
    const address = 'station/s4/left/2600';
    const plain = derive(wren.project, wren.priceBook);
    const slipped = derive(taken(wren.project, { [address]: 900 }), wren.priceBook);
    expect(slipped.problems.filter((problem) => problem.stage === 'measure')).toMatchObject([
      { place: address, said: { key: 'shell.wallAboveRoof', params: { height: { mm: 2600 } } } },
    ]);
    // nothing of the room moves by it
    expect(slipped.room).toEqual(plain.room);
    // a station whose own roof was not read goes by the highest there is
    const { survey } = wren.project;
    const without = {
      ...survey,
      readings: Object.fromEntries(
        Object.entries(survey.readings).filter(([place]) => !place.startsWith('station/s4/roof')),
      ),
    };
    expect(aboveRoof(taken({ ...wren.project, survey: without }, { [address]: 900 }).survey)).toMatchObject([
      { station: 's4', height: 2600 },
    ]);
  });
  it('a hatch beyond the walls or over a bow is named at its place', () => {
    const hatch = wren.project.survey.openings.find((opening) => opening.surface === 'roof');
    const bow = wren.project.survey.readings['rib/r3/x']?.at(-1)?.value ?? 0;
    if (!hatch) throw new Error('the demo has a hatch');
    const place = (what: string): string => `opening/${hatch.id}/${what}`;
    const said = (from: number, sill: number, head: number): [string, string][] =>
      derive(
        taken(wren.project, {
          [place('from')]: from,
          [place('to')]: from + 400,
          [place('sill')]: sill,
          [place('head')]: head,
        }),
        wren.priceBook,
      )
        .problems.filter((problem) => problem.stage === 'measure')
        .map((problem) => [problem.place, problem.said.key]);
    expect(said(bow - 200, -200, 200)).toEqual([[place('from'), 'opening.cutsRib']]);
    expect(said(bow + 100, -200, 200)).toEqual([]);
    expect(said(bow + 100, 700, 1100)).toEqual([[place('head'), 'opening.pastWall']]);
  });
});

describe('the order of layers', () => {
  const bare: BuildUps = {};
  const RIBS = { left: 50, right: 50, ceiling: 50 };
  const said = (buildUps: BuildUps, floorMeets: 'lining' | 'shell' = 'lining'): string[] =>
    layerWarnings(buildUpDepths({ ...bare, ...buildUps }, RIBS, book), { floorMeets, floorClearance: 5 }).map(
      (warning) => warning.said.key,
    );
  const foil = plainLayer('f', 'vapour-foil', 0.2, 'continuous');
  const foam = plainLayer('i', 'foam-30', 30, 'continuous');
  const battens = plainLayer('b', 'batten-18', 18, 'battens');

  it('a barrier on the cold side or over the battens is regretted, one between them is not', () => {
    const rest = { floor: [foam], right: [foam], ceiling: [foam] };
    expect(said({ ...rest, left: [foil, foam] })).toEqual(['layers.barrierCold']);
    expect(said({ ...rest, left: [foam, battens, foil] })).toEqual(['layers.barrierBattens']);
    expect(said({ ...rest, left: [foam, foil, battens] })).toEqual([]);
  });
  it('doors and step wells that were forgotten, and insulation that falls out, are named', () => {
    const all = { floor: [foam], left: [foam], right: [foam], ceiling: [foam] };
    const keys = (buildUps: BuildUps, doors: string[], steps: string[]): string[] =>
      layerWarnings(
        buildUpDepths({ ...bare, ...buildUps }, RIBS, book),
        { floorMeets: 'lining', floorClearance: 5 },
        { doors, steps },
      ).map((warning) => warning.said.key);
    expect(keys(all, ['Sliding door'], ['Entry step'])).toEqual(['layers.cold.doors', 'layers.cold.steps']);
    expect(keys({ ...all, doors: [foam] }, ['Sliding door'], [])).toEqual([]);
    // nothing is warm yet, so that nothing is left out
    expect(keys({}, ['Sliding door'], ['Entry step'])).toEqual([]);
    const wool = plainLayer('w', 'foam-30', 30, 'in-ribs');
    expect(keys({ ...all, left: [wool] }, [], [])).toEqual(['layers.unbacked']);
    expect(keys({ ...all, left: [wool, foil] }, [], [])).toEqual([]);
  });
  it('a surface left cold beside warm ones, and a floor cut too tight, are named', () => {
    expect(said({ left: [foam], right: [foam], ceiling: [foam] })).toEqual(['layers.cold.floor']);
    expect(said({})).toEqual([]);
    const board = plainLayer('p', 'birch-12', 12, 'continuous', true);
    expect(said({ floor: [foam, board], left: [foam], right: [foam], ceiling: [foam] }, 'shell')).toEqual([
      'layers.floorTight',
    ]);
    expect(said({ floor: [foam, board], left: [foam], right: [foam], ceiling: [foam] }, 'lining')).toEqual([]);
    expect(
      say(
        layerWarnings(buildUpDepths({ ...bare, left: [foil, foam] }, {}, book), {
          floorMeets: 'lining',
          floorClearance: 5,
        })[0]?.said ?? {
          key: 'cover.leak',
          params: {},
        },
      ),
    ).toContain('Vapour barrier foil lies on the cold side of Rigid foam 30');
  });
});
