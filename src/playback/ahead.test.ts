import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoShow } from '../core/demo';
import { stateAt } from '../core/compile';
import { applyEdit, setClock, songTime, type Show } from '../core/show';
import { expectSame } from '../core/testing/expectSame';
import { runs } from '../core/testing/runs';
import { barAt } from '../core/time';
import { REAL_AHEAD } from './sessionState';
import { played } from './testing/played';

const show = demoShow();
const [song, other] = show.songs as [Show['songs'][0], Show['songs'][0]];
/** A bar of 7/8 at 126. */
const BAR = (7 * 30_000) / 126;
const bar = (n: number): number => barAt(songTime(song).bars, n).tick;

/** Somebody presses something; times in milliseconds. */
const press = fc.oneof(
  fc.record({ what: fc.constant('play' as const), songId: fc.constantFrom(song.id, other.id), bar: fc.nat(12) }),
  fc.record({ what: fc.constant('select' as const), songId: fc.constantFrom(song.id, other.id), bar: fc.nat(12) }),
  fc.record({ what: fc.constant('tone' as const), toneId: fc.constantFrom(...show.core) }),
  fc.record({ what: fc.constantFrom('stop' as const, 'back' as const, 'panic' as const) }),
  fc.record({
    what: fc.constantFrom('song' as const, 'change' as const),
    by: fc.constantFrom(1 as const, -1 as const),
  }),
);

describe('messages that are handed over ahead of their time', () => {
  it('are reckoned with by whatever is pressed: the rig ends up where the last press wants it', () => {
    const pressed = fc.array(fc.tuple(press, fc.integer({ min: 1, max: 900 })), { maxLength: 6 });
    fc.assert(
      fc.property(pressed, fc.integer({ min: 1, max: 900 }), fc.nat(12), (presses, last, at) => {
        const { playback, go, standIns } = played(show, REAL_AHEAD);
        playback.play(song.id, bar(3));
        for (const [p, after] of presses) {
          go(after);
          if (p.what === 'play') playback.play(p.songId, bar(p.bar + 1));
          else if (p.what === 'select') playback.select(p.songId, bar(p.bar + 1));
          else if (p.what === 'tone') playback.tone(p.toneId);
          else if (p.what === 'song') playback.goSong(p.by);
          else if (p.what === 'change') playback.goChange(p.by);
          else playback[p.what]();
        }
        go(last);
        playback.select(song.id, bar(at + 1));
        const { rig } = go(3000);
        expectSame(stateAt(show, song, bar(at + 1)), standIns.state());
        expectSame(standIns.state(), rig);
      }),
      runs(4711, 120),
    );
  });

  it('have left, all that is due within a third of a second, while whoever sends them is held up', () => {
    const { playback, go, out, now } = played(show, REAL_AHEAD);
    playback.play(song.id, bar(4));
    go(BAR * 3);
    const late = out().filter((l) => l.at < now() + 330_000).length;
    go(330);
    expect(out().filter((l) => l.at < now())).toHaveLength(late);
  });

  it('are followed by "stop" where they may begin a clock', () => {
    const clocked = applyEdit(show, setClock(show, song.id, 'rack', 'clock')!);
    const { playback, go, out } = played(clocked, REAL_AHEAD);
    playback.play(song.id, 0);
    go(8);
    playback.stop();
    go(1000);
    const realTime = out()
      .filter((l) => l.bytes[0]! >= 0xfa)
      .toSorted((a, b) => a.at - b.at);
    expect(realTime.at(-1)!.bytes).toEqual([0xfc]);
    playback.play(song.id, 0);
    go(8);
    playback.stop();
    playback.play(song.id, 0);
    go(1000);
    const last = out()
      .filter((l) => l.bytes[0]! >= 0xfa)
      .toSorted((a, b) => a.at - b.at);
    expect(last.at(-1)!.bytes).toEqual([0xfa]);
  });

  it('are followed by a second "stop" where a "start" is among what was handed over, whenever that is', () => {
    const counted: Show = {
      ...show,
      songs: show.songs.map((s) => ({ ...s, click: { ...s.click, countIn: 1 } })),
    };
    const clocked = applyEdit(counted, setClock(counted, song.id, 'rack', 'clock')!);
    let between = 0;
    for (let millis = 0; millis < 2600; millis += 60) {
      const { playback, go, out } = played(clocked, REAL_AHEAD);
      playback.play(song.id, 0);
      go(millis);
      const before = out().some((l) => l.bytes[0] === 0xfa);
      playback.stop();
      go(1000);
      const realTime = out()
        .filter((l) => l.bytes[0]! >= 0xfa)
        .toSorted((a, b) => a.at - b.at);
      if (realTime.length === 0) continue;
      if (before) between += 1;
      expect(realTime.at(-1)!.bytes).toEqual([0xfc]);
    }
    expect(between).toBeGreaterThan(2);
  });

  it('are lost with their port: what hangs on it is not known, and caught up when it is back', () => {
    const { playback, go, standIns } = played(show, REAL_AHEAD);
    playback.play(song.id, bar(4));
    go(BAR * 4.7);
    playback.port('rack', false);
    expect(go(600).rig.quillback!.slot).toBeNull();
    playback.port('rack', true);
    go(1500);
    expectSame(standIns.state(), go(8).rig);
    expect(standIns.state().quillback!.slot).toBe(6);
  });
});
