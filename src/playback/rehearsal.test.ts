import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { stateAt } from '../core/compile';
import { demoShow } from '../core/demo';
import { applyEdit, removeCues, songTime, microsAt } from '../core/show';
import { expectSame } from '../core/testing/expectSame';
import { withoutRoom } from '../core/testing/withoutRoom';
import { barAt } from '../core/time';
import { placeIn } from './sessionState';
import { played } from './testing/played';

// Leads by hand: without what is kept free around them.
const show = withoutRoom(demoShow());
const song = show.songs[0]!;
const time = songTime(song);
/** Milliseconds of a bar of 7/8 at 126. */
const BAR = (7 * 30_000) / 126;
const bar = (n: number): number => barAt(time.bars, n).tick;
const micros = (n: number): number => microsAt(time, bar(n));
const loop = { songId: song.id, from: bar(5), to: bar(13) };
const cueAt = (n: number) => song.cues.find((c) => c.at === bar(n))!;

/** A playback, and where it is at this moment: its news come thirty times a second only. */
function rehearsed() {
  const made = played(show);
  return { ...made, place: () => placeIn(made.playback.session, made.now()).place };
}

describe('a loop that plays', () => {
  it('sends the same bytes twelve rounds long, at the same times of each', () => {
    const { playback, go, out, now, place } = rehearsed();
    playback.play(song.id, bar(5), null, { speed: 1, loop });
    const round = BAR * 8;
    // From half a bar in, when the rig has been brought to the place.
    go(BAR * 0.5);
    const zero = now() - place();
    go(round * 13);
    const rounds = Array.from({ length: 12 }, (_, k) => {
      const from = zero + micros(6) + k * round * 1000;
      return out()
        .filter((l) => l.at >= from && l.at < from + round * 1000)
        .map((l) => `${Math.round((l.at - from) / 100)} ${l.portId} ${l.bytes.join(' ')}`);
    });
    expect(rounds[0]!.length).toBeGreaterThan(3);
    for (const each of rounds) expect(each).toEqual(rounds[0]);
  });

  it('is in its first state when it comes round, and says where it is', () => {
    const { playback, go, standIns, place } = rehearsed();
    playback.play(song.id, bar(5), null, { speed: 1, loop });
    for (go(BAR); place() < micros(12); go(8));
    for (; place() > micros(6); go(8));
    expect(place()).toBeGreaterThanOrEqual(micros(5));
    expect(place()).toBeLessThan(micros(5) + 10_000);
    expect(go(40).loop).toEqual(loop);
    expectSame(stateAt(show, song, bar(5)), standIns.state());
  });

  it('is entered from ahead of it, and left when it is taken away: the song goes on where it is', () => {
    const { playback, go, events, place } = rehearsed();
    playback.play(song.id, bar(4));
    go(BAR * 0.5);
    playback.loop(loop);
    go(BAR * 10.5);
    const inside = place();
    expect(inside).toBeGreaterThan(micros(6));
    expect(inside).toBeLessThan(micros(8));
    playback.loop(null);
    go(8);
    expect(place()).toBeCloseTo(inside + 8000, 3);
    expect(go(BAR * 8).place).toBeGreaterThan(micros(13));
    expect(events.filter((e) => e.kind === 'stopped')).toEqual([]);
  });

  it('that lies behind lets the song go on', () => {
    const { playback, go } = rehearsed();
    playback.play(song.id, bar(14));
    go(BAR * 0.5);
    playback.loop(loop);
    expect(go(BAR * 2).place).toBeGreaterThan(micros(15));
  });

  it('follows an edit within it from the next round on at the latest', () => {
    const { playback, edit, go, standIns, place } = rehearsed();
    playback.play(song.id, bar(5), null, { speed: 1, loop });
    go(BAR * 5);
    const edited = applyEdit(show, removeCues(show, song.id, new Set([cueAt(9).id]))!);
    edit(edited);
    const made = edited.songs[0]!;
    for (; place() < micros(12); go(8));
    for (; place() > micros(6); go(8));
    for (; place() < micros(12); go(8));
    go(300);
    expectSame(stateAt(edited, made, bar(12)), standIns.state());
  });

  it('goes on after the machine slept, within its stretch', () => {
    const { playback, go, sleep, standIns } = rehearsed();
    playback.play(song.id, bar(5), null, { speed: 1, loop });
    go(BAR);
    sleep(BAR * 41.5);
    const news = go(900);
    expect(news.playing).toBe(true);
    expect(news.place).toBeGreaterThan(micros(5));
    expect(news.place).toBeLessThan(micros(13));
    expectSame(stateAt(show, song, bar(5) + ((news.place - micros(5)) / (BAR * 1000)) * 7 * 480), standIns.state());
  });
});

