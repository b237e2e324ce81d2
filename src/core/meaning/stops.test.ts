import { describe, expect, it } from 'vitest';
import { demoShow } from '../demo';
import { actionCue, messageCue, toneCue, type Cue, type Show, type Song } from '../show';
import { stopsOf } from './stops';

const show = demoShow();
const base = show.songs[0]!;
const withCues = (cues: readonly Cue[]): { show: Show; song: Song } => {
  const song = { ...base, cues, sweeps: [] };
  return { show: { ...show, songs: [song, ...show.songs.slice(1)] }, song };
};
const stopped = (cues: readonly Cue[]): unknown => {
  const { show: s, song } = withCues(cues);
  return stopsOf(s, song).map((stop) => [stop.at, ...stop.cueIds]);
};
const tone = show.tones[0]!.id;
const value = (id: string, at: number): Cue =>
  actionCue(id, at, { kind: 'control', unitId: 'tarn', controlId: 'mix', value: 40 });

describe('where a song changes', () => {
  it('is its start, and every place with a tone, a value, a message', () => {
    expect(stopped([toneCue('a', 3840, tone), value('b', 7680), messageCue('c', 9600, 'tarn', 'b2147f')])).toEqual([
      [0],
      [3840, 'a'],
      [7680, 'b'],
      [9600, 'c'],
    ]);
  });

  it('is one place where several stand on it', () => {
    expect(stopped([toneCue('a', 0, tone), value('b', 0), value('c', 3840)])).toEqual([
      [0, 'a', 'b'],
      [3840, 'c'],
    ]);
  });

  it('is not what is muted', () => {
    expect(stopped([{ ...value('a', 3840), muted: true }])).toEqual([[0]]);
  });
});
