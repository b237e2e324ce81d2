import { worstOf, type Time } from '../core/addressing';

const ms = (millis: number): string => String(Math.round(millis * 10) / 10);

/** Where a time is from and what is allowed for: "guess, 198 at the worst"; "measured 5 times, 2026-12-01". */
export function timeSourceWords(time: Time): string {
  const { source, trials, date, worst } = time;
  const day = date === null ? '' : `, ${date}`;
  const allowed = worst === null ? `, ${ms(worstOf(time))} allowed for` : '';
  if (source === 'measured') return `measured ${trials.length} ${trials.length === 1 ? 'time' : 'times'}${day}`;
  return `${source === 'guess' ? 'a guess' : `typed${day}`}${allowed}`;
}
