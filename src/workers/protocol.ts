import type { RigState, UnitAim } from '../core/rig';
import type { Bytes, TimedBytes } from '../core/midi';
import type { Finding } from '../core/checks';
import type { Problem } from '../core/problems';
import type { ListedName, Matching, Show, Song } from '../core/show';
import type { Lantern, Verdict } from '../core/simulate';
import type { Micros, Ticks } from '../core/time';
import type { MonitorLine } from '../playback';

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
  /** What the checks say of the song, with what the dry run saw. */
  readonly findings: readonly Finding[];
  readonly picture: SongPicture;
}

/** What a unit is on from when to when; a gap is a preset that loads, with what was on before it. */
export interface StateSpan {
  readonly from: Micros;
  readonly to: Micros;
  readonly slot: number | null;
  readonly variant: number | 'stored' | null;
  readonly gap: boolean;
}

/** What a dry run looks like along a song. */
export interface SongPicture {
  /** Of each 5-pin port, how much of each second its cable is busy, from 0 to 1. */
  readonly load: readonly { readonly portId: string; readonly seconds: readonly number[] }[];
  /** Of each unit, in order of time: what was heard of it, what the song wants of it, what was sent to it. */
  readonly units: readonly {
    readonly unitId: string;
    readonly heard: readonly StateSpan[];
    readonly wanted: readonly StateSpan[];
    readonly sent: readonly { readonly at: Micros; readonly bytes: Bytes }[];
  }[];
  /** How the worst change of each cue on each unit landed, in order of time. */
  readonly landings: readonly Verdict[];
  /** When the song ends. */
  readonly end: Micros;
}

/** The worker that compiles and proves. */
export interface ProofWorker {
  update(update: ShowUpdate): void;
  /** Fingerprints of each song's cues, by song and cue. */
  fingerprints(songIds: readonly string[]): Readonly<Record<string, Readonly<Record<string, string>>>>;
  prove(songId: string): SongProof;
  /** What can be said of a song without playing it. */
  check(songId: string): readonly Finding[];
  /** Matches a unit's slots with a new list of them; long lists take their time. */
  match(unitId: string, now: readonly ListedName[]): Matching;
}

/** A run through places or values of a unit, one every so often. */
export interface Walk {
  readonly unitId: string;
  readonly aims: readonly UnitAim[];
  readonly everyMillis: number;
}

/** A message that is sent again and again, until the unit has learnt it or somebody stops it. */
export interface Lesson {
  readonly unitId: string;
  readonly messages: readonly Bytes[];
}

/** A controller's pedal, and where it was along a song, from 0 at its low end to 1. */
export interface PedalRecording {
  readonly unitId: string;
  readonly senderId: string;
}
export interface PedalPoint {
  /** Song time. */
  readonly at: Micros;
  readonly share: number;
}

/** What the playback tells while it plays, and whenever the rig changes. */
export interface PlaybackNews {
  readonly playing: boolean;
  readonly songId: string | null;
  /** Song time. */
  readonly place: Micros;
  /** While playing: the song time that was started from, and the clock time (from the epoch) of song time 0. */
  readonly from: Micros | null;
  readonly zero: Micros | null;
  readonly rig: RigState;
  /** Units that load a preset just now. */
  readonly loading: readonly string[];
  /** Where a walk is: the aim that was sent last, counted from 0. */
  readonly walk: { readonly unitId: string; readonly at: number; readonly count: number } | null;
  /** How often a lesson was sent, and what the unit took in. */
  readonly lesson: { readonly unitId: string; readonly sent: number; readonly learnt: Bytes | null } | null;
}

/** The worker that holds the clock, the transport and the stand-in rig. */
export interface PlaybackWorker {
  update(update: ShowUpdate): void;
  listen(onNews: (news: PlaybackNews) => void): void;
  play(songId: string, from: Ticks): void;
  stop(): void;
  /** Units that a song sends nothing to from now on; the others catch up when they are heard again. */
  hush(unitIds: readonly string[]): void;
  /** Sends what tries one thing on a unit; gives the bytes that went out. */
  audition(unitId: string, aim: UnitAim): readonly TimedBytes[];
  walk(walk: Walk): void;
  stopWalk(): void;
  /** Sets the unit to learn, and sends it the message until it has. */
  teach(lesson: Lesson): void;
  stopTeaching(): void;
  /** Moves a switch, pad or pedal of a controller's stand-in. */
  touch(unitId: string, senderId: string, value: number): void;
  /** From now on keeps what a pedal sends while a song plays; null ends that. */
  record(what: PedalRecording | null): void;
  /** What was kept. */
  recorded(): readonly PedalPoint[];
  /** Every message that leaves or arrives from now on, in batches. */
  watch(onLines: (lines: readonly MonitorLine[]) => void): void;
}

/** The worker that reads recordings for their picture. */
export interface PeaksWorker {
  peaks(channels: readonly Float32Array[], rate: number, onProgress: (share: number) => void): Uint8Array;
}
