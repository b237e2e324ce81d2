import { DIN_BYTE_MICROS, type Bytes } from '../midi';
import { addTo, entry } from '../groups';
import { encodeValue, valueRange, type Encoding } from '../addressing';
import {
  acceptsAgainAfter,
  effectAfter,
  meets,
  type UnitAim,
  type UnitSpec,
  type UnitState,
  type Wanted,
} from '../rig';
import { millisToMicros, type Micros } from '../time';
import { AimKinds, countBetween, itemIn, itemsOf, sameValue, valueOf, type Item } from './aimKinds';
import { landed, missed } from './landed';
import { lastAtOrBefore, sameBytes, type Instant, type Load, type Meant, type UnitLine } from './unitLine';
import type { Reason, Tolerance, Verdict } from './verdict';

/** Rounding of sums of microseconds. */
export const GRAIN: Micros = 0.01;

/** What happens nearer together than this is one stretch in which a unit is busy. */
const STRETCH: Micros = 1e6;

type StateWanted = Wanted & { readonly aim: Extract<Wanted['aim'], { kind: 'state' }> };

const isState = (wanted: Wanted): wanted is StateWanted => wanted.aim.kind === 'state';

/** Bytes of bank, program, variant and engaging. */
const CALL_BYTES = 12;

const lengths = new WeakMap<Encoding, readonly number[]>();

/** Lengths of the messages that a value of a control takes, whatever the value. */
function lengthsOf(encoding: Encoding): readonly number[] {
  let found = lengths.get(encoding);
  if (!found) lengths.set(encoding, (found = encodeValue(encoding, 1, valueRange(encoding).low).map((m) => m.length)));
  return found;
}

/**
 * How long a change may take that is sent on its beat, in microseconds: all that the unit needs, and the wire, on
 * which each thru that stores and forwards holds up a message by its own length. 0 where it has to be complete.
 */
export function nominal(
  { planned: unit, thrus, held }: Pick<UnitLine, 'planned' | 'thrus' | 'held'>,
  wanted: Wanted,
): Micros {
  const { profile } = unit;
  const { guard } = wanted;
  if (wanted.landing === 'complete') return 0;
  if (wanted.aim.kind === 'bytes') return held + wanted.aim.bytes.length * (1 + thrus) * DIN_BYTE_MICROS + 1000;
  if (wanted.aim.kind === 'tempo') return held + 3 * (1 + thrus) * DIN_BYTE_MICROS + 1000;
  const { slot, variant } = wanted.aim.state;
  const sent = profile.controls.flatMap(({ id, encoding }) =>
    wanted.aim.kind === 'state' && wanted.aim.state.controls[id] !== undefined ? lengthsOf(encoding) : [],
  );
  const bytes = sent.reduce((sum, n) => sum + n, CALL_BYTES);
  const wire = (bytes + thrus * Math.max(3, ...sent)) * DIN_BYTE_MICROS;
  // Its due time includes the time of relaying.
  if (wanted.relayed) return wire;
  const load = slot === undefined ? 0 : Math.max(effectAfter(unit, 'recall', slot), acceptsAgainAfter(unit)) + guard;
  return held + load + (variant === undefined ? 0 : effectAfter(unit, 'variant')) + effectAfter(unit, 'control') + wire;
}

/**
 * What a unit's states say of each thing that was wanted of it, in the order in which it was
 * due. What counts is the state at the due time; what comes later is late by its own lateness,
 * also when something else is due first, and what nothing can bring any more never comes.
 */
export function judgeStates(line: UnitLine, ordered: readonly Wanted[], tolerance: Tolerance): Verdict[] {
  const judge = new StateJudge(line, ordered.filter(isState), tolerance);
  return judge.all();
}

