import { paced, plainPort } from '../testing/paced';
import { describe, expect, it } from 'vitest';
import { encodeValue, newControl } from '../addressing';
import { type RigSpec, type UnitAim, type UnitSpec, type Wanted } from '../rig';
import type { TimedBytes } from '../midi';
import { verdictSentence } from '../../wording';
import { modelerProfile } from '../testing/rigs';
import { lanternOf, sumLanterns } from './lantern';
import { dryRun } from './dryRun';
import { nominal } from './judgeStates';
import type { Verdict } from './verdict';

const unit: UnitSpec = {
  id: 'a',
  input: { from: 'port', portId: 'p' },
  listens: 1,
  profile: {
    ...modelerProfile,
    plan: { ...modelerProfile.plan, groups: [modelerProfile.plan.groups[0]!], bank: { send: 'none', when: 'always' } },
  },
  ...paced(modelerProfile),
  returns: null,
  starts: {},
  relays: [],
};
const spec = (change: Partial<UnitSpec> = {}): RigSpec => ({
  ports: [plainPort('p', 'din')],
  units: [{ ...unit, ...change }],
});
const DUE = 1_000_000;

const send = (at: number, ...bytes: number[]): TimedBytes => ({ at, portId: 'p', bytes, cueId: 'c', unitId: 'a' });
const want = (state: Partial<UnitAim>, rest: Partial<Wanted> = {}): Wanted => ({
  cueId: 'c',
  unitId: 'a',
  due: DUE,
  landing: 'complete',
  relayed: false,
  guard: 0,
  aim: { kind: 'state', state: { controls: {}, ...state }, reload: false },
  ...rest,
});
const judge = (events: readonly TimedBytes[], wants: readonly Wanted[], rig = spec()): Verdict =>
  dryRun(rig, events, wants).verdicts.at(-1)!;
const says = (v: Verdict): string =>
  verdictSentence(v, { name: 'Quillback', profile: { ...modelerProfile, ...unit.profile } });

/** When the program change has to leave to be complete at the due time. */
const LEAVE = DUE - 180_000 - 640;

