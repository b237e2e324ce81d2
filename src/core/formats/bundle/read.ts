import { strFromU8, unzipSync, type UnzipFileInfo } from 'fflate';
import { NOWHERE, hasErrors, problem, type Problem, type Read } from '../../problems';
import type { Show } from '../../show';
import { readShowFile } from '../show-file';
import { SHOW_ENTRY, leadsOut, soundEntry } from './names';

/** A show, and the bytes of those of its sounds that came with it, by id. */
export interface Bundle {
  readonly show: Show;
  readonly sounds: ReadonlyMap<string, Uint8Array<ArrayBuffer>>;
}

/** The largest that a show's own text may be, and all sounds of one together. */
const SHOW_LIMIT = 100_000_000;
const SOUNDS_LIMIT = 1_500_000_000;
const ENTRY_LIMIT = 5000;

/** Local file header of a zip file ("PK", APPNOTE 4.3.7), or of an empty one (4.3.16). */
export const isZip = (bytes: Uint8Array): boolean =>
  bytes[0] === 0x50 && bytes[1] === 0x4b && ((bytes[2] === 3 && bytes[3] === 4) || (bytes[2] === 5 && bytes[3] === 6));

/**
 * Reads a show with its sounds. Sizes are checked before anything is unpacked, against what the
 * show says of its sounds; nothing is unpacked that is not the show's. A sound that is missing or
 * of another size is said and left out; whatever else is wrong refuses the file whole.
 */
export function readBundle(bytes: Uint8Array): Read<Bundle> {
  const entries: UnzipFileInfo[] = [];
  const refuse = (p: Problem): Read<Bundle> => ({ value: undefined, problems: [p] });
  if (!isZip(bytes)) return refuse(problem('bundle.not-zip', 'error', NOWHERE, {}));
  try {
    unzipSync(bytes, { filter: (info) => (entries.push(info), false) });
  } catch {
    return refuse(problem('bundle.damaged', 'error', NOWHERE, { name: '' }));
  }
  if (entries.length > ENTRY_LIMIT) {
    return refuse(problem('bundle.too-many', 'error', NOWHERE, { count: entries.length, limit: ENTRY_LIMIT }));
  }
  const names = new Set<string>();
  for (const { name } of entries) {
    if (leadsOut(name)) return refuse(problem('bundle.path', 'error', NOWHERE, { name: name.slice(0, 120) }));
    if (names.has(name)) return refuse(problem('bundle.twice', 'error', NOWHERE, { name: name.slice(0, 120) }));
    names.add(name);
  }
  const own = entries.find((e) => e.name === SHOW_ENTRY);
  if (!own) return refuse(problem('bundle.no-show', 'error', NOWHERE, { name: SHOW_ENTRY }));
  if (own.originalSize > SHOW_LIMIT) return refuse(tooLarge(own, SHOW_LIMIT));
  const text = unpack(bytes, own);
  if (!text) return refuse(problem('bundle.damaged', 'error', NOWHERE, { name: SHOW_ENTRY }));
  const read = readShowFile(strFromU8(text));
  if (!read.value || hasErrors(read.problems)) return { value: undefined, problems: read.problems };
  const problems: Problem[] = [...read.problems];
  const show = read.value;
  const wanted = new Map(show.audio.map((a) => [soundEntry(a), a]));
  const sum = entries.reduce((all, e) => all + (wanted.has(e.name) ? e.originalSize : 0), 0);
  if (sum > SOUNDS_LIMIT) return refuse(tooLarge({ name: 'sounds', originalSize: sum }, SOUNDS_LIMIT));
  const sounds = new Map<string, Uint8Array<ArrayBuffer>>();
  for (const entry of entries) {
    const audio = wanted.get(entry.name);
    if (!audio) {
      const folder = entry.name.endsWith('/');
      if (entry !== own && !folder) {
        problems.push(problem('bundle.extra', 'note', NOWHERE, { name: entry.name.slice(0, 120) }));
      }
      continue;
    }
    const found = entry.originalSize === audio.size ? unpack(bytes, entry) : undefined;
    if (found) sounds.set(audio.id, found);
    else {
      const data = { name: audio.name, expected: audio.size, found: entry.originalSize };
      problems.push(problem('bundle.sound-size', 'warning', NOWHERE, data));
    }
  }
  for (const [name, audio] of wanted) {
    if (!names.has(name)) problems.push(problem('bundle.sound-missing', 'warning', NOWHERE, { name: audio.name }));
  }
  return { value: { show, sounds }, problems };
}

const tooLarge = ({ name, originalSize }: Pick<UnzipFileInfo, 'name' | 'originalSize'>, limit: number): Problem =>
  problem('bundle.too-large', 'error', NOWHERE, { name, size: originalSize, limit });

/** One entry's bytes: no more than it says that it is, and no less. */
function unpack(bytes: Uint8Array, { name, originalSize }: UnzipFileInfo): Uint8Array<ArrayBuffer> | undefined {
  try {
    const found = unzipSync(bytes, { filter: (info) => info.name === name })[name];
    return found?.length === originalSize ? (found as Uint8Array<ArrayBuffer>) : undefined;
  } catch {
    return undefined;
  }
}
