import { toHex, type Bytes } from '../core/midi';
import { songEntries, type Show, type SongEntry } from '../core/show';

/** What of a message tells a launch apart: of a program change two bytes, of a note its number, of a control its value too. */
export function launchBytes(bytes: Bytes): string | null {
  const kind = bytes[0]! & 0xf0;
  const struck = kind === 0x90 && (bytes[2] ?? 0) > 0;
  const length = kind === 0xc0 || struck ? 2 : kind === 0xb0 ? 3 : 0;
  return length === 0 || bytes.length < length ? null : toHex(bytes.slice(0, length)).toUpperCase();
}

/** A message that may start a song, and the port that it came in by. */
export interface HeardLaunch {
  readonly portId: string;
  readonly bytes: string;
}

/** The presses among what arrived, in their order, each once: what is let go of, and what is pressed again, is none. */
export function launchesHeard(arrived: readonly { readonly portId: string; readonly bytes: Bytes }[]): HeardLaunch[] {
  const found = new Map<string, HeardLaunch>();
  for (const { portId, bytes } of arrived) {
    const launch = launchBytes(bytes);
    const released = (bytes[0]! & 0xf0) === 0xb0 && bytes[2] === 0;
    if (launch !== null && !released && !found.has(`${portId} ${launch}`)) {
      found.set(`${portId} ${launch}`, { portId, bytes: launch });
    }
  }
  return [...found.values()];
}

/** The song of the set that waits for a message on a port. */
export function launchedBy(show: Show, portId: string, bytes: Bytes): SongEntry | undefined {
  const heard = launchBytes(bytes);
  if (heard === null) return undefined;
  return songEntries(show).find(({ launch }) => launch?.portId === portId && launch.bytes === heard);
}
