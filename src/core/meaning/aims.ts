import { encodeValue, slotMessages } from '../addressing';
import { fromHex, type Bytes } from '../midi';
import type { UnitAim, UnitSpec, Wanted } from '../rig';
import { indexShow, microsAt, songTime, type Show, type Song, type Tone } from '../show';
import { TICKS_PER_QUARTER, millisToMicros, type Micros } from '../time';
import type { SetOff } from './changes';
import { contextOf, passMoment, type Doing, type RigContext } from './context';
import { moments, tapRuns, type Moment } from './moments';
import { partAims } from './partAims';
import { durationOf, latencyOf } from './path';
import { StateFold } from './stateFold';

const brought = new WeakMap<RigContext, WeakMap<Tone, ReadonlyMap<string, UnitAim>>>();

/**
 * What a tone brings, unit by unit, if nothing is known before it: what it names, and where
 * relay rules take units that it does not name. In a song more or less may be told, by what was on before.
 */
export function toneAims(show: Show, tone: Tone): ReadonlyMap<string, UnitAim> {
  const context = contextOf(show);
  let kept = brought.get(context);
  if (!kept) brought.set(context, (kept = new WeakMap()));
  let aims = kept.get(tone);
  if (!aims) kept.set(tone, (aims = aimsWithTold(show, context, tone)));
  return aims;
}

function aimsWithTold(show: Show, context: RigContext, tone: Tone): ReadonlyMap<string, UnitAim> {
  const aims = new Map(partAims(show, tone));
  const fold = new StateFold(context.units);
  const action = { kind: 'tone', toneId: tone.id, reload: false } as const;
  const moment: Moment = { id: tone.id, source: 'cue', at: 0, shift: 0, due: 0, landing: 'complete', action };
  // The tone as it is handed in may be newer than the show's.
  const shown = indexShow(show).tones.get(tone.id) === tone ? show : { ...show, tones: [tone] };
  for (const { unit } of toldBy(passMoment(shown, context, fold, moment, 'changes'))) {
    const { slot } = fold.get(unit.id);
    const own = aims.get(unit.id);
    if (slot === null || own?.slot !== undefined) continue;
    aims.set(unit.id, { ...own, slot, controls: own?.controls ?? {} });
  }
  return aims;
}

/** All that a song wants of the rig, in the order in which it is due. It knows nothing of how it will be sent. */
export function songWants(show: Show, song: Song): Wanted[] {
  const { tones } = indexShow(show);
  const context = contextOf(show);
  const relays = context.spec.units.some((u) => u.relays.length > 0);
  // Only relay rules ask what was on before: without any, what a cue says is all that it wants.
  const fold = relays ? new StateFold(context.units) : undefined;
  const aimsOf = new Map<string, ReadonlyMap<string, UnitAim>>();
  const wants: Wanted[] = [];
  for (const moment of moments(show, song)) {
    const { id: cueId, landing, action, due } = moment;
    const base = { cueId, due, landing, told: false } as const;
    if (action.kind === 'values') {
      const state = { controls: action.values };
      wants.push({ ...base, unitId: action.unitId, aim: { kind: 'state', state, reload: false } });
      // Values of controls tell nobody anything.
      continue;
    }
    const doings = fold ? passMoment(show, context, fold, moment, 'changes') : [];
    const told = toldBy(doings);
    const dueOf = (unitId: string, of: 'after' | 'takes'): Micros =>
      due + ((landing === 'sent' && told.find((t) => t.unit.id === unitId)?.[of]) || 0);
    let named: ReadonlyMap<string, UnitAim> = new Map();
    if (action.kind === 'message') {
      const bytes = fromHex(action.bytes)!;
      wants.push({ ...base, unitId: action.unitId, aim: { kind: 'bytes', bytes } });
    } else {
      named = aimsOf.get(action.toneId) ?? partAims(show, tones.get(action.toneId)!);
      aimsOf.set(action.toneId, named);
      for (const [unitId, state] of named) {
        if (namesNothing(state)) continue;
        const reached = context.paths.has(unitId);
        const aim = { kind: 'state', state, reload: action.reload && reached && state.slot !== undefined } as const;
        const by = reached ? { due: dueOf(unitId, 'takes') } : { due: dueOf(unitId, 'after'), told: true };
        wants.push({ ...base, unitId, aim, ...by });
      }
    }
    for (const { unit } of told) {
      const { slot } = fold!.get(unit.id);
      // What the cue itself says of the unit holds, whatever a rule does first.
      if (slot === null || named.get(unit.id)?.slot !== undefined) continue;
      const aim = { kind: 'state', state: { slot, controls: {} }, reload: false } as const;
      wants.push({ ...base, unitId: unit.id, due: dueOf(unit.id, 'after'), told: true, aim });
    }
  }
  return [...wants, ...tempoWants(show, song)];
}

