import { paced, plainPort } from '../testing/paced';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { INQUIRY } from '../midi';
import type { Profile } from '../addressing';
import { type RigSpec, type UnitSpec } from '../rig';
import { modelerProfile } from '../testing/rigs';
import { EventQueue } from '../rig';
import { SimulatedRig } from './rig';
import type { TraceEntry } from './trace';
import { runs } from '../testing/runs';

const unit = (id: string, rest: Partial<UnitSpec> = {}): UnitSpec => ({
  id,
  input: { from: 'port', portId: 'p' },
  listens: 1,
  profile: modelerProfile,
  ...paced(modelerProfile),
  returns: null,
  starts: {},
  relays: [],
  ...rest,
});
const rigOf = (units: readonly UnitSpec[], cable: 'din' | 'usb' = 'din'): RigSpec => ({
  ports: [plainPort('p', cable)],
  units,
});
const profile = (change: Partial<Profile>): Profile => ({ ...modelerProfile, ...change });

/** Sends messages at their times and lets everything happen. */
function run(spec: RigSpec, ...sent: readonly (readonly [at: number, ...bytes: number[]])[]): SimulatedRig {
  const rig = new SimulatedRig(spec);
  for (const [at, ...bytes] of sent) rig.send('p', at, bytes);
  rig.settle();
  return rig;
}
const changes = (rig: SimulatedRig, id: string) =>
  rig.trace.filter((t): t is Extract<TraceEntry, { kind: 'changed' }> => t.kind === 'changed' && t.unitId === id);
const ignored = (rig: SimulatedRig) =>
  rig.trace.filter((t): t is Extract<TraceEntry, { kind: 'ignored' }> => t.kind === 'ignored').map((t) => t.why);

const BANK = [0xb0, 0, 0] as const;

describe('a simulated unit', () => {
  it('loads a preset in its own time, and is silent about slots while the bank is not known', () => {
    const rig = run(rigOf([unit('a')]), [0, ...BANK], [1000, 0xc0, 47]);
    expect(changes(rig, 'a').at(-1)).toMatchObject({ at: 1000 + 640 + 180_000, state: { slot: 47 } });
    const unknown = run(rigOf([unit('a')]), [0, 0xc0, 47]);
    expect(unknown.state().a!.slot).toBeNull();
  });

  it('takes a variant that comes while it loads when the preset is there', () => {
    const rig = run(rigOf([unit('a')]), [0, ...BANK], [960, 0xc0, 47], [100_000, 0xb0, 85, 2]);
    expect(changes(rig, 'a').map((c) => [c.at, c.state.slot, c.state.variant])).toEqual([
      [181_600, 47, 'stored'],
      [181_600, 47, 2],
    ]);
  });

  it('ignores what comes while it settles, or keeps it for later, as its profile says', () => {
    const early = [
      [0, ...BANK],
      [960, 0xc0, 47],
      [20_000, 0xb0, 85, 2],
    ] as const;
    const deaf = run(rigOf([unit('a')]), ...early);
    expect(ignored(deaf)).toEqual(['settling']);
    expect(deaf.state().a!.variant).toBe('stored');
    const patient = run(rigOf([unit('a', { profile: profile({ whileSettling: 'queue' }) })]), ...early);
    expect(ignored(patient)).toEqual([]);
    expect(patient.state().a!.variant).toBe(2);
  });

  it('takes what waited in the order in which it came, also when more comes at that very moment', () => {
    const patient = unit('a', { profile: profile({ whileSettling: 'queue' }) });
    const settled = 640 + patient.pace.settle;
    // The last of these is there when the unit has just settled.
    const rig = run(rigOf([patient]), [0, 0xc0, 47], [5000, 0xb0, 52, 127], [settled - 960, 0xb0, 52, 0]);
    const values = changes(rig, 'a').map((c) => c.state.controls.delay);
    expect(values.at(-1)).toBe(0);
    expect(rig.trace.filter((t) => t.kind === 'arrived').map((t) => t.bytes.at(-1))).toEqual([47, 127, 0]);
  });

  it('lets a second recall take the place of the first', () => {
    const rig = run(rigOf([unit('a')]), [0, ...BANK], [960, 0xc0, 47], [90_000, 0xc0, 48]);
    expect(changes(rig, 'a').map((c) => c.state.slot)).toEqual([48]);
  });

  it('forgets controls that a preset brings, or keeps them, as its profile says', () => {
    const sent = [
      [0, ...BANK],
      [1000, 0xb0, 52, 127],
      [10_000, 0xc0, 47],
    ] as const;
    expect(run(rigOf([unit('a')]), ...sent).state().a!.controls.delay).toBe('stored');
    const keeps = unit('a', { profile: profile({ recallLoads: { variant: false, controls: false } }) });
    expect(run(rigOf([keeps]), ...sent).state().a).toMatchObject({ slot: 47, variant: null, controls: { delay: 1 } });
  });

  it('knows the variant that a slot starts with where the map says it', () => {
    const rig = run(
      rigOf([unit('a', { starts: { 47: { variant: 5, controls: {} } } })]),
      [0, ...BANK],
      [960, 0xc0, 47],
    );
    expect(rig.state().a!.variant).toBe(5);
  });

  it('ignores other channels, unless it listens to all', () => {
    const rig = run(rigOf([unit('a', { listens: 2 }), unit('b', { listens: 'all' })]), [0, ...BANK], [960, 0xc0, 3]);
    expect(rig.state().a!.slot).toBeNull();
    expect(rig.state().b!.slot).toBe(3);
    expect(ignored(rig)).toEqual(['other-channel', 'other-channel']);
  });

  it('has no slot for a program past its last', () => {
    const rig = run(rigOf([unit('a')]), [0, 0xb0, 0, 1], [960, 0xc0, 100]);
    expect(ignored(rig)).toEqual(['no-such-slot']);
    expect(changes(rig, 'a')).toEqual([]);
  });

  it('makes nothing of controls that it has not', () => {
    expect(ignored(run(rigOf([unit('a')]), [0, 0xb0, 99, 1], [2000, 0x90, 60, 1], [4000, 0xb0, 85, 9]))).toEqual([
      'not-understood',
      'not-understood',
      'not-understood',
    ]);
  });
});

