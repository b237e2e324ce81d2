import { create } from 'zustand';
import { TakeOver, mixing, type Route } from '../../core/sound';
import { RANGES, sourcesOf, type Show, type Turn } from '../../core/show';
import { liveContext } from '../adapters/audio';
import { createMixer, factorOf, type Mixer } from '../adapters/mixer';
import { shelf } from '../persistence/db';
import { keepDevice } from '../persistence/device';
import { useNews } from './news';
import { useApp } from './store';

/** Outputs by source, or by mix for ears. */
export type Routes = Readonly<Record<string, Route>>;

/** How what is heard leaves this computer. Outputs and delay belong to it; trims, and what is off, last until the next song. */
interface Mix {
  readonly routes: Routes;
  readonly earRoutes: Routes;
  /** Milliseconds that sound is later in the ears than the browser knows of. */
  readonly delay: number;
  /** Decibels beside what is programmed, by source; 0 for what is not in it. */
  readonly trims: Readonly<Record<string, number>>;
  /** Sources that are turned off. */
  readonly off: readonly string[];
}

export const BOTH: Route = [0, 1];

/** From one end of a fader to the other, in decibels: silent to a little louder than programmed. */
export const FADER = [RANGES.gain[0], 6] as const;

export const useMix = create<Mix>(() => ({ routes: {}, earRoutes: {}, delay: 0, trims: {}, off: [] }));

/** Decibels that a source is moved by just now. */
export const trimOf = ({ trims }: Pick<Mix, 'trims'>, source: string): number => trims[source] ?? 0;

let made: Mixer | undefined;
const faders = new TakeOver();

/** The mixer of the context that is heard; null where the browser has no sound. */
export function liveMixer(): Mixer | null {
  const context = liveContext();
  if (!context) return null;
  if (!made) {
    made = createMixer(context);
    route();
  }
  return made;
}

/** Puts the ways and levels of the open show on the mixer. */
function route(): void {
  const show = useApp.getState().open?.show;
  if (!made || !show) return;
  const { routes, earRoutes } = useMix.getState();
  const sources = sourcesOf(show).map((s) => s.id);
  made.send(mixing({ sources, routes, earRoutes, ears: show.ears, outputs: made.outputs }));
  for (const source of sources) level(source);
}

/** A trim at the least that there is is silence. */
function level(source: string): void {
  const mix = useMix.getState();
  const trim = trimOf(mix, source);
  made?.level(source, mix.off.includes(source) || trim <= RANGES.gain[0] ? 0 : factorOf(trim));
}

export function setRoutes(routes: Routes): void {
  useMix.setState({ routes });
  route();
  void keepDevice(shelf, 'routes', routes).catch(() => undefined);
}

export function setEarRoute(earId: string, to: Route): void {
  const earRoutes = { ...useMix.getState().earRoutes, [earId]: to };
  useMix.setState({ earRoutes });
  route();
  void keepDevice(shelf, 'earRoutes', earRoutes).catch(() => undefined);
}

export function setDelay(delay: number): void {
  useMix.setState({ delay });
  void keepDevice(shelf, 'delay', delay).catch(() => undefined);
}

/** Louder or softer for now: at the next song it is as programmed again. */
export function setTrim(source: string, gain: number): void {
  useMix.setState((s) => ({ trims: { ...s.trims, [source]: gain } }));
  level(source);
}

/** Turns a source on or off for now. */
export function turn(source: string, how: Turn): void {
  useMix.setState(({ off }) => {
    const goesOff = how === 'off' || (how === 'flip' && !off.includes(source));
    return { off: [...off.filter((s) => s !== source), ...(goesOff ? [source] : [])] };
  });
  level(source);
}

/** A fader of a controller comes to a level: it takes over where the level is, without a jump. */
export function moveFader(fader: string, source: string, gain: number): void {
  const to = faders.move(fader, gain, trimOf(useMix.getState(), source));
  if (to !== null) setTrim(source, to);
}

/** Takes up what this computer remembers. */
export function takeMix(kept: Partial<Pick<Mix, 'routes' | 'earRoutes' | 'delay'>>): void {
  useMix.setState(kept);
  route();
}

/** From now on a song that begins is as loud as it is programmed, and the ways are those of the show that is open. */
export function followMix(): void {
  useNews.subscribe(({ news }, { news: before }) => {
    if (!news.playing || (before.playing && before.songId === news.songId)) return;
    useMix.setState({ trims: {}, off: [] });
    route();
  });
  const wished = (show: Show | undefined): readonly unknown[] => [show?.stems, show?.ears];
  useApp.subscribe(({ open }, { open: before }) => {
    const [now, then] = [wished(open?.show), wished(before?.show)];
    if (now.some((part, i) => part !== then[i])) route();
  });
}
