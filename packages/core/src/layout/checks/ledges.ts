import { familyNamed } from '../../document/kit.js';
import type { Unit } from '../../document/schema.js';
import { offer } from '../../furniture/offer.js';
import { appliesTo, type Scene } from '../../furniture/scene.js';
import { spread } from '../../numeric/plane.js';
import { ledgesRule } from '../../rules/living.js';
import type { SolidBox } from '../../rules/room.js';
import { halfWidth } from '../../shell/shell.js';
import { message } from '../../words/message.js';
import { standingIn } from '../standing.js';

/** A ledge reaches no farther from what it is screwed to than this, and is so high, mm. */
const LEDGE_REACH_MM = 120;
const LEDGE_MM = 40;

/** How many edges of a top have something beside them at its height that a ledge can be screwed to: two where they are opposite ones. */
function ledgesOf(unit: Unit, top: SolidBox, scene: Scene): number {
  const under = top.z0;
  const shares = (a0: number, a1: number, b0: number, b1: number): boolean => Math.min(a1, b1) - Math.max(a0, b0) > 50;
  const sides = { left: false, right: false, front: false, rear: false };
  const beside = (gap: number): boolean => gap > -1 && gap < LEDGE_REACH_MM;
  for (const { unit: other, box: by } of standingIn(scene)) {
    if (other === unit || by.z1 < under - 1 || by.z0 > under - LEDGE_MM) continue;
    if (shares(top.x0, top.x1, by.x0, by.x1)) {
      if (beside(top.y0 - by.y1)) sides.left = true;
      if (beside(by.y0 - top.y1)) sides.right = true;
    }
    if (shares(top.y0, top.y1, by.y0, by.y1)) {
      if (beside(top.x0 - by.x1)) sides.front = true;
      if (beside(by.x0 - top.x1)) sides.rear = true;
    }
  }
  for (const side of ['left', 'right'] as const) {
    const wall = Math.min(...spread(top.x0, top.x1, 3).map((x) => halfWidth(scene.inner, side, x, under)));
    if (beside(side === 'left' ? top.y0 + wall : wall - top.y1)) sides[side] = true;
  }
  if ((sides.left && sides.right) || (sides.front && sides.rear)) return 2;
  return Object.values(sides).some((one) => one) ? 1 : 0;
}

/** What a table that is laid on ledges has them screwed to. */
export const LEDGE_CHECKS = [
  appliesTo(ledgesRule, {
    ofEach: {
      within: LEDGE_REACH_MM,
      of: (unit, scene) => {
        const top = familyNamed(scene.families, unit.family)?.table?.(unit, scene)?.box;
        if (unit.options['stand'] !== 'ledges' || !top) return [];
        return [
          {
            id: `ledges:${unit.id}`,
            input: { sides: ledgesOf(unit, top, scene), name: unit.name },
            pin: { unit: unit.id, person: null, x: (top.x0 + top.x1) / 2, y: (top.y0 + top.y1) / 2 },
            quiet: true,
            mend: () =>
              (['legs', 'pedestal'] as const).map((stand) =>
                offer(unit, scene, { stand }, message('mend.stand', { on: { word: `stand.${stand}` } })),
              ),
          },
        ];
      },
    },
  }),
];
