import type { RigState } from '../rig';
import { sameToWires, surroundingsOf, type StateFold, type Surroundings } from '../meaning';
import type { Show, Song } from '../show';
import type { Micros } from '../time';

/** A checkpoint lies behind every so many moments: so many at most are gone through to reach any place. */
const EVERY = 24;

interface Checkpoints {
  readonly under: Surroundings;
  /** What was known after each `EVERY` moments, from the start of the song. */
  readonly kept: StateFold[];
  readonly dues: Float64Array;
}

const known = new WeakMap<Song, Checkpoints>();

/** Keeps what compiling a song from nothing known comes by. `add` is called before each of its moments, in order, with when it is due. */
export class CheckpointKeeper {
  private readonly made: StateFold[] = [];
  private readonly dues: Micros[] = [];

  add(fold: StateFold, due: Micros): void {
    if (this.dues.length % EVERY === 0) this.made.push(fold.copy());
    this.dues.push(due);
  }

  keep(show: Show, song: Song): void {
    known.set(song, { under: surroundingsOf(show), kept: this.made, dues: Float64Array.from(this.dues) });
  }
}

/** Whether a song was gone through as it is now. */
export function hasCheckpoints(show: Show, song: Song): boolean {
  const found = known.get(song);
  return found !== undefined && sameToWires(song, found.under, surroundingsOf(show));
}

/**
 * The state after everything that is due by a time, from the nearest checkpoint; `pass` is
 * called for the moments that are still to be gone through. There have to be checkpoints.
 */
export function stateFrom(song: Song, place: Micros, pass: (fold: StateFold, index: number) => void): RigState {
  const { kept, dues } = known.get(song)!;
  let k = kept.length - 1;
  while (k > 0 && dues[k * EVERY - 1]! > place) k -= 1;
  const fold = kept[k]!.copy();
  for (let i = k * EVERY; i < dues.length && dues[i]! <= place; i++) pass(fold, i);
  return fold.all();
}
