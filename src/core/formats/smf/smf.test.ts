import fc from 'fast-check';
import { parseMidi, writeMidi, type MidiData } from 'midi-file';
import { describe, expect, it } from 'vitest';
import { problemLine } from '../../../wording';
import { demoShow } from '../../demo';
import { buildTempoMap, ticksToSeconds } from '../../time';
import { readSmf } from './read';
import { smfToShow } from './smfToShow';
import { songToSmf } from './songToSmf';
import { tempoSteps } from './tempoSteps';
import type { SmfEvent, SmfFile } from './types';
import { writeSmf } from './write';
import { runs } from '../../testing/runs';
import { tonightOf } from '../../tonight';

const ascii = (text: string): number[] => Array.from(text).map((c) => c.charCodeAt(0));
const u32 = (n: number): number[] => [(n >>> 24) & 255, (n >>> 16) & 255, (n >>> 8) & 255, n & 255];
const header = (format = 0, tracks = 1, division = 96): number[] => [
  ...ascii('MThd'),
  ...u32(6),
  0,
  format,
  0,
  tracks,
  division >> 8,
  division & 255,
];
const track = (...body: number[]): number[] => [...ascii('MTrk'), ...u32(body.length), ...body];
const END = [0, 0xff, 0x2f, 0];
const file = (...body: number[]): Uint8Array => Uint8Array.from([...header(), ...track(...body)]);

const said = (bytes: Uint8Array | number[]): string[] => readSmf(Uint8Array.from(bytes)).problems.map(problemLine);