class StateJudge {
  /** Loads up to these belong to earlier wants: by the cue that they were called for. */
  private readonly usedLoads = new Map<string, number>();
  /** When cues that want a preset are first due: what was called for a later one is not there for an earlier one. */
  private readonly callers: ReadonlyMap<string, Micros>;
  /** When each cue wants something first. */
  private readonly firstDues: ReadonlyMap<string, Micros>;
  /** Everything that earlier wants required was there by then: what has not changed since is there because of them. */
  private settled: Micros = Number.NEGATIVE_INFINITY;
  /** Earlier wants that were met later than what is judged now was due, by when they were met. */
  private readonly flashes: { readonly kind: number; readonly met: Micros }[] = [];
  private readonly pending: { readonly kind: number; readonly met: Micros }[] = [];
  private readonly kinds: AimKinds;
  private stretchEnds: Int32Array | undefined;
  private readonly runs = new Map<Item, Int32Array>();
  private readonly breaks = new Map<Item, Int32Array>();
  private readonly dues: Float64Array;

  constructor(
    private readonly line: UnitLine,
    private readonly wants: readonly StateWanted[],
    private readonly tolerance: Tolerance,
  ) {
    this.dues = Float64Array.from(wants, (w) => w.due);
    const calls = wants.filter((w) => w.aim.state.slot !== undefined);
    this.callers = new Map(calls.toReversed().map((w) => [w.cueId, w.due]));
    this.firstDues = new Map(wants.toReversed().map((w) => [w.cueId, w.due]));
    this.kinds = new AimKinds(
      line.unit,
      wants.map((w) => w.aim.state),
    );
  }

  all(): Verdict[] {
    let before = Number.NEGATIVE_INFINITY;
    return this.wants.map((wanted, k) => {
      const previous = this.wants[k - 1];
      if (previous && previous.due < wanted.due) {
        before = previous.due;
        this.settled = Math.max(this.settled, before);
      }
      const past = this.pending.findIndex((p) => p.met > wanted.due + GRAIN);
      this.pending.splice(0, past < 0 ? this.pending.length : past);
      const verdict = this.one(wanted, k, before);
      this.remember(wanted, k, verdict);
      return verdict;
    });
  }

  private remember(wanted: StateWanted, k: number, { offset }: Verdict): void {
    const { aim, due, cueId } = wanted;
    if (offset === null) return;
    const met = due + Math.max(0, offset);
    this.settled = Math.max(this.settled, met);
    if (met > due + GRAIN) {
      const place = this.pending.findLastIndex((p) => p.met <= met) + 1;
      this.pending.splice(place, 0, { kind: this.kinds.of(k), met });
    }
    if (aim.state.slot === undefined) return;
    const { loads } = this.line;
    for (let i = lastAtOrBefore(loads, met + GRAIN); i >= 0; i--) {
      const load = loads[i]!;
      const known = this.usedLoads.get(load.cueId) ?? -1;
      // What was called before is used up already.
      if (load.cueId === cueId && i <= known) break;
      if (load.slot !== aim.state.slot || load.until > met + GRAIN || !this.isFor(load, wanted)) continue;
      if (i > known) this.usedLoads.set(load.cueId, i);
    }
  }

  private one(wanted: StateWanted, k: number, before: Micros): Verdict {
    const { line, tolerance } = this;
    const { unit, instants } = line;
    const { due, aim } = wanted;
    const limit = due + nominal(this.line, wanted) + millisToMicros(tolerance.after) + GRAIN;
    // What an earlier cue wanted otherwise, and what comes late, comes before this.
    const floor =
      this.pending.findLast((p) => this.kinds.contradict(p.kind, this.kinds.of(k)))?.met ?? Number.NEGATIVE_INFINITY;
    const last = lastAtOrBefore(instants, due + GRAIN);
    const there = floor <= due + GRAIN && last >= 0 && meets(unit.profile, instants[last]!.state, aim.state);
    if (there && !this.silentAt(wanted, due) && this.loadedBy(wanted, due + GRAIN) !== undefined) {
      const { came, parts } = this.cameBy(wanted, last);
      const offset = came === undefined ? 0 : came - due;
      const early = offset < -millisToMicros(tolerance.before) - GRAIN;
      if (early) return missed(wanted, 'early', offset, { kind: 'too-early' });
      return landed(line, wanted, came, {
        parts,
        limit,
        until: this.untilAfter(wanted, last, limit),
        crossed: this.isCrossed(k, limit),
      });
    }
    const met = this.metAfter(wanted, k, Math.max(due, floor), limit);
    if (met === undefined) {
      this.noteFlash(wanted, k);
      return missed(wanted, 'never', null, whyNever(line, wanted, before, limit));
    }
    const offset = met - due;
    if (met > limit) return missed(wanted, 'late', offset, whyLate(line, wanted, met));
    const at = lastAtOrBefore(instants, met);
    const { parts } = this.cameBy(wanted, at);
    const until = this.untilAfter(wanted, at, limit);
    return landed(line, wanted, met, { parts, limit, until, crossed: this.isCrossed(k, limit) });
  }

