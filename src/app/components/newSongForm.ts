import { z } from 'zod';
import {
  LIMITS,
  RANGES,
  figureIn,
  newSong,
  rangeWords,
  songOfCore,
  startFrom,
  withTempo,
  type Show,
  type Song,
} from '../../core/show';

/** What a beat can be, as the lower figure of a metre. */
const UNITS = [1, 2, 4, 8, 16, 32] as const;
const BEATS = 64;
/** More bars than a song that is typed has; one from a file may have more. */
const BARS = 2000;

/** What a new song begins as: empty, of the core tones, or like the song of an id. */
export const EMPTY_START = 'empty';
export const CORE_START = 'core';

const METRE = /^\s*(\d+)\s*\/\s*(\d+)\s*$/;

const metre = z.string().transform((text, context) => {
  const [, beats, unit] = (METRE.exec(text) ?? []).map(Number);
  const known = UNITS.find((u) => u === unit);
  if (known !== undefined && beats! >= 1 && beats! <= BEATS) return { beats: beats!, unit: known };
  const message = `Metre: beats/unit, as in 7/8, with 1 to ${BEATS} beats of 1 to 32; not "${text}".`;
  context.addIssue({ code: 'custom', message });
  return z.NEVER;
});

const bars = z.string().transform((text, context) => {
  const count = text.trim() === '' ? Number.NaN : Number(text);
  if (Number.isInteger(count) && count >= 1 && count <= BARS) return count;
  context.addIssue({ code: 'custom', message: `Bars: a whole number from 1 to ${BARS}, not "${text}".` });
  return z.NEVER;
});

const bpm = z.string().transform((text, context) => {
  const found = figureIn(RANGES.bpm, text);
  if (found !== undefined) return found;
  const message = `Tempo: ${rangeWords(RANGES.bpm)} quarter notes a minute, not "${text}".`;
  context.addIssue({ code: 'custom', message });
  return z.NEVER;
});

/** What of its frame a new song does not have from where it starts. */
export const framedBy = (start: string): { readonly metre: boolean; readonly bars: boolean } => ({
  metre: start === EMPTY_START || start === CORE_START,
  bars: start === EMPTY_START,
});

/** The form of a new song, from what is typed to what it means. What a start brings along need not be typed. */
export const newSongForm = z
  .object({
    title: z
      .string()
      .trim()
      .min(1, 'Enter a title.')
      .transform((t) => t.slice(0, LIMITS.title)),
    tempo: bpm,
    start: z.string(),
    metre: z.string(),
    bars: z.string(),
  })
  .transform((typed, context) => {
    const asked = framedBy(typed.start);
    const frame = z.object({ metre, bars }).safeParse({
      metre: asked.metre ? typed.metre : '4/4',
      bars: asked.bars ? typed.bars : '1',
    });
    if (frame.success) return { ...typed, ...frame.data };
    for (const { message, path } of frame.error.issues) context.addIssue({ code: 'custom', message, path: [...path] });
    return z.NEVER;
  });

export type NewSongTyped = z.input<typeof newSongForm>;

export const NEW_SONG: NewSongTyped = { title: '', tempo: '120', metre: '4/4', bars: '32', start: EMPTY_START };

/** The song that a form makes. */
export function songOfForm(show: Show, form: z.output<typeof newSongForm>, newId: () => string): Song {
  const { title, tempo, start } = form;
  const pattern = show.songs.find((s) => s.id === start);
  if (pattern) return withTempo(startFrom(pattern, newId(), title, newId), tempo);
  const frame = { bpm: tempo, beats: form.metre.beats, unit: form.metre.unit, bars: form.bars };
  if (start === CORE_START) return songOfCore(show, newId(), title, frame, newId);
  return { ...newSong(newId(), title, frame), opening: show.openingToneId === null ? 'own' : 'show' };
}

/** What a new song can begin as: patterns first. */
export function startsOf(show: Show): { id: string; name: string }[] {
  const songs = [...show.songs].sort((a, b) => Number(b.pattern) - Number(a.pattern));
  return [
    { id: EMPTY_START, name: 'nothing in it' },
    ...(show.core.length > 0 ? [{ id: CORE_START, name: 'the core tones, 8 bars each' }] : []),
    ...songs.map((s) => ({ id: s.id, name: s.pattern ? `pattern: ${s.title}` : `like ${s.title}` })),
  ];
}
