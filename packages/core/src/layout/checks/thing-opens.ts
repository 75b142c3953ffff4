import type { Thing, Unit } from '../../document/schema.js';
import { deepForSlides, slidesFor } from '../../furniture/fronts.js';
import { offerBay } from '../../furniture/offer.js';
import { appliesTo, type Case, type Mend, type Scene } from '../../furniture/scene.js';
import { boardBox, type BayRoom } from '../../furniture/skeleton.js';
import { materialOf } from '../../materials/material.js';
import { spread } from '../../numeric/plane.js';
import type { SolidBox } from '../../rules/room.js';
import { thingOpensRule } from '../../rules/things.js';
import { halfWidth, roofHeight } from '../../shell/shell.js';
import { message, mm } from '../../words/message.js';
import { standingIn } from '../standing.js';
import { alone, bayName, freeBefore, inBays, pinIn } from './things.js';

/** Things that come nearer than this touch, mm. */
const TOUCH_MM = 1;
const ROOF = 'the roof';
const WALL = 'the wall';

interface Free {
  readonly clear: number;
  readonly by: string;
}

/** How much of itself a thing turns or draws out when it opens: a lid by its shorter side at least, a door by its width, a flap by its height, mm. */
function needsToOpen({ opens, width, depth, height }: Thing): number {
  if (opens === 'lid') return Math.min(width, depth);
  if (opens === 'flap') return height;
  return opens === 'drawer' ? depth : width;
}

const over = (box: SolidBox, x0: number, x1: number, y0: number, y1: number): boolean =>
  box.x0 < x1 - TOUCH_MM && box.x1 > x0 + TOUCH_MM && box.y0 < y1 - TOUCH_MM && box.y1 > y0 + TOUCH_MM;

/** What overhangs the hinges of a lid by less than this lets it open all the same, mm. */
const HINGE_MM = 40;
/** How high it is free over a thing, to the first board, unit or the roof: boards that open, and what it slides out with, are not in its way. */
function freeOver(thing: SolidBox, own: Unit, scene: Scene): Free {
  const { x0, x1, y0, y1, z1: top } = thing;
  const roof = Math.min(
    ...spread(x0, x1, 3).flatMap((x) => spread(y0, y1, 3).map((y) => roofHeight(scene.inner, x, y))),
  );
  let free: Free = { clear: Math.max(0, roof - top), by: ROOF };
  const meets = (box: SolidBox, by: string): void => {
    const clear = box.z0 - top;
    if (box.z1 > top + TOUCH_MM && clear < free.clear && over(box, x0, x1, y0, y1))
      free = { clear: Math.max(0, clear), by };
  };
  for (const board of scene.skeletons.get(own.id)?.boards ?? []) {
    if (board.moves !== undefined) continue;
    const { low, high } = boardBox(board);
    meets({ x0: low[0], x1: high[0], y0: low[1], y1: high[1], z0: low[2], z1: high[2] }, own.name);
  }
  for (const { unit, box } of standingIn(scene)) if (unit !== own) meets(box, unit.name);
  return free;
}

/** Where a thing in a bay stands while it opens: drawn out as far as its bay slides. */
function standsAs({ room, bay, into }: BayRoom, thing: Thing): SolidBox {
  const out = bay.holds.kind === 'pull-out' ? bay.holds.travel : 0;
  const middle = (room.x0 + room.x1) / 2;
  const half = Math.min(thing.width, room.x1 - room.x0) / 2;
  const deep = Math.min(thing.depth, room.y1 - room.y0);
  // at the front of its bay
  const back = out > 0 ? Math.min(HINGE_MM, deep / 2) : 0;
  const [y0, y1] =
    into > 0 ? [room.y0, room.y0 + deep - back] : into < 0 ? [room.y1 - deep + back, room.y1] : [room.y0, room.y1];
  const shift = into > 0 ? -out : into < 0 ? out : 0;
  const z0 = thing.cutOut && bay.holds.kind === 'thing' ? room.z1 - thing.height : room.z0;
  return { x0: middle - half, x1: middle + half, y0: y0 + shift, y1: y1 + shift, z0, z1: z0 + thing.height };
}

