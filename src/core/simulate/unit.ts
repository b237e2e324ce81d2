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
import type { IgnoredWhy, TraceEntry } from './trace';
import { tailsLost, tailsOf, type Tail } from './tails';
import { ClockEar, TapEar, type HeardTempo } from './tempoEar';

/** What a unit needs of the rig around it. `passed` counts how often a message was passed on. */
export interface UnitHost {
  readonly later: (at: Micros, run: () => void) => void;
  readonly note: (entry: TraceEntry) => void;
  readonly relay: (at: Micros, messages: readonly Bytes[], passed: number) => void;
}

/** A nanosecond: sums of the same times in another order differ by less. */
const GRAIN: Micros = 1e-3;

/** One unit as it is on stage: receives bytes, obeys after its own delay, and relays changes. */
export class SimulatedUnit {
  state: UnitState;
  /** While it waits for a message to learn. */
  learning = false;
  /** Until then a preset loads; what arrives meanwhile takes effect no earlier. */
  busyUntil: Micros = Number.NEGATIVE_INFINITY;
  private deafUntil: Micros = Number.NEGATIVE_INFINITY;
  /** What arrived while it settled and is taken later, in its order. */
  private readonly waiting: { readonly bytes: Bytes; readonly passed: number }[] = [];
  private recalls = 0;
  private readonly memory = new Map<number, number>();
  private readonly tapped = new TapEar();
  private readonly clocked = new ClockEar();

  constructor(
    private readonly spec: UnitSpec,
    private readonly host: UnitHost,
    state: UnitState = UNKNOWN_STATE,
  ) {
    this.state = state;
  }

  receive(at: Micros, bytes: Bytes, passed: number): void {
    const { spec } = this;
    if (isForEveryUnit(bytes)) {
      this.host.note({ kind: 'arrived', at, unitId: spec.id, bytes });
      this.follow(at, this.clocked.hear(at, bytes));
      return;
    }
    const channel = channelOf(bytes);
    if (channel !== undefined && spec.listens !== 'all' && channel !== spec.listens) {
      this.ignore(at, bytes, 'other-channel');
      return;
    }
    if (this.answer(at, bytes)) return;
    if (this.learning && channel !== undefined) {
      this.learning = false;
      this.host.note({ kind: 'learnt', at, unitId: spec.id, bytes });
      return;
    }
    const deaf = at < this.deafUntil - GRAIN;
    if (deaf && spec.profile.whileSettling === 'ignore') {
      this.ignore(at, bytes, 'settling');
      return;
    }
    // What comes just as others are still in the queue comes behind them.
    if (deaf || this.waiting.length > 0) {
      this.waiting.push({ bytes, passed });
      if (this.waiting.length === 1) this.takeLater();
      return;
    }
    this.take(at, bytes, passed);
  }

  private takeLater(): void {
    const at = this.deafUntil;
    this.host.later(at, () => this.takeWaiting(at));
  }

  /** Takes what waited, in the order in which it came; a preset among it makes the rest wait on. */
  private takeWaiting(at: Micros): void {
    while (this.waiting.length > 0 && at >= this.deafUntil - GRAIN) {
      const { bytes, passed } = this.waiting.shift()!;
      this.take(at, bytes, passed);
    }
    if (this.waiting.length > 0) this.takeLater();
  }

  /** Takes a message in, and does what it says. */
  private take(at: Micros, bytes: Bytes, passed: number): void {
    const { spec } = this;
    this.host.note({ kind: 'arrived', at, unitId: spec.id, bytes });
    const message = decodeMessage(bytes);
    if (!message || !this.obey(at, message, passed)) this.ignore(at, bytes, 'not-understood');
  }

