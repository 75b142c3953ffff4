import wrenText from '../../../../demo/wren.json?raw';
import { describe, expect, it } from 'vitest';
import { createProject } from '../document/create.js';
import { applyOperation } from '../furniture/kit.js';
import type { Operation } from '../document/operation.js';
import type { Project } from '../document/schema.js';
import { monotoneCurve } from '../numeric/curve.js';
import { makeShell, type Shell } from '../shell/shell.js';
import { createDeriver } from '../derive/derive.js';
import { whatMoved } from '../derive/moved.js';
import { vehicleMeasures } from '../derive/compare-vehicles.js';
import { readProjectFile } from '../formats/read.js';
import { say } from '../words/say.js';
import { formatAngle, parseAngle, riseOver } from '../words/angle.js';
import { closuresOf } from '../measure/closure.js';
import { holeClearances, openBefore } from '../measure/cover-gate.js';
import { datumOf, settingOut } from './datum.js';
import { levelOf } from '../measure/level.js';

const wren = readProjectFile(wrenText);
const empty = createProject({ id: 't', name: 'T', kind: 'van', model: '', units: 'mm', startDate: '2026-10-01' });
const after = (project: Project, ...operations: Operation[]): Project =>
  operations.reduce((now, operation) => applyOperation(now, operation).project, project);
const reading = (address: string, value: number): Operation => ({
  name: 'takeReading',
  payload: { address, reading: { value, method: 'tape', at: '2026-10-01T08:00:00.000Z' } },
});
const readings = (all: Record<string, number>): Operation[] =>
  Object.entries(all).map(([address, value]) => reading(address, value));

/** 3000 long, 900 to the right, to the left 900 opening by 30 to the rear, with 6 pressed in half-way. */
function shell(): Shell {
  const roof = monotoneCurve([-900, 0, 900], [1900, 1900, 1900]);
  const at = (x: number, left: number) => ({
    x,
    left: monotoneCurve([0, 1900], [left, left]),
    right: monotoneCurve([0, 1900], [900, 900]),
    roof,
  });
  return makeShell(3000, 0, [at(0, 900), at(750, 907.5), at(1500, 909), at(2250, 922.5), at(3000, 930)]);
}

describe('the datum', () => {
  it('halves what is measured across, near both ends and in the middle', () => {
    const { marks } = datumOf(empty.survey, shell(), []);
    expect(marks.map((mark) => mark.x)).toEqual([150, 1500, 2850]);
    expect(marks[1]).toEqual({ x: 1500, across: 1809, half: 904.5 });
  });
  it('says how a wall opens and where it is pressed in', () => {
    const wall = datumOf(empty.survey, shell(), []).walls.find((w) => w.side === 'left' && w.z === 0);
    expect(wall?.opens).toBeCloseTo(30, 0);
    expect(wall?.most).toBeLessThan(-3.5);
    expect(Math.abs((wall?.mostAt ?? 0) - 1500)).toBeLessThan(100);
    const right = datumOf(empty.survey, shell(), []).walls.find((w) => w.side === 'right' && w.z === 700);
    expect(right?.opens).toBeCloseTo(0, 9);
    expect(right?.most).toBeCloseTo(0, 9);
  });
  it('finds the skew from the diagonals: (a2 - b2) / 4L', () => {
    const project = after(empty, ...readings({ 'floor/diagonal-a': 3510, 'floor/diagonal-b': 3500 }));
    // (3510^2 - 3500^2) / (4 * 3000) = 70100 / 12000
    expect(datumOf(project.survey, shell(), []).skew).toBeCloseTo(5.842, 3);
    // a parallelogram 3000 x 1800 whose right side lies 6 further back
    const skewed = after(
      empty,
      ...readings({ 'floor/diagonal-a': Math.hypot(3006, 1800), 'floor/diagonal-b': Math.hypot(2994, 1800) }),
    );
    expect(datumOf(skewed.survey, shell(), []).skew).toBeCloseTo(6, 9);
    expect(datumOf(empty.survey, shell(), []).skew).toBeNull();
  });
  it('puts the fronts of a side on the line most stand on and names the one that does not', () => {
    const bench = wren.project.layout.units.find((unit) => unit.id === 'bench');
    if (!bench) throw new Error('the demo has a bench');
    const at = (id: string, front: number) => ({
      ...bench,
      id,
      body: { ...bench.body, stands: 'right' as const, front },
    });
    const units = [bench, at('b2', 430), at('b3', 452)];
    const { x, length } = bench.body;
    const { fronts } = datumOf(empty.survey, shell(), units);
    expect(fronts).toHaveLength(1);
    expect(fronts[0]).toMatchObject({ side: 'right', at: 430 });
    expect(fronts[0]?.units.map((unit) => unit.off)).toEqual([0, 0, 22]);
    expect(settingOut(units.slice(0, 1), shell())).toMatchObject([
      { corner: 'front-near', x, y: 430 },
      { corner: 'front-far', x, y: 900 },
      { corner: 'rear-near', x: x + length, y: 430 },
      { corner: 'rear-far', y: 900 },
    ]);
  });
});

