import { codeMicros, readCode, type CodeRate } from '../clock';
import { indexShow, songEntries, songTime, microsAt, type Show } from '../show';
import type { Micros } from '../time';

/** Where a song of the set is in a time code: from its start to its end, as time from midnight. */
export interface CodeRange {
  readonly entryId: string;
  readonly songId: string;
  readonly from: Micros;
  readonly to: Micros;
}

const known = new WeakMap<Show, Map<CodeRate, readonly CodeRange[]>>();

/** The songs of the set that time code leads, at a rate, in the order of the code. A song whose place there is not at that rate is in none. */
export function codeRanges(show: Show, rate: CodeRate): readonly CodeRange[] {
  const of = known.get(show) ?? new Map<CodeRate, readonly CodeRange[]>();
  known.set(show, of);
  // Whoever follows the code asks a hundred times a second.
  const ranges = of.get(rate) ?? rangesOf(show, rate);
  of.set(rate, ranges);
  return ranges;
}

function rangesOf(show: Show, rate: CodeRate): readonly CodeRange[] {
  const { songs } = indexShow(show);
  return songEntries(show)
    .flatMap((entry): CodeRange[] => {
      const song = songs.get(entry.songId);
      const label = song && song.code !== null && !song.stepped ? readCode(song.code, rate) : null;
      if (!song || !label) return [];
      const from = codeMicros(label, rate);
      const time = songTime(song);
      return [{ entryId: entry.id, songId: song.id, from, to: from + microsAt(time, time.end) }];
    })
    .toSorted((a, b) => a.from - b.from);
}
