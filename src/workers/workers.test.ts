import { describe, expect, it } from 'vitest';
import { demoShow } from '../core/demo';
import {
  applyEdit,
  changeCue,
  nameSlot,
  placeCue,
  renameTone,
  setTolerance,
  setUnitField,
  toneCue,
  type Show,
} from '../core/show';
import type { PlaybackNews } from './protocol';
import { Prover } from './prover';
import { ShowMirror, updateOf } from './showMirror';
import { monitorWords } from '../wording';
import type { MonitorLine } from '../playback';
import { StandInPlayback } from './standInPlayback';

const show = demoShow();
const song = show.songs[0]!;

describe('a show on its way to a worker', () => {
  it('arrives whole, then only as what changed', () => {
    const mirror = new ShowMirror();
    expect(() => mirror.show).toThrow('before it was sent a show');
    mirror.update(structuredClone(updateOf(undefined, show)));
    expect(mirror.show).toEqual(show);
    const kept = mirror.song('fog-bell');
    const after = applyEdit(show, placeCue(show, song.id, toneCue('new', 960, 'undertow'))!);
    const update = updateOf(show, after);
    expect(update.frame).toBeNull();
    expect(update.songs.map((s) => s.id)).toEqual([song.id]);
    mirror.update(structuredClone(update));
    expect(mirror.show).toEqual(after);
    expect(mirror.song('fog-bell')).toBe(kept);
  });

  it('forgets songs that are gone', () => {
    const mirror = new ShowMirror();
    mirror.update(updateOf(undefined, show));
    const less: Show = { ...show, songs: show.songs.slice(1), set: [] };
    mirror.update(updateOf(show, less));
    expect(mirror.show).toEqual(less);
    expect(mirror.song(song.id)).toBeUndefined();
  });
});

describe('proofs', () => {
  const prover = (s: Show): Prover => {
    const p = new Prover();
    p.update(updateOf(undefined, s));
    return p;
  };
  const fingerprints = (s: Show) => prover(s).fingerprints([song.id])[song.id]!;
  const changedBy = (after: Show): string[] => {
    const a = fingerprints(show);
    const b = fingerprints(after);
    return Object.keys(b).filter((cue) => a[cue] !== b[cue]);
  };

  it('light every cue of the demo', () => {
    const { proofs, fingerprints, problems } = prover(show).prove(song.id);
    expect(problems).toEqual([]);
    expect(Object.keys(fingerprints)).toHaveLength(song.cues.length + song.sweeps.length + song.taps.length + 1);
    expect(Object.values(proofs).every((p) => p.lantern === 'lit')).toBe(true);
  });

  it('stay good for what an edit does not touch', () => {
    const moved = applyEdit(show, changeCue(show, song.id, 'slack-tide-cue-3', { shift: 5 })!);
    // The cue itself, and the next, whose change follows it on the same units.
    expect(changedBy(moved)).toEqual(['slack-tide-cue-3', 'slack-tide-cue-4']);
    expect(changedBy(applyEdit(show, renameTone(show, 'undertow', 'Rip')!))).toEqual([]);
    expect(changedBy(applyEdit(show, nameSlot(show, 'quillback', 2, 'Other name', 'x')!))).toEqual([]);
  });

  it('are void when something else counts as on time, and follow it', () => {
    const strict = applyEdit(show, setTolerance(show, { after: 2, before: 0 })!);
    expect(changedBy(strict)).toHaveLength(Object.keys(fingerprints(show)).length);
    const late = applyEdit(show, changeCue(show, song.id, 'slack-tide-cue-3', { at: song.cues[2]!.at + 30 })!);
    const near = applyEdit(late, placeCue(late, song.id, toneCue('near', song.cues[2]!.at, 'fog-lead'))!);
    const lantern = (s: Show): string | undefined => {
      const { proofs, fingerprints } = prover(s).prove(song.id);
      return proofs[fingerprints['slack-tide-cue-3']!]?.lantern;
    };
    expect(lantern(near)).toBe('cracked');
    expect(lantern(applyEdit(near, setTolerance(near, { after: 1000, before: 250 })!))).toBe('lit');
    expect(setTolerance(show, { after: -1, before: 0 })).toBeNull();
    expect(setTolerance(show, { ...show.tolerance })).toBeNull();
  });

  it('are void for every cue of a unit that changes', () => {
    const deaf = applyEdit(show, setUnitField(show, 'tarn', 'listens', 9)!);
    expect(changedBy(deaf)).toEqual(expect.arrayContaining(['opening', 'slack-tide-cue-1', 'slack-tide-cue-2']));
    expect(changedBy(deaf)).not.toContain('slack-tide-cue-3');
    const { proofs, fingerprints } = prover(deaf).prove(song.id);
    expect(proofs[fingerprints['slack-tide-cue-1']!]!.lantern).toBe('cracked');
    expect(proofs[fingerprints['slack-tide-cue-3']!]!.lantern).toBe('lit');
  });

  it('are empty for a song that is not there', () => {
    expect(prover(show).prove('none')).toMatchObject({ songId: 'none', proofs: {}, fingerprints: {}, problems: [] });
  });
});

describe('the stand-in playback', () => {
  /** A playback with a clock that goes on by hand. */
  function playback(s: Show = show) {
    let now = 5e6;
    let wake = (): void => undefined;
    const news: PlaybackNews[] = [];
    const p = new StandInPlayback({ now: () => now, every: (_, run) => (wake = run) });
    p.update(updateOf(undefined, s));
    p.listen((n) => news.push(n));
    const go = (millis: number): PlaybackNews => {
      for (const end = now + millis * 1000; now < end;) {
        now += 8000;
        wake();
      }
      return news.at(-1)!;
    };
    return { p, go, news };
  }

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
    const { p, go } = playback();
    const lines: MonitorLine[] = [];
    p.watch((batch) => lines.push(...batch));
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
