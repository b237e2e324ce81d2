import { describe, expect, it } from 'vitest';
import { demoShow } from '../core/demo';
import { barAt } from '../core/time';
import { applyEdit, renameTone, setClock, setSongField, setUnitField, songTime, type Show } from '../core/show';
import type { MonitorLine, Outgoing, PlaybackNews } from '../playback';
import { monitorWords } from '../wording';
import { updateOf } from './showMirror';
import { PlaybackHost, paced } from './playbackHost';

const show = demoShow();
const song = show.songs[0]!;
/** A bar of 7/8 at 126. */
const BAR_MILLIS = (7 * 30_000) / 126;

/** A playback with a clock that goes on by hand. */
function playback(s: Show = show) {
  let now = 5e6;
  let wake = (): void => undefined;
  const news: PlaybackNews[] = [];
  const lines: MonitorLine[] = [];
  const handedUntil: Outgoing[] = [];
  const p = new PlaybackHost({ now: () => now, every: (_, run) => (wake = run) });
  p.update(updateOf(undefined, s));
  p.listen(
    (n) => news.push(n),
    (batch) => lines.push(...batch),
    () => undefined,
    (batch) => handedUntil.push(...batch),
    () => undefined,
  );
  const go = (millis: number): PlaybackNews => {
    for (const end = now + millis * 1000; now < end;) {
      now += 8000;
      wake();
    }
    return news.at(-1)!;
  };
  const sent = (unitPort: string): readonly (readonly number[])[] =>
    lines.filter((l) => l.direction === 'out' && l.portId === unitPort).map((l) => l.bytes);
  return { p, go, lines, sent, handedUntil };
}
const bar = (n: number): number => barAt(songTime(song).bars, n).tick;

describe('a lane that is muted', () => {
  it('is sent nothing from then on, and caught up when it is heard again', () => {
    const { p, go } = playback();
    p.play(song.id, bar(4));
    expect(go(BAR_MILLIS * 0.5).rig.quillback).toMatchObject({ slot: 2, variant: 0 });
    p.lanes(['quillback'], []);
    // Bar 5 has another scene, bar 9 another preset: neither is sent.
    const deaf = go(BAR_MILLIS * 6);
    expect(deaf.rig.quillback).toMatchObject({ slot: 2, variant: 0 });
    // The amplifier hangs on its relay rules, the reverb does not.
    expect(deaf.rig.oxbow!.slot).toBe(0);
    expect(deaf.rig.tarn!.slot).toBe(0);
    p.lanes([], []);
    expect(go(600).rig).toMatchObject({ quillback: { slot: 6, variant: 1 }, oxbow: { slot: 2 } });
  });

  it('changes nothing while nothing plays', () => {
    const { p, go, lines } = playback();
    p.lanes(['quillback', 'tarn'], []);
    p.lanes([], []);
    go(500);
    expect(lines).toEqual([]);
  });
});

describe('a pedal that is recorded', () => {
  const treadle = show.units.find((u) => u.id === 'treadle')!;
  const pedal = treadle.profile.senders.find((s) => s.encoding.kind === 'continuous')!;
  const other = treadle.profile.senders.find((s) => s !== pedal && s.encoding.kind === 'continuous')!;

  it('is kept in song time, as a share of its way, while the song plays', () => {
    const { p, go } = playback();
    p.record({ unitId: 'treadle', senderId: pedal.id });
    p.touch('treadle', pedal.id, 0.5);
    go(400);
    expect(p.recorded()).toEqual([]);
    p.play(song.id, 0);
    go(2000);
    const { low, high } = pedal.encoding.kind === 'continuous' ? pedal.encoding : { low: 0, high: 1 };
    p.touch('treadle', pedal.id, low);
    go(500);
    p.touch('treadle', pedal.id, high);
    p.touch('treadle', other.id, high);
    go(500);
    const points = p.recorded();
    expect(points.map((x) => Math.round(x.share * 100))).toEqual([0, 100]);
    expect((points[1]!.at - points[0]!.at) / 1000).toBeGreaterThan(450);
    expect((points[1]!.at - points[0]!.at) / 1000).toBeLessThan(550);
  });

  it('begins anew with the next recording, and is left alone after the last', () => {
    const { p, go } = playback();
    p.play(song.id, 0);
    p.record({ unitId: 'treadle', senderId: pedal.id });
    go(300);
    p.touch('treadle', pedal.id, 1);
    go(300);
    p.record(null);
    p.touch('treadle', pedal.id, 0);
    go(300);
    expect(p.recorded()).toHaveLength(1);
    p.record({ unitId: 'treadle', senderId: pedal.id });
    expect(p.recorded()).toEqual([]);
  });
});

