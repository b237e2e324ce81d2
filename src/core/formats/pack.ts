import {
  FLOOR_KINDS,
  SHEET_KINDS,
  SHEET_USES,
  sheetsOf,
  usualSheets,
  type SheetKind,
  type SheetWords,
} from '../sheets';
import { setOf, songsOfSet, type Show } from '../show';
import { tonightOf } from '../tonight';
import { TABLES, type TableKind } from './csv';
import { exportFile, type ExportWish } from './exportFile';
import { fileName } from './fileName';
import {
  fontFilesOf,
  unprintable,
  writeSheetsPdf,
  type FontFile,
  type LoadedFont,
  type PaperSize,
  type Unprintable,
} from './pdf';

/** A file of a pack, in its folder: "paper/cues.pdf". */
export interface PackedFile {
  readonly path: string;
  /** What it is, for the page that lists them. */
  readonly about: string;
  readonly data: string | Uint8Array;
}

export interface PackWish {
  readonly paper: PaperSize;
  /** What state of the show this is: a date, as one writes it. */
  readonly asOf: string;
  readonly words: SheetWords;
  /** The recordings by id; null for a show without them. */
  readonly sounds: ReadonlyMap<string, Uint8Array> | null;
  readonly loadFonts: (files: readonly FontFile[]) => Promise<readonly LoadedFont[]> | readonly LoadedFont[];
}

export interface Pack {
  /** The page that says what is what comes first. */
  readonly files: readonly PackedFile[];
  /** What of the paper no font has letters for. */
  readonly odd: readonly Unprintable[];
}

/** What each kind of sheet is called in a pack. */
const PAPERS: Readonly<Record<SheetKind, string>> = {
  cues: 'Cue sheets, one a song',
  set: 'Set list',
  numbers: 'Number charts, one a unit',
  patch: 'Patch sheet: every cable with its two ends',
  strips: 'Strips for switches, in their true size',
  fallback: 'Songs by foot, for when the computer is gone',
  stored: 'Stored states, to be ticked off',
  mix: 'Mix sheet',
  tones: 'Tone sheet',
  pads: 'Reactions and pads',
  ports: 'Ports',
  starts: 'What starts each song',
  accepted: 'Findings that are let be',
  tonight: 'What differs tonight',
};

/**
 * Everything of a show that one takes along, as files in folders: the show, all its paper, its MIDI files, names for other
 * software, tables, and a page that says what is what and which state of the show it is of. Throws where a font is none.
 */
export async function packShow(show: Show, wish: PackWish): Promise<Pack> {
  const paper = await papers(show, wish);
  const files = [...exported(show, wish), ...paper.files];
  return { files: [contents(show, files, wish.asOf), ...files], odd: paper.odd };
}

async function papers(show: Show, { paper, asOf, words, loadFonts }: PackWish): Promise<Pack> {
  const tonight = tonightOf(show);
  const files: PackedFile[] = [];
  const odd = new Map<string, Unprintable>();
  for (const kind of SHEET_KINDS) {
    for (const use of SHEET_USES) {
      if (use === 'floor' && !FLOOR_KINDS.has(kind)) continue;
      const sheets = sheetsOf(tonight, { ...usualSheets(kind), use }, words);
      if (sheets.length === 0) continue;
      const fonts = await loadFonts(fontFilesOf(sheets, show.title));
      for (const own of unprintable(sheets, show.title, fonts)) odd.set(own.text, own);
      files.push({
        path: `paper/${kind}${use === 'floor' ? '-floor' : ''}.pdf`,
        about: `${PAPERS[kind]}${use === 'floor' ? ', to be read from the floor' : ''}`,
        data: await writeSheetsPdf(sheets, { paper, asOf, show: show.title, fonts }),
      });
    }
  }
  return { files, odd: [...odd.values()] };
}

/** Files of the show itself and for other software. Two of one name are told apart by a number. */
function exported(show: Show, { sounds }: PackWish): readonly PackedFile[] {
  const taken = new Set<string>();
  const put = (folder: string, about: string, wish: ExportWish): PackedFile => {
    const { name, data } = exportFile(show, wish);
    const dot = name.indexOf('.');
    let path = `${folder}${name}`;
    for (let n = 2; taken.has(path); n++) path = `${folder}${name.slice(0, dot)}-${n}${name.slice(dot)}`;
    taken.add(path);
    return { path, about, data };
  };
  const table = (kind: TableKind, id: string, about: string): PackedFile =>
    put('tables/', about, { kind: 'table', table: kind, id });
  const songs = [...new Set(songsOfSet(show))];
  const perUnit = show.units.filter((u) => u.slots.length > 0 || u.profile.controls.length > 0);
  const tables: Readonly<Record<TableKind, () => readonly PackedFile[]>> = {
    cues: () => songs.map((s) => table('cues', s.id, `Cues of ${s.title}`)),
    set: () => (setOf(show).entries.length > 0 ? [table('set', '', 'Running order')] : []),
    tones: () => (show.tones.length > 0 ? [table('tones', '', 'Tones')] : []),
    controls: () => perUnit.map((u) => table('controls', u.id, `Controls of ${u.name}`)),
    presets: () => perUnit.map((u) => table('presets', u.id, `Presets of ${u.name}`)),
  };
  return [
    put('', 'The show itself: open it with this application', { kind: 'show', sounds }),
    ...songs.map((s) =>
      put('midi/', `${s.title} as it is sent, for any player of MIDI files`, {
        kind: 'midi',
        songId: s.id,
        midi: { mode: 'sent', format: 1, per: 'all' },
      }),
    ),
    ...perUnit.map((u) => put('names/', `Names of ${u.name} for other software`, { kind: 'names', unitId: u.id })),
    ...perUnit.map((u) => put('maps/', `Map of ${u.name}, for another show`, { kind: 'unit', unitId: u.id })),
    ...TABLES.flatMap((kind) => tables[kind]()),
  ];
}

/** The page that says what is what, as plain text: it opens anywhere. */
function contents(show: Show, files: readonly PackedFile[], asOf: string): PackedFile {
  const wide = Math.max(...files.map((f) => f.path.length)) + 2;
  const lines = [
    show.title,
    `The show as of ${asOf}: ${show.songs.length} songs, ${show.units.length} units, ${show.tones.length} tones.`,
    `Its set: ${setOf(show).title}.`,
    '',
    ...files.map((f) => `${f.path.padEnd(wide)}${f.about}`),
    '',
  ];
  return {
    path: `${fileName(show.title, 'txt').replace(/\.txt$/, '')}-contents.txt`,
    about: 'This page',
    data: lines.join('\r\n'),
  };
}
