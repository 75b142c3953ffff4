/** Of a drag's time, what is shown beside it takes no more than one part in so many. */
const SHARE = 16;
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
 * Does what waits all at once, and then nothing for sixteen times as long as that took: drawing that would be begun and
 * given up at each step of a drag never comes to an end, and drawing at each step holds up the hand.
 */
export function createPace({ now, after, atOnce }: PaceParts) {
  const waiting = new Set<() => void>();
  let due = 0;
  let set = false;

  function run(): void {
    set = false;
    if (waiting.size === 0) return;
    const all = [...waiting];
    waiting.clear();
    const begun = now();
    atOnce(() => {
      for (const work of all) work();
    });
    due = now() + Math.min(SELDOM_MS, Math.max(OFTEN_MS, SHARE * (now() - begun)));
  }

  return {
    /** Waits for the next turn. @returns leaves again */
    join(work: () => void): () => void {
      waiting.add(work);
      // the turn stays set when whoever waited leaves: the next step of the drag joins it
      if (!set) after(run, Math.max(0, due - now()));
      set = true;
      return () => void waiting.delete(work);
    },
  };
}
