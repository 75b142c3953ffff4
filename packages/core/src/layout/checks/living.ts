import { familyNamed, fieldNamed } from '../../document/kit.js';
import { spansWalls } from '../../document/body.js';
import type { Person, Unit } from '../../document/schema.js';
import { offer, topAt } from '../../furniture/offer.js';
import { appliesTo, type Scene } from '../../furniture/scene.js';
import { CUSHION_GIVES, EYES_BELOW_CROWN, MATTRESS_GIVES, SITTING_SHARE } from '../../rules/people.js';
import { eyeLineRule, gettingPastRule, levelBedRule, passingRule } from '../../rules/living.js';
import { stepUp } from '../../numeric/tolerance.js';
import { widthOf } from '../../shell/openings.js';
import { message, mm } from '../../words/message.js';
import { seatsAgainst } from '../cushions.js';
import { berthOf, lyingPlaces, lyingRoomOf } from '../lying.js';
import { ceilingOver, HEAD_MM } from './people.js';
import { widen, widestWay } from './room.js';
import { seatsIn, sittersOf } from './sitting.js';

const passing = appliesTo(passingRule, {
  ofRoom: (scene) => {
    const [one, other] = [...scene.people].sort((a, b) => b.stature - a.stature);
    const widest = one && other ? widestWay(scene) : null;
    if (!one || !other || !widest || scene.units.length === 0) return [];
    return [
      {
        id: 'passing',
        input: {
          widest: widest.width,
          stature: one.stature,
          shoulders: one.shoulderWidth,
          who: one.name,
          other: other.name,
        },
        pin: { unit: null, person: one.id, x: widest.x, y: widest.y },
        quiet: true,
        mend: ({ good }) => widen(scene, good, widestWay),
      },
    ];
  },
});

/** A platform is not lowered further than this, mm. */
const LOWEST_BED_MM = 250;

const gettingPast = appliesTo(gettingPastRule, {
  ofEach: {
    within: HEAD_MM,
    of: (own, scene) =>
      lyingPlaces([own], scene.families).flatMap((place) => {
        const { unit, mattress, sleepers } = place;
        if (!spansWalls(unit) || sleepers.length < 2) return [];
        // one gets out to the side on which there is more of the vehicle left
        const { body } = unit;
        const toFront = body.x - scene.inner.start > scene.inner.length - body.x - body.length;
        const order = toFront ? sleepers : [...sleepers].reverse();
        const top = scene.inner.floor + body.to + (1 - MATTRESS_GIVES) * mattress;
        const named = (id: string | undefined): Person | undefined => scene.people.find((person) => person.id === id);
        return order.slice(1).flatMap((id, i) => {
          const [who, other] = [named(id), named(order[i])];
          if (!who || !other) return [];
          const berth = berthOf(place, sleepers.indexOf(other.id), lyingRoomOf(scene, unit.id));
          const clear = ceilingOver(unit, berth, scene) - top;
          return [
            {
              id: `getting-past:${unit.id}:${who.id}`,
              input: { clear, who: who.name, other: other.name },
              pin: { unit: unit.id, person: who.id, x: (berth.x0 + berth.x1) / 2, y: 0 },
              quiet: true,
              mend: ({ spare }) => {
                const to = body.to - stepUp(scene, -(spare ?? 0));
                return spare !== null && to >= body.from + LOWEST_BED_MM
                  ? offer(
                      unit,
                      scene,
                      topAt(unit, scene, to),
                      message('mend.lower', { name: unit.name, to: mm(to) }),
                      (then) =>
                        // what it was beside may come to hang over it
                        ceilingOver(then, berth, scene) - (top + to - body.to) > clear,
                    )
                  : null;
              },
            },
          ];
        });
      }),
  },
});

/** Cushions are made between these, mm. */
const THIN_MM = 30;
const THICK_MM = 160;
/** A window is looked out of when it begins no further along than this from where one sits, mm. */
const BESIDE_MM = 1200;

const eyeLine = appliesTo(eyeLineRule, {
  ofRoom: (scene) => {
    const windows = scene.openings.filter(
      ({ opening }) => opening.kind === 'window' && (opening.surface === 'left' || opening.surface === 'right'),
    );
    return seatsIn(scene)
      .filter(({ loose }) => loose !== true)
      .flatMap((seat) => {
        const near = windows.filter((placed) => {
          const { from, to } = widthOf(placed);
          return from < seat.at[0] + BESIDE_MM && to > seat.at[0] - BESIDE_MM;
        });
        return sittersOf(seat, scene.people).flatMap((person) => {
          const high = person.sittingHeight ?? SITTING_SHARE * person.stature;
          const eyes =
            scene.inner.floor +
            seat.top +
            (1 - CUSHION_GIVES) * seat.cushion +
            high -
            EYES_BELOW_CROWN * person.stature;
          // the one that comes nearest to being looked out of
          const best = [...near].sort(
            (a, b) => Math.min(eyes - b.sill, b.head - eyes) - Math.min(eyes - a.sill, a.head - eyes),
          )[0];
          return best
            ? [
                {
                  id: `eye-line:${seat.id}:${person.id}`,
                  input: {
                    eyes,
                    sill: best.sill,
                    head: best.head,
                    who: person.name,
                    name: seat.unit.name,
                    window: best.opening.name,
                  },
                  pin: { unit: seat.unit.id, person: person.id, x: seat.at[0], y: seat.at[1] },
                  quiet: true,
                  mend: ({ spare }) => {
                    const family = familyNamed(scene.families, seat.unit.family);
                    // a cushion gives way under who sits on it
                    const by = stepUp(scene, -(spare ?? 0) / (1 - CUSHION_GIVES));
                    const to = seat.cushion + (eyes - best.sill < best.head - eyes ? by : -by);
                    return family && fieldNamed(family, 'cushion') && to >= THIN_MM && to <= THICK_MM
                      ? offer(
                          seat.unit,
                          scene,
                          { cushion: to },
                          message('mend.cushion', { name: seat.unit.name, to: mm(to) }),
                        )
                      : null;
                  },
                },
              ]
            : [];
        });
      });
  },
});

const levelBed = appliesTo(levelBedRule, {
  ofEach: {
    within: 1,
    of: (unit: Unit, scene: Scene) =>
      (scene.skeletons.get(unit.id)?.motions ?? []).flatMap((motion) => {
        if (motion.kind !== 'slide' || motion.by[2] >= 0) return [];
        const { shut, by } = motion;
        const low = shut.z1 + by[2] - scene.inner.floor;
        return seatsAgainst(scene, shut).map(({ seat }) => ({
          id: `level-bed:${unit.id}:${seat.id}`,
          input: { step: low - seat.top, name: unit.name, seat: seat.unit.name },
          pin: { unit: unit.id, person: null, x: (shut.x0 + shut.x1) / 2, y: (shut.y0 + shut.y1) / 2 },
          quiet: true,
          mend: () => {
            const family = familyNamed(scene.families, unit.family);
            return family && fieldNamed(family, 'low')
              ? offer(unit, scene, { low: seat.top }, message('mend.lowerTo', { name: unit.name, to: mm(seat.top) }))
              : null;
          },
        }));
      }),
  },
});

/** How people live with each other in it: passing, getting up, looking out, a bed of several pieces. */
export const LIVING_CHECKS = [passing, gettingPast, eyeLine, levelBed];
