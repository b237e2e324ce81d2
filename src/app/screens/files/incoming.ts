import type { Bundle } from '../../../core/formats/bundle';
import { readPart, isPart, type Part } from '../../../core/formats/part-file';
import { decodeText } from '../../../core/formats/preset-list';
import { parseJson } from '../../../core/formats/show-file';
import { readUnitFile, type UnitFile } from '../../../core/formats/unit-file';
import { hasErrors, type Problem } from '../../../core/problems';
import { problemLine } from '../../../wording';
import { readFile, tooLarge } from '../../adapters/readFile';
import { openMidi, type MidiOpened } from '../../features/midiOpened';
import type { TableKind } from '../../../core/formats/csv';

/** What a file turned out to be. */
export type Incoming =
  | { readonly kind: 'part'; readonly part: Part; readonly problems: readonly Problem[] }
  | { readonly kind: 'show'; readonly bundle: Bundle; readonly told: readonly string[] }
  | { readonly kind: 'unit'; readonly unit: UnitFile }
  | { readonly kind: 'table'; readonly table: TableKind; readonly text: string }
  | { readonly kind: 'midi'; readonly opened: MidiOpened }
  | { readonly kind: 'names' }
  | { readonly kind: 'exclusive' }
  | { readonly kind: 'refused'; readonly problem: string };

const ending = (name: string): string => /\.([^.]+)$/.exec(name)?.[1]?.toLowerCase() ?? '';

/** Looks into a file and says what it is; one that cannot be read is refused with the reason. */
export async function lookInto(file: File): Promise<Incoming> {
  try {
    return await look(file);
  } catch (error) {
    return {
      kind: 'refused',
      problem: `${file.name} was not imported: it cannot be read (${(error as Error).message}).`,
    };
  }
}

async function look(file: File): Promise<Incoming> {
  const refused = tooLarge(file);
  if (refused !== null) return { kind: 'refused', problem: refused };
  switch (ending(file.name)) {
    case 'mid':
    case 'midi':
      return { kind: 'midi', opened: await openMidi(file) };
    case 'midnam':
    case 'xml':
      return { kind: 'names' };
    case 'syx':
      return { kind: 'exclusive' };
    case 'csv':
    case 'tsv':
    case 'txt':
      return tableOf(file);
    case 'json':
      return jsonOf(file);
    default:
      return showOf(file);
  }
}

const refusal = (file: File, problems: readonly Problem[]): Incoming => {
  const error = problems.find((p) => p.severity === 'error');
  return { kind: 'refused', problem: `${file.name} was not imported. ${error ? problemLine(error) : ''}` };
};

async function showOf(file: File): Promise<Incoming> {
  const opened = await readFile(file);
  return opened.kind === 'refused' ? opened : { kind: 'show', bundle: opened.bundle, told: opened.told };
}

async function jsonOf(file: File): Promise<Incoming> {
  const text = await file.text();
  const json = parseJson(text);
  const data = json.value?.data;
  if (isPart(data)) {
    const { value, problems } = readPart(text);
    return value && !hasErrors(problems) ? { kind: 'part', part: value, problems } : refusal(file, problems);
  }
  if ((data as { format?: unknown } | null | undefined)?.format === 'hollow-lantern-unit') {
    const { value, problems } = readUnitFile(text);
    return value && !hasErrors(problems) ? { kind: 'unit', unit: value } : refusal(file, problems);
  }
  return showOf(file);
}

async function tableOf(file: File): Promise<Incoming> {
  const { value: text, problems } = decodeText(new Uint8Array(await file.arrayBuffer()));
  if (text === undefined) return refusal(file, problems);
  return { kind: 'table', table: tableKindOf(text, file.name), text };
}

/** Which table a text is, by the titles of its first line. */
function tableKindOf(text: string, name: string): TableKind {
  const head = text
    .replace(/^\ufeff/, '')
    .split(/[\r\n]/, 1)[0]!
    .toLowerCase();
  const titles = new Set(head.split(/[,;\t]/).map((t) => t.trim().replaceAll('"', '')));
  if (titles.has('tone')) return 'tones';
  if (titles.has('control') && titles.has('kind')) return 'controls';
  // A list of presets may have the same two titles; places in a song have a beat behind the bar.
  const beats = /^[^,;\t\r\n]*\d\|\d/m.test(text);
  if (titles.has('place') && titles.has('name') && (titles.size > 2 || beats || /cue/i.test(name))) return 'cues';
  return titles.has('title') ? 'set' : 'presets';
}
