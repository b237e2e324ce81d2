import type { Bytes } from '../../midi';
import {
  ANY_DEVICE,
  blocksOf,
  footBytes,
  footDevice,
  readFootBytes,
  MEMORY_LIMIT,
  BLOCK_BYTES,
  type FootMessage,
} from './blocks';
import { crc32 } from './crc';
import { readMemoryBytes } from './memoryBytes';

/** What is on its way to a controller: kept apart from its memory until all of it is there. */
interface Coming {
  readonly id: number;
  readonly blocks: number;
  readonly length: number;
  readonly crc: number;
  readonly got: ReadonlyMap<number, Bytes>;
}

/** The end of the cable in the controller: its memory, and what comes to take its place. */
export interface FootReceiver {
  /** Its number among controllers: the channel that it listens on, from 0; null for all. */
  readonly device: number | null;
  readonly memory: Bytes;
  readonly coming: Coming | null;
  /** The transfer that was stored last: asked again, it says so again. */
  readonly storedId: number | null;
}

/** A controller that has received nothing yet. `device` is its channel from 0, null where it listens on all. */
export const newReceiver = (memory: Bytes, device: number | null = null): FootReceiver => ({
  device,
  memory,
  coming: null,
  storedId: null,
});

export interface Received {
  readonly receiver: FootReceiver;
  readonly answers: readonly Bytes[];
  /** The memory was replaced. */
  readonly stored: boolean;
}

/** Takes a message in. Whatever comes, in whatever order, the memory is replaced as a whole or not at all. */
export function receive(receiver: FootReceiver, bytes: Bytes): Received {
  const message = readFootBytes(bytes);
  const to = footDevice(bytes);
  const others = receiver.device !== null && to !== ANY_DEVICE && to !== receiver.device;
  if (!message || others) return { receiver, answers: [], stored: false };
  const answer = (after: FootReceiver, reply: FootMessage, stored = false): Received => ({
    receiver: after,
    answers: [footBytes(reply, receiver.device ?? to)],
    stored,
  });
  const { id } = message;
  const { coming } = receiver;
  switch (message.kind) {
    case 'begin': {
      const { blocks, length, crc } = message;
      const fits = length <= MEMORY_LIMIT && blocks === Math.ceil(length / BLOCK_BYTES);
      if (!fits) return answer(receiver, { kind: 'refused', id, why: 'too-large' });
      // One that comes twice begins nothing anew.
      if (coming?.id === id && coming.crc === crc) return answer(receiver, { kind: 'ready', id });
      return answer({ ...receiver, coming: { id, blocks, length, crc, got: new Map() } }, { kind: 'ready', id });
    }
    case 'block': {
      if (coming?.id !== id || message.block >= coming.blocks) {
        return answer(receiver, { kind: 'refused', id, why: 'not-begun' });
      }
      const got = new Map(coming.got).set(message.block, message.data);
      return answer({ ...receiver, coming: { ...coming, got } }, { kind: 'got', id, block: message.block });
    }
    case 'end': {
      if (receiver.storedId === id && coming?.id !== id) {
        return answer(receiver, { kind: 'stored', id, crc: crc32(receiver.memory) });
      }
      if (coming?.id !== id) return answer(receiver, { kind: 'refused', id, why: 'not-begun' });
      if (coming.got.size < coming.blocks) return answer(receiver, { kind: 'refused', id, why: 'incomplete' });
      const memory = Array.from({ length: coming.blocks }, (_, i) => coming.got.get(i)!).flat();
      if (memory.length !== coming.length || crc32(memory) !== coming.crc) {
        return answer({ ...receiver, coming: null }, { kind: 'refused', id, why: 'damaged' });
      }
      if (readMemoryBytes(memory).value === undefined) {
        return answer({ ...receiver, coming: null }, { kind: 'refused', id, why: 'unreadable' });
      }
      return answer({ ...receiver, memory, coming: null, storedId: id }, { kind: 'stored', id, crc: coming.crc }, true);
    }
    case 'ask': {
      const { memory } = receiver;
      const blocks = Math.ceil(memory.length / BLOCK_BYTES);
      return answer(receiver, { kind: 'begin', id, blocks, length: memory.length, crc: crc32(memory) });
    }
    case 'want': {
      const data = blocksOf(receiver.memory)[message.block];
      return data
        ? answer(receiver, { kind: 'block', id, block: message.block, data })
        : answer(receiver, { kind: 'refused', id, why: 'incomplete' });
    }
    case 'ready':
    case 'got':
    case 'stored':
    case 'refused':
      return { receiver, answers: [], stored: false };
  }
}
