import { songWants, rigSpec } from '../meaning';
import type { TimedBytes } from '../midi';
import { dryRun, type Verdict } from '../simulate';
import { indexShow, type Show, type Song } from '../show';
import type { Micros } from '../time';
import { BOAT_PORT, boatShow } from './boat';
import { PRESS_TIME, fallbackOf, inTime, type Fallback, type FallbackStep } from './fallback';
import { DOUBLE_PRESS, FOOT_AT_REST, footStep, type FootInput, type FootState } from './machine';
import { memoryOf, type FootMemory } from './memory';

/** So long a foot stays on a switch. */
const FOOT_DOWN: Micros = 120_000;
/** The rig is brought to the opening this long before the song. */
const BEFORE_SONG: Micros = 4_000_000;
/** A change that takes longer than this after the foot is not one. */
const SOON_ENOUGH = 2000;
/** What is there sooner before its beat counts as early, which for a foot is none the worse. */
const EARLY = 250;

/** How a step by foot came out. */
export interface StepOutcome {
  readonly step: FallbackStep;
  /** Milliseconds from the press that does it until the last unit was there; null where one never was. */
  readonly after: number | null;
  /** What was not as wanted, by unit. */
  readonly failed: readonly Verdict[];
  /** The foot has no time for the presses ahead of it. */
  readonly hurried: boolean;
}

export interface Rehearsal {
  readonly fallback: Fallback;
  readonly outcomes: readonly StepOutcome[];
  /** Units that the song wants something of, and that no cable leads to without the computer. */
  readonly unreached: readonly string[];
}

/** A rehearsal in figures. */
export interface RehearsalSum {
  readonly songId: string;
  readonly startPageId: string | null;
  readonly changes: number;
  /** The most presses that a change takes. */
  readonly presses: number;
  /** Milliseconds from the press to the last unit, of the slowest change. */
  readonly slowest: number;
  /** Every change works, and every unit is reached. */
  readonly works: boolean;
}

/** Whether a step does what it should, in the time that there is. */
export const stepWorked = ({ after, failed, hurried, step }: StepOutcome): boolean =>
  step.presses !== null && after !== null && failed.length === 0 && !hurried;

/** A rehearsal by foot in figures, for the table of all songs. */
export function sumOfRehearsal({ fallback, outcomes, unreached }: Rehearsal): RehearsalSum {
  return {
    songId: fallback.songId,
    startPageId: fallback.startPageId,
    changes: outcomes.length,
    presses: outcomes.reduce((most, o) => Math.max(most, o.step.presses?.length ?? 0), 0),
    slowest: outcomes.reduce((most, o) => Math.max(most, o.after ?? 0), 0),
    works: unreached.length === 0 && outcomes.every(stepWorked),
  };
}

/**
 * A song played by foot, on the rig as it is wired without the computer: what the controller keeps, pressed as the steps say, against
 * the simulated rig, judged by what the song wants. The foot is taken to press on the beat: what a unit needs from there is told
 * apart. Null where the unit is no foot controller.
 */
export function rehearse(show: Show, unitId: string, song: Song): Rehearsal | null {
  const fallback = fallbackOf(show, unitId, song);
  if (!fallback) return null;
  const boat = boatShow(show, unitId);
  const events = footEvents(memoryOf(show, unitId), footInputs(show, unitId, fallback));
  const spec = rigSpec(boat);
  const cues = new Set(fallback.steps.filter((s) => s.presses !== null).map((s) => s.cueId));
  const reached = reachedUnits(boat);
  const all = songWants(boat, song).filter((w) => w.aim.kind === 'state');
  const wants = all.filter((w) => cues.has(w.cueId) && reached.has(w.unitId));
  const { verdicts } = dryRun(spec, events, wants, { tolerance: { after: SOON_ENOUGH, before: EARLY } });
  const outcomes = fallback.steps.map((step): StepOutcome => {
    const own = verdicts.filter((v) => v.cueId === step.cueId);
    const failed = own.filter((v) => v.outcome === 'late' || v.outcome === 'never');
    const after = Math.max(0, ...own.map((v) => (v.offset ?? 0) / 1000));
    const hurried = !inTime(step);
    return {
      step,
      after: step.presses === null || failed.some((v) => v.offset === null) ? null : after,
      failed,
      hurried,
    };
  });
  const unreached = [...new Set(all.map((w) => w.unitId))].filter((id) => !reached.has(id));
  return { fallback, outcomes, unreached };
}

/** Units that bytes from the controller reach, and those that these tell. */
function reachedUnits(boat: Show): ReadonlySet<string> {
  const { units } = rigSpec(boat);
  const reached = new Set<string>();
  const byId = new Map(units.map((u) => [u.id, u]));
  const comes = (id: string, depth: number): boolean => {
    const input = byId.get(id)?.input;
    if (!input || depth > units.length) return false;
    if (input.from === 'port') return input.portId === BOAT_PORT;
    if (input.thru) return comes(input.unitId, depth + 1);
    const before = byId.get(input.unitId);
    return before?.relays.some((r) => r.toUnit === id) === true && comes(input.unitId, depth + 1);
  };
  for (const { id } of units) if (comes(id, 0)) reached.add(id);
  return reached;
}

interface TimedInput {
  readonly at: Micros;
  readonly cueId: string;
  readonly input: FootInput;
}

/** What a foot does at which time: each press, when it is let go, and that time goes by. */
function footInputs(show: Show, unitId: string, { startPageId, steps }: Fallback): readonly TimedInput[] {
  const { units, slots } = indexShow(show);
  const places = new Map(units.get(unitId)?.profile.controller?.switches.map((s, i) => [s.id, i]));
  const inputs: TimedInput[] = [];
  const start = startPageId === null ? undefined : slots(unitId).get(startPageId)?.index;
  if (start !== undefined) inputs.push({ at: Number.NEGATIVE_INFINITY, cueId: '', input: { kind: 'go', page: start } });
  let free = Number.NEGATIVE_INFINITY;
  for (const { presses, due, cueId, since } of steps) {
    // The opening is pressed before the song begins; all else on its beat, with what leads there ahead of it.
    const on = since === null && due === 0 ? -BEFORE_SONG : due;
    for (const [i, press] of (presses ?? []).entries()) {
      const at = Math.max(on - (presses!.length - 1 - i) * PRESS_TIME, free);
      free = at + FOOT_DOWN;
      if (press.kind === 'step') {
        inputs.push({ at, cueId, input: { kind: 'step', by: press.by } });
        continue;
      }
      const place = places.get(press.switchId) ?? -1;
      const over = free + DOUBLE_PRESS;
      inputs.push(
        { at, cueId, input: { kind: 'press', switch: place, at } },
        { at: free, cueId, input: { kind: 'release', switch: place, at: free } },
        // A press that could have become a double one is over by then.
        { at: over, cueId, input: { kind: 'wake', at: over } },
      );
    }
  }
  return inputs.toSorted((a, b) => a.at - b.at);
}

/** The bytes that leave a controller that is played like that. */
function footEvents(memory: FootMemory, inputs: readonly TimedInput[]): readonly TimedBytes[] {
  let state: FootState = FOOT_AT_REST;
  return inputs.flatMap(({ at, cueId, input }) => {
    const step = footStep(memory, state, input);
    state = step.state;
    return step.sends.map((bytes) => ({ at, portId: BOAT_PORT, bytes, cueId, unitId: '' }));
  });
}
