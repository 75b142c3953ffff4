import type { Unit } from '../document/schema.js';
import type { Scene } from '../furniture/scene.js';
import type { Grade } from '../rules/rule.js';
import { bedComfort } from './checks/people.js';

/** Heights of a bed's platform that are alike for its sleepers, mm above the finished floor. */
export interface HeightBand {
  readonly from: number;
  readonly to: number;
  readonly grade: Grade;
}

/** Bands are told in these steps, and looked for in these, from the lowest to the highest height, mm. */
const STEP_MM = 5;
const LOOK_MM = 20;
const LOWEST_MM = 100;
const HIGHEST_MM = 1600;

/**
 * How a bed would be for everybody who sleeps on it, by the height of its platform: sitting up under what is over it and
 * getting off it, both by the rules that check it. From low to high, in bands. Both only become worse with height, so that
 * between two heights of one grade there is no other.
 */
export function bedBands(unit: Unit, scene: Scene): readonly HeightBand[] {
  const { body } = unit;
  const high = body.to - body.from;
  const gradeAt = (height: number): Grade | null =>
    // one that hangs keeps its own thickness
    bedComfort({ ...unit, body: { ...body, to: height, from: body.from > 0 ? Math.max(0, height - high) : 0 } }, scene);
  const bands: HeightBand[] = [];
  const add = (from: number, to: number, grade: Grade): void => {
    const last = bands.at(-1);
    if (last?.grade === grade) bands[bands.length - 1] = { ...last, to };
    else bands.push({ from, to, grade });
  };
  let before: Grade | null = gradeAt(LOWEST_MM);
  if (before === null) return [];
  add(LOWEST_MM, LOWEST_MM, before);
  for (let height = LOWEST_MM + LOOK_MM; height <= HIGHEST_MM; height += LOOK_MM) {
    const grade: Grade = gradeAt(height) ?? before;
    for (let at = height - LOOK_MM + STEP_MM; at <= height; at += STEP_MM)
      add(at, at, at === height ? grade : grade === before ? grade : (gradeAt(at) ?? grade));
    before = grade;
  }
  return bands;
}
