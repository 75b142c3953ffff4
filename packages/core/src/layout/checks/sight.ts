import { endOf } from '../../document/body.js';
import type { Unit } from '../../document/schema.js';
import { reachOf } from '../../furniture/motions.js';
import type { Check, Scene, SceneRule } from '../../furniture/scene.js';
import type { Skeleton } from '../../furniture/skeleton.js';
import { solidsOf } from '../../furniture/solid.js';

/** What is looked at before something that slides is no farther beyond it than this, mm. */
export const LOOKS_AHEAD_MM = 450;

/**
 * What of a scene a rule of one unit and what stands beside it may look at as a whole. The units and their boards are looked
 * at one by one; services and weights it does not see, and nothing is mended.
 */
const SEEN_WHOLE: Readonly<Record<keyof Scene, boolean>> = {
  people: true,
  pets: true,
  dens: true,
  inner: true,
  arches: true,
  openings: true,
  book: true,
  families: true,
  things: true,
  stored: true,
  fittings: true,
  modes: true,
  limits: true,
  figures: true,
  units: false,
  skeletons: false,
  runs: false,
  masses: false,
  mending: false,
};
const FRAME = (Object.keys(SEEN_WHOLE) as (keyof Scene)[]).filter((key) => SEEN_WHOLE[key]);
type Frame = Readonly<Partial<Scene>>;

/** From where to where along the vehicle a unit stands, and how far it and what moves of it ever reach, mm. */
interface Extent {
  readonly skeleton: Skeleton | undefined;
  readonly inner: Scene['inner'];
  readonly from: number;
  readonly to: number;
  readonly least: number;
  readonly most: number;
}
interface Placed {
  readonly unit: Unit;
  readonly extent: Extent;
}
/** What was said of one unit while nothing changed that it sees, by the number of the rule. */
interface Sight {
  readonly unit: Unit;
  readonly said: (readonly Check[] | undefined)[];
}
type How = Pick<NonNullable<SceneRule['ofEach']>, 'within' | 'reaching'>;
/** All that stood in the room when it was looked at last, and what was said of each. */
interface Looked {
  readonly scene: Scene;
  readonly frame: Frame;
  readonly placed: readonly Placed[];
  readonly sights: readonly Sight[];
}

/** How far a unit reaches along the vehicle, as a look at its room says. */
function extentOf(unit: Unit, scene: Scene): Extent {
  const { inner } = scene;
  const skeleton = scene.skeletons.get(unit.id);
  let [from, to] = [unit.body.x, endOf(unit)];
  for (const box of solidsOf(unit, scene, scene.families)) {
    if (box.x0 < from) from = box.x0;
    if (box.x1 > to) to = box.x1;
  }
  let [least, most] = [from, to];
  for (const motion of skeleton?.motions ?? []) {
    const { x0, x1 } = reachOf(motion);
    const ahead = motion.kind === 'slide' && motion.by[0] !== 0 ? LOOKS_AHEAD_MM : 0;
    least = Math.min(least, x0 - ahead);
    most = Math.max(most, x1 + ahead);
  }
  return { skeleton, inner, from, to, least, most };
}

/** Whether one unit sees another: whether that stands, or what moves of it comes, near enough along the vehicle. */
function sees({ least, most }: Extent, { extent }: Placed, { within, reaching }: How): boolean {
  return reaching === true
    ? extent.least <= most + within && extent.most >= least - within
    : extent.from <= most + within && extent.to >= least - within;
}

/** What each unit sees now: what it saw before where nothing of that has changed. */
function lookedAgain(before: Looked | undefined, placed: readonly Placed[], frame: Frame, how: How): readonly Sight[] {
  const fresh = ({ unit }: Placed): Sight => ({ unit, said: [] });
  if (before?.frame !== frame || before.placed.length !== placed.length) return placed.map(fresh);
  // as they stood before and as they stand now
  const changed: Placed[] = [];
  for (let i = 0; i < placed.length; i += 1) {
    const [was, now] = [before.placed[i] as Placed, placed[i] as Placed];
    if (was !== now) changed.push(was, now);
  }
  return placed.map((own, i) =>
    own === before.placed[i] && !changed.some((other) => sees(own.extent, other, how))
      ? (before.sights[i] as Sight)
      : fresh(own),
  );
}

/**
 * A memory of what rules said of each unit while what stands beside it is what stood there: what is moved at one end of the
 * vehicle changes nothing at the other. It holds for scenes in which nothing is mended, since a way to mend may look at the
 * whole room.
 */
export function createSights(): (rule: SceneRule, scene: Scene) => readonly Check[] {
  let last: { readonly scene: Scene; readonly frame: Frame; readonly placed: readonly Placed[] } | null = null;
  const numbers = new Map<SceneRule, number>();
  const looks = new Map<string, Looked>();

  const placedIn = (scene: Scene): { readonly frame: Frame; readonly placed: readonly Placed[] } => {
    if (last?.scene === scene) return last;
    const before = last?.frame;
    const frame =
      before && FRAME.every((key) => before[key] === scene[key])
        ? before
        : (Object.fromEntries(FRAME.map((key) => [key, scene[key]])) as Frame);
    const placed = scene.units.map((unit, i): Placed => {
      const was = last?.placed[i];
      const same =
        was?.unit === unit && was.extent.skeleton === scene.skeletons.get(unit.id) && was.extent.inner === scene.inner;
      return same ? was : { unit, extent: extentOf(unit, scene) };
    });
    last = { scene, frame, placed };
    return last;
  };

  const sightsIn = (scene: Scene, how: How): readonly Sight[] => {
    const name = `${how.within} ${how.reaching ?? false}`;
    const before = looks.get(name);
    if (before?.scene === scene) return before.sights;
    const { frame, placed } = placedIn(scene);
    const sights = lookedAgain(before, placed, frame, how);
    looks.set(name, { scene, frame, placed, sights });
    return sights;
  };

  return (rule, scene) => {
    const each = rule.ofEach;
    if (!each) return [];
    const found: Check[] = [];
    const number = numbers.get(rule) ?? numbers.size;
    numbers.set(rule, number);
    for (const sight of sightsIn(scene, each)) {
      const checks = (sight.said[number] ??= each.of(sight.unit, scene));
      for (let k = 0; k < checks.length; k += 1) found.push(checks[k] as Check);
    }
    return found;
  };
}
