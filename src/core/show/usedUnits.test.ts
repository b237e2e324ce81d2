import { describe, expect, it } from 'vitest';
import { demoShow } from '../demo';
import { newPart, newSong, newTone } from './builders';
import type { Cue, Show } from './schema';
import { unitsInSong } from './usedUnits';

const show = demoShow();
const song = { ...newSong('s', 'S', { bpm: 120, beats: 4, unit: 4, bars: 8 }), opening: 'own' as const };
const used = (of: Show, ...actions: Cue['action'][]) => [
  ...unitsInSong(of, {
    ...song,
    cues: actions.map((action, i) => ({ ...show.songs[0]!.cues[0]!, id: `c${i}`, at: i * 960, action })),
  }),
];

describe('units in a song', () => {
  it('are none of an empty one, and those of what is in it', () => {
    expect(used(show)).toEqual([]);
    expect(used(show, { kind: 'control', unitId: 'tarn', controlId: 'mix', value: 3 })).toEqual(['tarn']);
    expect(used(show, { kind: 'message', unitId: 'harrow', bytes: 'c005' })).toEqual(['harrow']);
    const move = show.moves[0]!;
    expect(used(show, { kind: 'move', moveId: move.id })).toEqual([...new Set(move.steps.map((s) => s.unitId))]);
    expect([...unitsInSong(show, { ...song, opening: 'show' })]).toContain('quillback');
    const sweep = { ...show.songs.flatMap((s) => s.sweeps)[0]!, unitId: 'marram' };
    expect([...unitsInSong(show, { ...song, sweeps: [sweep] })]).toEqual(['marram']);
  });

  it('are also what relay rules call, in circles too', () => {
    const tone = newTone('t', 'T', [newPart('quillback')]);
    const withTone = { ...show, tones: [...show.tones, tone] };
    const cue = { kind: 'tone', toneId: 't', reload: false } as const;
    expect(used(withTone, cue)).toEqual(['quillback', 'oxbow']);
    const back = show.units.map((u) =>
      u.id === 'oxbow'
        ? { ...u, relays: [{ id: 'r', when: { slotId: null, variant: 0 }, toUnitId: 'quillback', toSlotId: 'x' }] }
        : u,
    );
    expect(used({ ...withTone, units: back }, cue)).toEqual(['quillback', 'oxbow']);
  });
});
