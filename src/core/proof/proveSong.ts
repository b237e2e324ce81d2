import { groupBy } from '../groups';
import { checkSong, type Finding } from '../checks';
import { compileSong, fingerprints, problemsOf, type CompiledSong } from '../compile';
import { rigSpec, sameToWires, songWants, surroundingsOf, type Surroundings } from '../meaning';
import type { Problem } from '../problems';
import type { Wanted } from '../rig';
import type { Song } from '../show';
import type { ShowTonight } from '../tonight';
import { lanternOf, proofRun, worstFirst, type Lantern, type Verdict } from '../simulate';
import { pictureOf, type SongPicture } from './picture';

/** What is known of a cue, kept under its fingerprint. */
export interface CueProof {
  readonly lantern: Lantern;
  readonly verdicts: readonly Verdict[];
}

export interface SongProof {
  readonly songId: string;
  /** By fingerprint. */
  readonly proofs: Readonly<Record<string, CueProof>>;
  /** By cue. */
  readonly fingerprints: Readonly<Record<string, string>>;
  readonly problems: readonly Problem[];
  /** What the checks say of the song, with what the dry run saw. */
  readonly findings: readonly Finding[];
  readonly picture: SongPicture;
}

/** A song made into bytes, and what it wants of whom. */
export interface MadeSong {
  readonly compiled: CompiledSong;
  readonly wants: readonly Wanted[];
  /** By cue. */
  readonly fingerprints: ReadonlyMap<string, string>;
}

interface Kept extends MadeSong {
  readonly under: Surroundings;
  readonly engine: string;
}

const kept = new WeakMap<Song, Kept>();

/**
 * Compiles a song, unless that was done for the same bytes. `engine` is the mark of the code that
 * compiles and simulates: what an older one proved is no proof.
 */
export function makeSong(show: ShowTonight, song: Song, engine: string): MadeSong {
  const under = surroundingsOf(show);
  const known = kept.get(song);
  if (known && known.engine === engine && sameToWires(song, known.under, under)) return known;
  const compiled = compileSong(show, song);
  const wants = songWants(show, song);
  const made = { under, engine, compiled, wants, fingerprints: fingerprints(show, compiled, wants, engine) };
  kept.set(song, made);
  return made;
}

/** Verdicts of one cue that are worth keeping: a sweep has hundreds, and those that are well say all the same. */
const KEPT_VERDICTS = 48;

function telling(verdicts: readonly Verdict[]): readonly Verdict[] {
  if (verdicts.length <= KEPT_VERDICTS) return verdicts;
  const wrong = verdicts.filter((v) => v.outcome !== 'on-time');
  return wrong.length > 0 ? wrong.slice(0, KEPT_VERDICTS) : worstFirst(verdicts).slice(0, 1);
}

/** Plays a song against the simulated rig, and says what that proves of each of its cues; `detailed` with all that units did. */
export function proveSong(show: ShowTonight, song: Song, engine: string, detailed = true): SongProof {
  const { compiled, wants, fingerprints } = makeSong(show, song, engine);
  const dry = proofRun(rigSpec(show), compiled.events, wants, show.tolerance);
  const byCue = groupBy(dry.verdicts, (v) => v.cueId);
  const proofs: Record<string, CueProof> = {};
  for (const [cueId, fingerprint] of fingerprints) {
    const found = byCue.get(cueId) ?? [];
    proofs[fingerprint] = { lantern: lanternOf(found), verdicts: telling(found) };
  }
  return {
    songId: song.id,
    proofs,
    fingerprints: Object.fromEntries(fingerprints),
    problems: problemsOf(show, compiled),
    findings: checkSong(show, song, { compiled, dry }),
    picture: pictureOf(show, compiled, wants, dry, detailed),
  };
}
