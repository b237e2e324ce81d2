import { expect, it } from 'vitest';
import { durationWords } from './durations';

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
