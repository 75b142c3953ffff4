import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, describe, expect, it } from 'vitest';
import { derive } from '@nestplank/core/derive';
import { readProjectFile } from '@nestplank/core/formats';
import { plank } from './plank.fixture.js';

const root = fileURLToPath(new URL('../../..', import.meta.url));
const folder = mkdtempSync(join(tmpdir(), 'nest-plank-layout-'));
const at = (name: string): string => join(folder, name);
const demo = (name: string): string => join(root, `demo/${name}.json`);
const told = <T>(...args: string[]): T => JSON.parse(plank(...args).out) as T;

describe('a layout on the command line', () => {
  afterAll(() => rmSync(folder, { recursive: true, force: true }));

  it('tells the gaps, with what fits there, best first', () => {
    const file = JSON.parse(readFileSync(demo('wren'), 'utf8')) as { project: { layout: { units: { id: string }[] } } };
    file.project.layout.units = file.project.layout.units.filter(({ id }) => id !== 'tall');
    writeFileSync(at('roomy.json'), JSON.stringify(file));
    const gaps = told<
      { where: string; zone: string; from: number; to: number; fits: { family: string; fits: number }[] }[]
    >('gaps', at('roomy.json'));
    const front = gaps.find(({ where, zone, from }) => where === 'left' && zone === 'floor' && from === 0);
    expect(front?.to).toBe(690);
    expect(front?.fits.map(({ fits }) => fits)).toEqual(
      [...(front?.fits ?? [])].map(({ fits }) => fits).sort((a, b) => b - a),
    );
    expect(front?.fits[0]?.family).toBe('tall-cupboard');
  });
  it('mends the bus, says what it changed, and writes it', () => {
    const { code, out } = plank('mend', demo('bulrush'), '-o', at('mended.json'));
    expect(code).toBe(0);
    const mended = JSON.parse(out) as { changed: { because: string; done: string }[]; left: unknown[] };
    expect(mended.left).toEqual([]);
    // in the words and the inches of the bus
    expect(mended.changed.map(({ because }) => because).join()).toMatch(/Puppet chest stands on the Right arch/);
    expect(mended.changed.map(({ done }) => done).join()).toMatch(/\d\sin\b/);
    const { project, priceBook } = readProjectFile(readFileSync(at('mended.json'), 'utf8'));
    expect(derive(project, priceBook).checks.filter(({ grade, aside }) => grade === 'fails' && aside === null)).toEqual(
      [],
    );
    expect(plank('check', at('mended.json'), '--only', 'rules').code).toBe(0);
    const compared = told<{ differences: string[]; figures: { fails: number }[] }>(
      'compare',
      demo('bulrush'),
      at('mended.json'),
    );
    expect(compared.figures.map(({ fails }) => fails > 0)).toEqual([true, false]);
    expect(compared.differences.join('; ')).toContain('Puppet chest begins at');
  });
  it('tells the modes of the trailer and how one comes from each to the next', () => {
    const modes = told<
      { id: string; standing: number; floorM2: number; then: { mode: string; steps: { what: string }[] } }[]
    >('modes', demo('thimble'));
    expect(modes.map(({ id, then }) => [id, then.mode, then.steps.length])).toEqual([
      ['night', 'day', 1],
      ['day', 'charts', 1],
      ['charts', 'drive', 1],
      ['drive', 'night', 1],
    ]);
    expect(modes[0]?.then.steps[0]?.what).toBe('Bed, drawn out');
  });
  it('weighs, and says nothing that is not known', () => {
    const weighed = told<{
      total: number;
      front: number;
      rear: number;
      added: number;
      noseShare: number | null;
      emptyTanks: Record<string, number>;
    }>('weigh', demo('wren'));
    expect(weighed.front + weighed.rear).toBeCloseTo(weighed.total, 0);
    expect(weighed.total).toBeCloseTo(2140 + weighed.added, 0);
    // a van rests on no coupling; a trailer's share is that of the axle load over all of it
    expect(weighed.noseShare).toBeNull();
    const trailer = told<typeof weighed>('weigh', demo('thimble'));
    expect(trailer.noseShare).toBeCloseTo(trailer.front / trailer.total, 2);
    for (const { noseShare, emptyTanks } of [weighed, trailer])
      for (const value of [noseShare ?? 0, ...Object.values(emptyTanks)])
        expect(value).toBe(Math.round(value * 1000) / 1000);
  });
  it('suggests arrangements that pass, each as a file, the same for the same seed', () => {
    writeFileSync(at('wishes.json'), JSON.stringify({ must: ['bed-platform', 'base-run', 'seat'] }));
    const { code, out } = plank(
      'suggest',
      demo('wren'),
      at('wishes.json'),
      '--seconds',
      '8',
      '--seed',
      '3',
      '-o',
      at('found'),
    );
    expect(code).toBe(0);
    const { proposals } = JSON.parse(out) as { proposals: { file: string; score: number }[] };
    expect(readdirSync(at('found')).sort()).toEqual(proposals.map(({ file }) => file).sort());
    for (const { file } of proposals) {
      const { project, priceBook } = readProjectFile(readFileSync(join(at('found'), file), 'utf8'));
      expect(
        derive(project, priceBook).checks.filter(({ grade, aside }) => grade === 'fails' && aside === null),
      ).toEqual([]);
    }
  }, 60_000);
  it.each([
    ['a family there is not', { must: ['sofa'] }, /there is no “sofa”/],
    ['a thing there is not', { must: ['seat'], things: ['anvil'] }, /no thing called “anvil”/],
    ['nothing wanted', { must: [] }, /must/],
    ['a weight out of range', { must: ['seat'], weights: { storage: -1 } }, /weights/],
  ] as const)('refuses wishes with %s, in one line', (_what, wishes, line) => {
    writeFileSync(at('bad.json'), JSON.stringify(wishes));
    const { code, err } = plank('suggest', demo('wren'), at('bad.json'), '-o', at('none'));
    expect(code).toBe(2);
    expect(err.trim().split('\n')).toHaveLength(1);
    expect(err).toMatch(line);
  });
});
