import { Ear } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { useShallow } from 'zustand/react/shallow';
import { indexShow, setLaunches, songEntries } from '../../../core/show';
import { launchesHeard } from '../../../playback';
import { Button, MainButton, Soft } from '../../widgets/controls';
import { Last, Rows } from '../../widgets/dialogParts';
import { ListenDialog } from '../../features/ListenDialog';
import { StandInKeys } from '../../features/StandInKeys';
import { perform } from '../../state/desk';
import { useNews } from '../../state/news';
import { useShow } from '../../state/store';
import { desk } from '../../theme/tokens';
import { launchWords } from './launchWords';

const Songs = styled.ol`
  display: grid;
  max-height: 300px;
  overflow: auto;
  margin: 0;
  padding: 0;
  list-style: none;
  & li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    gap: 12px;
    padding: 6px 4px;
    border-top: 1px solid ${desk.line};
  }
  & li[aria-current] {
    background: ${desk.lampWash};
    font-weight: 700;
  }
`;

/** The messages that start the songs of the set, pressed one after the other. */
export function LearnStarts() {
  return (
    <ListenDialog
      face={
        <>
          <Ear size={15} aria-hidden /> Learn starts in a row
        </>
      }
      label="Learn starts in a row"
      title="Press for each song in turn"
      width={560}
    >
      {(close, from) => <Row from={from} close={close} />}
    </ListenDialog>
  );
}

function Row({ from, close }: { readonly from: number; readonly close: () => void }) {
  const show = useShow();
  const { songs, ports } = indexShow(show);
  const [passed, setPassed] = useState(from);
  const arrived = useNews(useShallow((s) => s.lines.filter((l) => l.direction === 'in' && l.number > passed)));
  const entries = songEntries(show);
  const heard = launchesHeard(arrived).slice(0, entries.length);
  const next = entries[heard.length];
  const use = (): void => {
    const launches = new Map(
      heard.map((h, i) => [entries[i]!.id, { ...h, does: entries[i]!.launch?.does ?? ('start' as const) }]),
    );
    perform(setLaunches(show, launches), 'let messages start songs');
    close();
  };
  return (
    <Rows>
      <Soft>
        Press the switch, pad or key of the first song, then of the second, and so on. While this is open, what arrives
        does nothing else.
      </Soft>
      <StandInKeys />
      <Songs aria-label="Songs and what starts them">
        {entries.map((entry, i) => {
          const now = heard[i];
          return (
            <li key={entry.id} aria-current={i === heard.length ? 'step' : undefined}>
              <span>{songs.get(entry.songId)?.title}</span>
              <span>
                {now
                  ? `${launchWords(now.bytes)}, ${ports.get(now.portId)?.name ?? 'a port'}`
                  : entry.launch
                    ? `as it was: ${launchWords(entry.launch.bytes)}`
                    : '–'}
              </span>
            </li>
          );
        })}
      </Songs>
      <p role="status" aria-label="Learnt in a row">
        {next ? `Press for ${songs.get(next.songId)?.title ?? 'the next song'}.` : 'Each song has its message.'}
      </p>
      <Last>
        <Button
          isDisabled={heard.length === 0}
          onPress={() => setPassed(useNews.getState().lines.at(-1)?.number ?? passed)}
        >
          Begin again
        </Button>
        <Button onPress={close}>Cancel</Button>
        <MainButton isDisabled={heard.length === 0} onPress={use}>
          {heard.length === 1 ? 'Use it' : `Use these ${heard.length}`}
        </MainButton>
      </Last>
    </Rows>
  );
}
