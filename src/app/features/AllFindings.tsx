import type { ReactElement } from 'react';
import styled from 'styled-components';
import { useAllFindings } from '../state/findings';
import { useProofs } from '../state/proofs';
import { useShow } from '../state/store';
import { DialogButton } from '../widgets/DialogButton';
import { Soft } from '../widgets/controls';
import { FindingList } from './FindingList';

const Box = styled.div`
  display: grid;
  gap: 14px;
  max-height: 68dvh;
  margin-top: 14px;
  overflow: auto;
`;

/** How many findings there are; where none of them is wrong, how much is not finished yet. */
export const findingsWords = (count: number, wrong: number): string =>
  count === 0 ? 'no findings' : wrong === 0 ? `${count} unfinished` : count === 1 ? '1 finding' : `${count} findings`;

interface Props {
  /** The button that opens it, told how many there are. */
  readonly renderTrigger: (words: string, open: number, wrong: number) => ReactElement;
}

/** All that was found in the show, in one list: the gravest first. It opens over any view. */
export function AllFindings({ renderTrigger }: Props) {
  const { open, wrong } = useAllFindings(useShow());
  return (
    <DialogButton face="" title="Findings" width={760} trigger={renderTrigger(findingsWords(open, wrong), open, wrong)}>
      {(close) => <Found close={close} />}
    </DialogButton>
  );
}

function Found({ close }: { readonly close: () => void }) {
  const { findings } = useAllFindings(useShow());
  const waiting = useProofs((s) => s.waiting);
  return (
    <Box>
      {waiting > 0 && (
        <Soft role="status">
          {waiting === 1 ? '1 song is' : `${waiting} songs are`} still being proven: what is found there comes here.
        </Soft>
      )}
      <FindingList
        findings={findings}
        well="Nothing was found in the rig, its map and the songs of the set."
        onWay={close}
      />
    </Box>
  );
}
