import type { FromPeer, Mirrored, PeerSent } from '../../core/formats/line';
import type { RigState } from '../../core/rig';
import type { Micros } from '../../core/time';
import type { Session } from '../sessionState';
import { mirrorMoved, mirrorOf } from './mirror';
import { ClockOffset } from './offset';
import { BEAT, FENCE, TAKE, newSeat, seatStep, type Seat, type SeatAct, type SeatInput } from './seat';

/** What is known of the other computer, for whoever looks. */
export interface PairNews {
  /** Which of the two this one is. */
  readonly first: boolean;
  readonly leads: boolean;
  /** The other is heard; it has left, or our line to it is cut. */
  readonly other: 'there' | 'gone' | 'cut';
  /** Whoever follows would take over by itself. */
  readonly ready: boolean;
}

/** What was sent is remembered for so long: by then units have taken it. */
const REMEMBERED: Micros = 4_000_000;
/** Whoever drives the playback wakes it far more often than this. */
const STALLED: Micros = 100_000;
/** What the rig is on is told this often at the most. */
const RIG_EVERY: Micros = 500_000;

/** What taking over has to know of what the other one sent. */
export interface TakenOver {
  /** Up to here it is known to have lived: what was to leave later may never have. */
  readonly lived: Micros;
  /** It gave the lead up: all that it handed over leaves. */
  readonly given: boolean;
  /** What it sent last, in our clock's time. */
  readonly sent: readonly PeerSent[];
}

export interface PairDoes {
  readonly say: (message: FromPeer) => void;
  /** This computer leads from now on. */
  readonly take: (over: TakenOver) => void;
  readonly fallSilent: () => void;
  /** What the other one says; in our clock's time. */
  /** False where that show is not open here. */
  readonly session: (mirror: Mirrored) => boolean;
  readonly sent: (list: readonly PeerSent[]) => void;
  readonly rig: (rig: RigState) => void;
}

/** One of two computers of a show: says and hears what both have to know, and when this one leads. */
export class Pairing {
  private seat: Seat;
  private readonly offset = new ClockOffset();
  private lastBeat = Number.NEGATIVE_INFINITY;
  /** When the last beat was heard that is answered, and when it left over there. */
  private echo: { readonly at: Micros; readonly came: Micros } | null = null;
  private toldSession = '';
  private toldRig = '';
  private rigAt = Number.NEGATIVE_INFINITY;
  private isAwake = true;
  /** When the other one said its last word, in our clock's time. */
  private lived: Micros;
  private lastWake = Number.NEGATIVE_INFINITY;
  private sessionAt = Number.NEGATIVE_INFINITY;
  private toSay: PeerSent[] = [];
  private heardSent: PeerSent[] = [];
  /** Both were heard since the line stands: whoever leads tells all anew. */
  private isFresh = true;

  constructor(
    first: boolean,
    leads: boolean,
    private readonly does: PairDoes,
    now: Micros,
  ) {
    this.seat = newSeat(first, leads, now);
    this.lived = now;
  }

  get leads(): boolean {
    return this.seat.leads;
  }

  news(now: Micros): PairNews {
    const { first, leads, road, other, heard, ready } = this.seat;
    const there = road === 'open' && other !== null && now - heard < FENCE;
    return {
      first,
      leads,
      other: there ? 'there' : road === 'gone' ? 'gone' : 'cut',
      ready: leads ? there && other.ready : ready,
    };
  }

  road(road: Seat['road'], now: Micros): void {
    if (road !== 'open') {
      this.offset.forget();
      this.echo = null;
    }
    this.isFresh = true;
    this.step({ kind: 'road', road }, now);
  }

  /** A computer whose page is hidden, as where a lid was closed, is not ready: it does not take over by itself. */
  awake(is: boolean, now: Micros): void {
    this.isAwake = is;
    if (is) return;
    this.step({ kind: 'ready', ready: false }, now);
    this.beat(now);
  }

  /** Somebody wants this computer to lead. */
  lead(now: Micros): void {
    this.step({ kind: 'lead' }, now);
  }

