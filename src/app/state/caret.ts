import { create } from 'zustand';
import { indexShow, songTime, ticksAt } from '../../core/show';
import type { Ticks } from '../../core/time';
import { useNews } from './news';
import { useApp } from './store';

/** Where the next thing goes, and where playing starts: a place in a song. */
export interface Caret {
  readonly songId: string | null;
  readonly at: Ticks;
}

export const useCaret = create<Caret>(() => ({ songId: null, at: 0 }));

export const setCaret = (songId: string, at: Ticks): void => useCaret.setState({ songId, at: Math.max(0, at) });

/** Where the next start of a song begins: the same for the transport, the chart and the stage. */
export const startOf = ({ songId, at }: Caret, song: string): Ticks => (songId === song ? at : 0);

/** What is known of where the next start begins. */
interface Standing {
  readonly playing: boolean;
  /** The song that plays, or that the playback is on. */
  readonly songId: string | null;
  /** The show is on for its audience: what somebody looks at on the desk does not move the stage. */
  readonly isShowOn: boolean;
}

/** The song that the next press to play starts, the same on the stage and in the transport; while one plays, that. */
export const songStanding = ({ playing, songId, isShowOn }: Standing, caret: Pick<Caret, 'songId'>): string | null =>
  playing || isShowOn ? (songId ?? caret.songId) : (caret.songId ?? songId);

/** From now on the playback starts where the caret is, whoever asks for it: a foot switch, a clock, a message. */
export function followCaret(isShowOn: () => boolean, stand: (songId: string, at: Ticks) => void): void {
  useCaret.subscribe((caret, before) => {
    if (caret.songId === null || (caret.songId === before.songId && caret.at === before.at)) return;
    const { news } = useNews.getState();
    if (news.playing || (isShowOn() && caret.songId !== news.songId)) return;
    stand(caret.songId, caret.at);
  });
  useNews.subscribe(({ news }, { news: before }) => {
    const caret = useCaret.getState();
    // What was stopped begins again where the stage says, not where it stopped.
    if (before.playing && !news.playing && caret.songId !== null && caret.songId === news.songId) {
      stand(caret.songId, caret.at);
    }
    const begins = news.playing && (!before.playing || news.songId !== before.songId);
    const { open } = useApp.getState();
    const song = open && news.songId !== null ? indexShow(open.show).songs.get(news.songId) : undefined;
    if (!begins || !song || caret.songId === song.id) return;
    // What was started is what is started again.
    setCaret(song.id, Math.round(ticksAt(songTime(song), Math.max(0, news.from ?? 0))));
  });
}

/** From now on the place that a song is brought to while nothing plays, by foot or from elsewhere, is where it starts. */
export function followSelected(): void {
  useNews.subscribe(({ news }, { news: before }) => {
    const { songId, place, playing } = news;
    const moved = songId !== before.songId || place !== before.place;
    // Where a song was stopped is not where it starts again; but a start that was taken back leads to what was before it.
    const isBack = before.playing && songId !== before.songId;
    if (playing || (before.playing && !isBack) || songId === null || !moved) return;
    const { open } = useApp.getState();
    const song = open && indexShow(open.show).songs.get(songId);
    if (song) setCaret(songId, Math.round(ticksAt(songTime(song), Math.max(0, place))));
  });
}
