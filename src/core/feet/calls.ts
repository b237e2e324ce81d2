import { RESERVED_CONTROLS, slotCount, type Controller, type Profile, type Trigger } from '../addressing';
import { controlChange, noteOn, programChange, type Bytes } from '../midi';

/** Presses are numbered first: they alone fit where numbers are few. */
const IN_TURN: readonly Trigger[] = ['press', 'long', 'again', 'double', 'release'];

/** MIDI 1.0: control numbers from here on are channel mode messages. */
const MODE_MESSAGES = 120;
const VALUES = 128;
const CHANNELS = 16;

/** A switch of a page, and what of it is done. */
export interface SwitchPlace {
  /** Where the controller keeps the page. */
  readonly page: number;
  /** Which of its switches, in their order in the profile. */
  readonly switch: number;
  readonly trigger: Trigger;
}

/**
 * The message by which the computer tells a switch of a page from all others: its number on the controller's own channel,
 * counted through pages and switches. It hangs on the place alone, so that what was once programmed stays right
 * whatever the switch does. Null where the numbers run out.
 */
export function callOf({ plan }: Profile, { switches, call }: Controller, place: SwitchPlace): Bytes | null {
  const places = slotCount(plan) * switches.length;
  const nth = IN_TURN.indexOf(place.trigger) * places + place.page * switches.length + place.switch;
  const { kind, channel, first } = call;
  if (kind === 'control') {
    const numbers = freeControls(first);
    const number = numbers[Math.floor(nth / VALUES)];
    return number === undefined ? null : controlChange(channel, number, nth % VALUES);
  }
  const at = channel + Math.floor((first + nth) / VALUES);
  const number = (first + nth) % VALUES;
  if (at > CHANNELS) return null;
  return kind === 'note' ? noteOn(at, number, VALUES - 1) : programChange(at, number);
}

/** Control numbers without a fixed meaning, from one on. */
const freeControls = (first: number): readonly number[] =>
  Array.from({ length: MODE_MESSAGES - first }, (_, i) => first + i).filter((n) => !RESERVED_CONTROLS.has(n));
