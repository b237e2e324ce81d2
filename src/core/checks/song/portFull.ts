import { CableLoad } from '../../compile';
import { indexShow } from '../../show';
import { formatPosition, microsToSeconds, secondsToTicks } from '../../time';
import { finding, type Finding } from '../finding';
import { inSong, type SongCheck } from './songCheck';

/** A cable that is busy for more of a second than this has no room left for what comes by surprise. */
const HALF = 0.5;

/** A 5-pin port that is over half full for a second; the fullest second of each. */
export const portFull: SongCheck = (facts) => {
  const { show, song, time, run } = facts;
  if (!run) return [];
  const found: Finding[] = [];
  for (const port of indexShow(show).ports.values()) {
    if (port.cable !== 'din') continue;
    const worst = new CableLoad(run.compiled.events.filter((e) => e.portId === port.id)).fullest();
    if (worst.share <= HALF) continue;
    const tick = Math.floor(secondsToTicks(time.tempo, microsToSeconds(Math.max(0, worst.from))));
    const data = {
      song: song.title,
      port: port.name,
      at: formatPosition(time.bars, Math.min(tick, time.end - 1), song.bars),
      percent: Math.round(worst.share * 100),
    };
    found.push(finding('song.port-full', 'warning', inSong(facts, tick), data));
  }
  return found;
};
