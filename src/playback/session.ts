import { audition, catchUp, stateAt } from '../core/compile';
import type { TimedBytes } from '../core/midi';
import type { RigState } from '../core/rig';
import { SPEEDS, indexShow, microsAt, songTime, songAsPlayed, ticksAt, type Show, type Song } from '../core/show';
import { sameToWires, surroundingsOf } from '../core/meaning';
import { TICKS_PER_QUARTER, tempoAt, type Micros } from '../core/time';
import { RECENT, startLine, withTold, within } from './plans';
import { entryBy, entryOf, silence, toMove, toPlace, toTone, withEnd, withStart, withStruck, zeroOf } from './running';
import { mirrored } from './pair/mirror';
import { beginning, wholeAgain } from './torn';
import { STOPPED, end, placeOf, playing, take, type Transport } from './transport';
import {
  FOR_AUDIENCE,
  LOOK_AHEAD,
  type Session,
  type Before,
  type Remembered,
  type Outside,
  type Input,
  type Moment,
  type SessionEvent,
  type Stepped,
  type Starting,
  loopOf,
} from './sessionState';
import { hushedUnits, plannedAnew } from './planAnew';

/** Who was not woken for so long was asleep, with the machine: what was due meanwhile is the past. */
export const ASLEEP: Micros = 1_000_000;

/**
 * Plans a song from a place on. This is what takes time: the clock is read when it is done. `way` says how it is played;
 * without it, as what plays now.
 */
export function planStart(
  session: Session,
  songId: string,
  from: number,
  eventual: RigState,
  { entryId = null, how = 'asked', at = null, way }: Partial<Pick<Starting, 'entryId' | 'how' | 'at' | 'way'>> = {},
): Starting | null {
  const { show } = session;
  const song = show && indexShow(show).songs.get(songId);
  if (!song) return null;
  const { speed: wished, loop } = session.night !== null ? FOR_AUDIENCE : (way ?? session);
  const speed = Math.max(SPEEDS.low, Math.min(SPEEDS.high, wished));
  // Whoever follows time code has its count: ours would be late.
  const counted = session.countsIn && how !== 'code' && !(how === 'follows' && beginsAtOnce(session));
  const played = { ...session, speed, loop, counted };
  const planned = songAsPlayed(song, played);
  const line = within(show, planned, startLine(show, planned, from, eventual), loopOf(played, song));
  return { kind: 'start', song, planned, line, entryId, how, at, counted, way: { speed, loop } };
}

/** Whether what follows the song that is over begins at once, without being counted in. */
const beginsAtOnce = ({ show, entryId }: Session): boolean =>
  show !== null && entryOf(show, entryId)?.follow === 'at-once';

/** Applies one input to the session at a given time. Pure: reads no clock, knows no devices. */
export function step(session: Session, input: Input, moment: Moment): Stepped {
  switch (input.kind) {
    case 'wake':
      return wake(session, moment);
    case 'start':
      return start(session, input, moment);
    case 'outside':
      return followOutside(session, input.clock, moment);
    case 'code':
      return followCode(session, input.zero, moment);
    case 'be-led':
      return still({ ...session, isLed: input.on });
    case 'move': {
      const { show, planned, transport } = session;
      if (!show) return still(session);
      const bpm = planned ? quartersAt(planned, placeOf(transport, moment.now)) : null;
      return {
        session,
        sends: behind(session, toMove(show, input.moveId, moment.eventual(), bpm), moment),
        events: [],
      };
    }
    case 'ahead':
      return still({ ...session, ahead: input.ahead });
    case 'stop': {
      const stopped = session.transport.kind === 'playing';
      const transport = end(session.transport, moment.now);
      const history = withEnd(session.history, moment.now);
      const next = { ...session, transport, history, following: null, begun: [] };
      const sends = [...breakOff(session, moment.now), ...madeWhole(session, moment)];
      return { session: next, sends, events: stopped ? [{ kind: 'stopped', why: 'asked' }] : [] };
    }
    case 'select':
      return select(session, input, moment);
    case 'stand': {
      const { songId, entryId, place } = input;
      return still({ ...session, next: { songId, entryId, place } });
    }
    case 'queue':
      return still({ ...session, queued: input.entryId });
    case 'back':
      return goBack(session, moment);
    case 'tone': {
      const { show } = session;
      const { toneId } = input;
      if (!show || !indexShow(show).tones.has(toneId)) return still(session);
      const sends = behind(session, toTone(show, toneId, moment.eventual()), moment);
      return { session: { ...session, beside: toneId }, sends, events: [] };
    }
    case 'panic':
      return session.show
        ? { session, sends: heard(session, silence(session.show), moment.now), events: [] }
        : still(session);
    case 'mirror':
      return still(mirrored(session, input.mirror));
    case 'take-over':
      return takeOver(session, input, moment);
    case 'night':
      return beginNight(session, input.id, input.history, moment);
    case 'remember':
      return still(remembering(session, input.remembered));
    case 'speed': {
      if (session.night !== null) return still(session);
      const speed = Math.max(SPEEDS.low, Math.min(SPEEDS.high, input.speed));
      const { transport } = session;
      if (transport.kind === 'playing') return goOn(session, { ...session, speed }, moment);
      // Where it stands stays the same bar and beat.
      return still({
        ...session,
        speed,
        planned: session.song && songAsPlayed(session.song, { ...session, speed }),
        transport: { ...transport, place: (transport.place * session.speed) / speed },
      });
    }
    case 'count-in':
      return still({ ...session, countsIn: input.on });
    case 'loop':
      if (session.night !== null) return still(session);
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
    case 'restore': {
      if (!session.show) return still(session);
      const { events } = audition(session.show, input.unitId, input.aim, moment.eventual());
      return { session, sends: behind(session, events, moment), events: [] };
    }
  }
}

