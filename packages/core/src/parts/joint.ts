/** A screw at least every so far along a joint, and no fewer than two, mm. */
const SCREW_MM = 150;
const LEAST_SCREWS = 2;
/** Wood glue, ml for a metre of joint. */
const GLUE_ML_PER_METRE = 20;

/** What wood glue is called in the price book. */
export const GLUE = 'wood-glue';

/** Screws along a joint of so many mm. */
export const screwsAlong = (length: number): number => Math.max(LEAST_SCREWS, Math.ceil(length / SCREW_MM));

/** Wood glue for joints of so many mm together, ml. */
export const glueAlong = (length: number): number => (length / 1000) * GLUE_ML_PER_METRE;
