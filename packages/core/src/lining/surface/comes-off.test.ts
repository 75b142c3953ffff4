import { describe, expect, it } from 'vitest';
import bulrushFile from '../../../../../demo/bulrush.json?raw';
import thimbleFile from '../../../../../demo/thimble.json?raw';
import wrenFile from '../../../../../demo/wren.json?raw';
import { derive } from '../../derive/again.fixture.js';
import type { Lined, LiningChoice, ProjectFile } from '../../document/schema.js';
import { readProjectFile } from '../../formats/read.js';
import { applyOperation } from '../../furniture/kit.js';
import { boxOf, outlineArea } from '../../numeric/plane.js';

const [wren, bulrush, thimble] = [wrenFile, bulrushFile, thimbleFile].map(readProjectFile) as [
  ProjectFile,
  ProjectFile,
  ProjectFile,
];
const lined = ({ project, priceBook }: ProjectFile, surface: Lined, changes: Partial<LiningChoice>) => {
  const derived = derive(
    applyOperation(project, { name: 'changeLining', payload: { surface, changes } }).project,
    priceBook,
  );
  const lining = derived.lined.linings.find((one) => one.surface === surface);
  if (!lining) throw new Error(surface);
  return { derived, lining };
};
const pinned = ({ held }: ReturnType<typeof lined>['lining']): number =>
  held.filter(({ fixing }) => fixing.pick?.kind === 'brad').reduce((sum, one) => sum + one.count, 0);

describe('a single board that comes off again', () => {
  const whole = lined(bulrush, 'left', {});
  // the one that is seen most, with battens behind it
  const [board] = [...whole.lining.pieces].sort((a, b) => a.hidden - b.hidden);
  const part = board?.part ?? '';
  const off = lined(bulrush, 'left', { comesOff: [part] });

  it('is screwed where the others are pinned, and goes up last', () => {
    expect(off.lining.pieces.filter(({ removable }) => removable).map((piece) => piece.part)).toEqual([part]);
    expect(off.lining.order.at(-1)).toMatchObject({ part, off: true });
    const brads = pinned(whole.lining) - pinned(off.lining);
    expect(brads).toBeGreaterThan(0);
    const screws = off.lining.held
      .filter(({ by, fixing }) => by === 'timber' && fixing.pick?.kind === 'wood')
      .reduce((sum, one) => sum + one.count, 0);
    expect(screws).toBe(brads);
    // and bought so
    for (const { fixing } of off.lining.held)
      expect(off.derived.shopping.lines.some(({ material }) => material === fixing.pick?.id)).toBe(true);
  });

  it('is told when the set-out has no such piece any more', () => {
    const gone = lined(bulrush, 'ceiling', { comesOff: ['ceiling-board.row-99-from-start'] });
    expect(gone.lining.notes.map(({ key }) => key)).toContain('lining.offGone');
    expect(off.lining.notes.map(({ key }) => key)).not.toContain('lining.offGone');
  });

  it('has no caulk round it', () => {
    const sheets = lined(thimble, 'left', {});
    const [middle] = [...sheets.lining.pieces].sort((a, b) => a.hidden - b.hidden);
    const without = lined(thimble, 'left', { comesOff: [middle?.part ?? ''] });
    expect(without.lining.caulk.millilitres).toBeLessThan(sheets.lining.caulk.millilitres);
    const all = lined(thimble, 'left', { comesOff: sheets.lining.pieces.map((piece) => piece.part) });
    expect(all.lining.caulk.millilitres).toBe(0);
    expect(all.lining.held).toEqual(lined(thimble, 'left', { removable: true }).lining.held);
  });

  it('is screwed and uncaulked without being asked where wiring behind it must stay within reach', () => {
    const { lining } = lined(wren, 'left', {});
    const [own] = lining.pieces.filter(({ removable }) => removable);
    expect(lining.order.find(({ part: id }) => id === own?.part)?.behind.length).toBeGreaterThan(0);
    expect(lining.held.filter(({ fixing }) => fixing.pick === null)).toEqual([]);
  });
});

describe('inside corners of notches', () => {
  it('get the radius that a drill leaves, and outside corners stay sharp', () => {
    // a board of the ceiling is notched at two corners of the roof's openings
    const square = lined(wren, 'ceiling', { notch: 0 });
    const round = lined(wren, 'ceiling', { notch: 8 });
    const more = round.lining.pieces.map(
      (piece, i) => outlineArea(piece.outline) - outlineArea(square.lining.pieces[i]?.outline ?? piece.outline),
    );
    // a right inside corner keeps r2 (1 - pi / 4) more wood
    const corner = 8 * 8 * (1 - Math.PI / 4);
    // both corners are of one board; the others keep what they had but for what a chord leaves out
    const notched = more.filter((value) => value > 1);
    expect(notched).toHaveLength(1);
    expect(Math.abs((notched[0] ?? 0) - 2 * corner)).toBeLessThan(1.5);
    for (const value of more) expect(Math.abs(value) > 0.5).toBe(value > 1);
    for (const [i, piece] of round.lining.pieces.entries()) {
      const before = square.lining.pieces[i];
      if (!before) throw new Error('a piece is lost');
      const [a, b] = [boxOf(piece.outline.outer), boxOf(before.outline.outer)];
      for (const key of ['minX', 'maxX', 'minY', 'maxY'] as const) expect(Math.abs(a[key] - b[key])).toBeLessThan(0.1);
    }
  });
});
