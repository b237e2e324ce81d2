import { isZip, readBundle, type Bundle } from '../../../core/formats/bundle';
import { readShowFile } from '../../../core/formats/show-file';
import { smfToShow } from '../../../core/formats/smf';
import { hasErrors, type Read } from '../../../core/problems';
import { problemLine } from '../../../wording';

/** A show that was read from a file, and what there is to say of it; or why it was not read. */
export type Opened =
  | { readonly kind: 'read'; readonly bundle: Bundle; readonly told: readonly string[] }
  | { readonly kind: 'refused'; readonly problem: string };

/** Reads a file as a show: of its own kind, with or without sounds, or a MIDI file. */
export async function readFile(file: File): Promise<Opened> {
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
