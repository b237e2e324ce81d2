import type { Loop, PlayLine } from '../core/compile';
import type { Mirrored } from '../core/formats/line';
import type { Act } from '../core/meaning';
import type { Bytes, IdentityText, TimedBytes } from '../core/midi';
import type { RigState, UnitAim } from '../core/rig';
import { microsAt, songTime, songAsPlayed, ticksAt, type Show, type Song } from '../core/show';
import type { CodeRate } from '../core/clock';
import type { Micros, Ticks } from '../core/time';
import type { Played, Start } from './running';
import type { Begun } from './torn';
import { STOPPED, fromOf, placeOf, type Transport } from './transport';

/** How far ahead messages are handed over to stand-ins; whoever drives the session wakes it more often than that. */
export const LOOK_AHEAD: Micros = 25_000;

/** And where real ports are bound: these are on the page, which may be busy for a quarter of a second. */
export const REAL_AHEAD: Micros = 350_000;

/** And while the page is slow to take what is handed over, or hidden, which a busy computer lets wait. */
export const FAR_AHEAD: Micros = 900_000;

/** What is going on now. Plain data, no part of the show: `step` makes the next one. */
export interface Session {
  readonly show: Show | null;
  /** The song that plays, or played last, as it is written. */
  readonly song: Song | null;
  /** The same as it was planned, at its speed: the transport's times are its. */
  readonly planned: Song | null;
  readonly transport: Transport;
  /** A share of what is written, for what plays now: a song that is started for an audience is played as written. */
  readonly speed: number;
  /** Whether what plays was counted in; and whether songs that are started will be, where they have a count-in. */
  readonly counted: boolean;
  readonly countsIn: boolean;
  /** The tempo of a clock from outside, in quarter notes a minute, while one is heard. */
  readonly outside: number | null;
  /** Whether what comes from outside leads: time code, where the show has it come, or the clock of a song. */
  readonly isLed: boolean;
  /** The stretch of a song that is played again and again. */
  readonly loop: SongLoop | null;
  /** The entry of the set that plays, or was chosen last; null for a song beside the set. */
  readonly entryId: string | null;
  /** The entry that was chosen to come next; null where the set says. */
  readonly queued: string | null;
  /** An entry that begins by itself, and the clock time of its start. */
  readonly following: { readonly entryId: string; readonly at: Micros } | null;
  /** What was played, oldest first: of the show that is on, or else of the rehearsal. */
  readonly history: readonly Played[];
  /** The show that is on for an audience, by its id; null while it is rehearsed. Nothing of practice reaches a show. */
  readonly night: string | null;
  /** What was before the last start: to go back to by one press. */
  readonly before: Before | null;
  /** Units whose lanes are muted; where any has solo, only those are heard. */
  readonly muted: ReadonlySet<string>;
  readonly solo: ReadonlySet<string>;
  /** Ports that are gone: nothing is sent there until they come back. */
  readonly gone: ReadonlySet<string>;
  /** Where the next start begins, where that is not where the session stands: the rig is not brought there before. */
  readonly next: { readonly songId: string; readonly entryId: string | null; readonly place: Ticks } | null;
  /** The tone that the rig was brought to last beside any song, pressed or between two songs; null where its place says what is on. */
  readonly beside: string | null;
  readonly lastWake: Micros | null;
  /** How far ahead messages are handed over, and the clock time up to which they have been: what lies before can not be called back. */
  readonly ahead: Micros;
  readonly handedUntil: Micros;
  /** Messages of what plays that were handed over lately, with clock times. */
  readonly recent: readonly TimedBytes[];
  /** Changes of what plays that began to leave before their beat. */
  readonly begun: readonly Begun[];
}

/** How a song is practised: a share of what is written, and a stretch of it again and again. */
export interface PracticeWay {
  readonly speed: number;
  readonly loop: SongLoop | null;
}

/** As the audience gets a song. */
export const FOR_AUDIENCE: PracticeWay = { speed: 1, loop: null };

