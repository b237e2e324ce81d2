import { describe, expect, it } from 'vitest';
import { problem, type ProblemCode, type ProblemData } from '../core/problems';
import { libraryProfile } from '../core/library';
import { messageWords, placeWords, problemLine, sentence, stateWords, variantWords } from './';

/** One of every problem, so that none is without a sentence. */
const EXAMPLES: { readonly [C in ProblemCode]: ProblemData[C] } = {
  'json.too-deep': { limit: 64 },
  'json.syntax': { detail: '","' },
  'bundle.not-zip': {},
  'bundle.damaged': { name: 'show.json' },
  'bundle.too-many': { count: 6000, limit: 5000 },
  'bundle.path': { name: '../x' },
  'bundle.twice': { name: 'show.json' },
  'bundle.no-show': { name: 'show.json' },
  'bundle.too-large': { name: 'show.json', size: 2e8, limit: 1e8 },
  'bundle.extra': { name: 'x.txt' },
  'bundle.sound-size': { name: 'Take', expected: 10, found: 11 },
  'bundle.sound-missing': { name: 'Take' },
  'show.not-a-show': { found: 'a list' },
  'show.newer': { version: 9, known: 1 },
  'show.version': { found: '"1"' },
  'show.shape': { expected: 'a text', found: '5' },
  'show.twice': { what: 'tone', id: 't' },
  'show.missing': { what: 'tone', id: 't' },
  'plan.group-too-long': { unit: 'Quillback', group: 0, count: 400, room: 384 },
  'plan.letters-run-out': { unit: 'Quillback', group: 1, from: 'T', count: 10 },
  'plan.same-label': { unit: 'Quillback', label: 'A1', first: 0, second: 120 },
  'plan.table-index': { unit: 'Quillback', row: 0, index: 999, slots: 384 },
  'plan.table-twice': { unit: 'Quillback', row: 1, bank: 0, program: 5 },
  'plan.bank-out-of-reach': { unit: 'Quillback', slots: 384, reach: 128 },
  'encoding.past-127': { unit: 'Quillback', control: 'scene', last: 132 },
  'encoding.on-is-off': { unit: 'Quillback', control: 'Drive', on: 127, off: 100 },
  'encoding.flat-range': { unit: 'Quillback', control: 'Mix', low: 5, high: 5 },
  'encoding.log-through-zero': { unit: 'Quillback', control: 'Mix', low: -5, high: 5 },
  'show.range': { low: 90, high: 20 },
  'show.order': { what: 'tempo marks' },
  'show.slot-range': { unit: 'Quillback', index: 180, slots: 180 },
  'show.slot-shared': { unit: 'Quillback', label: '5' },
  'show.ramp-nowhere': { bpm: 90 },
  'show.worst-below': { unit: 'Tarn', typical: 150, worst: 120 },
  'show.value-range': { unit: 'Tarn', control: 'Mix', value: 101, low: 0, high: 100 },
  'show.variant-range': { unit: 'Quillback', word: 'scene', value: 8, count: 8 },
  'show.variants-reach': { unit: 'Quillback', word: 'scene', count: 8, reach: 4 },
  'encoding.same-value': { unit: 'Harrow', control: 'Key', value: 9 },
  'encoding.template': { unit: 'Harrow', control: 'Key', template: 'F0 99' },
  'encoding.template-value': { unit: 'Harrow', control: 'Key', high: 200, most: 127 },
  'encoding.checksum-range': { unit: 'Harrow', control: 'Key', from: 2, to: 9, length: 7 },
  'encoding.table-points': { unit: 'Marram', control: 'Low cut', low: 20, high: 400 },
  'exclusive.left-out': { kind: 'filling', count: 2 },
  'exclusive.not-one': { expected: 'F0', found: '90' },
  'dump.not-one': { expected: 'F0', found: 'nothing' },
  'dump.beyond': { what: 'page', size: 4, to: 6 },
  'dump.overlap': { other: 'name', at: 4 },
  'dump.no-room': { page: 1, switch: 2, what: 'the name "Drift"' },
  'dump.form': { expected: 'an object', found: 'nothing' },
  'feet.memory': { expected: 'more bytes' },
  'controller.same-place': { unit: 'Treadle Ten', first: 'Switch 1', second: 'Switch 2' },
  'show.sweep-selector': { unit: 'Harrow', control: 'Interval' },
  'show.sweep-empty': { unit: 'Tarn', control: 'Mix' },
  'show.not-tapped': { unit: 'Tarn', control: 'Mix' },
  'smf.not-midi': { found: 'RIFF' },
  'smf.header-cut': { bytes: 9 },
  'smf.header-length': { length: 4 },
  'smf.format': { format: 3 },
  'smf.division': { division: 0 },
  'smf.no-tracks': {},
  'smf.missing-tracks': { announced: 2, found: 1 },
  'smf.extra-bytes': { bytes: 1 },
  'smf.unknown-chunk': { name: 'ABCD', length: 2 },
  'smf.chunk-too-long': { name: 'MTrk', length: 9, left: 2 },
  'smf.event-cut': { wanted: 1, left: 0 },
  'smf.variable-length': {},
  'smf.no-status': { byte: 5 },
  'smf.bad-status': { byte: 0xf8 },
  'smf.data-byte': { byte: 0x90 },
  'smf.no-end': {},
  'smf.after-end': { bytes: 2 },
  'smf.tempo': { micros: 0 },
  'smf.meta-length': { meta: 'tempo', expected: 3, length: 2 },
  'smf.metre': { beats: 0, unit: 4 },
  'smf.too-many-songs': { songs: 2001, limit: 2000 },
  'smf.too-long': { bars: 200000, limit: 100000 },
  'smf.too-many': { events: 9, limit: 8 },
  'smf.metre-moved': { bar: 3 },
  'smf.marker-moved': { name: 'Verse', bar: 3 },
  'smf.ports-assumed': { ports: 1 },
  'smf.last-moment': { count: 2, song: 'Reel' },
  'smf.left-out': { what: 'lyrics', count: 2 },
  'smf.smpte': { frames: 25, ticks: 40 },
  'smf.lead-in': { bars: 1, millis: 2000 },
  'smf.lead-ins': { songs: 3 },
  'smf.one-track': { channels: [1, 4] },
  'export.left-out': { what: ['recordings', 'calls'] },
  'smf.ramp-steps': { steps: 40, micros: 200 },
  'smf.division-fallback': { division: 30720 },
  'smf.metre-unit': { bar: 0 },
  'smf.no-slot': { unit: 'Quillback', at: '9|1' },
  'smf.selector-ramp': { unit: 'Quillback', what: 'scene', from: '5|1', to: '9|1', steps: true },
  'smf.too-wide': { ticks: 1e9 },
  'list.encoding': { offset: 12 },
  'list.not-text': { code: 65533 },
  'list.empty': {},
  'list.too-long': { rows: 70000, limit: 65536 },
  'list.quotes': {},
  'list.no-names': { columns: ['label', 'bank'] },
  'list.no-such-slot': { label: 'Z9', example: 'A1', unit: 'Quillback' },
  'list.slot-twice': { label: 'A1', row: 3 },
  'list.past-end': { name: 'Winter', slots: 180 },
  'list.name-long': { length: 300, limit: 120 },
  'list.same-name': { name: 'Winter', row: 2 },
  'list.gaps': { count: 3 },
  'csv.empty': {},
  'csv.too-long': { limit: 65536 },
  'csv.columns': { missing: ['Place'], columns: ['Place', 'Name'] },
  'csv.made-of': { found: '7', meant: ['007'] },
  'csv.number-taken': { control: 'Wash', other: 'Mix', number: 85 },
  'csv.no-such': { of: 'Quillback', what: 'control', name: 'Fog' },
  'csv.many': { of: 'Quillback', what: 'preset', name: 'Fog', count: 2 },
  'csv.twice': { what: 'Quillback', name: 'Fog' },
  'csv.value': { found: 'maybe', expected: ['yes', 'no'] },
  'csv.no-value': { control: 'Drive', found: 'up' },
  'csv.place': { found: 'x', song: 'Reel' },
  'csv.other-name': { unit: 'Quillback', label: 'H6', found: 'Fog', there: 'Reed' },
  'csv.control': { control: 'Drive', part: 'on', expected: 'a number', found: 'nothing' },
  'xml.too-long': { bytes: 9e6, limit: 8e6 },
  'xml.declarations': {},
  'xml.too-deep': { limit: 24 },
  'xml.syntax': { detail: 'Expected closing tag.' },
  'xml.root': { expected: 'MIDINameDocument', found: 'html' },
  'xml.element': { element: 'Patch', parent: 'PatchBank', expected: ['PatchNameList'] },
  'xml.missing': { element: 'ChannelNameSet', expected: ['AvailableForChannels'] },
  'xml.attribute': { element: 'Patch', attribute: 'Colour' },
  'xml.attribute-missing': { element: 'Patch', attribute: 'Name' },
  'xml.value': { element: 'Patch', attribute: 'ProgramChange', found: '200', expected: 'a number from 0 to 127' },
  'xml.text': { element: 'PatchBank', found: 'hello' },
  'names.list-missing': { kind: 'PatchNameList', name: 'User' },
  'names.no-slot': { name: 'Winter', bank: 3, program: 4 },
  'names.slot-twice': { label: 'A1', name: 'Winter' },
  'names.control-taken': { name: 'Mix', number: 71 },
  'names.letters': { count: 2 },
  'names.left-out': { control: 'Locate', kind: 'system exclusive' },
  'unit.not-a-unit': { found: 'none' },
  'part.not-a-part': { found: 'none' },
  'part.lost': { where: 'Reel', unit: 'Quillback', what: 'Drive' },
  'part.opening': { song: 'Fog Bell', tone: 'Still Water' },
  'part.no-place': { unit: 'Quillback', name: 'Fog', index: 3 },
  'compile.no-port': { unit: 'Tarn' },
  'compile.port-off': { unit: 'Tarn', port: 'Rack' },
  'structure.form': { text: 'soon' },
  'structure.metre': { text: '7/9' },
  'structure.tempo': { from: 20, to: 400 },
  'structure.cannot': { text: '9 move to 9' },
  'position.form': { text: 'soon' },
  'position.bar': { number: 99, last: 48, meant: '' },
  'position.time': { number: 2, times: 1 },
  'position.beat': { beat: 9, from: 1, to: 6 },
  'position.tick': { tick: 960, beatTicks: 960 },
};

