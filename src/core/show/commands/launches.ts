import { fromHex, toHex, type Bytes } from '../../midi';
import type { Edit } from '../edits';
import { setOf } from '../find';
import type { SetEntry, Show, SongEntry } from '../schema';

type Launch = NonNullable<SongEntry['launch']>;

/** The first bytes of a control change, and the value from which on it is a switch (MIDI 1.0: 64 and above are on). */
const CONTROL = 0xb0;
const ON_FROM = 64;

/**
 * The message `by` numbers further: the next program, the next note; of a control the next value, or the next
 * number where the value is a switch's. As the bytes of a launch. Null past 127.
 */
export function launchFurther(bytes: string, by: number): string | null {
  const [status, number, value] = fromHex(bytes) ?? [];
  if (status === undefined || number === undefined) return null;
  const counts = (status & 0xf0) === CONTROL && value !== undefined && value < ON_FROM;
  const next = (counts ? value : number) + by;
  if (next > 127) return null;
  const rest = value === undefined ? [next] : counts ? [number, next] : [next, value];
  return toHex([status, ...rest]).toUpperCase();
}

/** What of a message tells a launch apart: of a program change two bytes, of a note its number, of a control its value too. */
export function launchBytes(bytes: Bytes): string | null {
  const kind = bytes[0]! & 0xf0;
  const struck = kind === 0x90 && (bytes[2] ?? 0) > 0;
  const length = kind === 0xc0 || struck ? 2 : kind === 0xb0 ? 3 : 0;
  return length === 0 || bytes.length < length || bytes.slice(1).some((b) => b > 127)
    ? null
    : toHex(bytes.slice(0, length)).toUpperCase();
}

const entriesSet = (show: Show, after: readonly SetEntry[]): Edit | null => {
  const set = setOf(show);
  if (after.every((e, i) => e === set.entries[i])) return null;
  return { kind: 'set', path: ['sets', { id: set.id }, 'entries'], before: set.entries, after };
};

/** How many songs behind an entry of the set can be numbered on from its message. */
export function songsToNumber(show: Show, entryId: string): number {
  const { entries } = setOf(show);
  const at = entries.findIndex((e) => e.id === entryId);
  const first = entries[at];
  if (first?.kind !== 'song' || first.launch === null) return 0;
  const { bytes } = first.launch;
  const behind = entries.slice(at + 1).filter((e) => e.kind === 'song');
  return behind.filter((_, i) => launchFurther(bytes, i + 1) !== null).length;
}

/**
 * Gives the songs behind an entry of the set the messages behind its own, in their order: a song a number.
 * Those for which no number is left keep what they have. Null where it has none, or nothing would change.
 */
export function numberLaunches(show: Show, entryId: string): Edit | null {
  const { entries } = setOf(show);
  const at = entries.findIndex((e) => e.id === entryId);
  const first = entries[at];
  if (first?.kind !== 'song' || first.launch === null) return null;
  const { launch } = first;
  let by = 0;
  return entriesSet(
    show,
    entries.map((entry, i): SetEntry => {
      if (i <= at || entry.kind !== 'song') return entry;
      by += 1;
      const bytes = launchFurther(launch.bytes, by);
      return bytes === null ? entry : withLaunch(entry, { ...launch, bytes });
    }),
  );
}

const withLaunch = (entry: SongEntry, launch: Launch): SongEntry =>
  JSON.stringify(entry.launch) === JSON.stringify(launch) ? entry : { ...entry, launch };

/** Lets messages start songs, a message for each entry; null where nothing would change. */
export const setLaunches = (show: Show, launches: ReadonlyMap<string, Launch>): Edit | null =>
  entriesSet(
    show,
    setOf(show).entries.map((entry): SetEntry => {
      const launch = launches.get(entry.id);
      return launch && entry.kind === 'song' ? withLaunch(entry, launch) : entry;
    }),
  );
