import { expose } from 'comlink';
import { StandInPlayer } from './standInPlayer';

// The clock lives in a worker: there it goes on at its pace while the page is busy or hidden.
expose(
  new StandInPlayer({
    now: () => performance.now() * 1000,
    every: (millis, run) => {
      setInterval(run, millis);
    },
  }),
);
