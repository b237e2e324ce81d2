import { memo } from 'react';
import { microsAt, type SongTime, type Track } from '../../core/show';
import { PEAKS_PER_SECOND } from '../../core/sound';
import { secondsToTicks } from '../../core/time';
import { desk } from '../theme/tokens';
import { tickAtX, xOf, type ChartLine } from './layout';

interface Props {
  readonly time: SongTime;
  readonly track: Track;
  readonly peaks: Uint8Array;
  readonly line: ChartLine;
  readonly top: number;
  readonly height: number;
}

/** Pixels from one peak drawn to the next. */
const STEP = 3;

/** The part of a recording's picture that lies on one line of the chart; a guide is drawn in outline. */
export const Wave = memo(function Wave({ time, track, peaks, line, top, height }: Props) {
  const begins = microsAt(time, track.at) / 1e6 + track.offset / 1000;
  const from = begins >= 0 ? xOf(line, secondsToTicks(time.tempo, begins)) : 0;
  const ends = begins + peaks.length / PEAKS_PER_SECOND;
  const to = xOf(line, secondsToTicks(time.tempo, Math.max(0, ends)));
  if (to <= from) return null;
  const middle = top + height / 2;
  const upper: string[] = [];
  const lower: string[] = [];
  const secondsAt = (x: number): number => microsAt(time, tickAtX(line, x)) / 1e6 - begins;
  for (let x = from; x < to; x += STEP) {
    const first = Math.max(0, Math.floor(secondsAt(x) * PEAKS_PER_SECOND));
    const last = Math.max(first + 1, Math.floor(secondsAt(Math.min(to, x + STEP)) * PEAKS_PER_SECOND));
    let high = 0;
    for (let i = first; i < last && i < peaks.length; i++) high = Math.max(high, peaks[i]!);
    const half = Math.max(0.6, (high / 255) * (height / 2));
    upper.push(`${x.toFixed(1)} ${(middle - half).toFixed(1)}`);
    lower.unshift(`${x.toFixed(1)} ${(middle + half).toFixed(1)}`);
  }
  const outline = `M${[...upper, ...lower].join('L')}Z`;
  return track.role === 'guide' ? (
    <path d={outline} fill="none" stroke={desk.lineStrong} strokeWidth={0.8} opacity={track.muted ? 0.4 : 0.9} />
  ) : (
    <path d={outline} fill={desk.line} opacity={track.muted ? 0.4 : 0.9} />
  );
});
