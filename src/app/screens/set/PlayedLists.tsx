import { Download, Trash2 } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { csvText } from '../../../core/csvText';
import { fileName } from '../../../core/formats/fileName';
import { LIMITS } from '../../../core/show';
import type { Played } from '../../../playback';
import { durationWords, listTitle } from '../../../wording';
import { download } from '../../adapters/download';
import { clearPlayed, renamePlayed } from '../../state/desk';
import { rehearsalOf, useJournal, type PlayedRow } from '../../state/journal';
import { useNight } from '../../state/night';
import { useShow } from '../../state/store';
import { desk } from '../../theme/tokens';
import { DraftField } from '../../widgets/DraftField';
import { Fold } from '../../widgets/Fold';
import { Button, SignButton, Soft } from '../../widgets/controls';

const List = styled.ol`
  display: grid;
  gap: 3px;
  margin: 8px 0 12px;
  padding: 0;
  list-style: none;
  & li {
    display: grid;
    grid-template-columns: 74px minmax(0, 1fr) 52px;
    & > :last-child {
      grid-column: 2 / 4;
    }
    gap: 10px;
    padding: 3px 0;
    border-bottom: 1px solid ${desk.line};
    font-variant-numeric: tabular-nums;
  }
`;

const Acts = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-bottom: 14px;
`;

const HOW = { asked: 'by hand', follows: 'by itself', launched: 'by a message', code: 'by time code' } as const;

const timeOf = (at: number): string => new Date(at / 1000).toTimeString().slice(0, 8);

/** What was played: shows apart from rehearsals, the newest first; each named, exported, cleared. */
export function PlayedLists() {
  const lists = useJournal((s) => s.lists);
  const night = useNight((s) => s.id);
  const [day] = useState(() => rehearsalOf(Date.now()));
  const now = lists.find((l) => l.id === (night ?? day));
  const earlier = lists.filter((l) => l !== now);
  if (lists.length === 0) return null;
  return (
    <section aria-label="Played" style={{ marginTop: 22 }}>
      <h2>Played</h2>
      {now && <OneList list={now} />}
      {earlier.map((list) => (
        <Fold key={list.id} summary={`${listTitle(list)} · ${songsOf(list)}`}>
          {() => <OneList list={list} />}
        </Fold>
      ))}
    </section>
  );
}

const songsOf = ({ history }: PlayedRow): string => {
  const count = history.filter((p) => !p.struck).length;
  return count === 1 ? '1 song' : `${count} songs`;
};

const lengthOf = ({ at, until }: Played): string => (until === null ? 'plays' : durationWords((until - at) / 1e6));

function OneList({ list }: { readonly list: PlayedRow }) {
  const show = useShow();
  const title = listTitle(list);
  return (
    <>
      <DraftField
        label="Name of this list"
        value={title}
        commit={(text) => {
          if (text.trim().length > LIMITS.title) return `at most ${LIMITS.title} letters`;
          void renamePlayed(list, text.trim());
          return null;
        }}
      />
      <List aria-label={title}>
        {list.history.toReversed().map((p) => (
          <li key={p.at}>
            <span>{timeOf(p.at)}</span>
            {p.struck ? <s>{p.title}</s> : <b>{p.title}</b>}
            <span>{lengthOf(p)}</span>
            <Soft>{p.struck ? 'taken back' : HOW[p.how]}</Soft>
          </li>
        ))}
      </List>
      <Acts>
        <Button onPress={() => exportList(show.title, title, list)}>
          <Download size={15} aria-hidden /> Export as CSV
        </Button>
        <SignButton aria-label={`Clear ${title}`} onPress={() => void clearPlayed(list)}>
          <Trash2 size={16} />
        </SignButton>
      </Acts>
    </>
  );
}

function exportList(show: string, title: string, { history }: PlayedRow): void {
  const rows = history.map((p) => [
    new Date(p.at / 1000).toISOString(),
    p.until === null ? '' : new Date(p.until / 1000).toISOString(),
    p.title,
    HOW[p.how],
    p.struck ? 'taken back' : '',
  ]);
  const head = ['started', 'ended', 'song', 'how', 'struck'];
  download(fileName(`${show} ${title}`, 'csv'), csvText([head, ...rows]), 'text/csv');
}
