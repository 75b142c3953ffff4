import type { Scene, SeenOpening } from '../furniture/scene.js';
import type { Unit } from '../document/schema.js';
import type { SolidBox } from '../rules/room.js';
import { rectangle, outlineArea } from '../numeric/plane.js';
import { cutOut } from '../numeric/shapes.js';
import { widthOf } from '../shell/openings.js';
import { halfWidth } from '../shell/shell.js';
import { standingIn } from './standing.js';

type GlassScene = Pick<Scene, 'units' | 'inner' | 'families' | 'arches' | 'book' | 'things' | 'openings'>;

/** The side wall an opening is in; null where it is in none. */
export const sideOf = ({ opening }: SeenOpening): 'left' | 'right' | null =>
  opening.surface === 'left' || opening.surface === 'right' ? opening.surface : null;
/** What stands farther from a wall than this leaves its window free, mm. */
const NEAR_MM = 250;

interface Behind {
  readonly share: number;
  readonly by: readonly string[];
  readonly ids: readonly string[];
}
const NOTHING: Behind = { share: 0, by: [], ids: [] };
const hidden = new WeakMap<
  SeenOpening,
  { readonly boxes: readonly SolidBox[]; readonly units: readonly Unit[]; readonly behind: Behind }
>();

/** What of an opening in a side wall is behind units, as a share of it, and their names. The same things hide the same of it. */
export function behindGlass(placed: SeenOpening, scene: GlassScene): Behind {
  const side = sideOf(placed);
  if (!side) return NOTHING;
  const { from, to } = widthOf(placed);
  const wall = halfWidth(scene.inner, side, (from + to) / 2, (placed.sill + placed.head) / 2);
  const [units, boxes]: [Unit[], SolidBox[]] = [[], []];
  for (const { unit, box } of standingIn(scene)) {
    if (box.x0 >= to || box.x1 <= from || box.z0 >= placed.head || box.z1 <= placed.sill) continue;
    const out = side === 'left' ? -box.y0 : box.y1;
    if (out <= wall - NEAR_MM || !(side === 'left' ? box.y0 < 0 : box.y1 > 0)) continue;
    units.push(unit);
    boxes.push(box);
  }
  const before = hidden.get(placed);
  if (
    before?.boxes.length === boxes.length &&
    before.boxes.every((box, i) => box === boxes[i] && before.units[i] === units[i])
  )
    return before.behind;
  const rings = boxes.map((box) => rectangle(box.x0, box.z0, box.x1, box.z1));
  const glass = rectangle(from, placed.sill, to, placed.head);
  const whole = (to - from) * (placed.head - placed.sill);
  const free = cutOut({ outer: glass, holes: [] }, rings).reduce((sum, piece) => sum + outlineArea(piece), 0);
  const behind: Behind = {
    share: Math.min(1, Math.max(0, 1 - free / whole)),
    by: [...new Set(units.map(({ name }) => name))],
    ids: [...new Set(units.map(({ id }) => id))],
  };
  hidden.set(placed, { boxes, units, behind });
  return behind;
}

/** The largest share of a window in a side wall that is behind units; 0 where there is none. */
export const mostHidden = (scene: GlassScene): number =>
  Math.max(
    0,
    ...scene.openings
      .filter((placed) => placed.opening.kind === 'window')
      .map((placed) => behindGlass(placed, scene).share),
  );
