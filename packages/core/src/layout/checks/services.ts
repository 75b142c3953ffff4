import type { Connection, Thing, Unit } from '../../document/schema.js';
import { appliesTo, type Mend, type Pin, type Scene } from '../../furniture/scene.js';
import { START_THINGS } from '../../furniture/start-things.js';
import { connectedRule, GIVEN, mainsPowerRule, OUTSIDE, socketWaterRule } from '../../rules/services.js';
import type { SolidBox } from '../../rules/room.js';
import type { Verdict } from '../../rules/rule.js';
import { halfWidth } from '../../shell/shell.js';
import { message, mm } from '../../words/message.js';
import { alone, inBays } from './things.js';
import { memoFew } from '../../numeric/memo.js';

interface StandingThing {
  readonly thing: Thing;
  readonly name: string;
  readonly id: string;
  readonly pin: Pin;
  readonly box: SolidBox | null;
}

/** Everything with a data sheet that stands in the layout: in a bay, or by itself. */
const standing = memoFew((scene: Scene): readonly StandingThing[] => {
  const all: StandingThing[] = [];
  for (const unit of scene.units) {
    const own = alone(unit, scene);
    const held = inBays(unit, scene);
    if (own !== null || held.length > 0) all.push(...thingsOf(unit, held, own));
  }
  return all;
});
/** The things of one unit, by what its bays hold and what it is itself. */
function thingsOf(unit: Unit, held: ReturnType<typeof inBays>, own: Thing | null): StandingThing[] {
  const { body } = unit;
  return [
    ...held.map(({ place, thing }): StandingThing => {
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
}

/** Whether a thing is where a connection comes from, rather than one that wants it. */
function gives({ kind, connects, gives: watts }: Thing, wants: Connection): boolean {
  if (wants === '12 V') return kind === 'battery';
  // a charger takes mains: its sheet states that it gives none
  if (wants === 'mains') return kind === 'electric' && connects.includes('mains') && watts !== 0;
  if (wants === 'gas') return kind === 'gas';
  return kind === 'tank' && connects.includes(wants);
}

/** What is fed with mains from outside alone: a charger on an inverter would fill the battery from itself. */
const fromOutside = ({ kind, gives: watts }: Thing): boolean => kind === 'electric' && watts === 0;

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

/** What usually gives a connection, by its name in the start set. */
const GIVERS: Readonly<Record<(typeof GIVEN)[number], readonly string[]>> = {
  '12 V': ['battery-100', 'battery-200'],
  mains: ['inverter-1000', 'inverter-2000', 'inverter-3000'],
  water: ['can-20', 'tank-fresh-70'],
  waste: ['can-20', 'tank-waste-60'],
  gas: ['gas-bottle-5'],
};
/** What draws mains from the inverters, and not through a cable of its own from outside. */
const drawsMains = (scene: Scene): readonly StandingThing[] =>
  standing(scene).filter(
    ({ thing, id }) =>
      thing.connects.includes('mains') &&
      thing.draws > 0 &&
      !gives(thing, 'mains') &&
      !fromOutside(thing) &&
      runTo(scene, id, 'mains') === '',
  );
/** The smallest usual inverter that gives enough, in the bay of one that does not, where that has room for it. */
function strongerFor(watts: number, { id }: StandingThing, scene: Scene): Mend | null {
  const [unit, bay] = id.split(':');
  const place = scene.skeletons.get(unit ?? '')?.bays?.find((own) => own.bay.name === bay);
  const usual = START_THINGS.find(
    (thing) =>
      (thing.gives ?? 0) >= watts &&
      place !== undefined &&
      place.room.x1 - place.room.x0 >= thing.width + 2 * thing.clear.side &&
      place.room.z1 - place.room.z0 >= thing.height + thing.clear.top &&
      Math.min(place.deepLow, place.deepHigh) >= thing.depth + thing.clear.back,
  );
  if (!usual || unit === undefined || bay === undefined) return null;
  return {
    said: message('mend.inverter', { thing: usual.name }),
    operations: [
      ...(scene.things.some((own) => own.id === usual.id)
        ? []
        : [{ name: 'putThing' as const, payload: { thing: usual } }]),
      { name: 'changeBay', payload: { id: unit, bay, holds: { kind: 'thing', thing: usual.id } } },
    ],
  };
}
const mainsPower = appliesTo(mainsPowerRule, {
  ofRoom: (scene) => {
    const wanting = drawsMains(scene);
    const givers = standing(scene).filter(({ thing }) => gives(thing, 'mains'));
    const known = givers.filter(({ thing }) => (thing.gives ?? null) !== null);
    const strongest = [...known].sort((a, b) => (b.thing.gives ?? 0) - (a.thing.gives ?? 0))[0] ?? givers[0];
    if (!strongest || wanting.length === 0) return [];
    const all = known.length < givers.length ? null : known.reduce((sum, { thing }) => sum + (thing.gives ?? 0), 0);
    const by = strongest.thing.name;
    return [
      ...wanting.map(({ thing, name, id, pin }) => ({
        id: `mains-power:${id}`,
        input: { watts: thing.draws, gives: strongest.thing.gives ?? null, thing: thing.name, name, by, all: false },
        pin,
        quiet: true,
        mend: () => strongerFor(1.25 * thing.draws, strongest, scene),
      })),
      ...(wanting.length < 2
        ? []
        : [
            {
              id: 'mains-power:all',
              input: {
                watts: wanting.reduce((sum, { thing }) => sum + thing.draws, 0),
                gives: all,
                all: true,
                thing: '',
                name: '',
                by: givers.map(({ thing }) => thing.name).join(', '),
              },
              pin: strongest.pin,
              quiet: true,
            },
          ]),
    ];
  },
});

/** Puts what gives a connection into the first bay with nothing in it that is large enough for it. */
function givenBy(wants: (typeof GIVEN)[number], scene: Scene): Mend | null {
  for (const id of GIVERS[wants]) {
    const usual = START_THINGS.find((one) => one.id === id);
    if (!usual) continue;
    // what carries waste is told from what carries water by what it is connected to
    const thing: Thing =
      usual.connects.includes(wants) || usual.kind !== 'tank'
        ? usual
        : { ...usual, id: `${id}-${wants}`, connects: [wants] };
    for (const unit of scene.units)
      for (const { bay, room, deepLow, deepHigh } of scene.skeletons.get(unit.id)?.bays ?? []) {
        // behind a front: nobody stands or sleeps there
        const free = bay.holds.kind === 'open' && bay.front.kind !== 'none';
        const fits =
          room.x1 - room.x0 >= thing.width + 2 * thing.clear.side &&
          room.z1 - room.z0 >= thing.height + thing.clear.top &&
          Math.min(deepLow, deepHigh) >= thing.depth + thing.clear.back;
        if (free && fits)
          return {
            said: message('mend.giver', { thing: thing.name, name: unit.name, bay: bay.name }),
            operations: [
              ...(scene.things.some((own) => own.id === thing.id)
                ? []
                : [{ name: 'putThing' as const, payload: { thing } }]),
              { name: 'changeBay', payload: { id: unit.id, bay: bay.name, holds: { kind: 'thing', thing: thing.id } } },
            ],
          };
      }
  }
  return null;
}

const connected = appliesTo(connectedRule, {
  ofRoom: (scene) => {
    const all = standing(scene);
    return all.flatMap(({ thing, name, id, pin }) => [
      ...GIVEN.filter((wants) => thing.connects.includes(wants) && !gives(thing, wants)).map((wants) => ({
        id: `connected:${id}:${wants}`,
        input: {
          wants,
          by:
            (wants === 'mains' && fromOutside(thing) ? null : all.find((other) => gives(other.thing, wants))?.name) ??
            runTo(scene, id, wants),
          thing: thing.name,
          name,
        },
        pin,
        quiet: true,
        mend: () => (wants === 'mains' && fromOutside(thing) ? null : givenBy(wants, scene)),
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

/** An outlet is this far from water where it is good, mm. */
const WANTED_MM = 600;
const beyond = (at: number, from: number, to: number): number => Math.max(from - at, 0, at - to);

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
        // along the wall, away from the nearer end of what is wet
        mend: ({ spare }: Verdict) => {
          const away = outlet.x < (sink.box.x0 + sink.box.x1) / 2 ? -1 : 1;
          const [dy, dz] = [beyond(y, sink.box.y0, sink.box.y1), beyond(outlet.along, sink.box.z0, sink.box.z1)];
          const wanted = WANTED_MM + outlet.diameter / 2;
          const along = Math.sqrt(Math.max(0, wanted * wanted - dy * dy - dz * dz));
          const x = Math.round(away < 0 ? sink.box.x0 - along - 1 : sink.box.x1 + along + 1);
          return spare !== null && x > scene.inner.start && x < scene.inner.length
            ? {
                said: message('mend.moveOutlet', { name: outlet.name, x: mm(x) }),
                operations: [{ name: 'putFitting' as const, payload: { fitting: { ...outlet, x } } }],
              }
            : null;
        },
      }));
    });
  },
});

/** What appliances are connected to, and what has to keep clear of water. */
export const SERVICE_CHECKS = [connected, mainsPower, socketWater];
