import { audition, catchUp, type Loop, type PlayLine } from '../core/compile';
import type { TimedBytes } from '../core/midi';
import type { RigState, UnitAim } from '../core/rig';
import { SPEEDS, indexShow, microsAt, songTime, sungAs, ticksAt, type Show, type Song } from '../core/show';
import { sameToWires, surroundingsOf } from '../core/meaning';
import { TICKS_PER_QUARTER, tempoAt, type Micros, type Ticks } from '../core/time';
import { lineFromHere, startLine, within } from './plans';
import {
  entryBy,
  entryOf,
  silence,
  toMove,
  toPlace,
  toTone,
  withEnd,
  withStart,
  zeroOf,
  type Played,
  type Start,
} from './running';
import { STOPPED, end, fromOf, placeOf, playing, roundZero, take, type Transport } from './transport';

/** How far ahead messages are handed over to stand-ins; whoever drives the session wakes it more often than that. */
export const LOOK_AHEAD: Micros = 25_000;

/** And where real ports are bound: these are on the page, which may be busy for a quarter of a second. */
export const REAL_AHEAD: Micros = 350_000;

/** Who was not woken for so long was asleep, with the machine: what was due meanwhile is the past. */
export const ASLEEP: Micros = 1_000_000;

/** What is going on now. Plain data, no part of the show: `step` makes the next one. */
export interface Session {
  readonly show: Show | null;
  /** The song that plays, or played last, as it is written. */
  readonly song: Song | null;
  /** The same as it was planned, at its speed: the transport's times are its. */
  readonly planned: Song | null;
  readonly transport: Transport;
  /** A share of what is written; it holds for whatever plays until it is set again. */
  readonly speed: number;
  /** The tempo of a clock from outside, in quarter notes a minute, while one is heard. */
  readonly outside: number | null;
  /** The stretch of a song that is played again and again. */
  readonly loop: SongLoop | null;
  /** The entry of the set that plays, or was chosen last; null for a song beside the set. */
  readonly entryId: string | null;
  /** The entry that was chosen to come next; null where the set says. */
  readonly queued: string | null;
  /** An entry that begins by itself, and the clock time of its start. */
  readonly following: { readonly entryId: string; readonly at: Micros } | null;
  /** What was played, oldest first. */
  readonly history: readonly Played[];
  /** What was before the last start: to go back to by one press. */
  readonly before: Before | null;
  /** Units whose lanes are muted; where any has solo, only those are heard. */
  readonly muted: ReadonlySet<string>;
  readonly solo: ReadonlySet<string>;
  /** Ports that are gone: nothing is sent there until they come back. */
  readonly gone: ReadonlySet<string>;
  readonly woken: Micros | null;
  /** How far ahead messages are handed over, and the clock time up to which they have been: what lies before can not be called back. */
  readonly ahead: Micros;
  readonly handed: Micros;
}

/** Where a session was, and what the rig was on. */
export interface Before {
  readonly song: Song | null;
  readonly entryId: string | null;
  readonly place: Micros;
  readonly rig: RigState;
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
  outside: null,
  loop: null,
  entryId: null,
  queued: null,
  following: null,
  history: [],
  before: null,
  muted: NONE,
  solo: NONE,
  gone: NONE,
  woken: null,
  ahead: LOOK_AHEAD,
  handed: Number.NEGATIVE_INFINITY,
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
      /** Clock time of its start; null for as soon as can be. */
      readonly at: Micros | null;
    }
  /** The rig is brought to a place of a song that does not run. */
  | { readonly kind: 'select'; readonly songId: string; readonly entryId: string | null; readonly place: Ticks }
  | { readonly kind: 'queue'; readonly entryId: string | null }
  /** Takes the last start back. */
  | { readonly kind: 'back' }
  /** The rig goes to a tone at once, whatever plays. */
  | { readonly kind: 'tone'; readonly toneId: string }
  | { readonly kind: 'panic' }
  | { readonly kind: 'ahead'; readonly ahead: Micros }
  /** A clock from outside is at a place of the song at a clock time, and so fast; null where there is none any more. */
  | { readonly kind: 'outside'; readonly clock: Outside | null }
  /** A named action is done at once; what is tapped is tapped in the tempo of what plays. */
  | { readonly kind: 'move'; readonly moveId: string }
  | { readonly kind: 'stop' }
  | { readonly kind: 'speed'; readonly speed: number }
  | { readonly kind: 'loop'; readonly loop: SongLoop | null }
  | { readonly kind: 'show'; readonly show: Show }
  | { readonly kind: 'lanes'; readonly muted: ReadonlySet<string>; readonly solo: ReadonlySet<string> }
  | { readonly kind: 'port'; readonly portId: string; readonly there: boolean }
  | { readonly kind: 'audition'; readonly unitId: string; readonly aim: UnitAim };

