import { expose, transfer } from 'comlink';
import { readMidiBytes, readShowBytes } from '../core/formats/readShowBytes';
import type { ReaderWorker } from './protocol';

const worker: ReaderWorker = {
  show: (bytes, name) => {
    const read = readShowBytes(bytes, name);
    const sounds = [...(read.value?.sounds.values() ?? [])];
    // Recordings may be views of one piece of memory: each piece is handed over once.
    return transfer(read, [...new Set(sounds.map((s) => s.buffer))]);
  },
  midi: readMidiBytes,
};
expose(worker);
