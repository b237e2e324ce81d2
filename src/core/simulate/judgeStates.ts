import { DIN_BYTE_MICROS, type Bytes } from '../midi';
import { meets, sameControl, type UnitAim, type UnitSpec, type UnitState, type Wanted } from '../rig';
import { millisToMicros, type Micros } from '../time';
import { lastAtOrBefore, sameBytes, type UnitLine } from './unitLine';
import type { Reason, Tolerance, Verdict } from './verdict';

/** Rounding of sums of microseconds. */
export const GRAIN: Micros = 0.01;

/** What happens nearer together than this is one stretch in which a unit is busy. */
const STRETCH: Micros = 1e6;

type StateWanted = Wanted & { readonly aim: Extract<Wanted['aim'], { kind: 'state' }> };

const isState = (wanted: Wanted): wanted is StateWanted => wanted.aim.kind === 'state';

/** How long a change may take that is sent on its beat: all that the unit needs, and the wire. */
export function nominal(unit: UnitSpec, wanted: Wanted): Micros {
  const { times, controls } = unit.profile;
  if (wanted.landing === 'complete') return 0;
  if (wanted.aim.kind === 'bytes') return wanted.aim.bytes.length * DIN_BYTE_MICROS + 1000;
  if (wanted.aim.kind === 'tempo') return 3 * DIN_BYTE_MICROS + 1000;
  const { slot, variant } = wanted.aim.state;
  const wire = (4 + Math.min(controls.length, Object.keys(wanted.aim.state.controls).length)) * 3 * DIN_BYTE_MICROS;
  // Its due time has in it what it takes to be told.
  if (wanted.told) return wire;
  const load = slot === undefined ? 0 : Math.max(times.recall, times.settle);
  return millisToMicros(load + (variant === undefined ? 0 : times.variant) + times.control) + wire;
}

/** One thing that an aim names: the slot, the variant, or a control. */
type Item = 'slot' | 'variant' | `control ${string}`;

function* itemsOf(aim: UnitAim): Generator<readonly [item: Item, value: number]> {
  if (aim.slot !== undefined) yield ['slot', aim.slot];
  if (aim.variant !== undefined) yield ['variant', aim.variant];
  for (const id in aim.controls) yield [`control ${id}`, aim.controls[id]!];
}

function valueOf(state: UnitState, item: Item): number | 'stored' | null | undefined {
  return item === 'slot' ? state.slot : item === 'variant' ? state.variant : state.controls[item.slice(8)];
}

