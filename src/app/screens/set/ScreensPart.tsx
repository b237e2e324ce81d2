import { MonitorSmartphone } from 'lucide-react';
import styled from 'styled-components';
import { Button, MainButton, Soft } from '../../widgets/controls';
import { setStageOnly } from '../../state/device';
import { useShow } from '../../state/store';
import { endScreens, newCode, startSharing, stopSharing, useSharing } from '../../state/sharing';
import { Box, Code, Row, useSeconds } from './letInParts';
import { PairPart } from './PairPart';

const Page = styled.div`
  display: grid;
  gap: 16px;
  align-content: start;
  overflow: auto;
  height: 100%;
  /* Lines end at 860 px, the page and what scrolls it at its edge. */
  padding: 18px max(24px, calc(100% - 860px)) 30px 24px;
`;

/** The stage on other screens: who may see it, and how they come to it. */
export function ScreensPart() {
  const { state, code, screens, addresses, wrongCodes } = useSharing();
  const show = useShow();
  const now = useSeconds(code !== null);
  // The clock of the page was looked at before the code came.
  const left = code ? Math.min(code.seconds, Math.ceil((code.until - now) / 1000)) : 0;
  return (
    <Page>
      <p>
        The stage can be seen on a phone or a tablet in the same network. A screen shows what is on and what comes; it
        changes nothing.
      </p>
      {state === 'off' && (
        <MainButton style={{ justifySelf: 'start' }} onPress={startSharing}>
          <MonitorSmartphone size={18} aria-hidden /> Share the stage
        </MainButton>
      )}
      {state === 'opening' && <p role="status">Asking the server …</p>}
      {state === 'unreachable' && (
        <Box role="alert">
          <b>The server does not share.</b>
          <p>
            It is off unless it is asked for: stop the server, start it with <code>npm start -- --share</code>, and open
            the show again at this computer. Nothing else changes.
          </p>
          <Row>
            <Button onPress={stopSharing}>Cancel</Button>
          </Row>
        </Box>
      )}
      {state === 'taken' && (
        <Box role="alert">
          <b>Another tab shares its stage now.</b>
          <Row>
            <MainButton onPress={startSharing}>Share from here</MainButton>
          </Row>
        </Box>
      )}
      {state === 'open' && (
        <LetIn addresses={addresses} code={code} left={left} screens={screens} wrongCodes={wrongCodes} />
      )}
      <PairPart />
      <Box>
        <b>For a stand-in player</b>
        <p>
          This computer then shows the stage of this show and nothing else, until somebody unlocks it: on stage, the
          lock, then a long hold.
        </p>
        <Row>
          <Button onPress={() => setStageOnly(show.id, true)}>Open for a stand-in player</Button>
        </Row>
      </Box>
    </Page>
  );
}

interface LetInProps {
  readonly addresses: readonly string[];
  readonly code: { readonly text: string; readonly until: number; readonly seconds: number } | null;
  readonly left: number;
  readonly screens: number;
  readonly wrongCodes: number;
}

/** How another screen is let in, and who is. */
function LetIn({ addresses, code, left, screens, wrongCodes }: LetInProps) {
  return (
    <>
      <Box>
        <Soft>On the other screen, open</Soft>
        <b style={{ fontSize: 22 }}>{addresses.join(' or ')}</b>
        {code && left > 0 ? (
          <>
            <Soft>and type</Soft>
            <Code aria-label="Code">{code.text}</Code>
            <Soft>It lets in one screen, within {left} seconds.</Soft>
          </>
        ) : (
          <Soft role="status" aria-label="What the code is worth">
            {code ? 'The code has run out.' : 'The code was used.'} One more screen takes a new one.
          </Soft>
        )}
        {wrongCodes > 0 && (
          <b role="alert">
            {wrongCodes === 1 ? 'A wrong code was' : `${wrongCodes} wrong codes were`} typed on another screen.
          </b>
        )}
        <Row>
          <Button onPress={newCode}>New code</Button>
        </Row>
      </Box>
      <Row>
        <b role="status" aria-label="Screens">
          {screens === 1 ? '1 screen is on.' : `${screens} screens are on.`}
        </b>
        {screens > 0 && <Button onPress={endScreens}>Disconnect all screens</Button>}
        <Button onPress={stopSharing}>Stop sharing</Button>
      </Row>
    </>
  );
}
