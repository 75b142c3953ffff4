import { grownIn } from '../../rules/people.js';
import { baysOf, endOf, frontLineOf } from '../../document/body.js';
import { thingIn } from '../../document/layout-changes.js';
import type { Bay, Division, Person, Stored, Thing, Unit } from '../../document/schema.js';
import { MOST_VENT } from '../../document/unit-schema.js';
import { familyNamed } from '../../document/kit.js';
import { deepForSlides, slidesFor } from '../../furniture/fronts.js';
import { offer, offerBay, together, tried } from '../../furniture/offer.js';
import { appliesTo, type Mend, type Pin, type Scene } from '../../furniture/scene.js';
import { FRAME_MM } from '../../furniture/carcass-boards.js';
import type { BayRoom, Board } from '../../furniture/skeleton.js';
import { litresIn, slidOutOf, type SlidInside } from '../../furniture/slid-inside.js';
import { memoFew, memoOf } from '../../numeric/memo.js';
import { spread } from '../../numeric/plane.js';
import { stepUp } from '../../numeric/tolerance.js';
import {
  airRule,
  placesRule,
  reachRule,
  storedRule,
  thingFitsRule,
  thingSizeRule,
  ventArea,
} from '../../rules/things.js';
import { reachBackRule } from '../../rules/sitting.js';
import { halfWidth, roofHeight } from '../../shell/shell.js';
import { message, mm } from '../../words/message.js';
import { standingIn } from '../standing.js';
import { deeper, higher, wider } from './bay-offers.js';

interface InBay {
  readonly unit: Unit;
  readonly place: BayRoom;
  readonly thing: Thing;
}
const placesOf = (unit: Unit, scene: Scene): readonly BayRoom[] => scene.skeletons.get(unit.id)?.bays ?? NO_PLACES;
const NO_PLACES: readonly BayRoom[] = [];
const held = new WeakMap<readonly BayRoom[], { readonly things: Scene['things']; readonly all: readonly InBay[] }>();
/** Every thing in a bay of a unit: looked up once for as long as its bays and the data sheets are the same. */
export function inBays(unit: Unit, scene: Scene): readonly InBay[] {
  const places = placesOf(unit, scene);
  const before = held.get(places);
  if (before?.things === scene.things && (before.all.length === 0 || before.all[0]?.unit === unit)) return before.all;
  const all = places.flatMap((place): InBay[] => {
    const id = thingIn(place.bay);
    const thing = id === null ? undefined : scene.things.find((own) => own.id === id);
    return thing ? [{ unit, place, thing }] : [];
  });
  held.set(places, { things: scene.things, all });
  return all;
}
export const middle = ({ room }: BayRoom): { readonly x: number; readonly y: number } => ({
  x: (room.x0 + room.x1) / 2,
  y: (room.y0 + room.y1) / 2,
});
export const pinIn = (unit: Unit, place: BayRoom): Pin => ({ unit: unit.id, person: null, ...middle(place) });
export const bayName = (unit: Unit, bay: Bay): string => `${unit.name}, ${bay.name}`;
/** No front is brought out farther than this beyond the centre line, mm. */
const FARTHEST_FRONT_MM = -300;

const fits = appliesTo(thingFitsRule, {
  ofUnit: (unit, scene) =>
    inBays(unit, scene).map(({ place, thing }) => {
      const { room, bay } = place;
      const line = frontLineOf(unit);
      const needs = {
        wide: thing.width + 2 * thing.clear.side,
        deep: thing.depth + thing.clear.back,
        high: thing.height + thing.clear.top,
      };
      const has = roomFor(thing, place, unit, scene);
      return {
        id: `thing-fits:${unit.id}:${bay.name}`,
        input: { needs, has, thing: thing.name, name: bayName(unit, bay) },
        pin: pinIn(unit, place),
        // all that it lacks, or nothing: half of it is no use
        mend: (): Mend | null => {
          const tray = trayOf(place, unit, scene);
          const longer = tray && needs.deep > has.deep ? longerSlides(thing, tray, scene) : null;
          // no slides are as long as that
          if (tray && needs.deep > has.deep && longer === null) return null;
          const [wide, deep, high] = [
            needs.wide - has.wide,
            longer ? longer.by : needs.deep - has.deep,
            needs.high - has.high,
          ].map((by) => stepUp(scene, by)) as [number, number, number];
          const deepTo = longer ? Math.max(needs.deep, longer.deep) : needs.deep;
          // what is made higher is so with its front where it then is
          const out = (deep > 0 && line && tried(unit, { front: line.front - deep }, scene)) || unit;
          const own = deeper(unit, bay, deepTo, scene);
          const frontOut = (): Mend | null =>
            line && line.front - deep > FARTHEST_FRONT_MM
              ? offer(
                  unit,
                  scene,
                  { front: line.front - deep },
                  message('mend.frontOut', { name: unit.name, by: mm(deep) }),
                )
              : null;
          return together([
            ...(wide > 0 ? [wider(unit, bay, wide, room.x1 - room.x0 + wide, scene)] : []),
            ...(deep > 0 ? (own?.enough ? [own.mend] : [frontOut(), ...(own ? [own.mend] : [])]) : []),
            ...(high > 0 ? [higher(out, bay, high, room.z1 - room.z0 + high, deepTo, scene)] : []),
          ]);
        },
      };
    }),
});

