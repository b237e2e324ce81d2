import { TICKS_PER_QUARTER, barAt, type Seconds } from '../../time';
import type { Edit } from '../edits';
import { indexShow } from '../find';
import { LIMITS, RANGES } from '../limits';
import type { Show, Song } from '../schema';
import { songTime } from '../songTime';

/** Where the beats of a song are in a recording: seconds at which a beat is heard, from bar 1 on. */
export interface Laid {
  /** The first beat of bar 1. */
  readonly first: Seconds;
  /** How long one beat of the metre is, for one tempo; null where it follows a player. */
  readonly beat: Seconds | null;
  /** Where each bar begins, from bar 1 on, for a tempo that follows a player; empty for one tempo. */
  readonly bars: readonly Seconds[];
}

type TempoMark = Song['tempo'][number];

/** A tempo as a mark: so many of the beats of a bar a minute, to a thousandth. Null outside of what may be typed. */
function markAt(at: number, beats: number, seconds: Seconds, beatTicks: number): TempoMark | null {
  const bpm = Math.round((60_000 * beats) / seconds) / 1000;
  const beat = beatTicks / TICKS_PER_QUARTER;
  const [low, high] = RANGES.bpm;
  return bpm * beat >= low && bpm * beat <= high ? { at, bpm, beat, rampTo: null } : null;
}

function tempoOf(song: Song, { beat, bars }: Laid): readonly TempoMark[] | null {
  const map = songTime(song).bars;
  const first = barAt(map, 1);
  const steady = beat === null ? null : markAt(0, 1, beat, first.beatTicks);
  if (beat !== null) return steady && [steady];
  const marks = bars.slice(1).map((ends, i) => {
    const bar = barAt(map, i + 1);
    return markAt(i === 0 ? 0 : bar.tick, bar.beats, ends - bars[i]!, bar.beatTicks);
  });
  return marks.length > 0 && marks.every((m) => m !== null) ? marks : null;
}

/**
 * Lays the bars of a song onto a recording: bar 1 where its first beat is heard, the tempo as it was tapped, and, where it is
 * asked, as many bars. Without a beat and bars only the recording is moved. Null where a tempo comes out that no song has, or
 * nothing would change.
 */
export function layBars(show: Show, songId: string, trackId: string, laid: Laid, length: number | null): Edit | null {
  const song = indexShow(show).songs.get(songId);
  const track = song?.tracks.find((t) => t.id === trackId);
  if (!song || !track || !(laid.first * 1000 <= -RANGES.offsetMillis[0] && laid.first >= 0)) return null;
  const keeps = laid.beat === null && laid.bars.length === 0;
  const tempo = keeps ? song.tempo : tempoOf(song, laid);
  if (!tempo) return null;
  const offset = -Math.round(laid.first * 1e6) / 1000;
  const after: Song = {
    ...song,
    tempo: [...tempo],
    bars: length === null ? song.bars : Math.max(1, Math.min(LIMITS.bars, length)),
    tracks: song.tracks.map((t) => (t.id === trackId ? { ...t, at: song.pickup, offset } : t)),
  };
  if (JSON.stringify(after) === JSON.stringify(song)) return null;
  return { kind: 'set', path: ['songs', { id: songId }], before: song, after };
}
