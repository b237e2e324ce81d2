import { useMemo } from 'react';
import { stateLine } from '../../../core/compile';
import { moments, type Cue, type Show, type Song } from '../../../core/show';
import { cueWords } from '../../../wording';
import { byLine, flagRows, layoutChart, xOf, type ChartLine } from '../../chart/layout';
import type { Lane } from '../../chart/ChartLineView';

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
      const opening = i === 0 && song.openingToneId !== null ? names.get(song.openingToneId) : undefined;
      return opening === undefined ? flagRows(flags) : flagRows([{ x: 0, name: opening }, ...flags]).slice(1);
    });
  }, [show, lines, cues, tones, song.openingToneId]);
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
  const lanes = useMemo(() => {
    const result: Lane[][] = lines.map(() => []);
    for (const [index, unit] of units.entries()) {
      const changes = states.get(unit.id) ?? [];
      if (!laned.has(unit.id)) continue;
      const spread = byLine(lines, changes);
      const messages = byLine(
        lines,
        ticked.filter((m) => m.action.kind !== 'tone' && m.action.unitId === unit.id),
      );
      let before: Lane['before'];
      for (const [i, own] of spread.entries()) {
        result[i]!.push({ unit, index, before, changes: own, messages: messages[i]!.map((c) => c.at) });
        before = own.at(-1) ?? before;
      }
    }
    return result;
  }, [lines, states, units, laned, ticked]);
  return { lines, cues, lanes, rows, laneCount: laned.size };
}
