import styled from 'styled-components';
import { desk } from '../../theme/tokens';
import { stacked } from '../../theme/narrow';

/** Words at the left, pictures at the right; each scrolls by itself. */
export const Body = styled.div`
  display: grid;
  grid-template-columns: minmax(330px, 5fr) minmax(0, 9fr);
  min-height: 0;
  ${stacked}
`;

export const Left = styled.div`
  display: grid;
  align-content: start;
  gap: 14px;
  padding: 14px 16px 24px 20px;
  overflow: auto;
  border-right: 1.5px solid ${desk.ink};
  background: ${desk.sheet};
  & h2 {
    font-size: 17px;
    margin-bottom: 6px;
  }
`;

export const Right = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  align-content: start;
  gap: 12px;
  padding: 14px 18px 24px;
  overflow: auto;
`;
