import type { Bytes, TimedBytes } from '../core/midi';
import type { RigState, UnitAim } from '../core/rig';
import type { SeamLate } from '../core/compile';
import type { FromPeer } from '../core/formats/line';
import { routeTo } from '../core/meaning';
import { setOf, songTime, ticksAt, type Show } from '../core/show';
import type { Micros, Ticks } from '../core/time';
import type { Errand } from '../core/feet';
import type { AssumedRig } from './assumedRig';
import type { CodeNews } from './codeChase';
import { CodeSender } from './codeSender';
import { commandsOf, type Command } from './commands';
import type { Floor } from './footStandIns';
import { Incoming } from './incoming';
import { Monitor, type MonitorLine } from './monitor';
import { Companion } from './pair/companion';
import type { PairNews } from './pair/pairing';
import type { Arrival, Ports } from './ports';
import { changeBy, entryBy, entryFor, entryOf, type Played, type Start } from './running';
import { Sender } from './sender';
import { planStart, step } from './session';
import {
  FOR_AUDIENCE,
  NEW_SESSION,
  placeIn,
  type Input,
  type PracticeWay,
  type Remembered,
  type Session,
  type SessionEvent,
  type SongLoop,
} from './sessionState';
import type { PedalPoint, PedalRecording } from './tasks/record';
import { Tasks, type TaskNews } from './tasks/tasks';
import type { Lesson } from './tasks/teach';
import type { Walk } from './tasks/walk';

const NO_SEAM: readonly SeamLate[] = [];

/** Whoever drives the playback wakes it this often. */
export const WAKE_MILLIS = 8;
/** How often the screen gets the position. */
const NEWS_MICROS: Micros = 33_000;
/** The monitor gets its lines this often. */
const LINES_MICROS: Micros = 100_000;

/** The playback's state as screens see it: sent while it plays, and whenever the rig changes. */
export interface PlaybackNews extends TaskNews {
  readonly playing: boolean;
  readonly songId: string | null;
  /** A share of what is written; times are those of the song as it is written. */
  readonly speed: number;
  /** Whether what plays was counted in; and whether songs that are started will be, where they have a count-in. */
  readonly counted: boolean;
  readonly countsIn: boolean;
  /** The tempo of the clock that is followed, in quarter notes a minute. */
  readonly outside: number | null;
  /** Whether what comes from outside leads: time code, where the show has it come, or the clock of a song; and what arrives of the code. */
  readonly isLed: boolean;
  readonly code: CodeNews | null;
  readonly loop: SongLoop | null;
  /** Whether what plays comes round in it, or will. */
  readonly looping: boolean;
  /** Units that are not back when a round of the loop begins, the latest first. */
  readonly seam: readonly SeamLate[];
  /** The entry of the set that plays, or was gone to; that which was chosen to come next. */
  readonly entryId: string | null;
  readonly queued: string | null;
  /** The entry that begins by itself, and in how many seconds; null for none. */
  readonly following: { readonly entryId: string; readonly seconds: number } | null;
  readonly history: readonly Played[];
  /** The show that is on for an audience, by its id; null while it is rehearsed. */
  readonly night: string | null;
  /** Whether the last start can be taken back. */
  readonly canGoBack: boolean;
  /** Song time. */
  readonly place: Micros;
  /** While playing: the song time that was started from, and the clock time (from the epoch) of song time 0: of a loop, in its first round. */
  readonly from: Micros | null;
  readonly zero: Micros | null;
  readonly rig: RigState;
  /** Units that load a preset just now. */
  readonly loading: readonly string[];
  /** How the stand-ins of foot controllers stand; the page from which a switch was heard last, by controller. */
  readonly floors: readonly Floor[];
  readonly armed: Readonly<Record<string, string>>;
  /** Where the next start begins, where somebody said so. */
  readonly next: Session['next'];
  /** Units whose lanes are muted, and which are alone heard, as the playback has them. */
  readonly muted: readonly string[];
  readonly solo: readonly string[];
  /** The other computer of a pair; null where this one is alone. */
  readonly pair: PairNews | null;
}

/** Callbacks for the playback's output. */
export interface PlaybackEars {
  news?: (news: PlaybackNews) => void;
  lines?: (lines: readonly MonitorLine[]) => void;
  events?: (events: readonly SessionEvent[]) => void;
  /** What goes to the other computer of the pair. */
  peer?: (message: FromPeer) => void;
}