/** The moment of a step: clock time, and what is known of the rig then. */
export interface Moment {
  readonly now: Micros;
  /** What it is on now. */
  readonly rig: RigState;
  /** What it comes to when all that was sent has had its effect. */
  readonly coming: () => RigState;
  /** Until when messages that were handed over are on their way; with units named, and until these have loaded what they were sent. */
  readonly busy: (unitIds?: ReadonlySet<string>) => Micros;
}

export type SessionEvent =
  | { readonly kind: 'started' | 'replanned'; readonly songId: string }
  | { readonly kind: 'stopped'; readonly why: 'asked' | 'end' | 'gone'; readonly follows?: boolean }
  | { readonly kind: 'slept'; readonly time: Micros }
  /** A tone was pressed on a pad or a switch, at a place of what plays. */
  | { readonly kind: 'pressed'; readonly toneId: string; readonly songId: string | null; readonly place: Micros }
  | { readonly kind: 'sample'; readonly audioId: string; readonly gain: number }
  /** More arrives on a port than can be passed on: what is too much is left out. */
  | { readonly kind: 'flooded'; readonly portId: string }
  /** A clock that a song follows wobbles, fell silent, or is back. */
  | { readonly kind: 'clock'; readonly what: 'wobbles' | 'lost' | 'back'; readonly portId: string };

export interface Stepped {
  readonly session: Session;
  /** What leaves now or soon, with clock times, none of them past, in the order of time. */
  readonly sends: readonly TimedBytes[];
  readonly events: readonly SessionEvent[];
}

/** Plans a song from a place on. This is what takes time: the clock is read when it is done. */
export function planStart(
  session: Session,
  songId: string,
  from: number,
  coming: RigState,
  { entryId = null, how = 'asked', at = null }: Partial<Pick<Starting, 'entryId' | 'how' | 'at'>> = {},
): Starting | null {
  const { show } = session;
  const song = show && indexShow(show).songs.get(songId);
  if (!song) return null;
  const planned = sungAs(song, session);
  const line = within(show, planned, startLine(show, planned, from, coming), loopOf(session, song));
  return { kind: 'start', song, planned, line, entryId, how, at };
}

type Starting = Extract<Input, { kind: 'start' }>;

const loopOf = ({ loop }: Session, song: Song): Loop | null => (loop?.songId === song.id ? loop : null);

/** Where the session is, in the song's time as it is written. */
export function placeIn(session: Session, now: Micros): { place: Micros; from: Micros | null } {
  const { transport, speed, song, planned } = session;
  const follows = song !== null && planned !== null && sungAs(song, { speed, outside: null }) !== planned;
  const written = (at: Micros): Micros =>
    follows && at > 0 ? microsAt(songTime(song), ticksAt(songTime(planned), at)) : at * speed;
  const from = transport.kind === 'playing' ? written(fromOf(transport, now)) : null;
  return { place: written(placeOf(transport, now)), from };
}

