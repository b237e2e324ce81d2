import { create, type StoreApi } from 'zustand';
import { indexShow, microsAt, songTime, ticksAt, withoutEnd, type Show, type Song } from '../../core/show';
import { barOfTick, type Millis, type Ticks } from '../../core/time';
import type { PlaybackNews, Remembered } from '../../playback';
import type { PlaceRow, PlayedRow } from '../persistence/journalRow';
import { nightOf } from './lastNights';

export type { PlaceRow, PlayedRow } from '../persistence/journalRow';

export interface JournalState {
  /** Where a show was when whatever played it ended, until somebody goes on or does not want to; null for nothing. */
  readonly interrupted: PlaceRow | null;
  /** What was played of the open show, the newest list first. */
  readonly lists: readonly PlayedRow[];
  /** The storage takes nothing: after a crash nobody would know where the show was. */
  readonly fails: boolean;
}

export const useJournal = create<JournalState>(() => ({ interrupted: null, lists: [], fails: false }));

/** What was interrupted longer ago belongs to another night. */
const A_NIGHT: Millis = 12 * 3_600_000;
/** So often the place is written while a song plays. */
const EVERY: Millis = 250;

/** The id of the list of a day's rehearsals. */
export const rehearsalOf = (now: Millis): string => `rehearsal-${nightOf(now)}`;

/** A place as it is: of a show that stopped behind what was written down last, nothing plays. */
export const asStopped = (place: PlaceRow, stopped: Millis | null): PlaceRow =>
  place.playing && stopped !== null && stopped >= place.when ? { ...place, playing: false } : place;

/** What there is to go on with, of all places that are written down, the newest first: a song that played, or a show that is on. */
export const interruptedOf = (places: readonly PlaceRow[], now: Millis): PlaceRow | null =>
  places.find((p) => (p.playing || p.night !== null) && p.when <= now && now - p.when < A_NIGHT) ?? null;

/** A bar of a song: its start, and its number counted from 1. */
export interface BarThere {
  readonly tick: Ticks;
  readonly bar: number;
}

/** The bar that a place lies in. A song without an end may have been anywhere behind its last bar. */
function barThere(song: Song, at: Ticks): BarThere {
  const { bars, end } = songTime(withoutEnd(song));
  const { tick, bar } = barOfTick(bars, Math.min(at, end - 1));
  return { tick: Math.max(0, tick), bar };
}

/** The bar in which a song was interrupted, and the one that it would have come to by now; null where it would be over. */
export function barsToGoOn(song: Song, { at, when }: PlaceRow, now: Millis): { was: BarThere; by: BarThere | null } {
  const time = songTime(withoutEnd(song));
  const by = ticksAt(time, microsAt(time, at) + (now - when) * 1000);
  return { was: barThere(song, at), by: by < songTime(song).end || song.open ? barThere(song, by) : null };
}

export interface JournalNeeds {
  readonly store: Pick<StoreApi<JournalState>, 'getState' | 'setState'>;
  readonly now: () => Millis;
  readonly show: () => Show | undefined;
  readonly lanes: () => { readonly muted: ReadonlySet<string>; readonly solo: ReadonlySet<string> };
  readonly keepPlace: (row: PlaceRow) => Promise<unknown>;
  readonly keepPlayed: (row: PlayedRow) => Promise<PlayedRow>;
  /** Notes at once that a show stopped: whoever leaves right behind that is not asked to go on. */
  readonly noteStop: (showId: string, at: Millis) => void;
}

export interface Journaling {
  /** The playback tells something: what somebody would need after a crash is written down. */
  readonly hear: (news: PlaybackNews, before: PlaybackNews) => void;
  /** Nobody goes on with what was interrupted: the next page does not ask again. */
  readonly letBe: () => void;
  /** A show is left for another: nobody goes on with it. */
  readonly left: (showId: string) => void;
  /** What the session of an opened show remembers, from its lists and the place that it was interrupted at. */
  readonly rememberedOf: (show: Show, interrupted: PlaceRow | null) => Remembered;
}

