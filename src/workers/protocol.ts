import type { RigState, UnitAim } from '../core/addressing';
import type { TimedBytes } from '../core/midi';
import type { Problem } from '../core/problems';
import type { Show, Song } from '../core/show';
import type { Lantern, Verdict } from '../core/simulate';
import type { Micros, Ticks } from '../core/time';

/**
 * A show on its way to a worker: only what changed since the last time, so that what is
 * kept there about unchanged songs stays good.
 */
export interface ShowUpdate {
  /** Everything but the songs, where anything in it changed. */
  readonly frame: Omit<Show, 'songs'> | null;
  /** Songs that changed, and the ids of all in their order. */
  readonly songs: readonly Song[];
  readonly order: readonly string[];
}

/** What is known of a cue, kept under its fingerprint. */
export interface CueProof {
  readonly lantern: Lantern;
  readonly verdicts: readonly Verdict[];
}

export interface SongProof {
  readonly songId: string;
  /** By fingerprint. */
  readonly proofs: Readonly<Record<string, CueProof>>;
  /** By cue. */
  readonly fingerprints: Readonly<Record<string, string>>;
  readonly problems: readonly Problem[];
}

/** The worker that compiles and proves. */
export interface ProofWorker {
  update(update: ShowUpdate): void;
  /** Fingerprints of each song's cues, by song and cue. */
  fingerprints(songIds: readonly string[]): Readonly<Record<string, Readonly<Record<string, string>>>>;
  prove(songId: string): SongProof;
}

/** What the player tells while it plays, and whenever the rig changes. */
export interface PlayerNews {
  readonly playing: boolean;
  readonly songId: string | null;
  /** Song time. */
  readonly place: Micros;
  readonly rig: RigState;
  /** Units that load a preset just now. */
  readonly loading: readonly string[];
}

/** The worker that holds the clock, the transport and the stand-in rig. */
export interface PlayerWorker {
  update(update: ShowUpdate): void;
  listen(onNews: (news: PlayerNews) => void): void;
  play(songId: string, from: Ticks): void;
  stop(): void;
  /** Sends what tries one thing on a unit; gives the bytes that went out. */
  audition(unitId: string, aim: UnitAim): readonly TimedBytes[];
}