/**
 * The room a bay has for a thing with the air its sheet asks for, mm: what hangs in an opening of the top has the whole height,
 * what is put in passes under the rail, and what stands in a tray has the inside of it too.
 */
function roomFor(
  thing: Thing,
  place: BayRoom,
  unit: Unit,
  scene: Scene,
): { readonly wide: number; readonly deep: number; readonly high: number } {
  const { room, bay, through } = place;
  const { side, back } = thing.clear;
  const tray = trayOf(place, unit, scene);
  const hangs = thing.cutOut !== null && bay.holds.kind === 'thing';
  const head = hangs || through === undefined ? room.z1 : room.z0 + through[1];
  const [wide, deep] = [room.x1 - room.x0, Math.min(place.deepLow, place.deepHigh)];
  if (!tray) return { wide, deep, high: head - room.z0 };
  // the air may be outside the tray
  return {
    wide: Math.min(wide, tray.wide + 2 * side),
    deep: Math.min(deep, tray.deep + back),
    high: tray.high,
  };
}
/** Slides whose tray takes a thing: how much longer they are, and how deep the bay then is, mm; null where none are. */
function longerSlides(
  thing: Thing,
  { deep, thick }: SlidInside,
  { book }: Scene,
): { readonly by: number; readonly deep: number } | null {
  const length = slidesFor(thing, thick, book);
  return length === null ? null : { by: length - deep - 2 * thick, deep: deepForSlides(length) };
}
const boardsOf = (unit: Unit, scene: Scene): readonly Board[] => scene.skeletons.get(unit.id)?.boards ?? [];
/** The tray that slides out of a bay; null where none does. */
const trayOf = (place: BayRoom, unit: Unit, scene: Scene): SlidInside | null =>
  place.bay.holds.kind === 'pull-out' ? (slidOutOf(place, boardsOf(unit, scene))[0] ?? null) : null;

/** What stands alone, and its data sheet. */
export function alone(unit: Unit, scene: Scene): Thing | null {
  const id = familyNamed(scene.families, unit.family)?.is?.(unit) ?? null;
  return id === null ? null : (scene.things.find((thing) => thing.id === id) ?? null);
}

const sizes = appliesTo(thingSizeRule, {
  ofUnit: (unit, scene) => {
    const thing = alone(unit, scene);
    const { body } = unit;
    if (!thing || body.stands !== 'free') return [];
    const along = unit.options['looks'] === 'left' || unit.options['looks'] === 'right';
    const [length, width] = along ? [thing.width, thing.depth] : [thing.depth, thing.width];
    const off = Math.max(
      Math.abs(body.length - length),
      Math.abs(body.width - width),
      Math.abs(body.to - body.from - thing.height),
    );
    return [
      {
        id: `thing-size:${unit.id}`,
        input: { off, name: unit.name, thing: thing.name },
        pin: { unit: unit.id, person: null, x: body.x + body.length / 2, y: body.y + body.width / 2 },
        quiet: true,
        mend: () =>
          offer(unit, scene, { length, width, height: body.from + thing.height }, message('mend.sizeAsSheet')),
      },
    ];
  },
});

