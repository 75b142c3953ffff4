import { useDrag, type FullGestureState } from '@use-gesture/react';
import { useRef } from 'react';

/** Where the hand has come to from where it took hold, px; along an axis it has not yet moved on, 0. */
export type Hand = readonly [number, number];

/**
 * Draws something with the pointer, told from a press by three px on the way. What is drawn stays under the hand: the
 * three px belong to its way once it is told from a press.
 * @param handler what is done at each step; what it gives back is given to it as `memo` at the next
 */
export function useHand(handler: (by: Hand, state: FullGestureState<'drag'>) => unknown) {
  const begun = useRef<[boolean, boolean]>([false, false]);
  return useDrag(
    (state) => {
      const { last, movement, xy, initial } = state;
      const along = (axis: 0 | 1): number => {
        begun.current[axis] ||= movement[axis] !== 0;
        return begun.current[axis] ? xy[axis] - initial[axis] : 0;
      };
      const by: Hand = [along(0), along(1)];
      if (last) begun.current = [false, false];
      return handler(by, state);
    },
    { filterTaps: true, preventDefault: true, pointer: { keys: false } },
  );
}
