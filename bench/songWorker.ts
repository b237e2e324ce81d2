import { parentPort, workerData } from 'node:worker_threads';
import { compileSong } from '../src/core/compile';
import { rigSpec, songWants } from '../src/core/meaning';
import { dryRun } from '../src/core/simulate';
import { fullShow } from './fullShow';

const { units, cues, runs } = workerData as { units: number; cues: number; runs: number };
const results: { messages: number; compile: number; dryRun: number; late: number; heap: number }[] = [];
for (let i = 0; i < runs; i++) {
  // A new show each time: nothing that is kept by identity helps.
  const { show, song } = fullShow(units, cues, i + 1);
  const start = performance.now();
  const compiled = compileSong(show, song);
  const middle = performance.now();
  const wants = songWants(show, song);
  const run = dryRun(rigSpec(show), compiled.events, wants);
  const end = performance.now();
  results.push({
    messages: compiled.events.length,
    compile: middle - start,
    dryRun: end - middle,
    late: run.verdicts.filter((v) => v.outcome !== 'on-time').length / run.verdicts.length,
    heap: process.memoryUsage().heapUsed / 1e6,
  });
}
parentPort!.postMessage(results);