describe('a verdict', () => {
  it.each([
    ['exactly on the beat', 0, 'on-time'],
    ['2 ms after it', 2000, 'on-time'],
    ['a hair more', 2001, 'late'],
    ['the least that is no rounding more', 2000.02, 'late'],
    ['250 ms before it', -250_000, 'on-time'],
    ['a hair earlier', -250_001, 'early'],
    ['the least that is no rounding earlier', -250_000.02, 'early'],
  ])('%s', (_, shift, outcome) => {
    expect(judge([send(LEAVE + shift, 0xc0, 47)], [want({ slot: 47 })])).toMatchObject({
      outcome,
      offset: expect.closeTo(shift, 6) as number,
    });
  });

  it('says by how much a change is late, and what it waited for', () => {
    const v = judge([send(LEAVE + 84_000, 0xc0, 47)], [want({ slot: 47 })]);
    expect(v).toMatchObject({ outcome: 'late', reason: { kind: 'arrived-late' } });
    expect(says(v)).toBe('Quillback is 84 ms late: the change reached it 96 ms before the beat, and it takes 180 ms.');
  });

  it('finds a wrong channel', () => {
    const v = judge([send(LEAVE, 0xc0, 47)], [want({ slot: 47 })], spec({ listens: 2 }));
    expect(says(v)).toBe('Quillback never gets there: it ignored C0 2F, because it listens on another channel.');
  });

  it('finds a control that came while the unit settled', () => {
    const v = judge([send(LEAVE, 0xc0, 47), send(LEAVE + 1000, 0xb0, 85, 2)], [want({ slot: 47, variant: 2 })]);
    expect(says(v)).toContain('because it was still settling after a recall');
  });

  it('finds that nothing arrived, or something else', () => {
    expect(says(judge([], [want({ slot: 47 })]))).toBe('Quillback never gets there: nothing arrived.');
    const other = judge([send(LEAVE, 0xc0, 46)], [want({ slot: 47 })]);
    expect(says(other)).toBe('Quillback never gets there: it is on H5, scene as the preset stores it instead.');
  });

  it('asks nothing of what a cue does not name', () => {
    const events = [send(LEAVE, 0xc0, 47), send(DUE - 20_000, 0xb0, 52, 127)];
    expect(judge(events, [want({ slot: 47 })]).outcome).toBe('on-time');
    expect(judge(events, [want({ slot: 47, controls: { delay: 1 } })]).outcome).toBe('on-time');
    expect(judge(events, [want({ slot: 47, controls: { delay: 0 } })]).outcome).toBe('never');
  });

  it('lets a unit be that is as wanted already', () => {
    const wants = [want({ slot: 47 }), want({ slot: 47 }, { cueId: 'd', due: DUE * 4 })];
    const v = judge([send(LEAVE, 0xc0, 47)], wants);
    expect(v).toMatchObject({ cueId: 'd', outcome: 'on-time', reason: { kind: 'already' } });
    expect(says(v)).toBe('Quillback is like this already.');
  });

  it('does not count a change that belongs to the next cue', () => {
    const wants = [want({ slot: 47 }), want({ slot: 48 }, { cueId: 'd', due: DUE + 500_000 })];
    const { verdicts } = dryRun(spec(), [send(LEAVE + 500_000, 0xc0, 48)], wants);
    expect(verdicts.map((v) => v.outcome)).toEqual(['never', 'on-time']);
  });

  it('gives a change that is sent on its beat the time that the unit needs', () => {
    const sent = want({ slot: 47 }, { landing: 'sent' });
    expect(judge([send(DUE, 0xc0, 47)], [sent]).outcome).toBe('on-time');
    expect(judge([send(DUE + 30_000, 0xc0, 47)], [sent]).outcome).toBe('late');
  });

  it('gives a change that is sent on its beat the time that all of its bytes need, through a thru too', () => {
    const deep = newControl('deep', 'Deep', {
      kind: 'nrpn',
      number: 300,
      fine: true,
      from: 0,
      to: 16383,
      low: 0,
      high: 1,
      unit: '',
      curve: 'linear',
      points: [],
    });
    const far = newControl('far', 'Far', {
      kind: 'exclusive',
      template: 'F0 7D 01 hh ll ss F7',
      low: 0,
      high: 16383,
      checksum: { kind: 'sum', from: 1, to: 4 },
    });
    const profile = { ...unit.profile, controls: [...unit.profile.controls, deep, far] };
    const behind: UnitSpec = { ...unit, id: 'b', input: { from: 'unit', unitId: 'a', thru: true }, profile };
    const rig: RigSpec = { ...spec({ listens: 16 }), units: [{ ...unit, listens: 16 }, behind] };
    const values = { deep: 0.5, far: 9 };
    const bytes = [deep, far].flatMap((c) => encodeValue(c.encoding, 1, c.id === 'deep' ? values.deep : values.far));
    // 4 × 3 bytes and 7; the last of them has come 19 × 320 µs after the beat, and 7 × 320 later behind the thru.
    let at = DUE;
    const events = bytes.map((b) => {
      const event = { ...send(at, ...b), unitId: 'b' };
      at += b.length * 320;
      return event;
    });
    expect(at - DUE).toBe(19 * 320);
    const wanted = { ...want({ controls: values }, { landing: 'sent' }), unitId: 'b' };
    const verdict = judge(events, [wanted], rig);
    expect(verdict).toMatchObject({ outcome: 'on-time', offset: 19 * 320 + 7 * 320 + 5000 });
    expect(
      nominal({ planned: behind, thrus: 1, held: 0 }, wanted) - nominal({ planned: behind, thrus: 0, held: 0 }, wanted),
    ).toBe(7 * 320);
    expect(nominal({ planned: behind, thrus: 0, held: 0 }, wanted)).toBe((12 + 19) * 320 + 5000);
    // All of it 12 bytes, a thru's 7 and 2 ms later is late: they stand for a call that is not in it.
    const later = events.map((e) => ({ ...e, at: e.at + (12 + 7) * 320 + 2010 }));
    expect(judge(later, [wanted], rig).outcome).toBe('late');
  });

  it('finds raw bytes by their arrival', () => {
    const raw = want({}, { landing: 'sent', aim: { kind: 'bytes', bytes: [0x90, 60, 1] } });
    expect(judge([send(DUE, 0x90, 60, 1)], [raw]).outcome).toBe('on-time');
    expect(judge([send(DUE + 9000, 0x90, 60, 1)], [raw]).outcome).toBe('late');
    expect(judge([send(DUE - 900_000, 0x90, 60, 1)], [raw]).outcome).toBe('early');
    expect(judge([send(DUE, 0x90, 61, 1)], [raw]).outcome).toBe('never');
  });
});

