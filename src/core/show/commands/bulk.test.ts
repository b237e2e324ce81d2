import { songEntries } from '../find';
import { describe, expect, it } from 'vitest';
import { demoShow } from '../../demo';
import { newCall } from '../builders';
import { applyEdit, invertEdit } from '../edits';
import type { Sweep } from '../schema';
import {
  addTonesOf,
  callEverySection,
  deleteSong,
  dipOf,
  dipShape,
  removeToneEverywhere,
  replaceAudio,
  stretchSweep,
} from './';
import { doingTo } from '../../testing/doing';

const show = demoShow();
let made = 0;
const newId = (): string => `bulk-${made++}`;
const there = doingTo(show);

describe('many at once', () => {
  it('adds a tone for each look of a unit, or for each of its scenes, but none twice', () => {
    const looks = show.units.find((u) => u.id === 'wick')!.slots.filter((s) => s.name !== '');
    const after = there(addTonesOf(show, 'wick', 'presets', newId));
    expect(after.tones.slice(show.tones.length).map((t) => t.name)).toEqual([...new Set(looks.map((s) => s.name))]);
    expect(addTonesOf(after, 'wick', 'presets', newId)).toBeNull();
    const scenes = there(addTonesOf(show, 'quillback', 'variants', newId));
    expect(scenes.tones.length - show.tones.length).toBe(show.units[0]!.profile.variants!.names.length);
    expect(addTonesOf(show, 'wick', 'variants', newId)).toBeNull();
  });

  it('puts a call ahead of every section that has none', () => {
    const song = show.songs.find((s) => s.sections.length > 2)!;
    const after = there(callEverySection(show, song.id, newCall()));
    expect(after.songs.find((s) => s.id === song.id)!.sections.every((s) => s.call !== null)).toBe(true);
    expect(callEverySection(after, song.id, newCall())).toBeNull();
  });

  it('deletes a tone with its cues, and a song with the sounds that only it used', () => {
    const after = there(removeToneEverywhere(show, 'fog-lead'));
    expect(JSON.stringify(after)).not.toContain('"fog-lead"');
    const audio = { id: 'a', name: 'Take', type: 'audio/wav', length: 1, size: 4 };
    const track = {
      id: 't',
      audioId: 'a',
      role: 'backing',
      playerId: null,
      stemId: null,
      at: 0,
      offset: 0,
      gain: 0,
      muted: false,
    } as const;
    const sounding = {
      ...show,
      audio: [audio],
      songs: show.songs.map((s, i) => (i === 0 ? { ...s, tracks: [track] } : s)),
    };
    const edit = deleteSong(sounding, show.songs[0]!.id)!;
    const gone = applyEdit(sounding, edit);
    expect([gone.audio, gone.songs.length, songEntries(gone).length]).toEqual([
      [],
      show.songs.length - 1,
      songEntries(show).length - 1,
    ]);
    expect(applyEdit(gone, invertEdit(edit))).toEqual(sounding);
    const other = applyEdit(sounding, replaceAudio(sounding, 'a', { ...audio, name: 'New take', size: 9 })!);
    expect(other.audio).toEqual([{ ...audio, name: 'New take', size: 9 }]);
    expect(other.songs[0]!.tracks).toEqual([track]);
  });
});

describe('a sweep with another end', () => {
  const sweep = (shape: Sweep['shape']): Sweep => ({
    id: 's',
    unitId: 'tarn',
    controlId: 'mix',
    from: 0,
    to: 9600,
    muted: false,
    shape,
    switchId: null,
    spacing: 10,
    after: 'hold',
  });

  it('keeps how fast a level goes and comes back', () => {
    const longer = stretchSweep(sweep(dipShape(9600, 0, -6, 960)), 0, 19200);
    expect(dipOf(longer.shape)).toEqual({ from: 0, to: -6, ramp: 960 });
    expect(longer.shape.kind === 'line' && longer.shape.points.at(-1)!.at).toBe(19200);
  });

  it('stretches what was drawn, and a wave that is all of it, but not the beat of one', () => {
    const points = [0, 4800, 9600].map((at, i) => ({ at, value: i }));
    const drawn = stretchSweep(sweep({ kind: 'line', points }), 960, 960 + 4800).shape;
    expect(drawn.kind === 'line' && drawn.points.map((p) => p.at)).toEqual([0, 2400, 4800]);
    const wave = { kind: 'wave', form: 'sine', low: 0, high: 1, steps: 8 } as const;
    expect(stretchSweep(sweep({ ...wave, period: 9600 }), 0, 4800).shape).toMatchObject({ period: 4800 });
    expect(stretchSweep(sweep({ ...wave, period: 960 }), 0, 4800).shape).toMatchObject({ period: 960 });
    expect(stretchSweep(sweep({ ...wave, period: 960 }), 960, 10560).shape).toMatchObject({ period: 960 });
  });
});
