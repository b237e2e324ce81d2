import { describe, expect, it } from 'vitest';
import { stateAt } from '../core/compile';
import { demoShow } from '../core/demo';
import { controlChange, noteOff, noteOn, type Bytes } from '../core/midi';
import type { Profile } from '../core/addressing';
import {
  applyEdit,
  microsAt,
  newPart,
  newTone,
  setPortField,
  songTime,
  toneCue,
  type Reaction,
  type Show,
  type Song,
  type Tone,
} from '../core/show';
import { expectSame } from '../core/testing/expectSame';
import { barAt } from '../core/time';
import { REAL_AHEAD, placeIn } from './sessionState';
import { played } from './testing/played';

const demo = demoShow();
const song = demo.songs[0]!;
/** A bar of 7/8 at 126. */
const BAR = (7 * 30_000) / 126;
const bar = (n: number): number => barAt(songTime(song).bars, n).tick;

const reaction = (id: string, does: Reaction['does'], hears: Partial<Reaction['hears']> = {}): Reaction => ({
  id,
  name: '',
  on: true,
  songId: null,
  hears: { portId: 'pads', kind: 'note', channel: null, number: 36, low: 1, high: 127, ...hears },
  swallow: true,
  does,
});
const withReactions = (...reactions: readonly Reaction[]): Show => ({ ...demo, reactions });
const PAD = noteOn(10, 36, 100);
const pedal = { portId: 'feet', kind: 'control', number: 11, low: 0 } as const;

describe('a message that arrives', () => {
  it('plays, stops, and steps through the changes of a song', () => {
    const step = reaction('next', { kind: 'session', act: 'next-change' }, { number: 37 });
    const show = withReactions(reaction('play', { kind: 'session', act: 'play-or-stop' }), step);
    const { arrive, go, standIns, playback } = played(show);
    arrive('pads', PAD);
    expect(go(200)).toMatchObject({ playing: true, songId: show.songs[0]!.id });
    arrive('pads', PAD);
    expect(go(50).playing).toBe(false);
    playback.select(song.id, 0);
    go(1000);
    for (let i = 0; i < 3; i++) {
      arrive('pads', noteOn(10, 37, 1));
      go(1000);
    }
    const places = [...new Set(song.cues.map((c) => c.at))].filter((at) => at > 0);
    expectSame(stateAt(show, song, places[2]!), standIns.state());
  });

  it('goes to a tone, and says so with its place', () => {
    const show = withReactions(reaction('fog', { kind: 'tone', toneId: 'fog-lead' }));
    const { arrive, go, events, playback } = played(show);
    playback.play(song.id, bar(4));
    go(BAR);
    arrive('pads', PAD);
    go(8);
    expect(events.find((e) => e.kind === 'pressed')).toMatchObject({ toneId: 'fog-lead', songId: song.id });
    expect(go(500).rig.quillback!.slot).toBe(47);
  });

  it('plays a move, a sample, starts, queues and chooses songs', () => {
    const [, other] = demo.songs;
    const all = [
      reaction('move', { kind: 'move', moveId: 'four-taps' }, { number: 40 }),
      reaction('sample', { kind: 'sample', audioId: 'gull', gain: -3 }, { number: 41 }),
      reaction('start', { kind: 'song', songId: other!.id, how: 'start' }, { number: 42 }),
      reaction('queue', { kind: 'song', songId: other!.id, how: 'queue' }, { number: 43 }),
      reaction('select', { kind: 'song', songId: other!.id, how: 'select' }, { number: 44 }),
    ];
    const { arrive, go, events, out } = played(withReactions(...all));
    arrive('pads', noteOn(10, 40, 1));
    go(3000);
    const taps = out().filter((l) => l.bytes[0]! >> 4 === 0xb && l.bytes[1] === 93);
    expect(taps).toHaveLength(4);
    // A beat apart, at the tempo of nothing that plays: 120.
    expect(taps[1]!.at - taps[0]!.at).toBeCloseTo(500_000, -3);
    arrive('pads', noteOn(10, 41, 1));
    expect(events.at(-1)).toEqual({ kind: 'sample', audioId: 'gull', gain: -3 });
    arrive('pads', noteOn(10, 43, 1));
    expect(go(50)).toMatchObject({ queued: expect.any(String) as string, playing: false });
    arrive('pads', noteOn(10, 44, 1));
    expect(go(50)).toMatchObject({ songId: other!.id, playing: false });
    arrive('pads', noteOn(10, 42, 1));
    expect(go(50)).toMatchObject({ songId: other!.id, playing: true });
  });

  it('does nothing from a port that is switched off', () => {
    const show = withReactions(reaction('play', { kind: 'session', act: 'play' }));
    const { arrive, go } = played(applyEdit(show, setPortField(show, 'pads', 'active', false)!));
    arrive('pads', PAD);
    expect(go(100).playing).toBe(false);
  });

  it('is cut out of whatever comes: running status, real-time bytes within, exclusive without end', () => {
    const show = withReactions(reaction('fog', { kind: 'tone', toneId: 'fog-lead' }));
    const { arrive, events } = played(show);
    const pressed = (): number => events.filter((e) => e.kind === 'pressed').length;
    arrive('pads', [0x99, 36, 0xf8, 9, 36, 0, 36]);
    arrive('pads', [9]);
    expect(pressed()).toBe(2);
    arrive('pads', [0xf0, 1, 2, 3]);
    arrive('pads', Array<number>(5000).fill(5));
    arrive('pads', [0x99, 36, 9, 255, 254, 1, 2, 3]);
    expect(pressed()).toBe(3);
  });
});