describe('MIDI clock', () => {
  const clocked = applyEdit(show, setClock(show, song.id, 'rack', 'clock')!);
  const realTime = (list: readonly (readonly number[])[]): number[] =>
    list.filter((b) => b[0]! >= 0xf8 || b[0] === 0xf2).map((b) => b[0]!);

  it('starts with the song and stops with it', () => {
    const { p, go, sent } = playback(clocked);
    p.play(song.id, 0);
    go(4000);
    const running = realTime(sent('rack'));
    expect(running[0]).toBe(0xfa);
    // Twenty-four to a quarter at 126, from where the song begins.
    const clocks = running.filter((b) => b === 0xf8).length;
    expect(clocks).toBeGreaterThan(3 * 2.1 * 24 * 0.9);
    expect(running.slice(1).every((b) => b === 0xf8)).toBe(true);
    p.stop();
    go(200);
    expect(realTime(sent('rack')).at(-1)).toBe(0xfc);
    const quiet = sent('rack').length;
    go(1000);
    expect(sent('rack')).toHaveLength(quiet);
  });

  it('goes on from a place with the song position and "continue"', () => {
    const { p, go, sent } = playback(clocked);
    p.play(song.id, bar(9));
    go(2000);
    const list = sent('rack').filter((b) => b[0]! >= 0xf8 || b[0] === 0xf2);
    const position = list.find((b) => b[0] === 0xf2)!;
    // Eight bars of seven eighths are 112 sixteenths.
    expect(position[1]! + position[2]! * 128).toBe(112);
    const kinds = list.map((b) => b[0]);
    expect(kinds).toContain(0xfb);
    expect(kinds).not.toContain(0xfa);
    expect(kinds.indexOf(0xf2)).toBeLessThan(kinds.indexOf(0xfb));
  });

  it('stops for a song that takes the place of another', () => {
    const { p, go, sent } = playback(clocked);
    p.play(song.id, 0);
    go(3000);
    p.play(show.songs[2]!.id, 0);
    go(1000);
    expect(realTime(sent('rack')).at(-1)).toBe(0xfc);
  });
});

describe('a count-in', () => {
  it('is time before bar 1 in which only the opening leaves', () => {
    const click = { ...song.click, countIn: 2 };
    const counted = applyEdit(show, setSongField(show, song.id, 'click', click)!);
    const { p, go, lines } = playback(counted);
    p.play(song.id, 0);
    const first = go(200);
    expect(first.playing).toBe(true);
    expect(first.place).toBeLessThan(-2 * BAR_MILLIS * 1000 + 1.5e6);
    go(BAR_MILLIS);
    expect(lines.filter((l) => l.direction === 'out')).toEqual([]);
    const later = go(BAR_MILLIS + 1500);
    expect(later.place).toBeGreaterThan(0);
    expect(later.rig.quillback!.slot).toBe(2);
  });
});

