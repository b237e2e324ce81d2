import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { problemLine } from '../../../wording';
import { demoShow } from '../../demo';
import { LIBRARY } from '../../library';
import { readUnitFile, writeProfileFile, writeUnitFile } from './';
import { runs } from '../../testing/runs';

const show = demoShow();
const text = writeUnitFile(show, show.units[0]!);

describe('a unit as a file of its own', () => {
  it.each(show.units)('$name comes back as it was, without its place in the rig', (unit) => {
    const { value, problems } = readUnitFile(writeUnitFile(show, unit));
    expect(problems).toEqual([]);
    const { name, monogram, profile, versions, slots } = unit;
    expect(value!.unit).toMatchObject({ name, monogram, profile, versions, slots, input: null, relays: [] });
    const followed = profile.controls.map((c) => c.houseId).filter((id) => id !== null);
    expect(value!.house.map((h) => h.id).sort()).toEqual(followed.toSorted());
  });

  it.each(LIBRARY)('$id of the library does so too', ({ profile, versions }) => {
    const { value } = readUnitFile(writeProfileFile({ profile, versions }));
    expect(value!.unit).toMatchObject({ profile, versions, slots: [] });
  });

  it('is refused with the place where it is not one', () => {
    const problem = (t: string) => readUnitFile(t).problems.map(problemLine);
    const changed = (change: (f: any) => void): string => {
      const file = JSON.parse(text);
      change(file);
      return JSON.stringify(file);
    };
    expect(problem('{')).toEqual([
      'line 1, column 2: The file is not valid JSON: reading stopped at the end of the file.',
    ]);
    expect(problem('[]')[0]).toContain('This is not a unit of Hollow Lantern');
    expect(problem(changed((f) => (f.format = 'other')))[0]).toContain('found "other"');
    expect(problem(changed((f) => (f.version = 99)))[0]).toContain('newer');
    expect(problem(changed((f) => (f.unit.profile.times.recall.typical = -1)))).toEqual([
      'unit.profile.times.recall.typical: Expected at least 0, found -1.',
    ]);
    expect(problem(changed((f) => (f.unit = 3)))).toEqual(['unit: Expected an object, found something else.']);
    expect(problem(changed((f) => (f.house = {})))).toEqual(['house: Expected a list, found something else.']);
    expect(problem(changed((f) => (f.unit.more = 1)))[0]).toContain('nothing named "more"');
    const groups = problem(changed((f) => (f.unit.profile.plan.groups[0].count = 500)));
    expect(groups).toEqual([
      "unit.profile.plan: Group 1 of Quillback's plan has 500 slots, but its digits can only tell 120 apart.",
    ]);
  });

  it('answers any damage without throwing', () => {
    fc.assert(
      fc.property(fc.nat(text.length - 1), fc.string({ maxLength: 3 }), (place, with_) => {
        readUnitFile(text.slice(0, place) + with_ + text.slice(place + 1));
      }),
      runs(71, 300),
    );
    fc.assert(
      fc.property(fc.jsonValue(), fc.jsonValue(), (unit, house) => {
        readUnitFile(JSON.stringify({ format: 'hollow-lantern-unit', version: 2, unit, house }));
      }),
      { seed: 72 },
    );
  });
});
