import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compileSong, stateAt } from '../../compile';
import { rigSpec, songWants } from '../../meaning';
import { dryRun } from '../../simulate';
import { readShowFile, writeShowFile } from '../show-file';
import { smfToShow } from './smfToShow';
import { songsToSmf } from './songToSmf';
import type { SmfEvent, SmfFile, SmfTrack } from './types';
import { writeSmf } from './write';
import { runs } from '../../testing/runs';
import { tonightOf } from '../../tonight';

const message = (tick: number, ...bytes: number[]): SmfEvent => ({ tick, kind: 'message', bytes });
const text = (tick: number, type: 'track-name' | 'port-name' | 'marker' | 'lyric', words: string): SmfEvent => ({
  tick,
  kind: 'text',
  type,
  text: words,
});
const track = (...events: SmfEvent[]): SmfTrack => ({ events, end: events.at(-1)?.tick ?? 0 });
const file = (...tracks: SmfTrack[]): SmfFile => ({ format: 1, division: { kind: 'quarter', ticks: 960 }, tracks });
const read = (f: SmfFile) => smfToShow(writeSmf(f), 'Found');

describe('songs of a foreign file', () => {
  it('are one a track in format 2, each with a title of its own', () => {
    const three = (names: readonly string[]): SmfFile => ({
      ...file(...names.map((name) => track(text(0, 'track-name', name), message(0, 0xc0, 1)))),
      format: 2,
    });
    expect(read(three(['Reel', 'Jig', 'Air'])).value!.songs.map((s) => s.title)).toEqual(['Reel', 'Jig', 'Air']);
    expect(read(three(['Reel', '', 'Reel'])).value!.songs.map((s) => s.title)).toEqual(['Reel 1', 'Found', 'Reel 3']);
    expect(read(three(['', ''])).value!.songs.map((s) => s.title)).toEqual(['Found 1', 'Found 2']);
    const tricky = read(three(['A', 'A', 'A 1', 'A 2'])).value!.songs.map((s) => s.title);
    expect(new Set(tricky).size).toBe(4);
  });

  it('are no bar longer for what comes in their last moment', () => {
    const last = (tick: number) => read(file(track(message(0, 0xc0, 1), message(tick, 0xc0, 2)))).value!.songs[0]!;
    const bar = 4 * 960;
    expect([last(2 * bar - 1), last(2 * bar), last(2 * bar + 20)].map((s) => s.bars)).toEqual([2, 2, 2]);
    expect([2 * bar, 2 * bar + 20].map((tick) => last(tick).cues.at(-1)!.at)).toEqual([2 * bar - 1, 2 * bar - 1]);
    // It keeps its time: at 120 BPM a tick is 1/1.92 ms, and its place is a tick before the bar line.
    expect(last(2 * bar + 20).cues.at(-1)!.shift).toBeCloseTo(21 / 1.92, 6);
    expect(last(2 * bar - 1).cues.at(-1)!.shift).toBe(0);
    expect(last(2 * bar + 40).bars).toBe(3);
    const { problems } = read(file(track(message(0, 0xc0, 1), message(2 * bar, 0xc0, 2))));
    expect(problems.map((p) => p.code)).toContain('smf.last-moment');
  });

  it('send what comes in their last moment at its time when they are written again', () => {
    const bar = 4 * 960;
    const { value } = read(file(track(message(0, 0xc0, 1), message(2 * bar, 0xc0, 2), message(2 * bar + 25, 0xc0, 3))));
    const { file: again } = songsToSmf(
      tonightOf(value!),
      value!.songs,
      { mode: 'written', format: 1, unitIds: null },
      'x',
    );
    const millis = again.tracks.flatMap((t) =>
      t.events.flatMap((e) =>
        e.kind === 'message' ? [(e.tick * 500) / (again.division as { ticks: number }).ticks] : [],
      ),
    );
    expect(millis.map((ms) => Math.round(ms * 10) / 10)).toEqual([0, 4000, 4013]);
  });
});

