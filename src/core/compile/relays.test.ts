import { timesFrom, exactly } from '../addressing';
import { describe, expect, it } from 'vitest';
import type { Profile } from '../addressing';
import { rigSpec, songWants, toneAims } from '../meaning';
import {
  messageCue,
  newPart,
  newSong,
  newTone,
  toneCue,
  type Cue,
  type Relay,
  type Show,
  type Song,
  type TonePart,
  type Unit,
} from '../show';
import { SimulatedRig, dryRun, type Verdict } from '../simulate';
import { modelerProfile, testShow, testUnit } from '../testing/rigs';
import { catchUp, stateAt } from './catchUp';
import { compileSong, problemsOf } from './compileSong';

/** A modeler that tells an amplifier behind it which state to go to. */
const rule = (slot: number | null, variant: number | null, to: number, id = `r${slot}-${variant}`): Relay => ({
  id,
  when: { slotId: slot === null ? null : `u0-s${slot}`, variant },
  toUnitId: 'far',
  toSlotId: `far-s${to}`,
});

/** Times of which none varies, a recall and the settling after it given in milliseconds. */
const taking = (recall: number, settle: number) => timesFrom({ recall, variant: 0, control: 5, settle }, exactly);

const ampProfile: Profile = {
  ...modelerProfile,
  variants: null,
  times: taking(60, 20),
};

function rigWith(relays: readonly Relay[], amp: Partial<Profile> = {}, rest: Partial<Unit> = {}): Unit[] {
  const behind = { input: { from: 'unit', unitId: 'u0', thru: false } as const, ...rest };
  return [
    testUnit('u0', 1, modelerProfile, { relays: [...relays] }),
    testUnit('far', 2, { ...ampProfile, ...amp }, behind),
  ];
}

const on = (slot: number | null, variant: number | null = null, unitId = 'u0'): TonePart =>
  newPart(unitId, { slotId: slot === null ? null : `${unitId}-s${slot}`, variant });

function played(
  units: readonly Unit[],
  tones: Readonly<Record<string, readonly TonePart[]>>,
  cues: readonly Cue[],
  change: Partial<Song> = {},
  cable: 'din' | 'usb' = 'din',
): {
  show: Show;
  song: Song;
  verdicts: readonly Verdict[];
  rig: SimulatedRig;
  events: ReturnType<typeof compileSong>['events'];
} {
  const song: Song = { ...newSong('s', 'S', { bars: 64 }), cues: [...cues], ...change };
  const list = Object.entries(tones).map(([id, parts]) => newTone(id, id, parts));
  const show: Show = { ...testShow(units, cable), tones: list, songs: [song] };
  const { events } = compileSong(show, song);
  const rig = new SimulatedRig(rigSpec(show));
  for (const e of events) rig.send(e.portId, e.at, e.bytes);
  rig.settle();
  return { show, song, events, rig, verdicts: dryRun(rigSpec(show), events, songWants(show, song)).verdicts };
}
const of = (verdicts: readonly Verdict[], cueId: string, unitId: string): Verdict =>
  verdicts.find((v) => v.cueId === cueId && v.unitId === unitId)!;

describe('cues whose shifts cross', () => {
  const tones = { a: [on(9)], b: [on(18)] };
  const cues = [toneCue('x', 960, 'a', { shift: 900 }), toneCue('y', 1920, 'b')];

  it('happen in the order in which they are due', () => {
    const { events, rig, show, song, verdicts } = played([testUnit('u0', 1, modelerProfile)], tones, cues);
    expect(events.filter((e) => e.bytes[0] === 0xc0).map((e) => [e.cueId, e.bytes[1]])).toEqual([
      ['y', 18],
      ['x', 9],
    ]);
    expect(verdicts.map((v) => [v.cueId, v.outcome])).toEqual([
      ['y', 'on-time'],
      ['x', 'on-time'],
    ]);
    expect(rig.state().u0!.slot).toBe(9);
    expect(stateAt(show, song, 1e6).u0!.slot).toBe(9);
    // Between the two, at 1.2 s, the second is on.
    expect(stateAt(show, song, 2304).u0!.slot).toBe(18);
  });

  it('stay in the order of the song where they are due at once', () => {
    const { rig } = played([testUnit('u0', 1, modelerProfile)], tones, [
      toneCue('x', 960, 'a', { shift: 500 }),
      toneCue('y', 1920, 'b'),
    ]);
    expect(rig.state().u0!.slot).toBe(18);
  });
});

