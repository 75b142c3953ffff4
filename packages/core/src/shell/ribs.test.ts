import { describe, expect, it } from 'vitest';
import wrenText from '../../../../demo/wren.json?raw';
import { startPriceBook } from '../materials/start-book.js';
import { readProjectFile } from '../formats/read.js';
import { buildUpDepths, plainLayer } from '../layers/buildup.js';
import { layerWarnings } from '../layers/warnings.js';
import { createProject } from '../document/create.js';
import { createDeriver, derive } from '../derive/derive.js';
import { applyOperation } from '../furniture/kit.js';
import type { Operation } from '../document/operation.js';
import type { BuildUps, Project } from '../document/schema.js';
import { say } from '../words/say.js';
import { likeStations, uprightPlanes } from './likeness.js';
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
    expect(derived.ribs.gaps.map((gap) => gap.clear)).toEqual([575, 635, 575, 535, 505]);
    expect(derived.ribs.largest).toMatchObject({ between: ['rib 2', 'rib 3'], from: 717.5, to: 1352.5 });
    expect(derived.ribs.cut.map(({ opening, ribs }) => [opening.name, ribs.map((rib) => rib.name)])).toEqual([
      ['Kitchen window', ['rib 3']],
      ['Bed window', ['rib 5', 'rib 6']],
    ]);
  });
  it('make compartments: pieces with four sides, alike ones counted together', () => {
    const walls = derived.cavities.filter((cavity) => cavity.surface === 'right');
    expect(walls.reduce((sum, cavity) => sum + cavity.count, 0)).toBe(5);
    expect(walls.find((cavity) => cavity.width === 575)?.count).toBeGreaterThanOrEqual(1);
    for (const cavity of walls) expect(cavity.front).toBeGreaterThan(1690);
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
  });
});

describe('the order of layers', () => {
  const bare: BuildUps = {};
  const said = (buildUps: BuildUps, floorMeets: 'lining' | 'shell' = 'lining'): string[] =>
    layerWarnings(buildUpDepths({ ...bare, ...buildUps }, 50, book), { floorMeets }).map((warning) => warning.said.key);
  const foil = plainLayer('f', 'vapour-foil', 0.2, 'continuous');
  const foam = plainLayer('i', 'foam-30', 30, 'continuous');
  const battens = plainLayer('b', 'batten-18', 18, 'battens');

  it('a barrier on the cold side or over the battens is regretted, one between them is not', () => {
    const rest = { floor: [foam], right: [foam], ceiling: [foam] };
    expect(said({ ...rest, left: [foil, foam] })).toEqual(['layers.barrierCold']);
    expect(said({ ...rest, left: [foam, battens, foil] })).toEqual(['layers.barrierBattens']);
    expect(said({ ...rest, left: [foam, foil, battens] })).toEqual([]);
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
        layerWarnings(buildUpDepths({ ...bare, left: [foil, foam] }, 0, book), { floorMeets: 'lining' })[0]?.said ?? {
          key: 'cover.leak',
          params: {},
        },
      ),
    ).toContain('Vapour barrier foil lies on the cold side of Rigid foam 30');
  });
});
