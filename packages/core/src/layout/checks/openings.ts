import type { z } from 'zod';
import { acrossOf, endOf, frontLineOf } from '../../document/body.js';
import type { Unit } from '../../document/schema.js';
import type { Motion } from '../../furniture/motions.js';
import { offer, sceneWith } from '../../furniture/offer.js';
import { appliesTo, type Case, type Mend, type Pin, type Scene, type SeenOpening } from '../../furniture/scene.js';
import { solidBox } from '../../furniture/solid.js';
import { spread } from '../../numeric/plane.js';
import { doorHeadRule, doorwayRule, glassGapRule, outboardRule, overStepRule, sashRule } from '../../rules/openings.js';
import { glassRule } from '../../rules/room-use.js';
import { narrowOf, widthOf } from '../../shell/openings.js';
import { halfWidth } from '../../shell/shell.js';
import { message, mm } from '../../words/message.js';
import { behindGlass, sideOf } from '../behind-glass.js';
import { standsClear } from '../gap-offers.js';
import { clearOf, leaves } from '../through-doors.js';
import { motionsOf } from './moving.js';
import { isBetter } from './people.js';
import { inWalls, standingAt, standingInDoor, type StandingAt, type Walled } from '../in-doors.js';

const pinAt = (scene: Scene, { side, ...placed }: Walled, unit: string | null): Pin => {
  const { from, to } = widthOf(placed);
  const x = (from + to) / 2;
  const y = halfWidth(scene.inner, side, x, scene.inner.floor) - 200;
  return { unit, person: null, x, y: side === 'left' ? -y : y };
};

/** The widest stretch that spans leave free. */
function widestFree(from: number, to: number, spans: readonly { readonly x0: number; readonly x1: number }[]): number {
  let [at, widest] = [from, 0];
  for (const { x0, x1 } of [...spans].sort((a, b) => a.x0 - b.x0)) {
    widest = Math.max(widest, x0 - at);
    at = Math.max(at, x1);
  }
  return Math.max(widest, to - at);
}

/** What begins higher than this over the floor is ducked under, mm. */
const HANGS_MM = 900;
const hangsIn = (scene: Scene, { z0 }: StandingAt): boolean => z0 >= scene.inner.floor + HANGS_MM;

/** Out of a stretch to its front or its rear, or shorter up to it: whatever stands clear then, and is clear of it. */
function outOf(
  scene: Scene,
  span: { readonly from: number; readonly to: number },
  id: string | undefined,
  clear: (then: Scene) => boolean,
): readonly (Mend | null)[] {
  const unit = scene.units.find((one) => one.id === id);
  if (!unit) return [];
  const { name, body } = unit;
  const helps = (then: Unit): boolean => standsClear(then, scene) && clear(sceneWith(scene, then));
  const moved = (x: number): Mend | null =>
    offer(
      unit,
      scene,
      { x },
      message('mend.move', {
        name,
        by: mm(Math.abs(x - body.x)),
        way: { word: x < body.x ? 'mend.way.front' : 'mend.way.rear' },
      }),
      helps,
    );
  const shorter = (x: number, length: number): Mend | null =>
    length >= SHORTEST_MM && length < body.length
      ? offer(unit, scene, { x, length }, message('mend.shortenBy', { name, by: mm(body.length - length) }), helps)
      : null;
  const [from, to] = [Math.floor(span.from), Math.ceil(span.to)];
  return [
    moved(from - body.length),
    moved(to),
    shorter(body.x, from - body.x),
    shorter(to, Math.floor(endOf(unit) - to)),
  ].sort((a, b) => Number(a === null) - Number(b === null));
}
/** Where more than so many stand in a door, no single one of them frees it. */
const ASKED = 4;
/** A unit is not made shorter than this, mm. */
const SHORTEST_MM = 300;
/** The same for what stands in a door. */
const outOfDoor = (scene: Scene, door: Walled, id: string | undefined): readonly (Mend | null)[] =>
  outOf(scene, door, id, (then) => standingInDoor(then, door).every((one) => one.id !== id));

