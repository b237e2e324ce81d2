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

/** What some programs put between messages, or fill a file up with: zeros, line ends, the old mark of a file's end. */
const FILLING: ReadonlySet<number> = new Set([0x00, 0x0a, 0x0d, 0x1a]);
/** Real-time messages may stand within others (MIDI 1.0, system real time). */
const REAL_TIME = 0xf8;

/**
 * Reads a system exclusive file: messages from F0 to F7, one after the other (MIDI 1.0, system exclusive). Zeros and line ends
 * between them, and real-time bytes anywhere, are no part of them: they are left out, and said. Whatever else is not so
 * refuses the file, with the byte where that was seen.
 */
export function readExclusiveFile(bytes: Bytes): Read<readonly Bytes[]> {
  const refuse = (offset: number, expected: string, found: string): Read<readonly Bytes[]> => ({
    value: undefined,
    problems: [problem('exclusive.not-one', 'error', { in: 'bytes', offset }, { expected, found })],
  });
  const hex = (byte: number): string => byte.toString(16).toUpperCase().padStart(2, '0');
  const messages: Bytes[] = [];
  const left = { filling: [] as number[], realTime: [] as number[] };
  let message: number[] | null = null;
  for (const [at, byte] of bytes.entries()) {
    if (byte >= REAL_TIME) left.realTime.push(at);
    else if (message === null) {
      if (byte === START) message = [byte];
      else if (FILLING.has(byte)) left.filling.push(at);
      else return refuse(at, 'F0, where a message begins', hex(byte));
    } else if (byte < 0x80) message.push(byte);
    else if (byte === END) {
      messages.push([...message, byte]);
      message = null;
    } else return refuse(at, 'a byte below 80, or F7', hex(byte));
  }
  if (message) return refuse(bytes.length, 'F7, where the message ends', 'the end of the file');
  if (messages.length === 0) return refuse(0, 'F0', 'nothing');
  const said = (['filling', 'realTime'] as const).flatMap((kind) => {
    const [offset] = left[kind];
    if (offset === undefined) return [];
    return [problem('exclusive.left-out', 'note', { in: 'bytes', offset }, { kind, count: left[kind].length })];
  });
  return { value: messages, problems: said };
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
