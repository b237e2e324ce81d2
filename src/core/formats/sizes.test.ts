import { describe, expect, it } from 'vitest';
import { indexOfLabel } from '../addressing';
import { compileSong } from '../compile';
import { demoShow } from '../demo';
import { hasErrors } from '../problems';
import { proveSong } from '../proof';
import { LIMITS, applyEdit, newSong, newSweep, setClock, toneCue, type Show, type Song, inOrder } from '../show';
import { buildBarMap, parsePosition } from '../time';
import { readMidiNames } from './midi-names';
import { readShowFile, writeShowFile } from './show-file';
import { readSmf, smfToShow, songToSmf, writeSmf } from './smf';
import { tonightOf } from '../tonight';

// What is as large, as long or as deep as nobody would make it: each has an answer, and in no more time than one waits for.
const show = demoShow();
const [unit] = show.units;

const chunk = (type: string, data: readonly number[]): number[] => [
  ...Array.from(type).map((c) => c.charCodeAt(0)),
  data.length >>> 24,
  (data.length >> 16) & 255,
  (data.length >> 8) & 255,
  data.length & 255,
  ...data,
];
const midi = (format: number, tracks: readonly (readonly number[])[]): Uint8Array =>
  Uint8Array.from([
    ...chunk('MThd', [0, format, tracks.length >> 8, tracks.length & 255, 1, 0xe0]),
    ...tracks.flatMap((t) => chunk('MTrk', t)),
  ]);
const text = (type: number, words: string): number[] => {
  const length = words.length > 127 ? [0x80 | (words.length >> 7), words.length & 127] : [words.length];
  return [0, 0xff, type, ...length, ...Array.from(words).map((c) => c.charCodeAt(0))];
};
const END = [0, 0xff, 0x2f, 0];
const BODY = [0, 0xc0, 5, 0x83, 0x60, 0xb0, 7, 100, ...END];
const withSong = (song: Song): Show => ({ ...show, songs: [song], ...inOrder([]) });

describe('what an import makes', () => {
  it.each<[string, () => ReturnType<typeof smfToShow>]>([
    ['a file name of 150 letters', () => smfToShow(midi(1, [BODY]), 'x'.repeat(150))],
    ['a file without a name', () => smfToShow(midi(1, [BODY]), '')],
    ['a file name of blanks', () => smfToShow(midi(1, [BODY]), '   ')],
    ['a port name of 115 letters', () => smfToShow(midi(1, [[...text(9, 'p'.repeat(115)), ...BODY]]), 'x')],
    ['a track name of 300 letters', () => smfToShow(midi(1, [[...text(3, 't'.repeat(300)), ...BODY]]), 'x')],
    [
      '2,001 sequences',
      () =>
        smfToShow(
          midi(
            2,
            Array.from({ length: 2001 }, () => BODY),
          ),
          'x',
        ),
    ],
    ['a packet that is no message', () => smfToShow(midi(1, [[0, 0xf7, 2, 0x90, 0x87, ...BODY]]), 'x')],
  ])('is read by our own reader: %s', (_, make) => {
    const { value } = make();
    const back = readShowFile(writeShowFile(value!));
    expect(back.problems.filter((p) => p.severity === 'error')).toEqual([]);
    expect(back.value).toEqual(value);
  });

  it('has as many songs as a show holds, and says how many there were', () => {
    const { value, problems } = smfToShow(
      midi(
        2,
        Array.from({ length: 2001 }, () => BODY),
      ),
      'x',
    );
    expect(value!.songs).toHaveLength(LIMITS.songs);
    expect(problems.find((p) => p.code === 'smf.too-many-songs')?.data).toEqual({ songs: 2001, limit: LIMITS.songs });
  });
});

describe('what an export makes', () => {
  it.each(['written', 'sent'] as const)('is read again, also with bytes that are no message, as %s', (mode) => {
    const made = smfToShow(midi(1, [[0, 0xf7, 2, 0x90, 0x87, 0, 0xf7, 1, 0x90, ...BODY]]), 'x').value!;
    const { file } = songToSmf(tonightOf(made), made.songs[0]!, mode);
    const back = readSmf(writeSmf(file));
    expect(hasErrors(back.problems)).toBe(false);
    const packets = back.value!.tracks.flatMap((t) => t.events.filter((e) => e.kind === 'packet'));
    expect(packets.map((p) => (p.kind === 'packet' ? p.bytes : []))).toEqual([[0x90, 0x87], [0x90]]);
  });
});

