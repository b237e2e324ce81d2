import type { Bytes } from '../core/midi';
import { launchBytes, songEntries, type Show, type SongEntry } from '../core/show';

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
