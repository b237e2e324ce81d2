import { describe, expect, it } from 'vitest';
import { demoShow } from '../core/demo';
import { Prover } from './prover';
import { PlaybackHost } from './playbackHost';
import { guarded } from './questions';
import { updateOf } from './showMirror';

const show = demoShow();
const host = guarded(new PlaybackHost({ now: () => 0, every: () => undefined }));
const prover = guarded(new Prover('test'));

describe('the door of a worker', () => {
  it('lets through what the page asks', () => {
    host.update(updateOf(undefined, show));
    prover.update(updateOf(undefined, show));
    const song = show.songs[0]!;
    host.play(song.id, 0, null, null);
    host.goSong(1);
    host.goChange(-1);
    host.select(song.id, 960, null);
    host.stand(song.id, 960);
    host.queue(null);
    host.back();
    host.audience('night', []);
    host.remember({ night: null, history: [], songId: song.id, entryId: null, place: 960, queued: null });
    host.audience(null, []);
    host.panic();
    host.play(song.id, 0, null, { speed: 0.8, loop: null });
    host.loop({ songId: song.id, from: 0, to: 3840 });
    host.countIn(true);
    host.loop(null);
    host.speed(0.8);
    host.lanes(['quillback'], []);
    host.walk({ unitId: 'quillback', aims: [{ slot: 3, controls: {} }], everyMillis: 500 });
    host.record(null);
    host.stop();
    expect(host.audition('quillback', { slot: 2, controls: {} }).length).toBeGreaterThan(0);
    expect(Object.keys(prover.fingerprints(song.id)).length).toBeGreaterThan(0);
    expect(prover.match('quillback', [{ index: 0, name: 'x' }])).toBeDefined();
  });

  it('refuses by name what has another shape', () => {
    const wrong = host as unknown as Record<string, (...args: unknown[]) => unknown>;
    expect(() => wrong.goSong!(2)).toThrow(/^goSong:/);
    expect(() => wrong.play!('song', -1)).toThrow(/^play:/);
    expect(() => wrong.play!('song', Number.NaN)).toThrow(/^play:/);
    expect(() => wrong.speed!('fast')).toThrow(/^speed:/);
    expect(() => wrong.loop!({ songId: 's', from: 0 })).toThrow(/^loop:/);
    expect(() => wrong.update!({ frame: null })).toThrow(/^update:/);
    expect(() => wrong.teach!({ unitId: 'u', messages: [[300]] })).toThrow(/^teach:/);
    expect(() => (prover as unknown as typeof wrong).prove!('song')).toThrow(/^prove:/);
  });

  it('has one for every question that the workers know', () => {
    const asked = [PlaybackHost, Prover].flatMap((c) => Object.getOwnPropertyNames(c.prototype));
    const own = asked.filter((n) => !['constructor', 'listen', 'wake'].includes(n));
    const worker = Object.fromEntries(own.map((n) => [n, () => undefined]));
    const behind = guarded(worker) as Record<string, (...args: unknown[]) => unknown>;
    for (const name of own) expect(() => behind[name]!(Symbol('none')), name).toThrow(TypeError);
  });
});
