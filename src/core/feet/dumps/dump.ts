import type { DumpForm } from '../../addressing';
import { decodeMessage, fromHex, type Bytes } from '../../midi';
import { problem, type Place, type Problem, type Read } from '../../problems';
import type { FootMemory, StoredAction, StoredPage, StoredPedal, StoredSwitch } from '../memory';
import { checksumOf, pack, unpack } from './packing';

const END = 0xf7;

/** A message of a dump: its bytes behind the head, and the memory that they carry. */
interface Carried {
  /** Where its memory begins in the dump, in bytes. */
  readonly at: number;
  /** Place of the page that it is for; 0 where one message holds all pages. */
  readonly page: number;
  readonly memory: Bytes;
  /** The same as it travelled. */
  readonly data: Bytes;
}

const atByte = (offset: number): Place => ({ in: 'bytes', offset });

const refuse = (offset: number, expected: string, found: string): Problem =>
  problem('dump.not-one', 'error', atByte(offset), { expected, found });

const hex = (byte: number | undefined): string =>
  byte === undefined ? 'nothing' : byte.toString(16).toUpperCase().padStart(2, '0');

/** Where each page begins in the memory of which message. */
const pageAt = ({ perPage, pages }: DumpForm, place: number): number => pages.at + (perPage ? 0 : place * pages.size);

/** Bytes of memory that a message has to carry for its pages. */
const memoryNeeded = ({ perPage, pages }: DumpForm): number => pages.at + pages.size * (perPage ? 1 : pages.count);

/** The messages of a dump, opened; each has to be of the form, or the dump is none of it. */
function opened(form: DumpForm, dump: Bytes): Read<readonly Carried[]> {
  const head = fromHex(form.head)!;
  const found: Carried[] = [];
  let at = 0;
  while (at < dump.length) {
    for (const [i, b] of head.entries()) {
      if (dump[at + i] !== b) return { value: undefined, problems: [refuse(at + i, hex(b), hex(dump[at + i]))] };
    }
    const begins = at + head.length;
    const end = dump.indexOf(END, begins);
    if (end < 0) return { value: undefined, problems: [refuse(dump.length, 'F7', 'nothing')] };
    const wrong = dump.slice(begins, end).findIndex((b) => b > 127);
    if (wrong >= 0) {
      return { value: undefined, problems: [refuse(begins + wrong, 'a data byte', hex(dump[begins + wrong]))] };
    }
    const sums = form.checksum === 'none' ? 0 : 1;
    const body = dump.slice(begins, end - sums);
    const sum = checksumOf(form.checksum, body);
    if (end - sums < begins || (sum !== null && dump[end - 1] !== sum)) {
      const expected = `the checksum ${hex(sum ?? 0)}`;
      return { value: undefined, problems: [refuse(end - 1, expected, hex(dump[end - 1]))] };
    }
    const data = form.perPage ? body.slice(1) : body;
    const memory = unpack(form.packing, data);
    const needed = memoryNeeded(form);
    if (memory.length < needed || (form.perPage && body.length === 0)) {
      const problems = [refuse(end, `${needed} bytes of memory`, `${memory.length}`)];
      return { value: undefined, problems };
    }
    const page = form.perPage ? body[0]! : 0;
    if (page >= form.pages.count) {
      return { value: undefined, problems: [refuse(begins, `a page from 0 to ${form.pages.count - 1}`, String(page))] };
    }
    found.push({ at: begins + (form.perPage ? 1 : 0), page, memory, data });
    at = end + 1;
  }
  if (found.length === 0) return { value: undefined, problems: [refuse(0, hex(head[0]), 'nothing')] };
  return { value: found, problems: [] };
}

const nameIn = (memory: Bytes, from: number, name: DumpForm['name']): string => {
  if (!name) return '';
  const letters = memory.slice(from + name.at, from + name.at + name.length);
  const text = String.fromCharCode(...letters.map((b) => (b >= 32 && b < 127 ? b : 32)));
  return text.trimEnd();
};

