/** One tab at a time plays: the browser's lock is the turn. */
const NAME = 'hollow-lantern.playing';

/** Takes the turn; gives what lets go of it, or null where another tab has it. */
export function takeTurn(): Promise<(() => void) | null> {
  // Pages without locks are those of one screen on another machine.
  if (navigator.locks === undefined) return Promise.resolve(() => undefined);
  return new Promise((resolve) => {
    void navigator.locks.request(NAME, { ifAvailable: true }, (lock) => {
      if (!lock) return resolve(null);
      return new Promise<void>((letGo) => resolve(letGo));
    });
  });
}
