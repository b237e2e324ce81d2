import { madeOf, type MadeNames } from '../../cells';
import { addTo } from '../../groups';
import type { Read } from '../../problems';
import { RANGES, cuesInOrder, indexShow, songTime, type Cue, type Show, type Song } from '../../show';
import { formatPosition, parsePosition, type Ticks } from '../../time';
import {
  asMeant,
  figureOf,
  readTable,
  theOne,
  wordIn,
  writeTable,
  writtenName,
  type SayOf,
  type TableRow,
} from './table';
import { optionNames, spaced, valueCell, valueOfCell } from './values';

const COLUMNS = ['Place', 'Kind', 'Name', 'Unit', 'Value', 'Lands', 'Shift (ms)', 'Muted', 'Loads again'] as const;

/**
 * The cues of a song as a table: place as in the score (bar|beat), tone, move, control or bytes as they stand. Sweeps, taps
 * and the opening are not in it.
 */
export function writeCueTable(show: Show, song: Song): string {
  const { units, tones } = indexShow(show);
  const moves = new Map(show.moves.map((m) => [m.id, m]));
  const toneName = writtenName(show.tones, (t) => t.name);
  const moveName = writtenName(show.moves, (m) => m.name);
  const unitName = writtenName(show.units, (u) => u.name);
  const { bars } = songTime(song);
  const rows = cuesInOrder(song).map(({ at, landing, shift, muted, action }) => {
    const unit = 'unitId' in action ? units.get(action.unitId) : undefined;
    const control =
      action.kind === 'control' ? unit?.profile.controls.find((c) => c.id === action.controlId) : undefined;
    const name =
      action.kind === 'tone'
        ? toneName(tones.get(action.toneId))
        : action.kind === 'move'
          ? moveName(moves.get(action.moveId))
          : writtenName(unit?.profile.controls ?? [], (c) => c.name)(control);
    const value =
      action.kind === 'message'
        ? spaced(action.bytes)
        : action.kind === 'control'
          ? valueCell(control!, action.value)
          : '';
    return [
      formatPosition(bars, at, song.bars),
      action.kind === 'message' ? 'bytes' : action.kind,
      name,
      unitName(unit),
      value,
      landing,
      shift === 0 ? '' : String(shift),
      muted ? 'yes' : '',
      action.kind === 'tone' && action.reload ? 'yes' : '',
    ];
  });
  return writeTable(COLUMNS, rows);
}

/** The show with the cues of a song as a table has them: what stood there is replaced. One error refuses the whole table. */
export function readCueTable(
  show: Show,
  songId: string,
  text: string,
  newId: () => string,
  made: MadeNames = 'ask',
): Read<Show> {
  const song = indexShow(show).songs.get(songId)!;
  return readTable(text, COLUMNS, ['Place', 'Name'], made, (rows, say) => {
    const cues = rows.flatMap((row) => cueOf(show, song, row, newId, say) ?? []);
    const ordered = withOldIds(song.cues, cues).toSorted((a, b) => a.at - b.at);
    return { ...show, songs: show.songs.map((s) => (s.id === songId ? { ...s, cues: ordered } : s)) };
  });
}

/** A cue that is as it was keeps its id, and with it its proof; then one that stands where one stood. */
function withOldIds(before: readonly Cue[], now: readonly Cue[]): readonly Cue[] {
  const left = new Map<string, Cue[]>();
  // A place is written to a thousandth of a tick.
  const place = ({ at }: Cue): number => Math.round(at * 1000);
  const content = (c: Cue): string =>
    JSON.stringify([
      place(c),
      c.shift,
      c.landing,
      c.muted,
      Object.entries(c.action).toSorted(([a], [b]) => (a < b ? -1 : 1)),
    ]);
  const keys = [content, (c: Cue) => `${place(c)} ${c.action.kind}`];
  const named = new Map<Cue, string>();
  const taken = new Set<string>();
  for (const key of keys) {
    left.clear();
    for (const cue of before) if (!taken.has(cue.id)) addTo(left, key(cue), cue);
    for (const cue of now) {
      const old = named.has(cue) ? undefined : left.get(key(cue))?.shift();
      if (!old) continue;
      named.set(cue, old.id);
      taken.add(old.id);
    }
  }
  return now.map((cue) => ({ ...cue, id: named.get(cue) ?? cue.id }));
}

/** A place in the song; or outside of it, where a cue that stands there is written so: what was exported comes back. */
function placeOf(song: Song, text: string): Ticks | undefined {
  const { bars } = songTime(song);
  const place = parsePosition(bars, text, song.bars);
  if (place.ok) return place.ticks;
  return song.cues.find((c) => formatPosition(bars, c.at, song.bars) === text)?.at;
}

function cueOf(show: Show, song: Song, row: TableRow, newId: () => string, say: SayOf): Cue | undefined {
  const at = placeOf(song, row.cells['Place']!);
  if (at === undefined) say(row, 'Place', 'csv.place', { found: row.cells['Place']!, song: song.title });
  const action = actionOf(show, row, say);
  const shift = figureOf(row, 'Shift (ms)', 0, RANGES.shiftMillis, say);
  const landing = wordIn(row, 'Lands', ['complete', 'sent'], say);
  const muted = wordIn(row, 'Muted', ['no', 'yes'], say) === 'yes';
  return at !== undefined && action ? { id: newId(), at, shift, landing, muted, action } : undefined;
}

function actionOf(show: Show, row: TableRow, say: SayOf): Cue['action'] | undefined {
  const { cells } = row;
  const kind = wordIn(row, 'Kind', ['tone', 'move', 'control', 'bytes'], say);
  const reload = wordIn(row, 'Loads again', ['no', 'yes'], say) === 'yes';
  if (kind === 'tone') {
    const tone = theOne(show.tones, (t) => t.name, 'tone', 'Name', row, say);
    return tone && { kind: 'tone', toneId: tone.id, reload };
  }
  if (kind === 'move') {
    const move = theOne(show.moves, (m) => m.name, 'move', 'Name', row, say);
    return move && { kind: 'move', moveId: move.id };
  }
  const unit = theOne(show.units, (u) => u.name, 'unit', 'Unit', row, say);
  if (!unit) return undefined;
  if (kind === 'bytes') {
    const bytes = cells['Value']!.replaceAll(/\s/g, '').toLowerCase();
    const sound = /^([0-9a-f]{2})+$/.test(bytes);
    if (!sound) say(row, 'Value', 'csv.value', { found: cells['Value']!, expected: ['bytes of two digits each'] });
    return sound ? { kind: 'message', unitId: unit.id, bytes } : undefined;
  }
  const control = theOne(unit.profile.controls, (c) => c.name, 'control', 'Name', row, say, unit.name);
  if (!control) return undefined;
  const said = cells['Value']!;
  const text = asMeant(said, madeOf(optionNames(control))(said), 'Value', row, say);
  if (text === undefined) return undefined;
  const value = valueOfCell(control, text);
  if (value === undefined) say(row, 'Value', 'csv.no-value', { control: control.name, found: said });
  return value === undefined ? undefined : { kind: 'control', unitId: unit.id, controlId: control.id, value };
}
