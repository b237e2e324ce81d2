import type { Seconds } from '../core/time';

const two = (n: number): string => String(n).padStart(2, '0');

/** A length of time as a set list writes it: 3:07, or 1:02:05. */
export function durationWords(exact: Seconds): string {
  const seconds = Math.round(exact);
  const minutes = Math.floor(seconds / 60);
  const rest = two(seconds % 60);
  return minutes < 60 ? `${minutes}:${rest}` : `${Math.floor(minutes / 60)}:${two(minutes % 60)}:${rest}`;
}
