import { useEffect, useRef } from 'react';
import { Button } from 'react-aria-components';
import styled from 'styled-components';
import { songTime, type Song } from '../../../core/show';
import { formatPosition, type Ticks } from '../../../core/time';
import { selectPlace } from '../../state/desk';
import { useShow } from '../../state/store';
import { stage, font } from '../../theme/tokens';
import { namedStops } from './stageOf';

const Column = styled.ol`
  display: flex;
  flex-direction: column;
  gap: 6px;
  grid-column: 1 / -1;
  margin: 0;
  padding: 12px 0;
  min-height: 0;
  overflow: auto;
  list-style: none;
`;

const Step = styled(Button)<{ $on: boolean }>`
  display: grid;
  grid-template-columns: 130px minmax(0, 1fr);
  align-items: baseline;
  width: 100%;
  gap: 20px;
  padding: ${(p) => (p.$on ? '12px 18px' : '4px 18px')};
  border: 0;
  border-left: 8px solid ${(p) => (p.$on ? stage.lamp : 'transparent')};
  background: ${(p) => (p.$on ? stage.raised : 'none')};
  color: ${(p) => (p.$on ? stage.lamp : stage.text)};
  font: 700 ${(p) => (p.$on ? 92 : 36)}px / 1.05 ${font.display};
  text-align: left;
  cursor: pointer;
  & span {
    font-size: 36px;
    color: ${stage.soft};
    font-variant-numeric: tabular-nums;
  }
  &[data-hovered] {
    background: ${stage.raised};
  }
`;

/** A song without a clock: its steps, each with the printed bar it belongs to; one press goes to any of them. */
export function Steps({ song, tick }: { readonly song: Song; readonly tick: Ticks }) {
  const show = useShow();
  const { bars } = songTime(song);
  const steps = namedStops(show, song);
  const on = steps.findLastIndex((s) => s.at <= tick + 1);
  const present = useRef<HTMLLIElement>(null);
  // The step that is on moved: its own element is another one then.
  // oxlint-disable-next-line react-hooks/exhaustive-deps
  useEffect(() => {
    void present.current?.scrollIntoView({ block: 'center' });
  }, [on]);
  return (
    <Column aria-label="Steps">
      {steps.map((step, i) => (
        <li key={step.at} ref={i === on ? present : null}>
          <Step
            $on={i === on}
            aria-current={i === on ? 'step' : 'false'}
            onPress={() => void selectPlace(song.id, step.at)}
          >
            <span>{formatPosition(bars, step.at, song.bars)}</span>
            {step.name}
          </Step>
        </li>
      ))}
    </Column>
  );
}
