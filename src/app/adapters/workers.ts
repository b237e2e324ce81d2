import { proxy, transfer, wrap, type Remote } from 'comlink';
import type { Micros } from '../../core/time';
import type { Outgoing, PlaybackEars } from '../../playback';
import type {
  FilesWorker,
  PeaksWorker,
  PlaybackWorker,
  ProofWorker,
  ReaderWorker,
  SpeechWorker,
} from '../../workers/protocol';
import { Thread, byLocks } from './thread';
import { WithPage } from './withPage';

const page = new WithPage(window, () => location.reload());

/** A thread that proves songs. */
export const startProver = (onBroken: (broken: boolean) => void): Thread<ProofWorker> =>
  new Thread<ProofWorker>(
    byLocks(
      page,
      (name) => new Worker(new URL('../../workers/proof.worker.ts', import.meta.url), { type: 'module', name }),
    ),
    undefined,
    undefined,
    onBroken,
  );

/** A thread that makes paper and files. */
export const startFileMaker = (onBroken: (broken: boolean) => void): Thread<FilesWorker> =>
  new Thread<FilesWorker>(
    byLocks(
      page,
      (name) => new Worker(new URL('../../workers/files.worker.ts', import.meta.url), { type: 'module', name }),
    ),
    undefined,
    undefined,
    onBroken,
  );

/** The thread that holds the clock, and what it tells. */
export const startPlayback = (
  ears: Required<PlaybackEars>,
  onOut: (batch: readonly Outgoing[], from: Micros) => void,
  onLost: () => void,
  onBroken: (broken: boolean) => void,
): Thread<PlaybackWorker> =>
  new Thread<PlaybackWorker>(
    byLocks(
      page,
      (name) => new Worker(new URL('../../workers/playback.worker.ts', import.meta.url), { type: 'module', name }),
    ),
    (worker) =>
      void worker.listen(proxy(ears.news), proxy(ears.lines), proxy(ears.events), proxy(onOut), proxy(ears.peer)),
    onLost,
    onBroken,
  );

/** One question to a worker of its own, which ends with the answer. A worker that fails answers nothing. */
async function once<T>(thread: Worker, failure: string, ask: () => Promise<T>): Promise<T> {
  try {
    const failed = new Promise<never>((_, reject) => {
      thread.addEventListener('error', () => reject(new Error(failure)));
    });
    return await Promise.race([ask(), failed]);
  } finally {
    page.end(thread);
  }
}

/** Peaks of a recording, worked out in a worker of its own that ends with it. */
export function peaksInWorker(
  channels: readonly Float32Array[],
  rate: number,
  onProgress: (share: number) => void,
): Promise<Uint8Array> {
  const thread = page.keep(new Worker(new URL('../../workers/peaks.worker.ts', import.meta.url), { type: 'module' }));
  const copies = channels.map((c) => c.slice());
  const given = transfer(
    copies,
    copies.map((c) => c.buffer),
  );
  return once(thread, 'the picture of the recording could not be made', () =>
    wrap<PeaksWorker>(thread).peaks(given, rate, proxy(onProgress)),
  );
}

/** Reads a file's bytes in a worker of its own that ends with it: what plays meanwhile is not kept waiting. */
export function readerInWorker<T>(
  bytes: Uint8Array<ArrayBuffer>,
  read: (worker: Remote<ReaderWorker>, bytes: Uint8Array<ArrayBuffer>) => Promise<T>,
): Promise<T> {
  const thread = page.keep(new Worker(new URL('../../workers/reader.worker.ts', import.meta.url), { type: 'module' }));
  return once(thread, 'the part of the application that reads files cannot be started', () =>
    read(wrap<ReaderWorker>(thread), transfer(bytes, [bytes.buffer])),
  );
}

/** Has texts said, one after the other, in a worker of its own that ends with the last. What is said is a WAV file; a text that cannot be said is passed over. */
export async function speakInWorker(
  texts: readonly string[],
  onSaid: (text: string, wav: Uint8Array<ArrayBuffer>) => Promise<void>,
): Promise<void> {
  const thread = page.keep(new Worker(new URL('../../workers/speech.worker.ts', import.meta.url), { type: 'module' }));
  await once(thread, 'the voice cannot be loaded', async () => {
    const voice = wrap<SpeechWorker>(thread);
    for (const text of texts) {
      const wav = await voice.speak(text).catch(() => null);
      if (wav) await onSaid(text, wav);
    }
  });
}
