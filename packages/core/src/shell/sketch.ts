import type { Project } from '../document/schema.js';
import { monotoneCurve } from '../numeric/curve.js';
import { makeShell, type Shell, type StationSection } from './shell.js';

/** A vehicle of no make in particular, mm: half widths at the floor, half way up and at the wall's top, and its roof. */
const SKETCH: Readonly<
  Record<
    Project['vehicle']['kind'],
    {
      readonly length: number;
      readonly half: readonly [number, number, number];
      readonly top: number;
      readonly roof: number;
    }
  >
> = {
  van: { length: 3400, half: [880, 900, 760], top: 1650, roof: 1880 },
  bus: { length: 7200, half: [1150, 1170, 1040], top: 1650, roof: 1950 },
  trailer: { length: 3000, half: [950, 950, 950], top: 1850, roof: 1851 },
};

/**
 * A room to point at and to draw a tape in before anything is measured: of no vehicle in particular, always drawn dashed and
 * never reckoned with.
 * @param length what the floor was read to be, mm; null for what is usual of the kind
 */
export function sketchShell(kind: Project['vehicle']['kind'], length: number | null): Shell {
  const { half, top, roof, length: usual } = SKETCH[kind];
  const wall = monotoneCurve([0, top / 2, top], [...half]);
  const reach = half[2];
  const section: Omit<StationSection, 'x'> = {
    left: wall,
    right: wall,
    roof: monotoneCurve([-reach, 0, reach], [top, roof, top]),
  };
  const whole = length !== null && length > 0 ? length : usual;
  return makeShell(whole, 0, [
    { x: 0, ...section },
    { x: whole, ...section },
  ]);
}
