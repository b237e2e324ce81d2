import { describe, expect, it } from 'vitest';
import { demoShow } from '../../demo';
import { checkShow } from '../check/checkShow';
import { applyEdit } from '../edits';
import type { Audio, Show, Song, Track } from '../schema';
import { newCall } from '../builders';
import { addTrack, changeTrack, removeTrack, setCall, setCallSound, setClock, type CallPlace } from './';
import { doingTo } from '../../testing/doing';

const show = demoShow();
const ID = 'slack-tide';
const section = show.songs[0]!.sections[1]!.id;
const song = (s: Show, id = ID): Song => s.songs.find((x) => x.id === id)!;
const audio = (id: string): Audio => ({ id, name: `Sound ${id}`, type: 'audio/wav', length: 12, size: 1000 });
const track = (id: string, audioId: string): Track => ({
  id,
  audioId,
  role: 'backing',
  playerId: null,
  stemId: null,
  at: 0,
  offset: 0,
  gain: 0,
  muted: false,
});

const done = doingTo(show);
const sounds = (s: Show): string[] => s.audio.map((a) => a.id);

describe('recordings', () => {
  it('join a song and the show, and leave both with their last use', () => {
    const one = done(addTrack(show, ID, track('t1', 'a1'), audio('a1')));
    expect(song(one).tracks.map((t) => t.id)).toEqual(['t1']);
    expect(sounds(one)).toEqual(['a1']);
    // The same sound in another song is the same sound.
    const two = done(addTrack(one, 'fog-bell', track('t2', 'a1'), null), one);
    expect(sounds(two)).toEqual(['a1']);
    const left = done(removeTrack(two, ID, 't1'), two);
    expect(sounds(left)).toEqual(['a1']);
    expect(sounds(done(removeTrack(left, 'fog-bell', 't2'), left))).toEqual([]);
    expect(removeTrack(show, ID, 'none')).toBeNull();
    expect(addTrack(show, 'no-song', track('t', 'a'), audio('a'))).toBeNull();
  });

  it('are moved, turned down and muted where they are', () => {
    const one = done(addTrack(show, ID, track('t1', 'a1'), audio('a1')));
    const changed = done(changeTrack(one, ID, 't1', { gain: -6, offset: 120, muted: true }), one);
    expect(song(changed).tracks[0]).toMatchObject({ gain: -6, offset: 120, muted: true, audioId: 'a1' });
    expect(changeTrack(one, ID, 't1', {})).toBeNull();
    expect(changeTrack(one, 'no-song', 't1', { gain: 1 })).toBeNull();
  });

  it('are refused by the show where their sound is not in it', () => {
    const bad = applyEdit(show, addTrack(show, ID, track('t1', 'nowhere'), null)!);
    expect(checkShow(bad).map((p) => p.code)).toEqual(['show.missing']);
  });
});

const OF_SONG: CallPlace = { of: 'song' };
const AT_SECTION: CallPlace = { of: 'section', id: section };

describe('calls', () => {
  it('stand ahead of any bar, one ahead of each, and are moved under their id', () => {
    const at = (bar: number, id = 'c1'): CallPlace => ({ of: 'bar', id, bar });
    const call = newCall({ text: 'wait', count: 2 });
    const late = done(setCall(show, ID, at(19), call));
    const both = done(setCall(late, ID, at(6, 'c2'), call), late);
    expect(song(both).calls.map((c) => c.bar)).toEqual([6, 19]);
    expect(setCall(both, ID, at(6), call)).toBeNull();
    const moved = done(setCall(both, ID, at(7), call), both);
    expect(song(moved).calls.map((c) => [c.id, c.bar])).toEqual([
      ['c2', 6],
      ['c1', 7],
    ]);
    expect(song(done(setCall(moved, ID, at(7), null), moved)).calls.map((c) => c.id)).toEqual(['c2']);
    for (const bar of [0, -1, 2.5, song(show).bars + 1]) expect(setCall(show, ID, at(bar), call)).toBeNull();
  });

  it('go ahead of a section or of the song, and go again', () => {
    const call = { ...newCall(), how: 'tones' as const, pattern: 'thrice' as const, ahead: 3 };
    const ahead = done(setCall(show, ID, AT_SECTION, call));
    expect(song(ahead).sections.find((s) => s.id === section)!.call).toEqual(call);
    const both = done(setCall(ahead, ID, OF_SONG, call), ahead);
    expect(song(both).announce).toEqual(call);
    expect(song(done(setCall(both, ID, OF_SONG, null), both)).announce).toBeNull();
    expect(setCall(show, ID, { of: 'section', id: 'no-section' }, call)).toBeNull();
    expect(setCall(show, 'no-song', OF_SONG, call)).toBeNull();
    expect(setCall(both, ID, OF_SONG, call)).toBeNull();
  });

  it('with a sound of their own bring it along, and take it with them', () => {
    const spoken = done(setCallSound(show, ID, AT_SECTION, newCall(), audio('v1')));
    expect(song(spoken).sections.find((s) => s.id === section)!.call).toMatchObject({ how: 'sound', audioId: 'v1' });
    expect(sounds(spoken)).toEqual(['v1']);
    expect(sounds(done(setCall(spoken, ID, AT_SECTION, null), spoken))).toEqual([]);
  });

  it('leave the old sound behind when they get another, unless something else uses it', () => {
    const first = done(setCallSound(show, ID, AT_SECTION, newCall(), audio('v1')));
    const second = done(setCallSound(first, ID, AT_SECTION, newCall(), audio('v2')), first);
    expect(sounds(second)).toEqual(['v2']);
    const shared = done(addTrack(first, 'fog-bell', track('t', 'v1'), null), first);
    expect(sounds(done(setCallSound(shared, ID, AT_SECTION, newCall(), audio('v2')), shared))).toEqual(['v1', 'v2']);
  });

  it('keep a sound that a call of the same song still has', () => {
    const first = done(setCallSound(show, ID, AT_SECTION, newCall(), audio('v1')));
    const both = done(setCall(first, ID, OF_SONG, { ...newCall(), how: 'sound', audioId: 'v1' }), first);
    expect(sounds(done(setCall(both, ID, AT_SECTION, null), both))).toEqual(['v1']);
  });
});

describe('MIDI clock', () => {
  it('goes to a port once, and is taken away again', () => {
    const on = done(setClock(show, ID, 'rack', 'c1'));
    expect(song(on).clocks).toEqual([{ id: 'c1', portId: 'rack' }]);
    expect(setClock(on, ID, 'rack', 'c2')).toBeNull();
    const two = done(setClock(on, ID, 'board', 'c2'), on);
    expect(song(done(setClock(two, ID, 'rack', null), two)).clocks).toEqual([{ id: 'c2', portId: 'board' }]);
    expect(setClock(show, ID, 'rack', null)).toBeNull();
  });
});
