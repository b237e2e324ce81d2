import { useMemo, useState } from 'react';
import { stateLine, type StateChange } from '../../../core/compile';
import { moments } from '../../../core/meaning';
import {
  indexShow,
  openingOf,
  sharing,
  songTime,
  unitsInSong,
  type Remark,
  type Show,
  type Song,
  type SongTime,
  type Unit,
} from '../../../core/show';
import { formatPosition, type Ticks } from '../../../core/time';
import { cueWords, sweepWords } from '../../../wording';
import type { Flag, PlacedRemark } from '../../chart/lineParts';
import { ROOMY, type Density } from '../../chart/density';
import { fitWhole } from '../../chart/fitWhole';
import { inkOf } from '../../features/ColourPick';
import type { Lane } from '../../chart/lanes';
import { byLine, flagRows, layoutChart, xOf, type ChartLine } from '../../chart/layout';
import { lineShape } from '../../chart/lineShape';
import { NOBODY, hushed, useLanes } from '../../state/lanes';

export interface ChartModel {
  readonly lines: readonly ChartLine[];
  /** Cues of each line that have a flag; raw messages are drawn in the lanes. */
  readonly flags: readonly (readonly Flag[])[];
  readonly lanes: readonly (readonly Lane[])[];
  readonly remarks: readonly (readonly PlacedRemark[])[];
  /** The tone that the song opens with; null where it opens with none. */
  readonly opening: string | null;
  readonly time: SongTime;
  readonly density: Density;
  readonly heights: readonly number[];
}

/** What one looks at: so many pixels a quarter, or the whole song in the room there is. */
export type Zoom =
  { readonly kind: 'scale'; readonly scale: number } | { readonly kind: 'whole'; readonly height: number };

/** A song laid out, with what stands on each line. */
export function useChart(show: Show, song: Song, width: number, zoom: Zoom): ChartModel {
  const lanesSeen = useLanes();
  const quiet = useMemo(() => new Set(hushed(show, lanesSeen)), [show, lanesSeen]);
  const { folded } = lanesSeen;
  const content = useContent(show, song, folded);
  const time = useShared(songTime(song));
  const words = useMemo(() => wordsOf(show, song), [show, song]);
  const whole = zoom.kind === 'whole' ? zoom.height : null;
  const scale = zoom.kind === 'scale' ? zoom.scale : null;
  const model = useMemo(() => {
    const drawn = (s: number, density: Density): ChartModel =>
      modelOf(song, time, layoutChart(song, width, s), content, words, quiet, density);
    if (scale !== null) return drawn(scale, ROOMY);
    return fitWhole(drawn, whole!);
  }, [song, time, width, scale, whole, content, words, quiet]);
  // Lines that an edit did not touch stay the same, and are not drawn again.
  return useShared(model);
}

/** A value, with all that did not change since the last drawing being the same. */
function useShared<T>(value: T): T {
  const [share] = useState(() => sharer<T>());
  return useMemo(() => share(value), [share, value]);
}

/** Asked again for the same it gives the same: drawings that are thrown away do no harm. */
function sharer<T>(): (value: T) => T {
  let last: T | undefined;
  return (value) => (last = last === undefined ? value : sharing(last, value));
}

/** A lane of the whole song: what happens in it. */
interface LaneContent {
  readonly id: string;
  readonly unit: Unit | null;
  readonly name: string;
  readonly index: number;
  readonly units: readonly string[];
  readonly bracket: string | null;
  readonly first: boolean;
  readonly last: boolean;
  readonly changes: readonly StateChange[];
  readonly marks: readonly { readonly at: number }[];
}

function useContent(show: Show, song: Song, folded: ReadonlySet<string>): readonly LaneContent[] {
  const { units, tones, players } = show;
  const states = useMemo(
    () => stateLine(show, song),
    // The rest of the show has no part in it.
    // oxlint-disable-next-line react-hooks/exhaustive-deps
    [units, tones, song],
  );
  return useMemo(() => {
    // Raw messages and taps: small marks in their unit's lane.
    const raw = new Set(song.cues.filter((c) => c.action.kind === 'message').map((c) => c.id));
    const ticked = moments(show, song).filter((m) => m.source === 'taps' || raw.has(m.id));
    // What the song has nothing for takes no room.
    const used = unitsInSong(show, song);
    const laned = units.filter((u) => used.has(u.id));
    const known = new Set(players.map((p) => p.id));
    const playerOf = (u: Unit): string => (u.playerId !== null && known.has(u.playerId) ? u.playerId : NOBODY);
    const indexOf = new Map(units.map((u, i) => [u.id, i]));
    return [...players, { id: NOBODY, name: 'Nobody', colour: null }].flatMap(({ id, name, colour }): LaneContent[] => {
      const own = laned.filter((u) => playerOf(u) === id);
      const shown: readonly (Unit | null)[] = own.length === 0 ? [] : folded.has(id) ? [null] : own;
      return shown.map((unit, k) => {
        const ids = unit ? [unit.id] : own.map((u) => u.id);
        const changes = ids.flatMap((i) => states.get(i) ?? []);
        const marks = ticked.filter((m) => m.action.kind !== 'tone' && ids.includes(m.action.unitId));
        return {
          id: unit?.id ?? id,
          unit,
          name,
          index: indexOf.get(ids[0]!)!,
          units: ids,
          bracket: colour && inkOf(colour),
          first: k === 0,
          last: k === shown.length - 1,
          changes: unit ? changes : [],
          marks: unit ? marks : [...changes, ...marks],
        };
      });
    });
    // oxlint-disable-next-line react-hooks/exhaustive-deps
  }, [states, units, tones, players, song, folded]);
}

