import { create } from 'zustand';
import { SOURCES, type Source } from '../../core/sound';
import { liveContext } from '../adapters/audio';
import { ALL_BOTH, createMixer, type Mixer, type Routes } from '../adapters/mixer';
import { shelf } from '../persistence/db';
import { keepDevice } from '../persistence/device';
import { useNews } from './news';

/** How what is heard leaves this computer. Outputs and delay belong to it; trims last until the next song. */
export interface Mix {
  readonly routes: Routes;
  /** Milliseconds that sound is later in the ears than the browser knows of. */
  readonly delay: number;
  readonly trims: Readonly<Record<Source, number>>;
}

const EVEN: Mix['trims'] = { click: 0, calls: 0, backing: 0, guide: 0, samples: 0 };

export const useMix = create<Mix>(() => ({ routes: ALL_BOTH, delay: 0, trims: EVEN }));

let made: Mixer | undefined;

/** The mixer of the context that is heard; null where the browser has no sound. */
export function liveMixer(): Mixer | null {
  const context = liveContext();
  if (!context) return null;
  if (!made) {
    made = createMixer(context);
    made.route(useMix.getState().routes);
    for (const source of SOURCES) made.trim(source, useMix.getState().trims[source]);
  }
  return made;
}

export function setRoutes(routes: Routes): void {
  useMix.setState({ routes });
  made?.route(routes);
  void keepDevice(shelf, 'routes', routes).catch(() => undefined);
}

export function setDelay(delay: number): void {
  useMix.setState({ delay });
  void keepDevice(shelf, 'delay', delay).catch(() => undefined);
}

/** Louder or softer for now: at the next song it is as programmed again. */
export function setTrim(source: Source, gain: number): void {
  useMix.setState((s) => ({ trims: { ...s.trims, [source]: gain } }));
  made?.trim(source, gain);
}

/** Takes up what this computer remembers. */
export function takeMix({ routes, delay }: Partial<Pick<Mix, 'routes' | 'delay'>>): void {
  useMix.setState((s) => ({ routes: routes ?? s.routes, delay: delay ?? s.delay }));
  if (routes) made?.route(routes);
}

/** From now on a song that begins is as loud as it is programmed. */
export function followLevels(): void {
  useNews.subscribe(({ news }, { news: before }) => {
    if (!news.playing || (before.playing && before.songId === news.songId)) return;
    for (const source of SOURCES) setTrim(source, 0);
  });
}
