import { create } from 'zustand';
import type { MonitorLine, PlaybackNews, SessionEvent } from '../../playback';

/** What the playback tells, up to thirty times a second: in a store of its own, so that nothing else is asked each time. */
export interface News {
  readonly news: PlaybackNews;
  /** What left and arrived, oldest first. */
  readonly lines: readonly MonitorLine[];
  /** The tone that was pressed last on a pad or a switch, and where. */
  readonly pressed: Extract<SessionEvent, { kind: 'pressed' }> | null;
}

export const NO_NEWS: PlaybackNews = {
  playing: false,
  songId: null,
  speed: 1,
  counted: true,
  countsIn: true,
  outside: null,
  isLed: true,
  code: null,
  loop: null,
  looping: false,
  seam: [],
  entryId: null,
  queued: null,
  following: null,
  history: [],
  night: null,
  canGoBack: false,
  place: 0,
  from: null,
  zero: null,
  rig: {},
  loading: [],
  floors: [],
  armed: {},
  next: null,
  muted: [],
  solo: [],
  pair: null,
  transfer: null,
  walk: null,
  lesson: null,
};

export const useNews = create<News>(() => ({ news: NO_NEWS, lines: [], pressed: null }));
