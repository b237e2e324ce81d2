import { afterEach, describe, expect, it } from 'vitest';
import { demoShow } from '../../core/demo';
import type { SongNights } from '../../core/nights';
import { songsOfSet } from '../../core/show';
import { tonightOf, type ShowTonight } from '../../core/tonight';
import { NIGHTS, forgetNights, nightsOf, playSetNights, stopNights, useNights, type NightsThread } from './nights';

const show = tonightOf(demoShow());
const songs = songsOfSet(show);

/** A thread that answers at once, and notes what it was asked. */
function thread(asked: string[], fails?: string): NightsThread {
  return {
    show: () => undefined,
    nights: (songId, seed, from, to): Promise<SongNights> => {
      asked.push(songId);
      if (fails !== undefined) return Promise.reject(new Error(fails));
      const missed = from === 0 ? [3] : [];
      return Promise.resolve({
        songId,
        seed,
        from,
        to,
        missed,
        cues: { c: { landed: to - from, misses: [], spread: {} } },
      });
    },
  };
}

const played = (of: ShowTonight): number =>
  songsOfSet(of).filter((song) => nightsOf(useNights.getState(), of, song)).length;

afterEach(forgetNights);

describe('nights of the set', () => {
  it('are played song by song on all threads, and joined', async () => {
    const asked: string[] = [];
    await playSetNights(show, [thread(asked), thread(asked)]);
    expect(played(show)).toBe(songs.length);
    expect(new Set(asked)).toEqual(new Set(songs.map((s) => s.id)));
    const one = nightsOf(useNights.getState(), show, songs[0]!)!;
    expect([one.from, one.to, one.missed]).toEqual([0, NIGHTS, [3]]);
    expect(one.cues['c']!.landed).toBe(NIGHTS);
    expect(useNights.getState().running).toBeNull();
  });

  it('are played again only of songs that changed', async () => {
    await playSetNights(show, [thread([])]);
    const [first, ...others] = show.songs;
    const edited = tonightOf({ ...show, songs: [{ ...first!, cues: first!.cues.slice(1) }, ...others] });
    expect(played(edited)).toBe(songs.length - 1);
    const asked: string[] = [];
    await playSetNights(edited, [thread(asked)]);
    expect(new Set(asked)).toEqual(new Set([first!.id]));
    // What units take changes every song.
    expect(played(tonightOf({ ...edited, margin: 9 }))).toBe(0);
  });

  it('add nothing once they are stopped', async () => {
    const asked: string[] = [];
    const run = playSetNights(show, [thread(asked)]);
    stopNights();
    await run;
    expect(asked).toHaveLength(1);
    expect(played(show)).toBe(0);
    expect(useNights.getState().running).toBeNull();
  });

  it('say why they broke off', async () => {
    await playSetNights(show, [thread([], 'out of memory')]);
    expect(useNights.getState()).toMatchObject({ running: null, trouble: 'out of memory' });
  });
});
