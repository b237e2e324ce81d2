import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { encodeValue, linear, newControl } from '../addressing';
import { compileSong, playLine, stateAt } from '../compile';
import { dryRun, SimulatedRig } from '../simulate';
import { modelerProfile, testShow, testUnit } from '../testing/rigs';
import { buildTempoMap, ticksToSeconds, type Ticks } from '../time';
import { checkShow, microsAt, newSong, type Show, type Song, songTime, type Sweep } from '../show';
import { songWants } from './aims';
import { moments } from './moments';
import { rigSpec } from './rigOf';
import { playedSweeps, sweepPoints, sweepValue } from './sweeps';
import { runs } from '../testing/runs';

const Q = 960;
const control = newControl('mix', 'Mix', linear(53, 0, 100, '%'), { rest: 30 });
const wave = (form: 'rise' | 'fall' | 'triangle' | 'sine' | 'steps', rest: Partial<Sweep> = {}): Sweep => ({
  id: 'w',
  unitId: 'a',
  controlId: 'mix',
  from: 4 * Q,
  to: 8 * Q,
  muted: false,
  shape: { kind: 'wave', form, low: 10, high: 90, period: 2 * Q, steps: 5 },
  switchId: null,
  spacing: 10,
  after: 'hold',
  ...rest,
});
const tempo = buildTempoMap([{ at: 0, bpm: 120, beat: 1 }]);

describe('the drawn value', () => {
  it.each<[Parameters<typeof wave>[0], number[]]>([
    ['rise', [10, 50, 10, 50, 90]],
    ['fall', [90, 50, 90, 50, 10]],
    ['triangle', [10, 90, 10, 90, 10]],
    ['sine', [10, 90, 10, 90, 10]],
  ])('of a %s wave is locked to the beat', (form, values) => {
    const s = wave(form);
    for (const [i, value] of values.entries()) expect(sweepValue(s, (4 + i) * Q)).toBeCloseTo(value, 9);
  });

  it('of steps stands still between them', () => {
    const s = wave('steps');
    const at = (share: number) => sweepValue(s, 4 * Q + share * 2 * Q);
    expect([0, 0.19, 0.21, 0.5, 0.99].map(at)).toEqual([10, 10, 30, 50, 90]);
  });

  it('of a line runs straight between its points, and stands at the ends outside', () => {
    const line = wave('rise', {
      shape: {
        kind: 'line',
        points: [
          { at: 0, value: 0 },
          { at: Q, value: 100 },
          { at: Q, value: 20 },
          { at: 3 * Q, value: 40 },
        ],
      },
    });
    expect([0, 4, 4.5, 5, 6, 7, 8, 20].map((q) => sweepValue(line, q * Q))).toEqual([0, 0, 50, 20, 30, 40, 40, 40]);
  });
});

