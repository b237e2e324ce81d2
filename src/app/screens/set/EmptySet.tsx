import { Plus } from 'lucide-react';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { addToSet } from '../../../core/show';
import { AddSong } from '../../features/AddSong';
import { Button } from '../../widgets/controls';
import { newId, perform } from '../../state/desk';
import { useShow } from '../../state/store';

const First = styled.div`
  display: grid;
  justify-items: start;
  gap: 10px;
  padding: 26px 0;
`;

/** So many songs of the book are offered to an empty set. */
const OFFERED = 24;

/** What comes first: a song, or those of the book that are in no set. */
export function EmptySet() {
  const show = useShow();
  const navigate = useNavigate();
  return (
    <First>
      <h2>Nothing in this set yet</h2>
      {show.songs.length === 0 ? (
        <>
          <p>A set is songs in the order in which they are played, with breaks and notes between them.</p>
          <AddSong onAdded={(id) => void navigate(`/show/${show.id}/chart/${id}`)} />
        </>
      ) : (
        <>
          <p>Songs of the book are not lost when they are in no set.</p>
          {show.songs.slice(0, OFFERED).map((song) => (
            <Button
              key={song.id}
              onPress={() => perform(addToSet(show, song.id, newId()), `put ${song.title} in the set`)}
            >
              <Plus size={15} aria-hidden /> {song.title}
            </Button>
          ))}
        </>
      )}
    </First>
  );
}
