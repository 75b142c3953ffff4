import { line, curveLinear, curveLinearClosed } from 'd3-shape';
import type { Point } from '@nestplank/core/numeric';

const open = line<Point>().curve(curveLinear);
const closed = line<Point>().curve(curveLinearClosed);

/** An open line through points as SVG path data. */
export const linePath = (points: readonly Point[]): string => open(points as Point[]) ?? '';
/** A closed ring as SVG path data. */
export const ringPath = (points: readonly Point[]): string => closed(points as Point[]) ?? '';
