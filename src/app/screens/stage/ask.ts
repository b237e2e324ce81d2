import styled from 'styled-components';
import { font, stage } from '../../theme/tokens';

/** A dark page of its own, where a computer or a screen asks to be let in. */
export const AskGround = styled.main`
  position: fixed;
  inset: 0;
  display: grid;
  grid-template: auto minmax(0, 1fr) auto / minmax(0, 1fr);
  background: ${stage.ground};
  color: ${stage.text};
`;

/** Large fields, one under the other. */
export const AskForm = styled.form`
  grid-row: 1 / -1;
  place-self: center;
  display: grid;
  gap: 16px;
  width: min(420px, calc(100vw - 40px));
  font-size: 20px;
  & input {
    width: 100%;
    padding: 10px 14px;
    border: 2px solid ${stage.text};
    border-radius: 4px 14px 4px 14px;
    background: transparent;
    color: ${stage.text};
    font: 700 44px/1.1 ${font.display};
    letter-spacing: 0.1em;
  }
  & button {
    min-height: 56px;
    border: 0;
    border-radius: 4px 16px 4px 16px;
    background: ${stage.lamp};
    color: ${stage.ground};
    font: 700 22px/1 ${font.display};
    cursor: pointer;
  }
`;
