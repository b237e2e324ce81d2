import { factorOf } from './mixer';
import { callWave, clickWave, wordOf, type ClickLevel, type Sound, type SoundLine } from '../../core/sound';

/** Decoded sounds by their id, or words by their text. */
export type Buffers = ReadonlyMap<string, AudioBuffer>;

/** What sounds are made of: recordings, and what the voice said. */
export interface Material {
  readonly recordings: Buffers;
  readonly words: Buffers;
}

/** Everything is decoded and rendered at this rate. */
export const RATE = 48_000;

/** Longest recording that is kept decoded: at 15 minutes it takes some 350 MB. */
export const LONGEST_SECONDS = 15 * 60;

let live: AudioContext | null | undefined;

/** The context that is heard, made when it is first wanted; null where the browser has none to give. */
export function liveContext(): AudioContext | null {
  if (live === undefined) {
    try {
      live = new AudioContext({ sampleRate: RATE, latencyHint: 'interactive' });
    } catch {
      live = null;
    }
  }
  return live;
}

/** Decodes a sound file's bytes, which are left as they are. Throws where the browser cannot. */
export const decode = (bytes: ArrayBuffer): Promise<AudioBuffer> =>
  new OfflineAudioContext(1, 1, RATE).decodeAudioData(bytes.slice(0));

/** How long a sound file plays, in seconds, without decoding it; null where the browser cannot tell. */
export function playingTime(file: Blob): Promise<number | null> {
  const url = URL.createObjectURL(file);
  const element = new Audio();
  return new Promise<number | null>((resolve) => {
    element.preload = 'metadata';
    element.addEventListener('loadedmetadata', () =>
      resolve(Number.isFinite(element.duration) ? element.duration : null),
    );
    element.addEventListener('error', () => resolve(null));
    element.src = url;
  }).finally(() => URL.revokeObjectURL(url));
}

const waves = new Map<string, AudioBuffer>();

/** A wave of the core's as a buffer, made once. */
function waveBuffer(key: string, make: (rate: number) => Float32Array): AudioBuffer {
  let buffer = waves.get(key);
  if (!buffer) {
    const samples = make(RATE);
    buffer = new AudioBuffer({ length: samples.length, sampleRate: RATE, numberOfChannels: 1 });
    buffer.getChannelData(0).set(samples);
    waves.set(key, buffer);
  }
  return buffer;
}

/** The samples of a sound, or undefined for a recording that is not there. */
function bufferOf(sound: Sound, { recordings, words }: Material): AudioBuffer | undefined {
  const click = (level: ClickLevel): AudioBuffer => waveBuffer(`click ${level}`, (rate) => clickWave(level, rate));
  if (sound.kind === 'click') return click(sound.level);
  if (sound.kind === 'track') return recordings.get(sound.audioId);
  const word = words.get(wordOf(sound));
  if (sound.kind === 'count') return word ?? click(sound.beat === 1 ? 'bar' : 'beat');
  const { call } = sound;
  const own = call.how === 'sound' && call.audioId !== null ? recordings.get(call.audioId) : undefined;
  return word ?? own ?? waveBuffer(`call ${call.pattern}`, (rate) => callWave(call.pattern, rate));
}

/**
 * Puts a sound on a context at a time in seconds, to the sample. Where that time is past, a
 * recording is joined where it would be by now, and anything else is left out.
 */
export function putSound(
  context: BaseAudioContext,
  out: AudioNode,
  sound: Sound,
  at: number,
  material: Material,
): AudioScheduledSourceNode | null {
  const buffer = bufferOf(sound, material);
  const late = Math.max(0, context.currentTime - at);
  if (!buffer || (late > 0 && sound.kind !== 'track')) return null;
  const skip = (sound.kind === 'track' ? sound.skip : 0) + late;
  if (skip >= buffer.duration) return null;
  const length = sound.kind === 'track' && sound.until !== undefined ? (sound.until - sound.at) / 1e6 : undefined;
  const source = new AudioBufferSourceNode(context, { buffer });
  const gain = new GainNode(context, { gain: factorOf(sound.gain) });
  source.connect(gain).connect(out);
  source.start(Math.round((at + late) * RATE) / RATE, skip);
  if (length !== undefined) source.stop(at + length);
  return source;
}

/**
 * Plays a recording slower or faster at its own pitch, as the browser's media player does it: from
 * about a time on, which is less exact than what is put on a context. Gives what ends it.
 */
export function playStretched(
  context: AudioContext,
  out: AudioNode,
  sound: Extract<Sound, { kind: 'track' }>,
  file: Blob,
  { at, speed }: { readonly at: number; readonly speed: number },
): () => void {
  const url = URL.createObjectURL(file);
  const element = new Audio(url);
  element.preservesPitch = true;
  element.playbackRate = speed;
  const source = context.createMediaElementSource(element);
  source.connect(new GainNode(context, { gain: factorOf(sound.gain) })).connect(out);
  const begin = (): void => {
    const late = Math.max(0, context.currentTime - at);
    element.currentTime = (sound.skip + late) * speed;
    // A browser that will not play it says why in its own console; the song goes on.
    void element.play().catch(() => undefined);
  };
  const timers = [setTimeout(begin, Math.max(0, (at - context.currentTime) * 1000))];
  if (sound.until !== undefined) {
    const end = at + (sound.until - sound.at) / 1e6;
    timers.push(setTimeout(() => element.pause(), Math.max(0, (end - context.currentTime) * 1000)));
  }
  return () => {
    for (const timer of timers) clearTimeout(timer);
    element.pause();
    source.disconnect();
    URL.revokeObjectURL(url);
  };
}

/** A sound line as one stereo recording that begins at `line.start`, until a song time in microseconds. */
export async function renderSounds(line: SoundLine, end: number, material: Material): Promise<AudioBuffer> {
  const length = Math.max(1, Math.ceil(((end - line.start) / 1e6) * RATE));
  const context = new OfflineAudioContext(2, length, RATE);
  for (const sound of line.sounds) {
    putSound(context, context.destination, sound, (sound.at - line.start) / 1e6, material);
  }
  return context.startRendering();
}
