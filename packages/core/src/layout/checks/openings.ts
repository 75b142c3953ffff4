import type { z } from 'zod';
import { endOf, standsAt } from '../../document/body.js';
import { offer } from '../../furniture/offer.js';
import { appliesTo, type Case, type Pin, type Scene, type SeenOpening } from '../../furniture/scene.js';
import { solidBox } from '../../furniture/solid.js';
import { doorwayRule, glassGapRule, outboardRule, overStepRule, sashRule } from '../../rules/openings.js';
import { narrowOf, widthOf } from '../../shell/openings.js';
import { halfWidth } from '../../shell/shell.js';
import { message } from '../../words/message.js';

type Walled = SeenOpening & { readonly side: 'left' | 'right' };

/** Openings in the side walls of a kind. */
const inWalls = ({ openings }: Scene, kind: 'door' | 'window'): Walled[] =>
  openings.flatMap((placed): Walled[] => {
    const { surface } = placed.opening;
    return placed.opening.kind === kind && (surface === 'left' || surface === 'right')
      ? [{ ...placed, side: surface }]
      : [];
  });

const pinAt = (scene: Scene, { side, ...placed }: Walled, unit: string | null): Pin => {
  const { from, to } = widthOf(placed);
  const x = (from + to) / 2;
  const y = halfWidth(scene.inner, side, x, scene.inner.floor) - 200;
  return { unit, person: null, x, y: side === 'left' ? -y : y };
};

/** What stands at an opening of a side wall: from where to where along the vehicle, and its name. */
function standingAt(
  scene: Scene,
  placed: Walled,
  from: number,
  to: number,
): { x0: number; x1: number; name: string; id: string }[] {
  return scene.units.flatMap((unit) => {
    const box = solidBox(unit, scene.inner, scene.families);
    // what stands free is not at the wall
    const here = standsAt(unit, placed.side) && endOf(unit) > from && unit.body.x < to;
    // what lies wholly above or below the opening leaves it free
    return here && box.z1 > placed.sill + 1 && box.z0 < placed.head - 1
      ? [{ x0: Math.max(from, unit.body.x), x1: Math.min(to, endOf(unit)), name: unit.name, id: unit.id }]
      : [];
  });
}

/** The widest stretch that spans leave free. */
function widestFree(from: number, to: number, spans: readonly { readonly x0: number; readonly x1: number }[]): number {
  let [at, widest] = [from, 0];
  for (const { x0, x1 } of [...spans].sort((a, b) => a.x0 - b.x0)) {
    widest = Math.max(widest, x0 - at);
    at = Math.max(at, x1);
  }
  return Math.max(widest, to - at);
}

const doorway = appliesTo(doorwayRule, {
  ofRoom: (scene) =>
    inWalls(scene, 'door').flatMap((door) => {
      const { from, to } = door;
      const standing = standingAt(scene, door, from, to);
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
            },
          ];
    }),
});

/** Nothing that reaches less far beyond the wall has to pass a door, mm. */
const BEYOND_MM = 30;
const outboard = appliesTo(outboardRule, {
  ofUnit: (unit, scene) =>
    (scene.skeletons.get(unit.id)?.motions ?? []).flatMap((motion): Case<z.output<typeof outboardRule.input>>[] => {
      if (motion.kind !== 'hinge' || motion.about !== 'level') return [];
      const { open, through } = motion;
      const middle = (open.x0 + open.x1) / 2;
      const beyond = (side: 'left' | 'right'): boolean =>
        (side === 'left' ? -open.y0 : open.y1) >
        halfWidth(scene.inner, side, middle, (open.z0 + open.z1) / 2) + BEYOND_MM;
      const side = (['left', 'right'] as const).find(beyond);
      if (side === undefined) return [];
      const [door] = inWalls(scene, 'door')
        .filter((one) => one.side === side && one.from < open.x1 && one.to > open.x0)
        .sort((a, b) => overlap(b, open) - overlap(a, open));
      const pin: Pin = { unit: unit.id, person: null, x: middle, y: (through.y0 + through.y1) / 2 };
      const id = `outboard:${motion.of}`;
      if (!door) return [{ id, input: { clear: null, way: 'beside', name: unit.name, door: '' }, pin }];
      // a door that leans passes what its narrowest height does
      const narrow = narrowOf(door);
      const ways = [
        { way: 'beside' as const, clear: Math.min(through.x0 - narrow.from, narrow.to - through.x1) },
        { way: 'under' as const, clear: through.z0 - door.sill },
        { way: 'above' as const, clear: door.head - through.z1 },
      ];
      const { way, clear } = ways.reduce((least, next) => (next.clear < least.clear ? next : least));
      return [
        {
          id,
          input: { clear, way, name: unit.name, door: door.opening.name },
          pin,
          mend: () => {
            const room = { from: Math.ceil(narrow.from + FREE_MM), to: Math.floor(narrow.to - FREE_MM) };
            const length = Math.min(Math.round(unit.body.length), room.to - room.from);
            const from = Math.max(Math.round(unit.body.from), Math.ceil(door.sill + FREE_MM - scene.inner.floor));
            const height = Math.min(Math.round(unit.body.to), Math.floor(door.head - FREE_MM - scene.inner.floor));
            return offer(
              unit,
              scene,
              { x: Math.min(Math.max(unit.body.x, room.from), room.to - length), length, from, height },
              message('mend.intoDoor', { name: unit.name, door: door.opening.name }),
            );
          },
        },
      ];
    }),
});
/** Left free all round by what is offered, mm. */
const FREE_MM = 20;
const overlap = ({ from, to }: Walled, { x0, x1 }: { readonly x0: number; readonly x1: number }): number =>
  Math.min(to, x1) - Math.max(from, x0);

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

/** Whether doors, steps and windows stay free. */
export const OPENING_CHECKS = [doorway, outboard, overStep, sash, glassGap];
