import type { Micros } from '../../core/time';

/**
 * Which of two computers leads. Both run this; nothing else decides. Whoever leads alone sends to the rig.
 *
 * Nobody can tell a computer that is gone from a line that is cut. So whoever leads and hears nothing of another that
 * was ready to take over falls silent by itself, and the other takes over only when that must have happened and all
 * that was handed to the ports before has left: there are never two voices.
 */
export interface Seat {
  /** The first one leads where nobody knows who should. */
  readonly first: boolean;
  readonly leads: boolean;
  /** Counts who led: of two that think they lead, the one that took over later does. */
  readonly term: number;
  /** Our end of the line is cut; or it stands, and the other is known to have left it. */
  readonly road: 'cut' | 'gone' | 'open';
  /** The other, as it said last; null before it said anything, and when it has left. */
  readonly other: { readonly leads: boolean; readonly term: number; readonly ready: boolean } | null;
  /** When that was. */
  readonly heard: Micros;
  /** Whether this one has what it needs to go on. */
  readonly ready: boolean;
  /** Since when neither leads, as far as is known; and since when the lead is asked for by hand. */
  readonly idle: Micros | null;
  readonly asked: Micros | null;
}

export const newSeat = (first: boolean, leads: boolean, now: Micros): Seat => ({
  first,
  leads,
  term: leads ? 1 : 0,
  road: 'cut',
  other: null,
  heard: now,
  ready: false,
  idle: null,
  asked: null,
});

/** Both say so often that they are there. */
export const BEAT: Micros = 100_000;
/** Whoever leads and has heard nothing for so long falls silent. */
export const FENCE: Micros = 450_000;
/** And the other takes over: what was handed over to ports at most 350 ms ahead has left by then. */
export const TAKE: Micros = 850_000;
/** Where neither has led for so long, one of them begins again. */
const IDLE: Micros = 1_000_000;
/** Whoever is asked to give the lead back has so long to answer. */
const ANSWER: Micros = 300_000;

export type SeatInput =
  | { readonly kind: 'wake' }
  | { readonly kind: 'road'; readonly road: Seat['road'] }
  /** The other says that it is there. */
  | { readonly kind: 'beat'; readonly leads: boolean; readonly term: number; readonly ready: boolean }
  /** The other wants the lead. */
  | { readonly kind: 'wanted'; readonly term: number }
  | { readonly kind: 'bye' }
  | { readonly kind: 'ready'; readonly ready: boolean }
  /** Somebody here wants it. */
  | { readonly kind: 'lead' };

/** What a step brings: this one leads from now on, or no longer, or asks the other to give the lead up. */
export type SeatAct = 'take' | 'fall-silent' | 'ask';

export interface SeatStep {
  readonly seat: Seat;
  readonly act: SeatAct | null;
}

const still = (seat: Seat): SeatStep => ({ seat, act: null });

export function seatStep(seat: Seat, input: SeatInput, now: Micros): SeatStep {
  switch (input.kind) {
    case 'ready':
      return still({ ...seat, ready: input.ready });
    case 'road':
      return roadIs(seat, input.road, now);
    case 'bye':
      return roadIs({ ...seat, other: null }, 'gone', now);
    case 'beat': {
      const { leads, term, ready } = input;
      const heard: Seat = { ...seat, road: 'open', heard: now, other: { leads, term, ready } };
      if (leads && seat.leads && goesBefore(heard, term)) return fallSilent(heard);
      // It gave the lead up, as it was asked to.
      if (!leads && seat.asked !== null) return take(heard, now);
      return settle(heard, now);
    }
    case 'wanted': {
      const heard: Seat = { ...seat, heard: now };
      return seat.leads && input.term > seat.term ? fallSilent(heard) : still(heard);
    }
    case 'lead': {
      if (seat.leads) return still(seat);
      const there = seat.road === 'open' && seat.other?.leads === true && now - seat.heard < FENCE;
      return there ? { seat: { ...seat, asked: now }, act: 'ask' } : take(seat, now);
    }
    case 'wake':
      return wake(seat, now);
  }
}

/** Whether the other, which leads as well, is the one to lead. */
const goesBefore = (seat: Seat, term: number): boolean => term > seat.term || (term === seat.term && !seat.first);

const fallSilent = (seat: Seat): SeatStep => ({
  seat: { ...seat, leads: false, idle: null, asked: null },
  act: 'fall-silent',
});

function take(seat: Seat, now: Micros): SeatStep {
  const term = Math.max(seat.term, seat.other?.term ?? 0) + 1;
  // Whether the other is there, and ready to take over again, it says itself.
  return { seat: { ...seat, leads: true, term, other: null, heard: now, idle: null, asked: null }, act: 'take' };
}

function roadIs(seat: Seat, road: Seat['road'], now: Micros): SeatStep {
  const next: Seat = { ...seat, road };
  // Our own end broke: the other may take over as soon as it hears of that.
  if (road === 'cut' && seat.leads && seat.other?.ready) return fallSilent(next);
  if (road !== 'gone') return still(next);
  if (!seat.leads && seat.ready && seat.other?.leads) return take(next, now);
  return still({ ...next, other: null });
}

function wake(seat: Seat, now: Micros): SeatStep {
  const silent = now - seat.heard;
  if (seat.leads) return seat.other?.ready && silent >= FENCE ? fallSilent(seat) : still(seat);
  if (seat.asked !== null && now - seat.asked >= ANSWER) return take(seat, now);
  if (seat.ready && seat.other?.leads && silent >= TAKE) return take(seat, now);
  return settle(seat, now);
}

/** Two that hear each other, and neither leads: the one that led last does, or the first. */
function settle(seat: Seat, now: Micros): SeatStep {
  const neither = !seat.leads && seat.other?.leads === false && now - seat.heard < FENCE;
  if (!neither) return still(seat.idle === null ? seat : { ...seat, idle: null });
  const since = seat.idle ?? now;
  const goes = seat.term > seat.other.term || (seat.term === seat.other.term && seat.first);
  return goes && now - since >= IDLE ? take(seat, now) : still({ ...seat, idle: since });
}
