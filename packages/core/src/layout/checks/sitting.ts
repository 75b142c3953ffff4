import { endOf, frontLineOf } from '../../document/body.js';
import { familyNamed } from '../../document/kit.js';
import type { Person, Unit } from '../../document/schema.js';
import type { Family } from '../../furniture/family.js';
import { offer, topAt } from '../../furniture/offer.js';
import { appliesTo, type Mend, type Scene, type Sitting } from '../../furniture/scene.js';
import type { Surroundings } from '../../furniture/surroundings.js';
import { memoFew } from '../../numeric/memo.js';
import { stepUp } from '../../numeric/tolerance.js';
import { backOfKnee, CUSHION_GIVES, grownIn } from '../../rules/people.js';
import { figureOf, type Grade } from '../../rules/rule.js';
import {
  facingRule,
  hangingRule,
  headStrikeRule,
  kneeRoomRule,
  seatDepthRule,
  seatHeightRule,
  seatsRule,
  tableHeightRule,
  washRule,
} from '../../rules/sitting.js';
import { message, mm } from '../../words/message.js';
import { wider } from './bay-offers.js';
import { heightsFor, isBetter } from './people.js';

/** A seat, and the unit it belongs to. */
export interface Seat extends Sitting {
  /** Its unit's, with the part of it that this is. */
  readonly id: string;
  readonly unit: Unit;
}
type Seated = Surroundings & Pick<Scene, 'units' | 'families'>;
const seatsOfUnits = new WeakMap<Unit, { readonly room: Surroundings; readonly seats: readonly Seat[] }>();
/** The seats of one unit: the same for as long as it stands in its room. */
function seatsOf(unit: Unit, scene: Seated): readonly Seat[] {
  const { inner, arches, book, things } = scene;
  const before = seatsOfUnits.get(unit);
  if (
    before?.room.inner === inner &&
    before.room.arches === arches &&
    before.room.book === book &&
    before.room.things === things
  )
    return before.seats;
  const seats = (familyNamed(scene.families, unit.family)?.sits?.(unit, scene) ?? []).map((sits): Seat => ({
    ...sits,
    unit,
    id: sits.part ? `${unit.id}.${sits.part}` : unit.id,
  }));
  seatsOfUnits.set(unit, { room: { inner, arches, book, things }, seats });
  return seats;
}
/** Every place to sit in the room, once for each scene. */
export const seatsIn = memoFew((scene: Seated): readonly Seat[] => {
  const all: Seat[] = [];
  for (const unit of scene.units) all.push(...seatsOf(unit, scene));
  return all;
});
/** Who sits on a seat: those who are named, else everybody who is grown. */
export const sittersOf = (seat: Sitting, people: readonly Person[]): readonly Person[] =>
  seat.sitters.length === 0 ? grownIn(people) : people.filter(({ id }) => seat.sitters.includes(id));
const kneeOf = (person: Person): number => person.backOfKnee ?? backOfKnee(person.stature);

const seatHeight = appliesTo(seatHeightRule, {
  ofUnit: (unit, scene) =>
    seatsOf(unit, scene).flatMap((seat) => {
      const sitters = sittersOf(seat, scene.people);
      const knees = sitters.map(kneeOf);
      const boardsFor = (knee: number): number => Math.round(knee - (1 - CUSHION_GIVES) * seat.cushion);
      const middle = boardsFor((Math.min(...knees) + Math.max(...knees)) / 2);
      // its boards may lie above or below the height that is set
      const heightOf = (boards: number): number => Math.round(boards - seat.top + unit.body.to);
      const own = scene.figures[seatHeightRule.name];
      const input = (person: Person) => ({
        boards: seat.top,
        cushion: seat.cushion,
        backOfKnee: kneeOf(person),
        who: person.name,
        name: unit.name,
      });
      return sitters.map((person, i) => ({
        id: `seat-height:${seat.id}:${person.id}`,
        input: input(person),
        pin: { unit: unit.id, person: person.id, x: seat.at[0] - 80 + 90 * i, y: seat.at[1] },
        mend: ({ grade }) =>
          heightsFor(unit, scene, heightOf(middle), heightOf(boardsFor(kneeOf(person))), (height) =>
            isBetter(seatHeightRule.run({ ...input(person), boards: height - heightOf(0) }, own).grade, grade),
          ),
      }));
    }),
});

