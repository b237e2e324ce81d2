import { clockPulses } from '../../compile';
import { LIMITS, indexShow, setClock } from '../../show';
import { finding } from '../finding';
import { inSong, type SongCheck } from './songCheck';

/** A clock of more pulses than are sent: it is left out, so that the song can be proven and played at all. */
export const clockTooLong: SongCheck = (facts) => {
  const { show, song } = facts;
  const pulses = clockPulses(song);
  if (song.clocks.length === 0 || pulses <= LIMITS.clockPulses) return [];
  const { ports } = indexShow(show);
  return song.clocks.map(({ portId }) => {
    const data = { song: song.title, port: ports.get(portId)?.name ?? portId, pulses, limit: LIMITS.clockPulses };
    return finding('song.clock-too-long', 'error', inSong(facts, 0), data, setClock(show, song.id, portId, null));
  });
};
