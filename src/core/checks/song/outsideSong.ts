import { barOfTick, formatPosition } from '../../time';
import { setSongField } from '../../show';
import { finding } from '../finding';
import { inSong, type SongCheck } from './songCheck';

/** A cue, sweep or recording that stands before the song or past its end. The fix makes the song long enough. */
export const outsideSong: SongCheck = (facts) => {
  const { show, song, time } = facts;
  const things = [
    ...song.cues.filter((c) => !c.muted).map((c) => ({ at: c.at, to: c.at, where: { cueId: c.id } })),
    ...song.sweeps.filter((s) => !s.muted).map((s) => ({ at: s.from, to: s.to - 1, where: { sweepId: s.id } })),
  ].filter((x) => x.at < 0 || x.to >= time.end);
  return things.map(({ at, to, where }) => {
    const bars = barOfTick(time.bars, Math.max(0, to)).bar;
    const data = {
      song: song.title,
      at: formatPosition(time.bars, Math.max(0, at), 1e9),
      bars: song.bars,
      early: at < 0,
    };
    const fix = at < 0 ? null : setSongField(show, song.id, 'bars', bars);
    return finding('song.outside', 'error', inSong(facts, at, where), data, fix);
  });
};