/** What a computer takes in that follows another one. */
const FOLLOWING: ReadonlySet<Input['kind']> = new Set(['show', 'port', 'ahead', 'mirror', 'take-over']);

/**
 * Carries out what the session says: hands its sends to the ports and to the assumed rig, notes
 * them, and tells the news. The only place that reads the clock.
 */
export class Playback {
  session: Session = NEW_SESSION;
  readonly ears: PlaybackEars = {};
  readonly sender: Sender;
  private readonly assumed: AssumedRig;
  private readonly monitor = new Monitor();
  private readonly incoming: Incoming;
  private readonly code = new CodeSender();
  private readonly tasks = new Tasks(() => (this.dirty = true));
  /** How stand-ins of foot controllers stand. */
  private floors: readonly Floor[] = [];
  /** This computer and the other one, where there are two of one show. */
  readonly pair: Companion;
  private lastPair = '';
  private lastNews = Number.NEGATIVE_INFINITY;
  private lastLines = Number.NEGATIVE_INFINITY;
  private dirty = true;
  /** Seconds that were told last until a song begins by itself. */
  private lastSeconds: number | null = null;

  constructor(
    readonly now: () => Micros,
    private readonly ports: Ports,
  ) {
    this.sender = new Sender(ports, this.monitor);
    this.assumed = this.sender.assumed;
    this.incoming = new Incoming({ now: () => this.assumed.state(), eventual: () => this.assumed.eventual() });
    this.pair = new Companion({
      now,
      sender: this.sender,
      session: () => this.session,
      give: (input) => void this.give(input),
      happened: (events) => this.happened(events),
      leadIsGone: () => this.tasks.songBegins(),
      say: (message) => this.ears.peer?.(message),
      wake: () => this.wake(),
    });
    ports.onArrival((arrival) => this.arrived(arrival));
  }

  private arrived(arrival: Arrival): void {
    this.monitor.note('in', arrival.portId, arrival.at, arrival.bytes);
    this.tasks.keep(arrival, this.session);
    const now = this.now();
    // Whoever follows knows what comes in, and does nothing of it.
    if (this.pair.follows) return void this.incoming.arrived(arrival, this.session, now, false);
    const transferred = this.tasks.transferHears(arrival, now, (a, asked) => this.isBeside(a, asked));
    this.carryOut(transferred ?? this.incoming.arrived(arrival, this.session, now, !this.isNoAnswer(arrival)));
  }

  show(show: Show): void {
    this.monitor.follow(show);
    this.sender.follow(show);
    this.give({ kind: 'show', show });
  }

  /** Plays a song from a place on, for an audience or as it is practised; of the set, where it stands in it. */
  play(songId: string, from: Ticks, entryId: string | null = null, way: PracticeWay = FOR_AUDIENCE): void {
    this.takeLead();
    this.begin(songId, from, { entryId: entryId ?? entryFor(this.session, songId), way });
    this.wake();
  }

  /** Starts a song from a place on as soon as can be, or at a clock time; for an audience, unless it says otherwise. */
  begin(
    songId: string,
    from: Ticks,
    rest: { entryId: string | null; how?: Start; at?: Micros | null; way?: PracticeWay },
  ): void {
    if (this.pair.follows) return;
    this.assumed.advance(this.now());
    const input = planStart(this.session, songId, from, this.assumed.eventual(), { way: FOR_AUDIENCE, ...rest });
    if (!input) return;
    this.tasks.songBegins();
    this.give(input);
  }

  /** The rig goes to a place of a song; nothing runs. */
  select(songId: string, place: Ticks, entryId: string | null = null): void {
    this.give({ kind: 'select', songId, place, entryId: entryId ?? entryFor(this.session, songId) });
    this.wake();
  }

  /** To the next song of the set, or the one before: what runs goes on with it, what stands only goes there. */
  goSong(by: 1 | -1): void {
    this.takeLead();
    const { show, entryId, queued, transport } = this.session;
    const chosen = show && by > 0 && queued !== null ? entryOf(show, queued) : undefined;
    const entry = chosen ?? (show ? entryBy(show, entryId, by) : undefined);
    if (!entry) return;
    if (transport.kind === 'playing') this.begin(entry.songId, 0, { entryId: entry.id });
    else this.give({ kind: 'select', songId: entry.songId, place: 0, entryId: entry.id });
    this.wake();
  }

