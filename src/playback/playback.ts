import type { Bytes, TimedBytes } from '../core/midi';
import type { RigState, UnitAim } from '../core/rig';
import { rigSpec, routeTo } from '../core/meaning';
import { indexShow, songEntries, songTime, ticksAt, type Show } from '../core/show';
import type { Micros, Ticks } from '../core/time';
import { AssumedRig } from './assumedRig';
import { Cables } from './cables';
import { Monitor, type MonitorLine } from './monitor';
import { launchedBy } from './launch';
import type { Ports } from './ports';
import { changeBy, entryBy, entryOf, type Played, type Start } from './running';
import {
  NEW_SESSION,
  placeIn,
  planStart,
  step,
  type Input,
  type Session,
  type SessionEvent,
  type SongLoop,
} from './session';
import { pedalPoint, type PedalPoint, type PedalRecording } from './tasks/record';
import { learnt, startLesson, teachOn, type Lesson, type Teaching } from './tasks/teach';
import { startWalk, walkOn, type Walk, type Walking } from './tasks/walk';

/** Whoever drives the playback wakes it this often. */
export const WAKE_MILLIS = 8;
/** The screen hears of the place this often. */
const NEWS_MICROS: Micros = 33_000;
/** The monitor gets its lines this often. */
const LINES_MICROS: Micros = 100_000;

/** What the playback tells while it plays, and whenever the rig changes. */
export interface PlaybackNews {
  readonly playing: boolean;
  readonly songId: string | null;
  /** A share of what is written; times are those of the song as it is written. */
  readonly speed: number;
  readonly loop: SongLoop | null;
  /** Whether what plays comes round in it, or will. */
  readonly looping: boolean;
  /** The entry of the set that plays, or was gone to; that which was chosen to come next. */
  readonly entryId: string | null;
  readonly queued: string | null;
  readonly history: readonly Played[];
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
  /** Where a walk is: the aim that was sent last, counted from 0. */
  readonly walk: { readonly unitId: string; readonly at: number; readonly count: number } | null;
  /** How often a lesson was sent, and what the unit took in. */
  readonly lesson: { readonly unitId: string; readonly sent: number; readonly learnt: Bytes | null } | null;
}

/** Where the playback tells what it has to say. */
export interface PlaybackEars {
  news?: (news: PlaybackNews) => void;
  lines?: (lines: readonly MonitorLine[]) => void;
  events?: (events: readonly SessionEvent[]) => void;
}

/**
 * Carries out what the session says: hands its sends to the ports and to the assumed rig, notes
 * them, and tells the news. The only place that reads the clock.
 */
export class Playback {
  session: Session = NEW_SESSION;
  readonly ears: PlaybackEars = {};
  private readonly assumed = new AssumedRig();
  private readonly monitor = new Monitor();
  private readonly cables = new Cables();
  /** Until when something is on its way to units, by their id; '' for what is for none. */
  private readonly until = new Map<string, Micros>();
  private walking: Walking | null = null;
  private teaching: Teaching | null = null;
  private recording: PedalRecording | null = null;
  private kept: PedalPoint[] = [];
  private lastNews = Number.NEGATIVE_INFINITY;
  private lastLines = Number.NEGATIVE_INFINITY;
  private dirty = true;

  constructor(
    private readonly now: () => Micros,
    private readonly ports: Ports,
  ) {
    ports.onArrival((arrival) => {
      const { portId, at, bytes } = arrival;
      this.monitor.note('in', portId, at, bytes);
      this.launch(portId, bytes);
      const { show, transport } = this.session;
      if (!this.recording || !show || transport.kind !== 'playing') return;
      const point = pedalPoint(show, this.recording, arrival, placeIn(this.session, at).place);
      if (point) this.kept.push(point);
    });
  }

  show(show: Show): void {
    this.monitor.follow(show);
    const spec = rigSpec(show);
    this.assumed.follow(spec);
    this.cables.follow(spec);
    this.give({ kind: 'show', show });
  }

  /** Plays a song from a place on; of the set, where it stands in it. */
  play(songId: string, from: Ticks, entryId: string | null = null): void {
    this.begin(songId, from, { entryId: entryId ?? this.entryFor(songId) });
    this.wake();
  }

  private begin(songId: string, from: Ticks, rest: { entryId: string | null; how?: Start; at?: Micros | null }): void {
    this.assumed.advance(this.now());
    const input = planStart(this.session, songId, from, this.assumed.coming(), rest);
    if (!input) return;
    this.walking = null;
    this.teaching = null;
    this.give(input);
  }

