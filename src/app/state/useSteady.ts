import { useLayoutEffect, useRef, useState } from 'react';

// Handlers take what they take; nothing is known of it here.
// oxlint-disable-next-line typescript/no-explicit-any
type Handlers = Readonly<Record<string, (...args: any[]) => void>>;

/**
 * The same functions through all drawings, that do what the latest ones given do: what is
 * drawn with them need not be drawn again only because they were made anew.
 */
export function useSteady<H extends Handlers>(handlers: H): H {
  const latest = useRef(handlers);
  useLayoutEffect(() => {
    latest.current = handlers;
  });
  const [steady] = useState(
    () =>
      Object.fromEntries(
        Object.keys(handlers).map((name) => [name, (...args: unknown[]) => latest.current[name]!(...args)]),
      ) as unknown as H,
  );
  return steady;
}