  /** Another song comes next, the one behind what was chosen or before it; what is on stays. Back at what is on, none is chosen. */
  chooseSong(by: 1 | -1): void {
    const { show, entryId, queued } = this.session;
    const entry = show && entryBy(show, queued ?? entryId, by);
    if (entry) this.queue(entry.id === entryId ? null : entry.id);
  }

  /** To the next change of the song, or the one before; it leaves the song only behind its last change, where the set runs on. */
  goChange(by: 1 | -1): void {
    const { show, song, transport, entryId } = this.session;
    if (!show || !song) return;
    this.takeLead();
    const here = ticksAt(songTime(song), placeIn(this.session, this.now()).place);
    const place = changeBy(show, song, here, by);
    // A song that is played beside the set has none to go on to.
    if (by > 0 && place <= here + 1 && entryOf(show, entryId) && setOf(show).runsOn) {
      this.goSong(1);
      return;
    }
    const { speed, loop } = this.session;
    // It is the same song, and goes on as it is played.
    if (transport.kind === 'playing') this.begin(song.id, place, { entryId, way: { speed, loop } });
    else this.give({ kind: 'select', songId: song.id, place, entryId });
    this.wake();
  }

  /** The next start of whoever asks for one begins there; the rig is not brought there before. */
  stand(songId: string, place: Ticks): void {
    this.give({ kind: 'stand', songId, place, entryId: entryFor(this.session, songId) });
  }

  queue(entryId: string | null): void {
    this.give({ kind: 'queue', entryId });
    this.dirty = true;
    this.wake();
  }

  back(): void {
    this.takeLead();
    this.give({ kind: 'back' });
    this.dirty = true;
    this.wake();
  }

  /** The rig goes to a tone at once. */
  tone(toneId: string): void {
    this.give({ kind: 'tone', toneId });
    this.carryOut(this.incoming.toneCame(this.session, toneId));
    this.wake();
  }

  panic(): void {
    this.give({ kind: 'panic' });
    this.wake();
  }

  stop(): void {
    this.takeLead();
    this.give({ kind: 'stop' });
    this.wake();
  }

  /** Whoever goes elsewhere by hand leads: time code that runs would have the song back at once. */
  private takeLead(): void {
    const { session, incoming } = this;
    if (session.isLed && session.show?.timeCode.portId && incoming.code.isRunning(this.now())) this.beLed(false);
  }

  /** Whether what comes from outside leads: time code, where the show has it come, or the clock of a song. */
  beLed(on: boolean): void {
    this.incoming.code.letGo();
    this.give({ kind: 'be-led', on });
    this.dirty = true;
  }

  /** The show begins for its audience, by its id, with what was played in it; null: it is over. */
  night(id: string | null, history: readonly Played[]): void {
    this.give({ kind: 'night', id, history });
    this.dirty = true;
    this.wake();
  }

  /** A session that was ended by a crash is there again; nothing is sent. */
  remember(remembered: Remembered): void {
    this.give({ kind: 'remember', remembered });
    this.dirty = true;
    this.wake();
  }

  /** A share of what is written, for what plays and what will. */
  speed(speed: number): void {
    this.takeLead();
    this.give({ kind: 'speed', speed });
    this.dirty = true;
    this.wake();
  }

  /** Whether songs that are started from now on are counted in. */
  countIn(on: boolean): void {
    this.give({ kind: 'count-in', on });
    this.dirty = true;
  }

  loop(loop: SongLoop | null): void {
    this.takeLead();
    this.give({ kind: 'loop', loop });
    this.dirty = true;
    this.wake();
  }

  lanes(muted: readonly string[], solo: readonly string[]): void {
    this.give({ kind: 'lanes', muted: new Set(muted), solo: new Set(solo) });
  }

  /** How far ahead messages are handed over from now on. */
  ahead(ahead: Micros): void {
    this.give({ kind: 'ahead', ahead });
  }