describe('a port that passes on', () => {
  const thru = (show: Show): Show => applyEdit(show, setPortField(show, 'pads', 'softThru', true)!);
  const sentOn = (lines: readonly { portId: string; bytes: Bytes }[]) =>
    lines.filter((l) => l.portId === 'pads').map((l) => l.bytes);

  it('sends out again what nobody swallowed: neither a trigger nor its end', () => {
    const show = thru(withReactions(reaction('play', { kind: 'session', act: 'panic' })));
    const { arrive, go, out } = played(show);
    for (const bytes of [PAD, noteOff(10, 36), noteOn(10, 50, 9), noteOff(10, 50)]) arrive('pads', bytes);
    go(200);
    expect(sentOn(out())).toEqual([noteOn(10, 50, 9), noteOff(10, 50)]);
  });

  it('leaves out what is more than a cable carries, says so once, and goes on playing', () => {
    const show = thru({
      ...withReactions(),
      ports: demo.ports.map((p) => (p.id === 'pads' ? { ...p, cable: 'din' as const } : p)),
    });
    const { arrive, go, out, events, playback, now } = played(show);
    playback.play(song.id, bar(4));
    for (let i = 0; i < 500; i++) {
      for (let k = 0; k < 40; k++) arrive('pads', controlChange(1, k, i % 128));
      go(4);
    }
    expect(events.filter((e) => e.kind === 'flooded')).toHaveLength(1);
    const passed = out().filter((l) => l.portId === 'pads' && l.at <= now());
    // Two seconds of a cable that takes 1,041 control changes a second.
    expect(passed.length).toBeLessThan(2300);
    expect(passed.length).toBeGreaterThan(1500);
    for (let i = 1; i < passed.length; i++) expect(passed[i]!.at - passed[i - 1]!.at).toBeGreaterThanOrEqual(959);
    expect(go(2000).rig.quillback).toMatchObject({ slot: 2, variant: 1 });
  });
});

