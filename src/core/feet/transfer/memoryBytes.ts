import { TRIGGERS } from '../../addressing';
import { wholeMessages, type Bytes } from '../../midi';
import { problem, type Problem, type Read } from '../../problems';
import type { FootMemory, StoredAction, StoredPage, StoredPageTo, StoredPedal, StoredSwitch } from '../memory';

/** "HLF1": pages of a foot controller, in their first form. */
const MAGIC = [0x48, 0x4c, 0x46, 0x31] as const;
const BENDS = ['straight', 'slow', 'fast'] as const;
/** What stands for where a switch goes: nowhere, a page, one on, one back. */
const NOWHERE_ELSE = 0;
const TO_PAGE = 1;
const TO_NEXT = 2;
const TO_PREVIOUS = 3;

/** A memory as bytes, in the form of docs/foot-format.md. Numbers of two bytes have their upper one first. */
export function memoryBytes({ pages }: FootMemory): number[] {
  const out: number[] = [...MAGIC];
  const two = (n: number): void => void out.push((n >> 8) & 0xff, n & 0xff);
  const name = (text: string): void => {
    const utf8 = utf8Of(text).slice(0, 255);
    out.push(utf8.length, ...utf8);
  };
  two(pages.length);
  for (const page of pages) {
    two(page.place);
    name(page.name);
    out.push(page.switches.length);
    for (const { place, name: own, actions } of page.switches) {
      out.push(place);
      name(own);
      out.push(actions.length);
      for (const { trigger, messages, page: to } of actions) {
        out.push(TRIGGERS.indexOf(trigger));
        out.push(to === null ? NOWHERE_ELSE : to === 'next' ? TO_NEXT : to === 'previous' ? TO_PREVIOUS : TO_PAGE);
        two(typeof to === 'number' ? to : 0);
        const bytes = messages.flat();
        two(bytes.length);
        for (const byte of bytes) out.push(byte);
      }
    }
    out.push(page.pedals.length);
    for (const { place, channel, number, from, to, bend } of page.pedals) {
      out.push(place, channel, number, from, to, BENDS.indexOf(bend));
    }
  }
  return out;
}

/** Reads a memory's bytes. Anything that is not as it should be refuses them, with the byte where that was seen. */
export function readMemoryBytes(bytes: Bytes): Read<FootMemory> {
  const reader = new MemoryReader(bytes);
  try {
    return { value: reader.memory(), problems: [] };
  } catch (e) {
    if (e instanceof Refused) return { value: undefined, problems: [e.problem] };
    throw e;
  }
}

class Refused extends Error {
  constructor(readonly problem: Problem) {
    super(problem.code);
  }
}

class MemoryReader {
  private at = 0;

  constructor(private readonly bytes: Bytes) {}

  memory(): FootMemory {
    if (MAGIC.some((byte) => this.one() !== byte)) this.refuse(0, 'HLF1 at the start');
    const pages = this.list(this.two(), () => this.page());
    if (this.at < this.bytes.length) this.refuse(this.at, 'the end');
    return { pages };
  }

  private page(): StoredPage {
    const place = this.two();
    const name = this.name();
    const switches = this.list(this.one(), (): StoredSwitch => {
      const at = this.one();
      const own = this.name();
      return { place: at, name: own, actions: this.list(this.one(), () => this.action()) };
    });
    const pedals = this.list(this.one(), (): StoredPedal => {
      const at = this.one();
      const channel = this.in(1, 16, 'a channel from 1 to 16');
      const [number, from, to] = [this.data(), this.data(), this.data()];
      return { place: at, channel, number, from, to, bend: BENDS[this.in(0, 2, 'a bend from 0 to 2')]! };
    });
    return { place, name, switches, pedals };
  }

  private action(): StoredAction {
    const trigger = TRIGGERS[this.in(0, TRIGGERS.length - 1, 'a trigger from 0 to 4')]!;
    const kind = this.in(NOWHERE_ELSE, TO_PREVIOUS, 'where it goes, from 0 to 3');
    const place = this.two();
    const page: StoredPageTo | null =
      kind === TO_PAGE ? place : kind === TO_NEXT ? 'next' : kind === TO_PREVIOUS ? 'previous' : null;
    const start = this.at + 2;
    const length = this.two();
    const raw = this.take(length);
    const messages = wholeMessages(raw);
    if (!messages) this.refuse(start, 'whole messages');
    return { trigger, messages: messages!, page };
  }

  private list<T>(count: number, read: () => T): T[] {
    const found: T[] = [];
    for (let i = 0; i < count; i++) found.push(read());
    return found;
  }

  private name(): string {
    const start = this.at + 1;
    const text = textOf(this.take(this.one()));
    if (text === undefined) this.refuse(start, 'a name in UTF-8');
    return text!;
  }

  private one(): number {
    const byte = this.bytes[this.at];
    if (byte === undefined) this.refuse(this.at, 'more bytes');
    this.at += 1;
    return byte!;
  }

  private two(): number {
    return this.one() * 256 + this.one();
  }

  private data(): number {
    return this.in(0, 127, 'a value from 0 to 127');
  }

  private in(low: number, high: number, expected: string): number {
    const at = this.at;
    const value = this.one();
    if (value < low || value > high) this.refuse(at, expected);
    return value;
  }

  private take(count: number): number[] {
    if (this.at + count > this.bytes.length) this.refuse(this.bytes.length, 'more bytes');
    this.at += count;
    return this.bytes.slice(this.at - count, this.at);
  }

  private refuse(offset: number, expected: string): void {
    throw new Refused(problem('feet.memory', 'error', { in: 'bytes', offset }, { expected }));
  }
}

/** UTF-8, by hand: the core has no machine's encoder in it. */
function utf8Of(text: string): number[] {
  const out: number[] = [];
  for (const letter of text) {
    const code = letter.codePointAt(0)!;
    if (code < 0x80) out.push(code);
    else if (code < 0x800) out.push(0xc0 | (code >> 6), 0x80 | (code & 63));
    else if (code < 0x10000) out.push(0xe0 | (code >> 12), 0x80 | ((code >> 6) & 63), 0x80 | (code & 63));
    else out.push(0xf0 | (code >> 18), 0x80 | ((code >> 12) & 63), 0x80 | ((code >> 6) & 63), 0x80 | (code & 63));
  }
  return out;
}

function textOf(bytes: readonly number[]): string | undefined {
  let text = '';
  for (let i = 0; i < bytes.length;) {
    const first = bytes[i]!;
    const more = first < 0x80 ? 0 : first >> 5 === 6 ? 1 : first >> 4 === 14 ? 2 : first >> 3 === 30 ? 3 : -1;
    if (more < 0) return undefined;
    let code = more === 0 ? first : first & (0x3f >> more);
    for (let k = 1; k <= more; k++) {
      const next = bytes[i + k];
      if (next === undefined || next >> 6 !== 2) return undefined;
      code = (code << 6) | (next & 63);
    }
    if (code > 0x10ffff) return undefined;
    text += String.fromCodePoint(code);
    i += more + 1;
  }
  return text;
}
