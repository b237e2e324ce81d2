import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { stateAt } from '../core/compile';
import { demoShow } from '../core/demo';
import { indexShow, songEntries, songTime } from '../core/show';
import { expectSame } from '../core/testing/expectSame';
import { runs } from '../core/testing/runs';
import { barAt, barOfTick } from '../core/time';
import { microsAt, ticksAt } from '../core/show';
import { placeIn, type Remembered } from './sessionState';
import { played } from './testing/played';

const show = demoShow();
const entries = songEntries(show);
const songOf = (i: number) => indexShow(show).songs.get(entries[i]!.songId)!;
const first = songOf(0);
const bar = (n: number): number => barAt(songTime(first).bars, n).tick;
const practice = { speed: 0.7, loop: { songId: first.id, from: bar(5), to: bar(9) } };

describe('a show that is on', () => {
  it('is played as the audience gets it, whatever was practised, and cannot be slowed or looped', () => {
    const { playback, go } = played(show);
    playback.play(first.id, bar(5), null, practice);
    go(2000);
    expect(playback.session).toMatchObject(practice);
    playback.night('tonight', []);
    expect(playback.session).toMatchObject({ speed: 1, loop: null, transport: { kind: 'stopped' } });
    playback.play(first.id, bar(4), null, practice);
    playback.speed(0.5);
    playback.loop(practice.loop);
    const before = go(3000);
    expect(before).toMatchObject({ playing: true, speed: 1, loop: null, looping: false, night: 'tonight' });
    expect(go(1000).place - before.place).toBeCloseTo(1e6, -5);
  });

  it('leaves the song where it stood, at the same bar', () => {
    const { playback } = played(show);
    playback.speed(0.5);
    playback.select(first.id, bar(6));
    playback.night('tonight', []);
    const { transport } = playback.session;
    expect(transport.kind === 'stopped' && transport.place).toBeCloseTo(microsAt(songTime(first), bar(6)), 3);
  });

  it('has a list of its own of what was played, apart from the rehearsal', () => {
    const { playback, go } = played(show);
    playback.play(first.id, 0);
    go(3000);
    playback.night('tonight', []);
    expect(go(50)).toMatchObject({ history: [], queued: null, canGoBack: false });
    playback.play(songOf(1).id, 0);
    go(3000);
    playback.stop();
    expect(go(50).history.map((p) => p.songId)).toEqual([songOf(1).id]);
    playback.night(null, []);
    expect(go(50)).toMatchObject({ night: null, history: [] });
  });
});

describe('a start that is taken back', () => {
  it('is struck, and only that one', () => {
    const { playback, go } = played(show);
    playback.play(first.id, 0);
    go(3000);
    playback.play(songOf(3).id, 0);
    go(2000);
    playback.back();
    const { history } = go(50);
    expect(history.map((p) => [p.songId, p.struck])).toEqual([
      [first.id, false],
      [songOf(3).id, true],
    ]);
    expect(history[1]!.until).not.toBeNull();
  });
});

/** What a session would be remembered by at this moment. */
function rememberedOf({ playback, now }: ReturnType<typeof played>): Remembered {
  const { session } = playback;
  const time = songTime(session.song!);
  const at = Math.max(0, ticksAt(time, placeIn(session, now()).place));
  const { tick } = barOfTick(time.bars, Math.min(at, time.end - 1));
  const { night, history, entryId, queued } = session;
  return { night, history, songId: session.song!.id, entryId, queued, place: tick };
}

describe('a session that is remembered', () => {
  it('sends nothing by itself, and goes on at its bar by the next press to play, with the whole rig', () => {
    const before = played(show);
    before.playback.night('tonight', []);
    before.playback.play(first.id, 0, entries[0]!.id);
    before.playback.queue(entries[4]!.id);
    before.go(9000);
    const remembered = rememberedOf(before);
    expect(remembered.place).toBeGreaterThan(bar(2));

    const { playback, go, out, standIns } = played(show);
    playback.remember(remembered);
    expect(go(500)).toMatchObject({ playing: false, night: 'tonight', queued: entries[4]!.id, songId: first.id });
    expect(out()).toEqual([]);
    expect(playback.session.history).toHaveLength(1);
    // As a foot switch asks for it.
    playback.play(first.id, remembered.place, remembered.entryId);
    while (
      placeIn(playback.session, go(8) && playback.now()).place <
      microsAt(songTime(first), remembered.place) + 5e4
    );
    expectSame(stateAt(show, first, remembered.place), standIns.state());
    expect(playback.session.history.map((p) => p.songId)).toEqual([first.id, first.id]);
  });

  it('is nothing that is no longer in the show, and never in the place of what plays', () => {
    const gone: Remembered = {
      night: null,
      history: [],
      songId: 'gone',
      entryId: 'gone',
      place: 0,
      queued: 'gone',
    };
    const { playback, go } = played(show);
    playback.remember(gone);
    expect(go(50)).toMatchObject({ songId: null, entryId: null, queued: null });
    playback.play(first.id, bar(3));
    go(1500);
    playback.remember({ ...gone, songId: songOf(2).id, place: 960 });
    expect(go(50)).toMatchObject({ songId: first.id, playing: true });
  });

  it('is back whole wherever it was ended: no unit is left on another sound', () => {
    let tried = 0;
    fc.assert(
      fc.property(fc.nat({ max: entries.length - 1 }), fc.double({ min: 0, max: 1, noNaN: true }), (i, share) => {
        const song = songOf(i);
        const before = played(show);
        before.playback.play(song.id, Math.floor(songTime(song).end * share * 0.98), entries[i]!.id);
        before.go(700);
        const remembered = rememberedOf(before);
        const { playback, go, standIns } = played(show);
        playback.remember(remembered);
        playback.play(song.id, remembered.place, remembered.entryId);
        const from = microsAt(songTime(song), remembered.place);
        for (let n = 0; n < 4000 && placeIn(playback.session, playback.now()).place < from + 2e4; n++) go(8);
        expectSame(stateAt(show, song, remembered.place + 1), standIns.state());
        tried += 1;
      }),
      runs(25_001, 30),
    );
    expect(tried).toBeGreaterThan(0);
  });
});