describe('units of a foreign file', () => {
  it('are one a port and channel, named after their track where that is plain', () => {
    const { value } = read(
      file(
        track(text(0, 'track-name', 'Tune')),
        track(text(0, 'track-name', 'Organ'), text(0, 'port-name', 'Left'), message(0, 0xc0, 1), message(10, 0xc0, 2)),
        track(text(0, 'track-name', 'Both'), text(0, 'port-name', 'Right'), message(0, 0xc0, 1), message(10, 0xc1, 2)),
      ),
    );
    expect(value!.ports.map((p) => p.name)).toEqual(['Left', 'Right']);
    expect(value!.units.map((u) => [u.name, u.channel, u.listens])).toEqual([
      ['Organ', 1, 1],
      ['Both', 1, 1],
      ['Right, channel 2', 2, 2],
    ]);
    expect(value!.songs[0]!.title).toBe('Tune');
  });

  it('are not named after the one track of format 0: that is the name of the piece', () => {
    const one = track(text(0, 'track-name', 'Herring Reel'), message(0, 0xc0, 1), message(10, 0xc1, 2));
    const { value } = read({ format: 0, division: { kind: 'quarter', ticks: 480 }, tracks: [one] });
    expect(value!.songs.map((s) => s.title)).toEqual(['Herring Reel']);
    expect(value!.units.map((u) => u.name)).toEqual(['Port 1, channel 1', 'Port 1, channel 2']);
  });

  it('tell ports apart by number where they have no name', () => {
    const { value } = read(
      file(
        track({ tick: 0, kind: 'port', port: 0 }, message(0, 0xc0, 1)),
        track({ tick: 0, kind: 'port', port: 3 }, message(0, 0xc0, 1)),
      ),
    );
    expect(value!.ports.map((p) => p.name)).toEqual(['Port 1', 'Port 4']);
    expect(value!.units).toHaveLength(2);
  });

  it('take exclusive messages along where a track speaks on one channel, else on their own', () => {
    const packet: SmfEvent = { tick: 5, kind: 'packet', bytes: [0xf0, 0x7d, 0xf7] };
    expect(read(file(track(message(0, 0xc0, 1), packet))).value!.units).toHaveLength(1);
    const { value } = read(file(track(message(0, 0xc0, 1), message(1, 0xc1, 1), packet)));
    expect(value!.units.map((u) => u.name)).toEqual(['Port 1, channel 1', 'Port 1, channel 2', 'Port 1, all channels']);
    expect(value!.units[2]!.listens).toBe(16);
  });

  it('count programs from 0, with the halves of a bank that the file uses', () => {
    const plan = (...messages: SmfEvent[]) => read(file(track(...messages))).value!.units[0]!.profile.plan.bank.send;
    expect(plan(message(0, 0xc0, 1))).toBe('none');
    expect(plan(message(0, 0xb0, 0, 1), message(0, 0xc0, 1))).toBe('msb');
    expect(plan(message(0, 0xb0, 32, 1), message(0, 0xc0, 1))).toBe('lsb');
    expect(plan(message(0, 0xb0, 0, 1), message(0, 0xb0, 32, 1), message(0, 0xc0, 1))).toBe('both');
  });

  it('have a control for each number that is used, but none with a fixed meaning', () => {
    const numbers = [0, 1, 6, 7, 32, 38, 64, 98, 99, 100, 119, 120, 123];
    const { value } = read(file(track(...numbers.map((n, i) => message(i, 0xb0, n, 5)))));
    expect(value!.units[0]!.profile.controls.map((c) => c.name)).toEqual([
      'Control 1',
      'Control 7',
      'Control 64',
      'Control 119',
    ]);
  });

  it('know their state at any place, from the bytes', () => {
    const { value: show } = read(
      file(
        track(
          message(0, 0xb0, 0, 2),
          message(0, 0xc0, 5),
          message(3840, 0xb0, 7, 100),
          message(7680, 0xc0, 6),
          message(9600, 0xb0, 7, 1),
        ),
      ),
    );
    const song = show!.songs[0]!;
    expect(stateAt(show!, song, 0)['unit-1']).toMatchObject({ slot: 2 * 128 + 5, controls: {} });
    expect(stateAt(show!, song, 7679)['unit-1']).toMatchObject({ slot: 261, controls: { 'control-7': 100 } });
    expect(stateAt(show!, song, 7680)['unit-1']).toMatchObject({ slot: 262 });
  });
});