describe('a pedal', () => {
  const wah = reaction(
    'wah',
    { kind: 'switch', unitId: 'tarn', controlId: 'active', above: 20, below: 5, millis: 100 },
    pedal,
  );
  const mix = reaction(
    'mix',
    { kind: 'control', unitId: 'quillback', controlId: 'level', curve: { from: -30, to: 6, bend: 'straight' } },
    pedal,
  );

  it('throws a switch when it has stood there long enough', () => {
    const { arrive, go } = played(withReactions(wah));
    arrive('feet', controlChange(1, 11, 90));
    expect(go(60).rig.tarn!.controls.active).not.toBe(1);
    expect(go(80).rig.tarn!.controls.active).toBe(1);
    arrive('feet', controlChange(1, 11, 0));
    expect(go(150).rig.tarn!.controls.active).toBe(0);
  });

  it('moves a control, which goes back when the tone changes', () => {
    const control = demo.units.find((u) => u.id === 'quillback')!.profile.controls.find((c) => c.id === 'level')!;
    const { arrive, go, playback } = played(withReactions(mix));
    playback.play(song.id, bar(4));
    go(BAR * 0.5);
    arrive('feet', controlChange(1, 11, 127));
    expect(go(60).rig.quillback!.controls.level).toBeCloseTo(6, 0);
    // Bar 5 has another scene of the same preset.
    expect(go(BAR).rig.quillback!.controls.level).toBeCloseTo(control.rest!, 0);
  });
});

describe('what a pedal moved', () => {
  const along = { from: 0, to: 100, bend: 'straight' } as const;
  const moves = reaction('mix', { kind: 'control', unitId: 'quillback', controlId: 'delay-mix', curve: along }, pedal);
  const profileOf = (show: Show): Profile => show.units.find((u) => u.id === 'quillback')!.profile;
  /** The control has no rest of its own, and one preset is on all the time. */
  const restless = (value: number | null): Show => {
    const show = withReactions(moves);
    const profile = profileOf(show);
    const controls = profile.controls.map((c) => (c.id === 'delay-mix' ? { ...c, rest: null } : c));
    const units = show.units.map((u) => (u.id === 'quillback' ? { ...u, profile: { ...profile, controls } } : u));
    const slotId = show.units.find((u) => u.id === 'quillback')!.slots[0]!.id;
    const tone = (id: string, variant: number | null, mix: number | null): Tone =>
      newTone(id, id, [
        newPart('quillback', {
          slotId,
          variant,
          controls: mix === null ? [] : [{ controlId: 'delay-mix', value: mix }],
        }),
      ]);
    const made: Song = {
      ...song,
      opening: 'own',
      openingToneId: 'open',
      cues: [toneCue('a', bar(3), 'one'), toneCue('b', bar(5), 'two'), toneCue('c', bar(7), 'three')],
      sweeps: [],
    };
    const tones = [tone('open', 0, value), tone('one', 1, null), tone('two', 2, null), tone('three', 3, null)];
    return {
      ...show,
      units,
      tones: [...show.tones, ...tones],
      songs: show.songs.map((s) => (s.id === song.id ? made : s)),
    };
  };

  it('goes back to what the song wants of it, where the new tone says nothing of it', () => {
    const show = restless(30);
    const { arrive, go, playback, standIns } = played(show, REAL_AHEAD);
    playback.play(song.id, bar(2));
    go(BAR);
    for (const [bars, value] of [
      [1, 127],
      [2, 64],
      [2, 10],
    ] as const) {
      arrive('feet', controlChange(1, 11, value));
      go(100);
      expect(standIns.state().quillback!.controls['delay-mix']).toBeCloseTo(value / 1.27, 0);
      go(BAR * bars);
      expect(standIns.state().quillback!.controls['delay-mix']).toBeCloseTo(30, 0);
    }
  });

  it('goes back to what it was on before, where nothing is wanted of it', () => {
    const show = restless(null);
    const { arrive, go, playback, standIns } = played(show);
    playback.play(song.id, bar(2));
    go(BAR * 0.5);
    playback.audition('quillback', { controls: { 'delay-mix': 45 } });
    go(100);
    arrive('feet', controlChange(1, 11, 127));
    go(BAR * 2);
    expect(standIns.state().quillback!.controls['delay-mix']).toBeCloseTo(45, 0);
  });

  it('goes back each time a loop comes round', () => {
    const { arrive, go, playback, standIns } = played(restless(30));
    const loop = { songId: song.id, from: bar(2), to: bar(4) };
    playback.play(song.id, bar(2), null, { speed: 1, loop });
    go(BAR * 0.5);
    for (let round = 0; round < 3; round++) {
      arrive('feet', controlChange(1, 11, 127));
      go(BAR * 2);
      expect(standIns.state().quillback!.controls['delay-mix']).toBeCloseTo(30, 0);
    }
  });

  it('is reached also by a unit that settles just then', () => {
    const { arrive, go, playback, standIns } = played(withReactions(moves));
    arrive('feet', controlChange(1, 11, 127));
    go(100);
    // Another preset: it brings its own value, and the tone wants one of its own on top.
    const wants = demo.tones.find((t) =>
      t.parts.some((p) => p.unitId === 'quillback' && p.slotId && p.controls.some((c) => c.controlId === 'delay-mix')),
    )!;
    playback.tone(wants.id);
    go(1500);
    const value = wants.parts.find((p) => p.unitId === 'quillback')!.controls.find((c) => c.controlId === 'delay-mix')!;
    expect(standIns.state().quillback!.controls['delay-mix']).toBeCloseTo(value.value, 0);
  });
});

