import { describe, expect, it } from 'vitest';
import { exportDue } from './exported';

const DAY = 24 * 60 * 60 * 1000;

describe('a reminder to export', () => {
  it('comes a week after the last export, and says how long ago that is', () => {
    expect(exportDue(0, 7 * DAY - 1, false)).toBeNull();
    expect(exportDue(0, 7 * DAY, false)).toBe(7);
    expect(exportDue(5 * DAY, 40.5 * DAY, false)).toBe(35);
  });

  it('does not come where the browser keeps what it stores, nor by a clock that was put back', () => {
    expect(exportDue(0, 400 * DAY, true)).toBeNull();
    expect(exportDue(10 * DAY, 0, false)).toBeNull();
  });
});
