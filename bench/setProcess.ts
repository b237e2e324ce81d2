import { Worker } from 'node:worker_threads';
import type { SetTimes } from './setWorker';

// One size of show in a worker of a process of its own: prints its times and the most memory it took.
const [songs, cues] = process.argv.slice(2).map(Number);
const worker = new Worker(new URL('./setWorker.mjs', import.meta.url), { workerData: { songs, cues } });
worker.once('message', (times: SetTimes) => {
  const peak = process.resourceUsage().maxRSS / 1000;
  process.stdout.write(JSON.stringify({ ...times, peak }));
  void worker.terminate();
});
worker.once('error', (error) => {
  throw error;
});
