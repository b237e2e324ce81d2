import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { problemLine } from '../../../wording';
import { demoShow } from '../../demo';
import { namedControls, patchesToSlots, readMidiNames, writeMidiNames } from './';
import { STRUCTURE } from './structure';
import { runs } from '../../testing/runs';

const show = demoShow();
const unitNamed = (id: string) => show.units.find((u) => u.id === id)!;
const quillback = unitNamed('quillback');
const text = writeMidiNames(quillback, 'Maude').text;
const problem = (t: string): string[] => readMidiNames(t).problems.map(problemLine);

describe('a MIDI name document', () => {
  it.each(show.units)('of $name keeps to the published structure and brings every name back', (unit) => {
    const written = writeMidiNames(unit, 'Maude & "Ines" <pier>');
    const { value, problems } = readMidiNames(written.text);
    expect(problems).toEqual([]);
    const [names] = value!;
    expect(names).toMatchObject({ device: unit.name, set: unit.name });
    const { plan } = unit.profile;
    const callable = unit.slots.filter((s) => s.name !== '');
    const back = patchesToSlots(names!, plan);
    expect(back.problems).toEqual([]);
    // A plan of a table may have slots that no program calls, and units without a map of presets have none at all.
    expect(callable.map(({ index, name }) => ({ index, name }))).toEqual(expect.arrayContaining([...back.value!]));
    if (!plan.table) expect(back.value).toHaveLength(callable.length);
  });

  it('holds bank select, programs from 0, labels, and ranges of controls', () => {
    expect(text).toContain('<ControlChange Control="0" Value="0"/>');
    expect(text).toContain('<Patch Number="H6" Name="Fog Lead" ProgramChange="47"/>');
    expect(text).toMatch(/<Control Type="7bit" Number="85" Name="scene">[\s\S]*<Value Number="1" Name="Body"\/>/);
    const { controls } = readMidiNames(text).value![0]!;
    expect(controls.map((c) => c.number)).toContain(85);
  });

  it.each([
    ['tags that never end', '<a '.repeat(400_000)],
    ['tags in a tag that ends itself', `${'<a '.repeat(400_000)}/>`],
    ['tags in a tag', `<MIDINameDocument>${'<a '.repeat(400_000)}/></MIDINameDocument>`],
    ['document types', '<!DOCTYPE '.repeat(120_000)],
    ['open comments', '<!-- '.repeat(240_000)],
    ['attributes', `<a ${'b="1" '.repeat(100_000)}>`],
    ['closing tags', '</a>'.repeat(300_000)],
  ])('of a megabyte of %s is refused, without looking through it for each of them', (_, hostile) => {
    expect(readMidiNames(hostile).problems[0]!.code).toMatch(/^xml\.(syntax|too-deep)$/);
  });

  it.each([
    ['U+0001', '\u0001'],
    ['U+FFFE', '\ufffe'],
    ['half of a pair', '\ud800'],
  ])('holds no letter that XML has not: %s', (_, letter) => {
    const odd = {
      ...quillback,
      slots: quillback.slots.map((s, i) => (i === 0 ? { ...s, name: `Pier${letter}Light` } : s)),
    };
    const { text: written, problems } = writeMidiNames(odd, 'Maude');
    expect(written).toContain('Name="Pier\uFFFDLight"');
    expect(problems.map(problemLine)).toContain('1 sign that XML cannot hold is written as \uFFFD.');
    expect(readMidiNames(written).problems).toEqual([]);
    const raw = text.replace('Fog Lead', `Fog${letter}Lead`);
    expect(problem(raw)[0]).toMatch(/XML has no letter U\+/);
    expect(problem(text.replace('Fog Lead', 'Fog&#1;Lead'))[0]).toMatch(/"&#1;" is no letter of XML/);
  });

  it('says what it has no way to say', () => {
    const { problems } = writeMidiNames(unitNamed('pebble'), '');
    expect(problems.every((p) => p.code === 'names.left-out')).toBe(true);
    const exclusive = show.units.flatMap((u) =>
      u.profile.controls.some((c) => c.encoding.kind === 'exclusive') ? [writeMidiNames(u, '').problems] : [],
    );
    for (const told of exclusive) expect(told.map((p) => p.code)).toContain('names.left-out');
  });

  it('gives controls to a map, but not on numbers that it has', () => {
    const names = readMidiNames(text).value![0]!;
    let n = 0;
    const all = namedControls(names, [], () => `c${n++}`);
    expect(all.value!.length).toBe(names.controls.length);
    const scene = all.value!.find((c) => c.name === 'scene')!;
    expect(scene.encoding).toEqual({ kind: 'table', number: 85, values: [0, 1, 2, 3, 4, 5, 6, 7] });
    expect(scene.options[2]).toBe('Bite');
    const none = namedControls(names, all.value!, () => 'x');
    expect(none.value).toEqual([]);
    expect(none.problems.map((p) => p.code)).toContain('names.control-taken');
  });

  it('follows lists that are referred to, messages of single patches, and places where no program is named', () => {
    const bank = (inner: string): string =>
      `<MIDINameDocument><Author>M</Author><MasterDeviceNames><Manufacturer>M</Manufacturer><Model>One</Model>
      <ChannelNameSet Name="S"><AvailableForChannels><AvailableChannel Channel="1"/></AvailableForChannels>
      ${inner}</ChannelNameSet>
      <PatchNameList Name="L"><Patch Number="1" Name="Gull &#38; Tern"/>
      <Patch Number="2" Name="Swift"><PatchMIDICommands><ControlChange Control="0" Value="1"/><ProgramChange Number="3"/></PatchMIDICommands></Patch>
      </PatchNameList></MasterDeviceNames></MIDINameDocument>`;
    const { value } = readMidiNames(bank('<PatchBank Name="B"><UsesPatchNameList Name="L"/></PatchBank>'));
    expect(value![0]!.patches).toEqual([
      { label: '1', name: 'Gull & Tern', bank: { msb: null, lsb: null }, program: 0 },
      { label: '2', name: 'Swift', bank: { msb: 1, lsb: null }, program: 3 },
    ]);
    expect(problem(bank('<PatchBank Name="B"><UsesPatchNameList Name="X"/></PatchBank>'))).toEqual([
      'line 3, column 27: It refers to the PatchNameList "X", which is not in the document.',
    ]);
    const slots = patchesToSlots(value![0]!, unitNamed('oxbow').profile.plan);
    expect(slots.problems.map((p) => p.code)).not.toContain('names.slot-twice');
  });

  it('is refused with its line where it breaks the structure', () => {
    const broken = (from: string | RegExp, to: string): string[] => problem(text.replace(from, to));
    expect(broken('<Patch Number="H6"', '<Patch Colour="red" Number="H6"')[0]).toMatch(
      /^line \d+, column \d+: Patch has no attribute Colour/,
    );
    expect(broken('ProgramChange="47"', 'ProgramChange="470"')[0]).toContain(
      'ProgramChange of Patch should be a number from 0 to 127; found "470"',
    );
    expect(broken('<Patch Number="H6" ', '<Patch ')[0]).toContain('Patch has to have the attribute Number');
    expect(broken(/<Manufacturer>.*<\/Manufacturer>/, '')[0]).toContain('expected Manufacturer');
    expect(broken(/<AvailableForChannels>[\s\S]*<\/AvailableForChannels>/, '')[0]).toContain(
      'expected AvailableForChannels',
    );
    expect(broken('<PatchNameList ', 'hello <PatchNameList ')[0]).toContain('PatchBank holds no text; found "hello"');
    expect(broken(/MIDINameDocument/g, 'Page')[0]).toContain('Expected the document to be a MIDINameDocument');
    const row = text.split('\n').findIndex((l) => l.includes('"H6"')) + 1;
    expect(broken('ProgramChange="47"', 'ProgramChange="x"')[0]).toMatch(new RegExp(`^line ${row}, `));
  });

  it('is refused unread where it is hostile', () => {
    const bomb = `<?xml version="1.0"?><!DOCTYPE MIDINameDocument [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;">]><MIDINameDocument>&b;</MIDINameDocument>`;
    expect(readMidiNames(bomb).problems[0]!.code).toBe('xml.declarations');
    const outside = `<!DOCTYPE x SYSTEM "file:///etc/passwd" [ <!ENTITY x SYSTEM "file:///etc/passwd"> ]><MIDINameDocument/>`;
    expect(readMidiNames(outside).problems[0]!.code).toBe('xml.declarations');
    expect(readMidiNames('<a>'.repeat(100_000)).problems[0]!.code).toBe('xml.too-deep');
    expect(readMidiNames(' '.repeat(8_000_001)).problems[0]!.code).toBe('xml.too-long');
    expect(readMidiNames('<MIDINameDocument>&unknown;</MIDINameDocument>').problems[0]!.code).toBe('xml.syntax');
    expect(readMidiNames('<MIDINameDocument/><MIDINameDocument/>').value).toBeUndefined();
    expect(readMidiNames('<!-- a & b --><MIDINameDocument/>').value).toEqual([]);
    for (const empty of ['', 'MThd', '{"a":1}', '<a></b>']) expect(readMidiNames(empty).value).toBeUndefined();
  });

  it('answers any damage without throwing', () => {
    fc.assert(
      fc.property(
        fc.nat(text.length - 1),
        fc.constantFrom('', '<', '>', '"', '&', '/', '<a>', ' x="1"', '\u0000'),
        (i, c) => {
          const { value, problems } = readMidiNames(text.slice(0, i) + c + text.slice(i + 1));
          expect(value === undefined).toBe(problems.length > 0);
        },
      ),
      runs(81, 300),
    );
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...Object.keys(STRUCTURE)), { maxLength: 12 }), (names) => {
        readMidiNames(
          names.map((n) => `<${n}>`).join('') +
            names
              .toReversed()
              .map((n) => `</${n}>`)
              .join(''),
        );
      }),
      { seed: 82 },
    );
  });

  it('has a rule for every element that a rule allows', () => {
    for (const { children } of Object.values(STRUCTURE)) {
      for (const { names } of children) for (const name of names) expect(STRUCTURE).toHaveProperty(name);
    }
  });
});
