import type { Thing, Unit } from '../../document/schema.js';
import { LEAST_LEFT_MM, raised } from '../../furniture/offer.js';
import { appliesTo, type Case, type Pin, type Scene } from '../../furniture/scene.js';
import type { BayRoom } from '../../furniture/skeleton.js';
import { memoFew } from '../../numeric/memo.js';
import { boxOf, isWithin } from '../../numeric/plane.js';
import { stepUp } from '../../numeric/tolerance.js';
import { besideCookerRule, cookerRule, fuelRule } from '../../rules/things.js';
import type { SolidBox } from '../../rules/room.js';
import { halfWidth, roofHeight } from '../../shell/shell.js';
import { standingIn } from '../standing.js';
import { alone, inBays, middle, pinIn } from './things.js';

/** What of a thing goes by its manual alone. */
const BY_MANUAL = ['gas', 'flue', 'fuel', 'air'] as const;

/** A cooker with no line of fuel and no mains has its fuel in it, and burns the air of the room. */
const burnsOwnFuel = (thing: Thing): boolean =>
  thing.kind === 'cooker' && !thing.connects.some((one) => one === 'gas' || one === 'fuel' || one === 'mains');

const byManual = (thing: Thing): string[] =>
  // what is drawn off from a toilet is no air that something burns with
  BY_MANUAL.filter(
    (one) => (thing.connects.includes(one) && thing.kind !== 'toilet') || (one === 'air' && burnsOwnFuel(thing)),
  );

const fuel = appliesTo(fuelRule, {
  ofUnit: (unit, scene) => {
    const told = (thing: Thing, id: string, pin: Pin): Case<{ thing: string; which: string }>[] => {
      const which = byManual(thing);
      return which.length === 0
        ? []
        : [{ id: `fuel:${id}`, input: { thing: thing.name, which: which.join(', ') }, pin }];
    };
    const own = alone(unit, scene);
    const { body } = unit;
    return [
      ...inBays(unit, scene).flatMap(({ place, thing }) =>
        told(thing, `${unit.id}:${place.bay.name}`, pinIn(unit, place)),
      ),
      ...(own && body.stands === 'free'
        ? told(own, unit.id, { unit: unit.id, person: null, x: body.x + body.length / 2, y: body.y + body.width / 2 })
        : []),
    ];
  },
});

/** Where a cooker stands, and what of its own unit is over it. */
interface Cooker {
  readonly id: string;
  readonly unit: Unit;
  readonly thing: Thing;
  readonly pin: Pin;
  /** Its flames: from above, and how high, mm. */
  readonly box: Omit<SolidBox, 'z0' | 'z1'>;
  readonly top: number;
  /** The height of the board of its own unit that covers it; null where it hangs in an opening of it or stands on top. */
  readonly covered: number | null;
}

const AWAY_FROM_BOARD_MM = 1;
type InBay = Omit<Cooker, 'id' | 'unit' | 'thing' | 'pin'>;
const bayed = new WeakMap<BayRoom, { readonly thing: Thing; readonly unit: Unit; readonly cooker: InBay }>();
/** The same with a memory: a bay is made anew when anything of its unit is. */
function inBay(unit: Unit, place: BayRoom, thing: Thing, scene: Scene): InBay {
  const before = bayed.get(place);
  if (before?.thing === thing && before.unit === unit) return before.cooker;
  const cooker = bayedAt(unit, place, thing, scene);
  bayed.set(place, { thing, unit, cooker });
  return cooker;
}
/** A cooker in a bay: in the opening that its worktop has for it, or under whatever board of its unit is there. */
function bayedAt(unit: Unit, place: BayRoom, thing: Thing, scene: Scene): InBay {
  const { room } = place;
  const at = middle(place);
  const over = (scene.skeletons.get(unit.id)?.boards ?? []).filter(
    ({ normal, at: height, held, outline }) =>
      normal === 'z' &&
      held === 'fixed' &&
      height > room.z1 - AWAY_FROM_BOARD_MM &&
      isWithin([at.x, at.y], outline.outer),
  );
  const hole = over
    .flatMap(({ outline }) => outline.holes)
    .find((ring) => {
      const { minX, maxX } = boxOf(ring);
      return thing.cutOut !== null && minX < at.x && maxX > at.x && maxX - minX > thing.cutOut.length - 1;
    });
  const middleY = hole ? (boxOf(hole).minY + boxOf(hole).maxY) / 2 : at.y;
  const covering = over.filter(({ outline }) => hole === undefined || !outline.holes.includes(hole));
  return {
    box: {
      x0: at.x - thing.width / 2,
      x1: at.x + thing.width / 2,
      y0: middleY - thing.depth / 2,
      y1: middleY + thing.depth / 2,
    },
    top: hole ? scene.inner.floor + unit.body.to : room.z0 + thing.height,
    covered: covering.length > 0 ? Math.min(...covering.map(({ at: height }) => height)) : null,
  };
}