/** What comes of an input at a moment. Nothing here reads a clock or knows who hangs on the ports. */
export function step(session: Session, input: Input, moment: Moment): Stepped {
  switch (input.kind) {
    case 'wake':
      return wake(session, moment);
    case 'start':
      return start(session, input, moment);
    case 'outside':
      return followOutside(session, input.clock, moment);
    case 'move': {
      const { show, planned, transport } = session;
      if (!show) return still(session);
      const bpm = planned ? quartersAt(planned, placeOf(transport, moment.now)) : null;
      return { session, sends: behind(session, toMove(show, input.moveId, moment.coming(), bpm), moment), events: [] };
    }
    case 'ahead':
      return still({ ...session, ahead: input.ahead });
    case 'stop': {
      const sends = breakOff(session, moment.now);
      const stopped = session.transport.kind === 'playing';
      const transport = end(session.transport, moment.now);
      const history = withEnd(session.history, moment.now);
      const next = { ...session, transport, history, following: null };
      return { session: next, sends, events: stopped ? [{ kind: 'stopped', why: 'asked' }] : [] };
    }
    case 'select':
      return select(session, input, moment);
    case 'queue':
      return still({ ...session, queued: input.entryId });
    case 'back':
      return goBack(session, moment);
    case 'tone': {
      const { show } = session;
      if (!show || !indexShow(show).tones.has(input.toneId)) return still(session);
      return { session, sends: behind(session, toTone(show, input.toneId, moment.coming()), moment), events: [] };
    }
    case 'panic':
      return session.show
        ? { session, sends: heard(session, silence(session.show), moment.now), events: [] }
        : still(session);
    case 'speed': {
      const speed = Math.max(SPEEDS.low, Math.min(SPEEDS.high, input.speed));
      const { transport } = session;
      if (transport.kind === 'playing') return goOn(session, { ...session, speed }, moment);
      // Where it stands stays the same bar and beat.
      return still({
        ...session,
        speed,
        planned: session.song && sungAs(session.song, { ...session, speed }),
        transport: { ...transport, place: (transport.place * session.speed) / speed },
      });
    }
    case 'loop':
      return goOn(session, { ...session, loop: input.loop }, moment);
    case 'show':
      return takeShow(session, input.show, moment);
    case 'lanes':
      return heardAgain(session, { ...session, muted: input.muted, solo: input.solo }, moment);
    case 'port': {
      const gone = new Set([...session.gone].filter((id) => id !== input.portId));
      if (!input.there) gone.add(input.portId);
      return heardAgain(session, { ...session, gone }, moment);
    }
    case 'audition': {
      if (!session.show) return still(session);
      const { events } = audition(session.show, input.unitId, input.aim, moment.rig);
      const sends = events.filter((e) => !session.gone.has(e.portId)).map((e) => ({ ...e, at: e.at + moment.now }));
      return { session, sends, events: [] };
    }
  }
}

/** Units that are sent nothing, for whatever reason. */
export function hushedUnits({
  show,
  muted,
  solo,
  gone,
}: Pick<Session, 'show' | 'muted' | 'solo' | 'gone'>): ReadonlySet<string> {
  const hushed = new Set<string>();
  for (const { id, input } of show?.units ?? []) {
    const lost = input?.from === 'port' && gone.has(input.portId);
    if (lost || muted.has(id) || (solo.size > 0 && !solo.has(id))) hushed.add(id);
  }
  return hushed;
}

function start(session: Session, input: Starting, moment: Moment): Stepped {
  const { song, planned, line, entryId, how, at } = input;
  const { now } = moment;
  // A song that plays and is sent elsewhere in itself goes on: nothing new is played, and its start is still what is taken back.
  const goesOn = session.transport.kind === 'playing' && session.song?.id === song.id;
  const left: Before = {
    song: session.song,
    entryId: session.entryId,
    place: placeOf(session.transport, now),
    rig: moment.coming(),
  };
  const sends = breakOff(session, now);
  // Not among what is on its way already, nor ahead of what ends it.
  const free = Math.max(moment.busy(), ...sends.map((s) => s.at));
  const transport = playing(line, zeroOf(line, free, at));
  const played = { entryId, songId: song.id, title: song.title, at: now, until: null, how };
  const next: Session = {
    ...session,
    transport,
    song,
    planned,
    entryId,
    queued: goesOn ? session.queued : null,
    following: null,
    before: goesOn ? session.before : left,
    history: goesOn ? session.history : withStart(withEnd(session.history, now), played),
    woken: now,
    handed: now,
  };
  return after(sends, wake(next, moment), [{ kind: 'started', songId: song.id }]);
}

