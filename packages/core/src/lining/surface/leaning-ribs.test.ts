import { describe, expect, it } from 'vitest';
import thimbleFile from '../../../../../demo/thimble.json?raw';
import wrenFile from '../../../../../demo/wren.json?raw';
import type { Project } from '../../document/schema.js';
import { derive } from '../../derive/again.fixture.js';
import { readProjectFile } from '../../formats/read.js';
import { boxOf, outlineArea } from '../../numeric/plane.js';
import { ribAt, ribMap } from '../../shell/ribs.js';

const at = '2026-10-02T08:00:00.000Z';
const readings = (of: Readonly<Record<string, number>>) =>
  Object.fromEntries(Object.entries(of).map(([address, value]) => [address, [{ value, method: 'tape' as const, at }]]));

/** A demo with two ribs of its own on its left wall, and no other there. */
function withRibs(
  file: ReturnType<typeof readProjectFile>,
  ribs: readonly { readonly id: string; readonly tapers?: boolean; readonly of: Readonly<Record<string, number>> }[],
): Project {
  const { project } = file;
  return {
    ...project,
    survey: {
      ...project.survey,
      openings: [],
      arches: [],
      penetrations: [],
      ribs: ribs.map(({ id, tapers }) => ({
        id,
        name: id,
        on: 'left' as const,
        flat: true,
        leans: true,
        ...(tapers ? { tapers } : {}),
      })),
      readings: {
        ...Object.fromEntries(
          Object.entries(project.survey.readings).filter(([address]) => !/^(rib|opening|arch|hole)\//.test(address)),
        ),
        ...Object.assign(
          {},
          ...ribs.map(({ id, of }) =>
            readings(Object.fromEntries(Object.entries(of).map(([what, value]) => [`rib/${id}/${what}`, value]))),
          ),
        ),
      },
    },
    layout: { ...project.layout, units: [], modes: [] },
  };
}
const wren = readProjectFile(wrenFile);
const thimble = readProjectFile(thimbleFile);
/** From 800, and from 1400 at the floor to 1500 at 1000: what is between them is 100 wider at 1000. */
const PAIR = [
  { id: 'a', of: { x: 800, width: 50, proud: 30, high: 1000, 'x-high': 800, 'width-high': 50 } },
  { id: 'b', of: { x: 1400, width: 50, proud: 30, high: 1000, 'x-high': 1500, 'width-high': 70 } },
] as const;

/** The piece between the two ribs: those before and behind them are others. */
function between(derived: ReturnType<typeof derive>) {
  const own = derived.cavities.filter(
    ({ surface, outline }) => surface === 'left' && Math.abs(boxOf(outline.outer).minX - 825) < 5,
  );
  const [piece] = own;
  if (!piece || own.length > 1) throw new Error('one piece lies between them');
  return piece;
}

describe('a rib that is read at two heights', () => {
  const project = withRibs(wren, PAIR);
  const { on } = ribMap(project.survey);
  const derived = derive(project, wren.priceBook);
  it('lies on the straight line through both, and is as wide as it is between them', () => {
    const b = on.left.ribs.find(({ id }) => id === 'b');
    if (!b) throw new Error('it is there');
    expect(ribAt(b, 0)).toEqual([1375, 1425]);
    expect(ribAt(b, 1000)).toEqual([1465, 1535]);
    expect(ribAt(b, 500)).toEqual([1420, 1480]);
    // free all the way is what is free where it is nearest
    expect(on.left.gaps[0]?.clear).toBeCloseTo(1375 - 825, 6);
  });
  it('gives the insulation between the two the shape of a wedge', () => {
    const piece = between(derived);
    expect(piece.count).toBe(1);
    expect(piece.low).toBeCloseTo(550, 0);
    // the edge goes on as it leans: 90 more for each 1000 up
    const high = piece.outline.outer.filter(([, v]) => v > boxOf(piece.outline.outer).maxY - 1);
    expect(piece.high - piece.low).toBeGreaterThan(90);
    expect(high.length).toBeGreaterThan(1);
    expect(piece.front).toBeGreaterThan(1000);
    expect(piece.rear).toBeGreaterThan(1000);
    // by the shoelace of its four corners
    const box = boxOf(piece.outline.outer);
    const wedge = ((piece.low + piece.high) / 2) * (box.maxY - box.minY);
    expect(outlineArea(piece.outline) / wedge).toBeGreaterThan(0.98);
    expect(outlineArea(piece.outline) / wedge).toBeLessThan(1.02);
  });
  it('has its screws on its own line, and no seam straight up where it does not carry one', () => {
    const sheets = derive(withRibs(thimble, PAIR), thimble.priceBook);
    const lining = sheets.lined.linings.find(({ surface }) => surface === 'left');
    const support = lining?.ground.supports.find(({ name }) => name === 'b');
    if (!lining || !support) throw new Error('it carries the lining');
    expect(support.lean).toBeGreaterThan(0.09);
    const screws = lining.fixings.filter(({ support: name }) => name === 'b');
    expect(screws.length).toBeGreaterThan(3);
    const { unrolled } = lining.ground;
    for (const {
      at: [u, v],
    } of screws) {
      // read by hand: 0.1 to the rear for each mm up, on a wall that is nearly upright
      const column = unrolled.columns.reduce((near, one) => (Math.abs(one.u - u) < Math.abs(near.u - u) ? one : near));
      const i = column.v.findIndex((value) => value >= v);
      const height = column.place[Math.max(0, i)] ?? 0;
      expect([v, Math.abs(u - (1400 + 0.1 * height)) < 35]).toEqual([v, true]);
    }
    expect(lining.seams.every(({ support: name }) => name !== 'b')).toBe(true);
  });
  it('is met by a window only where it leans to', () => {
    const opening = (sill: number, head: number): Project => ({
      ...project,
      survey: {
        ...project.survey,
        openings: [
          {
            id: 'w',
            name: 'W',
            kind: 'window',
            surface: 'left',
            cornerRadius: 0,
            swing: 'fixed',
            hand: 'none',
            slanted: false,
            framed: false,
            ring: null,
          },
        ],
        readings: {
          ...project.survey.readings,
          ...readings({ 'opening/w/from': 900, 'opening/w/to': 1430, 'opening/w/sill': sill, 'opening/w/head': head }),
        },
      },
    });
    expect(ribMap(opening(100, 400).survey).cut).toHaveLength(1);
    expect(ribMap(opening(800, 1200).survey).cut).toHaveLength(0);
  });
});

describe('a rib whose flanks taper', () => {
  it('has the edges of what is pressed in beside it sawn off square', () => {
    // 20 wider at the skin on each side, 30 proud: atan(10 / 30)
    const project = withRibs(wren, [
      { id: 'a', tapers: true, of: { x: 800, width: 50, proud: 30, foot: 70 } },
      { id: 'b', of: { x: 1400, width: 50, proud: 30 } },
    ]);
    const piece = between(derive(project, wren.priceBook));
    expect(piece.bevels.front).toBeCloseTo((Math.atan(10 / 30) * 180) / Math.PI, 6);
    expect(piece.bevels.rear).toBe(0);
    expect(piece.low).toBeCloseTo(550, 6);
  });
});
