import type { Errand } from '../core/feet';
import type { UnitAim } from '../core/rig';
import { fromPeerSchema, readLine, type FromPeer } from '../core/formats/line';
import { rigSpec, routeTo } from '../core/meaning';
import type { Bytes, TimedBytes } from '../core/midi';
import type { Micros, Ticks } from '../core/time';
import { tonightOf } from '../core/tonight';
import {
  BoundPorts,
  FAR_AHEAD,
  FOR_AUDIENCE,
  LOOK_AHEAD,
  Playback,
  REAL_AHEAD,
  StandIns,
  WAKE_MILLIS,
  type FootFaults,
  type FootTouch,
  type Lesson,
  type MonitorLine,
  type Outgoing,
  type BoxTurn,
  type PairSeat,
  type PedalPoint,
  type PedalRecording,
  type PlaybackNews,
  type Played,
  type PracticeWay,
  type Remembered,
  type SessionEvent,
  type SongLoop,
  type Walk,
  type MachineAct,
} from '../playback';
import type { PlaybackWorker, PortBinding, ShowUpdate } from './protocol';
import { ShowMirror } from './showMirror';

/** What the playback needs of the machine: the time, and to be woken. */
export interface Clock {
  readonly now: () => Micros;
  readonly every: (millis: number, run: () => void) => void;
}

/**
 * Tells something again and again, the next time when it was taken the last time: a page that is busy gets the
 * newest, and no queue behind which bytes for its ports would wait.
 */
export function paced<T>(tell: (what: T) => unknown): (what: T) => void {
  let isUnderWay = false;
  let next: { readonly what: T } | undefined;
  const go = (what: T): void => {
    const taken = tell(what);
    if (!(taken instanceof Promise)) return;
    isUnderWay = true;
    const done = (): void => {
      isUnderWay = false;
      const waiting = next;
      next = undefined;
      if (waiting) go(waiting.what);
    };
    taken.then(done, done);
  };
  return (what) => {
    if (isUnderWay) next = { what };
    else go(what);
  };
}

/** The playback in its worker, with stand-ins on its ports. */
export class PlaybackHost implements PlaybackWorker {
  private readonly mirror = new ShowMirror();
  private readonly standIns = new StandIns(
    (unitId, messages) => this.playback.played(unitId, messages),
    (unitId, bytes) => this.stored(unitId, bytes),
  );
  private readonly ports = new BoundPorts(this.standIns, undefined, (run) => queueMicrotask(run));
  private readonly playback: Playback;
  /** The page is slow to take what is handed over, or may be. */
  private isUnsteady = false;
  private isPaired = false;

  constructor(private readonly clock: Clock) {
    this.playback = new Playback(clock.now, this.ports);
    clock.every(WAKE_MILLIS, () => this.wake());
  }

  /** A stand-in holds other pages now. Beside a real controller that says nothing of what this one holds. */
  private readonly stored = (unitId: string, bytes: Bytes): void => {
    const { show } = this.mirror;
    const unit = show.units.find((u) => u.id === unitId);
    const route = unit && routeTo(show, unit);
    if (route && this.ports.isReal(route.portId)) return;
    this.playback.happened([{ kind: 'foot-stored', unitId, bytes }]);
  };

  update(update: ShowUpdate): void {
    this.mirror.update(update);
    const tonight = tonightOf(this.mirror.show);
    this.standIns.follow(rigSpec(tonight));
    this.playback.show(tonight);
  }

  listen(
    onNews: (news: PlaybackNews) => void,
    onLines: (lines: readonly MonitorLine[]) => void,
    onEvents: (events: readonly SessionEvent[]) => void,
    onOut: (batch: readonly Outgoing[], from: Micros) => void,
    onPeer: (message: FromPeer) => void,
  ): void {
    Object.assign(this.playback.ears, { news: paced(onNews), lines: onLines, events: onEvents, peer: onPeer });
    this.ports.handOver = (batch) => onOut(batch, this.clock.now());
  }

  now(): Micros {
    return this.clock.now();
  }

  bindPorts(bindings: readonly PortBinding[]): void {
    this.ports.bind(new Map(bindings.map((b) => [b.portId, b])));
    this.setAhead();
  }

  unsteady(is: boolean): void {
    this.isUnsteady = is;
    this.setAhead();
  }

  private readonly setAhead = (): void => {
    // Of two computers the one that leads may have to fall silent: what it has handed over by then still leaves.
    const far = this.isUnsteady && !this.isPaired;
    this.playback.ahead(!this.ports.anyReal ? LOOK_AHEAD : far ? FAR_AHEAD : REAL_AHEAD);
  };

  pair(seat: PairSeat | null): void {
    this.isPaired = seat !== null;
    this.setAhead();
    this.playback.pair.sit(seat);
  }

