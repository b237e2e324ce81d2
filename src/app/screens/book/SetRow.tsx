import { ArrowDown, ArrowUp, Copy, Trash2, X } from 'lucide-react';
import { Link } from 'react-router';
import { durationWords } from '../../../wording';
import styled from 'styled-components';
import {
  LIMITS,
  addSong,
  deleteSong,
  moveInSet,
  removeFromSet,
  startFrom,
  type Show,
  type Song,
  songLength,
} from '../../../core/show';
import { SignButton, Soft } from '../../widgets/controls';
import { LanternMark, lanternWords } from '../../widgets/LanternMark';
import { useNear } from '../../widgets/useNear';
import { newId, perform, say } from '../../state/desk';
import { useSongMark } from '../../state/marks';
import { useShow } from '../../state/store';
import { desk, font } from '../../theme/tokens';

export const Row = styled.li`
  display: grid;
  grid-template-columns: 40px 34px minmax(0, 1fr) 84px 70px 48px 166px;
  align-items: center;
  gap: 8px;
  padding: 11px 14px;
  @media (max-width: 1150px) {
    grid-template-columns: 28px 30px minmax(0, 1fr) 56px 52px 40px 158px;
    gap: 5px;
    padding: 11px 8px;
  }
  & + & {
    border-top: 1px solid ${desk.line};
  }
  & > b {
    font: 800 26px/1 ${font.display};
    color: ${desk.lineStrong};
    text-align: right;
    padding-right: 6px;
  }
  & > a {
    color: ${desk.ink};
    font: 700 20px/1.2 ${font.display};
    text-decoration: none;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  & > a:hover {
    color: ${desk.tide};
    text-decoration: underline;
  }
`;

/** Pixels of a row, whether its cells are drawn or not. */
const ROW_HEIGHT = 56;

interface Props {
  readonly song: Song;
  /** Its place in the running order, breaks and notes counted, and the last that there is. */
  readonly place: number;
  readonly last: number;
  /** Its number among the songs. */
  readonly number: number;
}

export function SetRow({ song, place, last, number }: Props) {
  const show = useShow();
  const mark = useSongMark(song);
  const { ref, near } = useNear();
  return (
    <Row ref={ref} style={{ minHeight: ROW_HEIGHT }}>
      <b>{number}</b>
      <span title={lanternWords(mark)}>{near && <LanternMark mark={mark} size={28} />}</span>
      <Link to={`/show/${show.id}/chart/${song.id}`}>{song.title}</Link>
      {near && <Cells song={song} place={place} last={last} />}
    </Row>
  );
}

/** What else a row has, and what can be done there. */
function Cells({ song, place, last }: Omit<Props, 'number'>) {
  const show = useShow();
  const metres = [...new Set(song.metre.map((m) => `${m.beats}/${m.unit}`))].slice(0, 3).join(' ');
  const move = (to: number): void => {
    perform(moveInSet(show, place, to), `move ${song.title}`);
  };
  return (
    <>
      <Soft>{metres}</Soft>
      <Soft>
        {song.cues.length} {song.cues.length === 1 ? 'cue' : 'cues'}
      </Soft>
      <Soft>{durationWords(songLength(song))}</Soft>
      <span style={{ display: 'flex' }}>
        <SignButton aria-label={`Move ${song.title} up`} isDisabled={place === 0} onPress={() => move(place - 1)}>
          <ArrowUp size={17} />
        </SignButton>
        <SignButton aria-label={`Move ${song.title} down`} isDisabled={place === last} onPress={() => move(place + 1)}>
          <ArrowDown size={17} />
        </SignButton>
        <SignButton
          aria-label={`Remove ${song.title} from the set`}
          onPress={() => perform(removeFromSet(show, song.id), `remove ${song.title} from the set`)}
        >
          <X size={17} />
        </SignButton>
        <SongActs show={show} song={song} />
      </span>
    </>
  );
}

/** What can be done with a song as a whole. Undo brings back what was deleted. */
export function SongActs({ show, song }: { readonly show: Show; readonly song: Song }) {
  const copy = (): void => {
    const made = startFrom(song, newId(), `${song.title} (copy)`.slice(0, LIMITS.title), newId);
    if (perform(addSong(show, made, newId()), `duplicate ${song.title}`))
      say(`${made.title} is at the end of the set.`);
  };
  return (
    <>
      <SignButton aria-label={`Duplicate ${song.title}`} onPress={copy}>
        <Copy size={16} />
      </SignButton>
      <SignButton
        aria-label={`Delete ${song.title}`}
        onPress={() => {
          if (perform(deleteSong(show, song.id), `delete ${song.title}`))
            say(`${song.title} is deleted. Undo brings it back.`);
        }}
      >
        <Trash2 size={16} />
      </SignButton>
    </>
  );
}
