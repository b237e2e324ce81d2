import type { Message } from '../midi';
import { HEARD, type ControlMemory, type Decoded } from '../addressing/encodings/encoding';
import { decodeValue } from '../addressing/encodings/registry';
import type { Control } from '../addressing';
import type { WireProfile } from './wireProfile';

/** What a message means to a unit, apart from banks and slots. */
export interface Understood {
  /** The variant that it calls; undefined where it calls none. */
  readonly variant: number | undefined;
  /** Controls that it moves, with what each makes of it. */
  readonly controls: readonly (readonly [control: Control, value: number])[];
  /** It belongs to a control but changes nothing, such as the release of a note. */
  readonly heard: boolean;
}

const NOTHING: Understood = { variant: undefined, controls: [], heard: false };

/** Numbers that system exclusive and other messages without a channel are kept under. */
const key = (m: Message): string =>
  m.kind === 'control'
    ? `c${m.control}`
    : m.kind === 'program'
      ? 'p'
      : m.kind === 'note-on' || m.kind === 'note-off'
        ? 'n'
        : m.kind;

/** A profile's controls by the kind of message that sets them, so that a long list is not searched for each message. */
interface Ears {
  readonly variant: boolean;
  readonly controls: readonly Control[];
}

const earsOf = new WeakMap<WireProfile, Map<string, Ears>>();

function ears(profile: WireProfile, message: Message): Ears {
  let kept = earsOf.get(profile);
  if (!kept) earsOf.set(profile, (kept = new Map<string, Ears>()));
  const name = key(message);
  let found = kept.get(name);
  if (!found) {
    const listens = (e: Control['encoding']): boolean => listensTo(e, message);
    found = {
      variant: profile.variants !== null && listens(profile.variants.encoding),
      controls: profile.controls.filter((c) => listens(c.encoding)),
    };
    kept.set(name, found);
  }
  return found;
}

/** Whether an encoding could make anything of messages of this kind and number. */
function listensTo(e: Control['encoding'], message: Message): boolean {
  switch (e.kind) {
    case 'program':
    case 'program-table':
      return message.kind === 'program';
    case 'note':
    case 'note-table':
      return message.kind === 'note-on' || message.kind === 'note-off';
    case 'exclusive':
      return message.kind === 'exclusive';
    case 'nrpn':
      return message.kind === 'control' && [6, 38, 98, 99].includes(message.control);
    case 'fourteen-bit':
      return message.kind === 'control' && (message.control === e.number || message.control === e.number + 32);
    default:
      return message.kind === 'control' && message.control === e.number;
  }
}

/** All that a message means to a unit of this profile; two functions on one number both receive it. */
export function understand(profile: WireProfile, message: Message, memory: ControlMemory): Understood {
  const { variant: hasVariant, controls: listening } = ears(profile, message);
  if (!hasVariant && listening.length === 0) return NOTHING;
  let heard = false;
  const note = (decoded: Decoded): number | undefined => {
    if (decoded === HEARD) heard = true;
    return typeof decoded === 'number' ? decoded : undefined;
  };
  const variant = hasVariant ? note(decodeValue(profile.variants!.encoding, message, memory)) : undefined;
  const controls: [Control, number][] = [];
  for (const control of listening) {
    const value = note(decodeValue(control.encoding, message, memory));
    if (value !== undefined) controls.push([control, value]);
  }
  return { variant, controls, heard };
}

/** Remembers a message for those that come after it. */
export function remember(memory: Map<number, number>, message: Message): void {
  if (message.kind !== 'control') return;
  memory.set(message.control, message.value);
  // Selecting a registered parameter takes the place of a non-registered one (MIDI 1.0, RPN and NRPN).
  if (message.control === 100 || message.control === 101) {
    memory.delete(98);
    memory.delete(99);
  }
  // Choosing another parameter makes the old one's value nobody's.
  if (message.control === 98 || message.control === 99) {
    memory.delete(6);
    memory.delete(38);
  }
}
