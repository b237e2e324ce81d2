import { describe, expect, it } from 'vitest';
import { newControl, onOff, type Profile } from '../addressing';
import { decodeMessage, type Bytes } from '../midi';
import { modelerProfile } from '../testing/rigs';
import {
  UNKNOWN_STATE,
  afterControl,
  afterRecall,
  meets,
  relaysFired,
  remember,
  sameControl,
  understand,
  type RelaySpec,
  type UnitState,
} from './';

// What plans and the simulated rig share is written out here by hand: what both take from one place, no comparison of the two can find wrong.

const rule = (slot: number | null, variant: number | null, program: number): RelaySpec => ({
  slot,
  variant,
  toUnit: 'next',
  messages: [[0xc0, program]],
});
const programs = (rules: readonly RelaySpec[]): number[] => rules.map((r) => r.messages[0]![1]!);

describe('relay rules', () => {
  const rules = [rule(4, 2, 10), rule(4, null, 11), rule(null, 2, 12), rule(5, null, 13), rule(null, null, 14)];

  it('of a slot that is reached come in the order in which they stand, those of its variant behind them', () => {
    expect(programs(relaysFired(rules, 'slot', 4, 2))).toEqual([11, 14, 10, 12]);
    expect(programs(relaysFired(rules.toReversed(), 'slot', 4, 2))).toEqual([14, 11, 12, 10]);
  });

  it('of a variant wait for the slot that they name, and those of the slot alone are not carried out again', () => {
    expect(programs(relaysFired(rules, 'variant', 4, 2))).toEqual([10, 12]);
    expect(programs(relaysFired(rules, 'variant', 5, 2))).toEqual([12]);
    expect(programs(relaysFired(rules, 'variant', 5, 1))).toEqual([]);
  });

  it('of a variant are not carried out where nobody knows which it is', () => {
    expect(programs(relaysFired(rules, 'slot', 4, 'stored'))).toEqual([11, 14]);
    expect(programs(relaysFired(rules, 'slot', 4, null))).toEqual([11, 14]);
    expect(programs(relaysFired([rule(null, 0, 9)], 'slot', 4, null))).toEqual([]);
  });
});

describe('a recall', () => {
  const before: UnitState = { slot: 3, bank: 1, variant: 5, controls: { delay: 1, mix: 40 } };

  it('brings the variant and the switches that the preset stores, as far as the map knows them', () => {
    expect(afterRecall(modelerProfile, before, 47, undefined)).toEqual({
      slot: 47,
      bank: 1,
      variant: 'stored',
      controls: { delay: 'stored', mix: 'stored' },
    });
    expect(afterRecall(modelerProfile, before, 47, { variant: 2, controls: { delay: 0 } })).toEqual({
      slot: 47,
      bank: 1,
      variant: 2,
      controls: { delay: 0, mix: 'stored' },
    });
  });

  it('keeps what the unit keeps', () => {
    const keeps: Profile = { ...modelerProfile, recallLoads: { variant: false, controls: false } };
    expect(afterRecall(keeps, before, 47, { variant: 2, controls: { delay: 0 } })).toEqual({ ...before, slot: 47 });
  });

  it('leaves what has to be engaged disengaged, whatever the unit keeps', () => {
    const engaged: Profile = {
      ...modelerProfile,
      engage: 'delay',
      recallLoads: { variant: false, controls: false },
    };
    expect(afterRecall(engaged, before, 8, undefined).controls).toEqual({ delay: 0, mix: 40 });
  });

  it('of a unit without variants has none', () => {
    const plain: Profile = { ...modelerProfile, variants: null };
    expect(afterRecall(plain, { ...before, variant: null }, 8, { variant: 3, controls: {} }).variant).toBeNull();
  });
});

describe('a control', () => {
  const set = newControl('a', 'A', onOff(20));
  const flip = newControl('b', 'B', { kind: 'flip', number: 21, send: 127, only: null });
  const tap = newControl('c', 'C', { kind: 'tap', number: 22, values: [127, 0] });

  it('is what it was set to, turned over, or nothing', () => {
    expect(afterControl(set, undefined, 1)).toBe(1);
    expect(afterControl(flip, 0, 1)).toBe(1);
    expect(afterControl(flip, 1, 1)).toBe(0);
    expect(afterControl(flip, undefined, 1)).toBeUndefined();
    expect(afterControl(flip, 'stored', 1)).toBeUndefined();
    expect(afterControl(tap, 3, 1)).toBeUndefined();
  });

  it('is the same where its figures are the same byte', () => {
    // 0 to 100 % in 128 steps: a step is 0.79 %.
    expect(sameControl(modelerProfile, 'mix', 50, 50.2)).toBe(true);
    expect(sameControl(modelerProfile, 'mix', 50, 51)).toBe(false);
    expect(sameControl(modelerProfile, 'mix', 50, 'stored')).toBe(false);
    expect(sameControl(modelerProfile, 'none', 50, 51)).toBe(false);
    expect(sameControl(modelerProfile, 'none', undefined, undefined)).toBe(true);
  });
});

