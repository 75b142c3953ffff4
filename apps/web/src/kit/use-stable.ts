import { useCallback, useLayoutEffect, useRef } from 'react';

/**
 * A handler that stays the same and does what its newest form does, so that what it is given to need not be drawn again
 * for its sake. For presses and keys, not for drawing.
 */
export function useStable<Given extends unknown[], Back>(
  handler: (...given: Given) => Back,
): (...given: Given) => Back {
  const newest = useRef(handler);
  useLayoutEffect(() => {
    newest.current = handler;
  });
  return useCallback((...given: Given) => newest.current(...given), []);
}
