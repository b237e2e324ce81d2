import { nanoid } from 'nanoid';
import type { MadeNames } from '../src/core/cells';
import { TABLES, type TableKind } from '../src/core/formats/csv';
import { exportFile, type ExportWish } from '../src/core/formats/exportFile';
import { readExclusiveFile } from '../src/core/formats/exclusive';
import { bringIn, cutPart, proposeUnits, readPart, writePart, type PartWish } from '../src/core/formats/part-file';
import { decodeText } from '../src/core/formats/preset-list';
import { readTable } from '../src/core/formats/readTable';
import { writeShowFile } from '../src/core/formats/show-file';
import { compareShows } from '../src/core/meaning';
import { toHex } from '../src/core/midi';
import type { Problem } from '../src/core/problems';
import type { Show, Unit } from '../src/core/show';
import { showDifferenceWords } from '../src/wording';
import type { Outcome } from './commands';
import { Failure } from './failure';
import { findSong, readBytes, readShow, reportLines, valueOf, writeWhole } from './files';

const newId = (): string => nanoid(10);

/** A unit by its name; capitals do not matter. */
function findUnit(show: Show, name: string): Unit {
  const wanted = name.trim().toLowerCase();
  const found = show.units.filter((u) => u.name.toLowerCase() === wanted);
  if (found.length === 1) return found[0]!;
  if (found.length > 1) throw new Failure(`The show has ${found.length} units named "${name}".`);
  const names = show.units.map((u) => `"${u.name}"`).join(', ');
  throw new Failure(`The show has no unit named "${name}"${names === '' ? '' : `; it has ${names}`}.`);
}

/** Text of a file, in UTF-8 or UTF-16. */
const readText = (path: string): string => valueOf(path, decodeText(readBytes(path)));

/** What a command did, in lines or as data. */
function told(asJson: boolean, lines: readonly string[], data: object, problems: readonly Problem[]): Outcome {
  if (!asJson) return { lines: [...lines, ...reportLines(problems)], code: 0 };
  const report = problems.map((p) => ({ code: p.code, severity: p.severity, line: reportLines([p])[0] }));
  return { lines: [JSON.stringify({ ...data, problems: report }, null, 2)], code: 0 };
}

/** Takes a file out of a show. */
function takeOut(show: Show, wish: ExportWish, out: string, asJson: boolean): Outcome {
  const { data, problems } = exportFile(show, wish);
  writeWhole(out, data);
  return told(asJson, [`${out} written`], { file: out }, problems);
}

/** A show that something came into: what that changed, and where it is. */
function tookIn(before: Show, after: Show, out: string, problems: readonly Problem[], asJson: boolean): Outcome {
  writeWhole(out, writeShowFile(after));
  const changes = compareShows(before, after).map(showDifferenceWords);
  const lines = [`${out}: ${changes.length === 0 ? 'nothing changed' : `${changes.length} changed`}`, ...changes];
  return told(asJson, lines, { file: out, changes }, problems);
}

/** What comes out of a show, or into it. */
interface Exchange {
  /** The song, unit or set that it is of. */
  readonly of: string | undefined;
  /** The file that comes in; undefined where one is written. */
  readonly take: string | undefined;
  readonly out: string;
  /** What is done with names that a spreadsheet seems to have changed; undefined for asking. */
  readonly made: string | undefined;
  readonly json: boolean;
}

const MADE: readonly MadeNames[] = ['ask', 'keep', 'take'];

/** A table out of a show, or into it. */
export function table(path: string, kind: string, { of, take, out, made, json }: Exchange): Outcome {
  const own = TABLES.find((k): k is TableKind => k === kind);
  if (!own) throw new Failure(`There is no table "${kind}"; there are ${TABLES.join(', ')}.`);
  const show = readShow(path);
  const whole = own === 'set' || own === 'tones';
  if (!whole && of === undefined)
    throw new Failure(`A table of ${own} wants --of, ${own === 'cues' ? 'a song' : 'a unit'}.`);
  if (whole && of !== undefined) throw new Failure(`A table of ${own} is of the whole show, and takes no --of.`);
  const id = whole ? '' : own === 'cues' ? findSong(show, of!).id : findUnit(show, of!).id;
  const how = MADE.find((m) => m === (made ?? 'ask'));
  if (how === undefined) throw new Failure(`--made is ${MADE.join(', ')}; "${made!}" is none of them.`);
  if (take === undefined && made !== undefined) throw new Failure('--made is for a table that comes in.');
  if (take === undefined) return takeOut(show, { kind: 'table', table: own, id }, out, json);
  const read = readTable(show, own, id, readText(take), newId, how);
  return tookIn(show, valueOf(take, read), out, read.problems, json);
}

/** What of a show a part is, by the kind and the name that the command gives. */
function partOf(show: Show, kind: string, of: string | undefined): PartWish {
  const named = (): string => {
    if (of === undefined) throw new Failure(`A part of the kind ${kind} wants --of.`);
    return of;
  };
  switch (kind) {
    case 'song':
      return { kind: 'songs', songIds: [findSong(show, named()).id] };
    case 'set': {
      const title = named().trim().toLowerCase();
      const set = show.sets.find((s) => s.title.toLowerCase() === title);
      const titles = show.sets.map((s) => `"${s.title}"`).join(', ');
      if (!set) throw new Failure(`The show has no set named "${of!}"; it has ${titles}.`);
      return { kind: 'set', setId: set.id };
    }
    case 'pages':
      return { kind: 'pages', unitId: findUnit(show, named()).id };
    case 'kit':
      return { kind: 'kit', toneIds: show.tones.map((t) => t.id), moveIds: show.moves.map((m) => m.id) };
    default:
      throw new Failure(`There is no part "${kind}"; there are song, set, pages, kit.`);
  }
}

/** A part out of a show, or into it: what has a name that the show has already stays the show's, but for songs. */
export function part(path: string, kind: string | undefined, { of, take, out, json }: Exchange): Outcome {
  const show = readShow(path);
  if (take === undefined) {
    if (kind === undefined) throw new Failure('part wants --kind, or --in for a part that comes in.');
    const cut = cutPart(show, partOf(show, kind, of));
    writeWhole(out, writePart(cut.part));
    return told(json, [`${out} written`], { file: out }, cut.problems);
  }
  if (kind !== undefined || of !== undefined) throw new Failure('--kind and --of are for a part that goes out.');
  const brought = valueOf(take, readPart(readText(take)));
  const choices = { units: proposeUnits(show, brought), meetings: new Map() };
  const read = bringIn(show, brought, choices, newId);
  return tookIn(show, valueOf(take, read).show, out, read.problems, json);
}

/** The names of a unit as a MIDI name document. */
export function names(path: string, unit: string, out: string, asJson: boolean): Outcome {
  const show = readShow(path);
  return takeOut(show, { kind: 'names', unitId: findUnit(show, unit).id }, out, asJson);
}

/** The messages of a system exclusive file, one a line. */
export function exclusive(path: string, asJson: boolean): Outcome {
  const read = readExclusiveFile([...readBytes(path)]);
  const messages = valueOf(path, read).map((m) => toHex(m, ' ').toUpperCase());
  const lines = [`${path}: ${messages.length} ${messages.length === 1 ? 'message' : 'messages'}`, ...messages];
  return told(asJson, lines, { file: path, messages }, read.problems);
}
