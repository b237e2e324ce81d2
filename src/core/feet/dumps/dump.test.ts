import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { problemLine } from '../../../wording';
import type { DumpForm } from '../../addressing';
import { LIBRARY } from '../../library';
import { controlChange, fromHex, noteOn, programChange, type Bytes } from '../../midi';
import { runs } from '../../testing/runs';
import { compareMemories, type FootMemory, type StoredPage } from '../memory';
import { blankDump, dumpDifferences, formProblems, readDump, writeDump } from './';

const CONTROLLERS = LIBRARY.flatMap(({ profile }) =>
  profile.controller?.memory ? [[profile.name, profile.controller, profile.controller.memory] as const] : [],
);
const byHead = (head: string): DumpForm => CONTROLLERS.find(([, , form]) => form.head === head)![2];
const [four, displays, pads] = [byHead('f07d4634'), byHead('f07d4c44'), byHead('f07d5041')];

const read = (form: DumpForm, dump: Bytes): FootMemory => {
  const { value, problems } = readDump(form, dump);
  expect(problems.map(problemLine)).toEqual([]);
  return value!;
};
const written = (form: DumpForm, dump: Bytes, memory: FootMemory) => {
  const { value, problems } = writeDump(form, dump, memory);
  return { dump: value!, said: problems.map(problemLine) };
};
const page = (place: number, rest: Partial<StoredPage> = {}): StoredPage => ({
  place,
  name: '',
  switches: [],
  pedals: [],
  ...rest,
});
const press = (place: number, ...messages: Bytes[]) => ({
  place,
  name: '',
  actions: [{ trigger: 'press' as const, messages, page: null }],
});

describe('a dump, written by hand', () => {
  // Page 3 of the four switches: the second sends program 6 on channel 1 and control 20 = 127 on channel 2 when it is pressed.
  const body = Array.from({ length: 64 }, () => 0);
  body.splice(16, 8, 1, 0, 5, 0, 2, 1, 20, 127);
  const sum = [2, ...body].reduce((all, b) => all ^ b, 0);
  const dump = [0xf0, 0x7d, 0x46, 0x34, 2, ...body, sum, 0xf7];

  it('is read as pages', () => {
    expect(read(four, dump)).toEqual({
      pages: [page(2, { switches: [press(1, programChange(1, 5), controlChange(2, 20, 127))] })],
    });
  });

  it('is written back with one number changed: that byte, and the checksum', () => {
    const next = { pages: [page(2, { switches: [press(1, programChange(1, 9), controlChange(2, 20, 127))] })] };
    const after = written(four, dump, next);
    expect(after.said).toEqual([]);
    expect(dumpDifferences([dump], [after.dump])!.map((d) => [d.byte, d.one, d.other])).toEqual([
      [23, 5, 9],
      [69, sum, sum ^ 5 ^ 9],
    ]);
  });

  it('carries bytes of eight bits in halves, and in groups of seven', () => {
    const note = { pages: [page(0, { switches: [press(0, noteOn(10, 60, 100))] })] };
    const half = written(pads, blankDump(pads), note).dump;
    // Number, value, channel, kind; each in two halves, the upper first.
    expect(half.slice(4, 12)).toEqual([3, 12, 6, 4, 0, 9, 0, 1]);
    const packed = written(displays, blankDump(displays), note).dump;
    // Behind the eight bytes of settings, the name of the page and that of the switch: byte 40 of the memory is the kind, 90.
    const group = packed.slice(4 + Math.floor(40 / 7) * 8, 4 + Math.floor(40 / 7) * 8 + 8);
    expect(group[1 + (40 % 7)]).toBe(0x90 & 0x7f);
    expect((group[0]! >> (40 % 7)) & 1).toBe(1);
  });
});

