import { useEffect, useState } from 'react';

/** How the screen is kept awake: held by the browser, by a film without a picture, or not at all. */
export type Awake = 'held' | 'film' | 'no';

/** Keeps the screen awake while something is on, where the browser allows it. */
export function useWakeLock(on: boolean): Awake {
  const [awake, setAwake] = useState<Awake>('held');
  useEffect(() => {
    if (!on) return undefined;
    // Pages from another machine over plain HTTP have no wake lock.
    if (!('wakeLock' in navigator)) return playFilm(setAwake);
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
        () => setAwake('no'),
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
  return awake;
}

/** A screen that plays a film stays awake, also where nothing is to be seen of it. */
function playFilm(tell: (awake: Awake) => void): () => void {
  const canvas = document.createElement('canvas');
  canvas.width = canvas.height = 2;
  const paint = canvas.getContext('2d');
  const film = document.createElement('video');
  film.muted = true;
  film.playsInline = true;
  film.srcObject = canvas.captureStream(1);
  let shade = 0;
  const timer = setInterval(() => {
    shade = 1 - shade;
    if (paint) paint.fillStyle = shade === 0 ? '#000' : '#010101';
    paint?.fillRect(0, 0, 2, 2);
  }, 1000);
  const start = (): void => {
    film.play().then(
      () => tell('film'),
      () => tell('no'),
    );
  };
  start();
  // Browsers want a press before they play anything.
  document.addEventListener('pointerdown', start);
  return () => {
    clearInterval(timer);
    document.removeEventListener('pointerdown', start);
    film.pause();
  };
}
