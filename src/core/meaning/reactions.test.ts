import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { controlChange, noteOff, noteOn, programChange, type Bytes } from '../midi';
import { SESSION_ACTS, type Reaction } from '../show';
import { runs } from '../testing/runs';
import { NOT_REACTED, heardOf, newTone, react, reactLater, type Around, type Reacting } from './reactions';

const reaction = (id: string, does: Reaction['does'], rest: Partial<Reaction> = {}): Reaction => ({
  id,
  name: '',
  on: true,
  songId: null,
  hears: { portId: 'pads', kind: 'note', channel: 10, number: 36, low: 1, high: 127 },
  swallow: true,
  does,
  ...rest,
});
const STOP: Reaction['does'] = { kind: 'session', act: 'stop' };
const pedal = (low = 0, high = 127): Reaction['hears'] => ({
  portId: 'feet',
  kind: 'control',
  channel: null,
  number: 11,
  low,
  high,
});
const full = { from: 0, to: 100, bend: 'straight' } as const;

/** Messages one after the other through the same reactions; what came of each. */
function through(reactions: readonly Reaction[], messages: readonly [portId: string, bytes: Bytes, at?: number][]) {
  let reacting: Reacting = NOT_REACTED;
  return messages.map(([portId, bytes, at = 0]) => {
    const around: Around = { songId: 'song', at };
    const reacted = react({ reactions }, reacting, around, portId, bytes);
    reacting = reacted.reacting;
    return reacted;
  });
}
const acts = (of: ReturnType<typeof through>) => of.map((r) => r.steps.flatMap((s) => s.acts));

describe('what a reaction hears', () => {
  it('is what comes from its port, of its kind, on its channel, with its number and in its range', () => {
    const only = [reaction('r', STOP)];
    const [hit] = through(only, [['pads', noteOn(10, 36, 90)]]);
    expect(hit).toMatchObject({ goesOn: false, steps: [{ miss: null, acts: [{ kind: 'session', act: 'stop' }] }] });
    const misses = through(only, [
      ['keys', noteOn(10, 36, 90)],
      ['pads', controlChange(10, 36, 90)],
      ['pads', noteOn(9, 36, 90)],
      ['pads', noteOn(10, 37, 90)],
    ]);
    expect(misses.map((m) => m.steps[0]!.miss)).toEqual(['port', 'kind', 'channel', 'number']);
    expect(misses.every((m) => m.goesOn)).toBe(true);
    expect(through([reaction('r', STOP, { on: false })], [['pads', noteOn(10, 36, 9)]])[0]!.steps[0]!.miss).toBe('off');
    const other = through([reaction('r', STOP, { songId: 'another' })], [['pads', noteOn(10, 36, 9)]]);
    expect(other[0]!.steps[0]!.miss).toBe('song');
    const soft = reaction('r', STOP, { hears: { ...only[0]!.hears, low: 64 } });
    expect(through([soft], [['pads', noteOn(10, 36, 63)]])[0]!.steps[0]!.miss).toBe('value');
  });

  it('is any channel message; clock and exclusive messages pass', () => {
    expect([programChange(3, 7), [0xd4, 9], [0xe4, 1, 64], noteOff(1, 2)].map(heardOf)).toEqual([
      { kind: 'program', channel: 3, number: 7, value: null, ends: false },
      { kind: 'pressure', channel: 5, number: null, value: 9, ends: false },
      { kind: 'bend', channel: 5, number: null, value: 64, ends: false },
      { kind: 'note', channel: 1, number: 2, value: 0, ends: true },
    ]);
    expect([[0xf8], [0xf0, 1, 0xf7], [0xa0, 1, 2], [0x90, 1]].map(heardOf)).toEqual([null, null, null, null]);
    expect(heardOf(noteOn(1, 5, 0))!.ends).toBe(true);
  });
});

describe('a press', () => {
  it('acts once: not when the note ends, which is swallowed with it', () => {
    const all = through(
      [reaction('r', STOP)],
      [
        ['pads', noteOn(10, 36, 90)],
        ['pads', noteOff(10, 36)],
        ['pads', noteOff(10, 36)],
      ],
    );
    expect(acts(all).map((a) => a.length)).toEqual([1, 0, 0]);
    expect(all.map((a) => a.goesOn)).toEqual([false, false, false]);
    // The end of a note that nobody swallowed goes on with it.
    const passing = through([reaction('r', STOP, { swallow: false })], [['pads', noteOn(10, 36, 90)]]);
    expect(passing[0]!.goesOn).toBe(true);
  });

  it('of a switch that sends a value and 0 acts at the value, and swallows both', () => {
    const foot = reaction('r', STOP, { hears: pedal(64) });
    const all = through(
      [foot],
      [127, 0, 127, 127].map((v) => ['feet', controlChange(1, 11, v)] as const).map((m) => [...m]),
    );
    expect(acts(all).map((a) => a.length)).toEqual([1, 0, 1, 1]);
    expect(all.map((a) => a.goesOn)).toEqual([false, false, false, false]);
  });

  it('of a pedal acts when it comes into the range, not while it moves within', () => {
    const foot = reaction('r', STOP, { hears: pedal(64) });
    const moved = [10, 63, 64, 70, 127, 90, 20, 80].map((v): [string, Bytes] => ['feet', controlChange(1, 11, v)]);
    expect(acts(through([foot], moved)).map((a) => a.length)).toEqual([0, 0, 1, 0, 0, 0, 0, 1]);
  });
});

