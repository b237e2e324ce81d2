import { Switch } from 'react-aria-components';
import styled from 'styled-components';
import { desk } from '../theme/tokens';

/** On or off, with its words beside it. */
export const Check = styled(Switch)`
  /* Its hidden input must not stretch the page. */
  position: relative;
  display: flex;
  align-items: center;
  gap: 8px;
  cursor: pointer;
  &::before {
    content: '';
    width: 18px;
    height: 18px;
    flex: none;
    border: 1.5px solid ${desk.ink};
    border-radius: 3px 6px 3px 6px;
    background: ${desk.field};
  }
  &[data-selected]::before {
    background: ${desk.tide};
    box-shadow: inset 0 0 0 3px ${desk.field};
  }
  &[data-focus-visible]::before {
    outline: 3px solid ${desk.lamp};
  }
  &[data-disabled] {
    color: ${desk.lineStrong};
    cursor: default;
  }
`;
