import type { Call } from '../show';
import type { ClickLevel } from './soundLine';

/** A tone that begins with its first sample at full height, so that its start can be told to the sample. */
function struck(rate: number, hertz: number, seconds: number, level: number): Float32Array {
  const length = Math.ceil(seconds * rate);
  const samples = new Float32Array(length);
  for (let i = 0; i < length; i++) {
    const t = i / rate;
    samples[i] = level * Math.cos(2 * Math.PI * hertz * t) * Math.exp((-5 * t) / seconds);
  }
  return samples;
}

const CLICKS: Readonly<Record<ClickLevel, { readonly hertz: number; readonly level: number }>> = {
  bar: { hertz: 1760, level: 0.9 },
  beat: { hertz: 1174.66, level: 0.65 },
  part: { hertz: 880, level: 0.35 },
};

/** A click as samples at a rate. */
export const clickWave = (level: ClickLevel, rate: number): Float32Array =>
  struck(rate, CLICKS[level].hertz, 0.03, CLICKS[level].level);

/** Of each pattern, its tones: after how many seconds, and how high. */
const PATTERNS: Readonly<Record<Call['pattern'], readonly (readonly [seconds: number, hertz: number])[]>> = {
  rise: [
    [0, 440],
    [0.16, 659.26],
  ],
  fall: [
    [0, 659.26],
    [0.16, 440],
  ],
  twice: [
    [0, 523.25],
    [0.2, 523.25],
  ],
  thrice: [
    [0, 587.33],
    [0.15, 587.33],
    [0.3, 587.33],
  ],
};

/** A call's pattern of tones as samples at a rate. */
export function callWave(pattern: Call['pattern'], rate: number): Float32Array {
  const tones = PATTERNS[pattern].map(([after, hertz]) => ({
    from: Math.round(after * rate),
    samples: struck(rate, hertz, 0.14, 0.6),
  }));
  const whole = new Float32Array(Math.max(...tones.map((t) => t.from + t.samples.length)));
  for (const { from, samples } of tones) for (const [i, s] of samples.entries()) whole[from + i] = whole[from + i]! + s;
  return whole;
}
