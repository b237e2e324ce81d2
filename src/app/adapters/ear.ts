import { clickWave } from '../../core/sound';
import { RATE, liveContext } from './audio';

/** Sound input, as it was heard in the last few seconds. */
export interface Ear {
  /** What came in since a time (of `performance.now`), and its rate. Undefined where that is too long ago. */
  readonly since: (from: number) => { readonly samples: Float32Array; readonly rate: number } | undefined;
  readonly close: () => void;
}

/** At this rate the longest window that the browser keeps is four seconds. */
const EAR_RATE = 8000;
const WINDOW = 32_768;

/** Opens the sound input, without anything that would smooth it. Throws where there is none or it is not allowed. */
export async function openEar(): Promise<Ear> {
  const stream = await navigator.mediaDevices.getUserMedia({
    audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false },
  });
  const context = new AudioContext({ sampleRate: EAR_RATE, latencyHint: 'interactive' });
  const analyser = new AnalyserNode(context, { fftSize: WINDOW });
  context.createMediaStreamSource(stream).connect(analyser);
  return {
    since: (from) => {
      const seconds = (performance.now() - from) / 1000;
      const count = Math.round(seconds * EAR_RATE);
      if (count <= 0 || count > WINDOW) return undefined;
      const all = new Float32Array(WINDOW);
      analyser.getFloatTimeDomainData(all);
      return { samples: all.slice(WINDOW - count), rate: EAR_RATE };
    },
    close: () => {
      for (const track of stream.getTracks()) track.stop();
      void context.close();
    },
  };
}

/** Sounds one beep now; where the browser has no sound, nothing. */
export function beep(): void {
  const context = liveContext();
  if (!context) return;
  void context.resume();
  const samples = clickWave('bar', RATE);
  const buffer = new AudioBuffer({ length: samples.length, sampleRate: RATE, numberOfChannels: 1 });
  buffer.getChannelData(0).set(samples);
  const source = new AudioBufferSourceNode(context, { buffer });
  source.connect(context.destination);
  source.start();
}

/** A recording through the sound input that goes on until it is stopped. */
export interface Recording {
  /** Ends it, and gives it as a file of the browser's own format. */
  readonly stop: (name: string) => Promise<File>;
}

/** Begins to record what comes in. Throws where there is no sound input or it is not allowed. */
export async function record(): Promise<Recording> {
  const stream = await navigator.mediaDevices.getUserMedia({ audio: true });
  const recorder = new MediaRecorder(stream);
  const parts: Blob[] = [];
  recorder.addEventListener('dataavailable', (event) => parts.push(event.data));
  recorder.start();
  return {
    stop: (name) =>
      new Promise((resolve) => {
        recorder.addEventListener('stop', () => {
          for (const track of stream.getTracks()) track.stop();
          const type = recorder.mimeType.split(';')[0] || 'audio/webm';
          resolve(new File(parts, `${name}.${type.split('/')[1] ?? 'webm'}`, { type }));
        });
        recorder.stop();
      }),
  };
}
