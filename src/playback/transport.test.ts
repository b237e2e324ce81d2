import { describe, expect, it } from 'vitest';
import type { PlayLine } from '../core/compile';
import { STOPPED, begin, end, placeOf, take } from './transport';

const event = (at: number) => ({ at, portId: 'p', bytes: [0xc0, 1], cueId: 'c', unitId: 'u' });
const line: PlayLine = {
  events: [event(-500), event(0), event(1000), event(2000)],
  start: -1000,
  place: 0,
  end: 5000,
  atStop: [],
};

describe('the transport', () => {
  it('hands over what leaves up to a time, each once, at clock times', () => {
    let t = begin(line, 100_000);
    const first = take(t, 100_000, 100_600);
    expect(first.due.map((e) => e.at)).toEqual([100_500]);
    t = first.transport;
    expect(take(t, 100_600, 100_900).due).toEqual([]);
    expect(take(t, 101_000, 103_000).due.map((e) => e.at)).toEqual([101_000, 102_000, 103_000]);
  });

  it('says where it is, and waits at the place that it starts from', () => {
    const t = begin(line, 100_000);
    expect(placeOf(t, 100_000)).toBe(-1000);
    expect(placeOf(t, 103_000)).toBe(2000);
    const middle = begin({ ...line, start: 2000, place: 3000 }, 100_000);
    expect(placeOf(middle, 100_200)).toBe(3000);
    expect(placeOf(middle, 101_500)).toBe(3500);
  });

  it('stops by itself at the end, not before all has left', () => {
    const t = begin(line, 0);
    expect(take(t, 5999, 5999).transport.kind).toBe('playing');
    expect(take(t, 6000, 6000).transport).toEqual({ kind: 'stopped', place: 5000 });
    const late = begin({ ...line, events: [event(9000)] }, 0);
    expect(take(late, 6000, 6000).transport.kind).toBe('playing');
  });

  it('stops where it is, and does nothing while it stands', () => {
    const stopped = end(begin(line, 0), 3000);
    expect(stopped).toEqual({ kind: 'stopped', place: 2000 });
    expect(take(stopped, 9000, 9000)).toEqual({ transport: stopped, due: [] });
    expect(placeOf(STOPPED, 12345)).toBe(0);
  });
});
