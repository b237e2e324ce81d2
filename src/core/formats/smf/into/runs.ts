import { addTo, append } from '../../../groups';
import { isContinuous } from '../../../addressing';
import { selectorRuns } from '../../../meaning';
import { type Sweep, SWEEP_SPACING, type Unit } from '../../../show';
import { TICKS_PER_QUARTER, type Micros, type Ticks } from '../../../time';
import type { Event } from './reader';

/** Messages this close together belong to one change. */
const TOGETHER: Micros = 30_000;
/** So many values, no further apart than this, of a control without steps are a sweep. */
const SWEEP_VALUES = 4;
const SWEEP_GAP: Ticks = TICKS_PER_QUARTER;
const SWEEP_POINTS = 4000;

interface Ramp {
  readonly unit: Unit;
  readonly what: string;
  readonly first: Event;
  readonly last: Event;
  /** All but the last: what the unit would step through. */
  readonly passed: readonly Event[];
}

/** Things of one unit's that are told one after the other: its variant, or one control. */
function lines(events: readonly Event[]): Map<string, Event[]> {
  const found = new Map<string, Event[]>();
  for (const e of events) {
    if (e.kind !== 'variant' && e.kind !== 'control') continue;
    const key = e.kind === 'variant' ? e.unit.id : `${e.unit.id}\n${e.control.id}`;
    addTo(found, key, e);
  }
  return found;
}

const valueOf = (e: Event): number => (e.kind === 'variant' || e.kind === 'control' ? e.value : Number.NaN);

/** Cuts a line into runs whose neighbours satisfy a condition. */
function runs(list: readonly Event[], together: (before: Event, after: Event) => boolean): Event[][] {
  const found: Event[][] = [];
  for (const e of list) {
    const run = found.at(-1);
    if (run && together(run.at(-1)!, e)) run.push(e);
    else found.push([e]);
  }
  return found;
}

/** Ramps through selectors: each once, however it goes up and down. */
export function rampsOf(events: readonly Event[]): Ramp[] {
  const found: Ramp[] = [];
  for (const list of lines(events).values()) {
    const { unit } = list[0]!;
    const one = list[0]!;
    if (one.kind === 'control' && isContinuous(one.control.encoding)) continue;
    const what = one.kind === 'control' ? one.control.name : (unit.profile.variants?.word ?? 'variant');
    for (const run of selectorRuns(list.map((event) => ({ at: event.at, value: valueOf(event), event })))) {
      const all = run.map((s) => s.event);
      found.push({ unit, what, first: all[0]!, last: all.at(-1)!, passed: all.slice(0, -1) });
    }
  }
  return found;
}

/** Runs of values of controls without steps, as sweeps through the same values. */
export function sweepsOf(events: readonly Event[], newId: () => string): { made: Sweep[]; taken: Event[] } {
  const made: Sweep[] = [];
  const taken: Event[] = [];
  for (const list of lines(events).values()) {
    const one = list[0]!;
    if (one.kind !== 'control' || !isContinuous(one.control.encoding)) continue;
    for (const whole of runs(list, (a, b) => b.at - a.at <= SWEEP_GAP)) {
      for (let i = 0; i < whole.length; i += SWEEP_POINTS) {
        const run = whole.slice(i, i + SWEEP_POINTS);
        const from = run[0]!.at;
        const to = run.at(-1)!.at;
        if (run.length < SWEEP_VALUES || !(to > from)) continue;
        append(taken, run);
        made.push({
          id: newId(),
          unitId: one.unit.id,
          controlId: one.control.id,
          from,
          to,
          muted: false,
          shape: { kind: 'line', points: run.map((e) => ({ at: e.at - from, value: valueOf(e) })) },
          switchId: null,
          spacing: SWEEP_SPACING,
          after: 'hold',
        });
      }
    }
  }
  return { made: made.sort((a, b) => a.from - b.from), taken };
}

/** Changes that are together in time. */
export function groupsOf(events: readonly Event[], micros: (at: Ticks) => Micros): Event[][] {
  const found: Event[][] = [];
  let start = Number.NEGATIVE_INFINITY;
  for (const e of events) {
    if (e.kind === 'raw') continue;
    const at = micros(e.at);
    if (found.length > 0 && at - start <= TOGETHER) found.at(-1)!.push(e);
    else {
      found.push([e]);
      start = at;
    }
  }
  return found;
}
