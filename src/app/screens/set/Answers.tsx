import type { ReactNode } from 'react';
import { Button as AriaButton } from 'react-aria-components';
import { Link } from 'react-router';
import styled, { css } from 'styled-components';
import { setOf, setTimes } from '../../../core/show';
import { differsTonight, tonightOf } from '../../../core/tonight';
import { clockWords, durationWords } from '../../../wording';
import { AllFindings } from '../../features/AllFindings';
import { portsThere } from '../../features/readiness';
import { SET_WORDS } from '../../features/setWords';
import { StartShow } from '../../features/StartShow';
import { LanternMark } from '../../widgets/LanternMark';
import { useShowMark } from '../../state/marks';
import { usePorts } from '../../state/ports';
import { useShow } from '../../state/store';
import { narrow } from '../../theme/narrow';
import { desk, font } from '../../theme/tokens';
import { LeastRoom } from './LeastRoom';

const Strip = styled.section`
  display: grid;
  grid-template-columns: minmax(0, 1.7fr) repeat(4, minmax(0, 1fr)) auto;
  margin: 12px 22px 10px;
  border: 1.5px solid ${desk.ink};
  border-radius: 4px 18px 4px 18px;
  background: ${desk.sheet};
  overflow: hidden;
  & > * + * {
    border-left: 1px solid ${desk.line};
  }
  ${narrow} {
    grid-template-columns: 1fr 1fr;
    margin: 10px 12px 0;
  }
`;

const cell = css`
  display: grid;
  align-content: center;
  justify-items: start;
  gap: 2px;
  min-height: 62px;
  padding: 8px 14px;
  border: 0;
  background: none;
  color: ${desk.ink};
  font: 13px/1.3 ${font.text};
  text-align: left;
  text-decoration: none;
  & > b {
    font: 700 18px/1.15 ${font.display};
  }
`;

const Cell = styled.div`
  ${cell}
`;
const WayCell = styled(Link)`
  ${cell}
  &:hover {
    background: ${desk.tideWash};
  }
`;
const OpenCell = styled(AriaButton)`
  ${cell}
  cursor: pointer;
  &[data-hovered] {
    background: ${desk.tideWash};
  }
`;

const Lands = styled(Cell)`
  grid-template-columns: 38px minmax(0, 1fr);
  align-items: center;
  column-gap: 10px;
  & > svg {
    grid-row: 1 / 3;
  }
`;

const Perform = styled.div`
  display: grid;
  align-content: center;
  justify-items: stretch;
  gap: 6px;
  padding: 8px 12px;
  background: ${desk.night};
  & button {
    min-height: 28px;
    padding: 2px 10px;
    font-size: 13px;
  }
`;

const ToStage = styled(Link)`
  padding: 2px 10px;
  color: ${desk.nightText};
  text-align: center;
  font: 800 20px/1 ${font.display};
  text-decoration: none;
  &:hover {
    text-decoration: underline;
  }
`;

/** What one wants to know of the night before anything is pressed, each answer the way to where it is changed. */
export function Answers() {
  const show = useShow();
  const mark = useShowMark(show);
  const base = `/show/${show.id}`;
  const { onStage } = setOf(show);
  const { length } = setTimes(show);
  const differs = differsTonight(tonightOf(show));
  return (
    <Strip aria-label="Tonight at a glance">
      <Lands>
        <LanternMark mark={mark} size={36} silent />
        <b>{capital(SET_WORDS[mark])}</b>
        <LeastRoom />
      </Lands>
      <AllFindings
        renderTrigger={(words, open) => (
          <OpenCell>
            <b>{capital(words)}</b>
            <span>{open === 0 ? 'in rig, map and songs' : 'read and mend them'}</span>
          </OpenCell>
        )}
      />
      <Answer to={`${base}/set/tonight`} words={differs.length === 0 ? 'As usual' : `${differs.length} differ`}>
        {differs[0] ?? 'nothing differs tonight'}
      </Answer>
      <PortsAnswer to={`${base}/rig/ports`} />
      <Cell>
        <b>
          {onStage === null ? durationWords(length) : `${clockWords(onStage)}–${clockWords(onStage + length / 60)}`}
        </b>
        <span>{onStage === null ? 'long; no start time' : `begins and is over, ${durationWords(length)}`}</span>
      </Cell>
      <Perform>
        <ToStage to={`${base}/stage`}>Stage</ToStage>
        <StartShow />
      </Perform>
    </Strip>
  );
}

function PortsAnswer({ to }: { readonly to: string }) {
  const show = useShow();
  const uses = usePorts((s) => s.uses);
  const lost = usePorts((s) => s.lost);
  const refusing = usePorts((s) => s.refusing);
  const { there, all } = portsThere(show, { uses, lost, refusing });
  return (
    <Answer to={to} words={all === 0 ? 'No ports yet' : `${there} of ${all} ports`}>
      {all === 0 ? 'units hang on none' : there === 0 ? 'only stand-ins hear it' : 'connected here'}
    </Answer>
  );
}

interface AnswerProps {
  readonly to: string;
  readonly words: string;
  readonly children: ReactNode;
}

const Answer = ({ to, words, children }: AnswerProps) => (
  <WayCell to={to}>
    <b>{words}</b>
    <span>{children}</span>
  </WayCell>
);

const capital = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);
