import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addressOf, labelOf, slotCount } from '../../addressing';
import { demoShow } from '../../demo';
import { LIBRARY } from '../../library';
import { newSlot } from '../../show';
import { decodeText, readPresetList, writePresetList, writeReorderList } from './';
import { problemLine } from '../../../wording';
import { runs } from '../../testing/runs';
import type { MadeNames } from '../../cells';

const unit = demoShow().units[0]!;
const { plan } = unit.profile;
const options = { plan, unit: unit.name, slots: [], first: 0, made: 'ask' as const };
const read = (text: string, first = 0) => readPresetList(text, { ...options, first });
const problemLines = (text: string) => read(text).problems.map((p) => [p.code, p.place.in === 'text' && p.place.row]);

describe('a pasted list of presets', () => {
  it('may be one column, from any slot on; an empty line is a slot without a name', () => {
    expect(read('Gull\n\nUndertow, deep\r\n\n', 46).value).toEqual([
      { index: 46, name: 'Gull' },
      { index: 47, name: '' },
      { index: 48, name: 'Undertow, deep' },
    ]);
  });

  it("may give each its label, in the unit's own writing, in any order", () => {
    const value = [
      { index: 47, name: 'Fog Lead' },
      { index: 120, name: 'Old, Glass' },
    ];
    expect(read('factory a1\tOld, Glass\nH6\tFog Lead').value).toEqual(value);
    expect(read('H6;Fog Lead\nfactory A1;"Old, Glass"').value).toEqual(value);
    expect(read('H6,Fog Lead\nfactory A1,"Old, Glass"').value).toEqual(value);
  });

  it('may be a table with a head, with numbers from 0 or from 1', () => {
    expect(read('name,from 1\nGull,48').value).toEqual([{ index: 47, name: 'Gull' }]);
    expect(read('Index;Bank;Name\n47;0;Gull').value).toEqual([{ index: 47, name: 'Gull' }]);
    expect(read('bank,name\n1,Gull\n1,Tern').value).toEqual([
      { index: 0, name: 'Gull' },
      { index: 1, name: 'Tern' },
    ]);
  });

  it('is refused whole with the line of each problem', () => {
    expect(problemLines('A1\tGull\nZ9\tTern\nA1\tSwift')).toEqual([
      ['list.no-such-slot', 2],
      ['list.slot-twice', 3],
    ]);
    expect(read('A1\tGull\nZ9\tTern').value).toBeUndefined();
    expect(problemLines(`Gull\n${'x'.repeat(121)}`)).toEqual([['list.name-long', 2]]);
    expect(problemLines('Gull\nT\ufffdrn')).toEqual([['list.not-text', 2]]);
    expect(problemLines('A1\tGull\nA2\t"Tern')).toContainEqual(['list.quotes', 2]);
    expect(problemLines('label,bank\nA1,0')).toEqual([['list.no-names', 1]]);
    expect(problemLines('\n \n')).toEqual([['list.empty', false]]);
    expect(problemLines('from 0,name\n-1,Gull\n180,Tern\nx,Swift')).toEqual([
      ['list.no-such-slot', 2],
      ['list.no-such-slot', 3],
      ['list.no-such-slot', 4],
    ]);
  });

  it('of five thousand lines is refused where it passes the last slot, and answers at once', () => {
    const { value, problems } = read(Array.from({ length: 5000 }, (_, i) => `Preset ${i}`).join('\n'));
    expect(value).toBeUndefined();
    expect(problems).toHaveLength(20);
    expect(problems[0]).toMatchObject({ code: 'list.past-end', place: { row: 181 }, data: { slots: 180 } });
    expect(read('x\n'.repeat(70_000)).problems[0]).toMatchObject({ code: 'list.too-long' });
  });

  it('is told of gaps and of names that stand twice, but taken', () => {
    const { value, problems } = read('A1\tGull\nA4\tGull');
    expect(value).toHaveLength(2);
    expect(problems.map((p) => p.code)).toEqual(['list.same-name', 'list.gaps']);
    expect(problems[1]!.data).toEqual({ count: 2 });
  });

  it('comes back from its file as it was, for every plan of the library', () => {
    for (const { profile } of LIBRARY) {
      const count = slotCount(profile.plan);
      const slots = Array.from({ length: Math.min(count, 300) }, (_, i) =>
        newSlot(`s${i}`, i, `N°${i}, "dry"; é\u2019`),
      );
      const text = writePresetList({ ...unit, profile, slots });
      const back = readPresetList(text, { ...options, plan: profile.plan });
      expect(back.value).toEqual(slots.map(({ index, name }) => ({ index, name })));
    }
  });

  it('answers any text without throwing', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary' }), fc.nat(300), (text, first) => {
        const { value, problems } = read(text, first);
        expect(value === undefined).toBe(problems.some((p) => p.severity === 'error'));
      }),
      runs(61, 400),
    );
    fc.assert(
      fc.property(fc.array(fc.constantFrom('\t', ',', ';', '"', '\n', 'A1', 'name', 'label', '7', ' ')), (parts) => {
        for (const { index } of read(parts.join('')).value ?? []) expect(index).toBeLessThan(180);
      }),
      runs(62, 600),
    );
  });
});

