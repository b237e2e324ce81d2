import { useNavigate, useParams, useSearchParams } from 'react-router';
import styled from 'styled-components';
import { indexShow, songEntries } from '../../core/show';
import { AddSong } from '../features/AddSong';
import { useCaret } from '../state/caret';
import { Unseen } from '../widgets/shellParts';
import { useShow } from '../state/store';
import { SongChart } from './chart/SongChart';

const Nothing = styled.div`
  display: grid;
  place-content: center;
  gap: 12px;
  height: 100%;
  max-width: 460px;
  margin: 0 auto;
`;

/** A song as lines of bars, and everything that is placed on them. */
export function ChartScreen() {
  const show = useShow();
  const navigate = useNavigate();
  const { songId } = useParams();
  const [search] = useSearchParams();
  // Without a song in the address: the one that was last looked at, or the first of the set.
  const last = useCaret((s) => s.songId);
  const { songs } = indexShow(show);
  const song = songs.get(songId ?? last ?? '') ?? songs.get(songEntries(show)[0]?.songId ?? '') ?? show.songs[0];
  if (!song) {
    return (
      <Nothing>
        <h1>No songs yet</h1>
        <p>A song is a name, a tempo and a metre to begin with.</p>
        <div>
          <AddSong onAdded={(id) => void navigate(`/show/${show.id}/chart/${id}`)} />
        </div>
      </Nothing>
    );
  }
  return (
    <>
      <Unseen as="h1">{song.title}</Unseen>
      <SongChart key={`${song.id} ${search}`} song={song} search={search} />
    </>
  );
}
