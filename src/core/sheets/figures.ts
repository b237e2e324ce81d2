import type { Seconds } from '../time';

const two = (n: number): string => String(n).padStart(2, '0');

/** A length of time as a set list writes it: 3:07, or 1:02:05. */
export function minutesAndSeconds(exact: Seconds): string {
  const seconds = Math.round(exact);
  const minutes = Math.floor(seconds / 60);
  return minutes < 60
    ? `${minutes}:${two(seconds % 60)}`
    : `${Math.floor(minutes / 60)}:${two(minutes % 60)}:${two(seconds % 60)}`;
}

/** A time of day from minutes after midnight: 20:30; past midnight it goes on from 0:00. */
export function timeOfDay(minutes: number): string {
  const whole = ((Math.round(minutes) % 1440) + 1440) % 1440;
  return `${Math.floor(whole / 60)}:${two(whole % 60)}`;
}

/** How numbers are shown: from 0, from 1, or as the unit labels them. */
export const SHEET_COUNTINGS = ['zero', 'one', 'label'] as const;
export type SheetCounting = (typeof SHEET_COUNTINGS)[number];
