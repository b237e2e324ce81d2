import { describe, expect, it } from 'vitest';
import type { PlayLine } from '../core/compile';
import { STOPPED, end, fromOf, placeOf, playing, take, type Transport } from './transport';

/** A line that starts at clock time `now`. */
const begin = (from: PlayLine, now: number) => playing(from, now - from.start);
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
    let t: Transport = begin(line, 100_000);
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

  describe('in a loop', () => {
    const looped: PlayLine = {
      ...line,
      events: [event(-500), event(0), event(1000)],
      end: Number.POSITIVE_INFINITY,
      round: { from: 500, to: 1500, events: [event(400), event(1000)], seam: [] },
    };

    it('plays its rounds one after the other, what leaves ahead of a seam in the round before', () => {
      const t = take(begin(looped, 0), 0, 10_000);
      // The line begins 1000 before song time 0.
      expect(t.due.map((e) => e.at)).toEqual([
        500, 1000, 2000, 2400, 3000, 3400, 4000, 4400, 5000, 5400, 6000, 6400, 7000, 7400, 8000, 8400, 9000, 9400,
        10_000,
      ]);
      const step = take(take(begin(looped, 0), 0, 2399).transport, 2400, 2400);
      expect(step.due.map((e) => e.at)).toEqual([2400]);
    });

    it('is in its stretch again after each seam, and never stops by itself', () => {
      const t = begin(looped, 0);
      expect(placeOf(t, 2499)).toBe(1499);
      expect(placeOf(t, 2500)).toBe(500);
      expect(placeOf(t, 4600)).toBe(600);
      expect(take(t, 1e9, 1000).transport.kind).toBe('playing');
    });

    it('that was entered in its middle comes round to its start all the same', () => {
      const t = begin({ ...looped, start: 1000, place: 1000 }, 0);
      expect([placeOf(t, 100), fromOf(t, 100)]).toEqual([1100, 1000]);
      expect([placeOf(t, 600), fromOf(t, 600)]).toEqual([600, 500]);
    });

    it('leaves out of the next rounds what a line before it has handed over', () => {
      const t = playing(looped, 0, 1400);
      expect(take(t, 0, 2100).due.map((e) => e.at)).toEqual([-500, 0, 1000, 2000]);
    });
  });
});
