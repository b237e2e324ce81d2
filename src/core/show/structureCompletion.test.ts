import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoShow } from '../demo';
import { runs } from '../testing/runs';
import { newSong } from './builders';
import { readStructureLine } from './structure';
import { structureCompletions } from './structureCompletion';

const song = {
  ...newSong('s', 'S', { bars: 64 }),
  sections: [
    { id: 'a', name: 'Haul', bar: 9, call: null },
    { id: 'b', name: 'Coda', bar: 33, call: null },
  ],
};
const ways = (text: string) => structureCompletions(song, text);

describe('lines that a text may become', () => {
  it('are one of each kind, for a place and nothing else', () => {
    expect(ways('17 ')).toEqual([
      '17 tempo 120',
      '17 ramp 120 to 96 until 21',
      '17 = 1',
      '17 7/8',
      '17 Haul',
      '17 6/8',
    ]);
  });

  it('have what is typed at their front', () => {
    expect(ways('41 r')).toEqual(['41 ramp 120 to 96 until 45']);
    expect(ways('41 RAMP 120 TO')).toEqual(['41 ramp 120 to 96 until 45']);
    expect(ways('17 h')).toEqual(['17 Haul']);
    expect(ways('p')).toEqual(['pickup 1', 'pickup 2']);
    expect(ways('call c')).toEqual(['call Coda 2 before 33']);
  });

  it('move a section only where one begins', () => {
    expect(ways('9 m')).toEqual(['9 move to 33']);
    expect(ways('10 m')).toEqual([]);
  });

  it('are none of a place alone, of a bar that is not there, or of what is whole', () => {
    for (const text of ['', '17', '99 ', 'x', '17 tempo 120', '64 ramp 120 to 96']) expect(ways(text)).toEqual([]);
  });

  it('can all be read, in any song, and go on from what is typed', () => {
    const songs = demoShow().songs;
    fc.assert(
      fc.property(
        fc.constantFrom(...songs),
        fc.integer({ min: 0, max: 60 }),
        fc.constantFrom('', 't', 'r', 'm', '=', '7', 'V', 'x'),
        (of, bar, rest) => {
          const text = `${bar} ${rest}`;
          for (const line of structureCompletions(of, text)) {
            expect(line.toLowerCase().startsWith(text.toLowerCase())).toBe(true);
            expect(readStructureLine(of, line).ok).toBe(true);
          }
        },
      ),
      runs(2612, 60),
    );
  });
});
