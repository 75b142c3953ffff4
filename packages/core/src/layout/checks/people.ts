import { endOf, frontLineOf } from '../../document/body.js';
import { familyNamed, fieldNamed } from '../../document/kit.js';
import type { Person, Unit } from '../../document/schema.js';
import { appliesTo, changeUnit, type Case, type Mend, type Pin, type Scene } from '../../furniture/scene.js';
import { wholeUp } from '../../numeric/tolerance.js';
import { spread } from '../../numeric/plane.js';
import {
  bedEdgeRule,
  bedLengthRule,
  bedWidthRule,
  sittingUpRule,
  standingRule,
  worktopRule,
} from '../../rules/people.js';
import { halfWidth, roofHeight } from '../../shell/shell.js';
import { message, mm } from '../../words/message.js';
import { clearAcross, lyingPlaces, strip, type LyingPlace } from '../lying.js';

/** How far a platform is moved in search of more room, mm. */
const REACH_MM = 250;
/** No platform is put lower than this, mm. */
const LOWEST_MM = 100;

interface Sleeper {
  readonly person: Person;
  readonly x0: number;
  readonly x1: number;
}
const placeOn = (unit: Unit, scene: Scene): LyingPlace | null => lyingPlaces([unit], scene.families)[0] ?? null;

function sleepersOf(place: LyingPlace, scene: Scene): readonly Sleeper[] {
  return place.sleepers.flatMap((id, index) => {
    const person = scene.people.find((candidate) => candidate.id === id);
    const [x0, x1] = strip(place, index);
    return person ? [{ person, x0, x1 }] : [];
  });
}

/** One case for every sleeper of a unit. */
const eachSleeper =
  <Input>(make: (place: LyingPlace, sleeper: Sleeper, scene: Scene) => Case<Input>) =>
  (unit: Unit, scene: Scene): readonly Case<Input>[] => {
    const place = placeOn(unit, scene);
    return place ? sleepersOf(place, scene).map((sleeper) => make(place, sleeper, scene)) : [];
  };

/** A mend that changes fields, where the unit's family has them. */
function mendBy(unit: Unit, scene: Scene, changes: Readonly<Record<string, number>>, said: Mend['said']): Mend | null {
  const family = familyNamed(scene.families, unit.family);
  return family && Object.keys(changes).every((name) => fieldNamed(family, name))
    ? { said, operations: [changeUnit(unit, changes)] }
    : null;
}

/** The platform height within reach at which a sleeper has the most room, and how much that is. */
function bestHeight(
  { unit, mattress }: LyingPlace,
  { x0, x1 }: Sleeper,
  { inner }: Scene,
): { readonly height: number; readonly clear: number } {
  return spread(-REACH_MM, REACH_MM, 2 * Math.round(REACH_MM / 10) + 1)
    .map((by) => {
      const height = unit.body.to + by;
      const top = inner.floor + height;
      return { height, clear: clearAcross(inner, x0, x1, top, top + mattress) };
    })
    .filter(({ height }) => height > LOWEST_MM)
    .reduce((best, next) => (next.clear > best.clear + 0.5 ? next : best));
}

const pinOf = (unit: Unit, person: string | null, x: number, y: number): Pin => ({ unit: unit.id, person, x, y });

const bedLength = appliesTo(bedLengthRule, {
  ofUnit: eachSleeper((place, sleeper, scene) => {
    const { unit, mattress } = place;
    const { person, x0, x1 } = sleeper;
    const top = scene.inner.floor + unit.body.to;
    const clear = clearAcross(scene.inner, x0, x1, top, top + mattress);
    return {
      id: `bed-length:${unit.id}:${person.id}`,
      input: { clear, stature: person.stature, who: person.name },
      pin: pinOf(unit, person.id, (x0 + x1) / 2, 0.28 * person.stature),
      mend: () => {
        const better = bestHeight(place, sleeper, scene);
        return better.clear > clear + 2
          ? mendBy(
              unit,
              scene,
              { height: better.height },
              message('mend.bedHeight', { to: mm(better.height), gain: mm(better.clear - clear) }),
            )
          : null;
      },
    };
  }),
});

