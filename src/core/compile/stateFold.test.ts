import { paced } from '../testing/paced';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type RigState, type UnitSpec } from '../rig';
import { StateFold, contextOf, moments, rigSpec } from '../meaning';
import { randomShow } from '../testing/randomShow';
import { modelerProfile } from '../testing/rigs';
import { runs } from '../testing/runs';
import { expandMoment } from './expand';

const unit: UnitSpec = {
  id: 'a',
  input: { from: 'port', portId: 'p' },
  listens: 1,
  profile: modelerProfile,
  ...paced(modelerProfile),
  returns: null,
  starts: {},
  relays: [],
};
const control = (id: string) => modelerProfile.controls.find((c) => c.id === id)!;
const foldOf = (): StateFold => new StateFold(new Map([['a', unit]]));

describe('what a fold gave away', () => {
  it('stays as it was, however often controls are moved afterwards', () => {
    const fold = foldOf();
    fold.moveControl(unit, control('mix'), 10);
    const first = fold.all();
    for (let v = 11; v < 40; v++) fold.moveControl(unit, control('mix'), v);
    const second = fold.all();
    fold.moveControl(unit, control('mix'), 99);
    expect([first.a!.controls.mix, second.a!.controls.mix, fold.get('a').controls.mix]).toEqual([10, 39, 99]);
  });

  it('is not shared with a copy, in either direction', () => {
    const fold = foldOf();
    fold.moveControl(unit, control('mix'), 10);
    const copy = fold.copy();
    fold.moveControl(unit, control('mix'), 20);
    copy.moveControl(unit, control('delay'), 1);
    expect(fold.get('a').controls).toEqual({ mix: 20 });
    expect(copy.get('a').controls).toEqual({ mix: 10, delay: 1 });
  });

  it('does not reach what presets store for all of their kind', () => {
    const fold = foldOf();
    fold.loadSlot(unit, 3);
    const stored = { ...fold.get('a').controls };
    fold.moveControl(unit, control('mix'), 50);
    fold.loadSlot(unit, 4);
    expect(fold.get('a').controls).toEqual(stored);
    const other = foldOf();
    other.loadSlot(unit, 4);
    expect(other.get('a').controls).toEqual(stored);
  });

  it('never changes, in any song, at any moment', () => {
    fc.assert(
      fc.property(randomShow(480), ({ show, song }) => {
        const context = contextOf(show);
        const fold = new StateFold(new Map(rigSpec(show).units.map((u) => [u.id, u])));
        const given: [RigState, string][] = [];
        for (const moment of moments(show, song)) {
          expandMoment(show, context, fold, moment, 'changes');
          const state = fold.all();
          given.push([state, JSON.stringify(state)]);
        }
        for (const [state, text] of given) expect(JSON.stringify(state)).toBe(text);
      }),
      runs(36, 80),
    );
  });

  it('is the same in a copy that goes the same way', () => {
    fc.assert(
      fc.property(randomShow(480), fc.nat(11), ({ show, song }, at) => {
        const context = contextOf(show);
        const fold = new StateFold(context.units);
        const list = moments(show, song);
        const cut = Math.min(at, list.length);
        for (const moment of list.slice(0, cut)) expandMoment(show, context, fold, moment, 'changes');
        const copy = fold.copy();
        for (const moment of list.slice(cut)) {
          const own = expandMoment(show, context, fold, moment, 'changes');
          const its = expandMoment(show, context, copy, moment, 'changes');
          expect(its.map((u) => u.sends.map((s) => s.bytes))).toEqual(own.map((u) => u.sends.map((s) => s.bytes)));
        }
        expect(copy.all()).toEqual(fold.all());
      }),
      runs(37, 80),
    );
  });
});
