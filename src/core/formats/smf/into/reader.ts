import {
  decodeValue,
  encodeValue,
  fitsRange,
  indexOfAddress,
  keepsOf,
  type Control,
  type Profile,
} from '../../../addressing';
import { remember, understand } from '../../../rig';
import { BANK_LSB, BANK_MSB, channelOf, decodeMessage, type Bytes, type Message } from '../../../midi';
import type { Unit } from '../../../show';
import type { Ticks } from '../../../time';

/** What a message turned out to be. */
type Meant =
  | { readonly kind: 'slot'; readonly index: number }
  | { readonly kind: 'variant'; readonly value: number }
  | { readonly kind: 'control'; readonly control: Control; readonly value: number }
  | { readonly kind: 'raw' };

export type Event = Meant & { readonly at: Ticks; readonly unit: Unit; readonly bytes: Bytes };

export type RawEvent = Event & { readonly noSlot?: boolean };

/** Reads one unit's messages through its map. */
export class Reader {
  private readonly memory = new Map<number, number>();
  private readonly flips = new Map<string, number>();
  private waiting: { readonly at: Ticks; readonly bytes: Bytes }[] = [];

  constructor(private readonly unit: Unit) {}

  read(at: Ticks, bytes: Bytes): RawEvent[] {
    const { unit } = this;
    const { profile } = unit;
    const message = decodeMessage(bytes);
    const channel = channelOf(bytes);
    const raw: RawEvent = { kind: 'raw', at, unit, bytes };
    if (!message || (channel !== undefined && channel !== unit.channel)) return [raw];
    const { variant, controls, heard } = understand(profile, message, this.memory);
    remember(this.memory, message);
    const flipped = controls.filter(([c]) => keepsOf(c.encoding) === 'flip').map(([c]) => [c, this.flip(c)] as const);
    const named = controls.filter(
      ([c, value]) => keepsOf(c.encoding) === 'value' && says(c, unit.channel, value, message),
    );
    if (variant !== undefined) return [{ kind: 'variant', value: variant, at, unit, bytes }];
    if (named.length + flipped.length > 0)
      return [...named, ...flipped].map(([control, value]) => ({ kind: 'control', control, value, at, unit, bytes }));
    if (isBank(profile, message)) {
      this.waiting.push({ at, bytes });
      return [];
    }
    if (message.kind === 'program' && controls.length === 0 && !heard) return this.program(at, bytes, message.program);
    // The release of a note comes with the note; halves of values come with the whole.
    return heard && controls.length === 0 ? [] : [raw];
  }

  /** A control that each message turns over: it is taken to begin at rest. */
  private flip(control: Control): number {
    const value = 1 - (this.flips.get(control.id) ?? 0);
    this.flips.set(control.id, value);
    return value;
  }

  /** Bank selects that no program followed. */
  leftOver(): Event[] {
    return this.waiting.map(({ at, bytes }) => ({ kind: 'raw', at, unit: this.unit, bytes }));
  }

  private program(at: Ticks, bytes: Bytes, program: number): RawEvent[] {
    const { unit, waiting } = this;
    const { plan } = unit.profile;
    const msb = this.memory.get(BANK_MSB) ?? 0;
    const lsb = this.memory.get(BANK_LSB) ?? 0;
    const bank = { none: 0, msb, lsb, both: msb * 128 + lsb }[plan.bank.send];
    const index = indexOfAddress(plan, { bank, program });
    this.waiting = [];
    if (index !== undefined) {
      if (unit.profile.recallLoads.controls) {
        this.flips.clear();
        for (const [id, value] of startOf(unit, index)) this.flips.set(id, value);
      }
      return [{ kind: 'slot', index, at, unit, bytes }];
    }
    const before = waiting.map((w): RawEvent => ({ kind: 'raw', at: w.at, unit, bytes: w.bytes }));
    return [...before, { kind: 'raw', at, unit, bytes, noSlot: true }];
  }
}

/** Whether a control's value, sent again, ends in this message: else the message says more than the map can. */
function says(control: Control, channel: number, value: number, message: Message): boolean {
  if (!fitsRange(control.encoding, value)) return false;
  const messages = encodeValue(control.encoding, channel, value);
  return messages.some((bytes) => {
    const own = decodeMessage(bytes);
    return own !== undefined && decodeValue(control.encoding, own) === decodeValue(control.encoding, message);
  });
}

function isBank(profile: Profile, message: Message): boolean {
  if (message.kind !== 'control' || profile.plan.bank.send === 'none') return false;
  return message.control === BANK_MSB || message.control === BANK_LSB;
}

/** What a preset brings along, as far as somebody wrote it down; what only turns over is taken to rest elsewhere. */
export function startOf(unit: Unit, index: number): ReadonlyMap<string, number> {
  const flips = unit.profile.controls.filter((c) => keepsOf(c.encoding) === 'flip');
  const start = unit.slots.find((s) => s.index === index)?.startControls ?? [];
  return new Map([
    ...flips.map((c): [string, number] => [c.id, 0]),
    ...start.map((s): [string, number] => [s.controlId, s.value]),
  ]);
}
