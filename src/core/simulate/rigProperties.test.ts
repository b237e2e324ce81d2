import { paced, plainPort } from '../testing/paced';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type RigSpec, type UnitSpec } from '../rig';
import { compileSong } from '../compile';
import { rigSpec, songWants } from '../meaning';
import { randomShow } from '../testing/randomShow';
import { modelerProfile } from '../testing/rigs';
import { runs } from '../testing/runs';
import { SimulatedRig } from './rig';
import type { TraceEntry } from './trace';
import { dryRun } from './dryRun';

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

/** Channel messages that a unit may be sent, far enough apart not to settle into each other. */
const messages = fc.array(
  fc.oneof(
    fc.tuple(fc.constant(0xb0), fc.constantFrom(0, 52, 53, 85), fc.integer({ min: 0, max: 127 })),
    fc.tuple(fc.constant(0xc0), fc.integer({ min: 0, max: 127 })),
  ),
  { minLength: 1, maxLength: 30 },
);
const FAR = 400_000;

const played = (spec: RigSpec, sends: readonly (readonly [at: number, bytes: readonly number[]])[]): SimulatedRig => {
  const rig = new SimulatedRig(spec);
  for (const [at, bytes] of sends) rig.send('p', at, bytes);
  rig.settle();
  return rig;
};
const changes = (rig: SimulatedRig): TraceEntry[] => rig.trace.filter((t) => t.kind === 'changed');

describe('a simulated rig', () => {
  it('makes the same of a message whole and of its bytes one by one', () => {
    fc.assert(
      fc.property(messages, (list) => {
        const whole = played(
          rigOf([unit('a')]),
          list.map((bytes, i) => [i * FAR, bytes]),
        );
        const split = played(
          rigOf([unit('a')]),
          list.flatMap((bytes, i) => bytes.map((byte, k) => [i * FAR + k * 320, [byte]] as const)),
        );
        expect(split.state()).toEqual(whole.state());
        expect(changes(split)).toEqual(changes(whole));
      }),
      runs(81, 100),
    );
  });

  it('makes the same of running status, a third of a millisecond sooner', () => {
    fc.assert(
      fc.property(messages, (list) => {
        const full = played(
          rigOf([unit('a')]),
          list.map((bytes, i) => [i * FAR, bytes]),
        );
        let last = -1;
        const short = list.map((bytes, i) => {
          const running = bytes[0] === last;
          last = bytes[0]!;
          return [i * FAR, running ? bytes.slice(1) : bytes] as const;
        });
        const run = played(rigOf([unit('a')]), short);
        expect(run.state()).toEqual(full.state());
        for (const [i, t] of changes(run).entries()) {
          const sooner = changes(full)[i]!.at - t.at;
          expect([0, 320]).toContain(Math.round(sooner));
        }
      }),
      runs(82, 100),
    );
  });

  it('is not put off by clocks between the bytes of a message', () => {
    fc.assert(
      fc.property(messages, fc.integer({ min: 0, max: 2 }), (list, where) => {
        const plain = played(
          rigOf([unit('a')]),
          list.map((bytes, i) => [i * FAR, bytes]),
        );
        const clocked = played(
          rigOf([unit('a')]),
          list.map((bytes, i) => [i * FAR, [...bytes.slice(0, where), 0xf8, ...bytes.slice(where)]]),
        );
        expect(clocked.state()).toEqual(plain.state());
      }),
      runs(83, 100),
    );
  });

  it('tells a unit nothing that is meant for another, whatever hangs beside it', () => {
    fc.assert(
      fc.property(messages, fc.integer({ min: 2, max: 16 }), (list, listens) => {
        const alone = played(
          rigOf([unit('a')]),
          list.map((bytes, i) => [i * FAR, bytes]),
        );
        const beside = played(
          rigOf([unit('a'), unit('b', { listens })]),
          list.map((bytes, i) => [i * FAR, bytes]),
        );
        expect(beside.state().a).toEqual(alone.state().a);
        expect(beside.state().b).toMatchObject({ slot: null, variant: null, controls: {} });
        expect(beside.trace.filter((t) => t.kind === 'changed' && t.unitId === 'b')).toEqual([]);
      }),
      runs(84, 100),
    );
  });

  it('comes to the same whether time goes on in steps or at once', () => {
    fc.assert(
      fc.property(messages, fc.array(fc.integer({ min: 1, max: 900_000 }), { maxLength: 30 }), (list, steps) => {
        const sends = list.map((bytes, i) => [i * 7000, bytes] as const);
        const atOnce = played(rigOf([unit('a')]), sends);
        const rig = new SimulatedRig(rigOf([unit('a')]));
        let until = 0;
        const left = [...sends];
        for (const step of steps) {
          until += step;
          while (left[0] && left[0][0] <= until) {
            const [at, bytes] = left.shift()!;
            rig.send('p', at, bytes);
          }
          rig.advance(until);
        }
        for (const [at, bytes] of left) rig.send('p', at, bytes);
        rig.settle();
        expect(rig.state()).toEqual(atOnce.state());
      }),
      runs(85, 100),
    );
  });

  it('never puts two bytes on one cable at once', () => {
    fc.assert(
      fc.property(
        messages,
        fc.array(fc.integer({ min: 0, max: 3000 }), { minLength: 30, maxLength: 30 }),
        (list, gaps) => {
          let at = 0;
          const sends = list.map((bytes, i) => [(at += gaps[i]!), bytes] as const);
          const arrived = played(rigOf([unit('a', { listens: 'all' })]), sends).trace.filter(
            (t) => t.kind === 'arrived' || t.kind === 'ignored',
          );
          const first = arrived.filter((t, i) => t.kind !== 'ignored' || arrived[i - 1]?.at !== t.at);
          for (let i = 1; i < first.length; i++) {
            const entry = first[i]!;
            const length = 'bytes' in entry ? entry.bytes.length : 0;
            expect(entry.at - first[i - 1]!.at).toBeGreaterThanOrEqual(length * 320 - 1e-6);
          }
        },
      ),
      runs(86, 100),
    );
  });
});

