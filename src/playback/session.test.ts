import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoShow } from '../core/demo';
import { compileSong, stateAt } from '../core/compile';
import {
  applyEdit,
  changeCue,
  nameSlot,
  placeCue,
  removeCues,
  setClock,
  setSongField,
  setTonePart,
  songTime,
  toneCue,
  type Show,
  type Song,
  inOrder,
} from '../core/show';
import { expectSame } from '../core/testing/expectSame';
import { randomShow } from '../core/testing/randomShow';
import { runs } from '../core/testing/runs';
import type { RigState } from '../core/rig';
import { barAt } from '../core/time';
import { LOOK_AHEAD, REAL_AHEAD } from './sessionState';
import { played } from './testing/played';

const show = demoShow();
const song = show.songs[0]!;
/** A bar of 7/8 at 126. */
const BAR = (7 * 30_000) / 126;
const bar = (n: number): number => barAt(songTime(song).bars, n).tick;
const cueAt = (n: number) => song.cues.find((c) => c.at === bar(n))!;

describe('an edit of the song that plays', () => {
  it('ahead of the playhead: the cue leaves for its new place, and nothing else changes', () => {
    const { playback, edit, go, out, events } = played(show);
    playback.play(song.id, bar(4));
    go(BAR * 0.5);
    const before = out().length;
    edit(applyEdit(show, changeCue(show, song.id, cueAt(5).id, { at: bar(6) })!));
    go(50);
    expect(out()).toHaveLength(before);
    expect(events.at(-1)).toEqual({ kind: 'replanned', songId: song.id });
    expect(go(BAR).rig.quillback).toMatchObject({ slot: 2, variant: 0 });
    expect(go(BAR).rig.quillback).toMatchObject({ slot: 2, variant: 1 });
  });

  it('at the playhead: a cue that is placed where it has just gone by is caught up at once', () => {
    const { playback, edit, go, standIns } = played(show);
    playback.play(song.id, bar(4));
    go(BAR * 0.6);
    expect(standIns.state().quillback).toMatchObject({ slot: 2, variant: 0 });
    edit(applyEdit(show, placeCue(show, song.id, toneCue('now', bar(4) + 480, 'fog-lead'))!));
    go(400);
    expect(standIns.state().quillback).toMatchObject({ slot: 47 });
  });

  it('behind the playhead: what sounds now because of it changes, what was sent for the next cue stays', () => {
    const { playback, edit, go, standIns, out } = played(show);
    playback.play(song.id, bar(8));
    // Until the preset of bar 9 is on its way; then the cue of bar 5 goes.
    const called = () => out().filter((l) => l.bytes.join(' ') === '192 6').length;
    for (let i = 0; i < 400 && called() === 0; i++) go(8);
    expect(called()).toBe(1);
    edit(applyEdit(show, removeCues(show, song.id, new Set([cueAt(5).id]))!));
    go(300);
    // It is not called back, nor sent twice.
    expect(called()).toBe(1);
    expect(standIns.state().quillback!.slot).toBe(6);
  });

  it('of the tone that is on: every unit of it follows at once', () => {
    const { playback, edit, go, standIns } = played(show);
    playback.play(song.id, bar(6));
    go(BAR * 0.5);
    const tone = show.tones.find((t) => t.id === cueToneAt(5))!;
    const part = tone.parts.find((p) => p.unitId === 'quillback')!;
    edit(applyEdit(show, setTonePart(show, tone.id, 'quillback', { ...part, slotId: slot(47) })!));
    go(400);
    expect(standIns.state().quillback!.slot).toBe(47);
  });

  it('never parts a bank select from its program', () => {
    // A bar of count-in: there is time before the song in which it is edited.
    const click = { ...song.click, countIn: 1 };
    const late = {
      ...song,
      click,
      openingToneId: null,
      opening: 'own' as const,
      cues: [toneCue('late', bar(9), 'fog-lead')],
    };
    const before: Show = { ...show, songs: show.songs.map((s) => (s === song ? late : s)) };
    const after = applyEdit(before, changeCue(before, song.id, 'late', { at: 0 })!);
    const { events } = compileSong(after, after.songs[0]!);
    const { playback, edit, go, standIns, now } = played(before);
    playback.play(song.id, 0);
    const { transport } = playback.session;
    if (transport.kind !== 'playing') throw new Error('it does not play');
    // Moved to the start when its bank select would have been handed over, and its program not yet.
    const bank = events.find((e) => e.unitId === 'quillback' && e.bytes[1] === 0)!;
    go((transport.zero + bank.at + 300 - LOOK_AHEAD - now()) / 1000);
    edit(after);
    go(2500);
    expect(standIns.state().quillback!.slot).toBe(47);
  });

  it('of its tempo: it goes on at the same bar and beat', () => {
    const { playback, edit, go } = played(show);
    playback.play(song.id, bar(4));
    const at = go(BAR * 0.5).place;
    const slow = applyEdit(show, setSongField(show, song.id, 'tempo', [{ ...song.tempo[0]!, bpm: 63 }])!);
    edit(slow);
    const place = go(8).place;
    // Half the tempo: the same tick lies twice as late.
    expect(Math.abs(place - 2 * at)).toBeLessThan(60_000);
  });

  it('that only names something sends nothing and plans nothing', () => {
    const { playback, edit, go, out, events } = played(show);
    playback.play(song.id, bar(4));
    go(BAR * 0.5);
    const before = out().length;
    edit(applyEdit(show, nameSlot(show, 'quillback', 2, 'Another name', 'x')!));
    go(100);
    expect(out()).toHaveLength(before);
    expect(events.some((e) => e.kind === 'replanned')).toBe(false);
  });

  it('that takes it away stops it', () => {
    const { playback, edit, go, events } = played(show);
    playback.play(song.id, 0);
    go(500);
    edit({ ...show, songs: show.songs.slice(1), ...inOrder([]) });
    expect(go(100)).toMatchObject({ playing: false, songId: null });
    expect(events.at(-1)).toEqual({ kind: 'stopped', why: 'gone' });
  });

  it('that gives it a clock lets units go on from where it is, and takes it from them again', () => {
    const { playback, edit, go, out } = played(show);
    playback.play(song.id, bar(4));
    go(BAR * 0.5);
    const clocked = applyEdit(show, setClock(show, song.id, 'rack', 'clock')!);
    edit(clocked);
    go(1000);
    const kinds = out()
      .map((l) => l.bytes[0]!)
      .filter((b) => b >= 0xf8 || b === 0xf2);
    expect(kinds.slice(0, 3)).toEqual([0xf2, 0xfb, 0xf8]);
    edit(show);
    go(400);
    const realTime = out().filter((l) => l.bytes[0]! >= 0xf8);
    expect(realTime.at(-1)!.bytes).toEqual([0xfc]);
  });

  it.each([
    ['stand-ins', LOOK_AHEAD, 77],
    ['real ports', REAL_AHEAD, 78],
  ])('leaves the rig, at the end, where the song as it is then wants it, on %s', (_, ahead, seed) => {
    const change = fc.record({
      what: fc.constantFrom('move', 'remove', 'tone', 'place'),
      which: fc.nat(40),
      to: fc.nat(20_000),
      after: fc.integer({ min: 10, max: 4000 }),
    });
    fc.assert(
      fc.property(randomShow({ gap: 480, shifts: true }), fc.array(change, { maxLength: 3 }), (made, changes) => {
        const { playback, edit, go, standIns } = played(made.show, ahead);
        let now: Show = made.show;
        playback.play(made.song.id, 0);
        for (const { what, which, to, after } of changes) {
          go(after);
          const next = edited(now, made.song.id, what, which, to);
          now = next;
          edit(next);
        }
        const end = now.songs.find((s) => s.id === made.song.id)!;
        for (let i = 0; i < 60 && go(1000).playing; i++);
        const { rig } = go(1500);
        expectSame(withoutFlips(stateAt(now, end, songTime(end).end + 96_000)), standIns.state());
        expectSame(standIns.state(), rig);
      }),
      runs(seed, 60),
    );
  });
});

