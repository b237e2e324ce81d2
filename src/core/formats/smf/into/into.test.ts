import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { problemLine } from '../../../../wording';
import { controlChange, programChange } from '../../../midi';
import { checkSong } from '../../../checks';
import { applyEdit, checkShow, indexShow, invertEdit, openingOf, type Show, type Song } from '../../../show';
import { demoShow } from '../../../demo';
import { smfToShow } from '../smfToShow';
import { songToSmf, type SmfMode } from '../songToSmf';
import type { SmfEvent, SmfFile } from '../types';
import { writeSmf } from '../write';
import { matchVoices, songIntoShow, voicesOf, withoutVoices, type Imported } from './';
import { runs } from '../../../testing/runs';
import { tonightOf } from '../../../tonight';

const demo = demoShow();
let made = 0;
const newId = (): string => `new-${made++}`;

function bring(file: SmfFile, into: Show = demo, steps = true): Imported {
  const plain = smfToShow(writeSmf(file), 'Imported').value!;
  return songIntoShow(into, plain, plain.songs[0]!, matchVoices(into, voicesOf(plain)), steps, newId);
}

/** A song written to a file and brought into the show that it came from. */
const again = (song: Song, mode: SmfMode): Imported => bring(songToSmf(tonightOf(demo), song, mode).file);

/** A file of one track with messages at ticks of 960 a quarter. */
const fileOf = (name: string, messages: readonly (readonly [tick: number, bytes: readonly number[]])[]): SmfFile => {
  const events: SmfEvent[] = [
    { tick: 0, kind: 'text', type: 'track-name', text: name },
    ...messages.map(([tick, bytes]): SmfEvent => ({ tick, kind: 'message', bytes })),
  ];
  return { format: 1, division: { kind: 'quarter', ticks: 960 }, tracks: [{ events, end: 4 * 960 * 16 }] };
};

const quillback = indexShow(demo).units.get('quillback')!;
const variants = quillback.profile.variants!.encoding;
const scene = (value: number): readonly number[] =>
  controlChange(quillback.channel, 'number' in variants ? variants.number : 0, value);

