import { beforeEach, describe, expect, it } from 'vitest';
import { demoShow } from '../../core/demo';
import type { Outgoing } from '../../playback';
import type { Access, RealEars, RealPort, SendOutcome } from '../adapters/realPorts';
import type { PortUse } from '../persistence/rows';
import { createPorts, usePorts, type PortsDesk } from './ports';
import { portNamed } from './portNames';

const show = demoShow();
const out = (key: string, name = 'Box'): RealPort => ({ key, name, maker: 'Pier', direction: 'out' });
const input = (key: string, name = 'Feet'): RealPort => ({ key, name, maker: 'Pier', direction: 'in' });
const named = ({ key, name, maker }: RealPort, twins = 1, place = 0) => ({ key, name, maker, twins, place });
const onBox: PortUse = { standIn: false, out: named(out('o1')), in: null };

let asked: unknown[][];
let said: string[];
let left: [key: string, late: number][];
let leftFor: [cueId: string, late: number | null][];
let sent: [key: string, at: number, bytes: readonly number[]][];
let pageNow: number;
let kept: Record<string, PortUse> | null;
let stored: Record<string, PortUse>;
let ears: RealEars;
let plugged: RealPort[];
let access: Access;
let works: SendOutcome;
let isShowOn: boolean;
let desk: PortsDesk;
let later: (() => void)[];
/** Answers of the worker to what arrives; the test gives them. */
let answers: (() => void)[];

beforeEach(() => {
  pageNow = 100;
  asked = [];
  said = [];
  left = [];
  leftFor = [];
  sent = [];
  kept = null;
  stored = {};
  plugged = [out('o1'), input('i1')];
  access = { kind: 'open' };
  works = 'sent';
  isShowOn = false;
  later = [];
  answers = [];
  usePorts.setState(usePorts.getInitialState());
  const worker = new Proxy(
    {},
    {
      get:
        (_, name) =>
        (...args: unknown[]) => {
          asked.push([name, ...args]);
          // The worker's clock is five milliseconds ahead of the page's, whose own began at 1,000,000.
          if (name === 'now') return Promise.resolve(1e6 + 100_000 + 5000);
          if (name === 'arrived') return new Promise<void>((done) => answers.push(done));
          return Promise.resolve();
        },
    },
  );
  desk = createPorts({
    store: usePorts,
    show: () => show,
    isShowOn: () => isShowOn,
    ask: (run) => run(worker as never),
    openReal: (heard) => {
      ears = heard;
      return Promise.resolve({
        access,
        real:
          access.kind === 'open'
            ? {
                get ports() {
                  return plugged;
                },
                send: (key, at, bytes) => {
                  sent.push([key, at, bytes]);
                  return works;
                },
              }
            : null,
      });
    },
    load: () => Promise.resolve(stored),
    keep: (_, uses) => (kept = { ...uses }),
    clock: { now: () => pageNow, origin: () => 1e6 },
    later: (run) => later.push(run),
    say: (text) => said.push(text),
    leftAt: (port, late) => left.push([port.key, late]),
    leftFor: (what, late) => leftFor.push([what.cueId, late]),
  });
});

const settle = (): Promise<void> => new Promise((done) => setTimeout(done));
const plugNow = (...ports: RealPort[]): void => {
  plugged = ports;
  ears.ports(ports);
};
/** When a batch was handed over, by the worker's clock. */
const handed = (before = 0): number => 1e6 + (pageNow - before) * 1000 + 5000;
const batch = (bytes: readonly number[], at = 1e6 + 205_000): Outgoing[] => [{ portId: 'rack', at, bytes }];
const of = (what: string): unknown[][] => asked.filter(([name]) => name === what);

