/** One tab at a time plays, and one has a show on: the browser's locks are their turns. */
const PLAYING = 'hollow-lantern.playing';
const SHOW = 'hollow-lantern.show';
const PAIR = 'hollow-lantern.pair';

/** Whether this tab has the show on. */
let isShowHere = false;

async function isHeld(name: string): Promise<boolean> {
  const { held = [] } = await navigator.locks.query();
  return held.some((lock) => lock.name === name);
}

/** Takes a lock; gives what lets go of it, or null where another tab has it. */
function takeLock(name: string): Promise<(() => void) | null> {
  return new Promise((resolve) => {
    void navigator.locks.request(name, { ifAvailable: true }, (lock) => {
      if (!lock) return resolve(null);
      return new Promise<void>((letGo) => resolve(letGo));
    });
  });
}

/** Pages without locks are those of one screen on another machine. */
const hasLocks = (): boolean => navigator.locks !== undefined;

/** Takes the turn to play; gives what lets go of it, or null where another tab has it, or has a show on. */
export async function takeTurn(): Promise<(() => void) | null> {
  if (!hasLocks()) return () => undefined;
  if (!isShowHere && (await isHeld(SHOW))) return null;
  return takeLock(PLAYING);
}

/** Has a show on in this tab and in no other; gives what ends that, or null where another tab plays or has one on. */
export async function takeShowTurn(): Promise<(() => void) | null> {
  if (!hasLocks()) return () => undefined;
  const letGo = await takeLock(SHOW);
  if (!letGo) return null;
  isShowHere = true;
  return () => {
    isShowHere = false;
    letGo();
  };
}

/** A page that is loaded anew still holds its lock for a moment, in milliseconds. */
const HELD_FOR = 1500;

/** Is one of two computers in this tab and in no other; gives what ends that, or null where another tab is. */
export function takePairTurn(): Promise<(() => void) | null> {
  if (!hasLocks()) return Promise.resolve(() => undefined);
  return new Promise((resolve) => {
    navigator.locks
      .request(PAIR, { signal: AbortSignal.timeout(HELD_FOR) }, () => new Promise<void>((letGo) => resolve(letGo)))
      .catch(() => resolve(null));
  });
}

/** Whether any tab plays or has a show on. */
export async function isTurnTaken(): Promise<boolean> {
  return hasLocks() && ((await isHeld(PLAYING)) || (await isHeld(SHOW)));
}
