import { compileSong } from '../src/core/compile';
import { demoShow } from '../src/core/demo';
import { rigSpec, songWants } from '../src/core/meaning';
import { playNights } from '../src/core/nights';
import { songsOfSet } from '../src/core/show';
import { dryRun, proofRun } from '../src/core/simulate';
import { withoutRoom } from '../src/core/testing/withoutRoom';
import { tonightOf } from '../src/core/tonight';
import { size } from './size';
import { wholeSet } from './wholeSet';

/** What room and nights cost, in milliseconds; each figure is the best of some tries, taken in turn. */
export interface NightCosts {
  readonly songs: number;
  readonly cues: number;
  readonly compiled: { readonly with: number; readonly without: number };
  readonly run: { readonly plain: number; readonly withMargins: number };
  readonly nights: { readonly count: number; readonly millis: number };
}

const timed = (work: () => void): number => {
  const start = performance.now();
  work();
  return performance.now() - start;
};

/** Compiles a large set with margins and guards and without, runs it with margins and without, plays nights of the demo set. */
export function nightCosts(): NightCosts {
  const [songs, cues, tries, count] = [size(60, 2), size(400, 60), size(4, 1), size(100, 4)];
  const roomy = wholeSet(songs, cues);
  const bare = withoutRoom(roomy);
  const compile = (show: typeof roomy): number =>
    timed(() => {
      // Another object is another song: nothing is kept of the one before.
      for (const song of show.songs) void compileSong(show, { ...song }).events;
    });
  const compiled = { with: Number.POSITIVE_INFINITY, without: Number.POSITIVE_INFINITY };
  const run = { plain: Number.POSITIVE_INFINITY, withMargins: Number.POSITIVE_INFINITY };
  const rig = rigSpec(roomy);
  const made = roomy.songs.map((song) => ({ events: compileSong(roomy, song).events, wants: songWants(roomy, song) }));
  for (let i = 0; i < tries; i++) {
    compiled.with = Math.min(compiled.with, compile(roomy));
    compiled.without = Math.min(compiled.without, compile(bare));
    run.plain = Math.min(
      run.plain,
      timed(() => made.forEach(({ events, wants }) => void dryRun(rig, events, wants))),
    );
    run.withMargins = Math.min(
      run.withMargins,
      timed(() => made.forEach(({ events, wants }) => void proofRun(rig, events, wants))),
    );
  }
  const demo = tonightOf(demoShow());
  const millis = timed(() => {
    for (const song of songsOfSet(demo)) playNights(demo, song, { seed: 1, from: 0, to: count });
  });
  return { songs, cues, compiled, run, nights: { count, millis } };
}
