import { extent } from '../groups';
import { latencyOf, type RigContext } from '../meaning';
import type { RigState } from '../rig';
import type { Micros } from '../time';
import { Forecast, leavingOf } from './forecast';
import { keepClose, type PlannedJob, type PortJob, type Writable } from './jobs';

/**
 * Rounds in which waiting in thrus is made good. Sending a message earlier may have others wait: where
 * that does not come to rest, what follows a message that waits is kept a message's length further off.
 */
const EXACT_ROUNDS = 6;
const ROUNDS = 16;
const GRAIN: Micros = 0.01;

/**
 * When each message of a port ends. Where units pass on what they hear, a message may have to
 * wait in a thru, behind one that is longer than itself or behind what the unit tells others:
 * it is sent that much earlier then.
 */
export function scheduleThrough(
  context: RigContext,
  from: RigState,
  list: readonly PortJob[],
  schedule: (jobs: readonly PortJob[]) => ArrayLike<Micros>,
): ArrayLike<Micros> {
  let ends = schedule(list);
  if (!list[0]!.path.thru) return ends;
  const reckoned = new Float64Array(list.length);
  const toldLater = new Float64Array(list.length);
  const after = new Map<number, number[]>();
  for (const [i, job] of list.entries()) {
    for (const on of [job.after, ...(job.also ?? []).map((w) => w.on)]) after.set(on, [...(after.get(on) ?? []), i]);
  }
  const [, length] = extent(list.map((job) => job.duration));
  for (let round = 0; round < ROUNDS; round++) {
    let more = false;
    const slack = round < EXACT_ROUNDS ? 0 : length;
    const { waits, later } = waitsInThrus(context, from, list, ends);
    for (const [i, job] of list.entries()) {
      const extra = Math.max(0, waits[i]! - reckoned[i]!);
      const told = Math.max(0, later[i]! - toldLater[i]!);
      if (extra <= GRAIN && told <= GRAIN) continue;
      more = true;
      reckoned[i] = reckoned[i]! + extra;
      toldLater[i] = toldLater[i]! + told;
      (job as Writable<PortJob>).deadline -= extra + told;
      // A variant is there no sooner than its preset: what it has others told is reckoned from that too.
      const preset = told > GRAIN ? presetBefore(list, i) : -1;
      if (preset >= 0) (list[preset]! as Writable<PortJob>).deadline -= told;
      // What counts from this message's arrival, or from that of what it has others told, is later too.
      for (const k of after.get(i) ?? []) {
        const next = list[k]! as Writable<PlannedJob>;
        if (next.after === i && next.gap > 0) next.gap += extra + slack;
        next.also = waitLonger(next.also, i, extra + told + slack);
      }
      for (const k of after.get(preset) ?? []) {
        const next = list[k]! as Writable<PlannedJob>;
        if (next.unit !== job.unit) next.also = waitLonger(next.also, preset, told + slack);
      }
    }
    if (!more) break;
    keepClose(list);
    ends = schedule(list);
  }
  return ends;
}

/** Waits, those for one message longer by a time. */
const waitLonger = (waits: PlannedJob['also'], on: number, by: Micros): PlannedJob['also'] =>
  waits && waits.map((w) => (w.on === on ? { on, gap: w.gap + by } : w));

/** The recall of the same change of the same unit, ahead of a message; -1 for none. */
function presetBefore(list: readonly PortJob[], i: number): number {
  const { unit, cueId } = list[i]!;
  for (let k = i - 1; k >= 0 && list[k]!.cueId === cueId && list[k]!.unit === unit; k--) {
    const { send } = list[k]!;
    if ('kind' in send && send.kind === 'recall') return k;
  }
  return -1;
}

/** How long each message waits in thrus on the way to its unit, and by how much what it has others told waits. */
function waitsInThrus(
  context: RigContext,
  from: RigState,
  list: readonly PortJob[],
  ends: ArrayLike<Micros>,
): { readonly waits: Float64Array; readonly later: Float64Array } {
  const waits = new Float64Array(list.length);
  const later = new Float64Array(list.length);
  const places = new Map(list.map((job, i) => [job, i]));
  const cast = new Forecast(context, from, (job, at) => {
    const i = places.get(job)!;
    waits[i] = at - ends[i]! - latencyOf(job.path, job.send.bytes);
  });
  cast.play(leavingOf([{ list, ends }]));
  for (const [job, by] of cast.toldLater()) later[places.get(job)!] = by;
  return { waits, later };
}