  /** A port was connected or disconnected. Units on a disconnected one are not known any more. */
  port(portId: string, there: boolean): void {
    const { show } = this.session;
    if (!there) this.assumed.lose(portId);
    if (!there && show) {
      this.assumed.forget(new Set(show.units.filter((u) => routeTo(show, u)?.portId === portId).map((u) => u.id)));
    }
    this.give({ kind: 'port', portId, there });
  }

  /** Whether what arrives is only listened to, and does nothing. */
  listenOnly(on: boolean): void {
    this.incoming.listenOnly = on;
  }

  /** Sends a message as it stands, now. */
  send(portId: string, bytes: Bytes): void {
    const now = this.now();
    this.sender.send({ portId, at: now, bytes }, now);
  }

  audition(unitId: string, aim: UnitAim): readonly TimedBytes[] {
    return this.give({ kind: 'audition', unitId, aim });
  }

  walk(walk: Walk): void {
    this.tasks.walk(walk, this.now());
    this.wake();
  }

  stopWalk(): void {
    this.tasks.stopWalk();
  }

  /** The unit waits to learn: it does not obey what it takes in. */
  teach(lesson: Lesson): void {
    this.tasks.teach(lesson, this.now());
    this.assumed.waitToLearn(lesson.unitId);
    this.wake();
  }

  /** A unit said what it took in. */
  learnt(bytes: Bytes): void {
    this.tasks.learnt(bytes);
  }

  stopTeaching(): void {
    this.tasks.stopTeaching();
  }

  /** Programs a controller with a memory, or reads what it has. False where no cable leads there and back. */
  transfer(unitId: string, errand: Errand): boolean {
    const commands = this.tasks.transfer(this.session, unitId, errand, this.now());
    this.carryOut(commands ?? []);
    return commands !== null;
  }

  /** Ends a transfer where it is; one that is over is forgotten. */
  stopTransfer(): void {
    this.carryOut(this.tasks.stopTransfer(this.now()));
  }

  /** Whether a stand-in answers a question that was asked of real ports: then only their units' answers count. */
  private isBeside({ isStandIn = false }: Arrival, asked: readonly string[]): boolean {
    return isStandIn && asked.length > 0 && asked.every((id) => this.ports.isReal(id));
  }

  /** Whether what arrives as the answer of a unit is one that the units that lead back to its port were not asked for. */
  private isNoAnswer(arrival: Arrival): boolean {
    const { show } = this.session;
    const units = show?.units.filter((u) => u.returns?.portId === arrival.portId) ?? [];
    return this.isBeside(
      arrival,
      units.flatMap((u) => (show && routeTo(show, u)?.portId) ?? []),
    );
  }

  /** How stand-ins of foot controllers stand now. */
  floorsAre(floors: readonly Floor[]): void {
    if (JSON.stringify(floors) === JSON.stringify(this.floors)) return;
    this.floors = floors;
    this.dirty = true;
  }

  /** A unit was seen to send bytes of its own to what hangs behind it. */
  played(unitId: string, messages: readonly Bytes[]): void {
    this.assumed.play(unitId, this.now(), messages);
  }

  record(what: PedalRecording | null): void {
    this.tasks.record(what);
  }

  recorded(): readonly PedalPoint[] {
    return this.tasks.recorded();
  }

  /** Lets time come to now. Called every few milliseconds. */
  wake(): void {
    this.pair.wake();
    if (this.pair.follows) {
      this.assumed.advance(this.now());
      return this.tell(this.now());
    }
    this.give({ kind: 'wake' });
    const { show, following } = this.session;
    const next = following && show ? entryOf(show, following.entryId) : undefined;
    if (next && following) this.begin(next.songId, 0, { entryId: next.id, how: 'follows', at: following.at });
    const now = this.now();
    this.carryOut(this.incoming.followClock(this.session, now));
    this.carryOut(this.incoming.followCode(this.session, now));
    this.carryOut(this.incoming.reactLater(this.session, now));
    this.carryOut(this.incoming.restoreAtTone(this.session, now));
    this.carryOut(this.tasks.wake(this.session, now));
    for (const { portId, at, bytes } of this.code.take(this.session, now, now + this.session.ahead)) {
      this.sender.sendBeside(portId, at, bytes, now);
    }
    this.assumed.advance(now);
    this.tell(now);
  }

