import { useState, type ReactNode } from 'react';
import type { Bytes } from '../../core/midi';
import { indexShow } from '../../core/show';
import { messageWords } from '../../wording';
import { listenOnly } from '../state/desk';
import { useNews } from '../state/news';
import { useShow } from '../state/store';
import { Button, MainButton, Soft } from './controls';
import { DialogButton } from './DialogButton';
import { Last, Rows } from './dialogParts';
import { StandInKeys } from './StandInKeys';

interface Props {
  readonly face: ReactNode;
  readonly label: string;
  /** What is to be pressed. */
  readonly ask: string;
  readonly fits: (bytes: Bytes) => boolean;
  /** What is made of it, as it is said; else the message as it came. */
  readonly says?: (bytes: Bytes) => string;
  readonly onTake: (portId: string, bytes: Bytes) => void;
}

/** Takes a message from what arrives; while it listens, what arrives does nothing else. */
export function LearnMessage({ face, label, ask, fits, says = messageWords, onTake }: Props) {
  const [from, setFrom] = useState(0);
  return (
    <DialogButton
      face={face}
      label={label}
      title="Learn a message"
      onOpen={() => {
        setFrom(useNews.getState().lines.at(-1)?.number ?? 0);
        void listenOnly(true);
      }}
      onClosed={() => void listenOnly(false)}
    >
      {(close) => <Listening from={from} close={close} ask={ask} fits={fits} says={says} onTake={onTake} />}
    </DialogButton>
  );
}

interface ListeningProps extends Required<Omit<Props, 'face' | 'label'>> {
  readonly from: number;
  readonly close: () => void;
}

function Listening({ from, close, ask, fits, says, onTake }: ListeningProps) {
  const show = useShow();
  const heard = useNews((s) => s.lines.findLast((l) => l.direction === 'in' && l.number > from && fits(l.bytes)));
  return (
    <Rows>
      <Soft>{ask} While this is open, what arrives does nothing else.</Soft>
      <StandInKeys />
      <p role="status" aria-label="Learnt">
        {heard
          ? `${says(heard.bytes)}, from ${indexShow(show).ports.get(heard.portId)?.name ?? 'a port'}`
          : 'Nothing has arrived yet.'}
      </p>
      <Last>
        <Button onPress={close}>Cancel</Button>
        <MainButton
          isDisabled={!heard}
          onPress={() => {
            if (heard) onTake(heard.portId, heard.bytes);
            close();
          }}
        >
          Use it
        </MainButton>
      </Last>
    </Rows>
  );
}
