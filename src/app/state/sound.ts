import { create } from 'zustand';
import toWav from 'audiobuffer-to-wav';
import { fileName } from '../../core/formats/fileName';
import { soundLine, wordsOf } from '../../core/sound';
import { LIMITS, microsAt, setOf, songTime, soundsOf, type Audio, type Show, type Song } from '../../core/show';
import { LONGEST_SECONDS, decode, playingTime, renderSounds, type Buffers } from '../adapters/audio';
import { download } from '../adapters/download';
import { peaksInWorker } from '../adapters/workers';
import { shelf } from '../persistence/db';
import { keepSound, loadSound } from '../persistence/sounds';
import { readyWords, spokenWords, useVoice } from './words';
import { said } from '../../wording';

/** What is known here of the show's sounds: pictures by id, and whose bytes this browser has not. */
interface SoundState {
  readonly peaks: Readonly<Record<string, Uint8Array>>;
  readonly missing: readonly string[];
}

export const useSounds = create<SoundState>(() => ({ peaks: {}, missing: [] }));

const buffers = new Map<string, AudioBuffer>();

/** What is decoded so far, by id. */
export const decodedSounds: Buffers = buffers;

/** Fetches the pictures of a song's recordings. */
export async function loadPeaks(show: Show, song: Song): Promise<void> {
  for (const id of soundsOf(song)) {
    if (useSounds.getState().peaks[id]) continue;
    const row = await loadSound(shelf, show.id, id);
    if (row) useSounds.setState((s) => ({ peaks: { ...s.peaks, [id]: row.peaks } }));
    else if (!useSounds.getState().missing.includes(id)) useSounds.setState((s) => ({ missing: [...s.missing, id] }));
  }
}

/** Decodes what a song needs to be heard, and has its words said. What is not here, or will not decode, is left out and said beside the track. */
export async function readySounds(show: Show, song: Song): Promise<void> {
  const said = readyWords(song);
  for (const id of soundsOf(song)) await readySound(show.id, id);
  // They are there already, but for what was just typed: words that take longer are heard from when they are there.
  await Promise.race([said, new Promise((resolve) => setTimeout(resolve, WORDS_MILLIS))]);
}

/** So long a song that is to play waits for its words. */
const WORDS_MILLIS = 300;

/** Decodes one sound; undefined where it is not here, or will not decode. */
export async function readySound(showId: string, id: string): Promise<AudioBuffer | undefined> {
  const known = buffers.get(id);
  if (known) return known;
  const row = await loadSound(shelf, showId, id);
  if (!row) return undefined;
  try {
    const buffer = await decode(row.bytes);
    buffers.set(id, buffer);
    return buffer;
  } catch {
    useSounds.setState((s) => ({ missing: [...new Set([...s.missing, id])] }));
    return undefined;
  }
}

/** Decodes what reactions play, so that it sounds at once when it is pressed. */
export async function readySamples({ id, reactions }: Show): Promise<void> {
  for (const { does } of reactions) if (does.kind === 'sample') await readySound(id, does.audioId);
}

export type Taken = { readonly audio: Audio } | { readonly problem: string };

/** Takes a sound file in: how long it plays, its picture, its bytes on the shelf. `onProgress` hears words for how far it is. */
export async function takeSound(
  showId: string,
  id: string,
  file: File,
  onProgress: (words: string) => void,
): Promise<Taken> {
  const name = file.name.replace(/\.[^.]*$/, '').slice(0, LIMITS.title) || 'Sound';
  if (file.size === 0) return { problem: `"${file.name}" is empty.` };
  onProgress('Reading …');
  const seconds = await playingTime(file);
  if (seconds !== null && seconds > LONGEST_SECONDS) {
    const minutes = Math.round(seconds / 60);
    return {
      problem: `"${file.name}" plays ${minutes} minutes; a recording for a song may play ${LONGEST_SECONDS / 60}. Cut it, one file a song.`,
    };
  }
  const bytes = await file.arrayBuffer();
  onProgress('Decoding …');
  let buffer: AudioBuffer;
  try {
    buffer = await decode(bytes);
  } catch {
    return {
      problem: `"${file.name}" cannot be decoded: expected WAV, MP3, OGG or FLAC. Nothing in the song has changed.`,
    };
  }
  let peaks: Uint8Array;
  try {
    peaks = await peaksOf(buffer, (share) => onProgress(`Drawing, ${Math.round(share * 100)} %`));
  } catch {
    return {
      problem: `"${file.name}" was not taken in: a part of the application could not be loaded. Check that the server runs, then try again.`,
    };
  }
  const type = file.type.slice(0, 80) || 'audio/unknown';
  try {
    await keepSound(shelf, { showId, id, type, bytes, peaks });
  } catch {
    return { problem: `"${file.name}" does not fit on this browser's shelf any more: make room, then try again.` };
  }
  buffers.set(id, buffer);
  useSounds.setState((s) => ({ peaks: { ...s.peaks, [id]: peaks }, missing: s.missing.filter((m) => m !== id) }));
  return { audio: { id, name, type, length: buffer.duration, size: file.size } };
}

const peaksOf = (buffer: AudioBuffer, onProgress: (share: number) => void = () => undefined): Promise<Uint8Array> =>
  peaksInWorker(
    Array.from({ length: buffer.numberOfChannels }, (_, i) => buffer.getChannelData(i)),
    buffer.sampleRate,
    onProgress,
  );

/** Puts the sounds that came with a show on the shelf. Gives the names of those that would not decode or do not fit. */
export async function keepSounds(
  show: Show,
  showId: string,
  sounds: ReadonlyMap<string, Uint8Array<ArrayBuffer>>,
): Promise<string[]> {
  const lost: string[] = [];
  for (const { id, name, type } of show.audio) {
    const found = sounds.get(id);
    if (!found) continue;
    try {
      const bytes = found.slice().buffer;
      const peaks = await peaksOf(await decode(bytes));
      await keepSound(shelf, { showId, id, type, bytes, peaks });
    } catch {
      lost.push(name);
    }
  }
  return lost;
}

/** Renders click, calls and recordings of a song from its start to its end, and hands them on as a WAV file. */
export async function exportSounds(show: Show, song: Song): Promise<string> {
  const line = soundLine(song, 0, new Set(setOf(show).missing));
  if (line.sounds.length === 0) return said.nothingHeard();
  const time = songTime(song);
  await readySounds(show, song);
  await readyWords(song);
  const buffer = await renderSounds(line, microsAt(time, time.end), { recordings: buffers, words: spokenWords });
  const name = fileName(`${song.title} click`, 'wav');
  download(name, new Uint8Array(toWav(buffer)), 'audio/wav');
  const unsaid = useVoice.getState().failed && wordsOf(line.sounds).some((word) => !spokenWords.has(word));
  const lead = ((0 - line.start) / 1e6).toFixed(3);
  return [said.soundExported(name, lead), unsaid ? said.voiceMissing() : ''].join(' ').trim();
}