describe('problems', () => {
  it.each(Object.entries(EXAMPLES))('%s has a sentence of its own', (code, data) => {
    const p = problem(code as ProblemCode, 'error', { in: 'nowhere' }, data as never);
    const text = sentence(p);
    expect(text).toMatch(/^["A-Z0-9].*[.]$/);
    expect(text).not.toMatch(/undefined|NaN|\[object/);
    for (const value of Object.values(data)) {
      if (typeof value === 'number' && value > 1 && code !== 'smf.too-many' && !code.startsWith('smf.ramp')) {
        const shown = [String(value), value.toString(16).toUpperCase(), String(value + 1)];
        if (code.startsWith('position') || code.startsWith('show'))
          expect(shown.some((s) => text.includes(s))).toBe(true);
      }
    }
  });

  it('stand behind their place', () => {
    expect(placeWords({ in: 'bytes', offset: 23, track: 2 })).toBe('track 2, byte 23');
    expect(placeWords({ in: 'bytes', offset: 23 })).toBe('byte 23');
    expect(placeWords({ in: 'text', row: 3, column: 7 })).toBe('line 3, column 7');
    expect(placeWords({ in: 'show', path: ['songs', 0, 'cues', 12, 'at'] })).toBe('songs[0].cues[12].at');
    expect(placeWords({ in: 'nowhere' })).toBe('');
    const p = problem('smf.no-tracks', 'error', { in: 'bytes', offset: 10 }, {});
    expect(problemLine(p)).toBe('byte 10: The file has no track.');
  });

  it('count one and many', () => {
    const extra = (bytes: number) => sentence(problem('smf.extra-bytes', 'warning', { in: 'nowhere' }, { bytes }));
    expect(extra(1)).toMatch(/^1 byte was passed over/);
    expect(extra(2)).toMatch(/^2 bytes were passed over/);
  });
});

describe('states and messages', () => {
  const { plan, ...rest } = libraryProfile('letter-modeler');
  const profile = { ...rest, plan };

  it('are said in the writing of the unit', () => {
    const state = { slot: 47, bank: 0, variant: 2, controls: {} };
    expect(stateWords(profile, state)).toBe('H6, scene 3');
    expect(stateWords(profile, { ...state, slot: null, variant: null })).toBe('an unknown slot, scene not known');
    expect(variantWords(profile, 'stored')).toBe('scene as the preset stores it');
    expect(stateWords(libraryProfile('reverb'), { ...state, slot: 14 })).toBe('014');
    expect(variantWords(libraryProfile('reverb'), 1)).toBe('');
  });

  it.each([
    [[0xc0, 47], 'program 47 from 0, channel 1'],
    [[0xb1, 85, 2], 'control 85 = 2, channel 2'],
    [[0x92, 60, 1], 'note 60 on, channel 3'],
    [[0x83, 60, 1], 'note 60 off, channel 4'],
    [[0xa4, 60, 9], 'pressure 9 on note 60, channel 5'],
    [[0xd5, 9], 'pressure 9, channel 6'],
    [[0xe6, 0, 64], 'pitch bend 0, channel 7'],
    [[0xf0, 1, 0xf7], 'system exclusive, 3 bytes'],
    [[0xf8], 'system message F8'],
    [[1, 2], '2 bytes'],
  ])('%j is %s', (bytes, words) => {
    expect(messageWords(bytes)).toBe(words);
  });
});