describe('what a variant tells while its preset loads', () => {
  const units = rigWith([rule(9, 3, 18)]);
  const tones = { a: [on(9, 3)] };

  it('is there on the beat: its time is carried back to the recall', () => {
    const { events, verdicts } = played(units, tones, [toneCue('x', 9600, 'a')]);
    expect(of(verdicts, 'x', 'far')).toMatchObject({ outcome: 'on-time' });
    expect(Math.abs(of(verdicts, 'x', 'far').offset!)).toBeLessThan(0.01);
    // Loading 180 ms, then 1.6 ms of bank and program to the amplifier, and its 60.
    const recall = events.find((e) => e.bytes[0] === 0xc0)!;
    expect(recall.at).toBeCloseTo(5e6 - 180_000 - 1600 - 60_000 - 640, 3);
  });

  it('also in an opening, given the time', () => {
    const { verdicts } = played(units, tones, [], { openingToneId: 'a' });
    expect(verdicts.map((v) => v.outcome)).toEqual(['on-time', 'on-time']);
  });

  it('is due, where the change is sent on its beat, when it was told and its own time has passed', () => {
    const { verdicts } = played(units, tones, [toneCue('x', 9600, 'a', { landing: 'sent' })]);
    const far = of(verdicts, 'x', 'far');
    // Bank and program of the modeler, its loading, 1.6 ms of wire, 60 ms of the amplifier.
    expect(far.due).toBeCloseTo(5e6 + 1600 + 180_000 + 1600 + 60_000, 3);
    expect(far).toMatchObject({ outcome: 'on-time' });
  });

  it('belongs to a tone that names the variant alone, where the preset is on', () => {
    const { verdicts, rig } = played(units, { a: [on(9)], b: [on(null, 3)], c: [on(18)] }, [
      toneCue('x', 9600, 'a'),
      toneCue('y', 19200, 'b'),
      toneCue('z', 28800, 'c'),
      toneCue('w', 38400, 'b'),
    ]);
    expect(of(verdicts, 'y', 'far')).toMatchObject({ outcome: 'on-time' });
    expect(of(verdicts, 'w', 'far')).toBeUndefined();
    expect(rig.state().far!.slot).toBe(18);
  });
});

describe('two rules of one change that call one unit', () => {
  const rules = [rule(9, 3, 27), rule(9, null, 18)];
  const tones = { a: [on(9, 3)] };

  it.each([
    ['ignores what comes while it settles', 'ignore', 18],
    ['takes it when it is ready', 'queue', 27],
  ] as const)('are carried out slot first; the unit that is told %s', (_, whileSettling, slot) => {
    const { show, song, rig, verdicts } = played(rigWith(rules, { whileSettling }), tones, [toneCue('x', 9600, 'a')]);
    expect(rig.state().far!.slot).toBe(slot);
    expect(stateAt(show, song, 1e6).far!.slot).toBe(slot);
    expect(toneAims(show, show.tones[0]!).get('far')!.slot).toBe(slot);
    expect(of(verdicts, 'x', 'far')).toMatchObject({ outcome: 'on-time' });
  });
});

