import { spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { MadeNames } from '../src/core/cells';
import { demoShow } from '../src/core/demo';
import { TABLES, type TableKind } from '../src/core/formats/csv';
import { exportFile } from '../src/core/formats/exportFile';
import { readTable } from '../src/core/formats/readTable';
import { compareShows } from '../src/core/meaning';
import type { Show, Song } from '../src/core/show';
import { problemLine, showDifferenceWords } from '../src/wording';

/** Names that a spreadsheet takes for something else. */
const ODD = [
  '007',
  '1/2',
  '1E3',
  'Mar 4',
  '10:30',
  '+3 dB',
  '=A1',
  '5-6',
  '1.5',
  '-12',
  '00',
  'true',
  '3;4',
  "'quoted",
];

/** The demo with such names on tones, presets, controls and songs, and with bytes that look like a power of ten. */
function oddShow(): Show {
  const demo = demoShow();
  const named = <T extends { readonly name: string }>(list: readonly T[]): readonly T[] =>
    list.map((item, i) => (i < ODD.length ? { ...item, name: ODD[i]! } : item));
  const bytes = (song: Song): Song => ({
    ...song,
    title: ODD[demo.songs.indexOf(song)] ?? song.title,
    cues: song.cues.map((c) => (c.action.kind === 'message' ? { ...c, action: { ...c.action, bytes: '903e40' } } : c)),
  });
  return {
    ...demo,
    tones: named(demo.tones),
    songs: demo.songs.map(bytes),
    units: demo.units.map((u) => ({
      ...u,
      slots: named(u.slots),
      profile: { ...u.profile, controls: named(u.profile.controls) },
    })),
  };
}

interface Sheet {
  readonly file: string;
  readonly kind: TableKind;
  readonly id: string;
}

/** Every table of the show as a file of its own. */
function writeTables(show: Show, folder: string): readonly Sheet[] {
  const ids = (kind: TableKind): readonly string[] =>
    kind === 'cues'
      ? show.songs.map((s) => s.id)
      : kind === 'set' || kind === 'tones'
        ? ['']
        : show.units.map((u) => u.id);
  return TABLES.flatMap((kind) =>
    ids(kind).map((id): Sheet => {
      const file = `${kind}-${id}.csv`;
      writeFileSync(join(folder, file), exportFile(show, { kind: 'table', table: kind, id }).data);
      return { file, kind, id };
    }),
  );
}

const LANGUAGES: readonly (readonly [name: string, id: number, separator: string])[] = [
  ['English', 1033, ','],
  ['German', 1031, ';'],
];

/** Opens each table in the spreadsheet, with its numbers and dates recognised, and saves it again. */
function through(folder: string, out: string, sheets: readonly Sheet[], id: number, separator: string): void {
  const options = [
    `-env:UserInstallation=file://${folder}/profile`,
    '--headless',
    // Separator, quote, UTF-8, first line, no column formats, language, quoted text as text, numbers recognised.
    `--infilter=CSV:44,34,76,1,,${id},false,true`,
    '--convert-to',
    // As shown: what one sees is what is saved.
    `csv:Text - txt - csv (StarCalc):${separator.charCodeAt(0)},34,76,1,,${id},false,true,false`,
    '--outdir',
    out,
  ];
  const { status, error, stderr } = spawnSync('soffice', [...options, ...sheets.map((s) => join(folder, s.file))], {
    encoding: 'utf8',
    timeout: 300_000,
  });
  if (error) throw new Error(`soffice did not start (Debian's package libreoffice-calc-nogui): ${error.message}`);
  if (status !== 0) throw new Error(stderr);
}

/**
 * Every table of a show with odd names through Debian's spreadsheet and back, in two languages: whether each is the same,
 * asked about, or changed in silence. True where none is.
 */
export function spreadsheet(): boolean {
  return (['the demo', 'the demo with odd names'] as const).every((name) => {
    console.log(`Tables of ${name}`);
    return roundTrip(name === 'the demo' ? demoShow() : oddShow());
  });
}

function roundTrip(show: Show): boolean {
  const folder = mkdtempSync(join(tmpdir(), 'lantern-tables-'));
  let well = true;
  try {
    const sheets = writeTables(show, folder);
    for (const [language, id, separator] of LANGUAGES) {
      const out = join(folder, language);
      mkdirSync(out);
      through(folder, out, sheets, id, separator);
      const counts = { same: 0, asked: 0, kept: 0, refused: 0, changed: 0 };
      for (const { file, kind, id: of } of sheets) {
        const text = readFileSync(join(out, file), 'utf8');
        const read = (made: MadeNames) => readTable(show, kind, of, text, () => 'new', made);
        const isSame = (after: Show | undefined): boolean =>
          after !== undefined && compareShows(show, after).length === 0;
        const ask = read('ask');
        const keep = read('keep');
        const onlyAsked = ask.problems.every((p) => p.code === 'csv.made-of');
        if (isSame(ask.value)) counts.same++;
        else if (ask.value) counts.changed++;
        else if (onlyAsked && isSame(keep.value)) counts.kept++;
        else if (onlyAsked) counts.asked++;
        else counts.refused++;
        if (isSame(ask.value) || (onlyAsked && isSame(keep.value))) continue;
        well = false;
        console.log(
          `  ${language}, ${file}: ${keep.value ? `${compareShows(show, keep.value).length} differ` : 'refused'}`,
        );
        for (const d of keep.value ? compareShows(show, keep.value) : []) console.log(`    ${showDifferenceWords(d)}`);
        for (const p of keep.problems.slice(0, 5)) console.log(`    ${problemLine(p)}`);
      }
      console.log(
        `${language}: ${sheets.length} tables, ${counts.same} the same, ${counts.kept} asked about and the same when kept, ` +
          `${counts.asked} asked about and not the same, ${counts.refused} refused, ${counts.changed} changed in silence`,
      );
    }
  } finally {
    rmSync(folder, { recursive: true });
  }
  return well;
}
