import { describe, expect, it } from 'vitest';
import { compileSong } from '../compile';
import { demoShow } from '../demo';
import { microsAt, setSongField, songTime, applyEdit, type Show, type Song } from '../show';
import { rigSpec, songWants } from '../meaning';
import { dryRun } from '../simulate';
import { pictureOf } from './picture';

const show = demoShow();
const song = show.songs[0]!;

const run = (s: Show, of: Song) => {
  const compiled = compileSong(s, of);
  const wants = songWants(s, of);
  const dry = dryRun(rigSpec(s), compiled.events, wants);
  return { picture: pictureOf(s, compiled, wants, dry), dry, compiled };
};

describe('the picture of a dry run', () => {
  const { picture, dry, compiled } = run(show, song);

  it('has of each unit what it is on, without a hole or an overlap, to the end of the song', () => {
    expect(picture.units.length).toBeGreaterThan(5);
    for (const { heard, wanted } of picture.units) {
      for (const spans of [heard, wanted]) {
        for (const [i, span] of spans.entries()) {
          expect(span.to).toBeGreaterThan(span.from);
          if (i > 0) expect(span.from).toBe(spans[i - 1]!.to);
        }
        expect(spans.at(-1)!.to).toBe(picture.end);
      }
    }
  });

  it('has a gap for every preset that loads, as long as it takes at the worst', () => {
    const quillback = picture.units.find((u) => u.unitId === 'quillback')!;
    const loads = dry.trace.filter((t) => t.kind === 'loading' && t.unitId === 'quillback');
    const gaps = quillback.heard.filter((s) => s.gap);
    expect(gaps).toHaveLength(loads.length);
    // 183.1 ms at the worst, 193.6 for the one preset that was measured by itself.
    const lengths = new Set(gaps.map((gap) => Math.round((gap.to - gap.from) / 10) * 10));
    expect([...lengths].every((length) => length === 183_100 || length === 193_600)).toBe(true);
  });

  it('shows what is heard where it is wanted, when everything lands', () => {
    for (const { heard, wanted } of picture.units) {
      for (const want of wanted) {
        const middle = (want.from + want.to) / 2;
        const on = heard.find((s) => s.from <= middle && s.to > middle)!;
        if (want.slot !== null && !on.gap) expect(on.slot).toBe(want.slot);
      }
    }
  });

  it('has every message under its unit', () => {
    const sent = picture.units.reduce((sum, u) => sum + u.sent.length, 0);
    expect(sent).toBe(compiled.events.filter((e) => e.unitId !== '').length);
  });
});

describe('a song that gives its units the clock', () => {
  it('is proven with it, through a ramp and a change of tempo', () => {
    const tempo = [
      { at: 0, bpm: 100, beat: 1, rampTo: null },
      { at: 28 * 960, bpm: 100, beat: 1, rampTo: 140 },
      { at: 56 * 960, bpm: 140, beat: 1, rampTo: null },
    ];
    let s = applyEdit(show, setSongField(show, song.id, 'tempo', tempo)!);
    s = applyEdit(s, setSongField(s, song.id, 'taps', [])!);
    s = applyEdit(s, setSongField(s, song.id, 'clocks', [{ id: 'clock', portId: 'rack' }])!);
    const clocked = s.songs[0]!;
    const { dry, picture } = run(s, clocked);
    const own = dry.verdicts.filter((v) => v.cueId === 'clock');
    // Three tempos, for every unit that hangs on the port.
    expect(new Set(own.map((v) => v.due)).size).toBe(3);
    expect(own[0]!.due).toBeCloseTo(microsAt(songTime(clocked), 960), 3);
    expect(dry.verdicts.filter((v) => v.outcome !== 'on-time')).toEqual([]);
    expect(picture.load.find((l) => l.portId === 'rack')!.seconds.every((share) => share > 0)).toBe(true);
  });
});
