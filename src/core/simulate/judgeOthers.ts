import type { Bytes } from '../midi';
import type { Wanted } from '../rig';
import { millisToMicros } from '../time';
import { GRAIN, nominal, whyNever } from './judgeStates';
import { AS_WANTED, missed, onTime } from './landed';
import { narrow, narrowLater, unlimited } from './margins';
import { sameBytes, type UnitLine } from './unitLine';
import type { Tolerance, Verdict } from './verdict';

/** Bytes as they stand are there when they arrive; each arrival is one cue's. */
export function judgeBytes(line: UnitLine, wanted: Wanted, bytes: Bytes, tolerance: Tolerance): Verdict {
  const { due } = wanted;
  const { arrivals } = line;
  // Of several arrivals of these bytes the nearest is meant: others may have been sent for something else.
  let found = -1;
  for (let i = line.nextArrival; i < arrivals.length; i++) {
    if (!sameBytes(arrivals[i]!.bytes, bytes)) continue;
    if (found >= 0 && Math.abs(arrivals[i]!.at - due) >= Math.abs(arrivals[found]!.at - due)) break;
    found = i;
  }
  if (found < 0) {
    return missed(wanted, 'never', null, whyNever(line, wanted, due - 1e6, due));
  }
  line.nextArrival = found + 1;
  const { at, cause } = arrivals[found]!;
  const offset = at - due;
  const limit = due + nominal(line, wanted) + millisToMicros(tolerance.after) + GRAIN;
  const late = at > limit;
  const early = offset < -millisToMicros(tolerance.before) - GRAIN;
  if (late) return missed(wanted, 'late', offset, { kind: 'arrived-late', arrived: offset, takes: 0 });
  if (early) return missed(wanted, 'early', offset, { kind: 'too-early' });
  const margin = line.losses && unlimited();
  if (line.losses && margin) {
    // No time of the unit lies between its port and its arrival.
    narrowLater(margin, limit - at, 'late');
    const borne = line.losses.of(cause);
    if (borne) narrow(margin, borne);
  }
  return onTime(wanted, offset, AS_WANTED, margin);
}

/** A tempo has to be right to 1 %, and taps make one from four on. */
const TEMPO_SHARE = 0.01;
const TAPS_NEEDED = 4;

/**
 * Judges whether a unit has the tempo when it is due: right to 1 %, from at least four taps or one quarter of a clock.
 */
export function judgeTempo(
  line: UnitLine,
  wanted: Wanted,
  { by, interval }: Extract<Wanted['aim'], { kind: 'tempo' }>,
  tolerance: Tolerance,
): Verdict {
  const { due } = wanted;
  const { tempos } = line;
  const limit = due + nominal(line, wanted) + millisToMicros(tolerance.after) + GRAIN;
  const own = tempos.filter((t) => t.tempo.by === by && t.at <= limit && t.at > due - interval / 2);
  const heard = own.at(-1);
  const right =
    heard &&
    (by === 'clock' || heard.tempo.from >= TAPS_NEEDED) &&
    Math.abs(heard.tempo.interval / interval - 1) <= TEMPO_SHARE;
  if (right) {
    // The first and the last of them may be apart by that much more or less, and the tempo still right.
    const off = Math.abs(heard.tempo.interval - interval);
    const intervals = by === 'clock' ? 1 : heard.tempo.from - 1;
    const margin = line.losses && unlimited();
    if (margin) narrowLater(margin, (interval * TEMPO_SHARE - off) * intervals, 'lost');
    return onTime(wanted, heard.at - due, AS_WANTED, margin);
  }
  const { interval: took = null, from = 0 } = heard?.tempo ?? {};
  const reason = { kind: 'other-tempo', by, wanted: interval, heard: took, from } as const;
  return missed(wanted, 'never', null, reason);
}
