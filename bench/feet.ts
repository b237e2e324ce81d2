import { parentPort, workerData } from 'node:worker_threads';
import { memoryBytes, memoryOf, propose, rehearse, takeProposal } from '../src/core/feet';
import { checkRig } from '../src/core/checks';
import { libraryProfile } from '../src/core/library';
import { applyEdit, newUnit } from '../src/core/show';
import { largeSet } from '../src/core/testing/rigs';
import { tonightOf } from '../src/core/tonight';

export interface FeetTimes {
  readonly propose: number;
  readonly pages: number;
  readonly left: number;
  readonly rehearse: number;
  readonly memory: number;
  readonly check: number;
  readonly again: number;
}

const timed = <T>(run: () => T): readonly [result: T, millis: number] => {
  const start = performance.now();
  const result = run();
  return [result, performance.now() - start];
};

const { songs, tones, kind } = workerData as { songs: number; tones: number; kind: string };
const show = largeSet(newUnit('feet', 'Feet', 'FT', libraryProfile(kind)), songs, tones);
const [proposal, proposing] = timed(() => propose(show, 'feet')!);
let n = 0;
const full = applyEdit(
  show,
  takeProposal(show, proposal, () => `page-${n++}`)!,
);
const [, rehearsing] = timed(() => full.songs.map((s) => rehearse(full, 'feet', s)));
const [, memory] = timed(() => memoryBytes(memoryOf(full, 'feet')));
const [, check] = timed(() => checkRig(tonightOf(full)));
// An edit to one song: what the others came to is known.
const [first, ...rest] = full.songs;
const [, again] = timed(() => checkRig(tonightOf({ ...full, songs: [{ ...first!, bars: 65 }, ...rest] })));
const times: FeetTimes = {
  propose: proposing,
  pages: proposal.pages.length,
  left: proposal.left.length,
  rehearse: rehearsing,
  memory,
  check,
  again,
};
parentPort!.postMessage(times);
