import { deflateRawSync } from 'node:zlib';
import { readControlTable, readCueTable, readSetTable, readToneTable } from '../src/core/formats/csv';
import { writeControlTable, writeCueTable, writeSetTable, writeToneTable } from '../src/core/formats/csv';
import { readBundle, writeBundle } from '../src/core/formats/bundle';
import { readExclusiveFile, writePagesFile } from '../src/core/formats/exclusive';
import { readMidiNames, writeMidiNames } from '../src/core/formats/midi-names';
import { cutPart, readPart, writePart } from '../src/core/formats/part-file';
import { decodeText, readPresetList, writePresetList } from '../src/core/formats/preset-list';
import { readShowFile, writeShowFile } from '../src/core/formats/show-file';
import { readSmf, smfToShow, songToSmf, writeSmf } from '../src/core/formats/smf';
import { readUnitFile, writeUnitFile } from '../src/core/formats/unit-file';
import { memoryOf } from '../src/core/feet';
import type { MadeNames } from '../src/core/cells';
import { demoShow } from '../src/core/demo';
import { checkShow, emptyShow, type Show } from '../src/core/show';
import type { Problem, Read } from '../src/core/problems';
import { problemLine } from '../src/wording';
import { seeded } from './fullShow';
import { tonightOf } from '../src/core/tonight';

interface Reader {
  readonly name: string;
  /** Whole files of its kind, which are cut and damaged. */
  readonly wholes: readonly Uint8Array[];
  readonly read: (bytes: Uint8Array) => Read<unknown>;
}

const encoder = new TextEncoder();
const decoder = new TextDecoder();
const MARKS = [
  '{',
  '}',
  '[',
  ']',
  '"',
  ',',
  ':',
  '0',
  '-1',
  '1e999',
  'null',
  '\\u0000',
  '<',
  '>',
  '&',
  ';',
  '=',
  '\n',
  '\t',
  '|',
];

/** All that comes in from outside. */
function readers(): readonly Reader[] {
  const demo = demoShow();
  // A small show is damaged at more of its places than a large one.
  const bare = demo.units.slice(0, 2).map((u) => ({ ...u, relays: [], returns: null }));
  const small: Show = {
    ...emptyShow('small', 'Small'),
    ports: demo.ports,
    players: demo.players,
    house: demo.house,
    units: bare,
  };
  if (checkShow(small).length > 0) throw new Error('the small show is not sound');
  const [song] = demo.songs;
  const [unit] = demo.units;
  const feet = demo.feet[0]!;
  let made = 0;
  const newId = (): string => `new-${made++}`;
  const text = (name: string, wholes: readonly string[], read: (t: string) => Read<unknown>): Reader => ({
    name,
    wholes: wholes.map((w) => encoder.encode(w)),
    read: (bytes) => {
      const decoded = decodeText(bytes);
      return decoded.value === undefined ? decoded : read(decoded.value);
    },
  });
  const shows = (read: Read<Show>): Read<Show> => {
    // What is taken is sound.
    if (read.value && checkShow(read.value).length > 0) throw new Error('a show was taken that is not sound');
    return read;
  };
  const smf = writeSmf(songToSmf(tonightOf(demo), song!, 'written').file);
  return [
    text('show', [JSON.stringify(small), writeShowFile(demo)], (t) => shows(readShowFile(t))),
    text('part', [writePart(cutPart(demo, { kind: 'songs', songIds: [song!.id] }).part)], readPart),
    text('unit', [writeUnitFile(demo, unit!)], readUnitFile),
    { name: 'zip', wholes: [writeBundle(small, new Map()).bytes], read: readBundle },
    { name: 'midi', wholes: [smf], read: readSmf },
    { name: 'midi as a show', wholes: [smf], read: (b) => shows(smfToShow(b, 'Imported')) },
    text('midi names', [writeMidiNames(unit!, 'Somebody').text], readMidiNames),
    text('preset list', [writePresetList(unit!)], (t) =>
      readPresetList(t, {
        plan: unit!.profile.plan,
        unit: 'Unit',
        slots: unit!.slots,
        first: 0,
        made: pick(MADE, t.length),
      }),
    ),
    text('cue table', [writeCueTable(demo, song!)], (t) =>
      shows(readCueTable(demo, song!.id, t, newId, pick(MADE, t.length))),
    ),
    text('set table', [writeSetTable(demo)], (t) => shows(readSetTable(demo, t, newId, pick(MADE, t.length)))),
    text('tone table', [writeToneTable(demo)], (t) => shows(readToneTable(demo, t, newId, pick(MADE, t.length)))),
    text('control table', [writeControlTable(unit!)], (t) =>
      shows(readControlTable(demo, unit!.id, t, newId, pick(MADE, t.length))),
    ),
    {
      name: 'exclusive',
      wholes: [new Uint8Array(writePagesFile(memoryOf(demo, feet.id)))],
      read: (b) => readExclusiveFile([...b]),
    },
  ];
}

