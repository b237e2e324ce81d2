import { describe, expect, it } from 'vitest';
import { isDue, readResume } from './resume';

const kept = { showId: 's', songId: 'a', entryId: null, at: 960, when: 1_000_000 };

describe('what played before the page was loaded anew', () => {
  it('is offered within a quarter of an hour', () => {
    expect(readResume(JSON.stringify(kept), 1_000_500)).toEqual(kept);
    expect(readResume(JSON.stringify(kept), 1_000_000 + 15 * 60_000)).toBeNull();
  });

  it('is nothing where nothing played, or where what was kept is damaged', () => {
    for (const text of [
      null,
      '',
      '{',
      '[]',
      'null',
      JSON.stringify({ ...kept, at: -1 }),
      JSON.stringify({ ...kept, when: 2e9 }),
    ]) {
      expect(readResume(text, 1_000_500)).toBeNull();
    }
  });

  it('is written every half second, and at once when another song has begun', () => {
    const last = { songId: 'a', when: 10_000 };
    expect(isDue(last, 'a', 10_400)).toBe(false);
    expect(isDue(last, 'a', 10_500)).toBe(true);
    expect(isDue(last, 'b', 10_001)).toBe(true);
    expect(isDue({ songId: null, when: 0 }, 'a', 1)).toBe(true);
  });
});