  /** A preset loads at a time, and the unit is silent meanwhile. */
  private silentAt({ aim }: StateWanted, at: Micros): boolean {
    if (aim.state.slot === undefined || !this.line.unit.profile.silentInGap) return false;
    const load = this.line.loads[lastAtOrBefore(this.line.loads, at + GRAIN)];
    return load !== undefined && load.until > at + GRAIN;
  }

  /** Whether a preset may have been called for a cue: not for a later one. */
  private isFor(load: Load, { cueId, due }: Wanted): boolean {
    return load.cueId === cueId || (this.callers.get(load.cueId) ?? due) <= due;
  }

  /** When the preset was there that is to be loaded again: the last by a time. Where nothing is, long ago. */
  private loadedBy(wanted: StateWanted, by: Micros): Micros | undefined {
    const { aim } = wanted;
    if (!aim.reload) return Number.NEGATIVE_INFINITY;
    const { loads } = this.line;
    for (let i = loads.length - 1; i >= 0; i--) {
      const load = loads[i]!;
      if (load.slot !== aim.state.slot || load.until > by || !this.isFor(load, wanted)) continue;
      if (i > (this.usedLoads.get(load.cueId) ?? -1)) return load.until;
    }
    return undefined;
  }

  /**
   * When the whole state came to be as wanted; undefined where nothing had to change. What was there already for an
   * earlier cue does not count, unless a recall wiped it and it was sent again. `parts` are the instants at which each
   * part of it came, those for earlier cues too, where somebody asks what they bear.
   */
  private cameBy(wanted: StateWanted, last: number): { came: Micros | undefined; parts: readonly Instant[] } {
    const { unit, instants, losses } = this.line;
    const { recallLoads: loads, silentInGap } = unit.profile;
    let came: Micros | undefined;
    const parts: Instant[] = [];
    const note = (at: Micros): void => {
      if (at > this.settled + GRAIN) came = Math.max(came ?? at, at);
    };
    for (const [item, value] of itemsOf(wanted.aim.state)) {
      const runs = this.runsOf(item);
      let since = runs[last]!;
      while (since > 0 && sameValue(unit, item, valueOf(instants[since - 1]!.state, item), value))
        since = runs[since - 1]!;
      note(instants[since]!.at);
      if (!losses) continue;
      // What a preset brought, what was sent again because it wiped what was there, and silence stand on that preset.
      const wiped = item === 'slot' ? silentInGap : item === 'variant' ? loads.variant : loads.controls;
      parts.push(instants[Math.max(since, wiped ? instants[last]!.loaded : 0, this.brokenBy(item)[last]!)]!);
    }
    if (wanted.aim.reload) {
      const at = this.loadedBy(wanted, Math.max(wanted.due, instants[last]!.at) + GRAIN)!;
      note(at);
      if (losses) parts.push(instants[Math.max(0, lastAtOrBefore(instants, at))]!);
    }
    return { came, parts };
  }

  /** When something of what is wanted changes again, or the unit is silent for the next preset, if that is before a time; else that time. */
  private untilAfter({ aim }: StateWanted, last: number, limit: Micros): Micros {
    const { unit, instants, loads, losses } = this.line;
    if (!losses) return limit;
    const next = loads[lastAtOrBefore(loads, instants[last]!.at) + 1];
    const silent = aim.state.slot !== undefined && unit.profile.silentInGap ? (next?.at ?? limit) : limit;
    const until = Math.min(limit, silent);
    for (let i = last + 1; i < instants.length && instants[i]!.at < until; i++) {
      if (!meets(unit.profile, instants[i]!.state, aim.state)) return instants[i]!.at;
    }
    return until;
  }

