import type { Bundle } from '../../core/formats/bundle';
import { hasErrors, type Read } from '../../core/problems';
import { problemLine, said } from '../../wording';
import { readerInWorker } from './workers';

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

export const bytesOf = async (file: File): Promise<Uint8Array<ArrayBuffer>> => new Uint8Array(await file.arrayBuffer());

/** Reads a file as a show: of its own kind, with or without sounds, or a MIDI file. */
export async function readFile(file: File): Promise<Opened> {
  const refused = tooLarge(file);
  if (refused !== null) return { kind: 'refused', problem: refused };
  let read: Read<Bundle>;
  try {
    read = await readerInWorker(await bytesOf(file), (w, bytes) => w.show(bytes, file.name));
  } catch (error) {
    // It may have changed or gone since it was chosen.
    return { kind: 'refused', problem: `${file.name} was not opened: ${(error as Error).message}` };
  }
  const { value, problems } = read;
  if (!value || hasErrors(problems)) {
    const error = problems.find((p) => p.severity === 'error');
    return { kind: 'refused', problem: `${file.name} was not opened. ${error ? problemLine(error) : ''}` };
  }
  const told = problems.map(problemLine);
  const missing = value.show.audio.filter((a) => !value.sounds.has(a.id)).map((a) => a.name);
  if (missing.length > 0 && told.length === 0) {
    told.push(said.recordingsMissing(missing));
  }
  return { kind: 'read', bundle: value, told: missing.length > 0 ? told : [] };
}
