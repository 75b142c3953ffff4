import { useLayoutEffect, useRef, useState, type RefObject } from 'react';

/** The size of an element in pixels, kept up to date. */
export function useSize<T extends Element>(): {
  readonly ref: RefObject<T | null>;
  readonly width: number;
  readonly height: number;
} {
  const ref = useRef<T>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  useLayoutEffect(() => {
    const element = ref.current;
    if (!element) return undefined;
    // the first size is known at once: an observer may be late
    setSize({ width: element.clientWidth, height: element.clientHeight });
    const observer = new ResizeObserver(([entry]) => {
      if (entry) setSize({ width: entry.contentRect.width, height: entry.contentRect.height });
    });
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return { ref, ...size };
}
