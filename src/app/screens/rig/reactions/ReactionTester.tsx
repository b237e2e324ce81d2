import styled from 'styled-components';
import { allReactions, heardSwitch } from '../../../../core/feet';
import { NOT_REACTED, react } from '../../../../core/meaning';
import { indexShow, pageTitle } from '../../../../core/show';
import { actWords, doesWords, messageWords, missWords } from '../../../../wording';
import type { MonitorLine } from '../../../../playback';
import { Soft } from '../../../widgets/controls';
import { StandInKeys } from '../../../features/StandInKeys';
import { useNews } from '../../../state/news';
import { useShow } from '../../../state/store';
import { desk, font } from '../../../theme/tokens';

const Box = styled.section`
  display: grid;
  gap: 10px;
  padding: 12px 14px;
  border: 1.5px solid ${desk.line};
  border-radius: 4px 14px 4px 14px;
  background: ${desk.sheet};
  & h2 {
    font-size: 17px;
  }
`;

const Steps = styled.ol`
  margin: 0;
  padding: 0 0 0 22px;
  display: grid;
  gap: 3px;
  & b {
    font: 600 14px/1.35 ${font.text};
  }
`;

/** So many messages are shown: a switch that is pressed and let go sends two. */
const SHOWN = 2;

/** Shows what the messages that arrived last become, reaction by reaction. */
export function ReactionTester() {
  const lines = useNews((s) => s.lines);
  const last: MonitorLine[] = [];
  for (let i = lines.length - 1; i >= 0 && last.length < SHOWN; i--) {
    const line = lines[i]!;
    if (line.direction === 'in' && line.bytes[0]! < 0xf0) last.push(line);
  }
  return (
    <Box aria-label="Tester">
      <h2>Trace a message</h2>
      <Soft style={{ fontSize: 13 }}>
        Press something on a controller, or on a stand-in: it does what it does, and its way stands here.
      </Soft>
      <StandInKeys />
      {last.length > 0 ? (
        <div role="status" aria-label="Its way" style={{ display: 'grid', gap: 8 }}>
          {last.toReversed().map((line) => (
            <Way key={line.number} line={line} />
          ))}
        </div>
      ) : (
        <Soft>Nothing has arrived yet.</Soft>
      )}
    </Box>
  );
}

/** One message on its way through the reactions. */
function Way({ line: { at, portId, bytes } }: { readonly line: MonitorLine }) {
  const show = useShow();
  const songId = useNews((s) => s.news.songId);
  const reactions = allReactions(show);
  const own = new Set(show.reactions.map((r) => r.id));
  const tried = react({ reactions }, NOT_REACTED, { songId, at }, portId, bytes);
  const port = indexShow(show).ports.get(portId);
  return (
    <div>
      <p>
        <b>{messageWords(bytes)}</b> from {port?.name ?? 'a port'}
      </p>
      <Steps>
        {tried.steps.map(({ reactionId, miss, acts, stopped }) => {
          const reaction = reactions.find((r) => r.id === reactionId)!;
          // Of what the pages of controllers say only what takes the message is told: there are hundreds.
          if (!own.has(reactionId) && miss) return null;
          const heard = heardSwitch(show, reactionId);
          return (
            <li key={reactionId}>
              {heard
                ? `${indexShow(show).units.get(heard.unitId)?.name}, ${pageTitle(show, heard.unitId, heard.pageId)}`
                : reaction.name || doesWords(show, reaction.does)}
              :{' '}
              {miss ? (
                <Soft>{missWords(miss)}</Soft>
              ) : (
                <b>
                  {acts.length === 0 ? 'nothing yet' : acts.map((a) => actWords(show, a)).join(', ')}
                  {stopped ? '; it goes no further' : ''}
                </b>
              )}
            </li>
          );
        })}
      </Steps>
      <p>
        {!tried.goesOn
          ? 'It does not go out again.'
          : port?.softThru
            ? `It goes out of ${port.name} again.`
            : 'Nothing swallows it; the port passes nothing on.'}
      </p>
    </div>
  );
}
