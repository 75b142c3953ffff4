import { describe, expect, it } from 'vitest';
import bulrushFile from '../../../../../demo/bulrush.json?raw';
import wrenFile from '../../../../../demo/wren.json?raw';
import { derive } from '../../derive/again.fixture.js';
import type { BoxChoice, ProjectFile } from '../../document/schema.js';
import { readProjectFile } from '../../formats/read.js';
import { applyOperation } from '../../furniture/kit.js';
import { boxOf } from '../../numeric/plane.js';
import { blankOf, type Part } from '../../parts/part.js';

const wren = readProjectFile(wrenFile);
const bulrush = readProjectFile(bulrushFile);
const made = ({ project, priceBook }: ProjectFile, changes: Partial<BoxChoice>) =>
  derive(applyOperation(project, { name: 'changeBoxes', payload: { changes } }).project, priceBook);
const partIn = (parts: readonly Part[], id: string): Part => {
  const found = parts.find((part) => part.id === id);
  if (!found) throw new Error(id);
  return found;
};

describe('boards of boxes that are scribed', () => {
  const exact = made(wren, { scribe: 0 });
  const left = made(wren, { scribe: 6 });

  it('are larger by the allowance at the window and at the wall, with the true lines on them', () => {
    for (const name of ['sill', 'head', 'front', 'rear']) {
      const [a, b] = [exact, left].map((derived) => partIn(derived.parts, `window-o1-${name}`));
      if (!a || !b) throw new Error(name);
      expect(blankOf(b).length).toBeCloseTo(blankOf(a).length, 6);
      expect(blankOf(b).width).toBeCloseTo(blankOf(a).width + 12, 6);
      const [back, front] = ['back', 'front'].map((at) => b.edges.find((edge) => edge.at === at));
      expect([back?.kind, front?.kind]).toEqual(['scribe', 'scribe']);
      // the window's line lies one allowance inside, the wall's where the exact board ended
      expect(back?.trueLine.every(([, y]) => Math.abs(y - 6) < 1e-6)).toBe(true);
      expect(boxOf(front?.trueLine ?? []).maxY).toBeCloseTo(blankOf(a).width + 6, 6);
      // what lies on the line stays in its place in the vehicle: the corner moved out by the allowance
      const moved = a.place.origin.map((value, i) => value - (b.place.origin[i] ?? 0));
      expect(Math.hypot(...moved)).toBeCloseTo(6, 6);
    }
    // the clear opening is what it was
    expect(left.lined.windowBoxes[0]?.clear).toEqual(exact.lined.windowBoxes[0]?.clear);
  });

  it('keep their bevel where the edge had one', () => {
    const edgeOf = (derived: typeof exact) =>
      partIn(derived.parts, 'window-o1-sill').edges.find(({ at }) => at === 'front');
    expect(edgeOf(left)?.bevel).toEqual(edgeOf(exact)?.bevel);
    expect(Math.abs(edgeOf(exact)?.bevel.most ?? 0)).toBeGreaterThan(0);
  });

  it('are so at arches too, but not where a lid has its play', () => {
    const topOf = (changes: Partial<BoxChoice>) =>
      made(bulrush, changes).parts.find((part) => part.role === 'arch-top');
    const [plain, scribed, lid, plainLid] = [
      topOf({ access: 'fixed', scribe: 0 }),
      topOf({ access: 'fixed', scribe: 8 }),
      topOf({ access: 'lid', scribe: 8 }),
      topOf({ access: 'lid', scribe: 0 }),
    ];
    expect(scribed && plain && blankOf(scribed).width - blankOf(plain).width).toBeCloseTo(8, 6);
    expect(lid?.outline).toEqual(plainLid?.outline);
    const ends = made(bulrush, { scribe: 8 }).parts.filter((part) => part.role === 'arch-end');
    for (const end of ends) expect(end.edges.map(({ kind, at }) => [kind, at])).toEqual([['scribe', 'back']]);
  });
});

