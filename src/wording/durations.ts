import type { Seconds } from '../core/time';

const two = (n: number): string => String(n).padStart(2, '0');

/** A time of day from minutes after midnight: 20:30. Past midnight it goes on from 0:00. */
export function clockWords(minutes: number): string {
  const whole = ((Math.round(minutes) % 1440) + 1440) % 1440;
  return `${Math.floor(whole / 60)}:${two(whole % 60)}`;
}

const CLOCK = /^\s*(\d{1,2})\s*[:.h]\s*(\d{2})\s*$/;

/** Minutes after midnight of a time of day that somebody typed, "20:30"; undefined where it is none. */
export function readClock(text: string): number | undefined {
  const [, hours, minutes] = (CLOCK.exec(text) ?? []).map(Number);
  return hours !== undefined && hours < 24 && minutes! < 60 ? hours * 60 + minutes! : undefined;
}

/** A length of time as a set list writes it: 3:07, or 1:02:05. */
export function durationWords(exact: Seconds): string {
  const seconds = Math.round(exact);
  const minutes = Math.floor(seconds / 60);
  const rest = two(seconds % 60);
  return minutes < 60 ? `${minutes}:${rest}` : `${Math.floor(minutes / 60)}:${two(minutes % 60)}:${rest}`;
}