describe('a reload', () => {
  const slow: Partial<Profile> = { times: taking(200, 20) };
  const reloading = (at: number): Cue => ({
    ...toneCue('again', at, 'a'),
    action: { kind: 'tone', toneId: 'a', reload: true },
  });

  it('is late on the unit that its rules load again, where there is no room before the beat', () => {
    const quick = { ...modelerProfile, times: timesFrom({ recall: 10, variant: 0, control: 0, settle: 0 }, exactly) };
    const [u0, far] = rigWith([rule(9, null, 18)], slow);
    // 11.5 ms after the first cue: just enough for the first unit. The other falls silent a hair after the beat.
    const { verdicts } = played([{ ...u0!, profile: quick }, far!], { a: [on(9)] }, [
      toneCue('x', 9600, 'a'),
      reloading(9622),
    ]);
    expect(of(verdicts, 'again', 'u0').outcome).toBe('on-time');
    const late = of(verdicts, 'again', 'far');
    expect(late.outcome).toBe('late');
    // A program's wire, 10 ms of loading, a bank and a program's wire, then 200 ms, less the 11.458 ms between both cues.
    expect(late.offset! / 1000).toBeCloseTo(0.64 + 10 + 1.6 + 200 - 11.458, 2);
  });

  it('is on time on the unit that its rules load again, given the room', () => {
    const { verdicts } = played(rigWith([rule(9, null, 18)], slow), { a: [on(9)] }, [
      toneCue('x', 9600, 'a'),
      reloading(19200),
    ]);
    expect(of(verdicts, 'again', 'far')).toMatchObject({ outcome: 'on-time', reason: { kind: 'as-wanted' } });
  });

  it('wants a unit that only rules reach loaded again, where the tone names its preset too', () => {
    const { show, song } = played(
      rigWith([rule(9, null, 18)], slow),
      { a: [on(9), on(18, null, 'far')], b: [on(18, null, 'far')] },
      [
        toneCue('x', 9600, 'a'),
        reloading(19200),
        { ...reloading(28800), id: 'alone', action: { kind: 'tone', toneId: 'b', reload: true } },
      ],
    );
    const reloads = songWants(show, song).map((w) => [w.cueId, w.unitId, w.aim.kind === 'state' && w.aim.reload]);
    expect(reloads).toContainEqual(['again', 'far', true]);
    // Nothing calls it then, so nothing can load it again: that it is on has to do.
    expect(reloads).toContainEqual(['alone', 'far', false]);
  });
});

describe('two rules of one change that call presets of two banks', () => {
  // The amplifier is ready again just as the second program arrives, while the bank ahead of that one still waits.
  it.each([
    ['at once', 1.6, { recall: 180, settle: 40, variant: 0, control: 0 }],
    ['one by the recall, one by the variant behind it', 40, { recall: 60, settle: 100, variant: 0, control: 0 }],
  ])('reads each bank with its program in a unit that queues, in the song as on the wire: %s', (_, settle, times) => {
    const [u0, far] = rigWith([rule(9, null, 135), rule(9, 3, 18)], {
      whileSettling: 'queue',
      times: taking(60, settle),
    });
    const keeps = settle < 40;
    const recallLoads = { variant: !keeps, controls: false };
    const profile = { ...modelerProfile, times: timesFrom(times, exactly), recallLoads };
    const { show, song, rig, verdicts } = played([{ ...u0!, profile }, far!], { v: [on(0, 3)], a: [on(9, 3)] }, [
      toneCue('x', 9600, 'v'),
      toneCue('y', 19200, 'a'),
    ]);
    expect(rig.state().far).toMatchObject({ slot: 18, bank: 0 });
    expect(stateAt(show, song, 1e6).far).toMatchObject({ slot: 18, bank: 0 });
    expect(of(verdicts, 'y', 'far').outcome).toBe('on-time');
  });
});

describe('a program number that calls no slot', () => {
  it('changes nothing, in the song as in the unit', () => {
    const { show, song, rig } = played([testUnit('u0', 1, modelerProfile)], { a: [on(9, 2)] }, [
      toneCue('x', 960, 'a'),
      messageCue('bank', 4800, 'u0', 'b00001'),
      messageCue('none', 4810, 'u0', 'c064'),
    ]);
    expect(rig.state().u0).toMatchObject({ slot: 9, variant: 2, bank: 1 });
    expect(stateAt(show, song, 1e6).u0).toMatchObject({ slot: 9, variant: 2, bank: 1 });
  });
});

describe('a unit behind one that passes on', () => {
  const thru = { input: { from: 'unit', unitId: 'u0', thru: true } as const };

  it.each([
    ['din', 'u1'],
    ['usb', 'u1'],
    ['din', 'u2'],
    ['usb', 'u2'],
  ] as const)(
    'is there on the beat to the microsecond, its bank select in front of its program (%s, %s)',
    (cable, id) => {
      const units = [
        testUnit('u0', 1, modelerProfile),
        testUnit('u1', 2, modelerProfile, thru),
        testUnit('u2', 3, modelerProfile, { input: { from: 'unit', unitId: 'u1', thru: true } }),
      ];
      const { verdicts } = played(units, { a: [on(135, null, id)] }, [toneCue('x', 9600, 'a')], {}, cable);
      expect(verdicts).toHaveLength(1);
      expect(Math.abs(verdicts[0]!.offset!)).toBeLessThan(0.01);
    },
  );

  it('hears what it is told after what its cue told another, and lands', () => {
    const units = rigWith([rule(null, null, 27)], {}, thru);
    const { verdicts, rig } = played(units, { a: [on(9), on(18, null, 'far')] }, [toneCue('x', 9600, 'a')]);
    expect(rig.state().far!.slot).toBe(18);
    expect(verdicts.map((v) => v.outcome)).toEqual(['on-time', 'on-time']);
  });
});

