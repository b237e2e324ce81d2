import { describe, expect, it } from 'vitest';
import { exactly, timesFrom, type Profile } from '../addressing';
import type { Bytes, TimedBytes } from '../midi';
import type { RelaySpec, UnitAim, UnitSpec, Wanted } from '../rig';
import { paced, plainPort } from '../testing/paced';
import { modelerProfile } from '../testing/rigs';
import { dryRun } from './dryRun';
import type { Verdict } from './verdict';

const MS = 1000;
const DUE = 1_000_000;

/** Recall 180 ms, settling 40, variant 12, control 5; numbers from 0, no banks unless they are asked for. */
const profile: Profile = {
  ...modelerProfile,
  plan: { ...modelerProfile.plan, groups: [modelerProfile.plan.groups[0]!], bank: { send: 'none', when: 'always' } },
};
const unit = (id: string, rest: Partial<UnitSpec> = {}, change: Partial<Profile> = {}): UnitSpec => {
  const own = { ...profile, ...change };
  const input = { from: 'port', portId: 'p' } as const;
  return { id, input, listens: 1, profile: own, ...paced(own), returns: null, starts: {}, relays: [], ...rest };
};

const at = (time: number, cueId: string, ...bytes: Bytes): TimedBytes => ({
  at: time,
  portId: 'p',
  bytes,
  cueId,
  unitId: 'a',
});
const want = (cueId: string, state: Partial<UnitAim>, rest: Partial<Wanted> = {}): Wanted => ({
  cueId,
  unitId: 'a',
  due: DUE,
  landing: 'complete',
  relayed: false,
  guard: 0,
  aim: { kind: 'state', state: { controls: {}, ...state }, reload: false },
  ...rest,
});

/** What becomes of the last of the wants, with what it bears. */
function judged(units: readonly UnitSpec[], events: readonly TimedBytes[], wants: readonly Wanted[]): Verdict {
  const { verdicts } = dryRun({ ports: [plainPort('p', 'din')], units }, events, wants, { margins: true });
  return verdicts.find((v) => v.cueId === wants.at(-1)!.cueId && v.unitId === wants.at(-1)!.unitId)!;
}

/** A program change takes 640 us on the cable. */
const PROGRAM = 640;
const loads = (slot: number, cue: string, there: number): TimedBytes => at(there - 180 * MS - PROGRAM, cue, 0xc0, slot);

describe('what a change bears also stands on', () => {
  it('the silence of the next preset: sent sooner than by that, it is not there on its beat', () => {
    const events = [loads(5, 'c', DUE - 5 * MS), at(DUE, 'd', 0xc0, 6)];
    const { outcome, margin } = judged([unit('a')], events, [want('c', { slot: 5 })]);
    expect(outcome).toBe('on-time');
    expect(margin!.sooner).toBeCloseTo(PROGRAM, 0);
    expect(margin!.later).toBeCloseTo(5 * MS + PROGRAM, 0);
    const heard = judged([unit('a', {}, { silentInGap: false })], events, [want('c', { slot: 5 })]);
    expect(heard.margin!.sooner).toBe(Number.POSITIVE_INFINITY);
  });

  it('the bank that an earlier cue chose, right behind the settling of what that called', () => {
    const bank = { send: 'msb', when: 'differs' } as const;
    const banked = unit('a', {}, { plan: { ...modelerProfile.plan, bank } });
    const events = [
      at(0, 'a', 0xb0, 0, 0),
      at(960, 'a', 0xc0, 5),
      // The bank comes 1 ms after the unit accepts again: 960 us of cable, 40 ms of settling.
      at(960 + PROGRAM + 40 * MS + MS - 960, 'b', 0xb0, 0, 1),
      at(300 * MS, 'b', 0xc0, 6),
      loads(7, 'c', DUE - 20 * MS),
    ];
    const { outcome, margin } = judged([banked], events, [want('c', { slot: 135 })]);
    expect(outcome).toBe('on-time');
    expect(margin).toMatchObject({ laterBecomes: 'lost', slowerBecomes: 'lost' });
    expect(margin!.later).toBeCloseTo(MS, 0);
  });

  it('what was set again after a preset wiped it, for whatever cue that was', () => {
    const controls = { variant: false, controls: true };
    const kept = unit('a', {}, { recallLoads: controls });
    const events = [
      loads(5, 'a', 200 * MS),
      at(100 * MS, 'a', 0xb0, 52, 127),
      // Called again, which turns it off, and on again 3 ms after the unit accepts it.
      loads(5, 'b', 500 * MS),
      at(320 * MS + 43 * MS - 960, 'b', 0xb0, 52, 127),
    ];
    const { outcome, margin } = judged([kept], events, [
      want('a', { slot: 5, controls: { delay: 1 } }, { due: 250 * MS }),
      want('c', { slot: 5, controls: { delay: 1 } }),
    ]);
    expect(outcome).toBe('on-time');
    expect(margin!.later).toBeCloseTo(3 * MS, 0);
    expect(margin!.laterBecomes).toBe('lost');
  });
});

