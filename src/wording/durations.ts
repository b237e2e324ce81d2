export { minutesAndSeconds as durationWords, timeOfDay as clockWords } from '../core/sheets';

const CLOCK = /^\s*(\d{1,2})\s*[:.h]\s*(\d{2})\s*$/;

/** Minutes after midnight of a time of day that somebody typed, "20:30"; undefined where it is none. */
export function readClock(text: string): number | undefined {
  const [, hours, minutes] = (CLOCK.exec(text) ?? []).map(Number);
  return hours !== undefined && hours < 24 && minutes! < 60 ? hours * 60 + minutes! : undefined;
}

/** Milliseconds, with a tenth where there are few. */
export const millisWords = (millis: number): string => `${millis >= 10 ? millis.toFixed(0) : millis.toFixed(1)} ms`;
