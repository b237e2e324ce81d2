import { describe, expect, it } from 'vitest';
import { exactly, guess, measured, newControl, soonestOf, typed, worstOf, type Time } from '../addressing';
import { compileSong } from '../compile';
import { demoShow } from '../demo';
import { emptyShow, newPart, newSong, newTone, toneCue } from '../show';
import { rigSpec, songWants } from '../meaning';
import type { UnitSpec } from '../rig';
import { dryRun } from '../simulate';
import { modelerProfile, testShow, testUnit } from '../testing/rigs';
import { tonightOf } from '../tonight';
import { Chance, drawTime } from './draw';
import { nightLeaves } from './night';
import { joinNights, nightsOfSet, playNight, playNights } from './playNights';

const demo = tonightOf(demoShow());
const song = demo.songs[0]!;

const FINE = {
  kind: 'fourteen-bit',
  from: 0,
  to: 16383,
  low: -50,
  high: 50,
  unit: 'cent',
  curve: 'linear',
  points: [],
} as const;

const mapTimes = <T extends Readonly<Record<string, Time>>>(times: T, change: (time: Time) => Time): T =>
  Object.fromEntries(Object.entries(times).map(([thing, time]) => [thing, change(time)])) as unknown as T;

describe('a drawn time', () => {
  const draws = (time: Parameters<typeof drawTime>[0], form: number, n = 20_000): number[] => {
    const chance = new Chance('test');
    return Array.from({ length: n }, () => drawTime(time, form, chance) / 1000);
  };

  it('lies between typical and worst, and beyond it once in a hundred times, by a quarter of the spread on average', () => {
    const time = guess(200);
    expect(worstOf(time)).toBe(220);
    const all = draws(time, 0.5);
    expect(Math.min(...all)).toBeGreaterThanOrEqual(200);
    const beyond = all.filter((t) => t > 220);
    expect(beyond.length / all.length).toBeGreaterThan(0.0075);
    expect(beyond.length / all.length).toBeLessThan(0.0125);
    const mean = beyond.reduce((sum, t) => sum + t - 220, 0) / beyond.length;
    expect(mean).toBeGreaterThan(3.5);
    expect(mean).toBeLessThan(6.5);
  });

  it('is half decided by the form of the day', () => {
    const middle = (list: number[]): number => list.sort((a, b) => a - b)[list.length >> 1]!;
    expect(middle(draws(guess(200), 0))).toBeCloseTo(205, 0);
    expect(middle(draws(guess(200), 1))).toBeCloseTo(215, 0);
  });

  it('is one of its trials where it was measured, and the same each time where it never varies', () => {
    const trials = [180, 185, 191.5];
    const drawn = new Set(draws(measured(trials, null), 1).filter((t) => t <= 191.5));
    expect([...drawn].sort((a, b) => a - b)).toEqual(trials);
    expect(new Set(draws(exactly(40), 1, 500))).toEqual(new Set([40]));
  });
});

describe('a time of the map', () => {
  it('allows for 2 ms more, or a tenth, where only one figure is known', () => {
    expect([0, 5, 20, 180].map((t) => worstOf(guess(t)))).toEqual([2, 7, 22, 198]);
  });

  it('is its median and its longest trial, and a millisecond more at the least, where it was measured', () => {
    expect(measured([190, 180, 186], '2026-12-01')).toMatchObject({ typical: 186, worst: 190, source: 'measured' });
    expect(measured([40, 40, 40.2], null)).toMatchObject({ typical: 40, worst: 41 });
    expect(soonestOf(measured([190, 180, 186], null))).toBe(180);
    expect(soonestOf(guess(180))).toBe(175.5);
    expect(() => measured([], null)).toThrow();
  });
});

