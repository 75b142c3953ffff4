import { describe, expect, it } from 'vitest';
import { derive } from '@nestplank/core/derive';
import { walkOf } from '@nestplank/core/measure';
import { readProjectFile } from '@nestplank/core/formats';
import demo from '../../../../demo/wren.json?raw';
import { nextId } from '../stages/measure/next-id.js';
import { readValue, unitWord, valueText, valueTextUnit } from '../kit/read-value.js';
import { speechFor } from '../words/words.js';
import { foldOutFrame, screenX, screenY } from './geometry.js';
import { tapeEnds } from './tape-ends.js';

const { project, priceBook } = readProjectFile(demo);
const { shell, arches } = derive(project, priceBook);
if (!shell) throw new Error('the demo has a shell');
const frame = foldOutFrame(shell, 660, 690);
const where = { frame, survey: project.survey, arches };
const ends = (address: string) => tapeEnds(where, address);

describe('the ends of the tape on the fold-out', () => {
  it('lie inside the drawing for every reading of walls, floor, ribs, arches, openings and keep-outs', () => {
    const drawn = walkOf(project.survey).filter((address) => ends(address) !== null);
    expect(drawn.length).toBeGreaterThan(150);
    for (const address of drawn)
      for (const [x, y] of ends(address) ?? []) {
        expect(x).toBeGreaterThanOrEqual(frame.leftEdge - 1);
        expect(x).toBeLessThanOrEqual(frame.rightEdge + 1);
        expect(y).toBeGreaterThanOrEqual(frame.top - 1);
        expect(y).toBeLessThanOrEqual(frame.top + frame.height + 1);
      }
  });
  it('of a wall reading go from the centre line to the wall at that height', () => {
    const [from, to] = ends('station/s3/left/700') ?? [];
    expect(from).toEqual([screenX(frame, 0), screenY(frame, 1380)]);
    expect(to?.[1]).toBe(screenY(frame, 1380));
    expect(to?.[0] ?? 0).toBeLessThan(frame.leftFoot);
    const higher = ends('station/s3/left/1400')?.[1];
    expect(higher?.[0] ?? 0).toBeLessThan(to?.[0] ?? 0);
  });
  it('of the length run down the centre line, of a diagonal from corner to corner', () => {
    expect(ends('floor/length')).toEqual([
      [frame.centre, frame.top],
      [frame.centre, frame.top + frame.height],
    ]);
    const [a, b] = ends('floor/diagonal-a') ?? [];
    expect((a?.[0] ?? 0) < frame.centre && (b?.[0] ?? 0) > frame.centre).toBe(true);
  });
  it('of an arch and a hole are where these are', () => {
    expect(ends('arch/a1/from')?.[1]).toEqual([screenX(frame, -695), screenY(frame, 2585)]);
    expect(ends('hole/p1/x')?.[1]).toEqual([screenX(frame, -620), screenY(frame, 1480)]);
    expect(ends('keepout/k1/right')?.[1]?.[0]).toBe(screenX(frame, -180));
  });
  it('are none for what has no place yet', () => {
    expect(ends('opening/o6/from')).toBeNull();
    expect(ends('angle/g1/raw')).toBeNull();
    expect(ends('nonsense')).toBeNull();
  });
});

describe('figures of a reading', () => {
  const [mm, inches] = [speechFor({ units: 'mm', fraction: 16 }), speechFor({ units: 'in', fraction: 16 })];
  it('are lengths in the reader’s units, or slopes', () => {
    expect(readValue('36 1/2', 'floor/length', inches)).toEqual({ ok: true, value: 927.1 });
    expect(readValue('1.5', 'level/along', inches)).toEqual({ ok: true, value: 1.5 });
    expect(readValue('9 mm', 'level/along', mm).ok).toBe(false);
    expect([unitWord('level/along', mm), unitWord('floor/length', inches)]).toEqual(['°', 'in']);
    expect([valueText(1.26, 'angle/g1/raw', mm), valueTextUnit(25.4, 'floor/length', inches)]).toEqual([
      '1.3°',
      '1\u00a0in',
    ]);
  });
});

describe('a free id', () => {
  it('is one more than the largest of its kind', () => {
    expect(nextId('k', [])).toEqual({ id: 'k1', number: 1 });
    expect(nextId('k', [{ id: 'k2' }, { id: 'k9' }, { id: 'kx' }, { id: 'p30' }])).toEqual({ id: 'k10', number: 10 });
  });
});
