import { propose, rehearse, sumOfRehearsal, type Proposal, type Rehearsal, type RehearsalSum } from '../core/feet';
import { roomFixes, type RoomFix } from '../core/checks';
import { playNights, type SongNights } from '../core/nights';
import { NO_PICTURE, makeSong, pictureOfNight, proveSong, type SongPicture, type SongProof } from '../core/proof';
import { indexShow, matchSlots, type ListedName, type Matching, type Song } from '../core/show';
import { tonightOf, type ShowTonight } from '../core/tonight';
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
    const { show, song } = tonightIn(this.mirror, songId);
    return song ? Object.fromEntries(makeSong(show, song, this.engine).fingerprints) : {};
  }

  prove(songId: string, detailed: boolean): SongProof {
    const { show, song } = tonightIn(this.mirror, songId);
    if (!song) return { songId, proofs: {}, fingerprints: {}, problems: [], findings: [], picture: NO_PICTURE };
    return proveSong(show, song, this.engine, detailed);
  }

  nights(songId: string, seed: number, from: number, to: number): SongNights {
    const { show, song } = tonightIn(this.mirror, songId);
    if (!song) return { songId, seed, from, to, cues: {}, missed: [] };
    return playNights(show, song, { seed, from, to });
  }

  night(songId: string, seed: number, night: number): SongPicture {
    const { show, song } = tonightIn(this.mirror, songId);
    return song ? pictureOfNight(show, song, { seed, night }) : NO_PICTURE;
  }

  room(songId: string, cueId: string, unitId: string): readonly RoomFix[] {
    const { show, song } = tonightIn(this.mirror, songId);
    return song ? roomFixes(show, song, { cueId, unitId }) : [];
  }

  match(unitId: string, now: readonly ListedName[]): Matching {
    return matchSlots(indexShow(this.mirror.show).units.get(unitId)?.slots ?? [], now);
  }

  propose(unitId: string): Proposal | null {
    return propose(tonightOf(this.mirror.show), unitId);
  }

  rehearseAll(unitId: string, songIds: readonly string[]): readonly RehearsalSum[] {
    return songIds.flatMap((id) => {
      const rehearsal = this.rehearse(unitId, id);
      return rehearsal ? sumOfRehearsal(rehearsal) : [];
    });
  }

  rehearse(unitId: string, songId: string): Rehearsal | null {
    const { show, song } = tonightIn(this.mirror, songId);
    return song ? rehearse(show, unitId, song) : null;
  }
}

/** What a worker was sent, as the night has it, and a song of it. */
function tonightIn(
  mirror: ShowMirror,
  songId: string,
): { readonly show: ShowTonight; readonly song: Song | undefined } {
  const show = tonightOf(mirror.show);
  return { show, song: indexShow(show).songs.get(songId) };
}
