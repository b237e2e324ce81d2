import { decodeValue, valueRange } from '../core/addressing';
import type { UnitAim } from '../core/rig';
import { audition, catchUp, playLine, stateAt } from '../core/compile';
import { channelOf, decodeMessage, type Bytes, type TimedBytes } from '../core/midi';
import { indexShow, microsAt, songTime } from '../core/show';
import { rigSpec, routeTo } from '../core/meaning';
import { soundLine } from '../core/sound';
import { microsToSeconds, millisToMicros, secondsToTicks, type Micros, type Ticks } from '../core/time';
import { Monitor, STOPPED, StandIns, placeOf, play, step, stop, type MonitorLine, type Transport } from '../playback';
import type { Lesson, PedalPoint, PedalRecording, PlaybackNews, PlaybackWorker, ShowUpdate, Walk } from './protocol';
import { ShowMirror } from './showMirror';

/** How far ahead messages are handed over; the playback wakes more often than that. */
const LOOK_AHEAD: Micros = 25_000;
const WAKE_MILLIS = 8;
/** The screen hears of the place this often. */
const NEWS_MICROS: Micros = 33_000;
/** The monitor gets its lines this often. */
const LINES_MICROS: Micros = 100_000;
/** A lesson is repeated this often. */
const LESSON_MICROS: Micros = 400_000;

/** What the playback needs of the machine: the time, and to be woken. */
export interface Clock {
  readonly now: () => Micros;
  readonly every: (millis: number, run: () => void) => void;
}

interface Walking extends Walk {
  readonly at: number;
  readonly next: Micros;
}

interface Teaching extends Lesson {
  readonly sent: number;
  readonly learnt: Bytes | null;
  /** Infinity once it is learnt. */
  readonly next: Micros;
}

/** Plays songs to a rig of stand-ins, which obeys the bytes alone. */
export class StandInPlayback implements PlaybackWorker {
  private readonly mirror = new ShowMirror();
  private readonly monitor = new Monitor();
  private readonly ports: StandIns;
  private recording: PedalRecording | null = null;
  private kept: PedalPoint[] = [];
  private ready = false;
  private hushed: ReadonlySet<string> = new Set();
  private transport: Transport = STOPPED;
  private songId: string | null = null;
  private walking: Walking | null = null;
  private teaching: Teaching | null = null;
  private onNews: ((news: PlaybackNews) => void) | undefined;
  private onLines: ((lines: readonly MonitorLine[]) => void) | undefined;
  private lastNews = Number.NEGATIVE_INFINITY;
  private lastLines = Number.NEGATIVE_INFINITY;
  private dirty = true;

  constructor(private readonly clock: Clock) {
    this.ports = new StandIns(() => {
      this.dirty = true;
    });
    this.ports.onArrival(({ portId, at, bytes }) => {
      this.monitor.note('in', portId, at, bytes);
      this.keep(portId, at, bytes);
    });
    clock.every(WAKE_MILLIS, () => this.wake());
  }

  update(update: ShowUpdate): void {
    this.mirror.update(update);
    this.monitor.follow(this.mirror.show);
    this.ports.follow(rigSpec(this.mirror.show));
    this.ready = true;
  }

  listen(onNews: (news: PlaybackNews) => void): void {
    this.onNews = onNews;
    this.dirty = true;
  }

  watch(onLines: (lines: readonly MonitorLine[]) => void): void {
    this.onLines = onLines;
  }

  play(songId: string, from: Ticks): void {
    const song = this.ready ? this.mirror.song(songId) : undefined;
    if (!song) return;
    this.walking = null;
    this.teaching = null;
    const now = this.clock.now();
    this.ports.advance(now);
    this.songId = songId;
    // What is heard ahead of the place, a count-in or an announcement, needs its time too.
    const lead = microsAt(songTime(song), from) - soundLine(song, from).start;
    const { show } = this.mirror;
    this.sendAtStop(now);
    this.transport = play(playLine(show, song, from, this.ports.state(), undefined, lead), now);
    this.dirty = true;
    this.wake();
  }

  stop(): void {
    this.sendAtStop(this.clock.now());
    this.transport = stop(this.transport, this.clock.now());
    this.dirty = true;
    this.wake();
  }

  hush(unitIds: readonly string[]): void {
    const before = this.hushed;
    this.hushed = new Set(unitIds);
    if (this.transport.kind !== 'playing' || this.songId === null) return;
    const back = [...before].filter((id) => !this.hushed.has(id));
    if (back.length > 0) this.catchUpNow(back);
  }

  /** Brings units that were sent nothing to where the song is now. */
  private catchUpNow(unitIds: readonly string[]): void {
    const song = this.songId === null ? undefined : this.mirror.song(this.songId);
    if (!song) return;
    const now = this.clock.now();
    this.ports.advance(now);
    const { show } = this.mirror;
    const at = secondsToTicks(songTime(song).tempo, microsToSeconds(Math.max(0, placeOf(this.transport, now))));
    const wanted = stateAt(show, song, at);
    const only = Object.fromEntries(unitIds.flatMap((id) => (wanted[id] ? [[id, wanted[id]]] : [])));
    for (const e of catchUp(show, this.ports.state(), only).events) this.send(e.portId, e.at + now, e.bytes);
  }

