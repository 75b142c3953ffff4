import type { PlaceSurface } from '@nestplank/core/document';
import { create } from 'zustand';

/** A place that was pointed at: the surface, x along the vehicle, and the height on a wall, or how far right of the centre line. Whole mm. */
export interface Pointed {
  readonly surface: PlaceSurface | 'front';
  readonly x: number;
  readonly along: number;
}

/** What waits to be pointed at. */
export interface Pointing {
  /** Who asked: its button is the one that is pressed in. */
  readonly by: string;
  /** What is to be pointed at, in words. */
  readonly what: string;
  readonly takes: (place: Pointed) => boolean;
  readonly put: (place: Pointed) => void;
}

/** At most one thing waits to be pointed at; every drawing that can tell a place listens. */
export const usePointing = create<{ readonly now: Pointing | null }>(() => ({ now: null }));

export const startPointing = (now: Pointing): void => usePointing.setState({ now });

/** Leaves it; when a name is given, only if that one is waiting. */
export function stopPointing(by?: string): void {
  const { now } = usePointing.getState();
  if (now && (by === undefined || now.by === by)) usePointing.setState({ now: null });
}

/** Takes a place for what is waiting, if it may be there. @returns whether it was taken */
export function pointAt(place: Pointed): boolean {
  const { now } = usePointing.getState();
  if (!now?.takes(place)) return false;
  usePointing.setState({ now: null });
  now.put(place);
  return true;
}
