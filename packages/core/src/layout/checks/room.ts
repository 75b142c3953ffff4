import { endOf, frontLineOf, isAt } from '../../document/body.js';
import { familyNamed } from '../../document/kit.js';
import { appliesTo, changeUnit, type Pin, type Scene } from '../../furniture/scene.js';
import { wholeUp } from '../../numeric/tolerance.js';
import { solidBox } from '../../furniture/solid.js';
import { spread } from '../../numeric/plane.js';
import { wayThroughRule } from '../../rules/people.js';
import { collisionRule, insideRule, overlapOf } from '../../rules/room.js';
import { halfWidth, roofHeight } from '../../shell/shell.js';
import { message, mm } from '../../words/message.js';

/** Length, height and depth of the room against each unit. */
const inside = appliesTo(insideRule, {
  ofUnit: (unit, scene) => {
    const { inner } = scene;
    const { x, length, to } = unit.body;
    const end = endOf(unit);
    const pin: Pin = { unit: unit.id, person: null, x: Math.min(Math.max(x, 0), inner.length), y: 0 };
    const room = inner.length - inner.start;
    const by = x < inner.start ? inner.start - x : inner.length - end;
    const roof = Math.min(...spread(x, end, 5).map((at) => roofHeight(inner, at, 0)));
    const line = frontLineOf(unit);
    const name = unit.name;
    return [
      {
        id: `inside:${unit.id}`,
        input: { start: x - inner.start, end: end - inner.start, room, name, what: 'length' as const },
        pin,
        quiet: true,
        mend: () =>
          length <= room
            ? {
                said: message(by < 0 ? 'mend.forward' : 'mend.rearward', { by: mm(Math.abs(by)) }),
                operations: [changeUnit(unit, { x: x + by })],
              }
            : {
                said: message('mend.shorten', { to: mm(Math.floor(room)) }),
                operations: [changeUnit(unit, { x: inner.start, length: Math.floor(room) })],
              },
      },
      {
        id: `under-roof:${unit.id}`,
        input: { start: 0, end: to, room: roof - inner.floor, name, what: 'height' as const },
        pin,
        quiet: true,
      },
      ...(line
        ? [
            {
              id: `depth:${unit.id}`,
              input: {
                start: 0,
                end: LEAST_DEPTH_MM,
                room:
                  Math.min(
                    ...spread(x, end, 7).map((at) =>
                      Math.min(
                        halfWidth(inner, line.side, at, inner.floor),
                        halfWidth(inner, line.side, at, inner.floor + to),
                      ),
                    ),
                  ) - line.front,
                name,
                what: 'depth' as const,
              },
              pin: { unit: unit.id, person: null, x: x + length / 2, y: line.sign * line.front },
              quiet: true,
            },
          ]
        : []),
    ];
  },
});
/** A unit less deep than this is of no use, mm. */
const LEAST_DEPTH_MM = 100;

const collision = appliesTo(collisionRule, {
  ofRoom: ({ units, inner, families }) => {
    const boxes = units.map((unit) => ({ unit, box: solidBox(unit, inner, families) }));
    return boxes.flatMap((a, i) =>
      boxes.slice(i + 1).flatMap((b) => {
        const overlap = overlapOf(a.box, b.box);
        if (!overlap) return [];
        const front = a.unit.body.x <= b.unit.body.x ? a.unit : b.unit;
        const forward = wholeUp(overlap.x);
        return [
          {
            id: `collision:${a.unit.id}:${b.unit.id}`,
            input: { a: a.box, b: b.box, nameA: a.unit.name, nameB: b.unit.name },
            pin: {
              unit: a.unit.id,
              person: null,
              x: (Math.max(a.box.x0, b.box.x0) + Math.min(a.box.x1, b.box.x1)) / 2,
              y: (Math.max(a.box.y0, b.box.y0) + Math.min(a.box.y1, b.box.y1)) / 2,
            },
            mend: () =>
              front.body.x - forward >= inner.start
                ? {
                    said: message('mend.moveForward', { name: front.name, by: mm(forward) }),
                    operations: [changeUnit(front, { x: front.body.x - forward })],
                  }
                : null,
          },
        ];
      }),
    );
  },
});

const HIP_MM = 900;

/** The narrowest way between fronts on both sides, or a front and the wall, at hip height; null where there is none to walk past. */
export function narrowestWay({ units, inner, families }: Pick<Scene, 'units' | 'inner' | 'families'>): {
  readonly width: number;
  readonly x: number;
  readonly y: number;
} | null {
  const fronts = units.flatMap((unit) => {
    const line = frontLineOf(unit);
    return line
      ? [{ unit, side: line.side, at: line.front - (familyNamed(families, unit.family)?.overhang?.(unit) ?? 0) }]
      : [];
  });
  const free = (side: 'left' | 'right', x: number): number =>
    Math.min(
      halfWidth(inner, side, x, inner.floor + HIP_MM),
      ...fronts.filter((front) => front.side === side && isAt(front.unit, x)).map((front) => front.at),
    );
  const across = units.filter((unit) => frontLineOf(unit) === null);
  const ways = fronts
    .flatMap(({ unit }) => spread(unit.body.x, endOf(unit), 9))
    .filter((x) => x >= inner.start && x <= inner.length && !across.some((unit) => x > unit.body.x && x < endOf(unit)))
    .map((x) => ({ width: free('left', x) + free('right', x), x, y: (free('right', x) - free('left', x)) / 2 }));
  return ways.length === 0 ? null : ways.reduce((least, next) => (next.width < least.width ? next : least));
}

const way = appliesTo(wayThroughRule, {
  ofRoom: (scene) => {
    const narrow = narrowestWay(scene);
    return narrow
      ? [
          {
            id: 'way',
            input: { width: narrow.width },
            pin: { unit: null, person: null, x: narrow.x, y: narrow.y },
          },
        ]
      : [];
  },
});

/** Whether units fit the room and leave a way through. */
export const ROOM_CHECKS = [inside, collision, way];
