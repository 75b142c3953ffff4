/**
 * A bar part whose ends are not square, in engine units. Its length is measured between its long points; each end falls
 * back from there by width x tan(angle), towards the far edge when negative.
 */
export interface Mitred {
  readonly long: number;
  readonly start: number;
  readonly end: number;
  /** Width of the bar across which the ends fall back. */
  readonly width: number;
}