describe('the values that are sent', () => {
  const sent = (s: Sweep, spacing = 10) => sweepPoints(tempo, s, control, spacing);
  const millis = (at: Ticks) => ticksToSeconds(tempo, at) * 1000;

  it('begin and end exactly, come no faster than the spacing, and repeat nothing', () => {
    for (const form of ['rise', 'fall', 'triangle', 'sine', 'steps'] as const) {
      const points = sent(wave(form));
      expect(points[0]).toEqual({ at: 4 * Q, value: sweepValue(wave(form), 4 * Q) });
      // Exact to the wire: a value that it cannot tell from the one before is not sent again.
      const wire = (value: number) => encodeValue(control.encoding, 1, value);
      expect(wire(points.at(-1)!.value)).toEqual(wire(sweepValue(wave(form), 8 * Q)));
      for (let i = 1; i < points.length; i++) {
        expect(points[i]!.at).toBe(Math.round(points[i]!.at));
        expect(millis(points[i]!.at) - millis(points[i - 1]!.at)).toBeGreaterThan(9.4);
        expect(encodeValue(control.encoding, 1, points[i]!.value)).not.toEqual(
          encodeValue(control.encoding, 1, points[i - 1]!.value),
        );
      }
    }
    expect(sent(wave('steps')).map((p) => p.value)).toEqual([10, 30, 50, 70, 90, 10, 30, 50, 70, 90]);
  });

  it('meet the drawn line within one value of the wire, where the spacing allows it', () => {
    const step = 100 / 127;
    const point = fc.record({ at: fc.integer({ min: 0, max: 16 * Q }), value: fc.integer({ min: 0, max: 100 }) });
    fc.assert(
      fc.property(fc.array(point, { minLength: 2, maxLength: 6 }), (raw) => {
        const points = raw.toSorted((a, b) => a.at - b.at);
        const line = wave('rise', { from: 0, to: 16 * Q, shape: { kind: 'line', points } });
        const values = sent(line);
        for (let at = 0; at <= 16 * Q; at += 97) {
          const held = values.findLast((p) => p.at <= at)!;
          // A value is at most two spacings old: what the line was in that time, give or take one step of the wire.
          const recent = Array.from({ length: 43 }, (_, i) => sweepValue(line, Math.max(0, at - i)));
          expect(held.value).toBeGreaterThanOrEqual(Math.min(...recent) - step);
          expect(held.value).toBeLessThanOrEqual(Math.max(...recent) + step);
        }
      }),
      runs(111, 120),
    );
  });

  it('are spread out where several sweeps share a slow cable, so that half of it stays free', () => {
    const unit = testUnit('a', 1, {
      ...modelerProfile,
      controls: Array.from({ length: 8 }, (_, i) => ({
        ...control,
        id: `c${i}`,
        encoding: linear(60 + i, 0, 100, '%'),
      })),
    });
    const sweeps = Array.from({ length: 8 }, (_, i) =>
      wave('rise', {
        id: `w${i}`,
        controlId: `c${i}`,
        shape: { kind: 'wave', form: 'rise', low: 0, high: 100, period: 4 * Q, steps: 2 },
      }),
    );
    const song: Song = { ...newSong('s', 'S'), sweeps };
    const show: Show = { ...testShow([unit]), songs: [song] };
    expect(checkShow(show)).toEqual([]);
    const messages = playedSweeps(show, song).reduce((n, s) => n + s.points.length, 0);
    // Two seconds of a cable that carries a control change in 0.96 ms.
    expect(messages * 0.96).toBeLessThanOrEqual(1000 * 1.02);
    expect(
      playedSweeps({ ...show, ports: show.ports.map((p) => ({ ...p, cable: 'usb' as const })) }, song)[0]!.points
        .length,
    ).toBeGreaterThan(messages / 8);
  });
});

describe('a song with sweeps', () => {
  const unit = testUnit('a', 1, modelerProfile);
  const sweep = wave('sine', { controlId: 'mix', switchId: 'delay', after: 'rest' });
  const song: Song = {
    ...newSong('s', 'S', { bpm: 120 }),
    sweeps: [sweep],
    tempo: [{ at: 0, bpm: 120, beat: 1, rampTo: null }],
  };
  const show: Show = { ...testShow([unit]), songs: [song] };

  it('switches the effect on before the first value and off after the last, and leaves the control at rest', () => {
    const list = moments(show, song).map((m) => (m.action.kind === 'values' ? m.action.values : {}));
    expect(list[0]).toEqual({ delay: 1 });
    expect(list[1]).toEqual({ mix: 10 });
    expect(list.at(-2)).toEqual({ delay: 0 });
    expect(list.at(-1)).toEqual({ mix: 30 });
    expect(moments(show, { ...song, sweeps: [{ ...sweep, muted: true }] })).toEqual([]);
  });

  it('is proven value by value in the simulated rig', () => {
    const compiled = compileSong(show, song);
    const { verdicts } = dryRun(rigSpec(show), compiled.events, songWants(show, song));
    expect(verdicts.length).toBeGreaterThan(60);
    expect(verdicts.filter((v) => v.outcome !== 'on-time')).toEqual([]);
  });

  it('is caught up at its present value, and goes on from there', () => {
    const at = 4 * Q + 1.5 * Q;
    const value = stateAt(show, song, at).a!.controls.mix as number;
    expect(Math.abs(value - sweepValue(sweep, at))).toBeLessThan(2);
    const line = playLine(show, song, at, {});
    const rig = new SimulatedRig(rigSpec(show));
    for (const e of line.events) rig.send(e.portId, e.at, e.bytes);
    rig.settle();
    expect(rig.state().a!.controls.mix).toBeCloseTo(30, 0);
    expect(rig.state().a!.controls.delay).toBe(0);
    const later = line.events.filter((e) => e.cueId === 'w');
    expect(later.length).toBeGreaterThan(40);
    expect(later.every((e) => e.at >= line.place)).toBe(true);
  });
});