  /** Where a song stands in the set: where the session is, if that is it. */
  private entryFor(songId: string): string | null {
    const { show, entryId } = this.session;
    if (!show) return null;
    if (entryOf(show, entryId)?.songId === songId) return entryId;
    return songEntries(show).find((e) => e.songId === songId)?.id ?? null;
  }

  /** The rig goes to a place of a song; nothing runs. */
  select(songId: string, place: Ticks, entryId: string | null = null): void {
    this.give({ kind: 'select', songId, place, entryId: entryId ?? this.entryFor(songId) });
    this.wake();
  }

  /** To the next song of the set, or the one before: what runs goes on with it, what stands only goes there. */
  goSong(by: 1 | -1): void {
    const { show, entryId, queued, transport } = this.session;
    const chosen = show && by > 0 && queued !== null ? entryOf(show, queued) : undefined;
    const entry = chosen ?? (show ? entryBy(show, entryId, by) : undefined);
    if (!entry) return;
    if (transport.kind === 'playing') this.begin(entry.songId, 0, { entryId: entry.id });
    else this.give({ kind: 'select', songId: entry.songId, place: 0, entryId: entry.id });
    this.wake();
  }

  /** To the next change of the song, or the one before; it never leaves the song. */
  goChange(by: 1 | -1): void {
    const { show, song, transport, entryId } = this.session;
    if (!show || !song) return;
    const here = ticksAt(songTime(song), placeIn(this.session, this.now()).place);
    const place = changeBy(show, song, here, by);
    if (transport.kind === 'playing') this.begin(song.id, place, { entryId });
    else this.give({ kind: 'select', songId: song.id, place, entryId });
    this.wake();
  }

  queue(entryId: string | null): void {
    this.give({ kind: 'queue', entryId });
    this.dirty = true;
    this.wake();
  }

  back(): void {
    this.give({ kind: 'back' });
    this.dirty = true;
    this.wake();
  }

  /** The rig goes to a tone at once. */
  tone(toneId: string): void {
    this.give({ kind: 'tone', toneId });
    this.wake();
  }

  panic(): void {
    this.give({ kind: 'panic' });
    this.wake();
  }

  stop(): void {
    this.give({ kind: 'stop' });
    this.wake();
  }

  /** A share of what is written, for what plays and what will. */
  speed(speed: number): void {
    this.give({ kind: 'speed', speed });
    this.dirty = true;
    this.wake();
  }

