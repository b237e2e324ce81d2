import { beforeEach, describe, expect, it } from 'vitest';
import { proveSong } from '../../core/proof';
import { demoShow } from '../../core/demo';
import { changeCue, setShowTitle, type Show } from '../../core/show';
import { compareWith, earlierStates, runCompared, stateBefore, useComparing } from './comparing';
import { createDocument } from './document';
import { useApp } from './store';
import { tonightOf } from '../../core/tonight';

const show = demoShow();
const song = show.songs[0]!;
const doc = createDocument(useApp, () => undefined);
const open = () => useApp.getState().open!;
const prove = async (s: Show, id: string) =>
  proveSong(
    tonightOf(s),
    s.songs.find((x) => x.id === id)!,
    'engine',
    false,
  );

beforeEach(() => {
  useComparing.setState({ compared: null });
  doc.enter(show, 1);
  doc.perform(changeCue(show, song.id, 'slack-tide-cue-3', { shift: 400 }), 'shift a cue');
  doc.perform(setShowTitle(doc.show()!, 'Other'), 'rename the show');
});

describe('comparing with an earlier state', () => {
  it('offers each state before something that was done, the latest first', () => {
    expect(earlierStates(open()).map(({ at, done }) => [at, done.label])).toEqual([
      [1, 'rename the show'],
      [0, 'shift a cue'],
    ]);
    expect(stateBefore(open(), 0)).toEqual(show);
    expect(stateBefore(open(), 1).title).toBe(show.title);
  });

  it('runs the songs of that state, and keeps it while one goes on editing', async () => {
    compareWith(open(), 0);
    doc.undo();
    await runCompared([song.id, 'none'], prove);
    const { compared } = useComparing.getState();
    expect(compared!.before).toBe('shift a cue');
    expect(Object.keys(compared!.runs)).toEqual([song.id]);
    expect(compared!.runs[song.id]!.song).toEqual(song);
  });

  it('drops what comes for a state that was chosen no more', async () => {
    compareWith(open(), 0);
    const running = runCompared([song.id], prove);
    compareWith(open(), 1);
    await running;
    expect(useComparing.getState().compared!.runs).toEqual({});
    compareWith(open(), null);
    await runCompared([song.id], prove);
    expect(useComparing.getState().compared).toBeNull();
  });
});
