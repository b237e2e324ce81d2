export { minutesAndSeconds as durationWords, timeOfDay as clockWords } from '../core/sheets';

const CLOCK = /^\s*(\d{1,2})\s*[:.h]\s*(\d{2})\s*$/;

/** Minutes after midnight of a time of day that somebody typed, "20:30"; undefined where it is none. */
export function readClock(text: string): number | undefined {
  const [, hours, minutes] = (CLOCK.exec(text) ?? []).map(Number);
  return hours !== undefined && hours < 24 && minutes! < 60 ? hours * 60 + minutes! : undefined;
}

/** Milliseconds, with a tenth where there are few. */
export const millisWords = (millis: number): string => `${millis >= 10 ? millis.toFixed(0) : millis.toFixed(1)} ms`;

/** That messages left late: how many, and by how much at most, in milliseconds. */
export function lateWords({ count, millis }: { readonly count: number; readonly millis: number }): string {
  const by = millis >= 1000 ? `${(millis / 1000).toFixed(1)} s` : millisWords(millis);
  return count === 1
    ? `1 message left ${by} late: this page was busy.`
    : `${count} messages left late, the latest by ${by}: this page was busy.`;
}