  /** Answers a device inquiry that names its own device id or all devices (MIDI 1.0, universal non-real-time 06 01). */
  private answer(at: Micros, bytes: Bytes): boolean {
    const asked = inquiredOf(bytes);
    if (asked === null) return false;
    const { profile, listens } = this.spec;
    const device = listens === 'all' ? 0 : listens - 1;
    this.host.note({ kind: 'arrived', at, unitId: this.spec.id, bytes });
    if (profile.identity && (asked === 127 || asked === device)) {
      this.host.relay(at, [identityReply(device, profile.identity)], 0);
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
  private obey(at: Micros, message: Message, passed: number): boolean {
    const { variant, controls, heard } = understand(this.spec.profile, message, this.memory);
    remember(this.memory, message);
    if (variant !== undefined) this.setVariant(at, variant, passed);
    for (const [control, value] of controls) {
      if (control.encoding.kind === 'tap') this.follow(at, this.tapped.hear(at));
      this.setControl(at, control, value);
    }
    if (variant !== undefined || controls.length > 0 || heard) return true;
    if (message.kind !== 'program') return this.selectBank(message);
    this.recall(at, message.program, passed);
    return true;
  }

  private selectBank(message: Message): boolean {
    const { send } = this.spec.profile.plan.bank;
    if (message.kind !== 'control' || send === 'none') return false;
    const { control, value } = message;
    if (control !== BANK_MSB && control !== BANK_LSB) return false;
    const bank = this.state.bank ?? 0;
    const coarse = control === BANK_MSB;
    if (send === 'both') {
      this.state = { ...this.state, bank: coarse ? value * 128 + (bank & 127) : (bank >> 7) * 128 + value };
    } else if (coarse === (send === 'msb')) {
      this.state = { ...this.state, bank: value };
    }
    // A unit that reads one half of a bank number takes the other half in without a word.
    return true;
  }

  private recall(at: Micros, program: number, passed: number): void {
    const { profile, id } = this.spec;
    const { plan } = profile;
    const bank = plan.bank.send === 'none' ? 0 : this.state.bank;
    const slot = bank === null ? null : indexOfAddress(plan, { bank, program });
    if (slot === undefined) {
      this.host.note({ kind: 'ignored', at, unitId: id, bytes: [0xc0, program], why: 'no-such-slot' });
      return;
    }
    const done = at + effectAfter(this.spec, 'recall');
    this.deafUntil = at + acceptsAgainAfter(this.spec);
    this.busyUntil = done;
    // A second recall takes the place of one that has not come to its end.
    const number = ++this.recalls;
    this.host.note({ kind: 'loading', at, unitId: id, until: done });
    this.end(at, tailsLost(profile, this.state));
    this.host.later(done, () => {
      if (number !== this.recalls) return;
      const start = slot === null ? undefined : this.spec.starts[slot];
      this.become(done, afterRecall(profile, this.state, slot, start));
      this.fire(done, 'slot', passed);
    });
  }

  private setVariant(at: Micros, variant: number, passed: number): void {
    const done = Math.max(this.busyUntil, at + effectAfter(this.spec, 'variant'));
    this.host.later(done, () => {
      this.become(done, { ...this.state, variant });
      this.fire(done, 'variant', passed);
    });
  }

  private setControl(at: Micros, control: Control, heard: number): void {
    const done = Math.max(this.busyUntil, at + effectAfter(this.spec, 'control'));
    this.host.later(done, () => {
      const value = afterControl(control, this.state.controls[control.id], heard);
      const { [control.id]: _, ...others } = this.state.controls;
      this.become(done, {
        ...this.state,
        controls: value === undefined ? others : { ...this.state.controls, [control.id]: value },
      });
    });
  }

  private follow(at: Micros, tempo: HeardTempo | undefined): void {
    if (tempo) this.host.note({ kind: 'tempo', at, unitId: this.spec.id, tempo });
  }

  private become(at: Micros, state: UnitState): void {
    const { profile, id } = this.spec;
    if (profile.effects.length > 0) this.end(at, tailsOf(profile, this.state, state));
    this.state = state;
    this.host.note({ kind: 'changed', at, unitId: id, state });
  }

  private end(at: Micros, tails: readonly Tail[]): void {
    for (const tail of tails) this.host.note({ kind: 'tail', at, unitId: this.spec.id, tail });
  }

  private fire(at: Micros, reached: 'slot' | 'variant', passed: number): void {
    for (const relay of relaysFired(this.spec.relays, reached, this.state.slot, this.state.variant)) {
      this.host.relay(at, relay.messages, passed + 1);
    }
  }

  private ignore(at: Micros, bytes: Bytes, why: IgnoredWhy): void {
    this.host.note({ kind: 'ignored', at, unitId: this.spec.id, bytes, why });
  }
}
