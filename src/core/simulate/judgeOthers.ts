import type { Bytes } from '../midi';
import type { Wanted } from '../rig';
import { millisToMicros } from '../time';
import { GRAIN, nominal, whyNever } from './judgeStates';
import { sameBytes, type UnitLine } from './unitLine';
import type { Tolerance, Verdict } from './verdict';

/** Bytes as they stand are there when they arrive; each arrival is one cue's. */
export function judgeBytes(line: UnitLine, wanted: Wanted, bytes: Bytes, tolerance: Tolerance): Verdict {
  const { due, cueId, unitId } = wanted;
  const base = { cueId, unitId, due };
  const { arrivals } = line;
  // Of several arrivals of these bytes the nearest is meant: others may have been sent for something else.
  let found = -1;
  for (let i = line.nextArrival; i < arrivals.length; i++) {
    if (!sameBytes(arrivals[i]!.bytes, bytes)) continue;
    if (found >= 0 && Math.abs(arrivals[i]!.at - due) >= Math.abs(arrivals[found]!.at - due)) break;
    found = i;
  }
  if (found < 0) {
    return { ...base, outcome: 'never', offset: null, reason: whyNever(line, wanted, due - 1e6, due) };
  }
  line.nextArrival = found + 1;
  const { at } = arrivals[found]!;
  const offset = at - due;
  const late = offset > nominal(line, wanted) + millisToMicros(tolerance.after) + GRAIN;
  const early = offset < -millisToMicros(tolerance.before) - GRAIN;
  if (late) return { ...base, outcome: 'late', offset, reason: { kind: 'arrived-late', arrived: offset, takes: 0 } };
  if (early) return { ...base, outcome: 'early', offset, reason: { kind: 'too-early' } };
  return { ...base, outcome: 'on-time', offset, reason: { kind: 'as-wanted' } };
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
  const { due, cueId, unitId } = wanted;
  const base = { cueId, unitId, due };
  const { tempos } = line;
  const limit = due + nominal(line, wanted) + millisToMicros(tolerance.after) + GRAIN;
  const own = tempos.filter((t) => t.tempo.by === by && t.at <= limit && t.at > due - interval / 2);
  const heard = own.at(-1);
  const right =
    heard &&
    (by === 'clock' || heard.tempo.from >= TAPS_NEEDED) &&
    Math.abs(heard.tempo.interval / interval - 1) <= TEMPO_SHARE;
  if (right) return { ...base, outcome: 'on-time', offset: heard.at - due, reason: { kind: 'as-wanted' } };
  const { interval: took = null, from = 0 } = heard?.tempo ?? {};
  const reason = { kind: 'other-tempo', by, wanted: interval, heard: took, from } as const;
  return { ...base, outcome: 'never', offset: null, reason };
}
