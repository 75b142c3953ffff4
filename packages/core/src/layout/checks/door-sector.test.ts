import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { DoorMotion } from '../../furniture/motions.js';
import type { SolidBox } from '../../rules/room.js';
import { message } from '../../words/message.js';
import { clearOfDoor, TOUCH_MM } from './moving.js';

const door = (range: readonly [number, number], reach = 500): DoorMotion => ({
  kind: 'hinge',
  about: 'z',
  of: 'unit.bay-1.door-1',
  name: message('motion.door'),
  shut: { x0: 0, x1: reach, y0: -9, y1: 9, z0: 0, z1: 700 },
  latch: true,
  before: 0,
  at: [0, 0],
  range,
  reach,
});
const box = (x0: number, x1: number, y0: number, y1: number): SolidBox => ({ x0, x1, y0, y1, z0: 0, z1: 700 });

/** The search goes by less than a fifth of a degree, and by millimetres. */
const STEPS = 1500;

describe('how far from its hinge a door meets something', () => {
  it('is the nearest point of it that the door sweeps over', () => {
    // opens from along x to along y: a box straight ahead of the hinge, and one beside where it opens to
    expect(clearOfDoor(door([0, 90]), box(-50, 50, 300, 400))).toBeCloseTo(300 + TOUCH_MM, 6);
    expect(clearOfDoor(door([0, 90]), box(200, 260, 150, 300))).toBeCloseTo(
      Math.hypot(200 + TOUCH_MM, 150 + TOUCH_MM),
      6,
    );
  });
  it('is not that of a part of it that stands behind the hinge', () => {
    // the nearest point stands behind the door: it meets the box where it comes to stand, 150 before the hinge
    expect(clearOfDoor(door([0, 60]), box(-100, 300, 150, 200))).toBeCloseTo(
      (150 + TOUCH_MM) / Math.sin(Math.PI / 3),
      6,
    );
    expect(clearOfDoor(door([0, 60]), box(-300, -20, -40, 200))).toBe(500);
  });
  it('is all of its reach where something stands farther off, and nothing where it stands at the hinge', () => {
    expect(clearOfDoor(door([0, 90]), box(400, 600, 400, 600))).toBe(500);
    expect(clearOfDoor(door([0, 90]), box(-50, 50, -50, 50))).toBe(0);
    expect(clearOfDoor(door([90, 0]), box(-50, 50, 300, 400))).toBeCloseTo(300 + TOUCH_MM, 6);
  });
  it('is what a fine search over the sector finds, whichever way and however far it opens', () => {
    const length = fc.integer({ min: -600, max: 600 });
    fc.assert(
      fc.property(
        length,
        length,
        fc.integer({ min: 20, max: 500 }),
        fc.integer({ min: 20, max: 500 }),
        fc.integer({ min: -180, max: 180 }),
        fc.integer({ min: 20, max: 270 }),
        (x, y, long, wide, from, turn) => {
          const one = box(x, x + long, y, y + wide);
          let least = 500;
          // what only touches does not count
          const inside = (px: number, py: number): boolean =>
            px > one.x0 + TOUCH_MM && px < one.x1 - TOUCH_MM && py > one.y0 + TOUCH_MM && py < one.y1 - TOUCH_MM;
          for (let i = 0; i <= STEPS; i += 1) {
            const angle = ((from + (turn * i) / STEPS) * Math.PI) / 180;
            const [c, s] = [Math.cos(angle), Math.sin(angle)];
            for (let r = 0; r < least; r += 1) if (inside(r * c, r * s)) least = r;
          }
          const found = clearOfDoor(door([from, from + turn]), one);
          expect(Math.abs(found - least) < 8 || (found > 490 && least > 490), `${found} ${least}`).toBe(true);
        },
      ),
      { seed: 9, numRuns: 50 },
    );
  });
});
