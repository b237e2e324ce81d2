import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { stateAt } from '../core/compile';
import { demoShow } from '../core/demo';
import { rigSpec } from '../core/meaning';
import type { RigState } from '../core/rig';
import { microsAt, songTime, ticksAt, type Show, type Song } from '../core/show';
import { expectSame } from '../core/testing/expectSame';
import { randomShow } from '../core/testing/randomShow';
import { runs } from '../core/testing/runs';
import { barAt } from '../core/time';
import { LOOK_AHEAD, REAL_AHEAD, placeIn } from './sessionState';
import { played } from './testing/played';

const show = demoShow();
const song = show.songs[0]!;
const BAR = (7 * 30_000) / 126;
const bar = (n: number): number => barAt(songTime(song).bars, n).tick;

/** Plays a song from a place, stops so many milliseconds of it later, and waits until nothing is on its way any more. */
function stopped(made: Show, of: Song, from: number, millis: number, ahead: number) {
  const p = played(made, ahead);
  p.playback.play(of.id, from);
  const { transport } = p.playback.session;
  if (transport.kind === 'playing') p.go((transport.zero + transport.line.place - p.now()) / 1000 + millis);
  const { place } = placeIn(p.playback.session, p.now());
  const { line } = p.playback.session.transport as { line?: { place: number } };
  p.playback.stop();
  p.go(3000);
  return { ...p, place, reached: line !== undefined && place >= line.place };
}

/** Slots and variants of the units that a state speaks of. */
const sound = (state: RigState, of: RigState): Record<string, unknown> =>
  Object.fromEntries(Object.keys(of).map((id) => [id, [state[id]?.slot, state[id]?.variant]]));

describe('stopping', () => {
  it('shortly before a change leaves the sound that was on, though messages for the next one are on their way', () => {
    // Bar 9 has another preset on every unit; harp and echo are sent theirs up to 284 ms ahead of it.
    for (const before of [290, 200, 120, 40, 2]) {
      const { standIns, place } = stopped(show, song, bar(7), 2 * BAR - before, REAL_AHEAD);
      expect(place).toBeLessThan(microsAt(songTime(song), bar(9)));
      const wanted = stateAt(show, song, bar(9) - 1);
      expect(sound(standIns.state(), wanted)).toEqual(sound(wanted, wanted));
    }
  });

  it('shortly after a change has it whole', () => {
    for (const later of [1, 20, 80]) {
      const { standIns } = stopped(show, song, bar(8), BAR + later, LOOK_AHEAD);
      const wanted = stateAt(show, song, bar(9));
      expect(sound(standIns.state(), wanted)).toEqual(sound(wanted, wanted));
    }
  });

  it('on the way to a place leaves what was on before it was started', () => {
    const p = played(show, LOOK_AHEAD);
    p.playback.select(song.id, bar(5));
    p.go(2000);
    const was = p.standIns.state();
    p.playback.play(song.id, bar(9));
    p.go(60);
    p.playback.stop();
    p.go(3000);
    expect(sound(p.standIns.state(), was)).toEqual(sound(was, was));
  });

  it.each([
    ['stand-ins', LOOK_AHEAD],
    ['real ports', REAL_AHEAD],
  ])('at any moment ends in the one sound of the place where it stopped: %s', (_, ahead) => {
    fc.assert(
      fc.property(fc.nat(14), fc.integer({ min: 300, max: 9000 }), (from, millis) => {
        const { standIns, place, reached } = stopped(show, song, bar(from + 1), millis, ahead);
        if (!reached) return;
        const wanted = stateAt(show, song, ticksAt(songTime(song), place));
        expect(sound(standIns.state(), wanted)).toEqual(sound(wanted, wanted));
      }),
      runs(771, 30),
    );
  });

  it('at any moment of a random song ends as playing up to there would', () => {
    const made = randomShow({ gap: 960 });
    fc.assert(
      fc.property(
        made,
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.constantFrom(LOOK_AHEAD, REAL_AHEAD),
        (r, share, ahead) => {
          // A switch that only turns over, in a state that nobody knows, comes out either way.
          fc.pre(!r.show.tones.some((t) => t.parts.some((p) => p.controls.some((c) => c.controlId === 'turn'))));
          const last = microsAt(songTime(r.song), r.song.cues.at(-1)!.at) + 500_000;
          const { standIns, place, reached } = stopped(r.show, r.song, 0, (share * last) / 1000, ahead);
          if (!reached) return;
          const wanted = stateAt(r.show, r.song, ticksAt(songTime(r.song), place));
          expectSame(wanted, standIns.state());
          expect(Object.keys(standIns.state()).toSorted()).toEqual(
            rigSpec(r.show)
              .units.map((u) => u.id)
              .toSorted(),
          );
        },
      ),
      runs(772, 60),
    );
  });
});
