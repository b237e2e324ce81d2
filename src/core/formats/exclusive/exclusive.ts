import {
  beginTransfer,
  footBytes,
  isFootBytes,
  memoryBytes,
  newReceiver,
  readFootBytes,
  readMemoryBytes,
  receive,
  stepTransfer,
  type FootMemory,
} from '../../feet';
import type { Bytes } from '../../midi';
import { problem, type Read } from '../../problems';

const START = 0xf0;
const END = 0xf7;

/**
 * Reads a system exclusive file: whole messages from F0 to F7, one after the other, and nothing else (MIDI 1.0, system exclusive).
 * What is not so refuses the file, with the byte where that was seen.
 */
export function readExclusiveFile(bytes: Bytes): Read<readonly Bytes[]> {
  const refuse = (offset: number, expected: string, found: string): Read<readonly Bytes[]> => ({
    value: undefined,
    problems: [problem('exclusive.not-one', 'error', { in: 'bytes', offset }, { expected, found })],
  });
  const hex = (byte: number): string => byte.toString(16).toUpperCase().padStart(2, '0');
  if (bytes.length === 0) return refuse(0, 'F0', 'nothing');
  const messages: Bytes[] = [];
  let start = 0;
  while (start < bytes.length) {
    if (bytes[start] !== START) return refuse(start, 'F0, where a message begins', hex(bytes[start]!));
    let at = start + 1;
    while (at < bytes.length && bytes[at]! < 0x80) at += 1;
    if (at >= bytes.length) return refuse(at, 'F7, where the message ends', 'the end of the file');
    if (bytes[at] !== END) return refuse(at, 'a byte below 80, or F7', hex(bytes[at]!));
    messages.push(bytes.slice(start, at + 1));
    start = at + 1;
  }
  return { value: messages, problems: [] };
}

/** The pages of a foot controller as an exclusive file: what a transfer sends, for any controller that takes it, without waiting for answers. */
export function writePagesFile(memory: FootMemory): Bytes {
  const sent: number[] = [];
  let receiver = newReceiver([]);
  let step = beginTransfer({ kind: 'write', bytes: memoryBytes(memory) }, 1, 0);
  // A controller that answers at once draws the messages out; what reads back belongs to no file.
  while (step.sends.length > 0) {
    const [bytes] = step.sends;
    if (readFootBytes(bytes!)?.kind === 'ask') break;
    sent.push(...bytes!);
    const answered = receive(receiver, bytes!);
    receiver = answered.receiver;
    step = stepTransfer(step.transfer, { kind: 'heard', bytes: answered.answers[0]! }, 0);
  }
  return sent;
}

/** Pages that exclusive messages hold in our own format; null where they are something else, or not whole. */
export function pagesInFile(messages: readonly Bytes[]): FootMemory | null {
  if (!messages.some(isFootBytes)) return null;
  let receiver = newReceiver([]);
  let stored = false;
  for (const bytes of messages) {
    const message = readFootBytes(bytes);
    // Whoever it was for: it is the file that is read.
    const step = message && receive(receiver, footBytes(message));
    if (!step) continue;
    receiver = step.receiver;
    stored ||= step.stored;
  }
  return (stored && readMemoryBytes(receiver.memory).value) || null;
}