function start(session: Session, input: Starting, moment: Moment): Stepped {
  const { song, planned, line, entryId, how, at, way, counted } = input;
  const { now } = moment;
  // A song that plays and is sent elsewhere in itself goes on: nothing new is played, and its start is still what is taken back.
  const goesOn = session.transport.kind === 'playing' && session.song?.id === song.id;
  const left: Before = {
    song: session.song,
    entryId: session.entryId,
    place: placeOf(session.transport, now),
    rig: moment.eventual(),
  };
  const sends = breakOff(session, now);
  // Not among what is on its way already, nor ahead of what ends it.
  const free = Math.max(moment.busy(), ...sends.map((s) => s.at));
  const transport = playing(line, zeroOf(line, free, at));
  const played = { entryId, songId: song.id, title: song.title, at: now, until: null, how, struck: false };
  const next: Session = {
    ...session,
    ...way,
    counted,
    transport,
    song,
    planned,
    entryId,
    queued: goesOn ? session.queued : null,
    following: null,
    next: null,
    before: goesOn ? session.before : left,
    history: goesOn ? session.history : withStart(withEnd(session.history, now), played),
    lastWake: now,
    handedUntil: now,
    beside: null,
    recent: [],
    begun: [],
  };
  return after(sends, wake(next, moment), [{ kind: 'started', songId: song.id }]);
}

/** Schedules sends after everything still in flight to the same units. */
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
  const planned = songAsPlayed(song, session);
  const place = microsAt(songTime(planned), input.place);
  const stops = breakOff(session, now);
  const stopped = session.transport.kind === 'playing';
  const next: Session = {
    ...session,
    song,
    planned,
    entryId: input.entryId,
    next: null,
    // What was chosen is come to.
    queued: session.queued === input.entryId ? null : session.queued,
    following: null,
    beside: null,
    history: withEnd(session.history, now),
    transport: { kind: 'stopped', place },
  };
  const sends = [...stops, ...behind(next, toPlace(show, planned, input.place, moment.eventual()), moment)];
  return { session: next, sends, events: stopped ? [{ kind: 'stopped', why: 'asked' }] : [] };
}

/** A start that was wrong is taken back: what plays stops, and the rig goes to what it was on before. */
function goBack(session: Session, moment: Moment): Stepped {
  const { before, show } = session;
  if (!before || !show) return still(session);
  const { now } = moment;
  const stopped = session.transport.kind === 'playing';
  const stops = breakOff(session, now);
  const { events } = catchUp(show, moment.eventual(), before.rig);
  const next: Session = {
    ...session,
    song: before.song,
    planned: before.song && songAsPlayed(before.song, session),
    entryId: before.entryId,
    queued: null,
    following: null,
    before: null,
    next: null,
    beside: null,
    history: withStruck(session.history, now),
    transport: { kind: 'stopped', place: before.place },
  };
  return {
    session: next,
    sends: [...stops, ...behind(next, events, moment)],
    events: stopped ? [{ kind: 'stopped', why: 'asked' }] : [],
  };
}

/** What plays ends; from then on songs are played for an audience only, at their own speed, each to its end. */
function beginNight(session: Session, night: string | null, history: Session['history'], moment: Moment): Stepped {
  const stopped = step(session, { kind: 'stop' }, moment);
  const next: Session = { ...stopped.session, night, history, queued: null, before: null, ...FOR_AUDIENCE };
  const { song, transport } = next;
  const place = transport.kind === 'stopped' ? transport.place * session.speed : 0;
  return {
    ...stopped,
    session: {
      ...next,
      planned: song && songAsPlayed(song, next),
      transport: { kind: 'stopped', place },
    },
  };
}