describe('behind a unit that tells another', () => {
  const rule: RelaySpec = { slot: null, variant: null, toUnit: 'b', messages: [[0xc1, 9]] };
  const teller = (rest: Partial<UnitSpec> = {}): UnitSpec => unit('a', { relays: [rule], ...rest });
  const input = { from: 'unit', unitId: 'a', thru: true } as const;
  const told = (change: Partial<Profile> = {}): UnitSpec => unit('b', { input, listens: 2 }, change);
  const wanted = (rest: Partial<Wanted> = {}): Wanted =>
    want('c', { slot: 9 }, { unitId: 'b', relayed: true, ...rest });

  it('a change bears what the preset bears that is told', () => {
    const events = [
      loads(5, 'c', DUE - 200 * MS),
      // 2 ms after the preset is there another is called, which would take its place.
      at(DUE - 198 * MS - PROGRAM, 'd', 0xc0, 6),
    ];
    const only = { relays: [{ ...rule, slot: 5 }] };
    const { outcome, margin } = judged([teller(only), told()], events, [wanted()]);
    expect(outcome).toBe('on-time');
    expect(margin!.later).toBeCloseTo(2 * MS, 0);
    expect(margin!.laterBecomes).toBe('lost');
  });

  it('a change bears what keeps another preset from being told', () => {
    const fast = timesFrom({ recall: 20, variant: 12, control: 5, settle: 1 }, exactly);
    const events = [
      // Another is called 1.5 ms before this one is there: it is never told.
      loads(5, 'x', DUE - 20 * MS),
      at(DUE - 21.5 * MS - PROGRAM, 'y', 0xc0, 6),
      { ...at(DUE - 60 * MS, 'c', 0xc1, 9), unitId: 'b' },
    ];
    const { outcome, margin } = judged([teller(), told({ times: fast })], events, [
      want('c', { slot: 9 }, { unitId: 'b' }),
    ]);
    expect(outcome).toBe('on-time');
    expect(margin!.later).toBeCloseTo(1.5 * MS, 0);
    expect(margin!.laterBecomes).toBe('lost');
  });

  it('a message that is held back comes after the preset that is told, or it is wiped', () => {
    const queues = { whileSettling: 'queue' as const };
    const there = DUE - 200 * MS;
    const relayed = there + PROGRAM;
    // 3 ms after the told preset came; the cable and the thru take 960 us each.
    const events = [loads(5, 'c', there), { ...at(relayed + 3 * MS - 1920, 'c', 0xb1, 52, 127), unitId: 'b' }];
    const { outcome, margin } = judged([teller(), told(queues)], events, [
      wanted({ aim: { kind: 'state', reload: false, state: { slot: 9, controls: { delay: 1 } } } }),
    ]);
    expect(outcome).toBe('on-time');
    expect(margin!.later).toBeLessThanOrEqual(3 * MS);
    expect(margin!.laterBecomes).toBe('lost');
  });
});

describe('a preset that is called again', () => {
  it('is not there while the next one loads in silence, though nothing else has changed', () => {
    // Slot 6 never comes: 5 is called again before it is there, and the delay that comes meanwhile changes nothing of that.
    const events = [
      loads(5, 'a', 300 * MS),
      at(DUE - 100 * MS, 'b', 0xc0, 6),
      at(DUE + 10 * MS, 'c', 0xc0, 5),
      at(DUE + 60 * MS, 'c', 0xb0, 52, 127),
    ];
    const { outcome, offset } = judged([unit('a')], events, [
      want('a', { slot: 5 }, { due: 400 * MS }),
      want('c', { slot: 5 }, { landing: 'sent' }),
    ]);
    expect(outcome).toBe('on-time');
    expect(offset).toBeCloseTo(10 * MS + PROGRAM + 180 * MS, 0);
  });
});
