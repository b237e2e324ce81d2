import styled from 'styled-components';
import { desk } from '../../theme/tokens';

/** A panel beside the chart. */
export const Panel = styled.section`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 9px;
  padding: 14px 16px 24px;
  & h2 {
    display: flex;
    align-items: center;
    justify-content: space-between;
    font-size: 20px;
  }
  & h3 {
    margin-top: 8px;
    padding-top: 9px;
    border-top: 1.5px solid ${desk.ink};
    font-size: 15px;
  }
`;

/** Fields side by side. */
export const Row = styled.div`
  display: flex;
  align-items: end;
  gap: 6px;
  flex-wrap: wrap;
  & > * {
    min-width: 0;
  }
`;

/** Two fields, each half as wide as the panel. */
export const Halves = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 8px;
  align-items: end;
`;
