import { Modal, ModalOverlay } from 'react-aria-components';
import styled from 'styled-components';
import { desk } from '../theme/tokens';

export const Veil = styled(ModalOverlay)`
  position: fixed;
  inset: 0;
  display: grid;
  place-items: center;
  background: rgb(19 38 45 / 55%);
  z-index: 10;
`;

export const Sheet = styled(Modal)`
  width: min(460px, calc(100vw - 40px));
  max-height: calc(100dvh - 40px);
  overflow: auto;
  background: ${desk.sheet};
  border: 1.5px solid ${desk.ink};
  border-radius: 6px 24px 6px 24px;
  padding: 22px 26px 24px;
`;

export const Rows = styled.div`
  display: grid;
  gap: 13px;
  margin-top: 14px;
`;

export const Pair = styled.div`
  display: flex;
  align-items: end;
  gap: 10px;
  & > * {
    flex: 1;
  }
`;

export const Last = styled.div`
  display: flex;
  justify-content: flex-end;
  gap: 10px;
  margin-top: 6px;
`;
