import { Worker } from 'node:worker_threads';
import type { SetTimes } from './setWorker';

// One size of show in a worker of a process of its own: prints its times and the most memory it took.
const [file, songs, cues] = process.argv.slice(2);
const worker = new Worker(file!, { workerData: { songs: Number(songs), cues: Number(cues) } });
worker.once('message', (times: SetTimes) => {
  const peak = process.resourceUsage().maxRSS / 1000;
  process.stdout.write(JSON.stringify({ ...times, peak }));
  void worker.terminate();
});
worker.once('error', (error) => {
  throw error;
});