/** What a song's cues, opening and sweeps are called. */
interface Words {
  readonly cues: readonly Omit<Flag, 'row'>[];
  readonly opening: string | null;
  readonly sweeps: ReadonlyMap<string, string>;
  readonly remarks: readonly { readonly remark: Remark; readonly at: Ticks; readonly place: string }[];
}

function wordsOf(show: Show, song: Song): Words {
  const { bars } = songTime(song);
  const at = (tick: number): string => formatPosition(bars, tick, song.bars);
  return {
    cues: song.cues
      .filter((c) => c.action.kind !== 'message')
      .toSorted((a, b) => a.at - b.at)
      .map((cue) => ({ id: cue.id, cue, name: cueWords(show, cue.action), at: at(cue.at) })),
    opening: indexShow(show).tones.get(openingOf(show, song) ?? '')?.name ?? null,
    remarks: song.remarks.map((remark) => ({ remark, at: remark.at, place: at(remark.at) })),
    sweeps: new Map(song.sweeps.map((s) => [s.id, `${at(s.from)} ${sweepWords(show, s)}`])),
  };
}

function modelOf(
  song: Song,
  time: SongTime,
  lines: readonly ChartLine[],
  content: readonly LaneContent[],
  words: Words,
  quiet: ReadonlySet<string>,
  density: Density,
): ChartModel {
  const { opening } = words;
  const inLines = byLine(
    lines,
    words.cues.map((c) => ({ ...c, at: c.cue.at, place: c.at })),
  );
  const flags = lines.map((line, i): Flag[] => {
    const here = inLines[i]!;
    const places = here.map(({ cue, name }) => ({ x: xOf(line, cue.at), name }));
    const first = i === 0 && opening !== null ? [{ x: 0, name: opening }] : [];
    const rows = flagRows([...first, ...places], density.text.flag).slice(first.length);
    return here.map(({ id, cue, name, place }, k) => ({ id, cue, name, at: place, row: rows[k]! }));
  });
  const lanes = lanesOf(song, lines, content, quiet, words.sweeps);
  const remarks = byLine(lines, words.remarks).map((list) => list.map(({ remark, place }) => ({ remark, at: place })));
  const heights = lines.map((line, i) => {
    const rows = flags[i]!.map((f) => f.row);
    const noted = remarks[i]!.length > 0;
    return lineShape(line, lanes[i]!, rows, song.tempo, i === 0 && opening !== null, density, noted).height;
  });
  return { lines, flags, lanes, remarks, opening, time, density, heights };
}

function lanesOf(
  song: Song,
  lines: readonly ChartLine[],
  content: readonly LaneContent[],
  quiet: ReadonlySet<string>,
  labels: ReadonlyMap<string, string>,
): Lane[][] {
  const result: Lane[][] = lines.map(() => []);
  for (const { changes, marks, units, unit, ...lane } of content) {
    const spread = byLine(lines, changes);
    const messages = byLine(lines, marks);
    const own = unit ? song.sweeps.filter((s) => s.unitId === unit.id) : [];
    const sweeps = own.map((sweep) => ({ id: sweep.id, sweep, label: labels.get(sweep.id)! }));
    let before: StateChange | undefined;
    for (const [i, line] of lines.entries()) {
      const inLine = spread[i]!;
      result[i]!.push({
        ...lane,
        unit,
        hushed: units.every((id) => quiet.has(id)),
        before,
        changes: inLine,
        messages: messages[i]!.map((c) => c.at),
        sweeps: sweeps.filter(({ sweep: s }) => s.from < line.end && s.to > line.tick),
      });
      before = inLine.at(-1) ?? before;
    }
  }
  return result;
}
