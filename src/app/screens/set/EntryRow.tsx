import { AudioLines, Check as Tick, GripVertical, ListPlus, Play, SkipForward, Square } from 'lucide-react';
import { Button as AriaButton, GridListItem } from 'react-aria-components';
import { Link } from 'react-router';
import styled from 'styled-components';
import { indexShow, songEntries, type SetTime, type Show, type Song, type SoundEntry } from '../../../core/show';
import { durationWords, clockWords } from '../../../wording';
import type { Played } from '../../../playback';
import { SignButton, Soft } from '../../widgets/controls';
import { LanternMark } from '../../widgets/LanternMark';
import { playSong, queueEntry } from '../../state/desk';
import { playInterlude, stopInterlude, useInterlude } from '../../state/interlude';
import { useNews } from '../../state/news';
import { useSongMark } from '../../state/marks';
import { useShow } from '../../state/store';
import { narrow } from '../../theme/narrow';
import { desk, font } from '../../theme/tokens';

const Item = styled(GridListItem)<{ $state: 'plays' | 'next' | 'none' }>`
  display: grid;
  grid-template-columns: 26px 34px 62px 30px minmax(0, 1fr) 150px 92px 86px;
  align-items: center;
  gap: 8px;
  min-height: 52px;
  padding: 3px 6px 3px ${(p) => (p.$state === 'none' ? 6 : 0)}px;
  border-bottom: 1px solid ${desk.line};
  border-left: ${(p) =>
    p.$state === 'plays' ? `6px solid ${desk.lamp}` : p.$state === 'next' ? `6px double ${desk.tide}` : '0'};
  background: ${(p) => (p.$state === 'plays' ? desk.lampWash : 'transparent')};
  font-size: 15px;
  cursor: pointer;
  ${narrow} {
    grid-template-columns: 26px 30px 30px minmax(0, 1fr);
    & > *:nth-child(n + 6) {
      grid-column: 4;
    }
  }
  &[data-hovered] {
    background: ${desk.tideWash};
  }
  &[data-selected] {
    background: ${desk.sheet};
    box-shadow: inset 0 0 0 1.5px ${desk.ink};
  }
  &[data-drop-target] {
    box-shadow: 0 -3px 0 ${desk.lampDeep};
  }
  & b {
    font: 700 20px/1 ${font.display};
    font-variant-numeric: tabular-nums;
  }
  & a {
    font: 700 19px/1.2 ${font.display};
    color: ${desk.ink};
  }
  & time {
    font-variant-numeric: tabular-nums;
    font-weight: 600;
  }
`;

const Grip = styled(AriaButton)`
  display: grid;
  place-items: center;
  width: 26px;
  height: 30px;
  padding: 0;
  border: 0;
  background: none;
  color: ${desk.inkSoft};
  cursor: grab;
`;

const Tag = styled.span`
  justify-self: start;
  padding: 2px 8px;
  border: 1.5px solid ${desk.ink};
  border-radius: 3px 9px 3px 9px;
  font-size: 13px;
  font-weight: 700;
`;

/** Bars that a song is counted in by. */
const Counted = styled.sup`
  margin-left: 5px;
  font-size: 12px;
  font-weight: 700;
`;

interface Props {
  readonly row: SetTime;
  readonly song: Song | undefined;
  readonly number: number;
  readonly clock: string | null;
  readonly plays: boolean;
  readonly next: boolean;
  readonly played: Played | null;
}

/** One entry of the running order. What plays and what is queued are told apart by shape, and said. */
export function EntryRow({ row, song, number, clock, plays, next, played }: Props) {
  const { entry } = row;
  const show = useShow();
  const name = nameOf(show, entry, song);
  const state = plays ? 'plays' : next ? 'next' : 'none';
  return (
    <Item id={entry.id} textValue={name} $state={state}>
      <Grip slot="drag" aria-label={`Move ${name}`}>
        <GripVertical size={17} />
      </Grip>
      {entry.kind === 'sound' ? (
        <InterludeCells entry={entry} name={name} />
      ) : entry.kind === 'song' && song ? (
        <SongCells entry={entry} song={song} number={number} clock={clock} row={row} state={state} played={played} />
      ) : (
        <>
          <span />
          <time>{entry.kind === 'break' ? clock : ''}</time>
          <span />
          <span style={{ fontStyle: 'italic', fontSize: 16 }}>{name}</span>
          <Soft>{entry.kind === 'break' ? 'break' : 'note'}</Soft>
          <Soft>{entry.kind === 'break' ? durationWords(row.length) : ''}</Soft>
          <span />
        </>
      )}
    </Item>
  );
}

