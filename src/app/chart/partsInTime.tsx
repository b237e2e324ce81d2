import type { ReactNode } from 'react';
import type { Song, SongTime, Track } from '../../core/show';
import type { Ticks } from '../../core/time';
import type { Counting } from '../state/store';
import type { Density } from './density';
import type { Lane } from './lanes';
import { CueFlag, OpeningFlag } from './CueFlag';
import { xOf, type ChartLine } from './layout';
import { headRoom, roomOf, tempoWords, type Flag, type PlacedRemark } from './lineParts';
import { RemarkText, SectionName, SweepHandle } from './linePaper';
import type { LineShape } from './lineShape';

export interface ChartLineProps {
  readonly songId: string;
  readonly time: SongTime;
  readonly line: ChartLine;
  readonly lineIndex: number;
  readonly lanes: readonly Lane[];
  readonly flags: readonly Flag[];
  /** The tone that the song opens with, on its first line. */
  readonly opening: string | null;
  readonly tempos: Song['tempo'];
  readonly tracks: readonly Track[];
  /** Pictures of recordings, by the id of their sound. */
  readonly peaks: Readonly<Record<string, Uint8Array>>;
  readonly counting: Counting;
  readonly density: Density;
  /** Pixels that a line may take. */
  readonly paper: number;
  readonly selected: ReadonlySet<string>;
  /** Tick of the caret where it stands in this line. */
  readonly caret: Ticks | null;
  readonly remarks: readonly PlacedRemark[];
  readonly onPlace: (tick: Ticks, again: boolean) => void;
  readonly onSelect: (cueId: string, add: boolean) => void;
  /** A sweep's curve was pressed. */
  readonly onSweep: (sweepId: string) => void;
  /** A remark was pressed. */
  readonly onRemark: (at: Ticks) => void;
  /** A section's name, a tempo or a metre was pressed. */
  readonly onFrame: () => void;
  readonly onDrop: (cueId: string, x: number, y: number) => void;
  readonly onNudge: (cueId: string, steps: number) => void;
  readonly onRemove: (cueId: string) => void;
  readonly onType: (cueId: string, text: string) => void;
  readonly onStep: (cueId: string, steps: number) => void;
}

interface Timed {
  readonly at: Ticks;
  readonly shown: ReactNode;
}

/**
 * What can be pressed in a line of the chart, as it is played: what begins first is read and stepped through
 * first; on one tick the frame comes before the cues.
 */
export function partsInTime(props: ChartLineProps, shape: LineShape): readonly ReactNode[] {
  const { line, flags, songId, density, opening } = props;
  const { head, lanesTop } = shape;
  const { text } = density;
  const heads = line.bars.flatMap((bar): Timed[] => {
    const tempo = props.tempos.find((t) => t.at >= bar.tick && t.at < bar.tick + bar.length);
    if (!bar.section && !tempo) return [];
    const shown = (
      <SectionName
        key={bar.tick}
        $size={text.name}
        style={{ left: bar.x, maxWidth: headRoom(line, props.tempos, bar) }}
      >
        <button type="button" title="To the song structure" onClick={props.onFrame}>
          {bar.section?.name}
          {tempo && <small>{tempoWords(tempo)}</small>}
        </button>
      </SectionName>
    );
    return [{ at: bar.tick, shown }];
  });
  const openings: Timed[] =
    opening === null
      ? []
      : [
          {
            at: line.tick,
            shown: (
              <OpeningFlag
                key="opening"
                songId={songId}
                name={opening}
                top={head + 1}
                height={density.flag - 3}
                size={text.flag}
                room={line.width}
                onSelect={() => props.onPlace(0, false)}
              />
            ),
          },
        ];
  const cues = flags.map(({ cue, name, at, row }, i): Timed => {
    const shown = (
      <CueFlag
        key={cue.id}
        songId={songId}
        cue={cue}
        name={name}
        at={at}
        x={xOf(line, cue.at)}
        top={head + 1 + density.flag * row}
        height={density.flag - 3}
        size={text.flag}
        room={roomOf(line, flags, i)}
        selected={props.selected.has(cue.id)}
        onSelect={props.onSelect}
        onDrop={props.onDrop}
        onNudge={props.onNudge}
        onRemove={props.onRemove}
        onType={props.onType}
        onStep={props.onStep}
      />
    );
    return { at: cue.at, shown };
  });
  const sweeps = shape.active.flatMap((lane, k) =>
    lane.sweeps
      .filter(({ sweep: s }) => s.from >= line.tick && s.from < line.end)
      .map(({ sweep: s, label }): Timed => {
        const shown = (
          <SweepHandle
            key={s.id}
            type="button"
            aria-label={label}
            style={{
              left: xOf(line, s.from),
              top: lanesTop + k * density.lane + 1,
              width: Math.max(14, xOf(line, Math.min(s.to, line.end)) - xOf(line, s.from)),
              height: density.lane - 2,
            }}
            onClick={() => props.onSweep(s.id)}
          />
        );
        return { at: s.from, shown };
      }),
  );
  const remarks = props.remarks.map(({ remark, at }, i): Timed => {
    const x = xOf(line, remark.at);
    const next = props.remarks[i + 1];
    const shown = (
      <RemarkText
        key={remark.id}
        type="button"
        $size={text.thin}
        title={remark.text}
        aria-label={`${at} remark: ${remark.text}`}
        style={{ left: x, top: shape.remarksTop, maxWidth: (next ? xOf(line, next.remark.at) : line.width) - x }}
        onClick={() => props.onRemark(remark.at)}
      >
        {remark.text}
      </RemarkText>
    );
    return { at: remark.at, shown };
  });
  return [...heads, ...openings, ...cues, ...sweeps, ...remarks].toSorted((a, b) => a.at - b.at).map((p) => p.shown);
}