describe.each(CONTROLLERS)('the memory of "%s"', (_, controller, form) => {
  it('is described without parts in each other’s place, for all of its switches and pedals', () => {
    expect(formProblems(form)).toEqual([]);
    expect(form.switches.count).toBe(controller.switches.length);
    expect(form.pedals?.row.count ?? 0).toBe(controller.pedals.length);
    expect(read(form, blankDump(form))).toEqual({ pages: [] });
  });

  const kinds = form.message.kind;
  const message = fc.oneof(
    ...(kinds.program === null
      ? []
      : [fc.tuple(fc.integer({ min: 1, max: 16 }), fc.nat(127)).map(([c, n]) => programChange(c, n))]),
    ...(kinds.control === null
      ? []
      : [
          fc
            .tuple(fc.integer({ min: 1, max: 16 }), fc.nat(119), fc.nat(127))
            .map(([c, n, v]) => controlChange(c, n, v)),
        ]),
    ...(kinds.note === null
      ? []
      : [
          fc
            .tuple(fc.integer({ min: 1, max: 16 }), fc.nat(127), fc.integer({ min: 1, max: 127 }))
            .map(([c, n, v]) => noteOn(c, n, v)),
        ]),
  );
  const name = (of: DumpForm['name']) =>
    of ? fc.stringMatching(new RegExp(`^[A-Za-z0-9 ]{0,${of.length}}$`)).map((t) => t.trim()) : fc.constant('');
  const actions = fc
    .tuple(
      ...form.actions.map(({ trigger, messages }) =>
        fc
          .array(message, { maxLength: messages.count })
          .map((m) => (m.length > 0 ? [{ trigger, messages: m, page: null }] : [])),
      ),
    )
    .map((all) => all.flat());
  const onePage = fc.tuple(
    name(form.name),
    fc.array(fc.tuple(name(form.switchName), actions), {
      minLength: form.switches.count,
      maxLength: form.switches.count,
    }),
    fc.array(fc.option(fc.tuple(fc.integer({ min: 1, max: 16 }), fc.nat(127), fc.nat(127), fc.nat(127))), {
      minLength: form.pedals?.row.count ?? 0,
      maxLength: form.pedals?.row.count ?? 0,
    }),
  );
  const memory: fc.Arbitrary<FootMemory> = fc
    .uniqueArray(fc.tuple(fc.nat(form.pages.count - 1), onePage), { selector: ([place]) => place, maxLength: 4 })
    .map((pages) => ({
      pages: pages
        .map(([place, [title, switches, pedals]]) => ({
          place,
          name: title,
          switches: switches
            .map(([own, does], i) => ({ place: i, name: own, actions: does }))
            .filter((s) => s.name !== '' || s.actions.length > 0),
          pedals: pedals.flatMap((p, i) =>
            p ? [{ place: i, channel: p[0], number: p[1], from: p[2], to: p[3], bend: 'straight' as const }] : [],
          ),
        }))
        .filter((p) => p.name !== '' || p.switches.length > 0 || p.pedals.length > 0)
        .sort((a, b) => a.place - b.place),
    }));

  it('gives back what was written, and the same bytes where nothing changed', () => {
    fc.assert(
      fc.property(memory, (wanted) => {
        const { dump, said } = written(form, blankDump(form), wanted);
        expect(said).toEqual([]);
        expect(compareMemories(wanted, read(form, dump))).toEqual([]);
        expect(written(form, dump, read(form, dump)).dump).toEqual(dump);
      }),
      runs(2201, 40),
    );
  });

  it('keeps what its form does not name: any bytes that came are the same again', () => {
    const blank = blankDump(form);
    const head = fromHex(form.head)!.length;
    const one = blank.slice(0, blank.indexOf(0xf7) + 1);
    fc.assert(
      fc.property(fc.infiniteStream(fc.nat(127)), (noise) => {
        const bytes = noise[Symbol.iterator]();
        const body = one.slice(head + (form.perPage ? 1 : 0), -2).map(() => bytes.next().value as number);
        const whole = [...(form.perPage ? [1] : []), ...body];
        const sum = { none: 0, ...sums(whole) }[form.checksum];
        const dump = [...fromHex(form.head)!, ...whole, sum, 0xf7];
        expect(written(form, dump, read(form, dump)).dump).toEqual(dump);
      }),
      runs(2202, 40),
    );
  });

  it('answers damaged and foreign dumps with the byte', () => {
    const dump = [...blankDump(form)];
    const say = (bytes: Bytes): string => readDump(form, bytes).problems.map(problemLine).join();
    expect(say([])).toMatch(/expected F0, found nothing/);
    expect(say([0xf0, 0x7e, 1, 0xf7])).toMatch(/byte 1: .*expected 7D, found 7E/);
    expect(say(dump.slice(0, -1))).toMatch(/expected F7, found nothing/);
    expect(say(dump.with(10, (dump[10]! + 1) & 0x7f))).toMatch(/expected the checksum/);
    expect(say(dump.with(10, 200))).toMatch(/byte 10: .*expected a data byte, found C8/);
    fc.assert(
      fc.property(fc.nat(dump.length), fc.nat(255), fc.nat(dump.length), (at, value, cut) => {
        const bad = dump.with(Math.min(at, dump.length - 1), value).slice(0, cut);
        expect(readDump(form, bad).problems.length > 0 || readDump(form, bad).value !== undefined).toBe(true);
      }),
      runs(2203, 60),
    );
  });
});