describe('ports of this computer', () => {
  it('are found again by their key, or as the only one of a name and maker', () => {
    const two = [out('a'), out('b'), input('c', 'Box')];
    expect(portNamed(two, named(out('b')), 'out')).toBe(two[1]);
    expect(portNamed([out('b')], named(out('gone')), 'out')?.key).toBe('b');
    expect(portNamed(two, { ...named(out('a')), maker: 'Quay' }, 'out')).toBeUndefined();
    expect(portNamed(two, null, 'out')).toBeUndefined();
  });

  it('of one name are never taken for each other; when all are back, each is the one in its place', () => {
    const [a, b] = [named(out('a'), 2, 0), named(out('b'), 2, 1)];
    expect(portNamed([out('b')], a, 'out')).toBeUndefined();
    expect(portNamed([out('x')], b, 'out')).toBeUndefined();
    expect(portNamed([out('x'), out('y')], a, 'out')?.key).toBe('x');
    expect(portNamed([out('x'), out('y')], b, 'out')?.key).toBe('y');
    // One that came beside it later, and is not it; one that another port of the show is bound to.
    expect(portNamed([out('b'), out('c')], named(out('a')), 'out')).toBeUndefined();
    expect(portNamed([out('b')], named(out('a')), 'out', new Set(['b']))).toBeUndefined();
  });

  it('get what is handed over, at times of the page', async () => {
    await desk.follow(show);
    await desk.open();
    desk.use('rack', onBox);
    expect(kept).toEqual({ rack: onBox });
    expect(of('bindPorts').at(-1)![1]).toEqual([{ portId: 'rack', standIn: false, real: true }]);
    desk.handOver(batch([0xc0, 5]), handed());
    // 205 ms on the worker's clock are 200 on the page's.
    expect(sent).toEqual([['o1', 200, [0xc0, 5]]]);
    desk.handOver([{ portId: 'board', at: 0, bytes: [1] }], handed());
    expect(sent).toHaveLength(1);
  });

  it('that were used before are asked for by themselves, others not', async () => {
    await desk.follow(show);
    expect(usePorts.getState().access.kind).toBe('unasked');
    stored = { rack: onBox };
    await desk.follow({ ...show, id: 'other' });
    await settle();
    expect(usePorts.getState().access.kind).toBe('open');
    expect(of('bindPorts')).toHaveLength(1);
  });

  it('that are refused leave their units unknown, and that is said', async () => {
    access = { kind: 'refused' };
    stored = { rack: onBox };
    await desk.follow(show);
    await settle();
    expect(usePorts.getState().access.kind).toBe('refused');
    expect(of('port')).toEqual([['port', 'rack', false]]);
    expect(said).toEqual(['Rack: the real port is not connected. Its units are not sent anything until it is back.']);
  });
});

describe('a port that is pulled out', () => {
  beforeEach(async () => {
    stored = { rack: onBox };
    await desk.follow(show);
    await settle();
    asked = [];
  });

  it('is gone for the playback until it is back, under another key too', () => {
    plugNow(input('i1'));
    expect(usePorts.getState().lost).toEqual(['rack']);
    expect(of('port')).toEqual([['port', 'rack', false]]);
    plugNow(input('i1'), out('o9'));
    expect(of('port').at(-1)).toEqual(['port', 'rack', true]);
    expect(usePorts.getState().lost).toEqual([]);
    expect(said.at(-1)).toBe('Rack: the real port is back. What its units missed is sent.');
    desk.handOver(batch([1, 2]), handed());
    expect(sent.at(-1)![0]).toBe('o9');
  });

  it('is not taken for another of its name, one that was there or one that came since', () => {
    const twin: PortUse = { standIn: false, out: named(out('o2'), 2, 1), in: null };
    plugNow(out('o1'), out('o2'), input('i1'));
    desk.use('board', twin);
    asked = [];
    plugNow(out('o2'), input('i1'));
    expect(usePorts.getState().lost).toEqual(['rack']);
    expect(said.at(-1)).toMatch(/Another port of the same name is there: choose it under Ports if it is the one\.$/);
    sent = [];
    desk.handOver([...batch([0xc0, 1]), { portId: 'board', at: 1e6 + 205_000, bytes: [0xc1, 2] }], handed());
    expect(sent.map(([key, , bytes]) => [key, ...bytes])).toEqual([['o2', 0xc1, 2]]);
    // Back under another key, both are there again: this is the first of them.
    plugNow(out('o7'), out('o2'), input('i1'));
    expect(of('port')).toEqual([
      ['port', 'rack', false],
      ['port', 'rack', true],
    ]);
    desk.handOver(batch([0xc0, 3]), handed());
    expect(sent.at(-1)).toEqual(['o7', 200, [0xc0, 3]]);
    expect(kept!.rack!.out).toEqual(named(out('o7'), 2, 0));
  });

  it('that had no twin when it was chosen is not taken for one that was plugged in beside it', () => {
    plugNow(out('o1'), out('o5'));
    plugNow(out('o5'));
    expect(usePorts.getState().lost).toEqual(['rack']);
    desk.handOver(batch([1]), handed());
    expect(sent).toEqual([]);
  });

  it('beside a stand-in goes on, and what hangs on it is caught up when it is back', () => {
    desk.use('rack', { ...onBox, standIn: true });
    asked = [];
    plugNow();
    expect(of('port')).toEqual([]);
    expect(said.at(-1)).toMatch(/The stand-in goes on\.$/);
    plugNow(out('o1'));
    expect(of('port')).toEqual([
      ['port', 'rack', false],
      ['port', 'rack', true],
    ]);
  });

  it('has no stand-in in its place while a show is on', () => {
    desk.use('rack', { ...onBox, standIn: true });
    asked = [];
    isShowOn = true;
    desk.bindAgain();
    expect(of('bindPorts')).toEqual([['bindPorts', [{ portId: 'rack', standIn: false, real: true }]]]);
    plugNow();
    expect(of('port')).toEqual([['port', 'rack', false]]);
    expect(said.at(-1)).toMatch(/not sent anything until it is back\.$/);
    isShowOn = false;
    desk.bindAgain();
    expect(of('bindPorts').at(-1)).toEqual(['bindPorts', [{ portId: 'rack', standIn: true, real: true }]]);
  });

  it('is found by a message that it does not take', () => {
    plugged = [];
    works = 'gone';
    usePorts.setState({ ports: [out('o1')] });
    desk.handOver(batch([1]), handed());
    expect(sent).toHaveLength(1);
  });

  it('is told again to a playback that was started anew', () => {
    plugNow();
    asked = [];
    desk.tellAgain();
    expect(of('bindPorts')).toHaveLength(1);
    expect(of('port')).toEqual([['port', 'rack', false]]);
  });
});

