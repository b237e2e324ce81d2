import { useWay } from '../state/rehearsal';
import { desk } from '../theme/tokens';
import { xOf, type ChartLine } from './layout';

interface Props {
  readonly songId: string;
  readonly line: ChartLine;
  readonly top: number;
}

/** The stretch that is played again and again, as far as it lies on a line: a band under the bar numbers, hooked at its ends. */
export function LoopMark({ songId, line, top }: Props) {
  const { loop } = useWay(songId);
  if (loop === null || loop.to <= line.tick || loop.from >= line.end) return null;
  const [begins, ends] = [loop.from >= line.tick, loop.to <= line.end];
  const left = begins ? xOf(line, loop.from) : 0;
  const right = ends && loop.to < line.end ? xOf(line, loop.to) : line.width;
  const hook = `3px solid ${desk.lampDeep}`;
  return (
    <div
      role="img"
      aria-label="Loop"
      style={{
        position: 'absolute',
        left,
        top,
        width: right - left,
        height: 8,
        borderTop: hook,
        borderLeft: begins ? hook : 'none',
        borderRight: ends ? hook : 'none',
        pointerEvents: 'none',
      }}
    />
  );
}