const seatDepth = appliesTo(seatDepthRule, {
  ofUnit: (unit, scene) =>
    seatsOf(unit, scene)
      .filter(({ loose }) => loose !== true)
      .map((seat) => ({
        id: `seat-depth:${seat.id}`,
        input: { deep: seat.deep, name: unit.name },
        pin: { unit: unit.id, person: null, x: seat.at[0], y: seat.at[1] - seat.looks[1] * 150 },
        quiet: true,
        mend: () => {
          const line = frontLineOf(unit);
          const [least, most] = ['least', 'most'].map((name) => figureOf(seatDepthRule, name, scene.figures)) as [
            number,
            number,
          ];
          // a little inside of what is good
          const inside = Math.min(60, (most - least) / 2);
          const off =
            seat.deep > most ? seat.deep - most + inside : seat.deep < least ? seat.deep - least - inside / 3 : 0;
          const { deepBy } = seat;
          if (deepBy && off !== 0) {
            const to = Math.round(deepBy.now - off);
            return offer(
              unit,
              scene,
              { [deepBy.field]: to },
              message('mend.wingWide', { name: unit.name, to: mm(to) }),
            );
          }
          return line && off !== 0
            ? offer(
                unit,
                scene,
                { front: line.front + Math.round(off) },
                message(off > 0 ? 'mend.frontBack' : 'mend.frontOut', {
                  name: unit.name,
                  by: mm(Math.abs(Math.round(off))),
                }),
              )
            : null;
        },
      })),
});

const seatWidth = appliesTo(seatsRule, {
  ofUnit: (unit, scene) =>
    seatsOf(unit, scene)
      .filter(({ sitters }) => sitters.length > 0)
      .map((seat) => ({
        id: `seat-width:${seat.id}`,
        input: {
          wide: seat.wide,
          sitters: seat.sitters.length,
          shoulders: sittersOf(seat, scene.people).flatMap(({ shoulderWidth }) => shoulderWidth ?? []),
          name: unit.name,
        },
        pin: { unit: unit.id, person: null, x: seat.at[0] + 60, y: seat.at[1] - seat.looks[1] * 200 },
        quiet: true,
        mend: ({ spare }) => {
          const by = stepUp(scene, -(spare ?? 0));
          return endOf(unit) + by <= scene.inner.length
            ? offer(
                unit,
                scene,
                { length: unit.body.length + by },
                message('mend.longer', { name: unit.name, by: mm(by) }),
              )
            : null;
        },
      })),
});

/** Somebody on a seat reaches a table whose edge is no farther before them, mm. */
const REACH_MM = 350;

type Table = NonNullable<ReturnType<NonNullable<Family['table']>>>;
const tableOf = (unit: Unit, scene: Scene): Table | null =>
  familyNamed(scene.families, unit.family)?.table?.(unit, scene) ?? null;

/** The tables somebody on a seat can use. */
function tablesAt(seat: Seat, scene: Scene): { readonly unit: Unit; readonly table: Table }[] {
  return scene.units.flatMap((unit) => {
    if (unit.id === seat.unit.id) return [];
    const table = tableOf(unit, scene);
    if (!table) return [];
    const { box } = table;
    const half = seat.wide / 2;
    const alongside =
      seat.looks[1] !== 0
        ? Math.min(box.x1, seat.at[0] + half) - Math.max(box.x0, seat.at[0] - half)
        : Math.min(box.y1, seat.at[1] + half) - Math.max(box.y0, seat.at[1] - half);
    const [px, py] = seat.at;
    const near =
      seat.looks[1] !== 0
        ? seat.looks[1] < 0
          ? py - box.y1
          : box.y0 - py
        : seat.looks[0] < 0
          ? px - box.x1
          : box.x0 - px;
    const over =
      seat.looks[1] !== 0
        ? box.y1 > py - REACH_MM && box.y0 < py + REACH_MM
        : box.x1 > px - REACH_MM && box.x0 < px + REACH_MM;
    return alongside > 250 && near < REACH_MM && over ? [{ unit, table }] : [];
  });
}

const tableHeight = appliesTo(tableHeightRule, {
  ofRoom: (scene) =>
    seatsIn(scene).flatMap((seat) =>
      tablesAt(seat, scene).map(({ unit }) => {
        const seated = seat.top + (1 - CUSHION_GIVES) * seat.cushion;
        const to = Math.round(
          seated +
            (figureOf(tableHeightRule, 'least', scene.figures) + figureOf(tableHeightRule, 'most', scene.figures)) / 2,
        );
        return {
          id: `table-height:${unit.id}:${seat.id}`,
          input: {
            table: unit.body.to,
            boards: seat.top,
            cushion: seat.cushion,
            name: unit.name,
            seat: seat.unit.name,
          },
          pin: { unit: unit.id, person: null, x: unit.body.x + 100, y: seat.at[1] + seat.looks[1] * 120 },
          mend: () =>
            offer(unit, scene, topAt(unit, scene, to), message('mend.heightTo', { name: unit.name, to: mm(to) })),
        };
      }),
    ),
});

