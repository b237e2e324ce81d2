import { expose } from 'comlink';
import { living } from './life';
import { PlaybackHost } from './playbackHost';
import { guarded } from './questions';

// The clock lives in a worker: there it goes on at its pace while the page is busy or hidden.
const host = new PlaybackHost({
  // Counted from the epoch, so that the page, whose own clock starts elsewhere, can tell it from its own.
  now: () => (performance.timeOrigin + performance.now()) * 1000,
  every: (millis, run) => {
    setInterval(run, millis);
  },
});
expose(living(guarded(host)));
