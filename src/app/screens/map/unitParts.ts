import styled from 'styled-components';
import type { Unit } from '../../../core/show';
import { desk } from '../../theme/tokens';

export const Part = styled.section`
  display: grid;
  gap: 9px;
  align-content: start;
  & h2 {
    font-size: 17px;
    padding-bottom: 5px;
    border-bottom: 1.5px solid ${desk.ink};
  }
`;

export const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: end;
`;

export interface Props {
  readonly unit: Unit;
}
