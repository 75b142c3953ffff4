import { useThree } from '@react-three/fiber';
import { useCallback, useEffect, useRef } from 'react';

/** Drawn so much coarser while it is turned, and fine again when it has been still so long, ms. */
const COARSE = 0.5;
const STILL_MS = 180;

/** To be called whenever the camera has moved: without a graphics card the picture is drawn coarser until it is still. */
export function useCoarser(software: boolean): () => void {
  const setDpr = useThree((state) => state.setDpr);
  const fine = useRef(Math.min(2, window.devicePixelRatio));
  const waits = useRef<number | null>(null);
  useEffect(
    () => () => {
      if (waits.current !== null) window.clearTimeout(waits.current);
    },
    [],
  );
  return useCallback(() => {
    if (!software) return;
    if (waits.current === null) setDpr(fine.current * COARSE);
    else window.clearTimeout(waits.current);
    waits.current = window.setTimeout(() => {
      waits.current = null;
      setDpr(fine.current);
    }, STILL_MS);
  }, [software, setDpr]);
}
