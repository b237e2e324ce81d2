import type { Wanted } from '../core/rig';
import { checkSong, type Finding } from '../core/checks';
import { compileSong, fingerprints, type CompiledSong } from '../core/compile';
import { indexShow, matchSlots, type ListedName, type Matching, type Song } from '../core/show';
import { rigSpec, sameSurroundings, songWants, surroundingsOf, type Surroundings } from '../core/meaning';
import { dryRun, lanternOf, type Verdict } from '../core/simulate';
import type { CueProof, ProofWorker, ShowUpdate, SongProof } from './protocol';
import { NO_PICTURE, pictureOf } from './picture';
import { ShowMirror } from './showMirror';

interface Kept {
  readonly under: Surroundings;
  readonly compiled: CompiledSong;
  readonly wants: readonly Wanted[];
  readonly fingerprints: ReadonlyMap<string, string>;
}

/** Verdicts of one cue that are worth keeping: a sweep has hundreds, and those that are well say all the same. */
const KEPT_VERDICTS = 48;

function telling(verdicts: readonly Verdict[]): readonly Verdict[] {
  if (verdicts.length <= KEPT_VERDICTS) return verdicts;
  const wrong = verdicts.filter((v) => v.outcome !== 'on-time');
  return wrong.length > 0 ? wrong.slice(0, KEPT_VERDICTS) : verdicts.slice(0, 1);
}

/** Compiles and proves songs; keeps what it made of a song until the song, the rig or the tones change. */
export class Prover implements ProofWorker {
  private readonly mirror = new ShowMirror();
  private readonly kept = new WeakMap<Song, Kept>();

  update(update: ShowUpdate): void {
    this.mirror.update(update);
  }

  fingerprints(songIds: readonly string[]): Record<string, Record<string, string>> {
    const result: Record<string, Record<string, string>> = {};
    for (const id of songIds) {
      const song = this.mirror.song(id);
      if (song) result[id] = Object.fromEntries(this.made(song).fingerprints);
    }
    return result;
  }

  prove(songId: string): SongProof {
    const song = this.mirror.song(songId);
    if (!song) return { songId, proofs: {}, fingerprints: {}, problems: [], findings: [], picture: NO_PICTURE };
    const { show } = this.mirror;
    const { compiled, wants, fingerprints } = this.made(song);
    const dry = dryRun(rigSpec(show), compiled.events, wants, show.tolerance);
    const { verdicts } = dry;
    const byCue = new Map<string, Verdict[]>();
    for (const verdict of verdicts) {
      const list = byCue.get(verdict.cueId);
      if (list) list.push(verdict);
      else byCue.set(verdict.cueId, [verdict]);
    }
    const proofs: Record<string, CueProof> = {};
    for (const [cueId, fingerprint] of fingerprints) {
      const found = byCue.get(cueId) ?? [];
      proofs[fingerprint] = { lantern: lanternOf(found), verdicts: telling(found) };
    }
    return {
      songId,
      proofs,
      fingerprints: Object.fromEntries(fingerprints),
      problems: compiled.problems,
      findings: checkSong(show, song, { compiled, dry }),
      picture: pictureOf(show, compiled, wants, dry),
    };
  }

  check(songId: string): readonly Finding[] {
    const song = this.mirror.song(songId);
    return song ? checkSong(this.mirror.show, song) : [];
  }

  match(unitId: string, now: readonly ListedName[]): Matching {
    return matchSlots(indexShow(this.mirror.show).units.get(unitId)?.slots ?? [], now);
  }

  private made(song: Song): Kept {
    const { show } = this.mirror;
    const kept = this.kept.get(song);
    if (kept && sameSurroundings(kept.under, show)) return kept;
    const compiled = compileSong(show, song);
    const wants = songWants(show, song);
    const made = { under: surroundingsOf(show), compiled, wants, fingerprints: fingerprints(show, compiled, wants) };
    this.kept.set(song, made);
    return made;
  }
}
