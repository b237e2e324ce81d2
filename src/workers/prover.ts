import { checkSong, type Finding } from '../core/checks';
import { NO_PICTURE, makeSong, proveSong, type SongProof } from '../core/proof';
import { indexShow, matchSlots, type ListedName, type Matching } from '../core/show';
import type { ProofWorker, ShowUpdate } from './protocol';
import { ShowMirror } from './showMirror';

/** Compiles and proves songs in a worker. `engine` is the mark of the code that does it. */
export class Prover implements ProofWorker {
  private readonly mirror = new ShowMirror();

  constructor(private readonly engine: string) {}

  update(update: ShowUpdate): void {
    this.mirror.update(update);
  }

  fingerprints(songIds: readonly string[]): Record<string, Record<string, string>> {
    const result: Record<string, Record<string, string>> = {};
    for (const id of songIds) {
      const song = this.mirror.song(id);
      if (song) result[id] = Object.fromEntries(makeSong(this.mirror.show, song, this.engine).fingerprints);
    }
    return result;
  }

  prove(songId: string): SongProof {
    const song = this.mirror.song(songId);
    if (!song) return { songId, proofs: {}, fingerprints: {}, problems: [], findings: [], picture: NO_PICTURE };
    return proveSong(this.mirror.show, song, this.engine);
  }

  check(songId: string): readonly Finding[] {
    const song = this.mirror.song(songId);
    return song ? checkSong(this.mirror.show, song) : [];
  }

  match(unitId: string, now: readonly ListedName[]): Matching {
    return matchSlots(indexShow(this.mirror.show).units.get(unitId)?.slots ?? [], now);
  }
}
