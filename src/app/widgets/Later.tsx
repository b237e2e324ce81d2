import { startTransition, useEffect, useState, type ReactNode } from 'react';

interface Props {
  /** Pixels that are kept free for it. */
  readonly height: number;
  readonly children: () => ReactNode;
}

/** What takes long to draw, drawn after everything else stands: two short tasks hold up less than a long one. */
export function Later({ height, children }: Props) {
  const [now, setNow] = useState(false);
  useEffect(() => {
    let frame = requestAnimationFrame(() => {
      frame = requestAnimationFrame(() => startTransition(() => setNow(true)));
    });
    return () => cancelAnimationFrame(frame);
  }, []);
  return now ? children() : <div style={{ height }} />;
}