/** The message in one of a controller's places; null for none, undefined for what the form has no name for. */
function messageIn({ message }: DumpForm, memory: Bytes, at: number): Bytes | null | undefined {
  const { kind, channel, number, value } = message;
  const which = memory[at + kind.at];
  if (which === kind.none) return null;
  const on = (memory[at + channel.at]! - channel.first) & 15;
  const [first, second] = [memory[at + number.at]! & 0x7f, memory[at + value.at]! & 0x7f];
  if (which === kind.program) return [0xc0 | on, first];
  if (which === kind.control) return [0xb0 | on, first, second];
  if (which === kind.note) return [0x90 | on, first, second];
  return undefined;
}

function actionsIn(form: DumpForm, memory: Bytes, at: number): StoredAction[] {
  return form.actions.flatMap(({ trigger, messages }): StoredAction[] => {
    const found = Array.from({ length: messages.count }, (_, i) =>
      messageIn(form, memory, at + messages.at + i * messages.size),
    ).filter((m) => m !== null && m !== undefined);
    return found.length > 0 ? [{ trigger, messages: found, page: null }] : [];
  });
}

function pedalIn({ pedals }: DumpForm, memory: Bytes, page: number, place: number): StoredPedal | null {
  if (!pedals) return null;
  const at = page + pedals.row.at + place * pedals.row.size;
  const number = memory[at + pedals.number]!;
  if (number === pedals.unused) return null;
  const channel = ((memory[at + pedals.channel.at]! - pedals.channel.first) & 15) + 1;
  const [from, to] = [memory[at + pedals.from]! & 0x7f, memory[at + pedals.to]! & 0x7f];
  return { place, channel, number: number & 0x7f, from, to, bend: 'straight' };
}

function pageIn(form: DumpForm, memory: Bytes, at: number, place: number): StoredPage {
  const switches = Array.from({ length: form.switches.count }, (_, i): StoredSwitch => {
    const own = at + form.switches.at + i * form.switches.size;
    return { place: i, name: nameIn(memory, own, form.switchName), actions: actionsIn(form, memory, own) };
  }).filter((s) => s.name !== '' || s.actions.length > 0);
  const pedals = Array.from({ length: form.pedals?.row.count ?? 0 }, (_, i) => pedalIn(form, memory, at, i));
  return { place, name: nameIn(memory, at, form.name), switches, pedals: pedals.filter((p) => p !== null) };
}

const placesIn = (form: DumpForm, { page }: Carried): readonly number[] =>
  form.perPage ? [page] : Array.from({ length: form.pages.count }, (_, i) => i);

const isEmpty = ({ name, switches, pedals }: StoredPage): boolean =>
  name === '' && switches.length === 0 && pedals.length === 0;

/**
 * Reads the pages out of a dump, as its form says; pages with nothing on them are left out. Refused whole, with the byte,
 * where it is no dump of the form.
 */
export function readDump(form: DumpForm, dump: Bytes): Read<FootMemory> {
  const { value, problems } = opened(form, dump);
  if (!value) return { value: undefined, problems };
  const pages = value.flatMap((carried) =>
    placesIn(form, carried).map((place) => pageIn(form, carried.memory, pageAt(form, place), place)),
  );
  return { value: { pages: pages.filter((p) => !isEmpty(p)).sort((a, b) => a.place - b.place) }, problems };
}

/** Writes what is wanted into memory, wherever it says something else now; what could not be written is said. */
class Writer {
  readonly problems: Problem[] = [];
  constructor(
    private readonly form: DumpForm,
    private readonly memory: number[],
  ) {}

  page(at: number, wanted: StoredPage): void {
    const { form, memory } = this;
    const now = pageIn(form, memory, at, wanted.place);
    const where = { page: wanted.place };
    if (now.name !== wanted.name) this.name(at, form.name, wanted.name, { ...where, switch: null });
    for (let i = 0; i < form.switches.count; i++) {
      const own = at + form.switches.at + i * form.switches.size;
      const after = wanted.switches.find((s) => s.place === i);
      const before = now.switches.find((s) => s.place === i);
      if ((after?.name ?? '') !== (before?.name ?? '')) {
        this.name(own, form.switchName, after?.name ?? '', { ...where, switch: i });
      }
      this.actions(own, before?.actions ?? [], after?.actions ?? [], { ...where, switch: i });
    }
    const beyond = wanted.switches.filter((s) => s.place >= form.switches.count);
    for (const s of beyond) this.lost({ ...where, switch: s.place }, 'the switch');
    this.pedals(at, now, wanted);
  }