describe('a unit that only relay rules reach', () => {
  const tone = (slot: number) => ({ a: [on(9), on(slot, null, 'far')] });

  it('is where a tone wants it by what the unit before tells it', () => {
    const { show, song, verdicts } = played(rigWith([rule(9, null, 18)]), tone(18), [toneCue('x', 9600, 'a')]);
    expect(problemsOf(show, compileSong(show, song))).toEqual([]);
    expect(compileSong(show, song).unreached.size).toBe(0);
    expect(of(verdicts, 'x', 'far')).toMatchObject({ outcome: 'on-time' });
  });

  it('is known not to be, where the rules take it elsewhere', () => {
    const { show, song, verdicts } = played(rigWith([rule(9, null, 27)]), tone(18), [toneCue('x', 9600, 'a')]);
    expect([...compileSong(show, song).unreached]).toEqual([['far', new Set(['x'])]]);
    expect(of(verdicts, 'x', 'far').outcome).toBe('never');
    expect(stateAt(show, song, 1e6).far!.slot).toBe(27);
  });
});

describe('changes that are sent on their beat', () => {
  it('do not hold each other up where they are controls, or bytes as they stand', () => {
    const cues = Array.from({ length: 200 }, (_, i) => {
      const at = 960 + i * 2; // 1.04 ms at 120
      return messageCue(`c${i}`, at, 'u0', i % 2 ? 'b0357f' : 'b03500');
    });
    const { verdicts } = played([testUnit('u0', 1, modelerProfile)], {}, cues, {}, 'usb');
    expect(verdicts.every((v) => v.outcome === 'on-time' && Math.abs(v.offset! - 1000) < 0.01)).toBe(true);
  });

  it('let a preset load to its end before the next preset or variant, and no longer', () => {
    const { events } = played([testUnit('u0', 1, modelerProfile)], { a: [on(9)], b: [on(18)] }, [
      toneCue('x', 9600, 'a', { landing: 'sent' }),
      toneCue('y', 9696, 'b'),
    ]);
    const [bank, first, second] = events;
    expect(bank!.at).toBeCloseTo(5e6, 3);
    expect(second!.at).toBeCloseTo(first!.at + 640 + 180_000, 3);
  });
});

describe('cues close to one another', () => {
  const thru = { input: { from: 'unit', unitId: 'u0', thru: true } as const };

  it('send a unit its own preset after what a variant tells it, also where the preset of an earlier cue still loads', () => {
    const units = rigWith([rule(null, 2, 18)], {}, thru);
    const { rig, show, song } = played(
      units,
      { a: [on(9)], b: [on(null, 2), on(27, null, 'far')] },
      [
        toneCue('x', 9600, 'a'),
        { ...toneCue('y', 9648, 'a'), action: { kind: 'tone', toneId: 'a', reload: true } },
        toneCue('z', 9696, 'b'),
      ],
      {},
      'usb',
    );
    expect(rig.state().far!.slot).toBe(27);
    expect(stateAt(show, song, 1e6).far!.slot).toBe(27);
  });

  it('let rules hear of a preset before a program that is sent as it stands takes its place, and only then', () => {
    const cues = [toneCue('x', 9600, 'a', { landing: 'sent' }), messageCue('y', 9792, 'u0', 'c000')];
    const programs = (relays: readonly Relay[]): readonly number[] =>
      played(rigWith(relays), { a: [on(9)] }, cues)
        .events.filter((e) => e.bytes[0] === 0xc0)
        .map((e) => e.at);
    const [first, last] = programs([rule(9, null, 18)]);
    expect(last).toBeCloseTo(first! + 640 + 180_000, 3);
    expect(played(rigWith([rule(9, null, 18)]), { a: [on(9)] }, cues).rig.state().far!.slot).toBe(18);
    // Nothing hears of this one: the bytes leave when they are due.
    expect(programs([rule(27, null, 18)])[1]).toBeCloseTo(5_100_000, 3);
  });
});

