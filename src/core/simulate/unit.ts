import { isForEveryUnit } from '../clock';
import {
  UNKNOWN_STATE,
  acceptsAgainAfter,
  afterControl,
  afterRecall,
  effectAfter,
  relaysFired,
  remember,
  understand,
  type Called,
  type UnitSpec,
  type UnitState,
} from '../rig';
import { indexOfAddress, type Control } from '../addressing';
import {
  BANK_LSB,
  BANK_MSB,
  channelOf,
  decodeMessage,
  identityReply,
  inquiredOf,
  type Bytes,
  type Message,
} from '../midi';
import type { Micros } from '../time';
import type { Cause, IgnoredWhy, Loading, TraceEntry } from './trace';
import { BY_PACE, type Timing } from './timing';
import { tailsLost, tailsOf, type Tail } from './tails';
import { ClockEar, TapEar, type HeardTempo } from './tempoEar';

/** What a unit needs of the rig around it. */
export interface UnitHost {
  readonly later: (at: Micros, run: () => void) => void;
  readonly note: (entry: TraceEntry) => void;
  readonly relay: (at: Micros, messages: readonly Bytes[], cause: Cause) => void;
}

/** A nanosecond: sums of the same times in another order differ by less. */
const GRAIN: Micros = 1e-3;

/** Stands for a unit's variant among its controls; no control has an empty id. */
const VARIANT = '';

/** One unit as it is on stage: receives bytes, obeys after its own delay, and relays changes. */
export class SimulatedUnit {
  state: UnitState;
  /** While it waits for a message to learn. */
  learning = false;
  /** Until then a preset loads; what arrives meanwhile takes effect no earlier. */
  busyUntil: Micros = Number.NEGATIVE_INFINITY;
  private deafUntil: Micros = Number.NEGATIVE_INFINITY;
  /** What arrived while it settled and is taken later, in its order. */
  private readonly waiting: { readonly came: Micros; readonly bytes: Bytes; readonly cause: Cause }[] = [];
  /** The preset that was called last. */
  private load: Loading | null = null;
  /** The message that last chose a bank. */
  private bankBy: Cause | null = null;
  /** How much sooner that may be there, and how many times of units lie before it. */
  private loaded: Pick<Cause, 'spread' | 'steps'> = { spread: 0, steps: 0 };
  private recalls = 0;
  private readonly memory = new Map<number, number>();
  /** When the last value of each control, and the last variant, takes effect. */
  private readonly latest = new Map<string, Micros>();
  private readonly tapped = new TapEar();
  private readonly clocked = new ClockEar();

  constructor(
    private readonly spec: UnitSpec,
    private readonly host: UnitHost,
    state: UnitState = UNKNOWN_STATE,
    private readonly timing: Timing = BY_PACE,
  ) {
    this.state = state;
  }

  receive(at: Micros, bytes: Bytes, cause: Cause): void {
    const { spec } = this;
    if (isForEveryUnit(bytes)) {
      this.noteArrived(at, at, bytes, cause);
      this.follow(at, this.clocked.hear(at, bytes));
      return;
    }
    const channel = channelOf(bytes);
    if (channel !== undefined && spec.listens !== 'all' && channel !== spec.listens) {
      this.ignore(at, bytes, 'other-channel', cause);
      return;
    }
    if (this.answer(at, bytes, cause)) return;
    if (this.learning && channel !== undefined) {
      this.learning = false;
      this.host.note({ kind: 'learnt', at, unitId: spec.id, bytes });
      return;
    }
    const deaf = at < this.deafUntil - GRAIN;
    if (deaf && spec.profile.whileSettling === 'ignore') {
      this.ignore(at, bytes, 'settling', cause);
      return;
    }
    // What comes just as others are still in the queue comes behind them.
    if (deaf || this.waiting.length > 0) {
      this.waiting.push({ came: at, bytes, cause });
      if (this.waiting.length === 1) this.takeLater();
      return;
    }
    this.take(at, at, bytes, cause);
  }

  private takeLater(): void {
    const at = this.deafUntil;
    this.host.later(at, () => this.takeWaiting(at));
  }

