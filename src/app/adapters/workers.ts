import { proxy, transfer, wrap } from 'comlink';
import type { Outgoing, PlaybackEars } from '../../playback';
import type { PeaksWorker, PlaybackWorker, ProofWorker } from '../../workers/protocol';
import { Thread, byLocks } from './thread';

/** A thread that proves songs. */
export const startProver = (onLost: () => void): Thread<ProofWorker> =>
  new Thread<ProofWorker>(
    byLocks((name) => new Worker(new URL('../../workers/proof.worker.ts', import.meta.url), { type: 'module', name })),
    undefined,
    onLost,
  );

/** The thread that holds the clock, and what it tells. */
export const startPlayback = (
  ears: Required<PlaybackEars>,
  onOut: (batch: readonly Outgoing[]) => void,
  onLost: () => void,
): Thread<PlaybackWorker> =>
  new Thread<PlaybackWorker>(
    byLocks(
      (name) => new Worker(new URL('../../workers/playback.worker.ts', import.meta.url), { type: 'module', name }),
    ),
    (worker) => void worker.listen(proxy(ears.news), proxy(ears.lines), proxy(ears.events), proxy(onOut)),
    onLost,
  );

/** Peaks of a recording, worked out in a worker of its own that ends with it. */
export async function peaksInWorker(
  channels: readonly Float32Array[],
  rate: number,
  onProgress: (share: number) => void,
): Promise<Uint8Array> {
  const thread = new Worker(new URL('../../workers/peaks.worker.ts', import.meta.url), { type: 'module' });
  try {
    const copies = channels.map((c) => c.slice());
    const given = transfer(
      copies,
      copies.map((c) => c.buffer),
    );
    // A worker that fails answers nothing.
    const failed = new Promise<never>((_, reject) => {
      thread.addEventListener('error', () => reject(new Error('the picture of the recording could not be made')));
    });
    return await Promise.race([wrap<PeaksWorker>(thread).peaks(given, rate, proxy(onProgress)), failed]);
  } finally {
    thread.terminate();
  }
}