describe('a port that is there and takes no messages', () => {
  const pass = (): void => {
    for (const run of later.splice(0)) run();
  };

  beforeEach(async () => {
    stored = { rack: onBox };
    await desk.follow(show);
    await settle();
    asked = [];
    works = 'refused';
  });

  it('is said for as long as it lasts; its units are not known, and caught up when it takes messages again', () => {
    desk.handOver(batch([0xc0, 5]), handed());
    desk.handOver(batch([0xc0, 6]), handed());
    expect(usePorts.getState().refusing).toEqual(['rack']);
    expect(said).toEqual(['Rack: the real port takes no messages. Its units get nothing.']);
    expect(of('port')).toEqual([['port', 'rack', false]]);
    pass();
    expect(usePorts.getState().refusing).toEqual(['rack']);
    works = 'sent';
    pass();
    expect(usePorts.getState().refusing).toEqual([]);
    expect(of('port').at(-1)).toEqual(['port', 'rack', true]);
    expect(said.at(-1)).toBe('Rack: the real port takes messages again. What its units missed is sent.');
    // It is tried with what does nothing.
    expect(sent.at(-1)![2]).toEqual([0x8f, 0, 0]);
    const tries = sent.length;
    pass();
    expect(sent).toHaveLength(tries);
  });

  it('goes on as one that is not there when it is pulled out', () => {
    desk.handOver(batch([0xc0, 5]), handed());
    plugNow(input('i1'));
    expect(usePorts.getState()).toMatchObject({ refusing: [], lost: ['rack'] });
    works = 'sent';
    plugNow(input('i1'), out('o1'));
    expect(usePorts.getState().lost).toEqual([]);
    expect(of('port').at(-1)).toEqual(['port', 'rack', true]);
  });
});

describe('messages that are handed over too late', () => {
  beforeEach(async () => {
    stored = { rack: onBox };
    await desk.follow(show);
    await settle();
    later.splice(0);
  });

  it('are said, with how many and how late, until none has been for a while', () => {
    // The page comes to it 2.7 s after the first should have left.
    pageNow = 2900;
    desk.handOver([...batch([1]), ...batch([2], 1e6 + 1_205_000), ...batch([3], 1e6 + 2_895_000)], handed());
    expect(usePorts.getState().late).toEqual({ count: 2, millis: 2700 });
    expect(said.at(-1)).toBe('2 messages left late, the latest by 2.7 s: this page was busy.');
    desk.handOver(batch([4], 1e6 + 2_000_000), handed());
    expect(usePorts.getState().late!.count).toBe(3);
    expect(said.filter((t) => t.includes('left late'))).toHaveLength(1);
    const [first, second] = later.splice(0);
    first!();
    expect(usePorts.getState().late).not.toBeNull();
    second!();
    expect(usePorts.getState().late).toBeNull();
  });

  it('are not those that leave at once because somebody pressed something', () => {
    desk.handOver(batch([1], 1e6 + 100_000), handed());
    expect(usePorts.getState().late).toBeNull();
  });
});