  private lost(at: { readonly page: number; readonly switch: number | null }, what: string): void {
    this.problems.push(problem('dump.no-room', 'warning', { in: 'show', path: [] }, { ...at, what }));
  }

  private name(at: number, name: DumpForm['name'], text: string, where: { page: number; switch: number | null }): void {
    if (!name) {
      if (text !== '') this.lost(where, `the name "${text}"`);
      return;
    }
    const letters = Array.from(text.normalize('NFKD')).filter((c) => c >= ' ' && c <= '~');
    if (letters.length > name.length) this.lost(where, `the end of the name "${text}"`);
    for (let i = 0; i < name.length; i++) this.memory[at + name.at + i] = letters[i]?.charCodeAt(0) ?? name.pad;
  }

  private actions(
    at: number,
    before: readonly StoredAction[],
    after: readonly StoredAction[],
    where: { page: number; switch: number },
  ): void {
    for (const { trigger, messages } of this.form.actions) {
      const [was, is] = [before, after].map((all) => all.find((a) => a.trigger === trigger)?.messages ?? []);
      if (JSON.stringify(was) === JSON.stringify(is)) continue;
      const fits = is!.filter((m) => this.kindOf(m) !== null);
      for (const m of is!)
        if (this.kindOf(m) === null) this.lost(where, `the message ${m.map((b) => hex(b)).join(' ')}`);
      // A place that holds what the form has no name for is left as it is.
      const places = Array.from({ length: messages.count }, (_, i) => at + messages.at + i * messages.size).filter(
        (place) => messageIn(this.form, this.memory, place) !== undefined,
      );
      if (fits.length > places.length) this.lost(where, `${fits.length - places.length} messages`);
      for (const [i, place] of places.entries()) this.message(place, fits[i]);
    }
    for (const action of after) {
      if (action.page !== null) this.lost(where, 'where it goes to');
      if (!this.form.actions.some((a) => a.trigger === action.trigger))
        this.lost(where, `what it does on ${action.trigger}`);
    }
  }

  private kindOf(message: Bytes): number | null {
    const { kind } = this.form.message;
    const decoded = decodeMessage(message);
    if (decoded?.kind === 'program') return kind.program;
    if (decoded?.kind === 'control') return kind.control;
    return decoded?.kind === 'note-on' ? kind.note : null;
  }

  private message(at: number, bytes: Bytes | undefined): void {
    const { kind, channel, number, value } = this.form.message;
    this.memory[at + kind.at] = bytes ? this.kindOf(bytes)! : kind.none;
    if (!bytes) return;
    this.memory[at + channel.at] = (bytes[0]! & 15) + channel.first;
    this.memory[at + number.at] = bytes[1]!;
    if (bytes.length > 2) this.memory[at + value.at] = bytes[2]!;
  }

  private pedals(at: number, now: StoredPage, wanted: StoredPage): void {
    const { pedals } = this.form;
    for (const p of wanted.pedals) {
      if (!pedals || p.place >= pedals.row.count)
        this.lost({ page: wanted.place, switch: null }, `pedal ${p.place + 1}`);
    }
    if (!pedals) return;
    for (let i = 0; i < pedals.row.count; i++) {
      const [was, is] = [now, wanted].map((page) => page.pedals.find((p) => p.place === i));
      if (JSON.stringify(was) === JSON.stringify(is)) continue;
      const own = at + pedals.row.at + i * pedals.row.size;
      this.memory[own + pedals.number] = is?.number ?? pedals.unused;
      if (!is) continue;
      if (is.bend !== 'straight') this.lost({ page: wanted.place, switch: null }, `the curve of pedal ${i + 1}`);
      this.memory[own + pedals.channel.at] = is.channel - 1 + pedals.channel.first;
      this.memory[own + pedals.from] = is.from;
      this.memory[own + pedals.to] = is.to;
    }
  }
}