const MADE: readonly MadeNames[] = ['ask', 'keep', 'take'];
const pick = <T>(list: readonly T[], n: number): T => list[n % list.length]!;

const joined = (...pieces: readonly Uint8Array[]): Uint8Array<ArrayBuffer> => new Uint8Array(Buffer.concat(pieces));

/** A whole file cut, with bytes turned, put in, taken out or doubled; now and then anything at all. */
function damaged(whole: Uint8Array, random: () => number): Uint8Array {
  const at = (n: number): number => Math.floor(random() * n);
  if (random() < 0.08) return Uint8Array.from({ length: at(200) }, () => at(256));
  let bytes = random() < 0.4 ? whole.slice(0, at(whole.length + 1)) : whole.slice();
  for (let n = at(4); n >= 0; n--) {
    const place = at(bytes.length + 1);
    const rest = bytes.slice(place);
    switch (at(4)) {
      case 0:
        if (place < bytes.length) bytes[place] = at(256);
        break;
      case 1:
        bytes = joined(bytes.slice(0, place), encoder.encode(MARKS[at(MARKS.length)]), rest);
        break;
      case 2:
        bytes = joined(bytes.slice(0, place), rest.slice(at(12)));
        break;
      default:
        bytes = joined(bytes.slice(0, place), rest.slice(0, at(30)), rest);
    }
  }
  return bytes;
}

/** An answer that took longer is a hang. */
const HANG = 2000;

const answered = (read: Read<unknown>): boolean =>
  read.value !== undefined ||
  (read.problems.length > 0 && read.problems.every((p: Problem) => problemLine(p).length > 8));

/** Feeds every reader with damaged files, so many in all. Prints what was taken, what was refused, and whatever went wrong with its seed. */
export function fuzz(inputs: number, seed: number): boolean {
  const list = readers();
  const each = Math.ceil(inputs / list.length);
  console.log(
    `${each * list.length} damaged files, seed ${seed}\n  reader               taken     refused     slowest`,
  );
  let well = true;
  for (const { name, wholes, read } of list) {
    let taken = 0;
    let slowest = 0;
    for (let i = 0; i < each; i++) {
      const own = (seed + i * 7919) >>> 0;
      const random = seeded(own);
      // The large one now and then: a small one is damaged at more of its places.
      const whole = wholes[i % 50 === 49 ? wholes.length - 1 : 0]!;
      const bytes = damaged(whole, random);
      const before = process.cpuUsage();
      try {
        const answer = read(bytes);
        if (answer.value !== undefined) taken++;
        if (!answered(answer)) throw new Error('no value and nothing said');
      } catch (error) {
        well = false;
        console.log(`  ${name}, seed ${own}: ${String(error)}\n    ${decoder.decode(bytes.slice(0, 300))}`);
      }
      // Its own time: a machine that does something else meanwhile is no hang.
      const { user, system } = process.cpuUsage(before);
      const took = (user + system) / 1000;
      slowest = Math.max(slowest, took);
      if (took > HANG) {
        well = false;
        console.log(`  ${name}, seed ${own}: ${Math.round(took)} ms for ${bytes.length} bytes`);
      }
    }
    console.log(
      `  ${name.padEnd(16)} ${String(taken).padStart(9)} ${String(each - taken).padStart(11)} ${`${slowest.toFixed(0)} ms`.padStart(11)}`,
    );
  }
  return bombs() && well;
}

