import { useEffect, useState } from 'react';

/**
 * How many of so many pieces are drawn: they come one after the other, each in a task of its own, so that what plays
 * waits for one of them at the most. Once all were there, all are drawn at once.
 */
export function useOneByOne(count: number): number {
  const [drawn, setDrawn] = useState(1);
  useEffect(() => {
    if (drawn > count) return undefined;
    const timer = setTimeout(() => setDrawn(drawn < count ? drawn + 1 : Number.POSITIVE_INFINITY));
    return () => clearTimeout(timer);
  }, [drawn, count]);
  return drawn;
}