describe('a unit that is asked who it is', () => {
  const who = { maker: '7D', family: '0300', member: '0000', version: '02010000' };
  const asked = (listens: number | 'all', bytes: readonly number[]) => {
    const a = { ...unit('a'), listens, returns: { portId: 'p', thru: false } };
    const rig = run(rigOf([{ ...a, profile: { ...a.profile, identity: who } }]), [0, ...bytes]);
    return rig.trace.flatMap((t) => (t.kind === 'returned' ? [t.bytes] : []));
  };

  it('answers when all are asked, or its own device id is', () => {
    const answer = [0xf0, 0x7e, 1, 6, 2, 0x7d, 3, 0, 0, 0, 2, 1, 0, 0, 0xf7];
    expect(asked(2, INQUIRY)).toEqual([answer]);
    expect(asked(2, [0xf0, 0x7e, 1, 6, 1, 0xf7])).toEqual([answer]);
    expect(asked(2, [0xf0, 0x7e, 2, 6, 1, 0xf7])).toEqual([]);
    expect(asked('all', INQUIRY)[0]![2]).toBe(0);
  });

  it('says nothing where nobody knows who it is', () => {
    const silent = { ...unit('a'), returns: { portId: 'p', thru: false } };
    expect(run(rigOf([silent]), [0, ...INQUIRY]).trace.some((t) => t.kind === 'returned')).toBe(false);
  });
});

describe('cables', () => {
  it('carry one byte after the other, 320 µs each', () => {
    const rig = run(rigOf([unit('a')]), [0, ...BANK], [0, 0xb0, 52, 127]);
    expect(changes(rig, 'a')[0]).toMatchObject({ at: 1920 + 5000 });
  });

  it('of USB take a frame for everything', () => {
    const rig = run(rigOf([unit('a')], 'usb'), [0, ...BANK], [0, 0xb0, 52, 127]);
    expect(changes(rig, 'a')[0]).toMatchObject({ at: 1000 + 5000 });
  });

  it('that are not there lose what is sent', () => {
    const rig = new SimulatedRig(rigOf([unit('a')]));
    rig.send('elsewhere', 0, [0xc0, 1]);
    rig.settle();
    expect(rig.trace).toMatchObject([{ kind: 'lost', portId: 'elsewhere' }]);
  });

  it('put messages together from single bytes with running status', () => {
    const rig = run(rigOf([unit('a')]), [0, 0xb0], [400, 52], [800, 127], [2000, 53, 0]);
    expect(rig.state().a!.controls).toEqual({ delay: 1, mix: 0 });
  });
});

