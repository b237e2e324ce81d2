import { barAt, barOfTick, type Ticks } from '../time';
import { rearrangeBars, refit } from './frame';
import { asTitle, RANGES } from './limits';
import type { Audio, Song, Track } from './schema';
import { microsAt, songTime } from './songTime';

/** A bar with which a song may begin in a file or timeline of several, and what speaks for it. */
export interface SongStart {
  readonly bar: number;
  /** The section that begins there; null for none. */
  readonly name: string | null;
  /** Nothing happens for so many seconds before it. */
  readonly silence: number;
}

/** So many seconds without any change part one song from the next, where something begins behind them. */
const SILENCE = 8;

/** Bars with which songs may begin: where sections do, and behind silence. Bar 1 is none of them. */
export function songStarts(song: Song): readonly SongStart[] {
  const time = songTime(song);
  const places = [...song.cues.map((c) => c.at), ...song.sweeps.flatMap((s) => [s.from, s.to])].sort((a, b) => a - b);
  const quiet = new Map<number, number>();
  for (const [i, at] of places.entries()) {
    const before = places[i - 1];
    const seconds = before === undefined ? 0 : (microsAt(time, at) - microsAt(time, before)) / 1e6;
    const { bar } = barOfTick(time.bars, at);
    if (seconds >= SILENCE && bar > 1 && bar <= song.bars) quiet.set(bar, seconds);
  }
  const named = new Map(song.sections.filter((s) => s.bar > 1).map((s) => [s.bar, s.name]));
  const bars = [...new Set([...quiet.keys(), ...named.keys()])].sort((a, b) => a - b);
  return bars.map((bar) => ({ bar, name: named.get(bar) ?? null, silence: quiet.get(bar) ?? 0 }));
}

/**
 * Songs made of one that is cut at bars: each has what stands in its bars, in their tempo and metre, from bar 1 on. The first
 * keeps the pickup, the last what stands past the end, and each is called after the section that it begins with. A tone with
 * which one begins is its opening. Recordings
 * go on in each song as far as they reach, where `audio` knows how long they are. Bars outside of the song are passed over.
 */
export function cutSong(song: Song, at: readonly number[], newId: () => string, audio: readonly Audio[] = []): Song[] {
  const cuts = [...new Set(at)]
    .filter((bar) => Number.isInteger(bar) && bar > 1 && bar <= song.bars)
    .sort((a, b) => a - b);
  const { bars } = songTime(song);
  return [1, ...cuts].map((from, k) => {
    const to = cuts[k] ?? song.bars + 1;
    const last = to > song.bars;
    const begins = k === 0 ? 0 : barAt(bars, from).tick;
    const within = (place: Ticks): boolean => place >= begins && (last || place < barAt(bars, to).tick);
    const own: Song = {
      ...song,
      cues: song.cues.filter((c) => within(c.at)),
      sweeps: song.sweeps.filter((s) => within(s.from)),
      remarks: song.remarks.filter((r) => within(r.at)),
      sections: song.sections.filter((s) => k === 0 || s.bar > 0),
      tracks: [],
    };
    const bare = k === 0 ? own : refit(own, { pickup: 0 });
    const order = Array.from({ length: to - from }, (_, i) => from + i);
    const name = song.sections.find((s) => s.bar === from)?.name ?? `${song.title} ${k + 1}`;
    const piece = rearrangeBars(bare, order, newId);
    return {
      ...(k === 0 ? piece : opened(piece)),
      id: k === 0 ? song.id : newId(),
      title: k === 0 ? song.title : asTitle(name, song.title),
      announce: k === 0 ? song.announce : null,
      tracks: k === 0 ? song.tracks : tracksFrom(song, begins, audio, newId),
    };
  });
}

/** A song that opens with the tone that stands at its beginning; with none there, as all songs do. */
function opened(song: Song): Song {
  const first = song.cues.find((c) => c.at === 0 && !c.muted && c.action.kind === 'tone');
  if (first?.action.kind !== 'tone') return { ...song, opening: 'show', openingToneId: null };
  return { ...song, opening: 'own', openingToneId: first.action.toneId, cues: song.cues.filter((c) => c !== first) };
}

/** Recordings of a song as they go on from a place: those that are over by then are left out. */
function tracksFrom(song: Song, place: Ticks, audio: readonly Audio[], newId: () => string): Track[] {
  const time = songTime(song);
  return song.tracks.flatMap((track) => {
    const offset = track.offset + (microsAt(time, track.at) - microsAt(time, place)) / 1000;
    const length = audio.find((a) => a.id === track.audioId)?.length ?? 0;
    const heard = length * 1000 + offset > 0 && offset >= RANGES.offsetMillis[0];
    return heard ? [{ ...track, id: newId(), at: 0, offset }] : [];
  });
}
