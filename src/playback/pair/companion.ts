import type { FromPeer, Mirrored } from '../../core/formats/line';
import type { Bytes } from '../../core/midi';
import type { RigState } from '../../core/rig';
import type { Micros } from '../../core/time';
import { withTold } from '../plans';
import type { Sender } from '../sender';
import type { Input, Session, SessionEvent } from '../sessionState';
import { Pairing, type PairNews, type TakenOver } from './pairing';
import { TAKE, type Seat } from './seat';

/** A message that turns a switch box to this computer. */
export interface BoxTurn {
  readonly portId: string;
  readonly bytes: Bytes;
}

/** Which of two computers this one is, and whether it leads from the start. */
export interface PairSeat {
  readonly first: boolean;
  readonly leads: boolean;
}

/** Who heard nothing of the other one for so long knows nothing of the rig any more: it takes over by itself far sooner. */
const UNHEARD: Micros = 2 * TAKE;

/** What it needs of the playback that it belongs to. */
interface Desk {
  readonly now: () => Micros;
  readonly sender: Sender;
  readonly session: () => Session;
  readonly give: (input: Input) => void;
  readonly happened: (events: readonly SessionEvent[]) => void;
  /** What somebody does beside a song ends with the lead. */
  readonly leadIsGone: () => void;
  readonly say: (message: FromPeer) => void;
  /** Lets time come to now. */
  readonly wake: () => void;
}

/** The playback of one of two computers: silent while the other one leads, and on from there when it has to. */
export class Companion {
  private pairing: Pairing | null = null;
  private box: BoxTurn | null = null;

  constructor(private readonly desk: Desk) {
    desk.sender.onPut = (sent) => this.pairing?.note(sent);
  }

  /** Whether another computer leads, and this one is silent. */
  get follows(): boolean {
    return this.pairing !== null && !this.pairing.leads;
  }

  /** Null where this computer is alone. */
  news(): PairNews | null {
    return this.pairing?.news(this.desk.now()) ?? null;
  }

  /** This computer is one of two from now on; null: it is alone. */
  sit(seat: PairSeat | null): void {
    this.pairing?.bye();
    this.pairing = seat && this.pairingFor(seat);
    this.desk.sender.isSilent = this.follows;
    this.desk.wake();
  }

  /** What turns a switch box to this computer when it takes over; null for none. */
  turnsBox(box: BoxTurn | null): void {
    this.box = box;
  }

  /** The line to the other computer: it stands, or is cut at our end, or the other one has left. */
  road(road: Seat['road']): void {
    this.pairing?.road(road, this.desk.now());
    this.desk.wake();
  }

  /** The page is seen, or hidden. */
  awake(is: boolean): void {
    this.pairing?.awake(is, this.desk.now());
  }

  /** The other computer says something. */
  hears(message: FromPeer): void {
    this.pairing?.hear(message, this.desk.now());
  }

  /** Somebody wants this computer to lead. */
  lead(): void {
    this.pairing?.lead(this.desk.now());
    this.desk.wake();
  }

  wake(): void {
    const { assumed } = this.desk.sender;
    this.pairing?.wake(this.desk.now(), this.desk.session(), () => ({
      state: assumed.eventual(),
      rests: assumed.rests,
    }));
  }

  private pairingFor({ first, leads }: PairSeat): Pairing {
    const { desk } = this;
    const does = {
      say: desk.say,
      take: (over: TakenOver) => this.takeOver(over),
      fallSilent: () => this.fallSilent(),
      session: (mirror: Mirrored): boolean => {
        desk.give({ kind: 'mirror', mirror });
        return desk.session().show?.id === mirror.showId;
      },
      sent: (list: TakenOver['sent']) => desk.sender.overhear(list),
      rig: (rig: RigState) => desk.sender.assumed.adopt(rig),
    };
    return new Pairing(first, leads, does, desk.now());
  }

  private fallSilent(): void {
    const { sender, leadIsGone, happened } = this.desk;
    sender.isSilent = true;
    leadIsGone();
    happened([{ kind: 'pair', leads: false, given: true }]);
  }

  /**
   * The other computer led until now. What it sent that may not have left is nobody's knowledge; what was to leave later
   * is sent from here.
   */
  private takeOver({ lived, given, sent }: TakenOver): void {
    const { sender, session, give, happened } = this.desk;
    const { assumed } = sender;
    const now = this.desk.now();
    const { show } = session();
    sender.isSilent = false;
    assumed.advance(now);
    const isSure = (at: Micros): boolean => given || at <= lived;
    const all = show?.units.map((u) => u.id) ?? [];
    const lately = sent.filter((e) => e.unitId !== '' && !isSure(e.at) && e.at <= now);
    // Nobody was heard for long: the other one may have played on, and turned anything.
    const unsure = new Set(!given && now - lived > UNHEARD ? all : lately.map((e) => e.unitId));
    const told = show ? withTold(show, unsure) : unsure;
    if (!given) assumed.callBack(now);
    if (told.size > 0) assumed.forget(told);
    // A switch box lets nothing through before it is turned.
    if (this.box) sender.send({ ...this.box, at: now }, now);
    give({ kind: 'take-over', unsure: told, recent: sent.filter((e) => isSure(e.at)) });
    happened([{ kind: 'pair', leads: true, given }]);
  }
}
