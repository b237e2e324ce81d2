import type { ReactNode } from 'react';
import { useNear } from './useNear';

interface Props {
  /** How high its content is, about, in pixels: so much is kept free for it until it is drawn. */
  readonly height: number;
  readonly children: () => ReactNode;
}

/** Content that is drawn when it comes near to what is in sight; a long page then has few elements. */
export function Near({ height, children }: Props) {
  const { ref, near, height: seen } = useNear();
  return (
    <div ref={ref} style={near ? undefined : { height: seen ?? height }}>
      {near && children()}
    </div>
  );
}
