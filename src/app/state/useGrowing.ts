import { startTransition, useEffect, useState } from 'react';

/** So many rows stand at once; what one sees first needs no more. */
const AT_ONCE = 14;

/** How many of a list's rows to draw: the first of them at once, all when those stand. */
export function useGrowing(count: number): number {
  const [all, setAll] = useState(count <= AT_ONCE);
  useEffect(() => {
    if (!all) startTransition(() => setAll(true));
  }, [all]);
  return all ? count : Math.min(count, AT_ONCE);
}