const doorway = appliesTo(doorwayRule, {
  ofRoom: (scene) =>
    inWalls(scene, 'door').flatMap((door) => {
      const { from, to } = door;
      const standing = standingInDoor(scene, door).filter((one) => !hangsIn(scene, one));
      return standing.length === 0
        ? []
        : [
            {
              id: `doorway:${door.opening.id}`,
              input: {
                free: widestFree(from, to, standing),
                width: to - from,
                name: door.opening.name,
                by: [...new Set(standing.map(({ name }) => name))].join(', '),
              },
              pin: pinAt(scene, door, standing[0]?.id ?? null),
              quiet: true,
              mend: () =>
                [...new Set(standing.map(({ id }) => id))].slice(0, ASKED).flatMap((id) => outOfDoor(scene, door, id)),
            },
          ];
    }),
});

const doorHead = appliesTo(doorHeadRule, {
  ofRoom: (scene) =>
    inWalls(scene, 'door').flatMap((door) => {
      const [lowest] = standingInDoor(scene, door)
        .filter((one) => hangsIn(scene, one))
        .sort((a, b) => a.z0 - b.z0);
      return lowest
        ? [
            {
              id: `door-head:${door.opening.id}`,
              input: {
                free: lowest.z0 - Math.max(scene.inner.floor, door.sill),
                high: door.head - Math.max(scene.inner.floor, door.sill),
                name: door.opening.name,
                by: lowest.name,
              },
              pin: pinAt(scene, door, lowest.id),
              mend: () => outOfDoor(scene, door, lowest.id),
            },
          ]
        : [];
    }),
});

/** What goes out, put so that it is free all round in a door: moved, no larger than that lets it be, on that side. */
function intoDoor(unit: Unit, scene: Scene, door: SeenOpening, motion: Motion): Mend | null {
  const narrow = narrowOf(door);
  const room = { from: Math.ceil(narrow.from + FREE_MM), to: Math.floor(narrow.to - FREE_MM) };
  const { surface } = door.opening;
  const turns = motion.kind === 'hinge';
  // where it is now, as it would lie along the wall of that door
  const isAlong = turns ? frontLineOf(unit) !== null : surface !== 'rear';
  const now = isAlong ? { from: unit.body.x, to: endOf(unit) } : acrossOf(unit);
  const long = Math.min(Math.round(now.to - now.from), room.to - room.from);
  const at = Math.min(Math.max(now.from, room.from), room.to - long);
  const from = Math.max(Math.round(unit.body.from), Math.ceil(door.sill + FREE_MM - scene.inner.floor));
  const height = Math.min(Math.round(unit.body.to), Math.floor(door.head - FREE_MM - scene.inner.floor));
  const thick = Math.min(motion.shut.x1 - motion.shut.x0, motion.shut.y1 - motion.shut.y0);
  // what turns out stands at the door that is shut
  const wall =
    surface === 'rear'
      ? scene.inner.length
      : Math.min(
          ...spread(at, at + long, 9).flatMap((x) =>
            spread(from, height, 5).map((z) =>
              halfWidth(scene.inner, surface === 'left' ? 'left' : 'right', x, scene.inner.floor + z),
            ),
          ),
        );
  const stands = Math.floor(wall - thick - BEFORE_DOOR_MM);
  return offer(
    unit,
    scene,
    {
      // first where it goes: its other fields follow from that
      ...(turns ? { side: surface } : {}),
      ...(surface === 'rear' ? { y: at, width: long } : { x: at, length: long }),
      ...(turns ? (surface === 'rear' ? { x: stands } : { front: stands }) : {}),
      from,
      height,
    },
    message('mend.intoDoor', { name: unit.name, door: door.opening.name }),
  );
}
/** What turns out of a door stands so far before it, mm. */
const BEFORE_DOOR_MM = 5;