describe('the order of reactions', () => {
  it('decides: what is swallowed above is not heard below', () => {
    const tone = reaction('tone', { kind: 'tone', toneId: 'fog' }, { swallow: false });
    const stop = reaction('stop', STOP);
    const below = reaction('below', { kind: 'session', act: 'panic' });
    const [all] = through([tone, stop, below], [['pads', noteOn(10, 36, 1)]]);
    expect(all!.steps.map((s) => [s.reactionId, s.stopped])).toEqual([
      ['tone', false],
      ['stop', true],
    ]);
  });
});

describe('hands on the mix', () => {
  it('move a level along its range in decibels, and turn sources and parts', () => {
    const fader = reaction('f', { kind: 'level', of: 'click', from: -60, to: 6 }, { hears: pedal(0) });
    const moved = [0, 64, 127].map((v): [string, Bytes] => ['feet', controlChange(1, 11, v)]);
    expect(acts(through([fader], moved)).flat()).toEqual([
      { kind: 'level', fader: 'f', of: 'click', gain: -60 },
      { kind: 'level', fader: 'f', of: 'click', gain: -60 + (66 * 64) / 127 },
      { kind: 'level', fader: 'f', of: 'click', gain: 6 },
    ]);
    const press: [string, Bytes][] = [['pads', noteOn(10, 36, 100)]];
    expect(acts(through([reaction('t', { kind: 'turn', of: 'click', how: 'flip' })], press)).flat()).toEqual([
      { kind: 'turn', of: 'click', how: 'flip' },
    ]);
    expect(acts(through([reaction('p', { kind: 'part', playerId: 'ines', how: 'on' })], press)).flat()).toEqual([
      { kind: 'part', playerId: 'ines', how: 'on' },
    ]);
  });
});

describe('what follows a pedal', () => {
  it('sets a control along its curve', () => {
    const set = (bend: 'straight' | 'slow' | 'fast', from = 0, to = 100) =>
      reaction(
        'r',
        { kind: 'control', unitId: 'tarn', controlId: 'mix', curve: { from, to, bend } },
        { hears: pedal(27, 127) },
      );
    const value = (r: Reaction, v: number): number => {
      const [act] = acts(through([r], [['feet', controlChange(1, 11, v)]]))[0]!;
      return act?.kind === 'set' ? act.value : NaN;
    };
    expect([27, 77, 127].map((v) => value(set('straight'), v))).toEqual([0, 50, 100]);
    expect([27, 77, 127].map((v) => value(set('straight', 100, 0), v))).toEqual([100, 50, 0]);
    expect(value(set('slow'), 77)).toBe(25);
    expect(value(set('fast'), 52)).toBe(50);
    expect(value(set('straight'), 26)).toBeNaN();
  });

  it('becomes the same message on another channel, with another number, its value along a curve', () => {
    const to = (channel: number | null, number: number | null): Reaction['does'] => ({
      kind: 'message',
      portId: 'rack',
      channel,
      number,
      curve: { from: 127, to: 0, bend: 'straight' },
    });
    const any = { portId: null, kind: 'control', channel: null, number: null, low: 0, high: 127 } as const;
    const sent = (does: Reaction['does'], kind: Reaction['hears']['kind'], bytes: Bytes) =>
      acts(through([reaction('r', does, { hears: { ...any, kind } })], [['x', bytes]]))[0];
    expect(sent(to(4, 20), 'control', controlChange(1, 11, 27))).toEqual([
      { kind: 'send', portId: 'rack', bytes: controlChange(4, 20, 100) },
    ]);
    expect(sent(to(null, null), 'program', programChange(2, 5))).toMatchObject([{ bytes: programChange(2, 5) }]);
    expect(sent(to(2, null), 'note', noteOn(1, 40, 127))).toMatchObject([{ bytes: noteOn(2, 40, 1) }]);
    expect(sent(to(2, 41), 'note', noteOff(1, 40))).toMatchObject([{ bytes: noteOff(2, 41) }]);
    expect(sent(to(2, null), 'bend', [0xe0, 0, 127])).toMatchObject([{ bytes: [0xe1, 0, 0] }]);
    expect(sent(to(2, null), 'pressure', [0xd0, 127])).toMatchObject([{ bytes: [0xd1, 0] }]);
  });
});