describe('reading', () => {
  it('reads messages, running status, exclusive packets and what it knows of meta events', () => {
    const { value, problems } = readSmf(
      file(
        0,
        0xc0,
        5,
        96,
        6,
        0,
        0xf0,
        3,
        0x7d,
        1,
        0xf7,
        0,
        0xff,
        0x51,
        3,
        7,
        0xa1,
        0x20,
        0,
        0xff,
        0x58,
        4,
        7,
        3,
        24,
        8,
        0,
        0xff,
        6,
        1,
        65,
        0,
        0x90,
        60,
        0,
        ...END,
      ),
    );
    expect(problems).toEqual([]);
    expect(value!.tracks[0]!.events).toEqual([
      { tick: 0, kind: 'message', bytes: [0xc0, 5] },
      { tick: 96, kind: 'message', bytes: [0xc0, 6] },
      { tick: 96, kind: 'packet', bytes: [0xf0, 0x7d, 1, 0xf7] },
      { tick: 96, kind: 'tempo', micros: 500000, offset: 34 },
      { tick: 96, kind: 'metre', beats: 7, unit: 8, offset: 41 },
      { tick: 96, kind: 'text', type: 'marker', text: 'A' },
      { tick: 96, kind: 'message', bytes: [0x90, 60, 0] },
    ]);
  });

  it('takes text as UTF-8, or else as Latin-1', () => {
    const named = (...bytes: number[]) =>
      readSmf(file(0, 0xff, 3, bytes.length, ...bytes, ...END)).value!.tracks[0]!.events[0];
    expect(named(0xc3, 0xb6)).toMatchObject({ text: 'ö' });
    expect(named(0xf6)).toMatchObject({ text: 'ö' });
  });

  it.each([
    ['nothing', [], 'byte 0: This is not a Standard MIDI File: expected it to start with "MThd", found nothing.'],
    ['another kind of file', ascii('RIFFxxxxxxxxxxxx'), 'found "RIFF"'],
    [
      'a header of 4 GB',
      [...ascii('MThd'), 255, 255, 255, 255, 0, 0, 0, 1, 0, 96],
      'byte 4: The header says that it is 4294967295 bytes long',
    ],
    ['format 3', [...header(3), ...track(...END)], 'byte 8: MIDI files are of format 0, 1 or 2; this one says 3.'],
    ['division 0', [...header(0, 1, 0), ...track(...END)], 'byte 12: The file divides a quarter note into 0 ticks'],
    [
      'a division of no known frames',
      [...header(0, 1, 0x8104), ...track(...END)],
      'neither ticks a quarter note nor frames a second',
    ],
    ['no track', header(0, 1), 'byte 10: The file has no track.'],
    [
      'a track of 4 GB',
      [...header(), ...ascii('MTrk'), 255, 255, 255, 255, 0, 0xc0, 1],
      'byte 18: A part named "MTrk" says that it is 4294967295 bytes long, but only 3 are left',
    ],
    [
      'a time that never ends',
      file(0x80, 0x80, 0x80, 0x80, 0x80, 0x80),
      'track 1, byte 22: A length or time runs on past its four bytes.',
    ],
    ['data without status', file(0, 5, 5, ...END), 'track 1, byte 23: Data (05) stands where a message should start'],
    ['a status that no file may hold', file(0, 0xf8, ...END), 'track 1, byte 23: The status F8 does not belong'],
    [
      'a status among the data',
      file(0, 0x90, 0x90, 1, ...END),
      'track 1, byte 24: A data byte should be 00 to 7F; found 90.',
    ],
    ['tempo 0', file(0, 0xff, 0x51, 3, 0, 0, 0, ...END), 'track 1, byte 23: A tempo of 0 microseconds'],
    ['a short tempo', file(0, 0xff, 0x51, 2, 0, 9, ...END), 'The tempo event should hold 3 bytes; it holds 2.'],
    [
      'an exclusive message longer than the file',
      file(0, 0xf0, 0x8f, 0xff, 0xff, 0x7f),
      'The file ends inside an event',
    ],
    [
      'an end inside a message',
      file(0, 0x90, 60),
      'track 1, byte 25: The file ends inside an event: 1 more byte wanted, 0 left.',
    ],
  ])('refuses %s with the place', (_, bytes, sentence) => {
    const { value } = readSmf(Uint8Array.from(bytes));
    expect(value).toBeUndefined();
    expect(said(Uint8Array.from(bytes)).join('\n')).toContain(sentence);
  });

  it('reads past what loses no message, and says so', () => {
    expect(said(file(0, 0xc0, 1))).toEqual([expect.stringContaining('no end mark')]);
    expect(said(file(...END, 1, 2))).toEqual([expect.stringContaining('2 bytes were passed over after the track')]);
    expect(said([...header(1, 2), ...track(...END)])).toEqual([
      expect.stringContaining('announces 2 tracks; the file has 1'),
    ]);
    expect(said([...header(), ...ascii('XYZW'), ...u32(1), 0, ...track(...END)])).toEqual([
      expect.stringContaining('"XYZW"'),
    ]);
    expect(said([...header(), ...track(...END), 1])).toEqual([
      expect.stringContaining('1 byte was passed over after the last track'),
    ]);
    const afterMeta = readSmf(file(0, 0xc0, 1, 0, 0xff, 1, 0, 0, 2, ...END));
    expect(afterMeta.value!.tracks[0]!.events.filter((e) => e.kind === 'message')).toHaveLength(2);
    expect(afterMeta.problems).toMatchObject([{ code: 'smf.no-status', severity: 'warning' }]);
  });

  it('answers any bytes at all', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 300 }), fc.boolean(), (noise, framed) => {
        const bytes = framed ? file(...noise) : noise;
        readSmf(bytes);
        smfToShow(bytes, 'Noise');
      }),
      runs(61, 3000),
    );
  });

  it('says where a header ends that is cut off', () => {
    const whole = writeSmf(songToSmf(tonightOf(demoShow()), demoShow().songs[1]!, 'sent').file);
    const said = readSmf(whole.subarray(0, 9)).problems.map(problemLine);
    expect(said).toEqual(['byte 9: The file ends within its header, after 9 bytes: it is cut off.']);
    expect(problemLine(readSmf(new TextEncoder().encode('MThx but longer')).problems[0]!)).toContain('found "MThx"');
  });

  it('answers every truncation and damage of a real file', () => {
    const { file: smf } = songToSmf(tonightOf(demoShow()), demoShow().songs[1]!, 'sent');
    const whole = writeSmf(smf);
    for (let length = 0; length < whole.length; length += 7) {
      const { value, problems } = readSmf(whole.subarray(0, length));
      // Cut between two tracks the file still reads, but says that tracks are missing.
      if (value) expect(problems).toContainEqual(expect.objectContaining({ code: 'smf.missing-tracks' }));
    }
    fc.assert(
      fc.property(fc.nat(whole.length - 1), fc.nat(255), (at, byte) => {
        const damaged = whole.slice();
        damaged[at] = byte;
        smfToShow(damaged, 'Damaged');
      }),
      runs(62, 500),
    );
  });
});

