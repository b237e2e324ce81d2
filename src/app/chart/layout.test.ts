import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoShow } from '../../core/demo';
import { newSong, songTime, type Song } from '../../core/show';
import { DENSITIES } from './density';
import { fitWhole, heightOf } from './fitWhole';
import { fitted } from './lanes';
import { SCALES, byLine, flagRows, layoutChart, lineOf, roomFor, tickAtX, xOf } from './layout';
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

describe('lines', () => {
  it('are as wide as the paper where they are full, and short ones keep the measure of the others', () => {
    const lines = layoutChart(slack, 900, 28);
    const widths = new Set(lines.map((l) => Math.round(l.width)));
    expect(widths.has(900)).toBe(true);
    for (const line of lines) {
      expect(line.width).toBeLessThanOrEqual(900);
      const last = line.bars.at(-1)!;
      expect(last.x + last.width).toBeCloseTo(line.width, 6);
    }
  });

  it('share out the bars of a section evenly', () => {
    const counts = layoutChart(newSong('x', 'X', { bars: 32 }), 900, 28).map((l) => l.bars.length);
    expect(Math.max(...counts) - Math.min(...counts)).toBeLessThanOrEqual(1);
    // Not more lines than it takes.
    expect(counts).toHaveLength(Math.ceil(32 / Math.floor(900 / 112)));
  });

  it('of the whole song are as large as lets them be seen, and not smaller than can be read', () => {
    const draw = (scale: number, density: (typeof DENSITIES)[number]) => ({
      scale,
      density,
      heights: layoutChart(slack, 900, scale).map(() => density.lane * 5),
    });
    const roomy = fitWhole(draw, 5000);
    expect([roomy.scale, roomy.density]).toEqual([28, DENSITIES[0]]);
    const fits = fitWhole(draw, 400);
    expect(heightOf(fits)).toBeLessThanOrEqual(400);
    const never = fitWhole(draw, 10);
    expect(never.density).toBe(DENSITIES.at(-1));
    expect(Math.min(...Object.values(never.density.text))).toBeGreaterThanOrEqual(9);
  });
});

describe('words on a lane', () => {
  it('stand where nothing is drawn', () => {
    const span = { from: 0, to: 200 };
    expect(roomFor(span, [], 80)).toEqual(span);
    expect(roomFor(span, [{ from: 20, to: 60 }], 80)).toEqual({ from: 60, to: 200 });
    expect(roomFor(span, [{ from: 100, to: 120 }], 80)).toEqual({ from: 0, to: 100 });
    expect(roomFor(span, [{ from: 0, to: 200 }], 10)).toEqual({ from: 0, to: 0 });
    // Where no room is enough, the widest.
    const narrow = [
      { from: 30, to: 40 },
      { from: 100, to: 110 },
    ];
    expect(roomFor(span, narrow, 500)).toEqual({ from: 110, to: 200 });
  });

  it('are cut with an ellipsis, and left out where nothing could be read', () => {
    expect(fitted('Harbour Clean', 200, 12)).toBe('Harbour Clean');
    expect(fitted('Harbour Clean', 50, 12)).toBe('Harbou…');
    expect(fitted('Harbour Clean', 15, 12)).toBe('');
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
