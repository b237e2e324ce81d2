import { DIN_BYTE_MICROS, type Bytes } from '../../midi';
import type { Micros } from '../../time';
import type { FootMemory } from '../memory';
import {
  ANY_DEVICE,
  BLOCK_BYTES,
  MEMORY_LIMIT,
  blocksOf,
  footBytes,
  footDevice,
  readFootBytes,
  type FootMessage,
  type Refusal,
} from './blocks';
import { crc32 } from './crc';
import { readMemoryBytes } from './memoryBytes';

/** So long a controller is waited for, once the cable has carried question and answer. */
const PATIENCE: Micros = 400_000;
/** So often one message is sent before the transfer is given up. */
const TRIES = 6;
/** So often a transfer that the controller refused is begun anew. */
const ROUNDS = 5;
/** The longest answer: a block. */
const ANSWER_BYTES = 145;

/** What is wanted of a controller: that it takes a memory, which is read back then; or only that it says what it has. */
export type Errand = { readonly kind: 'write'; readonly bytes: Bytes } | { readonly kind: 'read' };

/** How it ended. Only `identical` says that the controller has what it was sent: it was read back and compared. */
export type TransferEnd =
  | { readonly how: 'identical' }
  | { readonly how: 'read'; readonly bytes: Bytes; readonly memory: FootMemory }
  /** It says that it stored, and holds something else. */
  | { readonly how: 'differs'; readonly memory: FootMemory | null }
  | { readonly how: 'silent'; readonly at: 'begin' | 'block' | 'end' | 'read'; readonly block: number }
  | { readonly how: 'refused'; readonly why: Refusal }
  /** What it has is not in a form that can be read. */
  | { readonly how: 'unreadable' }
  | { readonly how: 'cancelled'; readonly written: boolean };

type Phase =
  | { readonly at: 'begin' | 'end' | 'ask' }
  | { readonly at: 'block'; readonly block: number }
  | {
      readonly at: 'want';
      readonly block: number;
      readonly got: readonly Bytes[];
      readonly blocks: number;
      readonly length: number;
      readonly crc: number;
    };

export interface Transfer {
  readonly errand: Errand;
  /** The number of the controller that it is for. */
  readonly device: number;
  readonly id: number;
  readonly phase: Phase;
  readonly sentAt: Micros;
  readonly tries: number;
  readonly round: number;
  readonly end: TransferEnd | null;
  /** Messages that were sent again. */
  readonly again: number;
}

export type TransferInput =
  { readonly kind: 'heard'; readonly bytes: Bytes } | { readonly kind: 'wake' } | { readonly kind: 'cancel' };

export interface TransferStep {
  readonly transfer: Transfer;
  readonly sends: readonly Bytes[];
}

const NUMBERS = 1 << 14;

/** Begins a transfer; `id` tells it from those before it. Throws where the memory is larger than the format holds. */
export function beginTransfer(errand: Errand, id: number, now: Micros, device: number = ANY_DEVICE): TransferStep {
  if (errand.kind === 'write' && errand.bytes.length > MEMORY_LIMIT) {
    throw new RangeError(`a memory of ${errand.bytes.length} bytes is more than ${MEMORY_LIMIT}`);
  }
  const transfer: Transfer = {
    errand,
    device,
    id: id % NUMBERS,
    phase: { at: errand.kind === 'write' ? 'begin' : 'ask' },
    sentAt: now,
    tries: 1,
    round: 1,
    end: null,
    again: 0,
  };
  return { transfer, sends: [sent(transfer)] };
}

/** How much of a transfer is done, from 0 to 1; writing and reading back are half each. */
export function progressOf({ errand, phase, end }: Transfer): number {
  if (end) return 1;
  const writes = errand.kind === 'write';
  const share = (done: number, all: number): number => (all === 0 ? 1 : done / all);
  switch (phase.at) {
    case 'begin':
      return 0;
    case 'block':
      return writes ? share(phase.block, blocksIn(errand)) / 2 : 0;
    case 'end':
    case 'ask':
      return writes ? 0.5 : 0;
    case 'want':
      return writes ? 0.5 + share(phase.block, phase.blocks) / 2 : share(phase.block, phase.blocks);
  }
}

const blocksIn = (errand: Errand): number =>
  errand.kind === 'write' ? Math.ceil(errand.bytes.length / BLOCK_BYTES) : 0;

/** The message that a transfer waits for an answer to. */
function messageOf({ errand, id, phase }: Transfer): FootMessage {
  const bytes = errand.kind === 'write' ? errand.bytes : [];
  switch (phase.at) {
    case 'begin':
      return { kind: 'begin', id, blocks: blocksIn(errand), length: bytes.length, crc: crc32(bytes) };
    case 'block': {
      const start = phase.block * BLOCK_BYTES;
      return { kind: 'block', id, block: phase.block, data: bytes.slice(start, start + BLOCK_BYTES) };
    }
    case 'end':
      return { kind: 'end', id };
    case 'ask':
      return { kind: 'ask', id };
    case 'want':
      return { kind: 'want', id, block: phase.block };
  }
}

const sent = (transfer: Transfer): Bytes => footBytes(messageOf(transfer), transfer.device);

