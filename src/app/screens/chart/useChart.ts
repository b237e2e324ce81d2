import { useMemo } from 'react';
import { stateLine, type StateChange } from '../../../core/compile';
import { moments } from '../../../core/meaning';
import { openingOf, type Cue, type Show, type Song, type Unit } from '../../../core/show';
import { cueWords } from '../../../wording';
import { ROOMY, type Density } from '../../chart/density';
import { fitWhole } from '../../chart/fitWhole';
import type { Lane } from '../../chart/lanes';
import { byLine, flagRows, layoutChart, xOf, type ChartLine } from '../../chart/layout';
import { lineShape } from '../../chart/lineShape';
import { NOBODY, hushed, useLanes } from '../../state/lanes';

export interface ChartModel {
  readonly lines: readonly ChartLine[];
  /** Cues of each line that have a flag; raw messages are drawn in the lanes. */
  readonly cues: readonly (readonly Cue[])[];
  readonly lanes: readonly (readonly Lane[])[];
  /** Row of each cue's flag on its line. */
  readonly rows: readonly (readonly number[])[];
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
  const flags = useMemo(() => flagNames(show, song), [show, song]);
  const whole = zoom.kind === 'whole' ? zoom.height : null;
  const scale = zoom.kind === 'scale' ? zoom.scale : null;
  return useMemo(() => {
    const drawn = (s: number, density: Density): ChartModel =>
      modelOf(song, layoutChart(song, width, s), content, flags, quiet, density);
    if (scale !== null) return drawn(scale, ROOMY);
    return fitWhole(drawn, whole!);
  }, [song, width, scale, whole, content, flags, quiet]);
}

/** A lane of the whole song: what happens in it. */
interface LaneContent {
  readonly id: string;
  readonly unit: Unit | null;
  readonly name: string;
  readonly index: number;
  readonly units: readonly string[];
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
    // What only sends has no state to draw; it gets a lane when the song sends to it.
    const told = new Set(song.cues.flatMap((c) => (c.action.kind === 'message' ? [c.action.unitId] : [])));
    const laned = units.filter(
      (u) => u.profile.senders.length === 0 || told.has(u.id) || (states.get(u.id)?.length ?? 0) > 0,
    );
    const known = new Set(players.map((p) => p.id));
    const playerOf = (u: Unit): string => (u.playerId !== null && known.has(u.playerId) ? u.playerId : NOBODY);
    const indexOf = new Map(units.map((u, i) => [u.id, i]));
    return [...players, { id: NOBODY, name: 'Nobody' }].flatMap(({ id, name }): LaneContent[] => {
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

interface FlagNames {
  readonly cues: readonly Cue[];
  readonly names: ReadonlyMap<string, string>;
  readonly opening: string | undefined;
}

function flagNames(show: Show, song: Song): FlagNames {
  const cues = song.cues.filter((c) => c.action.kind !== 'message').toSorted((a, b) => a.at - b.at);
  const opening = show.tones.find((t) => t.id === openingOf(show, song))?.name;
  return { cues, names: new Map(cues.map((c) => [c.id, cueWords(show, c.action)])), opening };
}

function modelOf(
  song: Song,
  lines: readonly ChartLine[],
  content: readonly LaneContent[],
  { cues, names, opening }: FlagNames,
  quiet: ReadonlySet<string>,
  density: Density,
): ChartModel {
  const inLines = byLine(lines, cues);
  const size = density.text.flag;
  const rows = lines.map((line, i) => {
    const flags = inLines[i]!.map((c) => ({ x: xOf(line, c.at), name: names.get(c.id)! }));
    if (i > 0 || opening === undefined) return flagRows(flags, size);
    return flagRows([{ x: 0, name: opening }, ...flags], size).slice(1);
  });
  const lanes = lanesOf(song, lines, content, quiet);
  const heights = lines.map(
    (line, i) => lineShape(line, lanes[i]!, rows[i]!, song.tempo, i === 0 && opening !== undefined, density).height,
  );
  return { lines, cues: inLines, lanes, rows, density, heights };
}

function lanesOf(
  song: Song,
  lines: readonly ChartLine[],
  content: readonly LaneContent[],
  quiet: ReadonlySet<string>,
): Lane[][] {
  const result: Lane[][] = lines.map(() => []);
  for (const { changes, marks, units, unit, ...lane } of content) {
    const spread = byLine(lines, changes);
    const messages = byLine(lines, marks);
    const sweeps = unit ? song.sweeps.filter((s) => s.unitId === unit.id) : [];
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
        sweeps: sweeps.filter((s) => s.from < line.end && s.to > line.tick),
      });
      before = inLine.at(-1) ?? before;
    }
  }
  return result;
}
