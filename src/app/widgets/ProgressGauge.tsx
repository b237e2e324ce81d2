import { ProgressBar } from 'react-aria-components';
import styled from 'styled-components';
import { desk } from '../theme/tokens';

const Gauge = styled(ProgressBar)`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 8px;
  font-size: 13px;
  font-weight: 600;
  & > div {
    width: 130px;
    height: 12px;
    border: 1.5px solid ${desk.ink};
    border-radius: 3px 7px 3px 7px;
    overflow: hidden;
  }
  & > div > div {
    height: 100%;
    background: ${desk.lamp};
  }
`;

interface Props {
  readonly label: string;
  readonly value: number;
  readonly max: number;
  /** How far it is, in words. */
  readonly words: string;
}

/** How far long work is. */
export function ProgressGauge({ label, value, max, words }: Props) {
  return (
    <Gauge aria-label={label} value={value} maxValue={max}>
      {({ percentage }) => (
        <>
          <div>
            <div style={{ width: `${percentage ?? 0}%` }} />
          </div>
          <span>{words}</span>
        </>
      )}
    </Gauge>
  );
}