/** What comes of an answer, of time, or of somebody who cancels. What it does not wait for is passed over. */
export function stepTransfer(transfer: Transfer, input: TransferInput, now: Micros): TransferStep {
  if (transfer.end) return { transfer, sends: [] };
  switch (input.kind) {
    case 'cancel':
      return over(transfer, { how: 'cancelled', written: transfer.phase.at === 'ask' || transfer.phase.at === 'want' });
    case 'wake': {
      const carried = (sent(transfer).length + ANSWER_BYTES) * DIN_BYTE_MICROS;
      return now - transfer.sentAt < carried + PATIENCE ? { transfer, sends: [] } : retry(transfer, now);
    }
    case 'heard': {
      const message = readFootBytes(input.bytes);
      const from = footDevice(input.bytes);
      const ours = transfer.device === ANY_DEVICE || from === transfer.device || from === ANY_DEVICE;
      return ours && message?.id === transfer.id ? hear(transfer, message, now) : { transfer, sends: [] };
    }
  }
}

const over = (transfer: Transfer, end: TransferEnd): TransferStep => ({ transfer: { ...transfer, end }, sends: [] });

function go(transfer: Transfer, phase: Phase, now: Micros): TransferStep {
  const next = { ...transfer, phase, sentAt: now, tries: 1 };
  return { transfer: next, sends: [sent(next)] };
}

function retry(transfer: Transfer, now: Micros): TransferStep {
  const { phase, tries } = transfer;
  if (tries >= TRIES) {
    const at = phase.at === 'ask' || phase.at === 'want' ? 'read' : phase.at;
    return over(transfer, { how: 'silent', at, block: 'block' in phase ? phase.block : 0 });
  }
  const next = { ...transfer, sentAt: now, tries: tries + 1, again: transfer.again + 1 };
  return { transfer: next, sends: [sent(next)] };
}

function hear(transfer: Transfer, message: FootMessage, now: Micros): TransferStep {
  const { phase, errand } = transfer;
  const still: TransferStep = { transfer, sends: [] };
  switch (message.kind) {
    case 'ready':
      if (phase.at !== 'begin') return still;
      return go(transfer, blocksIn(errand) === 0 ? { at: 'end' } : { at: 'block', block: 0 }, now);
    case 'got': {
      if (phase.at !== 'block' || message.block !== phase.block) return still;
      const block = phase.block + 1;
      return go(transfer, block < blocksIn(errand) ? { at: 'block', block } : { at: 'end' }, now);
    }
    case 'stored':
      return phase.at === 'end' ? go(transfer, { at: 'ask' }, now) : still;
    case 'refused':
      return refused(transfer, message.why, now);
    case 'begin': {
      if (phase.at !== 'ask') return still;
      const { blocks, length, crc } = message;
      if (length > MEMORY_LIMIT || blocks !== Math.ceil(length / BLOCK_BYTES))
        return over(transfer, { how: 'unreadable' });
      const want = { at: 'want', block: 0, got: [], blocks, length, crc } as const;
      return blocks === 0 ? finish(transfer, want) : go(transfer, want, now);
    }
    case 'block': {
      if (phase.at !== 'want' || message.block !== phase.block) return still;
      const next = { ...phase, got: [...phase.got, message.data], block: phase.block + 1 };
      return next.block < phase.blocks ? go(transfer, next, now) : finish(transfer, next, now);
    }
    case 'end':
    case 'ask':
    case 'want':
      return still;
  }
}

/** A controller that does not take it: what was damaged on the way is sent again from the start, a few times. */
function refused(transfer: Transfer, why: Refusal, now: Micros): TransferStep {
  const { phase, round, errand } = transfer;
  if (phase.at === 'ask' || phase.at === 'want') return over(transfer, { how: 'refused', why });
  // An answer to something that was sent twice may come late: only what it waits for counts.
  if (phase.at === 'begin' && why === 'not-begun') return { transfer, sends: [] };
  const hopeless = why === 'too-large' || why === 'unreadable';
  if (hopeless || round >= ROUNDS || errand.kind === 'read') return over(transfer, { how: 'refused', why });
  const anew = { ...transfer, id: (transfer.id + 1) % NUMBERS, round: round + 1, again: transfer.again + 1 };
  return go(anew, { at: 'begin' }, now);
}

function finish(transfer: Transfer, read: Extract<Phase, { at: 'want' }>, now: Micros = transfer.sentAt): TransferStep {
  const { errand, round } = transfer;
  const bytes = read.got.flat();
  if (bytes.length !== read.length || crc32(bytes) !== read.crc) {
    // Damaged on its way back: it is asked for again.
    if (round >= ROUNDS) return over(transfer, { how: 'unreadable' });
    const anew = { ...transfer, id: (transfer.id + 1) % NUMBERS, round: round + 1, again: transfer.again + 1 };
    return go(anew, { at: 'ask' }, now);
  }
  const memory = readMemoryBytes(bytes).value ?? null;
  if (errand.kind === 'read') return over(transfer, memory ? { how: 'read', bytes, memory } : { how: 'unreadable' });
  const same = bytes.length === errand.bytes.length && bytes.every((b, i) => b === errand.bytes[i]);
  return over(transfer, same ? { how: 'identical' } : { how: 'differs', memory });
}

/** About how long a transfer takes over a 5-pin cable, there and back, if nothing is lost. */
export function transferTime(bytes: Bytes): Micros {
  const perBlock = footBytes({ kind: 'block', id: 0, block: 0, data: bytes.slice(0, BLOCK_BYTES) }).length;
  const short = footBytes({ kind: 'want', id: 0, block: 0 }).length;
  return blocksOf(bytes).length * 2 * (perBlock + short) * DIN_BYTE_MICROS;
}
