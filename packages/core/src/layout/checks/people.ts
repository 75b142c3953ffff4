import { endOf, frontLineOf, spansWalls } from '../../document/body.js';
import { familyNamed } from '../../document/kit.js';
import type { Person, Unit } from '../../document/schema.js';
import { madeHeight, offer, topAt } from '../../furniture/offer.js';
import { appliesTo, type Case, type Mend, type Pin, type Scene } from '../../furniture/scene.js';
import { worstOf, type Grade, type Verdict } from '../../rules/rule.js';
import { guardRule } from '../../rules/sitting.js';
import { memoOf } from '../../numeric/memo.js';
import { stepUp } from '../../numeric/tolerance.js';
import { spread } from '../../numeric/plane.js';
import type { SolidBox } from '../../rules/room.js';
import {
  bedEdgeRule,
  bedLengthRule,
  bedWidthRule,
  MATTRESS_GIVES,
  SITTING_SHARE,
  sittingUpRule,
  standingRule,
  worktopRule,
  bestTop,
  grownIn,
  middleTop,
} from '../../rules/people.js';
import { halfWidth, roofHeight } from '../../shell/shell.js';
import { message, mm } from '../../words/message.js';
import { standingIn } from '../standing.js';
import { bedWidth, berthOf, clearOver, lyingPlaces, lyingRoomOf, type Berth, type LyingPlace } from '../lying.js';

/** How far a platform is moved in search of more room, mm. */
const REACH_MM = 250;
/** No platform is put lower than this, mm. */
const LOWEST_MM = 100;

interface Sleeper {
  readonly person: Person;
  readonly berth: Berth;
}
const placeOn = (unit: Unit, scene: Scene): LyingPlace | null => lyingPlaces([unit], scene.families)[0] ?? null;

function sleepersOf(place: LyingPlace, scene: Scene): readonly Sleeper[] {
  return place.sleepers.flatMap((id, index) => {
    const person = scene.people.find((candidate) => candidate.id === id);
    return person ? [{ person, berth: berthOf(place, index, lyingRoomOf(scene, place.unit.id)) }] : [];
  });
}

/** One case for every sleeper of a unit. */
const eachSleeper =
  <Input>(make: (place: LyingPlace, sleeper: Sleeper, scene: Scene) => Case<Input>) =>
  (unit: Unit, scene: Scene): readonly Case<Input>[] => {
    const place = placeOn(unit, scene);
    return place ? sleepersOf(place, scene).map((sleeper) => make(place, sleeper, scene)) : [];
  };

/** The platform height within reach at which a sleeper has the most room, and how much that is. */
function bestHeight(
  { unit, mattress }: LyingPlace,
  { x0, x1 }: Berth,
  scene: Scene,
): { readonly height: number; readonly clear: number } {
  const { inner } = scene;
  const room = lyingRoomOf(scene, unit.id);
  return spread(-REACH_MM, REACH_MM, 2 * Math.round(REACH_MM / 10) + 1)
    .map((by) => {
      const height = madeHeight(unit, scene, unit.body.to + by);
      const top = inner.floor + height;
      return { height, clear: clearOver(room, x0, x1, top, top + mattress) };
    })
    .filter(({ height }) => height > LOWEST_MM)
    .reduce((best, next) => (next.clear > best.clear + 0.5 ? next : best));
}

const pinOf = (unit: Unit, person: string | null, x: number, y: number): Pin => ({ unit: unit.id, person, x, y });
/** A note on a sleeper's own strip: off the middle, where the body is drawn. */
const onBerth = (place: LyingPlace, { person, berth }: Sleeper, share: number): Pin =>
  place.along === 'x'
    ? pinOf(place.unit, person.id, berth.x0 + share * (berth.x1 - berth.x0), (berth.y0 + berth.y1) / 2)
    : pinOf(place.unit, person.id, (berth.x0 + berth.x1) / 2, share * person.stature);

/** What stands at the height of a sleeper stands no farther from his bed along the vehicle, mm. */
const BESIDE_BED_MM = 50;

