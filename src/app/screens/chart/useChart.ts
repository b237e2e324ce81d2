import { useMemo } from 'react';
import { stateLine } from '../../../core/compile';
import { moments } from '../../../core/meaning';
import { type Cue, openingOf, type Show, type Song } from '../../../core/show';
import { cueWords } from '../../../wording';
import { byLine, flagRows, layoutChart, xOf, type ChartLine } from '../../chart/layout';
import type { Lane } from '../../chart/ChartLineView';
import { NOBODY, hushed, useLanes } from '../../state/lanes';

export interface ChartModel {
  readonly lines: readonly ChartLine[];
  /** Cues of each line that have a flag; raw messages are drawn in the lanes. */
  readonly cues: readonly (readonly Cue[])[];
  readonly lanes: readonly (readonly Lane[])[];
  /** Row of each cue's flag on its line. */
  readonly rows: readonly (readonly number[])[];
  readonly laneCount: number;
}

/** A song laid out, with what stands on each line. */
export function useChart(show: Show, song: Song, width: number, scale: number): ChartModel {
  const { units, tones } = show;
  const lanesSeen = useLanes();
  const { folded } = lanesSeen;
  const quiet = useMemo(() => new Set(hushed(show, lanesSeen)), [show, lanesSeen]);
  const lines = useMemo(() => layoutChart(song, width, scale), [song, width, scale]);
  const states = useMemo(
    () => stateLine(show, song),
    // The rest of the show has no part in it.
    // oxlint-disable-next-line react-hooks/exhaustive-deps
    [units, tones, song],
  );
  const cues = useMemo(
    () =>
      byLine(
        lines,
        song.cues.filter((c) => c.action.kind !== 'message'),
      ).map((l) => l.sort((a, b) => a.at - b.at)),
    [lines, song.cues],
  );
  const rows = useMemo(() => {
    const names = new Map(tones.map((t) => [t.id, t.name]));
    return lines.map((line, i) => {
      const flags = cues[i]!.map((c) => ({
        x: xOf(line, c.at),
        name: cueWords(show, c.action),
      }));
      const opening = i === 0 ? names.get(openingOf(show, song) ?? '') : undefined;
      return opening === undefined ? flagRows(flags) : flagRows([{ x: 0, name: opening }, ...flags]).slice(1);
    });
  }, [show, lines, cues, tones, song]);
  // What only sends has no state to draw; it gets a lane when the song sends to it.
  const laned = useMemo(() => {
    const told = new Set(song.cues.flatMap((c) => (c.action.kind === 'message' ? [c.action.unitId] : [])));
    const kept = units.filter(
      (u) => u.profile.senders.length === 0 || told.has(u.id) || (states.get(u.id)?.length ?? 0) > 0,
    );
    return new Set(kept.map((u) => u.id));
  }, [units, states, song.cues]);
  /** Raw messages and taps: small marks in their unit's lane. */
  const ticked = useMemo(() => {
    const raw = new Set(song.cues.filter((c) => c.action.kind === 'message').map((c) => c.id));
    return moments(show, song).filter((m) => m.source === 'taps' || raw.has(m.id));
  }, [show, song]);
  const groups = useMemo(() => {
    const known = new Set(show.players.map((p) => p.id));
    return [...show.players, { id: NOBODY, name: 'Nobody' }].flatMap(({ id, name }) => {
      const own = units.filter(
        (u) => laned.has(u.id) && (u.playerId !== null && known.has(u.playerId) ? u.playerId : NOBODY) === id,
      );
      return own.length === 0 ? [] : [{ id, name, units: own }];
    });
  }, [show.players, units, laned]);
  const lanes = useMemo(() => {
    const result: Lane[][] = lines.map(() => []);
    const indexOf = new Map(units.map((u, i) => [u.id, i]));
    for (const group of groups) {
      const together = folded.has(group.id);
      const shown = together ? [null] : group.units;
      for (const [k, unit] of shown.entries()) {
        const own = unit ? [unit.id] : group.units.map((u) => u.id);
        const changes = own.flatMap((id) => states.get(id) ?? []);
        const marks = ticked.filter((m) => m.action.kind !== 'tone' && own.includes(m.action.unitId));
        const spread = byLine(lines, unit ? changes : []);
        const messages = byLine(lines, unit ? marks : [...changes, ...marks]);
        let before: Lane['before'];
        for (const [i, inLine] of spread.entries()) {
          result[i]!.push({
            id: unit?.id ?? group.id,
            unit,
            name: group.name,
            index: indexOf.get(own[0]!)!,
            hushed: own.every((id) => quiet.has(id)),
            first: k === 0,
            last: k === shown.length - 1,
            before,
            changes: inLine,
            messages: messages[i]!.map((c) => c.at),
          });
          before = inLine.at(-1) ?? before;
        }
      }
    }
    return result;
  }, [lines, states, units, groups, folded, quiet, ticked]);
  return { lines, cues, lanes, rows, laneCount: lanes[0]?.length ?? 0 };
}