describe('verdicts', () => {
  it('never come out worse with more tolerance', () => {
    fc.assert(
      fc.property(randomShow(120), fc.double({ min: 2, max: 500, noNaN: true }), ({ show, song }, after) => {
        const { events } = compileSong(show, song);
        const wants = songWants(show, song);
        const well = (tolerance: { after: number; before: number }): number =>
          dryRun(rigSpec(show), events, wants, { tolerance }).verdicts.filter((v) => v.outcome === 'on-time').length;
        expect(well({ after, before: 250 })).toBeGreaterThanOrEqual(well({ after: 2, before: 250 }));
      }),
      runs(87, 60),
    );
  });

  it('are one for everything that is wanted, whatever bytes are sent', () => {
    const noise = fc.array(fc.tuple(fc.nat(5_000_000), fc.array(fc.nat(255), { minLength: 1, maxLength: 6 })), {
      maxLength: 20,
    });
    fc.assert(
      fc.property(randomShow(480), noise, ({ show, song }, list) => {
        const wants = songWants(show, song);
        const events = [...list]
          .sort((a, b) => a[0] - b[0])
          .map(([at, bytes]) => ({ at, bytes, portId: 'p1', cueId: 'x', unitId: 'x' }));
        const { verdicts } = dryRun(rigSpec(show), events, wants);
        expect(verdicts).toHaveLength(wants.length);
        for (const v of verdicts) {
          if (v.outcome === 'late') expect(v.offset).toBeGreaterThan(0);
          if (v.outcome === 'early') expect(v.offset).toBeLessThan(0);
          if (v.outcome === 'never') expect(v.offset).toBeNull();
        }
      }),
      runs(88, 100),
    );
  });
});
