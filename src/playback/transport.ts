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
      /** Of a loop: so many rounds more than the line itself have been put behind it. */
      readonly rounds: number;
      /** What of them would leave up to here, in the line's time, has been handed over by the line before. */
      readonly handedUntil: Micros;
    };

export type Playing = Extract<Transport, { kind: 'playing' }>;

export const STOPPED: Transport = { kind: 'stopped', place: 0 };

/** A line whose time 0 is at a clock time. */
export const playing = (line: PlayLine, zero: Micros, handedUntil: Micros = Number.NEGATIVE_INFINITY): Playing => ({
  kind: 'playing',
  line,
  zero,
  next: 0,
  rounds: 0,
  handedUntil,
});

export const end = (transport: Transport, now: Micros): Transport => ({
  kind: 'stopped',
  place: placeOf(transport, now),
});

/** Clock time at which song time 0 of the round is, or would be, that runs at a clock time. */
export function roundZero({ line: { round }, zero }: Playing, now: Micros): Micros {
  if (!round || now - zero < round.to) return zero;
  const period = round.to - round.from;
  return zero + (Math.floor((now - zero - round.to) / period) + 1) * period;
}

/** The place that is played from: where a loop has come round, no later than where it begins. */
export function fromOf(transport: Playing, now: Micros): Micros {
  const { line, zero } = transport;
  return line.round && roundZero(transport, now) !== zero ? Math.min(line.place, line.round.from) : line.place;
}

/** Song time at a clock time. While the rig is brought to the place to play from, the place itself. */
export function placeOf(transport: Transport, now: Micros): Micros {
  if (transport.kind === 'stopped') return transport.place;
  const { line } = transport;
  return Math.max(now - roundZero(transport, now), line.place === 0 ? line.start : fromOf(transport, now));
}

export interface Taken {
  readonly transport: Transport;
  /** What leaves before `until`, with clock times. */
  readonly due: readonly TimedBytes[];
}

/** Everything that leaves up to clock time `until`; the playback stops by itself at the end of the song. */
export function take(transport: Transport, now: Micros, until: Micros): Taken {
  if (transport.kind === 'stopped') return { transport, due: [] };
  const { zero } = transport;
  const due: TimedBytes[] = [];
  let { line, next, rounds } = transport;
  for (
    let more = roundAfter(transport, rounds);
    more && more.start + zero <= until;
    more = roundAfter(transport, rounds)
  ) {
    const events = [...line.events.slice(next), ...more.events].sort((a, b) => a.at - b.at);
    [line, next, rounds] = [{ ...line, events }, 0, rounds + 1];
  }
  for (let event = line.events[next]; event && event.at + zero <= until; event = line.events[next]) {
    due.push({ ...event, at: event.at + zero });
    next += 1;
  }
  if (now - zero >= line.end && next >= line.events.length) {
    return { transport: { kind: 'stopped', place: line.end }, due };
  }
  return { transport: { ...transport, line, next, rounds }, due };
}

/** What a loop's next round leaves, and from when on, in the line's time. */
function roundAfter(
  { line: { round }, handedUntil }: Playing,
  rounds: number,
): { readonly start: Micros; readonly events: readonly TimedBytes[] } | null {
  if (!round) return null;
  const later = (rounds + 1) * (round.to - round.from);
  const start = Math.min(round.from, round.events[0]?.at ?? round.from) + later;
  return { start, events: round.events.map((e) => ({ ...e, at: e.at + later })).filter((e) => e.at > handedUntil) };
}