/** Whether a seat is the wing of a bench at the same table, and nobody is to sit on it: those who sit there use the bench. */
const isSpare = (seat: Seat, table: Unit, scene: Scene): boolean =>
  seat.part !== undefined &&
  seat.sitters.length === 0 &&
  seatsOf(seat.unit, scene).some(
    (other) => other.id !== seat.id && tablesAt(other, scene).some(({ unit }) => unit.id === table.id),
  );

/** The room for knees under a table, for somebody on a seat: the widest between its legs, or beside the one in the middle, mm. */
function kneesUnder(seat: Seat, { box, legs }: Table): { readonly wide: number; readonly deep: number } {
  const along = seat.looks[1] !== 0;
  const [deep, [from, to]] = along ? [box.y1 - box.y0, [box.x0, box.x1]] : [box.x1 - box.x0, [box.y0, box.y1]];
  const stops = legs
    .map((leg) => (along ? ([leg.x0, leg.x1] as const) : ([leg.y0, leg.y1] as const)))
    .sort((a, b) => a[0] - b[0]);
  let [at, widest] = [from, 0];
  for (const [low, high] of stops) {
    widest = Math.max(widest, low - at);
    at = Math.max(at, high);
  }
  return { wide: Math.max(widest, to - at), deep };
}

const kneeRoom = appliesTo(kneeRoomRule, {
  ofRoom: (scene) =>
    seatsIn(scene).flatMap((seat) =>
      tablesAt(seat, scene).flatMap(({ unit, table }) => {
        if (isSpare(seat, unit, scene)) return [];
        const { box } = table;
        const own = scene.figures[kneeRoomRule.name];
        // two legs leave more than a pedestal, or the other way round
        const onto = ({ grade }: { readonly grade: Grade }, stand: 'legs' | 'pedestal'): Mend | null =>
          familyNamed(scene.families, unit.family)?.fields.some(({ name }) => name === 'stand')
            ? offer(unit, scene, { stand }, message(`mend.stand.${stand}`, { name: unit.name }), (then) => {
                const under = tableOf(then, scene);
                return (
                  under !== null &&
                  isBetter(kneeRoomRule.run({ ...kneesUnder(seat, under), name: unit.name }, own).grade, grade)
                );
              })
            : null;
        return [
          {
            id: `knee-room:${unit.id}:${seat.id}`,
            input: { ...kneesUnder(seat, table), name: unit.name },
            pin: { unit: unit.id, person: null, x: (box.x0 + box.x1) / 2, y: (box.y0 + box.y1) / 2 },
            quiet: true,
            mend: (verdict) => [onto(verdict, 'legs'), onto(verdict, 'pedestal')],
          },
        ];
      }),
    ),
});

const facing = appliesTo(facingRule, {
  ofRoom: (scene) => {
    const seats = seatsIn(scene).filter(({ loose }) => loose !== true);
    return seats.flatMap((a, i) =>
      seats.slice(i + 1).flatMap((b) => {
        const faces = a.looks[1] * b.looks[1] < 0;
        const shared =
          Math.min(a.at[0] + a.wide / 2, b.at[0] + b.wide / 2) - Math.max(a.at[0] - a.wide / 2, b.at[0] - b.wide / 2);
        if (!faces || shared < 300) return [];
        return [
          {
            id: `facing:${a.id}:${b.id}`,
            input: { between: Math.abs(a.at[1] - b.at[1]), name: a.unit.name, other: b.unit.name },
            pin: { unit: a.unit.id, person: null, x: (a.at[0] + b.at[0]) / 2, y: (a.at[1] + b.at[1]) / 2 },
            quiet: true,
          },
        ];
      }),
    );
  },
});

