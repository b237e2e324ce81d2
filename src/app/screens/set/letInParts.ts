import { useEffect, useState } from 'react';
import styled from 'styled-components';
import { desk, font } from '../../theme/tokens';

export const Box = styled.section`
  display: grid;
  gap: 12px;
  padding: 18px 20px;
  border: 1.5px solid ${desk.ink};
  border-radius: 4px 18px 4px 18px;
  background: ${desk.sheet};
`;

export const Code = styled.output`
  font: 700 68px/1 ${font.display};
  letter-spacing: 0.08em;
  font-variant-numeric: tabular-nums;
`;

export const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 12px;
`;

/** Seconds of the page's clock, while something runs out. */
export function useSeconds(on: boolean): number {
  const [now, setNow] = useState(() => performance.now());
  useEffect(() => {
    if (!on) return undefined;
    const timer = setInterval(() => setNow(performance.now()), 500);
    return () => clearInterval(timer);
  }, [on]);
  return now;
}
