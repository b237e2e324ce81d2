import type { Bytes } from '../../core/midi';
import type { Micros } from '../../core/time';

/** A message that is sent again and again, until the unit has learnt it or somebody stops it. */
export interface Lesson {
  readonly unitId: string;
  readonly messages: readonly Bytes[];
}

/** A lesson under way. */
export interface Teaching extends Lesson {
  readonly sent: number;
  /** What the unit took in; null while it has not. */
  readonly learnt: Bytes | null;
  readonly next: Micros;
}

/** A lesson is repeated this often. */
const EVERY: Micros = 400_000;

export const startLesson = (lesson: Lesson, now: Micros): Teaching => ({
  ...lesson,
  sent: 0,
  learnt: null,
  next: now,
});

/** Where a lesson is at a time, and what is sent now. */
export function teachOn(
  teaching: Teaching,
  now: Micros,
): { readonly teaching: Teaching; readonly messages: readonly Bytes[] } {
  if (teaching.learnt !== null || now < teaching.next) return { teaching, messages: [] };
  return { teaching: { ...teaching, sent: teaching.sent + 1, next: now + EVERY }, messages: teaching.messages };
}

export const learnt = (teaching: Teaching, bytes: Bytes): Teaching => ({ ...teaching, learnt: bytes });