describe('slopes', () => {
  it.each([
    ['1.4', 1.4],
    ['-0,6°', -0.6],
    ['2 %', 1.1458],
    ['12 mm/m', 0.6875],
    ['1:40', 1.4321],
  ])('%s is read', (typed, degrees) => {
    const read = parseAngle(typed);
    expect(read.ok && read.degrees).toBeCloseTo(degrees, 3);
  });
  it.each(['', 'steep', '1:0', '5 mm'])('“%s” is refused', (typed) => {
    expect(parseAngle(typed).ok).toBe(false);
  });
  it('are written to a tenth and never as minus zero', () => {
    expect([formatAngle(-0.01), formatAngle(1.25), formatAngle(-1.26)]).toEqual(['0°', '1.3°', '-1.3°']);
  });
  it('lie by run x tan over a length, and are given against the floor', () => {
    expect(riseOver(1, 3000)).toBeCloseTo(52.365, 3);
    const project = after(
      empty,
      { name: 'putAngle', payload: { angle: { id: 'g1', name: 'Wall', surface: 'left' } } },
      { name: 'putAngle', payload: { angle: { id: 'g2', name: 'Roof', surface: 'ceiling' } } },
      ...readings({ 'level/across': 0.5, 'angle/g1/raw': 4.1, 'angle/g1/floor': 0.7, 'angle/g2/raw': 2 }),
    );
    const level = levelOf(project.survey, 3000, 1800);
    expect(level.along).toBeNull();
    expect(level.riseAcross).toBeCloseTo(15.708, 3);
    expect(level.angles.map((angle) => angle.corrected)).toEqual([expect.closeTo(3.4, 9), 1.5]);
  });
  it('of a place are refused beyond what can be', () => {
    expect(() => after(empty, reading('level/along', 40))).toThrow('operation.outOfAngle');
  });
});

describe('closures', () => {
  it('close lengths, station diagonals and openings', () => {
    const project = after(
      empty,
      { name: 'planSurvey', payload: { changes: { heights: [0, 1000] } } },
      {
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
      },
      ...readings({
        'floor/length': 3000,
        'station/s1/x': 1000,
        'station/s1/rest': 1991,
        'station/s1/left/0': 900,
        'station/s1/right/1000': 850,
        // hypot(1750, 1000) = 2015.56
        'station/s1/diagonal-a': 2018,
        'opening/o1/diagonal-a': 930,
        'opening/o1/diagonal-b': 945,
      }),
    );
    const closures = closuresOf(project.survey);
    expect(closures.map((closure) => [closure.what.key, Math.round(closure.error * 10) / 10, closure.verdict])).toEqual(
      [
        ['closure.length', 9, 'tight'],
        ['closure.station.diagonal-a', 2.4, 'good'],
        ['closure.opening', 15, 'fails'],
      ],
    );
    expect(closures[0]?.addresses).toContain('station/s1/rest');
    // a window 800 x 500 whose front leans back by 100: its diagonals are hypot(800, 500) and hypot(700, 500), 83.17 apart
    const slanted = after(
      project,
      { name: 'putOpening', payload: { opening: { ...window(project), slanted: true } } },
      ...readings({
        'opening/o1/from': 1000,
        'opening/o1/to': 1800,
        'opening/o1/from-head': 1100,
        'opening/o1/to-head': 1800,
        'opening/o1/sill': 900,
        'opening/o1/head': 1400,
        'opening/o1/diagonal-a': 944,
        'opening/o1/diagonal-b': 861,
      }),
    );
    const [corner] = closuresOf(slanted.survey).filter((closure) => closure.what.key === 'closure.opening');
    expect(corner?.error).toBeCloseTo(Math.abs(83 - (Math.hypot(800, 500) - Math.hypot(700, 500))), 6);
    expect(corner?.verdict).toBe('good');
  });
});

