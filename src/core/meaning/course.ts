import { indexOfAddress } from '../addressing';
import { BANK_LSB, BANK_MSB, DIN_BYTE_MICROS, decodeMessage, type Bytes } from '../midi';
import {
  EventQueue,
  acceptsAgainAfter,
  afterRecall,
  effectAfter,
  relaysFired,
  type RelaySpec,
  type UnitSpec,
  type UnitState,
} from '../rig';
import type { Micros } from '../time';

/** A unit that relay rules call. `R` identifies the cause. */
export interface RelayCall<R> {
  readonly unit: UnitSpec;
  readonly root: R;
  /** When the first byte's message arrives, and when the unit takes the program change. */
  readonly first: Micros;
  readonly arrives: Micros;
  /** When its preset is there; null where it never is: ignored while it settled, replaced, or no slot has that program. */
  readonly there: Micros | null;
  /** How much sooner the call may come, where units before it in the chain are quicker. */
  readonly spread: Micros;
}

/** Where the states of units are kept while changes take their course. */
export interface States {
  readonly get: (unitId: string) => UnitState;
  readonly set: (unitId: string, state: UnitState) => void;
}

/** A nanosecond: sums of the same times in another order differ by less. */
const GRAIN: Micros = 1e-3;

/** Rules that form a cycle are a finding (relayCycle); here the chase only has to end. */
const RULES_LIMIT = 256;

/**
 * What relay rules trigger, in time: along the out cables, through units that forward, and on
 * from unit to unit. A unit that settles ignores what comes or takes it when it is ready; a
 * recall replaces one that has not completed. `at` counts from any origin, in microseconds.
 */
export class Course<R> {
  readonly relayed: RelayCall<R>[] = [];
  protected readonly queue = new EventQueue();
  protected readonly deafUntil = new Map<string, Micros>();
  protected readonly busyUntil = new Map<string, Micros>();
  private readonly recalls = new Map<string, number>();
  /** Messages that arrived while a unit settled and that it takes afterwards, by unit, in the order of their arrival. */
  private readonly waiting = new Map<string, ((at: Micros) => void)[]>();
  private readonly outFree = new Map<string, Micros>();
  private readonly behind: Behind;
  private fired = 0;

  constructor(
    protected readonly units: ReadonlyMap<string, UnitSpec>,
    protected readonly states: States,
  ) {
    this.behind = behindOf(units);
  }

  /** A unit has reached a slot or a variant at a time; its state says which. Asked for in the order of time. */
  reached(unit: UnitSpec, reached: 'slot' | 'variant', at: Micros, root: R, spread: Micros = 0): void {
    const { slot, variant } = this.states.get(unit.id);
    for (const relay of relaysFired(unit.relays, reached, slot, variant)) this.tell(unit, relay, at, root, spread);
  }

  /** The same, later than something else that is still under way. */
  reachedLater(unit: UnitSpec, reached: 'slot' | 'variant', at: Micros, root: R): void {
    this.queue.push(at, () => this.reached(unit, reached, at, root));
  }

  /** Runs until nothing is pending. */
  run(): void {
    this.queue.runUntil(Number.POSITIVE_INFINITY);
  }

  /** Bytes leave a unit's out cable, one message after the other; `heard` is called for each unit that receives them. */
  protected passOn(
    from: UnitSpec,
    by: 'out' | 'thru',
    length: number,
    at: Micros,
    heard: (unit: UnitSpec, at: Micros) => void,
  ): void {
    const next = this.behind.get(from.id)?.[by];
    if (!next || next.length === 0) return;
    const leave = (starts: Micros): void => {
      const arrives = Math.max(starts, this.outFree.get(from.id) ?? starts) + length * DIN_BYTE_MICROS;
      this.outFree.set(from.id, arrives);
      for (const unit of next) {
        this.queue.push(arrives, () => {
          heard(unit, arrives);
          this.passOn(unit, 'thru', length, arrives, heard);
        });
      }
    };
    const { thru } = from.pace;
    if (by === 'thru' && thru > 0) this.queue.push(at + thru, () => leave(at + thru));
    else leave(at);
  }

  private tell(from: UnitSpec, relay: RelaySpec, at: Micros, root: R, spread: Micros): void {
    const target = this.units.get(relay.toUnit);
    if (!target || ++this.fired > RULES_LIMIT) return;
    const wired = leadsTo(this.units, from.id, target);
    let first = Number.POSITIVE_INFINITY;
    const heard = (bytes: Bytes, arrives: Micros): void => {
      first = Math.min(first, arrives);
      this.hear(target, bytes, arrives, first, root, spread);
    };
    let free = at;
    for (const bytes of relay.messages) {
      this.passOn(from, 'out', bytes.length, at, (unit, arrives) => {
        if (unit === target) heard(bytes, arrives);
      });
      if (wired) continue;
      // The rule counts even where no cable leads there: that is a finding of its own.
      const arrives = (free += bytes.length * DIN_BYTE_MICROS);
      this.queue.push(arrives, () => heard(bytes, arrives));
    }
  }

  /**
   * Runs `then` when the unit takes what arrives, if it does; `lost` where it ignores it. A unit that
   * queues takes messages in the order of their arrival: nothing passes by what still waits, so a
   * bank is read with the program that followed it.
   */
  protected accept(unit: UnitSpec, at: Micros, then: (at: Micros) => void, lost: () => void): void {
    const settles = this.settlesAt(unit, at);
    const waiting = this.waiting.get(unit.id) ?? [];
    if (!settles && waiting.length === 0) then(at);
    else if (settles && unit.profile.whileSettling === 'ignore') lost();
    else {
      waiting.push(then);
      this.waiting.set(unit.id, waiting);
      if (waiting.length === 1) this.takeLater(unit, waiting);
    }
  }

