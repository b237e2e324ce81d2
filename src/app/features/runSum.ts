import { roomOf, worstFirst, type Verdict } from '../../core/simulate';
import { marginMillis } from '../../wording';
import type { Run } from '../state/proofs';

/** Milliseconds from the beat, with a sign: "+81.6 ms", "−0.4 ms", "never". */
export function offsetText({ offset, outcome }: Verdict): string {
  if (outcome === 'never' || offset === null) return 'never';
  const millis = offset / 1000;
  if (Math.abs(millis) < 0.05) return 'on the beat';
  const digits = Math.abs(millis) >= 100 ? 0 : 1;
  return `${millis > 0 ? '+' : '−'}${Math.abs(millis).toFixed(digits)} ms`;
}

/** How much a change that lands bears before it misses: "7.0 ms"; "over 1 s" where nothing near makes it miss. */
export function roomText(verdict: Verdict): string {
  const room = roomOf(verdict);
  return room > 1e6 ? 'over 1 s' : marginMillis(room);
}

/** A run in figures. */
export interface RunSum {
  readonly changes: number;
  readonly wrong: number;
  /** What misses by most, else the change with the least room. */
  readonly worst: Verdict | undefined;
}

const sums = new WeakMap<Run, RunSum>();

/** A run in figures; reckoned once. */
export function sumOf(run: Run): RunSum {
  let sum = sums.get(run);
  if (!sum) {
    const { landings } = run.picture;
    const wrong = landings.filter((v) => v.outcome !== 'on-time').length;
    const order = worstFirst(landings);
    // Taps always leave on their beat, and a tempo that is a little off is no change that is lost.
    const taps = new Set(run.song.taps.map((t) => t.id));
    const worst = order.find((v) => v.outcome !== 'on-time' || !taps.has(v.cueId)) ?? order[0];
    sum = { changes: landings.length, wrong, worst };
    sums.set(run, sum);
  }
  return sum;
}
