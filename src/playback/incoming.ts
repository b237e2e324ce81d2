import type { ClockMessage } from '../core/clock';
import { identityIn, type Bytes } from '../core/midi';
import { indexShow, microsAt, songTime, songsOfSet, songAsPlayed, ticksAt, type Show } from '../core/show';
import { millisToMicros, type Micros } from '../core/time';
import { launch, report, type Command, nextStart } from './commands';
import { CodeChase } from './codeChase';
import { launchedBy } from './launch';
import { OutsideClocks } from './outsideClock';
import type { Arrival } from './ports';
import { Reactor, type Restored, type Rig } from './reactor';
import { entryFor } from './running';
import { roundZero } from './transport';
import type { Session } from './sessionState';

/**
 * What arrives on the ports: it starts songs, goes through the reactions, leads a song by its clock, goes out
 * again. Remembers clocks, pedals and switches; returns what is to be done, and does nothing itself.
 */
export class Incoming {
  private readonly clocks = new OutsideClocks();
  private readonly reactor: Reactor;
  readonly code = new CodeChase();

  /** The page of each foot controller from which a switch was heard last. */
  readonly armed = new Map<string, string>();

  /** While somebody learns a message, what arrives does nothing. */
  listenOnly = false;

  constructor(rig: Rig) {
    this.reactor = new Reactor(rig);
  }

  /**
   * A message came in on a port: what it is, what it does, and whether it goes out again. `answers` says whether an
   * identity in it is a real unit's answer; a stand-in answers where real units were asked.
   */
  arrived(arrival: Arrival, session: Session, now: Micros, answers: boolean): readonly Command[] {
    const { portId, at, bytes } = arrival;
    const { show, song } = session;
    if (!show) return [];
    const port = indexShow(show).ports.get(portId);
    if (!port?.active) return [];
    const identity = answers ? identityIn(bytes) : null;
    const said = identity ? [report({ kind: 'answered', portId, identity })] : [];
    if (this.listenOnly) return said;
    const clock = this.clocks.hear(portId, at, bytes);
    // What leads a song goes no further.
    if (portId === show.timeCode.portId && this.code.hear(at, bytes)) return said;
    const led = clock === null ? [] : this.obeyClock(show, session, portId, clock, now);
    const { acts, goesOn, pressed } = this.reactor.hear(show, song?.id ?? null, arrival);
    if (pressed) this.armed.set(pressed.unitId, pressed.pageId);
    const reacted = acts.map((act): Command => ({ kind: 'act', act }));
    const on = goesOn ? (launchOf(show, portId, bytes) ?? (port.softThru ? passOn(portId, bytes) : null)) : null;
    return [...said, ...led, ...reacted, ...(on ? [on] : [])];
  }

  /** The clock of the song that plays, or is gone to: it starts it, and stops it. */
  private obeyClock(
    show: Show,
    session: Session,
    portId: string,
    message: ClockMessage['kind'],
    now: Micros,
  ): readonly Command[] {
    const { song } = session;
    if (!session.isLed) return [];
    if (message === 'stop' && song?.followsPortId === portId) return [{ kind: 'stop' }];
    if (message !== 'start' && message !== 'continue') return [];
    const next = session.transport.kind === 'playing' ? null : nextStart(session);
    const entryId = next ? next.entryId : session.entryId;
    const chosen = (next ? indexShow(show).songs.get(next.songId) : song) ?? songsOfSet(show)[0];
    if (chosen?.followsPortId !== portId) return [];
    const { tick, at } = this.clocks.next(portId, now);
    const { clock } = this.clocks.news(portId, now, tick, bornBy(show));
    const planned = songAsPlayed(chosen, { ...session, outside: clock?.bpm ?? null });
    // From its very start the rig is at its opening already: only what is missing of that is sent.
    const from = Math.max(tick, 1e-6);
    const zero = at - microsAt(songTime(planned), tick);
    return [
      { kind: 'input', input: { kind: 'outside', clock } },
      launch(chosen.id, entryId ?? entryFor(session, chosen.id), from, zero),
    ];
  }

  /** Keeps what plays with the time code that leads. */
  followCode(session: Session, now: Micros): readonly Command[] {
    return this.code.follow(session, now);
  }

  /** Keeps what plays with the clock that it follows. */
  followClock({ show, song, planned, transport, isLed }: Session, now: Micros): readonly Command[] {
    const portId = song?.followsPortId ?? null;
    if (!isLed || !show || portId === null || !planned || transport.kind !== 'playing') return [];
    const place = ticksAt(songTime(planned), now - transport.zero);
    const { clock, said } = this.clocks.news(portId, now, place, bornBy(show));
    return [
      ...(clock ? [{ kind: 'input', input: { kind: 'outside', clock } } as const] : []),
      ...(said.length > 0 ? [report(...said.map((what) => ({ kind: 'clock', what, portId }) as const))] : []),
    ];
  }

  /** What comes of pedals that stand long enough where they are. */
  reactLater({ show }: Session, now: Micros): readonly Command[] {
    return show ? this.reactor.wake(show, now).map((act) => ({ kind: 'act', act })) : [];
  }

  /** Where the song that plays has reached another tone, controls that pedals moved go back. */
  restoreAtTone({ show, planned, transport }: Session, now: Micros): readonly Command[] {
    if (!show || !planned || transport.kind !== 'playing') return [];
    return this.reactor.passed(show, planned, now - roundZero(transport, now)).map(restore);
  }

  /** A tone came by itself: what pedals moved goes back. */
  toneCame({ show }: Session, toneId: string): readonly Command[] {
    return show ? this.reactor.toneCame(show, toneId).map(restore) : [];
  }
}

/** A control that a pedal moved goes back, once its unit takes messages again. */
const restore = ({ unitId, controlId, value }: Restored): Command => ({
  kind: 'input',
  input: { kind: 'restore', unitId, aim: { controls: { [controlId]: value } } },
});

const passOn = (portId: string, bytes: Bytes): Command => ({ kind: 'pass-on', portId, bytes });

/** A message that a song of the set waits for starts it, or has it come next. */
/** By how much a beat may be off before a change misses, where there was room for its margin. */
const bornBy = ({ margin, tolerance }: Show): Micros => millisToMicros(margin + tolerance.after);

function launchOf(show: Show, portId: string, bytes: Bytes): Command | null {
  const entry = launchedBy(show, portId, bytes);
  if (!entry) return null;
  return entry.launch!.does === 'start' ? launch(entry.songId, entry.id) : { kind: 'queue', entryId: entry.id };
}
