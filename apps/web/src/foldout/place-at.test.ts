import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { derive } from '@nestplank/core/derive';
import { halfWidth, wallTop } from '@nestplank/core/shell';
import { readProjectFile } from '@nestplank/core/formats';
import demo from '../../../../demo/bulrush.json?raw';
import { foldOutFrame, onWall, placeAt, screenX, screenY } from './geometry.js';

const { project, priceBook } = readProjectFile(demo);
const { shell } = derive(project, priceBook);
if (!shell) throw new Error('the demo has a shell');
const frame = foldOutFrame(shell, 660, 690);
const share = fc.double({ min: 0.02, max: 0.98, noNaN: true });

describe('the place at a point of the fold-out', () => {
  it('a place on a wall that is drawn is found again where it is drawn', () => {
    fc.assert(
      fc.property(share, share, fc.constantFrom('left' as const, 'right' as const), (along, up, side) => {
        const x = along * shell.length;
        const z = shell.floor + up * (wallTop(shell, side, x) - shell.floor);
        const found = placeAt(frame, false, onWall(frame, side, x, z));
        expect(found?.surface).toBe(side);
        expect(Math.abs((found?.x ?? 0) - x)).toBeLessThanOrEqual(1);
        expect(Math.abs((found?.along ?? 0) - z)).toBeLessThanOrEqual(2);
      }),
      { seed: 7, numRuns: 200 },
    );
  });
  it('the middle is the floor, or the ceiling when that is drawn', () => {
    const at: [number, number] = [screenX(frame, -120), screenY(frame, 1500)];
    expect(placeAt(frame, false, at)).toEqual({ surface: 'floor', x: 1500, along: -120 });
    expect(placeAt(frame, true, at)).toEqual({ surface: 'ceiling', x: 1500, along: -120 });
  });
  it('between floor and wall is the foot of the wall', () => {
    const y = screenY(frame, 1500);
    expect(placeAt(frame, false, [screenX(frame, halfWidth(shell, 'right', 1500, shell.floor)) + 6, y])).toEqual({
      surface: 'right',
      x: 1500,
      along: Math.round(shell.floor),
    });
  });
  it('above a wall, before the front and behind the rear there is none', () => {
    const y = screenY(frame, 1500);
    expect(placeAt(frame, false, [frame.leftEdge - 8, y])).toBeNull();
    expect(placeAt(frame, false, [frame.centre, frame.top - 5])).toBeNull();
    expect(placeAt(frame, false, [frame.centre, frame.top + frame.height + 5])).toBeNull();
  });
});