  loop(loop: SongLoop | null): void {
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

  /** A port came or went. What hangs on one that went is not known any more. */
  port(portId: string, there: boolean): void {
    const { show } = this.session;
    if (!there) this.assumed.lose(portId);
    if (!there && show) {
      this.assumed.forget(new Set(show.units.filter((u) => routeTo(show, u)?.portId === portId).map((u) => u.id)));
    }
    this.give({ kind: 'port', portId, there });
  }

  audition(unitId: string, aim: UnitAim): readonly TimedBytes[] {
    return this.give({ kind: 'audition', unitId, aim });
  }

  walk(walk: Walk): void {
    this.walking = startWalk(walk, this.now());
    this.wake();
  }

  stopWalk(): void {
    this.walking = null;
    this.dirty = true;
  }

  /** The unit waits to learn: it does not obey what it takes in. */
  teach(lesson: Lesson): void {
    this.teaching = startLesson(lesson, this.now());
    this.assumed.waitToLearn(lesson.unitId);
    this.wake();
  }

  /** A unit said what it took in. */
  learnt(bytes: Bytes): void {
    if (this.teaching) this.teaching = learnt(this.teaching, bytes);
    this.dirty = true;
  }

  stopTeaching(): void {
    this.teaching = null;
    this.dirty = true;
  }

  /** A unit was seen to send bytes of its own to what hangs behind it. */
  played(unitId: string, messages: readonly Bytes[]): void {
    this.assumed.play(unitId, this.now(), messages);
  }

  record(what: PedalRecording | null): void {
    this.recording = what;
    if (what) this.kept = [];
  }

  recorded(): readonly PedalPoint[] {
    return this.kept;
  }

  /** Lets time come to now. Called every few milliseconds. */
  wake(): void {
    this.give({ kind: 'wake' });
    const { show, following } = this.session;
    const next = following && show ? entryOf(show, following.entryId) : undefined;
    if (next && following) this.begin(next.songId, 0, { entryId: next.id, how: 'follows', at: following.at });
    const now = this.now();
    this.goOnWalking(now);
    this.goOnTeaching(now);
    this.assumed.advance(now);
    this.tell(now);
  }

  /** A message that a song of the set waits for starts it, or has it come next. */
  private launch(portId: string, bytes: Bytes): void {
    const { show } = this.session;
    const entry = show && launchedBy(show, portId, bytes);
    if (!entry) return;
    if (entry.launch!.does === 'start') this.begin(entry.songId, 0, { entryId: entry.id, how: 'launched' });
    else this.queue(entry.id);
  }

  private give(input: Input): readonly TimedBytes[] {
    const now = this.now();
    this.assumed.advance(now);
    const { assumed } = this;
    const moment = {
      now,
      rig: assumed.state(),
      coming: () => assumed.coming(),
      busy: (ids?: ReadonlySet<string>) => this.busy(now, ids),
    };
    const { session, sends, events } = step(this.session, input, moment);
    if (session.transport.kind !== this.session.transport.kind) this.dirty = true;
    this.session = session;
    const sent = sends.map((e) => this.send(e, now));
    if (events.length > 0) {
      this.dirty = true;
      this.ears.events?.(events);
    }
    return sent;
  }

  /** Until when something is on its way to units, or loads in them, or in what tells them something; at least now. */
  private busy(now: Micros, ids?: ReadonlySet<string>): Micros {
    const all = ids && toldBy(this.session.show, ids);
    let until = all ? Math.max(now, this.assumed.restsAt(all)) : now;
    for (const [id, at] of this.until) {
      if (at <= now) this.until.delete(id);
      else if (!all || all.has(id)) until = Math.max(until, at);
    }
    return until;
  }

  /** A port's cable carries one message after the other; none leaves in the past. */
  private send<E extends Pick<TimedBytes, 'portId' | 'at' | 'bytes'> & { readonly unitId?: string }>(
    e: E,
    now: Micros,
  ): E {
    const at = this.cables.place(e.portId, Math.max(e.at, now), e.bytes);
    const unitId = e.unitId ?? '';
    const end = this.cables.endOf(e.portId, at, e.bytes);
    this.until.set(unitId, Math.max(end, this.until.get(unitId) ?? end));
    this.monitor.note('out', e.portId, at, e.bytes);
    this.ports.send(e.portId, at, e.bytes);
    this.assumed.send(e.portId, at, e.bytes);
    return { ...e, at };
  }

  private goOnWalking(now: Micros): void {
    if (!this.walking) return;
    const { walking, aim } = walkOn(this.walking, now);
    if (walking !== this.walking) this.dirty = true;
    const { unitId } = this.walking;
    this.walking = walking;
    if (aim) this.audition(unitId, aim);
  }

  private goOnTeaching(now: Micros): void {
    const { show } = this.session;
    if (!this.teaching || !show) return;
    const { teaching, messages } = teachOn(this.teaching, now);
    const unit = indexShow(show).units.get(teaching.unitId);
    const route = unit && routeTo(show, unit);
    if (teaching === this.teaching) return;
    this.teaching = teaching;
    this.dirty = true;
    for (const bytes of messages) if (route) this.send({ portId: route.portId, at: now, bytes }, now);
  }

  private tell(now: Micros): void {
    const { ears } = this;
    if (ears.lines && now - this.lastLines >= LINES_MICROS) {
      const lines = this.monitor.take();
      this.lastLines = now;
      if (lines.length > 0) ears.lines(lines);
    }
    const { transport, song, speed, loop, entryId, queued, history, before } = this.session;
    const playing = transport.kind === 'playing';
    if (this.assumed.news()) this.dirty = true;
    if (!ears.news || !(this.dirty || (playing && now - this.lastNews >= NEWS_MICROS))) return;
    this.dirty = false;
    this.lastNews = now;
    const { walking, teaching } = this;
    ears.news({
      playing,
      songId: song?.id ?? null,
      speed,
      loop,
      entryId,
      queued,
      history,
      canGoBack: before !== null,
      looping: transport.kind === 'playing' && transport.line.round !== undefined,
      ...placeIn(this.session, now),
      zero: playing ? transport.zero : null,
      rig: this.assumed.state(),
      loading: this.assumed.loading(now),
      walk: walking && { unitId: walking.unitId, at: walking.at, count: walking.aims.length },
      lesson: teaching && { unitId: teaching.unitId, sent: teaching.sent, learnt: teaching.learnt },
    });
  }
}

/** Units, and those whose relay rules tell them something. */
function toldBy(show: Show | null, ids: ReadonlySet<string>): ReadonlySet<string> {
  const all = new Set(ids);
  for (const id of all) {
    for (const unit of show?.units ?? []) if (unit.relays.some((r) => r.toUnitId === id)) all.add(unit.id);
  }
  return all;
}
