import type { StoreApi } from 'zustand';
import { sameToWires, surroundingsOf, type Surroundings } from '../../core/meaning';
import type { SongProof } from '../../core/proof';
import { indexShow, type Show, type Song, songEntries } from '../../core/show';
import type { ShowTonight } from '../../core/tonight';
import { isOfNow, runOf, type Proofs } from './proofs';

/** A lantern that cannot be said to be of now goes hollow after so long, whatever the worker does. */
const DOUBT = 400;

/** What the screen looks at: a song, the songs of the set, or nothing that needs more than lanterns. */
export type Sight = { readonly kind: 'song'; readonly songId: string } | { readonly kind: 'set' } | null;

/** A thread that proves; `front` is for what is in sight, others take the rest. */
export interface ProvingThread {
  readonly show: (show: Show) => void;
  readonly fingerprints: (songId: string) => Promise<Readonly<Record<string, string>>>;
  readonly prove: (songId: string, detailed: boolean) => Promise<SongProof>;
}

export interface ProvingNeeds {
  readonly store: Pick<StoreApi<Proofs>, 'getState' | 'setState'>;
  readonly show: () => ShowTonight | undefined;
  readonly front: ProvingThread;
  /** More threads for the rest; made when there is much to prove. */
  readonly helpers: () => readonly ProvingThread[];
  /** Keeps what is proven of a song across reloads. */
  readonly keep: (showId: string, songId: string, proofs: SongProof['proofs']) => void;
  readonly later: (run: () => void, millis: number) => () => void;
}

/** So many songs are proven by one thread alone. */
const ALONE = 3;

/**
 * Proves what an edit touched, by itself: the song in sight first, the rest after it. It compares
 * what the wires see, so a name turns no lantern hollow.
 */
export class Proving {
  private sight: Sight = null;
  /** Songs whose fingerprints are of an earlier content. */
  private readonly stale = new Set<string>();
  /** Songs that were edited since they were played: what their changes bear may be other than what was proven. */
  private readonly edited = new Set<string>();
  /** Songs that a thread is at. */
  private readonly at = new Set<string>();
  private known: { readonly songs: ReadonlyMap<string, Song>; readonly under: Surroundings } | undefined;
  private readonly running = new Set<ProvingThread>();
  private callOff: (() => void) | undefined;

  constructor(private readonly needs: ProvingNeeds) {}

  /** What is on screen from now on. */
  look(sight: Sight): void {
    this.sight = sight;
    this.pump();
  }

  /** The show is another one, or was edited. */
  changed(show: ShowTonight): void {
    const under = surroundingsOf(show);
    const before = this.known;
    for (const song of show.songs) {
      const was = before?.songs.get(song.id);
      if (was === song && before && sameToWires(song, before.under, under)) continue;
      this.stale.add(song.id);
      if (was) this.edited.add(song.id);
    }
    const songs = new Map(show.songs.map((s) => [s.id, s]));
    for (const id of this.stale) if (!songs.has(id)) this.stale.delete(id);
    this.known = { songs, under };
    this.dropGone(songs);
    if (this.stale.size > 0) {
      this.callOff?.();
      this.callOff = this.needs.later(() => this.doubt(), DOUBT);
    }
    this.pump();
  }

  /** Nothing is known any more: another show is opened. */
  forget(): void {
    this.known = undefined;
    this.stale.clear();
    this.edited.clear();
  }

  private dropGone(songs: ReadonlyMap<string, Song>): void {
    const { fingerprints } = this.needs.store.getState();
    if (Object.keys(fingerprints).every((id) => songs.has(id))) return;
    const kept = Object.entries(fingerprints).filter(([id]) => songs.has(id));
    this.needs.store.setState({ fingerprints: Object.fromEntries(kept) });
  }

  /** What is still unanswered is hollow. */
  private doubt(): void {
    if (this.stale.size === 0) return;
    const { fingerprints } = this.needs.store.getState();
    const sure = Object.entries(fingerprints).filter(([id]) => !this.stale.has(id));
    this.needs.store.setState({ fingerprints: Object.fromEntries(sure) });
  }

  private wantsRun(show: ShowTonight, songId: string): boolean {
    const { sight } = this;
    if (sight?.kind === 'song') return sight.songId === songId;
    return sight?.kind === 'set' && songEntries(show).some((e) => e.songId === songId);
  }

  private isDone(show: ShowTonight, song: Song): boolean {
    if (this.stale.has(song.id) || this.edited.has(song.id)) return false;
    const { fingerprints, proofs, runs } = this.needs.store.getState();
    const prints = fingerprints[song.id];
    if (!prints) return false;
    const proven = proofs[song.id] ?? {};
    if (Object.values(prints).some((print) => proven[print] === undefined)) return false;
    if (!this.wantsRun(show, song.id)) return true;
    const run = runs[song.id];
    return run !== undefined && isOfNow(run, show, song) && (this.sight?.kind !== 'song' || run.picture.detailed);
  }

