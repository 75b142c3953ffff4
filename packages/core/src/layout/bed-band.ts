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

/** Heights are looked at in these steps, and up to here, mm. */
const STEP_MM = 5;
const HIGHEST_MM = 1600;
const LOWEST_MM = 100;

/**
 * How a bed would be for everybody who sleeps on it, by the height of its platform: sitting up under what is over it and
 * getting off it, both by the rules that check it. From low to high, in bands.
 */
export function bedBands(unit: Unit, scene: Scene): readonly HeightBand[] {
  const bands: HeightBand[] = [];
  const high = unit.body.to - unit.body.from;
  for (let height = LOWEST_MM; height <= HIGHEST_MM; height += STEP_MM) {
    const { body } = unit;
    // one that hangs keeps its own thickness
    const moved: Unit = {
      ...unit,
      body: { ...body, to: height, from: body.from > 0 ? Math.max(0, height - high) : 0 },
    };
    const grade = bedComfort(moved, scene);
    if (grade === null) return [];
    const last = bands.at(-1);
    if (last?.grade === grade) bands[bands.length - 1] = { ...last, to: height };
    else bands.push({ from: height, to: height, grade });
  }
  return bands;
}
