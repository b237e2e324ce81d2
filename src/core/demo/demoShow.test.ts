import { describe, expect, it } from 'vitest';
import { compileSong, problemsOf } from '../compile';
import { readShowFile, writeShowFile } from '../formats/show-file';
import { rigSpec, songWants } from '../meaning';
import { dryRun } from '../simulate';
import { demoShow } from './demoShow';

const show = demoShow();

describe('the demo show', () => {
  it('is a valid show file and reads back the same', () => {
    const { value, problems } = readShowFile(writeShowFile(show));
    expect(problems).toEqual([]);
    expect(value).toEqual(show);
  });

  it.each(show.songs.map((s) => [s.title, s] as const))('%s: every cue lands on its beat', (_, song) => {
    const compiled = compileSong(show, song);
    expect(problemsOf(show, compiled)).toEqual([]);
    const { verdicts } = dryRun(rigSpec(show), compiled.events, songWants(show, song));
    expect(verdicts.length).toBeGreaterThan(song.cues.length);
    expect(verdicts.filter((v) => v.outcome !== 'on-time')).toEqual([]);
  });
});