const cueToneAt = (n: number): string => {
  const { action } = song.cues.filter((c) => c.at <= bar(n)).at(-1)!;
  return action.kind === 'tone' ? action.toneId : '';
};
const slot = (index: number): string =>
  show.units.find((u) => u.id === 'quillback')!.slots.find((s) => s.index === index)!.id;

function edited(now: Show, songId: string, what: string, which: number, to: number): Show {
  const own: Song = now.songs.find((s) => s.id === songId)!;
  const cue = own.cues[which % Math.max(1, own.cues.length)];
  const tone = now.tones[which % Math.max(1, now.tones.length)];
  const edit =
    what === 'move' && cue
      ? changeCue(now, songId, cue.id, { at: to })
      : what === 'remove' && cue
        ? removeCues(now, songId, new Set([cue.id]))
        : what === 'tone' && tone && tone.parts.length > 1
          ? setTonePart(now, tone.id, tone.parts[0]!.unitId, null)
          : tone
            ? placeCue(now, songId, toneCue(`new-${to}`, to, tone.id))
            : null;
  return edit ? applyEdit(now, edit) : now;
}

/** What only turns over may be in either state after an edit from a state that nobody knew. */
function withoutFlips(state: RigState): RigState {
  return Object.fromEntries(
    Object.entries(state).map(([id, s]) => {
      const { turn: _, ...controls } = s.controls;
      return [id, { ...s, controls }];
    }),
  );
}