  /** Notes when what never came was there for no time at all: it comes where messages leave later, and then others come after it. */
  private noteFlash({ aim, due }: StateWanted, k: number): void {
    const { unit, instants, losses } = this.line;
    if (!losses) return;
    for (
      let i = lastAtOrBefore(instants, due + GRAIN) + 1;
      i < instants.length && instants[i]!.at < due + STRETCH;
      i++
    ) {
      for (let at = instants[i]!.with; at; at = at.with) {
        if (!meets(unit.profile, at.state, aim.state)) continue;
        this.flashes.push({ kind: this.kinds.of(k), met: at.at });
        return;
      }
    }
  }

  /** Whether an earlier want that cannot be shared, and was there for no time at all, would make this one late. */
  private isCrossed(k: number, limit: Micros): boolean {
    while (this.flashes.length > 0 && this.flashes[0]!.met <= this.wants[k]!.due) this.flashes.shift();
    return this.flashes.some((f) => f.met > limit && this.kinds.contradict(f.kind, this.kinds.of(k)));
  }

  /** Of each instant, the first of those in a row that have its value of one thing. */
  private runsOf(item: Item): Int32Array {
    let runs = this.runs.get(item);
    if (!runs) {
      const { instants } = this.line;
      this.runs.set(item, (runs = new Int32Array(instants.length)));
      let value = instants[0] && valueOf(instants[0].state, item);
      for (let i = 1; i < instants.length; i++) {
        const now = valueOf(instants[i]!.state, item);
        runs[i] = Object.is(now, value) ? runs[i - 1]! : i;
        value = now;
      }
    }
    return runs;
  }

  /** Of each instant, the last up to it at which one thing was something else for no time at all, and was set again; 0 for none. */
  private brokenBy(item: Item): Int32Array {
    let breaks = this.breaks.get(item);
    if (!breaks) {
      const { instants } = this.line;
      this.breaks.set(item, (breaks = new Int32Array(instants.length)));
      for (let i = 1; i < instants.length; i++) {
        const value = valueOf(instants[i]!.state, item);
        let other = instants[i]!.with;
        while (other && Object.is(valueOf(other.state, item), value)) other = other.with;
        breaks[i] = other ? i : breaks[i - 1]!;
      }
    }
    return breaks;
  }

  /** When a unit is first as wanted after a time; undefined where it is made void before, or does not come. */
  private metAfter(wanted: StateWanted, k: number, after: Micros, limit: Micros): Micros | undefined {
    const { unit, instants } = this.line;
    const { kinds } = this;
    const { state } = wanted.aim;
    const early = millisToMicros(this.tolerance.before);
    const kind = kinds.of(k);
    /** Wants of later cues that this one cannot share: the first of them, and what they want instead. */
    let first: number | undefined;
    const instead = new Instead(unit, state);
    /** An earlier cue brought what a later one wants. */
    let brought = false;
    const ofWant = kinds.all();
    const { dues } = this;
    let next = k + 1;
    for (let i = lastAtOrBefore(instants, after + GRAIN) + 1; i < instants.length; i++) {
      const { at, state: is } = instants[i]!;
      for (; next < dues.length && dues[next]! <= at + early; next++) {
        const later = ofWant[next]!;
        if (!kinds.contradict(kind, later)) continue;
        first ??= next;
        instead.add(later, this.wants[next]!.aim.state);
      }
      if (
        meets(unit.profile, is, state) &&
        !this.silentAt(wanted, at) &&
        this.loadedBy(wanted, at + GRAIN) !== undefined
      ) {
        // What is there in time is there for this one, whatever becomes of later ones.
        return at <= limit || this.belongs(k, first, i) ? at : undefined;
      }
      const cue = this.line.cueOf(instants[i]!.cause.event);
      const due = this.firstDues.get(cue) ?? Number.POSITIVE_INFINITY;
      // What an earlier cue brought is not there for a later one; what goes back to a later one is, from then on.
      if (instead.came(instants[i - 1]?.state, is)) {
        if (cue === wanted.cueId || due >= wanted.due) return undefined;
        brought = true;
      } else if (brought && due > wanted.due) return undefined;
    }
    return undefined;
  }

