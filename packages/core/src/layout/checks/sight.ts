import { endOf } from '../../document/body.js';
import type { Unit } from '../../document/schema.js';
import { reachOf } from '../../furniture/motions.js';
import type { Check, Scene, SceneRule } from '../../furniture/scene.js';
import type { Skeleton } from '../../furniture/skeleton.js';
import { solidsOf } from '../../furniture/solid.js';

/** What is looked at before something that slides is no farther beyond it than this, mm. */
export const LOOKS_AHEAD_MM = 450;

/** What of a scene a rule of one unit and what stands beside it may look at, but for the units. */
const FRAME = [
  'people',
  'pets',
  'dens',
  'inner',
  'arches',
  'openings',
  'book',
  'families',
  'things',
  'stored',
  'fittings',
  'modes',
  'limits',
  'figures',
] as const satisfies readonly (keyof Scene)[];
type Frame = Pick<Scene, (typeof FRAME)[number]>;

/** From where to where along the vehicle a unit stands, and how far it and what moves of it ever reach, mm. */
interface Extent {
  readonly skeleton: Skeleton | undefined;
  readonly inner: Scene['inner'];
  readonly from: number;
  readonly to: number;
  readonly least: number;
  readonly most: number;
}
/** What one unit sees of the others, and what was said of it then, by its rule. */
interface Sight {
  readonly frame: Frame;
  readonly unit: Unit;
  readonly skeleton: Skeleton | undefined;
  readonly others: readonly Placed[];
  /** By the number of the rule. */
  readonly said: (readonly Check[] | undefined)[];
}
type How = Pick<NonNullable<SceneRule['ofEach']>, 'within' | 'reaching'>;
interface Placed {
  readonly unit: Unit;
  readonly extent: Extent;
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

/**
 * A memory of what rules said of each unit while what stands beside it is what stood there: what is moved at one end of the
 * vehicle changes nothing at the other. It holds for scenes in which nothing is mended, since a way to mend may look at the
 * whole room.
 */
export function createSights(): (rule: SceneRule, scene: Scene) => readonly Check[] {
  let frame: Frame | null = null;
  let last: { readonly scene: Scene; readonly placed: readonly Placed[] } | null = null;
  const numbers = new Map<SceneRule, number>();
  const placedUnits = new WeakMap<Unit, Placed>();
  const sights = new Map<string, { scene: Scene | null; byUnit: WeakMap<Unit, Sight>; now: readonly Sight[] }>();

  const placedIn = (scene: Scene): readonly Placed[] => {
    if (last?.scene === scene) return last.placed;
    const before = frame;
    if (!before || FRAME.some((key) => before[key] !== scene[key]))
      frame = Object.fromEntries(FRAME.map((key) => [key, scene[key]])) as unknown as Frame;
    const placed = scene.units.map((unit): Placed => {
      const known = placedUnits.get(unit);
      if (known?.extent.skeleton === scene.skeletons.get(unit.id) && known?.extent.inner === scene.inner) return known;
      const fresh = { unit, extent: extentOf(unit, scene) };
      placedUnits.set(unit, fresh);
      return fresh;
    });
    last = { scene, placed };
    return placed;
  };

  /** What one unit sees, if that is what it saw before; what it sees now where it is not. */
  const seen = (
    own: Placed,
    all: readonly Placed[],
    { within, reaching }: How,
    before: Sight | undefined,
    now: Frame,
  ): Sight => {
    const from = own.extent.least - within;
    const to = own.extent.most + within;
    const apart = ({ extent }: Placed): boolean =>
      reaching === true ? extent.least > to || extent.most < from : extent.from > to || extent.to < from;
    if (before?.frame === now && before.skeleton === own.extent.skeleton) {
      let found = 0;
      let same = true;
      for (const other of all) {
        if (apart(other)) continue;
        if (before.others[found] !== other) {
          same = false;
          break;
        }
        found += 1;
      }
      if (same && found === before.others.length) return before;
    }
    const others = all.filter((other) => !apart(other));
    return { frame: now, unit: own.unit, skeleton: own.extent.skeleton, others, said: [] };
  };

  const sightsIn = (scene: Scene, how: How): readonly Sight[] => {
    const name = `${how.within} ${how.reaching ?? false}`;
    const known = sights.get(name) ?? { scene: null, byUnit: new WeakMap<Unit, Sight>(), now: [] };
    sights.set(name, known);
    if (known.scene === scene) return known.now;
    const placed = placedIn(scene);
    const now = frame as Frame;
    known.now = placed.map((own) => {
      const sight = seen(own, placed, how, known.byUnit.get(own.unit), now);
      known.byUnit.set(own.unit, sight);
      return sight;
    });
    known.scene = scene;
    return known.now;
  };

  return (rule, scene) => {
    const each = rule.ofEach;
    if (!each) return [];
    const found: Check[] = [];
    const number = numbers.get(rule) ?? numbers.size;
    numbers.set(rule, number);
    const seenNow = sightsIn(scene, each);
    for (let i = 0; i < seenNow.length; i += 1) {
      const sight = seenNow[i] as Sight;
      const checks = (sight.said[number] ??= each.of(sight.unit, scene));
      for (let k = 0; k < checks.length; k += 1) found.push(checks[k] as Check);
    }
    return found;
  };
}