  hear(message: FromPeer, now: Micros): void {
    const by = this.offset.micros;
    switch (message.kind) {
      case 'beat': {
        const { at, leads, term, ready, echo } = message;
        // It was on its way for a while: what was to leave meanwhile may not have.
        this.lived = by === null ? now : Math.min(now, at + by);
        if (echo) this.offset.heard(now, at, echo.at, echo.held);
        this.echo = { at, came: now };
        if (this.seat.other === null) this.isFresh = true;
        this.step({ kind: 'beat', leads, term, ready }, now);
        break;
      }
      case 'session':
        if (this.seat.leads || by === null) break;
        this.step({ kind: 'ready', ready: this.does.session(mirrorMoved(message.session, by)) && this.isAwake }, now);
        break;
      case 'sent': {
        if (this.seat.leads || by === null) break;
        const list = message.list.map((e) => ({ ...e, at: e.at + by }));
        this.heardSent = [...this.heardSent.filter((e) => e.at > now - REMEMBERED), ...list];
        this.does.sent(list);
        break;
      }
      case 'rig':
        if (!this.seat.leads) this.does.rig(message.rig);
        break;
      case 'wants':
        this.step({ kind: 'wanted', term: message.term }, now);
        break;
      case 'bye':
        this.step({ kind: 'bye' }, now);
    }
  }

  /** A message is on its way to the rig. */
  note(sent: PeerSent): void {
    if (this.seat.other) this.toSay.push(sent);
  }

  /** Lets time come to now. Whoever leads tells what it plays: `rig` is what the rig is on where nothing is on its way. */
  wake(now: Micros, session: Session, rig: () => { readonly state: RigState; readonly rests: boolean }): void {
    const slept = now - this.lastWake;
    this.lastWake = now;
    const silent = now - this.seat.heard;
    // Who was not woken for a while may have been spoken to: that is heard first, while there is time for it.
    const waits = slept > STALLED && (!this.seat.leads || silent < TAKE - 2 * BEAT);
    if (!waits) this.step({ kind: 'wake' }, now);
    if (now - this.lastBeat >= BEAT) this.beat(now);
    if (!this.seat.leads || !this.seat.other) return;
    this.tell(now, session, rig);
  }

  /** It leaves: the other one need not wait. */
  bye(): void {
    this.does.say({ kind: 'bye' });
  }

  private tell(now: Micros, session: Session, rig: () => { readonly state: RigState; readonly rests: boolean }): void {
    const { say } = this.does;
    if (this.toSay.length > 0) say({ kind: 'sent', list: this.toSay });
    this.toSay = [];
    const fresh = this.isFresh && this.echo !== null;
    if (fresh) [this.toldSession, this.toldRig, this.rigAt] = ['', '', Number.NEGATIVE_INFINITY];
    if (now - this.rigAt >= RIG_EVERY) {
      this.rigAt = now;
      const { state, rests } = rig();
      const text = rests || fresh ? JSON.stringify(state) : this.toldRig;
      if (text !== this.toldRig) say({ kind: 'rig', rig: state });
      this.toldRig = text;
    }
    const mirror = mirrorOf(session, now);
    const text = JSON.stringify(mirror);
    // Until it knows our clock, the other one can make nothing of it.
    const again = this.seat.other?.ready === false && now - this.sessionAt >= BEAT;
    if (text !== this.toldSession || again) {
      say({ kind: 'session', session: mirror });
      this.sessionAt = now;
    }
    this.toldSession = text;
    this.isFresh = false;
  }

  private beat(now: Micros): void {
    this.lastBeat = now;
    const { leads, term, ready } = this.seat;
    const { echo } = this;
    const back = echo && { at: echo.at, held: now - echo.came };
    this.does.say({ kind: 'beat', at: now, leads, term, ready: ready && !leads, echo: back });
  }

  private step(input: SeatInput, now: Micros): void {
    const { lived } = this;
    const { seat, act } = seatStep(this.seat, input, now);
    this.seat = seat;
    // One that says that it leads no longer lives, and lets all leave that it handed over.
    if (act) this.act(act, now, { lived, given: input.kind === 'beat' });
  }

  private act(act: SeatAct, now: Micros, how: Pick<TakenOver, 'lived' | 'given'>): void {
    switch (act) {
      case 'ask':
        this.does.say({ kind: 'wants', term: Math.max(this.seat.term, this.seat.other?.term ?? 0) + 1 });
        break;
      case 'fall-silent':
        // All that was handed over is told of before it is known that this one leads no longer.
        if (this.toSay.length > 0) this.does.say({ kind: 'sent', list: this.toSay });
        this.toSay = [];
        this.heardSent = [];
        this.does.fallSilent();
        this.beat(now);
        break;
      case 'take':
        this.isFresh = true;
        this.does.take({ ...how, sent: this.heardSent.filter((e) => e.at > now - REMEMBERED) });
        this.heardSent = [];
        this.beat(now);
    }
  }
}