/** A front that air passes through as it is. */
const isOpen = ({ front }: Bay): boolean => front.kind === 'none' || front.kind === 'curtain';

const SHUT_IN = { around: null, behind: null } as const;
/** What is free round a thing at the open front of its bay, and between its back and the wall, cm2. */
function freeRound(
  { room, deepLow, deepHigh }: BayRoom,
  thing: Thing,
): { readonly around: number; readonly behind: number } {
  const [wide, high] = [room.x1 - room.x0, room.z1 - room.z0];
  const around = Math.max(0, wide * high - Math.min(wide, thing.width) * Math.min(high, thing.height)) / 100;
  const behind = (wide * Math.max(0, Math.min(deepLow, deepHigh) - thing.depth)) / 100;
  return { around, behind };
}

const air = appliesTo(airRule, {
  ofUnit: (unit, scene) =>
    inBays(unit, scene)
      .filter(({ thing }) => thing.heat > 0 || thing.air !== null)
      .map(({ place, thing }) => {
        const { bay, room } = place;
        const high = room.z1 - room.z0;
        const sheet = thing.air ? Math.max(thing.air.inlet, thing.air.outlet) : null;
        const wants = Math.ceil(sheet ?? ventArea(thing.heat, high));
        // an open front is no use where the thing fills it
        const opened = airRule.run({
          watts: thing.heat,
          between: high,
          sheet,
          low: 0,
          high: 0,
          ...freeRound(place, thing),
          fan: 0,
          thing: thing.name,
          name: bayName(unit, bay),
        }).grade;
        return {
          id: `air:${unit.id}:${bay.name}`,
          input: {
            watts: thing.heat,
            between: high,
            sheet,
            low: bay.vents?.low ?? 0,
            high: bay.vents?.high ?? 0,
            fan: bay.vents?.fan ?? 0,
            ...(isOpen(bay) &&
            bay.holds.kind === 'thing' &&
            (place.behind === undefined || beforeIt(place, unit) !== 'board')
              ? freeRound(place, thing)
              : SHUT_IN),
            thing: thing.name,
            name: bayName(unit, bay),
          },
          pin: pinIn(unit, place),
          mend: () => [
            wants <= MOST_VENT
              ? offerBay(
                  unit,
                  bay,
                  scene,
                  { vents: { ...bay.vents, low: wants, high: wants } },
                  message('mend.vents', { area: wants }),
                )
              : null,
            bay.holds.kind === 'thing' && place.behind === undefined && !isOpen(bay) && opened === 'good'
              ? offerBay(unit, bay, scene, { front: { kind: 'none' } }, message('mend.openFront'))
              : null,
          ],
        };
      }),
});

/** A lid lies this near over the bay that it opens, mm. */
const LID_OVER_MM = 5;
/** Whether a lid opens over a bay: it lies on its head, not on a level between. */
const isLidded = ({ room }: BayRoom, unit: Unit, scene: Scene): boolean => {
  const [x, y] = [(room.x0 + room.x1) / 2, (room.y0 + room.y1) / 2];
  return (scene.skeletons.get(unit.id)?.motions ?? []).some(
    ({ of, shut }) =>
      of.endsWith('.lid') &&
      Math.abs(shut.z0 - room.z1) < LID_OVER_MM &&
      shut.x0 < x &&
      shut.x1 > x &&
      shut.y0 < y &&
      shut.y1 > y,
  );
};
/** What stands between a bay and the one before it: the innermost of what does; a board where it lies behind none. */
function beforeIt({ bay }: BayRoom, { division }: Unit): 'board' | 'frame' | 'none' {
  const holds = (part: Division): boolean => baysOf(part).some(({ name }) => name === bay.name);
  const within = (cuts: Division): 'board' | 'frame' | 'none' | null => {
    if (!('cut' in cuts)) return null;
    const at = cuts.parts.findIndex(holds);
    const part = cuts.parts[at];
    return part ? (within(part) ?? (cuts.cut === 'deep' && at > 0 ? cuts.divider : null)) : null;
  };
  return within(division) ?? 'board';
}
/** Whether a face of a thing in a bay is behind something that opens, comes off or slides out. */
function opensTo(face: Thing['service'][number], place: BayRoom, unit: Unit, scene: Scene): boolean {
  const { bay } = place;
  const slides = bay.holds.kind === 'pull-out';
  const lidded = isLidded(place, unit, scene);
  // what lies behind another bay is got at where a panel comes off
  if (face === 'front' && place.end !== undefined)
    return bay.front.kind !== 'none' || place.through === undefined || Math.min(...place.through) > 0;
  if (face === 'top' && place.lifts === true) return true;
  if (face === 'front' && place.behind !== undefined)
    return bay.front.kind === 'panel' || beforeIt(place, unit) !== 'board';
  if (face === 'front') return bay.front.kind !== 'none' || bay.holds.kind === 'thing' || slides;
  if (face === 'top') return slides || lidded;
  return slides;
}

