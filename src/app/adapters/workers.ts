import { proxy, wrap, type Remote } from 'comlink';
import type { Show } from '../../core/show';
import type { PlayerNews, PlayerWorker, ProofWorker, ShowUpdate } from '../../workers/protocol';
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
  readonly player: Mirrored<PlayerWorker>;
}

let workers: Workers | undefined;

/** The two workers, started on first use and kept. */
export function getWorkers(onNews: (news: PlayerNews) => void): Workers {
  if (workers) return workers;
  const proof = wrap<ProofWorker>(
    new Worker(new URL('../../workers/proof.worker.ts', import.meta.url), { type: 'module' }),
  );
  const player = wrap<PlayerWorker>(
    new Worker(new URL('../../workers/player.worker.ts', import.meta.url), { type: 'module' }),
  );
  void player.listen(proxy(onNews));
  workers = { proof: new Mirrored(proof), player: new Mirrored(player) };
  return workers;
}
