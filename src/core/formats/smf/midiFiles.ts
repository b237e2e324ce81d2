import type { Problem } from '../../problems';
import type { Show, Song } from '../../show';
import type { ShowTonight } from '../../tonight';
import { songsToSmf, type SmfMode } from './songToSmf';
import { writeSmf } from './write';

export interface MidiWish {
  readonly mode: SmfMode;
  readonly format: 0 | 1;
  /** A file for all units, for each player's, or for each unit. */
  readonly per: 'all' | 'player' | 'unit';
}

export interface MidiFiles {
  /** `part`: whose file it is; empty where it is for all. */
  readonly files: readonly { readonly part: string; readonly bytes: Uint8Array<ArrayBuffer> }[];
  /** What the files could not carry. */
  readonly problems: readonly Problem[];
}

/** Nobody's units are together in one file, too. */
const NOBODY = 'Without player';

/**
 * Songs, one behind the other, as Standard MIDI Files. All files of one wish have the same tempo, metre and length, so
 * that they lie beside each other; a unit or player that nothing is sent to has none. Throws where a song is too long for a file.
 */
export function midiFiles(show: ShowTonight, songs: readonly Song[], title: string, wish: MidiWish): MidiFiles {
  const problems = new Map<string, Problem>();
  const files: { part: string; bytes: Uint8Array<ArrayBuffer> }[] = [];
  for (const { part, unitIds } of partsOf(show, wish.per)) {
    const { mode, format } = wish;
    const { file, problems: said } = songsToSmf(show, songs, { mode, format, unitIds }, title);
    for (const p of said) problems.set(JSON.stringify(p), p);
    const empty = !file.tracks.some((t) => t.events.some((e) => e.kind === 'message' || e.kind === 'packet'));
    if (empty && unitIds !== null) continue;
    files.push({ part, bytes: new Uint8Array(writeSmf(file)) });
  }
  return { files, problems: [...problems.values()] };
}

function partsOf(show: Show, per: MidiWish['per']): { part: string; unitIds: ReadonlySet<string> | null }[] {
  if (per === 'all') return [{ part: '', unitIds: null }];
  if (per === 'unit') return show.units.map((u) => ({ part: u.name, unitIds: new Set([u.id]) }));
  const owners = [...show.players.map((p) => ({ id: p.id, part: p.name })), { id: null, part: NOBODY }];
  return owners.map(({ id, part }) => ({
    part,
    unitIds: new Set(show.units.filter((u) => u.playerId === id).map((u) => u.id)),
  }));
}