describe('a reader', () => {
  const deep = '['.repeat(20_000) + ']'.repeat(20_000);

  it('refuses JSON that nests deeper than a show, with the place', () => {
    expect(readShowFile(deep).problems).toMatchObject([
      { code: 'json.too-deep', place: { in: 'text', row: 1, column: LIMITS.jsonDepth + 1 } },
    ]);
    const inside = writeShowFile(show).replace('"notes": ""', `"notes": ${deep}`);
    expect(readShowFile(inside).problems[0]!.code).toBe('json.too-deep');
    // Brackets in a text are no nesting.
    const titled = { ...show, title: `${'['.repeat(60)}"\\${'{'.repeat(50)}` };
    expect(readShowFile(writeShowFile(titled)).value!.title).toBe(titled.title);
  });

  it.each([
    ['comments that are not closed', '<!--'.repeat(50_000)],
    ['comments in a document', `<?xml version="1.0"?><MIDINameDocument>${'<!--'.repeat(50_000)}`],
    ['tags that are not closed', '<a'.repeat(50_000)],
    ['document types', '<!DOCTYPE '.repeat(50_000)],
  ])('answers for %s', (_, source) => {
    const { value, problems } = readMidiNames(source);
    expect(value).toBeUndefined();
    expect(problems[0]!.severity).toBe('error');
  });

  it('refuses a value at rest that its control does not take', () => {
    const profile = {
      ...unit!.profile,
      controls: unit!.profile.controls.map((c) => (c.encoding.kind === 'continuous' ? { ...c, rest: 1e9 } : c)),
    };
    const { problems } = readShowFile(
      writeShowFile({ ...show, units: [{ ...unit!, profile }, ...show.units.slice(1)] }),
    );
    expect(problems[0]).toMatchObject({ code: 'show.value-range', data: { value: 1e9 } });
  });
});

describe('what is typed', () => {
  it.each([
    '1|1+',
    '1'.repeat(100_000),
    `1|1.${'3'.repeat(310)}`,
    `1|1|${'9'.repeat(310)}`,
    `1|1+${'1'.repeat(310)}/3`,
  ])('as a place has an answer: %.12s', (typed) => {
    const found = parsePosition(buildBarMap([{ bar: 1, beats: 4, unit: 4 }]), typed, 100);
    if (found.ok) expect(Number.isFinite(found.ticks)).toBe(true);
  });

  it('as a preset has an answer', () => {
    for (const { profile } of show.units) expect(indexOfLabel(profile.plan, '1'.repeat(100_000))).toBeUndefined();
  });
});

describe('a song', () => {
  it('may have two thousand changes ten ticks apart', () => {
    const cues = Array.from({ length: 2000 }, (_, i) => toneCue(`c${i}`, i * 10, show.tones[i % 6]!.id));
    const song = { ...newSong('x', 'X', { bars: 64 }), cues };
    expect(Object.keys(proveSong(tonightOf(withSong(song)), song, 'engine', false).proofs).length).toBeGreaterThan(
      1000,
    );
  });

  it('may have a clock through 1,500 bars', () => {
    const bare = withSong({ ...newSong('x', 'X', { bars: 1500 }), metre: [{ bar: 1, beats: 7, unit: 8 }] });
    const clocked = applyEdit(bare, setClock(bare, 'x', 'rack', 'clock')!);
    expect(compileSong(clocked, clocked.songs[0]!).events).toHaveLength(1500 * 3.5 * 24 + 2);
  });

  it('may have a sweep that ends long after it, and is told', () => {
    const control = unit!.profile.controls.find((c) => c.encoding.kind === 'continuous')!;
    const sweep = newSweep('s', unit!, control, 0, 960);
    const long = { kind: 'wave', form: 'sine', low: 0, high: 100, period: 60, steps: 8 } as const;
    const song = { ...newSong('x', 'X', { bars: 8 }), sweeps: [{ ...sweep, to: 1e12, shape: long }] };
    const { findings } = proveSong(tonightOf(withSong(song)), song, 'engine', false);
    expect(findings.map((f) => f.code)).toContain('song.outside');
    expect(compileSong(withSong(song), song).events.length).toBeLessThan(2 * LIMITS.sweepValues);
  });
});
