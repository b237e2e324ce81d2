import { describe, expect, it } from 'vitest';
import { TakeOver, mixing, type MixWish } from './';

const wish = (change: Partial<MixWish> = {}): MixWish => ({
  sources: ['click', 'backing'],
  routes: {},
  ears: [],
  earRoutes: {},
  outputs: 4,
  ...change,
});
/** Ways as words: "click left>0 1". */
const ways = (change: Partial<MixWish>): string[] =>
  mixing(wish(change)).map((s) => `${s.source} ${s.side}>${s.output} ${Math.round(s.factor * 100) / 100}`);

describe('ways to the outputs', () => {
  it('are left and right of the first two where nobody said', () => {
    expect(ways({})).toEqual(['click left>0 1', 'click right>1 1', 'backing left>0 1', 'backing right>1 1']);
  });

  it('go to one output as one, and to none where that is wished', () => {
    expect(ways({ routes: { click: [3], backing: [] } })).toEqual(['click both>3 1']);
    expect(ways({ routes: { click: [2, 2], backing: [] } })).toEqual(['click both>2 1']);
  });

  it('go to the first where there is no such output', () => {
    expect(ways({ outputs: 2, routes: { click: [5], backing: [2, 3] } })).toEqual([
      'click both>0 1',
      'backing both>0 1',
    ]);
    expect(ways({ outputs: 1, routes: { backing: [] } })).toEqual(['click both>0 1']);
  });

  it('take each pair of ears what it hears, as loud as it hears it', () => {
    const ears = [
      { id: 'a', name: 'Ines', hears: [{ of: 'click', gain: -6 }] },
      {
        id: 'b',
        name: 'Okoro',
        hears: [
          { of: 'backing', gain: 0 },
          { of: 'gone', gain: 0 },
        ],
      },
      { id: 'c', name: 'nowhere yet', hears: [{ of: 'click', gain: 0 }] },
    ];
    expect(ways({ routes: { click: [], backing: [0, 1] }, ears, earRoutes: { a: [2], b: [3] } })).toEqual([
      'backing left>0 1',
      'backing right>1 1',
      'click both>2 0.5',
      'backing both>3 1',
    ]);
  });

  it('add up where they meet', () => {
    const ears = [{ id: 'a', name: 'Ines', hears: [{ of: 'click', gain: 0 }] }];
    expect(ways({ sources: ['click'], routes: { click: [2] }, ears, earRoutes: { a: [2] } })).toEqual([
      'click both>2 2',
    ]);
  });
});

describe('a fader', () => {
  it('moves nothing until it comes to the level, or passes it; then it has it in hand', () => {
    const hand = new TakeOver();
    expect(hand.move('f', -40, 0)).toBeNull();
    expect(hand.move('f', -20, 0)).toBeNull();
    expect(hand.move('f', 3, 0)).toBe(3);
    expect(hand.move('f', -30, 3)).toBe(-30);
    expect(hand.move('f', -31, -30)).toBe(-31);
  });

  it('takes a level at once where it stands close to it', () => {
    expect(new TakeOver().move('f', -0.5, 0)).toBe(-0.5);
  });

  it('loses it to whatever else moves the level, and takes it over again', () => {
    const hand = new TakeOver();
    expect(hand.move('f', 0, 0)).toBe(0);
    expect(hand.move('f', -10, 0)).toBe(-10);
    // The next song begins as it is programmed.
    expect(hand.move('f', -11, 0)).toBeNull();
    expect(hand.move('f', 1, 0)).toBe(1);
  });

  it('knows one from another', () => {
    const hand = new TakeOver();
    expect(hand.move('f', 0, 0)).toBe(0);
    expect(hand.move('g', -20, 0)).toBeNull();
  });
});