/** Every cooker of the room, in a bay or by itself, once for each scene. */
const cookersIn = memoFew((scene: Scene): readonly Cooker[] => {
  const all: Cooker[] = [];
  for (const unit of scene.units) {
    const held = inBays(unit, scene);
    const own = alone(unit, scene);
    if (held.length > 0 || own !== null) all.push(...cookersOf(unit, held, own, scene));
  }
  return all;
});
/** The cookers of one unit, by what its bays hold and what it is itself. */
function cookersOf(unit: Unit, held: ReturnType<typeof inBays>, own: Thing | null, scene: Scene): readonly Cooker[] {
  const { body } = unit;
  const bays = held
    .filter(({ thing }) => thing.kind === 'cooker')
    .map(({ place, thing }) => ({
      id: `${unit.id}:${place.bay.name}`,
      unit,
      thing,
      pin: pinIn(unit, place),
      ...inBay(unit, place, thing, scene),
    }));
  if (own?.kind !== 'cooker' || body.stands !== 'free') return bays;
  const box = { x0: body.x, x1: body.x + body.length, y0: body.y, y1: body.y + body.width };
  const pin = { unit: unit.id, person: null, x: (box.x0 + box.x1) / 2, y: (box.y0 + box.y1) / 2 };
  return [...bays, { id: unit.id, unit, thing: own, pin, box, top: scene.inner.floor + body.to, covered: null }];
}

const above = appliesTo(cookerRule, {
  ofRoom: (scene) =>
    cookersIn(scene).map(({ id, unit, thing, pin, box, top, covered }) => {
      let over: Unit | null = covered === null ? null : unit;
      let nearest = covered ?? roofHeight(scene.inner, (box.x0 + box.x1) / 2, (box.y0 + box.y1) / 2);
      for (const { unit: other, box: solid } of standingIn(scene))
        if (
          solid.x0 < box.x1 &&
          solid.x1 > box.x0 &&
          solid.y0 < box.y1 &&
          solid.y1 > box.y0 &&
          solid.z0 >= top &&
          solid.z0 < nearest &&
          other.id !== unit.id
        )
          [nearest, over] = [solid.z0, other];
      return {
        id: `cooker:${id}`,
        input: {
          clear: Math.max(0, nearest - top),
          sheet: thing.clear.top,
          thing: thing.name,
          by: over
            ? over.id === unit.id
              ? { key: 'cooking.board', params: {} }
              : over.name
            : { key: 'tilting.roof', params: {} },
        },
        pin,
        mend: ({ spare }) => {
          if (spare === null) return null;
          const more = stepUp(scene, -spare);
          return over && over.id !== unit.id && over.body.to - over.body.from > LEAST_LEFT_MM
            ? raised(over, scene, more)
            : null;
        },
      };
    }),
});

/** How far beside and behind a cooker what stands up is told, and how high over it, mm. */
const BESIDE_MM = 150;
const FLAMES_MM = 400;
const OVER_RIM_MM = 20;
const beside = appliesTo(besideCookerRule, {
  ofRoom: (scene) =>
    cookersIn(scene).flatMap(({ id, unit, thing, pin, box, top }) => {
      const { inner } = scene;
      const high = top + FLAMES_MM / 2;
      const wall = (side: 'left' | 'right'): number =>
        Math.min(halfWidth(inner, side, box.x0, high), halfWidth(inner, side, box.x1, high));
      const found: {
        readonly clear: number;
        readonly sheet: number;
        readonly by: string | { key: string; params: Record<string, never> };
      }[] = [
        { clear: box.y0 + wall('left'), sheet: thing.clear.back, by: { key: 'cooking.left', params: {} } },
        { clear: wall('right') - box.y1, sheet: thing.clear.back, by: { key: 'cooking.right', params: {} } },
      ];
      const tells = (clear: number, sheet: number): boolean => clear < Math.max(BESIDE_MM, sheet);
      for (const { unit: other, box: solid } of standingIn(scene)) {
        if (other.id === unit.id || solid.z0 > top + FLAMES_MM || solid.z1 < top + OVER_RIM_MM) continue;
        const apartX = Math.max(solid.x0 - box.x1, box.x0 - solid.x1);
        const apartY = Math.max(solid.y0 - box.y1, box.y0 - solid.y1);
        const { side, back } = thing.clear;
        if (apartX >= 0 && apartY < 0 && tells(apartX, side))
          found.push({ clear: apartX, sheet: side, by: other.name });
        if (apartY >= 0 && apartX < 0 && tells(apartY, back))
          found.push({ clear: apartY, sheet: back, by: other.name });
      }
      const [worst] = found
        .filter(({ clear, sheet }) => tells(clear, sheet))
        .sort((a, b) => a.clear - a.sheet - (b.clear - b.sheet));
      return worst
        ? [{ id: `beside-cooker:${id}`, input: { ...worst, clear: Math.max(0, worst.clear), thing: thing.name }, pin }]
        : [];
    }),
});

/** What burns: by its manual, and what is round it. */
export const COOKING_CHECKS = [fuel, above, beside];
