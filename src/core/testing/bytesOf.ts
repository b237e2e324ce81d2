import fc from 'fast-check';
import { compileSong } from '../compile';
import { demoShow, faultyDemo } from '../demo';
import type { Show } from '../show';
import { randomShow } from './randomShow';

/** Random shows of each size, and of how many cues each. */
const RANDOM = 50;
const CUES = [5, 10, 20, 40];
const SEED = 4242;

/** The demo, its copy with faults, and 200 random shows that are the same each time, by what they are called. */
export function* showsOfBytes(): Generator<readonly [name: string, show: Show]> {
  yield ['demo', demoShow()];
  yield ['demo-with-faults', faultyDemo()];
  for (const cues of CUES) {
    const shows = fc.sample(randomShow(cues), { numRuns: RANDOM, seed: SEED + cues });
    for (const [i, { show }] of shows.entries()) yield [`random-${cues}-${i + 1}`, show];
  }
}

/** All that a show's songs send, a line a message: when it leaves to the nanosecond, its port and its bytes. */
export const bytesOf = (show: Show): readonly string[] =>
  show.songs.flatMap((song) =>
    compileSong(show, song).events.map((e) => `${e.at.toFixed(3)} ${e.portId} ${e.bytes.join(' ')}`),
  );
