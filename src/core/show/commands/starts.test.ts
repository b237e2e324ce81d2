import { songEntries, setOf } from '../find';
import { songEntry } from '../builders';
import { describe, expect, it } from 'vitest';
import { demoShow } from '../../demo';
import { barAt } from '../../time';
import type { Show } from '../schema';
import { songTime } from '../songTime';
import {
  CORE_LIMIT,
  acceptFinding,
  addSong,
  addToSet,
  dipOf,
  dipShape,
  newSweep,
  putMove,
  putSweep,
  takeOut,
  removeMove,
  removeSweep,
  setCore,
  setTaps,
  songOfCore,
  startFrom,
  sweepable,
} from './';
import { doingTo } from '../../testing/doing';

const show = demoShow();
const song = show.songs[0]!;
let count = 0;
const newId = (): string => `new-${++count}`;

const done = doingTo(show);

describe('a song that begins as another', () => {
  it('has all of it under ids of its own, but for its recordings', () => {
    const copy = startFrom(song, 'copy', 'Copy', newId);
    expect(copy.cues.map((c) => [c.at, c.action])).toEqual(song.cues.map((c) => [c.at, c.action]));
    expect(copy.sections.map((s) => [s.name, s.bar, s.call])).toEqual(
      song.sections.map((s) => [s.name, s.bar, s.call]),
    );
    const ids = [copy, song].flatMap((s) => [...s.cues, ...s.sections, ...s.sweeps, ...s.taps].map((x) => x.id));
    expect(new Set(ids).size).toBe(ids.length);
    expect(copy).toMatchObject({ id: 'copy', title: 'Copy', tracks: [], pattern: false, opening: song.opening });
    done(addSong(show, copy, 'entry'));
  });

  it('is no pattern itself', () => {
    expect(startFrom({ ...song, pattern: true }, 'x', 'X', newId).pattern).toBe(false);
  });
});

describe('a song of the core tones', () => {
  it('opens with the first and has a section of eight bars for each', () => {
    const made = songOfCore(show, 'core', 'Core', { bpm: 90, beats: 7, unit: 8 }, newId);
    expect(made.bars).toBe(show.core.length * 8);
    expect(made.openingToneId).toBe(show.core[0]);
    expect(made.sections.map((s) => s.bar)).toEqual(show.core.map((_, i) => i * 8 + 1));
    const { bars } = songTime(made);
    expect(made.cues.map((c) => c.at)).toEqual(show.core.slice(1).map((_, i) => barAt(bars, (i + 1) * 8 + 1).tick));
    done(addSong(show, made, 'entry'));
  });

  it('is bare where there are none', () => {
    const bare: Show = { ...show, core: [] };
    const made = songOfCore(bare, 'core', 'Core', {}, newId);
    expect(made).toMatchObject({ bars: 8, openingToneId: null, cues: [], sections: [] });
  });

  it('are at most as many as there are number keys', () => {
    const ids = show.tones.map((t) => t.id);
    expect(done(setCore(show, ids.slice(0, CORE_LIMIT))).core).toHaveLength(CORE_LIMIT);
    expect(setCore(show, ids.slice(0, CORE_LIMIT + 1))).toBeNull();
    expect(setCore(show, show.core)).toBeNull();
    expect(done(setCore(show, [])).core).toEqual([]);
  });
});

describe('the set', () => {
  it('takes a song in at its end, and lets it go without losing it', () => {
    const entry = songEntries(show).find((e) => e.songId === 'fog-bell')!;
    const out = done(takeOut(show, entry.id));
    expect(songEntries(out).some((e) => e.songId === 'fog-bell')).toBe(false);
    expect(out.songs.some((s) => s.id === 'fog-bell')).toBe(true);
    const back = done(addToSet(out, 'fog-bell', 'again'), out);
    expect(setOf(back).entries.at(-1)).toEqual(songEntry('again', 'fog-bell'));
    expect(addToSet(show, 'no-song', 'x')).toBeNull();
    expect(takeOut(out, entry.id)).toBeNull();
  });
});