describe('the song of a foreign file', () => {
  it('takes tempo, metre and markers from any track', () => {
    const { value } = read(
      file(
        track(
          { tick: 0, kind: 'metre', beats: 7, unit: 8 },
          { tick: 0, kind: 'tempo', micros: 500000 },
          { tick: 0, kind: 'tempo', micros: 400000 },
        ),
        track(
          message(0, 0xc0, 1),
          { tick: 3360, kind: 'tempo', micros: 600000 },
          text(6720, 'marker', 'Bridge'),
          text(6720, 'lyric', 'la'),
          message(10000, 0xc0, 2),
        ),
      ),
    );
    const song = value!.songs[0]!;
    expect(song.metre).toEqual([{ bar: 1, beats: 7, unit: 8 }]);
    expect(song.tempo.map((t) => [t.at, t.bpm])).toEqual([
      [0, 150],
      [3360, 100],
    ]);
    expect(song.sections).toMatchObject([{ name: 'Bridge', bar: 3 }]);
    expect(song.bars).toBe(3);
  });

  it('runs at 120 in 4/4 where the file says nothing, and has a bar also when it is empty', () => {
    const { value } = read(file(track()));
    expect(value!.songs[0]).toMatchObject({
      title: 'Found',
      bars: 1,
      cues: [],
      tempo: [{ at: 0, bpm: 120 }],
      metre: [{ bar: 1, beats: 4, unit: 4 }],
    });
  });

  it('keeps places between ticks of ours', () => {
    const f: SmfFile = { ...file(track(message(1, 0xc0, 1))), division: { kind: 'quarter', ticks: 1000 } };
    expect(read(f).value!.songs[0]!.cues[0]!.at).toBeCloseTo(0.96, 12);
  });

  it('is refused when it never ends', () => {
    const far = 0x0fffffff;
    const f: SmfFile = {
      ...file(track(message(far, 0xc0, 1), message(far * 2, 0xc0, 1))),
      division: { kind: 'quarter', ticks: 1 },
    };
    const { value, problems } = read(f);
    expect(value).toBeUndefined();
    expect(problems.at(-1)).toMatchObject({ code: 'smf.too-long', severity: 'error' });
  });

  it('lands all of it on USB, and says that it took the cable for granted', () => {
    const notes = Array.from({ length: 200 }, (_, i) => message(i * 7, 0x90 | (i % 4), 60, i % 128));
    const { value: show, problems } = read(file(track(...notes)));
    expect(problems).toMatchObject([{ code: 'smf.ports-assumed', severity: 'note' }]);
    const song = show!.songs[0]!;
    const { verdicts } = dryRun(rigSpec(show!), compileSong(show!, song).events, songWants(show!, song));
    expect(verdicts).toHaveLength(200);
    expect(verdicts.every((v) => v.outcome === 'on-time')).toBe(true);
  });
});

describe('a show from any file', () => {
  it('is a valid show file', () => {
    const event: fc.Arbitrary<SmfEvent> = fc
      .record({
        tick: fc.nat(30000),
        kind: fc.nat(8),
        a: fc.nat(127),
        b: fc.nat(127),
        words: fc.string({ maxLength: 300 }),
      })
      .map(({ tick, kind, a, b, words }): SmfEvent => {
        if (kind < 3) return message(tick, [0x90, 0xb0, 0xe0][kind]! | (b % 16), a, b);
        if (kind === 3) return message(tick, 0xc0 | (b % 16), a);
        if (kind === 4) return { tick, kind: 'packet', bytes: [0xf0, a, 0xf7] };
        if (kind === 5) return { tick, kind: 'tempo', micros: 1 + a * 130000 };
        if (kind === 6) return { tick, kind: 'metre', beats: 1 + a, unit: 2 ** (b % 8) };
        if (kind === 7) return { tick, kind: 'port', port: a };
        return text(tick, (['track-name', 'port-name', 'marker', 'lyric'] as const)[a % 4]!, words);
      });
    const anyTrack = fc.array(event, { maxLength: 40 }).map((list) => track(...list.sort((x, y) => x.tick - y.tick)));
    fc.assert(
      fc.property(fc.array(anyTrack, { minLength: 1, maxLength: 4 }), fc.constantFrom(0, 1, 2), (tracks, format) => {
        const { value } = read({ ...file(...tracks), format: format });
        expect(value).toBeDefined();
        const again = readShowFile(writeShowFile(value!));
        expect(again.problems).toEqual([]);
        expect(again.value).toEqual(JSON.parse(JSON.stringify(value)));
      }),
      runs(67, 150),
    );
  });
});
