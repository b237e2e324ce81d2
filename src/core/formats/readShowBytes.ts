import type { Read } from '../problems';
import { LIMITS, type Show } from '../show';
import { isZip, readBundle, type Bundle } from './bundle';
import { readShowFile } from './show-file';
import { smfToShow } from './smf';

/** The title of a song or show from a MIDI file's name. */
const titleOf = (name: string): string => (name.replace(/\.[^.]*$/, '') || 'Imported').slice(0, LIMITS.title);

/** Reads a Standard MIDI File as a show of plain units with one song. @param name The file's. */
export const readMidiBytes = (bytes: Uint8Array, name: string): Read<Show> => smfToShow(bytes, titleOf(name));

/**
 * Reads a file as a show, whichever it is: with its recordings (a zip), without them, or a MIDI file (by its
 * name, since its bytes may be damaged). @param name The file's.
 */
export function readShowBytes(bytes: Uint8Array, name: string): Read<Bundle> {
  if (isZip(bytes)) return readBundle(bytes);
  const { value: show, problems } = /\.midi?$/i.test(name)
    ? readMidiBytes(bytes, name)
    : readShowFile(new TextDecoder().decode(bytes));
  return { value: show && { show, sounds: new Map() }, problems };
}
