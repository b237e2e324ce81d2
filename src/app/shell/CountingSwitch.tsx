import { ToggleButton, ToggleButtonGroup } from 'react-aria-components';
import styled from 'styled-components';
import { setCounting } from '../state/device';
import { useApp, type Counting } from '../state/store';
import { desk } from '../theme/tokens';
import { Quiet } from '../widgets/shellParts';

const Countings = styled(ToggleButtonGroup)`
  display: flex;
  align-items: center;
  gap: 0;
  & button {
    min-height: 30px;
    padding: 0 10px;
    border: 1.5px solid ${desk.lineStrong};
    border-left-width: 0;
    background: ${desk.sheet};
    color: ${desk.inkSoft};
    font-weight: 600;
    font-size: 13px;
    cursor: pointer;
  }
  & button:first-child {
    border-left-width: 1.5px;
    border-radius: 4px 0 0 4px;
  }
  & button:last-child {
    border-radius: 0 10px 4px 0;
  }
  & button[data-selected] {
    background: ${desk.ink};
    border-color: ${desk.ink};
    color: ${desk.sheet};
  }
`;

export function CountingSwitch() {
  const counting = useApp((s) => s.counting);
  return (
    <>
      <Quiet id="counting">Numbers</Quiet>
      <Countings
        aria-labelledby="counting"
        selectionMode="single"
        disallowEmptySelection
        selectedKeys={[counting]}
        onSelectionChange={(keys) => {
          const [key] = keys;
          if (key !== undefined) setCounting(key as Counting);
        }}
      >
        <ToggleButton id="zero">from 0</ToggleButton>
        <ToggleButton id="one">from 1</ToggleButton>
        <ToggleButton id="label">as labelled</ToggleButton>
      </Countings>
    </>
  );
}