describe('verdicts of several changes', () => {
  const all = (
    events: readonly TimedBytes[],
    wants: readonly Wanted[],
    rig = spec(),
  ): [string, string, number | null][] =>
    dryRun(rig, events, wants).verdicts.map((v) => [
      v.cueId,
      v.outcome,
      v.offset === null ? null : Math.round(v.offset),
    ]);

  it('do not call early what an earlier cue asked for, however long it has been there', () => {
    const both = want({ controls: { delay: 1, mix: 0 } }, { landing: 'sent' });
    const again = want({ controls: { mix: 0 } }, { cueId: 'd', due: DUE + 1e6 });
    for (const order of [
      [53, 52],
      [52, 53],
    ]) {
      const events = order.map((n, i) => send(DUE + i * 960, 0xb0, n, n === 52 ? 127 : 0));
      expect(all(events, [both, again]).at(-1)).toEqual(['d', 'on-time', 0]);
    }
  });

  it('call early what came for a cue itself and too soon', () => {
    const events = [send(DUE, 0xb0, 52, 127), send(DUE + 500_000, 0xb0, 53, 0)];
    const wants = [
      want({ controls: { delay: 1 } }, { landing: 'sent' }),
      want({ controls: { delay: 1, mix: 0 } }, { cueId: 'd', due: DUE + 1e6 }),
    ];
    expect(all(events, wants).at(-1)).toEqual(['d', 'early', -494_040]);
  });

  it('judge what a recall wiped and the cue sent again by when all of it is there', () => {
    const wants = [
      want({ slot: 47, variant: 2 }),
      want({ slot: 48, variant: 2 }, { cueId: 'd', due: DUE + 1e6 }),
      want({ variant: 2 }, { cueId: 'e', due: DUE + 2e6 }),
    ];
    const events = [
      send(LEAVE, 0xc0, 47),
      send(DUE - 12_000 - 960, 0xb0, 85, 2),
      send(LEAVE + 1e6 - 80_000, 0xc0, 48),
      send(DUE + 1e6 - 12_000 - 960, 0xb0, 85, 2),
    ];
    expect(all(events, wants)).toEqual([
      ['c', 'on-time', 0],
      ['d', 'on-time', 0],
      ['e', 'on-time', 0],
    ]);
    // The same, too soon as a whole: 300 ms before its beat it is early, once and by all of it.
    const soon = events.map((e) => (e.at > DUE ? { ...e, at: e.at - 300_000 } : e));
    expect(all(soon, wants)[1]).toEqual(['d', 'early', -300_000]);
  });

  it('want a reload to have loaded, and to sound by its due time', () => {
    const reload = (due: number) =>
      want({}, { cueId: 'd', due, aim: { kind: 'state', state: { slot: 47, controls: {} }, reload: true } });
    const first = want({ slot: 47 });
    const due = DUE + 2e6;
    expect(all([send(LEAVE, 0xc0, 47)], [first, reload(due)]).at(-1)).toEqual(['d', 'never', null]);
    const twice = (late: number) => [send(LEAVE, 0xc0, 47), send(LEAVE + 2e6 + late, 0xc0, 47)];
    expect(all(twice(0), [first, reload(due)]).at(-1)).toEqual(['d', 'on-time', 0]);
    expect(all(twice(70_000), [first, reload(due)]).at(-1)).toEqual(['d', 'late', 70_000]);
    expect(all(twice(-400_000), [first, reload(due)]).at(-1)).toEqual(['d', 'early', -400_000]);
  });

  it('are not met late by a preset that was called for a later one', () => {
    const reload = (cueId: string, due: number) =>
      want({}, { cueId, due, aim: { kind: 'state', state: { slot: 47, controls: {} }, reload: true } });
    const due = DUE + 400_000;
    // Nothing is sent for the first; what the second sends is there in time.
    const wants = [reload('c', DUE), want({ slot: 48 }, { cueId: 'x', due: DUE + 100_000 }), reload('d', due)];
    const events = [
      { ...send(LEAVE + 100_000, 0xc0, 48), cueId: 'x' },
      { ...send(LEAVE + 400_000, 0xc0, 47), cueId: 'd' },
    ];
    expect(all(events, wants).map(([id, outcome]) => [id, outcome])).toEqual([
      ['c', 'never'],
      ['x', 'on-time'],
      ['d', 'on-time'],
    ]);
  });

  it('call a unit late that is silent on the beat, though the preset was on before', () => {
    const wants = [want({ slot: 47 }), want({ slot: 47 }, { cueId: 'd', due: DUE + 2e6 })];
    const events = [send(LEAVE, 0xc0, 47), send(LEAVE + 2e6 + 30_000, 0xc0, 47)];
    expect(all(events, wants).at(-1)).toEqual(['d', 'late', 30_000]);
  });

  it('call a late change late by its own lateness, also when a later cue is due first', () => {
    const wants = [
      want({ slot: 47 }),
      want({ controls: { delay: 1 } }, { cueId: 'd', due: DUE + 50_000 }),
      want({ slot: 48 }, { cueId: 'e', due: DUE + 60_000 }),
    ];
    const events = [
      send(LEAVE + 100_000, 0xc0, 47),
      send(LEAVE + 150_000, 0xb0, 52, 127),
      send(LEAVE + 300_000, 0xc0, 48),
    ];
    expect(all(events, wants)).toEqual([
      ['c', 'late', 100_000],
      ['d', 'late', 50_000],
      ['e', 'late', 240_000],
    ]);
  });

  it('keep changes to and fro apart that all come late', () => {
    const to = [47, 48, 47, 48, 47];
    const wants = to.map((slot, i) => want({ slot }, { cueId: `c${i}`, due: DUE + i * 50_000 }));
    const events = to.map((slot, i) => send(LEAVE + 300_000 + i * 200_000, 0xc0, slot));
    expect(all(events, wants).map(([, outcome, late]) => [outcome, late])).toEqual(
      to.map((_, i) => ['late', 300_000 + i * 150_000]),
    );
  });

  it('never give a change what came for a later one that wants the same', () => {
    const wants = [
      want({ slot: 47 }),
      want({ slot: 48 }, { cueId: 'd', due: DUE + 100_000 }),
      want({ slot: 47 }, { cueId: 'e', due: DUE + 9e6 }),
    ];
    const events = [send(LEAVE + 100_000, 0xc0, 48), send(LEAVE + 9e6, 0xc0, 47)];
    expect(all(events, wants).map(([, o]) => o)).toEqual(['never', 'on-time', 'on-time']);
  });

  it('name only messages that were meant for the unit', () => {
    const other: TimedBytes = { ...send(LEAVE - 5000, 0xc4, 12), unitId: 'b', cueId: 'c' };
    const v = judge([other], [want({ slot: 47 })]);
    expect(says(v)).toBe('Quillback never gets there: nothing arrived.');
    const both = judge([other, send(LEAVE, 0xc1, 47)], [want({ slot: 47 })]);
    expect(says(both)).toContain('it ignored C1 2F');
  });

  it('find bytes by the arrival that is nearest', () => {
    const raw = want({}, { landing: 'sent', aim: { kind: 'bytes', bytes: [0xc0, 47] }, cueId: 'raw', due: DUE + 1e6 });
    const events = [send(LEAVE, 0xc0, 47), { ...send(DUE + 1e6, 0xc0, 47), cueId: 'raw' }];
    expect(all(events, [want({ slot: 47 }), raw]).at(-1)).toEqual(['raw', 'on-time', 640]);
  });
});

describe('lanterns', () => {
  it('are lit only when every unit is on time', () => {
    const v = (outcome: Verdict['outcome']) => ({ outcome });
    expect(lanternOf([])).toBe('hollow');
    expect(lanternOf([v('on-time'), v('on-time')])).toBe('lit');
    for (const bad of ['early', 'late', 'never'] as const) expect(lanternOf([v('on-time'), v(bad)])).toBe('cracked');
  });

  it('sum up what is below them: a crack shows, then what is not proven', () => {
    expect(sumLanterns([])).toBe('hollow');
    expect(sumLanterns(['lit', 'lit'])).toBe('lit');
    expect(sumLanterns(['hollow', 'lit'])).toBe('hollow');
    expect(sumLanterns(['lit', 'hollow'])).toBe('hollow');
    expect(sumLanterns(['hollow', 'cracked', 'lit'])).toBe('cracked');
  });
});
