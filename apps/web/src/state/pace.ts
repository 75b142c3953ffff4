/** Of a drag's time, what is shown beside it takes no more than one part in so many. */
const SHARE = 16;
/** So long a turn may go on before the rest of it waits for the next, ms: it fits behind what a step of the hand takes of a frame. */
const TURN_MS = 3;
/** What is drawn quickly follows this often at most, ms. */
const OFTEN_MS = 30;
/** And what is drawn slowly this often at least, ms. */
const SELDOM_MS = 800;

/** What a pace stands on, so that it can be tried without a clock. */
export interface PaceParts {
  readonly now: () => number;
  /** Does something so many ms later. */
  readonly after: (work: () => void, ms: number) => void;
  /** Does something and everything that comes of it before it returns. */
  readonly atOnce: (work: () => void) => void;
}

/**
 * Does what waits in short turns, first come first, and after each nothing for sixteen times as long as it took: drawing
 * that would be begun and given up at each step of a drag never comes to an end, drawing at each step holds up the hand,
 * and drawing everything in one turn is felt as a jerk.
 */
export function createPace({ now, after, atOnce }: PaceParts) {
  /** And since when each waits. */
  const waiting = new Map<() => void, number>();
  let due = 0;
  let set = false;

  function next(): void {
    if (set || waiting.size === 0) return;
    set = true;
    after(run, Math.max(0, due - now()));
  }
  function run(): void {
    set = false;
    if (waiting.size === 0) return;
    const begun = now();
    for (const work of waiting.keys()) {
      waiting.delete(work);
      atOnce(work);
      if (now() - begun >= TURN_MS) break;
    }
    const took = now() - begun;
    const rest = Math.min(SELDOM_MS, Math.max(OFTEN_MS, SHARE * took));
    // whoever still waits has a turn after the longest wait, but the hand has as much of the time as they
    const [oldest] = waiting.values();
    due = now() + (oldest === undefined ? rest : Math.max(took, Math.min(rest, oldest + SELDOM_MS - now())));
    next();
  }

  return {
    /** Waits for its turn. @returns leaves again */
    join(work: () => void): () => void {
      waiting.set(work, now());
      next();
      return () => void waiting.delete(work);
    },
  };
}
