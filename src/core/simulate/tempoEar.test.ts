import { paced, plainPort } from '../testing/paced';
import { describe, expect, it } from 'vitest';
import { newControl } from '../addressing';
import { type RigSpec, type UnitSpec, type Wanted } from '../rig';
import type { TimedBytes } from '../midi';
import { verdictSentence } from '../../wording';
import { modelerProfile } from '../testing/rigs';
import { ClockEar, TapEar } from './tempoEar';
import { dryRun } from './dryRun';
import type { Verdict } from './verdict';

describe('a unit that is tapped', () => {
  it('takes the mean of the last three intervals', () => {
    const ear = new TapEar();
    expect(ear.hear(0)).toBeUndefined();
    expect(ear.hear(500_000)).toEqual({ by: 'taps', interval: 500_000, from: 2 });
    expect(ear.hear(1_010_000)!.interval).toBe(505_000);
    expect(ear.hear(1_500_000)).toEqual({ by: 'taps', interval: 500_000, from: 4 });
    // The first tap is forgotten by now.
    expect(ear.hear(2_030_000)).toEqual({ by: 'taps', interval: 510_000, from: 4 });
  });

  it('begins anew after a pause that is longer than the slowest beat', () => {
    const ear = new TapEar();
    ear.hear(0);
    expect(ear.hear(3_000_000)!.interval).toBe(3_000_000);
    expect(ear.hear(6_400_000)).toBeUndefined();
    expect(ear.hear(6_900_000)).toEqual({ by: 'taps', interval: 500_000, from: 2 });
  });
});

describe('a unit that follows a clock', () => {
  it('has the tempo after each whole quarter, counted from start', () => {
    const ear = new ClockEar();
    const heard: unknown[] = [];
    for (let i = 0; i < 5; i++) ear.hear(i * 7000, [0xf8]);
    ear.hear(99_000, [0xfa]);
    for (let i = 0; i <= 48; i++) {
      const tempo = ear.hear(100_000 + i * 20_000, [0xf8]);
      if (tempo) heard.push([i, tempo]);
    }
    const quarter = { by: 'clock', interval: 480_000, from: 24 };
    expect(heard).toEqual([
      [24, quarter],
      [48, quarter],
    ]);
    expect(ear.hear(0, [0xfe])).toBeUndefined();
  });
});

const tap = newControl('tap', 'Tap tempo', { kind: 'tap', number: 64, values: [127] });
const unit: UnitSpec = {
  id: 'a',
  input: { from: 'port', portId: 'p' },
  listens: 1,
  profile: { ...modelerProfile, controls: [...modelerProfile.controls, tap] },
  ...paced(modelerProfile),
  returns: null,
  starts: {},
  relays: [],
};
const spec: RigSpec = { ports: [plainPort('p', 'din')], units: [unit] };
const at = (time: number, ...bytes: number[]): TimedBytes => ({
  at: time,
  portId: 'p',
  bytes,
  cueId: 't',
  unitId: 'a',
});
const tempo = (due: number, by: 'taps' | 'clock'): Wanted => ({
  cueId: 't',
  unitId: 'a',
  due,
  landing: 'sent',
  relayed: false,
  guard: 0,
  aim: { kind: 'tempo', by, interval: 500_000 },
});
const taps = (count: number, apart: number): TimedBytes[] =>
  Array.from({ length: count }, (_, i) => at(i * apart, 0xb0, 64, 127));
const judge = (events: readonly TimedBytes[], wanted: Wanted): Verdict => dryRun(spec, events, [wanted]).verdicts[0]!;
const says = (v: Verdict): string =>
  verdictSentence(v, { name: 'Thistle', profile: { ...modelerProfile, ...unit.profile } });

describe('a verdict on a tempo', () => {
  it('is well with four taps that are right to one per cent', () => {
    expect(judge(taps(4, 500_000), tempo(1_500_000, 'taps')).outcome).toBe('on-time');
    expect(judge(taps(4, 504_500), tempo(1_513_500, 'taps')).outcome).toBe('on-time');
    const off = judge(taps(4, 506_000), tempo(1_518_000, 'taps'));
    expect(off).toMatchObject({ outcome: 'never', reason: { kind: 'other-tempo', heard: 506_000, from: 4 } });
    expect(says(off)).toBe('Thistle never gets there: it takes the tempo to be 118.6 instead of 120.0.');
  });

  it('is not with fewer, or with none', () => {
    expect(says(judge(taps(3, 500_000), tempo(1_000_000, 'taps')))).toContain(
      'it heard only 3 taps before the tempo changes, and four are needed for 120.0',
    );
    expect(says(judge([], tempo(1_500_000, 'taps')))).toContain('it heard no taps');
    expect(says(judge([], tempo(1_500_000, 'clock')))).toContain('it heard no tempo, and 120.0 is wanted');
  });

  it('measures a clock in spite of what shares its cable', () => {
    const clocks = (apart: number) => Array.from({ length: 25 }, (_, i) => at(i * apart, 0xf8));
    expect(judge(clocks(500_000 / 24), tempo(500_000, 'clock'))).toMatchObject({ outcome: 'on-time' });
    expect(judge(clocks(520_000 / 24), tempo(520_000, 'clock')).outcome).toBe('never');
    // A long message before the last clock holds it up by more than a hundredth of a quarter.
    const held = [
      ...clocks(500_000 / 24).slice(0, 24),
      at(499_000, 0xf0, ...Array.from({ length: 40 }, () => 1), 0xf7),
    ];
    expect(judge([...held, at(500_000, 0xf8)], tempo(500_000, 'clock')).outcome).toBe('never');
  });
});