describe('what arrives', () => {
  beforeEach(async () => {
    stored = { feet: { standIn: true, out: null, in: named(input('i1')) } };
    await desk.follow(show);
    await settle();
    asked = [];
  });

  it('goes to the playback at once, at times of its clock; what comes meanwhile goes together', async () => {
    ears.bytes('i1', 150, [0xb0, 1, 2]);
    ears.bytes('i1', 151, [0xb0, 1, 3]);
    ears.bytes('i1', 152, [0xb0, 1, 4]);
    ears.bytes('i7', 152, [0xb0, 1, 5]);
    expect(of('arrived')).toEqual([['arrived', [{ portId: 'feet', at: 1e6 + 155_000, bytes: [0xb0, 1, 2] }]]]);
    answers[0]!();
    await settle();
    expect((of('arrived')[1]![1] as unknown[]).length).toBe(2);
    for (const run of later) run();
    expect(usePorts.getState().last.i1).toEqual({ bytes: [0xb0, 1, 4], count: 3 });
  });

  it('in a flood is cut, and that is said once', async () => {
    for (let i = 0; i < 30_000; i++) ears.bytes('i1', 150, [0xb0, 1, i % 128]);
    expect(said.filter((t) => t.includes('more arrives'))).toHaveLength(1);
    answers[0]!();
    await settle();
    expect((of('arrived')[1]![1] as unknown[]).length).toBe(20_000);
  });

  it('keeps who answered, each once', () => {
    const identity = { maker: '7D', family: '0100', member: '0000', version: '01000000' };
    desk.answered({ portId: 'feet', identity });
    desk.answered({ portId: 'feet', identity });
    desk.answered({ portId: 'pads', identity });
    expect(usePorts.getState().answers).toHaveLength(2);
  });
});

describe('what leaves a real port', () => {
  const planned = 1e6 + 205_000;
  const sentFor = { songId: 's', cueId: 'c', unitId: 'u', planned: planned - 2000 };

  beforeEach(async () => {
    stored = { rack: onBox };
    await desk.follow(show);
    await settle();
  });

  it('is measured against its time, where it was planned ahead', () => {
    desk.handOver(batch([0xc0, 5]), handed());
    pageNow = 203;
    desk.handOver(batch([0xc0, 6]), handed(80));
    // Pressed: there was no time ahead of it.
    desk.handOver(batch([0xc0, 7], 1e6 + 206_000), handed(3));
    expect(left).toEqual([
      ['o1', 0],
      ['o1', 3],
    ]);
  });

  it('is told of the change that it is for, with what the cable made it wait, or that it did not leave', () => {
    desk.handOver([{ ...batch([0xc0, 5])[0]!, sentFor }], handed());
    works = 'refused';
    desk.handOver([{ ...batch([0xc0, 6])[0]!, sentFor }], handed());
    expect(leftFor).toEqual([
      ['c', 2],
      ['c', null],
    ]);
  });
});

describe('a page that is slow to take what it is handed', () => {
  const unsteady = (): unknown[] => of('unsteady').map(([, is]) => is);

  it('is handed it further ahead while it is hidden, or was slow a moment ago', () => {
    desk.hidden(true);
    desk.hidden(true);
    expect(unsteady()).toEqual([true]);
    desk.handOver([], handed(300));
    desk.hidden(false);
    expect(unsteady()).toEqual([true]);
    const [wasSlow] = later;
    desk.handOver([], handed(200));
    wasSlow!();
    expect(unsteady()).toEqual([true]);
    later.at(-1)!();
    expect(unsteady()).toEqual([true, false]);
    desk.handOver([], handed(60));
    expect(unsteady()).toEqual([true, false]);
  });

  it('is handed it further ahead by a playback that was started anew, too', () => {
    desk.hidden(true);
    desk.tellAgain();
    expect(unsteady()).toEqual([true, true]);
  });
});