const namesNothing = ({ slot, variant, controls }: UnitAim): boolean =>
  slot === undefined && variant === undefined && Object.keys(controls).length === 0;

/** A unit that a moment's relay rules bring somewhere. */
interface ToldUnit {
  readonly unit: UnitSpec;
  /** From the first byte that leaves, with the cable to itself, until it is there. */
  readonly after: Micros;
  /** The same, until it takes the next message. */
  readonly takes: Micros;
}

/**
 * Units that relay rules bring somewhere, each once, with the last time that they do. A unit that
 * is told gets its own change after that, and tells others what that sets off later still.
 */
function toldBy(doings: readonly Doing[]): readonly ToldUnit[] {
  const found = new Map<string, ToldUnit>();
  for (const doing of doings) {
    const begins = found.get(doing.unit.id)?.takes ?? 0;
    for (const { setOff, effect: own } of effectsOf(doing)) {
      const effect = begins + own;
      for (const { unit, there, arrives } of setOff.told) {
        if (there === null) continue;
        const after = effect + there;
        const takes = Math.max(after, effect + arrives + millisToMicros(unit.profile.times.settle));
        const before = found.get(unit.id);
        if (!before || before.after < after) found.set(unit.id, { unit, after, takes });
      }
    }
  }
  return [...found.values()];
}

/** What tells others, and when it takes effect after the first byte of its change leaves. */
function effectsOf({ unit, channel, changes, raw, path }: Doing): { setOff: SetOff; effect: Micros }[] {
  const found: { setOff: SetOff; effect: Micros }[] = [];
  if (!path || unit.relays.length === 0) return found;
  const { recall, variant, settle } = unit.profile.times;
  let free: Micros = 0;
  let accepts: Micros = 0;
  let loaded: Micros = 0;
  const arrive = (messages: readonly Bytes[]): Micros => {
    let arrives: Micros = 0;
    for (const bytes of messages) {
      free = Math.max(free + durationOf(path, bytes), accepts - latencyOf(path, bytes));
      arrives = free + latencyOf(path, bytes);
    }
    return arrives;
  };
  const load = (messages: readonly Bytes[]): Micros => {
    const arrives = arrive(messages);
    accepts = arrives + millisToMicros(settle);
    return (loaded = arrives + millisToMicros(recall));
  };
  for (const change of changes) {
    if (change.kind === 'slot') {
      const messages = slotMessages(unit.profile.plan, channel, change.slot, change.bankBefore) ?? [];
      found.push({ setOff: change.setOff, effect: load(messages) });
    } else if (change.kind === 'control') arrive(encodeValue(change.control.encoding, channel, change.value));
    else {
      const arrives = arrive(encodeValue(unit.profile.variants!.encoding, channel, change.variant));
      found.push({ setOff: change.setOff, effect: Math.max(loaded, arrives + millisToMicros(variant)) });
    }
  }
  if (raw?.taken.kind === 'slot') found.push({ setOff: raw.taken.setOff, effect: load([raw.bytes]) });
  if (raw?.taken.kind === 'variant') {
    found.push({ setOff: raw.taken.setOff, effect: arrive([raw.bytes]) + millisToMicros(variant) });
  }
  return found;
}

/** That units have the tempo: after each run of taps, and after the first quarter of every tempo that a clock gives. */
function tempoWants(show: Show, song: Song): Wanted[] {
  const time = songTime(song);
  const wants: Wanted[] = [];
  for (const { tapsId, unitId, at, beat, count, steady } of tapRuns(show, song)) {
    if (!steady || count === 0) continue;
    const interval = microsAt(time, at + beat) - microsAt(time, at);
    const due = microsAt(time, at + (count - 1) * beat);
    wants.push({
      cueId: tapsId,
      unitId,
      due,
      landing: 'sent',
      told: false,
      aim: { kind: 'tempo', by: 'taps', interval },
    });
  }
  for (const { id, portId } of song.clocks) {
    const hears = show.units.filter((u) => u.input?.from === 'port' && u.input.portId === portId);
    for (const { at } of song.tempo) {
      // Clocks go by quarters from the start of the song.
      const from = Math.ceil(at / TICKS_PER_QUARTER) * TICKS_PER_QUARTER;
      const to = from + TICKS_PER_QUARTER;
      if (to > time.end) continue;
      const due = microsAt(time, to);
      const aim = { kind: 'tempo', by: 'clock', interval: due - microsAt(time, from) } as const;
      for (const unit of hears) wants.push({ cueId: id, unitId: unit.id, due, landing: 'sent', told: false, aim });
    }
  }
  return wants;
}
