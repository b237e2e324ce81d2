import { expect, it } from 'vitest';
import { clockWords, durationWords, readClock } from './durations';

it('a time of day is written and read in hours and minutes', () => {
  expect([0, 5, 1230, 1439.6, 1440 + 61].map(clockWords)).toEqual(['0:00', '0:05', '20:30', '0:00', '1:01']);
  expect(['20:30', ' 9.05 ', '0:00', '23h59'].map(readClock)).toEqual([1230, 545, 0, 1439]);
  for (const text of ['', '24:00', '12:60', '7', 'noon', '12:5']) expect(readClock(text)).toBeUndefined();
});

it('a length of time is written in minutes and seconds, from an hour on with hours', () => {
  expect([0, 7, 59.4, 59.6, 187, 3599.7, 3725].map(durationWords)).toEqual([
    '0:00',
    '0:07',
    '0:59',
    '1:00',
    '3:07',
    '1:00:00',
    '1:02:05',
  ]);
});
