import { describe, expect, it } from 'vitest';
import { atCutOf, dividedBy, sizedAt } from './division-changes.js';
import type { BaySize, Division } from './unit-schema.js';

type Cut = Extract<Division, { cut: string }>;
const bay = (name: string): Division => ({ name, holds: { kind: 'open' }, front: { kind: 'none' } });
const cutOf = (...sizes: BaySize[]): Cut => ({
  cut: 'along',
  divider: 'board',
  sizes,
  parts: sizes.map((_, i) => bay(`bay-${i + 1}`)),
});
const share = { share: 1 };

describe('A bay that is sized', () => {
  it('takes from those that share, whatever lies beside it', () => {
    expect(sizedAt(cutOf(300, 400, share), 0, 350, undefined).sizes).toEqual([350, 400, share]);
    expect(sizedAt(cutOf(300, 400, share), 0, null, undefined).sizes).toEqual([share, 400, share]);
  });

  it('takes from the one after it where nobody shares, the last from the one before', () => {
    expect(sizedAt(cutOf(300, 400, 500), 0, 350, undefined).sizes).toEqual([350, share, 500]);
    expect(sizedAt(cutOf(300, 400, 500), 2, 450, undefined).sizes).toEqual([300, share, 450]);
    expect(sizedAt(cutOf(share, 400), 0, 350, undefined).sizes).toEqual([350, share]);
    expect(sizedAt(cutOf(300, 'as needed'), 0, 350, undefined).sizes).toEqual([350, share]);
  });
});

describe('A divider that is moved', () => {
  it('takes from the other side alone: where others share they stand still', () => {
    expect(sizedAt(cutOf(300, 400, share), 0, 350, { side: 'after', size: 350 }).sizes).toEqual([350, 350, share]);
    expect(sizedAt(cutOf(share, share, share), 1, 250, { side: 'before', size: 350 }).sizes).toEqual([350, 250, share]);
  });

  it('and leaves the other side what is left where that alone shares, or nobody', () => {
    expect(sizedAt(cutOf(300, share), 0, 350, { side: 'after', size: 250 }).sizes).toEqual([350, share]);
    expect(sizedAt(cutOf(300, 400, 500), 1, 450, { side: 'before', size: 250 }).sizes).toEqual([share, 450, 500]);
    expect(sizedAt(cutOf(share, 300), 0, 350, { side: 'after', size: 250 }).sizes).toEqual([350, share]);
  });

  it('has nobody to take from past the end of its cut', () => {
    expect(sizedAt(cutOf(300, share), 1, 350, { side: 'after', size: 250 }).sizes).toEqual([share, 350]);
  });
});

describe('Another kind of divider', () => {
  it('is taken from the bay beside where all have sizes of their own', () => {
    expect(dividedBy(cutOf(300, 400), 0, 'none')).toMatchObject({ divider: 'none', sizes: [300, share] });
    expect(dividedBy(cutOf(300, 'as needed'), 0, 'none').sizes).toEqual([300, 'as needed']);
  });

  it('is put in the innermost cut that a bay is one of', () => {
    const inner: Cut = { ...cutOf(share, share), cut: 'up', parts: [bay('low'), bay('high')] };
    const outer: Cut = { ...cutOf(300, share), parts: [bay('left'), inner] };
    const changed = atCutOf(outer, 'high', (cut, at) => dividedBy(cut, at, 'frame'));
    expect(changed).toMatchObject({ divider: 'board', parts: [{ name: 'left' }, { divider: 'frame' }] });
    expect(atCutOf(outer, 'nobody', (cut) => cut)).toBeNull();
  });

  it('or in one further out, where what the bay lies in is meant', () => {
    const inner: Cut = { ...cutOf(share, share), cut: 'up', parts: [bay('low'), bay('high')] };
    const outer: Cut = { ...cutOf(300, share), parts: [inner, bay('right')] };
    const sized = (outward: number) => atCutOf(outer, 'high', (cut, at) => sizedAt(cut, at, 350, undefined), outward);
    expect(sized(0)).toMatchObject({ sizes: [300, share], parts: [{ sizes: [share, 350] }, {}] });
    expect(sized(1)).toMatchObject({ sizes: [350, share], parts: [{ sizes: [share, share] }, {}] });
    expect(sized(2)).toBeNull();
  });
});