/** Sends that were reckoned from what the rig comes to: not ahead of what is on its way to the same units. */
function behind(session: Session, events: readonly TimedBytes[], moment: Moment): readonly TimedBytes[] {
  return heard(session, events, moment.busy(new Set(events.map((e) => e.unitId))));
}

/** Sends that begin at a time, for units and ports that are sent anything. */
function heard(session: Session, events: readonly TimedBytes[], now: Micros): readonly TimedBytes[] {
  return audible(
    session,
    events.map((e) => ({ ...e, at: e.at + now })),
    now,
  );
}

function select(session: Session, input: Extract<Input, { kind: 'select' }>, moment: Moment): Stepped {
  const { show } = session;
  const song = show && indexShow(show).songs.get(input.songId);
  if (!show || !song) return still(session);
  const { now } = moment;
  const planned = sungAs(song, session);
  const place = microsAt(songTime(planned), input.place);
  const stops = breakOff(session, now);
  const stopped = session.transport.kind === 'playing';
  const next: Session = {
    ...session,
    song,
    planned,
    entryId: input.entryId,
    following: null,
    history: withEnd(session.history, now),
    transport: { kind: 'stopped', place },
  };
  const sends = [...stops, ...behind(next, toPlace(show, planned, input.place, moment.coming()), moment)];
  return { session: next, sends, events: stopped ? [{ kind: 'stopped', why: 'asked' }] : [] };
}

/** A start that was wrong is taken back: what plays stops, and the rig goes to what it was on before. */
function goBack(session: Session, moment: Moment): Stepped {
  const { before, show } = session;
  if (!before || !show) return still(session);
  const { now } = moment;
  const stopped = session.transport.kind === 'playing';
  const stops = breakOff(session, now);
  const { events } = catchUp(show, moment.coming(), before.rig);
  const next: Session = {
    ...session,
    song: before.song,
    planned: before.song && sungAs(before.song, session),
    entryId: before.entryId,
    queued: null,
    following: null,
    before: null,
    history: withEnd(session.history, now),
    transport: { kind: 'stopped', place: before.place },
  };
  return {
    session: next,
    sends: [...stops, ...behind(next, events, moment)],
    events: stopped ? [{ kind: 'stopped', why: 'asked' }] : [],
  };
}

/** A song came to its end: what the set says of that, the tone in between, and what follows by itself. */
function over(session: Session, moment: Moment): Stepped {
  const { now } = moment;
  const ended: Session = { ...session, history: withEnd(session.history, now) };
  const { show, entryId, queued } = ended;
  const entry = show && entryOf(show, entryId);
  if (!show || !entry) return { session: ended, sends: [], events: [{ kind: 'stopped', why: 'end' }] };
  const { bridgeToneId, follow, pause } = entry;
  const bridge = bridgeToneId === null ? [] : behind(ended, toTone(show, bridgeToneId, moment.coming()), moment);
  const next = (queued === null ? undefined : entryOf(show, queued)) ?? entryBy(show, entryId, 1);
  const follows = follow === 'on' && next !== undefined;
  const following = follows ? { entryId: next.id, at: now + pause * 1e6 } : null;
  return { session: { ...ended, following }, sends: bridge, events: [{ kind: 'stopped', why: 'end', follows }] };
}

const still = (session: Session): Stepped => ({ session, sends: [], events: [] });

const after = (sends: readonly TimedBytes[], then: Stepped, events: readonly SessionEvent[]): Stepped => ({
  session: then.session,
  sends: [...sends, ...then.sends],
  events: [...events, ...then.events],
});

/**
 * What has to leave when playing is broken off: now, and again behind what was handed over, as a "start"
 * may be among that.
 */
