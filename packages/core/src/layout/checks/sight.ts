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
  step: true,
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
/** What was said of one unit while nothing changed that it sees, by the number of the rule among those that look as far. */
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
  /** The rules that look so far, in the order in which they were asked. */
  readonly rules: SceneRule[];
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

/** From where to where along the vehicle something is seen. */
interface Seen {
  readonly from: number;
  readonly to: number;
}
/** From where a unit can be seen: from as far as the one that looks sees beyond what of it stands, or what moves of it comes. */
const seenFrom = ({ extent }: Placed, { within, reaching }: How): Seen =>
  reaching === true
    ? { from: extent.least - within, to: extent.most + within }
    : { from: extent.from - within, to: extent.to + within };

function seesAny({ least, most }: Extent, others: readonly Seen[]): boolean {
  for (let i = 0; i < others.length; i += 1) {
    const { from, to } = others[i] as Seen;
    if (from <= most && to >= least) return true;
  }
  return false;
}

/** What each unit sees now: what it saw before where nothing of that has changed. */
function lookedAgain(before: Looked | undefined, placed: readonly Placed[], frame: Frame, how: How): readonly Sight[] {
  const fresh = ({ unit }: Placed): Sight => ({ unit, said: new Array(before?.rules.length ?? 0) });
  if (before?.frame !== frame || before.placed.length !== placed.length) return placed.map(fresh);
  // as they stood before and as they stand now
  const changed: Seen[] = [];
  for (let i = 0; i < placed.length; i += 1) {
    const [was, now] = [before.placed[i] as Placed, placed[i] as Placed];
    if (was !== now) changed.push(seenFrom(was, how), seenFrom(now, how));
  }
  return placed.map((own, i) =>
    own === before.placed[i] && !seesAny(own.extent, changed) ? (before.sights[i] as Sight) : fresh(own),
  );
}

/**
 * A memory of what rules said of each unit while what stands beside it is what stood there: what is moved at one end of the
 * vehicle changes nothing at the other. It holds for scenes in which nothing is mended, since a way to mend may look at the
 * whole room.
 */
export function createSights(): (rule: SceneRule, scene: Scene, found: Check[]) => void {
  let last: { readonly scene: Scene; readonly frame: Frame; readonly placed: readonly Placed[] } | null = null;
  const looks = new Map<number, Looked>();

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

  const lookedIn = (scene: Scene, how: How): Looked => {
    const name = how.reaching === true ? -1 - how.within : how.within;
    const before = looks.get(name);
    if (before?.scene === scene) return before;
    const { frame, placed } = placedIn(scene);
    const sights = lookedAgain(before, placed, frame, how);
    const looked = { scene, frame, placed, sights, rules: before?.rules ?? [] };
    looks.set(name, looked);
    return looked;
  };

  return (rule, scene, found) => {
    const each = rule.ofEach;
    if (!each) return;
    const { sights, rules } = lookedIn(scene, each);
    let number = rules.indexOf(rule);
    if (number < 0) number = rules.push(rule) - 1;
    for (let i = 0; i < sights.length; i += 1) {
      const sight = sights[i] as Sight;
      const checks = (sight.said[number] ??= each.of(sight.unit, scene));
      for (let k = 0; k < checks.length; k += 1) found.push(checks[k] as Check);
    }
  };
}
