import { describe, expect, it } from 'vitest';
import { demoShow } from '../demo';
import { doingTo } from '../testing/doing';
import { newInterlude, songEntry } from './builders';
import { checkShow } from './check/checkShow';
import { addInterlude, deleteSong, takeOut } from './commands';
import { soundAfter, soundToPress } from './interludes';
import type { Audio, ShowSet } from './schema';
import { setTimes } from './setTimes';

const set = (...entries: ShowSet['entries']): ShowSet => ({ ...demoShow().sets[0]!, entries });
const [a, b] = [songEntry('a', 'slack-tide'), songEntry('b', 'fog-bell')];
const loop = newInterlude('loop', 'x');
const pressed = { ...newInterlude('pressed', 'y'), begins: 'press' as const };
const tea = { kind: 'break', id: 'tea', title: 'Tea', minutes: 20 } as const;

describe('a sound between songs', () => {
  it('begins by itself behind what has ended, up to the next song', () => {
    const order = set(a, tea, pressed, loop, b);
    expect(soundAfter(order, 'a')?.id).toBe('loop');
    expect(soundAfter(order, 'pressed')?.id).toBe('loop');
    expect(soundAfter(order, 'loop')).toBeNull();
    expect(soundAfter(order, 'b')).toBeNull();
    expect(soundAfter(order, 'gone')).toBeNull();
    expect(soundAfter(set(a, b, loop), 'a')).toBeNull();
  });

  it('is pressed for behind the song that was played, and ahead of one that was not', () => {
    const order = set(loop, a, pressed, b);
    expect(soundToPress(order, 'a', false)?.id).toBe('loop');
    expect(soundToPress(order, 'a', true)?.id).toBe('pressed');
    expect(soundToPress(order, 'b', false)?.id).toBe('pressed');
    expect(soundToPress(order, 'b', true)).toBeNull();
    expect(soundToPress(order, null, false)?.id).toBe('loop');
    expect(soundToPress(set(a, b), 'a', true)).toBeNull();
  });

  it('takes no time of the set, and leaves the show with its last use', () => {
    const show = demoShow();
    const done = doingTo(show);
    const audio: Audio = { id: 'x', name: 'Harbour', type: 'audio/wav', length: 60, size: 9 };
    const first = show.sets[0]!.entries[0]!.id;
    const one = done(addInterlude(show, loop, audio, first));
    expect(one.sets[0]!.entries[1]).toEqual(loop);
    expect(checkShow(one)).toEqual([]);
    expect(setTimes(one).length).toBe(setTimes(show).length);
    // Deleting a song that has nothing to do with it leaves it alone.
    expect(done(deleteSong(one, 'fog-bell'), one).audio.map((x) => x.id)).toEqual(['x']);
    const gone = done(takeOut(one, 'loop'), one);
    expect(gone.audio).toEqual([]);
    expect(gone.sets[0]!.entries).toEqual(show.sets[0]!.entries);
    expect(takeOut(one, 'nowhere')).toBeNull();
    expect(checkShow({ ...one, audio: [] }).map((p) => p.code)).toEqual(['show.missing']);
  });
});
