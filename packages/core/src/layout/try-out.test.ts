import { describe, expect, it } from 'vitest';
import wrenFile from '../../../../demo/wren.json?raw';
import type { Unit } from '../document/schema.js';
import { readProjectFile } from '../formats/read.js';
import { applyOperation } from '../furniture/kit.js';
import { runWith } from '../furniture/units.fixture.js';
import { monotoneCurve } from '../numeric/curve.js';
import { makeShell } from '../shell/shell.js';
import { floorCards, floorOutlines, tapedNow, tapeMoves } from './try-out.js';

/** 3000 long, 1800 wide at the floor, walls upright. */
const wall = monotoneCurve([0, 1600], [900, 900]);
const roof = monotoneCurve([-900, 900], [1600, 1600]);
const shell = makeShell(
  3000,
  40,
  [0, 3000].map((x) => ({ x, left: wall, right: wall, roof })),
);
const kitchen: Unit = runWith({ id: 'k', side: 'left', x: 600, length: 1200, front: 400, height: 900 });
const round = (value: number): number => Math.round(value * 1000) / 1000;
const only = (unit: Unit) => {
  const [outline] = floorOutlines([unit], shell);
  if (!outline) throw new Error('it stands on the floor');
  return outline;
};

describe('an outline on the floor', () => {
  it('has its corners, its diagonals and its tape lengths from the ends of the centre line', () => {
    const { corners, diagonals, tapes } = only(kitchen);
    expect(corners.map(({ x, y }) => [round(x), round(y)])).toEqual([
      [600, -400],
      [600, -900],
      [1800, -400],
      [1800, -900],
    ]);
    // 1200 by 500: both diagonals are 1300
    expect(diagonals.map(round)).toEqual([1300, 1300]);
    // 600 along and 400 across from the front end; 1200 along and 400 across, and so on
    expect(tapes[0]?.front).toBeCloseTo(Math.hypot(600, 400), 9);
    expect(tapes[0]?.rear).toBeCloseTo(Math.hypot(2400, 400), 9);
    expect(tapes[3]?.rear).toBeCloseTo(Math.hypot(1200, 900), 9);
  });
  it('is one of everything that stands, and of nothing that hangs', () => {
    const high: Unit = { ...kitchen, id: 'h', body: { ...kitchen.body, from: 1300, to: 1600 } };
    expect(floorOutlines([kitchen, high], shell).map(({ unit }) => unit)).toEqual(['k']);
    expect(floorOutlines([], shell)).toEqual([]);
  });
  it('lapses where the unit has moved since it was taped, by how much and which way', () => {
    const taped = tapedNow(only(kitchen));
    expect(tapeMoves(only(kitchen), taped)).toEqual([]);
    const moved = only({ ...kitchen, body: { ...kitchen.body, x: 650 } as Unit['body'] });
    expect(tapeMoves(moved, taped)).toHaveLength(4);
    expect(tapeMoves(moved, taped)[0]).toEqual({ corner: 'front-near', rear: 50, right: 0 });
    // its front put back by 30: only the near corners move, to the left
    const back = only({ ...kitchen, body: { ...kitchen.body, front: 430 } as Unit['body'] });
    expect(tapeMoves(back, taped)).toEqual([
      { corner: 'front-near', rear: 0, right: -30 },
      { corner: 'rear-near', rear: 0, right: -30 },
    ]);
  });
  it('is a card seen from above, to the rear along and to the right up', () => {
    const [card] = floorCards([only(kitchen)]);
    const xs = card?.outline.outer.map(([x]) => x) ?? [];
    const ys = card?.outline.outer.map(([, y]) => y) ?? [];
    expect([Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)].map(round)).toEqual([0, 1200, 0, 500]);
    expect(card?.place.origin.map(round)).toEqual([600, -900, 0]);
    expect(card?.place).toMatchObject({
      along: [1, 0, 0],
      across: [0, 1, 0],
      thick: [0, 0, -1],
    });
    // the centre line does not run under it
    expect(card?.marks?.lines).toEqual([]);
  });
  it('of something from wall to wall has the centre line on it', () => {
    const { project } = readProjectFile(wrenFile);
    const bed = project.layout.units.find(({ body }) => body.stands === 'across');
    if (!bed) throw new Error('Wren has a bed from wall to wall');
    const [card] = floorCards(floorOutlines([bed], shell));
    const [line] = card?.marks?.lines ?? [];
    expect(line?.name).toBe('centre line');
    expect([line?.from, line?.to].map((end) => end?.map(round))).toEqual([
      [0, 900],
      [bed.body.length, 900],
    ]);
  });
});

describe('what is taped', () => {
  it('goes with its unit, and another that was never there is refused', () => {
    const { project, priceBook } = readProjectFile(wrenFile);
    const put = (unit: string) => ({
      name: 'putTaped' as const,
      payload: { ...tapedNow(only(kitchen)), unit },
    });
    const taped = applyOperation(project, put('bench'), priceBook).project;
    expect(taped.layout.taped?.map(({ unit }) => unit)).toEqual(['bench']);
    // taped again it is still one
    expect(applyOperation(taped, put('bench'), priceBook).project.layout.taped).toHaveLength(1);
    const gone = applyOperation(taped, { name: 'removeUnit', payload: { id: 'bench' } }, priceBook).project;
    expect(gone.layout.taped).toEqual([]);
    expect(() => applyOperation(project, put('nothing'), priceBook)).toThrow();
  });
});
