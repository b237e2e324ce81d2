import styled from 'styled-components';
import { desk } from '../theme/tokens';

export const Quiet = styled.span`
  color: ${desk.inkSoft};
  font-size: 13px;
  white-space: nowrap;
`;
