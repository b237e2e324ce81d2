import { songTime } from '../../core/show';
import { microsToSeconds, secondsToTicks } from '../../core/time';
import { useNews } from '../state/news';
import { useShow } from '../state/store';
import { desk } from '../theme/tokens';
import { xOf, type ChartLine } from './layout';

interface Props {
  readonly songId: string;
  readonly line: ChartLine;
  readonly top: number;
  readonly height: number;
}

/** Where playing is, on the line that it is on. */
export function Playhead({ songId, line, top, height }: Props) {
  const show = useShow();
  const x = useNews(({ news }) => {
    if (!news.playing || news.songId !== songId) return null;
    const song = show.songs.find((s) => s.id === songId);
    if (!song) return null;
    const tick = secondsToTicks(songTime(song).tempo, microsToSeconds(Math.max(0, news.place)));
    // Whole pixels: a line is drawn again only when its playhead moves.
    return tick >= line.tick && tick < line.end ? Math.round(xOf(line, tick)) : null;
  });
  if (x === null) return null;
  return (
    <div
      aria-hidden
      style={{
        position: 'absolute',
        left: x - 2,
        top,
        width: 4,
        height,
        background: desk.lamp,
        border: `1px solid ${desk.ink}`,
        borderRadius: 2,
        pointerEvents: 'none',
      }}
    />
  );
}