/** What an entry is called. */
function nameOf(show: Show, entry: SetTime['entry'], song: Song | undefined): string {
  switch (entry.kind) {
    case 'song':
      return song?.title ?? '';
    case 'break':
      return entry.title;
    case 'note':
      return entry.text;
    case 'sound':
      return show.audio.find((a) => a.id === entry.audioId)?.name ?? 'a sound that is gone';
  }
}

function InterludeCells({ entry, name }: { readonly entry: SoundEntry; readonly name: string }) {
  const plays = useInterlude((i) => i.entryId === entry.id);
  const busy = useNews((s) => s.news.playing);
  const how = [entry.begins === 'after' ? 'by itself' : 'when pressed', entry.loops ? 'comes round' : 'once'];
  return (
    <>
      <span />
      <span />
      <AudioLines size={18} aria-label="sound between songs" />
      <span style={{ fontStyle: 'italic', fontSize: 16 }}>{name}</span>
      {plays ? <Tag>plays</Tag> : <Soft>{how.join(', ')}</Soft>}
      <span />
      <span style={{ display: 'flex', justifyContent: 'flex-end' }}>
        <SignButton
          aria-label={plays ? `Stop ${name}` : `Play ${name} now`}
          isDisabled={busy && !plays}
          onPress={() => (plays ? stopInterlude() : void playInterlude(entry))}
        >
          {plays ? <Square size={17} /> : <Play size={17} />}
        </SignButton>
      </span>
    </>
  );
}

interface SongProps extends Pick<Props, 'row' | 'number' | 'clock' | 'played'> {
  readonly entry: Extract<SetTime['entry'], { kind: 'song' }>;
  readonly song: Song;
  readonly state: 'plays' | 'next' | 'none';
}

/** When the next song begins: after so many seconds, or where there are none after its bars of count-in. */
function goesOn(pause: number, countIn: number): string {
  if (pause > 0) return `goes on in ${pause} s`;
  if (countIn === 0) return 'goes straight on';
  return `goes on after a count-in of ${countIn} ${countIn === 1 ? 'bar' : 'bars'}`;
}

function SongCells({ entry, song, number, clock, row, state, played }: SongProps) {
  const show = useShow();
  const mark = useSongMark(song);
  const order = songEntries(show);
  const next = order[order.findIndex((e) => e.id === entry.id) + 1];
  const countIn = indexShow(show).songs.get(next?.songId ?? '')?.click.countIn ?? 0;
  const follows =
    !next || entry.follow === 'wait'
      ? ''
      : entry.follow === 'on'
        ? goesOn(entry.pause, countIn)
        : 'goes straight on, without a count-in';
  return (
    <>
      <b>{number}</b>
      <time>{clock ?? ''}</time>
      <LanternMark mark={mark} size={26} />
      <span>
        <Link to={`/show/${show.id}/chart/${song.id}`}>{song.title}</Link>
        {song.stepped && <Soft> · stepped by hand</Soft>}
      </span>
      {state === 'none' ? (
        <Soft>
          {played && played.until !== null ? (
            <span>
              <Tick size={14} aria-hidden /> played {clockOf(played.at)}
            </span>
          ) : (
            follows
          )}
        </Soft>
      ) : (
        <Tag>{state === 'plays' ? 'plays' : 'comes next'}</Tag>
      )}
      <Soft>
        {durationWords(row.length)}
        {song.click.countIn > 0 && (
          <Counted title="Bars of count-in">
            +{song.click.countIn} {song.click.countIn === 1 ? 'bar' : 'bars'}
          </Counted>
        )}
      </Soft>
      <span style={{ display: 'flex', justifyContent: 'flex-end' }}>
        <SignButton
          aria-label={state === 'next' ? `Take ${song.title} back from coming next` : `Play ${song.title} next`}
          onPress={() => void queueEntry(state === 'next' ? null : entry.id)}
        >
          {state === 'next' ? <ListPlus size={17} /> : <SkipForward size={17} />}
        </SignButton>
        <SignButton aria-label={`Play ${song.title} now`} onPress={() => void playSong(song.id, 0, entry.id)}>
          <Play size={17} />
        </SignButton>
      </span>
    </>
  );
}

/** The time of day of a clock time in microseconds from the epoch. */
function clockOf(at: number): string {
  const when = new Date(at / 1000);
  return clockWords(when.getHours() * 60 + when.getMinutes());
}
