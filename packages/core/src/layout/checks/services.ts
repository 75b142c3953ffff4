import type { Connection, Thing } from '../../document/schema.js';
import { appliesTo, type Pin, type Scene } from '../../furniture/scene.js';
import { connectedRule, GIVEN, OUTSIDE, socketWaterRule } from '../../rules/services.js';
import type { SolidBox } from '../../rules/room.js';
import { halfWidth } from '../../shell/shell.js';
import { alone, inBays } from './things.js';

interface StandingThing {
  readonly thing: Thing;
  readonly name: string;
  readonly id: string;
  readonly pin: Pin;
  readonly box: SolidBox | null;
}

/** Everything with a data sheet that stands in the layout: in a bay, or by itself. */
const standing = (scene: Scene): readonly StandingThing[] =>
  scene.units.flatMap((unit): StandingThing[] => {
    const own = alone(unit, scene);
    const { body } = unit;
    return [
      ...inBays(unit, scene).map(({ place, thing }): StandingThing => {
        const { room, bay } = place;
        return {
          thing,
          name: `${unit.name}, ${bay.name}`,
          id: `${unit.id}:${bay.name}`,
          pin: { unit: unit.id, person: null, x: (room.x0 + room.x1) / 2, y: (room.y0 + room.y1) / 2 },
          box: room,
        };
      }),
      ...(own
        ? [
            {
              thing: own,
              name: unit.name,
              id: unit.id,
              pin: {
                unit: unit.id,
                person: null,
                x: body.x + body.length / 2,
                y: body.stands === 'free' ? body.y + body.width / 2 : 0,
              },
              box: null,
            },
          ]
        : []),
    ];
  });

/** Whether a thing is where a connection comes from, rather than one that wants it. */
function gives({ kind, connects }: Thing, wants: Connection): boolean {
  if (wants === '12 V') return kind === 'battery';
  if (wants === 'mains') return kind === 'electric' && connects.includes('mains');
  if (wants === 'gas') return kind === 'gas';
  return kind === 'tank' && connects.includes(wants);
}

const KIND = {
  '12 V': 'cable',
  mains: 'cable',
  water: 'water',
  waste: 'waste',
  gas: 'gas',
  air: 'duct',
  flue: 'flue',
  fuel: 'fuel',
} as const;
/** More volts than this are mains. */
const LOW_VOLTS = 60;
/** The run that leads a connection from a bay out of the furniture, or into it from there, by its name; empty where there is none. */
const runTo = ({ runs }: Scene, id: string, wants: Connection): string =>
  runs.placed.find(({ run }) => {
    const at = [run.from, run.to].map((end) => (end && 'unit' in end ? `${end.unit}:${end.bay}` : end && 'place'));
    const volts = run.wire?.volts ?? 12;
    return (
      run.kind === KIND[wants] &&
      at.includes(id) &&
      at.includes('place') &&
      (run.kind !== 'cable' || volts > LOW_VOLTS === (wants === 'mains'))
    );
  })?.run.name ?? '';

const connected = appliesTo(connectedRule, {
  ofRoom: (scene) => {
    const all = standing(scene);
    return all.flatMap(({ thing, name, id, pin }) => [
      ...GIVEN.filter((wants) => thing.connects.includes(wants) && !gives(thing, wants)).map((wants) => ({
        id: `connected:${id}:${wants}`,
        input: {
          wants,
          by: all.find((other) => gives(other.thing, wants))?.name ?? runTo(scene, id, wants),
          thing: thing.name,
          name,
        },
        pin,
        quiet: true,
      })),
      ...OUTSIDE.filter((wants) => thing.connects.includes(wants)).map((wants) => ({
        id: `connected:${id}:${wants}`,
        input: { wants, by: runTo(scene, id, wants), thing: thing.name, name },
        pin,
        quiet: true,
      })),
    ]);
  },
});

/** How far a place is from a box, mm; 0 inside it. */
const farFrom = (at: readonly [number, number, number], { x0, x1, y0, y1, z0, z1 }: SolidBox): number =>
  Math.hypot(
    Math.max(x0 - at[0], 0, at[0] - x1),
    Math.max(y0 - at[1], 0, at[1] - y1),
    Math.max(z0 - at[2], 0, at[2] - z1),
  );

const socketWater = appliesTo(socketWaterRule, {
  ofRoom: (scene) => {
    const sinks = standing(scene).flatMap(({ thing, name, box }) =>
      thing.kind === 'sink' && box
        ? // what is wet is its opening, at the top of the bay it hangs in
          [{ name: `${thing.name} (${name})`, box: { ...box, z0: box.z1 - thing.height } }]
        : [],
    );
    return scene.fittings.flatMap((outlet) => {
      const { surface } = outlet;
      if (outlet.kind !== 'outlet' || (surface !== 'left' && surface !== 'right')) return [];
      const y = (surface === 'left' ? -1 : 1) * halfWidth(scene.inner, surface, outlet.x, outlet.along);
      return sinks.map((sink) => ({
        id: `socket-water:${outlet.id}:${sink.name}`,
        input: {
          apart: farFrom([outlet.x, y, outlet.along], sink.box) - outlet.diameter / 2,
          name: outlet.name,
          sink: sink.name,
        },
        pin: { unit: null, person: null, x: outlet.x, y },
        quiet: true,
      }));
    });
  },
});

/** What appliances are connected to, and what has to keep clear of water. */
export const SERVICE_CHECKS = [connected, socketWater];