  /** Takes what waited, in the order in which it came; a preset among it makes the rest wait on. */
  private takeWaiting(at: Micros): void {
    while (this.waiting.length > 0 && at >= this.deafUntil - GRAIN) {
      const { came, bytes, cause } = this.waiting.shift()!;
      this.take(at, came, bytes, cause);
    }
    if (this.waiting.length > 0) this.takeLater();
  }

  /** Takes a message in, and does what it says. */
  private take(at: Micros, came: Micros, bytes: Bytes, cause: Cause): void {
    this.noteArrived(at, came, bytes, cause);
    const message = decodeMessage(bytes);
    if (!message || !this.obey(at, message, cause)) this.ignore(at, bytes, 'not-understood', cause);
  }

  /** Answers a device inquiry that names its own device id or all devices (MIDI 1.0, universal non-real-time 06 01). */
  private answer(at: Micros, bytes: Bytes, cause: Cause): boolean {
    const asked = inquiredOf(bytes);
    if (asked === null) return false;
    const { profile, listens } = this.spec;
    const device = listens === 'all' ? 0 : listens - 1;
    this.noteArrived(at, at, bytes, cause);
    if (profile.identity && (asked === 127 || asked === device)) {
      this.host.relay(at, [identityReply(device, profile.identity)], { ...cause, passed: 0 });
    }
    return true;
  }

  /** From when on it takes messages at once. */
  get acceptsAt(): Micros {
    return this.deafUntil;
  }

  /** From when on it takes anything at once, and has nothing left to load. */
  get restsAt(): Micros {
    return Math.max(this.busyUntil, this.deafUntil);
  }

  /** Whether the message means anything to the unit. */
  private obey(at: Micros, message: Message, cause: Cause): boolean {
    const { variant, controls, heard } = understand(this.spec.profile, message, this.memory);
    remember(this.memory, message);
    if (variant !== undefined) this.setVariant(at, variant, cause);
    for (const [control, value] of controls) {
      if (control.encoding.kind === 'tap') this.follow(at, this.tapped.hear(at));
      this.setControl(at, control, value, cause);
    }
    if (variant !== undefined || controls.length > 0 || heard) return true;
    if (message.kind !== 'program') return this.selectBank(message, cause);
    this.recall(at, message.program, cause);
    return true;
  }

  private selectBank(message: Message, cause: Cause): boolean {
    const { send } = this.spec.profile.plan.bank;
    if (message.kind !== 'control' || send === 'none') return false;
    const { control, value } = message;
    if (control !== BANK_MSB && control !== BANK_LSB) return false;
    const bank = this.state.bank ?? 0;
    const coarse = control === BANK_MSB;
    if (send === 'both' || coarse === (send === 'msb')) this.bankBy = cause;
    if (send === 'both') {
      this.state = { ...this.state, bank: coarse ? value * 128 + (bank & 127) : (bank >> 7) * 128 + value };
    } else if (coarse === (send === 'msb')) {
      this.state = { ...this.state, bank: value };
    }
    // A unit that reads one half of a bank number takes the other half in without a word.
    return true;
  }

  private recall(at: Micros, program: number, cause: Cause): void {
    const { spec, host } = this;
    const { profile, id, paces } = spec;
    const { plan } = profile;
    const bank = plan.bank.send === 'none' ? 0 : this.state.bank;
    const slot = bank === null ? null : indexOfAddress(plan, { bank, program });
    if (slot === undefined) {
      this.ignore(at, [0xc0, program], 'no-such-slot', cause);
      return;
    }
    const done = at + this.timing.effect(spec, 'recall', slot);
    this.deafUntil = at + this.timing.settle(spec);
    this.busyUntil = done;
    // A second recall takes the place of one that has not come to its end.
    const number = ++this.recalls;
    const soonestAccepts = at - cause.spread + acceptsAgainAfter({ pace: paces.soonest });
    this.load = { at, until: done, accepts: this.deafUntil, soonestAccepts, cause, bankBy: this.bankBy };
    const on = this.after(cause, 'recall', slot);
    this.loaded = { spread: on.spread, steps: on.steps };
    host.note({ kind: 'loading', at, unitId: id, load: this.load });
    this.end(at, tailsLost(profile, this.state));
    host.later(done, () => {
      if (number !== this.recalls) return;
      const start = slot === null ? undefined : spec.starts[slot];
      this.become(done, afterRecall(profile, this.state, slot, start), cause, done);
      this.fire(done, 'slot', on);
    });
  }

