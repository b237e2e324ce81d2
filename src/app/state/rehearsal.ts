import { create } from 'zustand';
import { FOR_AUDIENCE, type PracticeWay } from '../../playback';
import { useNews } from './news';

/** What is chosen for practice and belongs to this tab. */
interface Rehearsal {
  /** What of recordings is heard at another speed than theirs. */
  readonly recordings: 'pitch' | 'silent';
  /** How each song is practised, by its id: what was chosen for one counts for no other. */
  readonly ways: Readonly<Record<string, PracticeWay>>;
}

export const useRehearsal = create<Rehearsal>(() => ({ recordings: 'pitch', ways: {} }));

/** How a song is practised: as the audience gets it, until somebody chooses otherwise. */
export const wayOf = (songId: string): PracticeWay => useRehearsal.getState().ways[songId] ?? FOR_AUDIENCE;

/** Remembers how a song is practised from now on. */
export const keepWay = (songId: string, change: Partial<PracticeWay>): void =>
  useRehearsal.setState(({ ways }) => ({ ways: { ...ways, [songId]: { ...wayOf(songId), ...change } } }));

/** Another show is open: nothing of the one before counts. */
export const forgetWays = (): void => useRehearsal.setState({ ways: {} });

/** How a song is played: while it plays, as it does; else as it is practised. */
export function useWay(songId: string): PracticeWay {
  const kept = useRehearsal((s) => s.ways[songId]) ?? FOR_AUDIENCE;
  const plays = useNews(({ news }) => news.playing && news.songId === songId);
  const loop = useNews(({ news }) => (news.loop?.songId === songId ? news.loop : null));
  const speed = useNews(({ news }) => news.speed);
  return plays ? { speed, loop } : kept;
}
