import styled from 'styled-components';
import type { Edit } from '../../../core/show';
import { perform } from '../../state/desk';

export const Box = styled.section`
  display: grid;
  gap: 11px;
  padding: 16px 18px;
  align-content: start;
  & h2 {
    font-size: 22px;
  }
`;

export const Pair = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
  align-items: end;
`;

/** Takes an edit of a field over, or says what was expected. */
export const take = (edit: Edit | null, label: string): null => {
  perform(edit, label);
  return null;
};
