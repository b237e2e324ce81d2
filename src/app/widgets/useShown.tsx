import { useState, type ReactNode } from 'react';
import { Button } from './controls';

/** How many of a long list are drawn, and the button that draws more; null where all are. */
export function useShown(count: number, step: number): readonly [shown: number, more: ReactNode] {
  const [shown, setShown] = useState(step);
  const left = count - shown;
  if (left <= 0) return [count, null];
  return [
    shown,
    <Button key="more" onPress={() => setShown(shown + step)}>
      Show {Math.min(step, left)} more of {left}
    </Button>,
  ];
}