const headStrike = appliesTo(headStrikeRule, {
  ofEach: {
    within: 1,
    of: (high, scene) => {
      const over = frontLineOf(high);
      if (!over || high.body.from < 1000) return [];
      return scene.units.flatMap((low) => {
        if (familyNamed(scene.families, low.family)?.worksAt?.(low) !== true) return [];
        const line = frontLineOf(low);
        const shared = Math.min(endOf(low), endOf(high)) - Math.max(low.body.x, high.body.x);
        if (!line || line.side !== over.side || shared < 100) return [];
        const out = familyNamed(scene.families, low.family)?.overhang?.(low) ?? 0;
        const setBack = over.front - (line.front - out);
        return scene.people.map((person) => ({
          id: `head-strike:${high.id}:${low.id}:${person.id}`,
          input: {
            setBack,
            underside: high.body.from,
            stature: person.stature,
            who: person.name,
            name: high.name,
          },
          pin: {
            unit: high.id,
            person: person.id,
            x: (Math.max(low.body.x, high.body.x) + Math.min(endOf(low), endOf(high))) / 2,
            y: line.sign * line.front,
          },
          quiet: true,
          mend: () =>
            offer(
              high,
              scene,
              { front: over.front + stepUp(scene, 150 - setBack) },
              message('mend.frontBack', { name: high.name, by: mm(stepUp(scene, 150 - setBack)) }),
            ),
        }));
      });
    },
  },
});

const hanging = appliesTo(hangingRule, {
  ofUnit: (unit, scene) =>
    (scene.skeletons.get(unit.id)?.bays ?? []).flatMap(({ bay, room, deepLow, deepHigh, deepHang }) => {
      const { holds } = bay;
      if (holds.kind !== 'rail') return [];
      const deep = Math.min(deepLow, deepHang ?? deepHigh);
      const wide = room.x1 - room.x0;
      const clear = holds.along === 'bay' ? deep : wide;
      const other = holds.along === 'bay' ? wide : deep;
      const line = frontLineOf(unit);
      return [
        {
          id: `hanging:${unit.id}:${bay.name}`,
          input: { clear, name: unit.name, rail: holds.along },
          pin: { unit: unit.id, person: null, x: (room.x0 + room.x1) / 2, y: (room.y0 + room.y1) / 2 },
          mend: ({ spare }): (Mend | null)[] => {
            const by = stepUp(scene, -(spare ?? 0));
            return [
              other >= figureOf(hangingRule, 'good', scene.figures)
                ? {
                    said: message('mend.turnRail'),
                    operations: [
                      {
                        name: 'changeBay',
                        payload: {
                          id: unit.id,
                          bay: bay.name,
                          holds: { kind: 'rail', along: holds.along === 'bay' ? 'depth' : 'bay' },
                        },
                      },
                    ],
                  }
                : null,
              holds.along === 'bay' && line
                ? offer(
                    unit,
                    scene,
                    { front: line.front - by },
                    message('mend.frontOut', { name: unit.name, by: mm(by) }),
                  )
                : null,
              holds.along === 'depth' ? wider(unit, bay, by, clear + by, scene) : null,
            ];
          },
        },
      ];
    }),
});

const wash = appliesTo(washRule, {
  ofUnit: (unit, scene) => {
    if (familyNamed(scene.families, unit.family)?.standsIn?.(unit) !== true) return [];
    const [bay] = scene.skeletons.get(unit.id)?.bays ?? [];
    if (!bay) return [];
    const { room } = bay;
    const line = frontLineOf(unit);
    return scene.people.map((person) => ({
      id: `wash:${unit.id}:${person.id}`,
      input: {
        along: room.x1 - room.x0,
        deep: room.y1 - room.y0,
        high: room.z1 - room.z0,
        stature: person.stature,
        who: person.name,
        name: unit.name,
      },
      pin: { unit: unit.id, person: person.id, x: (room.x0 + room.x1) / 2, y: (room.y0 + room.y1) / 2 },
      mend: (): (Mend | null)[] => {
        const [along, deep] = [stepUp(scene, 600 - (room.x1 - room.x0)), stepUp(scene, 600 - (room.y1 - room.y0))];
        return [
          along > 0 && endOf(unit) + along <= scene.inner.length
            ? offer(
                unit,
                scene,
                { length: unit.body.length + along },
                message('mend.longer', { name: unit.name, by: mm(along) }),
              )
            : null,
          deep > 0 && line
            ? offer(
                unit,
                scene,
                { front: line.front - deep },
                message('mend.frontOut', { name: unit.name, by: mm(deep) }),
              )
            : null,
        ];
      },
    }));
  },
});

/** Whether people sit, work under high cupboards, hang their clothes and wash. */
export const SITTING_CHECKS = [
  seatHeight,
  seatDepth,
  seatWidth,
  tableHeight,
  kneeRoom,
  facing,
  headStrike,
  hanging,
  wash,
];
