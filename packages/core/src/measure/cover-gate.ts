import type { OperationOf } from '../document/operation.js';
import type { KeepOut, PlaceSurface, Project, Survey } from '../document/schema.js';
import { baysOf, endOf } from '../document/body.js';
import { thingIn } from '../document/layout-changes.js';
import { message, mm, type Message } from '../words/message.js';
import { boundsOf } from './keep-outs.js';
import { describeAddress, parseAddress, valueAt } from '../document/address.js';

/** What is still open on a surface that is about to be covered. */
export interface OpenPoint {
  readonly id: string;
  readonly said: Message;
  /** A point that must be closed or overruled; the others are worth a thought. */
  readonly stops: boolean;
  /** What would hide it: the first layer of the surface, or its face. */
  readonly hiddenBy: 'first' | 'face';
  /** Why it holds nothing any more, though it is still open. */
  readonly overruled: { readonly reason: string; readonly at: string } | null;
  /** What would close it at once. */
  readonly mend?: OperationOf<'putFloorHatch'>;
}

const onSurface = (survey: Survey, address: string, surface: PlaceSurface): boolean => {
  const place = parseAddress(address);
  if (!place) return false;
  if (place.kind === 'floor') return surface === 'floor';
  if (place.kind === 'station') return place.what === surface || (place.what === 'roof' && surface === 'ceiling');
  if (place.kind === 'rib') return surface !== 'floor';
  if (place.kind === 'arch') {
    const arch = survey.arches.find((candidate) => candidate.id === place.id);
    return surface === 'floor' || arch?.side === surface;
  }
  return false;
};

type Raised = Pick<OpenPoint, 'id' | 'said' | 'mend'> & Partial<Pick<OpenPoint, 'stops' | 'hiddenBy'>>;

/** Holes through a surface: not decided, decided without a place or a size, or with nothing said of their sealing. */
function holePoints(survey: Survey, surface: PlaceSurface): Raised[] {
  return survey.penetrations
    .filter((hole) => hole.surface === surface)
    .flatMap(({ id, name, decided, sealing }): Raised[] => {
      if (!decided) return [{ id: `hole-${id}`, said: message('cover.hole', { name }) }];
      const unread = ['x', 'along', 'size'].some((what) => valueAt(survey, `hole/${id}/${what}`) === null);
      return [
        ...(unread ? [{ id: `place-${id}`, said: message('cover.holePlace', { name }) }] : []),
        ...(sealing === '' ? [{ id: `seal-${id}`, said: message('cover.seal', { name }), stops: false }] : []),
      ];
    });
}

/** What has to be reached again is lifted out by a lid no smaller and no larger than this, mm. */
const HATCH_MM = [250, 600] as const;
/** What lies under a floor that somebody may have to get at once more. */
const REACHED: readonly KeepOut['reason'][] = ['tank', 'other'];

/** What lies under the floor and has to be reached, and no hatch over it; and joints of gas and water behind a lining of which nothing comes off. */
function closedIn({ survey, floorHatches, linings, buildUps }: CoverInput, surface: PlaceSurface): Raised[] {
  if (surface === 'floor') {
    const covered = (buildUps?.['floor'] ?? []).some(({ board, place }) => board || place === 'continuous');
    if (!floorHatches || !covered) return [];
    return boundsOf(survey)
      .filter(({ reason }) => REACHED.includes(reason))
      .filter(({ from, to, left, right }) =>
        floorHatches.every(
          ({ x, y, length, width }) =>
            x + length / 2 <= from || x - length / 2 >= to || y + width / 2 <= left || y - width / 2 >= right,
        ),
      )
      .map(({ id, name, from, to, left, right }): Raised => {
        const size = (free: number): number => Math.min(HATCH_MM[1], Math.max(HATCH_MM[0], Math.round(free)));
        return {
          id: `reach-${id}`,
          said: message('cover.reach', { name }),
          hiddenBy: 'face',
          mend: {
            name: 'putFloorHatch',
            payload: {
              hatch: {
                id: `over-${id}`.slice(0, 60),
                name,
                x: Math.round((from + to) / 2),
                y: Math.round((left + right) / 2),
                length: size(to - from),
                width: size(right - left),
                lift: 'ring',
              },
            },
          },
        };
      });
  }
  const choice = linings?.[surface];
  if (!choice || choice.removable || (choice.comesOff ?? []).length > 0) return [];
  return (survey.before?.joints ?? [])
    .filter((joint) => joint.surface === surface)
    .map(({ id, name }): Raised => ({
      id: `reach-joint-${id}`,
      said: message('cover.reachJoint', { name }),
      hiddenBy: 'face',
    }));
}

/** An outlet that feeds an appliance is no further along the wall from its unit than this, mm. */
const OUTLET_NEAR_MM = 400;
/** Appliances at a wall that want mains or 12 V, and to which neither an outlet in that wall nor a cable leads. */
function unfed({ layout, things = [], fittings }: CoverInput, surface: PlaceSurface): Raised[] {
  const runs = layout?.runs ?? [];
  return (layout?.units ?? [])
    .filter(({ body }) => body.stands === surface)
    .flatMap((unit) =>
      baysOf(unit.division).flatMap((bay): Raised[] => {
        const thing = things.find(({ id }) => id === thingIn(bay));
        // what gives it has its own cables, which end where they are drawn
        if (!thing || thing.kind === 'battery' || thing.kind === 'electric') return [];
        const wants = (['mains', '12 V'] as const).find((one) => thing.connects.includes(one));
        if (!wants) return [];
        const outlet = fittings.some(
          (one) =>
            one.kind === 'outlet' &&
            one.surface === surface &&
            one.x > unit.body.x - OUTLET_NEAR_MM &&
            one.x < endOf(unit) + OUTLET_NEAR_MM,
        );
        const cable = runs.some(
          ({ kind, from, to }) =>
            kind === 'cable' &&
            [from, to].some((end) => end && 'unit' in end && end.unit === unit.id && end.bay === bay.name),
        );
        return outlet || cable
          ? []
          : [
              {
                id: `feed-${unit.id}-${bay.name}`,
                said: message(wants === 'mains' ? 'cover.feedMains' : 'cover.feedLow', {
                  thing: thing.name,
                  name: unit.name,
                }),
                hiddenBy: 'face',
              },
            ];
      }),
    );
}

