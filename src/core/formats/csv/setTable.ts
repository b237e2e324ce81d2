import type { MadeNames } from '../../cells';
import type { Read } from '../../problems';
import { fromHex } from '../../midi';
import {
  LIMITS,
  RANGES,
  indexShow,
  launchBytes,
  setOf,
  newInterlude,
  songEntry,
  type SetEntry,
  type Show,
  type SongEntry,
} from '../../show';
import { figureOf, readTable, theOne, wordIn, writeTable, writtenName, type SayOf, type TableRow } from './table';
import { spaced } from './values';

const COLUMNS = ['Kind', 'Title', 'Follows', 'Pause (s)', 'Minutes', 'Bridge', 'Started by', 'Port', 'Does'] as const;

/** What a message that is written as bytes may be, as an example for each kind. */
const LAUNCHES = ['C0 05', '99 28', 'B0 14 7F'];

/** The running order as a table: songs with what starts them, breaks, notes and sounds between songs. */
export function writeSetTable(show: Show): string {
  const { songs, tones, ports } = indexShow(show);
  const title = writtenName(show.songs, (s) => s.title);
  const soundName = writtenName(show.audio, (a) => a.name);
  const sounds = new Map(show.audio.map((a) => [a.id, a]));
  const portName = writtenName(show.ports, (p) => p.name);
  const toneName = writtenName(show.tones, (t) => t.name);
  const rows = setOf(show).entries.map((e): string[] => {
    if (e.kind === 'break') return ['break', e.title, '', '', String(e.minutes)];
    if (e.kind === 'note') return ['note', e.text];
    if (e.kind === 'sound') return ['sound', soundName(sounds.get(e.audioId)), e.begins];
    const bridge = e.bridgeToneId === null ? '' : toneName(tones.get(e.bridgeToneId));
    const { launch } = e;
    const start = launch ? [spaced(launch.bytes), portName(ports.get(launch.portId)), launch.does] : [];
    return ['song', title(songs.get(e.songId)), e.follow, String(e.pause), '', bridge, ...start];
  });
  return writeTable(
    COLUMNS,
    rows.map((row) => [...row, ...COLUMNS.slice(row.length).map(() => '')]),
  );
}

/** The show with its running order as a table has it. A song that stood in it keeps what starts it where the table has no column for that; one that is not named stays in the show. */
export function readSetTable(show: Show, text: string, newId: () => string, made: MadeNames = 'ask'): Read<Show> {
  return readTable(text, COLUMNS, ['Title'], made, (rows, say, has) => {
    const tooMany = rows[LIMITS.songs];
    if (tooMany) say(tooMany, null, 'csv.too-long', { limit: LIMITS.songs });
    const left = [...setOf(show).entries];
    const entries = rows.slice(0, LIMITS.songs).flatMap((row) => entryOf(show, left, row, newId, say, has) ?? []);
    return { ...show, sets: show.sets.map((s) => (s.id === show.setId ? { ...s, entries } : s)) };
  });
}

function entryOf(
  show: Show,
  left: SetEntry[],
  row: TableRow,
  newId: () => string,
  say: SayOf,
  has: (column: string) => boolean,
): SetEntry | undefined {
  const kind = wordIn(row, 'Kind', ['song', 'break', 'note', 'sound'], say);
  const title = row.cells['Title']!;
  if (kind === 'sound') return soundOf(show, left, row, newId, say);
  if (kind !== 'song') {
    if (title === '' || title.length > LIMITS.title) {
      say(row, 'Title', 'csv.value', { found: title, expected: [`1 to ${LIMITS.title} letters`] });
      return undefined;
    }
    const minutes = figureOf(row, 'Minutes', 15, RANGES.breakMinutes, say);
    // What stood there is what it was: a table that nobody changed changes nothing.
    const at = left.findIndex(
      (e) => (e.kind === 'note' ? e.text : e.kind === 'break' && e.title) === title && e.kind === kind,
    );
    const id = at < 0 ? newId() : left.splice(at, 1)[0]!.id;
    return kind === 'note' ? { kind, id, text: title } : { kind, id, title, minutes };
  }
  const song = theOne(show.songs, (s) => s.title, 'song', 'Title', row, say);
  const bridged = row.cells['Bridge'] !== '';
  const bridge = bridged ? theOne(show.tones, (t) => t.name, 'tone', 'Bridge', row, say) : undefined;
  const follow = wordIn(row, 'Follows', ['wait', 'on'], say);
  const pause = figureOf(row, 'Pause (s)', 0, RANGES.pauseSeconds, say);
  if (!song) return undefined;
  const at = left.findIndex((e) => e.kind === 'song' && e.songId === song.id);
  const was = at < 0 ? undefined : left.splice(at, 1)[0];
  const base = was?.kind === 'song' ? was : songEntry(newId(), song.id);
  const launch = has('Started by') ? launchOf(show, row, say) : base.launch;
  return { ...base, follow, pause, bridgeToneId: bridge?.id ?? null, launch };
}

/** What starts a song, from its bytes and the name of its port; null where the cell is empty. */
function launchOf(show: Show, row: TableRow, say: SayOf): SongEntry['launch'] {
  const text = row.cells['Started by']!;
  if (text === '') return null;
  const bytes = fromHex(text);
  // A note tells itself apart by its number, however hard it is struck.
  const own = bytes && launchBytes(bytes.length === 2 && (bytes[0]! & 0xf0) === 0x90 ? [...bytes, 127] : bytes);
  if (!own) say(row, 'Started by', 'csv.value', { found: text, expected: LAUNCHES });
  const port = theOne(show.ports, (p) => p.name, 'port', 'Port', row, say);
  const does = wordIn(row, 'Does', ['start', 'queue'], say);
  return own && port ? { portId: port.id, bytes: own, does } : null;
}

/** A sound between songs, by its name: one that stood in the set keeps how it is played. */
function soundOf(show: Show, left: SetEntry[], row: TableRow, newId: () => string, say: SayOf): SetEntry | undefined {
  const audio = theOne(show.audio, (a) => a.name, 'sound', 'Title', row, say);
  const begins = wordIn(row, 'Follows', ['after', 'press'], say);
  if (!audio) return undefined;
  const at = left.findIndex((e) => e.kind === 'sound' && e.audioId === audio.id);
  const was = at < 0 ? undefined : left.splice(at, 1)[0];
  return was?.kind === 'sound' ? { ...was, begins } : { ...newInterlude(newId(), audio.id), begins };
}