describe('an aim', () => {
  const state: UnitState = { slot: 4, bank: 0, variant: 'stored', controls: { delay: 1 } };

  it('is met where all that it names is so, and asks nothing of the rest', () => {
    expect(meets(modelerProfile, state, { controls: {} })).toBe(true);
    expect(meets(modelerProfile, state, { slot: 4, controls: { delay: 1 } })).toBe(true);
    expect(meets(modelerProfile, state, { slot: 5, controls: {} })).toBe(false);
    expect(meets(modelerProfile, state, { controls: { mix: 3 } })).toBe(false);
    // What the preset stores is nobody's figure.
    expect(meets(modelerProfile, state, { variant: 0, controls: {} })).toBe(false);
    expect(meets(modelerProfile, UNKNOWN_STATE, { slot: 0, controls: {} })).toBe(false);
  });
});

describe('a message', () => {
  const read = (bytes: Bytes, memory = new Map<number, number>(), profile = modelerProfile) =>
    understand(profile, decodeMessage(bytes)!, memory);

  it('calls a variant by its value from 0, or moves a control', () => {
    expect(read([0xb0, 85, 2]).variant).toBe(2);
    expect(read([0xb0, 85, 8]).variant).toBeUndefined();
    expect(read([0xb0, 52, 64]).controls.map(([c, v]) => [c.id, v])).toEqual([['delay', 1]]);
    expect(read([0xb0, 52, 63]).controls.map(([c, v]) => [c.id, v])).toEqual([['delay', 0]]);
    expect(read([0xb0, 51, 127])).toEqual({ variant: undefined, controls: [], heard: false });
  });

  it('on a number that two controls have moves both', () => {
    const twice: Profile = {
      ...modelerProfile,
      controls: [...modelerProfile.controls, newControl('twin', 'Twin', onOff(52))],
    };
    expect(read([0xb0, 52, 127], new Map(), twice).controls.map(([c]) => c.id)).toEqual(['delay', 'twin']);
  });

  it('is decoded from where its range begins', () => {
    const from = (encoding: Profile['controls'][number]['encoding'], value: number): unknown => {
      const profile: Profile = { ...modelerProfile, variants: null, controls: [newControl('x', 'X', encoding)] };
      return read([0xb0, 30, value], new Map(), profile).controls[0]?.[1];
    };
    const scale = { kind: 'continuous', number: 30, unit: '%', curve: 'linear', points: [] } as const;
    // From 20 to 120 on the wire stands for -50 to 50.
    const shifted = { ...scale, from: 20, to: 120, low: -50, high: 50 };
    expect([20, 70, 120, 0, 127].map((v) => from(shifted, v))).toEqual([-50, 0, 50, -50, 50]);
    const inverted = { ...scale, from: 120, to: 20, low: -50, high: 50 };
    expect([20, 70, 120].map((v) => from(inverted, v))).toEqual([50, 0, -50]);
    // Options at 10, 15, 20 and 25.
    const stepped = { kind: 'index', number: 30, base: 10, step: 5, count: 4 } as const;
    expect([10, 15, 25, 9, 12, 30].map((v) => from(stepped, v))).toEqual([0, 1, 3, undefined, undefined, undefined]);
  });

  it('is remembered for those that need it; another parameter makes its value nobody’s', () => {
    const memory = new Map<number, number>();
    for (const bytes of [
      [0xb0, 99, 8],
      [0xb0, 98, 1],
      [0xb0, 6, 64],
    ])
      remember(memory, decodeMessage(bytes)!);
    expect([...memory]).toEqual([
      [99, 8],
      [98, 1],
      [6, 64],
    ]);
    remember(memory, decodeMessage([0xb0, 98, 2])!);
    expect(memory.has(6)).toBe(false);
    expect(memory.get(98)).toBe(2);
    // A registered parameter takes the place of one that is not (MIDI 1.0).
    remember(memory, decodeMessage([0xb0, 101, 0])!);
    expect([memory.has(99), memory.has(98), memory.get(101)]).toEqual([false, false, 0]);
    remember(memory, decodeMessage([0xc0, 5])!);
    expect(memory.size).toBe(1);
  });
});
