import { parentPort, workerData } from 'node:worker_threads';
import { catchUp, compileSong, stateAt } from '../src/core/compile';
import { applyEdit, changeCue, songTime } from '../src/core/show';
import { rigSpec, songWants } from '../src/core/meaning';
import { dryRun } from '../src/core/simulate';
import { Prover } from '../src/workers/prover';
import { updateOf } from '../src/workers/showMirror';
import { seeded } from './fullShow';
import { wholeSet } from './wholeSet';

/** What is measured of a whole show, in milliseconds. */
export interface SetTimes {
  readonly messages: number;
  readonly compile: number;
  readonly dryRun: number;
  /** To places in all songs, once compiled. */
  readonly catchUps: readonly number[];
  /** From an edit to the new fingerprints of its song, as the worker of the application is asked for them. */
  readonly edits: readonly number[];
}

const { songs, cues } = workerData as { songs: number; cues: number };

const timed = <T>(run: () => T): readonly [T, number] => {
  const start = performance.now();
  const value = run();
  return [value, performance.now() - start];
};

let show = wholeSet(songs, cues);
const [compiled, compile] = timed(() => show.songs.map((song) => compileSong(show, song)));
const spec = rigSpec(show);
const [, dry] = timed(() =>
  show.songs.map((song, i) => dryRun(spec, compiled[i]!.events, songWants(show, song)).verdicts.length),
);

const random = seeded(3);
const catchUps = Array.from({ length: 300 }, () => {
  const song = show.songs[Math.floor(random() * show.songs.length)]!;
  const at = Math.floor(random() * songTime(song).end);
  // What playing does: the state there, and the way to it from nothing known.
  return timed(() => catchUp(show, {}, stateAt(show, song, at)))[1];
});

const prover = new Prover('bench');
prover.update(updateOf(undefined, show));
for (const { id } of show.songs) prover.fingerprints(id);
const edits = Array.from({ length: 20 }, (_, i) => {
  const song = show.songs[Math.floor(random() * show.songs.length)]!;
  const cue = song.cues[Math.floor(random() * song.cues.length)]!;
  const after = applyEdit(show, changeCue(show, song.id, cue.id, { shift: i + 1 })!);
  const update = updateOf(show, after);
  show = after;
  return timed(() => {
    prover.update(structuredClone(update));
    return structuredClone(prover.fingerprints(song.id));
  })[1];
});

const messages = compiled.reduce((sum, c) => sum + c.events.length, 0);
parentPort!.postMessage({ messages, compile, dryRun: dry, catchUps, edits } satisfies SetTimes);
