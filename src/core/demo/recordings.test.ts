import { describe, expect, it } from 'vitest';
import { checkShow, setOf, songLength } from '../show';
import { soundLine } from '../sound';
import { demoShow } from './demoShow';
import { withRecordings } from './recordings';

const { show, sounds } = withRecordings(demoShow());
const song = show.songs.find((s) => s.tracks.length > 0)!;
const samples = (id: string): Uint8Array => sounds.get(id)!.subarray(44);
/** The furthest from silence, of the samples between two times in seconds. */
const loudest = (id: string, from: number, to: number): number =>
  samples(id)
    .subarray(Math.round(from * 4000), Math.round(to * 4000))
    .reduce((most, s) => Math.max(most, Math.abs(s - 127.5)), 0);

describe('the recordings of the demo', () => {
  it('are sound files of the size and length that the show says, a few hundred kilobytes in all', () => {
    expect(checkShow(show)).toEqual([]);
    let all = 0;
    for (const { id, size, length } of show.audio) {
      const bytes = sounds.get(id)!;
      const view = new DataView(bytes.buffer);
      expect(bytes.length).toBe(size);
      expect(new TextDecoder().decode(bytes.subarray(0, 4))).toBe('RIFF');
      expect(view.getUint32(4, true)).toBe(size - 8);
      expect(view.getUint32(40, true)).toBe(size - 44);
      expect((size - 44) / view.getUint32(24, true)).toBeCloseTo(length, 2);
      all += size;
    }
    expect([...sounds.keys()]).toEqual(show.audio.map((a) => a.id));
    expect(all).toBeLessThan(700_000);
  });

  it('are heard through the whole song, and the guide at its beginning', () => {
    const length = songLength(song);
    for (const id of ['gull-backing', 'gull-bass']) {
      expect(loudest(id, 0, 1)).toBeGreaterThan(60);
      expect(loudest(id, length - 3, length)).toBeGreaterThan(20);
    }
    expect(loudest('gull-guide', 0, 1)).toBeGreaterThan(60);
    expect(loudest('pier-bell', 0, 0.2)).toBeGreaterThan(40);
  });

  it('strike with the beats of the song: an eighth after the second group all is softer', () => {
    // 132 quarters a minute: an eighth lasts 227 ms; groups of three begin on eighths 0, 3, 6, 9.
    const eighth = 60 / 132 / 2;
    for (const bar of [0, 5]) {
      const at = bar * 11 * eighth + 3 * eighth;
      expect(loudest('gull-guide', at, at + 0.02)).toBeGreaterThan(4 * loudest('gull-guide', at + 0.12, at + 0.2));
      expect(loudest('gull-bass', at, at + 0.1)).toBeGreaterThan(loudest('gull-bass', at - 0.1, at - 0.01));
    }
  });

  it('leave the part of a player out of what is heard until that player is missing', () => {
    const heard = (missing: readonly string[]): readonly string[] =>
      soundLine(song, 0, new Set(missing)).sounds.flatMap((s) => ('audioId' in s ? [s.audioId] : []));
    expect(setOf(show).missing).toEqual([]);
    expect(heard([])).not.toContain('gull-bass');
    expect(heard(['okoro'])).toContain('gull-bass');
  });

  it('are none in a show without the song', () => {
    const without = { ...demoShow(), songs: [] };
    expect(withRecordings(without)).toEqual({ show: without, sounds: new Map() });
  });
});
