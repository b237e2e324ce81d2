import { startTransition, useEffect, useRef, useState, type RefObject } from 'react';

/** The width that an element has on the screen, in pixels, as it changes. */
export function useWidth<E extends Element>(first: number): readonly [RefObject<E | null>, number] {
  const ref = useRef<E>(null);
  const [width, setWidth] = useState(first);
  useEffect(() => {
    const element = ref.current;
    if (!element) return undefined;
    const observer = new ResizeObserver(([entry]) => {
      if (entry && entry.contentRect.width > 0) startTransition(() => setWidth(Math.floor(entry.contentRect.width)));
    });
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return [ref, width];
}
