import { songTime, type Song } from '../../../core/show';
import { barOfTick, snap, type Ticks } from '../../../core/time';

export const SNAPS = [
  { id: 'bar', name: 'to the bar' },
  { id: 'beat', name: 'to the beat' },
  { id: 'half', name: 'to half beats' },
  { id: 'free', name: 'free' },
] as const;
export type Snap = (typeof SNAPS)[number]['id'];

/** The tick that a pointer or key means under a snap. */
export function snapped(song: Song, tick: Ticks, to: Snap): Ticks {
  const { bars, end } = songTime(song);
  const bar = barOfTick(bars, tick);
  const step = { bar: bar.beats * bar.beatTicks, beat: bar.beatTicks, half: bar.beatTicks / 2, free: 1 }[to];
  const at = snap(bars, tick, step);
  return Math.max(0, Math.min(at, end - 1));
}
