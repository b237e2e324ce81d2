import { describe, expect, it } from 'vitest';
import { clockPulses } from '../compile';
import { soundLine } from '../sound';
import { LIMITS } from './limits';
import { atSpeed, songAsPlayed, withoutEnd } from './speed';
import { newSong } from './builders';
import { microsAt, songTime } from './songTime';
import type { Song } from './schema';

const song: Song = {
  ...newSong('s', 'S', { bars: 16 }),
  tempo: [
    { id: 'a', at: 0, bpm: 90, beat: 1, rampTo: 120 },
    { id: 'b', at: 3840 * 4, bpm: 70, beat: 1.5, rampTo: null },
  ] as unknown as Song['tempo'],
  tracks: [{ id: 't', at: 960, offset: 300 }] as unknown as Song['tracks'],
  preRoll: 2000,
};

describe('a song at another speed', () => {
  it('takes every place in the same proportion of time, over steps and ramps', () => {
    const [written, slow] = [songTime(song), songTime(atSpeed(song, 0.8))];
    for (const at of [0, 100, 3840, 9000, 15_360, 20_000, 61_440]) {
      expect(microsAt(slow, at) * 0.8).toBeCloseTo(microsAt(written, at), 3);
    }
  });

  it('begins its recordings at the same beat, and keeps what is counted in milliseconds', () => {
    const slow = atSpeed(song, 0.5);
    expect(slow.tracks[0]).toMatchObject({ at: 960, offset: 600 });
    expect(slow.preRoll).toBe(2000);
    expect(slow.cues).toBe(song.cues);
  });

  it('is itself as written, and made once for each speed', () => {
    expect(atSpeed(song, 1)).toBe(song);
    expect(atSpeed(song, 0.7)).toBe(atSpeed(song, 0.7));
    expect(atSpeed(song, 0.7)).not.toBe(atSpeed(song, 0.6));
    // Songs that share their tempos share them at a speed too: nothing is thought to have moved.
    expect(atSpeed({ ...song, notes: 'x' }, 0.7).tempo).toBe(atSpeed(song, 0.7).tempo);
  });
});

describe('a song without an end', () => {
  const open: Song = { ...newSong('s', 'Vamp', { bpm: 120, bars: 8 }), open: true };

  it('is played for half an hour more, the same each time that it is asked for', () => {
    const played = songAsPlayed(open, { speed: 1, outside: null });
    // Bars of two seconds.
    expect(played.bars).toBe(8 + 900);
    expect(songAsPlayed(open, { speed: 1, outside: null })).toBe(played);
    expect(withoutEnd({ ...open, open: false }).bars).toBe(8);
    expect(soundLine(played, 0).sounds.filter((x) => x.kind === 'click').length).toBeGreaterThan(3600);
  });

  it('is no longer than a song may be, nor than the clock that it sends has pulses for', () => {
    const fast: Song = { ...open, tempo: [{ at: 0, bpm: 100_000, beat: 1, rampTo: null }] };
    expect(withoutEnd(fast).bars).toBe(LIMITS.bars);
    const clocked = withoutEnd({ ...fast, clocks: [{ id: 'c', portId: 'p' }] });
    expect(clockPulses(clocked)).toBeLessThanOrEqual(LIMITS.clockPulses);
    expect(clocked.bars).toBeGreaterThan(2000);
  });
});