/** Writes down where the show is, as it happens: one write after the other, the newest of what waits. */
export function createJournal({ store, now, show, lanes, keepPlace, keepPlayed, noteStop }: JournalNeeds): Journaling {
  let written: Millis = 0;
  let isUnderWay = false;
  let next: PlaceRow | null = null;
  const fails = (is: boolean): void => {
    if (store.getState().fails !== is) store.setState({ fails: is });
  };
  const write = async (row: PlaceRow): Promise<void> => {
    next = row;
    if (isUnderWay) return;
    isUnderWay = true;
    while (next) {
      const one: PlaceRow = next;
      next = null;
      try {
        await keepPlace(one);
        fails(false);
      } catch {
        fails(true);
      }
    }
    isUnderWay = false;
  };
  const writePlayed = async (row: PlayedRow): Promise<void> => {
    const put = (kept: PlayedRow): void => {
      const { lists } = store.getState();
      const others = lists.filter((l) => l.id !== kept.id);
      if (show()?.id !== kept.showId) return;
      store.setState({ lists: [kept, ...others].toSorted((a, b) => b.begun - a.begun) });
    };
    try {
      put(await keepPlayed(row));
    } catch {
      put(row);
      fails(true);
    }
  };
  const placeOf = (open: Show, news: PlaybackNews): PlaceRow => {
    const song = news.songId === null ? undefined : indexShow(open).songs.get(news.songId);
    const { muted, solo } = lanes();
    return {
      showId: open.id,
      night: news.night,
      songId: song?.id ?? null,
      songTitle: song?.title ?? '',
      entryId: news.entryId,
      at: song ? ticksAt(songTime(song), Math.max(0, news.place)) : 0,
      playing: news.playing,
      queued: news.queued,
      muted: [...muted],
      solo: [...solo],
      when: now(),
    };
  };
  return {
    hear: (news, before) => {
      const open = show();
      if (!open) return;
      if (news.history !== before.history && news.history.length > 0) {
        const id = news.night ?? rehearsalOf(now());
        const kind = news.night === null ? 'rehearsal' : 'show';
        void writePlayed({ showId: open.id, id, kind, name: '', begun: now(), history: news.history });
      }
      // A tab that neither plays nor has a show on leaves alone what another one writes.
      const isMine = news.playing || before.playing || news.night !== null || before.night !== null;
      if (!isMine) return;
      if (news.playing && store.getState().interrupted) store.setState({ interrupted: null });
      const same = (['playing', 'songId', 'entryId', 'queued', 'night'] as const).every((k) => news[k] === before[k]);
      const moves = news.place !== before.place;
      if (same && (!moves || now() - written < EVERY)) return;
      written = now();
      if (before.playing && !news.playing) noteStop(open.id, written);
      void write(placeOf(open, news));
    },
    letBe: () => {
      const { interrupted } = store.getState();
      store.setState({ interrupted: null });
      if (interrupted) void write({ ...interrupted, playing: false, when: now() });
    },
    left: (showId) => {
      const nowhere = { songId: null, songTitle: '', entryId: null, at: 0, playing: false, queued: null };
      void write({ showId, night: null, ...nowhere, muted: [], solo: [], when: now() });
    },
    rememberedOf: (open, interrupted) => {
      const { lists } = store.getState();
      const there = interrupted?.showId === open.id ? interrupted : null;
      const night = there?.night ?? null;
      const history = lists.find((l) => l.id === (night ?? rehearsalOf(now())))?.history ?? [];
      const song = indexShow(open).songs.get(there?.songId ?? '');
      if (!there || !song) return { night, history, songId: null, entryId: null, place: 0, queued: null };
      // What was interrupted is over; it goes on as a start of its own.
      const over = history.map((p) => (p.until === null ? { ...p, until: there.when * 1000 } : p));
      const { tick } = barThere(song, there.playing || song.stepped ? there.at : 0);
      const { entryId, queued } = there;
      return { night, history: over, songId: song.id, entryId, queued, place: tick };
    },
  };
}
