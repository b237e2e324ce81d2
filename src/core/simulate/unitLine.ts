import { addTo } from '../groups';
import type { Bytes, TimedBytes } from '../midi';
import type { RigSpec, UnitSpec, UnitState } from '../rig';
import type { Micros } from '../time';
import type { BorneBy } from './margins';
import type { Cause, Loading, TraceEntry } from './trace';

/** A preset that a unit began to load; `slot` is set once it is there, and stays undefined where another took its place. */
export interface Load {
  readonly at: Micros;
  readonly until: Micros;
  readonly load: Loading;
  /** The cue that it was called for; empty where nobody said. */
  readonly cueId: string;
  slot: number | null | undefined;
}

/** What a unit was after everything that happened at one time. */
export interface Instant {
  readonly at: Micros;
  readonly state: UnitState;
  readonly cause: Cause;
  /** When it would have been so had no preset been loading. */
  readonly own: Micros;
  /** What else happened at the same time, just before; null for nothing. */
  readonly with: Instant | null;
  /** Index of the last instant, up to this one, at which a preset was there. */
  readonly loaded: number;
}

/** Bytes that were sent to a unit for a cue. */
export interface Meant {
  readonly at: Micros;
  readonly bytes: Bytes;
}

/** All that a trace says of one unit, by time. */
export interface UnitLine {
  readonly unit: UnitSpec;
  /** The unit as the plan reckons with it: what it may take of a change that is sent on its beat. */
  readonly planned: UnitSpec;
  /** What messages bear before they are lost; null where nobody asked. */
  losses: BorneBy | null;
  /** Thrus that a message passes on its way there, and what they and the port add, as the plan reckons with it. */
  readonly thrus: number;
  readonly held: Micros;
  readonly instants: Instant[];
  readonly arrivals: Extract<TraceEntry, { kind: 'arrived' }>[];
  readonly ignored: Extract<TraceEntry, { kind: 'ignored' }>[];
  readonly loads: Load[];
  readonly tempos: Extract<TraceEntry, { kind: 'tempo' }>[];
  /** What was sent to it, by cue. */
  readonly meant: ReadonlyMap<string, readonly Meant[]>;
  /** When other units may relay something to it. */
  readonly rules: readonly Bytes[];
  /** The cue that something was sent for, by its place among the events; empty where nobody said. */
  readonly cueOf: (event: number) => string;
  nextArrival: number;
}

/** How many thrus a message passes on its way from a port to a unit. */
export function thrusTo({ units }: RigSpec, unit: UnitSpec): number {
  let thrus = 0;
  let input = unit.input;
  // A circle of thrus has no end.
  while (input?.from === 'unit' && input.thru && thrus < units.length) {
    const from: string = input.unitId;
    input = units.find((u) => u.id === from)?.input ?? null;
    thrus += 1;
  }
  return thrus;
}

/** What the port and the thrus on the way to a unit add to the length of a message. */
export function heldBefore({ units, ports }: RigSpec, unit: UnitSpec): Micros {
  let held: Micros = 0;
  let input = unit.input;
  for (let passed = 0; input?.from === 'unit' && input.thru && passed < units.length; passed++) {
    const from: string = input.unitId;
    const before = units.find((u) => u.id === from);
    held += before?.pace.thru ?? 0;
    input = before?.input ?? null;
  }
  const portId = input?.from === 'port' ? input.portId : undefined;
  return held + (ports.find((p) => p.id === portId)?.delay ?? 0);
}

/** Whether two messages are the same, byte by byte. */
export const sameBytes = (a: Bytes, b: Bytes): boolean => a.length === b.length && a.every((byte, i) => byte === b[i]);

/**
 * What happened to each unit in a dry run, in the order of time, beside what was meant for it. Made from the trace
 * alone.
 */
export function unitLines(
  spec: RigSpec,
  trace: readonly TraceEntry[],
  events: readonly TimedBytes[],
  planned: RigSpec = spec,
): ReadonlyMap<string, UnitLine> {
  const meant = new Map<string, Map<string, Meant[]>>();
  for (const { unitId, cueId, at, bytes } of events) {
    let cues = meant.get(unitId);
    if (!cues) meant.set(unitId, (cues = new Map()));
    addTo(cues, cueId, { at, bytes });
  }
  const plannedUnits = new Map(planned.units.map((u) => [u.id, u]));
  const rules = spec.units.flatMap((u) => u.relays);
  const cueOf = (event: number): string => events[event]?.cueId ?? '';
  const lines = new Map<string, UnitLine>(
    spec.units.map((unit) => [
      unit.id,
      {
        unit,
        planned: plannedUnits.get(unit.id) ?? unit,
        losses: null,
        thrus: thrusTo(spec, unit),
        held: heldBefore(planned, unit),
        instants: [],
        arrivals: [],
        ignored: [],
        loads: [],
        tempos: [],
        meant: meant.get(unit.id) ?? new Map<string, Meant[]>(),
        rules: rules.filter((r) => r.toUnit === unit.id).flatMap((r) => r.messages),
        cueOf,
        nextArrival: 0,
      },
    ]),
  );
  for (const entry of trace) {
    if (!('unitId' in entry)) continue;
    const line = lines.get(entry.unitId);
    if (!line) continue;
    if (entry.kind === 'changed') change(line, entry);
    else if (entry.kind === 'arrived') line.arrivals.push(entry);
    else if (entry.kind === 'ignored') line.ignored.push(entry);
    else if (entry.kind === 'tempo') line.tempos.push(entry);
    else if (entry.kind === 'loading')
      line.loads.push({
        at: entry.at,
        until: entry.load.until,
        load: entry.load,
        cueId: cueOf(entry.load.cause.event),
        slot: undefined,
      });
  }
  return lines;
}

function change(
  { instants, loads }: UnitLine,
  { at, state, cause, own }: Extract<TraceEntry, { kind: 'changed' }>,
): void {
  // Of several recalls in a row only the last completes.
  const load = loads.at(-1);
  if (load && load.until === at && load.slot === undefined) load.slot = state.slot;
  // What lasts no time at all was never there.
  const before = instants.at(-1)?.at === at ? instants.pop()! : null;
  const loaded = load?.until === at ? instants.length : ((before ?? instants.at(-1))?.loaded ?? -1);
  instants.push({ at, state, cause, own, with: before, loaded });
}

/** Index of the last entry at or before a time, -1 for none. */
export function lastAtOrBefore(list: readonly { readonly at: Micros }[], at: Micros): number {
  let low = 0;
  let high = list.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (list[middle]!.at <= at) low = middle + 1;
    else high = middle;
  }
  return low - 1;
}
