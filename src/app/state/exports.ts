import { zipSync } from 'fflate';
import { writeControlTable, writeCueTable, writeSetTable, writeToneTable } from '../../core/formats/csv';
import { writeMidiNames } from '../../core/formats/midi-names';
import { cutPart, writePart, type PartWish } from '../../core/formats/part-file';
import { writePresetList } from '../../core/formats/preset-list';
import { midiFiles, type MidiWish } from '../../core/formats/smf';
import { writeUnitFile } from '../../core/formats/unit-file';
import { NOWHERE, problem, type Problem } from '../../core/problems';
import { indexShow, setOf, songsOfSet, type Show, type Unit } from '../../core/show';
import { sentence } from '../../wording';
import { download, fileName } from '../adapters/download';

/** What became of an export: the file, and what it could not carry. */
export interface Exported {
  readonly name: string;
  readonly problems: readonly Problem[];
}

const leftOut = (what: readonly string[]): readonly Problem[] =>
  what.length === 0 ? [] : [problem('export.left-out', 'note', NOWHERE, { what })];

export const SET = 'set';

/** What there is to say of an export, in one line. */
export const exportedWords = ({ name, problems }: Exported): string =>
  [`Exported ${name}.`, ...problems.map(sentence)].join(' ');

export function exportMidi(show: Show, songId: string, wish: MidiWish): Exported {
  const song = indexShow(show).songs.get(songId);
  const songs = song ? [song] : songsOfSet(show);
  const title = song?.title ?? setOf(show).title;
  const { files, problems } = midiFiles(show, songs, title, wish);
  const nameOf = (part: string): string => fileName(`${title} ${part} ${wish.mode}`, 'mid');
  const [only] = files;
  if (files.length === 1 && only) {
    download(nameOf(only.part), only.bytes, 'audio/midi');
    return { name: nameOf(only.part), problems };
  }
  const taken = new Set<string>();
  const inZip: Record<string, Uint8Array> = {};
  for (const { part, bytes } of files) {
    let name = nameOf(part);
    for (let n = 2; taken.has(name); n++) name = nameOf(`${part} ${n}`);
    taken.add(name);
    inZip[name] = bytes;
  }
  const name = fileName(`${title} ${wish.mode}`, 'zip');
  download(name, new Uint8Array(zipSync(inZip)), 'application/zip');
  return { name: `${name} (${[...taken].join(', ')})`, problems };
}

export function exportPart(show: Show, wish: PartWish): Exported {
  const { part, problems } = cutPart(show, wish);
  const name = fileName(part.show.title, `lantern-${wish.kind === 'songs' ? 'song' : wish.kind}.json`);
  download(name, writePart(part), 'application/json');
  return { name, problems };
}

export function exportUnit(show: Show, unit: Unit): Exported {
  const name = fileName(unit.name, 'lantern-unit.json');
  download(name, writeUnitFile(show, unit), 'application/json');
  const what = ['its channel and cables', ...(unit.relays.length > 0 ? ['relay rules'] : []), 'tones that use it'];
  return { name, problems: leftOut(what) };
}

export function exportNames(show: Show, unit: Unit): Exported {
  const { text, problems } = writeMidiNames(unit, show.title);
  const name = fileName(unit.name, 'midnam');
  download(name, text, 'application/xml');
  return { name, problems: [...problems, ...leftOut(['times, relay rules and tones'])] };
}

/** Tables that are written, and read again. */
export const TABLES = ['cues', 'set', 'tones', 'controls', 'presets'] as const;
export type TableKind = (typeof TABLES)[number];

/** `id` is the song of cues, or the unit of controls and presets. */
export function exportTable(show: Show, kind: TableKind, id: string): Exported {
  const { songs, units } = indexShow(show);
  const take = (title: string, text: string, what: readonly string[]): Exported => {
    const name = fileName(title, 'csv');
    download(name, text, 'text/csv;charset=utf-8');
    return { name, problems: leftOut(what) };
  };
  switch (kind) {
    case 'cues': {
      const song = songs.get(id)!;
      const more = [
        ...(song.sweeps.length > 0 ? ['sweeps'] : []),
        ...(song.taps.length > 0 ? ['tempo taps'] : []),
        'tempo, metre, sections and the opening',
      ];
      return take(`${song.title} cues`, writeCueTable(show, song), more);
    }
    case 'set':
      return take(setOf(show).title, writeSetTable(show), ['start time', 'what starts a song from outside']);
    case 'tones':
      return take(`${show.title} tones`, writeToneTable(show), []);
    case 'controls': {
      const unit = units.get(id)!;
      return take(`${unit.name} controls`, writeControlTable(unit), ['house numbers', 'variants', 'effects']);
    }
    case 'presets': {
      const unit = units.get(id)!;
      return take(`${unit.name} presets`, writePresetList(unit), ['what is loaded with a preset']);
    }
  }
}
