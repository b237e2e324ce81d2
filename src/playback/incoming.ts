import type { Act } from '../core/meaning';
import { identityIn, type Bytes, type TimedBytes } from '../core/midi';
import type { UnitAim } from '../core/rig';
import { indexShow, microsAt, songTime, songsOfSet, sungAs, ticksAt, type SessionAct, type Show } from '../core/show';
import type { Micros, Ticks } from '../core/time';
import type { ClockWord } from './clockIn';
import { launchedBy } from './launch';
import { OutsideClocks } from './outsideClock';
import type { Arrival } from './ports';
import { Reactor, type Restored } from './reactor';
import { entryOf, type Start } from './running';
import type { Sender } from './sender';
import { roundZero } from './transport';
import { placeIn, type Input, type Session, type SessionEvent } from './sessionState';

/** That a port is flooded is said this often. */
const FLOOD_SAID_EVERY: Micros = 5_000_000;

/** What of the playback is driven by what arrives. */
export interface Driven {
  readonly session: Session;
  readonly sender: Sender;
  readonly now: () => Micros;
  readonly give: (input: Input) => readonly TimedBytes[];
  readonly begin: (
    songId: string,
    from: Ticks,
    rest: { entryId: string | null; how?: Start; at?: Micros | null },
  ) => void;
  readonly play: (songId: string, from: Ticks, entryId?: string | null) => void;
  readonly entryFor: (songId: string) => string | null;
  readonly select: (songId: string, place: Ticks, entryId?: string | null) => void;
  readonly goSong: (by: 1 | -1) => void;
  readonly chooseSong: (by: 1 | -1) => void;
  readonly goChange: (by: 1 | -1) => void;
  readonly queue: (entryId: string | null) => void;
  readonly back: () => void;
  readonly tone: (toneId: string) => void;
  readonly panic: () => void;
  readonly stop: () => void;
  readonly audition: (unitId: string, aim: UnitAim) => readonly TimedBytes[];
  /** Whether what arrives as an answer comes from a stand-in where real units were asked. */
  readonly isNoAnswer: (arrival: Arrival) => boolean;
  /** Tells that something happened. */
  readonly happened: (events: readonly SessionEvent[]) => void;
}

/** What arrives on the ports, and what it does: starts songs, goes through the reactions, leads a song by its clock, goes out again. */
export class Incoming {
  private readonly clocks = new OutsideClocks();
  private readonly reactor = new Reactor({
    now: () => this.driven.sender.assumed.state(),
    coming: () => this.driven.sender.assumed.coming(),
  });
  private readonly flooded = new Map<string, Micros>();

  /** The page of each foot controller from which a switch was heard last. */
  readonly armed = new Map<string, string>();

  /** While somebody learns a message, what arrives does nothing. */
  listenOnly = false;

  constructor(private readonly driven: Driven) {}

  /** Lets time come to now. */
  wake(now: Micros): void {
    this.followClock(now);
    this.goOnReacting(now);
  }

  /** A tone came by itself: what pedals moved goes back. */
  toneCame(toneId: string): void {
    const { show } = this.driven.session;
    if (show) this.restore(this.reactor.toneCame(show, toneId));
  }

  /** Controls that pedals moved go back, once their units take messages again. */
  private restore(controls: readonly Restored[]): void {
    for (const { unitId, controlId, value } of controls) {
      this.driven.give({ kind: 'restore', unitId, aim: { controls: { [controlId]: value } } });
    }
  }

  /** A message came in on a port: what it is, what it does, and whether it goes out again. */
  arrived(arrival: Arrival): void {
    const { portId, at, bytes } = arrival;
    const { show, song } = this.driven.session;
    if (!show) return;
    const port = indexShow(show).ports.get(portId);
    if (!port?.active) return;
    const identity = identityIn(bytes);
    if (identity && !this.driven.isNoAnswer(arrival)) this.driven.happened([{ kind: 'answered', portId, identity }]);
    if (this.listenOnly) return;
    const word = this.clocks.hear(portId, at, bytes);
    if (word !== null) this.obeyClock(show, portId, word);
    const { acts, goesOn, pressed } = this.reactor.hear(show, song?.id ?? null, arrival);
    if (pressed) this.armed.set(pressed.unitId, pressed.pageId);
    for (const act of acts) this.act(act);
    if (goesOn && !this.launch(show, portId, bytes) && port.softThru) this.passOn(portId, bytes);
  }

  /** A message that a song of the set waits for starts it, or has it come next. */
  private launch(show: Show, portId: string, bytes: Bytes): boolean {
    const entry = launchedBy(show, portId, bytes);
    if (!entry) return false;
    if (entry.launch!.does === 'start') this.driven.begin(entry.songId, 0, { entryId: entry.id, how: 'launched' });
    else this.driven.queue(entry.id);
    return true;
  }

  /** Out of the port that it came in on: no more than its cable carries, and nothing late. */
  private passOn(portId: string, bytes: Bytes): void {
    const now = this.driven.now();
    const said = this.flooded.get(portId) ?? Number.NEGATIVE_INFINITY;
    if (this.driven.sender.passOn(portId, bytes, now) || now - said < FLOOD_SAID_EVERY) return;
    this.flooded.set(portId, now);
    this.driven.happened([{ kind: 'flooded', portId }]);
  }