function breakOff({ transport, gone, handed }: Session, now: Micros): TimedBytes[] {
  if (transport.kind !== 'playing') return [];
  const stops = transport.line.atStop.filter(({ portId }) => !gone.has(portId));
  const times = handed > now + LOOK_AHEAD ? [now, handed] : [now];
  return times.flatMap((at) => stops.map((s) => ({ ...s, at, cueId: '', unitId: '' })));
}

function wake(session: Session, moment: Moment): Stepped {
  const { now } = moment;
  const { transport, woken } = session;
  if (transport.kind === 'playing' && woken !== null && now - woken > ASLEEP) return wakeFromSleep(session, moment);
  const handed = Math.max(now + session.ahead, session.handed);
  const taken = take(transport, now, now + session.ahead);
  const stopped = transport.kind === 'playing' && taken.transport.kind === 'stopped';
  const next: Session = { ...session, transport: taken.transport, woken: now, handed };
  const sends = audible(session, taken.due, now);
  return stopped ? after(sends, over(next, moment), []) : { session: next, sends, events: [] };
}

/** What is handed over late leaves now; what is for units or ports that are sent nothing does not leave. */
function audible(session: Session, due: readonly TimedBytes[], now: Micros): readonly TimedBytes[] {
  if (due.length === 0) return due;
  const hushed = hushedUnits(session);
  return due
    .filter((e) => !hushed.has(e.unitId) && !session.gone.has(e.portId))
    .map((e) => (e.at < now ? { ...e, at: now } : e));
}

/** After a sleep nothing bursts out: what is past is not sent, the rig is caught up; a song that is over is over. */
function wakeFromSleep(session: Session, moment: Moment): Stepped {
  const { now } = moment;
  const { transport, song, show, woken } = session;
  if (transport.kind !== 'playing' || !song || !show || woken === null) return still(session);
  const slept: SessionEvent = { kind: 'slept', time: now - woken };
  if (now - transport.zero >= transport.line.end) {
    const sends = breakOff(session, now);
    const stopped: Transport = { kind: 'stopped', place: transport.line.end };
    return {
      session: { ...session, transport: stopped, woken: now, history: withEnd(session.history, now) },
      sends,
      events: [slept, { kind: 'stopped', why: 'end' }],
    };
  }
  const planned = plannedAnew({ ...session, woken: now }, show, song, now, moment);
  return after([], wake(planned, moment), [slept]);
}

/** The show was edited: the song that plays is planned anew from now, or stops where it is gone. */
function takeShow(session: Session, show: Show, moment: Moment): Stepped {
  const { transport, song } = session;
  const before = session.show;
  const next: Session = { ...session, show };
  if (transport.kind !== 'playing' || !song || !before) return still(next);
  const now = indexShow(show).songs.get(song.id);
  if (!now) {
    const sends = breakOff(session, moment.now);
    const history = withEnd(session.history, moment.now);
    return {
      session: { ...next, transport: STOPPED, song: null, planned: null, history, following: null },
      sends,
      events: [{ kind: 'stopped', why: 'gone' }],
    };
  }
  if (now === song && sameToWires(song, surroundingsOf(before), surroundingsOf(show))) return still(next);
  return goOn(session, next, moment, now);
}

/** What plays goes on as the next session wants it: planned anew from now. */
function goOn(before: Session, next: Session, moment: Moment, song: Song | null = next.song): Stepped {
  const { transport, show } = next;
  if (transport.kind !== 'playing' || !song || !show) return still(next);
  const handed = Math.max(before.handed, moment.now);
  const planned = plannedAnew(next, show, song, handed, moment);
  return after([], wake(planned, moment), [{ kind: 'replanned', songId: song.id }]);
}

/** Units that are sent messages again are brought to where the song is now. */
function heardAgain(before: Session, next: Session, moment: Moment): Stepped {
  const { transport, song, show } = next;
  if (transport.kind !== 'playing' || !song || !show) return still(next);
  const hushed = hushedUnits(next);
  if (![...hushedUnits(before)].some((id) => !hushed.has(id))) return still(next);
  return goOn(before, next, moment);
}