/** How far it is free along the vehicle before the end through which a hold is reached, to the next unit or the end of the vehicle, mm. */
function freeAtEnd(
  unit: Unit,
  room: BayRoom['room'],
  end: 'front' | 'rear',
  scene: Scene,
): { readonly far: number; readonly by: string } {
  const { inner } = scene;
  const face = end === 'front' ? unit.body.x : endOf(unit);
  let far = end === 'front' ? face - inner.start : inner.length - face;
  let by = 'the end of the vehicle';
  for (const { unit: other, box } of standingIn(scene)) {
    if (other.id === unit.id || box.z0 >= room.z1 || box.z1 <= room.z0) continue;
    // whoever comes to it needs the whole of its opening
    if (Math.min(box.y1, room.y1) - Math.max(box.y0, room.y0) < (room.y1 - room.y0) / 2) continue;
    const gap = end === 'front' ? face - box.x1 : box.x0 - face;
    if (gap >= -1 && gap < far) [far, by] = [Math.max(0, gap), other.name];
  }
  return { far, by };
}

/** A front is no thicker than this, mm. */
const FACE_MM = 30;
/** How far it is free before the front of a bay, to the next unit or the other wall, mm. */
export function freeBefore(
  unit: Unit,
  { room, into, end, behind = 0 }: BayRoom,
  scene: Scene,
): { readonly far: number; readonly by: string } {
  const { inner } = scene;
  if (end !== undefined) return freeAtEnd(unit, room, end, scene);
  // what is open above alone is reached from there
  if (into === 0) {
    const [x, y] = [(room.x0 + room.x1) / 2, (room.y0 + room.y1) / 2];
    return { far: Math.max(0, roofHeight(inner, x, y) - room.z1), by: 'the roof' };
  }
  const side = into > 0 ? 'left' : 'right';
  // from the face of the unit, where it lies behind another bay
  const face = into > 0 ? room.y0 - behind : room.y1 + behind;
  const wall = Math.min(...spread(room.x0, room.x1, 3).map((x) => halfWidth(inner, side, x, (room.z0 + room.z1) / 2)));
  let far = into > 0 ? face + wall : wall - face;
  let by = 'the wall';
  for (const { unit: other, box } of standingIn(scene)) {
    if (box.x0 >= room.x1 - 1 || box.x1 <= room.x0 + 1 || box.z0 >= room.z1 || box.z1 <= room.z0) continue;
    const gap = into > 0 ? face - box.y1 : box.y0 - face;
    // of the unit itself what stands before it counts: a wing of a seat
    if (other.id === unit.id) {
      if (gap >= -FACE_MM && gap < far) [far, by] = [Math.max(0, gap), other.name];
      continue;
    }
    // what reaches over the front of the bay closes it
    const closed = box.y0 < face && box.y1 > face;
    const clear = closed ? 0 : gap;
    if (clear >= 0 && clear < far) [far, by] = [clear, other.name];
  }
  return { far, by };
}

/** A front that somebody stands before: where it is along the vehicle, how high it ends, and how far out its top reaches. */
interface Stood {
  readonly side: 'left' | 'right';
  readonly x0: number;
  readonly x1: number;
  readonly top: number;
  readonly reach: number;
}
const stoodBefore = new WeakMap<Unit, Stood | null>();
/** The fronts of all units, once for each scene; each worked out once for as long as its unit is the same. */
const frontsOf = memoFew((scene: Scene): readonly Stood[] =>
  scene.units.flatMap((unit) => {
    const before = stoodBefore.get(unit);
    if (before !== undefined) return before ?? [];
    const line = frontLineOf(unit);
    const stood = line && {
      side: line.side,
      x0: unit.body.x,
      x1: endOf(unit),
      top: unit.body.to,
      reach: (familyNamed(scene.families, unit.family)?.overhang?.(unit) ?? 0) - line.front,
    };
    stoodBefore.set(unit, stood);
    return stood ?? [];
  }),
);