describe('a variant whose preset still loads', () => {
  it('does not come to count for the preset before, whose rules would hear of it', () => {
    const units = rigWith([rule(9, null, 18), rule(9, 2, 27)], {});
    const [u0, far] = units;
    const queues = {
      ...modelerProfile,
      whileSettling: 'queue' as const,
      recallLoads: { variant: false, controls: true },
    };
    const { rig, show, song } = played(
      [{ ...u0!, profile: queues }, far!],
      { a: [on(9)], b: [on(36, 2)], c: [on(0)] },
      [toneCue('x', 9600, 'a'), toneCue('y', 9601, 'b'), toneCue('z', 9696, 'c')],
      {},
      'usb',
    );
    expect(stateAt(show, song, 1e6).far!.slot).toBe(18);
    expect(rig.state().far!.slot).toBe(18);
  });
});

describe('catch-up by way of a preset that keeps the variant', () => {
  it('goes to the wanted variant first, where a rule on the present one would have the last word on every preset', () => {
    const keeps = { ...modelerProfile, recallLoads: { variant: false, controls: false } };
    // It settles at once: of two calls the later counts.
    const times = taking(60, 0);
    const [u0, far] = rigWith([rule(9, null, 18), rule(null, 3, 27)], { times });
    const { show, song, rig } = played(
      [{ ...u0!, profile: keeps }, far!],
      { a: [on(9, 0)], b: [on(0)], c: [on(0, 3)] },
      [toneCue('x', 9600, 'a'), toneCue('y', 14400, 'b'), toneCue('z', 19200, 'c')],
    );
    // From where the song ends back to its second cue.
    expect(rig.state()).toMatchObject({ u0: { slot: 0, variant: 3 }, far: { slot: 27 } });
    const wanted = stateAt(show, song, 14400);
    expect(wanted).toMatchObject({ u0: { slot: 0, variant: 0 }, far: { slot: 18 } });
    for (const e of catchUp(show, rig.state(), wanted).events) rig.send(e.portId, 1e8 + e.at, e.bytes);
    rig.settle();
    expect(rig.state()).toMatchObject({ u0: { slot: 0, variant: 0 }, far: { slot: 18 } });
  });

  it('leaves the variant before it goes on, so that no other rule is set off', () => {
    const keeps = { ...modelerProfile, recallLoads: { variant: false, controls: false } };
    const [u0, far] = rigWith([rule(9, 3, 18), rule(27, 3, 27)]);
    const { show, song, rig } = played(
      [{ ...u0!, profile: keeps }, far!],
      { a: [on(9, 3)], b: [on(null, 0)], c: [on(27)] },
      [toneCue('x', 9600, 'a'), toneCue('y', 14400, 'b'), toneCue('z', 19200, 'c')],
    );
    const wanted = stateAt(show, song, 1e6);
    expect([wanted.u0!.slot, wanted.u0!.variant, wanted.far!.slot]).toEqual([27, 0, 18]);
    expect(rig.state().far!.slot).toBe(18);
    const other = new SimulatedRig(rigSpec(show));
    for (const e of catchUp(show, {}, wanted).events) other.send(e.portId, e.at, e.bytes);
    other.settle();
    expect(other.state().far!.slot).toBe(18);
    expect([other.state().u0!.slot, other.state().u0!.variant]).toEqual([27, 0]);
  });

  it('goes by a preset that no rule names, where a rule is on a variant of any', () => {
    // The amplifier takes whatever comes, so that of two rules the last counts.
    const takesAll = { ...ampProfile.times, settle: exactly(0) };
    const [u0, far] = rigWith([rule(null, 3, 27), rule(9, 3, 18)], { times: takesAll });
    const { show, song } = played([u0!, far!], { a: [on(36, 3)], b: [on(9)] }, [
      toneCue('x', 9600, 'a'),
      toneCue('y', 19200, 'b'),
    ]);
    const wanted = stateAt(show, song, 1e6);
    expect([wanted.u0!.slot, wanted.far!.slot]).toEqual([9, 27]);
    const other = new SimulatedRig(rigSpec(show));
    for (const e of catchUp(show, {}, wanted).events) other.send(e.portId, e.at, e.bytes);
    other.settle();
    expect([other.state().u0!.slot, other.state().far!.slot]).toEqual([9, 27]);
  });
});

