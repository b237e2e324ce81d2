import { describe, expect, it } from 'vitest';
import { demoShow } from '../demo';
import { barAt } from '../time';
import { doingTo } from '../testing/doing';
import { messageCue, newSection, newSong, newTrack, toneCue } from './builders';
import { checkShow } from './check/checkShow';
import { cutIntoSongs } from './commands';
import { cutSong, songStarts } from './cutSong';
import { setOf } from './find';
import type { Song } from './schema';
import { microsAt, songTime } from './songTime';

let made = 0;
const newId = (): string => `new-${made++}`;
const cue = (bar: number): Song['cues'][number] => messageCue(`c${bar}`, (bar - 1) * 3840, 'u', 'c000');
/** Bars of two seconds, something in these. */
const song = (bars: readonly number[], rest: Partial<Song> = {}): Song => ({
  ...newSong('s', 'Whole evening', { bpm: 120, bars: 40 }),
  cues: bars.map(cue),
  ...rest,
});

describe('where songs may begin', () => {
  it('is behind silence, and where sections do', () => {
    const timeline = song([1, 3, 8, 9, 20], { sections: [newSection('a', 'First', 1), newSection('b', 'Second', 9)] });
    expect(songStarts(timeline)).toEqual([
      { bar: 8, name: null, silence: 10 },
      { bar: 9, name: 'Second', silence: 0 },
      { bar: 20, name: null, silence: 22 },
    ]);
    expect(songStarts(song([]))).toEqual([]);
  });
});

describe('songs that are cut out of one', () => {
  it('open with the tone that they begin with, else as all songs do', () => {
    const tone = (bar: number): Song['cues'][number] => toneCue(`t${bar}`, (bar - 1) * 3840, `tone ${bar}`);
    const pieces = cutSong(
      song([], { opening: 'own', openingToneId: 'mine', cues: [tone(1), tone(9), tone(21)] }),
      [9, 20],
      newId,
    );
    expect(pieces.map((p) => [p.opening, p.openingToneId, p.cues.length])).toEqual([
      ['own', 'mine', 1],
      ['own', 'tone 9', 0],
      ['show', null, 1],
    ]);
  });

  it('take their places in the show and in the sets, with one undo', () => {
    const demo = demoShow();
    const done = doingTo(demo);
    const [whole] = demo.songs;
    const cut = done(cutIntoSongs(demo, whole!.id, [9, 17], newId));
    expect(cut.songs.length).toBe(demo.songs.length + 2);
    expect(checkShow(cut)).toEqual([]);
    const order = setOf(cut).entries.flatMap((e) => (e.kind === 'song' ? [e.songId] : []));
    expect(order.slice(0, 3)).toEqual(cut.songs.slice(0, 3).map((s) => s.id));
    expect(cutIntoSongs(demo, whole!.id, [1, 9999], newId)).toBeNull();
    expect(cutIntoSongs(demo, 'nowhere', [9], newId)).toBeNull();
  });

  it('have what stands in their bars, from bar 1 on, called after their sections', () => {
    const timeline = song([1, 3, 9, 12, 20, 45], {
      sections: [newSection('a', 'First', 1), newSection('b', 'Second', 9)],
      tempo: [
        { at: 0, bpm: 120, beat: 1, rampTo: null },
        { at: 8 * 3840, bpm: 90, beat: 1, rampTo: null },
      ],
      metre: [
        { bar: 1, beats: 4, unit: 4 },
        { bar: 20, beats: 3, unit: 4 },
      ],
    });
    const pieces = cutSong(timeline, [20, 9, 9, 1, 99, 2.5], newId);
    expect(pieces.map((p) => [p.title, p.bars, p.cues.map((c) => c.at / 3840 + 1)])).toEqual([
      ['Whole evening', 8, [1, 3]],
      ['Second', 11, [1, 4]],
      // What stands past the end stays past it.
      ['Whole evening 3', 21, [1, pieces[2]!.cues[1]!.at / 3840 + 1]],
    ]);
    expect(pieces.map((p) => p.tempo[0]!.bpm)).toEqual([120, 90, 90]);
    expect(pieces.map((p) => p.metre[0]!.beats)).toEqual([4, 4, 3]);
    expect(new Set(pieces.map((p) => p.id)).size).toBe(3);
    expect(pieces[0]!.id).toBe('s');
    expect(pieces[2]!.cues[1]!.at).toBeGreaterThanOrEqual(songTime(pieces[2]!).end);
  });

  it('leave the pickup with the first', () => {
    const timeline = song([], {
      pickup: 960,
      cues: [
        { ...cue(1), at: 0 },
        { ...cue(2), at: 960 + 3840 },
      ],
    });
    const [first, second] = cutSong(timeline, [2], newId);
    expect([first!.pickup, first!.cues.map((c) => c.at)]).toEqual([960, [0]]);
    expect([second!.pickup, second!.cues.map((c) => c.at)]).toEqual([0, [0]]);
  });

  it('go on with a recording where it is by then, as far as it reaches', () => {
    const track = newTrack('t', 'a', { offset: 50 });
    const audio = { id: 'a', name: 'All', type: 'audio/wav', length: 30, size: 9 };
    const pieces = cutSong(song([], { tracks: [track] }), [9, 20], newId, [audio]);
    expect(pieces.map((p) => p.tracks.map((t) => [t.at, t.offset]))).toEqual([[[0, 50]], [[0, 50 - 16_000]], []]);
  });

  it('have each change at its time of the whole, behind the cut', () => {
    const demo = demoShow();
    const whole = demo.songs[0]!;
    const [, second] = cutSong(whole, [17], newId);
    expect(checkShow({ ...demo, songs: [...demo.songs, second!] })).toEqual([]);
    const [before, after] = [songTime(whole), songTime(second!)];
    const cut = barAt(before.bars, 17).tick;
    const behind = whole.cues.filter((c) => c.at > cut);
    expect(second!.cues.map((c) => Math.round(microsAt(after, c.at)))).toEqual(
      behind.map((c) => Math.round(microsAt(before, c.at) - microsAt(before, cut))),
    );
    expect(behind.length).toBeGreaterThan(2);
  });
});
