import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoShow } from '../../demo';
import { StreamParser, type Bytes } from '../../midi';
import { runs } from '../../testing/runs';
import { EMPTY_MEMORY, memoryOf, type FootMemory } from '../memory';
import { blocksOf, footBytes, packed, readFootBytes, unpacked, type FootMessage } from './blocks';
import { crc16, crc32 } from './crc';
import { memoryBytes, readMemoryBytes } from './memoryBytes';
import { newReceiver, receive, type FootReceiver } from './receiver';
import { beginTransfer, progressOf, stepTransfer, transferTime, type Errand, type Transfer } from './sender';

const demo = memoryOf(demoShow(), 'treadle');
const demoBytes = memoryBytes(demo);
const CHECK = Array.from('123456789', (c) => c.charCodeAt(0));

describe('checksums', () => {
  it('give the published values for the check text', () => {
    expect(crc16(CHECK)).toBe(0x29b1);
    expect(crc32(CHECK)).toBe(0xcbf43926);
  });
});

describe('a memory as bytes', () => {
  const byte = fc.nat(127);
  const message = fc.oneof(
    fc.tuple(fc.integer({ min: 0xb0, max: 0xbf }), byte, byte),
    fc.tuple(fc.integer({ min: 0xc0, max: 0xcf }), byte),
    fc.array(byte, { maxLength: 20 }).map((data) => [0xf0, ...data, 0xf7]),
  );
  const action = fc.record({
    trigger: fc.constantFrom('press', 'again', 'release', 'long', 'double'),
    messages: fc.array(message, { maxLength: 4 }),
    page: fc.oneof(fc.constantFrom(null, 'next' as const, 'previous' as const), fc.nat(65535)),
  });
  const name = fc.string({ maxLength: 20, unit: 'grapheme' });
  const memory: fc.Arbitrary<FootMemory> = fc.record({
    pages: fc.array(
      fc.record({
        place: fc.nat(65535),
        name,
        switches: fc.array(fc.record({ place: fc.nat(127), name, actions: fc.array(action, { maxLength: 3 }) }), {
          maxLength: 4,
        }),
        pedals: fc.array(
          fc.record({
            place: fc.nat(15),
            channel: fc.integer({ min: 1, max: 16 }),
            number: byte,
            from: byte,
            to: byte,
            bend: fc.constantFrom('straight', 'slow', 'fast'),
          }),
          { maxLength: 2 },
        ),
      }),
      { maxLength: 4 },
    ),
  });

  it('comes back as it was', () => {
    expect(readMemoryBytes(demoBytes)).toEqual({ value: demo, problems: [] });
    fc.assert(
      fc.property(memory, (m) => {
        expect(readMemoryBytes(memoryBytes(m)).value).toEqual(m);
      }),
      runs(1101, 200),
    );
  });

  it('is refused with the byte where it is not one, wherever it is cut, whatever is in it', () => {
    for (let cut = 0; cut < demoBytes.length; cut++) {
      const { value, problems } = readMemoryBytes(demoBytes.slice(0, cut));
      expect(value).toBeUndefined();
      expect(problems).toHaveLength(1);
      expect(problems[0]).toMatchObject({ code: 'feet.memory', place: { in: 'bytes' } });
    }
    fc.assert(
      fc.property(fc.array(fc.nat(255), { maxLength: 300 }), fc.boolean(), (bytes, headed) => {
        readMemoryBytes(headed ? [...demoBytes.slice(0, 20), ...bytes] : bytes);
      }),
      runs(1102, 500),
    );
  });
});