const bedLength = appliesTo(bedLengthRule, {
  ofEach: {
    within: BESIDE_BED_MM,
    of: eachSleeper((place, sleeper, scene) => {
      const { unit, along } = place;
      const { person, berth } = sleeper;
      const input = { clear: berth.clear, stature: person.stature, who: person.name, along: along ?? 'y' };
      return {
        id: `bed-length:${unit.id}:${person.id}`,
        input,
        pin: onBerth(place, sleeper, 0.28),
        mend: ({ spare, grade }) => {
          const more = stepUp(scene, -(spare ?? 0));
          if (along === 'x')
            return [
              endOf(unit) + more <= scene.inner.length
                ? offer(
                    unit,
                    scene,
                    { length: unit.body.length + more },
                    message('mend.longer', { name: unit.name, by: mm(more) }),
                  )
                : null,
              unit.body.x - more >= scene.inner.start
                ? offer(
                    unit,
                    scene,
                    { x: unit.body.x - more, length: unit.body.length + more },
                    message('mend.longer', { name: unit.name, by: mm(more) }),
                  )
                : null,
            ];
          const better = bestHeight(place, berth, scene);
          // what stays too short is not mended
          const then = bedLengthRule.run({ ...input, clear: better.clear }, scene.figures[bedLengthRule.name]).grade;
          return better.clear > berth.clear + 2 && (grade !== 'fails' || then !== 'fails')
            ? offer(
                unit,
                scene,
                topAt(unit, scene, better.height),
                message('mend.bedHeight', { to: mm(better.height), gain: mm(better.clear - berth.clear) }),
              )
            : null;
        },
      };
    }),
  },
});

/** A head and its hair take so much room to each side, mm. */
export const HEAD_MM = 150;

/** What hangs higher than a height above the bare floor, but for one unit, mm. */
const hangingOver = (z: number, but: string | null, scene: Scene): readonly SolidBox[] =>
  standingIn(scene).flatMap(({ unit, box }) => (box.z0 > z && unit.id !== but ? box : []));
/** The lowest of what hangs over a head at a place, mm above the bare floor; infinite where nothing does. */
function lowestOver(x: number, y: number, above: readonly SolidBox[]): number {
  let lowest = Infinity;
  for (const box of above)
    if (box.z0 < lowest && box.y0 < y + HEAD_MM && box.y1 > y - HEAD_MM && box.x0 < x + HEAD_MM && box.x1 > x - HEAD_MM)
      lowest = box.z0;
  return lowest;
}

/** The place over one berth with the most room, under the roof and under whatever hangs there, and how high it is, mm. */
function mostOver(
  unit: Unit,
  { x0, x1, y0, y1 }: Berth,
  scene: Scene,
): { readonly y: number; readonly height: number } {
  const { inner } = scene;
  const above = hangingOver(inner.floor + unit.body.to, unit.id, scene);
  const roof = (y: number): number => Math.min(...spread(x0, x1, 5).map((x) => roofHeight(inner, x, y)));
  // a body that lies along sits up anywhere over its length, in the middle of its place; one across anywhere over its own
  const along = x1 - x0 > y1 - y0;
  const ys = !along && y0 < -HEAD_MM && y1 > HEAD_MM ? [0, ...spread(y0 + HEAD_MM, y1 - HEAD_MM, 9)] : [(y0 + y1) / 2];
  const xs = along ? spread(x0 + HEAD_MM, x1 - HEAD_MM, 9) : [(x0 + x1) / 2];
  let most = { y: ys[0] ?? 0, height: -Infinity };
  for (const y of ys) {
    const own = roof(y);
    for (const x of xs) {
      const height = Math.min(own, lowestOver(x, y, above));
      if (height > most.height) most = { y, height };
    }
  }
  return most;
}
/** How high it is over one berth at the best place along the body, mm above the bare floor. */
export const ceilingOver = (unit: Unit, berth: Berth, scene: Scene): number => mostOver(unit, berth, scene).height;

/**
 * How high one stands up to at a place on the floor: to the roof, or to what hangs over a head there, mm above the bare floor.
 * @param long what hangs over less than this of the way is passed with a nod and left out, mm
 */
export function headroomIn(scene: Scene, long = 0): (x: number, y: number) => number {
  const above = hangingOver(scene.inner.floor + HANGS_MM, null, scene).filter(({ x0, x1 }) => x1 - x0 >= long);
  return (x, y) => Math.min(roofHeight(scene.inner, x, y), lowestOver(x, y, above));
}
/** What begins lower than this is stepped round, not ducked under, mm. */
const HANGS_MM = 900;

/** One who sits up in bed as it is judged: where across, on what, under what, and how much is left over the head, mm. */
export interface SitsUp {
  readonly person: Person;
  readonly y: number;
  readonly seat: number;
  readonly ceiling: number;
  readonly spare: number;
}
/** How the sleeper of a number sits up on their place; null where there is none of that number. */
export function sitsUp(place: LyingPlace, index: number, scene: Scene): SitsUp | null {
  const sleeper = sleepersOf(place, scene)[index];
  if (!sleeper) return null;
  const { person, berth } = sleeper;
  const { y, height: ceiling } = mostOver(place.unit, berth, scene);
  const seat = scene.inner.floor + place.unit.body.to + (1 - MATTRESS_GIVES) * place.mattress;
  return { person, y, seat, ceiling, spare: ceiling - seat - (person.sittingHeight ?? SITTING_SHARE * person.stature) };
}

