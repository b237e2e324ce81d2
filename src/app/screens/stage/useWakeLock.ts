import { useEffect } from 'react';

/** Keeps the screen awake while something plays, where the browser allows it. */
export function useWakeLock(on: boolean): void {
  useEffect(() => {
    if (!on || !('wakeLock' in navigator)) return undefined;
    let held: WakeLockSentinel | undefined;
    let over = false;
    const ask = (): void => {
      if (over || document.visibilityState !== 'visible') return;
      navigator.wakeLock.request('screen').then(
        (lock) => {
          if (over) void lock.release();
          else held = lock;
        },
        // A page that may not is still a page: the screen then sleeps as the computer is set.
        () => undefined,
      );
    };
    ask();
    // A hidden page loses it.
    document.addEventListener('visibilitychange', ask);
    return () => {
      over = true;
      document.removeEventListener('visibilitychange', ask);
      void held?.release();
    };
  }, [on]);
}