describe('a switch that a pedal throws', () => {
  const wah = (millis: number): Reaction =>
    reaction(
      'wah',
      { kind: 'switch', unitId: 'quillback', controlId: 'wah', above: 20, below: 5, millis },
      { hears: pedal() },
    );
  const moved = (values: readonly number[]): [string, Bytes][] => values.map((v) => ['feet', controlChange(1, 11, v)]);
  const values = (all: ReturnType<typeof through>) =>
    acts(all).map((a) => a.map((x) => (x.kind === 'set' ? x.value : null)));

  it('goes on above one value and off below another: between them nothing changes', () => {
    const all = through([wah(0)], moved([3, 19, 20, 80, 6, 19, 5, 6]));
    expect(values(all)).toEqual([[], [], [1], [], [], [], [0], []]);
  });

  it('waits until the pedal has stood there long enough', () => {
    const show = { reactions: [wah(200)] };
    const at = (now: number) => ({ songId: null, at: now });
    const down = react(show, NOT_REACTED, at(0), 'feet', controlChange(1, 11, 90)).reacting;
    expect(reactLater(show, down, 199_000).acts).toEqual([]);
    const on = reactLater(show, down, 200_000);
    expect(on.acts).toEqual([{ kind: 'set', unitId: 'quillback', controlId: 'wah', value: 1 }]);
    expect(reactLater(show, on.reacting, 900_000).acts).toEqual([]);
    // A pedal that only passes by does not throw it.
    const back = react(show, down, at(100_000), 'feet', controlChange(1, 11, 2)).reacting;
    expect(reactLater(show, back, 900_000).acts).toEqual([]);
  });

  it('and all that pedals moved belongs to the tone that is on', () => {
    const mix = reaction(
      'mix',
      { kind: 'control', unitId: 'tarn', controlId: 'mix', curve: full },
      { hears: pedal(), swallow: false },
    );
    const { reacting } = through([mix, wah(0)], moved([90])).at(-1)!;
    const after = newTone(reacting);
    expect(after.touched).toEqual([
      { unitId: 'tarn', controlId: 'mix' },
      { unitId: 'quillback', controlId: 'wah' },
    ]);
    expect(newTone(after.reacting)).toEqual({ reacting: after.reacting, touched: [] });
    // From the new tone on it is thrown anew.
    expect(
      values([react({ reactions: [wah(0)] }, after.reacting, { songId: null, at: 9 }, 'feet', [0xb0, 11, 99])]),
    ).toEqual([[1]]);
  });
});

describe('reactions', () => {
  const hears = fc.record({
    portId: fc.constantFrom(null, 'pads', 'feet'),
    kind: fc.constantFrom(
      'note' as const,
      'control' as const,
      'program' as const,
      'pressure' as const,
      'bend' as const,
    ),
    channel: fc.constantFrom(null, 1, 2),
    number: fc.constantFrom(null, 0, 1),
    low: fc.integer({ min: 0, max: 64 }),
    high: fc.integer({ min: 64, max: 127 }),
  });
  const curve = fc.record({
    from: fc.integer({ min: 0, max: 127 }),
    to: fc.integer({ min: 0, max: 127 }),
    bend: fc.constantFrom('straight' as const, 'slow' as const, 'fast' as const),
  });
  const does = fc.oneof(
    fc.record({ kind: fc.constant('session' as const), act: fc.constantFrom(...SESSION_ACTS) }),
    fc.record({
      kind: fc.constant('message' as const),
      portId: fc.constant('rack'),
      channel: fc.constantFrom(null, 3),
      number: fc.constantFrom(null, 9),
      curve,
    }),
    fc.record({
      kind: fc.constant('switch' as const),
      unitId: fc.constant('u'),
      controlId: fc.constant('c'),
      above: fc.integer({ min: 20, max: 127 }),
      below: fc.integer({ min: 0, max: 19 }),
      millis: fc.constantFrom(0, 100),
    }),
  );
  const made = fc
    .array(fc.tuple(hears, does, fc.boolean()), { maxLength: 5 })
    .map((all) => all.map(([h, d, swallow], i): Reaction => reaction(`r${i}`, d, { hears: h, swallow })));
  const message = fc.tuple(fc.constantFrom('pads', 'feet'), fc.array(fc.nat(255), { minLength: 1, maxLength: 4 }));

  it('never throw, send only whole messages, and a switch is thrown one way and the other in turn', () => {
    fc.assert(
      fc.property(made, fc.array(message, { maxLength: 40 }), (reactions, messages) => {
        const all = through(
          reactions,
          messages.map(([port, bytes], i): [string, Bytes, number] => [port, bytes, i * 1e4]),
        );
        const switched = new Map<string, number>();
        for (const step of all.flatMap((r) => r.steps)) {
          for (const act of step.acts) {
            if (act.kind === 'send') expect(heardOf(act.bytes)).not.toBeNull();
            if (act.kind !== 'set') continue;
            expect(act.value).toBe(1 - (switched.get(step.reactionId) ?? 0));
            switched.set(step.reactionId, act.value);
          }
        }
      }),
      runs(99, 300),
    );
  });
});
