import { startTransition, useEffect, useState } from 'react';
import { flushSync } from 'react-dom';
import { createPace } from './pace.js';

const page = createPace({
  now: () => performance.now(),
  after: (work, ms) => void setTimeout(work, ms),
  // drawn to its end here and now, so that what it took is known
  atOnce: (work) => flushSync(work),
});

/**
 * What is shown beside a drag: it follows the hand as often as it can without being felt, and everything else as soon as
 * there is time. What the hand itself moves takes the scene as it is.
 */
export function useLater<T extends { readonly previewing: boolean } | null>(scene: T): T {
  const [shown, setShown] = useState(scene);
  useEffect(() => {
    if (scene?.previewing) return page.join(() => setShown(scene));
    startTransition(() => setShown(scene));
    return undefined;
  }, [scene]);
  return shown;
}
