import { effectiveMessage, encodeValue, slotMessages } from '../addressing';
import { fromHex, type Bytes } from '../midi';
import { acceptsAgainAfter, effectAfter, type UnitAim, type UnitSpec, type Wanted } from '../rig';
import { indexShow, microsAt, songTime, type Show, type Song, type Tone } from '../show';
import { TICKS_PER_QUARTER, type Micros } from '../time';
import type { RelayEffects } from './changes';
import { contextOf, passMoment, type Doing, type RigContext } from './context';
import { moments, tapRuns, type Moment } from './moments';
import { partAims } from './partAims';
import { durationOf, latencyOf } from './path';
import { afterSettled, afterThere, calledUntil, type CalledUntil } from './relayTiming';
import { StateFold } from './stateFold';

const brought = new WeakMap<RigContext, WeakMap<Tone, ReadonlyMap<string, UnitAim>>>();

/**
 * What a tone brings, unit by unit, if nothing is known before it: what it names, and where
 * relay rules take units that it does not name. In a song the state before may relay more or less.
 */
export function toneAims(show: Show, tone: Tone): ReadonlyMap<string, UnitAim> {
  const context = contextOf(show);
  let kept = brought.get(context);
  if (!kept) brought.set(context, (kept = new WeakMap()));
  let aims = kept.get(tone);
  if (!aims) kept.set(tone, (aims = aimsWithRelayed(show, context, tone)));
  return aims;
}

function aimsWithRelayed(show: Show, context: RigContext, tone: Tone): ReadonlyMap<string, UnitAim> {
  const aims = new Map(partAims(show, tone));
  const fold = new StateFold(context.units);
  const action = { kind: 'tone', toneId: tone.id, reload: false } as const;
  const moment: Moment = { id: tone.id, source: 'cue', at: 0, shift: 0, due: 0, landing: 'complete', action };
  // The tone as it is handed in may be newer than the show's.
  const shown = indexShow(show).tones.get(tone.id) === tone ? show : { ...show, tones: [tone] };
  for (const { unit } of relayTimes(passMoment(shown, context, fold, moment, 'changes'), context.room).relayed) {
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
    // Written out: copying what is shared takes longer than all else here, and this is done for each unit of each cue.
    const want = (unitId: string, aim: Wanted['aim'], at: Micros, relayed: boolean): void =>
      void wants.push({ cueId, unitId, due: at, landing, relayed, aim, guard: context.room.get(unitId)?.guard ?? 0 });
    if (action.kind === 'values') {
      const state = { controls: action.values };
      want(action.unitId, { kind: 'state', state, reload: false }, due, false);
      // Values of controls trigger no relay rules.
      continue;
    }
    const doings = fold ? passMoment(show, context, fold, moment, 'changes') : [];
    const { relayed, ownDelays } = relayTimes(doings, context.room);
    const dueThere = (unitId: string): Micros =>
      due + ((landing === 'sent' && relayed.find((t) => t.unit.id === unitId)?.after) || 0);
    const dueOwn = (unitId: string): Micros => due + ((landing === 'sent' && ownDelays.get(unitId)) || 0);
    let named: ReadonlyMap<string, UnitAim> = new Map();
    if (action.kind === 'message') {
      const bytes = fromHex(action.bytes)!;
      want(action.unitId, { kind: 'bytes', bytes }, due, false);
    } else {
      named = aimsOf.get(action.toneId) ?? partAims(show, tones.get(action.toneId)!);
      aimsOf.set(action.toneId, named);
      for (const [unitId, state] of named) {
        if (namesNothing(state)) continue;
        const reached = context.paths.has(unitId);
        const called = reached || relayed.some((t) => t.unit.id === unitId);
        const aim = { kind: 'state', state, reload: action.reload && called && state.slot !== undefined } as const;
        want(unitId, aim, reached ? dueOwn(unitId) : dueThere(unitId), !reached);
      }
    }
    for (const { unit } of relayed) {
      const { slot } = fold!.get(unit.id);
      // What the cue itself says of the unit holds, whatever a rule does first.
      if (slot === null || named.get(unit.id)?.slot !== undefined) continue;
      // A preset that loads again has rules load others again.
      const reload = action.kind === 'tone' && action.reload;
      const aim = { kind: 'state', state: { slot, controls: {} }, reload } as const;
      want(unit.id, aim, dueThere(unit.id), true);
    }
  }
  return [...wants, ...tempoWants(show, song)];
}

const namesNothing = ({ slot, variant, controls }: UnitAim): boolean =>
  slot === undefined && variant === undefined && Object.keys(controls).length === 0;

/** A unit that a moment's relay rules bring somewhere. */
interface RelayedUnit {
  readonly unit: UnitSpec;
  /** From the first byte that leaves, with the cable to itself, until it is there. */
  readonly after: Micros;
}

interface RelayTimes {
  /** Units that rules bring somewhere, each once, with the last time that they do. */
  readonly relayed: readonly RelayedUnit[];
  /** How much later a unit's own messages leave because of relayed messages to it, or to units that it relays to. */
  readonly ownDelays: ReadonlyMap<string, Micros>;
}

const NO_RELAY_TIMES: RelayTimes = { relayed: [], ownDelays: new Map() };

