import { paced } from '../testing/paced';
import { describe, expect, it } from 'vitest';
import type { AddressPlan, Profile } from '../addressing';
import { type UnitAim, type UnitSpec } from '../rig';
import { modelerProfile } from '../testing/rigs';
import { StateFold, changesTo, relayOrder, takeMessage } from '../meaning';
import { sendsOf, type Send } from './expand';

const unit = (profile: Partial<Profile> = {}, rest: Partial<UnitSpec> = {}): UnitSpec => ({
  id: 'a',
  input: { from: 'port', portId: 'p' },
  listens: 1,
  profile: { ...modelerProfile, ...profile },
  ...paced({ ...modelerProfile, ...profile }),
  returns: null,
  starts: {},
  relays: [],
  ...rest,
});
const foldOf = (...units: UnitSpec[]): StateFold => new StateFold(new Map(units.map((u) => [u.id, u])));
const expandAim = (
  fold: StateFold,
  to: UnitSpec,
  channel: number,
  aim: UnitAim,
  thrift: 'changes' | 'everything',
  reload: boolean,
): Send[] => sendsOf({ unit: to, channel, changes: changesTo(fold, to, aim, thrift, reload), raw: null });
const expandMessage = (fold: StateFold, to: UnitSpec, bytes: number[]): Send[] =>
  sendsOf({ unit: to, channel: 1, changes: [], raw: { bytes, taken: takeMessage(fold, to, bytes) } });
const plan = (bank: AddressPlan['bank']): Partial<Profile> => ({ plan: { ...modelerProfile.plan, bank } });

describe('sends to an aim', () => {
  it('are slot, then variant, then controls in the order of the profile', () => {
    const a = unit();
    const sends = expandAim(
      foldOf(a),
      a,
      1,
      { slot: 47, variant: 2, controls: { mix: 50, delay: 1 } },
      'changes',
      false,
    );
    expect(sends.map((s) => [s.kind, ...s.bytes])).toEqual([
      ['bank', 0xb0, 0, 0],
      ['recall', 0xc0, 47],
      ['variant', 0xb0, 85, 2],
      ['control', 0xb0, 52, 127],
      ['control', 0xb0, 53, 64],
    ]);
  });

  it('are none where nothing changes, and all where everything is asked for', () => {
    const a = unit();
    const fold = foldOf(a);
    const aim = { slot: 47, variant: 2, controls: { delay: 1 } };
    expandAim(fold, a, 1, aim, 'changes', false);
    expect(expandAim(fold, a, 1, aim, 'changes', false)).toEqual([]);
    expect(expandAim(fold, a, 1, aim, 'everything', false)).toHaveLength(4);
    // Reloading brings back what the preset stores, so the rest is sent again.
    expect(expandAim(fold, a, 1, aim, 'changes', true).map((s) => s.kind)).toEqual(['recall', 'variant', 'control']);
  });

  it('count figures as the same where they are the same bytes', () => {
    const a = unit();
    const fold = foldOf(a);
    expandAim(fold, a, 1, { controls: { mix: 50 } }, 'changes', false);
    expect(expandAim(fold, a, 1, { controls: { mix: 50.2 } }, 'changes', false)).toEqual([]);
    expect(expandAim(fold, a, 1, { controls: { mix: 51 } }, 'changes', false)).toHaveLength(1);
  });

  it.each([
    ['none', []],
    ['msb', [[0xb0, 0, 1]]],
    ['lsb', [[0xb0, 32, 1]]],
    [
      'both',
      [
        [0xb0, 0, 0],
        [0xb0, 32, 1],
      ],
    ],
  ] as const)('select the bank with %s', (send, select) => {
    const a = unit(plan({ send, when: 'differs' }));
    const fold = foldOf(a);
    const bytes = () => expandAim(fold, a, 1, { slot: 131, controls: {} }, 'changes', true).map((s) => s.bytes);
    expect(bytes()).toEqual([...select, [0xc0, 3]]);
    expect(bytes()).toEqual([[0xc0, 3]]);
  });

  it('send a variant only where the preset does not start with it', () => {
    const a = unit({}, { starts: { 47: { variant: 2, controls: {} } } });
    expect(
      expandAim(foldOf(a), a, 1, { slot: 47, variant: 2, controls: {} }, 'changes', false).map((s) => s.kind),
    ).toEqual(['bank', 'recall']);
  });

  it('send nothing for a slot that no program calls', () => {
    const a = unit({ plan: { ...modelerProfile.plan, table: [] } });
    expect(expandAim(foldOf(a), a, 1, { slot: 5, controls: {} }, 'changes', false)).toEqual([]);
  });
});

