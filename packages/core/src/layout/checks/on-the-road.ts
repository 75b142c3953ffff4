import type { Bay, Stored, Unit } from '../../document/schema.js';
import { offerBay } from '../../furniture/offer.js';
import { appliesTo, type Case, type Mend, type Scene } from '../../furniture/scene.js';
import type { BayRoom } from '../../furniture/skeleton.js';
import { heldOnRoadRule } from '../../rules/road.js';
import { message } from '../../words/message.js';
import { alone, bayName, pinIn } from './things.js';

interface Held {
  readonly by: 'front' | 'lip' | 'tied' | 'nothing' | 'unknown';
  readonly mass: number;
  /** Of the lip before it, and of what stands behind that, mm; 0 where there is none. */
  readonly lip: number;
  readonly high: number;
  readonly thing: string;
  readonly name: string;
  readonly where: 'shelf' | 'hold' | 'alone' | 'nowhere';
}

/** Whether what is in a bay stays in it when the front it has is shut. */
const shuts = ({ front, holds }: Bay): boolean =>
  holds.kind === 'drawers' || holds.kind === 'pull-out' || !['none', 'curtain'].includes(front.kind);

/** A door before what stands open. */
const doorBefore = (unit: Unit, { bay, behind, into }: BayRoom, scene: Scene): Mend | null =>
  behind !== undefined || into === 0 || bay.holds.kind === 'hold' || unit.family === 'rack'
    ? null
    : offerBay(unit, bay, scene, { front: { kind: 'doors', count: 1, latch: true } }, message('mend.doorFront'));

function ofStored(stored: Stored, scene: Scene): Case<Held> {
  const unit = scene.units.find(({ id }) => id === stored.kept?.unit);
  const place = unit && scene.skeletons.get(unit.id)?.bays?.find(({ bay }) => bay.name === stored.kept?.bay);
  const mass = stored.mass * stored.count;
  const base = { mass, lip: 0, high: stored.height, thing: stored.name };
  const id = `road-held:${stored.id}`;
  if (!unit)
    return {
      id,
      input: { ...base, by: 'unknown', name: '', where: 'nowhere' },
      pin: { unit: null, person: null, x: 0, y: 0 },
      quiet: true,
    };
  // a hold that its unit does not list by a name, such as the room under a bed that slides out
  if (!place)
    return {
      id,
      input: { ...base, by: 'nothing', name: unit.name, where: 'hold' },
      pin: { unit: unit.id, person: null, x: unit.body.x + unit.body.length / 2, y: 0 },
      quiet: true,
    };
  const { bay } = place;
  const lip = unit.family === 'rack' ? Number(unit.options['lipHigh'] ?? 0) : 0;
  const eyes = unit.family === 'rack' ? Number(unit.options['eyes'] ?? 0) : 0;
  const hold = bay.holds.kind === 'hold' || place.into === 0;
  return {
    id,
    input: {
      ...base,
      by: eyes > 0 ? 'tied' : lip > 0 ? 'lip' : shuts(bay) ? 'front' : 'nothing',
      lip,
      name: bayName(unit, bay),
      where: hold ? 'hold' : 'shelf',
    },
    pin: pinIn(unit, place),
    quiet: true,
    mend: () => doorBefore(unit, place, scene),
  };
}

const held = appliesTo(heldOnRoadRule, {
  ofRoom: (scene) => [
    ...scene.stored.map((stored) => ofStored(stored, scene)),
    // shelves that stand open, whatever will be on them
    ...scene.units.flatMap((unit) =>
      (scene.skeletons.get(unit.id)?.bays ?? [])
        .filter(({ bay }) => bay.holds.kind === 'shelves' && !shuts(bay))
        .filter(({ bay }) => !scene.stored.some(({ kept }) => kept?.unit === unit.id && kept.bay === bay.name))
        .map((place): Case<Held> => ({
          id: `road-held:${unit.id}:${place.bay.name}`,
          input: {
            by: 'nothing',
            mass: 0,
            lip: 0,
            high: 0,
            thing: '',
            name: bayName(unit, place.bay),
            where: 'shelf',
          },
          pin: pinIn(unit, place),
          quiet: true,
          mend: () => doorBefore(unit, place, scene),
        })),
    ),
    ...scene.units.flatMap((unit): Case<Held>[] => {
      const thing = alone(unit, scene);
      const { body } = unit;
      if (!thing || body.stands !== 'free') return [];
      return [
        {
          id: `road-held:${unit.id}`,
          input: {
            by: 'nothing',
            mass: thing.mass + thing.holds,
            lip: 0,
            high: thing.height,
            thing: thing.name,
            name: unit.name,
            where: 'alone',
          },
          pin: { unit: unit.id, person: null, x: body.x + body.length / 2, y: body.y + body.width / 2 },
          quiet: true,
        },
      ];
    }),
  ],
});

/** What is loose on the road: on open shelves, in racks and holds, and what stands by itself. */
export const ROAD_CHECKS = [held];