/** How far before the front of a bay what stands under it keeps one, mm. */
function keptOff(unit: Unit, { room }: BayRoom, scene: Scene): number {
  const line = frontLineOf(unit);
  const { floor } = scene.inner;
  let off = 0;
  if (line)
    for (const { side, x0, x1, top, reach } of frontsOf(scene))
      if (side === line.side && top + floor <= room.z0 + 1 && x0 < room.x1 - 1 && x1 > room.x0 + 1)
        off = Math.max(off, line.front + reach);
  return off;
}

/** The shortest of those who are grown; of all where nobody is. */
const shortestOf = memoOf((people: Scene['people']): Person | undefined => {
  const grown = grownIn(people);
  return [...(grown.length > 0 ? grown : people)].sort((a, b) => a.stature - b.stature)[0];
});

const back = appliesTo(reachBackRule, {
  ofEach: {
    within: 1,
    of: (unit, scene) => {
      const who = shortestOf(scene.people);
      // one stands in a wash room, and does not reach into it
      if (!who || familyNamed(scene.families, unit.family)?.standsIn?.(unit) === true) return [];
      return (
        placesOf(unit, scene)
          // what slides out comes to whoever wants it; a hold is packed from above or behind
          .filter(({ into, bay }) => into !== 0 && ['open', 'shelves', 'rail'].includes(bay.holds.kind))
          .map((place) => {
            const { bay, room } = place;
            return {
              id: `reach-back:${unit.id}:${bay.name}`,
              input: {
                deep: (place.behind ?? 0) + Math.max(place.deepLow, place.deepHigh) + keptOff(unit, place, scene),
                height: (room.z0 + room.z1) / 2 - scene.inner.floor,
                stature: who.stature,
                who: who.name,
                name: bayName(unit, bay),
              },
              pin: pinIn(unit, place),
              quiet: true,
            };
          })
      );
    },
  },
});

const reach = appliesTo(reachRule, {
  ofEach: {
    within: 1,
    of: (unit, scene) =>
      inBays(unit, scene).flatMap(({ place, thing }) =>
        thing.service.map((face) => {
          const { bay } = place;
          const { far, by } = freeBefore(unit, place, scene);
          const lid = face === 'top' && bay.holds.kind !== 'pull-out';
          const input = {
            opens: opensTo(face, place, unit, scene),
            // boards that lift off leave as much room over a hold as a lid does
            before: lid || place.lifts === true ? Math.max(500, far) : far,
            face,
            thing: thing.name,
            name: bayName(unit, bay),
            by,
          };
          // another front is no use where nobody gets before it
          const opened = reachRule.run({ ...input, opens: true, before: far }, scene.figures[reachRule.name]).grade;
          const helps = !input.opens && opened !== 'fails';
          return {
            id: `reach:${unit.id}:${bay.name}:${face}`,
            input,
            pin: pinIn(unit, place),
            quiet: true,
            mend: (): (Mend | null)[] => [
              helps && face !== 'front' && bay.holds.kind === 'thing' && place.behind === undefined
                ? offerBay(
                    unit,
                    bay,
                    scene,
                    { holds: { kind: 'pull-out', thing: thing.id, travel: Math.round(thing.depth), latch: true } },
                    message('mend.tray', { to: mm(Math.round(thing.depth)) }),
                  )
                : null,
              helps && face === 'front' && bay.front.kind === 'none' && place.behind === undefined
                ? offerBay(
                    unit,
                    bay,
                    scene,
                    { front: { kind: 'doors', count: 1, latch: true } },
                    message('mend.doorFront'),
                  )
                : null,
              helps && face === 'front' && place.behind !== undefined
                ? offerBay(unit, bay, scene, { front: { kind: 'panel' } }, message('mend.panelBefore'))
                : null,
            ],
          };
        }),
      ),
  },
});