  /** What relays go back to that fire once a message has had its effect: one time of a unit more. */
  private after(cause: Cause, called: Called, slot?: number | null): Cause {
    const { pace, paces } = this.spec;
    const slower = effectAfter({ pace }, called, slot) - effectAfter({ pace: paces.soonest }, called, slot);
    return { ...cause, spread: cause.spread + slower, steps: cause.steps + 1 };
  }

  /** Where times vary, an older value of one thing still never comes after a newer one, as the two halves of a fine one would. */
  private inOrder(what: string, at: Micros): Micros {
    const after = Math.max(at, this.latest.get(what) ?? at);
    this.latest.set(what, after);
    return after;
  }

  private setVariant(at: Micros, variant: number, cause: Cause): void {
    const own = this.inOrder(VARIANT, at + this.timing.effect(this.spec, 'variant'));
    const done = Math.max(this.busyUntil, own);
    const after = this.after(cause, 'variant');
    const soonest = Math.max(own - after.spread, this.busyUntil - this.loaded.spread);
    const steps = this.busyUntil > own ? this.loaded.steps : after.steps;
    this.host.later(done, () => {
      this.become(done, { ...this.state, variant }, cause, own);
      this.fire(done, 'variant', { ...after, spread: done - soonest, steps });
    });
  }

  private setControl(at: Micros, control: Control, heard: number, cause: Cause): void {
    const own = this.inOrder(control.id, at + this.timing.effect(this.spec, 'control'));
    const done = Math.max(this.busyUntil, own);
    this.host.later(done, () => {
      const value = afterControl(control, this.state.controls[control.id], heard);
      const controls = withValue(this.state.controls, control.id, value);
      this.become(done, { ...this.state, controls }, cause, own);
    });
  }

  private follow(at: Micros, tempo: HeardTempo | undefined): void {
    if (tempo) this.host.note({ kind: 'tempo', at, unitId: this.spec.id, tempo });
  }

  private become(at: Micros, state: UnitState, cause: Cause, own: Micros): void {
    const { profile, id } = this.spec;
    if (profile.effects.length > 0) this.end(at, tailsOf(profile, this.state, state));
    this.state = state;
    this.host.note({ kind: 'changed', at, unitId: id, state, cause, own });
  }

  private end(at: Micros, tails: readonly Tail[]): void {
    for (const tail of tails) this.host.note({ kind: 'tail', at, unitId: this.spec.id, tail });
  }

  private fire(at: Micros, reached: 'slot' | 'variant', cause: Cause): void {
    for (const relay of relaysFired(this.spec.relays, reached, this.state.slot, this.state.variant)) {
      this.host.relay(at, relay.messages, { ...cause, passed: cause.passed + 1 });
    }
  }

  private noteArrived(at: Micros, came: Micros, bytes: Bytes, cause: Cause): void {
    this.host.note({ kind: 'arrived', at, came, unitId: this.spec.id, bytes, cause, behind: this.load });
  }

  private ignore(at: Micros, bytes: Bytes, why: IgnoredWhy, cause: Cause): void {
    this.host.note({ kind: 'ignored', at, unitId: this.spec.id, bytes, why, cause, behind: this.load });
  }
}

/** Controls with another value of one; without it where nobody knows what it stands at. */
function withValue(
  controls: UnitState['controls'],
  id: string,
  value: UnitState['controls'][string] | undefined,
): UnitState['controls'] {
  // Where it is known, as it mostly is, one copy is enough.
  if (value !== undefined) return { ...controls, [id]: value };
  const { [id]: _, ...others } = controls;
  return others;
}
