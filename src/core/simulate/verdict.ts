import { meets, type RigSpec, type UnitAim, type UnitSpec, type UnitState, type Wanted } from '../rig';
import { DIN_BYTE_MICROS, type Bytes, type TimedBytes } from '../midi';
import { millisToMicros, type Micros, type Millis } from '../time';
import { SimulatedRig, type IgnoredWhy, type TraceEntry } from './rig';

/** How far from its due time a change may land and still be on time. */
export interface Tolerance {
  readonly after: Millis;
  readonly before: Millis;
}

export const DEFAULT_TOLERANCE: Tolerance = { after: 2, before: 250 };

export type Outcome = 'on-time' | 'early' | 'late' | 'never';

export type Reason =
  | { readonly kind: 'as-wanted' }
  /** Nothing had to change: the unit was like this already. */
  | { readonly kind: 'already' }
  /** `arrived` counts from the due time; `takes` is from there to the effect. */
  | { readonly kind: 'arrived-late'; readonly arrived: Micros; readonly takes: Millis }
  | { readonly kind: 'too-early' }
  | { readonly kind: 'ignored'; readonly why: IgnoredWhy; readonly bytes: Bytes }
  | { readonly kind: 'nothing-arrived' }
  | { readonly kind: 'other-state'; readonly state: UnitState }
  | { readonly kind: 'replaced' }
  /** It took the tempo to be another: intervals in microseconds; null when it has none. */
  | {
      readonly kind: 'other-tempo';
      readonly by: 'taps' | 'clock';
      readonly wanted: Micros;
      readonly heard: Micros | null;
      readonly from: number;
    };

export interface Verdict {
  readonly cueId: string;
  readonly unitId: string;
  readonly due: Micros;
  readonly outcome: Outcome;
  /** From due to complete; negative is early. Null where it never came. */
  readonly offset: Micros | null;
  readonly reason: Reason;
}

export interface DryRun {
  readonly verdicts: readonly Verdict[];
  readonly trace: readonly TraceEntry[];
}

/** Plays bytes to a simulated rig and judges each thing wanted by what the units did. */
export function dryRun(
  spec: RigSpec,
  events: readonly TimedBytes[],
  wants: readonly Wanted[],
  tolerance: Tolerance = DEFAULT_TOLERANCE,
): DryRun {
  const rig = new SimulatedRig(spec);
  for (const { portId, at, bytes } of events) rig.send(portId, at, bytes);
  rig.settle();
  return { verdicts: judge(spec, rig.trace, wants, tolerance), trace: rig.trace };
}

interface UnitLine {
  readonly unit: UnitSpec;
  /** Changes of state, by time. */
  readonly changes: Extract<TraceEntry, { kind: 'changed' }>[];
  readonly arrivals: Extract<TraceEntry, { kind: 'arrived' }>[];
  readonly ignored: Extract<TraceEntry, { kind: 'ignored' }>[];
  readonly loadings: Extract<TraceEntry, { kind: 'loading' }>[];
  readonly tempos: Extract<TraceEntry, { kind: 'tempo' }>[];
  nextArrival: number;
}

function judge(spec: RigSpec, trace: readonly TraceEntry[], wants: readonly Wanted[], tolerance: Tolerance): Verdict[] {
  const lines = new Map<string, UnitLine>(
    spec.units.map((unit) => [
      unit.id,
      { unit, changes: [], arrivals: [], ignored: [], loadings: [], tempos: [], nextArrival: 0 },
    ]),
  );
  for (const entry of trace) {
    if (entry.kind === 'lost' || entry.kind === 'returned' || entry.kind === 'learnt' || entry.kind === 'tail') {
      continue;
    }
    const line = lines.get(entry.unitId)!;
    if (entry.kind === 'changed') line.changes.push(entry);
    else if (entry.kind === 'arrived') line.arrivals.push(entry);
    else if (entry.kind === 'ignored') line.ignored.push(entry);
    else if (entry.kind === 'tempo') line.tempos.push(entry);
    else line.loadings.push(entry);
  }
  const byUnit = new Map<string, Wanted[]>();
  for (const wanted of wants) {
    const list = byUnit.get(wanted.unitId);
    if (list) list.push(wanted);
    else byUnit.set(wanted.unitId, [wanted]);
  }
  const verdicts: Verdict[] = [];
  for (const [unitId, list] of byUnit) {
    const line = lines.get(unitId);
    if (!line) continue;
    const ordered = list.toSorted((a, b) => a.due - b.due);
    const nexts = nextDues(ordered);
    let before = Number.NEGATIVE_INFINITY;
    for (const [i, wanted] of ordered.entries()) {
      const previous = ordered[i - 1];
      if (previous && previous.due < wanted.due) before = previous.due;
      const span = { before, next: nexts[i]!, previous };
      verdicts.push(judgeOne(line, wanted, span, tolerance));
    }
  }
  return verdicts.sort((a, b) => a.due - b.due);
}

