import { newSweep, sweepable, type Show, type Song, inOrder } from '../src/core/show';
import { fullShow } from './fullShow';

const BEAT = 960;
const SWEEPS = 2;

/** A show of many songs over one rig of twelve units, each with cues and sweeps, as large as a long season's. */
export function wholeSet(songs: number, cues: number): Show {
  const { show } = fullShow(12, cues, 1, 2);
  const sweeps = sweepable(show);
  const list: Song[] = Array.from({ length: songs }, (_, i) => {
    const { song } = fullShow(12, cues, i + 1, 2);
    return {
      ...song,
      id: `song-${i}`,
      title: `Song ${i}`,
      sweeps: Array.from({ length: SWEEPS }, (_, k) => {
        const { unit, control } = sweeps[(i * SWEEPS + k) % sweeps.length]!;
        const from = (8 + k * 300) * BEAT;
        return newSweep(`sweep-${i}-${k}`, unit, control, from, from + 16 * BEAT);
      }),
    };
  });
  // Tones go by the ids that every seed shares.
  return { ...show, songs: list, ...inOrder(list.map((s) => s.id)) };
}