/** What is asked of before a surface is covered; hatches, linings and layers where it is known what covers it. */
type CoverInput = Pick<Project, 'survey' | 'fittings'> &
  Partial<Pick<Project, 'floorHatches' | 'linings' | 'buildUps' | 'layout' | 'things'>>;

/**
 * Before a surface is covered: what was found on it and is not done, the register when it is empty and nobody said that
 * nothing is there, holes without a decision or a place, joints that were not tried, cables not pulled, a photo not taken,
 * the leak test, what has to be reached again and would be closed in, and readings nobody can take any more once it is closed. What was overruled holds nothing, with its reason.
 */
export function openBefore(input: CoverInput, surface: PlaceSurface): OpenPoint[] {
  const { survey, fittings } = input;
  const { before } = survey;
  const raised: Raised[] = [
    ...(survey.leakTest.state === 'open' ? [{ id: 'leak', said: message('cover.leak') }] : []),
    ...(survey.found.length === 0 && (before?.nothingFound ?? null) === null
      ? [{ id: 'register', said: message('cover.register') }]
      : []),
    ...survey.found
      .filter((item) => item.surface === surface && item.status === 'open' && item.decision !== 'keep')
      .map((item): Raised => ({
        id: `found-${item.id}`,
        said: message(`cover.found.${item.decision === 'remove' ? 'remove' : 'redo'}`, {
          name: item.name,
          x: mm(item.x),
        }),
      })),
    ...holePoints(survey, surface),
    ...(before?.joints ?? [])
      .filter((joint) => joint.surface === surface && !joint.tested)
      .map(({ id, kind, name }): Raised => ({
        id: `joint-${id}`,
        said: message(`cover.joint.${kind}`, { name }),
        hiddenBy: 'face',
      })),
    ...fittings
      .filter((fitting) => fitting.surface === surface && fitting.kind !== 'duct')
      .filter(({ wired, pulled }) => !wired && pulled !== true)
      .map(({ id, name }): Raised => ({
        id: `cable-${id}`,
        said: message('cover.cable', { name }),
        hiddenBy: 'face',
        // pulling it is a task of its own, before the face
        stops: false,
      })),
    ...unfed(input, surface),
    ...closedIn(input, surface),
    ...(before?.photos[surface] === undefined ? [{ id: `photo-${surface}`, said: message('cover.photo') }] : []),
    ...survey.skipped
      .filter((address) => valueAt(survey, address) === null && onSurface(survey, address, surface))
      .map((address): Raised => ({
        id: `reading-${address}`,
        said: { ...describeAddress(survey, address) },
        stops: false,
      })),
  ];
  return raised.map(({ stops = true, hiddenBy = 'first', ...point }): OpenPoint => {
    const put = before?.overruled.find((own) => own.point === point.id);
    return {
      ...point,
      hiddenBy,
      stops: stops && put === undefined,
      overruled: put ? { reason: put.reason, at: put.at } : null,
    };
  });
}

/** A hole against what lies under the floor, or on the roof. */
export interface HoleClearance {
  readonly hole: string;
  readonly name: string;
  /** Clear distance from the hole's edge, mm; below 0 it goes into it. */
  readonly clear: number;
  readonly against: string;
  readonly reason: string;
}

/** How near each hole of floor and ceiling comes to keep-outs: the nearest of them, by the distance from its edge to their rectangle. */
export function holeClearances(survey: Survey): HoleClearance[] {
  const under = boundsOf(survey);
  const above = boundsOf(survey, 'roof');
  return survey.penetrations
    .filter((hole) => hole.surface === 'floor' || hole.surface === 'ceiling')
    .flatMap((hole): HoleClearance[] => {
      const [x, y] = [valueAt(survey, `hole/${hole.id}/x`), valueAt(survey, `hole/${hole.id}/along`)];
      const radius = (valueAt(survey, `hole/${hole.id}/size`) ?? 0) / 2;
      if (x === null || y === null) return [];
      const nearest = (hole.surface === 'floor' ? under : above)
        .map((keepOut) => {
          const dx = Math.max(keepOut.from - x, 0, x - keepOut.to);
          const dy = Math.max(keepOut.left - y, 0, y - keepOut.right);
          const inside = Math.max(keepOut.from - x, x - keepOut.to, keepOut.left - y, y - keepOut.right);
          return { keepOut, clear: (dx === 0 && dy === 0 ? inside : Math.hypot(dx, dy)) - radius };
        })
        .sort((a, b) => a.clear - b.clear)[0];
      return nearest
        ? [
            {
              hole: hole.id,
              name: hole.name,
              clear: nearest.clear,
              against: nearest.keepOut.name,
              reason: nearest.keepOut.reason,
            },
          ]
        : [];
    });
}
