import { newCall, newTrack, songTime, songLength, microsAt, type Show, type Song } from '../show';
import { barAt } from '../time';

/** A show, and the bytes of its recordings by their ids. */
export interface WithRecordings {
  readonly show: Show;
  readonly sounds: ReadonlyMap<string, Uint8Array<ArrayBuffer>>;
}

/** The song of the demo that has recordings. */
const SONG = 'gull-arithmetic';

/** Samples a second: enough for what is low and soft, and small. */
const RATE = 4000;

/** The lowest notes of four bars that come round, in hertz. */
const ROOTS = [73.42, 87.31, 65.41, 98] as const;

/** Eighths of a bar of eleven that are struck. */
const STRUCK: readonly number[] = [0, 3, 6, 9];

/** How loud a sample is at a time: within -1 and 1. */
type Wave = (seconds: number) => number;

const sine = (hertz: number, seconds: number): number => Math.sin(2 * Math.PI * hertz * seconds);

/** Where a time lies in a song: the bar from 0, the part of it that is over, and seconds since the last struck eighth. */
interface Here {
  readonly bar: number;
  readonly since: number;
}

/** The struck eighths of a song in order, each with its bar. */
function strikes(song: Song): readonly { readonly at: number; readonly bar: number }[] {
  const time = songTime(song);
  return Array.from({ length: song.bars }, (_, bar) => barAt(time.bars, bar + 1)).flatMap(({ tick, length }, bar) =>
    STRUCK.map((eighth) => tick + eighth * 480)
      .filter((t) => t < tick + length)
      .map((t) => ({ at: microsAt(time, t) / 1e6, bar })),
  );
}

/** Soft chords that breathe with what is struck. */
const backing = ({ bar, since }: Here, t: number): number => {
  const root = ROOTS[bar % ROOTS.length]! * 2;
  const chord = sine(root, t) + 0.7 * sine(root * 1.5, t) + 0.5 * sine(root * 2, t) + 0.3 * sine(root * 3, t);
  return 0.26 * chord * (0.35 + 0.65 * Math.exp(-2.2 * since));
};

/** A plucked low string. */
const bass = ({ bar, since }: Here): number => {
  const root = ROOTS[bar % ROOTS.length]!;
  return 0.6 * (sine(root, since) + 0.4 * sine(root * 2, since)) * Math.exp(-3.5 * since);
};

/** A tick on what is struck, to play by. */
const guide = ({ since }: Here): number => 0.7 * sine(880, since) * Math.exp(-40 * since);

/** Two strokes of a small bell. */
const bell: Wave = (t) => {
  const stroke = (s: number): number => (s < 0 ? 0 : (sine(1318.5, s) + 0.5 * sine(1760, s)) * Math.exp(-5 * s));
  return 0.4 * (stroke(t) + stroke(t - 0.35));
};

/** A wave that is told where in the song each sample lies. */
function inSong(song: Song, wave: (here: Here, seconds: number) => number): Wave {
  const struck = strikes(song);
  let next = 0;
  return (t) => {
    while (next < struck.length && struck[next]!.at <= t) next += 1;
    const { at, bar } = struck[Math.max(0, next - 1)]!;
    return wave({ bar, since: t - at }, t);
  };
}

/** A WAV file of one channel with 8 bits a sample (RIFF, PCM). */
function wavOf(wave: Wave, seconds: number): Uint8Array<ArrayBuffer> {
  const length = Math.floor(seconds * RATE);
  const bytes = new Uint8Array(44 + length);
  const view = new DataView(bytes.buffer);
  const text = (at: number, letters: string): void => bytes.set(new TextEncoder().encode(letters), at);
  text(0, 'RIFF');
  view.setUint32(4, 36 + length, true);
  text(8, 'WAVEfmt ');
  view.setUint32(16, 16, true);
  view.setUint16(20, 1, true);
  view.setUint16(22, 1, true);
  view.setUint32(24, RATE, true);
  view.setUint32(28, RATE, true);
  view.setUint16(32, 1, true);
  view.setUint16(34, 8, true);
  text(36, 'data');
  view.setUint32(40, length, true);
  for (let i = 0; i < length; i++) bytes[44 + i] = Math.round(127.5 + 127 * Math.max(-1, Math.min(1, wave(i / RATE))));
  return bytes;
}

/** Seconds of the bell, and of the guide: it is there until everybody has found in. */
const [BELL, GUIDED] = [1.2, 18];

/**
 * A demo show with short recordings in one of its songs: a backing, a guide, the part of a player who may be missing, and
 * a bell that calls the song. They are made here, from sines.
 */
export function withRecordings(show: Show): WithRecordings {
  const song = show.songs.find((s) => s.id === SONG);
  if (!song) return { show, sounds: new Map() };
  const length = songLength(song);
  const made = [
    { id: 'gull-backing', name: 'Gull Arithmetic backing', bytes: wavOf(inSong(song, backing), length), length },
    { id: 'gull-bass', name: 'Gull Arithmetic bass', bytes: wavOf(inSong(song, bass), length), length },
    { id: 'gull-guide', name: 'Gull Arithmetic guide', bytes: wavOf(inSong(song, guide), GUIDED), length: GUIDED },
    { id: 'pier-bell', name: 'Pier bell', bytes: wavOf(bell, BELL), length: BELL },
  ];
  const heard: Song = {
    ...song,
    announce: newCall({ how: 'sound', audioId: 'pier-bell' }),
    tracks: [
      newTrack('gull-track-backing', 'gull-backing'),
      newTrack('gull-track-bass', 'gull-bass', { role: 'part', playerId: 'okoro' }),
      newTrack('gull-track-guide', 'gull-guide', { role: 'guide' }),
    ],
  };
  return {
    show: {
      ...show,
      audio: made.map(({ id, name, bytes, length: seconds }) => ({
        id,
        name,
        type: 'audio/wav',
        length: seconds,
        size: bytes.length,
      })),
      songs: show.songs.map((s) => (s === song ? heard : s)),
    },
    sounds: new Map(made.map(({ id, bytes }) => [id, bytes])),
  };
}
