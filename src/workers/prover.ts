import { propose, rehearse, sumOfRehearsal, type Proposal, type Rehearsal, type RehearsalSum } from '../core/feet';
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

  fingerprints(songId: string): Readonly<Record<string, string>> {
    const song = this.mirror.song(songId);
    return song ? Object.fromEntries(makeSong(this.mirror.show, song, this.engine).fingerprints) : {};
  }

  prove(songId: string, detailed: boolean): SongProof {
    const song = this.mirror.song(songId);
    if (!song) return { songId, proofs: {}, fingerprints: {}, problems: [], findings: [], picture: NO_PICTURE };
    return proveSong(this.mirror.show, song, this.engine, detailed);
  }

  match(unitId: string, now: readonly ListedName[]): Matching {
    return matchSlots(indexShow(this.mirror.show).units.get(unitId)?.slots ?? [], now);
  }

  propose(unitId: string): Proposal | null {
    return propose(this.mirror.show, unitId);
  }

  rehearseAll(unitId: string, songIds: readonly string[]): readonly RehearsalSum[] {
    return songIds.flatMap((id) => {
      const rehearsal = this.rehearse(unitId, id);
      return rehearsal ? sumOfRehearsal(rehearsal) : [];
    });
  }

  rehearse(unitId: string, songId: string): Rehearsal | null {
    const song = this.mirror.song(songId);
    return song ? rehearse(this.mirror.show, unitId, song) : null;
  }
}
