import { paced, plainPort } from '../testing/paced';
import { describe, expect, it } from 'vitest';
import { UNKNOWN_STATE, type RigSpec, type UnitSpec, type UnitState } from '../rig';
import { modelerProfile } from '../testing/rigs';
import { SimulatedRig } from './rig';
import { tailsLost, tailsOf } from './tails';

const profile = {
  ...modelerProfile,
  effects: [
    { id: 'delay', name: 'Delay', cut: 'delay', ring: 'input' },
    { id: 'chorus', name: 'Chorus', cut: 'chorus', ring: null },
  ],
};
const state = (controls: UnitState['controls']): UnitState => ({ ...UNKNOWN_STATE, controls });
const on = state({ delay: 1, input: 1, chorus: 1 });

describe('trails', () => {
  it('are cut by the effect’s own switch and left to ring by its input', () => {
    expect(tailsOf(profile, on, state({ delay: 0, input: 1, chorus: 1 }))).toEqual([{ effectId: 'delay', how: 'cut' }]);
    expect(tailsOf(profile, on, state({ delay: 1, input: 0, chorus: 1 }))).toEqual([
      { effectId: 'delay', how: 'rings' },
    ]);
    expect(tailsOf(profile, on, state({ delay: 1, input: 1, chorus: 0 }))).toEqual([
      { effectId: 'chorus', how: 'cut' },
    ]);
    expect(tailsOf(profile, state({ delay: 1, input: 0 }), state({ delay: 0, input: 0 }))).toEqual([
      { effectId: 'delay', how: 'cut' },
    ]);
  });

  it('are said of nothing that was not known to sound', () => {
    expect(tailsOf(profile, UNKNOWN_STATE, state({ delay: 0, input: 0, chorus: 0 }))).toEqual([]);
    expect(tailsOf(profile, state({ delay: 'stored' }), state({ delay: 0 }))).toEqual([]);
    expect(tailsOf(profile, on, on)).toEqual([]);
  });

  it('are lost to a preset that loads in silence', () => {
    expect(tailsLost({ ...profile, silentInGap: true }, on).map((t) => t.effectId)).toEqual(['delay', 'chorus']);
    expect(tailsLost({ ...profile, silentInGap: false }, on)).toEqual([]);
    expect(tailsLost({ ...profile, silentInGap: true }, UNKNOWN_STATE)).toEqual([]);
  });

  it('are in the trace of a rig when their time comes', () => {
    const unit: UnitSpec = {
      id: 'a',
      input: { from: 'port', portId: 'p' },
      listens: 1,
      profile: { ...profile, effects: [{ id: 'delay', name: 'Delay', cut: 'delay', ring: null }], silentInGap: true },
      ...paced(profile),
      returns: null,
      starts: {},
      relays: [],
    };
    const spec: RigSpec = { ports: [plainPort('p', 'din')], units: [unit] };
    const rig = new SimulatedRig(spec);
    const delay = profile.controls.find((c) => c.id === 'delay')!;
    if (delay.encoding.kind !== 'set-switch') throw new Error('the delay is a switch');
    rig.send('p', 0, [0xb0, delay.encoding.number, 127]);
    rig.send('p', 100_000, [0xb0, 0, 0]);
    rig.send('p', 100_960, [0xc0, 3]);
    rig.settle();
    expect(rig.trace.filter((t) => t.kind === 'tail')).toEqual([
      { kind: 'tail', at: 101_600, unitId: 'a', tail: { effectId: 'delay', how: 'cut' } },
    ]);
  });
});
