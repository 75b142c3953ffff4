import { describe, expect, it } from 'vitest';
import { boxOf, outlineArea, type Outline } from '../../numeric/plane.js';
import { lipsApart } from './cavities.js';

describe('a compartment between two ribs', () => {
  it('that runs on as a lip under a window is cut as the piece and the lip', () => {
    // 500 along and 1718 up, of which a window leaves 11 over its last 180
    const outline: Outline = {
      outer: [
        [0, 0],
        [500, 0],
        [500, 11],
        [320, 11],
        [320, 1718],
        [0, 1718],
      ],
      holes: [],
    };
    const pieces = lipsApart(outline);
    expect(pieces.map(({ outer }) => boxOf(outer))).toEqual([
      { minX: 0, maxX: 320, minY: 0, maxY: 1718 },
      { minX: 320, maxX: 500, minY: 0, maxY: 11 },
    ]);
    expect(pieces.reduce((sum, piece) => sum + outlineArea(piece), 0)).toBeCloseTo(outlineArea(outline), 3);
  });
  it('that only tapers stays one piece', () => {
    const taper: Outline = {
      outer: [
        [0, 0],
        [500, 0],
        [500, 900],
        [0, 1200],
      ],
      holes: [],
    };
    expect(lipsApart(taper)).toEqual([taper]);
  });
});
