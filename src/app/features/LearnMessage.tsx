import type { ReactNode } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { pressOf, type Press } from '../../core/meaning';
import type { Bytes } from '../../core/midi';
import { indexShow } from '../../core/show';
import { messageWords } from '../../wording';
import { useNews } from '../state/news';
import { useShow } from '../state/store';
import { Button, MainButton, Soft } from '../widgets/controls';
import { Last, Rows } from '../widgets/dialogParts';
import { ListenDialog } from './ListenDialog';
import { StandInKeys } from './StandInKeys';

interface Props {
  readonly face: ReactNode;
  readonly label: string;
  /** What is to be pressed. */
  readonly ask: string;
  readonly fits: (bytes: Bytes) => boolean;
  /** What is made of it, as it is said; else the message as it came. */
  readonly says?: (bytes: Bytes) => string;
  readonly onTake: (portId: string, press: Press) => void;
}

/** Takes a message from what arrives; while it listens, what arrives does nothing else. */
export function LearnMessage({ face, label, ask, fits, says = messageWords, onTake }: Props) {
  return (
    <ListenDialog face={face} label={label} title="Learn a message">
      {(close, from) => <Listening from={from} close={close} ask={ask} fits={fits} says={says} onTake={onTake} />}
    </ListenDialog>
  );
}

interface ListeningProps extends Required<Omit<Props, 'face' | 'label'>> {
  readonly from: number;
  readonly close: () => void;
}

function Listening({ from, close, ask, fits, says, onTake }: ListeningProps) {
  const show = useShow();
  const heard = useNews(useShallow((s) => s.lines.filter((l) => l.direction === 'in' && l.number > from)));
  const last = heard.findLast((l) => pressOf([l.bytes]) !== null || fits(l.bytes));
  const press = last ? pressOf(heard.filter((l) => l.portId === last.portId).map((l) => l.bytes)) : null;
  const taken = press && fits(press.bytes) ? press : null;
  return (
    <Rows>
      <Soft>{ask} While this is open, what arrives does nothing else.</Soft>
      <StandInKeys />
      <p role="status" aria-label="Learnt">
        {taken && last
          ? `${says(taken.bytes)}, from ${indexShow(show).ports.get(last.portId)?.name ?? 'a port'}${taken.release ? ' (its release does nothing)' : ''}`
          : 'Nothing has arrived yet.'}
      </p>
      <Last>
        <Button onPress={close}>Cancel</Button>
        <MainButton
          isDisabled={!taken}
          onPress={() => {
            if (taken && last) onTake(last.portId, taken);
            close();
          }}
        >
          Use it
        </MainButton>
      </Last>
    </Rows>
  );
}