describe('practice at another speed', () => {
  it('goes through the song as much slower or faster, and names its places as they are written', () => {
    fc.assert(
      fc.property(fc.integer({ min: 50, max: 150 }), (percent) => {
        const { playback, go, place } = rehearsed();
        playback.play(song.id, bar(4), null, { speed: percent / 100, loop: null });
        go(1000);
        const before = place();
        go(1000);
        expect((place() - before) / 10_000).toBeCloseTo(percent, 6);
      }),
      { seed: 5, numRuns: 12 },
    );
  });

  it('lets each change land on its beat: leads stay as long as units need', () => {
    const { playback, go, standIns, place } = rehearsed();
    playback.play(song.id, bar(8), null, { speed: 0.5, loop: null });
    // Half as fast: 30.6 ms of the song are 61.3 ms of the clock. So much earlier the modeler is there, since it calls the amplifier.
    for (go(500); place() < micros(9) - 33_000; go(2));
    expect(standIns.state().quillback).not.toMatchObject({ slot: 6, variant: 1 });
    for (; place() < micros(9) - 28_000; go(2));
    expect(standIns.state().quillback).toMatchObject({ slot: 6, variant: 1 });
    // And that one on the beat.
    for (; place() < micros(9) - 3000; go(2));
    expect(standIns.state().oxbow!.slot).not.toBe(2);
    for (; place() < micros(9) + 1000; go(1));
    expect(standIns.state().oxbow!.slot).toBe(2);
  });

  it('may change while it plays: the bar and beat stay', () => {
    const { playback, go, place } = rehearsed();
    playback.play(song.id, bar(4));
    go(BAR * 0.5);
    const before = place();
    playback.speed(1.5);
    expect(place()).toBeCloseTo(before, 3);
    go(1000);
    expect((place() - before) / 1e6).toBeCloseTo(1.5, 6);
  });

  it('keeps where it stands when it changes while nothing plays, and stays within half and one and a half', () => {
    const { playback, go } = rehearsed();
    playback.play(song.id, bar(4));
    go(BAR);
    playback.stop();
    const { place } = go(8);
    playback.speed(0.2);
    expect(go(8)).toMatchObject({ speed: 0.5, playing: false });
    expect(go(8).place).toBeCloseTo(place, 3);
  });

  it('and a loop go together', () => {
    const { playback, go, standIns, place } = rehearsed();
    playback.play(song.id, bar(5), null, { speed: 0.75, loop });
    for (go((BAR * 8 * 3) / 0.75); place() > micros(12) || place() < micros(11); go(8));
    expectSame(stateAt(show, song, bar(11)), standIns.state());
  });
});

describe('what was practised', () => {
  const way = { speed: 0.7, loop };

  it('is not what an audience gets: a start without it is as written, also of the same song', () => {
    const { playback, go } = rehearsed();
    playback.play(song.id, bar(5), null, way);
    expect(go(BAR)).toMatchObject({ speed: 0.7, loop, looping: true });
    playback.play(song.id, 0);
    expect(go(BAR)).toMatchObject({ speed: 1, loop: null, looping: false });
    playback.play(song.id, bar(5), null, way);
    go(BAR);
    playback.stop();
    playback.play(song.id, 0);
    expect(go(BAR)).toMatchObject({ speed: 1, loop: null });
  });

  it('counts for no other song, and goes on with its own from change to change', () => {
    const { playback, go } = rehearsed();
    playback.play(song.id, bar(5), null, way);
    go(BAR);
    playback.goChange(1);
    expect(go(100)).toMatchObject({ songId: song.id, speed: 0.7, loop });
    playback.goSong(1);
    expect(go(100)).toMatchObject({ speed: 1, loop: null, playing: true });
  });
});
