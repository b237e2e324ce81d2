import {
  CLOCK_TICKS,
  NO_CLOCK,
  clockMessage,
  hearClock,
  periodAt,
  placeOf,
  silent,
  wobble,
  type ClockMessage,
  type FollowedClock,
} from '../core/clock';
import type { Bytes } from '../core/midi';
import type { Micros, Ticks } from '../core/time';
import type { Outside } from './sessionState';

/** What was heard of a clock since the last time somebody asked. */
export interface ClockNews {
  /** Where it is now, along its smoothed tempo; null where that cannot be told, or it has fallen silent. */
  readonly clock: Outside | null;
  readonly said: readonly ('wobbles' | 'lost' | 'back')[];
}

/** That it wobbles is said no more often than this. */
const SAID_EVERY: Micros = 10_000_000;

/** Clocks that arrive, by port. */
export class OutsideClocks {
  private readonly clocks = new Map<string, FollowedClock>();
  private readonly lost = new Set<string>();
  private readonly said = new Map<string, Micros>();

  /** Takes a message of a clock, and gives what it is; null for any other message. */
  hear(portId: string, at: Micros, bytes: Bytes): ClockMessage['kind'] | null {
    const clock = hearClock(this.of(portId), at, bytes);
    const kind = clockMessage(bytes)?.kind ?? null;
    if (!clock || kind === null) return null;
    this.clocks.set(portId, clock);
    if (kind === 'start' || kind === 'continue' || kind === 'stop') this.lost.delete(portId);
    return kind;
  }

  /** The place at which its next clock is, and when that is expected. */
  next(portId: string, now: Micros): { readonly tick: Ticks; readonly at: Micros } {
    const clock = this.of(portId);
    const bpm = placeOf(clock)?.bpm ?? null;
    return { tick: (clock.count + 1) * CLOCK_TICKS, at: now + (bpm === null ? 0 : periodAt(bpm)) };
  }

  /**
   * What is to be known of it now; `place` is where the song that follows it is, `bears` by how much a beat may be off
   * before a change misses.
   */
  news(portId: string, now: Micros, place: Ticks, bears: Micros): ClockNews {
    const clock = this.of(portId);
    const said: ClockNews['said'][number][] = [];
    if (silent(clock, now)) {
      if (!this.lost.has(portId)) said.push('lost');
      this.lost.add(portId);
      return { clock: null, said };
    }
    if (this.lost.delete(portId)) {
      // It sends no position: it continues from the song's own.
      this.clocks.set(portId, { ...clock, count: Math.round(place / CLOCK_TICKS) });
      said.push('back');
    }
    if (wobble(clock, bears) > 0 && now - (this.said.get(portId) ?? Number.NEGATIVE_INFINITY) > SAID_EVERY) {
      this.said.set(portId, now);
      said.push('wobbles');
    }
    const is = clock.running ? placeOf(this.of(portId)) : null;
    return { clock: is && is.bpm !== null ? { ...is, bpm: is.bpm } : null, said };
  }

  private of(portId: string): FollowedClock {
    return this.clocks.get(portId) ?? NO_CLOCK;
  }
}