describe('moves', () => {
  const step = { unitId: 'quillback', controlId: 'tuner', value: 0 };
  it('are added, changed, and removed only where no song makes them', () => {
    const made = done(putMove(show, { id: 'm', name: ' Tuner off ', notes: '', steps: [step] }));
    expect(made.moves.at(-1)!.name).toBe('Tuner off');
    const renamed = done(putMove(made, { ...made.moves.at(-1)!, name: 'Quiet' }), made);
    expect(renamed.moves.at(-1)!.name).toBe('Quiet');
    expect(putMove(renamed, renamed.moves.at(-1)!)).toBeNull();
    expect(putMove(show, { id: 'm', name: '  ', notes: '', steps: [step] })).toBeNull();
    expect(putMove(show, { id: 'm', name: 'Empty', notes: '', steps: [] })).toBeNull();
    expect(done(removeMove(renamed, 'm'), renamed).moves).toEqual(show.moves);
    const used: Show = {
      ...renamed,
      songs: renamed.songs.with(0, {
        ...song,
        cues: [{ ...song.cues[0]!, id: 'uses', action: { kind: 'move', moveId: 'm' } }],
      }),
    };
    expect(removeMove(used, 'm')).toBeNull();
  });
});

describe('sweeps', () => {
  const [first] = sweepable(show);
  const { unit, control } = first!;

  it('are kept in order, replaced by their id, and refused where they cannot be', () => {
    const late = done(putSweep(show, song.id, newSweep('late', unit, control, 9600, 12000)));
    const early = done(putSweep(late, song.id, newSweep('early', unit, control, 0, 2000)), late);
    const ids = early.songs[0]!.sweeps.map((s) => s.id);
    expect(ids.indexOf('early')).toBeLessThan(ids.indexOf('late'));
    expect(putSweep(early, song.id, early.songs[0]!.sweeps[0]!)).toBeNull();
    expect(putSweep(show, song.id, newSweep('x', unit, control, 500, 500))).toBeNull();
    expect(putSweep(show, song.id, newSweep('x', unit, control, -5, 500))).toBeNull();
    expect(putSweep(show, song.id, { ...newSweep('x', unit, control, 0, 500), controlId: 'none' })).toBeNull();
    expect(done(removeSweep(early, song.id, 'early'), early).songs[0]!.sweeps).toEqual(late.songs[0]!.sweeps);
    expect(removeSweep(show, song.id, 'none')).toBeNull();
  });

  it('are told as dips by their shape, whatever their length', () => {
    for (const [length, ramp] of [
      [9600, 960],
      [1000, 960],
      [2, 5],
    ] as const) {
      const dip = dipOf(dipShape(length, 80, 20, ramp));
      expect(dip).toMatchObject({ from: 80, to: 20 });
      expect(dip!.ramp).toBeLessThanOrEqual(length / 2);
    }
    expect(dipOf({ kind: 'line', points: [1, 2].map((at) => ({ at, value: at })) })).toBeUndefined();
    expect(dipOf(newSweep('x', unit, control, 0, 960).shape)).toBeUndefined();
    const crooked = [0, 100, 800, 960].map((at, i) => ({ at, value: [80, 20, 20, 80][i]! }));
    expect(dipOf({ kind: 'line', points: crooked })).toBeUndefined();
  });
});

describe('taps', () => {
  it('are one run a unit, in place of the one before', () => {
    const taps = { id: 'q', unitId: 'quillback', controlId: 'tap', count: 4 };
    const on = done(setTaps(show, song.id, 'quillback', taps));
    expect(on.songs[0]!.taps.map((t) => t.unitId)).toEqual(['thistle', 'quillback']);
    const eight = done(setTaps(on, song.id, 'quillback', { ...taps, count: 8 }), on);
    expect(eight.songs[0]!.taps.map((t) => t.count)).toEqual([4, 8]);
    expect(done(setTaps(eight, song.id, 'quillback', null), eight).songs[0]!.taps).toEqual(song.taps);
    expect(setTaps(show, song.id, 'quillback', null)).toBeNull();
    expect(setTaps(show, 'none', 'quillback', taps)).toBeNull();
  });
});

describe('a finding that is let be', () => {
  it('is kept with its reason, once, and given up with an empty one', () => {
    const one = done(acceptFinding(show, 'key', 'what it says', ' for the stand-in '));
    expect(one.accepted).toEqual([{ key: 'key', says: 'what it says', reason: 'for the stand-in' }]);
    const two = done(acceptFinding(one, 'key', 'something else', 'still'), one);
    expect(two.accepted).toEqual([{ key: 'key', says: 'something else', reason: 'still' }]);
    expect(done(acceptFinding(two, 'key', '', ''), two).accepted).toEqual([]);
    expect(acceptFinding(show, 'key', 'what it says', '  ')).toBeNull();
  });
});