/** How far it is free before the face that a thing standing by itself looks out of. */
function freeBeforeAlone(box: SolidBox, looks: unknown, own: Unit, scene: Scene): Free {
  const { inner } = scene;
  const along = looks === 'front' || looks === 'rear';
  const ahead = looks === 'rear' || looks === 'right';
  const walls = spread(box.x0, box.x1, 3).map((x) =>
    halfWidth(inner, ahead ? 'right' : 'left', x, (box.z0 + box.z1) / 2),
  );
  let free: Free = along
    ? { clear: ahead ? inner.length - box.x1 : box.x0 - inner.start, by: WALL }
    : { clear: ahead ? Math.min(...walls) - box.y1 : box.y0 + Math.min(...walls), by: WALL };
  for (const { unit, box: other } of standingIn(scene)) {
    if (unit === own || other.z0 >= box.z1 - TOUCH_MM || other.z1 <= box.z0 + TOUCH_MM) continue;
    const beside = along
      ? other.y0 < box.y1 - TOUCH_MM && other.y1 > box.y0 + TOUCH_MM
      : other.x0 < box.x1 - TOUCH_MM && other.x1 > box.x0 + TOUCH_MM;
    const clear = along
      ? ahead
        ? other.x0 - box.x1
        : box.x0 - other.x1
      : ahead
        ? other.y0 - box.y1
        : box.y0 - other.y1;
    if (beside && clear > -TOUCH_MM && clear < free.clear) free = { clear: Math.max(0, clear), by: unit.name };
  }
  return { ...free, clear: Math.max(0, free.clear) };
}

interface Opens {
  readonly clear: number;
  readonly needs: number;
  readonly how: 'lid' | 'door' | 'flap' | 'drawer';
  readonly thing: string;
  readonly name: string;
  readonly by: string;
}
const howOf = (opens: Thing['opens']): Opens['how'] | null =>
  opens === 'no' ? null : opens === 'door-left' || opens === 'door-right' ? 'door' : opens;

/** How thick the boards of a tray in a unit are, mm: as its carcass. */
const boardThick = ({ materials }: Unit, { book }: Scene): number =>
  materialOf(book, materials['carcass'] ?? '')?.thickness ?? USUAL_MM;
const USUAL_MM = 15;

function ofBays(unit: Unit, scene: Scene): Case<Opens>[] {
  return inBays(unit, scene).flatMap(({ place, thing }): Case<Opens>[] => {
    const { bay } = place;
    const how = howOf(thing.opens);
    // what lies in the middle of a hold is lifted out to be opened
    if (how === null || (how !== 'lid' && place.into === 0 && place.end === undefined)) return [];
    const box = standsAs(place, thing);
    const before = (): Free => {
      if (bay.front.kind === 'panel') return { clear: 0, by: unit.name };
      // at the heights of the thing itself
      const { far, by } = freeBefore(unit, { ...place, room: { ...place.room, z0: box.z0, z1: box.z1 } }, scene);
      return { clear: far - (bay.holds.kind === 'pull-out' ? bay.holds.travel : 0), by };
    };
    const free = how === 'lid' ? freeOver(box, unit, scene) : before();
    const needs = needsToOpen(thing);
    return [
      {
        id: `thing-opens:${unit.id}:${bay.name}`,
        input: { needs, how, thing: thing.name, name: bayName(unit, bay), ...free, clear: Math.max(0, free.clear) },
        pin: pinIn(unit, place),
        quiet: true,
        // drawn out from under what lies over it, where it is free there
        mend: (): Mend | null => {
          if (how !== 'lid' || bay.holds.kind !== 'thing' || place.behind !== undefined || place.into === 0)
            return null;
          const travel = Math.round(thing.depth);
          const holds = { kind: 'pull-out' as const, thing: thing.id, travel, latch: true };
          const length = slidesFor(thing, boardThick(unit, scene), scene.book);
          if (length === null || deepForSlides(length) > Math.min(place.deepLow, place.deepHigh)) return null;
          const out = freeOver(standsAs({ ...place, bay: { ...bay, holds } }, thing), unit, scene);
          return out.clear < needs || freeBefore(unit, place, scene).far < travel
            ? null
            : offerBay(unit, bay, scene, { holds }, message('mend.tray', { to: mm(travel) }));
        },
      },
    ];
  });
}

function byItself(unit: Unit, scene: Scene): Case<Opens>[] {
  const thing = alone(unit, scene);
  const how = thing && howOf(thing.opens);
  const { body } = unit;
  if (!thing || !how || body.stands !== 'free') return [];
  const { floor } = scene.inner;
  const box: SolidBox = {
    x0: body.x,
    x1: body.x + body.length,
    y0: body.y,
    y1: body.y + body.width,
    z0: floor + body.from,
    z1: floor + body.to,
  };
  const free = how === 'lid' ? freeOver(box, unit, scene) : freeBeforeAlone(box, unit.options['looks'], unit, scene);
  return [
    {
      id: `thing-opens:${unit.id}`,
      input: { ...free, needs: needsToOpen(thing), how, thing: thing.name, name: unit.name },
      pin: { unit: unit.id, person: null, x: body.x + body.length / 2, y: body.y + body.width / 2 },
      quiet: true,
    },
  ];
}

/** Whether the door, flap, lid or drawer of an appliance has room to open where it stands. */
export const THING_OPENS_CHECKS = [
  appliesTo(thingOpensRule, {
    ofEach: { within: 1, of: (unit, scene) => [...ofBays(unit, scene), ...byItself(unit, scene)] },
  }),
];