describe('units behind units', () => {
  const far = (thru: boolean): UnitSpec => unit('far', { input: { from: 'unit', unitId: 'a', thru }, listens: 2 });
  const relays = [
    {
      slot: 47,
      variant: null,
      toUnit: 'far',
      messages: [
        [0xb1, 0, 0],
        [0xc1, 9],
      ],
    },
  ];

  it('hear what the unit before them passes on, a message later', () => {
    const rig = run(rigOf([unit('a'), far(true)]), [0, 0xb1, 52, 127]);
    expect(changes(rig, 'far')[0]).toMatchObject({ at: 960 + 960 + 5000 });
    expect(run(rigOf([unit('a'), far(false)]), [0, 0xb1, 52, 127]).state().far!.controls).toEqual({});
  });

  it('are told by relay rules when the unit before them is there', () => {
    const rig = run(rigOf([unit('a', { relays }), far(false)]), [0, ...BANK], [960, 0xc0, 47]);
    const there = 1600 + 180_000;
    expect(changes(rig, 'far')).toMatchObject([{ at: there + 960 + 640 + 180_000, state: { slot: 9 } }]);
  });

  it('come to an end also where rules run in a circle', () => {
    const back = unit('b', {
      input: { from: 'unit', unitId: 'a', thru: false },
      listens: 1,
      pace: { recall: 0, variant: 0, control: 0, settle: 0, thru: 0, slots: {} },
      relays: [{ slot: null, variant: null, toUnit: 'a', messages: [[0xc0, 1]] }],
    });
    const circle = { ...back, id: 'a', input: { from: 'unit', unitId: 'b', thru: false } } as const;
    const rig = new SimulatedRig({
      ports: [plainPort('p', 'din')],
      units: [{ ...circle, input: { from: 'port', portId: 'p' } }, back, { ...circle, id: 'c' }],
    });
    rig.send('p', 0, [0xc0, 1]);
    rig.settle();
    expect(rig.trace.length).toBeLessThan(2000);
  });
});

describe('time', () => {
  it('goes only as far as it is let', () => {
    const rig = new SimulatedRig(rigOf([unit('a')]));
    rig.send('p', 0, [...BANK, 0xc0, 47]);
    rig.advance(180_000);
    expect(rig.state().a!.slot).toBeNull();
    expect(rig.loading('a', 180_000)).toBe(true);
    rig.advance(181_600);
    expect(rig.state().a!.slot).toBe(47);
    expect(rig.loading('a', 181_600)).toBe(false);
  });

  it('takes what happens at once in the order in which it was put in', () => {
    fc.assert(
      fc.property(fc.array(fc.nat(20), { maxLength: 60 }), (times) => {
        const queue = new EventQueue();
        const seen: (readonly [number, number])[] = [];
        for (const [i, at] of times.entries()) queue.push(at, () => seen.push([at, i]));
        queue.runUntil(100);
        expect(seen).toEqual(times.map((at, i) => [at, i] as const).sort((a, b) => a[0] - b[0] || a[1] - b[1]));
      }),
      { seed: 81 },
    );
  });

  it('survives any bytes at any time', () => {
    fc.assert(
      fc.property(fc.array(fc.record({ at: fc.nat(1_000_000), byte: fc.nat(255) }), { maxLength: 300 }), (noise) => {
        const rig = new SimulatedRig(
          rigOf([unit('a'), unit('far', { input: { from: 'unit', unitId: 'a', thru: true }, listens: 'all' })]),
        );
        for (const { at, byte } of noise.toSorted((x, y) => x.at - y.at)) rig.send('p', at, [byte]);
        rig.settle();
        expect(rig.state().a).toBeDefined();
      }),
      runs(82, 300),
    );
  });
});