/** What is made to break a reader: far too deep, far too large, far too many, paths that lead elsewhere, versions to come. */
function bombs(): boolean {
  const deep = (n: number): string => `${'['.repeat(n)}${']'.repeat(n)}`;
  const zip = zipOf('show.json', deflateRawSync(Buffer.alloc(300_000_000, 0x20)), 300_000_000);
  const cases: readonly (readonly [name: string, run: () => Read<unknown>])[] = [
    ['JSON 100,000 deep', () => readShowFile(deep(100_000))],
    ['a part 100,000 deep', () => readPart(`{"format":"hollow-lantern-part","show":${deep(100_000)}}`)],
    ['200 MB of JSON', () => readShowFile(`{"format":"${'x'.repeat(200_000_000)}"}`)],
    ['a zip that grows to 300 MB', () => readBundle(zip)],
    ['a zip with a path out of it', () => readBundle(zipOf('../../show.json', deflateRawSync(Buffer.from('{}')), 2))],
    ['a show of version 99', () => readShowFile('{"format":"hollow-lantern-show","version":99}')],
    [
      'XML that grows by its entities',
      () => readMidiNames('<!DOCTYPE a [<!ENTITY b "x"><!ENTITY c "&b;&b;">]><MIDINameDocument>&c;</MIDINameDocument>'),
    ],
    ['a table of 200,000 lines', () => readSetTable(demoShow(), `Title\n${'x\n'.repeat(200_000)}`, () => 'id')],
  ];
  let well = true;
  for (const [name, run] of cases) {
    const start = performance.now();
    try {
      const { value, problems } = run();
      const said = problems[0] ? problemLine(problems[0]) : '';
      if (value !== undefined || said === '') well = false;
      console.log(`  ${name}: ${Math.round(performance.now() - start)} ms. ${said.slice(0, 160)}`);
    } catch (error) {
      well = false;
      console.log(`  ${name}: ${String(error)}`);
    }
  }
  return well;
}

/** A zip of one file (PKWARE APPNOTE 4.3), as somebody would forge it. */
function zipOf(name: string, packed: Uint8Array, size: number): Uint8Array {
  const path = Buffer.from(name);
  const fields = (signature: number, rest: readonly (readonly [bytes: 2 | 4, value: number])[]): Buffer => {
    const out = Buffer.alloc(4 + rest.reduce((sum, [n]) => sum + n, 0));
    out.writeUInt32LE(signature, 0);
    let at = 4;
    for (const [n, value] of rest) {
      if (n === 2) out.writeUInt16LE(value, at);
      else out.writeUInt32LE(value >>> 0, at);
      at += n;
    }
    return out;
  };
  const common: readonly (readonly [2 | 4, number])[] = [
    [2, 20],
    [2, 0],
    [2, 8],
    [2, 0],
    [2, 0],
    [4, 0],
    [4, packed.length],
    [4, size],
    [2, path.length],
    [2, 0],
  ];
  const local = Buffer.concat([fields(0x04034b50, common), path, packed]);
  const central = Buffer.concat([
    fields(0x02014b50, [[2, 20], ...common, [2, 0], [2, 0], [2, 0], [4, 0], [4, 0]]),
    path,
  ]);
  const end = fields(0x06054b50, [
    [2, 0],
    [2, 0],
    [2, 1],
    [2, 1],
    [4, central.length],
    [4, local.length],
    [2, 0],
  ]);
  return new Uint8Array(Buffer.concat([local, central, end]));
}