describe('what boxes are put together with', () => {
  it('is told as it is bought', () => {
    for (const file of [wren, bulrush]) {
      const derived = made(file, {});
      const need = new Map<string, number>();
      for (const { items } of derived.lined.boxesHeld)
        for (const { item, amount } of items) need.set(item, (need.get(item) ?? 0) + amount);
      expect(need.size).toBeGreaterThan(0);
      // without boxes so much less is bought of each
      const without = derive(
        {
          ...file.project,
          boxes: { ...file.project.boxes, arches: [], board: 'none' },
          headers: [],
        },
        file.priceBook,
      );
      const bought = (shopping: typeof derived.shopping, item: string): number =>
        shopping.lines.filter(({ material }) => material === item).reduce((sum, { amount }) => sum + amount, 0);
      for (const [item, amount] of need)
        expect([item, bought(derived.shopping, item) - bought(without.shopping, item)]).toEqual([
          item,
          expect.closeTo(amount, 6),
        ]);
    }
  });

  it('is two screws and more at each corner of a window, by the depth there, and a brad every 200 of trim', () => {
    const derived = made(wren, { scribe: 0 });
    const [box] = derived.lined.windowBoxes;
    const held = derived.lined.boxesHeld.find(({ of }) => of === box?.opening);
    // reveals are less deep than 300, so each of the four corners has two screws
    expect(
      Math.max(...(box?.parts ?? []).filter(({ role }) => role === 'reveal').map((p) => blankOf(p).width)),
    ).toBeLessThan(300);
    const corners = held?.items.find(({ use }) => use === 'corners');
    expect(corners?.amount).toBe(8);
    // a screw of 3.5 would split the edge of a board of 9: it is pinned
    expect(wren.priceBook.items.find(({ id }) => id === corners?.item)?.fastener?.kind).toBe('brad');
    const thick = made(wren, { board: 'birch-15' }).lined.boxesHeld[0]?.items.find(({ use }) => use === 'corners');
    expect(wren.priceBook.items.find(({ id }) => id === thick?.item)?.fastener?.kind).toBe('wood');
    const trims = (box?.parts ?? []).filter(({ role }) => role === 'trim').map((part) => blankOf(part).length);
    expect(held?.items.find(({ use }) => use === 'trim')?.amount).toBe(
      trims.reduce((sum, length) => sum + Math.max(2, Math.ceil(length / 200) + 1), 0),
    );
  });

  it('is brackets for an arch, with four screws each', () => {
    const derived = made(bulrush, {});
    for (const box of derived.lined.archBoxes) {
      const held = derived.lined.boxesHeld.find(({ of }) => of === box.arch);
      const of = (use: string) => held?.items.find((item) => item.use === use)?.amount;
      expect(of('brackets')).toBe(box.brackets);
      expect(of('bracket-screws')).toBe(4 * box.brackets);
    }
  });
});

describe('curtains across the body', () => {
  const hung = (across: BoxChoice['across']) => made(wren, { across });
  const amount = (derived: ReturnType<typeof hung>, item: string): number =>
    derived.shopping.lines.filter(({ material }) => material === item).reduce((sum, line) => sum + line.amount, 0);

  it('are kept, and bought by their width and their longest drop', () => {
    const derived = hung([{ id: 'cu1', name: 'Cab', x: 600, height: 1500 }]);
    const [one] = derived.lined.curtains;
    if (!one) throw new Error('none');
    expect(amount(derived, 'curtain-track')).toBeCloseTo(one.curtain.width / 1000, 9);
    const drop = Math.max(...one.curtain.drops.map((part) => part.drop));
    expect(amount(derived, 'curtain-cloth')).toBeCloseTo((1.5 * one.curtain.width * (drop + 150)) / 1e6, 9);
    expect(amount(hung([]), 'curtain-track')).toBe(0);
  });

  it('are named at their place, and not bought, where the rail would be above the ceiling', () => {
    const derived = hung([{ id: 'cu1', name: 'Cab', x: 600, height: 2600 }]);
    expect(derived.problems.find(({ place }) => place === 'cu1')?.said.key).toBe('curtain.high');
    expect(amount(derived, 'curtain-track')).toBe(0);
  });
});