  /**
   * Whether what came at an instant came for this cue, and not for a later one that wants the
   * same again: in a stretch in which the unit is busy it has to come once for each.
   */
  private belongs(k: number, between: number | undefined, first: number): boolean {
    if (between === undefined) return true;
    const { kinds, dues } = this;
    const { instants } = this.line;
    const early = millisToMicros(this.tolerance.before);
    const kind = kinds.of(k);
    const betweenKind = kinds.of(between);
    const last = this.stretchEnd(first);
    const end = instants[last]!.at;
    let times: number | undefined;
    let needed = 1;
    const ofWant = kinds.all();
    for (let n = k + 1; n < dues.length && dues[n]! - early <= end; n++) {
      const other = ofWant[n]!;
      if (dues[n]! <= dues[between]! || !kinds.contradict(betweenKind, other) || !kinds.agree(kind, other)) continue;
      if (needed === 1 && instants[first]!.at < dues[n]! - early) return true;
      needed += 1;
      times ??= 1 + countBetween(kinds.comes(kind, instants), first, last);
      if (needed > times) return false;
    }
    return true;
  }

  /** The last instant of the stretch in which the unit is busy at one. */
  private stretchEnd(at: number): number {
    const { instants } = this.line;
    if (!this.stretchEnds) {
      const ends = new Int32Array(instants.length);
      for (let i = instants.length - 1; i >= 0; i--) {
        const on = i + 1 < instants.length && instants[i + 1]!.at - instants[i]!.at < STRETCH;
        ends[i] = on ? ends[i + 1]! : i;
      }
      this.stretchEnds = ends;
    }
    return this.stretchEnds[at]!;
  }
}

/** What later cues want that an aim does not. */
class Instead {
  private readonly kinds: boolean[] = [];
  private readonly values = new Map<Item, Set<number>>();

  constructor(
    private readonly unit: UnitSpec,
    private readonly aim: UnitAim,
  ) {}

  add(kind: number, other: UnitAim): void {
    if (this.kinds[kind]) return;
    this.kinds[kind] = true;
    for (const [item, value] of itemsOf(other)) {
      const own = itemIn(this.aim, item);
      if (own === undefined || sameValue(this.unit, item, own, value)) continue;
      entry(this.values, item, () => new Set<number>()).add(value);
    }
  }

  /** Whether something became what a later cue wants. */
  came(was: UnitState | undefined, is: UnitState): boolean {
    for (const [item, values] of this.values) {
      const now = valueOf(is, item);
      const before = was && valueOf(was, item);
      // What did not change did not become anything.
      if (was && Object.is(now, before)) continue;
      for (const value of values) {
        if (!sameValue(this.unit, item, now, value)) continue;
        if (!(was && sameValue(this.unit, item, before, value))) return true;
      }
    }
    return false;
  }
}

/** Messages sent to a unit for a cue, each with its time, and those that other units may relay to it. */
const meantFor = ({ meant, rules }: UnitLine, { cueId, relayed }: Wanted): readonly Meant[] => [
  ...(meant.get(cueId) ?? []),
  ...(relayed ? rules.map((bytes) => ({ at: Number.NEGATIVE_INFINITY, bytes })) : []),
];

/** What the unit was waiting for: the preset that it loaded last, or else the last message that was meant for it. */
function whyLate(line: UnitLine, wanted: Wanted, changed: Micros): Reason {
  const { due } = wanted;
  const { loads, arrivals } = line;
  let l = lastAtOrBefore(loads, changed);
  while (l >= 0 && loads[l]!.until < changed - GRAIN) l -= 1;
  const last = meantFor(line, wanted).reduce((latest, { at, bytes }) => {
    const heard = timesOf(arrivals, bytes);
    const arrived = heard[lastTime(heard, changed)];
    return arrived !== undefined && arrived >= at - GRAIN ? Math.max(latest, arrived) : latest;
  }, Number.NEGATIVE_INFINITY);
  const arrived = loads[l]?.at ?? (last > Number.NEGATIVE_INFINITY ? last : changed);
  return { kind: 'arrived-late', arrived: arrived - due, takes: (changed - arrived) / 1000 };
}

