import styled from 'styled-components';
import { desk } from '../theme/tokens';

export const Quiet = styled.span`
  color: ${desk.inkSoft};
  font-size: 13px;
  white-space: nowrap;
`;

/** Told to a screen reader, and not seen. */
export const Unseen = styled.span`
  position: absolute;
  width: 1px;
  height: 1px;
  overflow: hidden;
  clip-path: inset(50%);
  white-space: nowrap;
`;
