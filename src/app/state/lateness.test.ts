import { beforeEach, describe, expect, it } from 'vitest';
import { worstOf } from '../../core/addressing';
import { LATENESS_TRIALS, deviceSchema, type Lateness } from '../persistence/rows';
import { createLateness, latenessTime, portKey, useLateness, withMessage, type PortsLateness } from './lateness';

const DAY = '2026-12-01';
function after([first, ...more]: readonly number[]): Lateness {
  return more.reduce((known, late) => withMessage(known, late, DAY), withMessage(undefined, first!, DAY));
}

describe('how late messages left a port', () => {
  it('is a time of the map: the usual one, and the worst but for the latest hundredth', () => {
    const steady = latenessTime(after(Array.from({ length: 200 }, () => 0)));
    expect(steady).toMatchObject({ typical: 0, worst: 1, source: 'measured', date: DAY });
    expect(steady.trials).toHaveLength(100);
    const hiccup = latenessTime(after(Array.from({ length: 200 }, (_, i) => (i === 77 ? 2700 : i % 4))));
    expect(hiccup.typical).toBe(1.5);
    expect(worstOf(hiccup)).toBe(3);
    const few = latenessTime(after([4.24]));
    expect(few).toMatchObject({ typical: 4.2, worst: 5.2, trials: [4.2] });
  });

  it('is of the last messages, as many as this computer keeps', () => {
    const known = after([
      ...Array.from({ length: 300 }, () => 50),
      ...Array.from({ length: LATENESS_TRIALS }, () => 0),
    ]);
    expect(known).toMatchObject({ count: LATENESS_TRIALS + 300 });
    expect(latenessTime(known).worst).toBe(1);
    expect(deviceSchema.shape.portTimes.safeParse({ box: known }).success).toBe(true);
    // A clock that goes wrong makes no row that cannot be read again.
    expect(deviceSchema.shape.portTimes.safeParse({ box: after([-3, 1e9]) }).success).toBe(true);
  });
});

describe('what is noted of ports', () => {
  const box = { name: 'Box', maker: 'Pier' };
  let kept: PortsLateness[] = [];
  let later: (() => void)[] = [];
  const pass = (): void => {
    for (const run of later.splice(0)) run();
  };
  const noting = createLateness({ later: (run) => later.push(run), today: () => DAY, keep: (all) => kept.push(all) });

  beforeEach(() => {
    kept = [];
    later = [];
    useLateness.setState({ ports: {} });
  });

  it('is shown and kept a moment later, all at once, and each port by its own name', () => {
    noting.left(box, 1);
    noting.left(box, 3);
    noting.left({ ...box, maker: 'Quay' }, 9);
    expect(useLateness.getState().ports).toEqual({});
    expect(later).toHaveLength(1);
    pass();
    noting.left(box, 5);
    pass();
    expect(kept).toHaveLength(2);
    expect(kept.at(-1)![portKey(box)]).toEqual({ count: 3, trials: [1, 3, 5], date: DAY });
    expect(kept.at(-1)![portKey({ ...box, maker: 'Quay' })]!.trials).toEqual([9]);
  });

  it('is forgotten when it is measured anew', () => {
    noting.left(box, 8);
    pass();
    noting.left(box, 8);
    noting.forget(box);
    noting.left(box, 1);
    pass();
    expect(kept.at(-1)![portKey(box)]!.trials).toEqual([1]);
  });
});