const byte = fc.nat(127);
const message: fc.Arbitrary<{ kind: 'message' | 'packet'; bytes: number[] }> = fc.oneof(
  fc
    .tuple(fc.constantFrom(0x80, 0x90, 0xa0, 0xb0, 0xe0), fc.nat(15), byte, byte)
    .map(([s, c, a, b]) => ({ kind: 'message' as const, bytes: [s | c, a, b] })),
  fc
    .tuple(fc.constantFrom(0xc0, 0xd0), fc.nat(15), byte)
    .map(([s, c, a]) => ({ kind: 'message' as const, bytes: [s | c, a] })),
  fc.array(byte, { maxLength: 20 }).map((data) => ({ kind: 'packet' as const, bytes: [0xf0, ...data, 0xf7] })),
);
const tracks = fc.array(
  fc.array(fc.record({ wait: fc.nat(2000), message }), { maxLength: 40 }).map((list) => {
    let tick = 0;
    const events = list.map(({ wait, message: m }): SmfEvent => ({ tick: (tick += wait), ...m }));
    return { events, end: tick + 10 };
  }),
  { minLength: 1, maxLength: 5 },
);
const smfFile: fc.Arbitrary<SmfFile> = fc
  .record({ tracks, ticks: fc.integer({ min: 1, max: 32767 }) })
  .map(({ tracks: list, ticks }) => ({ format: 1, division: { kind: 'quarter', ticks }, tracks: list }));

describe('writing', () => {
  it('carries waits that are longer than a delta-time can be, in as many as it takes', () => {
    const far: SmfEvent = { tick: 900_000_000, kind: 'message', bytes: [0xc0, 5] };
    const f: SmfFile = {
      format: 1,
      division: { kind: 'quarter', ticks: 960 },
      tracks: [{ events: [far], end: far.tick }],
    };
    const { value, problems } = readSmf(writeSmf(f));
    expect(problems).toEqual([]);
    expect(value!.tracks[0]!.events.at(-1)).toMatchObject(far);
    const other: MidiData = parseMidi(writeSmf(f));
    expect(other.tracks[0]!.reduce((sum, e) => sum + e.deltaTime, 0)).toBe(far.tick);
  });

  it('is read back as the original', () => {
    fc.assert(
      fc.property(smfFile, (f) => {
        const { value, problems } = readSmf(writeSmf(f));
        expect(problems).toEqual([]);
        expect(value).toEqual(f);
      }),
      runs(63, 200),
    );
  });

  it('is read alike by a second reader, and reads what a second writer wrote', () => {
    fc.assert(
      fc.property(smfFile, (f) => {
        const other: MidiData = parseMidi(writeSmf(f));
        expect(other.tracks.map((t) => t.length - 1)).toEqual(f.tracks.map((t) => t.events.length));
        for (const [i, t] of other.tracks.entries()) {
          let tick = 0;
          for (const [k, event] of t.slice(0, -1).entries()) {
            tick += event.deltaTime;
            expect(tick).toBe(f.tracks[i]!.events[k]!.tick);
          }
        }
        const { value } = readSmf(Uint8Array.from(writeMidi(other)));
        const messages = (x: SmfFile) =>
          x.tracks.map((t) => t.events.map((e) => ('bytes' in e ? [e.tick, ...e.bytes] : [])));
        // The second writer makes every note-on of velocity 0 a note-off, and says so nowhere.
        const plain = (list: number[][][]) =>
          list.map((t) => t.map((m) => ((m[1]! & 0xf0) === 0x90 && m[3] === 0 ? [m[0], m[1]! - 16, m[2], 0] : m)));
        expect(plain(messages(value!))).toEqual(plain(messages(f)));
      }),
      runs(64, 100),
    );
  });
});

