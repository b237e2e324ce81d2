import { Plus } from 'lucide-react';
import { useState, type KeyboardEvent } from 'react';
import { GridList, ListLayout, Virtualizer, useDragAndDrop } from 'react-aria-components';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { addEntry, addSet, chooseSet, indexShow, moveInSet, setOf, setTimes, type ShowSet } from '../../../core/show';
import { clockWords } from '../../../wording';
import { Button, Soft } from '../../widgets/controls';
import { AddSong } from '../../features/AddSong';
import { SongFromFile } from '../../features/SongFromFile';
import { Pick } from '../../widgets/Pick';
import { newId, perform } from '../../state/desk';
import { useNews } from '../../state/news';
import { useShow } from '../../state/store';
import { desk } from '../../theme/tokens';
import { narrow, stacked } from '../../theme/narrow';
import { EntryPanel } from './EntryPanel';
import { Answers } from './Answers';
import { EntryRow } from './EntryRow';
import { PlayedLists } from './PlayedLists';
import { AddInterlude } from './AddInterlude';
import { SetFields } from './SetFields';
import { EmptySet } from './EmptySet';
import { OutsideSet } from './OutsideSet';

const Whole = styled.div`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  height: 100%;
`;

const Page = styled.div`
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 300px;
  ${stacked}
`;

const Main = styled.section`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto auto;
  min-height: 0;
  padding: 14px 22px 14px;
  & > div:nth-of-type(2) {
    min-height: 0;
  }
  ${narrow} {
    height: 88dvh;
  }
`;

const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 10px;
  margin-bottom: 14px;
`;

const Side = styled.aside`
  overflow: auto;
  padding: 16px 18px 24px;
  border-left: 1.5px solid ${desk.ink};
  background: ${desk.sheet};
`;

const Order = styled(GridList)`
  height: 100%;
  overflow: auto;
  outline: none;
  border-top: 1.5px solid ${desk.ink};
` as typeof GridList;

const Foot = styled.p`
  margin: 10px 0 0;
`;

const ROWS = { estimatedRowHeight: 53 };

const NEW_SET = 'new';

const STEPS: Readonly<Record<string, number>> = { ArrowUp: -1, ArrowDown: 1 };

/** The running order: what is played when, what starts it and what follows. */
export function OrderPart() {
  const show = useShow();
  const set = setOf(show);
  const { rows } = setTimes(show);
  const { songs } = indexShow(show);
  const playing = useNews((s) => s.news.playing);
  const entryId = useNews((s) => s.news.entryId);
  const queued = useNews((s) => s.news.queued);
  const history = useNews((s) => s.news.history);
  const [chosen, setChosen] = useState<string | null>(null);
  const entry = set.entries.find((e) => e.id === chosen);
  const inSet = new Set(set.entries.flatMap((e) => (e.kind === 'song' ? [e.songId] : [])));
  const beside = show.songs.filter((s) => !inSet.has(s.id));
  const place = (id: string): number => set.entries.findIndex((e) => e.id === id);
  const move = (id: string, to: number): void => void perform(moveInSet(show, place(id), to), 'move in the set');
  const { dragAndDropHooks } = useDragAndDrop({
    getItems: (keys) => [...keys].map((key) => ({ 'text/plain': String(key) })),
    onReorder: ({ keys, target }) => {
      const [id] = [...keys].map(String);
      if (id === undefined) return;
      const [from, over] = [place(id), place(String(target.key))];
      const at = target.dropPosition === 'before' ? over : over + 1;
      move(id, at > from ? at - 1 : at);
    },
  });
  const onKey = (event: KeyboardEvent<HTMLDivElement>): void => {
    const by = event.altKey ? STEPS[event.key] : undefined;
    const id = (event.target as HTMLElement).closest<HTMLElement>('[data-key]')?.dataset.key;
    if (by === undefined || id === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    move(id, place(id) + by);
  };
  const numbered = set.entries.filter((e) => e.kind === 'song').map((e) => e.id);
  return (
    <Whole>
      <Answers />
      <Page>
        <Main>
          <SetTools set={set} setChosen={setChosen} chosen={chosen} />
          <div onKeyDownCapture={onKey}>
            <Virtualizer layout={ListLayout} layoutOptions={ROWS}>
              <Order
                selectionBehavior="replace"
                aria-label="Running order"
                selectionMode="single"
                selectedKeys={chosen === null ? [] : [chosen]}
                onSelectionChange={(keys) =>
                  setChosen(keys === 'all' ? null : (([...keys][0] as string | undefined) ?? null))
                }
                dragAndDropHooks={dragAndDropHooks}
                renderEmptyState={() => <EmptySet />}
              >
                {rows.map((row) => {
                  const song = row.entry.kind === 'song' ? songs.get(row.entry.songId) : undefined;
                  const { id } = row.entry;
                  return (
                    <EntryRow
                      key={id}
                      row={row}
                      song={song}
                      number={numbered.indexOf(id) + 1}
                      clock={set.onStage === null ? null : clockWords(set.onStage + row.at / 60)}
                      plays={playing && entryId === id}
                      next={queued === id}
                      played={history.findLast((p) => p.entryId === id && !p.struck) ?? null}
                    />
                  );
                })}
              </Order>
            </Virtualizer>
          </div>
          <Foot hidden={rows.length === 0}>
            <Soft>Drag a row by its grip, or move it with Alt and the arrows.</Soft>
          </Foot>
          {beside.length > 0 && <OutsideSet songs={beside} />}
        </Main>
        <Side aria-label={entry ? 'Chosen entry' : 'Set'}>
          {entry ? (
            <EntryPanel key={entry.id} entry={entry} onGone={() => setChosen(null)} />
          ) : (
            <>
              <SetFields />
              <PlayedLists />
            </>
          )}
        </Side>
      </Page>
    </Whole>
  );
}

interface SetToolsProps {
  readonly set: ShowSet;
  readonly setChosen: (value: string | null) => void;
  readonly chosen: string | null;
}

/** Which set it is, and what is put into it. */
function SetTools({ set, setChosen, chosen }: SetToolsProps) {
  const show = useShow();
  const navigate = useNavigate();
  const toChart = (id: string): void => void navigate(`/show/${show.id}/chart/${id}`);
  return (
    <Head>
      <Pick
        label="Set"
        width="180px"
        value={set.id}
        choices={[...show.sets.map((s) => ({ id: s.id, name: s.title })), { id: NEW_SET, name: 'a new set …' }]}
        onPick={(id) => {
          if (id !== NEW_SET) perform(chooseSet(show, id), 'play from another set');
          else perform(addSet(show, newId(), `Set ${show.sets.length + 1}`, set, newId), 'add a set');
          setChosen(null);
        }}
      />
      <AddSong onAdded={toChart} />
      <SongFromFile onAdded={toChart} />
      <Button
        onPress={() => {
          const id = newId();
          perform(addEntry(show, { kind: 'break', id, title: 'Break', minutes: 20 }, chosen), 'add a break');
          setChosen(id);
        }}
      >
        <Plus size={15} aria-hidden /> Break
      </Button>
      <Button
        onPress={() => {
          const id = newId();
          perform(addEntry(show, { kind: 'note', id, text: 'Note' }, chosen), 'add a note');
          setChosen(id);
        }}
      >
        <Plus size={15} aria-hidden /> Note
      </Button>
      <AddInterlude behind={chosen} onAdded={setChosen} />
    </Head>
  );
}