describe('a machine that slept', () => {
  it('sends nothing of what is past, and catches the rig up', () => {
    const { playback, go, sleep, out, events, standIns } = played(show);
    playback.play(song.id, bar(4));
    go(BAR * 0.5);
    const before = out().length;
    sleep(BAR * 20);
    go(600);
    const end = Math.round(bar(4) + 20.5 * 7 * 480);
    expectSame(stateAt(show, song, end), standIns.state());
    expect(events.some((e) => e.kind === 'slept')).toBe(true);
    // Fewer than playing it would have taken.
    expect(out().length - before).toBeLessThan(30);
  });

  it('wakes after the song is over: stopped, and nothing is sent', () => {
    const { playback, go, sleep, out, events } = played(show);
    playback.play(song.id, 0);
    go(1000);
    const before = out().length;
    expect(sleep(3_600_000)).toMatchObject({ playing: false });
    go(200);
    expect(out()).toHaveLength(before);
    expect(events.map((e) => e.kind).slice(-2)).toEqual(['slept', 'stopped']);
  });
});

describe('a port that goes', () => {
  it('leaves its units unknown and unsent, and catches them up when it is back', () => {
    const { playback, go, out, standIns } = played(show);
    playback.play(song.id, bar(4));
    go(BAR * 0.5);
    const portId = (show.units.find((u) => u.id === 'quillback')!.input as { portId: string }).portId;
    playback.port(portId, false);
    expect(go(50).rig.quillback!.slot).toBeNull();
    const before = out().filter((l) => l.portId === portId).length;
    go(BAR * 6);
    expect(out().filter((l) => l.portId === portId)).toHaveLength(before);
    playback.port(portId, true);
    expect(go(700).rig.quillback).toMatchObject({ slot: 6, variant: 1 });
    expect(standIns.state().quillback!.slot).toBe(6);
  });
});

describe('a port that comes back while nothing plays', () => {
  const portId = (show.units.find((u) => u.id === 'quillback')!.input as { portId: string }).portId;

  it('has its units brought to the place that was chosen meanwhile', () => {
    const { playback, go, standIns } = played(show);
    playback.select(song.id, bar(1));
    go(1500);
    playback.port(portId, false);
    playback.select(song.id, bar(9));
    go(1500);
    expect(standIns.state().quillback!.slot).toBe(2);
    playback.port(portId, true);
    go(1500);
    const wanted = stateAt(show, song, bar(9));
    for (const id of ['quillback', 'oxbow', 'tarn'] as const) {
      expect(standIns.state()[id]).toMatchObject({ slot: wanted[id]!.slot, variant: wanted[id]!.variant });
    }
  });

  it('has them brought to the tone that was pressed meanwhile', () => {
    const { playback, go, standIns } = played(show);
    playback.select(song.id, bar(1));
    go(1500);
    playback.port(portId, false);
    playback.tone('fog-lead');
    go(1500);
    playback.port(portId, true);
    go(1500);
    expect(standIns.state().quillback!.slot).toBe(47);
  });
});

describe('what leaves', () => {
  it('leaves at no time that is past, in order on each port, and is noted when it leaves', () => {
    const { playback, go, out, now } = played(show);
    playback.play(song.id, bar(20));
    const started = now();
    go(3000);
    const times = out().map((l) => l.at);
    expect(times.length).toBeGreaterThan(5);
    expect(Math.min(...times)).toBeGreaterThanOrEqual(started);
    for (const { id } of show.ports) {
      const own = out().filter((l) => l.portId === id);
      expect(own.map((l) => l.at)).toEqual(own.map((l) => l.at).toSorted((a, b) => a - b));
    }
  });
});