describe('a song as a file', () => {
  const show = demoShow();

  it('keeps every moment within half a millisecond, however the tempo moves', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            quarters: fc.oneof(fc.integer({ min: 1, max: 400 }), fc.integer({ min: 1000, max: 6000 })),
            bpm: fc.double({ min: 20, max: 400, noNaN: true }),
            ramp: fc.option(fc.double({ min: 20, max: 400, noNaN: true })),
          }),
          { minLength: 1, maxLength: 6 },
        ),
        (list) => {
          let at = 0;
          const marks = list.map(({ quarters, bpm, ramp }, i) => {
            const mark = { at, bpm, beat: 1, rampTo: i < list.length - 1 ? (ramp ?? undefined) : undefined };
            at += quarters * 960;
            return mark;
          });
          const map = buildTempoMap(marks);
          const inFile = buildTempoMap(tempoSteps(map, at).map((s) => ({ at: s.tick, bpm: 60e6 / s.micros, beat: 1 })));
          for (let tick = 0; tick <= at; tick += Math.max(331, at / 4000)) {
            expect(Math.abs(ticksToSeconds(map, tick) - ticksToSeconds(inFile, tick))).toBeLessThan(0.0005);
          }
        },
      ),
      runs(65, 60),
    );
  });

  it.each([133.7, 97.31, 20.03, 399.9])('does not drift in 1,300 bars at %s', (bpm) => {
    const end = 1300 * 4 * 960;
    const map = buildTempoMap([{ at: 0, bpm, beat: 1 }]);
    const inFile = buildTempoMap(tempoSteps(map, end).map((s) => ({ at: s.tick, bpm: 60e6 / s.micros, beat: 1 })));
    for (let tick = 0; tick <= end; tick += 997) {
      expect(Math.abs(ticksToSeconds(map, tick) - ticksToSeconds(inFile, tick))).toBeLessThan(0.0005);
    }
  });

  it('keeps moments also in a ramp that falls by three hundred in one beat', () => {
    const map = buildTempoMap([
      { at: 0, bpm: 320, beat: 1, rampTo: 20 },
      { at: 960, bpm: 20, beat: 1 },
    ]);
    const inFile = buildTempoMap(tempoSteps(map, 1920).map((s) => ({ at: s.tick, bpm: 60e6 / s.micros, beat: 1 })));
    for (let tick = 0; tick <= 1920; tick += 7) {
      expect(Math.abs(ticksToSeconds(map, tick) - ticksToSeconds(inFile, tick))).toBeLessThan(0.0005);
    }
  });

  it('names tracks, ports, sections, metre and tempo', () => {
    const { file: smf } = songToSmf(tonightOf(show), show.songs[0]!, 'written');
    const names = smf.tracks.map((t) => t.events[0]);
    expect(names).toMatchObject(
      ['Slack Tide in Seven', 'Quillback', 'Harrow', 'Thistle Echo', 'Marram', 'Tarn', 'Wick Four'].map((text) => ({
        type: 'track-name',
        text,
      })),
    );
    expect(smf.tracks[1]!.events).toContainEqual({ tick: 0, kind: 'text', type: 'port-name', text: 'Rack' });
    const conductor = smf.tracks[0]!.events;
    expect(conductor).toContainEqual({ tick: 8 * 7 * 480, kind: 'text', type: 'marker', text: 'Slack water' });
    expect(conductor).toContainEqual({ tick: 28 * 7 * 480, kind: 'metre', beats: 4, unit: 4 });
    expect(conductor).toContainEqual({ tick: 0, kind: 'tempo', micros: 476190 });
  });

  it('writes everything on its beat, also what changes nothing', () => {
    const { file: smf } = songToSmf(tonightOf(show), show.songs[0]!, 'written');
    const quillback = smf.tracks[1]!.events.filter((e) => e.kind === 'message');
    const at = (bar: number) => quillback.filter((e) => e.tick === (bar - 1) * 7 * 480).map((e) => e.bytes);
    expect(at(5)).toEqual([
      [0xb0, 0, 0],
      [0xc0, 2],
      [0xb0, 85, 1],
      [0xb0, 52, 0],
    ]);
    expect(at(9)[1]).toEqual([0xc0, 6]);
  });

  it('sends with leads, and makes room in front for what leaves before the start', () => {
    const { file: smf, problems } = songToSmf(tonightOf(show), show.songs[0]!, 'sent');
    expect(problems).toMatchObject([{ code: 'smf.lead-in', data: { bars: 1 } }, { code: 'export.left-out' }]);
    const bar = (7 * 480 * 15360) / 960;
    const opening = smf.tracks[1]!.events.filter((e) => e.kind === 'message')[0]!;
    expect(opening.tick).toBeLessThan(bar);
    expect(opening.tick).toBeGreaterThan(0);
  });
});