const sittingUp = appliesTo(sittingUpRule, {
  ofUnit: eachSleeper(({ unit, mattress }, { person, x0, x1 }, scene) => {
    const { inner } = scene;
    return {
      id: `sitting-up:${unit.id}:${person.id}`,
      input: {
        ceiling: Math.min(...spread(x0, x1, 5).map((x) => roofHeight(inner, x, 0))),
        platform: inner.floor + unit.body.to,
        mattress,
        stature: person.stature,
        sittingHeight: person.sittingHeight,
        who: person.name,
      },
      pin: pinOf(unit, person.id, (x0 + x1) / 2, 0.4 * person.stature),
      mend: ({ spare }) => {
        const lower = wholeUp(-(spare ?? 0));
        return unit.body.to - lower > LOWEST_MM + 50
          ? mendBy(unit, scene, { height: unit.body.to - lower }, message('mend.lowerBed', { by: mm(lower) }))
          : null;
      },
    };
  }),
});

const bedEdge = appliesTo(bedEdgeRule, {
  ofUnit: eachSleeper(({ unit, mattress }, { person }, { inner }) => ({
    id: `bed-edge:${unit.id}:${person.id}`,
    input: {
      platform: unit.body.to,
      mattress,
      stature: person.stature,
      backOfKnee: person.backOfKnee,
      who: person.name,
    },
    pin: pinOf(
      unit,
      person.id,
      unit.body.x + 100,
      -halfWidth(inner, 'left', unit.body.x, inner.floor + unit.body.to) + 120,
    ),
  })),
});

const bedWidth = appliesTo(bedWidthRule, {
  ofUnit: (unit, scene) => {
    const place = placeOn(unit, scene);
    const lying = place ? sleepersOf(place, scene) : [];
    const count = lying.length;
    if (count === 0) return [];
    const { x, length } = unit.body;
    return [
      {
        id: `bed-width:${unit.id}`,
        input: {
          width: length,
          sleepers: count,
          shoulders: lying.flatMap(({ person }) => person.shoulderWidth ?? []),
        },
        pin: pinOf(unit, null, x + length / 2, 420),
        mend: ({ spare }) => {
          const more = wholeUp(-(spare ?? 0));
          return x - more >= scene.inner.start
            ? mendBy(unit, scene, { x: x - more, length: length + more }, message('mend.widenBed', { by: mm(more) }))
            : null;
        },
      },
    ];
  },
});

const worktop = appliesTo(worktopRule, {
  ofUnit: (unit, scene) => {
    const line = frontLineOf(unit);
    if (!line || familyNamed(scene.families, unit.family)?.worksAt?.(unit) !== true) return [];
    return scene.people.map((person) => ({
      id: `worktop:${unit.id}:${person.id}`,
      input: { height: unit.body.to, stature: person.stature, who: person.name },
      pin: pinOf(unit, person.id, unit.body.x + 130, line.sign * (line.front + 150)),
    }));
  },
});

/** Where one stands up: everywhere but over what reaches from wall to wall. */
const standing = appliesTo(standingRule, {
  ofRoom: ({ inner, units, people }) => {
    const beds = units.filter((unit) => frontLineOf(unit) === null);
    const free = spread(inner.start, inner.length, 25).filter(
      (x) => !beds.some((bed) => x > bed.body.x && x < endOf(bed)),
    );
    const lowest = free
      .map((x) => ({ x, height: roofHeight(inner, x, 0) - inner.floor }))
      .reduce((least, next) => (next.height < least.height ? next : least), { x: 0, height: Infinity });
    if (!Number.isFinite(lowest.height)) return [];
    return people.map((person) => ({
      id: `standing:${person.id}`,
      input: { height: lowest.height, stature: person.stature, who: person.name },
      pin: { unit: null, person: person.id, x: lowest.x, y: 0 },
    }));
  },
});

/** Whether people fit. */
export const PEOPLE_CHECKS = [bedLength, sittingUp, bedEdge, bedWidth, worktop, standing];
