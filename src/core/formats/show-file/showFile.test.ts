import { readFileSync, readdirSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { problemLine } from '../../../wording';
import { demoShow } from '../../demo';
import { SHOW_VERSION, type Show } from '../../show';
import { readShowFile } from './read';
import { writeShowFile } from './write';
import { runs } from '../../testing/runs';

const text = writeShowFile(demoShow());

/** What the reader says about the demo show with one thing changed. */
function problemLines(change: (show: Record<string, any>) => void): string[] {
  const show = JSON.parse(text) as Record<string, any>;
  change(show);
  const { value, problems } = readShowFile(JSON.stringify(show));
  if (problems.some((p) => p.severity === 'error')) expect(value).toBeUndefined();
  return problems.map(problemLine);
}

describe('show file', () => {
  it('has a saved file of every version, and reads them all', () => {
    const folder = new URL('../../../../fixtures/shows/', import.meta.url);
    const names = readdirSync(folder);
    for (let version = 1; version <= SHOW_VERSION; version++) expect(names).toContain(`version-${version}.json`);
    for (const name of names) {
      const { value, problems } = readShowFile(readFileSync(new URL(name, folder), 'utf8'));
      expect(problems).toEqual([]);
      expect((value as Show).version).toBe(SHOW_VERSION);
    }
  });

  it('holds nothing further away than anybody can play', () => {
    expect(problemLines((s) => (s.songs[0].pickup = 1e308))[0]).toMatch(/songs\[0\]\.pickup: .*at most 1000000/);
    expect(problemLines((s) => (s.songs[0].cues[0].at = 1e12))[0]).toMatch(/songs\[0\]\.cues\[0\]\.at: .*at most/);
    expect(problemLines((s) => (s.songs[0].cues[0].at = -1e12))[0]).toMatch(/songs\[0\]\.cues\[0\]\.at: .*at least/);
  });

  it('lifts a show of the version before to what this version writes', () => {
    const saved = (n: number): Show => {
      const url = new URL(`../../../../fixtures/shows/version-${n}.json`, import.meta.url);
      return readShowFile(readFileSync(url, 'utf8')).value!;
    };
    const before = saved(SHOW_VERSION - 1);
    expect(before).toEqual(saved(SHOW_VERSION));
    expect(before.sets.map((s) => s.entries.length)).toEqual([before.songs.length]);
    expect(before.sets[0]!.entries[0]).toMatchObject({ kind: 'song', follow: 'wait', launch: null });
    expect(saved(4).accepted[0]!.says).toBe('{}');
    expect([...saved(4).ports, ...saved(4).units].every((x) => !x.splitter)).toBe(true);
  });

  it('says where the JSON breaks off', () => {
    const { problems } = readShowFile('{\n "format": "hollow-lantern-show",\n "version": 1,,\n}');
    expect(problems.map(problemLine)[0]).toMatch(/^line 3, column 15: The file is not valid JSON/);
    expect(readShowFile('').problems.map(problemLine)[0]).toMatch(/not valid JSON/);
    expect(readShowFile(text.slice(0, 999)).value).toBeUndefined();
  });

  it('names what was expected and what came, with the place in the show', () => {
    expect(problemLines((s) => (s.units[1].channel = 17))).toEqual([
      'units[1].channel: Expected at most 16, found 17.',
    ]);
    expect(problemLines((s) => (s.tones[0].name = 5))).toEqual(['tones[0].name: Expected a text, found 5.']);
    expect(problemLines((s) => delete s.songs[2].cues[1].at)).toEqual([
      'songs[2].cues[1].at: Expected a number, found nothing.',
    ]);
    expect(problemLines((s) => (s.ports[0].cable = 'string'))).toEqual([
      'ports[0].cable: Expected one of "din", "usb", found "string".',
    ]);
    expect(problemLines((s) => (s.extra = 1))).toEqual([expect.stringContaining('Expected nothing named "extra"')]);
  });

  it('says which time is shorter at the worst than it typically is, of a unit and of a preset', () => {
    const wrong = { typical: 180, worst: 150, source: 'typed', trials: [], date: null };
    expect(problemLines((s) => (s.units[0].profile.times.recall = wrong))).toEqual([
      'units[0].profile.times.recall: A time of Quillback is 150 ms at the worst, which is less than the 180 ms that it typically takes.',
    ]);
    expect(problemLines((s) => (s.units[0].slots[2].recall = wrong))[0]).toMatch(
      /^units\[0\]\.slots\[2\]\.recall: .* 150 ms at the worst/,
    );
    expect(problemLines((s) => (s.margin = 900))).toEqual(['margin: Expected at most 200, found 900.']);
    expect(problemLines((s) => (s.units[0].profile.times.settle.trials = [5, -1]))).toEqual([
      'units[0].profile.times.settle.trials[1]: Expected at least 0, found -1.',
    ]);
  });

  it('refuses a foreign or newer file by name', () => {
    expect(readShowFile('[]').problems.map(problemLine)[0]).toContain('found a list');
    expect(readShowFile('{"format":"other"}').problems.map(problemLine)[0]).toContain('format "other"');
    expect(problemLines((s) => (s.version = 99))[0]).toContain('newer Hollow Lantern (show version 99');
  });

  it('finds references to what is not there, doubles, and wrong order', () => {
    expect(problemLines((s) => (s.songs[0].cues[0].action.toneId = 'gone'))).toEqual([
      'songs[0].cues[0].action.toneId: It refers to the tone "gone", which is not in the show.',
    ]);
    expect(problemLines((s) => (s.tones[1].id = s.tones[0].id)).join()).toContain('used twice');
    expect(problemLines((s) => (s.songs[0].metre[1].bar = 1))).toEqual([
      'songs[0].metre[1]: The metre marks must be in order, each at a place of its own.',
    ]);
    expect(problemLines((s) => (s.songs[0].tempo[0].rampTo = 90))[0]).toContain('no mark follows');
    expect(problemLines((s) => (s.tones[0].parts[0].variant = 8))).toEqual([
      'tones[0].parts[0].variant: Quillback has 8 scenes, counted from 0; found 8.',
    ]);
    expect(problemLines((s) => (s.units[0].slots[0].index = 180))[0]).toContain('past the last');
    expect(problemLines((s) => (s.tones[0].parts[4].controls[0].value = 101))[0]).toContain(
      'Mix of Tarn takes 0 to 100; found 101',
    );
  });

  it('says what is wrong with a plan or an encoding in a sentence', () => {
    expect(problemLines((s) => (s.units[0].profile.plan.groups[1].digits[0].text = 'x').length).length).toBe(0);
    expect(problemLines((s) => s.units[0].profile.plan.groups[1].digits.shift())).toEqual([
      'units[0].profile.plan: Two slots of Quillback would be written "A1": indexes 0 and 120, counted from 0.',
    ]);
    expect(problemLines((s) => (s.units[4].profile.variants.encoding.base = 126))[0]).toBe(
      'units[4].profile: A value of snapshot of Marram would be 129; values end at 127.',
    );
    expect(problemLines((s) => (s.units[0].profile.controls[0].encoding.off = 90))[0]).toContain(
      'Drive of Quillback reads its on value',
    );
  });

  it('answers any text and any damaged show without throwing', () => {
    fc.assert(
      fc.property(fc.string(), (t) => readShowFile(t).value === undefined),
      { seed: 51 },
    );
    fc.assert(
      fc.property(fc.nat(text.length - 1), fc.string({ minLength: 0, maxLength: 3 }), (at, with_) => {
        readShowFile(text.slice(0, at) + with_ + text.slice(at + 1));
      }),
      runs(52, 150),
    );
    fc.assert(
      fc.property(fc.json(), (json) => {
        readShowFile(`{"format":"hollow-lantern-show","version":1,"units":${json},"songs":${json}}`);
      }),
      { seed: 53 },
    );
  });
});
