import { Download, Plus } from 'lucide-react';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { durationWords } from '../../wording';
import styled from 'styled-components';
import { addToSet, indexShow, setOf, setShowTitle, songLength, songsOfSet, type Song } from '../../core/show';
import { AddSong } from '../features/AddSong';
import { Button, SignButton, Soft } from '../widgets/controls';
import { DraftField } from '../widgets/DraftField';
import { SongFromFile } from '../features/SongFromFile';
import { UnitBadge } from '../widgets/UnitBadge';
import { newId, perform } from '../state/desk';
import { exportShow } from '../state/exports';
import { useShow } from '../state/store';
import { desk, font } from '../theme/tokens';
import { stacked } from '../theme/narrow';
import { Row, SetRow, SongActs } from './book/SetRow';

const Page = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 320px;
  gap: 36px;
  padding: 26px 30px 40px;
  @media (max-width: 1150px) {
    grid-template-columns: minmax(0, 1fr) 220px;
    gap: 24px;
    padding: 20px 20px 30px;
  }
  ${stacked}
`;

const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 12px;
  margin-bottom: 16px;
  & h1 {
    font-size: 30px;
    margin-right: auto;
  }
`;

const Order = styled.ol`
  margin: 0;
  padding: 0;
  list-style: none;
  background: ${desk.sheet};
  border: 1.5px solid ${desk.ink};
  border-radius: 4px 18px 4px 18px;
`;

const Aside = styled.aside`
  display: flex;
  flex-direction: column;
  gap: 22px;
  & h2 {
    font-size: 18px;
    margin-bottom: 8px;
  }
`;

const Band = styled.ul`
  margin: 0;
  padding: 0;
  list-style: none;
  & li {
    padding: 9px 0;
    border-top: 1px solid ${desk.line};
  }
  & b {
    font: 700 16px/1.3 ${font.display};
  }
  & div {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
    margin-top: 5px;
  }
`;

const First = styled.div`
  background: ${desk.sheet};
  border: 1.5px dashed ${desk.lineStrong};
  border-radius: 4px 18px 4px 18px;
  padding: 34px;
  display: grid;
  justify-items: start;
  gap: 12px;
`;

/** The show as a whole: its set, who plays, and the way out as a file. */
export function BookScreen() {
  const show = useShow();
  const navigate = useNavigate();
  const { songs } = indexShow(show);
  const { entries } = setOf(show);
  const set = songsOfSet(show);
  const outside = show.songs.filter((s) => !set.includes(s));
  const total = set.reduce((sum, s) => sum + songLength(s), 0);
  const [said, setSaid] = useState<string | null>(null);
  return (
    <Page>
      <section>
        <Head>
          <h1>The set</h1>
          <AddSong onAdded={(id) => void navigate(`/show/${show.id}/chart/${id}`)} />
          <SongFromFile onAdded={(id) => void navigate(`/show/${show.id}/chart/${id}`)} />
        </Head>
        {set.length === 0 ? (
          <First>
            <h2>No songs yet</h2>
            <p>
              Enter a name, a tempo and a metre. Add bars, sections and changes later. Units and their presets come
              first if you have none: they are on the <Link to={`/show/${show.id}/map`}>Map</Link>.
            </p>
          </First>
        ) : (
          <Order aria-label="Running order">
            {entries.map((entry, i) => {
              const song = entry.kind === 'song' ? songs.get(entry.songId) : undefined;
              return (
                song && (
                  <SetRow
                    key={entry.id}
                    song={song}
                    place={i}
                    last={entries.length - 1}
                    number={set.indexOf(song) + 1}
                  />
                )
              );
            })}
          </Order>
        )}
        {outside.length > 0 && <OutsideSet outside={outside} />}
        {set.length > 0 && (
          <p style={{ marginTop: 12 }}>
            <Soft>
              {set.length === 1 ? '1 song' : `${set.length} songs`}, {durationWords(total)} of music
            </Soft>
          </p>
        )}
      </section>
      <ShowAside setSaid={setSaid} said={said} />
    </Page>
  );
}

/** Songs of the book that the set does not have. */
function OutsideSet({ outside }: { readonly outside: Song[] }) {
  return (
    <>
      <h2 style={{ margin: '18px 0 8px' }}>In the book, not in the set</h2>
      <Order aria-label="In the book">
        {outside.map((song) => (
          <SongOutside key={song.id} song={song} />
        ))}
      </Order>
    </>
  );
}

interface ShowAsideProps {
  readonly setSaid: (value: string | null) => void;
  readonly said: string | null;
}

/** The show as a whole: its title, who plays what, and where to go on. */
function ShowAside({ setSaid, said }: ShowAsideProps) {
  const show = useShow();
  return (
    <Aside>
      <TitleField title={show.title} />
      <div>
        <h2>Who plays what</h2>
        <Band>
          {show.players.map((player) => (
            <li key={player.id}>
              <b>{player.name}</b> <Soft>{player.part}</Soft>
              <div>
                {show.units.map(
                  (u, i) =>
                    u.playerId === player.id && <UnitBadge key={u.id} monogram={u.monogram} index={i} size={24} />,
                )}
              </div>
            </li>
          ))}
          {show.players.length === 0 && (
            <li>
              <Soft>Nobody is entered yet.</Soft>
            </li>
          )}
        </Band>
      </div>
      <div style={{ display: 'grid', gap: 8, justifyItems: 'start' }}>
        <Button onPress={() => void exportShow(show, true).then(setSaid)}>
          <Download size={16} aria-hidden /> Export show
        </Button>
        {show.audio.length > 0 && (
          <Button onPress={() => void exportShow(show, false).then(setSaid)}>Export without recordings</Button>
        )}
        {said !== null && (
          <Soft role="status" aria-label="Export">
            {said}
          </Soft>
        )}
      </div>
    </Aside>
  );
}

/** A song of the book that the set does not have. */
function SongOutside({ song }: { readonly song: Song }) {
  const show = useShow();
  return (
    <Row>
      <span />
      <span />
      <Link to={`/show/${show.id}/chart/${song.id}`}>{song.title}</Link>
      <Soft>{song.pattern ? 'pattern' : ''}</Soft>
      <Soft>
        {song.cues.length} {song.cues.length === 1 ? 'cue' : 'cues'}
      </Soft>
      <Soft>{durationWords(songLength(song))}</Soft>
      <span style={{ display: 'flex' }}>
        <SignButton
          aria-label={`Put ${song.title} in the set`}
          onPress={() => perform(addToSet(show, song.id, newId()), `put ${song.title} in the set`)}
        >
          <Plus size={17} />
        </SignButton>
        <SongActs show={show} song={song} />
      </span>
    </Row>
  );
}

function TitleField({ title }: { readonly title: string }) {
  const show = useShow();
  const commit = (text: string): string | null => {
    perform(setShowTitle(show, text), 'rename the show');
    return text.trim() === '' ? 'Enter a title' : null;
  };
  return <DraftField label="Title of the show" value={title} commit={commit} />;
}