describe('taps and moves', () => {
  const unit = testUnit('a', 1, {
    ...modelerProfile,
    controls: [...modelerProfile.controls, newControl('tap', 'Tap', { kind: 'tap', number: 80, values: [127, 0] })],
  });
  const song: Song = {
    ...newSong('s', 'S', { bars: 8 }),
    tempo: [
      { at: 0, bpm: 120, beat: 1, rampTo: null },
      { at: 8 * Q, bpm: 84, beat: 1.5, rampTo: null },
      { at: 30.75 * Q, bpm: 60, beat: 1, rampTo: null },
    ],
    taps: [{ id: 'taps', unitId: 'a', controlId: 'tap', count: 4 }],
    cues: [{ id: 'm', at: 16 * Q, shift: 0, landing: 'sent', muted: false, action: { kind: 'move', moveId: 'two' } }],
  };
  const show: Show = {
    ...testShow([unit]),
    songs: [song],
    moves: [
      {
        id: 'two',
        name: 'Two',
        notes: '',
        steps: [
          { unitId: 'a', controlId: 'delay', value: 1 },
          { unitId: 'a', controlId: 'tap', value: 2 },
        ],
      },
    ],
  };

  it('come on the beat, at the start and after each change of tempo, as far as there is room', () => {
    expect(checkShow(show)).toEqual([]);
    const taps = moments(show, song)
      .filter((m) => m.source === 'taps')
      .map((m) => m.at / Q);
    expect(taps).toEqual([0, 1, 2, 3, 8, 9.5, 11, 12.5, 30.75, 31.75]);
  });

  it('give a unit a tempo that is right to one per cent, also while the cable is busy', () => {
    const { events } = compileSong(show, song);
    const arrivals = events.filter((e) => e.cueId === 'taps').map((e) => e.at);
    const due = moments(show, song)
      .filter((m) => m.source === 'taps')
      .map((m) => microsAt(songTime(song), m.at));
    for (let i = 1; i < arrivals.length; i++) {
      const [is, should] = [arrivals[i]! - arrivals[i - 1]!, due[i]! - due[i - 1]!];
      expect(Math.abs(is - should) / should).toBeLessThan(0.01);
    }
    const values = events.filter((e) => e.cueId === 'taps').map((e) => e.bytes[2]);
    expect(values.slice(0, 4)).toEqual([127, 0, 127, 0]);
  });

  it('of a move are sent whatever the unit is on, taps a beat apart', () => {
    const list = moments(show, song).filter((m) => m.source === 'cue');
    expect(list.map((m) => [m.at / Q, m.action.kind === 'message' && m.action.bytes])).toEqual([
      [16, 'b0347f'],
      [16, 'b0507f'],
      [17.5, 'b05000'],
    ]);
    const { verdicts } = dryRun(rigSpec(show), compileSong(show, song).events, songWants(show, song));
    // Of the last tempo only two taps fit in; nobody takes a tempo from two.
    const wrong = verdicts.filter((v) => v.outcome !== 'on-time');
    expect(wrong.map((v) => v.reason)).toMatchObject([{ kind: 'other-tempo', by: 'taps', from: 2 }]);
    const tempos = verdicts.filter((v) => v.cueId === 'taps' && v.reason.kind === 'as-wanted');
    expect(tempos.length).toBeGreaterThan(1);
  });

  it('are refused where the control is of another kind, and sweeps where it is a selector', () => {
    const bad = (change: Partial<Song>) => checkShow({ ...show, songs: [{ ...song, ...change }] }).map((p) => p.code);
    expect(bad({ taps: [{ id: 't', unitId: 'a', controlId: 'delay', count: 4 }] })).toEqual(['show.not-tapped']);
    expect(
      bad({
        sweeps: [
          wave('rise', {
            controlId: 'delay',
            shape: { kind: 'wave', form: 'rise', low: 0, high: 1, period: Q, steps: 2 },
          }),
        ],
      }),
    ).toEqual(['show.sweep-selector']);
    expect(bad({ sweeps: [wave('rise', { to: 4 * Q })] })).toEqual(['show.sweep-empty']);
    expect(bad({ sweeps: [wave('rise', { controlId: 'none' })] })).toEqual(['show.missing']);
    expect(
      bad({
        sweeps: [wave('rise', { shape: { kind: 'wave', form: 'rise', low: 0, high: 101, period: Q, steps: 2 } })],
      }),
    ).toEqual(['show.value-range']);
  });
});
