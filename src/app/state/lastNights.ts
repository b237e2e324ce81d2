import { create } from 'zustand';
import type { Micros, Millis } from '../../core/time';
import type { SentFor, SessionEvent } from '../../playback';
import type { PlayedChange, PlayedNight, PlayedSong } from '../persistence/nightRow';

export type { PlayedChange, PlayedNight, PlayedSong } from '../persistence/nightRow';

/** Nights on which the open show was played on this computer's own ports, the newest first. */
export const useLastNights = create<{ readonly nights: readonly PlayedNight[] }>(() => ({ nights: [] }));

export interface LastNightsNeeds {
  readonly store: Pick<typeof useLastNights, 'getState' | 'setState'>;
  /** Milliseconds from the epoch. */
  readonly now: () => Millis;
  readonly show: () => { readonly id: string; readonly titleOf: (songId: string) => string } | undefined;
  /** By how much later the messages of a change may leave; null where that is not known. */
  readonly marginOf: (songId: string, cueId: string, unitId: string) => Micros | null;
  readonly load: (showId: string) => Promise<readonly PlayedNight[]>;
  readonly keep: (night: PlayedNight) => void;
}

export interface LastNights {
  readonly follow: (showId: string) => Promise<void>;
  readonly hear: (events: readonly SessionEvent[]) => void;
  /** A message of a song left a real port, so many milliseconds late; null where it did not leave. */
  readonly left: (what: SentFor, late: Millis | null) => void;
}

/** What began before this hour of the morning belongs to the night before. */
const NIGHT_ENDS = 6;

/** The day that a night at a time began on, where the user is: 2026-12-01. */
export function nightOf(now: Millis): string {
  const at = new Date(now - NIGHT_ENDS * 3_600_000);
  const two = (n: number): string => String(n).padStart(2, '0');
  return `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}`;
}

const tenths = (millis: Millis): Millis => Math.round(millis * 10) / 10;

/** How much more a change would have borne, in milliseconds: below 0 it missed. Null where nobody knows. */
export const leftOf = ({ late, margin }: Pick<PlayedChange, 'late' | 'margin'>): Millis | null =>
  late === null ? Number.NEGATIVE_INFINITY : margin === null ? null : margin - late;

/** The changes of a night, the nearest to missing first; of like ones the later. What nobody knows of comes last. */
export const nearestFirst = (
  songs: readonly PlayedSong[],
): readonly { readonly song: PlayedSong; readonly change: PlayedChange; readonly left: Millis | null }[] =>
  songs
    .flatMap((song) => song.changes.map((change) => ({ song, change, left: leftOf(change) })))
    .sort(
      (a, b) =>
        (a.left ?? Number.POSITIVE_INFINITY) - (b.left ?? Number.POSITIVE_INFINITY) ||
        (b.change.late ?? 0) - (a.change.late ?? 0) ||
        a.change.planned - b.change.planned,
    );

/** A song that is being played. */
interface Playing {
  readonly songId: string;
  readonly begun: Millis;
  messages: number;
  readonly changes: Map<string, { -readonly [K in keyof PlayedChange]: PlayedChange[K] }>;
}

/** Notes what leaves this computer's own ports, against what was planned, and keeps it by night. */
export function createLastNights({ store, now, show, marginOf, load, keep }: LastNightsNeeds): LastNights {
  let playing: Playing | null = null;

  /** What was played of a song goes into its night. */
  const finish = (): void => {
    const over = playing;
    playing = null;
    const open = show();
    if (!over || !open || over.messages === 0) return;
    const id = nightOf(over.begun);
    const song: PlayedSong = {
      songId: over.songId,
      title: open.titleOf(over.songId),
      begun: over.begun,
      messages: over.messages,
      changes: [...over.changes.values()].map((change) => {
        const margin = marginOf(over.songId, change.cueId, change.unitId);
        const told = margin !== null && Number.isFinite(margin) ? tenths(Math.max(0, margin) / 1000) : null;
        return { ...change, late: change.late === null ? null : tenths(change.late), margin: told };
      }),
    };
    const { nights } = store.getState();
    const night = nights.find((n) => n.id === id) ?? { showId: open.id, id, songs: [] };
    const more = { ...night, songs: [...night.songs, song] };
    store.setState({ nights: [more, ...nights.filter((n) => n.id !== id)] });
    keep(more);
  };

  return {
    follow: async (showId) => {
      playing = null;
      store.setState({ nights: [] });
      const nights = await load(showId);
      if (show()?.id === showId) store.setState({ nights });
    },
    hear: (events) => {
      // Of a song that follows another the first messages may have left already: these say that the one before is over.
      if (events.some((e) => e.kind === 'stopped' && !e.follows)) finish();
    },
    left: ({ songId, cueId, unitId, planned }, late) => {
      if (playing?.songId !== songId) finish();
      const at = (playing ??= { songId, begun: now(), messages: 0, changes: new Map() });
      at.messages += 1;
      const key = `${cueId}\n${unitId}`;
      const known = at.changes.get(key);
      if (!known) {
        at.changes.set(key, { cueId, unitId, planned: planned / 1000, late, margin: null });
      } else if (late === null || (known.late !== null && late > known.late)) {
        Object.assign(known, { late, planned: planned / 1000 });
      }
    },
  };
}
