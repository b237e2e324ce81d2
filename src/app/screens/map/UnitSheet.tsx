import styled from 'styled-components';
import type { Props } from './unitParts';
import { Times, Habits } from './UnitTiming';
import { Versions } from './UnitVersions';
import { Effects } from './UnitEffects';

const Scroller = styled.div`
  overflow: auto;
  padding: 6px 20px 24px;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(300px, 1fr));
  gap: 16px 26px;
  align-content: start;
`;

const Stack = styled.div`
  display: grid;
  gap: 18px;
  align-content: start;
`;

/** What a unit is like beyond its numbers: how long it takes, what a preset brings along, what rings on, and with which firmware. */
export function UnitSheet({ unit }: Props) {
  return (
    <Scroller>
      <Times unit={unit} />
      <Habits unit={unit} />
      <Stack>
        <Effects unit={unit} />
        <Versions unit={unit} />
      </Stack>
    </Scroller>
  );
}