describe('a file into a show', () => {
  it('finds every tone of every song again, on its tick', () => {
    for (const song of demo.songs) {
      const { song: back, report } = again(song, 'written');
      const tones = (s: Song): unknown[] =>
        s.cues.flatMap((c) => (c.action.kind === 'tone' ? [[c.at, c.action.toneId]] : []));
      expect(tones(back), song.title).toEqual(tones({ ...song, cues: song.cues.filter((c) => !c.muted) }));
      expect(openingOf(demo, back)).toBe(openingOf(demo, song));
      expect(report.tonesMade).toEqual([]);
      expect(report.unitsMade).toEqual([]);
      expect(back.sections.map((s) => [s.name, s.bar])).toEqual(song.sections.map((s) => [s.name, s.bar]));
      expect([back.pickup, back.bars]).toEqual([song.pickup, song.bars]);
      expect(back.tempo.length).toBeGreaterThanOrEqual(song.tempo.length);
    }
  });

  it('leaves out what a channel sends, and makes no unit for it', () => {
    const file = fileOf('Two', [
      [0, [0xc7, 3]],
      [960, [0xc8, 4]],
      [1920, [0xb8, 7, 9]],
    ]);
    const plain = smfToShow(writeSmf(file), 'Imported').value!;
    const voices = voicesOf(plain);
    const places = new Map(voices.map((v) => [v.id, null]));
    const out = voices.find((v) => v.channel === 9)!;
    expect(out.messages).toBe(2);
    const song = withoutVoices(plain.songs[0]!, new Set([out.id]));
    const { report, song: made } = songIntoShow(demo, plain, song, places, true, newId);
    expect(report.unitsMade).toHaveLength(1);
    expect(made.bars).toBe(plain.songs[0]!.bars);
    const none = songIntoShow(demo, plain, withoutVoices(song, new Set(voices.map((v) => v.id))), places, true, newId);
    expect(none.song.cues).toEqual([]);
    expect(none.report.unitsMade).toEqual([]);
  });

  it('takes runs of values as sweeps that send the same', () => {
    const song = demo.songs[0]!;
    const { song: back } = again(song, 'written');
    expect(back.sweeps.map((s) => [s.unitId, s.controlId, s.from])).toEqual(
      song.sweeps.map((s) => [s.unitId, s.controlId, s.from]),
    );
  });

  it('is one edit that keeps the show in order, and can be taken back', () => {
    const { edit } = again(demo.songs[1]!, 'written');
    const after = applyEdit(demo, edit);
    expect(checkShow(after)).toEqual([]);
    expect(after.songs).toHaveLength(demo.songs.length + 1);
    expect(applyEdit(after, invertEdit(edit))).toEqual(demo);
  });

  it('makes a tone of what the show has no name for, and a slot with it', () => {
    const { edit, song, report } = bring(
      fileOf('Quillback', [
        [960, programChange(quillback.channel, 77)],
        [965, scene(2)],
        [9600, programChange(quillback.channel, 77)],
        [9605, scene(2)],
      ]),
    );
    expect(report).toMatchObject({ tonesFound: 1, raw: 0, controls: 0 });
    expect(report.tonesMade).toHaveLength(1);
    expect(report.tonesMade[0]).toMatch(/^Quillback M6, /);
    const after = applyEdit(demo, edit);
    expect(
      indexShow(after)
        .units.get('quillback')!
        .slots.some((s) => s.index === 77),
    ).toBe(true);
    expect(song.cues.map((c) => c.at)).toEqual([960, 9600]);
    expect(checkShow(after)).toEqual([]);
  });

  it('finds a ramp through a selector, and offers a step to where it ends', () => {
    const file = fileOf('Quillback', [
      [960, scene(0)],
      [1000, scene(1)],
      [1040, scene(2)],
      [1080, scene(3)],
    ]);
    const stepped = bring(file);
    expect(stepped.problems.map(problemLine).join()).toMatch(
      /From 1\|2 to 1\|2\|120 a ramp runs through scene of Quillback.*one step/,
    );
    expect(stepped.report.ramps).toBe(1);
    expect(stepped.song.cues.map((c) => c.at)).toEqual([1080]);
    const kept = bring(file, demo, false);
    expect(kept.problems.map(problemLine).join()).toMatch(/would step through all/);
    // Kept, the steps stand as they are: nobody wants a tone for each of them.
    expect(kept.report.tonesMade.length).toBeLessThanOrEqual(1);
    expect(kept.song.cues.map((c) => c.action.kind)).toEqual(['message', 'message', 'message', 'tone']);
    const after = applyEdit(demo, kept.edit);
    const ramps = checkSong(tonightOf(after), after.songs.at(-1)!).filter((f) => f.code === 'song.selector-ramp');
    expect(ramps).toHaveLength(1);
    expect(
      applyEdit(after, ramps[0]!.fix!)
        .songs.at(-1)!
        .cues.map((c) => c.at),
    ).toEqual([1080]);
  });

  it('tells a ramp once, however long it is and whichever way it goes', () => {
    const values = [0, 1, 1, 2, 3, 4, 5, 6, 7, 6, 5, 4, 4, 2, 0];
    const file = fileOf(
      'Quillback',
      values.map((v, i): [number, readonly number[]] => [960 + i * 60, scene(v)]),
    );
    const { report, problems, song } = bring(file);
    expect(report.ramps).toBe(1);
    expect(problems.filter((p) => p.code === 'smf.selector-ramp')).toHaveLength(1);
    expect(song.cues).toHaveLength(1);
    const kept = bring(file, demo, false);
    const after = applyEdit(demo, kept.edit);
    const ramps = checkSong(tonightOf(after), after.songs.at(-1)!).filter((f) => f.code === 'song.selector-ramp');
    expect(ramps).toHaveLength(1);
    const mended = applyEdit(after, ramps[0]!.fix!);
    expect(checkSong(tonightOf(mended), mended.songs.at(-1)!).filter((f) => f.code === 'song.selector-ramp')).toEqual(
      [],
    );
  });

  it('keeps what the map has no name for as it stands', () => {
    const { song, report, problems } = bring(
      fileOf('Quillback', [
        [960, controlChange(quillback.channel, 119, 3)],
        [1920, [0xe0 | (quillback.channel - 1), 0, 64]],
        [2880, controlChange(quillback.channel, 0, 1)],
        [2880, programChange(quillback.channel, 100)],
      ]),
    );
    expect(report.raw).toBe(4);
    expect(problems.map(problemLine).join()).toMatch(/At 1\|4 a program calls no slot of Quillback/);
    expect(song.cues.map((c) => c.action)).toMatchObject([
      { kind: 'message', unitId: 'quillback' },
      { kind: 'message', unitId: 'quillback' },
      { kind: 'message', unitId: 'quillback' },
      { kind: 'message', unitId: 'quillback' },
    ]);
  });

  it('brings units along that the show has not', () => {
    const { edit, report } = bring(fileOf('Far side', [[0, programChange(15, 4)]]));
    expect(report.unitsMade).toEqual(['Far side']);
    const after = applyEdit(demo, edit);
    expect(after.units.at(-1)).toMatchObject({ name: 'Far side', channel: 15 });
    expect(checkShow(after)).toEqual([]);
  });

  it('places single controls as such', () => {
    const drive = quillback.profile.controls.find((c) => c.encoding.kind === 'set-switch')!;
    const number = 'number' in drive.encoding ? drive.encoding.number : 0;
    const { song, report } = bring(fileOf('Quillback', [[960, controlChange(quillback.channel, number, 127)]]));
    expect(report.controls).toBe(1);
    expect(song.cues[0]!.action).toEqual({ kind: 'control', unitId: 'quillback', controlId: drive.id, value: 1 });
  });

  it('never loses a message that it does not name, whatever stands in the file', () => {
    const message = fc.oneof(
      fc.tuple(fc.nat(15), fc.nat(127), fc.nat(127)).map(([c, n, v]) => [0xb0 | c, n, v]),
      fc.tuple(fc.nat(15), fc.nat(127)).map(([c, p]) => [0xc0 | c, p]),
      fc.tuple(fc.nat(15), fc.nat(127), fc.nat(127)).map(([c, n, v]) => [0x90 | c, n, v]),
    );
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(40_000), message), { maxLength: 60 }), (messages) => {
        const sorted = messages.toSorted((a, b) => a[0] - b[0]);
        const { edit, song } = bring(fileOf('Anything', sorted));
        const after = applyEdit(demo, edit);
        expect(checkShow(after)).toEqual([]);
        if (sorted.length > 0) {
          const something = song.cues.length + song.sweeps.length + (song.openingToneId === null ? 0 : 1);
          const bank = sorted.every(([, b]) => (b[0]! & 0xf0) === 0x90 && b[2] === 0);
          expect(something > 0 || bank).toBe(true);
        }
      }),
      runs(404, 60),
    );
  });
});
