import type { Cue, Remark, Song } from '../../core/show';
import { xOf, type ChartLine } from './layout';

/** A cue that has a flag on its line. */
export interface Flag {
  readonly id: string;
  readonly cue: Cue;
  /** What it places, and where it stands, in words. */
  readonly name: string;
  readonly at: string;
  readonly row: number;
}

/** A remark that stands on its line, and its place in words. */
export interface PlacedRemark {
  readonly remark: Remark;
  readonly at: string;
}

/** Pixels until the next name or tempo over the line. */
export function headRoom(line: ChartLine, tempos: Song['tempo'], bar: ChartLine['bars'][number]): number | undefined {
  const next = line.bars.find(
    (b) => b.tick > bar.tick && (b.section || tempos.some((t) => t.at >= b.tick && t.at < b.tick + b.length)),
  );
  return next && next.x - bar.x - 6;
}

/** Lines within a bar: its beats, and parts of them where there is room. */
export function gridOf(bar: ChartLine['bars'][number]): { readonly x: number; readonly beat: boolean }[] {
  const perTick = bar.width / bar.length;
  const room = perTick * bar.beatTicks;
  const parts = room > 1200 ? 24 : room > 160 ? 4 : room > 9 ? 1 : 0;
  if (parts === 0) return [];
  const step = bar.beatTicks / parts;
  const count = Math.ceil(bar.length / step - 1e-9) - 1;
  return Array.from({ length: count }, (_, i) => ({
    x: bar.x + (i + 1) * step * perTick,
    beat: (i + 1) % parts === 0,
  }));
}

/** Pixels until the next flag in the same row. */
export function roomOf(line: ChartLine, flags: readonly Flag[], i: number): number {
  const next = flags.find((f, k) => k > i && f.row === flags[i]!.row);
  return (next ? xOf(line, next.cue.at) : line.width + 40) - xOf(line, flags[i]!.cue.at) - 3;
}

export function tempoWords({ bpm, beat, rampTo }: Song['tempo'][number]): string {
  const sign = beat === 1.5 ? '♩.' : beat === 0.5 ? '♪' : beat === 2 ? '𝅗𝅥' : '♩';
  const round = (x: number): number => Math.round(x * 10) / 10;
  return rampTo === null ? `${sign} = ${round(bpm)}` : `${sign} = ${round(bpm)} → ${round(rampTo)}`;
}
