import { create } from 'zustand';
import { leaderOf, sameToWires, surroundingsOf, type Leader, type Surroundings } from '../../core/meaning';
import { joinNights, type SongNights } from '../../core/nights';
import type { SongPicture } from '../../core/proof';
import { indexShow, songsOfSet, type Show, type Song } from '../../core/show';
import type { ShowTonight } from '../../core/tonight';

/** Nights that are played where nobody says how many, and their seed. */
export const NIGHTS = 1000;
export const SEED = 1;

/** So many nights are asked of a thread at once: about as many as a second takes. */
const BATCH = 40;

/** The nights of a song, and of what content. */
interface Kept {
  readonly song: Song;
  readonly under: Surroundings;
  readonly leader: Leader;
  readonly nights: SongNights;
}

export interface NightsState {
  /** Nights of songs, as far as they were played. */
  readonly kept: Readonly<Record<string, Kept>>;
  /** Nights of songs that are being played: how many are done, and of how many. Null where nothing runs. */
  readonly running: { readonly done: number; readonly of: number } | null;
  /** Why playing them broke off; null where it did not. */
  readonly trouble: string | null;
  /** The night that is looked at instead of the plan. */
  readonly opened: OpenedNight | null;
}

/** A night of a song, as it went. */
export interface OpenedNight {
  readonly songId: string;
  readonly night: number;
  readonly picture: SongPicture;
}

export const useNights = create<NightsState>(() => ({
  kept: {},
  running: null,
  trouble: null,
  opened: null,
}));

/** A thread that plays nights. */
export interface NightsThread {
  readonly show: (show: Show) => void;
  readonly nights: (songId: string, seed: number, from: number, to: number) => Promise<SongNights>;
}

/** The nights of a song as it is now; undefined where they were not all played. */
export function nightsOf(state: Pick<NightsState, 'kept'>, show: ShowTonight, song: Song): SongNights | undefined {
  const kept = state.kept[song.id];
  if (!kept || kept.nights.to < NIGHTS) return undefined;
  const now = indexShow(show).songs.get(song.id);
  if (!now || !sameToWires(now, kept.under, surroundingsOf(show))) return undefined;
  if (leaderOf(show, now) !== kept.leader) return undefined;
  // What bytes a song sends hangs on the song too: another object is another song.
  return now === kept.song ? kept.nights : undefined;
}

/** Runs of nights have a number, so that one that was stopped adds nothing any more. */
let run = 0;

export function stopNights(): void {
  run += 1;
  useNights.setState({ running: null });
}

/** Another show is open: nothing of the one before counts. */
export function forgetNights(): void {
  stopNights();
  useNights.setState({ kept: {}, trouble: null, opened: null });
}

/** Plays the nights of the songs of the set that have none, side by side on some threads. */
export async function playSetNights(show: ShowTonight, threads: readonly NightsThread[]): Promise<void> {
  const mine = ++run;
  const isStopped = (): boolean => run !== mine;
  const state = useNights.getState();
  const songs = [...new Set(songsOfSet(show))].filter((song) => !nightsOf(state, show, song));
  const under = surroundingsOf(show);
  const parts = songs.flatMap((song) =>
    Array.from({ length: Math.ceil(NIGHTS / BATCH) }, (_, i) => ({ song, from: i * BATCH })),
  );
  const played = new Map<string, SongNights[]>();
  const of = parts.length * BATCH;
  let done = 0;
  useNights.setState({ running: { done, of }, trouble: null });
  const work = async (thread: NightsThread): Promise<void> => {
    thread.show(show);
    for (let part = parts.shift(); part && !isStopped(); part = parts.shift()) {
      const { song, from } = part;
      const nights = await thread.nights(song.id, SEED, from, Math.min(NIGHTS, from + BATCH));
      if (isStopped()) return;
      const list = [...(played.get(song.id) ?? []), nights];
      played.set(song.id, list);
      done += BATCH;
      useNights.setState({ running: { done, of } });
      if (list.length < Math.ceil(NIGHTS / BATCH)) continue;
      const whole = list.toSorted((a, b) => a.from - b.from).reduce(joinNights);
      useNights.setState(({ kept }) => ({
        kept: { ...kept, [song.id]: { song, under, leader: leaderOf(show, song), nights: whole } },
      }));
    }
  };
  try {
    await Promise.all(threads.map(work));
  } catch (error) {
    if (!isStopped()) useNights.setState({ trouble: error instanceof Error ? error.message : String(error) });
  }
  if (!isStopped()) useNights.setState({ running: null });
}
