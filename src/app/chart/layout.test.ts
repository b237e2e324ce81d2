import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoShow } from '../../core/demo';
import { newSong, songTime, type Song } from '../../core/show';
import { SCALES, byLine, flagRows, layoutChart, lineOf, tickAtX, xOf } from './layout';
import { runs } from '../../core/testing/runs';

const [slack, rope] = demoShow().songs as [Song, Song, ...Song[]];

describe('the chart', () => {
  it('has every bar once, in order, on lines that fit', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 120, max: 2000 }),
        fc.constantFrom(slack, rope),
        fc.integer({ min: 5, max: 300 }),
        (width, song, scale) => {
          const lines = layoutChart(song, width, scale);
          // A bar that no line can hold takes several.
          const pieces = lines.flatMap((l) => l.bars.map((b) => b.bar));
          const bars = pieces.filter((b, i) => b !== pieces[i - 1]);
          const first = song.pickup > 0 ? 0 : 1;
          expect(bars).toEqual(Array.from({ length: song.bars + 1 - first }, (_, i) => i + first));
          for (const [i, line] of lines.entries()) {
            if (line.bars.length > 1 && line.bars[0]!.bar !== 0) expect(line.width).toBeLessThanOrEqual(width);
            expect(line.end).toBe(lines[i + 1]?.tick ?? songTime(song).end);
          }
        },
      ),
      runs(91, 60),
    );
  });

  it('starts a line with each section, the pickup with the bar that it leads to', () => {
    const starts = layoutChart(slack, 2000, 20).map((l) => l.bars[0]!.bar);
    for (const section of slack.sections) expect(starts).toContain(section.bar);
    const lines = layoutChart(rope, 2000, 20);
    expect(lines[0]!.bars.slice(0, 2).map((b) => b.bar)).toEqual([0, 1]);
  });

  it('prints numbers as the score does, and the metre where it changes', () => {
    const bars = layoutChart(rope, 900, 20).flatMap((l) => l.bars);
    expect(bars.find((b) => b.bar === 29)!.label).toBe('1');
    expect(
      layoutChart(slack, 900, 20)
        .flatMap((l) => l.bars)
        .filter((b) => b.newMetre)
        .map((b) => b.bar),
    ).toEqual([1, 29, 37]);
  });

  it('goes from places to pixels and back', () => {
    const lines = layoutChart(slack, 900, 28);
    fc.assert(
      fc.property(fc.nat(songTime(slack).end - 1), (tick) => {
        const line = lines[lineOf(lines, tick)]!;
        expect(tick).toBeGreaterThanOrEqual(line.tick);
        expect(tickAtX(line, xOf(line, tick))).toBeCloseTo(tick, 6);
      }),
      { seed: 92 },
    );
    expect(xOf(lines[1]!, 0)).toBe(0);
    expect(xOf(lines[0]!, 1e9)).toBe(lines[0]!.width);
    expect(lineOf(lines, 1e9)).toBe(lines.length - 1);
  });

  it('lays out a song of ten thousand bars', () => {
    const long = newSong('x', 'X', { bars: 10000 });
    expect(layoutChart(long, 900, 28).flatMap((l) => l.bars)).toHaveLength(10000);
  });

  it('spreads what stands on it over its lines', () => {
    const lines = layoutChart(slack, 900, 28);
    const spread = byLine(lines, slack.cues);
    expect(spread.flat()).toEqual(slack.cues);
    for (const [i, cues] of spread.entries()) for (const cue of cues) expect(lineOf(lines, cue.at)).toBe(i);
  });
});

describe('flags', () => {
  it('share a row as long as none hides another', () => {
    expect(
      flagRows([
        { x: 0, name: 'Fog Lead' },
        { x: 300, name: 'Undertow' },
      ]),
    ).toEqual([0, 0]);
    expect(
      flagRows([
        { x: 0, name: 'Fog Lead' },
        { x: 10, name: 'Undertow' },
        { x: 400, name: 'X' },
      ]),
    ).toEqual([0, 1, 0]);
  });

  it('use three rows at most', () => {
    const rows = flagRows(Array.from({ length: 9 }, (_, i) => ({ x: i, name: 'Long name of a tone' })));
    expect(Math.max(...rows)).toBe(2);
  });
});

describe('zoom', () => {
  it('cuts a bar that no line can hold into beats, and a beat into halves', () => {
    // Seven eighths at 440 pixels a quarter: 1,540 pixels; four beats of 220 fit 900.
    const beats = layoutChart(slack, 900, 440)[0]!;
    expect(beats.bars.map((b) => [b.label, b.tick, b.length])).toEqual([['1', 0, 4 * 480]]);
    expect(layoutChart(slack, 900, 440)[1]!.bars.map((b) => [b.label, b.length])).toEqual([['1|5', 3 * 480]]);
    const half = layoutChart(slack, 500, 1760);
    expect(half.slice(0, 3).map((l) => l.bars[0]!.label)).toEqual(['1', '1|1|240', '1|2']);
  });

  it('covers every tick once, at every scale', () => {
    for (const scale of SCALES) {
      const lines = layoutChart(rope, 880, scale);
      let tick = 0;
      for (const line of lines) {
        expect(line.tick).toBeCloseTo(tick, 6);
        for (const bar of line.bars) tick += bar.length;
        expect(line.end).toBeCloseTo(tick, 6);
      }
      expect(tick).toBe(songTime(rope).end);
    }
  });
});
