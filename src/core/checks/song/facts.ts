import type { RigState } from '../../rig';
import type { CompiledSong } from '../../compile';
import { StateFold, contextOf, passMoment, moments, type Moment } from '../../meaning';
import { songTime, type Show, type Song, type SongTime } from '../../show';
import type { DryRun } from '../../simulate';

/** A cue or the opening as it is passed, with the rig as the song so far leaves it, and after it. */
export interface Passed {
  readonly moment: Moment;
  readonly before: RigState;
  readonly after: RigState;
}

/** A song with what the checks need of it, worked out once. */
export interface SongFacts {
  readonly show: Show;
  readonly song: Song;
  readonly time: SongTime;
  /** Cues and the opening in order; of several moments of one cue, each. */
  readonly passed: readonly Passed[];
  /** What was compiled and what a dry run saw; null where no dry run was made. */
  readonly run: { readonly compiled: CompiledSong; readonly dry: DryRun } | null;
}

/**
 * What all checks of a song ask for, worked out once: its moments with the rig's state before and after each. `run`
 * is null before a dry run.
 */
export function songFacts(show: Show, song: Song, run: SongFacts['run'] = null): SongFacts {
  const context = contextOf(show);
  const fold = new StateFold(context.units);
  const passed: Passed[] = [];
  let before: RigState = {};
  for (const moment of moments(show, song)) {
    passMoment(show, context, fold, moment, 'changes');
    const after = fold.all();
    if (moment.source === 'cue' || moment.source === 'opening') passed.push({ moment, before, after });
    before = after;
  }
  return { show, song, time: songTime(song), passed, run };
}
