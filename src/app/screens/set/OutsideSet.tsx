import { Plus } from 'lucide-react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { addToSet, songLength, type Song } from '../../../core/show';
import { durationWords } from '../../../wording';
import { SignButton, Soft } from '../../widgets/controls';
import { useNear } from '../../widgets/useNear';
import { newId, perform } from '../../state/desk';
import { useShow } from '../../state/store';
import { desk, font } from '../../theme/tokens';
import { SongActs } from './SongActs';

const Box = styled.section`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  max-height: 30dvh;
  margin-top: 12px;
  & > h2 {
    padding-bottom: 6px;
    border-bottom: 1.5px dashed ${desk.ink};
    font-size: 16px;
  }
`;

const List = styled.ul`
  margin: 0;
  padding: 0;
  overflow: auto;
  list-style: none;
`;

const Row = styled.li`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 70px 70px 56px 106px;
  align-items: center;
  gap: 8px;
  min-height: 44px;
  padding: 2px 6px;
  border-bottom: 1px solid ${desk.line};
  & > a {
    overflow: hidden;
    color: ${desk.ink};
    font: 700 17px/1.2 ${font.display};
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;

/** Songs of the show that the set does not have. */
export function OutsideSet({ songs }: { readonly songs: readonly Song[] }) {
  return (
    <Box aria-labelledby="outside">
      <h2 id="outside">Not in this set</h2>
      <List aria-label="Songs beside the set">
        {songs.map((song) => (
          <OutsideRow key={song.id} song={song} />
        ))}
      </List>
    </Box>
  );
}

function OutsideRow({ song }: { readonly song: Song }) {
  const show = useShow();
  const { ref, near } = useNear();
  return (
    <Row ref={ref}>
      <Link to={`/show/${show.id}/chart/${song.id}`}>{song.title}</Link>
      {near && (
        <>
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
            <SongActs song={song} />
          </span>
        </>
      )}
    </Row>
  );
}