  /** Tells that something happened. */
  happened(events: readonly SessionEvent[]): void {
    this.dirty = true;
    this.ears.events?.(events);
  }

  private carryOut(commands: readonly Command[]): void {
    if (this.pair.follows) return;
    for (const command of commands) this.carryOutOne(command);
  }

  private carryOutOne(command: Command): void {
    switch (command.kind) {
      case 'input':
        this.give(command.input);
        break;
      case 'begin':
        return this.begin(command.songId, command.from, command);
      case 'play':
        return this.play(command.songId, command.from, command.entryId);
      case 'select':
        return this.select(command.songId, command.place, command.entryId);
      case 'queue':
        return this.queue(command.entryId);
      case 'go-song':
        return this.goSong(command.by);
      case 'choose-song':
        return this.chooseSong(command.by);
      case 'go-change':
        return this.goChange(command.by);
      case 'tone':
        return this.tone(command.toneId);
      case 'back':
        return this.back();
      case 'stop':
        return this.stop();
      case 'panic':
        return this.panic();
      case 'send':
        return this.send(command.portId, command.bytes);
      case 'pass-on': {
        const { portId, bytes } = command;
        if (this.sender.passOn(portId, bytes, this.now())) this.happened([{ kind: 'flooded', portId }]);
        break;
      }
      case 'report':
        return this.happened(command.events);
      case 'act':
        // What came before it may have changed the session.
        this.carryOut(commandsOf(command.act, this.session, this.now()));
    }
  }

  /** Gives the session an input, and sends what it says. */
  private give(input: Input): readonly TimedBytes[] {
    if (this.pair.follows && !FOLLOWING.has(input.kind)) return [];
    const now = this.now();
    this.assumed.advance(now);
    const { session, sends, events } = step(this.session, input, this.sender.moment(now));
    const stands = session.transport.kind !== 'playing';
    // A standing session is news when it moves, even where nothing has to be sent for that.
    if (session.transport.kind !== this.session.transport.kind || (stands && session !== this.session))
      this.dirty = true;
    this.session = session;
    const playing = session.transport.kind === 'playing' ? session.song?.id : undefined;
    const sent = sends.map((e) => this.sender.send(e, now, playing));
    if (events.length > 0) this.happened(events);
    return sent;
  }

  private tell(now: Micros): void {
    const { ears } = this;
    if (ears.lines && now - this.lastLines >= LINES_MICROS) {
      const lines = this.monitor.take();
      this.lastLines = now;
      if (lines.length > 0) ears.lines(lines);
    }
    const { transport, song, speed, counted, countsIn, outside, loop, entryId, queued, history, night, before } =
      this.session;
    const playing = transport.kind === 'playing';
    if (this.assumed.news()) this.dirty = true;
    const follows = this.session.following;
    const seconds = follows && Math.max(0, Math.ceil((follows.at - now) / 1e6));
    if (seconds !== this.lastSeconds) this.dirty = true;
    this.lastSeconds = seconds;
    const pair = this.pair.news();
    const pairText = JSON.stringify(pair);
    if (pairText !== this.lastPair) this.dirty = true;
    this.lastPair = pairText;
    if (!ears.news || !(this.dirty || (playing && now - this.lastNews >= NEWS_MICROS))) return;
    this.dirty = false;
    this.lastNews = now;
    ears.news({
      playing,
      songId: song?.id ?? null,
      speed,
      counted,
      countsIn,
      outside: song?.followsPortId === null ? null : outside,
      isLed: this.session.isLed,
      code: this.incoming.code.news(now),
      loop,
      entryId,
      queued,
      following: follows && { entryId: follows.entryId, seconds: seconds! },
      history,
      night,
      canGoBack: before !== null,
      looping: transport.kind === 'playing' && transport.line.round !== undefined,
      seam: (transport.kind === 'playing' && transport.line.round?.seam) || NO_SEAM,
      ...placeIn(this.session, now),
      zero: playing ? transport.zero : null,
      rig: this.assumed.state(),
      loading: this.assumed.loading(now),
      floors: this.floors,
      armed: Object.fromEntries(this.incoming.armed),
      next: this.session.next,
      muted: [...this.session.muted],
      solo: [...this.session.solo],
      pair,
      ...this.tasks.news(),
    });
  }
}
