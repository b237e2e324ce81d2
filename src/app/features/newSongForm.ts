import { z } from 'zod';
import {
  fitText,
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
const UNITS = [1, 2, 4, 8, 16, 32, 64, 128] as const;
const BEATS = 64;
/** More bars than a song that is typed has; one from a file may have more. */
const BARS = 2000;

/** What a new song begins as: empty, of the core tones, or like the song of an id. */
export const EMPTY_START = 'empty';
export const CORE_START = 'core';

const METRE = /^\s*(\d+)\s*\/\s*(\d+)\s*$/;

/** What a field means, or what is wrong with it. */
type Read<T> = { readonly value: T } | { readonly problem: string };

function readMetre(text: string): Read<{ readonly beats: number; readonly unit: (typeof UNITS)[number] }> {
  const [, beats, unit] = (METRE.exec(text) ?? []).map(Number);
  const known = UNITS.find((u) => u === unit);
  if (known !== undefined && beats! >= 1 && beats! <= BEATS) return { value: { beats: beats!, unit: known } };
  return { problem: `Metre: beats/unit, as in 7/8, with 1 to ${BEATS} beats of ${UNITS.join(', ')}; not "${text}".` };
}

/** Of a song without an end nobody knows the bars: it begins with so many. */
const OPEN_BARS = 8;

/** Bars, or null for a song without an end. */
function readBars(text: string): Read<number | null> {
  if (text.trim() === '') return { value: null };
  const bars = Number(text);
  if (Number.isInteger(bars) && bars >= 1 && bars <= BARS) return { value: bars };
  return { problem: `Bars: a whole number from 1 to ${BARS}, or nothing for a song without an end; not "${text}".` };
}

function readTempo(text: string): Read<number> {
  const value = figureIn(RANGES.bpm, text);
  if (value !== undefined) return { value };
  return { problem: `Tempo: ${rangeWords(RANGES.bpm)} quarter notes a minute, not "${text}".` };
}

const readTitle = (text: string): Read<string> => {
  const value = fitText(text, 'title');
  return value === '' ? { problem: 'Enter a title.' } : { value };
};

/** What of its frame a new song does not have from where it starts. */
export const framedBy = (start: string): { readonly metre: boolean; readonly bars: boolean } => ({
  metre: start === EMPTY_START || start === CORE_START,
  bars: start === EMPTY_START,
});

/** The form of a new song, from what is typed to what it means; all that is wrong is said, each at its field. What a start brings along need not be typed. */
export const newSongForm = z
  .object({ title: z.string(), tempo: z.string(), start: z.string(), metre: z.string(), bars: z.string() })
  .transform((typed, context) => {
    const asked = framedBy(typed.start);
    const read = {
      title: readTitle(typed.title),
      tempo: readTempo(typed.tempo),
      metre: readMetre(asked.metre ? typed.metre : '4/4'),
      bars: readBars(asked.bars ? typed.bars : '1'),
    };
    for (const [field, of] of Object.entries(read)) {
      if ('problem' in of) context.addIssue({ code: 'custom', path: [field], message: of.problem });
    }
    const { title, tempo, metre, bars } = read;
    if ('problem' in title || 'problem' in tempo || 'problem' in metre || 'problem' in bars) return z.NEVER;
    return { title: title.value, tempo: tempo.value, start: typed.start, metre: metre.value, bars: bars.value };
  });

export type NewSongTyped = z.input<typeof newSongForm>;

export const NEW_SONG: NewSongTyped = { title: '', tempo: '120', metre: '4/4', bars: '32', start: EMPTY_START };

/** The song that a form makes. */
export function songOfForm(show: Show, form: z.output<typeof newSongForm>, newId: () => string): Song {
  const { title, tempo, start } = form;
  const pattern = show.songs.find((s) => s.id === start);
  if (pattern) return withTempo(startFrom(pattern, newId(), title, newId), tempo);
  const frame = { bpm: tempo, beats: form.metre.beats, unit: form.metre.unit, bars: form.bars ?? OPEN_BARS };
  if (start === CORE_START) return songOfCore(show, newId(), title, frame, newId);
  return {
    ...newSong(newId(), title, frame),
    open: form.bars === null,
    opening: show.openingToneId === null ? 'own' : 'show',
  };
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
