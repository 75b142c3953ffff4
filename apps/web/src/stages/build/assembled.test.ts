import { describe, expect, it } from 'vitest';
import { assembled, seenAt, windowOf } from './assembled.js';

const box = (id: string, y: number) => ({
  id,
  thickness: 12,
  outline: { outer: [[0, 0] as const, [600, 0] as const, [600, 400] as const, [0, 400] as const], holes: [] },
  // upright, along the vehicle, its good face to the left
  place: {
    origin: [1000, y, 0] as const,
    along: [1, 0, 0] as const,
    across: [0, 0, 1] as const,
    thick: [0, 1, 0] as const,
  },
});

describe('boards put together', () => {
  it('draws what is farther first, whichever way one looks', () => {
    const order = (turn: number): string[] =>
      assembled([box('left', -300), box('right', 300)], turn)
        .filter(({ edge }) => !edge)
        .map(({ part }) => part);
    expect(order(0)).toEqual(['right', 'left']);
    expect(order(Math.PI)).toEqual(['left', 'right']);
  });
  it('is true to scale along the drawing, and higher things are higher', () => {
    const [low, high] = [seenAt([0, 0, 0], 0), seenAt([0, 0, 1000], 0)];
    expect(high.at[1]).toBeLessThan(low.at[1]);
    expect(seenAt([500, 0, 0], 0).at[0] - low.at[0]).toBeCloseTo(500, 9);
    // nearer to the eye is lower on the drawing
    expect(seenAt([0, -500, 0], 0).at[1]).toBeGreaterThan(low.at[1]);
  });
  it('shows one broad face of each board, and its edges', () => {
    const faces = assembled([box('a', 0)], 0.5);
    expect(faces.filter(({ edge }) => !edge)).toHaveLength(1);
    expect(faces.length).toBeGreaterThan(3);
    const { width, height } = windowOf(faces);
    expect(width).toBeGreaterThan(400);
    expect(height).toBeGreaterThan(300);
  });
  it('draws a rail under a top before the top, though its middle is nearer', () => {
    const level = (id: string, y: number, z: number, across: number, length: number) => ({
      id,
      thickness: 18,
      outline: {
        outer: [[0, 0] as const, [length, 0] as const, [length, across] as const, [0, across] as const],
        holes: [],
      },
      place: {
        origin: [0, y, z] as const,
        along: [1, 0, 0] as const,
        across: [0, 1, 0] as const,
        thick: [0, 0, 1] as const,
      },
    });
    const top = level('top', 0, 900, 600, 1400);
    const rail = level('rail', 20, 882, 80, 1400);
    for (const turn of [0, 0.45, 2, Math.PI, 4])
      for (const list of [
        [top, rail],
        [rail, top],
      ]) {
        const order = [...new Set(assembled(list, turn).map(({ part }) => part))];
        expect(order).toEqual(['rail', 'top']);
      }
  });
});