/** Where a session was, and what the rig was on. */
export interface Before {
  readonly song: Song | null;
  readonly entryId: string | null;
  readonly place: Micros;
  readonly rig: RigState;
}

/** Where a session was when whatever ran it ended, and what was played until then. */
export interface Remembered {
  readonly night: string | null;
  readonly history: readonly Played[];
  readonly songId: string | null;
  readonly entryId: string | null;
  /** Where the next start of that song begins. */
  readonly place: Ticks;
  readonly queued: string | null;
}

/** A stretch of a song, by the song's id. */
export interface SongLoop extends Loop {
  readonly songId: string;
}

const NONE: ReadonlySet<string> = new Set();

export const NEW_SESSION: Session = {
  show: null,
  song: null,
  planned: null,
  transport: STOPPED,
  speed: 1,
  counted: true,
  countsIn: true,
  outside: null,
  isLed: true,
  loop: null,
  entryId: null,
  queued: null,
  following: null,
  history: [],
  night: null,
  before: null,
  muted: NONE,
  solo: NONE,
  gone: NONE,
  next: null,
  beside: null,
  lastWake: null,
  ahead: LOOK_AHEAD,
  handedUntil: Number.NEGATIVE_INFINITY,
  recent: [],
  begun: [],
};

/** A clock from outside. */
export interface Outside {
  readonly at: Micros;
  readonly tick: Ticks;
  /** Quarter notes a minute. */
  readonly bpm: number;
}

export type Input =
  | { readonly kind: 'wake' }
  /** A song is started with a line that was planned for it. */
  | {
      readonly kind: 'start';
      readonly song: Song;
      readonly planned: Song;
      readonly line: PlayLine;
      readonly entryId: string | null;
      readonly how: Start;
      /** How it is played: what was practised before counts for no other song. */
      readonly way: PracticeWay;
      readonly counted: boolean;
      /** Clock time of its start; null for as soon as can be. */
      readonly at: Micros | null;
    }
  /** The rig is brought to a place of a song that does not run. */
  | { readonly kind: 'select'; readonly songId: string; readonly entryId: string | null; readonly place: Ticks }
  /** The next start begins there, whoever asks for it. Nothing is sent. */
  | { readonly kind: 'stand'; readonly songId: string; readonly entryId: string | null; readonly place: Ticks }
  | { readonly kind: 'queue'; readonly entryId: string | null }
  /** Takes the last start back. */
  | { readonly kind: 'back' }
  /** The rig goes to a tone at once, whatever plays. */
  | { readonly kind: 'tone'; readonly toneId: string }
  | { readonly kind: 'panic' }
  /** The session is where that of the computer is which leads. Nothing is sent. */
  | { readonly kind: 'mirror'; readonly mirror: Mirrored }
  /**
   * It leads from now on: what plays goes on, and `unsure` are units of which nobody knows what reached them. `recent`
   * is what left before, of what plays.
   */
  | { readonly kind: 'take-over'; readonly unsure: ReadonlySet<string>; readonly recent: readonly TimedBytes[] }
  | { readonly kind: 'ahead'; readonly ahead: Micros }
  /** Time code says at which clock time the song's start is, or was. */
  | { readonly kind: 'code'; readonly zero: Micros }
  /** Whether what comes from outside leads: time code, or the clock of a song. */
  | { readonly kind: 'be-led'; readonly on: boolean }
  /** A clock from outside is at a place of the song at a clock time, and so fast; null where there is none any more. */
  | { readonly kind: 'outside'; readonly clock: Outside | null }
  /** A named action is done at once; what is tapped is tapped in the tempo of what plays. */
  | { readonly kind: 'move'; readonly moveId: string }
  | { readonly kind: 'stop' }
  /** The show begins for its audience, or (null) is over. What was played in it is a list of its own. */
  | { readonly kind: 'night'; readonly id: string | null; readonly history: readonly Played[] }
  /** A session that was ended by a crash is there again. Nothing is sent: the next start brings the rig to its place. */
  | { readonly kind: 'remember'; readonly remembered: Remembered }
  | { readonly kind: 'speed'; readonly speed: number }
  /** Whether songs that are started from now on are counted in. */
  | { readonly kind: 'count-in'; readonly on: boolean }
  | { readonly kind: 'loop'; readonly loop: SongLoop | null }
  | { readonly kind: 'show'; readonly show: Show }
  | { readonly kind: 'lanes'; readonly muted: ReadonlySet<string>; readonly solo: ReadonlySet<string> }
  | { readonly kind: 'port'; readonly portId: string; readonly there: boolean }
  | { readonly kind: 'audition'; readonly unitId: string; readonly aim: UnitAim }
  /** The same, behind everything that is on its way to the unit. */
  | { readonly kind: 'restore'; readonly unitId: string; readonly aim: UnitAim };

