import { ArrowDown, ArrowUp, Plus } from 'lucide-react';
import { useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import styled from 'styled-components';
import { checkRig, type Finding } from '../../../core/checks';
import { moveReaction, putReaction, type Reaction, type Show } from '../../../core/show';
import { tonightOf } from '../../../core/tonight';
import { doesWords, findingSentence, hearsWords } from '../../../wording';
import { Button, SignButton, Soft } from '../../widgets/controls';
import { newId, perform } from '../../state/desk';
import { useShow } from '../../state/store';
import { desk, font } from '../../theme/tokens';
import { stacked } from '../../theme/narrow';
import { ReactionPanel } from './reactions/ReactionPanel';
import { ReactionTester } from './reactions/ReactionTester';

const Page = styled.div`
  display: grid;
  grid-template: auto minmax(0, 1fr) / minmax(0, 1fr) 330px;
  min-height: 0;
  height: 100%;
  ${stacked}
`;

const Tools = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 12px;
  padding: 12px 24px;
`;

const Left = styled.div`
  grid-row: 2;
  display: grid;
  gap: 18px;
  align-content: start;
  overflow: auto;
  padding: 0 24px 24px;
`;

const Side = styled.div`
  grid-row: 1 / -1;
  grid-column: 2;
  padding: 14px 18px 24px;
  border-left: 1.5px solid ${desk.ink};
  background: ${desk.sheet};
  overflow: auto;
`;

const List = styled.ol`
  margin: 0;
  padding: 0;
  list-style: none;
  border: 1.5px solid ${desk.ink};
  background: ${desk.sheet};
`;

const Item = styled.li<{ $chosen: boolean; $off: boolean }>`
  display: grid;
  grid-template-columns: 30px minmax(0, 1fr) auto;
  align-items: center;
  gap: 10px;
  padding: 0 10px 0 0;
  border-bottom: 1px solid ${desk.line};
  background: ${({ $chosen }) => ($chosen ? desk.lampWash : 'transparent')};
  &:last-child {
    border-bottom: 0;
  }
  & > b {
    text-align: right;
    font: 700 15px/1 ${font.display};
  }
  & > button:first-of-type {
    display: grid;
    gap: 1px;
    padding: 8px 0;
    border: 0;
    background: none;
    color: ${({ $off }) => ($off ? desk.inkSoft : desk.ink)};
    text-align: left;
    cursor: pointer;
    & > strong {
      font: 600 15px/1.25 ${font.text};
    }
    & > span {
      font-size: 13px;
    }
  }
`;

const Moves = styled.div`
  display: flex;
`;

/** A reaction to begin with: a pad stops what plays. */
const newReaction = (show: Show, id: string): Reaction => ({
  id,
  name: '',
  on: true,
  songId: null,
  hears: {
    portId: show.ports.find((p) => show.units.some((u) => u.returns?.portId === p.id))?.id ?? null,
    kind: 'control',
    channel: null,
    number: 80,
    low: 64,
    high: 127,
  },
  swallow: true,
  does: { kind: 'session', act: 'next-change' },
});

/** What arrives, and what it does: the list in the order in which a message goes through it. */
export function ReactionsPart() {
  const show = useShow();
  const [search] = useSearchParams();
  const [chosenId, choose] = useState<string | null>(search.get('reaction'));
  const findings = useMemo(() => checkRig(tonightOf(show)), [show]);
  const found = findings.filter((f) => f.place.in === 'reaction');
  const chosen = show.reactions.find((r) => r.id === chosenId);
  const add = (): void => {
    const id = newId();
    perform(putReaction(show, newReaction(show, id)), 'add a reaction');
    choose(id);
  };
  return (
    <Page>
      <Tools>
        <Button onPress={add}>
          <Plus size={15} aria-hidden /> Add a reaction
        </Button>
        <Soft style={{ fontSize: 13 }}>
          A message goes down the list. One that is swallowed goes no further, and not out again.
        </Soft>
      </Tools>
      <Left>
        {show.reactions.length === 0 ? (
          <p>
            Nothing that arrives does anything yet. Add a reaction: a foot switch that steps to the next change, a pad
            that plays a tone, a pedal that moves a control.
          </p>
        ) : (
          <List aria-label="Reactions">
            {show.reactions.map((r, i) => (
              <ReactionItem key={r.id} reaction={r} chosenId={chosenId} index={i} choose={choose} found={found} />
            ))}
          </List>
        )}
        <ReactionTester />
      </Left>
      <Side>
        {chosen ? (
          <ReactionPanel key={chosen.id} reaction={chosen} onGone={() => choose(null)} />
        ) : (
          <Soft>Choose a reaction to see and change what it waits for and what it does.</Soft>
        )}
      </Side>
    </Page>
  );
}

interface ReactionItemProps {
  readonly reaction: Reaction;
  readonly chosenId: string | null;
  readonly index: number;
  readonly choose: (value: string | null) => void;
  readonly found: Finding[];
}

/** A reaction in the list: what it waits for and does, moved up and down. */
function ReactionItem({ reaction, chosenId, index, choose, found }: ReactionItemProps) {
  const show = useShow();
  return (
    <Item $chosen={reaction.id === chosenId} $off={!reaction.on}>
      <b>{index + 1}</b>
      <button type="button" aria-pressed={reaction.id === chosenId} onClick={() => choose(reaction.id)}>
        <strong>
          {reaction.name || doesWords(show, reaction.does)}
          {!reaction.on && ' (off)'}
        </strong>
        <span>
          {hearsWords(show, reaction.hears)}
          {reaction.name !== '' && `: ${doesWords(show, reaction.does)}`}
          {reaction.songId !== null && `, in ${show.songs.find((s) => s.id === reaction.songId)?.title ?? 'a song'}`}
          {!reaction.swallow && ', passed on'}
        </span>
        {found.some((f) => f.place.in === 'reaction' && f.place.reactionId === reaction.id) && (
          <span style={{ color: desk.rust, fontWeight: 600 }}>
            {found
              .filter((f) => f.place.in === 'reaction' && f.place.reactionId === reaction.id)
              .map(findingSentence)
              .join(' ')}
          </span>
        )}
      </button>
      <Moves>
        <SignButton
          aria-label={`Move reaction ${index + 1} up`}
          isDisabled={index === 0}
          onPress={() => perform(moveReaction(show, reaction.id, -1), 'move a reaction')}
        >
          <ArrowUp size={16} aria-hidden />
        </SignButton>
        <SignButton
          aria-label={`Move reaction ${index + 1} down`}
          isDisabled={index === show.reactions.length - 1}
          onPress={() => perform(moveReaction(show, reaction.id, 1), 'move a reaction')}
        >
          <ArrowDown size={16} aria-hidden />
        </SignButton>
      </Moves>
    </Item>
  );
}
