import {
  Button as AriaButton,
  Input as AriaInput,
  Label as AriaLabel,
  TextField as AriaTextField,
} from 'react-aria-components';
import styled, { css } from 'styled-components';
import { desk, font } from '../theme/tokens';

const press = css`
  display: inline-flex;
  align-items: center;
  justify-content: center;
  gap: 7px;
  min-height: 34px;
  padding: 0 13px;
  border-radius: 4px 12px 4px 12px;
  border: 1.5px solid ${desk.ink};
  background: ${desk.sheet};
  color: ${desk.ink};
  font-weight: 600;
  white-space: nowrap;
  cursor: pointer;
  &[data-hovered] {
    background: ${desk.tideWash};
  }
  &[data-pressed] {
    background: ${desk.lampWash};
  }
  &[data-disabled] {
    border-color: ${desk.line};
    color: ${desk.lineStrong};
    cursor: default;
  }
`;

/** The button of the house: two corners cut round, two square. */
export const Button = styled(AriaButton)`
  ${press}
`;

/** The one action that a view is about. */
export const MainButton = styled(AriaButton)`
  ${press}
  background: ${desk.tide};
  border-color: ${desk.tide};
  color: ${desk.onTide};
  &[data-hovered] {
    background: ${desk.ink};
    color: ${desk.sheet};
  }
  &[data-pressed] {
    background: ${desk.night};
    color: ${desk.lamp};
  }
  &[data-disabled] {
    background: ${desk.sheetDim};
    color: ${desk.inkSoft};
    border-color: ${desk.line};
  }
`;

/** A button that is only its sign, for rows. It needs an aria-label. */
export const SignButton = styled(AriaButton)`
  display: inline-grid;
  place-items: center;
  width: 30px;
  height: 30px;
  flex: none;
  border: 0;
  border-radius: 4px 9px 4px 9px;
  background: transparent;
  color: ${desk.inkSoft};
  cursor: pointer;
  &[data-hovered] {
    background: ${desk.tideWash};
    color: ${desk.ink};
  }
  &[data-disabled] {
    opacity: 0.35;
    cursor: default;
  }
`;

export const Field = styled(AriaTextField)`
  display: grid;
  gap: 3px;
  min-width: 0;
`;

export const Label = styled(AriaLabel)`
  font-size: 12px;
  font-weight: 600;
  color: ${desk.inkSoft};
`;

export const inputLook = css`
  width: 100%;
  min-height: 34px;
  padding: 4px 9px;
  border: 1.5px solid ${desk.lineStrong};
  border-radius: 4px;
  background: ${desk.field};
  color: ${desk.ink};
  &[data-invalid],
  &[aria-invalid='true'] {
    border-color: ${desk.rust};
    background: ${desk.rustWash};
  }
`;

export const Input = styled(AriaInput)`
  ${inputLook}
`;

export const Bytes = styled.code`
  font: 500 12px/1.5 ${font.bytes};
  color: ${desk.inkSoft};
`;

/** What went wrong, where it went wrong. */
export const FormProblem = styled.p.attrs({ role: 'alert' })`
  color: ${desk.rust};
  font-weight: 600;
  font-size: 13px;
`;

export const Soft = styled.span`
  color: ${desk.inkSoft};
`;
