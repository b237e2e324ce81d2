import { proxy, wrap, type Remote } from 'comlink';
import type { Show } from '../../core/show';
import type { MonitorLine } from '../../player';
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

/** Where news of the player goes. */
export interface PlayerEars {
  readonly news: (news: PlayerNews) => void;
  readonly lines: (batch: readonly MonitorLine[]) => void;
}

/** The two workers, started on first use and kept. */
export function getWorkers(ears: PlayerEars): Workers {
  if (workers) return workers;
  const proof = wrap<ProofWorker>(
    new Worker(new URL('../../workers/proof.worker.ts', import.meta.url), { type: 'module' }),
  );
  const player = wrap<PlayerWorker>(
    new Worker(new URL('../../workers/player.worker.ts', import.meta.url), { type: 'module' }),
  );
  void player.listen(proxy(ears.news));
  void player.watch(proxy(ears.lines));
  workers = { proof: new Mirrored(proof), player: new Mirrored(player) };
  return workers;
}
