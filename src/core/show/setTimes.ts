import type { Seconds } from '../time';
import { indexShow, setOf } from './find';
import type { SetEntry, Show, ShowSet, SongEntry } from './schema';
import { songLength } from './songTime';

/** Seconds from the end of a song until the next one: its own where that goes on by itself, else what the set reckons. */
const pauseAfter = ({ follow, pause }: SongEntry, { between }: ShowSet): Seconds =>
  follow === 'wait' ? between : follow === 'on' ? pause : 0;

/** When an entry of a set begins, from the first on, and how long it takes. */
export interface SetTime {
  readonly entry: SetEntry;
  readonly at: Seconds;
  readonly length: Seconds;
}

/**
 * A set in time: songs as long as they are written, breaks as long as they say, and between a song and
 * what comes next its own pause, or what the set reckons. Notes take no time, nor do sounds between songs.
 */
export function setTimes(
  show: Show,
  set: ShowSet = setOf(show),
): { readonly rows: readonly SetTime[]; readonly length: Seconds } {
  const { songs } = indexShow(show);
  const rows: SetTime[] = [];
  let at: Seconds = 0;
  let gap: Seconds = 0;
  for (const entry of set.entries) {
    const song = entry.kind === 'song' ? songs.get(entry.songId) : undefined;
    const length = song ? songLength(song) : entry.kind === 'break' ? entry.minutes * 60 : 0;
    // A note stands where the next thing begins; a break takes the place of what is reckoned between songs.
    const begins = entry.kind === 'break' ? at : at + gap;
    rows.push({ entry, at: begins, length });
    if (entry.kind === 'note' || entry.kind === 'sound') continue;
    at = begins + length;
    gap = entry.kind === 'break' ? 0 : pauseAfter(entry, set);
  }
  return { rows, length: at };
}