/** Why a unit never became what was wanted: what of its messages it ignored, or what it is instead. */
export function whyNever(line: UnitLine, wanted: Wanted, before: Micros, limit: Micros): Reason {
  const own = meantFor(line, wanted);
  const firstOf = (entries: readonly Heard[], { at, bytes }: Meant): Micros | undefined => {
    const times = timesOf(entries, bytes);
    return times[lastTime(times, Math.max(before - GRAIN, at - 2 * GRAIN)) + 1];
  };
  const lost = own
    .map((m) => ({ at: firstOf(line.ignored, m), bytes: m.bytes }))
    .reduce<{ at: Micros; bytes: Bytes } | undefined>(
      (first, { at, bytes }) => (at !== undefined && (!first || at < first.at) ? { at, bytes } : first),
      undefined,
    );
  if (lost) {
    const ignored = line.ignored.find((e) => e.at === lost.at && sameBytes(e.bytes, lost.bytes))!;
    return { kind: 'ignored', why: ignored.why, bytes: ignored.bytes };
  }
  const sent = (line.meant.get(wanted.cueId) ?? []).length > 0 || wanted.relayed;
  const state = line.instants[lastAtOrBefore(line.instants, limit)]?.state;
  const arrived = own.some((m) => firstOf(line.arrivals, m) !== undefined);
  if (!arrived) return sent || !state ? { kind: 'nothing-arrived' } : { kind: 'other-state', state };
  const gone = replacedBy(line);
  // What is as wanted is so for a later cue: the message for this one was made void before it took effect.
  const isOther = wanted.aim.kind !== 'state' || !state || !meets(line.unit.profile, state, wanted.aim.state);
  const replaced = !isOther || own.some((m) => firstOf(gone, m) !== undefined);
  return !replaced && state ? { kind: 'other-state', state } : { kind: 'replaced' };
}

/** Something that came to a unit. */
type Heard = { readonly at: Micros; readonly bytes: Bytes };

const heardTimes = new WeakMap<readonly Heard[], ReadonlyMap<number | string, readonly Micros[]>>();
const NEVER: readonly Micros[] = [];

/** When certain bytes came, in order; all entries are gone through once. */
function timesOf(entries: readonly Heard[], bytes: Bytes): readonly Micros[] {
  let times = heardTimes.get(entries);
  if (!times) {
    const made = new Map<number | string, Micros[]>();
    for (const e of entries) addTo(made, keyOf(e.bytes), e.at);
    heardTimes.set(entries, (times = made));
  }
  return times.get(keyOf(bytes)) ?? NEVER;
}

/** Bytes as a key: short messages as one number, which is much cheaper than text. */
const keyOf = (bytes: Bytes): number | string =>
  bytes.length <= 3
    ? ((bytes.length * 256 + (bytes[0] ?? 0)) * 256 + (bytes[1] ?? 0)) * 256 + (bytes[2] ?? 0)
    : bytes.join(' ');

const replacedCalls = new WeakMap<UnitLine, readonly Heard[]>();

/** What called presets that never came, because others took their place. */
function replacedBy(line: UnitLine): readonly Heard[] {
  let found = replacedCalls.get(line);
  if (!found) {
    const times = new Set(line.loads.filter((l) => l.slot === undefined).map((l) => l.at));
    replacedCalls.set(line, (found = line.arrivals.filter((a) => times.has(a.at))));
  }
  return found;
}

/** Index of the last time at or before one, -1 for none. */
function lastTime(times: readonly Micros[], at: Micros): number {
  let low = 0;
  let high = times.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (times[middle]! <= at) low = middle + 1;
    else high = middle;
  }
  return low - 1;
}