describe('the list of a reorder', () => {
  it('says of each preset where it was and where it is, as the unit and the wire have it', () => {
    const text = writeReorderList(unit, [
      { slotId: 'a', what: 'same', before: { index: 0, name: 'Gull' }, after: { index: 0, name: 'Gull' } },
      { slotId: 'b', what: 'moved', before: { index: 47, name: 'Tern' }, after: { index: 120, name: 'Tern' } },
      { slotId: 'c', what: 'gone', before: { index: 3, name: 'Swift, "old"' }, after: null },
      { slotId: null, what: 'new', before: null, after: { index: 5, name: 'Rail' } },
    ]);
    const at = (index: number) => {
      const { bank, program } = addressOf(plan, index)!;
      return `${labelOf(plan, index)},${bank ?? ''},${program}`;
    };
    expect(text.split('\r\n')).toEqual([
      'change,label before,bank before,program before,name before,label after,bank after,program after,name after',
      `same,${at(0)},Gull,${at(0)},Gull`,
      `moved,${at(47)},Tern,${at(120)},Tern`,
      `gone,${at(3)},"Swift, ""old""",,,,`,
      `new,,,,,${at(5)},Rail`,
      '',
    ]);
  });
});

describe('the text of a file', () => {
  it('is UTF-8 or UTF-16, and anything else is refused with the byte', () => {
    const utf8 = new TextEncoder().encode('Möwe');
    expect(decodeText(utf8).value).toBe('Möwe');
    expect(decodeText(new Uint8Array([0xef, 0xbb, 0xbf, ...utf8])).value).toBe('Möwe');
    expect(decodeText(new Uint8Array([0xff, 0xfe, 0x4d, 0, 0xf6, 0])).value).toBe('Mö');
    expect(decodeText(new Uint8Array([0xfe, 0xff, 0, 0x4d, 0, 0xf6])).value).toBe('Mö');
    expect(decodeText(new Uint8Array([0x4d, 0xf6, 0x77, 0x65])).problems[0]).toMatchObject({
      code: 'list.encoding',
      data: { offset: 1 },
    });
  });

  it('never throws', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 200 }), (bytes) => {
        decodeText(bytes);
      }),
      { seed: 63 },
    );
  });
});

describe('a list that a spreadsheet saved', () => {
  const slots = ['007', '1/2', '+3 dB'].map((name, i) => newSlot(`s${i}`, i, name));
  const back = (text: string, made: MadeNames, dashed = plan) =>
    readPresetList(text, { ...options, plan: dashed, slots, made });

  it('is asked about where names changed, and read as it was or as it is written', () => {
    const text = 'label;name\nA1;7\nA2;1-Feb\nA3;Lead';
    expect(back(text, 'ask').problems.map(problemLine)).toEqual([
      'line 2, column 1: "7" looks like what a spreadsheet made of "007". Write "007" there, as text, or say how such names are read.',
      'line 3, column 1: "1-Feb" looks like what a spreadsheet made of "1/2". Write "1/2" there, as text, or say how such names are read.',
    ]);
    expect(back(text, 'keep').value?.map((n) => n.name)).toEqual(['007', '1/2', 'Lead']);
    expect(back(text, 'take').value?.map((n) => n.name)).toEqual(['7', '1-Feb', 'Lead']);
  });

  it('has names again that were kept from being a formula', () => {
    const written = writePresetList({ ...unit, slots });
    expect(written).toContain("'+3 dB");
    expect(back(written, 'ask').value?.at(-1)?.name).toBe('+3 dB');
  });

  it('finds slots whose labels became dates, by their numbers or by what they were', () => {
    const dashed = LIBRARY.find((e) => labelOf(e.profile.plan, 0) === '01-1')!.profile.plan;
    const read = (text: string, made: MadeNames = 'ask') => readPresetList(text, { ...options, plan: dashed, made });
    // Our own lists have the number beside it.
    expect(read('label,from 0,name\n01/02/2026,1,Gull').value).toEqual([{ index: 1, name: 'Gull' }]);
    expect(read('1-Sep,Gull').problems.map((p) => p.code)).toEqual(['csv.made-of']);
    expect(read('31-Jan;Gull', 'keep').value).toEqual([{ index: 240, name: 'Gull' }]);
    // Bank 1, place 2 and bank 2, place 1 make the same date: which of them is meant, only a person knows.
    expect(read('01/02/2026,Gull', 'keep').problems.map(problemLine)).toEqual([
      'line 1, column 1: "01/02/2026" looks like what a spreadsheet made of "01-2" or "02-1". Write the one that is meant there, as text, or say how such names are read.',
    ]);
    expect(read('1,Gull\n01/02/2026,Tern', 'take').value?.[1]?.name).toBe('01/02/2026,Tern');
  });
});
