import { HEARD, decodeValue, indexOfAddress, type ControlMemory } from '../addressing';
import { remember, understand } from '../rig';
import { BANK_LSB, BANK_MSB, channelOf, decodeMessage, type Bytes, type Message } from '../midi';
import { indexShow, type Show, type Unit } from '../show';
import { hearers } from './wiring';

/** What one message on a port means to one unit of the rig. */
export type Meaning =
  | { readonly what: 'slot'; readonly unitId: string; readonly index: number }
  | { readonly what: 'no-slot'; readonly unitId: string; readonly program: number }
  | { readonly what: 'variant'; readonly unitId: string; readonly variant: number }
  | { readonly what: 'control'; readonly unitId: string; readonly controlId: string; readonly value: number }
  | { readonly what: 'bank'; readonly unitId: string; readonly value: number }
  /** A part of a longer value, or the release of a key. */
  | { readonly what: 'part'; readonly unitId: string }
  | { readonly what: 'not-understood'; readonly unitId: string }
  /** It came from this controller: a switch, pad or pedal of it. */
  | { readonly what: 'played'; readonly unitId: string; readonly senderId: string; readonly value: number };

/** Which way a message went: out of the computer, or into it. */
export type Direction = 'out' | 'in';

/**
 * Says what messages mean to a rig, one after the other: a program means a slot only with
 * the bank that went before it. Kept for one show; ask a new one when the show changes.
 */
export class MessageReader {
  private readonly memories = new Map<string, Map<number, number>>();
  private readonly heard = new Map<string, readonly Unit[]>();

  constructor(private show: Show) {}

  /** Goes on with a changed show; what was heard on the wires is not forgotten. */
  follow(show: Show): void {
    if (show.units !== this.show.units || show.ports !== this.show.ports) this.heard.clear();
    this.show = show;
  }

  /** Meanings of a message for every unit that makes something of it; those of other channels make nothing. */
  read(direction: Direction, portId: string, bytes: Bytes): Meaning[] {
    const message = decodeMessage(bytes);
    if (!message || message.kind === 'system') return [];
    return direction === 'out' ? this.readOut(portId, bytes, message) : this.readIn(portId, bytes, message);
  }

  private readOut(portId: string, bytes: Bytes, message: Message): Meaning[] {
    const channel = channelOf(bytes);
    const found: Meaning[] = [];
    for (const unit of this.hearersOf(portId)) {
      if (channel !== undefined && unit.listens !== 'all' && unit.listens !== channel) continue;
      const memory = this.memoryOf(`${unit.id} ${channel ?? 0}`);
      const before = found.length;
      const { variant, controls, heard } = understand(unit.profile, message, memory);
      remember(memory, message);
      if (variant !== undefined) found.push({ what: 'variant', unitId: unit.id, variant });
      for (const [control, value] of controls) {
        found.push({ what: 'control', unitId: unit.id, controlId: control.id, value });
      }
      if (found.length > before) continue;
      found.push(heard ? { what: 'part', unitId: unit.id } : placeMeaning(unit, message, memory));
    }
    // System exclusive passes all; it is told only for units that know it.
    return message.kind === 'exclusive' ? found.filter((m) => m.what !== 'not-understood') : found;
  }

  private readIn(portId: string, bytes: Bytes, message: Message): Meaning[] {
    const channel = channelOf(bytes);
    const found: Meaning[] = [];
    for (const unit of this.show.units) {
      if (unit.returns?.portId !== portId) continue;
      const memory = this.memoryOf(`${unit.id} in ${channel ?? 0}`);
      for (const sender of unit.profile.senders) {
        if (channel !== undefined && sender.channel !== channel) continue;
        const value = decodeValue(sender.encoding, message, memory);
        if (value === HEARD) found.push({ what: 'part', unitId: unit.id });
        else if (value !== undefined) found.push({ what: 'played', unitId: unit.id, senderId: sender.id, value });
      }
      remember(memory, message);
    }
    return found;
  }

  private hearersOf(portId: string): readonly Unit[] {
    let units = this.heard.get(portId);
    if (!units) {
      units = indexShow(this.show).ports.has(portId) ? hearers(this.show, portId) : [];
      this.heard.set(portId, units);
    }
    return units;
  }

  private memoryOf(key: string): Map<number, number> {
    let memory = this.memories.get(key);
    if (!memory) this.memories.set(key, (memory = new Map<number, number>()));
    return memory;
  }
}

/** What a message that no control takes means to a unit's plan. */
function placeMeaning(unit: Unit, message: Message, memory: ControlMemory): Meaning {
  const { plan } = unit.profile;
  const { send } = plan.bank;
  if (message.kind === 'program') {
    const [msb, lsb] = [memory.get(BANK_MSB) ?? 0, memory.get(BANK_LSB) ?? 0];
    const bank = { none: 0, msb, lsb, both: msb * 128 + lsb }[send];
    const index = indexOfAddress(plan, { bank, program: message.program });
    return index === undefined
      ? { what: 'no-slot', unitId: unit.id, program: message.program }
      : { what: 'slot', unitId: unit.id, index };
  }
  const isBank = message.kind === 'control' && (message.control === BANK_MSB || message.control === BANK_LSB);
  if (isBank && send !== 'none') return { what: 'bank', unitId: unit.id, value: message.value };
  return { what: 'not-understood', unitId: unit.id };
}
