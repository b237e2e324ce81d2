import { problem, type Place, type Problem, type Read } from '../../problems';
import {
  META_END,
  META_METRE,
  META_PORT,
  META_TEMPO,
  TEXT_TYPES,
  type SmfDivision,
  type SmfEvent,
  type SmfFile,
  type SmfTrack,
} from './types';

/** Events that one file may hold; more is not a song. */
export const EVENT_LIMIT = 1_000_000;

/** Thrown inside the reader only; `readSmf` turns it into an answer. */
class Refused extends Error {
  constructor(readonly problem: Problem) {
    super(problem.code);
  }
}

const chunkName = (bytes: Uint8Array, at: number): string =>
  String.fromCharCode(...bytes.subarray(at, at + 4)).replace(/[^ -~]/g, '?');

/**
 * Reads a Standard MIDI File in one pass. Any error refuses the whole file, with the byte
 * offset where reading stopped; what can be read past without loss of messages is a
 * warning. Never takes longer than the file is long. (Standard MIDI Files 1.0.)
 */
export function readSmf(bytes: Uint8Array): Read<SmfFile> {
  const problems: Problem[] = [];
  try {
    return { value: new Reader(bytes, problems).file(), problems };
  } catch (error) {
    if (!(error instanceof Refused)) throw error;
    return { value: undefined, problems: [...problems, error.problem] };
  }
}

class Reader {
  private at = 0;
  private end: number;
  private track: number | undefined;
  private events = 0;

  constructor(
    private readonly bytes: Uint8Array,
    private readonly problems: Problem[],
  ) {
    this.end = bytes.length;
  }

  file(): SmfFile {
    const { bytes } = this;
    if (bytes.length > 3 && bytes.length < 14 && chunkName(bytes, 0) === 'MThd') {
      throw new Refused(problem('smf.header-cut', 'error', this.place(bytes.length), { bytes: bytes.length }));
    }
    if (bytes.length < 14 || chunkName(bytes, 0) !== 'MThd') {
      const found = bytes.length === 0 ? 'nothing' : chunkName(bytes, 0);
      throw new Refused(problem('smf.not-midi', 'error', this.place(0), { found }));
    }
    const length = this.u32(4);
    if (length < 6 || 8 + length > bytes.length) {
      throw new Refused(problem('smf.header-length', 'error', this.place(4), { length }));
    }
    const format = this.u16(8);
    const announced = this.u16(10);
    if (format !== 0 && format !== 1 && format !== 2) {
      throw new Refused(problem('smf.format', 'error', this.place(8), { format }));
    }
    const division = this.division();
    this.at = 8 + length;
    const tracks: SmfTrack[] = [];
    while (this.at < bytes.length && tracks.length < announced) {
      const track = this.chunk(tracks.length + 1);
      if (track) tracks.push(track);
    }
    this.track = undefined;
    if (this.at < bytes.length) {
      const left = bytes.length - this.at;
      this.problems.push(problem('smf.extra-bytes', 'warning', this.place(), { bytes: left }));
    }
    if (tracks.length === 0) throw new Refused(problem('smf.no-tracks', 'error', this.place(10), {}));
    if (tracks.length < announced) {
      const data = { announced, found: tracks.length };
      this.problems.push(problem('smf.missing-tracks', 'warning', this.place(10), data));
    }
    return { format, division, tracks };
  }

  private division(): SmfDivision {
    const word = this.u16(12);
    if (word < 0x8000) {
      if (word === 0) throw new Refused(problem('smf.division', 'error', this.place(12), { division: 0 }));
      return { kind: 'quarter', ticks: word };
    }
    const frames = 256 - (word >> 8);
    const ticks = word & 0xff;
    if (![24, 25, 29, 30].includes(frames) || ticks === 0) {
      throw new Refused(problem('smf.division', 'error', this.place(12), { division: word }));
    }
    return { kind: 'frames', frames, ticks };
  }

  /** One chunk; undefined for a kind that is not a track and is passed over (the standard allows any). */
  private chunk(number: number): SmfTrack | undefined {
    const start = this.at;
    const left = this.bytes.length - start;
    if (left < 8) {
      throw new Refused(problem('smf.event-cut', 'error', this.place(), { wanted: 8, left }));
    }
    const name = chunkName(this.bytes, start);
    const length = this.u32(start + 4);
    if (length > left - 8) {
      const data = { name, length, left: left - 8 };
      throw new Refused(problem('smf.chunk-too-long', 'error', this.place(start + 4), data));
    }
    this.at = start + 8;
    if (name !== 'MTrk') {
      this.at += length;
      this.problems.push(problem('smf.unknown-chunk', 'warning', this.place(start), { name, length }));
      return undefined;
    }
    this.end = start + 8 + length;
    this.track = number;
    const track = this.readTrack();
    this.at = this.end;
    this.end = this.bytes.length;
    return track;
  }

