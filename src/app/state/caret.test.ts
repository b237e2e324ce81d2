import { beforeEach, describe, expect, it } from 'vitest';
import { demoShow } from '../../core/demo';
import { followCaret, followSelected, setCaret, songStanding, useCaret } from './caret';
import { NO_NEWS, useNews } from './news';
import { useApp } from './store';

const show = demoShow();
const [a, b] = show.songs.map((s) => s.id) as [string, string];
let stood: [string, number][] = [];
let isShowOn = false;
followCaret(
  () => isShowOn,
  (songId, at) => void stood.push([songId, at]),
);
followSelected();
const tell = (news: Partial<typeof NO_NEWS>): void => useNews.setState((s) => ({ news: { ...s.news, ...news } }));

beforeEach(() => {
  useNews.setState({ news: NO_NEWS });
  useCaret.setState({ songId: null, at: 0 });
  useApp.setState({ open: { show, revision: 1, past: [], future: [], save: 'saved' } });
  isShowOn = false;
  stood = [];
});

describe('the song that the next press starts', () => {
  it('is where somebody works, but for the one that plays or, in a show, the one that is on', () => {
    const at = (playing: boolean, isShowOnNow: boolean) =>
      songStanding({ playing, songId: a, isShowOn: isShowOnNow }, { songId: b });
    expect([at(false, false), at(true, false), at(false, true)]).toEqual([b, a, a]);
    expect(songStanding({ playing: false, songId: a, isShowOn: false }, { songId: null })).toBe(a);
    expect(songStanding({ playing: false, songId: null, isShowOn: true }, { songId: b })).toBe(b);
  });
});

describe('the caret', () => {
  it('is told to the playback where it moves while nothing plays', () => {
    setCaret(a, 960);
    setCaret(a, 960);
    tell({ playing: true, songId: a });
    setCaret(a, 1920);
    expect(stood).toEqual([[a, 960]]);
    tell({ playing: false });
    expect(stood.at(-1)).toEqual([a, 1920]);
  });

  it('goes to a song that is started elsewhere: that is what is started again', () => {
    setCaret(b, 500);
    tell({ playing: true, songId: a, from: 0 });
    expect(useCaret.getState()).toEqual({ songId: a, at: 0 });
  });

  it('goes back to what was before a start that is taken back, and stays where a song was started that is stopped', () => {
    tell({ songId: b, place: 0 });
    tell({ playing: true, songId: a, place: 0, from: 0 });
    tell({ place: 9e6 });
    tell({ playing: false, songId: b, place: 0 });
    expect(useCaret.getState()).toEqual({ songId: b, at: 0 });
    tell({ playing: true, songId: a, place: 0, from: 0 });
    tell({ playing: false, place: 9e6 });
    expect(useCaret.getState()).toEqual({ songId: a, at: 0 });
  });

  it('moves nothing of a show by what is looked at in another song', () => {
    tell({ songId: a });
    stood = [];
    isShowOn = true;
    setCaret(b, 960);
    expect(stood).toEqual([]);
    setCaret(a, 960);
    expect(stood).toEqual([[a, 960]]);
  });
});
