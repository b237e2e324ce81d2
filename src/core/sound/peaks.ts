/** Peaks that are kept of a second of sound. */
export const PEAKS_PER_SECOND = 50;

/**
 * The loudest sample of each stretch of a recording, over all its channels, from 0 to 255.
 * `onProgress` hears how far it is, from 0 to 1, now and then.
 */
export function peaksOf(
  channels: readonly Float32Array[],
  rate: number,
  onProgress: (share: number) => void = () => {},
): Uint8Array {
  const length = channels[0]?.length ?? 0;
  const step = rate / PEAKS_PER_SECOND;
  const count = Math.ceil(length / step);
  const peaks = new Uint8Array(count);
  for (let i = 0; i < count; i++) {
    const from = Math.floor(i * step);
    const to = Math.min(length, Math.floor((i + 1) * step));
    let high = 0;
    for (const samples of channels) {
      for (let k = from; k < to; k++) {
        const loud = Math.abs(samples[k]!);
        if (loud > high) high = loud;
      }
    }
    // What is louder than full scale, or no number at all, counts as full.
    peaks[i] = Number.isFinite(high) ? Math.round(Math.min(1, high) * 255) : 255;
    if (i % 1000 === 0) onProgress(i / count);
  }
  onProgress(1);
  return peaks;
}