/** What decides whether a sleeper sits up on a bed. */
const sittingInput = ({ unit, mattress }: LyingPlace, { person, berth }: Sleeper, scene: Scene) => ({
  ceiling: ceilingOver(unit, berth, scene),
  platform: scene.inner.floor + unit.body.to,
  mattress,
  stature: person.stature,
  sittingHeight: person.sittingHeight,
  who: person.name,
});
/** What decides how a sleeper gets off a bed. */
const edgeInput = ({ unit, mattress }: LyingPlace, { person }: Sleeper) => ({
  platform: unit.body.to,
  mattress,
  stature: person.stature,
  backOfKnee: person.backOfKnee,
  who: person.name,
});

/** How a bed is for the worst off of its sleepers to sit up on and to get off; null where nobody sleeps. */
export function bedComfort(unit: Unit, scene: Scene): Grade | null {
  const place = placeOn(unit, scene);
  const verdicts = (place ? sleepersOf(place, scene) : []).flatMap((sleeper) =>
    place
      ? [
          sittingUpRule.run(sittingInput(place, sleeper, scene), scene.figures[sittingUpRule.name]),
          bedEdgeRule.run(edgeInput(place, sleeper), scene.figures[bedEdgeRule.name]),
        ]
      : [],
  );
  const [first, ...others] = verdicts;
  return first ? worstOf([first, ...others]).grade : null;
}

const sittingUp = appliesTo(sittingUpRule, {
  ofEach: {
    within: HEAD_MM,
    of: (own, scene) =>
      lyingPlaces([own], scene.families).flatMap((place) =>
        sleepersOf(place, scene).map((sleeper) => {
          const { unit } = place;
          const { person } = sleeper;
          return {
            id: `sitting-up:${unit.id}:${person.id}`,
            input: sittingInput(place, sleeper, scene),
            pin: onBerth(place, sleeper, 0.4),
            mend: ({ spare }: Verdict) => {
              const lower = unit.body.to - madeHeight(unit, scene, unit.body.to - stepUp(scene, -(spare ?? 0)), true);
              return unit.body.to - lower > LOWEST_MM + 50
                ? offer(
                    unit,
                    scene,
                    topAt(unit, scene, unit.body.to - lower),
                    message('mend.lowerBed', { by: mm(lower) }),
                    (then) => {
                      // what it was beside may come to hang over it
                      const low = sittingUpRule.run(
                        sittingInput({ ...place, unit: then }, sleeper, scene),
                        scene.figures[sittingUpRule.name],
                      );
                      return (low.spare ?? 0) > (spare ?? 0);
                    },
                  )
                : null;
            },
          };
        }),
      ),
  },
});

const bedEdge = appliesTo(bedEdgeRule, {
  ofUnit: eachSleeper((place, sleeper, { inner }) => {
    const { unit } = place;
    const { person } = sleeper;
    const line = frontLineOf(unit);
    return {
      id: `bed-edge:${unit.id}:${person.id}`,
      input: edgeInput(place, sleeper),
      pin: line
        ? pinOf(unit, person.id, unit.body.x + 200, line.sign * (line.front + 60))
        : pinOf(
            unit,
            person.id,
            unit.body.x + 100,
            -halfWidth(inner, 'left', unit.body.x, inner.floor + unit.body.to) + 120,
          ),
    };
  }),
});

const bedWide = appliesTo(bedWidthRule, {
  ofUnit: (unit, scene) => {
    const place = placeOn(unit, scene);
    const lying = place ? sleepersOf(place, scene) : [];
    const count = lying.length;
    if (!place || count === 0) return [];
    const { x, length } = unit.body;
    const line = frontLineOf(unit);
    return [
      {
        id: `bed-width:${unit.id}`,
        input: {
          width: bedWidth(place, lyingRoomOf(scene, place.unit.id)),
          sleepers: count,
          shoulders: lying.flatMap(({ person }) => person.shoulderWidth ?? []),
        },
        pin: line
          ? pinOf(unit, null, x + length / 2, line.sign * (line.front + 120))
          : pinOf(unit, null, x + length / 2, 420),
        mend: ({ spare }) => {
          const more = stepUp(scene, -(spare ?? 0));
          if (line)
            return line.front - more > -300
              ? offer(unit, scene, { front: line.front - more }, message('mend.widenBed', { by: mm(more) }))
              : null;
          return x - more >= scene.inner.start
            ? offer(unit, scene, { x: x - more, length: length + more }, message('mend.widenBed', { by: mm(more) }))
            : null;
        },
      },
    ];
  },
});

