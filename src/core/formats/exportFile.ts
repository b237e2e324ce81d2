import { zipSync } from 'fflate';
import { NOWHERE, problem, type Problem } from '../problems';
import { indexShow, setOf, songsOfSet, type Show } from '../show';
import { tonightOf, type ShowTonight } from '../tonight';
import { writeBundle } from './bundle';
import { writeControlTable, writeCueTable, writeSetTable, writeToneTable, type TableKind } from './csv';
import { fileName } from './fileName';
import { writeMidiNames } from './midi-names';
import { cutPart, writePart, type PartWish } from './part-file';
import { writePresetList } from './preset-list';
import { writeShowFile } from './show-file';
import { midiFiles, type MidiWish } from './smf';
import { writeUnitFile } from './unit-file';

/** What leaves a show as a file. */
export type ExportWish =
  /** The show itself; with the bytes of its recordings, by id, as a zip. */
  | { readonly kind: 'show'; readonly sounds: ReadonlyMap<string, Uint8Array> | null }
  /** A song, or the songs of the set where there is no such song. */
  | { readonly kind: 'midi'; readonly songId: string; readonly midi: MidiWish }
  | { readonly kind: 'part'; readonly part: PartWish }
  | { readonly kind: 'unit' | 'names'; readonly unitId: string }
  /** `id`: the song of cues, or the unit of controls and presets. */
  | { readonly kind: 'table'; readonly table: TableKind; readonly id: string };

export interface ExportedFile {
  readonly name: string;
  /** Its media type. */
  readonly type: string;
  readonly data: string | Uint8Array<ArrayBuffer>;
  /** Names of the files in it, where it is a zip of several. */
  readonly inside: readonly string[];
  /** What the file could not carry. */
  readonly problems: readonly Problem[];
}

const leftOut = (what: readonly string[]): readonly Problem[] =>
  what.length === 0 ? [] : [problem('export.left-out', 'note', NOWHERE, { what })];

const file = (
  name: string,
  type: string,
  data: ExportedFile['data'],
  problems: readonly Problem[] = [],
): ExportedFile => ({ name, type, data, inside: [], problems });

/**
 * A part of a show as a file: MIDI files as the night has it, all others as it is written. Throws where its song or unit
 * is not there, or a song is too long for its file.
 */
export function exportFile(show: Show, wish: ExportWish): ExportedFile {
  switch (wish.kind) {
    case 'show':
      return exportWhole(show, wish.sounds);
    case 'midi':
      return exportMidi(tonightOf(show), wish.songId, wish.midi);
    case 'part': {
      const { part, problems } = cutPart(show, wish.part);
      const kind = wish.part.kind === 'songs' ? 'song' : wish.part.kind;
      return file(fileName(part.show.title, `lantern-${kind}.json`), 'application/json', writePart(part), problems);
    }
    case 'unit': {
      const unit = unitOf(show, wish.unitId);
      const what = ['its channel and cables', ...(unit.relays.length > 0 ? ['relay rules'] : []), 'tones that use it'];
      const name = fileName(unit.name, 'lantern-unit.json');
      return file(name, 'application/json', writeUnitFile(show, unit), leftOut(what));
    }
    case 'names': {
      const unit = unitOf(show, wish.unitId);
      const { text, problems } = writeMidiNames(unit, show.title);
      const all = [...problems, ...leftOut(['times, relay rules and tones'])];
      return file(fileName(unit.name, 'midnam'), 'application/xml', text, all);
    }
    case 'table':
      return exportTable(show, wish.table, wish.id);
  }
}

function unitOf(show: Show, unitId: string) {
  const unit = indexShow(show).units.get(unitId);
  if (!unit) throw new Error(`there is no unit "${unitId}"`);
  return unit;
}

function exportWhole(show: Show, sounds: ReadonlyMap<string, Uint8Array> | null): ExportedFile {
  const lacking = (names: readonly string[]): readonly Problem[] =>
    names.length === 0 ? [] : leftOut(names.map((name) => `the recording "${name}"`));
  if (sounds === null || show.audio.length === 0) {
    const all = lacking(show.audio.map((a) => a.name));
    return file(fileName(show.title, 'json'), 'application/json', writeShowFile(show), all);
  }
  const { bytes, missing } = writeBundle(show, sounds);
  return file(fileName(show.title, 'zip'), 'application/zip', bytes, lacking(missing));
}

function exportMidi(show: ShowTonight, songId: string, wish: MidiWish): ExportedFile {
  const song = indexShow(show).songs.get(songId);
  const songs = song ? [song] : songsOfSet(show);
  const title = song?.title ?? setOf(show).title;
  const { files, problems } = midiFiles(show, songs, title, wish);
  const nameOf = (part: string): string => fileName(`${title} ${part} ${wish.mode}`, 'mid');
  const [only] = files;
  if (files.length === 1 && only) return file(nameOf(only.part), 'audio/midi', only.bytes, problems);
  const inZip = new Map<string, Uint8Array>();
  for (const { part, bytes } of files) {
    let name = nameOf(part);
    for (let n = 2; inZip.has(name); n++) name = nameOf(`${part} ${n}`);
    inZip.set(name, bytes);
  }
  const data = new Uint8Array(zipSync(Object.fromEntries(inZip)));
  return {
    ...file(fileName(`${title} ${wish.mode}`, 'zip'), 'application/zip', data, problems),
    inside: [...inZip.keys()],
  };
}

function exportTable(show: Show, kind: TableKind, id: string): ExportedFile {
  const table = (title: string, text: string, what: readonly string[]): ExportedFile =>
    file(fileName(title, 'csv'), 'text/csv;charset=utf-8', text, leftOut(what));
  switch (kind) {
    case 'cues': {
      const song = indexShow(show).songs.get(id);
      if (!song) throw new Error(`there is no song "${id}"`);
      const more = [
        ...(song.sweeps.length > 0 ? ['sweeps'] : []),
        ...(song.taps.length > 0 ? ['tempo taps'] : []),
        'tempo, metre, sections and the opening',
      ];
      return table(`${song.title} cues`, writeCueTable(show, song), more);
    }
    case 'set':
      return table(setOf(show).title, writeSetTable(show), ['start time', 'what starts a song from outside']);
    case 'tones':
      return table(`${show.title} tones`, writeToneTable(show), []);
    case 'controls': {
      const unit = unitOf(show, id);
      return table(`${unit.name} controls`, writeControlTable(unit), ['shared control numbers', 'variants', 'effects']);
    }
    case 'presets': {
      const unit = unitOf(show, id);
      return table(`${unit.name} presets`, writePresetList(unit), ['what is loaded with a preset']);
    }
  }
}