  /** Songs that are not done, in the order in which they are taken: in sight, in the set, in the show. */
  private waiting(show: ShowTonight): Song[] {
    const { songs } = indexShow(show);
    const inSight = this.sight?.kind === 'song' ? [this.sight.songId] : [];
    const order = new Set([...inSight, ...songEntries(show).map((e) => e.songId), ...show.songs.map((s) => s.id)]);
    return [...order].flatMap((id) => songs.get(id) ?? []).filter((song) => !this.isDone(show, song));
  }

  private pump(): void {
    const { store, front, helpers } = this.needs;
    const show = this.needs.show();
    if (!show) return;
    const waiting = this.waiting(show);
    if (store.getState().waiting !== waiting.length) store.setState({ waiting: waiting.length });
    const free = waiting.filter((s) => !this.at.has(s.id));
    const inSight = free.filter((s) => this.sight?.kind === 'song' && this.sight.songId === s.id);
    const others = free.filter((s) => !inSight.includes(s));
    this.employ([front], inSight, show);
    // The front thread stays free for what is in sight, where others can do the rest.
    const more = others.length > ALONE ? helpers() : [];
    this.employ(more.length > 0 ? more : [front], others, show);
  }

  private employ(threads: readonly ProvingThread[], songs: Song[], show: ShowTonight): void {
    for (const thread of threads) {
      if (this.running.has(thread)) continue;
      const next = songs.shift();
      if (!next) return;
      void this.work(thread, show, next);
    }
  }

  /** Has one thread prove one song, and goes on. */
  private async work(thread: ProvingThread, show: ShowTonight, song: Song): Promise<void> {
    const { store } = this.needs;
    this.running.add(thread);
    this.at.add(song.id);
    try {
      thread.show(show);
      // Hollow at once is what the edit touched, and only that.
      if (this.stale.has(song.id)) this.takePrints(show, song, await thread.fingerprints(song.id));
      const now = this.needs.show();
      if (now && indexShow(now).songs.get(song.id) === song && !this.isDone(now, song)) {
        thread.show(now);
        const detailed = this.sight?.kind === 'song' && this.sight.songId === song.id;
        this.takeProof(now, song, await thread.prove(song.id, detailed));
      }
      if (store.getState().trouble !== null) store.setState({ trouble: null });
    } catch (error) {
      // Not asked again until something changes: it would fail again.
      this.needs.store.setState({ trouble: (error as Error).message });
      this.running.delete(thread);
      this.at.delete(song.id);
      this.doubt();
      return;
    }
    this.running.delete(thread);
    this.at.delete(song.id);
    this.pump();
  }

  /** Whether what was found out of a song under one show still says what its wires carry. */
  private holds(show: ShowTonight, song: Song): boolean {
    const now = this.needs.show();
    if (!now || now.id !== show.id || indexShow(now).songs.get(song.id) !== song) return false;
    return sameToWires(song, surroundingsOf(show), surroundingsOf(now));
  }

  private takePrints(show: ShowTonight, song: Song, prints: Readonly<Record<string, string>>): void {
    if (!this.holds(show, song)) return;
    this.stale.delete(song.id);
    this.needs.store.setState((s) => ({ fingerprints: { ...s.fingerprints, [song.id]: prints } }));
  }

  private takeProof(show: ShowTonight, song: Song, found: SongProof): void {
    if (this.needs.show()?.id !== show.id) return;
    const holds = this.holds(show, song);
    if (holds) {
      this.stale.delete(song.id);
      this.edited.delete(song.id);
    }
    const fresh = (s: Proofs): Partial<Proofs> => ({
      // Of an edit in the meantime there is an answer on its way; what was proven stays proven.
      proofs: { ...s.proofs, [song.id]: merged(s.proofs[song.id], found) },
      ...(holds ? { fingerprints: { ...s.fingerprints, [song.id]: found.fingerprints } } : {}),
      ...(holds ? { runs: { ...s.runs, [song.id]: runOf(show, song, found) } } : {}),
    });
    this.needs.store.setState(fresh);
    if (holds) this.needs.keep(show.id, song.id, found.proofs);
  }
}

/** Proofs of a song that are kept at most, those of earlier contents among them: undo lights them at once. */
const KEPT = 4000;

function merged(before: SongProof['proofs'] | undefined, { proofs }: SongProof): SongProof['proofs'] {
  const all = { ...before, ...proofs };
  const keys = Object.keys(all);
  if (keys.length <= Math.max(KEPT, 3 * Object.keys(proofs).length)) return all;
  return proofs;
}
