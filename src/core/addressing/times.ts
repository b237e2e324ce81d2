import { z } from 'zod';
import type { Millis } from '../time';
import type { Deep } from './readonly';

/** The most trials of a measured time that are kept. */
export const TRIAL_LIMIT = 100;

const millis = z.number().min(0).max(60000);

/**
 * A time that varies, in milliseconds: what it is usually, and what it is at the worst. `worst` is null where only
 * one figure is known; then `worstOf` allows for some more.
 */
export const timeSchema = z.strictObject({
  typical: millis,
  worst: millis.nullable(),
  /** Where the figures are from: a guess, somebody who typed them, or trials. */
  source: z.enum(['guess', 'typed', 'measured']),
  /** What was measured, trial by trial. */
  trials: z.array(millis).max(TRIAL_LIMIT),
  /** The day it was measured or typed, as 2026-12-01; null where nobody knows. */
  date: z
    .string()
    .regex(/^\d{4}-\d{2}-\d{2}$/)
    .nullable(),
});

export type Time = Deep<z.infer<typeof timeSchema>>;

export type TimeSource = Time['source'];

/** What a unit takes time for; `thru` is what passing a message on takes beside the message's own length. */
export const TIMED = ['recall', 'settle', 'variant', 'control', 'thru'] as const;

export type TimedThing = (typeof TIMED)[number];

/** Where only one figure is known, the worst is this much more: 2 ms, or a tenth if that is more (docs/timing.md). */
const SPARE: Millis = 2;
const SPARE_SHARE = 0.1;

/** The time that is allowed for, in milliseconds. */
export const worstOf = ({ typical, worst }: Pick<Time, 'typical' | 'worst'>): Millis =>
  worst ?? typical + Math.max(SPARE, typical * SPARE_SHARE);

/** The share of the way from typical to worst that a time may be below its typical one, where nobody has measured it. */
const BELOW_SHARE = 0.25;

/** The shortest time that is reckoned with, in milliseconds: the shortest trial, or a little less than is typical. */
export const soonestOf = (time: Pick<Time, 'typical' | 'worst' | 'trials'>): Millis =>
  time.trials.length > 0
    ? Math.min(time.typical, ...time.trials)
    : Math.max(0, time.typical - (worstOf(time) - time.typical) * BELOW_SHARE);

/** A time of which one figure is known, and that is a guess. */
export const guess = (typical: Millis): Time => ({ typical, worst: null, source: 'guess', trials: [], date: null });

/** A time that never varies. */
export const exactly = (millis: Millis): Time => ({ ...guess(millis), worst: millis });

/** A time that somebody typed: one figure, or two. */
export const typed = (typical: Millis, worst: Millis | null, date: string | null): Time => ({
  typical,
  worst,
  source: 'typed',
  trials: [],
  date,
});

const middle = (sorted: readonly Millis[]): Millis => {
  const half = sorted.length >> 1;
  return sorted.length % 2 === 1 ? sorted[half]! : (sorted[half - 1]! + sorted[half]!) / 2;
};

const tenths = (millis: Millis): Millis => Math.round(millis * 10) / 10;

/**
 * A time by its trials, to a tenth of a millisecond: typical is their median, worst the longest of them, and never less than 1 ms more than
 * typical: a handful of trials has not seen the worst. Throws where there are none.
 */
export function measured(trials: readonly Millis[], date: string | null): Time {
  if (trials.length === 0) throw new Error('a time is measured by at least one trial');
  const sorted = [...trials].map(tenths).sort((a, b) => a - b);
  const typical = tenths(middle(sorted));
  const worst = Math.min(60000, Math.max(sorted.at(-1)!, typical + 1));
  const kept = trials.map(tenths).slice(-TRIAL_LIMIT);
  return { typical, worst, source: 'measured', trials: kept, date };
}

/** What is wrong with a time that was typed or read: its worst figure may not be below its typical one. */
export const isWorstBelow = ({ typical, worst }: Time): boolean => worst !== null && worst < typical;

/** Times of a unit from plain figures in milliseconds, made into times by `as`. */
export const timesFrom = (
  figures: Readonly<Record<Exclude<TimedThing, 'thru'>, Millis>>,
  as: (millis: Millis) => Time = guess,
): Readonly<Record<TimedThing, Time>> => ({
  recall: as(figures.recall),
  settle: as(figures.settle),
  variant: as(figures.variant),
  control: as(figures.control),
  thru: { ...exactly(0), source: 'guess' },
});

/** A time as it is typed and shown, in milliseconds: "180", or "180-210" where both figures are known. */
export const timeText = ({ typical, worst }: Pick<Time, 'typical' | 'worst'>): string =>
  worst === null ? String(typical) : `${typical}-${worst}`;

/** Reads "180", "180-210", "180 – 210 ms" or "180,5"; null where it is none of these, 'below' where the worst is below the typical. */
export function readTime(text: string, date: string | null): Time | 'below' | null {
  const figure = String.raw`(\d+(?:[.,]\d+)?)`;
  const found = new RegExp(String.raw`^\s*${figure}\s*(?:ms)?\s*(?:(?:-|–|\.\.|to)\s*${figure}\s*(?:ms)?)?\s*$`).exec(
    text,
  );
  if (!found) return null;
  const [typical, worst] = [found[1]!, found[2]].map((t) => (t === undefined ? null : Number(t.replace(',', '.'))));
  if (typical === null || typical === undefined || typical > 60000 || (worst ?? 0) > 60000) return null;
  if (worst !== null && worst !== undefined && worst < typical) return 'below';
  return typed(typical, worst ?? null, date);
}