describe('a message of the format', () => {
  const id = fc.nat(16383);
  const block = fc.nat(9999);
  const crc = fc.nat(2 ** 32 - 1);
  const message: fc.Arbitrary<FootMessage> = fc.oneof(
    fc.record({ kind: fc.constant('begin' as const), id, blocks: block, length: fc.nat(1 << 20), crc }),
    fc.record({
      kind: fc.constant('block' as const),
      id,
      block,
      data: fc.array(fc.nat(255), { minLength: 1, maxLength: 112 }),
    }),
    fc.record({ kind: fc.constantFrom('end' as const, 'ask' as const, 'ready' as const), id }),
    fc.record({ kind: fc.constantFrom('want' as const, 'got' as const), id, block }),
    fc.record({ kind: fc.constant('stored' as const), id, crc }),
    fc.record({ kind: fc.constant('refused' as const), id, why: fc.constantFrom('incomplete', 'damaged') }),
  );

  it('comes back as it was, as one whole exclusive message of the non-commercial id', () => {
    fc.assert(
      fc.property(message, (m) => {
        const bytes = footBytes(m);
        expect(bytes.slice(0, 4)).toEqual([0xf0, 0x7d, 0x48, 0x4c]);
        expect(bytes.slice(1, -1).every((b) => b < 0x80)).toBe(true);
        const whole: Bytes[] = [];
        const parser = new StreamParser((x) => whole.push(x));
        for (const b of bytes) parser.push(b);
        expect(whole).toEqual([bytes]);
        expect(readFootBytes(bytes)).toEqual(m);
      }),
      runs(1103, 300),
    );
  });

  it('is not taken for one when any byte of it is another', () => {
    const bytes = footBytes({ kind: 'block', id: 5, block: 3, data: [1, 200, 3, 255] });
    for (const [i, was] of bytes.entries()) {
      for (const now of [was ^ 1, was ^ 0x40, (was + 7) & 0x7f]) {
        expect(readFootBytes(bytes.with(i, now))).toBeNull();
      }
    }
    for (let cut = 0; cut < bytes.length; cut++) expect(readFootBytes(bytes.slice(0, cut))).toBeNull();
  });

  it('packs any bytes into seven bits and back', () => {
    fc.assert(
      fc.property(fc.array(fc.nat(255), { maxLength: 60 }), (bytes) => {
        expect(packed(bytes).every((b) => b < 128)).toBe(true);
        expect(unpacked(packed(bytes))).toEqual(bytes);
      }),
      runs(1104, 200),
    );
    expect(blocksOf(demoBytes).flat()).toEqual(demoBytes);
  });
});

/** What becomes of a message on its way. */
type Fate = 'well' | 'lost' | 'damaged' | 'doubled' | 'late';

/** A transfer over a cable on which things happen; what is late comes after the one behind it. */
function run(errand: Errand, memory: Bytes, fateOf: (nth: number) => Fate, cancelAt = Infinity) {
  let receiver: FootReceiver = newReceiver(memory);
  let now = 0;
  let nth = 0;
  let { transfer, sends } = beginTransfer(errand, 77, now);
  const late: { to: 'controller' | 'computer'; bytes: Bytes }[] = [];
  const carry = (to: 'controller' | 'computer', bytes: Bytes): { to: typeof to; bytes: Bytes }[] => {
    const fate = fateOf(nth++);
    const behind = late.splice(0);
    switch (fate) {
      case 'lost':
        return behind;
      case 'damaged':
        return [{ to, bytes: bytes.with(5 + (nth % (bytes.length - 6)), (bytes[5]! + 11) & 0x7f) }, ...behind];
      case 'doubled':
        return [{ to, bytes }, { to, bytes }, ...behind];
      case 'late':
        late.push({ to, bytes });
        return behind;
      case 'well':
        return [{ to, bytes }, ...behind];
    }
  };
  let rounds = 0;
  while (!transfer.end && rounds++ < 20_000) {
    const queue = sends.flatMap((b) => carry('controller', b));
    sends = [];
    for (let item = queue.shift(); item; item = queue.shift()) {
      now += 10_000;
      if (item.to === 'controller') {
        const got = receive(receiver, item.bytes);
        receiver = got.receiver;
        queue.push(...got.answers.flatMap((b) => carry('computer', b)));
      } else {
        const step = stepTransfer(transfer, { kind: 'heard', bytes: item.bytes }, now);
        transfer = step.transfer;
        sends = [...sends, ...step.sends];
      }
    }
    if (nth >= cancelAt) ({ transfer, sends } = stepTransfer(transfer, { kind: 'cancel' }, now));
    if (sends.length > 0 || transfer.end) continue;
    now += 600_000;
    ({ transfer, sends } = stepTransfer(transfer, { kind: 'wake' }, now));
  }
  return { transfer, memory: receiver.memory, messages: nth };
}