const sameValue = (unit: UnitSpec, item: Item, a: ReturnType<typeof valueOf>, b: number): boolean =>
  item === 'slot' || item === 'variant' ? a === b : sameControl(unit.profile, item.slice(8), a ?? undefined, b);

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
  /** The value that the last earlier want of an item had: a value that is there because of it is on time. */
  private readonly asked = new Map<Item, number>();
  /** Loads up to this one belong to earlier wants. */
  private usedLoad = -1;
  /** Everything that earlier wants asked for was there by then. */
  private settled: Micros = Number.NEGATIVE_INFINITY;
  /** Earlier wants that were met later than what is judged now was due. */
  private pending: { readonly wanted: StateWanted; readonly met: Micros }[] = [];

  constructor(
    private readonly line: UnitLine,
    private readonly wants: readonly StateWanted[],
    private readonly tolerance: Tolerance,
  ) {}

  all(): Verdict[] {
    let before = Number.NEGATIVE_INFINITY;
    return this.wants.map((wanted, k) => {
      const previous = this.wants[k - 1];
      if (previous && previous.due < wanted.due) {
        before = previous.due;
        this.settled = Math.max(this.settled, before);
      }
      this.pending = this.pending.filter((p) => p.met > wanted.due + GRAIN);
      const verdict = this.one(wanted, k, before);
      this.remember(wanted, verdict);
      return verdict;
    });
  }

  private remember(wanted: StateWanted, { offset }: Verdict): void {
    const { aim, due } = wanted;
    if (aim.state.slot !== undefined && (aim.reload || this.asked.get('slot') !== aim.state.slot)) this.asked.clear();
    for (const [item, value] of itemsOf(aim.state)) this.asked.set(item, value);
    if (offset === null) return;
    const met = due + Math.max(0, offset);
    this.settled = Math.max(this.settled, met);
    if (met > due + GRAIN) this.pending.push({ wanted, met });
    if (aim.state.slot === undefined) return;
    const { loads } = this.line;
    for (let i = this.usedLoad + 1; i < loads.length && loads[i]!.at <= met + GRAIN; i++) {
      if (loads[i]!.slot === aim.state.slot && loads[i]!.until <= met + GRAIN) this.usedLoad = i;
    }
  }

  private one(wanted: StateWanted, k: number, before: Micros): Verdict {
    const { line, tolerance } = this;
    const { unit, instants } = line;
    const { due, cueId, unitId, aim } = wanted;
    const base = { cueId, unitId, due };
    // What an earlier cue wanted otherwise, and what comes late, comes before this.
    const floor = this.pending.reduce(
      (latest, p) => (contradicts(unit, p.wanted, wanted) ? Math.max(latest, p.met) : latest),
      Number.NEGATIVE_INFINITY,
    );
    const last = lastAtOrBefore(instants, due + GRAIN);
    const there = floor <= due + GRAIN && last >= 0 && meets(unit.profile, instants[last]!.state, aim.state);
    if (there && !this.silentAt(wanted) && this.loadedBy(wanted, due + GRAIN) !== undefined) {
      const since = this.cameBy(wanted, last);
      if (since === undefined) return { ...base, outcome: 'on-time', offset: 0, reason: { kind: 'already' } };
      const offset = since - due;
      const early = offset < -millisToMicros(tolerance.before) - GRAIN;
      if (early) return { ...base, outcome: 'early', offset, reason: { kind: 'too-early' } };
      return { ...base, outcome: 'on-time', offset, reason: { kind: 'as-wanted' } };
    }
    const limit = due + nominal(unit, wanted) + millisToMicros(tolerance.after) + GRAIN;
    const met = this.metAfter(wanted, k, Math.max(due, floor));
    if (met === undefined) {
      return { ...base, outcome: 'never', offset: null, reason: whyNever(line, wanted, before, limit) };
    }
    const offset = met - due;
    if (met <= limit) return { ...base, outcome: 'on-time', offset, reason: { kind: 'as-wanted' } };
    return { ...base, outcome: 'late', offset, reason: whyLate(line, wanted, met) };
  }

  /** A preset loads at the due time, and the unit is silent meanwhile. */
  private silentAt({ due, aim }: StateWanted): boolean {
    if (aim.state.slot === undefined || !this.line.unit.profile.silentInGap) return false;
    const load = this.line.loads[lastAtOrBefore(this.line.loads, due + GRAIN)];
    return load !== undefined && load.until > due + GRAIN;
  }

  /** When the preset was there that is to be loaded again: the last by a time. Where nothing is, long ago. */
  private loadedBy({ aim }: StateWanted, by: Micros): Micros | undefined {
    if (!aim.reload) return Number.NEGATIVE_INFINITY;
    const { loads } = this.line;
    for (let i = loads.length - 1; i > this.usedLoad; i--) {
      if (loads[i]!.slot === aim.state.slot && loads[i]!.until <= by) return loads[i]!.until;
    }
    return undefined;
  }

  /** Since when all is as wanted that no earlier cue asked for; undefined where nothing had to change. */
  private cameBy(wanted: StateWanted, last: number): Micros | undefined {
    const { unit, instants } = this.line;
    let came: Micros | undefined;
    const note = (at: Micros): void => {
      if (at > this.settled + GRAIN) came = Math.max(came ?? at, at);
    };
    for (const [item, value] of itemsOf(wanted.aim.state)) {
      if (this.asked.get(item) === value) continue;
      let since = last;
      while (since > 0 && sameValue(unit, item, valueOf(instants[since - 1]!.state, item), value)) since -= 1;
      note(instants[since]!.at);
    }
    if (wanted.aim.reload) note(this.loadedBy(wanted, wanted.due + GRAIN)!);
    return came;
  }

  /** When a unit is first as wanted after a time; undefined where it is made void before, or does not come. */
  private metAfter(wanted: StateWanted, k: number, after: Micros): Micros | undefined {
    const { unit, instants } = this.line;
    const { state } = wanted.aim;
    const early = millisToMicros(this.tolerance.before);
    const others: StateWanted[] = [];
    let next = k + 1;
    for (let i = lastAtOrBefore(instants, after + GRAIN) + 1; i < instants.length; i++) {
      const { at, state: is } = instants[i]!;
      for (; next < this.wants.length && this.wants[next]!.due <= at + early; next++) {
        const later = this.wants[next]!;
        if (contradicts(unit, wanted, later)) others.push(later);
      }
      if (meets(unit.profile, is, state) && this.loadedBy(wanted, at + GRAIN) !== undefined) {
        return this.belongs(wanted, k, others[0], i) ? at : undefined;
      }
      const was = instants[i - 1]?.state;
      if (others.some((w) => this.takesOver(wanted, w, was, is))) return undefined;
    }
    return undefined;
  }

  /** Something becomes what a later cue wants and this one does not. */
  private takesOver(wanted: StateWanted, later: StateWanted, was: UnitState | undefined, is: UnitState): boolean {
    const { unit } = this.line;
    for (const [item, value] of itemsOf(later.aim.state)) {
      const own = itemIn(wanted.aim.state, item);
      if (own === undefined || sameValue(unit, item, own, value)) continue;
      const came = sameValue(unit, item, valueOf(is, item), value);
      if (came && !(was && sameValue(unit, item, valueOf(was, item), value))) return true;
    }
    return false;
  }

  /**
   * Whether what came at an instant came for this cue, and not for a later one that wants the
   * same again: in a stretch in which the unit is busy it has to come once for each.
   */
  private belongs(wanted: StateWanted, k: number, between: StateWanted | undefined, first: number): boolean {
    if (!between) return true;
    const { unit, instants } = this.line;
    const early = millisToMicros(this.tolerance.before);
    let times = 1;
    let i = first + 1;
    for (; i < instants.length && instants[i]!.at - instants[i - 1]!.at < STRETCH; i++) {
      const now = meets(unit.profile, instants[i]!.state, wanted.aim.state);
      if (now && !meets(unit.profile, instants[i - 1]!.state, wanted.aim.state)) times += 1;
    }
    const end = instants[i - 1]!.at;
    let needed = 1;
    for (let n = k + 1; n < this.wants.length && this.wants[n]!.due - early <= end; n++) {
      const w = this.wants[n]!;
      const again = w.due > between.due && contradicts(unit, between, w) && meetsAim(unit, wanted.aim.state, w);
      if (!again) continue;
      if (needed === 1 && instants[first]!.at < w.due - early) return true;
      needed += 1;
    }
    return times >= needed;
  }
}