  audition(unitId: string, aim: UnitAim): readonly TimedBytes[] {
    if (!this.ready) return [];
    const now = this.clock.now();
    this.ports.advance(now);
    const { events } = audition(this.mirror.show, unitId, aim, this.ports.state());
    const sent = events.map((e) => ({ ...e, at: e.at + now }));
    for (const e of sent) this.send(e.portId, e.at, e.bytes);
    return sent;
  }

  walk(walk: Walk): void {
    if (walk.aims.length === 0) return;
    this.walking = { ...walk, at: -1, next: this.clock.now() };
    this.wake();
  }

  stopWalk(): void {
    this.walking = null;
    this.dirty = true;
  }

  teach(lesson: Lesson): void {
    this.teaching = { ...lesson, sent: 0, learnt: null, next: this.clock.now() };
    this.ports.waitToLearn(lesson.unitId, (bytes) => {
      if (this.teaching) this.teaching = { ...this.teaching, learnt: bytes, next: Number.POSITIVE_INFINITY };
    });
    this.wake();
  }

  stopTeaching(): void {
    this.teaching = null;
    this.dirty = true;
  }

  touch(unitId: string, senderId: string, value: number): void {
    this.ports.touch(unitId, senderId, value, this.clock.now());
    this.wake();
  }

  private sendAtStop(now: Micros): void {
    if (this.transport.kind !== 'playing') return;
    for (const { portId, bytes } of this.transport.line.atStop) this.send(portId, now, bytes);
  }

  record(what: PedalRecording | null): void {
    this.recording = what;
    if (what) this.kept = [];
  }

  recorded(): readonly PedalPoint[] {
    return this.kept;
  }

  /** Keeps where the pedal is that is recorded, if this is from it. */
  private keep(portId: string, at: Micros, bytes: Bytes): void {
    if (!this.recording || this.transport.kind !== 'playing') return;
    const unit = indexShow(this.mirror.show).units.get(this.recording.unitId);
    const sender = unit?.profile.senders.find((s) => s.id === this.recording?.senderId);
    const message = decodeMessage(bytes);
    if (!sender || unit?.returns?.portId !== portId || !message || channelOf(bytes) !== sender.channel) return;
    const value = decodeValue(sender.encoding, message);
    if (typeof value !== 'number') return;
    const { low, high } = valueRange(sender.encoding);
    this.kept.push({ at: at - this.transport.zero, share: (value - low) / (high - low || 1) });
  }

  private send(portId: string, at: Micros, bytes: Bytes): void {
    this.monitor.note('out', portId, at, bytes);
    this.ports.send(portId, at, bytes);
  }

  private wake(): void {
    const now = this.clock.now();
    const { transport, due } = step(this.transport, now, now + LOOK_AHEAD);
    if (transport.kind !== this.transport.kind) this.dirty = true;
    this.transport = transport;
    for (const e of due) if (!this.hushed.has(e.unitId)) this.send(e.portId, e.at, e.bytes);
    this.goOnWalking(now);
    this.goOnTeaching(now);
    this.ports.advance(now);
    this.tell(now);
  }

  private goOnWalking(now: Micros): void {
    const { walking } = this;
    if (!walking || now < walking.next) return;
    const at = walking.at + 1;
    const aim = walking.aims[at];
    this.dirty = true;
    if (!aim) {
      this.walking = null;
      return;
    }
    this.walking = { ...walking, at, next: now + millisToMicros(walking.everyMillis) };
    this.audition(walking.unitId, aim);
  }

  private goOnTeaching(now: Micros): void {
    const { teaching } = this;
    if (!teaching || now < teaching.next) return;
    const unit = indexShow(this.mirror.show).units.get(teaching.unitId);
    const route = unit && routeTo(this.mirror.show, unit);
    for (const bytes of teaching.messages) if (route) this.send(route.portId, now, bytes);
    this.teaching = { ...teaching, sent: teaching.sent + 1, next: now + LESSON_MICROS };
    this.dirty = true;
  }

  private tell(now: Micros): void {
    if (this.onLines && now - this.lastLines >= LINES_MICROS) {
      const lines = this.monitor.take();
      this.lastLines = now;
      if (lines.length > 0) this.onLines(lines);
    }
    const playing = this.transport.kind === 'playing';
    if (!this.onNews || !(this.dirty || (playing && now - this.lastNews >= NEWS_MICROS))) return;
    const rig = this.ports.state();
    const { walking, teaching } = this;
    this.dirty = false;
    this.lastNews = now;
    this.onNews({
      playing,
      songId: this.songId,
      place: placeOf(this.transport, now),
      from: this.transport.kind === 'playing' ? this.transport.line.place : null,
      zero: this.transport.kind === 'playing' ? this.transport.zero : null,
      rig,
      loading: Object.keys(rig).filter((id) => this.ports.loading(id, now)),
      walk: walking && { unitId: walking.unitId, at: walking.at, count: walking.aims.length },
      lesson: teaching && { unitId: teaching.unitId, sent: teaching.sent, learnt: teaching.learnt },
    });
  }
}
