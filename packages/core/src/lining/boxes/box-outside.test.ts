import { describe, expect, it } from 'vitest';
import wrenFile from '../../../../../demo/wren.json?raw';
import { derive } from '../../derive/again.fixture.js';
import { readProjectFile } from '../../formats/read.js';
import type { Opening, Project } from '../../document/schema.js';
import { startPriceBook } from '../../materials/start-book.js';
import { openingRing, type PlacedOpening } from '../../shell/openings.js';
import { seededRandom } from '../../numeric/random.js';
import { boxOutside } from './box-outside.js';

const OPENING: Opening = {
  id: 'o',
  name: 'O',
  kind: 'window',
  surface: 'left',
  cornerRadius: 0,
  swing: 'fixed',
  hand: 'none',
  slanted: false,
  framed: true,
  ring: null,
};
const opening = (cornerRadius: number, lean: readonly [number, number] = [0, 0]): PlacedOpening => ({
  opening: { ...OPENING, cornerRadius },
  from: 100,
  to: 900,
  fromHead: 100 + lean[0],
  toHead: 900 + lean[1],
  sill: 1000,
  head: 1400,
});
const corners = ({ from, to, fromHead, toHead, sill, head }: ReturnType<typeof boxOutside>) =>
  [
    [from, sill],
    [to, sill],
    [toHead, head],
    [fromHead, head],
  ] as const;
const area = ({ from, to, fromHead, toHead, sill, head }: ReturnType<typeof boxOutside>): number =>
  ((to - from + toHead - fromHead) / 2) * (head - sill);

/** How far a place lies out of the metal's edge at its rounded corners, read by circles: below zero it is inside. */
function outOfRounding(placed: PlacedOpening, [x, z]: readonly [number, number]): number {
  const { cornerRadius: r } = placed.opening;
  const side = (at: number, low: number, high: number): number =>
    low + ((high - low) * (at - placed.sill)) / (placed.head - placed.sill);
  const front = { lean: (placed.fromHead - placed.from) / (placed.head - placed.sill) };
  const rear = { lean: (placed.toHead - placed.to) / (placed.head - placed.sill) };
  // middles of the circles, r off both edges
  const middles = [placed.sill + r, placed.head - r].flatMap((mz) => [
    [side(mz, placed.from, placed.fromHead) + r * Math.hypot(1, front.lean), mz] as const,
    [side(mz, placed.to, placed.toHead) - r * Math.hypot(1, rear.lean), mz] as const,
  ]);
  const [a, b, c, d] = middles as [
    readonly [number, number],
    readonly [number, number],
    readonly [number, number],
    readonly [number, number],
  ];
  // the distance to the four-cornered core less the radius: the opening is that core swollen by it
  const ring = [a, b, d, c];
  const inside = ring.every((p, i) => {
    const q = ring[(i + 1) % 4] ?? p;
    return (q[0] - p[0]) * (z - p[1]) - (q[1] - p[1]) * (x - p[0]) >= 0;
  });
  const off = Math.min(
    ...ring.map((p, i) => {
      const q = ring[(i + 1) % 4] ?? p;
      const [dx, dz] = [q[0] - p[0], q[1] - p[1]];
      const t = Math.min(1, Math.max(0, ((x - p[0]) * dx + (z - p[1]) * dz) / (dx * dx + dz * dz || 1)));
      return Math.hypot(x - p[0] - t * dx, z - p[1] - t * dz);
    }),
  );
  return (inside ? -off : off) - r;
}

