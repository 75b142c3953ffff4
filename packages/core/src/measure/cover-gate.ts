import type { PlaceSurface, Project, Survey } from '../document/schema.js';
import { message, mm, type Message } from '../words/message.js';
import { boundsOf } from './keep-outs.js';
import { describeAddress, parseAddress, valueAt } from '../document/address.js';

/** What is still open on a surface that is about to be covered. */
export interface OpenPoint {
  readonly id: string;
  readonly said: Message;
  /** A point that must be closed or overruled; the others are worth a thought. */
  readonly stops: boolean;
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

/**
 * Before a surface is covered: what was found on it and is not done, holes that are not decided, the leak test, and
 * readings nobody can take any more once it is closed.
 */
export function openBefore(project: Pick<Project, 'survey'>, surface: PlaceSurface): OpenPoint[] {
  const { survey } = project;
  const found = survey.found
    .filter((item) => item.surface === surface && item.status === 'open' && item.decision !== 'keep')
    .map((item): OpenPoint => ({
      id: `found-${item.id}`,
      said: message(`cover.found.${item.decision === 'remove' ? 'remove' : 'redo'}`, {
        name: item.name,
        x: mm(item.x),
      }),
      stops: true,
    }));
  const holes = survey.penetrations
    .filter((hole) => hole.surface === surface && !hole.decided)
    .map((hole): OpenPoint => ({
      id: `hole-${hole.id}`,
      said: message('cover.hole', { name: hole.name }),
      stops: true,
    }));
  const unsealed = survey.penetrations
    .filter((hole) => hole.surface === surface && hole.decided && hole.sealing === '')
    .map((hole): OpenPoint => ({
      id: `seal-${hole.id}`,
      said: message('cover.seal', { name: hole.name }),
      stops: false,
    }));
  const leak: OpenPoint[] =
    survey.leakTest.state === 'open' ? [{ id: 'leak', said: message('cover.leak'), stops: true }] : [];
  const unread = survey.skipped
    .filter((address) => valueAt(survey, address) === null && onSurface(survey, address, surface))
    .map((address): OpenPoint => {
      const described = describeAddress(survey, address);
      return { id: `reading-${address}`, said: { ...described }, stops: false };
    });
  return [...leak, ...found, ...holes, ...unsealed, ...unread];
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