describe('nights', () => {
  it('are the same for the same seed, however they are cut, and others for another', () => {
    const whole = playNights(demo, song, { seed: 3, from: 0, to: 12 });
    const parts = [0, 5, 6].map((from, i) => playNights(demo, song, { seed: 3, from, to: [5, 6, 12][i]! }));
    expect(parts.slice(1).reduce(joinNights, parts[0]!)).toEqual(whole);
    expect(playNights(demo, song, { seed: 4, from: 0, to: 12 }).cues).not.toEqual(whole.cues);
    expect(() => joinNights(parts[0]!, parts[2]!)).toThrow('do not follow');
  });

  it('can each be opened as a dry run: what missed there is what was counted', () => {
    const { cues, missed } = playNights(demo, song, { seed: 1, from: 0, to: 60 });
    expect(missed.length).toBeGreaterThan(0);
    for (const night of [missed[0]!, missed.at(-1)!]) {
      const { verdicts } = playNight(demo, song, { seed: 1, night });
      const bad = new Set(verdicts.filter((v) => v.outcome !== 'on-time').map((v) => v.cueId));
      const counted = Object.entries(cues).filter(([, c]) => c.misses.some((m) => m.night === night));
      expect(new Set(counted.map(([id]) => id))).toEqual(bad);
    }
  });

  it('foretell what comes: another seed misses as often, within three standard deviations', () => {
    const count = 120;
    const share = (seed: number): number =>
      demo.songs
        .slice(0, 3)
        .reduce((sum, s) => sum + playNights(demo, s, { seed, from: 0, to: count }).missed.length, 0) /
      (3 * count);
    const [foretold, came] = [share(11), share(12)];
    const deviation = Math.sqrt((2 * foretold * (1 - foretold)) / (3 * count));
    expect(Math.abs(came - foretold)).toBeLessThan(3 * deviation + 1e-9);
  });

  it('foretell the share that misses of times 5 % apart and a hiccup of 15 ms in 2,000 messages, drawn here by other means', () => {
    // Typical and worst are 5 % apart: what units take lies between, one half by the day.
    const apart = (time: Time): Time => typed(time.typical, time.typical * 1.05, null);
    const show = tonightOf({
      ...demoShow(),
      margin: 2,
      guard: 1,
      units: demo.units.map((u) => ({
        ...u,
        slots: u.slots.map((s) => ({ ...s, recall: null })),
        profile: { ...u.profile, times: mapTimes(u.profile.times, apart) },
      })),
    });
    const rig = rigSpec(show);
    const count = 150;
    const songs = show.songs.slice(0, 3);
    let [foretold, came, changes] = [0, 0, 0];
    let state = 12_345;
    // Another source of chance than the one of nights: a linear congruence (numbers of Knuth's MMIX would need 64 bits).
    const next = (): number => (state = (state * 1_103_515_245 + 12_345) % 2 ** 31) / 2 ** 31;
    for (const one of songs) {
      const { events } = compileSong(show, one);
      const wants = songWants(show, one);
      foretold += Object.values(playNights(show, one, { seed: 11, from: 0, to: count }).cues).reduce(
        (sum, c) => sum + count - c.landed,
        0,
      );
      for (let night = 0; night < count; night++) {
        const days = new Map(show.units.map((u) => [u.id, next()]));
        const taken = (spec: UnitSpec, typical: number): number => {
          const beyond = next() < 0.01 ? 1 - Math.log(1 - next()) / 4 : (days.get(spec.id)! + next()) / 2;
          return typical * (1 + 0.05 * beyond);
        };
        let last = 0;
        const onPort = new Map<string, number>();
        const leaves = Float64Array.from(events, ({ at, portId }) => {
          last = Math.max(at + (next() < 1 / 2000 ? 15_000 : 0), onPort.get(portId) ?? -1e12);
          onPort.set(portId, last);
          return last;
        });
        const { verdicts } = dryRun(rig, events, wants, {
          tolerance: show.tolerance,
          planned: rig,
          leaves,
          timing: {
            effect: (spec, called) => taken(spec, spec.paces.typical[called]),
            settle: (spec) => taken(spec, spec.paces.typical.settle),
            thru: (spec) => spec.paces.typical.thru,
          },
        });
        came += new Set(verdicts.filter((v) => v.outcome !== 'on-time').map((v) => v.cueId)).size;
      }
      changes += count * new Set(wants.map((w) => w.cueId)).size;
    }
    expect(foretold).toBeGreaterThan(20);
    const share = (foretold + came) / (2 * changes);
    const deviation = Math.sqrt(2 * share * (1 - share) * changes);
    expect(Math.abs(came - foretold), `${foretold} foretold, ${came} came`).toBeLessThan(3 * deviation);
  });

  it('keep the order of the two halves of a fine value, however their times vary', () => {
    const fine = newControl('fine', 'Fine', { ...FINE, number: 16 });
    const times = { ...modelerProfile.times, control: typed(3, 30, null) };
    const unit = testUnit('u', 1, { ...modelerProfile, times, controls: [fine] });
    const tone = newTone('t', 'T', [newPart('u', { controls: [{ controlId: 'fine', value: -7 }] })]);
    const plain = { ...newSong('s', 'S', { bars: 4 }), cues: [toneCue('c', 7680, 't')] };
    const show = { ...testShow([unit]), margin: 40, tones: [tone], songs: [plain] };
    const { cues } = playNights(show, plain, { seed: 5, from: 0, to: 300 });
    expect(cues['c']!.misses.filter((m) => m.outcome === 'never')).toEqual([]);
  });

  it('are all well where nothing varies but a rare hiccup', () => {
    const steady = { ...modelerProfile, whileSettling: 'queue' as const };
    const tone = newTone('t', 'T', [{ unitId: 'u', slotId: 'u-s9', variant: null, controls: [], effects: [] }]);
    const plain = { ...newSong('s', 'S', { bars: 4 }), cues: [toneCue('c', 3840, 't')] };
    const show = { ...testShow([testUnit('u', 1, steady)]), margin: 5, tones: [tone], songs: [plain] };
    const { cues, missed } = playNights(show, plain, { seed: 1, from: 0, to: 400 });
    expect(missed.length).toBeLessThan(4);
    expect(cues['c']!.landed).toBe(400 - missed.length);
    expect(cues['c']!.spread['u']).toMatchObject({ '-5': expect.any(Number) });
  });

  it('have the shaking of what leads the song, also where it drops out', () => {
    const plain = { ...newSong('s', 'S', { bars: 60 }), cues: [] };
    const show = { ...testShow([testUnit('u', 1, modelerProfile)]), songs: [plain] };
    const portId = show.ports[0]!.id;
    const still = { ...show, ports: show.ports.map((p) => ({ ...p, delay: exactly(0) })) };
    const events = Array.from({ length: 240 }, (_, i) => ({
      at: i * 500_000,
      portId,
      bytes: [0xc0, 1],
      cueId: 'c',
      unitId: 'u',
    }));
    /** The standard deviation of when messages leave, over many nights; hiccups left out. */
    const shaking = (of: Partial<typeof plain>, rest: object = {}): number => {
      const led = { ...plain, ...of };
      const offs: number[] = [];
      for (let night = 0; night < 60; night++) {
        const leaves = nightLeaves({ ...still, ...rest }, led, events, { seed: 2, night });
        for (const [i, at] of leaves.entries())
          if (Math.abs(at - events[i]!.at) < 10_000) offs.push(at - events[i]!.at);
      }
      return Math.sqrt(offs.reduce((sum, o) => sum + o * o, 0) / offs.length);
    };
    const timeCode = { ...still.timeCode, portId };
    expect(shaking({})).toBe(0);
    expect(shaking({ followsPortId: portId })).toBeCloseTo(250, -1);
    expect(shaking({ code: '01:00:00:00' }, { timeCode })).toBeCloseTo(150, -1);
    // Code that the show has not come is nobody's leader.
    expect(shaking({ code: '01:00:00:00' })).toBe(0);
    expect(shaking({ code: '01:00:00:00', followsPortId: portId }, { timeCode })).toBeCloseTo(150, -1);
  });

  it('of a set land where every song does', () => {
    expect(nightsOfSet([{ missed: [1, 4] }, { missed: [4, 9] }, { missed: [] }], 100)).toBe(97);
    expect(nightsOfSet([], 100)).toBe(100);
    expect(playNights(emptyShow('x', 'X'), newSong('s', 'S'), { seed: 1, from: 0, to: 2 }).missed).toEqual([]);
  });
});
