import { indexShow, setOf, setTimes, songEntries, type Show, type SongEntry } from '../../../core/show';
import type { PlaybackNews } from '../../../playback';

/** What the playback says of the set. */
export type InSet = Pick<PlaybackNews, 'playing' | 'entryId' | 'queued' | 'following' | 'history'>;

/** What comes behind the song that is on. */
export interface Next {
  readonly title: string;
  /**
   * What brings it: somebody chose it; it begins by itself when this is over, or in so many seconds; a message starts
   * it; or somebody does.
   */
  readonly how: 'chosen' | 'follows' | 'counted' | 'launched' | 'by hand';
  readonly seconds: number | null;
}

/** Where a song stands in the set: where the playback is, if that is it; undefined where it is not in it. */
const entryHere = (show: Show, songId: string, entryId: string | null): SongEntry | undefined => {
  const entries = songEntries(show);
  return entries.find((e) => e.id === entryId && e.songId === songId) ?? entries.find((e) => e.songId === songId);
};

/** The song that comes behind one of the set; undefined behind the last, and beside the set. */
export function comesNext(show: Show, songId: string, { entryId, queued, following }: InSet): Next | undefined {
  const { songs } = indexShow(show);
  const entries = songEntries(show);
  const titleOf = (entry: SongEntry | undefined): string => songs.get(entry?.songId ?? '')?.title ?? '';
  const counted = entries.find((e) => e.id === following?.entryId);
  if (counted && following) return { title: titleOf(counted), how: 'counted', seconds: following.seconds };
  const chosen = entries.find((e) => e.id === queued);
  if (chosen) return { title: titleOf(chosen), how: 'chosen', seconds: null };
  const here = entryHere(show, songId, entryId);
  const next = here && entries[entries.indexOf(here) + 1];
  if (!here || !next) return undefined;
  const how = here.follow !== 'wait' ? 'follows' : next.launch?.does === 'start' ? 'launched' : 'by hand';
  return { title: titleOf(next), how, seconds: here.follow === 'on' && here.pause > 0 ? here.pause : null };
}

/** What comes next, as the stage says it. */
export function nextWords({ title, how, seconds }: Next): string {
  switch (how) {
    case 'counted':
      return `${title} in ${seconds} s`;
    case 'chosen':
      return `next: ${title}`;
    case 'follows':
      return seconds === null ? `goes on to ${title}` : `goes on to ${title} after ${seconds} s`;
    case 'launched':
      return `then ${title}, by its message`;
    case 'by hand':
      return `then ${title}`;
  }
}

/** The notes of the set that stand right before a song, or between it and the next while it plays no more. */
export function notesHere(show: Show, songId: string, { playing, entryId, history }: InSet): readonly string[] {
  const { entries } = setOf(show);
  const here = entryHere(show, songId, entryId);
  if (!here || playing) return [];
  const at = entries.indexOf(here);
  const texts = (list: typeof entries): string[] => list.flatMap((e) => (e.kind === 'note' ? [e.text] : []));
  // Played already: what stands behind it is what is to be done now.
  if (history.some((p) => p.entryId === here.id && !p.struck)) {
    const next = entries.findIndex((e, i) => i > at && e.kind === 'song');
    return texts(entries.slice(at + 1, next < 0 ? undefined : next));
  }
  const before = entries.findLastIndex((e, i) => i < at && e.kind === 'song');
  return texts(entries.slice(before + 1, at));
}

/** Less than this is on time, in minutes. */
const ON_TIME = 1;
/** A set that was begun at another hour altogether is a rehearsal of it, in minutes. */
const ELSEWHEN = 60;
const DAY = 24 * 60;

/**
 * How many minutes a song began later than the running order says, or earlier: below 0. Null where nobody says when
 * the set begins, where it was not begun, and near enough. `minutesOf` gives the time of day of a clock time.
 */
export function driftOf(
  show: Show,
  songId: string,
  { entryId, history }: InSet,
  minutesOf: (at: number) => number,
): number | null {
  const { onStage } = setOf(show);
  const here = entryHere(show, songId, entryId);
  const played = here && history.findLast((p) => p.entryId === here.id && !p.struck);
  const row = here && setTimes(show).rows.find((r) => r.entry.id === here.id);
  if (onStage === null || !played || !row) return null;
  const off = minutesOf(played.at) - (onStage + row.at / 60);
  const drift = Math.round(off - Math.round(off / DAY) * DAY);
  return Math.abs(drift) < ON_TIME || Math.abs(drift) > ELSEWHEN ? null : drift;
}

export const driftWords = (minutes: number): string => (minutes > 0 ? `${minutes} min late` : `${-minutes} min early`);