describe('the outside of a box in an opening', () => {
  it('is the opening itself where its corners are square', () => {
    expect(boxOutside(opening(0), false)).toEqual({
      from: 100,
      to: 900,
      fromHead: 100,
      toHead: 900,
      sill: 1000,
      head: 1400,
    });
    expect(boxOutside(opening(0, [80, 0]), false)).toMatchObject({ from: 100, fromHead: 180 });
  });
  it('stands inside rounded corners: 800 x 400 with 60, by hand', () => {
    // the largest: corners on the arcs where tan = 800 / 400, so 60 (1 - cos 63.4) = 33.2 and 60 (1 - sin 63.4) = 6.3
    const angle = Math.atan2(800, 400);
    const wanted = (800 - 120 * (1 - Math.cos(angle))) * (400 - 120 * (1 - Math.sin(angle)));
    const box = boxOutside(opening(60), false);
    expect(area(box) / wanted).toBeGreaterThan(0.995);
    // where the arc is drawn by chords it is a little inside
    expect(area(box) / wanted).toBeLessThanOrEqual(1);
    for (const corner of corners(box)) expect(outOfRounding(opening(60), corner)).toBeLessThan(0.01);
  });
  it('is the largest upright rectangle in an opening that leans, if that is asked for', () => {
    // front leaning 80 over 400: the foot of the front board may stand at 100, its head at 180
    const box = boxOutside(opening(0, [80, 0]), true);
    expect(box.from).toBe(box.fromHead);
    // area (900 - 100 - 80 h) 400 h with h = 1 at most: all of the height
    expect(box.from).toBeCloseTo(180, 3);
    expect(area(box)).toBeCloseTo(720 * 400, -1);
    // leaning 800 over 400: half of the height is best
    expect(boxOutside(opening(0, [700, 0]), true)).toMatchObject({ to: 900 });
    const half = boxOutside(opening(0, [700, 0]), true);
    expect(half.head - half.sill).toBeCloseTo((400 * 800) / 700 / 2, 1);
  });
  it('never reaches into the metal, and leaves no more than it must', () => {
    const random = seededRandom(34);
    for (let n = 0; n < 80; n += 1) {
      const lean = n % 2 === 0 ? ([0, 0] as const) : ([(random() - 0.5) * 240, (random() - 0.5) * 240] as const);
      const placed = opening(5 + random() * 150, lean);
      for (const upright of [false, true]) {
        const box = boxOutside(placed, upright);
        const out = corners(box).map((corner) => outOfRounding(placed, corner));
        expect([n, upright, Math.max(...out) < 0.01]).toEqual([n, upright, true]);
        // it touches: chords of an arc lie inside it by no more than a hundredth of the radius
        expect([n, upright, Math.max(...out) > -0.02 * placed.opening.cornerRadius]).toEqual([n, upright, true]);
        if (upright) expect(box).toMatchObject({ fromHead: box.from, toHead: box.to });
      }
      expect(openingRing(placed, 0, placed.opening.cornerRadius).length).toBeGreaterThan(8);
    }
  });
});

describe('a window whose corners are read', () => {
  const file = readProjectFile(wrenFile);
  const book = startPriceBook();
  const read = (corner: number): Project => ({
    ...file.project,
    survey: {
      ...file.project.survey,
      readings: {
        ...file.project.survey.readings,
        'opening/o1/corner': [{ value: corner, method: 'tape', at: '2026-10-02T08:00:00.000Z' }],
      },
    },
  });
  const boxOf = (project: Project) =>
    derive(project, book).lined.windowBoxes.find(({ opening: id }) => id === 'o1')?.outside;
  it('has the box that the reading gives, whatever was entered before', () => {
    expect(boxOf(read(0))).toMatchObject({ sill: 985, head: 1440 });
    const round = boxOf(read(120));
    expect((round?.to ?? 0) - (round?.from ?? 0)).toBeLessThan(800 - 60);
  });
  it('has its lining cut to the box, and what holds that beside the metal', () => {
    const derived = derive(read(60), book);
    const cut = derived.lined.linings
      .find(({ surface }) => surface === 'left')
      ?.ground.openings.find(({ id }) => id === 'o1');
    const box = derived.lined.windowBoxes.find(({ opening: id }) => id === 'o1');
    const us = (ring: readonly (readonly [number, number])[] | undefined) => (ring ?? []).map(([u]) => u);
    const undersize = file.project.linings.left?.undersize ?? 10;
    expect(Math.min(...us(cut?.ring)) - undersize).toBeCloseTo(box?.outside.from ?? 0, 3);
    expect(Math.min(...us(cut?.real))).toBeCloseTo(1010, 3);
  });
});