describe('a clock from outside', () => {
  const show: Show = {
    ...demo,
    songs: demo.songs.map((s) => (s.id === song.id ? { ...s, followsPortId: 'pads' } : s)),
  };
  const period = (bpm: number): number => 60e6 / (24 * bpm);

  /** A song that follows clocks; each at its time, however the playback is woken. */
  function following(ahead?: number) {
    const p = played(show, ahead);
    let next = p.now();
    const run = (bpm: number, clocks: number, shake = 0): void => {
      for (let i = 0; i < clocks; i++) {
        next += period(bpm);
        if (next > p.now()) p.go((next - p.now()) / 1000);
        p.arrive('pads', [0xf8], next + (i % 2 === 0 ? shake : -shake));
      }
    };
    const begin = (): void => {
      next = p.now();
      p.arrive('pads', [0xfa]);
    };
    /** Where the song is against where the clock is, in milliseconds at a tempo. */
    const off = (clocks: number, bpm: number): number => {
      p.go(8);
      const tick = (clocks - 1) * 40 + ((p.now() - next) / period(bpm)) * 40;
      return ((placeIn(p.playback.session, p.now()).place - microsAt(songTime(song), tick)) * (126 / bpm)) / 1000;
    };
    const again = (): void => void (next = p.now());
    return { ...p, run, begin, off, again };
  }

  it('starts the song that is gone to, and its changes land along the clock', () => {
    for (const ahead of [undefined, REAL_AHEAD]) {
      const { playback, begin, run, go, standIns } = following(ahead);
      playback.select(song.id, 0);
      go(1500);
      begin();
      // Slower than written: 100 in place of 126. Bar 5 begins after 4 bars of 84 clocks.
      run(100, 4 * 84 + 8);
      expect(go(8)).toMatchObject({ playing: true, songId: song.id });
      expectSame(stateAt(show, song, bar(5)), standIns.state());
    }
  });

  it('leads no longer where the lead was taken from it, and again where it was given back', () => {
    const { playback, begin, run, off, go, arrive } = following(REAL_AHEAD);
    playback.select(song.id, 0);
    go(1500);
    begin();
    run(126, 100);
    playback.beLed(false);
    // Our own clock goes on at the tempo that it had: the other one may run away, and stop.
    run(160, 100);
    expect(Math.abs(off(200, 126))).toBeGreaterThan(100);
    arrive('pads', [0xfc]);
    expect(go(50).playing).toBe(true);
    playback.stop();
    playback.select(song.id, 0);
    begin();
    run(126, 10);
    expect(go(8).playing).toBe(false);
    playback.beLed(true);
    begin();
    run(126, 100);
    expect(go(8)).toMatchObject({ playing: true, isLed: true });
  });

  it('is followed through another tempo and a shaking cable', () => {
    const { playback, begin, run, off, go, events } = following(REAL_AHEAD);
    playback.select(song.id, 0);
    go(1500);
    begin();
    run(126, 200, 500);
    expect(Math.abs(off(200, 126))).toBeLessThan(3);
    run(140, 160, 500);
    expect(Math.abs(off(360, 140))).toBeLessThan(3);
    expect(events.filter((e) => e.kind === 'clock')).toEqual([]);
  });

  it('stops it, and has it go on from a position', () => {
    const { playback, begin, run, go, arrive, standIns } = following();
    playback.select(song.id, 0);
    go(1500);
    begin();
    run(126, 100);
    arrive('pads', [0xfc]);
    expect(go(50).playing).toBe(false);
    // Bar 9: eight bars of 14 sixteenths.
    arrive('pads', [0xf2, 8 * 14, 0]);
    arrive('pads', [0xfb]);
    go(0);
    run(126, 30);
    expect(go(400).playing).toBe(true);
    expectSame(stateAt(show, song, bar(9) + 1), standIns.state());
  });

  it.each([
    [4 * 84 - 20, 60],
    [4 * 84 - 20, 100],
    [8 * 84 - 20, 60],
    [8 * 84 - 20, 100],
    [8 * 84 - 4, 110],
  ])('does not take back what was sent ahead when it slows down before the beat (clock %s, to %s)', (clocks, bpm) => {
    const { playback, begin, run, go, out, now, standIns } = following(REAL_AHEAD);
    playback.select(song.id, 0);
    go(1500);
    begin();
    run(126, clocks);
    const from = now() - 1e6;
    run(bpm, 80);
    go(300);
    const sent = new Map<string, number[]>();
    for (const { portId, at, bytes } of out()) {
      const kind = bytes[0]! >> 4;
      if (at < from || (kind !== 0xb && kind !== 0xc)) continue;
      const [key, value] = kind === 0xc ? [`${bytes[0]}`, bytes[1]!] : [`${bytes[0]} ${bytes[1]}`, bytes[2]!];
      sent.set(`${portId} ${key}`, [...(sent.get(`${portId} ${key}`) ?? []), value]);
    }
    // New, old, new: no unit goes to and fro.
    for (const values of sent.values()) expect(values, values.join(' ')).toEqual([...new Set(values)]);
    expectSame(stateAt(show, song, (clocks + 79) * 40), standIns.state());
  });

  it('that falls silent is said, and the song plays on; and it is said when it is back', () => {
    const { playback, begin, run, go, events, now, again } = following();
    playback.select(song.id, 0);
    go(1500);
    begin();
    run(126, 60);
    go(700);
    const place = (): number => placeIn(playback.session, now()).place;
    const before = place();
    expect(events.at(-1)).toEqual({ kind: 'clock', what: 'lost', portId: 'pads' });
    go(500);
    expect(place() - before).toBeCloseTo(500_000, -4);
    again();
    run(126, 30);
    expect(events.filter((e) => e.kind === 'clock').map((e) => e.what)).toEqual(['lost', 'back']);
    expect(go(50).playing).toBe(true);
  });

  it('that wobbles is said', () => {
    const { playback, begin, run, go, events } = following();
    playback.select(song.id, 0);
    go(1500);
    begin();
    for (let i = 0; i < 6; i++) run(i % 2 === 0 ? 120 : 126, 24);
    expect(events.filter((e) => e.kind === 'clock').map((e) => e.what)).toEqual(['wobbles']);
  });
});