const window = (project: Project): Project['survey']['openings'][number] => {
  const [opening] = project.survey.openings;
  if (!opening) throw new Error('there is a window');
  return opening;
};

describe('before a surface is covered', () => {
  it('the leak test, finds and undecided holes stop it; what was kept or done does not', () => {
    const said = (project: Project, surface: 'floor' | 'ceiling' | 'left') =>
      openBefore(project, surface)
        .filter(({ stops }) => stops)
        .map((point) => [say(point.said), point.stops]);
    expect(said(wren.project, 'ceiling')).toEqual(
      [
        [expect.stringContaining('leak test'), true],
        ['Drip at the roof seam, 2 440 from the front: still to be redone.', true],
        [expect.stringContaining('No photo of it bare'), true],
      ].map(([text, stops]) => [typeof text === 'string' ? text.replace('2 440', '2\u202f440') : text, stops]),
    );
    const undecided = after(
      wren.project,
      {
        name: 'setLeakTest',
        payload: { leakTest: { state: 'passed', reason: '', at: '2026-10-01T08:00:00.000Z' } },
      },
      {
        name: 'putPenetration',
        payload: {
          penetration: {
            id: 'p1',
            name: 'Sink drain',
            surface: 'floor',
            purpose: 'waste-water',
            decided: false,
            sealing: '',
          },
        },
      },
    );
    const holes = (surface: 'floor' | 'left') =>
      said(undecided, surface).filter(([text]) => String(text).includes('hole'));
    expect(holes('floor')).toEqual([['Sink drain: where the hole goes is not decided.', true]]);
    expect(holes('left')).toEqual([]);
  });
  it('overruling the leak test needs a reason', () => {
    expect(() =>
      after(wren.project, { name: 'setLeakTest', payload: { leakTest: { state: 'overruled', reason: '', at: null } } }),
    ).toThrow('operation.reason');
  });
  it('holes are held against what lies under the floor', () => {
    // drain at (1480, -620), 40 wide; the tank ends at x 1250: 230 - 20 = 210 clear
    const clear = holeClearances(wren.project.survey);
    expect(clear.find((hole) => hole.hole === 'p1')).toMatchObject({ against: 'Fuel tank', clear: 210 });
    const moved = after(wren.project, reading('hole/p1/x', 1200));
    // inside the tank: 50 from its rear edge, 100 from its left one, so 50 + 20 too far
    expect(holeClearances(moved.survey).find((hole) => hole.hole === 'p1')).toMatchObject({ clear: -70 });
  });
});

describe('a reading taken again', () => {
  it('names what moved: figures, parts and checks, and nothing else', () => {
    const wider = after(wren.project, reading('station/s3/left/0', 860));
    const moved = whatMoved(wider, wren.priceBook, 'station/s3/left/0', createDeriver());
    expect(moved).toMatchObject({ before: 893, after: 860 });
    expect(moved?.parts.map((part) => part.unit)).toContain('kitchen');
    expect(moved?.parts.every((part) => part.unit !== 'bench')).toBe(true);
    expect(moved?.figures.find((figure) => figure.what === 'widthAtFloor')?.by ?? 0).toBeLessThan(-5);
    expect(whatMoved(wren.project, wren.priceBook, 'station/s3/left/0', createDeriver())).toBeNull();
  });
});

describe('vehicles compared', () => {
  it('on their net measures', () => {
    const measures = vehicleMeasures(wren.project, createDeriver().shape(wren.project, wren.priceBook));
    expect(measures).toMatchObject({ length: 3690, ribDepth: 50, betweenArches: 1392, step: null });
    expect(measures.standing).toBeCloseTo(1843, 0);
    expect(measures.straightness ?? 0).toBeGreaterThan(3);
    const nothing = vehicleMeasures(empty, createDeriver().shape(empty, wren.priceBook));
    expect(nothing).toMatchObject({ length: null, standing: null, straightness: null });
  });
});
