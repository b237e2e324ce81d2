import type { PlayLine } from '../core/compile';
import type { TimedBytes } from '../core/midi';
import type { Micros } from '../core/time';

/** Playback at a moment. Plain data: `take` makes the next one. */
export type Transport =
  | { readonly kind: 'stopped'; readonly place: Micros }
  | {
      readonly kind: 'playing';
      readonly line: PlayLine;
      /** Clock time at which the song's time 0 is, or would be. */
      readonly zero: Micros;
      /** First event that has not left. */
      readonly next: number;
    };

export const STOPPED: Transport = { kind: 'stopped', place: 0 };

/** Starts a line at clock time `now`. */
export const begin = (line: PlayLine, now: Micros): Transport => ({
  kind: 'playing',
  line,
  zero: now - line.start,
  next: 0,
});

export const end = (transport: Transport, now: Micros): Transport => ({
  kind: 'stopped',
  place: placeOf(transport, now),
});

/** Song time at a clock time. While the rig is brought to the place to play from, the place itself. */
export function placeOf(transport: Transport, now: Micros): Micros {
  if (transport.kind === 'stopped') return transport.place;
  const { line, zero } = transport;
  return Math.max(now - zero, line.place === 0 ? line.start : line.place);
}

export interface Taken {
  readonly transport: Transport;
  /** What leaves before `until`, with clock times. */
  readonly due: readonly TimedBytes[];
}

/** Everything that leaves up to clock time `until`; the playback stops by itself at the end of the song. */
export function take(transport: Transport, now: Micros, until: Micros): Taken {
  if (transport.kind === 'stopped') return { transport, due: [] };
  const { line, zero } = transport;
  const due: TimedBytes[] = [];
  let { next } = transport;
  for (let event = line.events[next]; event && event.at + zero <= until; event = line.events[next]) {
    due.push({ ...event, at: event.at + zero });
    next += 1;
  }
  if (now - zero >= line.end && next >= line.events.length) {
    return { transport: { kind: 'stopped', place: line.end }, due };
  }
  return { transport: { ...transport, next }, due };
}