describe('a file that nobody has a map for', () => {
  it('imports as plain units and exports the same messages at the same times', () => {
    const metas: fc.Arbitrary<SmfEvent[]> = fc
      .array(fc.record({ tick: fc.nat(20000), micros: fc.integer({ min: 150000, max: 3000000 }) }), { maxLength: 5 })
      .map((list) => list.sort((a, b) => a.tick - b.tick).map((t): SmfEvent => ({ kind: 'tempo', ...t })));
    fc.assert(
      fc.property(smfFile, metas, (f, tempo) => {
        const original: SmfFile = { ...f, tracks: [{ events: tempo, end: 20000 }, ...f.tracks] };
        const { value: show } = smfToShow(writeSmf(original), 'Found');
        const { file: back } = songToSmf(tonightOf(show!), show!.songs[0]!, 'written');
        expect(byChannel(back)).toMatchObject(byChannel(original).map((c) => ({ key: c.key, bytes: c.bytes })));
        for (const [i, channel] of byChannel(back).entries()) {
          for (const [k, seconds] of channel.seconds.entries()) {
            expect(Math.abs(seconds - byChannel(original)[i]!.seconds[k]!)).toBeLessThan(0.0006);
          }
        }
      }),
      runs(66, 80),
    );
  });

  it('makes a song of each track of a format 2 file', () => {
    const f: SmfFile = {
      format: 2,
      division: { kind: 'quarter', ticks: 96 },
      tracks: [0, 1].map((c) => ({ events: [{ tick: 0, kind: 'message', bytes: [0xc0 | c, 1] }], end: 96 })),
    };
    expect(smfToShow(writeSmf(f), 'Two').value!.songs).toHaveLength(2);
  });

  it('lays frames out as time', () => {
    const f: SmfFile = {
      format: 0,
      division: { kind: 'frames', frames: 25, ticks: 40 },
      tracks: [{ events: [{ tick: 1500, kind: 'message', bytes: [0xc0, 1] }], end: 2000 }],
    };
    const { value, problems } = smfToShow(writeSmf(f), 'Frames');
    expect(value!.songs[0]!.cues[0]!.at).toBe(1.5 * 2 * 960);
    expect(problems.map((p) => p.code)).toContain('smf.smpte');
  });

  it('says what it moved', () => {
    const inside = file(
      0,
      0xff,
      0x58,
      4,
      4,
      2,
      24,
      8,
      96,
      0xff,
      0x58,
      4,
      3,
      2,
      24,
      8,
      0,
      0xff,
      6,
      1,
      65,
      0,
      0xc0,
      1,
      ...END,
    );
    const { value, problems } = smfToShow(inside, 'Inside');
    expect(problems.map((p) => p.code)).toEqual(['smf.ports-assumed', 'smf.metre-moved', 'smf.marker-moved']);
    expect(value!.songs[0]!.metre).toEqual([
      { bar: 1, beats: 4, unit: 4 },
      { bar: 2, beats: 3, unit: 4 },
    ]);
  });
});

/** Messages of each channel in their order, with the seconds at which they come; packets of no channel of their own together. */
function byChannel(f: SmfFile): { key: string; bytes: (readonly number[])[]; seconds: number[] }[] {
  const tempo = f.tracks
    .flatMap((t) => t.events)
    .filter((e) => e.kind === 'tempo')
    .sort((a, b) => a.tick - b.tick);
  const ticks = f.division.kind === 'quarter' ? f.division.ticks : 1;
  const marks = tempo.map((e) => ({ at: (e.tick * 960) / ticks, bpm: 60e6 / e.micros, beat: 1 }));
  if (marks[0]?.at !== 0) marks.unshift({ at: 0, bpm: 120, beat: 1 });
  const map = buildTempoMap(marks);
  const lists = new Map<string, { key: string; bytes: (readonly number[])[]; seconds: number[] }>();
  const all = f.tracks.flatMap((t, i) => t.events.map((event) => ({ event, i })));
  all.sort((a, b) => a.event.tick - b.event.tick || a.i - b.i);
  for (const { event } of all) {
    if (event.kind !== 'message' && event.kind !== 'packet') continue;
    const key = event.kind === 'message' ? String(event.bytes[0]! & 15) : 'packets';
    let list = lists.get(key);
    if (!list) lists.set(key, (list = { key, bytes: [], seconds: [] }));
    list.bytes.push(event.bytes);
    list.seconds.push(ticksToSeconds(map, (event.tick * 960) / ticks));
  }
  // Packets of different tracks come from different places; their order among each other is free.
  const packets = lists.get('packets');
  if (packets) {
    const pairs = packets.bytes
      .map((b, i) => ({ b, s: packets.seconds[i]! }))
      .sort((x, y) => Math.round(x.s * 1e4) - Math.round(y.s * 1e4) || String(x.b).localeCompare(String(y.b)));
    packets.bytes = pairs.map((p) => p.b);
    packets.seconds = pairs.map((p) => p.s);
  }
  return [...lists.values()].sort((a, b) => a.key.localeCompare(b.key));
}