function judgeOne(line: UnitLine, wanted: Wanted, span: Span, tolerance: Tolerance): Verdict {
  const { aim } = wanted;
  switch (aim.kind) {
    case 'bytes':
      return judgeBytes(line, wanted, aim.bytes, tolerance);
    case 'state':
      return judgeState(line, wanted, aim.state, span, tolerance);
    case 'tempo':
      return judgeTempo(line, wanted, aim, tolerance);
  }
}

/** For each thing wanted, the next later due time of the same unit. */
function nextDues(ordered: readonly Wanted[]): readonly Micros[] {
  const nexts: Micros[] = [];
  for (let i = ordered.length - 1; i >= 0; i--) {
    const after = ordered[i + 1];
    if (!after) nexts[i] = Number.POSITIVE_INFINITY;
    else nexts[i] = after.due > ordered[i]!.due ? after.due : nexts[i + 1]!;
  }
  return nexts;
}

/** How long a change may take that is sent on its beat: all that the unit needs, and the wire. */
function nominal(unit: UnitSpec, wanted: Wanted): Micros {
  const { times, controls } = unit.profile;
  if (wanted.landing === 'complete') return 0;
  if (wanted.aim.kind === 'bytes') return wanted.aim.bytes.length * DIN_BYTE_MICROS + 1000;
  if (wanted.aim.kind === 'tempo') return 3 * DIN_BYTE_MICROS + 1000;
  const { slot, variant } = wanted.aim.state;
  const wire = (4 + Math.min(controls.length, Object.keys(wanted.aim.state.controls).length)) * 3;
  const load = slot === undefined ? 0 : Math.max(times.recall, times.settle);
  return millisToMicros(load + (variant === undefined ? 0 : times.variant) + times.control) + wire * DIN_BYTE_MICROS;
}

/** When a thing wanted may happen: after the due time before it, and before the next. */
interface Span {
  readonly before: Micros;
  readonly next: Micros;
  readonly previous: Wanted | undefined;
}

/** Whether all that `aim` names is named, with the same values, by `other`. */
const coveredBy = (aim: UnitAim, other: UnitAim): boolean =>
  (aim.slot === undefined || aim.slot === other.slot) &&
  (aim.variant === undefined || aim.variant === other.variant) &&
  Object.entries(aim.controls).every(([id, value]) => other.controls[id] === value);

/** Rounding of sums of microseconds. */
const GRAIN: Micros = 0.01;

function judgeState(
  line: UnitLine,
  wanted: Wanted,
  aim: UnitAim,
  { before, next, previous }: Span,
  tolerance: Tolerance,
): Verdict {
  const { unit, changes } = line;
  const { due, cueId, unitId } = wanted;
  const limit = due + nominal(unit, wanted) + millisToMicros(tolerance.after) + GRAIN;
  const base = { cueId, unitId, due };
  const profile = unit.profile;
  // What counts is the due time: with a wide tolerance the next change may be there before its end.
  const last = lastAtOrBefore(changes, due + GRAIN);
  if (last >= 0 && meets(profile, changes[last]!.state, aim)) {
    let since = last;
    while (since > 0 && meets(profile, changes[since - 1]!.state, aim)) since -= 1;
    const at = changes[since]!.at;
    const offset = at - due;
    // Also when the cue before wanted the same and came late: then this one had nothing to do.
    const sameBefore =
      previous?.aim.kind === 'state' && at < due - GRAIN && meets(profile, changes[since]!.state, previous.aim.state);
    if (at <= before + GRAIN || (sameBefore && coveredBy(aim, previous.aim.state))) {
      return { ...base, outcome: 'on-time', offset: 0, reason: { kind: 'already' } };
    }
    if (offset < -millisToMicros(tolerance.before) - GRAIN) {
      return { ...base, outcome: 'early', offset, reason: { kind: 'too-early' } };
    }
    return { ...base, outcome: 'on-time', offset, reason: { kind: 'as-wanted' } };
  }
  for (let i = last + 1; i < changes.length && changes[i]!.at < next - GRAIN; i++) {
    const change = changes[i]!;
    if (!meets(profile, change.state, aim)) continue;
    const offset = change.at - due;
    if (change.at <= limit) return { ...base, outcome: 'on-time', offset, reason: { kind: 'as-wanted' } };
    return { ...base, outcome: 'late', offset: change.at - due, reason: whyLate(line, due, change.at) };
  }
  return { ...base, outcome: 'never', offset: null, reason: whyNever(line, before, next, limit) };
}