/** The session as it was; of what is no longer in the show, nothing. What plays already goes before what was. */
function remembering(session: Session, { night, history, songId, entryId, place, queued }: Remembered): Session {
  const { show, transport } = session;
  if (!show) return session;
  const since = session.history.filter((p) => !history.some((h) => h.at === p.at));
  const played = { ...session, night, history: [...history, ...since].sort((a, b) => a.at - b.at) };
  const song = songId === null ? undefined : indexShow(show).songs.get(songId);
  if (!song || transport.kind === 'playing' || session.song) return played;
  const planned = songAsPlayed(song, played);
  return {
    ...played,
    song,
    planned,
    entryId: entryOf(show, entryId)?.songId === song.id ? entryId : null,
    queued: entryOf(show, queued)?.id ?? null,
    next: null,
    transport: { kind: 'stopped', place: microsAt(songTime(planned), place) },
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
  const bridge = bridgeToneId === null ? [] : behind(ended, toTone(show, bridgeToneId, moment.eventual()), moment);
  const next = (queued === null ? undefined : entryOf(show, queued)) ?? entryBy(show, entryId, 1);
  // Where time code leads, it says when the next one begins.
  const follows = follow !== 'wait' && next !== undefined && !isLedByCode(show, ended);
  const following = follows ? { entryId: next.id, at: now + (follow === 'on' ? pause : 0) * 1e6 } : null;
  return {
    session: { ...ended, following, beside: bridgeToneId },
    sends: bridge,
    events: [{ kind: 'stopped', why: 'end', follows }],
  };
}

/** Whether time code leads: the show has it come, and nobody took the lead from it. */
const isLedByCode = ({ timeCode }: Show, { isLed }: Session): boolean => isLed && timeCode.portId !== null;

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
function breakOff({ transport, gone, handedUntil }: Session, now: Micros): TimedBytes[] {
  if (transport.kind !== 'playing') return [];
  const stops = transport.line.atStop.filter(({ portId }) => !gone.has(portId));
  const times = handedUntil > now + LOOK_AHEAD ? [now, handedUntil] : [now];
  return times.flatMap((at) => stops.map((s) => ({ ...s, at, cueId: '', unitId: '' })));
}

/** What has the rig end in one sound when playing is broken off amid a change. */
function madeWhole(session: Session, moment: Moment): readonly TimedBytes[] {
  const { show, planned, transport, begun } = session;
  if (!show || !planned || transport.kind !== 'playing') return [];
  const target = wholeAgain(show, planned, transport, begun, moment.now);
  if (Object.keys(target).length === 0) return [];
  return behind(session, catchUp(show, moment.eventual(), target).events, moment);
}

function wake(session: Session, moment: Moment): Stepped {
  const { now } = moment;
  const { transport, lastWake } = session;
  if (transport.kind === 'playing' && lastWake !== null && now - lastWake > ASLEEP)
    return wakeFromSleep(session, moment);
  const handedUntil = Math.max(now + session.ahead, session.handedUntil);
  const taken = take(transport, now, now + session.ahead);
  const stopped = transport.kind === 'playing' && taken.transport.kind === 'stopped';
  const { due } = taken;
  const recent = due.length === 0 ? session.recent : [...session.recent.filter((e) => e.at > now - RECENT), ...due];
  const { show, planned } = session;
  const begun =
    due.length > 0 && show && planned && transport.kind === 'playing'
      ? beginning(session.begun, show, planned, transport, due, now, moment.eventual)
      : session.begun;
  const next: Session = { ...session, transport: taken.transport, lastWake: now, handedUntil, recent, begun };
  const sends = audible(session, due, now);
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
  const { transport, song, show, lastWake } = session;
  if (transport.kind !== 'playing' || !song || !show || lastWake === null) return still(session);
  const slept: SessionEvent = { kind: 'slept', time: now - lastWake };
  if (now - transport.zero >= transport.line.end) {
    const sends = breakOff(session, now);
    const stopped: Transport = { kind: 'stopped', place: transport.line.end };
    return {
      session: { ...session, transport: stopped, lastWake: now, history: withEnd(session.history, now) },
      sends,
      events: [slept, { kind: 'stopped', why: 'end' }],
    };
  }
  const planned = plannedAnew({ ...session, lastWake: now }, show, song, now, moment);
  return after([], wake(planned, moment), [slept]);
}

/** The show was edited: the song that plays is planned anew from now, or stops where it is gone. */
function takeShow(session: Session, show: Show, moment: Moment): Stepped {
  const { transport, song } = session;
  const before = session.show;
  const next: Session = { ...session, show };
  if (transport.kind !== 'playing' || !song || !before) return still(restingIn(next, show));
  const now = indexShow(show).songs.get(song.id);
  if (!now) {
    const sends = [...breakOff(session, moment.now), ...madeWhole(session, moment)];
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

/** A session that stands: the song that it is on is the one of the show as it is now, at the same bar and beat. */
function restingIn(session: Session, show: Show): Session {
  const { song, planned, transport } = session;
  if (!song || transport.kind === 'playing') return session;
  const now = indexShow(show).songs.get(song.id);
  if (now === song) return session;
  if (!now) return { ...session, song: null, planned: null, entryId: null, transport: STOPPED };
  const sung = songAsPlayed(now, session);
  const { place } = transport;
  const moved = planned && place > 0 ? microsAt(songTime(sung), ticksAt(songTime(planned), place)) : place;
  return { ...session, song: now, planned: sung, transport: { kind: 'stopped', place: moved } };
}

/** What plays goes on as the next session wants it: planned anew from now. */
function goOn(before: Session, next: Session, moment: Moment, song: Song | null = next.song): Stepped {
  const { transport, show } = next;
  if (transport.kind !== 'playing' || !song || !show) return still(next);
  const handedUntil = Math.max(before.handedUntil, moment.now);
  const planned = plannedAnew(next, show, song, handedUntil, moment);
  return after([], wake(planned, moment), [{ kind: 'replanned', songId: song.id }]);
}

/** Another computer led until now: what plays goes on from here, and the rig is brought to where it should be. */
function takeOver(
  session: Session,
  { unsure, recent }: Extract<Input, { kind: 'take-over' }>,
  moment: Moment,
): Stepped {
  const { show, song, transport } = session;
  const { now } = moment;
  const next: Session = { ...session, recent, lastWake: now, handedUntil: now };
  if (!show) return still(next);
  if (transport.kind !== 'playing' || !song) {
    const heard = new Set([...unsure].filter((id) => !hushedUnits(next).has(id)));
    if (heard.size === 0) return still(next);
    return { session: next, sends: behind(next, missed(next, show, heard, moment.eventual()), moment), events: [] };
  }
  return after([], wake(plannedAnew(next, show, song, now, moment), moment), [{ kind: 'replanned', songId: song.id }]);
}

/** Units that are sent messages again are brought to where the song is now. */
function heardAgain(before: Session, next: Session, moment: Moment): Stepped {
  const { show } = next;
  const hushed = hushedUnits(next);
  const again = new Set([...hushedUnits(before)].filter((id) => !hushed.has(id)));
  if (again.size === 0 || !show) return still(next);
  if (next.transport.kind === 'playing') return goOn(before, next, moment);
  return { session: next, sends: behind(next, missed(next, show, again, moment.eventual()), moment), events: [] };
}

/** What units missed while nothing played: what brings them to the sound that the others are on. From 0 on. */
function missed(session: Session, show: Show, units: ReadonlySet<string>, eventual: RigState): readonly TimedBytes[] {
  const { beside, planned, transport } = session;
  const all = withTold(show, units);
  if (beside !== null) return toTone(show, beside, eventual).filter((e) => all.has(e.unitId));
  if (!planned || transport.kind === 'playing') return [];
  const state = stateAt(show, planned, ticksAt(songTime(planned), Math.max(0, transport.place)));
  return catchUp(show, eventual, Object.fromEntries(Object.entries(state).filter(([id]) => all.has(id)))).events;
}

/** From so far apart on, the tempo of what was planned is another than that which is heard. */
const OTHER_TEMPO = 0.003;

/** Where the clock is elsewhere by less, nothing is done; by more than the second, the rest is planned anew. */
const NEAR: Micros = 300;
/** Time code is not shaken by the bars of a song: it may be followed more closely. */
const NEAR_CODE: Micros = 50;

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
    const anew = plannedAnew(next, show, song, Math.max(session.handedUntil, moment.now), moment, off);
    return after([], wake(anew, moment), []);
  }
  if (Math.abs(off) < NEAR) return still(session);
  return still({ ...session, transport: { ...transport, zero: transport.zero - off } });
}

/** The song is where time code says: by so little that nothing is heard of it, or planned anew from there. */
function followCode(session: Session, zero: Micros, moment: Moment): Stepped {
  const { transport, song, show } = session;
  if (transport.kind !== 'playing' || !song || !show) return still(session);
  const off = transport.zero - zero;
  if (Math.abs(off) < NEAR_CODE) return still(session);
  if (Math.abs(off) <= FAR) return still({ ...session, transport: { ...transport, zero } });
  // Until it has reached the place that it starts from, the rig is being brought there.
  if (moment.now < transport.zero + transport.line.place) return still(session);
  const anew = plannedAnew(session, show, song, Math.max(session.handedUntil, moment.now), moment, off);
  return after([], wake(anew, moment), []);
}

const quartersAt = (song: Song, place: Micros): number => {
  const time = songTime(song);
  return tempoAt(time.tempo, Math.max(0, ticksAt(time, place)));
};
