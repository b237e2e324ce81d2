import { beforeEach, describe, expect, it } from 'vitest';
import { demoShow } from '../../core/demo';
import { applyEdit, changeCue, renameTone, setShowTitle } from '../../core/show';
import { NO_PICTURE } from '../../core/proof';
import { cancelRuns, forgetRuns, isOfNow, keepChecked, keepRun, markRuns, runAll, useRuns } from './runs';

const show = demoShow();
const songs = show.songs.slice(0, 3);
const [song] = songs;
const found = { findings: [], picture: NO_PICTURE };

beforeEach(forgetRuns);

describe('a run', () => {
  it('is of now until its song or what it is played on changes', () => {
    keepRun(show, song!, found);
    const run = useRuns.getState().runs[song!.id]!;
    expect(isOfNow(run, show, song!)).toBe(true);
    const titled = applyEdit(show, setShowTitle(show, 'Another')!);
    expect(isOfNow(run, titled, titled.songs[0]!)).toBe(true);
    const other = applyEdit(show, changeCue(show, show.songs[1]!.id, show.songs[1]!.cues[0]!.id, { shift: 3 })!);
    expect(isOfNow(run, other, other.songs[0]!)).toBe(true);
    const moved = applyEdit(show, changeCue(show, song!.id, song!.cues[0]!.id, { shift: 3 })!);
    expect(isOfNow(run, moved, moved.songs[0]!)).toBe(false);
    const renamed = applyEdit(show, renameTone(show, 'undertow', 'Rip')!);
    expect(isOfNow(run, renamed, renamed.songs[0]!)).toBe(false);
  });

  it('is kept to compare with, while later ones take its place', () => {
    keepRun(show, song!, found);
    const first = useRuns.getState().runs[song!.id];
    markRuns(new Date(5));
    keepRun(show, song!, { ...found, picture: { ...NO_PICTURE, end: 7 } });
    expect(useRuns.getState().kept).toEqual({ at: new Date(5), runs: { [song!.id]: first } });
    expect(useRuns.getState().runs[song!.id]!.picture.end).toBe(7);
    markRuns(null);
    expect(useRuns.getState().kept).toBeNull();
  });

  it('is apart from what the checks say of a song that was not played', () => {
    keepChecked(show, song!, []);
    expect(useRuns.getState().runs).toEqual({});
    expect(isOfNow(useRuns.getState().checked[song!.id]!, show, song!)).toBe(true);
  });
});

describe('running a set', () => {
  it('goes song by song and says how far it is', async () => {
    const seen: unknown[] = [];
    await runAll(songs, async (id) => {
      const { going } = useRuns.getState();
      seen.push([id, going!.done, going!.of, going!.title]);
    });
    expect(seen).toEqual(songs.map((s, i) => [s.id, i, 3, s.title]));
    expect(useRuns.getState().going).toBeNull();
  });

  it('stops after the song at hand when it is cancelled', async () => {
    const seen: string[] = [];
    await runAll(songs, async (id) => {
      seen.push(id);
      if (seen.length === 2) cancelRuns();
    });
    expect(seen).toEqual(songs.slice(0, 2).map((s) => s.id));
    expect(useRuns.getState().going).toBeNull();
  });

  it('gives way to another that is begun meanwhile', async () => {
    const seen: string[] = [];
    let second: Promise<void> | undefined;
    await runAll(songs, async (id) => {
      seen.push(`first ${id}`);
      second ??= runAll([songs[2]!], async (other) => void seen.push(`second ${other}`));
      await second;
    });
    await second;
    expect(seen).toEqual([`first ${songs[0]!.id}`, `second ${songs[2]!.id}`]);
    expect(useRuns.getState().going).toBeNull();
  });
});
