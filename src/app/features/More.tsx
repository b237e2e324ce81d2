import { ChevronDown, ChevronRight } from 'lucide-react';
import type { ReactNode } from 'react';
import { Button } from 'react-aria-components';
import styled from 'styled-components';
import { setOpened, useOpened } from '../state/opened';
import { desk } from '../theme/tokens';

const Head = styled(Button)`
  display: flex;
  align-items: center;
  gap: 6px;
  justify-self: start;
  padding: 3px 4px 3px 0;
  border: 0;
  background: none;
  color: ${desk.tide};
  font-weight: 700;
  font-size: 14px;
  cursor: pointer;
`;

interface Props {
  /** Where it is: what was opened there stays open on this computer. */
  readonly place: string;
  /** Something in it is not as it usually is: it is open, so that this is seen. */
  readonly used?: boolean;
  readonly children: ReactNode;
}

/** Fields that few need, folded away until somebody opens them. */
export function More({ place, used = false, children }: Props) {
  const opened = useOpened((s) => s.places.includes(place));
  const open = opened || used;
  return (
    <>
      <Head aria-expanded={open} isDisabled={used} onPress={() => setOpened(place, !opened)}>
        {open ? <ChevronDown size={16} aria-hidden /> : <ChevronRight size={16} aria-hidden />} More
      </Head>
      {open && children}
    </>
  );
}