describe('the playback with stand-ins', () => {
  it('starts with a rig that nobody knows', () => {
    const { go } = playback();
    expect(go(10)).toMatchObject({ playing: false, songId: null });
    expect(go(10).rig.quillback).toMatchObject({ slot: null, variant: null });
  });

  it('plays a song from its start: the opening first', () => {
    const { p, go } = playback();
    p.play(song.id, 0);
    const first = go(300);
    expect(first).toMatchObject({ playing: true, songId: song.id });
    const later = go(700);
    expect(later.rig.quillback).toMatchObject({ slot: 2, variant: 0 });
    expect(later.rig.oxbow).toMatchObject({ slot: 0 });
  });

  it('plays from the middle: what was before is caught up, then cues come at their time', () => {
    const { p, go } = playback();
    // Half a bar before bar 9; a bar of 7/8 at 126 takes 1.67 s.
    p.play(song.id, 8 * 7 * 480 - 1680);
    const before = go(400);
    expect(before.place).toBeGreaterThan(0);
    expect(before.rig.quillback).toMatchObject({ slot: 2, variant: 1 });
    expect(go(1300).rig.quillback).toMatchObject({ slot: 6, variant: 1 });
  });

  it('stops where it is, and by itself at the end', () => {
    const { p, go } = playback();
    p.play(song.id, 0);
    go(2000);
    p.stop();
    const stopped = go(100);
    expect(stopped.playing).toBe(false);
    expect(stopped.place).toBeGreaterThan(1e6);
    p.play(song.id, 43 * 7 * 480);
    expect(go(60_000)).toMatchObject({ playing: false });
  });

  it('sends what is tried at once, also what is on already', () => {
    const { p, go } = playback();
    const sent = p.audition('quillback', { slot: 47, controls: {} });
    expect(sent.map((e) => e.bytes)).toEqual([
      [0xb0, 0, 0],
      [0xc0, 47],
    ]);
    expect(go(50).loading).toEqual(['quillback']);
    expect(go(300).rig).toMatchObject({ quillback: { slot: 47 }, oxbow: { slot: 3 } });
    expect(p.audition('quillback', { slot: 47, controls: {} }).map((e) => e.bytes)).toEqual([[0xc0, 47]]);
    expect(p.audition('oxbow', { slot: 1, controls: {} })).toEqual([]);
  });

  it('keeps what the rig is on while names change, and forgets it for a unit that changes', () => {
    const { p, go } = playback();
    p.audition('quillback', { slot: 47, controls: {} });
    go(300);
    const renamed = applyEdit(show, renameTone(show, 'undertow', 'Rip')!);
    p.update(updateOf(show, renamed));
    expect(go(20).rig.quillback!.slot).toBe(47);
    p.update(updateOf(renamed, applyEdit(renamed, setUnitField(renamed, 'tarn', 'listens', 9)!)));
    const changed = go(20).rig;
    expect(changed.quillback!.slot).toBe(47);
    expect(changed.tarn!.slot).toBeNull();
    const deaf = {
      ...renamed,
      units: renamed.units.map((u) => (u.id === 'quillback' ? { ...u, listens: 16 as const } : u)),
    };
    p.update(updateOf(renamed, deaf));
    expect(go(20).rig.quillback!.slot).toBeNull();
  });

  it('walks through places, one every so often, and stops when told', () => {
    const { p, go } = playback();
    const aims = [46, 47, 48].map((slot) => ({ slot, controls: {} }));
    p.walk({ unitId: 'quillback', aims, everyMillis: 1000 });
    expect(go(500)).toMatchObject({ walk: { unitId: 'quillback', at: 0, count: 3 }, rig: { quillback: { slot: 46 } } });
    expect(go(1000).rig.quillback!.slot).toBe(47);
    expect(go(1000).rig.quillback!.slot).toBe(48);
    expect(go(1000).walk).toBeNull();
    p.walk({ unitId: 'quillback', aims, everyMillis: 1000 });
    go(100);
    p.stopWalk();
    expect(go(3000)).toMatchObject({ walk: null, rig: { quillback: { slot: 46 } } });
  });

  it('sends a lesson again and again until the unit has learnt it, which does not obey it', () => {
    const { p, go } = playback();
    const mix = [0xb6, 71, 127];
    p.teach({ unitId: 'tarn', messages: [mix] });
    expect(go(60).lesson).toEqual({ unitId: 'tarn', sent: 1, learnt: mix });
    expect(go(2000).lesson!.sent).toBe(1);
    expect(go(10).rig.tarn!.controls).toEqual({});
    p.teach({ unitId: 'tarn', messages: [[0xb1, 71, 127]] });
    // On another channel it never gets there, and the lesson goes on.
    expect(go(2100).lesson).toMatchObject({ sent: 6, learnt: null });
    p.stopTeaching();
    expect(go(100).lesson).toBeNull();
  });

  it('lists everything that leaves and arrives, with what it means', () => {
    const { p, go, lines } = playback();
    p.audition('quillback', { slot: 47, controls: {} });
    go(200);
    const words = () => lines.map((l) => `${l.direction} ${monitorWords(show, l)}`);
    expect(words()).toEqual(['out Quillback: bank select 0 (from 0)', 'out Quillback: preset H6, Fog Lead']);
    const pebble = show.units.find((u) => u.id === 'pebble')!;
    p.touch('pebble', pebble.profile.senders[0]!.id, 0);
    go(200);
    expect(words().slice(-2).join()).toContain(`in Pebble: ${pebble.profile.senders[0]!.name}`);
    expect(lines.map((l) => l.number)).toEqual(lines.map((_, i) => i + 1));
  });
});

describe('what is told to a page that is busy', () => {
  it('is the newest, once it has taken what it was told before', async () => {
    const told: number[] = [];
    const taken: (() => void)[] = [];
    const tell = paced((n: number) => {
      told.push(n);
      return new Promise<void>((done) => taken.push(done));
    });
    const settle = (): Promise<void> => new Promise((done) => setTimeout(done));
    for (const n of [1, 2, 3]) tell(n);
    expect(told).toEqual([1]);
    taken[0]!();
    await settle();
    expect(told).toEqual([1, 3]);
    tell(4);
    taken[1]!();
    await settle();
    expect(told).toEqual([1, 3, 4]);
  });

  it('is told at once where nothing is to be waited for', () => {
    const told: number[] = [];
    const tell = paced((n: number) => void told.push(n));
    for (const n of [1, 2, 3]) tell(n);
    expect(told).toEqual([1, 2, 3]);
  });
});