  private readTrack(): SmfTrack {
    const { bytes, end } = this;
    const events: SmfEvent[] = [];
    const room = EVENT_LIMIT - this.events;
    let { at } = this;
    let tick = 0;
    let status = 0;
    let cancelled = false;
    while (at < end) {
      // Nearly all of a file is short waits and channel messages; they are read without a call.
      let wait = bytes[at++]!;
      if (wait > 127) {
        this.at = at - 1;
        wait = this.variable();
        at = this.at;
      }
      tick += wait;
      if (at >= end) throw this.cut(1, at);
      const start = at;
      const first = bytes[at]!;
      if (first < 0xf0) {
        if (first >= 0x80) {
          status = first;
          at += 1;
        } else if (status === 0 || cancelled) this.noStatus(start, status);
        cancelled = false;
        const short = (status & 0xe0) === 0xc0;
        const last = short ? at : at + 1;
        if (last >= end) throw this.cutMessage(at, last);
        const a = bytes[at]!;
        const b = bytes[last]!;
        if ((a | b) > 127) throw this.notData(a > 127 ? at : last);
        at = last + 1;
        events.push({ tick, kind: 'message', bytes: short ? [status, a] : [status, a, b] });
      } else {
        this.at = at + 1;
        if (first === 0xff) {
          if (this.meta(tick, events)) {
            this.events += events.length;
            return { events, end: tick };
          }
        } else if (first === 0xf0 || first === 0xf7) this.packet(tick, first, events);
        else throw new Refused(problem('smf.bad-status', 'error', this.place(start), { byte: first }));
        cancelled = true;
        at = this.at;
      }
      if (events.length > room) {
        const data = { events: EVENT_LIMIT + 1, limit: EVENT_LIMIT };
        throw new Refused(problem('smf.too-many', 'error', this.place(start), data));
      }
    }
    this.at = at;
    this.events += events.length;
    this.problems.push(problem('smf.no-end', 'warning', this.place(bytes.length), {}));
    return { events, end: tick };
  }

  /** Reads a meta event; true at the end of the track. */
  private meta(tick: number, events: SmfEvent[]): boolean {
    const { bytes } = this;
    const offset = this.at - 1;
    const type = this.byte();
    const length = this.variable();
    const from = this.take(length);
    const text = TEXT_TYPES[type];
    if (text) {
      events.push({ tick, kind: 'text', type: text, text: decodeText(bytes.subarray(from, from + length)) });
    } else if (type === META_END) {
      if (this.at < this.end) {
        const left = this.end - this.at;
        this.problems.push(problem('smf.after-end', 'warning', this.place(), { bytes: left }));
      }
      return true;
    } else if (type === META_TEMPO) {
      this.wantLength('tempo', 3, length, offset);
      const micros = (bytes[from]! << 16) | (bytes[from + 1]! << 8) | bytes[from + 2]!;
      if (micros === 0) throw new Refused(problem('smf.tempo', 'error', this.place(offset), { micros }));
      events.push({ tick, kind: 'tempo', micros, offset });
    } else if (type === META_METRE) {
      this.wantLength('metre', 2, length, offset);
      const beats = bytes[from]!;
      const unit = 2 ** bytes[from + 1]!;
      if (beats === 0 || unit > 128) {
        this.problems.push(problem('smf.metre', 'warning', this.place(offset), { beats, unit }));
      } else events.push({ tick, kind: 'metre', beats, unit, offset });
    } else if (type === META_PORT) {
      this.wantLength('port', 1, length, offset);
      events.push({ tick, kind: 'port', port: bytes[from]! });
    } else events.push({ tick, kind: 'meta', type, length });
    return false;
  }

  private wantLength(meta: string, expected: number, length: number, offset: number): void {
    if (length >= expected) return;
    throw new Refused(problem('smf.meta-length', 'error', this.place(offset), { meta, expected, length }));
  }

  private packet(tick: number, first: number, events: SmfEvent[]): void {
    const length = this.variable();
    const from = this.take(length);
    const data = Array.from(this.bytes.subarray(from, from + length));
    if (first === 0xf0) data.unshift(0xf0);
    if (data.length > 0) events.push({ tick, kind: 'packet', bytes: data });
  }

  /** Variable-length quantity: at most four bytes, seven bits each. */
  private variable(): number {
    const start = this.at;
    let value = 0;
    for (let i = 0; i < 4; i++) {
      const byte = this.byte();
      value = value * 128 + (byte & 0x7f);
      if (byte < 0x80) return value;
    }
    throw new Refused(problem('smf.variable-length', 'error', this.place(start), {}));
  }

  /** Data without a status: refused, unless one was there and a meta or exclusive event ended it. */
  private noStatus(at: number, status: number): void {
    const data = { byte: this.bytes[at]! };
    const place = this.place(at);
    if (status === 0) throw new Refused(problem('smf.no-status', 'error', place, data));
    // The standard ends running status at such an event; many writers do not.
    this.problems.push(problem('smf.no-status', 'warning', place, data));
  }

  /** A message runs past its track: says at its first byte that is no data, or at the end. */
  private cutMessage(at: number, last: number): Refused {
    for (let i = at; i < this.end; i++) if (this.bytes[i]! > 127) return this.notData(i);
    return this.cut(last - this.end + 1, this.end);
  }

  private notData(at: number): Refused {
    return new Refused(problem('smf.data-byte', 'error', this.place(at), { byte: this.bytes[at]! }));
  }

  private byte(): number {
    if (this.at >= this.end) throw this.cut(1);
    return this.bytes[this.at++]!;
  }

  private take(length: number): number {
    if (length > this.end - this.at) throw this.cut(length);
    const from = this.at;
    this.at += length;
    return from;
  }

  private cut(wanted: number, at = this.at): Refused {
    const left = this.end - at;
    return new Refused(problem('smf.event-cut', 'error', this.place(at), { wanted, left }));
  }

  private u16(at: number): number {
    return this.bytes[at]! * 256 + this.bytes[at + 1]!;
  }

  private u32(at: number): number {
    return this.u16(at) * 65536 + this.u16(at + 2);
  }

  private place(offset = this.at): Place {
    return { in: 'bytes', offset, track: this.track };
  }
}

const utf8 = new TextDecoder('utf-8', { fatal: true });
const latin1 = new TextDecoder('latin1');

/** The standard names no character set: UTF-8 where it is that, else Latin-1. */
function decodeText(bytes: Uint8Array): string {
  try {
    return utf8.decode(bytes);
  } catch {
    return latin1.decode(bytes);
  }
}
