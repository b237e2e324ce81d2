import { timeOfDay } from '../core/sheets';

export { minutesAndSeconds as durationWords, timeOfDay as clockWords } from '../core/sheets';

const CLOCK = /^\s*(\d{1,2})\s*[:.h]\s*(\d{2})\s*$/;

/** Minutes after midnight of a time of day that somebody typed, "20:30"; undefined where it is none. */
export function readClock(text: string): number | undefined {
  const [, hours, minutes] = (CLOCK.exec(text) ?? []).map(Number);
  return hours !== undefined && hours < 24 && minutes! < 60 ? hours * 60 + minutes! : undefined;
}

/** How a song is counted in, by its bars. */
export const countInWords = (bars: number): string => (bars === 0 ? 'none' : bars === 1 ? '1 bar' : `${bars} bars`);

/** What a list of what was played is called: as somebody named it, else by its day; a show also by its hour. */
export function listTitle(list: {
  readonly kind: 'show' | 'rehearsal';
  readonly name: string;
  readonly begun: number;
}) {
  if (list.name !== '') return list.name;
  const at = new Date(list.begun);
  const day = `${at.getDate()} ${MONTHS[at.getMonth()]}`;
  if (list.kind === 'rehearsal') return `Rehearsal of ${day}`;
  return `Show of ${day}, ${timeOfDay(at.getHours() * 60 + at.getMinutes())}`;
}

const MONTHS = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
] as const;

/** How long ago something was, in milliseconds. */
export function agoWords(millis: number): string {
  const seconds = Math.max(0, Math.round(millis / 1000));
  if (seconds < 90) return `${seconds} s ago`;
  const minutes = Math.round(seconds / 60);
  return minutes < 90 ? `${minutes} min ago` : `${Math.round(minutes / 60)} h ago`;
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

/** How late a change left, and how much more it would have borne; null for "not at all" and for "nobody knows". */
export function lateLeftWords(late: number | null, left: number | null): string {
  if (late === null) return 'not sent: its port took nothing';
  const how = late < 0.05 ? 'left at its time' : `left ${millisWords(late)} late`;
  if (left === null) return `${how}; not proven, so nobody knows how much it bears`;
  return left < 0 ? `${how}: ${millisWords(-left)} too late` : `${how}, ${millisWords(left)} to spare`;
}
