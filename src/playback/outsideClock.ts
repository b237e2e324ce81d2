import type { Bytes } from '../core/midi';
import type { Micros, Ticks } from '../core/time';
import {
  CLOCK_TICKS,
  NO_CLOCK,
  WOBBLE,
  hearClock,
  silent,
  smoothed,
  tempoOf,
  wobble,
  type ClockIn,
  type ClockWord,
} from './clockIn';
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
  private readonly clocks = new Map<string, ClockIn>();
  private readonly lost = new Set<string>();
  private readonly said = new Map<string, Micros>();

  /** Takes a message of a clock; gives what it asks for, or null for any other message. */
  hear(portId: string, at: Micros, bytes: Bytes): ClockWord | 'other' | null {
    const heard = hearClock(this.of(portId), at, bytes);
    if (!heard) return null;
    this.clocks.set(portId, heard.clock);
    if (heard.word === 'start' || heard.word === 'continue' || heard.word === 'stop') this.lost.delete(portId);
    return heard.word ?? 'other';
  }

  /** The place at which its next clock is, and when that is expected. */
  next(portId: string, now: Micros): { readonly tick: Ticks; readonly at: Micros } {
    const clock = this.of(portId);
    const told = smoothed(clock);
    return { tick: (clock.clock + 1) * CLOCK_TICKS, at: now + (told?.period ?? 0) };
  }

  /** What is to be known of it now; `place` is where the song that follows it is. */
  news(portId: string, now: Micros, place: Ticks): ClockNews {
    const clock = this.of(portId);
    const said: ClockNews['said'][number][] = [];
    if (silent(clock, now)) {
      if (!this.lost.has(portId)) said.push('lost');
      this.lost.add(portId);
      return { clock: null, said };
    }
    if (this.lost.delete(portId)) {
      // It says nothing of where it is: it goes on where the song has come to.
      this.clocks.set(portId, { ...clock, clock: Math.round(place / CLOCK_TICKS) });
      said.push('back');
    }
    if (wobble(clock) > WOBBLE && now - (this.said.get(portId) ?? Number.NEGATIVE_INFINITY) > SAID_EVERY) {
      this.said.set(portId, now);
      said.push('wobbles');
    }
    const told = clock.running ? smoothed(this.of(portId)) : null;
    return { clock: told && { at: told.at, tick: told.clock * CLOCK_TICKS, bpm: tempoOf(told) }, said };
  }

  private of(portId: string): ClockIn {
    return this.clocks.get(portId) ?? NO_CLOCK;
  }
}