/**
 * Writes pages back into a dump that came: byte for byte the same where nothing changed, and whatever the form does not name
 * as it was. Pages that are not given stay as they are. What the controller has no room for is left out and said.
 */
export function writeDump(form: DumpForm, dump: Bytes, wanted: FootMemory): Read<readonly number[]> {
  const { value, problems } = opened(form, dump);
  if (!value) return { value: undefined, problems };
  const head = fromHex(form.head)!;
  const said: Problem[] = [];
  const written = value.flatMap((carried) => {
    const memory = [...carried.memory];
    for (const place of placesIn(form, carried)) {
      const page = wanted.pages.find((p) => p.place === place);
      if (!page) continue;
      const writer = new Writer(form, memory);
      writer.page(pageAt(form, place), page);
      said.push(...writer.problems);
    }
    // Bits that carry nothing stay as they came: only what changed travels in other bytes.
    const [was, is] = [pack(form.packing, carried.memory), pack(form.packing, memory)];
    const data = carried.data.map((b, i) => (i < is.length && is[i] !== was[i] ? is[i]! : b));
    const body = [...(form.perPage ? [carried.page] : []), ...data];
    const sum = checksumOf(form.checksum, body);
    return [...head, ...body, ...(sum === null ? [] : [sum]), END];
  });
  const there = new Set(value.flatMap((carried) => placesIn(form, carried)));
  for (const { place } of wanted.pages) {
    if (there.has(place)) continue;
    const data = { page: place, switch: null, what: 'the page' };
    said.push(problem('dump.no-room', 'warning', { in: 'show', path: [] }, data));
  }
  return { value: written, problems: said };
}

/** A dump of a controller that holds nothing: what a stand-in has before anything is programmed. */
export function blankDump(form: DumpForm): readonly number[] {
  const { pages, name, switches, switchName, actions, message, pedals, perPage } = form;
  const page = Array.from({ length: pages.size }, () => 0);
  const fill = (at: number, of: DumpForm['name']): void => {
    if (of) page.fill(of.pad, at + of.at, at + of.at + of.length);
  };
  fill(0, name);
  for (let i = 0; i < switches.count; i++) {
    const own = switches.at + i * switches.size;
    fill(own, switchName);
    for (const { messages } of actions) {
      for (let k = 0; k < messages.count; k++)
        page[own + messages.at + k * messages.size + message.kind.at] = message.kind.none;
    }
  }
  if (pedals) {
    const { at, size, count } = pedals.row;
    for (let i = 0; i < count; i++) page[at + i * size + pedals.number] = pedals.unused;
  }
  const before = Array.from({ length: pages.at }, () => 0);
  const all = Array.from({ length: pages.count }, () => page);
  const memories = perPage ? all.map((p) => [...before, ...p]) : [[...before, ...all.flat()]];
  return memories.flatMap((memory, i) => {
    const body = [...(perPage ? [i] : []), ...pack(form.packing, memory)];
    const sum = checksumOf(form.checksum, body);
    return [...fromHex(form.head)!, ...body, ...(sum === null ? [] : [sum]), END];
  });
}

/** A byte in which two dumps of a controller differ: by it one finds where something stands. */
export interface DumpDifference {
  /** Which message, from 0, and which byte of it. */
  readonly message: number;
  readonly byte: number;
  readonly one: number;
  readonly other: number;
}

/** Where two dumps differ, byte by byte; null where they are not of one make: other messages, or other lengths of them. */
export function dumpDifferences(one: readonly Bytes[], other: readonly Bytes[]): readonly DumpDifference[] | null {
  if (one.length !== other.length || one.some((m, i) => m.length !== other[i]!.length)) return null;
  return one.flatMap((bytes, message) =>
    bytes.flatMap((b, byte): DumpDifference[] => {
      const there = other[message]![byte]!;
      return b === there ? [] : [{ message, byte, one: b, other: there }];
    }),
  );
}