const outboard = appliesTo(outboardRule, {
  ofUnit: (unit, scene) =>
    motionsOf(unit, scene).flatMap((motion): Case<z.output<typeof outboardRule.input>>[] => {
      const out = leaves(motion, scene);
      if (!out) return [];
      const { door, way, through, before } = out;
      const pin: Pin = {
        unit: unit.id,
        person: null,
        x: (through.x0 + through.x1) / 2,
        y: (through.y0 + through.y1) / 2,
      };
      const id = `outboard:${motion.of}`;
      // what is drawn out against a wall or turns against the rear end gets no further, which is said by itself
      if (!door)
        return motion.kind === 'slide' || (way === 'rear' && !('outside' in motion))
          ? []
          : [
              {
                id,
                input: { clear: null, before, way: 'beside', name: unit.name, door: '' },
                pin,
                // into a door of its own side, or across to one of the other
                mend: () =>
                  [...scene.openings.filter(({ opening }) => opening.kind === 'door')]
                    .sort((a, b) => Number(a.opening.surface !== way) - Number(b.opening.surface !== way))
                    .map((other) => intoDoor(unit, scene, other, motion)),
              },
            ];
      const { where, clear } = clearOf({ ...out, door });
      return [
        {
          id,
          input: { clear, before, way: where, name: unit.name, door: door.opening.name },
          pin,
          mend: () => intoDoor(unit, scene, door, motion),
        },
      ];
    }),
});
/** Left free all round by what is offered, mm. */
const FREE_MM = 20;
const overStep = appliesTo(overStepRule, {
  ofUnit: (unit, scene) =>
    scene.arches
      .filter((arch) => arch.kind === 'step')
      .map((arch) => {
        const box = solidBox(unit, scene.inner, scene.families);
        const sign = arch.side === 'left' ? -1 : 1;
        const reach = halfWidth(scene.inner, arch.side, (arch.from + arch.to) / 2, scene.inner.floor);
        const [y0, y1] = [Math.min(sign * arch.face, sign * reach), Math.max(sign * arch.face, sign * reach)];
        return {
          id: `over-step:${unit.id}:${arch.id}`,
          input: {
            along: Math.min(box.x1, arch.to) - Math.max(box.x0, arch.from),
            across: Math.min(box.y1, y1) - Math.max(box.y0, y0),
            name: unit.name,
            step: arch.name,
          },
          pin: { unit: unit.id, person: null, x: (arch.from + arch.to) / 2, y: (y0 + y1) / 2 },
          quiet: true,
        };
      }),
});

const sash = appliesTo(sashRule, {
  ofRoom: (scene) =>
    inWalls(scene, 'window').flatMap((window) => {
      const sweep = window.opening.sweep ?? 0;
      if (sweep <= 0) return [];
      const { from, to } = widthOf(window);
      return standingAt(scene, window, from, to).map((standing) => ({
        id: `sash:${window.opening.id}:${standing.id}`,
        // a unit stands at the wall, and so in the way at once
        input: { clear: 0, sweep, name: window.opening.name, by: standing.name },
        pin: pinAt(scene, window, standing.id),
        quiet: true,
      }));
    }),
});

const glassGap = appliesTo(glassGapRule, {
  ofRoom: (scene) =>
    inWalls(scene, 'window').flatMap((window) => {
      const { from, to } = widthOf(window);
      return standingAt(scene, window, from, to).map((standing) => ({
        id: `glass-gap:${window.opening.id}:${standing.id}`,
        // a unit stands at the finished face; the frame, and the glass with it, lies behind that
        input: { clear: window.frame, name: window.opening.name, by: standing.name },
        pin: pinAt(scene, window, standing.id),
      }));
    }),
});

const glass = appliesTo(glassRule, {
  ofRoom: (scene) =>
    scene.openings
      .filter((placed) => placed.opening.kind === 'window' && sideOf(placed) !== null)
      .map((placed) => {
        const { share, by, ids } = behindGlass(placed, scene);
        const side = sideOf(placed);
        const { from, to } = widthOf(placed);
        const y = halfWidth(scene.inner, side ?? 'left', (from + to) / 2, placed.sill) - 120;
        return {
          id: `glass:${placed.opening.id}`,
          input: { share, name: placed.opening.name, by: by.join(', ') || '–' },
          pin: { unit: null, person: null, x: (from + to) / 2, y: side === 'left' ? -y : y },
          quiet: true,
          // clear of the glass, or shorter up to it
          mend: ({ grade }) =>
            ids.flatMap((id) =>
              outOf(scene, widthOf(placed), id, (then) => {
                const left = behindGlass(placed, then).share;
                return isBetter(
                  glassRule.run({ share: left, name: '', by: '' }, scene.figures[glassRule.name]).grade,
                  grade,
                );
              }),
            ),
        };
      }),
});

/** Whether doors, steps and windows stay free. */
export const OPENING_CHECKS = [doorway, doorHead, outboard, overStep, sash, glass, glassGap];