/** What the unit was waiting for: the preset that it loaded last, or else the last message. */
function whyLate(line: UnitLine, due: Micros, changed: Micros): Reason {
  const loading = line.loadings.findLast((l) => l.at <= changed && l.until >= changed - GRAIN);
  const arrived = loading?.at ?? line.arrivals.findLast((a) => a.at <= changed)?.at ?? changed;
  return { kind: 'arrived-late', arrived: arrived - due, takes: (changed - arrived) / 1000 };
}

/** Why a unit never became what was wanted: what it ignored around the time, or what it is instead. */
function whyNever(line: UnitLine, before: Micros, next: Micros, limit: Micros): Reason {
  const near = (at: Micros): boolean => at > before - GRAIN && at < next;
  const ignored = line.ignored.find((entry) => near(entry.at));
  if (ignored) return { kind: 'ignored', why: ignored.why, bytes: ignored.bytes };
  if (!line.arrivals.some((entry) => near(entry.at))) return { kind: 'nothing-arrived' };
  const change = line.changes[lastAtOrBefore(line.changes, limit)];
  return change ? { kind: 'other-state', state: change.state } : { kind: 'replaced' };
}

function judgeBytes(line: UnitLine, wanted: Wanted, bytes: Bytes, tolerance: Tolerance): Verdict {
  const { due, cueId, unitId } = wanted;
  const base = { cueId, unitId, due };
  const { arrivals } = line;
  let found = line.nextArrival;
  while (found < arrivals.length && !sameBytes(arrivals[found]!.bytes, bytes)) found += 1;
  if (found === arrivals.length) {
    return { ...base, outcome: 'never', offset: null, reason: whyNever(line, due - 1e6, due + 1e6, due) };
  }
  line.nextArrival = found + 1;
  const { at } = arrivals[found]!;
  const offset = at - due;
  const late = offset > nominal(line.unit, wanted) + millisToMicros(tolerance.after) + GRAIN;
  const early = offset < -millisToMicros(tolerance.before) - GRAIN;
  if (late) return { ...base, outcome: 'late', offset, reason: { kind: 'arrived-late', arrived: offset, takes: 0 } };
  if (early) return { ...base, outcome: 'early', offset, reason: { kind: 'too-early' } };
  return { ...base, outcome: 'on-time', offset, reason: { kind: 'as-wanted' } };
}

/** A tempo has to be right to 1 %, and taps make one from four on. */
const TEMPO_SHARE = 0.01;
const TAPS_NEEDED = 4;

function judgeTempo(
  { unit, tempos }: UnitLine,
  wanted: Wanted,
  { by, interval }: Extract<Wanted['aim'], { kind: 'tempo' }>,
  tolerance: Tolerance,
): Verdict {
  const { due, cueId, unitId } = wanted;
  const base = { cueId, unitId, due };
  const limit = due + nominal(unit, wanted) + millisToMicros(tolerance.after) + GRAIN;
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

const sameBytes = (a: Bytes, b: Bytes): boolean => a.length === b.length && a.every((byte, i) => byte === b[i]);

function lastAtOrBefore(changes: readonly { readonly at: Micros }[], at: Micros): number {
  let low = 0;
  let high = changes.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (changes[middle]!.at <= at) low = middle + 1;
    else high = middle;
  }
  return low - 1;
}
