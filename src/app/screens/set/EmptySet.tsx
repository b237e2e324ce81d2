import { Link } from 'react-router';
import styled from 'styled-components';
import { useShow } from '../../state/store';

const First = styled.div`
  display: grid;
  justify-items: start;
  gap: 10px;
  padding: 26px 0;
`;

/** What comes first: a song, or those of the show that are in no place of this set. */
export function EmptySet() {
  const show = useShow();
  return (
    <First>
      <h2>{show.songs.length === 0 ? 'No songs yet' : 'Nothing in this set yet'}</h2>
      {show.songs.length === 0 ? (
        <p>
          Add a song: a name, a tempo and a metre. Bars, sections and changes come later. Units and their presets come
          first if you have none: they are on the <Link to={`/show/${show.id}/map`}>Map</Link>.
        </p>
      ) : (
        <p>The songs of the show stand below. Put in what is played tonight.</p>
      )}
    </First>
  );
}
