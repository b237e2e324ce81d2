import { describe, expect, it } from 'vitest';
import { compareRuns, worstFirst, worstOfEach } from './compareRuns';
import type { Verdict } from './verdict';

const verdict = (cueId: string, unitId: string, offset: number | null, more: Partial<Verdict> = {}): Verdict => ({
  cueId,
  unitId,
  due: 1e6,
  outcome: offset === null ? 'never' : offset > 2000 ? 'late' : 'on-time',
  offset,
  reason: offset === null ? { kind: 'nothing-arrived' } : { kind: 'as-wanted' },
  margin: null,
  ...more,
});

describe('worstOfEach', () => {
  it('keeps the worst of each cue and unit, by time, and leaves out what was so already', () => {
    const found = worstOfEach([
      verdict('b', 'u', -40, { due: 2e6 }),
      verdict('a', 'u', -900),
      verdict('a', 'u', 5000),
      verdict('a', 'u', 3000),
      verdict('a', 'v', 0, { reason: { kind: 'already' } }),
    ]);
    expect(found.map((v) => [v.cueId, v.offset])).toEqual([
      ['a', 5000],
      ['b', -40],
    ]);
  });

  it('counts never as worse than any lateness, and the nearest to late among those on time', () => {
    expect(worstOfEach([verdict('a', 'u', 9e6), verdict('a', 'u', null)])[0]!.outcome).toBe('never');
    expect(worstOfEach([verdict('a', 'u', -700), verdict('a', 'u', -10), verdict('a', 'u', -300)])[0]!.offset).toBe(
      -10,
    );
  });
});

describe('worstFirst', () => {
  it('puts never before late, late by most before less, and what is well last', () => {
    const list = [verdict('well', 'u', -20), verdict('late', 'u', 4000), verdict('never', 'u', null)];
    const later = verdict('later', 'u', 9000);
    expect(worstFirst([...list, later]).map((v) => v.cueId)).toEqual(['never', 'later', 'late', 'well']);
  });
});

describe('compareRuns', () => {
  it('says nothing of two runs that are alike', () => {
    const run = [verdict('a', 'u', -40), verdict('b', 'u', null)];
    expect(
      compareRuns(
        run,
        run.map((v) => (v.offset === null ? v : { ...v, offset: v.offset + 20 })),
      ),
    ).toEqual([]);
  });

  it('says what landed otherwise, what is new and what is gone', () => {
    const before = [verdict('a', 'u', 80_000), verdict('b', 'u', 0), verdict('gone', 'u', 0, { due: 3e6 })];
    const after = [verdict('a', 'u', -10), verdict('b', 'u', 0), verdict('new', 'v', -5, { due: 0 })];
    expect(compareRuns(before, after).map((d) => [d.cueId, d.before?.offset, d.after?.offset])).toEqual([
      ['new', undefined, -5],
      ['a', 80_000, -10],
      ['gone', 0, undefined],
    ]);
  });
});
