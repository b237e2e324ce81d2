import { Ear } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { learn, type Encoding } from '../../../core/addressing';
import { decodeMessage } from '../../../core/midi';
import { indexShow, setUnitField, type Unit } from '../../../core/show';
import { claimWords, encodingKindWords, messageWords, monitorWords } from '../../../wording';
import { DialogButton } from '../../widgets/DialogButton';
import { Button, FormProblem, MainButton, Soft } from '../../widgets/controls';
import { Last, Rows } from '../../widgets/dialogParts';
import { StandInKeys } from '../../features/StandInKeys';
import { perform } from '../../state/desk';
import { useNews } from '../../state/news';
import { useApp, useShow } from '../../state/store';
import { desk, font } from '../../theme/tokens';

const Heard = styled.ol`
  height: 96px;
  overflow: auto;
  margin: 0;
  padding: 6px 12px;
  border: 1.5px solid ${desk.line};
  background: ${desk.field};
  list-style: none;
  font-size: 13px;
`;

const Found = styled.p`
  font: 700 20px/1.25 ${font.display};
`;

interface Props {
  readonly unit: Unit;
  /** Takes an encoding, and the channel that it came on; gives a sentence where the encoding is refused. */
  readonly onTake: (encoding: Encoding, channel: number | null) => string | null;
}

/** Takes port, channel, kind and number from what a controller sends. */
export function Learn({ unit, onTake }: Props) {
  const [from, setFrom] = useState(0);
  return (
    <DialogButton
      face={
        <>
          <Ear size={16} aria-hidden /> Learn
        </>
      }
      title="Learn from a controller"
      width={560}
      onOpen={() => setFrom(useNews.getState().lines.at(-1)?.number ?? 0)}
    >
      {(close) => <LearnForm unit={unit} from={from} onTake={onTake} onAgain={setFrom} close={close} />}
    </DialogButton>
  );
}

interface FormProps extends Props {
  /** Lines up to this one are not listened to. */
  readonly from: number;
  readonly onAgain: (from: number) => void;
  readonly close: () => void;
}

function LearnForm({ unit, from, onTake, onAgain, close }: FormProps) {
  const show = useShow();
  const all = useNews((s) => s.lines);
  const [refused, setRefused] = useState<string | null>(null);
  const heard = all.filter((l) => l.direction === 'in' && l.number > from);
  const learnt = learn(heard.flatMap((l) => decodeMessage(l.bytes) ?? []));
  const port = heard.at(-1) && indexShow(show).ports.get(heard.at(-1)!.portId);
  const take = (withChannel: boolean): void => {
    if (!learnt) return;
    const sentence = onTake(learnt.encoding, learnt.channel);
    setRefused(sentence);
    if (sentence !== null) return;
    if (withChannel && learnt.channel !== null) {
      perform(setUnitField(useApp.getState().open!.show, unit.id, 'channel', learnt.channel), 'take the channel over');
    }
    close();
  };
  const otherChannel = learnt && learnt.channel !== null && learnt.channel !== unit.channel;
  return (
    <Rows>
      <Soft>Press the switch twice, or move the pedal from end to end. The last thing that moves is learnt.</Soft>
      <StandInKeys />
      <Heard aria-label="Heard">
        {heard.length === 0 && (
          <li>
            <Soft>Nothing has arrived yet.</Soft>
          </li>
        )}
        {heard.slice(-30).map((l) => (
          <li key={l.number}>
            {messageWords(l.bytes)} – <Soft>{monitorWords(show, l)}</Soft>
          </li>
        ))}
      </Heard>
      {learnt && (
        <Found role="status" aria-label="Learnt">
          {port?.name ?? 'A port'}
          {learnt.channel !== null && `, channel ${learnt.channel}`}: {claimWords(learnt.encoding)},{' '}
          {encodingKindWords(learnt.encoding.kind)}
        </Found>
      )}
      {refused !== null && <FormProblem>{refused}</FormProblem>}
      <Last>
        <Button onPress={() => onAgain(all.at(-1)?.number ?? 0)} isDisabled={heard.length === 0}>
          Listen again
        </Button>
        {otherChannel && <Button onPress={() => take(true)}>Use it, and channel {learnt.channel} for the unit</Button>}
        <MainButton isDisabled={!learnt} onPress={() => take(false)}>
          Use it
        </MainButton>
      </Last>
    </Rows>
  );
}