const sums = (body: Bytes) => {
  const sum = body.reduce((all, b) => (all + b) % 128, 0);
  return { sum, missing: (128 - sum) % 128, xor: body.reduce((all, b) => all ^ b, 0) };
};

describe('what a controller has no room for', () => {
  it('is left out and said, with the page and the switch', () => {
    const wanted = {
      pages: [
        page(0, {
          name: 'Fog',
          switches: [
            press(0, programChange(1, 1), programChange(1, 2), programChange(1, 3)),
            press(1, [0xf0, 1, 0xf7]),
            press(9, programChange(1, 1)),
            { place: 2, name: '', actions: [{ trigger: 'double', messages: [programChange(1, 1)], page: 4 }] },
          ],
        }),
        page(20),
      ],
    };
    expect(written(four, blankDump(four), wanted).said.map((s) => s.replace(/^.*?Page/, 'Page'))).toEqual([
      'Page 1: the controller has no room for the name "Fog".',
      'Page 1, switch 1: the controller has no room for 1 messages.',
      'Page 1, switch 2: the controller has no room for the message F0 01 F7.',
      'Page 1, switch 3: the controller has no room for where it goes to.',
      'Page 1, switch 3: the controller has no room for what it does on double.',
      'Page 1, switch 10: the controller has no room for the switch.',
      'Page 21: the controller has no room for the page.',
    ]);
  });

  it('of two dumps that differ by one edit, the byte is found', () => {
    const one = written(pads, blankDump(pads), { pages: [page(0, { switches: [press(2, noteOn(1, 40, 90))] })] }).dump;
    const other = written(pads, blankDump(pads), {
      pages: [page(0, { switches: [press(2, noteOn(1, 41, 90))] })],
    }).dump;
    expect(dumpDifferences([one], [other])!.map((d) => d.byte)).toEqual([4 + 32 + 1, one.length - 2]);
    expect(dumpDifferences([one], [[...other, 0]])).toBeNull();
    expect(dumpDifferences([one], [])).toBeNull();
  });
});

describe('a form', () => {
  it('that lies over itself, or beyond its part, is told where', () => {
    const bad: DumpForm = {
      ...four,
      name: { at: 60, length: 8, pad: 32 },
      message: { ...four.message, value: { at: 2 } },
    };
    expect(formProblems(bad).map(problemLine)).toEqual([
      expect.stringMatching(/name: It ends at byte 68 of a page that has 64\./),
      expect.stringMatching(/name: It lies over switches, which reaches beyond byte 60\./),
      expect.stringMatching(/message\.value: It lies over message\.number/),
    ]);
  });
});
