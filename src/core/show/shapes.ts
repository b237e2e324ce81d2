import { z } from 'zod';
import { LIMITS, type Range } from './limits';

/** Shapes that all of the show's schema is made of. */
export const id = z.string().min(1).max(64);
export const title = z.string().min(1).max(LIMITS.title);
export const notes = z.string().max(LIMITS.notes);
/** A number from the low to the high end of a range, both included. */
export const within = ([low, high]: Range) => z.number().min(low).max(high);

/** What a reaction or a switch can have the session do. */
export const SESSION_ACTS = [
  'play',
  'stop',
  'play-or-stop',
  'next-change',
  'previous-change',
  'next-song',
  'previous-song',
  'choose-next',
  'choose-previous',
  'start-chosen',
  'back',
  'interlude',
  'panic',
] as const;
export const sessionActSchema = z.enum(SESSION_ACTS);

/** What is heard goes out by its source, each with its outputs and its level: these, and the stems of a show by their ids. */
export const SOURCES = ['click', 'calls', 'backing', 'guide', 'samples'] as const;
export type Source = (typeof SOURCES)[number];

/** A source that is turned on or off. */
export const turnSchema = z.enum(['flip', 'on', 'off']);
export type Turn = z.infer<typeof turnSchema>;

/** Colours that stand for something, beside a pattern or a name: what each means, the show says. */
export const COLOURS = ['sea', 'amber', 'plum', 'moss', 'rose', 'slate', 'sand', 'rust'] as const;
export type ColourName = (typeof COLOURS)[number];
export const colourSchema = z.enum(COLOURS).nullable();