const OLD = memoryBytes(EMPTY_MEMORY);
const write: Errand = { kind: 'write', bytes: demoBytes };
const well = (): Fate => 'well';
const ended = ({ end }: Transfer): string => end?.how ?? 'goes on';

describe('a transfer', () => {
  it('ends with what was sent, read back and compared', () => {
    const { transfer, memory, messages } = run(write, OLD, well);
    expect(ended(transfer)).toBe('identical');
    expect(memory).toEqual(demoBytes);
    const blocks = blocksOf(demoBytes).length;
    expect(messages).toBe(2 * (1 + blocks + 1 + 1 + blocks));
    expect(progressOf(transfer)).toBe(1);
    // At the speed of a 5-pin cable, there and back.
    expect(transferTime(demoBytes)).toBeGreaterThan(2 * demoBytes.length * 320);
  });

  it('reads what a controller has', () => {
    expect(run({ kind: 'read' }, demoBytes, well).transfer.end).toEqual({
      how: 'read',
      bytes: demoBytes,
      memory: demo,
    });
    expect(ended(run({ kind: 'read' }, [1, 2, 3], well).transfer)).toBe('unreadable');
    expect(ended(run({ kind: 'read' }, [], well).transfer)).toBe('unreadable');
  });

  it('says that nobody answers, and where', () => {
    expect(run(write, OLD, () => 'lost').transfer.end).toEqual({ how: 'silent', at: 'begin', block: 0 });
    const cut = run(write, OLD, (n) => (n < 11 ? 'well' : 'lost'));
    expect(cut.transfer.end).toEqual({ how: 'silent', at: 'block', block: 4 });
    expect(cut.memory).toEqual(OLD);
  });

  it('that is cancelled leaves the memory as it was, or says that it was written', () => {
    for (const at of [1, 2, 9, 40, 90, 120]) {
      const { transfer, memory } = run(write, OLD, well, at);
      if (transfer.end?.how !== 'cancelled') continue;
      expect(memory).toEqual(transfer.end.written ? demoBytes : OLD);
    }
  });

  it('survives one message that is lost, damaged, doubled or late, wherever that is', () => {
    const { messages } = run(write, OLD, well);
    for (const fate of ['lost', 'damaged', 'doubled', 'late'] as const) {
      for (let nth = 0; nth < messages; nth++) {
        const { transfer, memory } = run(write, OLD, (n) => (n === nth ? fate : 'well'));
        expect([fate, nth, ended(transfer)]).toEqual([fate, nth, 'identical']);
        expect(memory).toEqual(demoBytes);
      }
    }
  });

  it('under any pattern of faults ends identical, or says that it did not; the memory is the old or the new, never a part', () => {
    const fate = fc.oneof(
      { weight: 6, arbitrary: fc.constant<Fate>('well') },
      { weight: 1, arbitrary: fc.constantFrom<Fate>('lost', 'damaged', 'doubled', 'late') },
    );
    const rough = fc.constantFrom<Fate>('well', 'lost', 'damaged', 'doubled', 'late');
    const fates = fc.oneof(
      fc.array(fate, { minLength: 20, maxLength: 400 }),
      fc.array(rough, { minLength: 5, maxLength: 60 }),
    );
    const seen = new Set<string>();
    fc.assert(
      fc.property(fates, (list) => {
        const { transfer, memory } = run(write, OLD, (n) => list[n % list.length]!);
        seen.add(ended(transfer));
        expect(transfer.end).not.toBeNull();
        const isNew = memory.length === demoBytes.length && memory.every((b, i) => b === demoBytes[i]);
        if (transfer.end!.how === 'identical') expect(isNew).toBe(true);
        else if (!isNew) expect(memory).toEqual(OLD);
      }),
      runs(1105, 200),
    );
    // The faults go both ways: some are survived, some are not.
    expect(seen.has('identical')).toBe(true);
    expect(seen.has('silent')).toBe(true);
  });

  it('that a controller takes for stored but keeps wrongly is found when it is read back', () => {
    const other = memoryBytes({ pages: demo.pages.slice(1) });
    let receiver = newReceiver(OLD);
    let step = beginTransfer(write, 3, 0);
    while (!step.transfer.end) {
      const answers = step.sends.flatMap((b) => {
        const got = receive(receiver, b);
        receiver = got.stored ? newReceiver(other) : got.receiver;
        return got.answers;
      });
      step = answers.reduce((s, bytes) => stepTransfer(s.transfer, { kind: 'heard', bytes }, 0), {
        ...step,
        sends: [] as readonly Bytes[],
      });
    }
    expect(step.transfer.end).toEqual({ how: 'differs', memory: { pages: demo.pages.slice(1) } });
  });

  it('is answered with a reason where it cannot be', () => {
    const answer = (message: FootMessage, receiver = newReceiver(OLD)) =>
      receive(receiver, footBytes(message)).answers.map(readFootBytes);
    expect(answer({ kind: 'end', id: 1 })).toEqual([{ kind: 'refused', id: 1, why: 'not-begun' }]);
    expect(answer({ kind: 'begin', id: 1, blocks: 9, length: 10, crc: 0 })).toEqual([
      { kind: 'refused', id: 1, why: 'too-large' },
    ]);
    expect(answer({ kind: 'want', id: 1, block: 9 })).toEqual([{ kind: 'refused', id: 1, why: 'incomplete' }]);
    const begun = receive(newReceiver(OLD), footBytes({ kind: 'begin', id: 1, blocks: 1, length: 2, crc: 5 })).receiver;
    expect(answer({ kind: 'end', id: 1 }, begun)).toEqual([{ kind: 'refused', id: 1, why: 'incomplete' }]);
    const filled = receive(begun, footBytes({ kind: 'block', id: 1, block: 0, data: [1, 2] })).receiver;
    expect(answer({ kind: 'end', id: 1 }, filled)).toEqual([{ kind: 'refused', id: 1, why: 'damaged' }]);
    expect(() =>
      beginTransfer({ kind: 'write', bytes: Array.from({ length: (1 << 20) + 1 }, () => 0) }, 1, 0),
    ).toThrow();
  });

  it('is taken by the controller that it is for, and by no other on the cable', () => {
    const [begin] = beginTransfer(write, 9, 0, 4).sends;
    expect(receive(newReceiver(OLD, 5), begin!).answers).toEqual([]);
    const [answer] = receive(newReceiver(OLD, 4), begin!).answers;
    expect(readFootBytes(answer!)).toEqual({ kind: 'ready', id: 9 });
    const { transfer } = beginTransfer(write, 9, 0, 4);
    expect(stepTransfer(transfer, { kind: 'heard', bytes: answer! }, 1).sends).toHaveLength(1);
    const other = footBytes({ kind: 'ready', id: 9 }, 5);
    expect(stepTransfer(transfer, { kind: 'heard', bytes: other }, 1).sends).toEqual([]);
    expect(receive(newReceiver(OLD, 5), footBytes({ kind: 'ask', id: 1 })).answers).toHaveLength(1);
  });

  it('passes over anything else that arrives', () => {
    const { transfer } = beginTransfer(write, 4, 0);
    for (const bytes of [[0xf8], [0xb0, 1, 2], [0xf0, 0x7d, 1, 0xf7], footBytes({ kind: 'ready', id: 5 })]) {
      expect(stepTransfer(transfer, { kind: 'heard', bytes }, 1)).toEqual({ transfer, sends: [] });
    }
    expect(receive(newReceiver(OLD), [0xc0, 1])).toEqual({ receiver: newReceiver(OLD), answers: [], stored: false });
  });
});
