import { create } from 'zustand';
import { soundLine, withoutSilence, wordsOf } from '../../core/sound';
import { songsOfSet, type Song } from '../../core/show';
import { RATE, decode, type Buffers } from '../adapters/audio';
import { speakInWorker } from '../adapters/workers';
import { useApp } from './store';

/** Whether the voice failed when it was asked last: tones stand in its place then. */
export const useVoice = create<{ readonly failed: boolean }>(() => ({ failed: false }));

const words = new Map<string, AudioBuffer>();

/** What was said so far, by its text. */
export const spokenWords: Buffers = words;

/** Words that are kept: of an evening's songs, some megabytes. */
const MOST = 600;

/** Words that the voice could not say. */
const unsayable = new Set<string>();

/** What is being said; one voice speaks at a time. */
let speaking: Promise<void> = Promise.resolve();

/** Has all said that a song says in the ears. What is not said in the end is heard as tones. */
export const readyWords = (song: Song): Promise<void> => sayWords(wordsIn(song));

/** What the voice says in a song; the clicks of it are no matter. */
const wordsIn = (song: Song): readonly string[] =>
  wordsOf(soundLine({ ...song, tracks: [], click: { ...song.click, on: false } }, 0).sounds);

/** Has words said that were not said yet. */
export function sayWords(texts: readonly string[]): Promise<void> {
  speaking = speaking.then(() => speak(texts.filter((word) => !words.has(word) && !unsayable.has(word))));
  return speaking;
}

async function speak(texts: readonly string[]): Promise<void> {
  if (texts.length === 0) return;
  let said = 0;
  try {
    await speakInWorker(texts, async (text, wav) => {
      words.set(text, withoutItsSilence(await decode(wav.buffer)));
      said += 1;
      for (const [oldest] of words) if (words.size > MOST) words.delete(oldest);
    });
  } catch {
    // The voice itself did not come, or ended: what it said before that is kept, the rest is tried again.
    useVoice.setState({ failed: true });
    return;
  }
  useVoice.setState({ failed: said === 0 });
  // One that cannot be said is not tried again as long as others can.
  if (said > 0) for (const text of texts) if (!words.has(text)) unsayable.add(text);
}

function withoutItsSilence(said: AudioBuffer): AudioBuffer {
  const samples = withoutSilence(said.getChannelData(0));
  const buffer = new AudioBuffer({ length: Math.max(1, samples.length), sampleRate: RATE, numberOfChannels: 1 });
  buffer.getChannelData(0).set(samples);
  return buffer;
}

/** So long after an edit the words of the set are said: not while somebody types. */
const AFTER_EDIT_MILLIS = 1500;

/** From now on all that the songs of the set say is said before it is wanted: no start waits for it. */
export function followWords(): void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  useApp.subscribe(({ open }, { open: before }) => {
    if (!open || (open.show.songs === before?.show.songs && open.show.sets === before.show.sets)) return;
    clearTimeout(timer);
    timer = setTimeout(() => {
      const { show } = useApp.getState().open ?? {};
      void sayWords(show ? [...new Set(songsOfSet(show).flatMap((song) => wordsIn(song)))] : []);
    }, AFTER_EDIT_MILLIS);
  });
}
