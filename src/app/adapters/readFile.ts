import { isZip, readBundle, type Bundle } from '../../core/formats/bundle';
import { readShowFile } from '../../core/formats/show-file';
import { smfToShow } from '../../core/formats/smf';
import { hasErrors, type Read } from '../../core/problems';
import { problemLine } from '../../wording';

/** A show that was read from a file, and what there is to say of it; or why it was not read. */
export type Opened =
  | { readonly kind: 'read'; readonly bundle: Bundle; readonly told: readonly string[] }
  | { readonly kind: 'refused'; readonly problem: string };

/** Larger files are not looked into: a show with an hour of recordings is half of it. */
const SIZE_LIMIT = 1024 * 1024 * 1024;

/** Why a file is too large to be read; null where it is not. */
export const tooLarge = (file: File): string | null =>
  file.size <= SIZE_LIMIT
    ? null
    : `${file.name} was not opened: it has ${Math.round(file.size / 1e6).toLocaleString('en')} MB, and ${Math.round(SIZE_LIMIT / 1e6).toLocaleString('en')} are read at the most.`;

/** Reads a file as a show: of its own kind, with or without sounds, or a MIDI file. */
export async function readFile(file: File): Promise<Opened> {
  const refused = tooLarge(file);
  if (refused !== null) return { kind: 'refused', problem: refused };
  const { value, problems } = await readBytes(file);
  if (!value || hasErrors(problems)) {
    const error = problems.find((p) => p.severity === 'error');
    return { kind: 'refused', problem: `${file.name} was not opened. ${error ? problemLine(error) : ''}` };
  }
  const told = problems.map(problemLine);
  const missing = value.show.audio.filter((a) => !value.sounds.has(a.id)).map((a) => a.name);
  if (missing.length > 0 && told.length === 0) {
    told.push(`Recordings that are not in the file: ${missing.join(', ')}.`);
  }
  return { kind: 'read', bundle: value, told: missing.length > 0 ? told : [] };
}

async function readBytes(file: File): Promise<Read<Bundle>> {
  const bytes = new Uint8Array(await file.arrayBuffer());
  if (isZip(bytes)) return readBundle(bytes);
  const midi = /\.midi?$/i.test(file.name);
  const { value: show, problems } = midi
    ? smfToShow(bytes, file.name.replace(/\.midi?$/i, ''))
    : readShowFile(new TextDecoder().decode(bytes));
  return { value: show && { show, sounds: new Map() }, problems };
}
