import { describe, expect, it } from 'vitest';
import { demoShow } from '../demo';
import { applyEdit, invertEdit, messageCue, newSong, toneCue, type Show } from '../show';
import { checkRig, checkSong, mendAll } from './';
import { tonightOf } from '../tonight';

describe('mending all of a kind', () => {
  it('is one edit, each fix made of what the one before left', () => {
    const demo = demoShow();
    const tone = demo.tones[0]!.id;
    const twice = [0, 1, 2].flatMap((i) => [0, 1].map((k) => toneCue(`c${i}${k}`, (i + 1) * 9600, tone)));
    const song = { ...newSong('s', 'S', { bars: 32 }), openingToneId: tone, cues: twice };
    const show: Show = { ...demo, songs: [...demo.songs, song] };
    const count = (s: Show): number =>
      checkSong(tonightOf(s), s.songs.at(-1)!).filter((f) => f.code === 'song.duplicate').length;
    expect(count(show)).toBe(3);
    const edit = mendAll(show, 's', 'song.duplicate')!;
    const after = applyEdit(show, edit);
    expect(count(after)).toBe(0);
    expect(after.songs.at(-1)!.cues).toHaveLength(3);
    expect(applyEdit(after, invertEdit(edit))).toEqual(show);
  });

  it('mends the rig too, and is nothing where nothing can be mended', () => {
    const demo = demoShow();
    const show: Show = { ...demo, units: demo.units.map((u) => ({ ...u, listens: u.listens === 'all' ? 'all' : 16 })) };
    const wrong = (s: Show): number => checkRig(tonightOf(s)).filter((f) => f.code === 'rig.channel-differs').length;
    expect(wrong(show)).toBeGreaterThan(2);
    expect(wrong(applyEdit(show, mendAll(show, null, 'rig.channel-differs')!))).toBe(0);
    expect(mendAll(demo, null, 'rig.channel-differs')).toBeNull();
    const raw = { ...newSong('r', 'R'), cues: [messageCue('m', 0, 'tarn', 'b0630a')] };
    expect(mendAll({ ...demo, songs: [raw] }, 'r', 'song.not-understood')).toBeNull();
  });
});
