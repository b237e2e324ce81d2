import type { UnitAim } from '../core/addressing';
import { audition, playLine } from '../core/compile';
import type { TimedBytes } from '../core/midi';
import { rigSpec } from '../core/show';
import { SimulatedRig } from '../core/simulate';
import type { Micros, Ticks } from '../core/time';
import { STOPPED, placeOf, play, step, stop, type Transport } from '../player';
import type { PlayerNews, PlayerWorker, ShowUpdate } from './protocol';
import { ShowMirror } from './showMirror';

/** How far ahead messages are handed over; the player wakes more often than that. */
const LOOK_AHEAD: Micros = 25_000;
const WAKE_MILLIS = 8;
/** The screen hears of the place this often. */
const NEWS_MICROS: Micros = 33_000;

/** What the player needs of the machine: the time, and to be woken. */
export interface Clock {
  readonly now: () => Micros;
  readonly every: (millis: number, run: () => void) => void;
}

/** Plays songs to a rig of stand-ins, which obeys the bytes alone. */
export class StandInPlayer implements PlayerWorker {
  private readonly mirror = new ShowMirror();
  private rig: SimulatedRig | undefined;
  private rigText = '';
  private transport: Transport = STOPPED;
  private songId: string | null = null;
  private onNews: ((news: PlayerNews) => void) | undefined;
  private lastNews = Number.NEGATIVE_INFINITY;
  private dirty = true;

  constructor(private readonly clock: Clock) {
    clock.every(WAKE_MILLIS, () => this.wake());
  }

  update(update: ShowUpdate): void {
    this.mirror.update(update);
    const spec = rigSpec(this.mirror.show);
    const text = JSON.stringify(spec);
    // The stand-ins keep their state as long as they are the same units.
    if (text === this.rigText) return;
    this.rigText = text;
    this.rig = new SimulatedRig(spec, () => {
      this.dirty = true;
    });
    this.dirty = true;
  }

  listen(onNews: (news: PlayerNews) => void): void {
    this.onNews = onNews;
    this.dirty = true;
  }

  play(songId: string, from: Ticks): void {
    const song = this.mirror.song(songId);
    if (!song || !this.rig) return;
    const now = this.clock.now();
    this.rig.advance(now);
    this.songId = songId;
    this.transport = play(playLine(this.mirror.show, song, from, this.rig.state()), now);
    this.dirty = true;
    this.wake();
  }

  stop(): void {
    this.transport = stop(this.transport, this.clock.now());
    this.dirty = true;
    this.wake();
  }

  audition(unitId: string, aim: UnitAim): readonly TimedBytes[] {
    if (!this.rig) return [];
    const now = this.clock.now();
    this.rig.advance(now);
    const { events } = audition(this.mirror.show, unitId, aim, this.rig.state());
    const sent = events.map((e) => ({ ...e, at: e.at + now }));
    for (const e of sent) this.rig.send(e.portId, e.at, e.bytes);
    return sent;
  }

  private wake(): void {
    const now = this.clock.now();
    const { transport, due } = step(this.transport, now, now + LOOK_AHEAD);
    if (transport.kind !== this.transport.kind) this.dirty = true;
    this.transport = transport;
    for (const e of due) this.rig?.send(e.portId, e.at, e.bytes);
    this.rig?.advance(now);
    this.tell(now);
  }

  private tell(now: Micros): void {
    const playing = this.transport.kind === 'playing';
    if (!this.onNews || !(this.dirty || (playing && now - this.lastNews >= NEWS_MICROS))) return;
    const rig = this.rig?.state() ?? {};
    this.dirty = false;
    this.lastNews = now;
    this.onNews({
      playing,
      songId: this.songId,
      place: placeOf(this.transport, now),
      rig,
      loading: Object.keys(rig).filter((id) => this.rig?.loading(id, now)),
    });
  }
}