/**
 * What relay rules do in a moment. A relayed unit gets its own change after that, and
 * relays to others later still: once they accept it, and have reached what was relayed to them before.
 */
function relayTimes(doings: readonly Doing[], room: RigContext['room']): RelayTimes {
  if (!doings.some((d) => d.unit.relays.length > 0)) return NO_RELAY_TIMES;
  const found = new Map<string, RelayedUnit>();
  const ownDelays = new Map<string, Micros>();
  const busy = new Map<string, CalledUntil>();
  for (const doing of doings) {
    const own = busy.get(doing.unit.id);
    const begins = own ? Math.max(own.there, own.settled) + room.get(doing.unit.id)!.guard : 0;
    // Calls of one change by several rules arrive in their order: only calls of other units have to be over.
    const others = new Map(busy);
    const acceptedAt = ({ relayed }: RelayEffects): Micros =>
      relayed.reduce((at, call) => {
        const before = others.get(call.unit.id);
        if (!before) return at;
        const { guard } = room.get(call.unit.id)!;
        return Math.max(at, afterSettled(before.settled, call) + guard, afterThere(before.there, call) + guard);
      }, begins) - begins;
    const { effects, waited } = effectsOf(doing, room.get(doing.unit.id)!.guard, acceptedAt);
    ownDelays.set(doing.unit.id, begins + waited);
    for (const { relayEffects, effect } of effects) {
      for (const call of relayEffects.relayed) {
        const { unit } = call;
        const until = calledUntil(call);
        const after = begins + effect + until.there;
        const settled = begins + effect + until.settled;
        const was = busy.get(unit.id) ?? { there: 0, settled: 0 };
        busy.set(unit.id, { there: Math.max(was.there, after), settled: Math.max(was.settled, settled) });
        const before = found.get(unit.id);
        if (call.there !== null && (!before || before.after < after)) found.set(unit.id, { unit, after });
      }
    }
  }
  for (const [id, { there, settled }] of busy) {
    if (!ownDelays.has(id)) ownDelays.set(id, Math.max(there, settled) + room.get(id)!.guard);
  }
  return { relayed: [...found.values()], ownDelays };
}

/**
 * The messages that trigger relay rules, each with its effect after the first byte of the change leaves.
 * `acceptedAt` says when the called units would accept the call: the effect is no sooner.
 */
function effectsOf(
  { unit, channel, changes, raw, path }: Doing,
  guard: Micros,
  acceptedAt: (relayEffects: RelayEffects) => Micros,
): { effects: { relayEffects: RelayEffects; effect: Micros }[]; waited: Micros } {
  const effects: { relayEffects: RelayEffects; effect: Micros }[] = [];
  let waited: Micros = 0;
  if (!path || unit.relays.length === 0) return { effects, waited };
  let free: Micros = 0;
  let accepts: Micros = 0;
  let loaded: Micros = 0;
  /** When the message arrives that takes effect: no sooner than `least`. */
  const arrive = (messages: readonly Bytes[], effective = messages.length - 1, least: Micros = 0): Micros => {
    let arrives: Micros = 0;
    for (const [k, bytes] of messages.entries()) {
      const latency = latencyOf(path, bytes);
      free = Math.max(free + durationOf(path, bytes), accepts - latency);
      if (k !== effective) continue;
      const held = Math.max(0, least - latency - free);
      free += held;
      waited += held;
      arrives = free + latency;
    }
    return arrives;
  };
  const load = (messages: readonly Bytes[], slot: number | null, relayEffects: RelayEffects): void => {
    const recall = effectAfter(unit, 'recall', slot);
    const arrives = arrive(messages, undefined, acceptedAt(relayEffects) - recall);
    accepts = arrives + acceptsAgainAfter(unit) + guard;
    effects.push({ relayEffects, effect: (loaded = arrives + recall) });
  };
  const vary = (messages: readonly Bytes[], effective: number | undefined, relayEffects: RelayEffects): void => {
    const variant = effectAfter(unit, 'variant');
    const arrives = arrive(messages, effective, acceptedAt(relayEffects) - variant);
    effects.push({ relayEffects, effect: Math.max(loaded, arrives + variant) });
  };
  for (const change of changes) {
    if (change.kind === 'slot') {
      const messages = slotMessages(unit.profile.plan, channel, change.slot, change.bankBefore) ?? [];
      load(messages, change.slot, change.relayEffects);
    } else if (change.kind === 'control') arrive(encodeValue(change.control.encoding, channel, change.value));
    else {
      const { encoding } = unit.profile.variants!;
      const messages = encodeValue(encoding, channel, change.variant);
      vary(messages, effectiveMessage(encoding, messages), change.relayEffects);
    }
  }
  if (raw?.taken.kind === 'slot') load([raw.bytes], raw.taken.slot, raw.taken.relayEffects);
  if (raw?.taken.kind === 'variant') vary([raw.bytes], 0, raw.taken.relayEffects);
  return { effects, waited };
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
      relayed: false,
      guard: 0,
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
      for (const unit of hears)
        wants.push({ cueId: id, unitId: unit.id, due, landing: 'sent', relayed: false, guard: 0, aim });
    }
  }
  return wants;
}