describe('catch-up through a chain three deep', () => {
  const chained = (keeps: Profile, settle: number, whileSettling: Profile['whileSettling'] = 'ignore'): Unit[] => {
    const own = { ...ampProfile, times: taking(60, settle), whileSettling };
    const call = (
      id: string,
      slot: number,
      variant: number | null,
      unit: string,
      to: string,
      toSlot: number,
    ): Relay => ({
      id,
      when: { slotId: `${unit}-s${slot}`, variant },
      toUnitId: to,
      toSlotId: `${to}-s${toSlot}`,
    });
    return [
      testUnit('u0', 1, keeps, { relays: [call('r1', 9, 2, 'u0', 'far', 18), call('r2', 18, 2, 'u0', 'far', 27)] }),
      testUnit('far', 2, own, {
        input: { from: 'unit', unitId: 'u0', thru: false },
        relays: [call('r3', 18, null, 'far', 'farther', 135)],
      }),
      testUnit('farther', 3, own, { input: { from: 'unit', unitId: 'far', thru: false } }),
    ];
  };

  it.each([
    [5, 'ignore'],
    [40, 'queue'],
    [80, 'queue'],
    [80, 'ignore'],
  ] as const)(
    'waits on a detour for all that it sets off, where a variant kept over the recall fires too (%s, %s)',
    (settle, how) => {
      const keeps = { ...modelerProfile, recallLoads: { variant: false, controls: false } };
      const { show, song, rig } = played(chained(keeps, settle, how), { a: [on(9, 2)], b: [on(18)], c: [on(27)] }, [
        toneCue('x', 9600, 'a'),
        toneCue('y', 14400, 'b'),
        toneCue('z', 19200, 'c'),
      ]);
      const wanted = stateAt(show, song, 1e6);
      expect([wanted.u0!.slot, wanted.far!.slot, wanted.farther!.slot]).toEqual([27, 27, 135]);
      expect(rig.state()).toMatchObject({ far: { slot: 27 }, farther: { slot: 135 } });
      const lost = { ...wanted, far: { ...wanted.far!, slot: 0 }, farther: { ...wanted.farther!, slot: 0 } };
      for (const known of [{}, lost]) {
        const other = new SimulatedRig(rigSpec(show), undefined, known);
        for (const e of catchUp(show, known, wanted).events) other.send(e.portId, e.at, e.bytes);
        other.settle();
        expect(other.state()).toMatchObject({
          u0: { slot: 27, variant: 2 },
          far: { slot: 27 },
          farther: { slot: 135 },
        });
      }
    },
  );
});

describe('a cue sent on its beat to a chain of units', () => {
  it('has each of them due when it was told for the last time, by what the unit before it got too', () => {
    const any = (id: string, to: string, slot: number): Relay => ({
      id,
      when: { slotId: null, variant: null },
      toUnitId: to,
      toSlotId: `${to}-s${slot}`,
    });
    const behind = (unitId: string) => ({ input: { from: 'unit', unitId, thru: true } as const });
    const slow: Profile = { ...ampProfile, times: { ...taking(198, 57), control: exactly(4) } };
    const { verdicts, rig } = played(
      [
        testUnit(
          'u0',
          1,
          { ...modelerProfile, times: { ...modelerProfile.times, recall: exactly(38) } },
          { relays: [any('r', 'far', 27)] },
        ),
        testUnit('far', 11, slow, { ...behind('u0'), relays: [any('r', 'farther', 27)] }),
        testUnit('farther', 12, ampProfile, behind('far')),
      ],
      { a: [on(0), on(0, null, 'far'), on(0, null, 'farther')] },
      [toneCue('x', 0, 'a', { landing: 'sent' })],
      {},
      'usb',
    );
    expect(rig.state().farther!.slot).toBe(0);
    expect(verdicts.map((v) => [v.unitId, v.outcome])).toEqual([
      ['u0', 'on-time'],
      ['far', 'on-time'],
      ['farther', 'on-time'],
    ]);
  });
});