const itemIn = (aim: UnitAim, item: Item): number | undefined =>
  item === 'slot' ? aim.slot : item === 'variant' ? aim.variant : aim.controls[item.slice(8)];

/** Whether two wants name the same thing with different values. */
function contradicts(unit: UnitSpec, a: StateWanted, b: StateWanted): boolean {
  for (const [item, value] of itemsOf(a.aim.state)) {
    const other = itemIn(b.aim.state, item);
    if (other !== undefined && !sameValue(unit, item, other, value)) return true;
  }
  return false;
}

/** Whether another want names something of an aim, and nothing against it. */
function meetsAim(unit: UnitSpec, aim: UnitAim, { aim: { state } }: StateWanted): boolean {
  let shared = false;
  for (const [item, value] of itemsOf(aim)) {
    const other = itemIn(state, item);
    if (other === undefined) continue;
    if (!sameValue(unit, item, other, value)) return false;
    shared = true;
  }
  return shared;
}

/** Bytes that were sent for a cue to a unit, or that others tell it. */
const meantFor = ({ meant, rules }: UnitLine, { cueId, told }: Wanted): ((at: Micros, bytes: Bytes) => boolean) => {
  const own = meant.get(cueId) ?? [];
  return (at, bytes) =>
    own.some((m) => m.at <= at + GRAIN && sameBytes(m.bytes, bytes)) ||
    (told && rules.some((r) => sameBytes(r, bytes)));
};

/** What the unit was waiting for: the preset that it loaded last, or else the last message that was meant for it. */
function whyLate(line: UnitLine, wanted: Wanted, changed: Micros): Reason {
  const { due } = wanted;
  const loading = line.loads.findLast((l) => l.at <= changed && l.until >= changed - GRAIN);
  const isMeant = meantFor(line, wanted);
  const last = line.arrivals.findLast((a) => a.at <= changed && isMeant(a.at, a.bytes));
  const arrived = loading?.at ?? last?.at ?? changed;
  return { kind: 'arrived-late', arrived: arrived - due, takes: (changed - arrived) / 1000 };
}

/** Why a unit never became what was wanted: what of its messages it ignored, or what it is instead. */
export function whyNever(line: UnitLine, wanted: Wanted, before: Micros, limit: Micros): Reason {
  const isMeant = meantFor(line, wanted);
  const near = (at: Micros): boolean => at > before - GRAIN;
  const ignored = line.ignored.find((entry) => near(entry.at) && isMeant(entry.at, entry.bytes));
  if (ignored) return { kind: 'ignored', why: ignored.why, bytes: ignored.bytes };
  const arrived = line.arrivals.filter((entry) => near(entry.at) && isMeant(entry.at, entry.bytes));
  const sent = (line.meant.get(wanted.cueId) ?? []).length > 0 || wanted.told;
  const state = line.instants[lastAtOrBefore(line.instants, limit)]?.state;
  if (arrived.length === 0) return sent || !state ? { kind: 'nothing-arrived' } : { kind: 'other-state', state };
  const replaced = line.loads.some((l) => l.slot === undefined && arrived.some((a) => a.at === l.at));
  return !replaced && state ? { kind: 'other-state', state } : { kind: 'replaced' };
}