describe('bytes as they stand', () => {
  it('become part of the state where the map understands them', () => {
    const a = unit();
    const fold = foldOf(a);
    const kinds = [[0xb0, 0, 1], [0xc0, 3], [0xb0, 85, 4], [0xb0, 52, 0], [0x90, 1, 1], [0xf0, 1, 0xf7], [5]].map(
      (bytes) => expandMessage(fold, a, bytes)[0]!.kind,
    );
    expect(kinds).toEqual(['message', 'recall', 'variant', 'control', 'message', 'message', 'message']);
    expect(fold.get('a')).toMatchObject({ slot: 131, bank: 1, variant: 4, controls: { delay: 0 } });
  });

  it('read a bank in halves', () => {
    const a = unit(plan({ send: 'both', when: 'always' }));
    const fold = foldOf(a);
    expandMessage(fold, a, [0xb0, 32, 1]);
    expandMessage(fold, a, [0xb0, 0, 0]);
    expandMessage(fold, a, [0xc0, 3]);
    expect(fold.get('a')).toMatchObject({ bank: 1, slot: 131 });
  });

  it('leave the slot unknown before any bank is known', () => {
    const a = unit();
    const fold = foldOf(a);
    expandMessage(fold, a, [0xc0, 3]);
    expect(fold.get('a').slot).toBeNull();
  });
});

describe('relay rules', () => {
  const rule = (slot: number | null, variant: number | null, toUnit: string, program: number) => ({
    slot,
    variant,
    toUnit,
    messages: [
      [0xb0, 0, 0],
      [0xc0, program],
    ],
  });

  it('carry a change on to the next unit and the one behind it', () => {
    const c = unit({}, { id: 'c' });
    const b = unit({}, { id: 'b', relays: [rule(9, null, 'c', 7)] });
    const a = unit({}, { relays: [rule(47, null, 'b', 9)] });
    const fold = foldOf(a, b, c);
    const sends = expandAim(fold, a, 1, { slot: 47, controls: {} }, 'changes', false);
    expect(sends.at(-1)!.relayEffects!.relayed.map((t) => [t.unit.id, t.there! > 0])).toEqual([
      ['b', true],
      ['c', true],
    ]);
    expect(fold.get('b').slot).toBe(9);
    expect(fold.get('c').slot).toBe(7);
  });

  it('fire on a variant only in the slot that they name', () => {
    const b = unit({}, { id: 'b' });
    const a = unit({}, { relays: [rule(47, 3, 'b', 9)] });
    const fold = foldOf(a, b);
    expandAim(fold, a, 1, { slot: 48, variant: 3, controls: {} }, 'changes', false);
    expect(fold.get('b').slot).toBeNull();
    expandAim(fold, a, 1, { slot: 47, variant: 3, controls: {} }, 'changes', false);
    expect(fold.get('b').slot).toBe(9);
  });

  it('put a unit before those that it relays to, and survive a circle', () => {
    const c = unit({}, { id: 'c' });
    const b = unit({}, { id: 'b', relays: [rule(null, null, 'c', 1)] });
    const a = unit({}, { id: 'a', relays: [rule(null, null, 'b', 1)] });
    expect(relayOrder({ ports: [], units: [c, b, a] }).map((u) => u.id)).toEqual(['a', 'b', 'c']);
    const back = { ...c, relays: [rule(null, null, 'a', 1)] };
    expect(relayOrder({ ports: [], units: [back, b, a] })).toHaveLength(3);
    const fold = foldOf(a, b, back);
    expandAim(fold, a, 1, { slot: 5, controls: {} }, 'changes', false);
    expect(fold.get('c').slot).toBe(1);
  });
});
