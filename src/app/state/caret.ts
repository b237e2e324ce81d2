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

/** From now on the place that a song is brought to while nothing plays, by foot or from elsewhere, is where it starts. */
export function followSelected(): void {
  useNews.subscribe(({ news }, { news: before }) => {
    const { songId, place, playing } = news;
    const moved = songId !== before.songId || place !== before.place;
    // Where a song was stopped is not where it starts again.
    if (playing || before.playing || songId === null || !moved) return;
    const { open } = useApp.getState();
    const song = open && indexShow(open.show).songs.get(songId);
    if (song) setCaret(songId, Math.round(ticksAt(songTime(song), Math.max(0, place))));
  });
}
