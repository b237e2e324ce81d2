import { proxy, transfer, wrap, type Remote } from 'comlink';
import type { Show } from '../../core/show';
import type { MonitorLine, PlaybackNews, SessionEvent } from '../../playback';
import type { PeaksWorker, PlaybackWorker, ProofWorker, ShowUpdate } from '../../workers/protocol';
import { updateOf } from '../../workers/showMirror';

/** Sends a worker what changed in the show since it was last sent. */
class Mirrored<W extends { update(update: ShowUpdate): void }> {
  private sent: Show | undefined;

  constructor(readonly worker: Remote<W>) {}

  async show(show: Show): Promise<void> {
    if (this.sent === show) return;
    const update = updateOf(this.sent, show);
    this.sent = show;
    await (this.worker.update as unknown as (u: ShowUpdate) => Promise<void>)(update);
  }
}

export interface Workers {
  readonly proof: Mirrored<ProofWorker>;
  readonly playback: Mirrored<PlaybackWorker>;
}

let workers: Workers | undefined;

/** Where news of the playback goes. */
export interface PlaybackEars {
  readonly news: (news: PlaybackNews) => void;
  readonly lines: (batch: readonly MonitorLine[]) => void;
  readonly events: (events: readonly SessionEvent[]) => void;
}

/** The two workers, started on first use and kept. */
export function getWorkers(ears: PlaybackEars): Workers {
  if (workers) return workers;
  const proof = wrap<ProofWorker>(
    new Worker(new URL('../../workers/proof.worker.ts', import.meta.url), { type: 'module' }),
  );
  const playback = wrap<PlaybackWorker>(
    new Worker(new URL('../../workers/playback.worker.ts', import.meta.url), { type: 'module' }),
  );
  void playback.listen(proxy(ears.news), proxy(ears.lines), proxy(ears.events));
  workers = { proof: new Mirrored(proof), playback: new Mirrored(playback) };
  return workers;
}

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
    return await wrap<PeaksWorker>(thread).peaks(given, rate, proxy(onProgress));
  } finally {
    thread.terminate();
  }
}
