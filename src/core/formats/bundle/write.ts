import { strToU8, zipSync, type Zippable } from 'fflate';
import type { Show } from '../../show';
import { writeShowFile } from '../show-file';
import { SHOW_ENTRY, soundEntry } from './names';

/**
 * A show with its sounds as a zip file: the show's own JSON, and each sound as it came. Sounds
 * are not packed further, which would gain nothing. `missing` are names of sounds whose bytes
 * were not to be had.
 */
export function writeBundle(
  show: Show,
  sounds: ReadonlyMap<string, Uint8Array>,
): { readonly bytes: Uint8Array<ArrayBuffer>; readonly missing: readonly string[] } {
  const files: Zippable = { [SHOW_ENTRY]: strToU8(writeShowFile(show)) };
  const missing: string[] = [];
  for (const audio of show.audio) {
    const bytes = sounds.get(audio.id);
    if (bytes) files[soundEntry(audio)] = [bytes, { level: 0 }];
    else missing.push(audio.name);
  }
  return { bytes: zipSync(files, { level: 6, mtime: '1980-01-01T00:00:00' }) as Uint8Array<ArrayBuffer>, missing };
}