  /** The clock of the song that plays, or is gone to: it starts it, and stops it. */
  private obeyClock(show: Show, portId: string, word: ClockWord | 'other'): void {
    if (word === 'stop' && this.driven.session.song?.followsPortId === portId) this.driven.stop();
    if (word !== 'start' && word !== 'continue') return;
    const { song, entryId } = this.driven.session;
    const chosen = song ?? songsOfSet(show)[0];
    if (chosen?.followsPortId !== portId) return;
    const { tick, at } = this.clocks.next(portId, this.driven.now());
    const { clock } = this.clocks.news(portId, this.driven.now(), tick);
    this.driven.give({ kind: 'outside', clock });
    const planned = sungAs(chosen, this.driven.session);
    // From its very start the rig is at its opening already: only what is missing of that is sent.
    const from = Math.max(tick, 1e-6);
    const zero = at - microsAt(songTime(planned), tick);
    this.driven.begin(chosen.id, from, {
      entryId: entryId ?? this.driven.entryFor(chosen.id),
      how: 'launched',
      at: zero,
    });
  }

  /** Keeps what plays with the clock that it follows. */
  private followClock(now: Micros): void {
    const { song, planned, transport } = this.driven.session;
    const portId = song?.followsPortId ?? null;
    if (portId === null || !planned || transport.kind !== 'playing') return;
    const place = ticksAt(songTime(planned), now - transport.zero);
    const { clock, said } = this.clocks.news(portId, now, place);
    if (clock) this.driven.give({ kind: 'outside', clock });
    if (said.length > 0) this.driven.happened(said.map((what) => ({ kind: 'clock', what, portId })));
  }

  /** Does what a reaction asks for. */
  private act(act: Act): void {
    const { show, song } = this.driven.session;
    if (!show) return;
    switch (act.kind) {
      case 'session':
        this.sessionAct(act.act);
        break;
      case 'song': {
        const entryId = this.driven.entryFor(act.songId);
        if (act.how === 'start') this.driven.begin(act.songId, 0, { entryId, how: 'launched' });
        else if (act.how === 'select') this.driven.select(act.songId, 0, entryId);
        else if (entryId !== null) this.driven.queue(entryId);
        break;
      }
      case 'tone': {
        const { place } = placeIn(this.driven.session, this.driven.now());
        this.driven.happened([{ kind: 'pressed', toneId: act.toneId, songId: song?.id ?? null, place }]);
        this.driven.tone(act.toneId);
        break;
      }
      case 'move':
        this.driven.give({ kind: 'move', moveId: act.moveId });
        break;
      case 'sample':
      case 'level':
      case 'turn':
      case 'part':
        this.driven.happened([act]);
        break;
      case 'set':
        this.driven.audition(act.unitId, { controls: { [act.controlId]: act.value } });
        break;
      case 'send': {
        const now = this.driven.now();
        this.driven.sender.send({ portId: act.portId, at: now, bytes: act.bytes }, now);
      }
    }
  }

  private sessionAct(act: SessionAct): void {
    switch (act) {
      case 'play':
        return this.playHere();
      case 'play-or-stop':
        return this.driven.session.transport.kind === 'playing' ? this.driven.stop() : this.playHere();
      case 'stop':
        return this.driven.stop();
      case 'next-change':
      case 'previous-change':
        return this.driven.goChange(act === 'next-change' ? 1 : -1);
      case 'next-song':
      case 'previous-song':
        return this.driven.goSong(act === 'next-song' ? 1 : -1);
      case 'choose-next':
      case 'choose-previous':
        return this.driven.chooseSong(act === 'choose-next' ? 1 : -1);
      case 'start-chosen':
        return this.startChosen();
      case 'back':
        return this.driven.back();
      case 'interlude':
        return this.driven.happened([{ kind: 'interlude' }]);
      case 'panic':
        return this.driven.panic();
    }
  }

  /** Starts the song that was chosen; where none was, the one that stands there. */
  private startChosen(): void {
    const { show, queued } = this.driven.session;
    const chosen = show && entryOf(show, queued);
    if (chosen) this.driven.begin(chosen.songId, 0, { entryId: chosen.id, how: 'launched' });
    else this.playHere();
  }

  /** Plays on from where the session is, or the first of the set. */
  private playHere(): void {
    const { show, song, entryId, transport, planned } = this.driven.session;
    if (transport.kind === 'playing' || !show) return;
    const first = songsOfSet(show)[0];
    if (song && planned) {
      const time = songTime(planned);
      const place = ticksAt(time, transport.place);
      // At its end it begins anew.
      this.driven.play(song.id, place >= time.end - 1 ? 0 : Math.max(0, place), entryId);
    } else if (first) this.driven.play(first.id, 0);
  }

  private goOnReacting(now: Micros): void {
    const { show, planned, transport } = this.driven.session;
    if (!show) return;
    for (const act of this.reactor.wake(show, now)) this.act(act);
    if (!planned || transport.kind !== 'playing') return;
    this.restore(this.reactor.passed(show, planned, now - roundZero(transport, now)));
  }
}