const guard = appliesTo(guardRule, {
  ofUnit: (unit, scene) => {
    const place = placeOn(unit, scene);
    const line = frontLineOf(unit);
    if (!place || !line || place.sleepers.length === 0) return [];
    return [
      {
        id: `guard:${unit.id}`,
        input: { edge: unit.body.to + place.mattress, guard: place.guard ?? 0, name: unit.name },
        pin: pinOf(unit, null, unit.body.x + unit.body.length / 3, line.sign * line.front),
        quiet: true,
        mend: () => {
          const high = stepUp(scene, GUARD_MM);
          return offer(unit, scene, { guard: high }, message('mend.guard', { to: mm(high) }));
        },
      },
    ];
  },
});
const GUARD_MM = 160;

/** Whether one grade is better than another. */
export const isBetter = (then: Grade, now: Grade): boolean => GRADES.indexOf(then) < GRADES.indexOf(now);
const GRADES: readonly Grade[] = ['good', 'tight', 'fails'];

/** Heights of a unit that are better for somebody: the one that is best for all who use it, else their own. */
export function heightsFor(
  unit: Unit,
  scene: Scene,
  forAll: number,
  own: number,
  helps: (height: number) => boolean,
): Mend | null {
  const height = [forAll, own].map((to) => madeHeight(unit, scene, to)).find((to) => to !== unit.body.to && helps(to));
  return height === undefined
    ? null
    : offer(unit, scene, topAt(unit, scene, height), message('mend.heightTo', { name: unit.name, to: mm(height) }));
}

const worktop = appliesTo(worktopRule, {
  ofUnit: (unit, scene) => {
    const line = frontLineOf(unit);
    const cooks = grownIn(scene.people);
    if (!line || familyNamed(scene.families, unit.family)?.worksAt?.(unit) !== true) return [];
    return cooks.map((person) => ({
      id: `worktop:${unit.id}:${person.id}`,
      input: { height: unit.body.to, stature: person.stature, who: person.name },
      pin: pinOf(unit, person.id, unit.body.x + 130, line.sign * (line.front + 150)),
      mend: ({ grade }) =>
        heightsFor(unit, scene, bestTop(cooks, scene.figures), Math.round(middleTop(person, scene.figures)), (height) =>
          isBetter(
            worktopRule.run({ height, stature: person.stature, who: '' }, scene.figures[worktopRule.name]).grade,
            grade,
          ),
        ),
    }));
  },
});

/** The roof over the centre line, from one end to the other: the same for as long as the room is. */
const roofLine = memoOf((inner: Scene['inner']): readonly { readonly x: number; readonly roof: number }[] =>
  spread(inner.start, inner.length, 25).map((x) => ({ x, roof: roofHeight(inner, x, 0) })),
);

/** Where one stands up: everywhere but over what reaches from wall to wall. */
/** What hangs over no more of the way than this is a door's head, mm. */
const NODDED_MM = 100;

const standing = appliesTo(standingRule, {
  ofRoom: (scene) => {
    const { inner, units, people, families } = scene;
    const beds = lyingPlaces(units, families)
      .map(({ unit }) => unit)
      .filter(spansWalls);
    // nobody stands in the door of a partition
    const above = hangingOver(inner.floor + HANGS_MM, null, scene).filter(({ x0, x1 }) => x1 - x0 >= NODDED_MM);
    let lowest = { x: 0, height: Infinity };
    for (const { x, roof } of roofLine(inner)) {
      if (beds.some((bed) => x > bed.body.x && x < endOf(bed))) continue;
      const height = Math.min(roof, lowestOver(x, 0, above)) - inner.floor;
      if (height < lowest.height) lowest = { x, height };
    }
    if (!Number.isFinite(lowest.height)) return [];
    return people.map((person) => ({
      id: `standing:${person.id}`,
      input: { height: lowest.height, stature: person.stature, who: person.name },
      pin: { unit: null, person: person.id, x: lowest.x, y: 0 },
    }));
  },
});

/** Whether people fit. */
export const PEOPLE_CHECKS = [bedLength, sittingUp, bedEdge, bedWide, guard, worktop, standing];