  private settlesAt({ id }: UnitSpec, at: Micros): boolean {
    return at < (this.deafUntil.get(id) ?? Number.NEGATIVE_INFINITY) - GRAIN;
  }

  /** Takes what waits once the unit has settled; a recall among it makes the rest wait on. */
  private takeLater(unit: UnitSpec, waiting: ((at: Micros) => void)[]): void {
    const at = this.deafUntil.get(unit.id)!;
    this.queue.push(at, () => {
      while (waiting.length > 0 && !this.settlesAt(unit, at)) waiting.shift()!(at);
      if (waiting.length > 0) this.takeLater(unit, waiting);
    });
  }

  /** A unit begins to load a preset; `there` is called when it is there and nothing took its place. */
  protected load(
    unit: UnitSpec,
    slot: number | null,
    at: Micros,
    there: (at: Micros) => void,
    replaced: () => void,
  ): void {
    const { id } = unit;
    const until = at + effectAfter(unit, 'recall', slot);
    this.deafUntil.set(id, at + acceptsAgainAfter(unit));
    this.busyUntil.set(id, until);
    const number = (this.recalls.get(id) ?? 0) + 1;
    this.recalls.set(id, number);
    this.queue.push(until, () => (this.recalls.get(id) === number ? there(until) : replaced()));
  }

  /** A relayed unit is where the rule wants it. */
  protected came(_unit: UnitSpec, _at: Micros, _root: R): void {}

  private hear(unit: UnitSpec, bytes: Bytes, arrives: Micros, first: Micros, root: R, spread: Micros): void {
    const note = (taken: Micros, there: Micros | null): void =>
      void this.relayed.push({ unit, root, first, arrives: taken, there, spread });
    const lost = (): void => {
      if (decodeMessage(bytes)?.kind === 'program') note(arrives, null);
    };
    this.accept(
      unit,
      arrives,
      (at) => {
        const slot = readAddress(this.states, unit, bytes);
        if (slot === undefined) return lost();
        this.load(
          unit,
          slot,
          at,
          (there) => {
            note(at, there);
            const start = slot === null ? undefined : unit.starts[slot];
            this.states.set(unit.id, afterRecall(unit.profile, this.states.get(unit.id), slot, start));
            this.came(unit, there, root);
            const quicker =
              effectAfter(unit, 'recall', slot) - effectAfter({ pace: unit.paces.soonest }, 'recall', slot);
            this.reached(unit, 'slot', there, root, spread + quicker);
          },
          () => note(at, null),
        );
      },
      lost,
    );
  }
}

/** What is connected to each unit's out cable: all of it receives what the unit itself sends; what is on thru also receives what the unit receives. */
type Behind = ReadonlyMap<string, { readonly out: readonly UnitSpec[]; readonly thru: readonly UnitSpec[] }>;

const behinds = new WeakMap<ReadonlyMap<string, UnitSpec>, Behind>();

function behindOf(units: ReadonlyMap<string, UnitSpec>): Behind {
  let behind = behinds.get(units);
  if (!behind) {
    const made = new Map<string, { out: UnitSpec[]; thru: UnitSpec[] }>();
    for (const unit of units.values()) {
      if (unit.input?.from !== 'unit') continue;
      let list = made.get(unit.input.unitId);
      if (!list) made.set(unit.input.unitId, (list = { out: [], thru: [] }));
      list.out.push(unit);
      if (unit.input.thru) list.thru.push(unit);
    }
    behinds.set(units, (behind = made));
  }
  return behind;
}

/**
 * Takes a bank or program message in; the slot that it recalls (null where no bank is known),
 * undefined where it recalls nothing, as a program that calls no slot does.
 */
export function readAddress(states: States, unit: UnitSpec, bytes: Bytes): number | null | undefined {
  const message = decodeMessage(bytes);
  const state = states.get(unit.id);
  const { plan } = unit.profile;
  if (message?.kind === 'control' && plan.bank.send !== 'none') {
    const bank = bankAfter(plan.bank.send, state.bank, message.control, message.value);
    if (bank !== undefined) states.set(unit.id, { ...state, bank });
    return undefined;
  }
  if (message?.kind !== 'program') return undefined;
  const bank = plan.bank.send === 'none' ? 0 : state.bank;
  if (bank === null) return null;
  return indexOfAddress(plan, { bank, program: message.program });
}

function bankAfter(
  send: 'msb' | 'lsb' | 'both',
  bank: number | null,
  control: number,
  value: number,
): number | undefined {
  if (control === BANK_MSB && send === 'msb') return value;
  if (control === BANK_LSB && send === 'lsb') return value;
  if (send !== 'both') return undefined;
  if (control === BANK_MSB) return value * 128 + ((bank ?? 0) & 127);
  if (control === BANK_LSB) return ((bank ?? 0) >> 7) * 128 + value;
  return undefined;
}

/** Whether what a unit sends by itself reaches another: directly behind it, or through thrus. */
export function leadsTo(units: ReadonlyMap<string, UnitSpec>, from: string, target: UnitSpec): boolean {
  let at: UnitSpec | undefined = target;
  for (let n = 0; at && n <= units.size; n++) {
    const { input }: UnitSpec = at;
    if (input?.from !== 'unit') return false;
    if (input.unitId === from) return true;
    if (!input.thru) return false;
    at = units.get(input.unitId);
  }
  return false;
}
