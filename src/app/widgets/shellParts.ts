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
  /* In the last column or a low row of a table that scrolls it would make the page larger. */
  left: 0;
  top: 0;
  width: 1px;
  height: 1px;
  overflow: hidden;
  clip-path: inset(50%);
  white-space: nowrap;
`;

/** A line under the head of every view: what somebody should know now. */
export const HeadSlip = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 12px;
  padding: 6px 16px;
  border-bottom: 1.5px solid ${desk.ink};
  background: ${desk.lampWash};
`;
