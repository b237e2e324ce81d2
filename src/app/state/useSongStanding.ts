import { indexShow, type Show, type Song } from '../../core/show';
import { songStanding, useCaret } from './caret';
import { useNews } from './news';
import { useNight } from './night';

/** The song that plays, or that the next press to play starts; the first of the show before any is chosen. */
export function useSongStanding(show: Show): Song | undefined {
  const playing = useNews((s) => s.news.playing);
  const songId = useNews((s) => s.news.songId);
  const isShowOn = useNight((s) => s.id !== null);
  const caret = useCaret((s) => s.songId);
  const standing = songStanding({ playing, songId, isShowOn }, { songId: caret });
  return indexShow(show).songs.get(standing ?? '') ?? show.songs[0];
}
