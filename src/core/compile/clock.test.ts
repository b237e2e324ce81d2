import { describe, expect, it } from 'vitest';
import { newSong, toneCue, type Show, type Song } from '../show';
import { rigSpec, songWants } from '../meaning';
import { dryRun } from '../simulate';
import { demoShow } from '../demo';
import { compileSong } from './compileSong';
import { playLine } from './playLine';
import { songToSmf } from '../formats/smf';
import { tonightOf } from '../tonight';

const demo = demoShow();
const port = demo.ports.find((p) => p.cable === 'din')!;
const other = demo.ports.find((p) => p.cable === 'usb');
const clocked = (song: Song, portId = port.id): { show: Show; song: Song } => {
  const made = { ...song, clocks: [{ id: 'clock', portId }] };
  return { show: { ...demo, songs: [made] }, song: made };
};
const plain = newSong('s', 'S', { bpm: 120, bars: 4 });
const bytesOf = (events: ReturnType<typeof compileSong>['events'], status: number): number[] =>
  events.filter((e) => e.bytes[0] === status).map((e) => e.at);

describe('MIDI clock', () => {
  it('goes out 24 times a quarter, after "start", and ends with "stop"', () => {
    const { show, song } = clocked(plain);
    const { events } = compileSong(show, song);
    const clocks = bytesOf(events, 0xf8);
    expect(clocks).toHaveLength(4 * 4 * 24);
    // Its only byte has arrived on its tick: it leaves the time of a byte before.
    expect(clocks[0]).toBeCloseTo(-320, 6);
    expect(clocks[24]).toBeCloseTo(500_000 - 320, 6);
    expect(bytesOf(events, 0xfa)).toEqual([-640]);
    expect(bytesOf(events, 0xfc)[0]).toBeCloseTo(8_000_000 - 320, 6);
  });

  it('follows a ramp tick by tick', () => {
    const { show, song } = clocked({
      ...plain,
      tempo: [
        { at: 0, bpm: 96, beat: 1, rampTo: 144 },
        { at: 12 * 960, bpm: 144, beat: 1, rampTo: null },
      ],
    });
    const clocks = bytesOf(compileSong(show, song).events, 0xf8);
    expect(clocks[6 * 24]! + 320).toBeCloseTo(3_347_153, 0);
    expect(clocks[12 * 24]! + 320).toBeCloseTo(6_081_977, 0);
  });

  it('shares a 5-pin cable with the changes, which still land', () => {
    const { show, song } = clocked({ ...demo.songs[0]! });
    const compiled = compileSong(show, song);
    const spans = compiled.events
      .filter((e) => e.portId === port.id)
      .map((e) => ({ from: e.at, to: e.at + 320 * e.bytes.length }));
    for (const [i, span] of spans.entries())
      if (i > 0) expect(span.from).toBeGreaterThanOrEqual(spans[i - 1]!.to - 0.01);
    const { verdicts } = dryRun(rigSpec(show), compiled.events, songWants(show, song));
    expect(verdicts.filter((v) => v.outcome !== 'on-time')).toEqual([]);
    const late = bytesOf(compiled.events, 0xf8).map((at, i, all) => (i > 0 ? at - all[i - 1]! : 0));
    // 126 quarters a minute: a clock every 19.84 ms; a change in the way moves it by its own length at most.
    for (const gap of late.slice(1)) expect(Math.abs(gap - 60e6 / 126 / 24)).toBeLessThan(3000);
  });

  it('goes on from a place with song position and "continue"', () => {
    const { show, song } = clocked(plain);
    const line = playLine(show, song, 5 * 960, {});
    expect(line.events.filter((e) => e.bytes[0] === 0xf2).map((e) => e.bytes)).toEqual([[0xf2, 20, 0]]);
    expect(bytesOf(line.events, 0xfb)[0]).toBeCloseTo(2_500_000 - 640, 3);
    expect(bytesOf(line.events, 0xfa)).toEqual([]);
    expect(bytesOf(line.events, 0xf8)).toHaveLength((16 - 5) * 24);
    expect(line.atStop).toEqual([{ portId: port.id, bytes: [0xfc] }]);
    // A place between two sixteenths waits for the next.
    const between = playLine(show, song, 5 * 960 + 100, {});
    expect(between.events.find((e) => e.bytes[0] === 0xf2)!.bytes).toEqual([0xf2, 21, 0]);
  });

  it('goes on beyond bar 8, where the position needs its second byte', () => {
    const long = newSong('s', 'S', { bpm: 120, bars: 80 });
    const { show, song } = clocked(long);
    const positionAt = (bar: number): number[] =>
      playLine(show, song, (bar - 1) * 3840, {}).events.find((e) => e.bytes[0] === 0xf2)!.bytes as number[];
    // 16 to a bar: bar 9 is 128, bar 17 is 256, bar 20 is 304 = 2 × 128 + 48.
    expect([positionAt(9), positionAt(17), positionAt(20)]).toEqual([
      [0xf2, 0, 1],
      [0xf2, 0, 2],
      [0xf2, 48, 2],
    ]);
  });

  it('is silent on a port that is off, and has no place in a file', () => {
    const { show, song } = clocked({ ...plain, cues: [toneCue('c', 960, demo.tones[0]!.id)] });
    const off = { ...show, ports: show.ports.map((p) => (p.id === port.id ? { ...p, active: false } : p)) };
    expect(bytesOf(compileSong(off, song).events, 0xf8)).toEqual([]);
    const { file } = songToSmf(tonightOf(show), song, 'sent');
    const bytes = file.tracks.flatMap((t) => t.events.flatMap((e) => ('bytes' in e ? [e.bytes[0]!] : [])));
    expect(bytes.length).toBeGreaterThan(0);
    expect(bytes.filter((b) => b >= 0xf8)).toEqual([]);
  });

  it('costs nothing on USB', () => {
    if (!other) throw new Error('the demo has no USB port');
    const { show, song } = clocked(plain, other.id);
    expect(bytesOf(compileSong(show, song).events, 0xf8)[24]).toBeCloseTo(499_000, 6);
  });
});
