import { toHex, type Bytes } from '../core/midi';
import { songEntries, type Show, type SongEntry } from '../core/show';

/** What of a message tells a launch apart: of a program change two bytes, of a note its number, of a control its value too. */
export function launchBytes(bytes: Bytes): string | null {
  const kind = bytes[0]! & 0xf0;
  const struck = kind === 0x90 && (bytes[2] ?? 0) > 0;
  const length = kind === 0xc0 || struck ? 2 : kind === 0xb0 ? 3 : 0;
  return length === 0 || bytes.length < length ? null : toHex(bytes.slice(0, length)).toUpperCase();
}

/** The song of the set that waits for a message on a port. */
export function launchedBy(show: Show, portId: string, bytes: Bytes): SongEntry | undefined {
  const heard = launchBytes(bytes);
  if (heard === null) return undefined;
  return songEntries(show).find(({ launch }) => launch?.portId === portId && launch.bytes === heard);
}