/** From so far apart on, the tempo of what was planned is another than that which is heard. */
const OTHER_TEMPO = 0.003;
/** Where the clock is elsewhere by less, nothing is done; by more than the second, the rest is planned anew. */
const NEAR: Micros = 300;
const FAR: Micros = 20_000;

/**
 * What plays along a clock from outside keeps with it: a little sooner or later where it has drifted,
 * planned anew where the tempo is another, so that what has to leave early leaves as early as it must.
 */
function followOutside(session: Session, clock: Outside | null, moment: Moment): Stepped {
  const { transport, song, show, planned } = session;
  const next: Session = { ...session, outside: clock?.bpm ?? null };
  if (!clock || transport.kind !== 'playing' || !song || !show || !planned || song.followsPortId === null) {
    // What plays on without its clock keeps the tempo that it had.
    return still(clock === null && transport.kind === 'playing' ? session : next);
  }
  // Until it has reached the place that it starts from, the rig is being brought there.
  if (moment.now < transport.zero + transport.line.place) return still(session);
  const micros = 60e6 / (clock.bpm * TICKS_PER_QUARTER);
  const off = (clock.tick - ticksAt(songTime(planned), clock.at - transport.zero)) * micros;
  const [mark] = planned.tempo;
  const own = planned.tempo.length === 1 && mark!.rampTo === null ? mark!.bpm * mark!.beat : 0;
  if (Math.abs(off) > FAR || Math.abs(own / clock.bpm - 1) > OTHER_TEMPO) {
    const anew = plannedAnew(next, show, song, Math.max(session.handed, moment.now), moment, off);
    return after([], wake(anew, moment), []);
  }
  if (Math.abs(off) < NEAR) return still(session);
  return still({ ...session, transport: { ...transport, zero: transport.zero - off } });
}

const quartersAt = (song: Song, place: Micros): number => {
  const time = songTime(song);
  return tempoAt(time.tempo, Math.max(0, ticksAt(time, place)));
};

/** The session with the song that plays planned anew; its place stays the same bar and beat, also where tempos changed. */
function plannedAnew(
  session: Session,
  show: Show,
  song: Song,
  handed: Micros,
  { now, coming }: Moment,
  /** So much further on than it was thought to be. */
  slip: Micros = 0,
): Session {
  const { transport, planned: was } = session;
  if (transport.kind !== 'playing' || !was) return session;
  const { line } = transport;
  const sung = sungAs(song, session);
  const loop = loopOf(session, song);
  const [oldTime, newTime] = [songTime(was), songTime(sung)];
  const begun = roundZero(transport, now);
  const passed = now - begun;
  const moved = (at: Micros): Micros => (at <= 0 ? at : microsAt(newTime, ticksAt(oldTime, at)));
  // Only where the place lies elsewhere in time: sums of microseconds are not the same there and back.
  const shift = was.tempo === sung.tempo ? 0 : moved(passed) - passed;
  const zero = begun - shift - slip;
  const place = fromOf(transport, now);
  if (passed < place && place > 0) {
    // Still on the way to the place it starts from: that way is made anew.
    const anew = within(show, sung, startLine(show, sung, ticksAt(oldTime, place), coming()), loop);
    const waits = playing(anew, Math.max(zero, now - anew.start));
    return { ...session, song, planned: sung, transport: waits };
  }
  const fromHere = lineFromHere(show, sung, {
    place: now - zero,
    // What a loop had handed over for its next round is no part of this one.
    handed: Math.min(handed - zero, line.round ? moved(line.round.to) : Number.POSITIVE_INFINITY),
    line: { ...line, place: moved(place) },
    coming: coming(),
    hushed: hushedUnits(session),
    clocked: new Set(line.atStop.map((s) => s.portId)),
  });
  const bounded = within(show, sung, fromHere, loop, now - zero);
  return { ...session, song, planned: sung, transport: playing(bounded, zero, handed - zero) };
}
