import { Crown, Laptop } from 'lucide-react';
import { fromHex, toHex, wholeMessages } from '../../../core/midi';
import { pair } from '../../state/desk';
import { usePair } from '../../state/pair';
import { useNews } from '../../state/news';
import { useShow } from '../../state/store';
import { Button, MainButton, Soft } from '../../widgets/controls';
import { DraftField } from '../../widgets/DraftField';
import { Pick } from '../../widgets/Pick';
import { Box, Code, Row, useSeconds } from './letInParts';

/** A second computer that takes over when this one ends, or this one as the second of another. */
export function PairPart() {
  const { seat, line } = usePair();
  return (
    <Box role="region" aria-label="A second computer">
      <b>A second computer</b>
      {seat === null && (
        <>
          <p>
            It has this show and follows it, silent. When this computer ends, it plays on within a beat. Both share, and
            are in one network.
          </p>
          <Row>
            <MainButton onPress={pair.letFollow}>
              <Laptop size={18} aria-hidden /> Let one follow
            </MainButton>
            <a href="/follow">Follow another computer from here</a>
          </Row>
        </>
      )}
      {seat !== null && line === 'unreachable' && (
        <p role="alert">
          The server does not share. Stop it, start it with <code>npm start -- --share</code>, and open the show again.
        </p>
      )}
      {seat === 'first' && line !== 'unreachable' && <LetIn />}
      {seat !== null && <Standing />}
      {seat !== null && <SwitchBox />}
      {seat !== null && (
        <Row>
          <Button onPress={pair.end}>{seat === 'first' ? 'Be alone again' : 'Follow no longer'}</Button>
        </Row>
      )}
    </Box>
  );
}

/** How the second computer is let in. */
function LetIn() {
  const { addresses, code, wrongCodes, isThere } = usePair();
  const now = useSeconds(code !== null);
  const left = code ? Math.min(code.seconds, Math.ceil((code.until - now) / 1000)) : 0;
  if (isThere) return null;
  return (
    <>
      <Soft>On the other computer, choose “Follow another computer”, and type</Soft>
      <b style={{ fontSize: 22 }} aria-label="Address">
        {addresses.join(' or ')}
      </b>
      {code && left > 0 ? (
        <>
          <Code aria-label="Code for the second computer">{code.text}</Code>
          <Soft>It lets in one computer, within {left} seconds.</Soft>
        </>
      ) : (
        <Row>
          <Soft>The code was used, or has run out.</Soft>
          <Button onPress={pair.newCode}>New code for a second computer</Button>
        </Row>
      )}
      {wrongCodes > 0 && (
        <b role="alert">{wrongCodes === 1 ? 'A wrong code was' : `${wrongCodes} wrong codes were`} typed there.</b>
      )}
    </>
  );
}

/** Who leads, and whether the other one would take over. */
function Standing() {
  const two = useNews((s) => s.news.pair);
  if (!two) return null;
  const text = two.leads
    ? two.other === 'there'
      ? two.ready
        ? 'This computer leads. The other one follows, and takes over when it has to.'
        : 'This computer leads. The other one is there, and does not have the show yet.'
      : 'This computer leads. No other one is there: nobody would take over.'
    : two.other === 'there'
      ? 'The other computer leads. This one is silent, and takes over when it has to.'
      : 'The other computer is not heard, and this one is silent.';
  return (
    <Row>
      <b role="status" aria-label="Of two computers">
        {text}
      </b>
      {!two.leads && (
        <Button onPress={pair.lead}>
          <Crown size={16} aria-hidden /> Lead here
        </Button>
      )}
    </Row>
  );
}

const NONE = 'none';

/** A box between both computers and the rig, which a message turns to one of them. */
function SwitchBox() {
  const show = useShow();
  const box = usePair((s) => s.box);
  return (
    <Row style={{ alignItems: 'end' }}>
      <Pick
        label="A switch box hangs on"
        width="190px"
        value={box?.portId ?? NONE}
        choices={[{ id: NONE, name: 'none' }, ...show.ports]}
        onPick={(portId) => pair.setBox(portId === NONE ? null : { portId, bytes: box?.bytes ?? [0xc0, 0] })}
      />
      {box && (
        <DraftField
          label="It turns to this computer at"
          style={{ width: 190 }}
          value={toHex(box.bytes)}
          commit={(text) => {
            const bytes = fromHex(text);
            if (!bytes || wholeMessages(bytes)?.length !== 1) return 'one whole MIDI message, such as C0 05';
            pair.setBox({ ...box, bytes });
            return null;
          }}
        />
      )}
      <Soft style={{ fontSize: 13, paddingBottom: 8, maxWidth: 360 }}>
        It is turned before anything else is sent. Without one, both computers reach the rig, and one of them is silent.
      </Soft>
    </Row>
  );
}