/** The moment of a step: clock time, and what is known of the rig then. */
export interface Moment {
  readonly now: Micros;
  /** What it is on now. */
  readonly rig: RigState;
  /** Its state once everything in flight has taken effect. */
  readonly eventual: () => RigState;
  /** Until when messages that were handed over are on their way; with units named, and until these have loaded what they were sent. */
  readonly busy: (unitIds?: ReadonlySet<string>) => Micros;
  /** From when on each unit takes messages again that settles after what was handed over. */
  readonly acceptsAt: () => (unitId: string) => Micros;
}

export type SessionEvent =
  | { readonly kind: 'started' | 'replanned'; readonly songId: string }
  | { readonly kind: 'stopped'; readonly why: 'asked' | 'end' | 'gone'; readonly follows?: boolean }
  | { readonly kind: 'slept'; readonly time: Micros }
  /** A tone was pressed on a pad or a switch, at a place of what plays. */
  | { readonly kind: 'pressed'; readonly toneId: string; readonly songId: string | null; readonly place: Micros }
  | { readonly kind: 'sample'; readonly audioId: string; readonly gain: number }
  | Extract<Act, { readonly kind: 'level' | 'turn' | 'part' }>
  /** The sound between songs is wished on, or off again. */
  | { readonly kind: 'interlude' }
  /** More arrives on a port than can be passed on: what is too much is left out. */
  | { readonly kind: 'flooded'; readonly portId: string }
  /** A foot controller is known to hold something: it was stored, or read back. */
  | { readonly kind: 'foot-stored'; readonly unitId: string; readonly bytes: Bytes }
  /** A unit said who it is. */
  | { readonly kind: 'answered'; readonly portId: string; readonly identity: IdentityText }
  /** Time code that leads fell silent, is back, runs backwards, has another rate than the show, or floods. */
  | { readonly kind: 'code'; readonly what: 'lost' | 'back' | 'backwards' | 'rate' | 'wild'; readonly rate: CodeRate }
  /** This computer leads, where another one did; or no longer does. */
  | { readonly kind: 'pair'; readonly leads: boolean; readonly given: boolean }
  /** A clock that a song follows wobbles, fell silent, or is back. */
  | { readonly kind: 'clock'; readonly what: 'wobbles' | 'lost' | 'back'; readonly portId: string };

export interface Stepped {
  readonly session: Session;
  /** What leaves now or soon, with clock times, none of them past, in the order of time. */
  readonly sends: readonly TimedBytes[];
  readonly events: readonly SessionEvent[];
}

export type Starting = Extract<Input, { kind: 'start' }>;

export const loopOf = ({ loop }: Session, song: Song): Loop | null => (loop?.songId === song.id ? loop : null);

/** Where the session is, in the song's time as it is written. */
export function placeIn(session: Session, now: Micros): { place: Micros; from: Micros | null } {
  const { transport, speed, counted, song, planned } = session;
  const follows =
    song !== null && planned !== null && songAsPlayed(song, { speed, counted, outside: null }) !== planned;
  const written = (at: Micros): Micros =>
    follows && at > 0 ? microsAt(songTime(song), ticksAt(songTime(planned), at)) : at * speed;
  const from = transport.kind === 'playing' ? written(fromOf(transport, now)) : null;
  return { place: written(placeOf(transport, now)), from };
}