  turnsBox(box: BoxTurn | null): void {
    this.playback.pair.turnsBox(box);
  }

  pairRoad(road: 'cut' | 'gone' | 'open'): void {
    this.playback.pair.road(road);
  }

  pairAwake(is: boolean): void {
    this.playback.pair.awake(is);
  }

  pairHears(text: string): void {
    const message = readLine(fromPeerSchema, text);
    if (message) this.playback.pair.hears(message);
  }

  lead(): void {
    this.playback.pair.lead();
  }

  port(portId: string, there: boolean): void {
    this.playback.port(portId, there);
  }

  arrived(batch: readonly Outgoing[]): void {
    // Until now the stand-ins come first: what arrives may be passed on to them.
    this.wake();
    for (const { portId, at, bytes } of batch) this.ports.arrive(portId, at, bytes);
    this.wake();
  }

  send(portId: string, bytes: Bytes): void {
    this.playback.send(portId, bytes);
    this.wake();
  }

  listenOnly(on: boolean): void {
    this.playback.listenOnly(on);
  }

  standInClock(portId: string, bpm: number | null): void {
    this.standIns.clock(portId, bpm, this.clock.now());
  }

  standInMachine(portId: string, act: MachineAct): void {
    this.standIns.machine(portId, act, this.clock.now());
  }

  beLed(on: boolean): void {
    this.playback.beLed(on);
    this.wake();
  }

  stand(songId: string, place: Ticks): void {
    this.playback.stand(songId, place);
  }

  audience(id: string | null, history: readonly Played[]): void {
    this.playback.night(id, history);
  }

  remember(remembered: Remembered): void {
    this.playback.remember(remembered);
  }

  play(songId: string, from: Ticks, entryId: string | null = null, way: PracticeWay | null = null): void {
    this.playback.play(songId, from, entryId, way ?? FOR_AUDIENCE);
  }

  select(songId: string, place: Ticks, entryId: string | null = null): void {
    this.playback.select(songId, place, entryId);
  }

  goSong(by: 1 | -1): void {
    this.playback.goSong(by);
  }

  chooseSong(by: 1 | -1): void {
    this.playback.chooseSong(by);
  }

  goChange(by: 1 | -1): void {
    this.playback.goChange(by);
  }

  queue(entryId: string | null): void {
    this.playback.queue(entryId);
  }

  back(): void {
    this.playback.back();
  }

  tone(toneId: string): void {
    this.playback.tone(toneId);
  }

  panic(): void {
    this.playback.panic();
  }

  stop(): void {
    this.playback.stop();
  }

  speed(speed: number): void {
    this.playback.speed(speed);
  }

  countIn(on: boolean): void {
    this.playback.countIn(on);
  }

  loop(loop: SongLoop | null): void {
    this.playback.loop(loop);
  }

  lanes(muted: readonly string[], solo: readonly string[]): void {
    this.playback.lanes(muted, solo);
  }

  audition(unitId: string, aim: UnitAim): readonly TimedBytes[] {
    return this.playback.audition(unitId, aim);
  }

  walk(walk: Walk): void {
    this.playback.walk(walk);
  }

  stopWalk(): void {
    this.playback.stopWalk();
  }

  teach(lesson: Lesson): void {
    this.standIns.waitToLearn(lesson.unitId, (bytes) => this.playback.learnt(bytes));
    this.playback.teach(lesson);
  }

  stopTeaching(): void {
    this.playback.stopTeaching();
  }

  touch(unitId: string, senderId: string, value: number): void {
    this.standIns.touch(unitId, senderId, value, this.clock.now());
    this.wake();
  }

  foot(unitId: string, touch: FootTouch): void {
    this.standIns.feet.touch(unitId, touch, this.clock.now());
    this.wake();
  }

  playOut(unitId: string, messages: readonly Bytes[]): void {
    this.standIns.playOut(unitId, messages, this.clock.now());
    this.wake();
  }

  loadFoot(unitId: string, bytes: Bytes | null): void {
    if (bytes) this.standIns.feet.load(unitId, bytes);
    else this.standIns.feet.clear(unitId);
    this.wake();
  }

  footFaults(unitId: string, faults: FootFaults | null): void {
    this.standIns.feet.misbehave(unitId, faults);
  }

  transfer(unitId: string, errand: Errand): boolean {
    const begun = this.playback.transfer(unitId, errand);
    this.wake();
    return begun;
  }

  stopTransfer(): void {
    this.playback.stopTransfer();
    this.wake();
  }

  record(what: PedalRecording | null): void {
    this.playback.record(what);
  }

  recorded(): readonly PedalPoint[] {
    return this.playback.recorded();
  }

  private wake(): void {
    this.standIns.advance(this.clock.now());
    this.playback.floorsAre(this.standIns.feet.floors());
    this.playback.wake();
    this.standIns.advance(this.clock.now());
  }
}
