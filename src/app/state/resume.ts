import { z } from 'zod';
import { tabStore } from '../adapters/tabStore';
import { create } from 'zustand';
import { indexShow, songTime, ticksAt } from '../../core/show';
import { useNews } from './news';
import { useApp } from './store';

/** Where a song was when the page went, kept by the tab itself: it is there again after a reload, and gone with the tab. */
const resumeSchema = z.object({
  showId: z.string(),
  songId: z.string(),
  entryId: z.string().nullable(),
  /** In ticks. */
  at: z.number().nonnegative(),
  when: z.number(),
});
export type Resume = z.infer<typeof resumeSchema>;

const KEY = 'hollow-lantern.playing';
/** After so long nobody goes on from there. */
const STALE_MILLIS = 15 * 60_000;
/** So often the place is written while a song plays. */
const EVERY_MILLIS = 500;

export const useResume = create<{ readonly resume: Resume | null }>(() => ({ resume: null }));

/** What was playing in this tab before it was loaded anew; null for nothing, for what is long ago, and for what is damaged. */
export function readResume(text: string | null, now: number): Resume | null {
  if (text === null) return null;
  try {
    const read = resumeSchema.safeParse(JSON.parse(text));
    return read.success && now - read.data.when < STALE_MILLIS && read.data.when <= now ? read.data : null;
  } catch {
    return null;
  }
}

/** When a place was written last, and of which song. */
interface Written {
  readonly songId: string | null;
  readonly when: number;
}

/** Whether the place is to be written: at once when another song plays, else every half second. Times in milliseconds. */
export const isDue = (last: Written, songId: string, now: number): boolean =>
  last.songId !== songId || now - last.when >= EVERY_MILLIS;

/** From now on the tab remembers what plays; what played before it was loaded anew is offered. */
export function followPlace(): void {
  let last: Written = { songId: null, when: 0 };
  useResume.setState({ resume: readResume(tabStore.get(KEY), Date.now()) });
  useNews.subscribe(({ news }, before) => {
    const { playing, songId, entryId, place } = news;
    const { open } = useApp.getState();
    if (!playing) {
      if (before.news.playing) tabStore.remove(KEY);
      last = { songId: null, when: 0 };
      return;
    }
    if (useResume.getState().resume !== null) useResume.setState({ resume: null });
    const now = Date.now();
    const song = open && songId !== null ? indexShow(open.show).songs.get(songId) : undefined;
    if (!open || !song || !isDue(last, song.id, now)) return;
    last = { songId: song.id, when: now };
    const at = ticksAt(songTime(song), Math.max(0, place));
    const kept: Resume = { showId: open.show.id, songId: song.id, entryId, at, when: now };
    tabStore.set(KEY, JSON.stringify(kept));
  });
}

/** Nobody wants to go on. */
export function forgetPlace(): void {
  tabStore.remove(KEY);
  useResume.setState({ resume: null });
}
