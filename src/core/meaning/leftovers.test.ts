import { describe, expect, it } from 'vitest';
import { newPart, newSong, newTone, toneCue, type Show } from '../show';
import { modelerProfile, testShow, testUnit } from '../testing/rigs';
import { leftovers } from './leftovers';

const unit = testUnit('u0', 1, { ...modelerProfile, recallLoads: { variant: true, controls: false } });
const tone = (id: string, part: Parameters<typeof newPart>[1]) => newTone(id, id, [newPart('u0', part)]);
const tones = [
  tone('lead', { variant: 1 }),
  tone('break', {
    variant: 2,
    controls: [
      { controlId: 'delay', value: 1 },
      { controlId: 'mix', value: 30 },
    ],
  }),
  tone('loud', { variant: 3, controls: [{ controlId: 'delay', value: 0 }] }),
];

function left(...ids: string[]): unknown[] {
  const cues = ids.map((id, i) => toneCue(`c${i}`, i * 9600, id));
  const song = { ...newSong('s', 'S', { bars: 32 }), cues };
  const show: Show = { ...testShow([unit]), tones, songs: [song] };
  return leftovers(show, song, `c${ids.length - 1}`).map((l) => [l.controlId, l.value, l.from]);
}

describe('what a tone leaves as it is', () => {
  it('is what an earlier tone set and it does not name, with whose it is', () => {
    expect(left('lead')).toEqual([]);
    expect(left('lead', 'break', 'lead')).toEqual([['delay', 1, 'c1']]);
  });

  it('is not what rests, nor what it sets itself, and names the last that set it', () => {
    // The mix of the break is its rest; the loud tone switches the delay off, which is its rest.
    expect(left('break', 'loud')).toEqual([]);
    expect(left('break', 'loud', 'break', 'lead')).toEqual([['delay', 1, 'c2']]);
  });
});