const LITRE = 1e6;
/** The inside of a bay and what goes through its front, mm. */
function insideOf(
  place: BayRoom,
  unit: Unit,
  scene: Scene,
): {
  readonly opening: [number, number];
  readonly inside: [number, number, number];
  readonly litres: number;
} {
  const { room, deepLow, deepHigh, bay, through } = place;
  const boards = boardsOf(unit, scene);
  const litres = litresIn(place, boards);
  const slid = slidOutOf(place, boards);
  // what slides out is filled from above, and each alike: as the smallest of them
  if (slid.length > 0) {
    const [wide, deep, high] = (['wide', 'deep', 'high'] as const).map((way) =>
      Math.min(...slid.map((one) => one[way])),
    ) as [number, number, number];
    return { opening: [wide, high], inside: [wide, deep, high], litres };
  }
  const [wide, high] = [room.x1 - room.x0, room.z1 - room.z0];
  const before = place.behind === undefined || bay.front.kind === 'panel' ? 'none' : beforeIt(place, unit);
  const shut = before === 'board' && !isLidded(place, unit, scene);
  // what goes into a bay behind a frame goes through its opening
  const framed = before === 'frame' ? 2 * FRAME_MM : 0;
  // doors side by side open all of it; sliding panels half
  const opening: [number, number] = shut
    ? [0, 0]
    : through
      ? [through[0], through[1]]
      : [(bay.front.kind === 'sliding' ? wide / 2 : wide) - framed, high - framed];
  const levels = bay.holds.kind === 'shelves' ? bay.holds.count + 1 : 1;
  return {
    opening,
    inside: [wide, Math.min(deepLow, deepHigh), high / levels],
    litres,
  };
}

const keptIn = (scene: Scene): { readonly stored: Stored; readonly unit: Unit; readonly place: BayRoom }[] =>
  scene.stored.flatMap((stored) => {
    const unit = scene.units.find(({ id }) => id === stored.kept?.unit);
    const place = unit && placesOf(unit, scene).find(({ bay }) => bay.name === stored.kept?.bay);
    return unit && place ? [{ stored, unit, place }] : [];
  });

const stores = appliesTo(storedRule, {
  ofRoom: (scene) =>
    keptIn(scene).map(({ stored, unit, place }) => {
      const { opening, inside } = insideOf(place, unit, scene);
      const input = {
        size: [stored.length, stored.width, stored.height] as [number, number, number],
        opening,
        inside,
        turns: stored.turns,
        name: stored.name,
        bay: bayName(unit, place.bay),
      };
      return {
        id: `stored:${stored.id}`,
        input,
        pin: pinIn(unit, place),
        quiet: true,
        // the first bay in which it does go
        mend: () => {
          for (const other of scene.units)
            for (const better of placesOf(other, scene)) {
              const room = insideOf(better, other, scene);
              if (
                storedRule.run(
                  {
                    ...input,
                    opening: room.opening,
                    inside: room.inside,
                  },
                  scene.figures[storedRule.name],
                ).grade === 'good'
              )
                return {
                  said: message('mend.keepElsewhere', { bay: bayName(other, better.bay) }),
                  operations: [
                    {
                      name: 'putStored' as const,
                      payload: { stored: { ...stored, kept: { unit: other.id, bay: better.bay.name } } },
                    },
                  ],
                };
            }
          return null;
        },
      };
    }),
});

const full = appliesTo(placesRule, {
  ofRoom: (scene) => {
    const kept = keptIn(scene);
    const holding = new Set(kept.map(({ unit }) => unit));
    // as they stand in the plan
    const holders = scene.units.filter((unit) => holding.has(unit));
    return holders.flatMap((unit) =>
      placesOf(unit, scene).flatMap((place) => {
        const own = kept.filter((one) => one.unit.id === unit.id && one.place.bay.name === place.bay.name);
        if (own.length === 0) return [];
        const litres = own.reduce(
          (sum, { stored }) => sum + (stored.count * stored.length * stored.width * stored.height) / LITRE,
          0,
        );
        return [
          {
            id: `places:${unit.id}:${place.bay.name}`,
            input: { litres, room: insideOf(place, unit, scene).litres, bay: bayName(unit, place.bay) },
            pin: pinIn(unit, place),
            quiet: true,
          },
        ];
      }),
    );
  },
});

/** Whether appliances and goods go where they are to go, and are reached. */
export const THING_CHECKS = [fits, sizes, air, reach, stores, full, back];
